<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Scene;
use App\Models\User;
use Generator;
use GuzzleHttp\Client;
use GuzzleHttp\Handler\CurlMultiHandler;
use GuzzleHttp\HandlerStack;
use GuzzleHttp\Promise\Coroutine;
use GuzzleHttp\Promise\PromiseInterface;
use GuzzleHttp\Promise\Utils;
use Illuminate\Support\Str;
use Psr\Http\Message\ResponseInterface;
use Throwable;

/**
 * Many people in one scene of the running installation: readers look for changes every second and a half and fetch the pieces
 * that are new, as the page does; each editor does one kind of edit every two seconds: turns somebody, names a camera, moves a
 * cut, keys a camera, changes a speed.
 */
final class LoadBench
{
    private const LOOK_MS = 1500;

    private const EDIT_MS = 2000;

    /** @var array<string, list<float>> milliseconds by kind of call */
    private array $times = [];

    /** @var array<string, int> */
    private array $counts = ['errors' => 0, 'pieces' => 0, 'refused' => 0, 'conflicts' => 0];

    private float $end = 0.0;

    /** @return array<string, float|int> */
    public function run(Scene $scene, int $readers, int $editors, int $seconds): array
    {
        $base = config('app.url');
        $base = is_string($base) ? rtrim($base, '/') : '';
        // New calls start at once, and not when another's answer wakes the loop.
        $http = new Client(['handler' => HandlerStack::create(new CurlMultiHandler(['select_timeout' => 0.002]))]);
        $people = [];
        $password = Str::random(24);
        try {
            for ($n = 0; $n < $readers + $editors; $n++) {
                $user = $people[] = User::query()->create([
                    'name' => "Visitor {$n}", 'email' => Str::lower(Str::random(12)).'@crisp-reel.example', 'password' => $password,
                ]);
                $scene->production->members()->create(['user_id' => $user->id, 'role' => $n < $editors ? 'editor' : 'viewer']);
            }
            $visitors = array_map(static function (User $u) use ($http, $base, $password): Visitor {
                $v = new Visitor($http, $base);
                $v->signIn($u->email, $password);

                return $v;
            }, $people);
            $this->end = microtime(true) + $seconds;
            $all = [];
            $kinds = $this->kinds($scene);
            foreach ($visitors as $n => $v) {
                $all[] = Coroutine::of(fn () => $n < $editors ? $this->edits(
                    $v,
                    $scene->id,
                    $kinds[$n % count($kinds)],
                    $n,
                ) : $this->looks($v, $scene->id, $n));
            }
            Utils::settle($all)->wait();
            $memory = self::megabytes();
        } finally {
            $scene->production->members()->whereIn('user_id', array_map(static fn (User $u): int => $u->id, $people))->delete();
            array_map(static fn (User $u) => $u->delete(), $people);
        }

        return $this->figures($memory);
    }

    /** @return Generator<int, PromiseInterface> */
    private function looks(Visitor $v, int $scene, int $n): Generator
    {
        // Opened as the page does, one after the other.
        $opened = yield $this->timed('open', $v, 'GET', "/api/scenes/{$scene}", null, 200 * $n);
        $got = $opened instanceof ResponseInterface ? json_decode((string) $opened->getBody(), true) : null;
        $since = is_array($got) && is_int($got['scene']['revision'] ?? null) ? $got['scene']['revision'] - 1 : 0;
        $have = [];
        $wait = 0;
        while (microtime(true) < $this->end) {
            $answer = yield $this->timed('changes', $v, 'GET', "/api/scenes/{$scene}/changes?since={$since}&window=w{$n}", null, $wait);
            $wait = self::LOOK_MS;
            $got = $answer instanceof ResponseInterface && $answer->getStatusCode() === 200
                ? json_decode((string) $answer->getBody(), true)
                : null;
            if (! is_array($got)) {
                $this->counts['errors']++;

                continue;
            }
            $since = is_int($got['revision'] ?? null) ? $got['revision'] : $since;
            [$asked, $all] = self::asked($got['manifest'] ?? null, $have);
            foreach (array_chunk($asked, 200) as $some) {
                if (microtime(true) > $this->end) {
                    break;
                }
                $answer = yield $this->timed('pieces', $v, 'GET', "/api/scenes/{$scene}/pieces?of=".implode(';', $some));
                $body = $answer instanceof ResponseInterface && $answer->getStatusCode() === 200 ? (string) $answer->getBody() : null;
                $this->counts['errors'] += $body === null ? 1 : 0;
                $this->counts['pieces'] += substr_count(implode(';', $some), ':');
                $this->counts['refused'] += self::refused($body ?? '');
            }
            $have = $all === [] ? $have : $all;
        }
    }

