<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use CrispReel\Core\Math\V3;

/** How far a point is from a triangle. */
final class TriangleDistance
{
    /**
     * Square of the distance from a point to a triangle: over its face, or to the nearest of its sides.
     *
     * @param  list<float>  $t  of triangles: corner and two edges from $i on
     * @param  array{float, float, float}  $p
     */
    public static function squared(array $t, int $i, array $p): float
    {
        $a = [$t[$i], $t[$i + 1], $t[$i + 2]];
        [$u, $v] = [[$t[$i + 3], $t[$i + 4], $t[$i + 5]], [$t[$i + 6], $t[$i + 7], $t[$i + 8]]];
        $w = V3::sub($p, $a);
        [$uu, $uv, $vv, $wu, $wv] = [V3::dot($u, $u), V3::dot($u, $v), V3::dot($v, $v), V3::dot($w, $u), V3::dot($w, $v)];
        $under = $uu * $vv - $uv * $uv;
        if ($under > 1e-18) {
            [$s, $r] = [($vv * $wu - $uv * $wv) / $under, ($uu * $wv - $uv * $wu) / $under];
            if ($s >= 0.0 && $r >= 0.0 && $s + $r <= 1.0) {
                $d = V3::sub($w, V3::addScaled(V3::mul($u, $s), $v, $r));

                return V3::dot($d, $d);
            }
        }

        return min(self::toSide($w, $u), self::toSide($w, $v), self::toSide(V3::sub($w, $u), V3::sub($v, $u)));
    }

    /**
     * @param  array{float, float, float}  $w  from the side's start to the point
     * @param  array{float, float, float}  $side
     */
    private static function toSide(array $w, array $side): float
    {
        $long = V3::dot($side, $side);
        $d = V3::addScaled($w, $side, $long > 0.0 ? -max(0.0, min(1.0, V3::dot($w, $side) / $long)) : 0.0);

        return V3::dot($d, $d);
    }
}
