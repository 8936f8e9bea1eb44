<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Picture;
use CrispReel\Core\Document\Fields\Text;

/** What one surface of a placed thing is to be in place of what it came with. */
final readonly class Wish
{
    use OfFields;

    /** In place of a surface's key: the thing as a whole. */
    public const WHOLE = '*';

    /** Roughness and metalness of glTF, and our own paint's gloss. */
    public const FINISHES = [
        'matt' => [0.95, 0.0, 0.02], 'satin' => [0.45, 0.0, 0.16], 'gloss' => [0.12, 0.0, 0.42], 'metal' => [0.3, 1.0, 0.8],
    ];

    private const COLOUR = '/^#[0-9a-f]{6}$/';

    /**
     * @param  string  $key  of the surface, as the list of its surfaces gives it; WHOLE for a variant
     * @param  string|null  $colour  #rrggbb
     * @param  string|null  $finish  a key of FINISHES
     * @param  string|null  $picture  hash of a PNG or JPEG
     * @param  string|null  $variant  materials that the file offers for all of it
     * @param  float  $metres  width of the picture on the surface, where it has no map of its own
     */
    public function __construct(
        #[Text] public string $key,
        #[Text(7, self::COLOUR, '"%s" is not a colour', 'Write it as #rrggbb.')] public ?string $colour = null,
        #[Choice(['matt', 'satin', 'gloss', 'metal'])] public ?string $finish = null,
        #[Picture] public ?string $picture = null,
        #[Number(0.01, 100, 'm')] public float $metres = 1.0,
        #[Text] public ?string $variant = null,
    ) {
    }
}
