<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

/**
 * What weights and joints make of a mesh's points: linear blend skinning, as glTF 2.0 defines it (section 3.7.3.3).
 *
 * @phpstan-import-type Mat from Settle
 */
final class SkinBlend
{
    /**
     * One matrix a vertex (12 numbers), joints renumbered to the one skin, and weights that add up to 1.
     *
     * @param  list<int>  $joints
     * @param  list<float>  $weights
     * @param  list<Mat>  $matrices
     * @param  list<int>  $places
     * @return array{list<float>, list<float>, list<float>}
     */
    public static function blends(array $joints, array $weights, array $matrices, array $places, int $count): array
    {
        $blend = $js = $ws = [];
        $last = count($matrices) - 1;
        for ($v = 0; $v < $count; $v++) {
            $sum = 0.0;
            for ($k = 4 * $v; $k < 4 * $v + 4; $k++) {
                $sum += $weights[$k] ?? 0.0;
            }
            $m = array_fill(0, 12, 0.0);
            for ($k = 0; $k < 4; $k++) {
                // A vertex that no joint holds hangs on the first.
                $w = $sum > 1e-6 ? ($weights[4 * $v + $k] ?? 0.0) / $sum : ($k === 0 ? 1.0 : 0.0);
                $j = min($last, max(0, $joints[4 * $v + $k] ?? 0));
                $js[] = $w > 0.0 ? (float) $places[$j] : 0.0;
                $ws[] = $w;
                if ($w > 0.0) {
                    $b = $matrices[$j];
                    $m[0] += $w * $b[0];
                    $m[1] += $w * $b[1];
                    $m[2] += $w * $b[2];
                    $m[3] += $w * $b[4];
                    $m[4] += $w * $b[5];
                    $m[5] += $w * $b[6];
                    $m[6] += $w * $b[8];
                    $m[7] += $w * $b[9];
                    $m[8] += $w * $b[10];
                    $m[9] += $w * $b[12];
                    $m[10] += $w * $b[13];
                    $m[11] += $w * $b[14];
                }
            }
            for ($k = 0; $k < 12; $k++) {
                $blend[] = $m[$k];
            }
        }

        return [$blend, $js, $ws];
    }

    /**
     * Points (or directions) as their vertices' matrices carry them.
     *
     * @param  list<float>  $flat
     * @param  list<float>  $blend
     * @return list<float>
     */
    public static function carried(array $flat, array $blend, bool $points): array
    {
        $out = [];
        for ($i = 0, $o = 0, $n = min(count($flat), intdiv(count($blend), 4)); $i < $n; $i += 3, $o += 12) {
            [$x, $y, $z] = [$flat[$i], $flat[$i + 1], $flat[$i + 2]];
            for ($k = 0; $k < 3; $k++) {
                $out[] = $blend[$o + $k] * $x + $blend[$o + 3 + $k] * $y + $blend[$o + 6 + $k] * $z + ($points ? $blend[$o + 9 + $k] : 0.0);
            }
        }

        return $out;
    }

    /**
     * Each three numbers at length 1; what has no length stays.
     *
     * @param  list<float>  $flat
     * @return list<float>
     */
    public static function units(array $flat): array
    {
        for ($i = 0, $n = count($flat); $i < $n; $i += 3) {
            $l = sqrt($flat[$i] ** 2 + $flat[$i + 1] ** 2 + $flat[$i + 2] ** 2);
            if ($l > 1e-9) {
                $flat[$i] /= $l;
                $flat[$i + 1] /= $l;
                $flat[$i + 2] /= $l;
            }
        }

        return array_values($flat);
    }
}
