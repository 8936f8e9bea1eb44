<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/** Words that joints are called by: split at capitals, digits and punctuation, without what every joint bears, and the side told apart. */
final class JointNames
{
    /** Words that many joints bear and that tell nothing. */
    private const EMPTY = ['joint', 'jnt', 'bone', 'bn', 'bind', 'skin', 'def', 'deform', 'rig'];

    /**
     * @param  list<string>  $names
     * @return list<list<string>> lower case
     */
    public static function words(array $names): array
    {
        return self::withoutCommonPrefix(array_map(self::split(...), $names));
    }

    /** @return list<string> lower case */
    private static function split(string $name): array
    {
        $name = (string) preg_replace('/^.*[:|]/', '', $name);
        // Copies are numbered .001 and the like; spine1 and spine2 are not copies.
        $name = (string) preg_replace('/[._ -]0\d+$/', '', $name);
        $name = (string) preg_replace('/([a-z0-9])([A-Z])/', '$1 $2', $name);
        $name = (string) preg_replace('/([A-Z]+)([A-Z][a-z])/', '$1 $2', $name);

        $words = array_values(array_filter(preg_split('/[^a-z0-9]+/', strtolower($name)) ?: [], static fn (string $w): bool => $w !== ''));
        $telling = array_values(array_diff($words, self::EMPTY));

        return $telling === [] ? $words : $telling;
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
    public static function side(array $words): array
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
