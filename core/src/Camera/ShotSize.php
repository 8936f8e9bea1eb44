<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Document\Framing;

/**
 * How tight a picture is: which lines of the body its upper and lower edges cut, and how far the middle is left when somebody
 * looks aside. Heights in the picture run from -1 (below) to 1 (above).
 */
final readonly class ShotSize
{
    /** Mark and height of the upper and of the lower line, the height of the lens, and the look room, by the name of the size. */
    private const LINES = [
        'extremeCloseUp' => ['brow', 0.90, 'chin', -0.92, 'eyes', 0.10],
        'closeUp' => ['skull', 0.94, 'shoulders', -0.98, 'eyes', 0.18],
        'mediumCloseUp' => ['crown', 0.94, 'chest', -1.0, 'eyes', 0.27],
        'medium' => ['crown', 0.85, 'belt', -1.0, 'eyes', 0.33],
        'threeQuarter' => ['crown', 0.85, 'thigh', -1.0, 'chest', 0.33],
        'full' => ['crown', 0.84, 'sole', -0.88, 'waist', 0.33],
        'wide' => ['crown', 0.17, 'sole', -0.50, 'waist', 0.33],
        'veryWide' => ['crown', -0.05, 'sole', -0.45, 'chest', 0.33],
    ];

    private function __construct(
        public string $name,
        public string $top,
        public float $topAt,
        public string $bottom,
        public float $bottomAt,
        public string $level,
        public float $lookRoom,
        public int $number,
    ) {
    }

    /** @param  string  $posture  of Marks: who sits or kneels has other lines below the belt */
    public static function named(string $name, string $posture = Marks::STANDING): self
    {
        [$top, $topAt, $bottom, $bottomAt, $level, $room] = self::LINES[$name];
        if ($name === 'threeQuarter' && $posture === Marks::SEATED) {
            [$bottom, $bottomAt] = ['knee', -0.96];
        } elseif ($name === 'threeQuarter' && $posture === Marks::KNEELING) {
            [$bottom, $bottomAt] = ['sole', -0.92];
        }

        return new self($name, $top, $topAt, $bottom, $bottomAt, $level, $room, self::number($name));
    }

    /** Two lines that are no size of their own. */
    public static function between(string $top, float $topAt, string $bottom, float $bottomAt): self
    {
        return new self('', $top, $topAt, $bottom, $bottomAt, 'eyes', 0.0, 0);
    }

    /** 0 for the widest two and one more for each tighter size, to 6. */
    public static function number(string $name): int
    {
        return max(0, 6 - (int) array_search($name, Framing::SIZES, true));
    }
}
