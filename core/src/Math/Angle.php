<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** Angles in radians. */
final class Angle
{
    /** The same direction between -pi and pi. */
    public static function wrapped(float $angle): float
    {
        return atan2(sin($angle), cos($angle));
    }

    /** The shortest turn from one direction to another, between -pi and pi. */
    public static function between(float $from, float $to): float
    {
        return self::wrapped($to - $from);
    }
}
