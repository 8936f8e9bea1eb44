<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

/** A manner of cutting, as numbers: how long shots like to be, how near one comes, and what one would rather see. */
final readonly class Style
{
    /** By name: the words for it, and its values in the order of the constructor. */
    private const ALL = [
        'plain' => ['Plain', 88, 0.9, 30, 0.45, 2.8, 4.2, 0.0, 0.0, 2.0, 0.9, 6],
        'tense' => ['Tense', 62, 0.75, 22, 0.15, 3.2, 5.2, 0.15, 0.5, 0.8, 0.5, -4],
        'lively' => ['Lively', 46, 0.75, 18, 0.0, 2.8, 4.4, 0.0, 0.1, 0.3, 0.25, 8],
    ];

    /**
     * @param  float  $mean  frames (at 24 a second) that a shot likes to have
     * @param  float  $spread  how far from that it may be
     * @param  float  $least  frames that it has to have
     * @param  float  $react  share by which a listener's face stands in for the speaker's
     * @param  float  $wide  size wanted at the first line
     * @param  float  $tight  size wanted at the last
     * @param  float  $over  a second over somebody's shoulder costs so much more
     * @param  float  $two  a second of both in one picture
     * @param  float  $inLine  a cut within a line
     * @param  float  $shot  each shot
     * @param  int  $lead  frames after a line begins at which one cuts to it
     */
    private function __construct(
        public string $title,
        public float $mean,
        public float $spread,
        public float $least,
        public float $react,
        public float $wide,
        public float $tight,
        public float $over,
        public float $two,
        public float $inLine,
        public float $shot,
        public int $lead,
    ) {
    }

    public static function named(string $name): self
    {
        return new self(...(self::ALL[$name] ?? self::ALL['plain']));
    }

    /** @return list<string> */
    public static function names(): array
    {
        return array_keys(self::ALL);
    }
}
