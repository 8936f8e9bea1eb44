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
        return V3::add($this->position, Q4::rotate($this->rotation, V3::mul($p, $this->scale)));
    }

    public function inverse(): self
    {
        $q = Q4::conjugate($this->rotation);

        return new self(V3::mul(Q4::rotate($q, $this->position), -1 / $this->scale), $q, 1 / $this->scale);
    }

    public function mix(self $to, float $t): self
    {
        return new self(
            V3::mix($this->position, $to->position, $t), Q4::slerp($this->rotation, $to->rotation, $t), Ease::mix($this->scale, $to->scale, $t),
        );
    }

    /** @return list<float> position, rotation, scale three times: the pose stream's order */
    public function flat(): array
    {
        return [...$this->position, ...$this->rotation, $this->scale, $this->scale, $this->scale];
    }
}
