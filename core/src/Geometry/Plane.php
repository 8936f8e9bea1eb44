<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use CrispReel\Core\Math\V3;

/** A plane by its normal and its distance from the origin along it, metres. */
final readonly class Plane
{
    /** @param  array{float, float, float}  $normal of length 1 */
    public function __construct(public array $normal, public float $offset)
    {
    }

    /**
     * Metres before it, on the side to which its normal points; below 0 behind it.
     *
     * @param  array{float, float, float}  $p
     */
    public function before(array $p): float
    {
        return V3::dot($this->normal, $p) - $this->offset;
    }
}
