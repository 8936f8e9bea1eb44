<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Compile\Approach;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Mounts;
use CrispReel\Core\Compile\Nearby;
use CrispReel\Core\Compile\Rides;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;

/** Somebody goes to the nearest seat that is free and sits down on it. */
final class Sit
{
    /** Metres in which a seat is near, and in which nobody else may be over it. */
    private const NEAR = 4.0;

    private const TAKEN = 0.35;

    /** Metres of a person of 1.70 m: how far below the hips of who stands seats are, more or less. */
    private const LOWER = 0.42;

    private const STOREY = 0.40;

    /** Metres of a person of 1.70 m from where one stands to where the hips come down. */
    private const BEFORE = 0.345;

    /** Metres and radians within which somebody stands there already. */
    private const THERE = [0.12, 0.3];

    /**
     * @param  string  $who  item of a performer
     * @return list<Command> none: no seat is near, or the performer stands before something that it can sit on
     */
    public static function of(CompiledScene $scene, AssetSource $assets, string $who, int $at): array
    {
        [$x, $z, $facing] = Nearby::stands($scene, $who, (float) $at);
        $unit = $scene->lanes[$who]->figure->body()->scale * $scene->document->items[$who]->scale;
        $moment = $scene->poses->at($at);
        $hips = [];
        foreach (array_diff_key($scene->lanes, [$who => 0]) as $other => $lane) {
            $hips[] = $moment->joint((string) $other, $lane->figure->hips)->position;
        }
        // A seat on another storey is none to walk to.
        $sits = $moment->joint($who, $scene->lanes[$who]->figure->hips)->position[1] - self::LOWER * $unit;
        $best = [self::NEAR, null];
        foreach ($scene->document->items as $item) {
            $seats = $item->kind === 'performer' ? [] : self::seats($assets->digest($scene->document->assets[$item->asset]));
            foreach ($seats as $seat) {
                $on = $moment->place($item->id)->of($seat);
                $stand = abs($on->position[1] - $sits) > self::STOREY * $unit ? null : self::before($on, $hips, $unit);
                $far = $stand === null ? INF : hypot($stand[0] - $x, $stand[1] - $z);
                if ($far < $best[0]) {
                    $best = [$far, $stand];
                }
            }
        }
        [$far, $stand] = $best;
        $turn = $stand === null ? 0.0 : abs(Angle::wrapped($stand[2] - $facing));
        if ($stand === null || ($far < self::THERE[0] && $turn < self::THERE[1])) {
            return [];
        }
        $start = $at + Approach::frames($far, rad2deg($turn), $scene->document->rate->perSecond());

        return [
            Command::of('beat.add', item: $who, motion: 'walk', start: $at, path: [
                'points' => [[round($stand[0], 4), round($stand[1], 4)]], 'arrive' => $start, 'faceDeg' => round(rad2deg($stand[2]), 2),
            ]),
            Command::of('beat.add', item: $who, motion: 'sit-down', start: $start),
        ];
    }

    /**
     * All places to sit of a thing that is not ridden.
     *
     * @param  array<string, mixed>  $digest
     * @return list<Placement>
     */
    private static function seats(array $digest): array
    {
        $mounts = Rides::section($digest, 'rider') === [] && is_array($digest['mounts'] ?? null) ? array_keys($digest['mounts']) : [];
        $seats = array_filter($mounts, static fn (int|string $name): bool => str_starts_with((string) $name, 'seat'));

        return array_values(
            array_filter(array_map(static fn (int|string $name): ?Placement => Mounts::in($digest, (string) $name), $seats)),
        );
    }

    /**
     * Where one stands before a seat to sit down on it.
     *
     * @param  list<array{float, float, float}>  $hips  of everybody else
     * @return array{float, float, float}|null x, z and heading; null: somebody sits there
     */
    private static function before(Placement $seat, array $hips, float $unit): ?array
    {
        [$x, , $z] = $seat->position;
        foreach ($hips as $p) {
            if (hypot($p[0] - $x, $p[2] - $z) < self::TAKEN) {
                return null;
            }
        }
        $ahead = Q4::rotate($seat->rotation, [0.0, 0.0, 1.0]);

        return [$x + $ahead[0] * self::BEFORE * $unit, $z + $ahead[2] * self::BEFORE * $unit, atan2($ahead[0], $ahead[2])];
    }
}
