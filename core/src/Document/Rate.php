<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** Frames a second as a ratio; frame n shows time n * den / num. */
final readonly class Rate
{
    public function __construct(public int $num, public int $den = 1)
    {
        if ($num < 1 || $den < 1 || $num / $den > 240 || $num / $den < 1) {
            throw UnableToReadDocument::at(
                'rate',
                sprintf('%d/%d is not between 1 and 240 frames a second', $num, $den),
                'Use 24/1, 25/1, 30/1 or another usual rate.',
            );
        }
    }

    public function perSecond(): float
    {
        return $this->num / $this->den;
    }

    public function seconds(float $frame): float
    {
        return $frame * $this->den / $this->num;
    }

    public function frame(float $seconds): float
    {
        return $seconds * $this->num / $this->den;
    }

    public function isDropFrame(): bool
    {
        return $this->den === 1001 && in_array($this->num, [30000, 60000], true);
    }

    /** SMPTE ST 12-1 timecode of a frame; drop-frame numbering (with a semicolon) at 29.97 and 59.94. */
    public function timecode(int $frame): string
    {
        $base = (int) round($this->perSecond());
        $mark = ':';
        if ($this->isDropFrame()) {
            $mark = ';';
            $drop = intdiv($base, 15);
            $tenMinutes = $base * 600 - 9 * $drop;
            $minute = $base * 60 - $drop;
            $tens = intdiv($frame, $tenMinutes);
            $rest = $frame % $tenMinutes;
            $frame += 9 * $drop * $tens + ($rest >= $drop ? $drop * intdiv($rest - $drop, $minute) : 0);
        }
        $seconds = intdiv($frame, $base);

        return sprintf('%02d:%02d:%02d%s%02d', intdiv($seconds, 3600), intdiv($seconds, 60) % 60, $seconds % 60, $mark, $frame % $base);
    }
}
