<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

/**
 * A thing from above as plans are drawn: each storey cut level at 1.1 m, where doors and windows are gaps in the walls, and at
 * 0.4 m, where furniture stands. All measures in metres of the thing's own space.
 *
 * @phpstan-type Storey array{y: float, walls: list<list<float>>, things: list<list<float>>, floor: list<float>}
 */
final class FloorPlan
{
    private const WALLS = 1.1;

    private const THINGS = 0.4;

    /** Storeys are at least so far above each other. */
    private const STOREY = 1.8;

    /** Square metres below which a floor is a landing or a table. */
    private const LEAST_FLOOR = 1.5;

    /** Share of the largest floor below which one is no storey of its own. */
    private const SHARE = 0.12;

    private const BIN = 0.25;

    /** Metres by which a point may lie off the line between its neighbours and be left out. */
    private const STRAIGHT = 0.004;

    private const MOST_LINES = 1200;

    private const MOST_FLOORS = 1500;

    /**
     * @param  list<float>  $triangles  9 numbers each
     * @param  list<float>  $floors  those of them that one can walk on
     * @return list<Storey> from the lowest; lines of x and z by turns, a closed one ends where it begins; floors of 6 numbers a triangle
     */
    public static function of(array $triangles, array $floors): array
    {
        $heights = self::storeys($floors);
        if ($heights === []) {
            return self::alone($triangles);
        }
        // What has its first floor high above its foot stands on the ground of the scene.
        $low = self::lowest($triangles);
        $heights = $heights[0] > $low + self::STOREY ? [$low, ...$heights] : $heights;
        $out = [];
        foreach ($heights as $y) {
            $walls = self::cut($triangles, $y + self::WALLS);
            // The top of a wall and a roof are no floors of a storey.
            if ($out === [] || $walls !== []) {
                $out[] = [
                    'y' => round($y, 3), 'walls' => $walls, 'things' => self::cut($triangles, $y + self::THINGS),
                    'floor' => self::floor($floors, $y),
                ];
            }
        }

        return $out;
    }

    /** @param  list<float>  $triangles */
    private static function lowest(array $triangles): float
    {
        $low = INF;
        for ($i = 1, $n = count($triangles); $i < $n; $i += 3) {
            $low = $triangles[$i] < $low ? $triangles[$i] : $low;
        }

        return $low;
    }

    /**
     * What nobody walks on: cut through its middle.
     *
     * @param  list<float>  $triangles
     * @return list<Storey>
     */
    private static function alone(array $triangles): array
    {
        $heights = [];
        for ($i = 1, $n = count($triangles); $i < $n; $i += 3) {
            $heights[] = $triangles[$i];
        }
        if ($heights === []) {
            return [];
        }
        $low = min($heights);
        $at = $low + min(self::WALLS, (max($heights) - $low) / 2);

        return [['y' => round($low, 3), 'walls' => [], 'things' => self::cut($triangles, $at), 'floor' => []]];
    }

    /**
     * @param  list<float>  $floors
     * @return list<float> heights
     */
    private static function storeys(array $floors): array
    {
        $areas = $sums = [];
        for ($i = 0, $n = count($floors); $i < $n; $i += 9) {
            $area = self::area($floors, $i);
            $y = ($floors[$i + 1] + $floors[$i + 4] + $floors[$i + 7]) / 3;
            $bin = (int) floor($y / self::BIN);
            $areas[$bin] = ($areas[$bin] ?? 0.0) + $area;
            $sums[$bin] = ($sums[$bin] ?? 0.0) + $area * $y;
        }
        arsort($areas);
        $most = max(0.0, ...array_values($areas), ...[0.0]);
        $out = [];
        foreach ($areas as $bin => $area) {
            $y = $sums[$bin] / max(1e-9, $area);
            $apart = array_filter($out, static fn (float $other): bool => abs($other - $y) < self::STOREY) === [];
            if ($area >= max(self::LEAST_FLOOR, self::SHARE * $most) && $apart) {
                $out[] = $y;
            }
        }
        sort($out);

        return $out;
    }

    /**
     * Square metres of a triangle seen from above.
     *
     * @param  list<float>  $t
     */
    private static function area(array $t, int $i): float
    {
        return abs(($t[$i + 3] - $t[$i]) * ($t[$i + 8] - $t[$i + 2]) - ($t[$i + 6] - $t[$i]) * ($t[$i + 5] - $t[$i + 2])) / 2;
    }

