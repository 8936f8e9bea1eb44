<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;

/**
 * What somebody says, as it is written: words, *words with weight*, and in square brackets what is done between them ("[1.5 s]" a
 * pause, "[nod]", "[breath]"). It begins at a frame, or when another line has ended.
 */
#[Row('lines', 'd', 'line')]
final readonly class Line
{
    use OfFields;

    /** How it is said. */
    public const DELIVERIES = ['plain', 'calm', 'eager', 'angry', 'sad', 'whispered', 'called', 'tired'];

    public const MOST = 5000;

    /**
     * @param  int  $start  where no other line comes before it
     * @param  string|null  $after  the line that it answers
     * @param  float  $pause  seconds after the end of that line; negative: it falls into it
     * @param  float  $pace  words by the time: 1 is the voice's own
     * @param  string|null  $to  to whom; null: who spoke before, or stands nearest
     * @param  string|null  $beat  what the body does with it: begins and lasts as the line does
     * @param  string  $voice  instead of the performer's own
     * @param  string  $reading  the asset that it was read as; empty: no voice has read it yet
     */
    public function __construct(
        #[Id] public string $id,
        #[Ref(Item::class, owner: true)] public string $item,
        #[Text(self::MOST)] public string $text,
        #[Frame] public int $start = 0,
        #[Ref(Line::class)] public ?string $after = null,
        #[Number(-10, 60, 's')] public float $pause = 0.4,
        #[Choice(self::DELIVERIES)] public string $delivery = 'plain',
        #[Number(0.5, 2)] public float $pace = 1.0,
        #[Ref(Item::class, column: 'to_id')] public ?string $to = null,
        #[Ref(Beat::class)] public ?string $beat = null,
        #[Text(40)] public string $voice = '',
        #[Text(80)] public string $reading = '',
    ) {
    }
}
