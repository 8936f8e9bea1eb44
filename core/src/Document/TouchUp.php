<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;

/**
 * A correction of one joint over some frames, added after all beats: a turn in the joint's own space and, for the hips, a
 * shift in the performer's. Between its keys it changes smoothly; it fades in before the first frame and out at its end.
 */
#[Row('touch_ups', 't', 'touch-up')]
final readonly class TouchUp
{
    use OfFields;

    /** @param  list<TouchUpKey>  $keys  at least one, rising */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Item::class, owner: true)] public string $item,
        #[Text(80)] public string $joint,
        #[Many(TouchUpKey::class, most: 1000, least: 1, says: 'a touch-up needs at least one key')] public array $keys,
        #[Frame(column: 'from_frame')] public int $from = 0,
        #[Frame(1, after: 'from', says: 'a touch-up ends after it begins', column: 'to_frame')] public ?int $to = null,
        #[Frames(0, 240)] public int $easeIn = 6,
        #[Frames(0, 240)] public int $easeOut = 6,
    ) {
    }
}
