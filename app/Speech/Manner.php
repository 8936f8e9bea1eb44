<?php

declare(strict_types=1);

namespace App\Speech;

/** How a voice is to sound: which of its program's, and how much faster, higher and livelier than it is by itself. */
final readonly class Manner
{
    /**
     * @param  string  $base  the program's own name of a voice
     * @param  float  $pace  1.2: a fifth more words in the same time
     * @param  float  $pitch  factor of the height of the voice
     * @param  float  $range  factor of how far it rises and falls
     */
    public function __construct(public string $base, public float $pace = 1.0, public float $pitch = 1.0, public float $range = 1.0)
    {
    }
}
