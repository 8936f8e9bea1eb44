<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/** A hand that closes while it carries. */
final readonly class Grasp
{
    public function __construct(public string $side, public int $from, public ?int $to, public float $curl)
    {
    }

    /** Weight of the closed hand at a frame: five frames to close and to open. */
    public function weight(float $frame): float
    {
        $in = ($frame - $this->from + 5) / 5;
        $out = $this->to === null ? 1.0 : ($this->to - $frame) / 5;

        return max(0.0, min(1.0, min($in, $out)));
    }
}
