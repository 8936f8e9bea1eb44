<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Fitting;

use CrispReel\Core\Math\V3;

/**
 * Which joints move each point of a body, and how much. Near is counted through the body, so that a hand at the hip does
 * not take the hip along (after Dionne and de Lasa 2013), and evened out over the surface.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Binding
{
    /** Farther than this through the body a joint moves nothing, in heights. */
    private const REACH = 0.3;

    /** Rounds of evening out over the surface. */
    private const ROUNDS = 3;

    private const LEAST = 0.04;

    /** @var array<string, array<int, float>> metres by joint and cube */
    private array $far = [];

    public function __construct(private readonly VoxelBody $body, private readonly SkeletonPlan $plan)
    {
        foreach ($plan->lines as $name => $lines) {
            $this->far[$name] = $lines === [] || self::isFinger($name) ? [] : $body->distances($lines, self::REACH * $body->height());
        }
    }

    private static function isFinger(string $name): bool
    {
        return preg_match('/[12][LR]$/', $name) === 1;
    }

    /**
     * Four joints (by their number in the plan) and weights of each point.
     *
     * @param  list<float>  $positions  in the world
     * @param  list<int>  $index
     * @return array{list<int>, list<float>}
     */
    public function weights(array $positions, array $index): array
    {
        $names = array_keys($this->plan->places);
        $number = array_flip($names);
        $count = intdiv(count($positions), 3);
        $raw = [];
        for ($v = 0; $v < $count; $v++) {
            $raw[] = $this->shares([$positions[3 * $v], $positions[3 * $v + 1], $positions[3 * $v + 2]], $number);
        }
        $raw = self::evened($raw, $positions, $index);
        $joints = $weights = [];
        foreach ($raw as $w) {
            arsort($w);
            $w = array_slice($w, 0, 4, true);
            $w = array_filter($w, static fn (float $x): bool => $x >= self::LEAST) ?: array_slice($w, 0, 1, true);
            $sum = array_sum($w);
            $k = 0;
            foreach ($w as $j => $x) {
                $joints[] = $j;
                $weights[] = $x / $sum;
                $k++;
            }
            for (; $k < 4; $k++) {
                $joints[] = 0;
                $weights[] = 0.0;
            }
        }

        return [$joints, $weights];
    }

    /**
     * @param  Vec  $p
     * @param  array<string, int>  $number
     * @return array<int, float>
     */
    private function shares(array $p, array $number): array
    {
        $c = $this->body->at(...$p);
        $soft = 0.6 * $this->body->cube;
        $out = [];
        foreach ($this->far as $name => $far) {
            if (isset($far[$c])) {
                // The cube tells how far it is through the body; within it the straight way tells the rest.
                $d = max($far[$c], $this->straight($p, $this->plan->lines[$name])) + $soft;
                $out[$number[$name]] = 1.0 / ($d * $d * $d * $d);
            }
        }
        if ($out === []) {
            $best = INF;
            $nearest = 0;
            foreach ($this->plan->lines as $name => $lines) {
                $d = $lines === [] ? INF : $this->straight($p, $lines);
                [$best, $nearest] = $d < $best ? [$d, $number[$name]] : [$best, $nearest];
            }

            return [$nearest => 1.0];
        }
        $sum = array_sum($out);
        $out = array_filter(array_map(static fn (float $w): float => $w / $sum, $out), static fn (float $w): bool => $w > 0.004);

        return $this->fingered($p, $out, $number);
    }

    /**
     * What the hand holds is shared with its fingers, by the straight way: cubes are too large for them.
     *
     * @param  Vec  $p
     * @param  array<int, float>  $shares
     * @param  array<string, int>  $number
     * @return array<int, float>
     */
    private function fingered(array $p, array $shares, array $number): array
    {
        foreach (['L', 'R'] as $side) {
            $hand = $number['hand'.$side];
            $held = $shares[$hand] ?? 0.0;
            if ($held < self::LEAST || ! isset($number['thumb1'.$side])) {
                continue;
            }
            $near = [];
            foreach ($this->plan->lines as $name => $lines) {
                if ($lines !== [] && ($name === 'hand'.$side || (self::isFinger($name) && str_ends_with($name, $side)))) {
                    $d = $this->straight($p, $lines) + 0.1 * $this->body->cube;
                    $near[$number[$name]] = 1.0 / $d ** 6;
                }
            }
            $sum = array_sum($near);
            $shares[$hand] = 0.0;
            foreach ($near as $j => $w) {
                $shares[$j] = ($shares[$j] ?? 0.0) + $held * $w / $sum;
            }
        }

        return $shares;
    }

    /**
     * @param  Vec  $p
     * @param  list<array{Vec, Vec}>  $lines
     */
    private function straight(array $p, array $lines): float
    {
        $best = INF;
        foreach ($lines as [$a, $b]) {
            $ab = V3::sub($b, $a);
            $t = max(0.0, min(1.0, V3::dot(V3::sub($p, $a), $ab) / max(1e-12, V3::dot($ab, $ab))));
            $best = min($best, V3::distance($p, V3::addScaled($a, $ab, $t)));
        }

        return $best;
    }

    /**
     * Each point takes half of what its neighbours have. Points at one place are one: seams stay shut.
     *
     * @param  list<array<int, float>>  $raw
     * @param  list<float>  $positions
     * @param  list<int>  $index
     * @return list<array<int, float>>
     */
    private static function evened(array $raw, array $positions, array $index): array
    {
        $one = $first = [];
        foreach ($raw as $v => $_) {
            $key = sprintf('%.5f %.5f %.5f', $positions[3 * $v], $positions[3 * $v + 1], $positions[3 * $v + 2]);
            $one[$v] = $first[$key] ??= $v;
        }
        $next = [];
        for ($t = 0, $n = count($index) - 2; $t < $n; $t += 3) {
            foreach ([[0, 1], [1, 2], [2, 0]] as [$i, $j]) {
                [$a, $b] = [$one[$index[$t + $i]], $one[$index[$t + $j]]];
                $next[$a][$b] = $next[$b][$a] = true;
            }
        }
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $new = $raw;
            foreach ($next as $v => $around) {
                $share = 0.5 / count($around);
                $mix = array_map(static fn (float $w): float => 0.5 * $w, $raw[$v]);
                foreach ($around as $u => $_) {
                    foreach ($raw[$u] as $j => $w) {
                        $mix[$j] = ($mix[$j] ?? 0.0) + $share * $w;
                    }
                }
                $new[$v] = $mix;
            }
            $raw = $new;
        }

        return array_map(static fn (int $v): array => $raw[$one[$v]], array_keys($raw));
    }
}
