<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use InvalidArgumentException;

/**
 * A figure as the motion models see it: rest places by human role at a common size (the scale that brings the figure
 * to 1.70 m is divided out), limb lengths, and the rolling points of the foot read from the drawn sole.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class BodyFrame
{
    public const FINGERS = ['thumb', 'index', 'middle', 'ring', 'little'];

    /** Metres in the world for one metre in the model. */
    public readonly float $scale;

    /** @var array<string, Vec> */
    private array $rest = [];

    public readonly float $thigh;

    public readonly float $shin;

    public readonly float $leg;

    public readonly float $upperArm;

    public readonly float $lowerArm;

    /** @var array<string, array{m: float, thigh: Vec, shin: Vec, upper: Vec, lower: Vec, upperHang: Quat, lowerHang: Quat}> rest directions by side */
    public array $side = [];

    /** Foot frame: origin on the floor under the ankle. Heights and lengths along the foot, metres. */
    public readonly float $ankleY;

    public readonly float $ballY;

    public readonly float $ballZ;

    public readonly float $heelZ;

    public readonly float $tipZ;

    public readonly float $hipHalf;

    /** @param  array{soleBack?: float|int, soleFront?: float|int, height?: float|int}  $facts */
    public function __construct(public readonly Skeleton $skeleton, array $facts)
    {
        $this->scale = (float) ($facts['height'] ?? 1.70) / 1.70;
        [$positions] = $skeleton->world($skeleton->rotations);
        foreach ($skeleton->roles as $role => $joint) {
            $this->rest[$role] = V3::mul(
                [$positions[3 * $joint], $positions[3 * $joint + 1], $positions[3 * $joint + 2]],
                1 / $this->scale,
            );
        }
        foreach ([
            'hips', 'spine', 'chest', 'upperChest', 'neck', 'head', 'upperLegL', 'lowerLegL', 'footL', 'toesL', 'upperArmL', 'lowerArmL',
            'handL', 'shoulderL',
        ] as $need) {
            if (! isset($this->rest[$need])) {
                throw new InvalidArgumentException("This figure has no joint for the role {$need}; match its joints first.");
            }
        }
        $this->thigh = V3::distance($this->at('lowerLegL'), $this->at('upperLegL'));
        $this->shin = V3::distance($this->at('footL'), $this->at('lowerLegL'));
        $this->leg = $this->thigh + $this->shin;
        $this->upperArm = V3::distance($this->at('lowerArmL'), $this->at('upperArmL'));
        $this->lowerArm = V3::distance($this->at('handL'), $this->at('lowerArmL'));
        foreach (['L' => 1.0, 'R' => -1.0] as $s => $m) {
            $this->side[$s] = $this->directions($s, $m);
        }
        $ankle = $this->at('footL');
        $toes = $this->at('toesL');
        $this->ankleY = $ankle[1];
        $this->ballY = $toes[1];
        $this->ballZ = $toes[2] - $ankle[2];
        $this->heelZ = (isset($facts['soleBack']) ? (float) $facts['soleBack'] / $this->scale : -0.086) - $ankle[2] + 0.010;
        $this->tipZ = (isset($facts['soleFront']) ? (float) $facts['soleFront'] / $this->scale : $toes[2] + 0.1) - $ankle[2] - 0.010;
        $this->hipHalf = $this->at('upperLegL')[0];
    }

    /** @return Vec rest place of a role */
    public function at(string $role): array
    {
        return $this->rest[$role];
    }

    /** @return Vec from parent role to child role at rest */
    public function offset(string $child, string $parent): array
    {
        return V3::sub($this->rest[$child], $this->rest[$parent]);
    }

    /** @return array{m: float, thigh: Vec, shin: Vec, upper: Vec, lower: Vec, upperHang: Quat, lowerHang: Quat} */
    private function directions(string $s, float $m): array
    {
        $upper = V3::unit($this->offset('lowerArm'.$s, 'upperArm'.$s));
        $lower = V3::unit($this->offset('hand'.$s, 'lowerArm'.$s));

        return [
            'm' => $m,
            'thigh' => V3::unit($this->offset('lowerLeg'.$s, 'upperLeg'.$s)),
            'shin' => V3::unit($this->offset('foot'.$s, 'lowerLeg'.$s)),
            'upper' => $upper,
            'lower' => $lower,
            'upperHang' => Q4::fromAxes($upper, [1.0, 0.0, 0.0], [0.0, -1.0, 0.0], [1.0, 0.0, 0.0]),
            'lowerHang' => Q4::fromAxes($lower, [1.0, 0.0, 0.0], [0.0, -1.0, 0.0], [1.0, 0.0, 0.0]),
        ];
    }

    /**
     * The foot's roll over the floor as a function of one angle (radians, toes up positive): about the heel, then over
     * the ball, and from 34 degrees on over the toe tip.
     *
     * @return array{float, float, float} ankle forward and up in the foot frame, pitch of the toes
     */
    public function roll(float $th): array
    {
        if ($th >= 0.0) {
            $c = cos($th);
            $s = sin($th);

            return [$this->heelZ - $this->heelZ * $c - $this->ankleY * $s, $this->ankleY * $c - $this->heelZ * $s, $th];
        }
        $x = -$th - deg2rad(34.0);
        $k = deg2rad(10.0);
        $toe = -($x > $k ? $x : ($x < -$k ? 0.0 : ($x + $k) ** 2 / (4 * $k))) * 0.85;
        $jy = $this->ballY;
        $jz = $this->ballZ - $this->tipZ;
        $ballZ = $this->tipZ + $jz * cos($toe) - $jy * sin($toe);
        $ballY = $jy * cos($toe) + $jz * sin($toe);
        $ay = $this->ankleY - $this->ballY;
        $az = -$this->ballZ;

        return [$ballZ + $az * cos($th) - $ay * sin($th), $ballY + $ay * cos($th) + $az * sin($th), $toe];
    }
}
