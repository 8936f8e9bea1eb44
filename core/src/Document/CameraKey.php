<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Turn;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Math\Ease;

/** A camera's place and lens at a frame; the ease leads from this key to the next. Without a focus it follows the subject. */
final readonly class CameraKey
{
    use OfFields;

    /**
     * @param  array{float, float, float}  $position
     * @param  array{float, float, float, float}  $rotation  looks along its own -Z
     */
    public function __construct(
        #[Frame] public int $frame,
        #[Vector(place: true)] public array $position,
        #[Turn] public array $rotation,
        #[Number(4, 1200, 'mm')] public float $focalMm = 35.0,
        #[Number(0.05, 10_000, 'm')] public ?float $focusMetres = null,
        #[Number(0.7, 64)] public float $fStop = 4.0,
        #[Choice(Ease::KEYED)] public string $ease = 'inOut',
    ) {
    }
}
