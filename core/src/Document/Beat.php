<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Document\Fields\Whole;

/** A motion in use on a performer's lane. Source times are seconds into the motion; the beat plays at $speed. */
#[Row('beats', 'b', 'beat')]
final readonly class Beat
{
    use OfFields;

    public const ROOTS = ['travel', 'spot'];

    public const JOINS = ['carryOn', 'blend', 'cut'];

    /** @param  array<string, mixed>  $settings numbers handed to a generated motion, and a talk's line */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Item::class, owner: true)] public string $item,
        #[Ref(AssetRef::class, column: 'asset_id', row: 'assetId')] public string $motion,
        #[Frame] public int $start = 0,
        #[Number(0, 3600, 's')] public float $sourceIn = 0.0,
        #[Number(0, 3600, 's')] public ?float $sourceOut = null,
        #[Number(0.05, 20)] public float $speed = 1.0,
        #[Whole(1, 10_000)] public int $loops = 1,
        #[Choice(self::ROOTS)] public string $root = 'travel',
        #[Choice(self::JOINS, column: 'join_kind')] public string $join = 'carryOn',
        #[Frames(0, 240)] public int $joinFrames = 8,
        #[Values] public array $settings = [],
        #[Part(Path::class)] public ?Path $path = null,
        #[Part(Play::class, sparse: true)] public Play $play = new Play,
    ) {
    }
}
