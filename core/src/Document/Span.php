<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Math\Ease;

/** Frames in which something holds: it comes before the first, so that it is there on it, and goes from the last. */
final class Span
{
    /** Share at a frame, 0 to 1; without an end it lasts. */
    public static function weight(float $frame, int $from, ?int $to, int $easeIn, int $easeOut): float
    {
        $in = $easeIn > 0 ? ($frame - $from + $easeIn) / $easeIn : ($frame >= $from ? 1.0 : 0.0);
        $out = match (true) {
            $to === null => 1.0,
            $easeOut > 0 => ($to + $easeOut - $frame) / $easeOut,
            default => $frame < $to ? 1.0 : 0.0,
        };

        return Ease::smooth(min($in, $out));
    }
}
