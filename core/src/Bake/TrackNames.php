<?php

declare(strict_types=1);

namespace CrispReel\Core\Bake;

use CrispReel\Core\Compile\CompiledScene;

/**
 * Names of pieces: each the hash of what the piece is computed from, in its own frames: the item itself, what carries it, what
 * it holds on to, and what those hang on in turn. Nobody's name, letter or colour is part of it.
 */
final class TrackNames
{
    /** @var array<string, string> what an item alone is computed from in a piece, by piece and item */
    private array $own = [];

    /** @var array<string, list<string>> all that it hangs on, itself among them */
    private array $hangsOn = [];

    public function __construct(private readonly CompiledScene $scene)
    {
    }

    /** The name of piece $n: 22 characters that may stand in an address. */
    public function of(Track $track, int $n): string
    {
        [$from, $count] = PoseStream::range($this->scene, $n);
        $parts = [PoseStream::VERSION, PoseStream::NAMES, $from, $count, $track->id];
        if ($track->kind === 'camera') {
            $parts[] = $this->camera($track->id, $n);
        } elseif ($track->kind === 'cloth') {
            $parts[] = $this->scene->cloths[$track->id]->key($n);
        }
        if ($track->kind !== 'camera') {
            foreach ($this->hangsOn($track->id, $n) as $id) {
                $parts[] = $this->own($id, $n);
            }
        }

        return self::named(json_encode($parts, JSON_THROW_ON_ERROR));
    }

    public static function named(string $from): string
    {
        return rtrim(strtr(base64_encode(substr(hash('sha256', $from, true), 0, 16)), '+/', '-_'), '=');
    }

    /** @return list<mixed> */
    private function camera(string $id, int $n): array
    {
        $camera = $this->scene->document->cameras[$id];
        // What one is called, or how large its sensor is, moves nothing.
        $parts = [array_diff_key($camera->toArray(), ['letter' => 0, 'name' => 0, 'sensorWidthMm' => 0, 'sensorHeightMm' => 0])];
        if ($camera->followsFocus()) {
            foreach (array_keys($this->scene->lanes) as $performer) {
                foreach ($this->hangsOn($performer, $n) as $item) {
                    $parts[] = $this->own($item, $n);
                }
            }
        }

        return $parts;
    }

    private function own(string $id, int $n): string
    {
        [$from, $count] = PoseStream::range($this->scene, $n);

        return $this->own["{$n} {$id}"] ??= hash(
            'xxh128',
            json_encode($this->scene->poses->fingerprint($id, $from, $from + $count), JSON_THROW_ON_ERROR),
        );
    }

    /** @return list<string> in the same order whenever they are the same */
    private function hangsOn(string $id, int $n): array
    {
        if (isset($this->hangsOn["{$n} {$id}"])) {
            return $this->hangsOn["{$n} {$id}"];
        }
        [$from, $count] = PoseStream::range($this->scene, $n);
        $found = [$id => true];
        for ($open = [$id]; $open !== [];) {
            foreach ($this->scene->poses->hangsOn(array_pop($open), $from, $from + $count) as $next) {
                if (! isset($found[$next])) {
                    $found[$next] = true;
                    $open[] = $next;
                }
            }
        }
        $all = array_map(strval(...), array_keys($found));
        sort($all);

        return $this->hangsOn["{$n} {$id}"] = $all;
    }
}
