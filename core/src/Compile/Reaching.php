<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * Brings a performer's hips, feet, head, hands and look to their contacts. The trunk leans where an arm is too short;
 * feet stay where they are when the hips are moved.
 */
final class Reaching
{
    /** Angles are in radians. */
    private const MOST_LEAN = 1.1;

    /** How far the girdle goes along (radians), and the hips (metres of a person of 1.70 m), before the trunk leans. */
    private const GIRDLE = 0.24;

    private const HIPS = 0.10;

    private const LOOK = ['yaw' => 1.2, 'pitch' => 0.7, 'eyes' => 0.45, 'ease' => 0.87, 'trunk' => 0.75];

    private Posture $posture;

    private bool $mayLean = true;

    /** Whether the trunk came along with a hand. */
    public bool $leaned = false;

    /** @var array<string, array{array{float, float, float}, array{float, float, float, float}}> feet as the motion has them */
    private array $feet = [];

    /** @param  list<float>  $row */
    public function __construct(private readonly Figure $figure, array $row)
    {
        $this->posture = new Posture($figure->skeleton, $figure->hips, $row);
    }

    /** @return list<float> */
    public function row(): array
    {
        return $this->posture->result();
    }

    /**
     * @param  Placement  $target  in the figure's own space
     * @param  bool  $mayLean  whether the trunk may come along
     * @return float metres that are missing to the target, at full weight
     */
    public function bring(Hold $hold, Placement $target, float $weight, bool $mayLean = true): float
    {
        $this->mayLean = $mayLean;

        $what = $hold->contact->effector;

        return match ($what) {
            'handL' => $this->hand('L', $hold, $target, $weight),
            'handR' => $this->hand('R', $hold, $target, $weight),
            'hips' => $this->hips($hold, $target, $weight),
            'footL', 'footR' => $this->foot($what === 'footL' ? 'L' : 'R', $hold, $target, $weight),
            'head' => $this->head($hold, $target, $weight),
            default => $this->look($target->position, $weight, $mayLean),
        };
    }

    private function hips(Hold $hold, Placement $target, float $weight): float
    {
        foreach (['L', 'R'] as $side) {
            $leg = $this->figure->limb('leg', $side);
            if ($leg !== null) {
                $this->feet[$side] ??= $this->posture->at($leg[2]);
            }
        }
        $j = $this->figure->hips;
        [$at, $turn] = $this->posture->at($j);
        if ($hold->contact->turn === 'match') {
            $rest = $this->figure->restTurn($j);
            $by = Q4::heading($target->rotation) - Q4::heading(Q4::mul($turn, Q4::conjugate($rest)));
            $this->posture->turn($j, Q4::mul(Q4::aroundY(Angle::wrapped($by) * $weight), $turn));
        }
        $this->posture->shiftHips(V3::mul(V3::sub(V3::add($target->position, $hold->own->position), $at), $weight));
        foreach ($this->feet as $side => [$place, $rotation]) {
            $this->leg($side, $place, $rotation);
        }

        return 0.0;
    }

    /**
     * @param  array{float, float, float}  $to
     * @param  array{float, float, float, float}|null  $turn
     */
    private function leg(string $side, array $to, ?array $turn): float
    {
        $leg = $this->figure->limb('leg', $side);
        if ($leg === null) {
            return INF;
        }
        $hips = Q4::mul($this->posture->at($this->figure->hips)[1], Q4::conjugate($this->figure->restTurn($this->figure->hips)));

        return $this->posture->reach($leg[0], $leg[1], $leg[2], $to, $turn, Q4::rotate($hips, [1.0, 0.0, 0.0]));
    }

    private function foot(string $side, Hold $hold, Placement $target, float $weight): float
    {
        $leg = $this->figure->limb('leg', $side);
        if ($leg === null) {
            return INF;
        }
        [$at, $turn] = $this->posture->at($leg[2]);
        $wanted = $hold->contact->turn === 'match' ? Q4::mul($target->rotation, $this->figure->restTurn($leg[2])) : $turn;
        $place = $target->of(new Placement($hold->own->position))->position;
        if ($hold->contact->turn !== 'match') {
            $place = V3::add($target->position, $hold->own->position);
        }

        return $this->leg($side, V3::mix($at, $place, $weight), Q4::slerp($turn, $wanted, $weight));
    }

