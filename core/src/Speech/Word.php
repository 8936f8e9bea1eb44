<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/** A word of a line as it was written, and when it is spoken, in seconds from the beginning of its reading. */
final readonly class Word
{
    public function __construct(public string $text, public float $from, public float $to)
    {
    }
}
