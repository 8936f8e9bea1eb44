<?php

declare(strict_types=1);

namespace CrispReel\Core\Crowd;

use CrispReel\Core\Math\Random;

/**
 * Who stands where in a crowd, and which share of a motion each is ahead: seeded, so that the same wishes give the same
 * crowd. Places keep their spacing; neighbours who do the same do it out of step.
 */
final class CrowdPlan
{
    /** People nearer than this are seen together, metres. */
    public const NEAR = 6.0;

    private const TRIES = 60;

    /** Rates of play are spread by this much on either side. */
    private const RATES = 0.07;

    private readonly Random $random;

    /**
     * @param  int  $figures  how many figures there are to choose from
     * @param  int  $motions  how many motions
     */
    public function __construct(private readonly int $figures, private readonly int $motions, int $seed)
    {
        $this->random = new Random($seed);
    }

    /**
     * People in an area: the best of many darts for each, so that they neither touch nor stand in rows.
     *
     * @param  list<array{float, float}>  $area  corners, x and z
     * @return list<Member> fewer than asked for where the area is full
     */
    public function inArea(array $area, int $count, float $spacing): array
    {
        [$low, $high] = [[INF, INF], [-INF, -INF]];
        foreach ($area as [$x, $z]) {
            $low = [min($low[0], $x), min($low[1], $z)];
            $high = [max($high[0], $x), max($high[1], $z)];
        }
        $places = [];
        for ($k = 0; $k < $count; $k++) {
            $best = null;
            $far = -INF;
            for ($try = 0; $try < self::TRIES; $try++) {
                $p = [$low[0] + ($high[0] - $low[0]) * $this->random->next(), $low[1] + ($high[1] - $low[1]) * $this->random->next()];
                if (! self::inside($p, $area)) {
                    continue;
                }
                $gap = self::nearest($p, $places);
                // Among those that are far enough any will do: people stand in loose groups, not in a net.
                if ($gap >= $spacing && ($best === null || $try < self::TRIES / 4 && $this->random->next() < 0.3)) {
                    [$best, $far] = [$p, $gap];
                } elseif ($best === null && $gap > $far) {
                    $far = $gap;
                }
            }
            if ($best === null) {
                break;
            }
            $places[] = $best;
        }

        return $this->members($places, static fn (): ?float => null);
    }

    /**
     * People along a line, at about even distances, a little to either side, facing ahead.
     *
     * @param  list<array{float, float}>  $route  x and z
     * @param  float  $width  how far to either side, metres
     * @return list<Member>
     */
    public function along(array $route, int $count, float $spacing, float $width): array
    {
        $ways = [0.0];
        foreach ($route as $k => [$x, $z]) {
            if ($k > 0) {
                $ways[] = $ways[$k - 1] + hypot($x - $route[$k - 1][0], $z - $route[$k - 1][1]);
            }
        }
        $length = end($ways);
        $count = min($count, max(1, (int) floor($length / max(0.1, $spacing)) + 1));
        $places = $headings = [];
        for ($k = 0; $k < $count; $k++) {
            $s = $count === 1 ? 0.0 : $length * $k / ($count - 1);
            $s = max(0.0, min($length, $s + ($this->random->next() - 0.5) * max(0.0, $length / max(1, $count - 1) - $spacing)));
            for ($i = 1; $i < count($ways) - 1 && $ways[$i] < $s; $i++);
            $i = min($i, count($route) - 1);
            [$a, $b] = [$route[max(0, $i - 1)], $route[$i]];
            $l = max(1e-6, $ways[$i] - $ways[max(0, $i - 1)]);
            $u = ($s - $ways[max(0, $i - 1)]) / $l;
            $side = ($this->random->next() - 0.5) * 2 * $width;
            $h = atan2($b[0] - $a[0], $b[1] - $a[1]);
            $places[] = [$a[0] + ($b[0] - $a[0]) * $u + cos($h) * $side, $a[1] + ($b[1] - $a[1]) * $u - sin($h) * $side];
            $headings[] = rad2deg($h);
        }

        return $this->members($places, static fn (int $k): float => $headings[$k]);
    }

