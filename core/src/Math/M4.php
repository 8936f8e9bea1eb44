<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/**
 * Kernel for 4x4 matrices as flat lists of 16 numbers, column-major as in glTF 2.0.
 *
 * @phpstan-type Mat list<float>
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class M4
{
    public const IDENTITY = [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0];

    /**
     * @param  Vec  $t
     * @param  Quat  $q
     * @param  Vec  $s
     * @return Mat
     */
    public static function compose(array $t, array $q, array $s): array
    {
        [$x, $y, $z, $w] = $q;

        return [
            (1 - 2 * ($y * $y + $z * $z)) * $s[0], 2 * ($x * $y + $z * $w) * $s[0], 2 * ($x * $z - $y * $w) * $s[0], 0.0,
            2 * ($x * $y - $z * $w) * $s[1], (1 - 2 * ($x * $x + $z * $z)) * $s[1], 2 * ($y * $z + $x * $w) * $s[1], 0.0,
            2 * ($x * $z + $y * $w) * $s[2], 2 * ($y * $z - $x * $w) * $s[2], (1 - 2 * ($x * $x + $y * $y)) * $s[2], 0.0,
            $t[0], $t[1], $t[2], 1.0,
        ];
    }

    /**
     * @param  Mat  $a
     * @param  Mat  $b
     * @return Mat $a after $b
     */
    public static function mul(array $a, array $b): array
    {
        $out = [];
        for ($c = 0; $c < 16; $c += 4) {
            for ($r = 0; $r < 4; $r++) {
                $out[] = $a[$r] * $b[$c] + $a[4 + $r] * $b[$c + 1] + $a[8 + $r] * $b[$c + 2] + $a[12 + $r] * $b[$c + 3];
            }
        }

        return $out;
    }

    /**
     * @param  Mat  $m
     * @param  Vec  $p
     * @return Vec
     */
    public static function point(array $m, array $p): array
    {
        return [
            $m[0] * $p[0] + $m[4] * $p[1] + $m[8] * $p[2] + $m[12],
            $m[1] * $p[0] + $m[5] * $p[1] + $m[9] * $p[2] + $m[13],
            $m[2] * $p[0] + $m[6] * $p[1] + $m[10] * $p[2] + $m[14],
        ];
    }

    /**
     * Translation, rotation and scale of a matrix without shear; a mirror goes into the x scale.
     *
     * @param  Mat  $m
     * @return array{Vec, Quat, Vec}
     */
    public static function decompose(array $m): array
    {
        $sx = sqrt($m[0] ** 2 + $m[1] ** 2 + $m[2] ** 2);
        $sy = sqrt($m[4] ** 2 + $m[5] ** 2 + $m[6] ** 2);
        $sz = sqrt($m[8] ** 2 + $m[9] ** 2 + $m[10] ** 2);
        $det = $m[0] * ($m[5] * $m[10] - $m[6] * $m[9]) - $m[4] * ($m[1] * $m[10] - $m[2] * $m[9])
            + $m[8] * ($m[1] * $m[6] - $m[2] * $m[5]);
        $sx = $det < 0.0 ? -$sx : $sx;
        $ix = $sx != 0.0 ? 1 / $sx : 0.0;
        $iy = $sy != 0.0 ? 1 / $sy : 0.0;
        $iz = $sz != 0.0 ? 1 / $sz : 0.0;
        $q = Q4::fromRotationRows([
            $m[0] * $ix, $m[4] * $iy, $m[8] * $iz, $m[1] * $ix, $m[5] * $iy, $m[9] * $iz, $m[2] * $ix, $m[6] * $iy, $m[10] * $iz,
        ]);

        return [[$m[12], $m[13], $m[14]], Q4::unit($q), [$sx, $sy, $sz]];
    }
}
