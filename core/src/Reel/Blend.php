<?php

declare(strict_types=1);

namespace CrispReel\Core\Reel;

/**
 * Some frames of the scene in which the reel shows two pictures at once: those of two cameras, or of one and a plain colour.
 */
final readonly class Blend
{
    /**
     * @param  int  $from  first frame
     * @param  int  $to  frame after the last
     * @param  string|null  $a  camera that is left; null: the colour
     * @param  string|null  $b  camera that comes; null: the colour
     * @param  string|null  $colour  "black" or "white"; null: both are cameras
     */
    public function __construct(
        public int $from,
        public int $to,
        public ?string $a,
        public ?string $b,
        public ?string $colour = null,
    ) {
    }

    /** How much of what comes is in the picture of a frame, 0 to 1: told at the middle of each frame, so that both ends are alike. */
    public function share(int $frame): float
    {
        return max(0.0, min(1.0, ($frame + 0.5 - $this->from) / max(1, $this->to - $this->from)));
    }

    /** @return array{from: int, to: int, a: string|null, b: string|null, colour: string|null} */
    public function toArray(): array
    {
        return ['from' => $this->from, 'to' => $this->to, 'a' => $this->a, 'b' => $this->b, 'colour' => $this->colour];
    }
}
