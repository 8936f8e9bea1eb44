<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A camera without roll: where it stands and which way it looks.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final readonly class Aim
{
    /**
     * @param  Vec  $position
     * @param  float  $yaw  heading in radians, from +z to +x
     * @param  float  $pitch  radians, upward
     */
    public function __construct(public array $position, public float $yaw, public float $pitch, public float $focalMm)
    {
    }

    /**
     * From a place, with a point of the scene at a place of the picture (-1 to 1, right and up).
     *
     * @param  Vec  $position
     * @param  Vec  $at
     */
    public static function at(array $position, array $at, float $x, float $y, float $focalMm, Gate $gate): self
    {
        $tau = $gate->tangent($focalMm);
        [$u, $v] = [$x * $tau * $gate->aspect, $y * $tau];
        $to = V3::sub($at, $position);
        $up = $to[1] / max(1e-9, V3::length($to));
        $pitch = asin(max(-1.0, min(1.0, sqrt(1 + $u * $u + $v * $v) * $up / sqrt(1 + $v * $v)))) - atan($v);
        $yaw = atan2($to[0], $to[2]) + atan2($u, cos($pitch) - sin($pitch) * $v);

        return new self($position, $yaw, $pitch, $focalMm);
    }

    /**
     * The same view from beside.
     *
     * @param  Vec  $by  metres to its right, up, and ahead over the ground
     */
    public function shifted(array $by): self
    {
        [$s, $c] = [sin($this->yaw), cos($this->yaw)];
        $to = [-$c * $by[0] + $s * $by[2], $by[1], $s * $by[0] + $c * $by[2]];

        return new self(V3::add($this->position, $to), $this->yaw, $this->pitch, $this->focalMm);
    }

    /** @return array{float, float, float, float} */
    public function rotation(): array
    {
        return Q4::mul(Q4::aroundY($this->yaw + M_PI), Q4::aroundX($this->pitch));
    }

    /** @return Vec */
    public function axis(): array
    {
        return [cos($this->pitch) * sin($this->yaw), sin($this->pitch), cos($this->pitch) * cos($this->yaw)];
    }

    /** @param  Vec  $at  what is sharp */
    public function pose(Gate $gate, array $at, float $fStop): CameraPose
    {
        return new CameraPose(
            $this->position, $this->rotation(), $this->focalMm,
            max(0.1, V3::dot(V3::sub($at, $this->position), $this->axis())), $fStop, $gate->sensorWidthMm,
        );
    }

    /**
     * Where a point falls in the picture: right and up from -1 to 1, and its distance along the axis.
     *
     * @param  Vec  $at
     * @return Vec
     */
    public function project(array $at, Gate $gate): array
    {
        return $this->pose($gate, $at, 4.0)->project($at, $gate->aspect);
    }

    /** @return list<float> */
    public function flat(): array
    {
        return [...$this->position, $this->yaw, $this->pitch, $this->focalMm];
    }
}
