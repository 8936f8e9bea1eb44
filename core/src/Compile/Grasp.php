<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/** A hand that closes while it carries. */
final readonly class Grasp
{
    /** Frames in which a hand closes, or opens. */
    public const EASE = 5;

    public function __construct(public string $side, public int $from, public ?int $to, public float $curl)
    {
    }

    /** Weight of the closed hand at a frame. */
    public function weight(float $frame): float
    {
        $in = ($frame - $this->from + self::EASE) / self::EASE;
        $out = $this->to === null ? 1.0 : ($this->to - $frame) / self::EASE;

        return max(0.0, min(1.0, min($in, $out)));
    }
}
