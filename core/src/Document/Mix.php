<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choices;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Yes;

/** How loud the lanes of a scene's sound are against each other. */
final readonly class Mix
{
    use OfFields;

    public const LANES = ['speech', 'steps', 'effects', 'ambience', 'music'];

    /** Those whose sounds come from somebody or something. */
    public const PLACES = ['speech', 'steps', 'effects'];

    /**
     * @param  float  $speech  decibels, as are those of the other lanes
     * @param  list<string>  $muted  lanes that are not heard
     * @param  float|null  $lowered  decibels by which ambience and music give way to speech; null: as far as they must
     * @param  list<string>  $placed  lanes that are heard from the camera: softer from afar, and from the side that it is seen at
     * @param  bool  $happens  whether feet that come down, things that land and wheels that roll are heard
     */
    public function __construct(
        #[Number(-60, 12, 'dB')] public float $speech = 0.0,
        #[Number(-60, 12, 'dB')] public float $steps = 0.0,
        #[Number(-60, 12, 'dB')] public float $effects = 0.0,
        #[Number(-60, 12, 'dB')] public float $ambience = 0.0,
        #[Number(-60, 12, 'dB')] public float $music = 0.0,
        #[Choices(self::LANES)] public array $muted = [],
        #[Number(0, 40, 'dB')] public ?float $lowered = null,
        #[Yes] public bool $happens = false,
        #[Choices(self::PLACES)] public array $placed = [],
    ) {
    }

    /** Decibels of a lane; null: it is not heard. */
    public function level(string $lane): ?float
    {
        return in_array($lane, $this->muted, true) ? null : match ($lane) {
            'speech' => $this->speech, 'steps' => $this->steps, 'ambience' => $this->ambience, 'music' => $this->music,
            default => $this->effects,
        };
    }
}
