<?php

declare(strict_types=1);

namespace App\Bench;

final class Figures
{
    /** @param  non-empty-list<float|int>  $values */
    public static function median(array $values): float
    {
        return self::quantile($values, 0.5);
    }

    /**
     * The value under which a share of all lie, between neighbours by straight line.
     *
     * @param  non-empty-list<float|int>  $values
     */
    public static function quantile(array $values, float $share): float
    {
        sort($values);
        $at = $share * (count($values) - 1);
        $low = (int) floor($at);

        return $values[$low] + ($at - $low) * ($values[min($low + 1, count($values) - 1)] - $values[$low]);
    }
}
