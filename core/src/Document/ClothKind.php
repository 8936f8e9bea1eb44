<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;

/**
 * What a cloth is made of, where that is chosen in the scene and not by its file: a kind, and any number of it by hand.
 * Weights of a square metre are those of common stuffs; how far they stand and how they take the wind is set by eye.
 */
final readonly class ClothKind
{
    use OfFields;

    /** Grams of a square metre, bend (0 falls to 1 stands), how well it catches the wind, share of its speed lost in a second. */
    public const ALL = [
        'silk' => [60.0, 0.01, 1.15, 0.35], 'cotton' => [150.0, 0.05, 1.0, 0.6], 'wool' => [380.0, 0.12, 0.9, 0.75],
        'oilskin' => [550.0, 0.25, 0.7, 0.85], 'canvas' => [480.0, 0.42, 1.0, 0.8], 'leather' => [1000.0, 0.6, 0.6, 0.9],
    ];

    public const NAMES = ['silk', 'cotton', 'wool', 'oilskin', 'canvas', 'leather'];

    /** What is null is as the kind has it. */
    public function __construct(
        #[Choice(self::NAMES)] public string $kind = 'cotton',
        #[Number(20, 3000, 'g')] public ?float $grams = null,
        #[Number(0, 1)] public ?float $bend = null,
        #[Number(0, 3)] public ?float $catch = null,
        #[Number(0, 0.99)] public ?float $damping = null,
    ) {
    }

    /**
     * Its numbers in place of those in a file's facts.
     *
     * @param  array<array-key, mixed>  $facts
     * @return array<array-key, mixed>
     */
    public function over(array $facts): array
    {
        [$grams, $bend, $catch, $damping] = self::ALL[$this->kind];

        return [
            'kilogramsPerSquareMetre' => ($this->grams ?? $grams) / 1000, 'bend' => $this->bend ?? $bend,
            'catch' => $this->catch ?? $catch, 'damping' => $this->damping ?? $damping,
        ] + $facts;
    }
}
