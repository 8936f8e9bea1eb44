<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderJob;
use RuntimeException;

/** Draws frames of a render in the browser page that the workspace's drawing module also lives in. */
final class FramePainter
{
    private const BATCH = 6;

    public function __construct(private readonly FrameStore $frames)
    {
    }

    /**
     * @param  list<int>  $wanted
     * @param  callable(int $drawn): bool  $goOn  asked after every few frames
     * @return int frames drawn
     */
    public function paint(RenderJob $job, array $wanted, callable $goOn): int
    {
        if ($wanted === []) {
            return 0;
        }
        $browser = Browser::open((int) $job->width, (int) $job->height);
        $drawn = 0;
        try {
            $base = config('reel.internal_url');
            $browser->driver->manage()->timeouts()->setScriptTimeout(300);
            $browser->driver->get((is_string($base) ? $base : '')."/internal/draw/{$job->id}#{$job->token}");
            $this->call($browser, 'ready', []);
            foreach (array_chunk($wanted, self::BATCH) as $batch) {
                $this->call($browser, 'draw', $batch);
                foreach ($batch as $f) {
                    $drawn += $this->frames->has($job, $f) ? 1 : throw new RuntimeException("Frame {$f} was drawn and did not arrive.");
                }
                if (! $goOn($drawn)) {
                    break;
                }
            }
        } finally {
            $browser->close();
        }

        return $drawn;
    }

    /** @param  list<int>  $frames */
    private function call(Browser $browser, string $what, array $frames): void
    {
        $script = <<<'JS'
            const done = arguments[arguments.length - 1];
            const what = arguments[0], frames = arguments[1];
            const start = Date.now();
            (function wait() {
                if (!window.crispReel) {
                    if (Date.now() - start > 60000) { done('The drawing page did not load.'); return; }
                    setTimeout(wait, 50);
                    return;
                }
                const work = what === 'ready' ? window.crispReel.ready : window.crispReel.draw(frames);
                work.then(() => done(''), (e) => done(String(e && e.message || e)));
            })();
            JS;
        $answer = $browser->driver->executeAsyncScript($script, [$what, $frames]);
        if ($answer !== '') {
            throw new RuntimeException('The drawing page failed: '.(is_string($answer) ? $answer : 'no answer'));
        }
    }
}
