<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Document\Framing;

/** Whom somebody looks for a camera place for: who is selected, with whom, when, and from where. */
final readonly class SetUpWish
{
    /** @param  list<string>  $others */
    private function __construct(
        public string $subject,
        public string $partner,
        public int $frame,
        public float $sideDeg,
        public string $height,
        public float $hand,
        public array $others,
    ) {
    }

    /** @param  array<mixed>  $said  by a page or by another process; what makes no sense is left out */
    public static function of(array $said): self
    {
        $text = static fn (string $name): string => is_scalar($said[$name] ?? null) ? (string) $said[$name] : '';
        $number = static fn (string $name, float $most): float => is_numeric($said[$name] ?? null)
            ? max(-$most, min($most, (float) $said[$name]))
            : 0.0;
        $height = in_array($text('height'), Framing::HEIGHTS, true) ? $text('height') : 'level';

        // A page says them with commas between, another process as a list.
        $others = is_array($said['others'] ?? null) ? $said['others'] : array_filter(explode(',', $text('others')));

        return new self(
            $text('subject'), $text('partner'), (int) max(0, $number('frame', 1e6)), $number('sideDeg', 180), $height, $number('hand', 1),
            array_slice(array_values(array_filter($others, is_string(...))), 0, 30),
        );
    }
}
