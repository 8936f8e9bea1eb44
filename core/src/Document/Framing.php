<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Frames;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Refs;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Math\Ease;

/**
 * Whom a camera films from a frame on, and how: solved when the scene is compiled, so it stays right when people are moved, swapped
 * or retimed. A camera with framings is where these put it; its keys are where it stands without them.
 */
#[Row('framings', 'f', 'framing', order: 'frame')]
final readonly class Framing
{
    use OfFields;

    /** From the tightest to the widest. */
    public const SIZES = ['extremeCloseUp', 'closeUp', 'mediumCloseUp', 'medium', 'threeQuarter', 'full', 'wide', 'veryWide'];

    /** One alone; one over the shoulder of the other; both, or one with what is beside. */
    public const KINDS = ['single', 'overShoulder', 'together'];

    public const HEIGHTS = ['level', 'low', 'high', 'overhead', 'floor'];

    /** Stands still; turns to keep the subject where it is in the picture; goes along with it. */
    public const KEEPS = ['still', 'turn', 'follow'];

    /** Of somebody filmed alone: what fills the picture, and what is watched that it stays in it. */
    public const PARTS = ['face', 'leftHand', 'rightHand'];

    /**
     * @param  float  $sideDeg  where the lens stands, seen from the subject: 0 before its face, positive to its left; with a partner, off
     *                          the line to it; over the shoulder only the sign counts: positive, the partner is at the left of the picture
     * @param  int  $over  frames that the move from the framing before takes, from $frame on; 0: it is there at once
     * @param  string|null  $focus  who or what is sharp; null: the subject
     * @param  array{float, float, float}  $shift  metres from where it would stand: to its right, up, ahead
     * @param  list<string>  $others  who is in the picture beside subject and partner: a group
     * @param  float  $room  share of the usual look room; negative: to the other side
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Camera::class, owner: true)] public string $camera,
        #[Ref(Item::class, needs: true)] public string $subject,
        #[Ref(Item::class, needs: true)] public ?string $partner = null,
        #[Frame] public int $frame = 0,
        #[Frames(0, 100_000)] public int $over = 0,
        #[Choice(Ease::KEYED)] public string $ease = 'inOut',
        #[Choice(self::KINDS)] public string $kind = 'single',
        #[Choice(self::SIZES)] public string $size = 'medium',
        #[Number(-180, 180, 'deg')] public float $sideDeg = 0.0,
        #[Choice(self::HEIGHTS)] public string $height = 'level',
        #[Number(8, 800, 'mm')] public float $focalMm = 50.0,
        #[Choice(self::KEEPS)] public string $keep = 'turn',
        #[Number(-2, 2)] public float $room = 1.0,
        #[Number(0.7, 64)] public float $fStop = 4.0,
        #[Ref(Item::class)] public ?string $focus = null,
        #[Vector(most: 1000)] public array $shift = [0.0, 0.0, 0.0],
        #[Refs(Item::class, most: 30)] public array $others = [],
        #[Choice(self::PARTS)] public string $part = 'face',
    ) {
    }

    /** @return list<string> with whom the subject is framed: the partner first, each once */
    public function with(): array
    {
        return array_values(array_diff([...($this->partner === null ? [] : [$this->partner]), ...$this->others], [$this->subject]));
    }

    /** @return list<string> all who are framed, the subject first */
    public function people(): array
    {
        return [$this->subject, ...$this->with()];
    }

    /**
     * Whether it is another one but for some fields, and for when and how one comes to it.
     *
     * @param  list<string>  $but  names of fields
     */
    public function likeBut(self $other, array $but): bool
    {
        $without = array_flip(['id', 'frame', 'over', 'ease', ...$but]);

        return array_diff_key($this->toArray(), $without) === array_diff_key($other->toArray(), $without);
    }
}
