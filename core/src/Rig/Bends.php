<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * The axes about which elbows and knees of a recording bend, told from the motion itself: the mean of all bends, seen from the
 * upper part of the limb. With them a limb of another body is twisted as the source's is, whatever pose was its rest.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Bends
{
    /** Radians that a joint must have been bent at least once. */
    private const LEAST = 0.35;

    /** Length of the mean axis for which the bends agree. */
    private const AGREE = 0.85;

    /** Seconds between the moments that are looked at. */
    private const EVERY = 0.1;

    public const LIMBS = ['upperArm' => ['lowerArm', 'hand'], 'upperLeg' => ['lowerLeg', 'foot']];

    /**
     * @return array<string, Vec> upper part to the axis, unit, in its space at rest, stood upright; those that bend enough
     */
    public static function of(Recording $r): array
    {
        [, $rest] = $r->skeleton->world($r->skeleton->rotations);
        $sums = [];
        for ($s = 0.0; $s <= $r->clip->seconds; $s += self::EVERY) {
            [$p, $q] = $r->world($s);
            foreach (self::LIMBS as $upper => [$lower, $end]) {
                foreach (['L', 'R'] as $side) {
                    [$a, $b, $c] = [$r->roles[$upper.$side] ?? null, $r->roles[$lower.$side] ?? null, $r->roles[$end.$side] ?? null];
                    if ($a === null || $b === null || $c === null) {
                        continue;
                    }
                    $u = V3::unit(V3::sub(Stance::at($p, $b), Stance::at($p, $a)));
                    $bend = V3::cross($u, V3::unit(V3::sub(Stance::at($p, $c), Stance::at($p, $b))));
                    $made = Q4::mul(Skeleton::turnOf($q, $a), Q4::conjugate(Skeleton::turnOf($rest, $a)));
                    $seen = Q4::rotate(Q4::mul($r->upright, Q4::conjugate($made)), $bend);
                    [$sum, $all, $most] = $sums[$upper.$side] ?? [[0.0, 0.0, 0.0], 0.0, 0.0];
                    $much = V3::length($bend);
                    $sums[$upper.$side] = [V3::add($sum, $seen), $all + $much, max($most, $much)];
                }
            }
        }
        $out = [];
        foreach ($sums as $role => [$sum, $all, $most]) {
            if ($most > sin(self::LEAST) && V3::length($sum) > self::AGREE * $all) {
                $out[$role] = V3::unit($sum);
            }
        }

        return $out;
    }
}
