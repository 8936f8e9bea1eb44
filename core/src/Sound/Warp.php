<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

/**
 * Which moment of one sound is which of another: dynamic time warping with a limit to its slope (Sakoe and Chiba 1978, symmetric,
 * P = 1), so that neither runs more than twice as fast as the other.
 */
final class Warp
{
    /** How far from an even pace the one may be, as a share of the longer one; and in frames at most. */
    private const BAND = 0.2;

    private const WIDEST = 400;

    private const NARROWEST = 15;

    /** Ratio of lengths up to which the slope's limit leaves room. */
    private const ROOM = 1.7;

    /**
     * @param  list<list<float>>  $a
     * @param  list<list<float>>  $b
     * @return list<float> of each frame of $a which of $b it is, rising; fractions lie between two
     */
    public static function of(array $a, array $b): array
    {
        [$n, $m] = [count($a), count($b)];
        if ($n < 2 || $m < 2) {
            return array_fill(0, $n, 0.0);
        }
        if ($m > self::ROOM * $n || $n > self::ROOM * $m) {
            // Of so unlike a length, it is first spread evenly.
            $even = [];
            for ($j = 0; $j < $m; $j++) {
                $even[] = $a[(int) round($j * ($n - 1) / ($m - 1))];
            }
            $found = self::of($even, $b);

            return array_map(
                static fn (int $i): float => $found[(int) round($i * ($m - 1) / ($n - 1))], range(0, $n - 1),
            );
        }

        return self::means(self::path($a, $b), $n, $m);
    }

    /**
     * @param  list<list<float>>  $a
     * @param  list<list<float>>  $b
     * @return list<array{int, int}> pairs of frames, from the last to the first
     */
    private static function path(array $a, array $b): array
    {
        [$n, $m] = [count($a), count($b)];
        $half = (int) max(self::NARROWEST, min(self::WIDEST, self::BAND * max($n, $m)));
        $starts = $steps = [];
        // Sums and distances of this row and the two before it.
        $sums = [[], []];
        $far = [[], []];
        for ($i = 0; $i < $n; $i++) {
            $middle = (int) round($i * ($m - 1) / ($n - 1));
            $from = max(0, $middle - $half);
            $to = min($m - 1, $middle + $half);
            $row = $sum = [];
            $came = '';
            for ($j = $from; $j <= $to; $j++) {
                $row[$j] = $d = self::distance($a[$i], $b[$j]);
                if ($i === 0 && $j === 0) {
                    $sum[0] = 2 * $d;
                    $came .= '0';

                    continue;
                }
                $straight = ($sums[1][$j - 1] ?? INF) + 2 * $d;
                $slow = ($sums[0][$j - 1] ?? INF) + 2 * ($far[1][$j] ?? INF) + $d;
                $fast = ($sums[1][$j - 2] ?? INF) + 2 * ($row[$j - 1] ?? INF) + $d;
                $sum[$j] = min($straight, $slow, $fast);
                $came .= $straight <= $slow && $straight <= $fast ? '0' : ($slow <= $fast ? '1' : '2');
            }
            $starts[] = $from;
            $steps[] = $came;
            $sums = [$sums[1], $sum];
            $far = [$far[1], $row];
        }

        return is_finite($sums[1][$m - 1] ?? INF) ? self::back($starts, $steps, $m) : self::straight($n, $m);
    }

    /**
     * @param  list<int>  $starts
     * @param  list<string>  $steps
     * @return list<array{int, int}>
     */
    private static function back(array $starts, array $steps, int $m): array
    {
        [$i, $j] = [count($steps) - 1, $m - 1];
        $out = [];
        while ($i >= 0 && $j >= 0) {
            $out[] = [$i, $j];
            $came = $steps[$i][$j - $starts[$i]] ?? '0';
            if ($came === '1') {
                $out[] = [$i - 1, $j];
                $i--;
            } elseif ($came === '2') {
                $out[] = [$i, $j - 1];
                $j--;
            }
            $i--;
            $j--;
        }

        return $out;
    }

    /** @return list<array{int, int}> at an even pace: for what no path leads through */
    private static function straight(int $n, int $m): array
    {
        return array_map(static fn (int $i): array => [$i, (int) round($i * ($m - 1) / ($n - 1))], range(0, $n - 1));
    }

    /**
     * @param  list<array{int, int}>  $path
     * @return list<float>
     */
    private static function means(array $path, int $n, int $m): array
    {
        $sum = $count = array_fill(0, $n, 0);
        foreach ($path as [$i, $j]) {
            $sum[$i] += $j;
            $count[$i]++;
        }
        $out = [];
        $last = 0.0;
        foreach ($sum as $i => $s) {
            $out[] = $last = max($last, $count[$i] === 0 ? $last : (float) min($m - 1, $s / $count[$i]));
        }

        return $out;
    }

    /**
     * @param  list<float>  $a
     * @param  list<float>  $b
     */
    private static function distance(array $a, array $b): float
    {
        $sum = 0.0;
        foreach ($a as $c => $v) {
            $v -= $b[$c];
            $sum += $v * $v;
        }

        return sqrt($sum);
    }
}