    private function hand(string $side, Hold $hold, Placement $target, float $weight): float
    {
        $arm = $this->figure->limb('arm', $side);
        if ($arm === null) {
            return INF;
        }
        [$upper, $lower, $hand] = $arm;
        $own = $hold->own;
        $turn = $hold->contact->turn;
        $follow = $turn === 'follow';
        [$at, $now] = $this->posture->at($hand);
        // With the forearm the palm is brought to the target as the end of one long bone; else the wrist is.
        $wanted = $turn === 'match' ? Q4::mul($target->rotation, Q4::conjugate($own->rotation)) : $now;
        $to = $follow ? $target->position : V3::sub($target->position, Q4::rotate($wanted, $own->position));
        if ($this->mayLean && ! $hold->onItself && $this->lean($arm, $to, $weight, $follow ? $own->position : null)) {
            [$at, $now] = $this->posture->at($hand);
            if ($turn === 'keep') {
                $to = V3::sub($target->position, Q4::rotate($now, $own->position));
                $wanted = $now;
            }
        }
        $hinge = fn (): array => $this->elbow($upper, $lower);
        if ($follow) {
            $from = V3::add($at, Q4::rotate($now, $own->position));

            return $this->posture->reach($upper, $lower, $hand, V3::mix($from, $to, $weight), null, $hinge, $from);
        }
        $full = $weight >= 1.0;
        $miss = $this->posture->reach(
            $upper,
            $lower,
            $hand,
            $full ? $to : V3::mix($at, $to, $weight),
            $full ? $wanted : Q4::slerp($now, $wanted, $weight),
            $hinge,
        );
        $this->posture->shareTwist($lower, $hand);

        return $miss;
    }

    /**
     * The axis that a straight arm bends about: its forearm comes forward.
     *
     * @return array{float, float, float}
     */
    private function elbow(int $upper, int $lower): array
    {
        $parent = $this->figure->skeleton->parents[$upper];
        $ahead = Q4::rotate($this->posture->at($parent)[1], $this->figure->ahead($parent));

        return V3::cross(V3::sub($this->posture->at($lower)[0], $this->posture->at($upper)[0]), $ahead);
    }

    /**
     * Leans the trunk until the arm is long enough.
     *
     * @param  array{int, int, int}  $arm
     * @param  array{float, float, float}  $to
     * @param  array{float, float, float}|null  $palm  end of the arm in the hand's space; null: the wrist
     * @return bool whether it had to
     */
    private function lean(array $arm, array $to, float $weight, ?array $palm): bool
    {
        [$upper, $lower, $hand] = $arm;
        $spine = $this->figure->part('trunk');
        [$upperLength, $lowerLength] = $this->figure->lengths($arm);
        if ($palm !== null) {
            $lowerLength = V3::distance($this->posture->at($lower)[0], (new Placement(...$this->posture->at($hand)))->point($palm));
        }
        $reach = 0.98 * ($upperLength + $lowerLength);
        $shoulder = $this->posture->at($upper)[0];
        if ($spine === [] || V3::distance($shoulder, $to) <= $reach) {
            return false;
        }
        $this->lend($upper, $to, $reach, $weight);
        $shoulder = $this->posture->at($upper)[0];
        if (V3::distance($shoulder, $to) <= $reach) {
            return $this->leaned = true;
        }
        $kept = $this->posture->result();
        $root = $this->posture->at($spine[0])[0];
        $axis = V3::cross(V3::sub($shoulder, $root), V3::sub($to, $root));
        if (V3::length($axis) < 1e-6) {
            return false;
        }
        $axis = V3::unit($axis);
        $this->leaned = true;
        [$low, $high] = [0.0, self::MOST_LEAN];
        for ($i = 0; $i < 10; $i++) {
            $angle = $i === 0 ? $high : ($low + $high) / 2;
            $this->posture->reset($kept);
            $this->bent($spine, $axis, $angle);
            if (V3::distance($this->posture->at($upper)[0], $to) > $reach) {
                if ($i === 0) {
                    break;
                }
                $low = $angle;
            } else {
                $high = $angle;
            }
        }
        $this->posture->reset($kept);
        $this->bent($spine, $axis, $high * $weight);

        return true;
    }

