<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/**
 * Which joint plays which part of a human body, told from its name: words are split at capitals, digits and
 * punctuation, prefixes that every joint carries are dropped, and a side is a word or a lone letter at either end.
 */
final class HumanRoles
{
    public const CENTRE = ['hips', 'spine', 'chest', 'upperChest', 'neck', 'head', 'jaw'];

    public const SIDED = ['eye', 'shoulder', 'upperArm', 'lowerArm', 'hand', 'upperLeg', 'lowerLeg', 'foot', 'toes'];

    /** Joined words that name a role; earlier entries win. */
    private const WORDS = [
        'hips' => ['hips', 'pelvis', 'hip', 'root hips'],
        'upperChest' => ['upperchest', 'upperspine', 'spine2', 'spine3', 'chest2'],
        'chest' => ['chest', 'spine1', 'spinemid', 'midspine', 'thorax', 'ribcage'],
        'spine' => ['spine', 'spine0', 'lowerspine', 'abdomen', 'waist', 'lowerback'],
        'neck' => ['neck', 'neck1'],
        'head' => ['head'],
        'jaw' => ['jaw', 'chin'],
        'eye' => ['eye', 'eyeball'],
        'shoulder' => ['shoulder', 'clavicle', 'collar', 'collarbone'],
        'upperArm' => ['upperarm', 'uparm', 'arm', 'humerus'],
        'lowerArm' => ['lowerarm', 'forearm', 'elbow', 'lowarm'],
        'hand' => ['hand', 'wrist'],
        'upperLeg' => ['upperleg', 'upleg', 'thigh', 'femur'],
        'lowerLeg' => ['lowerleg', 'leg', 'shin', 'calf', 'knee', 'lowleg'],
        'foot' => ['foot', 'ankle'],
        'toes' => ['toes', 'toe', 'toebase', 'ball'],
    ];

    /**
     * @param  list<string>  $names
     * @param  list<int>  $parents
     * @return array<string, int> role (sided ones end in L or R) to joint
     */
    public static function match(array $names, array $parents): array
    {
        return array_map(static fn (array $f): int => $f[0], self::byName($names, $parents));
    }

    /**
     * @param  list<string>  $names
     * @param  list<int>  $parents
     * @return array<string, array{int, int}> role to joint and to the rank of its spelling
     */
    private static function byName(array $names, array $parents): array
    {
        $words = JointNames::words($names);
        $found = [];
        foreach ($words as $i => $w) {
            [$side, $rest] = JointNames::side($w);
            $joined = implode('', $rest);
            foreach (self::WORDS as $role => $spellings) {
                $rank = array_search($joined, $spellings, true);
                $sided = in_array($role, self::SIDED, true);
                if ($rank === false || $sided !== ($side !== '')) {
                    continue;
                }
                $key = $role.$side;
                if (! isset($found[$key]) || $rank < $found[$key][1]) {
                    $found[$key] = [$i, $rank];
                }
                break;
            }
        }
        if (! isset($found['hips'], $found['spine']) && isset($found['upperLegL'], $found['upperLegR'])) {
            $parent = $parents[$found['upperLegL'][0]];
            if ($parent >= 0 && $parent === $parents[$found['upperLegR'][0]] && ! isset($found['hips'])) {
                $found['hips'] = [$parent, 3];
            }
        }

        return $found;
    }

    /**
     * Roles with how sure each is, 0 to 1: a usual spelling, standing where it belongs in the hierarchy, and on its own
     * side (left is +X at rest). Limbs are told from their whole chains, and roles that no name tells from the shape of the
     * tree; those are less sure.
     *
     * @return array<string, array{joint: int, confidence: float}>
     */
    public static function judge(Skeleton $skeleton): array
    {
        [$places] = $skeleton->world($skeleton->rotations);
        $found = self::byName($skeleton->names, $skeleton->parents);
        $chains = self::byChain($skeleton, $found, $places);
        $found = array_map(static fn (array $f): array => [$f[0], 0], $chains) + array_filter(
            $found,
            static fn (array $f): bool => ! in_array($f[0], array_column($chains, 0), true),
        );
        $out = [];
        foreach ($found as $role => [$joint, $rank]) {
            $sure = isset($chains[$role]) ? 0.74 + 0.24 * $chains[$role][1] : max(0.7, 0.98 - 0.04 * $rank);
            $above = self::above($role);
            if ($above !== null && isset($found[$above]) && ! self::under($joint, $found[$above][0], $skeleton->parents)) {
                $sure *= 0.5;
            }
            if (self::wrongSide($role, $found, $places)) {
                $sure *= 0.6;
            }
            $out[$role] = ['joint' => $joint, 'confidence' => round($sure, 3)];
        }
        foreach (TreeRoles::match($skeleton, $places) as $role => $joint) {
            $taken = array_column($out, 'joint');
            if (! isset($out[$role]) && ! in_array($joint, $taken, true)) {
                $out[$role] = ['joint' => $joint, 'confidence' => 0.5];
            }
        }

        return $out;
    }

