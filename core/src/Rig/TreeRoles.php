<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;

/**
 * Human roles from the shape of a joint tree alone: legs are the two longest chains that go down from one joint, the
 * trunk goes up from there, arms leave it to the sides, and what is left above them is neck and head.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class TreeRoles
{
    /** @var array<int, list<int>> */
    private readonly array $children;

    /** @var array<int, float> */
    private array $tops = [];

    /** @var array<int, list<int>> */
    private array $chains = [];

    /** @param  list<float>  $places  world places at rest */
    private function __construct(private readonly Skeleton $skeleton, private readonly array $places)
    {
        $this->children = $skeleton->children();
    }

    /**
     * @param  list<float>  $places
     * @return array<string, int>
     */
    public static function match(Skeleton $skeleton, array $places): array
    {
        $best = [];
        $most = 0.0;
        // Whichever way is up: the one in which the body is tallest.
        foreach ([
            Q4::IDENTITY, Q4::aroundX(-M_PI / 2), Q4::aroundX(M_PI / 2), Q4::aroundZ(M_PI / 2), Q4::aroundZ(-M_PI / 2), Q4::aroundX(M_PI),
        ] as $turn) {
            [$roles, $tall] = (new self($skeleton, Stance::turned($places, $turn)))->body();
            if ($tall > 1.02 * $most) {
                [$best, $most] = [$roles, $tall];
            }
        }

        return $best;
    }

    /** @return array{array<string, int>, float} roles, and how tall the body is that they make */
    private function body(): array
    {
        $best = [];
        $most = 0.0;
        foreach (array_keys($this->skeleton->names) as $hips) {
            // Two legs and a trunk at least; most joints have one child.
            if (count($this->children[$hips] ?? []) < 3) {
                continue;
            }
            $legs = array_values(array_filter($this->children[$hips] ?? [], fn (int $c): bool => $this->goesDown($c)));
            $up = array_values(array_filter(
                $this->children[$hips] ?? [],
                fn (int $c): bool => $this->top($c) > $this->y($hips) && ! $this->goesDown($c),
            ));
            if (count($legs) !== 2 || $up === []) {
                continue;
            }
            // Hanging arms go down, too, but not as far as legs.
            usort($up, fn (int $a, int $b): int => $this->top($b) <=> $this->top($a));
            $tall = $this->top($up[0]) - 0.5 * ($this->y($this->end($legs[0])) + $this->y($this->end($legs[1])));
            if ($tall > $most) {
                [$best, $most] = [['hips' => $hips] + $this->legs($legs) + $this->trunk($up[0]), $tall];
            }
        }

        return [$this->facing($best), $most];
    }

    /** Height of the highest joint of a branch. */
    private function top(int $j): float
    {
        return $this->tops[$j] ??= max([$this->y($j), ...array_map($this->top(...), $this->children[$j] ?? [])]);
    }

    /**
     * Sides are told from the place for a body that looks to +Z; where the toes point to -Z they are the other ones.
     *
     * @param  array<string, int>  $roles
     * @return array<string, int>
     */
    private function facing(array $roles): array
    {
        $ahead = 0.0;
        foreach (['L', 'R'] as $s) {
            $ahead += isset($roles['toes'.$s]) ? $this->places[3 * $roles['toes'.$s] + 2] - $this->places[3 * $roles['foot'.$s] + 2] : 0.0;
        }
        if ($ahead >= 0.0) {
            return $roles;
        }
        $out = [];
        foreach ($roles as $role => $j) {
            $side = substr($role, -1);
            $out[in_array($side, ['L', 'R'], true) ? substr($role, 0, -1).($side === 'L' ? 'R' : 'L') : $role] = $j;
        }

        return $out;
    }

    private function y(int $j): float
    {
        return $this->places[3 * $j + 1];
    }

    private function x(int $j): float
    {
        return $this->places[3 * $j];
    }

    /** The far end of the longest chain from a joint. */
    private function end(int $j): int
    {
        $chain = $this->chain($j);

        return $chain[count($chain) - 1];
    }

    /** @return list<int> the longest chain of joints that begins with $j */
    private function chain(int $j): array
    {
        if (isset($this->chains[$j])) {
            return $this->chains[$j];
        }
        $best = [];
        foreach ($this->children[$j] ?? [] as $c) {
            $chain = $this->chain($c);
            $best = count($chain) > count($best) ? $chain : $best;
        }

        return $this->chains[$j] = [$j, ...$best];
    }

    private function goesDown(int $j): bool
    {
        $chain = $this->chain($j);

        return count($chain) >= 3 && $this->y($chain[2]) < $this->y($j) - 1e-6
            && abs($this->y($chain[2]) - $this->y($j)) > abs($this->x($chain[2]) - $this->x($j));
    }

    /**
     * @param  array{int, int}  $legs
     * @return array<string, int>
     */
    private function legs(array $legs): array
    {
        $out = [];
        $left = $this->x($legs[0]) >= $this->x($legs[1]) ? 0 : 1;
        foreach (['L' => $legs[$left], 'R' => $legs[1 - $left]] as $side => $leg) {
            foreach (array_slice($this->chain($leg), 0, 4) as $k => $j) {
                $out[['upperLeg', 'lowerLeg', 'foot', 'toes'][$k].$side] = $j;
            }
        }

        return $out;
    }

    /** @return array<string, int> */
    private function trunk(int $from): array
    {
        $spine = [$from];
        while (count($this->children[$from] ?? []) === 1) {
            $spine[] = $from = $this->children[$from][0];
        }
        $branches = $this->children[$from] ?? [];
        $out = ['spine' => $spine[0]];
        if (count($spine) > 1) {
            $out += ['chest' => $spine[count($spine) > 2 ? intdiv(count($spine), 2) : 1]];
        }
        if (count($spine) > 2) {
            $out += ['upperChest' => $spine[count($spine) - 1]];
        }
        usort($branches, fn (int $a, int $b): int => $this->x($this->end($b)) <=> $this->x($this->end($a)));
        if (count($branches) < 3) {
            return $out;
        }
        foreach (['L' => $branches[0], 'R' => $branches[count($branches) - 1]] as $side => $arm) {
            $chain = $this->chain($arm);
            // A clavicle is short: the upper arm after it is longer.
            $names = count($chain) > 3 && $this->length($chain[0], $chain[1]) < 0.8 * $this->length($chain[1], $chain[2])
                ? ['shoulder', 'upperArm', 'lowerArm', 'hand']
                : ['upperArm', 'lowerArm', 'hand'];
            foreach ($names as $k => $name) {
                if (isset($chain[$k])) {
                    $out[$name.$side] = $chain[$k];
                }
            }
        }
        $middle = $this->chain($branches[intdiv(count($branches), 2)]);
        if (count($middle) > 1) {
            return $out + ['neck' => $middle[0], 'head' => $middle[1]];
        }

        return $out + ['head' => $middle[0]];
    }

    private function length(int $a, int $b): float
    {
        return sqrt(
            ($this->x($a) - $this->x($b)) ** 2 + ($this->y($a) - $this->y($b)) ** 2
                + ($this->places[3 * $a + 2] - $this->places[3 * $b + 2]) ** 2
        );
    }
}