    /**
     * Before the trunk leans, the girdle goes along, and the hips of one who stands come nearer over feet that stay.
     *
     * @param  array{float, float, float}  $to
     */
    private function lend(int $upper, array $to, float $reach, float $weight): void
    {
        $girdle = $this->figure->skeleton->parents[$upper];
        [$at, $turn] = $this->posture->at($girdle);
        $swing = Posture::shortest(V3::sub($this->posture->at($upper)[0], $at), V3::sub($to, $at), [1.0, 0.0, 0.0]);
        $angle = Q4::angleBetween(Q4::IDENTITY, $swing);
        if ($angle > 1e-6) {
            $this->posture->turn($girdle, Q4::mul(Q4::power($swing, $weight * min(1.0, self::GIRDLE / $angle)), $turn));
        }
        $hips = $this->posture->at($this->figure->hips)[0];
        $stands = $this->figure->rest('hips')[1] ?? INF;
        $short = V3::distance($this->posture->at($upper)[0], $to) - $reach;
        $way = [$to[0] - $hips[0], 0.0, $to[2] - $hips[2]];
        if ($short <= 0.0 || $hips[1] < 0.85 * $stands || V3::length($way) < 0.05) {
            return;
        }
        $feet = [];
        foreach (['L', 'R'] as $side) {
            $leg = $this->figure->limb('leg', $side);
            if ($leg !== null) {
                $feet[$side] = $this->posture->at($leg[2]);
            }
        }
        $by = $weight * min($short * 1.3, self::HIPS * $this->figure->height() / 1.7);
        $this->posture->shiftHips(V3::mul(V3::unit($way), $by));
        foreach ($feet as $side => [$place, $rotation]) {
            $this->leg($side, $place, $rotation);
        }
    }

    /**
     * @param  list<int>  $spine
     * @param  array{float, float, float}  $axis
     */
    private function bent(array $spine, array $axis, float $angle): void
    {
        foreach ($spine as $j) {
            $this->posture->turn($j, Q4::mul(Q4::axis($axis, $angle / count($spine)), $this->posture->at($j)[1]));
        }
    }

    /** Cyclic coordinate descent (Wang and Chen 1991) over trunk and neck. */
    private function head(Hold $hold, Placement $target, float $weight): float
    {
        $head = $this->figure->skeleton->roles['head'] ?? null;
        $chain = [...$this->figure->part('trunk'), ...array_values(array_intersect_key($this->figure->skeleton->roles, ['neck' => 1]))];
        if ($head === null || $chain === []) {
            return INF;
        }
        $tip = fn (): array => (new Placement(...$this->posture->at($head)))->point($hold->own->position);
        $to = V3::mix($tip(), $target->position, $weight);
        for ($round = 0; $round < 24 && V3::distance($tip(), $to) > 1e-4; $round++) {
            foreach (array_reverse($chain) as $j) {
                [$at, $turn] = $this->posture->at($j);
                $swing = Posture::shortest(V3::sub($tip(), $at), V3::sub($to, $at), [1.0, 0.0, 0.0]);
                $this->posture->turn($j, Q4::mul(Q4::power($swing, 0.8), $turn));
            }
        }

        return V3::distance($tip(), $to);
    }

