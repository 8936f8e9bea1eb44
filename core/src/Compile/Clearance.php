<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Geometry\Solids;

/** Whether somebody who stands somewhere stands in something: the trunk and the thighs, without arms, feet and head. */
final class Clearance
{
    /** Metres around the axis of a body of 1.7 m. */
    private const RADIUS = 0.14;

    private const TALL = 1.7;

    /** Shares of the height at which is looked around: thighs, belly, chest. */
    private const LEVELS = [0.3, 0.55, 0.76];

    /** Shares between which nothing may lie across: over the feet, which step on things, to the top of the head. */
    private const AXIS = [0.18, 0.97];

    private const AROUND = 8;

    /** Metres from ring to ring, and rings, in which a clear place is looked for. */
    private const RING = 0.2;

    private const RINGS = 20;

    /** Metres above the feet up to which what is there is what one would stand on. */
    private const REACH = 1.0;

    /** Metres that the ground of a clear place may be above or below: a kerb, and not the bed of a cart. */
    private const STEP = 0.2;

    /**
     * What a body stands in.
     *
     * @param  array{float, float, float}  $feet  where it stands
     * @param  float  $height  metres
     */
    public static function within(Solids $solids, array $feet, float $height): ?string
    {
        [$x, $y, $z] = $feet;
        $found = $solids->between([$x, $y + self::AXIS[0] * $height, $z], [$x, $y + self::AXIS[1] * $height, $z]);
        $r = self::RADIUS * $height / self::TALL;
        foreach (self::LEVELS as $level) {
            for ($k = 0; $found === null && $k < self::AROUND; $k++) {
                $a = 2 * M_PI * $k / self::AROUND;
                $at = $y + $level * $height;
                $found = $solids->between([$x, $at, $z], [$x + $r * sin($a), $at, $z + $r * cos($a)]);
            }
        }

        return $found['name'] ?? null;
    }

    /**
     * The nearest place on about the same floor where a body stands in nothing.
     *
     * @param  array{float, float, float}  $feet
     * @return array{float, float, float}|null null: there is none within four metres
     */
    public static function near(Solids $solids, array $feet, float $height): ?array
    {
        for ($ring = 1; $ring <= self::RINGS; $ring++) {
            for ($k = 0, $n = 6 * $ring; $k < $n; $k++) {
                $a = 2 * M_PI * $k / $n;
                $x = $feet[0] + $ring * self::RING * sin($a);
                $z = $feet[2] + $ring * self::RING * cos($a);
                // In the open there is the plain ground under all sets.
                $y = $solids->height($x, $z, $feet[1] + self::REACH) ?? 0.0;
                if (abs($y - $feet[1]) < self::STEP && self::within($solids, [$x, $y, $z], $height) === null) {
                    return [$x, $y, $z];
                }
            }
        }

        return null;
    }
}
