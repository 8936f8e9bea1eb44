<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/**
 * Kernel for unit quaternions held as [x, y, z, w] lists, applied as q v q*. No checks: callers hold unit quaternions.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Q4
{
    public const IDENTITY = [0.0, 0.0, 0.0, 1.0];

    /**
     * Hamilton product: first $b, then $a.
     *
     * @param  Quat  $a
     * @param  Quat  $b
     * @return Quat
     */
    public static function mul(array $a, array $b): array
    {
        [$ax, $ay, $az, $aw] = $a;
        [$bx, $by, $bz, $bw] = $b;

        return [
            $aw * $bx + $ax * $bw + $ay * $bz - $az * $by,
            $aw * $by - $ax * $bz + $ay * $bw + $az * $bx,
            $aw * $bz + $ax * $by - $ay * $bx + $az * $bw,
            $aw * $bw - $ax * $bx - $ay * $by - $az * $bz,
        ];
    }

    /**
     * @param  Quat  $q
     * @return Quat
     */
    public static function conjugate(array $q): array
    {
        return [-$q[0], -$q[1], -$q[2], $q[3]];
    }

    /**
     * @param  Quat  $q
     * @return Quat
     */
    public static function unit(array $q): array
    {
        $l = sqrt($q[0] * $q[0] + $q[1] * $q[1] + $q[2] * $q[2] + $q[3] * $q[3]);

        return $l > 0.0 ? [$q[0] / $l, $q[1] / $l, $q[2] / $l, $q[3] / $l] : self::IDENTITY;
    }

    /**
     * @param  Quat  $q
     * @param  Vec  $v
     * @return Vec
     */
    public static function rotate(array $q, array $v): array
    {
        [$x, $y, $z, $w] = $q;
        $tx = 2.0 * ($y * $v[2] - $z * $v[1]);
        $ty = 2.0 * ($z * $v[0] - $x * $v[2]);
        $tz = 2.0 * ($x * $v[1] - $y * $v[0]);

        return [
            $v[0] + $w * $tx + $y * $tz - $z * $ty,
            $v[1] + $w * $ty + $z * $tx - $x * $tz,
            $v[2] + $w * $tz + $x * $ty - $y * $tx,
        ];
    }

    /**
     * @param  Vec  $axis  unit
     * @param  float  $angle  radians
     * @return Quat
     */
    public static function axis(array $axis, float $angle): array
    {
        $s = sin($angle * 0.5);

        return [$axis[0] * $s, $axis[1] * $s, $axis[2] * $s, cos($angle * 0.5)];
    }

    /** @return Quat */
    public static function aroundX(float $angle): array
    {
        return [sin($angle * 0.5), 0.0, 0.0, cos($angle * 0.5)];
    }

    /** @return Quat */
    public static function aroundY(float $angle): array
    {
        return [0.0, sin($angle * 0.5), 0.0, cos($angle * 0.5)];
    }

    /** @return Quat */
    public static function aroundZ(float $angle): array
    {
        return [0.0, 0.0, sin($angle * 0.5), cos($angle * 0.5)];
    }

    /**
     * Turns applied in the order roll (Z), pitch (X), yaw (Y): q = Y X Z. Radians.
     *
     * @return Quat
     */
    public static function pitchYawRoll(float $pitch, float $yaw, float $roll): array
    {
        return self::mul(self::aroundY($yaw), self::mul(self::aroundX($pitch), self::aroundZ($roll)));
    }

    /**
     * Heading of the rotated +Z axis on the floor, radians from +Z towards +X.
     *
     * @param  Quat  $q
     */
    public static function heading(array $q): float
    {
        $f = self::rotate($q, [0.0, 0.0, 1.0]);

        return atan2($f[0], $f[2]);
    }

    /**
     * Rotation by the share $t of the angle of $q, on the short way.
     *
     * @param  Quat  $q
     * @return Quat
     */
    public static function power(array $q, float $t): array
    {
        if ($q[3] < 0.0) {
            $q = [-$q[0], -$q[1], -$q[2], -$q[3]];
        }
        $s = sqrt($q[0] * $q[0] + $q[1] * $q[1] + $q[2] * $q[2]);
        if ($s < 1e-9) {
            return self::IDENTITY;
        }

        return self::axis([$q[0] / $s, $q[1] / $s, $q[2] / $s], 2.0 * atan2($s, $q[3]) * $t);
    }

    /**
     * Spherical interpolation on the short way (Shoemake 1985; normalised linear below 0.05 degrees,
     * where the sine quotient loses digits).
     *
     * @param  Quat  $a
     * @param  Quat  $b
     * @return Quat
     */
    public static function slerp(array $a, array $b, float $t): array
    {
        $d = $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2] + $a[3] * $b[3];
        if ($d < 0.0) {
            $d = -$d;
            $b = [-$b[0], -$b[1], -$b[2], -$b[3]];
        }
        if ($d > 0.9999999) {
            $u = 1.0 - $t;

            return self::unit([$a[0] * $u + $b[0] * $t, $a[1] * $u + $b[1] * $t, $a[2] * $u + $b[2] * $t, $a[3] * $u + $b[3] * $t]);
        }
        $w = acos($d);
        $s = sin($w);
        $u = sin((1.0 - $t) * $w) / $s;
        $v = sin($t * $w) / $s;

        return [$a[0] * $u + $b[0] * $v, $a[1] * $u + $b[1] * $v, $a[2] * $u + $b[2] * $v, $a[3] * $u + $b[3] * $v];
    }

    /**
     * Smallest angle between two rotations, radians.
     *
     * @param  Quat  $a
     * @param  Quat  $b
     */
    public static function angleBetween(array $a, array $b): float
    {
        $r = self::mul(self::conjugate($a), $b);

        return 2.0 * atan2(sqrt($r[0] * $r[0] + $r[1] * $r[1] + $r[2] * $r[2]), abs($r[3]));
    }

    /**
     * Rotation that takes the direction $d0 to $d and, as far as that leaves open, the side axis $a0 to $a.
     *
     * @param  Vec  $d0  unit
     * @param  Vec  $a0
     * @param  Vec  $d  unit
     * @param  Vec  $a
     * @return Quat
     */
    public static function fromAxes(array $d0, array $a0, array $d, array $a): array
    {
        $a0 = V3::across($a0, $d0);
        $a = V3::across($a, $d);
        $c0 = V3::cross($d0, $a0);
        $c = V3::cross($d, $a);
        $m = [];
        for ($i = 0; $i < 3; $i++) {
            for ($j = 0; $j < 3; $j++) {
                $m[] = $d[$i] * $d0[$j] + $a[$i] * $a0[$j] + $c[$i] * $c0[$j];
            }
        }

        return self::fromRotationRows($m);
    }

    /**
     * Quaternion of a rotation matrix (Shepperd 1978: divide by the largest component).
     *
     * @param  list<float>  $m  9 numbers, row by row
     * @return Quat
     */
    public static function fromRotationRows(array $m): array
    {
        $trace = $m[0] + $m[4] + $m[8];
        if ($trace > 0.0) {
            $s = sqrt($trace + 1.0) * 2.0;

            return [($m[7] - $m[5]) / $s, ($m[2] - $m[6]) / $s, ($m[3] - $m[1]) / $s, $s / 4.0];
        }
        if ($m[0] > $m[4] && $m[0] > $m[8]) {
            $s = sqrt(1.0 + $m[0] - $m[4] - $m[8]) * 2.0;

            return [$s / 4.0, ($m[1] + $m[3]) / $s, ($m[2] + $m[6]) / $s, ($m[7] - $m[5]) / $s];
        }
        if ($m[4] > $m[8]) {
            $s = sqrt(1.0 + $m[4] - $m[0] - $m[8]) * 2.0;

            return [($m[1] + $m[3]) / $s, $s / 4.0, ($m[5] + $m[7]) / $s, ($m[2] - $m[6]) / $s];
        }
        $s = sqrt(1.0 + $m[8] - $m[0] - $m[4]) * 2.0;

        return [($m[2] + $m[6]) / $s, ($m[5] + $m[7]) / $s, $s / 4.0, ($m[3] - $m[1]) / $s];
    }

    /**
     * A camera's rotation: it looks along its own -Z with +Y up, as glTF 2.0 and three.js have it.
     *
     * @param  Vec  $from
     * @param  Vec  $to
     * @return Quat
     */
    public static function lookAt(array $from, array $to): array
    {
        $back = V3::unit(V3::sub($from, $to));
        if (V3::length($back) === 0.0) {
            return self::IDENTITY;
        }
        $up = abs($back[1]) > 0.99999 ? [0.0, 0.0, $back[1] > 0 ? -1.0 : 1.0] : [0.0, 1.0, 0.0];
        $right = V3::unit(V3::cross($up, $back));
        $up = V3::cross($back, $right);

        return self::fromRotationRows([
            $right[0], $up[0], $back[0], $right[1], $up[1], $back[1], $right[2], $up[2], $back[2],
        ]);
    }
}
