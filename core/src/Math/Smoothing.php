<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

final class Smoothing
{
    /**
     * A row of values, each the mean of its neighbours weighted by a bell curve (Gaussian); beyond the ends the end values stand.
     *
     * @param  list<float>  $values  at even distances
     * @param  float  $sigma  of the bell, in such distances
     * @param  float  $reach  how far the bell goes, in sigmas
     * @return list<float>
     */
    public static function gaussian(array $values, float $sigma, float $reach = 3.0): array
    {
        $most = (int) ceil($reach * $sigma);
        $weights = [];
        for ($k = -$most; $k <= $most; $k++) {
            $weights[] = exp(-0.5 * ($k / max(1e-9, $sigma)) ** 2);
        }
        $total = array_sum($weights);
        $last = count($values) - 1;
        $out = [];
        foreach ($values as $i => $_) {
            $sum = 0.0;
            foreach ($weights as $k => $w) {
                $sum += $w * $values[max(0, min($last, $i + $k - $most))];
            }
            $out[] = $sum / $total;
        }

        return $out;
    }
}
