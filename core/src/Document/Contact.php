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

/**
 * A part of a performer that is held to a place from a frame up to (not including) a frame: a point of the scene, or a
 * place on an item, joint or mount. It eases in before the first frame, so that it is there on it, and out from the last.
 */
#[Row('contacts', 'k', 'contact')]
final readonly class Contact
{
    use OfFields;

    public const EFFECTORS = ['hips', 'footL', 'footR', 'head', 'handL', 'handR', 'look'];

    /** How the part turns: as the motion has it, with the limb, or as the target. */
    public const TURNS = ['keep', 'follow', 'match'];

    /**
     * @param  string|null  $target  item; null: a point of the scene
     * @param  string  $mount  joint, role or mount of the target; empty: the whole of it
     * @param  array{float, float, float}  $offset  metres, in the target's space or the scene's
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Item::class, owner: true)] public string $item,
        #[Choice(self::EFFECTORS)] public string $effector,
        #[Ref(Item::class, needs: true)] public ?string $target = null,
        #[Text(80)] public string $mount = '',
        #[Vector(place: true, unless: 'target')] public array $offset = [0.0, 0.0, 0.0],
        #[Frame(column: 'from_frame')] public int $from = 0,
        #[Frame(1, after: 'from', says: 'a contact ends after it begins', column: 'to_frame')] public ?int $to = null,
        #[Frames(0, 240)] public int $easeIn = 8,
        #[Frames(0, 240)] public int $easeOut = 8,
        #[Choice(self::TURNS)] public string $turn = 'follow',
    ) {
    }

    /** Share of the contact at a frame. */
    public function weight(float $frame): float
    {
        return Span::weight($frame, $this->from, $this->to, $this->easeIn, $this->easeOut);
    }
}
