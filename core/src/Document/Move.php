<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Turn;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;

/** Where a thing that moves by itself is at a frame; the ease leads to this key from the one before. */
final readonly class Move
{
    use OfFields;

    /**
     * @param  array{float, float, float}  $position  metres
     * @param  array{float, float, float, float}  $rotation
     */
    public function __construct(
        #[Frame] public int $frame,
        #[Vector(place: true)] public array $position,
        #[Turn] public array $rotation = Q4::IDENTITY,
        #[Choice(Ease::KEYED)] public string $ease = 'inOut',
    ) {
    }
}
