<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Document\Fields\Whole;

/** How a walk goes on from a place of its path (1 is the first of the points). */
final readonly class Manner
{
    use OfFields;

    /** What it may set, with its range. */
    public const RANGES = [
        'speed' => [0.4, 5.0], 'stride' => [0.6, 1.4], 'bounce' => [0.0, 2.0], 'lean' => [-10.0, 30.0], 'arm' => [0.0, 1.6],
        'weight' => [0.0, 1.0], 'age' => [0.0, 1.0], 'mood' => [-1.0, 1.0],
    ];

    /** @param  array<string, float>  $style  of RANGES */
    public function __construct(
        #[Whole(1, Path::MOST_POINTS)] public int $after,
        #[Values(self::RANGES)] public array $style = [],
    ) {
    }
}
