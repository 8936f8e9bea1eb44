<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Random;

/** Bells, doors, wheels and tools. */
final class Things
{
    /** A bell of 660 Hz: hum, prime, minor third, fifth, octave and above, as bells are tuned. */
    public static function bell(): Wave
    {
        return self::bellOf(660.0, 4.0)->levelled(0.8);
    }

    /** Three strokes of the pier's bell. */
    public static function bellThree(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 6.4);
        foreach ([0.0, 1.1, 2.2] as $n => $at) {
            $wave->mix(self::bellOf(660.0, 4.0), $at, 1.0 - 0.06 * $n);
        }

        return $wave->faded(0.001, 0.3)->levelled(0.8);
    }

    /** A clock in a room strikes two. */
    public static function clockStrikes(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 4.2);
        foreach ([0.0, 1.5] as $at) {
            $wave->mix(Synth::struck(2.6, [[392.0, 1.0, 2.2], [1082.0, 0.35, 1.2], [2117.0, 0.16, 0.5], [784.0, 0.2, 1.6]]), $at);
        }

        return $wave->faded(0.001, 0.2)->levelled(0.7);
    }

    /** Two ticks a second; it goes on for ever. */
    public static function clockTicks(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 4.0);
        for ($k = 0; $k < 8; $k++) {
            $wave->mix(Synth::tap(0.03, $k % 2 === 0 ? 2900.0 : 2300.0, 6.0, 5 + $k % 2), 0.02 + 0.5 * $k);
        }

        return $wave->levelled(0.5);
    }

    public static function bicycleBell(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 1.4);
        foreach ([0.0, 0.09, 0.19, 0.27] as $at) {
            $wave->mix(Synth::struck(1.0, [[2350.0, 1.0, 0.9], [2368.0, 0.6, 0.8], [5480.0, 0.3, 0.3]]), $at);
        }

        return $wave->faded(0.001, 0.2)->levelled(0.7);
    }

    /** A ship's horn over the water: one long blast of two pipes. */
    public static function horn(): Wave
    {
        $pipes = Synth::tone(4.0, static fn (float $t): float => 110.0 * (1 - 0.03 * exp(-6 * $t)), [1.0, 0.7, 0.5, 0.35, 0.25, 0.16, 0.1])
            ->mix(Synth::tone(4.0, static fn (float $t): float => 138.6 * (1 - 0.03 * exp(-6 * $t)), [0.8, 0.6, 0.4, 0.3, 0.2, 0.1]));
        $blast = Synth::shaped($pipes, static fn (float $t): float => min(1.0, $t / 0.25) * min(1.0, max(0.0, (2.6 - $t) / 0.3)));

        return Synth::roomy($blast, 2.2, 0.8)->faded(0.01, 0.5)->levelled(0.8);
    }

    public static function whistle(): Wave
    {
        $pea = static fn (float $t): float => 2450.0 + 120.0 * sin(2 * M_PI * 31 * $t);
        $tone = Synth::tone(1.1, $pea, [1.0, 0.15])->mix(Synth::band(Synth::noise(1.1, 3), 2600.0, 2.0), 0.0, 0.35);

        return Synth::shaped(
            $tone,
            static fn (float $t): float => min(1.0, $t / 0.03) * min(1.0, max(0.0, (1.0 - $t) / 0.06))
                * (0.8 + 0.2 * sin(2 * M_PI * 31 * $t)),
        )->faded(0.005, 0.05)->levelled(0.7);
    }

    /** A latch, a creak, and the door rests. */
    public static function doorOpens(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 2.2);
        $wave->mix(Synth::struck(0.12, [[820.0, 1.0, 0.08], [1730.0, 0.5, 0.05]]), 0.05, 0.8)
            ->mix(Synth::tap(0.05, 1500.0, 1.2, 7), 0.14, 0.6);

        return $wave->mix(self::creak(1.5, 240.0, 430.0, 8), 0.35, 0.5)->faded(0.001, 0.15)->levelled(0.7);
    }

    public static function doorShuts(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 1.1);
        $wave->mix(self::thud(0.5, 85.0, 9), 0.1, 1.0)->mix(Synth::tap(0.06, 700.0, 1.0, 10), 0.1, 0.9)
            ->mix(Synth::struck(0.15, [[930.0, 0.6, 0.09], [1890.0, 0.3, 0.05]]), 0.17, 0.5);

        return Synth::roomy($wave, 0.5, 0.5)->faded(0.001, 0.1)->levelled(0.8);
    }

    /** Knuckles on a door, three times. */
    public static function knock(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 1.3);
        foreach ([0.05, 0.3, 0.55] as $n => $at) {
            $wave->mix(self::thud(0.16, 190.0, 12 + $n), $at)->mix(Synth::tap(0.03, 1100.0, 1.4, 15 + $n), $at, 0.8);
        }

        return Synth::roomy($wave, 0.4, 0.4)->faded(0.001, 0.1)->levelled(0.75);
    }

    /** A key goes in, turns, and the bolt falls. */
    public static function key(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 1.7);
        $random = new Random(18);
        for ($k = 0; $k < 7; $k++) {
            $wave->mix(
                Synth::struck(0.05, [[2600 + 1500 * $random->next(), 0.5, 0.03], [4300 + 900 * $random->next(), 0.3, 0.02]]),
                0.08 + 0.055 * $k,
                0.3 + 0.3 * $random->next(),
            );
        }
        $wave->mix(self::creak(0.25, 500.0, 800.0, 19), 0.75, 0.12)
            ->mix(Synth::struck(0.2, [[640.0, 1.0, 0.09], [1520.0, 0.6, 0.06], [3100.0, 0.3, 0.04]]), 1.08)
            ->mix(self::thud(0.12, 150.0, 20), 1.09, 0.7);

        return $wave->faded(0.001, 0.1)->levelled(0.7);
    }

    public static function chair(): Wave
    {
        return self::creak(0.75, 110.0, 150.0, 24)->mix(
            Synth::shaped(Synth::band(Synth::noise(0.75, 25), 650.0, 0.9), static fn (float $t): float => sin(M_PI * min(1.0, $t / 0.75))),
            0.0,
            0.35,
        )->faded(0.01, 0.08)->levelled(0.7);
    }

    public static function glass(): Wave
    {
        return Synth::struck(1.2, [[2093.0, 1.0, 0.8], [4310.0, 0.6, 0.5], [6700.0, 0.35, 0.25], [3120.0, 0.25, 0.6]], 0.0008)
            ->levelled(0.6);
    }

    /** A letter is unfolded. */
    public static function paper(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 1.5);
        $random = new Random(28);
        for ($k = 0; $k < 120; $k++) {
            $at = 0.05 + 1.3 * $random->next();
            $loud = max(0.0, sin(M_PI * $at / 1.4)) * (0.4 + 0.6 * sin(9 * $at) ** 2);
            $wave->mix(
                Synth::tap(0.004 + 0.012 * $random->next(), 2500 + 5000 * $random->next(), 0.9, 100 + $k % 16),
                $at,
                $loud * (0.2 + $random->next() ** 2),
            );
        }

        return $wave->faded(0.01, 0.1)->levelled(0.55);
    }

    /** Cart wheels over planks, four a second; it goes on for ever. */
    public static function wheels(): Wave
    {
        $wave = Synth::shaped(Synth::low(Synth::noise(4.6, 33), 180.0), static fn (float $t): float => 0.9 + 0.2 * sin(2 * M_PI * 4 * $t));
        $random = new Random(34);
        for ($k = 0; $k < 19; $k++) {
            $wave->mix(self::thud(0.12, 105.0 + 20 * $random->next(), 35 + $k % 5), 0.25 * $k, 0.5 + 0.3 * $random->next())
                ->mix(Synth::tap(0.03, 800.0, 1.5, 42 + $k % 4), 0.25 * $k + 0.01, 0.25);
        }

        return $wave->looped(0.5)->levelled(0.6);
    }

    /** A boat's engine, slow; it goes on for ever. */
    public static function engine(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 4.0);
        $random = new Random(44);
        for ($k = 0; $k < 24; $k++) {
            $wave->mix(self::thud(0.2, $k % 3 === 0 ? 62.0 : 74.0, 45 + $k % 3), $k / 6, 0.8 + 0.2 * $random->next());
        }
        // What reaches past the end sounds at the beginning.
        foreach ([22, 23] as $k) {
            $wave->mix(self::thud(0.2, 74.0, 45 + $k % 3), $k / 6 - 4.0, 0.8);
        }
        $hum = Synth::tone(4.0, 24.0, [0.0, 0.2, 0.3, 0.2, 0.15, 0.1, 0.08]);

        return $wave->mix($hum, 0.0, 0.25)->levelled(0.6);
    }

    public static function drumRoll(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 3.0);
        for ($k = 0; $k < 66; $k++) {
            $t = $k / 26;
            $wave->mix(Synth::tap(0.09, 1700.0, 0.6, 55 + $k % 6), $t, 0.25 + 0.55 * $t / 2.5)
                ->mix(self::thud(0.09, 180.0, 61 + $k % 3), $t, 0.2 + 0.3 * $t / 2.5);
        }

        return $wave->mix(self::thud(0.35, 140.0, 65), 2.56, 1.6)->mix(Synth::tap(0.3, 1500.0, 0.5, 66), 2.56, 1.2)->faded(0.001, 0.1)
            ->levelled(0.8);
    }

    /** A few bowed notes of a made-up tune: D, F sharp, A, B, A. */
    public static function fiddle(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 3.6);
        $at = 0.0;
        foreach ([[293.66, 0.5], [369.99, 0.5], [440.0, 0.7], [493.88, 0.5], [440.0, 1.2]] as [$hertz, $long]) {
            $note = Synth::tone(
                $long + 0.08,
                static fn (float $t): float => $hertz * (1 + 0.005 * min(1.0, $t / 0.3) * sin(2 * M_PI * 5.6 * $t)),
                [1.0, 0.62, 0.48, 0.34, 0.28, 0.18, 0.14, 0.09, 0.06],
            );
            $body = Synth::band($note, 480.0, 1.0)->mix(Synth::band($note, 1150.0, 1.4), 0.0, 0.7)->mix($note, 0.0, 0.25);
            $wave->mix(
                Synth::shaped($body, static fn (float $t): float => min(1.0, $t / 0.07) * min(1.0, max(0.0, ($long + 0.06 - $t) / 0.09))),
                $at,
            );
            $at += $long;
        }

        return Synth::roomy($wave, 0.7, 0.35)->faded(0.01, 0.1)->levelled(0.65);
    }

    /** Wood on wood that slips and sticks, from one pitch to another. */
    public static function creak(float $seconds, float $from, float $to, int $seed): Wave
    {
        $random = new Random($seed);
        $wave = Wave::silence(Synth::RATE, $seconds);
        for ($t = 0.0; $t < $seconds - 0.03;) {
            $k = $t / $seconds;
            $wave->mix(
                Synth::struck(0.03, [[3.1 * ($from + ($to - $from) * $k), 0.6, 0.02], [7.3 * $from, 0.3, 0.012]], 0.0005),
                $t,
                (0.35 + 0.65 * sin(M_PI * $k)) * (0.7 + 0.3 * $random->next()),
            );
            $t += 2.4 / ($from + ($to - $from) * $k) * (0.85 + 0.3 * $random->next());
        }

        return $wave;
    }

    /** A dull blow: a low tone that falls, and a little noise. */
    public static function thud(float $seconds, float $hertz, int $seed): Wave
    {
        $tone = Synth::shaped(
            Synth::tone($seconds, static fn (float $t): float => $hertz * (1 + 0.6 * exp(-40 * $t)), [1.0, 0.3]),
            static fn (float $t): float => min(1.0, $t / 0.002) * exp(-6 * $t / $seconds),
        );

        return $tone->mix(Synth::tap(min(0.05, $seconds), 3 * $hertz, 0.8, $seed), 0.0, 0.5)->faded(0.0005, $seconds / 6);
    }

    private static function bellOf(float $hertz, float $dies): Wave
    {
        $partials = [];
        foreach ([
            [0.5, 0.35, 1.3], [1.0, 0.8, 0.9], [1.2, 0.6, 0.7], [1.5, 0.35, 0.5], [2.0, 1.0, 0.55], [2.51, 0.3, 0.35], [2.66, 0.25, 0.3],
            [3.01, 0.35, 0.28], [4.17, 0.3, 0.18], [5.43, 0.18, 0.12],
        ] as [$ratio, $gain, $long]) {
            $partials[] = [$hertz * $ratio, $gain, $dies * $long];
        }

        return Synth::struck(4.2, $partials)->mix(Synth::tap(0.02, 4200.0, 1.0, 2), 0.0, 0.5);
    }
}
