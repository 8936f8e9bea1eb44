<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\RenderJob;
use App\Models\Scene;
use App\Models\User;
use App\Renders\Browser;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;
use App\Scenes\SceneStream;
use Facebook\WebDriver\WebDriverBy;
use RuntimeException;

/** What drawing costs, and how long a person waits, measured in headless Chromium against the running server. */
final class PictureBench
{
    public function __construct(
        private readonly RenderDesk $desk,
        private readonly SceneStream $stream,
        private readonly FrameStore $frames,
    ) {
    }

    /**
     * Milliseconds a frame of a wide, a shoulder and a close shot, and the same frames by a plain three.js loop.
     *
     * @return array<string, float|int|string>
     */
    public function drawing(Scene $scene, string $quality, int $width, int $height): array
    {
        $job = $this->desk->prepare($scene, null, ['width' => $width, 'height' => $height, 'format' => 'png', 'quality' => $quality]);
        $shots = $this->shots($scene);
        $browser = Browser::open($width, $height);
        $out = ['quality' => $quality, 'size' => "{$width}x{$height}"];
        try {
            $browser->driver->manage()->timeouts()->setScriptTimeout(300);
            $browser->driver->get($this->url("/internal/draw/{$job->id}#{$job->token}"));
            $out['gpu'] = self::string($this->ask($browser, 'await r.ready; return r.gpu();'));
            $all = [];
            foreach ($shots as $name => $frames) {
                $times = self::numbers($this->ask($browser, 'await r.time(a.slice(0, 2)); return r.time(a);', $frames));
                $out["{$name}_ms"] = Figures::median($times);
                $all = [...$all, ...$times];
            }
            $plain = [];
            foreach ($shots as $frames) {
                $plain = [...$plain, ...self::numbers($this->ask($browser, 'await r.plain(a.slice(0, 2)); return r.plain(a);', $frames))];
            }
            $out['mean_ms'] = array_sum($all) / count($all);
            $out['plain_three_mean_ms'] = array_sum($plain) / count($plain);
            $out['ratio'] = $out['mean_ms'] / $out['plain_three_mean_ms'];
        } finally {
            $browser->close();
            $this->frames->clear($job);
            RenderJob::query()->whereKey($job->id)->delete();
        }

        return $out;
    }

    /**
     * From opening the page to the first whole picture, and from an edit to the picture of it.
     *
     * @return array<string, float|int>
     */
    public function waiting(Scene $scene, User $user, string $password, int $edits): array
    {
        $browser = Browser::open(1280, 943);
        $d = $browser->driver;
        try {
            $d->manage()->timeouts()->setScriptTimeout(120);
            $d->get($this->url('/'));
            $this->await($d, 'document.querySelector("#email")');
            $d->findElement(WebDriverBy::id('email'))->sendKeys($user->email);
            $d->findElement(WebDriverBy::id('password'))->sendKeys($password);
            $d->findElement(WebDriverBy::cssSelector('button[type=submit]'))->click();
            $this->await($d, '!document.querySelector("#email")');
            $d->get($this->url("/scenes/{$scene->id}"));
            $this->await($d, 'window.crispReelWorkspace?.firstPicture()');
            $first = self::numbers([$d->executeScript('return window.crispReelWorkspace.firstPicture()')])[0];
            // Thumbnails of the reel are drawn in the first seconds; let them finish.
            sleep(6);
            $edit = fn (string $who, int $count): array => self::numbers($d->executeAsyncScript(<<<'JS'
                const [item, edits, done] = arguments;
                (async () => {
                    const out = [];
                    for (let i = 0; i < edits; i++) out.push(await window.crispReelWorkspace.timeEdit({ do: 'item.place', item, headingDeg: -90 + (i % 7) * 3 + 1 }));
                    return out;
                })().then(done, (e) => done(String(e)));
                JS, [$scene->items()->where('name', $who)->value('id'), $count]));
            $times = $edit('Mirre', $edits);
            // Bram walks: his ways over the ground are solved anew each time he is turned.
            $walks = $edit('Bram', 10);
            if ($times === [] || $walks === []) {
                throw new RuntimeException('No edit was measured.');
            }
        } finally {
            $browser->close();
        }

        return [
            'first_picture_ms' => $first, 'edits' => $edits, 'edit_to_picture_median_ms' => Figures::median($times),
            'edit_to_picture_p95_ms' => Figures::quantile($times, 0.95), 'walk_to_picture_median_ms' => Figures::median($walks),
        ];
    }

    /** @return array<string, list<int>> ten frames of the first wide, shoulder and close shot */
    private function shots(Scene $scene): array
    {
        $compiled = $this->stream->compile($scene);
        $letters = [];
        foreach ($compiled->document->cameras as $c) {
            $letters[$c->letter] = $c->id;
        }
        $out = [];
        foreach (['wide' => 'A', 'shoulder' => 'B', 'close' => 'D'] as $name => $letter) {
            foreach ($compiled->shots as $s) {
                if ($s->camera === $letters[$letter]) {
                    $out[$name] = array_map(static fn (int $k): int => $s->in + 4 + 3 * $k, range(0, 9));
                    break;
                }
            }
        }

        return $out;
    }

    /** @param  list<int>  $frames */
    private function ask(Browser $browser, string $body, array $frames = []): mixed
    {
        $answer = $browser->driver->executeAsyncScript(<<<JS
            const a = arguments[0], done = arguments[arguments.length - 1];
            (async () => {
                for (let i = 0; i < 600 && !window.crispReel; i++) await new Promise((w) => setTimeout(w, 50));
                const r = window.crispReel;
                {$body}
            })().then((v) => done({ value: v }), (e) => done({ error: String(e) }));
            JS, [$frames]);
        if (! is_array($answer) || ! array_key_exists('value', $answer)) {
            throw new RuntimeException('The drawing page failed: '.json_encode($answer));
        }

        return $answer['value'];
    }

    private function await(\Facebook\WebDriver\Remote\RemoteWebDriver $driver, string $test): void
    {
        for ($end = microtime(true) + 60; microtime(true) < $end; usleep(50_000)) {
            if ($driver->executeScript("return !!({$test})") === true) {
                return;
            }
        }
        throw new RuntimeException("Waited a minute for: {$test}");
    }

    private function url(string $path): string
    {
        return rtrim(self::string(config('reel.internal_url')), '/').$path;
    }

    private static function string(mixed $v): string
    {
        return is_string($v) ? $v : '';
    }

    /** @return non-empty-list<float> */
    private static function numbers(mixed $v): array
    {
        if (! is_array($v) || $v === []) {
            throw new RuntimeException('The page measured nothing: '.json_encode($v));
        }

        return array_map(
            static fn (mixed $x): float => is_numeric($x) ? (float) $x : throw new RuntimeException('Not a time: '.json_encode($x)),
            array_values($v),
        );
    }
}
