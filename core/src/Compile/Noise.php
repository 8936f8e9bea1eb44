<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/** Something that happens and is heard: a foot that comes down, a thing that lands, wheels that roll. Frames may lie between two. */
final readonly class Noise
{
    /**
     * @param  string  $what  step, land or roll
     * @param  string  $on  what is walked on (Underfoot::KINDS), or what a thing that lands is made of (wood, metal, soft)
     * @param  float  $strength  1 is that of a walk, of a fall from a table, of a cart that is pushed
     */
    public function __construct(
        public string $what, public string $item, public string $on, public float $from, public float $to, public float $strength,
    ) {
    }
}
