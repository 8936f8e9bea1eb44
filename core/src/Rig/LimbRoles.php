<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\V3;

/**
 * Which joints of an arm or a leg are its upper part, its lower part and its end, told from the whole chain: what the names
 * say and what the lengths say are weighed together, so that a "Shoulder" after a "Collar" begins the arm, an "Elbow" begins
 * the forearm, and joints for twist or help are passed over. Sides that no name tells are told from the place.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final readonly class LimbRoles
{
    /** How well a word fits a part of an arm (upper, lower, end): from -1, not this, to 1, just this. */
    private const ARM = [
        'shoulder' => [0.3, -1.0, -1.0], 'upperarm' => [1.0, -1.0, -1.0], 'uparm' => [1.0, -1.0, -1.0], 'humerus' => [1.0, -1.0, -1.0],
        'bicep' => [0.9, -0.8, -1.0], 'arm' => [0.8, 0.0, -1.0], 'forearm' => [-1.0, 1.0, -0.8], 'lowerarm' => [-1.0, 1.0, -0.8],
        'lowarm' => [-1.0, 1.0, -0.8], 'elbow' => [-0.8, 0.9, -0.8], 'ulna' => [-1.0, 1.0, -0.8], 'radius' => [-1.0, 0.8, -0.8],
        'wrist' => [-1.0, -0.8, 1.0], 'hand' => [-1.0, -1.0, 0.9], 'palm' => [-1.0, -1.0, 0.6],
    ];

    private const COLLARS = ['clavicle', 'collar', 'collarbone', 'scapula', 'shoulderblade'];

    private const LEG = [
        'hip' => [0.5, -1.0, -1.0], 'upperleg' => [1.0, -1.0, -1.0], 'upleg' => [1.0, -1.0, -1.0], 'thigh' => [1.0, -1.0, -1.0],
        'femur' => [1.0, -1.0, -1.0], 'leg' => [0.2, 0.6, -1.0], 'lowerleg' => [-1.0, 1.0, -0.8], 'lowleg' => [-1.0, 1.0, -0.8],
        'shin' => [-1.0, 1.0, -0.8], 'calf' => [-1.0, 1.0, -0.8], 'tibia' => [-1.0, 1.0, -0.8], 'knee' => [-0.8, 1.0, -0.8],
        'ankle' => [-1.0, -0.8, 1.0], 'foot' => [-1.0, -1.0, 0.9], 'heel' => [-1.0, -1.0, -0.2],
        'toe' => [-1.0, -1.0, -1.0], 'toes' => [-1.0, -1.0, -1.0], 'toebase' => [-1.0, -1.0, -1.0], 'ball' => [-1.0, -1.0, -0.8],
    ];

    /** Words that say a joint helps another one and is no part by itself. */
    private const HELPERS = [
        'twist', 'roll', 'helper', 'aux', 'ctrl', 'control', 'ik', 'pole', 'target', 'dummy', 'nub', 'end', 'tip', 'null', 'bendy', 'fix',
        'correct', 'corrective', 'muscle', 'joint2', 'share', 'sub', 'volume', 'goal', 'effector',
    ];

    /** @var array<int, list<int>> by joint, those that hang on it */
    private array $children;

    /** Joints of a chain that are weighed; a limb is over long before. */
    private const MOST = 16;

    private const ROLES = ['arm' => ['upperArm', 'lowerArm', 'hand'], 'leg' => ['upperLeg', 'lowerLeg', 'foot']];

    /**
     * @param  list<list<string>>  $words  of each joint's name, lower case, without sides
     * @param  list<string>  $sides  of each joint: L, R or nothing
     * @param  list<float>  $places  world places at rest, +Y up, +X left
     */
    public function __construct(private Skeleton $skeleton, private array $words, private array $sides, private array $places)
    {
        $this->children = $skeleton->children();
    }

    /** @param  list<string>  $words */
    public static function isLeg(array $words): bool
    {
        return isset(self::LEG[(string) preg_replace('/\d+$/', '', implode('', $words))]);
    }

    /**
     * @param  int  $hips  joint that the legs hang on
     * @param  int  $top  head or neck
     * @return array<string, array{int, float}> roles of both arms and legs, with what their names said (-1 to 1)
     */
    public function limbs(int $hips, int $top): array
    {
        $trunk = array_fill_keys([...$this->skeleton->above($hips), ...$this->skeleton->above($top)], true);
        $out = [];
        foreach (['arm' => self::ARM, 'leg' => self::LEG] as $kind => $table) {
            foreach ($this->sided($this->chains($trunk, $table)) as $side => $chain) {
                $out += $this->parts($chain, $kind, $table, $side);
            }
        }

        return $out;
    }

    /**
     * Chains that leave the trunk and bear words of a kind of limb, by their first joint.
     *
     * @param  array<int, true>  $trunk
     * @param  array<string, list<float>>  $table
     * @return array<int, list<int>>
     */
    private function chains(array $trunk, array $table): array
    {
        $best = [];
        foreach (array_keys($this->words) as $j) {
            if (isset($trunk[$j]) || ! isset($table[$this->word($j)])) {
                continue;
            }
            for ($way = [], $k = $j; $k >= 0 && ! isset($trunk[$k]); $k = $this->skeleton->parents[$k]) {
                $way[] = $k;
            }
            if ($k >= 0 && count($way) >= count($best[$way[count($way) - 1]] ?? [])) {
                $best[$way[count($way) - 1]] = array_reverse($way);
            }
        }

        return array_map(fn (array $way): array => [...$way, ...$this->longest($way[count($way) - 1])], $best);
    }

    /** @return list<int> the chain below a joint that is longest in metres */
    private function longest(int $joint): array
    {
        $best = [];
        $most = -1.0;
        foreach ($this->children[$joint] ?? [] as $c) {
            $chain = [$c, ...$this->longest($c)];
            $length = $this->distance($joint, $c);
            for ($i = 1; $i < count($chain); $i++) {
                $length += $this->distance($chain[$i - 1], $chain[$i]);
            }
            if ($length > $most) {
                [$best, $most] = [$chain, $length];
            }
        }

        return $best;
    }

    /**
     * At most two chains, each on its side: as most of its names say, else as it lies beside the other one.
     *
     * @param  array<int, list<int>>  $chains
     * @return array<string, list<int>>
     */
    private function sided(array $chains): array
    {
        usort($chains, fn (array $a, array $b): int => $this->said($b) <=> $this->said($a));
        $out = [];
        foreach ($chains as $k => $chain) {
            $votes = array_count_values(array_filter(array_map(fn (int $j): string => $this->sides[$j], $chain)));
            $side = ($votes['L'] ?? 0) <=> ($votes['R'] ?? 0);
            if ($side === 0) {
                $others = array_diff_key($chains, [$k => 1]);
                $middle = $others === [] ? 0.0 : $this->across(array_values($others)[0]);
                $side = $this->across($chain) <=> ($others === [] ? 0.0 : 0.5 * ($this->across($chain) + $middle));
            }
            $name = $side >= 0 ? 'L' : 'R';
            $out[$name] ??= $chain;
        }

        return $out;
    }

    /**
     * How many joints of a chain bear a word of a limb.
     *
     * @param  list<int>  $chain
     */
    private function said(array $chain): int
    {
        return count(array_filter($chain, $this->tells(...)));
    }

    /** @param  list<int>  $chain */
    private function across(array $chain): float
    {
        return $this->places[3 * $chain[intdiv(count($chain), 2)]];
    }

    /**
     * The three joints of a chain that make the best limb.
     *
     * @param  list<int>  $chain
     * @param  array<string, list<float>>  $table
     * @return array<string, array{int, float}>
     */
    private function parts(array $chain, string $kind, array $table, string $side): array
    {
        $chain = array_slice($this->withoutHelpers($chain), 0, self::MOST);
        $n = count($chain);
        $total = 0.0;
        for ($i = 1; $i < $n; $i++) {
            $total += $this->distance($chain[$i - 1], $chain[$i]);
        }
        $collar = $kind === 'arm' && array_filter($chain, fn (int $j): bool => in_array($this->word($j), self::COLLARS, true)) !== [];
        $best = null;
        $most = -INF;
        for ($u = 0; $u < $n - 2; $u++) {
            for ($l = $u + 1; $l < $n - 1; $l++) {
                for ($e = $l + 1; $e < $n; $e++) {
                    $said = [
                        $this->fits($chain[$u], $table, 0, $collar), $this->fits($chain[$l], $table, 1, $collar),
                        $this->fits($chain[$e], $table, 2, $collar),
                    ];
                    $score = 3.0 * array_sum($said) + $this->shape($chain, $u, $l, $e, $total) - 0.6 * ($e - $u - 2);
                    if ($score > $most) {
                        [$best, $most] = [[$u, $l, $e, $said], $score];
                    }
                }
            }
        }
        if ($best === null) {
            return [];
        }
        [$u, $l, $e, $said] = $best;
        $out = [];
        foreach ([$u, $l, $e] as $k => $at) {
            $out[self::ROLES[$kind][$k].$side] = [$chain[$at], $said[$k]];
        }
        if ($kind === 'leg' && isset($chain[$e + 1])) {
            $out['toes'.$side] = [$chain[$e + 1], preg_match('/toe|ball/', $this->word($chain[$e + 1])) === 1 ? 1.0 : 0.0];
        }
        if ($kind === 'arm' && $u > 0) {
            $out['shoulder'.$side] = [
                $chain[$u - 1], preg_match('/shoulder|clav|collar|scap/', $this->word($chain[$u - 1])) === 1 ? 1.0 : 0.0,
            ];
        }

        return $out;
    }

    /**
     * @param  list<int>  $chain
     * @return list<int> without joints that help others and joints that lie where the next one lies
     */
    private function withoutHelpers(array $chain): array
    {
        $out = [];
        $last = count($chain) - 1;
        $near = 1e-6 * (1.0 + $this->distance($chain[0], $chain[$last]));
        foreach ($chain as $k => $j) {
            $helps = $k < $last && array_intersect($this->words[$j], self::HELPERS) !== [];
            // Of two joints in one place the one whose name tells something stays, or the later one.
            $before = $out === [] ? null : $out[count($out) - 1];
            if ($helps || ($before !== null && $this->distance($before, $j) < $near && ! $this->tells($j) && $this->tells($before))) {
                continue;
            }
            if ($before !== null && $this->distance($before, $j) < $near) {
                array_pop($out);
            }
            $out[] = $j;
        }

        return count($out) >= 3 ? $out : $chain;
    }

    private function tells(int $joint): bool
    {
        return isset((self::ARM + self::LEG)[$this->word($joint)]);
    }

    /** @param  array<string, list<float>>  $table */
    private function fits(int $joint, array $table, int $part, bool $collar): float
    {
        $word = $this->word($joint);

        // After a collar bone the shoulder is where the arm begins; without one it may be either.
        return $word === 'shoulder' && $part === 0 && $collar ? 0.8 : (
            in_array($word, self::COLLARS, true) ? -1.0 : $table[$word][$part] ?? 0.0
        );
    }

    /**
     * How much three joints look like a limb: its two parts about as long as each other and together most of the chain.
     *
     * @param  list<int>  $chain
     */
    private function shape(array $chain, int $u, int $l, int $e, float $total): float
    {
        $a = $this->distance($chain[$u], $chain[$l]);
        $b = $this->distance($chain[$l], $chain[$e]);
        if ($a < 1e-9 || $b < 1e-9 || $total < 1e-9) {
            return -2.0;
        }

        return -abs(log($a / $b)) + 2.0 * ($a + $b) / $total;
    }

    /** The word of a joint's name as the tables have it: without numbers, "arm upper" as "upper arm". */
    private function word(int $joint): string
    {
        $words = array_values(array_filter(array_map(
            static fn (string $w): string => (string) preg_replace('/\d+$/', '', $w),
            $this->words[$joint],
        ), static fn (string $w): bool => $w !== ''));
        $joined = implode('', $words);
        $turned = implode('', array_reverse($words));

        return isset((self::ARM + self::LEG)[$joined]) || ! isset((self::ARM + self::LEG)[$turned]) ? $joined : $turned;
    }

    private function distance(int $a, int $b): float
    {
        return V3::distance(
            [$this->places[3 * $a], $this->places[3 * $a + 1], $this->places[3 * $a + 2]],
            [$this->places[3 * $b], $this->places[3 * $b + 1], $this->places[3 * $b + 2]],
        );
    }
}
