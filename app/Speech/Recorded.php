<?php

declare(strict_types=1);

namespace App\Speech;

/** A recording that a line is heard as: its file, and from where to where; null: where speech begins and ends in it. */
final readonly class Recorded
{
    public function __construct(public string $blob, public ?float $from, public ?float $to)
    {
    }
}