    /**
     * What is left of a way for one who stands beside it: its corners ahead and its end, as far to the side as the one stands.
     *
     * @param  array{float, float}  $place  x and z
     * @param  list<array{float, float}>  $route
     * @return list<array{float, float}> empty for one who stands at the end
     */
    public static function onward(array $place, array $route): array
    {
        [$best, $leg, $side] = [INF, 1, 0.0];
        for ($i = 1; $i < count($route); $i++) {
            [$a, $b] = [$route[$i - 1], $route[$i]];
            [$dx, $dz] = [$b[0] - $a[0], $b[1] - $a[1]];
            $l = max(1e-9, hypot($dx, $dz));
            $u = max(0.0, min(1.0, (($place[0] - $a[0]) * $dx + ($place[1] - $a[1]) * $dz) / ($l * $l)));
            $away = hypot($place[0] - $a[0] - $u * $dx, $place[1] - $a[1] - $u * $dz);
            if ($away < $best) {
                // To the side is along the heading's right hand turned: (dz, -dx).
                [$best, $leg, $side] = [$away, $i, (($place[0] - $a[0]) * $dz - ($place[1] - $a[1]) * $dx) / $l];
            }
        }
        $out = [];
        for ($i = $leg; $i < count($route); $i++) {
            $before = self::aside($route[$i - 1], $route[$i]);
            $after = isset($route[$i + 1]) ? self::aside($route[$i], $route[$i + 1]) : $before;
            // At a corner on the line between both sides, so that the distance to either is kept; blunted where it is sharp.
            $k = $side / max(0.5, 1 + $before[0] * $after[0] + $before[1] * $after[1]);
            $p = [$route[$i][0] + $k * ($before[0] + $after[0]), $route[$i][1] + $k * ($before[1] + $after[1])];
            if (hypot($p[0] - $place[0], $p[1] - $place[1]) > 0.4) {
                $out[] = $p;
            }
        }

        return $out;
    }

    /**
     * @param  array{float, float}  $a
     * @param  array{float, float}  $b
     * @return array{float, float}
     */
    private static function aside(array $a, array $b): array
    {
        $l = max(1e-9, hypot($b[0] - $a[0], $b[1] - $a[1]));

        return [($b[1] - $a[1]) / $l, -($b[0] - $a[0]) / $l];
    }

    /**
     * @param  list<array{float, float}>  $places
     * @param  callable(int): (float|null)  $heading
     * @return list<Member>
     */
    private function members(array $places, callable $heading): array
    {
        $out = [];
        foreach ($places as $k => [$x, $z]) {
            $best = null;
            $apart = -1.0;
            for ($try = 0; $try < 24; $try++) {
                $m = new Member(
                    $x, $z, $heading($k) ?? 360 * $this->random->next(), (int) ($this->random->next() * $this->figures),
                    (int) ($this->random->next() * $this->motions),
                    $this->random->next(), 1 - self::RATES + 2 * self::RATES * $this->random->next(), $this->random->next() < 0.5,
                );
                $d = self::outOfStep($m, $out);
                if ($d > $apart) {
                    [$apart, $best] = [$d, $m];
                }
                if ($apart >= 0.5) {
                    break;
                }
            }
            assert($best !== null);
            $out[] = $best;
        }

        return $out;
    }

    /**
     * How far a member is out of step with the nearest of those who do the same within sight: share of the motion, at
     * most a half; other motions, and mirrored ones, are never in step.
     *
     * @param  list<Member>  $others
     */
    public static function outOfStep(Member $m, array $others): float
    {
        $least = 0.5;
        foreach ($others as $o) {
            if ($o->motion !== $m->motion || $o->mirror !== $m->mirror || hypot($o->x - $m->x, $o->z - $m->z) > self::NEAR) {
                continue;
            }
            $d = abs($o->phase - $m->phase);
            $least = min($least, min($d, 1 - $d));
        }

        return $least;
    }

    /**
     * @param  array{float, float}  $p
     * @param  list<array{float, float}>  $places
     */
    private static function nearest(array $p, array $places): float
    {
        $least = INF;
        foreach ($places as $q) {
            $least = min($least, hypot($p[0] - $q[0], $p[1] - $q[1]));
        }

        return $least;
    }

    /**
     * Even-odd rule.
     *
     * @param  array{float, float}  $p
     * @param  list<array{float, float}>  $area
     */
    private static function inside(array $p, array $area): bool
    {
        $in = false;
        $n = count($area);
        for ($i = 0, $j = $n - 1; $i < $n; $j = $i++) {
            [$xi, $zi] = $area[$i];
            [$xj, $zj] = $area[$j];
            if (($zi > $p[1]) !== ($zj > $p[1]) && $p[0] < ($xj - $xi) * ($p[1] - $zi) / ($zj - $zi) + $xi) {
                $in = ! $in;
            }
        }

        return $in;
    }
}
