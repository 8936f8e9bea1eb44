<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Yes;

/** A sound in a scene: from a frame on, or so many frames after what it hangs on begins; once, or again and again. */
#[Row('sounds', 'n', 'sound', order: 'start')]
final readonly class Sound
{
    use OfFields;

    /** Where it belongs; ambience and music give way to speech. */
    public const LANES = ['effects', 'ambience', 'music'];

    /**
     * @param  int  $start  frame, or frames after that begins which it hangs on
     * @param  string|null  $line  what it hangs on: a line that begins
     * @param  string|null  $contact  a touch that begins
     * @param  string|null  $thing  a thing that lands first, or begins to roll
     * @param  float  $sourceIn  seconds into the sound at which it begins
     * @param  float|null  $sourceOut  null: its end
     * @param  float  $level  decibels over how loud its file is
     * @param  float  $fadeIn  seconds
     * @param  list<array{float, float}>  $curve  seconds after it begins, and decibels that the level is raised by then, straight between
     * @param  bool  $repeats  until $until, or as long as the scene lasts
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(AssetRef::class, column: 'asset_id', row: 'assetId')] public string $asset,
        #[Frame] public int $start = 0,
        #[Ref(Line::class)] public ?string $line = null,
        #[Number(0, 36000, 's')] public float $sourceIn = 0.0,
        #[Number(0, 36000, 's')] public ?float $sourceOut = null,
        #[Number(-60, 12, 'dB')] public float $level = 0.0,
        #[Number(0, 60, 's')] public float $fadeIn = 0.0,
        #[Number(0, 60, 's')] public float $fadeOut = 0.0,
        #[Yes] public bool $repeats = false,
        #[Frame(1)] public ?int $until = null,
        #[Choice(self::LANES)] public string $lane = 'effects',
        #[Yes] public bool $muted = false,
        #[Ref(Contact::class)] public ?string $contact = null,
        #[Ref(Item::class)] public ?string $thing = null,
        #[Pairs(60, says: 'seconds into the sound that rise, and decibels')] public array $curve = [],
    ) {
    }
}
