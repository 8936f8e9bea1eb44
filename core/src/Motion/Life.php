<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * What a body does by itself, laid over whatever pose it has: it breathes, shifts its weight, looks about a little. Feet stay
 * where they are. Works on any figure as far as it has the joints and shapes for it; any frame, in any order, the same answer.
 *
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Life
{
    /**
     * Breaths a second, degrees that they turn the chest by, seconds between shifts of weight, metres of a shift, degrees of a look,
     * seconds between looks, degrees of a shiver.
     */
    private const OF = [
        'calm' => [0.25, 1.4, 5.0, 0.013, 6.0, 3.0, 0.0],
        'tense' => [0.36, 1.8, 3.6, 0.010, 9.0, 1.9, 0.12],
        'cold' => [0.33, 1.5, 3.2, 0.015, 5.0, 2.8, 0.9],
        'tired' => [0.19, 2.2, 6.4, 0.017, 3.5, 4.6, 0.0],
    ];

    /** Of the legs' length: with the hips lower than that over the feet, nobody shifts weight. */
    private const UPRIGHT = 0.8;

    private const SHIVER_HZ = 8.5;

    /** Seconds by which eyes are ahead of the head, and that a look takes of each. */
    private const AHEAD = 0.08;

    private const QUICK = [0.07, 0.42];

    /** @var array<string, int> joints by role, where there are any */
    private readonly array $joints;

    /** @var list<float> */
    private readonly array $of;

    /** @param  string  $kind  calm, tense, cold or tired */
    public function __construct(
        private readonly Figure $figure, private readonly string $kind, private readonly int $seed, private readonly float $perSecond,
    ) {
        $this->joints = $figure->skeleton->roles;
        $this->of = self::OF[$kind] ?? self::OF['calm'];
    }

    /**
     * @param  list<float>  $row
     * @param  float  $full  how much of all of it, 0 to 1: a body that does something by itself needs none
     * @param  float  $least  how much of breath: recorded motions mostly have none
     * @return list<float>
     */
    public function over(array $row, float $frame, float $full, float $least): array
    {
        $t = $frame / $this->perSecond;
        $p = new Posture($this->figure->skeleton, $this->figure->hips, $row);
        $hips = $this->figure->hips;
        $about = Q4::mul($p->at($hips)[1], Q4::conjugate($this->figure->restTurn($hips)));
        $this->breathe($p, $about, $t, $least);
        if ($full > 0.0) {
            $this->shift($p, Q4::aroundY(Q4::heading($about)), $t, $full);
            $this->look($p, $about, $t, $full);
        }

        return $p->result();
    }

    /** @param  Quat  $about  the turn of the body since rest */
    private function breathe(Posture $p, array $about, float $t, float $w): void
    {
        [$hz, $deg, , , , , $shiver] = $this->of;
        // Breaths are not all alike: their pace sways by a tenth.
        $phase = 2 * M_PI * ($hz * $t + 0.1 * Noise::value(0.11 * $t, $this->seed + 1)) + 6.3 * Noise::hash(7, $this->seed);
        $in = $w * $deg * (0.85 + 0.15 * Noise::value(0.2 * $t, $this->seed + 2)) * sin($phase);
        $shake = $shiver === 0.0 ? 0.0 : $w * $shiver * max(0.0, Noise::value(0.35 * $t, $this->seed + 3) + 0.35)
            * Noise::value(2 * self::SHIVER_HZ * $t, $this->seed + 4);
        $this->turn($p, 'upperChest', $about, -$in, $shake, 0.0);
        $this->turn($p, 'neck', $about, 0.7 * $in, -0.4 * $shake, 0.0);
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $m) {
            $this->turn($p, "shoulder{$side}", $about, 0.0, 0.0, $m * (0.9 * $in + 1.5 * abs($shake)));
        }
    }

    /**
     * From one leg to the other and back, the feet where they are.
     *
     * @param  Quat  $about  the body's heading
     */
    private function shift(Posture $p, array $about, float $t, float $w): void
    {
        $legs = [$this->figure->limb('leg', 'L'), $this->figure->limb('leg', 'R')];
        if ($legs[0] === null || $legs[1] === null || ! $this->isUpright($p, $legs[0], $legs[1])) {
            return;
        }
        [, , $every, $metres] = $this->of;
        $side = $this->step($t / $every, 5, 0.9 / $every);
        $sway = 0.25 * Noise::value(0.4 * $t, $this->seed + 6);
        $by = $w * $metres * ($side + $sway);
        $feet = array_map(static fn (array $leg): array => $p->at($leg[2]), $legs);
        $across = Q4::rotate($about, [1.0, 0.0, 0.0]);
        $p->shiftHips(V3::add(V3::mul($across, $by), [0.0, -0.12 * abs($by), 0.0]));
        $roll = rad2deg($by) * 0.9;
        $this->turn($p, 'hips', $about, 0.0, 0.0, -$roll);
        $this->turn($p, 'spine', $about, 0.0, 0.0, 1.2 * $roll);
        foreach ($legs as $n => $leg) {
            $p->reach($leg[0], $leg[1], $leg[2], $feet[$n][0], $feet[$n][1], $across);
        }
    }

    /**
     * @param  array{int, int, int}  $left
     * @param  array{int, int, int}  $right
     */
    private function isUpright(Posture $p, array $left, array $right): bool
    {
        $hips = $p->at($this->figure->hips)[0];
        $low = ($p->at($left[2])[0][1] + $p->at($right[2])[0][1]) / 2;

        return self::UPRIGHT * array_sum($this->figure->lengths($left)) < $hips[1] - $low;
    }

    /**
     * The eyes go first, then the head.
     *
     * @param  Quat  $about
     */
    private function look(Posture $p, array $about, float $t, float $w): void
    {
        [, , , , $deg, $every] = $this->of;
        $at = fn (float $when, float $takes, int $what): float => $w * $this->step($when / $every, $what, $takes / $every);
        $yaw = $deg * $at($t, self::QUICK[1], 8);
        $pitch = 0.4 * $deg * $at($t, self::QUICK[1], 9);
        $this->turn($p, 'neck', $about, 0.4 * $pitch, 0.4 * $yaw, 0.0);
        $this->turn($p, 'head', $about, 0.6 * $pitch, 0.6 * $yaw, 0.15 * $yaw);
        $eyes = 1.4 * $deg * $at($t + self::AHEAD, self::QUICK[0], 8) - $yaw;
        foreach (['eyeL', 'eyeR'] as $eye) {
            $this->turn($p, $eye, $about, 0.0, $eyes, 0.0);
        }
    }

    /** From one level between -1 and 1 to the next, once in every slot, within a share of it. */
    private function step(float $slots, int $what, float $takes): float
    {
        $i = (int) floor($slots);
        $seed = $this->seed + 100 * $what;
        $at = 0.1 + 0.5 * Noise::hash($i, $seed + 1);
        $level = static fn (int $k): float => 2.0 * Noise::hash($k, $seed) - 1.0;

        return $level($i - 1) + ($level($i) - $level($i - 1)) * Ease::smoother(Ease::clamp(($slots - $i - $at) / $takes));
    }

    /**
     * Degrees about the axes of the body: nose down, to the left, left side up.
     *
     * @param  Quat  $about
     */
    private function turn(Posture $p, string $role, array $about, float $pitch, float $yaw, float $roll): void
    {
        $j = $this->joints[$role] ?? null;
        if ($j === null) {
            return;
        }
        $turn = Q4::mul($about, Q4::mul(Q4::pitchYawRoll(deg2rad($pitch), deg2rad($yaw), deg2rad($roll)), Q4::conjugate($about)));
        $p->turn($j, Q4::mul($turn, $p->at($j)[1]));
    }

    public function fingerprint(): string
    {
        return "{$this->kind} {$this->seed} {$this->perSecond}";
    }
}
