<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/**
 * What a cloth is made of, where that is chosen in the scene and not by its file: a kind, and any number of it by hand.
 * Weights of a square metre are those of common stuffs; how far they stand and how they take the wind is set by eye.
 */
final readonly class ClothKind
{
    /** Grams of a square metre, bend (0 falls to 1 stands), how well it catches the wind, share of its speed lost in a second. */
    public const ALL = [
        'silk' => [60.0, 0.01, 1.15, 0.35], 'cotton' => [150.0, 0.05, 1.0, 0.6], 'wool' => [380.0, 0.12, 0.9, 0.75],
        'oilskin' => [550.0, 0.25, 0.7, 0.85], 'canvas' => [480.0, 0.42, 1.0, 0.8], 'leather' => [1000.0, 0.6, 0.6, 0.9],
    ];

    public const RANGES = ['grams' => [20.0, 3000.0], 'bend' => [0.0, 1.0], 'catch' => [0.0, 3.0], 'damping' => [0.0, 0.99]];

    private function __construct(public string $kind, public float $grams, public float $bend, public float $catch, public float $damping)
    {
    }

    /** Null: as its file says. */
    public static function of(Input $item): ?self
    {
        if (! $item->has('cloth')) {
            return null;
        }
        $in = $item->child('cloth');
        $kind = $in->choice('kind', array_keys(self::ALL), 'cotton');
        $usual = array_combine(array_keys(self::RANGES), self::ALL[$kind]);
        $of = static fn (string $name): float => $in->number($name, $usual[$name], ...self::RANGES[$name]);

        return new self($kind, $of('grams'), $of('bend'), $of('catch'), $of('damping'));
    }

    /**
     * Its numbers in place of those in a file's facts.
     *
     * @param  array<array-key, mixed>  $facts
     * @return array<array-key, mixed>
     */
    public function over(array $facts): array
    {
        return [
            'kilogramsPerSquareMetre' => $this->grams / 1000, 'bend' => $this->bend, 'catch' => $this->catch, 'damping' => $this->damping,
        ] + $facts;
    }

    /** @return array{kind: string, grams: float, bend: float, catch: float, damping: float} */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind, 'grams' => $this->grams, 'bend' => $this->bend, 'catch' => $this->catch, 'damping' => $this->damping,
        ];
    }
}
