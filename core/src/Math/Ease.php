<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** Scalar curves: clamps, smoothsteps, soft minimum, and eases in the CSS cubic-bezier form. */
final class Ease
{
    /** Named eases as cubic-bezier(x1, y1, x2, y2), CSS Easing Functions Level 1. */
    public const NAMED = [
        'linear' => [0.0, 0.0, 1.0, 1.0],
        'in' => [0.42, 0.0, 1.0, 1.0],
        'out' => [0.0, 0.0, 0.58, 1.0],
        'inOut' => [0.42, 0.0, 0.58, 1.0],
    ];

    /** What leads from one key to the next. */
    public const KEYED = ['linear', 'in', 'out', 'inOut', 'hold'];

    public static function clamp(float $x, float $low = 0.0, float $high = 1.0): float
    {
        return $x < $low ? $low : ($x > $high ? $high : $x);
    }

    public static function mix(float $a, float $b, float $t): float
    {
        return $a + ($b - $a) * $t;
    }

    /** 3t^2 - 2t^3, clamped. */
    public static function smooth(float $x): float
    {
        $x = $x < 0.0 ? 0.0 : ($x > 1.0 ? 1.0 : $x);

        return $x * $x * (3.0 - 2.0 * $x);
    }

    /** 6t^5 - 15t^4 + 10t^3, clamped: also the second derivative is zero at both ends. */
    public static function smoother(float $x): float
    {
        $x = $x < 0.0 ? 0.0 : ($x > 1.0 ? 1.0 : $x);

        return $x * $x * $x * ($x * ($x * 6.0 - 15.0) + 10.0);
    }

    /** Smoothstep between two edges; the edges may be given downwards. */
    public static function between(float $from, float $to, float $x): float
    {
        return self::smooth(($x - $from) / ($to - $from));
    }

    /** Minimum with a rounded corner of width $k (polynomial form). */
    public static function softMin(float $a, float $b, float $k): float
    {
        $h = max($k - abs($a - $b), 0.0) / $k;

        return min($a, $b) - $h * $h * $k / 4.0;
    }

    /**
     * @param  string  $name  linear, in, out, inOut, hold
     * @param  float  $t  0 to 1
     */
    public static function named(string $name, float $t): float
    {
        if ($name === 'hold') {
            return $t >= 1.0 ? 1.0 : 0.0;
        }
        [$x1, $y1, $x2, $y2] = self::NAMED[$name] ?? self::NAMED['inOut'];

        return self::bezier($x1, $y1, $x2, $y2, $t);
    }

    /** Solves the curve parameter for x by Newton steps with a bisection fallback; error below 1e-7. */
    public static function bezier(float $x1, float $y1, float $x2, float $y2, float $x): float
    {
        if ($x <= 0.0 || $x >= 1.0) {
            return $x <= 0.0 ? 0.0 : 1.0;
        }
        $low = 0.0;
        $high = 1.0;
        $u = $x;
        for ($i = 0; $i < 40; $i++) {
            $error = self::cubic($x1, $x2, $u) - $x;
            if (abs($error) < 1e-9) {
                break;
            }
            $error > 0.0 ? $high = $u : $low = $u;
            $slope = 3 * (1 - $u) ** 2 * $x1 + 6 * (1 - $u) * $u * ($x2 - $x1) + 3 * $u * $u * (1 - $x2);
            $next = $slope > 1e-6 ? $u - $error / $slope : -1.0;
            $u = $next > $low && $next < $high ? $next : ($low + $high) / 2;
        }

        return self::cubic($y1, $y2, $u);
    }

    private static function cubic(float $p1, float $p2, float $u): float
    {
        $v = 1.0 - $u;

        return 3.0 * $v * $v * $u * $p1 + 3.0 * $v * $u * $u * $p2 + $u * $u * $u;
    }
}
