<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

use Closure;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Word;

/**
 * When somebody who says the same as a voice makes each of its sounds: cepstra of both are warped on to each other, and the voice's
 * boundaries carried over. Pauses are what is silent in the recording, wherever the voice made its own.
 */
final class Alignment
{
    /** Seconds of silence from which on it is a pause, and how much of one is left on either side of speech. */
    private const PAUSE = 0.14;

    private const LEFT = 0.03;

    /** Seconds that a pause of the recording may be away from the end of the sound that it follows. */
    private const NEAR = 0.25;

    /** Seconds of a sound at least. */
    private const LEAST = 0.012;

    /**
     * @param  Reading  $reading  what the voice said, and when
     * @param  Wave  $voice  its sound, at Cepstra::RATE
     * @param  Wave  $recorded  somebody's, at the same rate
     * @param  list<float>  $loudness  of the recording, in Reading::STEP
     * @return Reading of the recording
     */
    public static function of(Reading $reading, Wave $voice, Wave $recorded, array $loudness = []): Reading
    {
        [$a, $b] = [Cepstra::of($voice), Cepstra::of($recorded)];
        $silent = Silences::of($b->energy, self::PAUSE);
        $from = self::kept(count($a->frames), Silences::of($a->energy, self::PAUSE));
        $to = self::kept(count($b->frames), $silent);
        $seconds = $recorded->seconds();
        if ($from === [] || $to === []) {
            return new Reading($seconds, [new Phone(Phone::PAUSE, 0.0, $seconds)], [], $loudness);
        }
        $warp = Warp::of(
            array_map(static fn (int $i): array => $a->frames[$i], $from), array_map(static fn (int $i): array => $b->frames[$i], $to),
        );
        $at = static fn (float $t): float => self::moment($t, $from, $warp, $to);
        $sounds = array_values(array_filter($reading->phones, static fn (Phone $p): bool => ! $p->isPause()));
        $pauses = array_map(
            static fn (array $s): array => array_map(static fn (int $k): float => ($k - 0.5) * Cepstra::STEP + Cepstra::MIDDLE, $s),
            array_values(array_filter($silent, static fn (array $s): bool => $s[0] > 0 && $s[1] < count($b->frames))),
        );
        $phones = self::phones($sounds, self::edges($sounds, $at, $pauses), $seconds);

        return new Reading($seconds, $phones, self::words($reading->words, $phones, $at), $loudness, events: array_map(
            static fn (array $e): array => [$e[0], $at($e[1])], $reading->events,
        ));
    }

    /**
     * Frames that are warped: all but the insides of pauses.
     *
     * @param  list<array{int, int}>  $silent
     * @return list<int>
     */
    private static function kept(int $count, array $silent): array
    {
        $left = (int) round(self::LEFT / Cepstra::STEP);
        $out = array_fill(0, $count, true);
        foreach ($silent as [$a, $z]) {
            for ($i = $a === 0 ? 0 : $a + $left, $end = $z === $count ? $count : $z - $left; $i < $end; $i++) {
                unset($out[$i]);
            }
        }

        return array_keys($out);
    }

    /**
     * @param  list<int>  $from  frames of the voice that were warped
     * @param  list<float>  $warp  which of $to each of them is
     * @param  list<int>  $to  frames of the recording
     */
    private static function moment(float $t, array $from, array $warp, array $to): float
    {
        $x = ($t - Cepstra::MIDDLE) / Cepstra::STEP;
        // The place among those that were warped.
        $k = self::place($x, $from);
        $i = (int) floor($k);
        $j = $warp[$i] + ($k - $i) * (($warp[$i + 1] ?? $warp[$i]) - $warp[$i]);
        $n = (int) floor($j);
        $frame = $to[$n] + ($j - $n) * (($to[$n + 1] ?? $to[$n]) - $to[$n]);

        return $frame * Cepstra::STEP + Cepstra::MIDDLE;
    }

    /** @param  list<int>  $frames  rising */
    private static function place(float $x, array $frames): float
    {
        [$low, $high] = [0, count($frames) - 1];
        if ($high < 1 || $x <= $frames[0]) {
            return 0.0;
        }
        if ($x >= $frames[$high]) {
            return (float) $high;
        }
        while ($high - $low > 1) {
            $middle = ($low + $high) >> 1;
            if ($frames[$middle] <= $x) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return $low + ($x - $frames[$low]) / ($frames[$high] - $frames[$low]);
    }

    /**
     * What lies between two sounds: from the end of the one to the beginning of the next. The first is before all, the last after all.
     *
     * @param  list<Phone>  $sounds
     * @param  Closure(float): float  $at
     * @param  list<array{float, float}>  $pauses  of the recording, seconds
     * @return list<array{float, float}>
     */
    private static function edges(array $sounds, Closure $at, array $pauses): array
    {
        $out = $middles = [];
        $last = null;
        foreach ($sounds as $k => $p) {
            $from = $at($p->from);
            // Where the voice paused and the recording does not, the sounds meet in the middle of it.
            $middle = ($last ?? $from) / 2 + $from / 2;
            $last = $at($p->to);
            $out[] = [$middle, $middle];
            $middles[] = $middle;
        }
        $out[] = [$last ?? 0.0, $last ?? 0.0];
        foreach ($pauses as [$a, $z]) {
            $best = [self::NEAR, null];
            for ($k = 1; $k < count($sounds); $k++) {
                $off = max(0.0, $a - $middles[$k], $middles[$k] - $z) + 0.01 * abs($middles[$k] - ($a + $z) / 2);
                $best = $off < $best[0] ? [$off, $k] : $best;
            }
            if ($best[1] !== null) {
                [$from, $to] = $out[$best[1]];
                $out[$best[1]] = $from === $to ? [$a, $z] : [min($a, $from), max($z, $to)];
            }
        }

        return $out;
    }

    /**
     * @param  list<Phone>  $sounds
     * @param  list<array{float, float}>  $edges
     * @return list<Phone> without gaps, from 0 to the end
     */
    private static function phones(array $sounds, array $edges, float $seconds): array
    {
        $out = [];
        $now = 0.0;
        $left = count($sounds);
        foreach ($sounds as $k => $p) {
            // Room is left for those that follow.
            $least = min(self::LEAST, max(0.0, $seconds - $now) / max(1, $left + 1));
            $from = max($now, min($edges[$k][1], $seconds - $left * $least));
            if ($from - $now > 1e-9) {
                $out[] = new Phone(Phone::PAUSE, $now, $from);
            }
            $left--;
            $now = min(max($from + $least, $edges[$k + 1][0]), $seconds - $left * $least);
            $out[] = new Phone($p->name, $from, $now, $p->word, $p->stressed, $p->accented);
        }
        if ($seconds - $now > 1e-9) {
            $out[] = new Phone(Phone::PAUSE, $now, $seconds);
        }

        return $out;
    }

    /**
     * @param  list<Word>  $words
     * @param  list<Phone>  $phones
     * @param  Closure(float): float  $at
     * @return list<Word>
     */
    private static function words(array $words, array $phones, Closure $at): array
    {
        $spans = [];
        foreach ($phones as $p) {
            if ($p->word >= 0) {
                $spans[$p->word] = [$spans[$p->word][0] ?? $p->from, $p->to];
            }
        }
        $out = [];
        foreach ($words as $k => $w) {
            [$from, $to] = $spans[$k] ?? [$at($w->from), $at($w->to)];
            $out[] = new Word($w->text, $from, max($from, $to));
        }

        return $out;
    }
}
