<?php

declare(strict_types=1);

namespace CrispReel\Core\Bake;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Moment;
use CrispReel\Core\Evaluate\CameraPose;
use CrispReel\Core\Evaluate\SceneEvaluator;

/**
 * The pose stream: blocks of 48 frames, each named by the hash of what it is computed from. docs/pose-stream.md has the
 * layout; VERSION is part of every hash.
 */
final class PoseStream
{
    public const VERSION = 1;

    /** Raise when names are made otherwise, or the poses behind them: those of before are then no longer taken for these. */
    public const NAMES = 3;

    public const BLOCK = CompiledScene::PIECE;

    public const MAGIC = 'CRPS';

    private const PLACE = 10;

    private const CAMERA = 10;

    public static function blocks(CompiledScene $scene): int
    {
        return max(1, (int) ceil($scene->frames / self::BLOCK));
    }

    /** The name of block $n. */
    public static function hash(CompiledScene $scene, int $n): string
    {
        return self::named($scene, $n, self::throughout($scene));
    }

    /** @return list<string> names of all blocks; what holds for the whole scene is written down once, not once a block */
    public static function hashes(CompiledScene $scene): array
    {
        $throughout = self::throughout($scene);

        return array_map(static fn (int $n): string => self::named($scene, $n, $throughout), range(0, self::blocks($scene) - 1));
    }

    /** @param  string  $throughout  as of throughout() */
    private static function named(CompiledScene $scene, int $n, string $throughout): string
    {
        [$from, $count] = self::range($scene, $n);
        $parts = [self::VERSION, self::NAMES, $count, $from];
        foreach ($scene->order as $id) {
            $parts[] = isset($scene->lanes[$id]) ? $scene->lanes[$id]->fingerprint($from, $from + $count) : null;
            if (isset($scene->cloths[$id])) {
                $parts[] = $scene->cloths[$id]->key($n);
            }
        }

        return hash('sha256', json_encode($parts, JSON_THROW_ON_ERROR).$throughout);
    }

    /** What every block of a scene is computed from, whichever its frames. */
    private static function throughout(CompiledScene $scene): string
    {
        $parts = [];
        foreach ($scene->order as $id) {
            $parts[] = $scene->poses->throughout($id);
        }
        foreach ($scene->document->cameras as $camera) {
            // What one is called, or how large its sensor is, moves nothing.
            $parts[] = array_diff_key($camera->toArray(), ['letter' => 0, 'name' => 0, 'sensorWidthMm' => 0, 'sensorHeightMm' => 0]);
        }

        return hash('sha256', json_encode($parts, JSON_THROW_ON_ERROR));
    }

    /** @return array{int, int} first frame and count */
    public static function range(CompiledScene $scene, int $n): array
    {
        $from = $n * self::BLOCK;

        return [$from, max(1, min(self::BLOCK, $scene->frames - $from))];
    }

    /** Block $n as bytes. */
    public static function block(CompiledScene $scene, int $n): string
    {
        [$from, $count] = self::range($scene, $n);
        $moments = [];
        for ($i = 0; $i < $count; $i++) {
            $moments[] = $scene->poses->at($from + $i);
        }
        $tracks = [];
        foreach ($scene->order as $id) {
            $tracks[] = self::track($scene, $id, $from, $moments);
        }
        $rows = [];
        foreach ($moments as $i => $moment) {
            foreach (SceneEvaluator::cameras($scene, $moment, $from + $i) as $id => $pose) {
                foreach (self::cameraRow($pose) as $v) {
                    $rows[$id][] = $v;
                }
            }
        }
        foreach ($rows as $id => $values) {
            $tracks[] = [
                'head' => ['camera' => (string) $id, 'kind' => 'camera', 'stride' => self::CAMERA, 'rows' => $count],
                'bytes' => pack('g*', ...$values),
            ];
        }

        return self::pack($from, $count, $tracks);
    }

    /**
     * @param  list<Moment>  $moments
     * @return array{head: array<string, mixed>, bytes: string}
     */
    private static function track(CompiledScene $scene, string $id, int $from, array $moments): array
    {
        $lane = $scene->lanes[$id] ?? null;
        $moves = ($scene->carries[$id] ?? []) !== [] || $scene->document->items[$id]->moves();
        $cloth = $scene->cloths[$id] ?? null;
        $rows = $lane !== null || $moves || $cloth !== null ? count($moments) : 1;
        $joints = $lane?->figure->skeleton->count() ?? 0;
        $morphs = $lane === null ? 0 : count($lane->figure->morphs);
        $bytes = '';
        for ($i = 0; $i < $rows; $i++) {
            $bytes .= pack('g10', ...$moments[$i]->place($id)->flat());
            if ($cloth !== null) {
                $bytes .= pack('g*', ...$cloth->at($from + $i));
            } elseif ($lane !== null) {
                // A row ends with the root's way, which nobody draws.
                $bytes .= substr(pack('g*', ...$moments[$i]->row($id)), 0, 4 * (3 + 4 * $joints + $morphs));
            }
        }
        if ($cloth !== null) {
            return [
                'head' => [
                    'item' => $id, 'kind' => 'cloth', 'stride' => self::PLACE + 3 * $cloth->particles(), 'rows' => $rows,
                    'particles' => $cloth->particles(),
                ],
                'bytes' => $bytes,
            ];
        }
        $head = [
            'item' => $id,
            'kind' => $lane === null ? 'place' : 'figure',
            'stride' => self::PLACE + ($lane === null ? 0 : 3 + 4 * $joints + $morphs),
            'rows' => $rows,
        ];

        return ['head' => $lane === null ? $head : $head + ['joints' => $joints, 'morphs' => $morphs], 'bytes' => $bytes];
    }

    /** @return list<float> */
    private static function cameraRow(CameraPose $c): array
    {
        return [...$c->position, ...$c->rotation, $c->focalMm, $c->focusMetres, $c->fStop];
    }

    /** @param  list<array{head: array<string, mixed>, bytes: string}>  $tracks */
    private static function pack(int $from, int $count, array $tracks): string
    {
        $heads = [];
        $offset = 0;
        $body = [];
        foreach ($tracks as $t) {
            $heads[] = $t['head'] + ['offset' => $offset];
            $offset += intdiv(strlen($t['bytes']), 4);
            $body[] = $t['bytes'];
        }
        $json = json_encode(['from' => $from, 'count' => $count, 'tracks' => $heads], JSON_THROW_ON_ERROR);
        $json .= str_repeat(' ', (4 - strlen($json) % 4) % 4);

        return self::MAGIC.pack('VV', self::VERSION, strlen($json)).$json.implode('', $body);
    }
}