    /** @return array<string, int> roles that names tell, limbs and back mended by their chains */
    public static function named(Skeleton $skeleton): array
    {
        $found = self::byName($skeleton->names, $skeleton->parents);
        [$places] = $skeleton->world($skeleton->rotations);

        return array_map(static fn (array $f): int => $f[0], self::byChain($skeleton, $found, $places) + $found);
    }

    /**
     * Roles of limbs and back as their chains tell them, where names tell hips and head or neck.
     *
     * @param  array<string, array{int, int}>  $found
     * @param  list<float>  $places
     * @return array<string, array{int, float}> role to joint and to what its name says of it, -1 to 1
     */
    private static function byChain(Skeleton $skeleton, array $found, array $places): array
    {
        [$sides, $words] = [[], []];
        foreach (JointNames::words($skeleton->names) as $w) {
            [$sides[], $words[]] = JointNames::side($w);
        }
        $hips = $found['hips'][0] ?? self::over($skeleton, array_keys(array_filter(
            $words,
            static fn (array $w): bool => LimbRoles::isLeg($w),
        )));
        $bare = array_map(static fn (array $w): string => (string) preg_replace('/\d+$/', '', implode('', $w)), $words);
        $head = $found['head'][0] ?? (in_array('head', $bare, true) ? (int) array_search('head', $bare, true) : null);
        $top = $head ?? $found['neck'][0] ?? null;
        if ($hips === null || $top === null) {
            return [];
        }
        $limbs = new LimbRoles($skeleton, $words, $sides, Stance::stood($skeleton, $places, $hips, $top, $words));
        $out = $limbs->limbs($hips, $top);
        if (! isset($out['upperLegL'], $out['upperLegR'])) {
            return [];
        }

        return $out + TrunkRoles::of($skeleton, $words, $hips, $top, $out, $head !== null);
    }

    /**
     * @param  list<int>  $joints
     * @return int|null the joint that all of them hang on
     */
    private static function over(Skeleton $skeleton, array $joints): ?int
    {
        $common = null;
        foreach ($joints as $j) {
            $way = array_slice($skeleton->above($j), 1);
            $common = $common === null ? $way : array_values(array_intersect($common, $way));
        }

        return $common[0] ?? null;
    }

    /**
     * Roles as judged, with those that a person has chosen in their place.
     *
     * @param  array<string, string>  $byHand  role to joint name; an empty name takes the role away
     * @return array<string, int>
     *
     * @throws UnableToMatch
     */
    public static function chosen(Skeleton $skeleton, array $byHand = []): array
    {
        $roles = array_map(static fn (array $r): int => $r['joint'], self::judge($skeleton));
        foreach ($byHand as $role => $joint) {
            if (! in_array($role, self::all(), true)) {
                throw UnableToMatch::part((string) $role);
            }
            unset($roles[$role]);
            if ($joint !== '') {
                $roles[$role] = $skeleton->index[$joint] ?? throw UnableToMatch::joint($role, $joint);
            }
        }

        return $roles;
    }

    /** @return list<string> */
    public static function all(): array
    {
        return [...self::CENTRE, ...array_merge(...array_map(static fn (string $r): array => [$r.'L', $r.'R'], self::SIDED))];
    }

    /** The role that stands above another in any body. */
    private static function above(string $role): ?string
    {
        $side = in_array(substr($role, -1), ['L', 'R'], true) ? substr($role, -1) : '';

        return match ($side === '' ? $role : substr($role, 0, -1)) {
            'spine' => 'hips', 'chest' => 'spine', 'upperChest' => 'chest', 'neck' => 'spine', 'head' => 'neck', 'jaw', 'eye' => 'head',
            'shoulder' => 'spine', 'upperArm' => 'spine', 'lowerArm' => 'upperArm'.$side, 'hand' => 'lowerArm'.$side,
            'upperLeg' => 'hips', 'lowerLeg' => 'upperLeg'.$side, 'foot' => 'lowerLeg'.$side, 'toes' => 'foot'.$side, default => null,
        };
    }

    /** @param  list<int>  $parents */
    private static function under(int $joint, int $ancestor, array $parents): bool
    {
        for ($j = $parents[$joint]; $j >= 0; $j = $parents[$j]) {
            if ($j === $ancestor) {
                return true;
            }
        }

        return false;
    }

    /**
     * Both sides on one, or changed: seen along the line from right to left hip.
     *
     * @param  array<string, array{int, int}>  $found
     * @param  list<float>  $places
     */
    private static function wrongSide(string $role, array $found, array $places): bool
    {
        $side = substr($role, -1);
        $other = substr($role, 0, -1).($side === 'L' ? 'R' : 'L');
        if (! isset($found[$other]) || ($side !== 'L' && $side !== 'R') || ! isset($found['upperLegL'], $found['upperLegR'])) {
            return false;
        }
        $at = static fn (string $r, int $k): float => $places[3 * $found[$r][0] + $k];
        $dot = 0.0;
        for ($k = 0; $k < 3; $k++) {
            $dot += ($at($role, $k) - $at($other, $k)) * ($at('upperLeg'.$side, $k) - $at('upperLeg'.($side === 'L' ? 'R' : 'L'), $k));
        }

        return $dot < 0.0;
    }
}
