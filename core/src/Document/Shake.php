<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Whole;

/** How a camera trembles in somebody's hands: over its own way, which stays what it is. */
final readonly class Shake
{
    use OfFields;

    /**
     * @param  float  $degrees  that it turns at most
     * @param  float  $metres  that it moves at most
     */
    public function __construct(
        #[Number(0, 12, 'deg')] public float $degrees = 0.4,
        #[Number(0.05, 12, 'Hz')] public float $hertz = 0.6,
        #[Number(0, 0.3, 'm')] public float $metres = 0.006,
        #[Whole(0, 9999)] public int $seed = 1,
    ) {
    }
}
