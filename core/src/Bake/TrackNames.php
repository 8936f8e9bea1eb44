<?php

declare(strict_types=1);

namespace CrispReel\Core\Bake;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Compile\Whereabouts;

/**
 * Names of pieces: each the hash of what the piece is computed from, in its own frames: the item itself, what carries it, what
 * it holds on to, and what those hang on in turn. Nobody's name, letter or colour is part of it.
 */
final class TrackNames
{
    /** @var array<string, string> hashes of what an item is computed from, by piece and item */
    private array $grounds = [];

    /** @var array<int, string> the same of all who have a face, by piece */
    private array $faces = [];

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
            $parts[] = $this->grounds($track->id, $n);
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
        $framed = $this->scene->framed[$id] ?? null;
        if ($framed !== null) {
            return [$camera->sensorWidthMm, $camera->shake?->toArray(), $framed->fingerprint(), $this->seen($framed, $n)];
        }
        // What one is called, or how large its sensor is, moves nothing.
        $still = ['letter' => 0, 'name' => 0, 'sensorWidthMm' => 0, 'sensorHeightMm' => 0, 'locked' => 0, 'wallsAway' => 0];
        $parts = [array_diff_key($camera->toArray(), $still)];
        if ($camera->followsFocus()) {
            $parts[] = $this->faces[$n] ??= implode(' ', array_map(
                fn (int|string $id): string => $this->grounds((string) $id, $n),
                array_keys($this->scene->lanes),
            ));
        }

        return $parts;
    }

    /** @return list<mixed> what those do whom a camera films, as far as it looks before and after piece $n */
    private function seen(FramedCamera $framed, int $n): array
    {
        [$from, $count] = PoseStream::range($this->scene, $n);

        return array_map(fn (string $id): string => $this->over(
            $id, max(0, $from - Whereabouts::REACH), $from + $count + Whereabouts::REACH,
        ), $framed->subjects());
    }

    private function over(string $id, int $from, int $to): string
    {
        return $this->grounds["{$from}-{$to} {$id}"] ??= hash(
            'xxh128',
            json_encode($this->scene->poses->grounds($id, $from, $to), JSON_THROW_ON_ERROR),
        );
    }

    /** The hash of what an item is computed from in piece $n, through all that it hangs on. */
    public function grounds(string $id, int $n): string
    {
        [$from, $count] = PoseStream::range($this->scene, $n);

        return $this->grounds["{$n} {$id}"] ??= hash(
            'xxh128',
            json_encode($this->scene->poses->grounds($id, $from, $from + $count), JSON_THROW_ON_ERROR),
        );
    }
}
