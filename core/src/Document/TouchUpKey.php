<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Turn;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Math\Q4;

/** How far a joint is turned, and the hips are shifted, at a frame. */
final readonly class TouchUpKey
{
    use OfFields;

    /**
     * @param  array{float, float, float, float}  $rotation  in the joint's own space
     * @param  array{float, float, float}  $shift  metres, in the performer's space
     */
    public function __construct(
        #[Frame] public int $frame,
        #[Turn] public array $rotation = Q4::IDENTITY,
        #[Vector(most: 100)] public array $shift = [0.0, 0.0, 0.0],
    ) {
    }
}
