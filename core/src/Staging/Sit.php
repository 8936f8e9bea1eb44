<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Compile\Approach;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Nearby;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** Somebody goes to the nearest seat that is free and sits down on it. */
final class Sit
{
    /** Metres in which a seat is near, and in which nobody else may be over it. */
    private const NEAR = 4.0;

    private const TAKEN = 0.35;

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
        $best = [self::NEAR, null];
        foreach ($scene->document->items as $item) {
            $stand = self::before($scene, $assets, $item, $who, $at, $unit);
            $far = $stand === null ? INF : hypot($stand[0] - $x, $stand[1] - $z);
            if ($far < $best[0]) {
                $best = [$far, $stand];
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
     * Where one stands before a seat to sit down on it.
     *
     * @return array{float, float, float}|null x, z and heading; null: it is no seat, or somebody sits there
     */
    private static function before(CompiledScene $scene, AssetSource $assets, Item $item, string $who, int $at, float $unit): ?array
    {
        $digest = $assets->digest($scene->document->assets[$item->asset]);
        $mounts = is_array($digest['mounts'] ?? null) ? $digest['mounts'] : [];
        $seat = is_array($mounts['seat'] ?? null) ? $mounts['seat'] : null;
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        if ($item->kind === 'performer' || $seat === null || isset($extras['vehicle'])) {
            return null;
        }

        /** @var array{float, float, float} $position */
        $position = $seat['position'];
        $place = $scene->poses->at($at)->place($item->id);
        $on = $place->point($position);
        foreach (array_keys($scene->lanes) as $other) {
            $hips = $scene->poses->at($at)->joint((string) $other, $scene->lanes[$other]->figure->hips)->position;
            if ((string) $other !== $who && hypot($hips[0] - $on[0], $hips[2] - $on[2]) < self::TAKEN) {
                return null;
            }
        }
        $ahead = Q4::rotate($place->rotation, [0.0, 0.0, 1.0]);
        $stand = V3::addScaled($on, $ahead, self::BEFORE * $unit);

        return [$stand[0], $stand[2], atan2($ahead[0], $ahead[2])];
    }
}
