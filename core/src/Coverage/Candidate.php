<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\Films;
use CrispReel\Core\Document\Framing;

/** A set-up that a cut may use, in the span in which it holds. */
final readonly class Candidate
{
    /**
     * @param  "master"|"two"|"over"|"single"|"travel"|"insert"  $role
     * @param  list<string>  $about  whom it is for
     * @param  float  $size  how tight, as ShotSize counts
     * @param  string|null  $kept  the camera of the scene whose shot stays as it is; null: a set-up that is new
     */
    public function __construct(
        public string $role,
        public string $title,
        public Framing $framing,
        public Films $camera,
        public array $about,
        public float $size,
        public int $from,
        public int $to,
        public ?string $kept = null,
    ) {
    }
}
