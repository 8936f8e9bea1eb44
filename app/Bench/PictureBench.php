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
use Facebook\WebDriver\Remote\RemoteWebDriver;
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
     * From opening the page to the first whole picture, and from an edit to the poses and to the picture of it.
     *
     * @return array<string, float|int>
     */
    public function waiting(Scene $scene, User $user, string $password, int $edits): array
    {
        $browser = Browser::open(1280, 943);
        $d = $browser->driver;
        try {
            $d->manage()->timeouts()->setScriptTimeout(600);
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
            $kinds = $this->kinds($scene, $edits);
            $times = array_map(fn (array $commands): array => $this->timed($d, $commands), $kinds);
        } finally {
            $browser->close();
        }
        $walks = $times['walk'];
        unset($times['walk']);

        return ['first_picture_ms' => $first, 'edits' => $edits] + self::told('edit', array_merge(...array_values($times)))
            + self::told('walk', $walks) + array_merge(...array_map(
                static fn (string $kind, array $of): array => ["server_{$kind}_median_ms" => Figures::median(array_column($of, 'server'))],
                array_keys($times),
                $times,
            ));
    }

    /**
     * Commands of six kinds, none like another; and a seventh, that of one who walks: his ways over the ground are solved anew.
     *
     * @return array<string, list<array<string, mixed>>>
     */
    private function kinds(Scene $scene, int $edits): array
    {
        $item = static fn (string $name): int => (int) $scene->items()->where('name', $name)->value('id');
        $mirre = $item('Mirre');
        $beat = $scene->beats()->where('item_id', $mirre)->orderBy('start')->firstOrFail();
        $camera = $scene->cameras()->orderBy('letter')->firstOrFail();
        $shots = $scene->shots()->orderBy('sort')->get();
        $make = [
            'person' => static fn (int $k): array => ['do' => 'item.place', 'item' => $mirre, 'headingDeg' => -90 + 3.1 * $k],
            'speed' => static fn (int $k): array => ['do' => 'beat.set', 'beat' => $beat->id, 'speed' => 0.9 + 0.011 * $k],
            'touchUp' => static fn (int $k): array => [
                'do' => 'touchUp.key', 'item' => $mirre, 'joint' => 'head', 'frame' => 10, 'turnDeg' => [0, 2.5 * $k + 1, 0],
            ],
            'cut' => static fn (int $k): array => ['do' => 'shot.move', 'shot' => $shots[1]->id, 'frame' => $shots[1]->in_frame + 1 + $k],
            'name' => static fn (int $k): array => ['do' => 'camera.set', 'camera' => $camera->id, 'name' => "Wide {$k}"],
            'camera' => static fn (int $k): array => [
                'do' => 'camera.key', 'camera' => $camera->id, 'frame' => 10, 'position' => [0.2 + 0.01 * $k, 1.6, 7.0],
                'rotation' => [0, 0, 0, 1],
            ],
        ];
        $each = max(1, intdiv($edits, count($make)));

        return array_map(static fn (\Closure $of): array => array_map($of, range(0, $each - 1)), $make) + ['walk' => array_map(
            static fn (int $k): array => ['do' => 'item.place', 'item' => $item('Bram'), 'headingDeg' => -90 + 3.1 * $k],
            range(0, 9),
        )];
    }

    /**
     * @param  list<array<string, mixed>>  $commands
     * @return non-empty-list<array{total: float, server: float, picture: float}>
     */
    private function timed(RemoteWebDriver $driver, array $commands): array
    {
        $answer = $driver->executeAsyncScript(<<<'JS'
            const [commands, done] = arguments;
            (async () => {
                const out = [];
                for (const c of commands) {
                    const t = await window.crispReelWorkspace.timeEdit(c);
                    out.push([t.total, t.server, t.picture]);
                    // As a hand would: what an edit sets going in the background (small pictures, poses farther on) is done by then.
                    await new Promise((r) => setTimeout(r, 1500));
                }
                return out;
            })().then(done, (e) => done(String(e)));
            JS, [$commands]);
        if (! is_array($answer) || $answer === []) {
            throw new RuntimeException('The page measured nothing: '.json_encode($answer));
        }

        return array_map(
            static fn (mixed $t): array => array_combine(['total', 'server', 'picture'], self::numbers($t)),
            array_values($answer),
        );
    }

    /**
     * @param  non-empty-list<array{total: float, server: float, picture: float}>  $times
     * @return array<string, float>
     */
    private static function told(string $what, array $times): array
    {
        $out = [];
        $without = array_map(static fn (array $t): float => $t['total'] - $t['picture'], $times);
        foreach ([
            'to_picture' => array_column($times, 'total'), 'server' => array_column($times, 'server'), 'to_poses' => $without,
            'picture' => array_column($times, 'picture'),
        ] as $name => $of) {
            $out["{$what}_{$name}_median_ms"] = Figures::median($of);
            $out["{$what}_{$name}_p95_ms"] = Figures::quantile($of, 0.95);
        }

        return $out;
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

    private function await(RemoteWebDriver $driver, string $test): void
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
