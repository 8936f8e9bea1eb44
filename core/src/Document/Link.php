<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Vector;

/** A carry: the child goes with a joint, mount or the whole of the parent from a frame up to (not including) a frame. */
#[Row('links', 'l', 'link')]
final readonly class Link
{
    use OfFields;

    /** What happens at the end: it stays where it is, or falls; a later carry then catches it. */
    public const RELEASES = ['stay', 'fall'];

    public const KEEPS = ['place', 'grip'];

    /** @param  array{float, float, float}|null  $velocity  metres a second at the release; null: as it was carried */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Item::class, owner: true)] public string $child,
        #[Ref(Item::class, owner: true)] public string $parent,
        #[Text(80)] public string $mount = '',
        #[Frame(column: 'from_frame')] public int $from = 0,
        #[Frame(1, after: 'from', says: 'a carry ends after it begins', column: 'to_frame')] public ?int $to = null,
        #[Choice(self::KEEPS)] public string $keep = 'place',
        #[Frames(0, 240)] public int $easeFrames = 0,
        #[Choice(self::RELEASES)] public string $release = 'stay',
        #[Vector(most: 100)] public ?array $velocity = null,
    ) {
    }
}
