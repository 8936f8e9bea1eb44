<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;

/**
 * A reading of a recording whose words nobody knows: where it is silent, and a sound that opens the mouth about as much and as wide
 * as what is heard, told by three bands of its spectrum. The jaw follows well, lips are a guess.
 */
final class Overheard
{
    private const SIZE = 512;

    /** Hertz at which the bands end: of voice, of open vowels, of what hisses. */
    private const BANDS = [80.0, 700.0, 2400.0, 7200.0];

    /** Shares of a band from which on it tells what it is. */
    private const HISS = 0.5;

    private const OPEN = 0.38;

    private const SPREAD = 0.10;

    private const HUM = 0.10;

    /** Seconds of silence that is a pause, and of a sound at least. */
    private const PAUSE = 0.08;

    private const LEAST = 0.06;

    /** @param  list<float>  $loudness  in Reading::STEP */
    public static function of(Wave $wave, array $loudness): Reading
    {
        $energy = Cepstra::loudness($wave);
        $silent = array_fill(0, count($energy), false);
        foreach (Silences::of($energy, self::PAUSE) as [$a, $z]) {
            array_splice($silent, $a, $z - $a, array_fill(0, $z - $a, true));
        }
        $names = [];
        $fourier = new Fourier(self::SIZE);
        foreach ($silent as $k => $is) {
            $names[] = $is ? Phone::PAUSE : self::name($fourier, $wave, (int) round(($k * Cepstra::STEP) * $wave->rate));
        }

        return new Reading($wave->seconds(), self::phones(self::settled($names), $wave->seconds()), [], $loudness, guessed: true);
    }

    private static function name(Fourier $fourier, Wave $wave, int $at): string
    {
        $part = array_pad(array_slice($wave->samples, $at, self::SIZE), self::SIZE, 0.0);
        foreach ($part as $i => $v) {
            $part[$i] = $v * (0.5 - 0.5 * cos(2 * M_PI * $i / self::SIZE));
        }
        [$power] = $fourier->powers(array_values($part), array_fill(0, self::SIZE, 0.0));
        $sums = [];
        foreach ([0, 1, 2] as $b) {
            $from = (int) ceil(self::BANDS[$b] * self::SIZE / $wave->rate);
            $to = (int) floor(self::BANDS[$b + 1] * self::SIZE / $wave->rate);
            $sums[] = array_sum(array_slice($power, $from, $to - $from));
        }
        $all = max(1e-12, array_sum($sums));

        return match (true) {
            $sums[2] / $all > self::HISS => 's', $sums[1] / $all > self::OPEN => 'aa', $sums[2] / $all > self::SPREAD => 'eh',
            $sums[1] / $all > self::HUM => 'ah', default => 'uh',
        };
    }

    /**
     * What is too short for a mouth belongs to what comes before it.
     *
     * @param  list<string>  $names  of each 10 ms
     * @return list<array{string, int}> what, and how many of them
     */
    private static function settled(array $names): array
    {
        $out = [];
        $open = null;
        foreach ($names as $name) {
            $short = $open !== null && $open[0] !== Phone::PAUSE && $open[1] * Cepstra::STEP < self::LEAST;
            if ($open !== null && ($open[0] === $name || ($short && $name !== Phone::PAUSE))) {
                $open[1]++;
            } else {
                $out[] = $open;
                $open = [$name, 1];
            }
        }

        return array_values(array_filter([...$out, $open]));
    }

    /**
     * @param  list<array{string, int}>  $runs
     * @return list<Phone>
     */
    private static function phones(array $runs, float $seconds): array
    {
        $out = [];
        $now = 0.0;
        $at = Cepstra::MIDDLE - Cepstra::STEP / 2;
        foreach ($runs as $k => [$name, $count]) {
            $at += $count * Cepstra::STEP;
            $to = $k === count($runs) - 1 ? $seconds : min($seconds, $at);
            $out[] = new Phone($name, $now, $to, -1, $name !== Phone::PAUSE && $name !== 's');
            $now = $to;
        }

        return $out === [] ? [new Phone(Phone::PAUSE, 0.0, $seconds)] : $out;
    }
}