    /**
     * @param  array<string, true>  $have
     * @return array{list<string>, array<string, true>} "n:name" of the pieces that are new, and the names of all
     */
    private static function asked(mixed $manifest, array $have): array
    {
        $asked = [];
        $all = [];
        foreach (is_array($manifest) ? [...$manifest['items'] ?? [], ...$manifest['cameras'] ?? []] : [] as $of) {
            foreach (is_array($of) ? $of['track']['pieces'] ?? [] : [] as $n => $name) {
                $all[$name] = true;
                if (! isset($have[$name])) {
                    $asked[] = "{$n}:{$name}";
                }
            }
        }

        return [$asked, $all];
    }

    /** Pieces of an answer that were gone. */
    private static function refused(string $body): int
    {
        $gone = 0;
        for ($at = 0; $at + 4 <= strlen($body);) {
            $length = unpack('V', $body, $at)[1] ?? 0;
            $gone += $length === 0xFFFFFFFF ? 1 : 0;
            $at += 4 + ($length === 0xFFFFFFFF ? 0 : $length);
        }

        return $gone;
    }

    /** @return list<callable(int): array<string, mixed>> an edit by its number */
    private function kinds(Scene $scene): array
    {
        $person = (int) $scene->items()->where('kind', 'performer')->orderByDesc('id')->value('id');
        [$camera, $other] = $scene->cameras()->orderBy('id')->limit(2)->pluck('id')->all();
        $shot = $scene->shots()->orderBy('sort')->get()[1];
        $beat = $scene->beats()->where('item_id', $person)->firstOrFail();

        return [
            static fn (int $k): array => ['do' => 'item.place', 'item' => $person, 'headingDeg' => ($k * 7) % 360],
            static fn (int $k): array => ['do' => 'camera.set', 'camera' => $camera, 'name' => "View {$k}"],
            static fn (int $k): array => ['do' => 'shot.move', 'shot' => $shot->id, 'frame' => (int) $shot->in_frame + $k % 5],
            static fn (int $k): array => [
                'do' => 'camera.key', 'camera' => $other, 'frame' => 10, 'position' => [0.0, 1.5 + ($k % 9) / 10, 6.0],
                'rotation' => [0.0, 0.0, 0.0, 1.0],
            ],
            static fn (int $k): array => ['do' => 'beat.set', 'beat' => $beat->id, 'speed' => 1.0 + ($k % 5) / 20],
        ];
    }

    /**
     * @param  callable(int): array<string, mixed>  $edit
     * @return Generator<int, PromiseInterface>
     */
    private function edits(Visitor $v, int $scene, callable $edit, int $n): Generator
    {
        $wait = 400 * $n;
        for ($k = 1; microtime(true) < $this->end; $k++) {
            $answer = yield $this->timed(
                'edit',
                $v,
                'POST',
                "/api/scenes/{$scene}/edits",
                ['call' => (string) Str::uuid(), 'commands' => [$edit($k)]],
                $wait,
            );
            $wait = self::EDIT_MS;
            $status = $answer instanceof ResponseInterface ? $answer->getStatusCode() : 0;
            $this->counts['conflicts'] += $status === 409 ? 1 : 0;
            $this->counts['errors'] += in_array($status, [200, 409], true) ? 0 : 1;
        }
    }

    /** @param  array<string, mixed>|null  $body */
    private function timed(string $kind, Visitor $v, string $method, string $path, ?array $body = null, int $afterMs = 0): PromiseInterface
    {
        $begin = microtime(true) + $afterMs / 1000;

        return $v->send($method, $path, $body, $afterMs)->then(function (ResponseInterface $r) use ($kind, $begin): ResponseInterface {
            $this->times[$kind][] = max(0.0, (microtime(true) - $begin) * 1000);

            return $r;
        }, static fn (Throwable $e): ?ResponseInterface => null);
    }

    /** @return array<string, float|int> */
    private function figures(float $memory): array
    {
        $out = [];
        foreach (['open', 'edit', 'changes', 'pieces'] as $kind) {
            $t = $this->times[$kind] ?? [0.0];
            sort($t);
            $out["{$kind}_calls"] = count($t);
            $out["{$kind}_p50_ms"] = round($t[intdiv(count($t), 2)], 1);
            $out["{$kind}_p95_ms"] = round($t[min(count($t) - 1, (int) floor(0.95 * count($t)))], 1);
        }

        return $out + [
            'pieces' => $this->counts['pieces'],
            'pieces_refused_percent' => round(100 * $this->counts['refused'] / max(1, $this->counts['pieces']), 2),
            'conflicts' => $this->counts['conflicts'],
            'errors' => $this->counts['errors'],
            'web_memory_mb' => round($memory, 1),
        ];
    }

    /** Of the web processes, what they share counted once: proportional set size, summed. */
    private static function megabytes(): float
    {
        $sum = 0.0;
        foreach (glob('/proc/[0-9]*/cmdline') ?: [] as $file) {
            if (preg_match('/^(php-fpm|nginx)/', (string) @file_get_contents($file)) === 1 && preg_match(
                '/^Pss:\s+(\d+) kB/m',
                (string) @file_get_contents(dirname($file).'/smaps_rollup'),
                $m,
            ) === 1) {
                $sum += (int) $m[1] / 1024;
            }
        }

        return $sum;
    }
}
