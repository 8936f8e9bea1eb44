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
        $words = self::withoutCommonPrefix(array_map(self::words(...), $names));
        $found = [];
        foreach ($words as $i => $w) {
            [$side, $rest] = self::side($w);
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
        $roles = array_map(static fn (array $f): int => $f[0], $found);
        if (! isset($roles['hips'])) {
            $legs = array_values(array_intersect_key($roles, ['upperLegL' => 1, 'upperLegR' => 1]));
            if (count($legs) === 2 && $parents[$legs[0]] >= 0 && $parents[$legs[0]] === $parents[$legs[1]]) {
                $roles['hips'] = $parents[$legs[0]];
            }
        }

        return $roles;
    }

    /** @return list<string> lower case */
    private static function words(string $name): array
    {
        $name = (string) preg_replace('/^.*[:|]/', '', $name);
        $name = (string) preg_replace('/([a-z0-9])([A-Z])/', '$1 $2', $name);
        $name = (string) preg_replace('/([A-Z]+)([A-Z][a-z])/', '$1 $2', $name);

        return array_values(array_filter(preg_split('/[^a-z0-9]+/', strtolower($name)) ?: [], static fn (string $w): bool => $w !== ''));
    }

    /**
     * @param  list<list<string>>  $all
     * @return list<list<string>>
     */
    private static function withoutCommonPrefix(array $all): array
    {
        while (count($all) > 2) {
            $first = $all[0][0] ?? '';
            foreach ($all as $w) {
                if (count($w) < 2 || $w[0] !== $first) {
                    return $all;
                }
            }
            $all = array_map(static fn (array $w): array => array_slice($w, 1), $all);
        }

        return $all;
    }

    /**
     * @param  list<string>  $words
     * @return array{string, list<string>} L, R or nothing, and the other words
     */
    private static function side(array $words): array
    {
        foreach ($words as $k => $w) {
            $side = match ($w) {
                'l', 'left', 'lft' => 'L', 'r', 'right', 'rgt' => 'R', default => '',
            };
            if ($side !== '' && count($words) > 1) {
                unset($words[$k]);

                return [$side, array_values($words)];
            }
        }

        return ['', $words];
    }
}
