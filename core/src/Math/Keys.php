<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** Where a time lies among rising times of keys. */
final class Keys
{
    /**
     * The last key at or before a time, by halving; the first where there is none.
     *
     * @param  array<int, float|int>  $times  rising from index 0, at least one
     */
    public static function below(array $times, float $at): int
    {
        $low = 0;
        $high = count($times);
        while ($high - $low > 1) {
            $middle = ($low + $high) >> 1;
            $times[$middle] <= $at ? $low = $middle : $high = $middle;
        }

        return $low;
    }

    /**
     * The keys before and after a time, and the share of the way from the one to the other; outside of the keys the one at the end.
     *
     * @param  array<int, float|int>  $times  rising from index 0, at least one
     * @return array{int, int, float}
     */
    public static function around(array $times, float $at): array
    {
        $a = self::below($times, $at);
        $b = $at < $times[$a] ? $a : min($a + 1, count($times) - 1);
        $span = $times[$b] - $times[$a];

        return [$a, $b, $span > 0 ? ($at - $times[$a]) / $span : 0.0];
    }
}
