<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/**
 * Where one motion is best left for another: the pair of moments with the least distance of poses and velocities, both
 * seen from the hips' place and heading (after Kovar, Gleicher and Pighin 2002, with joints in place of points).
 */
final class JoinFinder
{
    private const EVERY = 1 / 12;

    /** Seconds over which velocities weigh as much as places. */
    private const AHEAD = 0.12;

    /** Parts that are compared, and how much they count. */
    private const WEIGHTS = [
        'footL' => 2.0, 'footR' => 2.0, 'lowerLegL' => 1.0, 'lowerLegR' => 1.0, 'handL' => 1.0, 'handR' => 1.0, 'lowerArmL' => 0.5,
        'lowerArmR' => 0.5, 'head' => 1.0, 'upperChest' => 0.5,
    ];

    public function __construct(private readonly Figure $figure)
    {
    }

    /**
     * @param  array{float, float}  $leave  seconds of the first motion between which it may be left
     * @param  array{float, float}  $enter  seconds of the second between which it may be entered
     * @return array{leave: float, enter: float, distance: float, plain: float, better: float} distances in metres; plain is end to start; better is the share saved
     */
    public function best(ClipTable $first, array $leave, ClipTable $second, array $enter): array
    {
        $outs = $this->looks($first, $leave);
        $ins = $this->looks($second, $enter);
        $best = [INF, 0.0, 0.0];
        foreach ($outs as [$ta, $a]) {
            foreach ($ins as [$tb, $b]) {
                $d = self::distance($a, $b);
                if ($d < $best[0]) {
                    $best = [$d, $ta, $tb];
                }
            }
        }
        $plain = self::distance($this->look($first, min($first->seconds(), $leave[1])), $this->look($second, max(0.0, $enter[0])));
        // Between the moments looked at, the nearest entry for the leave that was found.
        for ($s = max($enter[0], $best[2] - self::EVERY); $s <= min($enter[1], $best[2] + self::EVERY); $s += self::EVERY / 8) {
            $d = self::distance($this->look($first, $best[1]), $this->look($second, $s));
            $best = $d < $best[0] ? [$d, $best[1], $s] : $best;
        }

        return [
            'leave' => $best[1], 'enter' => $best[2], 'distance' => $best[0], 'plain' => $plain,
            'better' => $plain > 1e-9 ? 1 - $best[0] / $plain : 0.0,
        ];
    }

    /**
     * @param  array{float, float}  $between
     * @return list<array{float, list<array{array{float, float, float}, array{float, float, float}, float}>}>
     */
    private function looks(ClipTable $t, array $between): array
    {
        $out = [];
        [$from, $to] = [max(0.0, $between[0]), min($t->seconds(), $between[1])];
        $n = max(1, (int) ceil(($to - $from) / self::EVERY));
        for ($i = 0; $i <= $n; $i++) {
            $s = $from + ($to - $from) * $i / $n;
            $out[] = [$s, $this->look($t, $s)];
        }

        return $out;
    }

    /** @return list<array{array{float, float, float}, array{float, float, float}, float}> place, place a little later, weight */
    public function look(ClipTable $t, float $s): array
    {
        // Near the end the way made just before tells the speed.
        $other = $s + self::AHEAD <= $t->seconds() ? $s + self::AHEAD : max(0.0, $s - self::AHEAD);
        $row = $t->at($s);
        [$x, $z, $turn] = $this->figure->standing($row, $this->figure->hips);
        $now = $this->places($row, $x, $z, $turn);
        $then = $this->places($t->at($other), $x, $z, $turn);
        $rate = abs($other - $s) < 1e-6 ? 0.0 : self::AHEAD / ($other - $s);
        $out = [];
        foreach ($now as $role => $p) {
            $out[] = [$p, V3::mul(V3::sub($then[$role], $p), $rate), self::WEIGHTS[$role]];
        }

        return $out;
    }

    /**
     * @param  list<float>  $row
     * @return array<string, array{float, float, float}>
     */
    private function places(array $row, float $x, float $z, float $turn): array
    {
        $s = $this->figure->skeleton;
        [$p] = $s->world(array_slice($row, 3, 4 * $s->count()), [$row[0], $row[1], $row[2]], $this->figure->hips);
        [$c, $n] = [cos($turn), sin($turn)];
        $out = [];
        foreach (array_keys(self::WEIGHTS) as $role) {
            $j = $s->roles[$role] ?? null;
            if ($j !== null) {
                [$dx, $dz] = [$p[3 * $j] - $x, $p[3 * $j + 2] - $z];
                $out[$role] = [$dx * $c - $dz * $n, $p[3 * $j + 1], $dx * $n + $dz * $c];
            }
        }

        return $out;
    }

    /**
     * Weighted root mean square of places and of the ways made in a little while.
     *
     * @param  list<array{array{float, float, float}, array{float, float, float}, float}>  $a
     * @param  list<array{array{float, float, float}, array{float, float, float}, float}>  $b
     */
    public static function distance(array $a, array $b): float
    {
        $sum = $total = 0.0;
        foreach ($a as $k => [$p, $v, $w]) {
            $dp = V3::distance($p, $b[$k][0]);
            $dv = V3::distance($v, $b[$k][1]);
            $sum += $w * ($dp * $dp + $dv * $dv);
            $total += $w;
        }

        return sqrt($sum / max(1e-9, $total));
    }
}
