<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** Seeded numbers: the same arguments give the same answer on every machine. */
final class Noise
{
    /** Integer hash to 0 up to (not including) 1, 32-bit multiply-xorshift. */
    public static function hash(int $i, int $seed = 0): float
    {
        $x = (self::mul32($i, 374761393) ^ self::mul32($seed * 7919, 668265263)) & 0xFFFFFFFF;
        $x = self::mul32($x ^ ($x >> 13), 1274126177);
        $x ^= $x >> 16;

        return $x / 4294967296.0;
    }

    /** Value noise in -1 to 1 with smoother interpolation; period 1 cell. */
    public static function value(float $t, int $seed): float
    {
        $i = (int) floor($t);
        $f = Ease::smoother($t - $i);
        $a = self::hash($i, $seed);

        return ($a + (self::hash($i + 1, $seed) - $a) * $f) * 2.0 - 1.0;
    }

    /** Value noise that repeats after $cells cells. */
    public static function loop(float $t, int $seed, int $cells): float
    {
        $i = (int) floor($t);
        $f = Ease::smoother($t - $i);
        $wrap = static fn (int $k): int => (($k % $cells) + $cells) % $cells;
        $a = self::hash($wrap($i), $seed);

        return ($a + (self::hash($wrap($i + 1), $seed) - $a) * $f) * 2.0 - 1.0;
    }

    private static function mul32(int $a, int $b): int
    {
        $a &= 0xFFFFFFFF;

        return (($a & 0xFFFF) * $b + ((((($a >> 16) & 0xFFFF) * $b) & 0xFFFF) << 16)) & 0xFFFFFFFF;
    }
}