    /**
     * @param  array{float, float, float}  $to
     * @param  bool  $trunk  whether it turns along for what is far to the side
     */
    private function look(array $to, float $weight, bool $trunk): float
    {
        $r = $this->figure->skeleton->roles;
        $head = $r['head'] ?? null;
        if ($head === null) {
            return INF;
        }
        $chest = $r['upperChest'] ?? $r['chest'] ?? $this->figure->hips;
        $facing = fn (int $j): array => Q4::mul($this->posture->at($j)[1], Q4::conjugate($this->figure->restTurn($j)));
        if ($trunk) {
            $this->turnTrunk($to, $weight);
        }
        $body = $facing($chest);
        $eyes = (new Placement(...$this->posture->at($head)))->position;
        $eyes = V3::add($eyes, Q4::rotate($facing($head), [0.0, 0.055 * $this->figure->height(), 0.05 * $this->figure->height()]));
        $d = Q4::rotate(Q4::conjugate($body), V3::unit(V3::sub($to, $eyes)));
        $yaw = atan2($d[0], $d[2]);
        $pitch = -asin(Ease::clamp($d[1], -1.0, 1.0));
        // What the neck cannot do the eyes add.
        $headYaw = Ease::clamp($yaw * 0.85, -self::LOOK['yaw'], self::LOOK['yaw']);
        $headPitch = Ease::clamp($pitch * 0.8, -self::LOOK['pitch'], self::LOOK['pitch']);
        $wanted = Q4::mul($body, Q4::mul(Q4::pitchYawRoll($headPitch, $headYaw, 0.0), $this->figure->restTurn($head)));
        [, $now] = $this->posture->at($head);
        $neck = $r['neck'] ?? null;
        $turn = Q4::slerp($now, $wanted, $weight);
        if ($neck !== null) {
            $by = Q4::mul($turn, Q4::conjugate($now));
            $this->posture->turn($neck, Q4::mul(Q4::power($by, 0.4), $this->posture->at($neck)[1]));
        }
        $this->posture->turn($head, $turn);

        return 0.0;
    }

    /**
     * Turns each eye to a place, as far as eyes go; the head stays.
     *
     * @param  array{float, float, float}  $to  in the figure's own space
     * @return float degrees that are missing to it, at full weight
     */
    public function aim(array $to, float $weight): float
    {
        $missing = 0.0;
        $r = $this->figure->skeleton->roles;
        $head = $r['head'] ?? null;
        if ($head === null) {
            return 0.0;
        }
        $facing = Q4::mul($this->posture->at($head)[1], Q4::conjugate($this->figure->restTurn($head)));
        foreach (['eyeL', 'eyeR'] as $role) {
            $j = $r[$role] ?? null;
            if ($j === null) {
                continue;
            }
            [$at, $now] = $this->posture->at($j);
            $d = Q4::rotate(Q4::conjugate($facing), V3::unit(V3::sub($to, $at)));
            $eye = Q4::pitchYawRoll(
                Ease::clamp(-asin(Ease::clamp($d[1], -1.0, 1.0)), -self::LOOK['eyes'], self::LOOK['eyes']),
                Ease::clamp(atan2($d[0], $d[2]), -self::LOOK['eyes'], self::LOOK['eyes']), 0.0,
            );
            $missing = max($missing, rad2deg(acos(Ease::clamp(V3::dot(Q4::rotate($eye, [0.0, 0.0, 1.0]), $d), -1.0, 1.0))));
            $this->posture->turn($j, Q4::slerp($now, Q4::mul($facing, Q4::mul($eye, $this->figure->restTurn($j))), $weight));
        }

        return $missing;
    }

    /**
     * What lies farther to the side than a neck likes turns the trunk: each part its share, hips and feet stay.
     *
     * @param  array{float, float, float}  $to
     */
    private function turnTrunk(array $to, float $weight): void
    {
        $r = $this->figure->skeleton->roles;
        $hips = $this->figure->hips;
        [$at, $turn] = $this->posture->at($hips);
        $facing = Q4::heading(Q4::mul($turn, Q4::conjugate($this->figure->restTurn($hips))));
        $yaw = Angle::wrapped(atan2($to[0] - $at[0], $to[2] - $at[2]) - $facing);
        $by = $weight * ($yaw < 0 ? -1.0 : 1.0) * Ease::clamp(abs($yaw) - self::LOOK['ease'], 0.0, self::LOOK['trunk']);
        $parts = array_values(array_intersect_key($r, ['spine' => 1, 'chest' => 1, 'upperChest' => 1]));
        foreach ($by === 0.0 ? [] : $parts as $j) {
            $this->posture->turn($j, Q4::mul(Q4::aroundY($by / count($parts)), $this->posture->at($j)[1]));
        }
    }
}
