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

    /** A hinge that is off by less than this, radians, is how arms are carried, and no other rest. */
    private const CARRIED = 0.2;

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

    /** @var list<float> of the target at rest */
    private readonly array $targetPlaces;

    /** @var list<float> of the target at rest */
    private readonly array $targetTurns;

    /** @var array{Vec, float} of the target: from the hips to the middle between the hip joints; height of its feet's joints */
    private readonly array $seat;

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
        private readonly ?Habits $habits = null,
    ) {
        foreach (['hips', 'upperLegL', 'upperLegR', 'footL', 'footR'] as $need) {
            if (! isset($sourceRoles[$need]) || ! isset($target->roles[$need])) {
                throw UnableToMatch::role($need, isset($sourceRoles[$need]));
            }
        }
        [$sp, $this->sourceRest] = $source->world($source->rotations);
        [$tp, $tq] = [$this->targetPlaces, $this->targetTurns] = $target->world($target->rotations);
        $this->upright = $habits->upright ?? Recording::standing($sp, $sourceRoles, false);
        $length = Stance::leg($sp, $sourceRoles);
        if ($length < 1e-6) {
            throw UnableToMatch::noLegs();
        }
        $this->scale = Stance::leg($tp, $target->roles) / $length;
        foreach ($target->roles as $role => $j) {
            if (! isset($sourceRoles[$role])) {
                continue;
            }
            $this->from[$j] = $sourceRoles[$role];
            $turn = Q4::mul($this->habit($role, $sp, $tp), $this->aligned($role, $sp, $tp));
            $this->stand[$j] = Q4::mul($turn, [$tq[4 * $j], $tq[4 * $j + 1], $tq[4 * $j + 2], $tq[4 * $j + 3]]);
        }
        $this->seat = self::seatOf($target, $targetHips, $tp);
    }

    /**
     * What the motion told about a part: the twist that lays its hinge along the source's, the tilt that lays a foot flat.
     *
     * @param  list<float>  $sp
     * @param  list<float>  $tp
     * @return Quat
     */
    private function habit(string $role, array $sp, array $tp): array
    {
        $flat = $this->habits->flat[$role] ?? null;
        if ($flat !== null) {
            return Posture::shortest([0.0, 1.0, 0.0], $flat, [1.0, 0.0, 0.0]);
        }
        $side = substr($role, -1);
        foreach (Bends::LIMBS as $upper => [$lower, $end]) {
            $bend = $this->habits->bends[$upper.$side] ?? null;
            if ($bend === null || ($role !== $upper.$side && $role !== $lower.$side) || ! isset($this->target->roles[$lower.$side])
                || ! isset($this->sourceRoles[$lower.$side])) {
                continue;
            }
            $along = V3::sub(Stance::at($tp, $this->target->roles[$lower.$side]), Stance::at($tp, $this->target->roles[$upper.$side]));
            // Knees bend back and elbows forward: the axis is across the limb and what lies ahead.
            $own = V3::mul(V3::cross($along, [0.0, 0.0, 1.0]), $upper === 'upperLeg' ? -1.0 : 1.0);
            $own = Q4::rotate($this->aligned($upper.$side, $sp, $tp), $own);
            $axis = V3::unit(Q4::rotate($this->upright, V3::sub(
                Stance::at($sp, $this->sourceRoles[$lower.$side]),
                Stance::at($sp, $this->sourceRoles[$upper.$side]),
            )));
            $bend = V3::addScaled($bend, $axis, -V3::dot($bend, $axis));
            if (V3::length($own) < 0.1 * V3::length($along) || V3::length($bend) < 0.3) {
                return Q4::IDENTITY;
            }

            $twist = atan2(V3::dot($axis, V3::cross($own, $bend)), V3::dot($own, $bend));

            if (abs($twist) < self::CARRIED) {
                return Q4::IDENTITY;
            }
            $end = $this->sourceRoles[$end.$side] ?? null;

            // The lower part is twisted about its own length.
            return Q4::axis($role === $upper.$side || $end === null ? $axis : V3::unit(Q4::rotate(
                $this->upright,
                V3::sub(Stance::at($sp, $end), Stance::at($sp, $this->sourceRoles[$lower.$side])),
            )), $twist);
        }

        return Q4::IDENTITY;
    }

    /**
     * Where the middle between the hip joints is from the hips, at rest, and how high the feet's joints are.
     *
     * @param  list<float>  $p
     * @return array{Vec, float}
     */
    private static function seatOf(Skeleton $s, int $hips, array $p): array
    {
        $middle = V3::mul(V3::add(Stance::at($p, $s->roles['upperLegL']), Stance::at($p, $s->roles['upperLegR'])), 0.5);

        return [V3::sub($middle, Stance::at($p, $hips)), 0.5 * ($p[3 * $s->roles['footL'] + 1] + $p[3 * $s->roles['footR'] + 1])];
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
                    V3::sub(Stance::at($sp, $this->sourceRoles[$next]), Stance::at($sp, $this->sourceRoles[$role])),
                );
                $t = V3::sub(Stance::at($tp, $this->target->roles[$next]), Stance::at($tp, $this->target->roles[$role]));
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
     * Local rotations of the target and the place of its hips, for a pose of the source. Without habits the height of the hips
     * is the source's, scaled. With them the hip joints are as far above planted feet as the source's are, scaled.
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
                $made = Q4::mul(Skeleton::turnOf($q, $k), Q4::conjugate(Skeleton::turnOf($this->sourceRest, $k)));
                $world[$j] = Q4::mul(Q4::mul($this->upright, Q4::mul($made, $back)), $this->stand[$j]);
                $local = Q4::unit(Q4::mul(Q4::conjugate($above), $world[$j]));
            }
            array_push($out, ...$local);
        }
        $place = $this->habits === null
            ? V3::mul(Q4::rotate($this->upright, Stance::at($p, $this->sourceRoles['hips'])), $this->scale)
            : $this->seated($p, $world[$this->targetHips], $this->habits->ankle);
        $parent = $this->target->parents[$this->targetHips];
        if ($parent >= 0) {
            $place = Q4::rotate(
                Q4::conjugate(Skeleton::turnOf($this->targetTurns, $parent)),
                V3::sub($place, Stance::at($this->targetPlaces, $parent)),
            );
        }

        return [$out, $place];
    }

    /**
     * @param  list<float>  $p  places of the source's joints
     * @param  Quat  $turn  of the target's hips
     * @return Vec place of the target's hips
     */
    private function seated(array $p, array $turn, float $ankle): array
    {
        [$middle, $feet] = $this->seat;
        $made = Q4::mul($turn, Q4::conjugate(Skeleton::turnOf($this->targetTurns, $this->targetHips)));
        $at = Q4::rotate($this->upright, V3::mul(
            V3::add(Stance::at($p, $this->sourceRoles['upperLegL']), Stance::at($p, $this->sourceRoles['upperLegR'])),
            0.5,
        ));
        $at = V3::add(V3::mul([$at[0], $at[1] - $ankle, $at[2]], $this->scale), [0.0, $feet, 0.0]);

        return V3::sub($at, Q4::rotate($made, $middle));
    }
}
