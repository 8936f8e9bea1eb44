<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

/** Why a picture cannot be framed like that, in a sentence. */
final readonly class Refusal
{
    public function __construct(public string $sentence)
    {
    }
}
