<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * Poses of one skeleton for another by human roles: the turn that each part of the source has made from its rest is
 * made by the same part of the target, after both rests are brought to one stand (limbs pointing the same way). Up axis,
 * facing and size of the source are mended first.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Retarget
{
    /** What a part points to: its own direction is from its joint to the next of these that is there. */
    private const POINTS = [
        'hips' => ['spine', 'chest', 'neck'], 'spine' => ['chest', 'upperChest', 'neck'], 'chest' => ['upperChest', 'neck'],
        'upperChest' => ['neck'], 'neck' => ['head'],
        'shoulder' => ['upperArm'], 'upperArm' => ['lowerArm'], 'lowerArm' => ['hand'], 'upperLeg' => ['lowerLeg'], 'lowerLeg' => ['foot'],
    ];

    /** Target units for one of the source's. */
    public readonly float $scale;

    /** @var Quat turn that makes the source stand upright and face +Z */
    public readonly array $upright;

    /** @var array<int, int> target joint to source joint */
    private array $from = [];

    /** @var array<int, Quat> by target joint: world rotation at rest, brought to the source's stand */
    private array $stand = [];

    /** @var list<float> */
    private readonly array $sourceRest;

    /**
     * @param  array<string, int>  $sourceRoles
     *
     * @throws UnableToMatch
     */
    public function __construct(
        private readonly Skeleton $source,
        private readonly array $sourceRoles,
        private readonly Skeleton $target,
        private readonly int $targetHips,
    ) {
        foreach (['hips', 'upperLegL', 'upperLegR', 'footL', 'footR'] as $need) {
            if (! isset($sourceRoles[$need]) || ! isset($target->roles[$need])) {
                throw UnableToMatch::role($need, isset($sourceRoles[$need]));
            }
        }
        [$sp, $this->sourceRest] = $source->world($source->rotations);
        [$tp, $tq] = $target->world($target->rotations);
        $this->upright = self::standing($sp, $sourceRoles);
        $length = self::leg($sp, $sourceRoles);
        if ($length < 1e-6) {
            throw UnableToMatch::noLegs();
        }
        $this->scale = self::leg($tp, $target->roles) / $length;
        foreach ($target->roles as $role => $j) {
            if (! isset($sourceRoles[$role])) {
                continue;
            }
            $this->from[$j] = $sourceRoles[$role];
            $this->stand[$j] = Q4::mul($this->aligned($role, $sp, $tp), [$tq[4 * $j], $tq[4 * $j + 1], $tq[4 * $j + 2], $tq[4 * $j + 3]]);
        }
    }

    /**
     * The turn to +Y up, then +Z ahead: up is from the feet to the head, across from right to left hip.
     *
     * @param  list<float>  $p
     * @param  array<string, int>  $roles
     * @return Quat
     */
    private static function standing(array $p, array $roles): array
    {
        $top = $roles['head'] ?? $roles['neck'] ?? $roles['hips'];
        $up = V3::sub(self::at($p, $top), V3::mul(V3::add(self::at($p, $roles['footL']), self::at($p, $roles['footR'])), 0.5));
        $across = V3::sub(self::at($p, $roles['upperLegL']), self::at($p, $roles['upperLegR']));
        if (V3::length($up) < 1e-9 || V3::length($across) < 1e-9) {
            return Q4::IDENTITY;
        }
        // Only whole quarter turns: a figure that leans at rest is not laid straight.
        $up = self::nearestAxis($up);
        $across = self::nearestAxis(V3::across($across, $up));

        return Q4::fromAxes($up, $across, [0.0, 1.0, 0.0], [1.0, 0.0, 0.0]);
    }

    /**
     * The world turn that brings a part of the target, at rest, to where the source's part points at rest.
     *
     * @param  list<float>  $sp
     * @param  list<float>  $tp
     * @return Quat
     */
    private function aligned(string $role, array $sp, array $tp): array
    {
        $side = in_array(substr($role, -1), ['L', 'R'], true) ? substr($role, -1) : '';
        $base = $side === '' ? $role : substr($role, 0, -1);
        foreach (self::POINTS[$base] ?? [] as $next) {
            $next = isset($this->sourceRoles[$next.$side], $this->target->roles[$next.$side]) ? $next.$side : $next;
            if (isset($this->sourceRoles[$next], $this->target->roles[$next])) {
                $s = Q4::rotate(
                    $this->upright,
                    V3::sub(self::at($sp, $this->sourceRoles[$next]), self::at($sp, $this->sourceRoles[$role])),
                );
                $t = V3::sub(self::at($tp, $this->target->roles[$next]), self::at($tp, $this->target->roles[$role]));
                if (V3::length($s) < 1e-6 || V3::length($t) < 1e-6) {
                    return Q4::IDENTITY;
                }

                return Posture::shortest($t, $s, [0.0, 1.0, 0.0]);
            }
        }

        // A hand goes on from its forearm; head and feet stand level in both.
        return $base === 'hand' && isset($this->sourceRoles['lowerArm'.$side], $this->target->roles['lowerArm'.$side])
            ? $this->aligned('lowerArm'.$side, $sp, $tp)
            : Q4::IDENTITY;
    }

    /**
     * @param  list<float>  $p
     * @return Vec
     */
    private static function at(array $p, int $j): array
    {
        return [$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]];
    }

    /**
     * @param  list<float>  $p
     * @param  array<string, int>  $roles
     */
    private static function leg(array $p, array $roles): float
    {
        $knee = $roles['lowerLegL'] ?? $roles['footL'];

        return V3::distance(self::at($p, $roles['upperLegL']), self::at($p, $knee))
            + V3::distance(self::at($p, $knee), self::at($p, $roles['footL']));
    }

    /**
     * @param  Vec  $v
     * @return Vec
     */
    private static function nearestAxis(array $v): array
    {
        $most = max(abs($v[0]), abs($v[1]), abs($v[2]));

        return match ($most) {
            abs($v[1]) => [0.0, $v[1] < 0 ? -1.0 : 1.0, 0.0], abs($v[0]) => [$v[0] < 0 ? -1.0 : 1.0, 0.0, 0.0],
            default => [0.0, 0.0, $v[2] < 0 ? -1.0 : 1.0],
        };
    }

    /**
     * Local rotations of the target and the place of its hips, for a pose of the source. The height of the hips is the
     * source's, scaled; the ground is settled afterwards, from the feet.
     *
     * @param  list<float>  $rotations  of the source, local
     * @param  Vec  $translation  of the source's root
     * @return array{list<float>, Vec}
     */
    public function pose(array $rotations, array $translation, int $root): array
    {
        [$p, $q] = $this->source->world($rotations, $translation, $root);
        $world = [];
        $out = [];
        $back = Q4::conjugate($this->upright);
        foreach ($this->target->parents as $j => $parent) {
            $above = $parent < 0 ? Q4::IDENTITY : $world[$parent];
            $k = $this->from[$j] ?? null;
            if ($k === null) {
                $local = $this->target->restRotation($j);
                $world[$j] = Q4::mul($above, $local);
            } else {
                $rest = [
                    $this->sourceRest[4 * $k], $this->sourceRest[4 * $k + 1], $this->sourceRest[4 * $k + 2],
                    $this->sourceRest[4 * $k + 3],
                ];
                $made = Q4::mul([$q[4 * $k], $q[4 * $k + 1], $q[4 * $k + 2], $q[4 * $k + 3]], Q4::conjugate($rest));
                $world[$j] = Q4::mul(Q4::mul($this->upright, Q4::mul($made, $back)), $this->stand[$j]);
                $local = Q4::unit(Q4::mul(Q4::conjugate($above), $world[$j]));
            }
            array_push($out, ...$local);
        }
        $h = $this->sourceRoles['hips'];
        $place = V3::mul(Q4::rotate($this->upright, [$p[3 * $h], $p[3 * $h + 1], $p[3 * $h + 2]]), $this->scale);
        $parent = $this->target->parents[$this->targetHips];
        if ($parent >= 0) {
            [$tp, $tq] = $this->target->world($this->target->rotations);
            $place = Q4::rotate(
                Q4::conjugate([$tq[4 * $parent], $tq[4 * $parent + 1], $tq[4 * $parent + 2], $tq[4 * $parent + 3]]),
                V3::sub($place, [$tp[3 * $parent], $tp[3 * $parent + 1], $tp[3 * $parent + 2]]),
            );
        }

        return [$out, $place];
    }
}
