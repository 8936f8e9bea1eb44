<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Sound\Cue;
use CrispReel\Core\Sound\Lowering;

/** How far ambience and music go down for each line of a scene: as the mix has it, or as far as they must for it to be understood. */
final class GivingWay
{
    /** Decibels that speech stands above them, and a little more, as both are known by the second only. */
    public const ABOVE = 12.0;

    private const SPARE = 1.5;

    /** Decibels where nobody has measured them; and the most, which is silence. */
    public const UNKNOWN = 14.0;

    private const MOST = 40.0;

    /** Seconds from one look at the bed to the next. */
    private const STEP = 0.25;

    /** What is softer than this part of the loud places of a line is between its words. */
    private const BETWEEN = 0.1;

    /** LUFS of a line that no voice has read yet, as loud as voices read. */
    private const READ = -16.0;

    /** LUFS of a mean square of one that is heard on both sides (ITU-R BS.1770, without its filter). */
    private const BOTH = 2.32;

    /** In seconds from a frame on. Where speech is not heard, nothing gives way to it. */
    public static function of(CompiledScene $scene, int $frame = 0): Lowering
    {
        $mix = $scene->document->mix;
        $speech = $mix->level('speech');

        return new Lowering($speech === null ? [] : array_map(static fn (Utterance $u): array => [
            ($u->from - $frame) / $u->perSecond, ($u->to - $frame) / $u->perSecond, $mix->lowered ?? self::needed($scene, $u, $speech),
        ], $scene->utterances));
    }

    private static function needed(CompiledScene $scene, Utterance $u, float $level): float
    {
        $bed = self::bed($scene, $u);

        return match (true) {
            $bed === null => self::UNKNOWN,
            is_infinite($bed) => 0.0,
            default => round(max(0.0, min(self::MOST, $bed + self::ABOVE + self::SPARE - self::spoken($u) - $level)), 2),
        };
    }

    /** LUFS of a line, of where something is heard. */
    public static function spoken(Utterance $u): float
    {
        $least = self::BETWEEN * ($u->reading->loudness === [] ? 1.0 : max($u->reading->loudness));
        $squares = array_map(
            static fn (float $v): float => $v * $v, array_filter($u->reading->loudness, static fn (float $v): bool => $v > $least),
        );

        return $squares === [] ? self::READ : self::BOTH + 10.0 * log10(array_sum($squares) / count($squares));
    }

    /** LUFS of all that gives way, under a line; -INF: nothing does; null: of something nobody knows. */
    private static function bed(CompiledScene $scene, Utterance $u): ?float
    {
        $steps = max(1, (int) ceil(($u->to - $u->from) / $u->perSecond / self::STEP));
        $sum = 0.0;
        foreach ($scene->heard as $h) {
            $lane = $scene->document->mix->level($h->sound->lane);
            if (! $h->givesWay() || $h->sound->muted || $lane === null || $h->start >= $u->to || $h->end <= $u->from) {
                continue;
            }
            if ($h->loud === []) {
                return null;
            }
            for ($k = 0; $k < $steps; $k++) {
                $frame = $u->from + ($k + 0.5) * ($u->to - $u->from) / $steps;
                if ($frame >= $h->start && $frame < $h->end) {
                    $sum += 10.0 ** (($lane + self::level($h, ($frame - $h->start) / $u->perSecond)) / 10.0);
                }
            }
        }

        return $sum > 0.0 ? 10.0 * log10($sum / $steps) : -INF;
    }

    /** LUFS of a sound so many seconds after it begins. */
    private static function level(Heard $h, float $into): float
    {
        $second = (int) ($h->sound->sourceIn + fmod($into, $h->seconds));

        return ($h->loud[$second] ?? $h->loud[count($h->loud) - 1]) + $h->sound->level + Cue::along($h->sound->curve, $into);
    }
}
