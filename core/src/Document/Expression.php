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
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Values;
use CrispReel\Core\Speech\Emotions;

/** What shows in somebody's face over some frames, whatever the body does and says meanwhile. */
#[Row('expressions', 'x', 'expression')]
final readonly class Expression
{
    use OfFields;

    /**
     * @param  float  $amount  1 is as strong as the emotion is drawn
     * @param  int|null  $to  null: it stays
     * @param  array<string, mixed>  $shapes  shapes of the face by name, -1 to 1.2, added to the emotion's
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Item::class, owner: true)] public string $item,
        #[Choice([Emotions::NONE, ...Emotions::NAMES])] public string $emotion = 'glad',
        #[Number(0, 1.2)] public float $amount = 1.0,
        #[Frame(column: 'from_frame')] public int $from = 0,
        #[Frame(1, after: 'from', says: 'an expression ends after it begins', column: 'to_frame')] public ?int $to = null,
        #[Frames(0, 240)] public int $easeIn = 8,
        #[Frames(0, 240)] public int $easeOut = 12,
        #[Values] public array $shapes = [],
    ) {
    }

    /** How much of it shows at a frame, 0 to its amount. */
    public function weight(float $frame): float
    {
        return $this->amount * Span::weight($frame, $this->from, $this->to, $this->easeIn, $this->easeOut);
    }
}