    /**
     * @param  list<float>  $floors
     * @return list<float> 6 numbers a triangle, the largest first
     */
    private static function floor(array $floors, float $y): array
    {
        $on = [];
        for ($i = 0, $n = count($floors); $i < $n; $i += 9) {
            if (abs(($floors[$i + 1] + $floors[$i + 4] + $floors[$i + 7]) / 3 - $y) < self::STOREY / 2) {
                $on[$i] = self::area($floors, $i);
            }
        }
        arsort($on);
        $out = [];
        foreach (array_slice(array_keys($on), 0, self::MOST_FLOORS) as $i) {
            foreach ([0, 2, 3, 5, 6, 8] as $k) {
                $out[] = round($floors[$i + $k], 2);
            }
        }

        return $out;
    }

    /**
     * The lines in which a level plane cuts triangles.
     *
     * @param  list<float>  $triangles
     * @return list<list<float>>
     */
    private static function cut(array $triangles, float $y): array
    {
        /** @var list<array{array{float, float}, array{float, float}}> $segments */
        $segments = [];
        for ($i = 0, $n = count($triangles); $i < $n; $i += 9) {
            [$a, $b, $c] = [$triangles[$i + 1] - $y, $triangles[$i + 4] - $y, $triangles[$i + 7] - $y];
            if (($a > 0.0) === ($b > 0.0) && ($b > 0.0) === ($c > 0.0)) {
                continue;
            }
            /** @var list<array{float, float}> $ends */
            $ends = [];
            foreach ([[$i, $a, $i + 3, $b], [$i + 3, $b, $i + 6, $c], [$i + 6, $c, $i, $a]] as [$p, $from, $q, $to]) {
                if (($from > 0.0) !== ($to > 0.0)) {
                    $s = $from / ($from - $to);
                    $ends[] = [
                        $triangles[$p] + $s * ($triangles[$q] - $triangles[$p]),
                        $triangles[$p + 2] + $s * ($triangles[$q + 2] - $triangles[$p + 2]),
                    ];
                }
            }
            if (count($ends) === 2 && hypot($ends[0][0] - $ends[1][0], $ends[0][1] - $ends[1][1]) > 1e-4) {
                $segments[] = [$ends[0], $ends[1]];
            }
        }

        return self::joined($segments);
    }

    /**
     * Segments that meet, as lines.
     *
     * @param  list<array{array{float, float}, array{float, float}}>  $segments
     * @return list<list<float>> the longest first
     */
    private static function joined(array $segments): array
    {
        $at = [];
        foreach ($segments as $k => $ends) {
            foreach ($ends as $p) {
                $at[self::key($p)][] = $k;
            }
        }
        $used = [];
        $lines = [];
        foreach ($segments as $k => [$p, $q]) {
            if (isset($used[$k])) {
                continue;
            }
            $used[$k] = true;
            $line = [$p, $q];
            // On from its end, then back from its beginning.
            foreach ([1, 2] as $_) {
                while (($next = self::next($at, $segments, $used, $line[count($line) - 1])) !== null) {
                    $line[] = $next;
                }
                $line = array_reverse($line);
            }
            $lines[] = self::straight($line);
        }
        usort($lines, static fn (array $a, array $b): int => count($b) <=> count($a));

        return array_slice($lines, 0, self::MOST_LINES);
    }

    /** @param  array{float, float}  $p */
    private static function key(array $p): string
    {
        return round($p[0] * 1000).' '.round($p[1] * 1000);
    }

    /**
     * @param  array<string, list<int>>  $at
     * @param  list<array{array{float, float}, array{float, float}}>  $segments
     * @param  array<int, true>  $used
     * @param  array{float, float}  $from
     * @return array{float, float}|null
     */
    private static function next(array $at, array $segments, array &$used, array $from): ?array
    {
        $key = self::key($from);
        foreach ($at[$key] as $k) {
            if (! isset($used[$k])) {
                $used[$k] = true;

                return self::key($segments[$k][0]) === $key ? $segments[$k][1] : $segments[$k][0];
            }
        }

        return null;
    }

    /**
     * Without points that lie on the line between their neighbours.
     *
     * @param  list<array{float, float}>  $line
     * @return list<float>
     */
    private static function straight(array $line): array
    {
        $kept = [$line[0]];
        for ($i = 1, $last = count($line) - 1; $i < $last; $i++) {
            [$a, $b, $c] = [$kept[count($kept) - 1], $line[$i], $line[$i + 1]];
            $long = hypot($c[0] - $a[0], $c[1] - $a[1]);
            $off = abs(($c[0] - $a[0]) * ($b[1] - $a[1]) - ($c[1] - $a[1]) * ($b[0] - $a[0])) / max(1e-9, $long);
            if ($off > self::STRAIGHT || $long < 1e-6) {
                $kept[] = $b;
            }
        }
        $kept[] = $line[count($line) - 1];

        return array_merge(...array_map(static fn (array $p): array => [round($p[0], 3), round($p[1], 3)], $kept));
    }
}
