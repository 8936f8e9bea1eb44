<?php

declare(strict_types=1);

namespace CrispReel\Core\Crowd;

/** One of a crowd: place, facing, which figure and motion by number, share of the motion ahead, rate, mirrored or not. */
final readonly class Member
{
    public function __construct(
        public float $x, public float $z, public float $headingDeg, public int $figure, public int $motion, public float $phase,
        public float $rate, public bool $mirror,
    ) {
    }
}
