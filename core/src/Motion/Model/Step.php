<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

/**
 * One footfall: place and heading of the foot, when it lands and leaves, how fully it rolls (0 flat, 1 full), and the
 * ground's height and slope ahead.
 */
final class Step
{
    public function __construct(
        public float $x,
        public float $z,
        public float $heading,
        public float $on,
        public float $off,
        public float $land = 1.0,
        public float $leave = 1.0,
        public float $y = 0.0,
        public float $slope = 0.0,
        /** How much higher the foot is carried on its way to the next step, metres; null before it is known. */
        public ?float $over = null,
        /** The manner of the step; null: the plan's. */
        public ?GaitStyle $style = null,
    ) {
    }

    public function stays(): bool
    {
        return $this->off > 1e8;
    }
}
