<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** What one surface of a placed thing is to be in place of what it came with. */
final readonly class Wish
{
    /** In place of a surface's key: the thing as a whole. */
    public const WHOLE = '*';

    /** Roughness and metalness of glTF, and our own paint's gloss. */
    public const FINISHES = [
        'matt' => [0.95, 0.0, 0.02], 'satin' => [0.45, 0.0, 0.16], 'gloss' => [0.12, 0.0, 0.42], 'metal' => [0.3, 1.0, 0.8],
    ];

    /**
     * @param  string  $key  of the surface, as the list of its surfaces gives it; WHOLE for a variant
     * @param  string|null  $colour  #rrggbb
     * @param  string|null  $finish  a key of FINISHES
     * @param  string|null  $picture  hash of a PNG or JPEG
     * @param  string|null  $variant  materials that the file offers for all of it
     * @param  float  $metres  width of the picture on the surface, where it has no map of its own
     */
    public function __construct(
        public string $key,
        public ?string $colour = null,
        public ?string $finish = null,
        public ?string $picture = null,
        public float $metres = 1.0,
        public ?string $variant = null,
    ) {
    }

    /** @return array{key: string, colour: string|null, finish: string|null, picture: string|null, metres: float, variant: string|null} */
    public function toArray(): array
    {
        return [
            'key' => $this->key, 'colour' => $this->colour, 'finish' => $this->finish, 'picture' => $this->picture,
            'metres' => $this->metres, 'variant' => $this->variant,
        ];
    }
}
