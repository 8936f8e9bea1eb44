<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/**
 * Kernel for 3-vectors held as [x, y, z] lists (metres unless said otherwise). No checks: callers hold valid floats.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class V3
{
    /**
     * @param  Vec  $a
     * @param  Vec  $b
     * @return Vec
     */
    public static function add(array $a, array $b): array
    {
        return [$a[0] + $b[0], $a[1] + $b[1], $a[2] + $b[2]];
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     * @return Vec
     */
    public static function sub(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }

    /**
     * @param  Vec  $a
     * @return Vec
     */
    public static function mul(array $a, float $k): array
    {
        return [$a[0] * $k, $a[1] * $k, $a[2] * $k];
    }

    /**
     * $a + $b * $k.
     *
     * @param  Vec  $a
     * @param  Vec  $b
     * @return Vec
     */
    public static function addScaled(array $a, array $b, float $k): array
    {
        return [$a[0] + $b[0] * $k, $a[1] + $b[1] * $k, $a[2] + $b[2] * $k];
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     */
    public static function dot(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     * @return Vec
     */
    public static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }

    /** @param  Vec  $a */
    public static function length(array $a): float
    {
        return sqrt($a[0] * $a[0] + $a[1] * $a[1] + $a[2] * $a[2]);
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     */
    public static function distance(array $a, array $b): float
    {
        return self::length(self::sub($a, $b));
    }

    /**
     * Unit vector; the zero vector stays zero.
     *
     * @param  Vec  $a
     * @return Vec
     */
    public static function unit(array $a): array
    {
        $l = sqrt($a[0] * $a[0] + $a[1] * $a[1] + $a[2] * $a[2]);

        return $l > 0.0 ? [$a[0] / $l, $a[1] / $l, $a[2] / $l] : [0.0, 0.0, 0.0];
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     * @return Vec
     */
    public static function mix(array $a, array $b, float $t): array
    {
        return [$a[0] + ($b[0] - $a[0]) * $t, $a[1] + ($b[1] - $a[1]) * $t, $a[2] + ($b[2] - $a[2]) * $t];
    }

    /**
     * @param  list<Vec>  $all  one at least
     * @return Vec
     */
    public static function mean(array $all): array
    {
        return self::mul(array_reduce($all, self::add(...), [0.0, 0.0, 0.0]), 1 / max(1, count($all)));
    }

    /**
     * The part of $a across the unit direction $d, as a unit vector.
     *
     * @param  Vec  $a
     * @param  Vec  $d
     * @return Vec
     */
    public static function across(array $a, array $d): array
    {
        $k = $a[0] * $d[0] + $a[1] * $d[1] + $a[2] * $d[2];

        return self::unit([$a[0] - $d[0] * $k, $a[1] - $d[1] * $k, $a[2] - $d[2] * $k]);
    }

    /**
     * Mirror image in the sagittal plane x = 0.
     *
     * @param  Vec  $a
     * @return Vec
     */
    public static function mirrored(array $a): array
    {
        return [-$a[0], $a[1], $a[2]];
    }
}
