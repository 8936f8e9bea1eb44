<?php

declare(strict_types=1);

namespace CrispReel\Core\Bake;

use CrispReel\Core\Camera\CameraMove;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Moment;
use CrispReel\Core\Evaluate\SceneEvaluator;

/**
 * The pose stream: for everything that moves a track, in pieces of 48 frames, each named by the hash of what it is computed
 * from. docs/pose-stream.md has the layout; VERSION is part of every name.
 */
final class PoseStream
{
    public const VERSION = 2;

    /** Raise when names are made otherwise, or the poses behind them: those of before are then no longer taken for these. */
    public const NAMES = 6;

    public const PIECE = CompiledScene::PIECE;

    private const PLACE = 10;

    private const CAMERA = 10;

    /** Pieces of every track that moves. */
    public static function pieces(CompiledScene $scene): int
    {
        return max(1, (int) ceil($scene->frames / self::PIECE));
    }

    /** @return array{int, int} first frame and count */
    public static function range(CompiledScene $scene, int $n): array
    {
        $from = $n * self::PIECE;

        return [$from, max(1, min(self::PIECE, $scene->frames - $from))];
    }

    /** @return array<string, Track> by item */
    public static function items(CompiledScene $scene): array
    {
        $out = [];
        foreach ($scene->order as $id) {
            $out[$id] = self::item($scene, $id);
        }

        return $out;
    }

    private static function item(CompiledScene $scene, string $id): Track
    {
        $cloth = $scene->cloths[$id] ?? null;
        if ($cloth !== null) {
            return new Track($id, 'cloth', self::PLACE + 3 * $cloth->particles(), particles: $cloth->particles());
        }
        $figure = $scene->lanes[$id]->figure ?? null;
        if ($figure !== null) {
            $joints = $figure->skeleton->count();
            $morphs = count($figure->morphs);

            return new Track($id, 'figure', self::PLACE + 3 + 4 * $joints + $morphs, $joints, $morphs);
        }
        $moves = ($scene->carries[$id] ?? []) !== [] || isset($scene->drives[$id]) || $scene->document->items[$id]->moves();

        return new Track($id, 'place', self::PLACE, still: $moves ? null : $scene->poses->at(0.0)->place($id)->flat());
    }

    /** @return array<string, Track> by camera */
    public static function cameras(CompiledScene $scene): array
    {
        return array_map(static fn ($c): Track => new Track(
            $c->id,
            'camera',
            self::CAMERA,
            still: count($c->keys) === 1 && ! $c->followsFocus() && ! isset($scene->framed[$c->id]) && $c->shake === null
                ? self::cameraRow(CameraMove::at($c, 0.0))
                : null,
        ), $scene->document->cameras);
    }

    /** @return list<Track> of all that moves: what has pieces */
    public static function moving(CompiledScene $scene): array
    {
        $all = [...array_values(self::items($scene)), ...array_values(self::cameras($scene))];

        return array_values(array_filter($all, static fn (Track $t): bool => $t->still === null));
    }

    /** The name of piece $n of an item or a camera. */
    public static function name(CompiledScene $scene, Track $track, int $n): string
    {
        return (new TrackNames($scene))->of($track, $n);
    }

    /**
     * @param  array<string, Track>  $tracks
     * @return array<string, list<string>> names of all pieces by track; none for what never moves
     */
    public static function names(CompiledScene $scene, array $tracks): array
    {
        $names = new TrackNames($scene);
        $all = range(0, self::pieces($scene) - 1);

        return array_map(
            static fn (Track $t): array => $t->still !== null ? [] : array_map(static fn (int $n): string => $names->of($t, $n), $all),
            $tracks,
        );
    }

    /**
     * Piece $n of some tracks: rows of little-endian 32-bit floats one after the other; one row alone where all are alike.
     *
     * @param  list<Track>  $tracks
     * @param  Memory|null  $memory  of whoever bakes one state after the other
     * @return list<string>
     */
    public static function bake(CompiledScene $scene, array $tracks, int $n, ?Memory $memory = null): array
    {
        [$from, $count] = self::range($scene, $n);
        $moments = [];
        for ($i = 0; $i < $count; $i++) {
            $moments[] = $scene->poses->at($from + $i);
        }
        $follows = array_filter(
            $tracks,
            static fn (Track $t): bool => $t->kind === 'camera' && ! isset($scene->framed[$t->id])
                && $scene->document->cameras[$t->id]->followsFocus(),
        );
        $faces = $follows === [] ? [] : self::faces($scene, $n, $moments, $memory ?? new Memory);

        return array_map(static fn (Track $t): string => self::piece($scene, $t, $from, $moments, $faces), $tracks);
    }

    /**
     * Where everybody's face is, by frame of the piece. Most of a camera's cost is that it looks at all: who does what he did
     * before is remembered.
     *
     * @param  list<Moment>  $moments
     * @return list<list<array{float, float, float}>>
     */
    private static function faces(CompiledScene $scene, int $n, array $moments, Memory $memory): array
    {
        $names = new TrackNames($scene);
        $out = array_fill(0, count($moments), []);
        foreach (array_keys($scene->lanes) as $id) {
            $of = static fn (Moment $m): ?array => $m->face((string) $id);
            $points = $memory->of("faces {$n} ".$names->grounds((string) $id, $n), static fn (): array => array_map($of, $moments));
            foreach ($points as $i => $point) {
                if ($point !== null) {
                    $out[$i][] = $point;
                }
            }
        }

        return $out;
    }

    /** Bakes a whole scene and lets go of it, as a measure; its bytes. */
    public static function all(CompiledScene $scene): int
    {
        $bytes = 0;
        $moving = self::moving($scene);
        for ($n = 0; $n < self::pieces($scene); $n++) {
            $bytes += array_sum(array_map(strlen(...), self::bake($scene, $moving, $n)));
        }

        return $bytes;
    }

    /**
     * @param  list<Moment>  $moments
     * @param  list<list<array{float, float, float}>>  $faces
     */
    private static function piece(CompiledScene $scene, Track $track, int $from, array $moments, array $faces): string
    {
        $rows = [];
        foreach ($moments as $i => $moment) {
            $rows[] = $track->kind === 'camera'
                ? pack('g*', ...self::cameraRow(
                    SceneEvaluator::camera($scene, $scene->document->cameras[$track->id], $from + $i, $faces[$i] ?? []),
                ))
                : self::row($scene, $track, $moment, $from + $i);
        }

        return count(array_unique($rows)) === 1 ? $rows[0] : implode('', $rows);
    }

    private static function row(CompiledScene $scene, Track $track, Moment $moment, int $frame): string
    {
        $place = pack('g10', ...$moment->place($track->id)->flat());

        return match ($track->kind) {
            'cloth' => $place.pack('g*', ...$scene->cloths[$track->id]->at($frame)),
            // A row ends with the root's way, which nobody draws.
            'figure' => $place.substr(pack('g*', ...$moment->row($track->id)), 0, 4 * ($track->stride - self::PLACE)),
            default => $place,
        };
    }

    /** @return list<float> */
    private static function cameraRow(CameraPose $c): array
    {
        return [...$c->position, ...$c->rotation, $c->focalMm, $c->focusMetres, $c->fStop];
    }
}
