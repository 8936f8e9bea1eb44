<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

use Generator;

/** Sounds laid over each other, block by block: however long the scene, no more than a second of it is held at a time. */
final class Mixdown
{
    public const RATE = 48000;

    /** Samples of the bed between two looks at the lowering. */
    private const STEP = 480;

    /** Samples of a fade that are a straight line. */
    private const FADE_STEP = 96;

    /**
     * The mix of some samples, from 0 on.
     *
     * @param  list<Cue>  $cues
     * @return Generator<int, string> 32-bit little-endian floats, left and right by turns, a second each
     */
    public static function blocks(array $cues, int $samples, ?Lowering $lowering = null): Generator
    {
        for ($at = 0; $at < $samples; $at += self::RATE) {
            $n = min(self::RATE, $samples - $at);
            $left = $right = array_fill(0, $n, 0.0);
            foreach ($cues as $cue) {
                if ($cue->start < $at + $n && $cue->end() > $at) {
                    self::lay($left, $right, $cue, $at, $n, $cue->lane === 'music' || $cue->lane === 'ambience' ? $lowering : null);
                }
            }
            $both = [];
            for ($i = 0; $i < $n; $i++) {
                $both[] = $left[$i];
                $both[] = $right[$i];
            }
            yield pack('g*', ...$both);
        }
    }

    /**
     * @param  array<int, float>  $left
     * @param  array<int, float>  $right
     */
    private static function lay(array &$left, array &$right, Cue $cue, int $at, int $n, ?Lowering $lowering): void
    {
        $length = $cue->length();
        $fades = $cue->bends();
        $placed = $cue->placed !== [];
        for ($i = max(0, $cue->start - $at), $end = min($n, $cue->end() - $at); $i < $end && $length > 0;) {
            // A stretch within one turn of the sound, and within one step of the lowering.
            $from = ($at + $i - $cue->start) % $length;
            $count = min($end - $i, $length - $from, $fades ? self::FADE_STEP : ($lowering === null ? PHP_INT_MAX : self::STEP));
            $gain = $cue->gain / 32768.0 * ($lowering === null ? 1.0 : $lowering->gain(($at + $i) / self::RATE));
            /** @var array<int, int> $samples */
            $samples = unpack('v*', substr($cue->pcm, 2 * $cue->channels * $from, 2 * $cue->channels * $count)) ?: [];
            [$a, $b] = $fades ? [$cue->share($at + $i), $cue->share($at + $i + $count)] : [1.0, 1.0];
            [[$la, $ra], [$lb, $rb]] = [$cue->sides($at + $i), $cue->sides($at + $i + $count)];
            for ($k = 0; $k < $count; $k++) {
                $g = $fades ? $gain * ($a + ($b - $a) * $k / $count) : $gain;
                $v = $samples[$cue->channels * $k + 1];
                $l = $v < 32768 ? $v : $v - 65536;
                $v = $samples[$cue->channels * $k + $cue->channels];
                $r = $v < 32768 ? $v : $v - 65536;
                if ($placed) {
                    // From one place: what was on two sides comes from it together.
                    $both = 0.5 * ($l + $r);
                    $l = $both * ($la + ($lb - $la) * $k / $count);
                    $r = $both * ($ra + ($rb - $ra) * $k / $count);
                }
                $left[$i + $k] += $g * $l;
                $right[$i + $k] += $g * $r;
            }
            $i += $count;
        }
    }
}
