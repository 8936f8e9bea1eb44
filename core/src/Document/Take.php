<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Yes;

/** A recording of a line. Of several, the one that is chosen is heard; where none is, a voice reads the line. */
#[Row('takes', 'g', 'take')]
final readonly class Take
{
    use OfFields;

    /**
     * @param  float|null  $sourceIn  seconds into the recording at which the line begins; null: shortly before anything is heard
     * @param  float|null  $sourceOut  null: shortly after the last that is heard
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Line::class, owner: true)] public string $line,
        #[Ref(AssetRef::class, column: 'asset_id', row: 'assetId')] public string $asset,
        #[Number(0, 36000, 's')] public ?float $sourceIn = null,
        #[Number(0, 36000, 's')] public ?float $sourceOut = null,
        #[Yes] public bool $chosen = true,
    ) {
    }
}
