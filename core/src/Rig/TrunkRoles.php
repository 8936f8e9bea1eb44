<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/**
 * Spine, chest, upper chest, neck and head told from the chain between hips and head: whatever the joints of the back are
 * called or numbered, the first is the spine, the last one that carries arms the upper chest, and the neck comes after it.
 */
final class TrunkRoles
{
    /**
     * @param  list<list<string>>  $words  of each joint's name
     * @param  array<string, array{int, float}>  $limbs  as LimbRoles tells them
     * @return array<string, array{int, float}>
     */
    public static function of(Skeleton $skeleton, array $words, int $hips, int $top, array $limbs, bool $head): array
    {
        $way = self::way($skeleton->parents, $hips, $top);
        $arm = $limbs['shoulderL'][0] ?? $limbs['upperArmL'][0] ?? $limbs['shoulderR'][0] ?? $limbs['upperArmR'][0] ?? null;
        for ($carrier = $arm ?? -1; $carrier >= 0 && ! in_array($carrier, $way, true); $carrier = $skeleton->parents[$carrier]) {
            // Up to the joint of the trunk that the arms leave.
        }
        $cut = array_search($carrier, $way, true);
        $necks = array_values(array_filter($way, static fn (int $j): bool => in_array('neck', $words[$j], true)
            || str_starts_with(implode('', $words[$j]), 'neck')));
        $back = match (true) {
            is_int($cut) => array_slice($way, 0, $cut + 1),
            $necks !== [] => array_slice($way, 0, (int) array_search($necks[0], $way, true)),
            default => $way,
        };
        $back = array_values(array_diff($back, [$head ? $top : -1, ...$necks]));
        $above = array_values(array_diff($way, $back, [$head ? $top : -1]));
        $out = ['hips' => [$hips, self::says($words[$hips], '/^(hips?|pelvis)$/')]];
        $n = count($back);
        $parts = match (true) {
            $n === 0 => [],
            $n === 1 => [self::says($words[$back[0]], '/chest|thorax|rib/') > 0.0 ? 'chest' : 'spine' => $back[0]],
            $n === 2 => ['spine' => $back[0], 'chest' => $back[1]],
            default => ['spine' => $back[0], 'chest' => $back[intdiv($n, 2)], 'upperChest' => $back[$n - 1]],
        };
        foreach ($parts as $role => $j) {
            $out[$role] = [$j, self::says($words[$j], '/spine|chest|abdomen|back|torso|waist|thorax|rib|^ab$/')];
        }
        if ($above !== []) {
            $out['neck'] = [$above[0], self::says($words[$above[0]], '/neck/')];
        }
        if ($head) {
            $out['head'] = [$top, 1.0];
        }

        return $out;
    }

    /** @param  list<string>  $words */
    private static function says(array $words, string $pattern): float
    {
        return preg_match($pattern, implode('', $words)) === 1 ? 1.0 : 0.0;
    }

    /**
     * Joints from below the hips' branch to the top, the hips left out.
     *
     * @param  list<int>  $parents
     * @return list<int>
     */
    private static function way(array $parents, int $hips, int $top): array
    {
        $over = [];
        for ($j = $hips; $j >= 0; $j = $parents[$j]) {
            $over[$j] = true;
        }
        $way = [];
        for ($j = $top; $j >= 0 && ! isset($over[$j]); $j = $parents[$j]) {
            array_unshift($way, $j);
        }

        return $way;
    }
}
