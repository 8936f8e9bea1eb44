<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/** Place, rotation and even scale of a thing in a space. */
final readonly class Placement
{
    /**
     * @param  array{float, float, float}  $position
     * @param  array{float, float, float, float}  $rotation
     */
    public function __construct(public array $position, public array $rotation = Q4::IDENTITY, public float $scale = 1.0)
    {
    }

    /** @param  array{float, float, float}  $position */
    public static function standing(array $position, float $headingDeg, float $scale = 1.0): self
    {
        return new self($position, Q4::aroundY(deg2rad($headingDeg)), $scale);
    }

    /** $this after $inner: what $inner says in this space, said outside. */
    public function of(self $inner): self
    {
        return new self($this->point($inner->position), Q4::mul($this->rotation, $inner->rotation), $this->scale * $inner->scale);
    }

    /**
     * @param  array{float, float, float}  $p
     * @return array{float, float, float}
     */
    public function point(array $p): array
    {
        // Every carried thing and every contact comes through here: rotation and shift written out.
        $k = $this->scale;
        [$x, $y, $z] = [$p[0] * $k, $p[1] * $k, $p[2] * $k];
        [$qx, $qy, $qz, $w] = $this->rotation;
        $tx = 2.0 * ($qy * $z - $qz * $y);
        $ty = 2.0 * ($qz * $x - $qx * $z);
        $tz = 2.0 * ($qx * $y - $qy * $x);
        $at = $this->position;

        return [
            $at[0] + $x + $w * $tx + $qy * $tz - $qz * $ty, $at[1] + $y + $w * $ty + $qz * $tx - $qx * $tz,
            $at[2] + $z + $w * $tz + $qx * $ty - $qy * $tx,
        ];
    }

    public function inverse(): self
    {
        [$x, $y, $z, $w] = $this->rotation;
        [$px, $py, $pz] = $this->position;
        $k = -1.0 / $this->scale;
        $tx = 2.0 * ($z * $py - $y * $pz);
        $ty = 2.0 * ($x * $pz - $z * $px);
        $tz = 2.0 * ($y * $px - $x * $py);

        return new self(
            [
                ($px + $w * $tx - $y * $tz + $z * $ty) * $k, ($py + $w * $ty - $z * $tx + $x * $tz) * $k,
                ($pz + $w * $tz - $x * $ty + $y * $tx) * $k,
            ],
            [-$x, -$y, -$z, $w],
            -$k,
        );
    }

    public function mix(self $to, float $t): self
    {
        return new self(
            V3::mix($this->position, $to->position, $t), Q4::slerp($this->rotation, $to->rotation, $t),
            Ease::mix($this->scale, $to->scale, $t),
        );
    }

    /** @return list<float> position, rotation, scale three times: the pose stream's order */
    public function flat(): array
    {
        return [...$this->position, ...$this->rotation, $this->scale, $this->scale, $this->scale];
    }
}
