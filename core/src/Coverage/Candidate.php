<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Document\Framing;

/** A set-up that a cut may use, in the span in which it holds. */
final readonly class Candidate
{
    /**
     * @param  "master"|"two"|"over"|"single"|"travel"|"insert"  $role
     * @param  list<string>  $about  whom it is for
     * @param  float  $size  how tight, as ShotSize counts
     */
    public function __construct(
        public string $role,
        public string $title,
        public Framing $framing,
        public FramedCamera $camera,
        public array $about,
        public float $size,
        public int $from,
        public int $to,
    ) {
    }
}
