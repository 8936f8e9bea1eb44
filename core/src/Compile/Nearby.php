<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;

/** Who and what is nearest to somebody: whom they would do something with, what they would ride. */
final class Nearby
{
    /** Metres in which anybody is near, and degrees off the way the body faces in which they count as they are. */
    private const FAR = 5.0;

    private const AHEAD = 70.0;

    /** Metres in which a thing is near. */
    private const THING = 12.0;

    /** How much farther somebody behind seems. */
    private const BEHIND = 2.0;

    /** @return string|null the performer; null where nobody is near */
    public static function to(CompiledScene $scene, string $id, float $frame): ?string
    {
        [$x, $z, $facing] = self::stands($scene, $id, $frame);
        $best = [self::FAR, null];
        foreach (array_keys($scene->lanes) as $other) {
            if ((string) $other === $id || $scene->document->items[$other]->kind !== 'performer') {
                continue;
            }
            [$ox, $oz] = self::stands($scene, (string) $other, $frame);
            $far = hypot($ox - $x, $oz - $z);
            $off = abs(rad2deg(Angle::wrapped(atan2($ox - $x, $oz - $z) - $facing)));
            $far *= $off > self::AHEAD ? self::BEHIND : 1.0;
            if ($far < $best[0]) {
                $best = [$far, (string) $other];
            }
        }

        return $best[1];
    }

    /** @return string|null the nearest thing that has places for a rider; null where none is near */
    public static function rideable(CompiledScene $scene, AssetSource $assets, string $id, float $frame): ?string
    {
        [$x, $z] = self::stands($scene, $id, $frame);
        $best = [self::THING, null];
        foreach ($scene->document->items as $thing) {
            if ($thing->kind === 'performer' || Rides::section($assets->digest($scene->document->assets[$thing->asset]), 'rider') === []) {
                continue;
            }
            $at = $scene->poses->at($frame)->place($thing->id)->position;
            $far = hypot($at[0] - $x, $at[2] - $z);
            if ($far < $best[0]) {
                $best = [$far, $thing->id];
            }
        }

        return $best[1];
    }

    /** @return array{float, float, float} x, z and heading of the hips */
    public static function stands(CompiledScene $scene, string $id, float $frame): array
    {
        $figure = $scene->lanes[$id]->figure;
        $hips = $scene->poses->at($frame)->joint($id, $figure->hips);

        return [
            $hips->position[0], $hips->position[2],
            Q4::heading(Q4::mul($hips->rotation, Q4::conjugate($figure->restTurn($figure->hips)))),
        ];
    }
}
