<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Random;

/** Water, wind and fire: noises that swell and drops that fall. */
final class Weather
{
    /** Two waves that roll on to a shore; it goes on for ever. */
    public static function waves(): Wave
    {
        $seconds = 10.0;
        $swell = static fn (float $t, float $at): float => exp(-(($t - $at) / 1.1) ** 2) * ($t < $at ? 1.0 : 0.8) + 0.45
            * exp(-(($t - $at - 1.5) / 1.0) ** 2);
        $body = Synth::shaped(
            Synth::low(Synth::noise($seconds + 1, 11), 420.0),
            static fn (float $t): float => 0.5 + 1.2 * $swell($t, 2.6) + 1.0 * $swell($t, 7.4),
        );
        $foam = Synth::shaped(
            Synth::band(Synth::noise($seconds + 1, 12), 3200.0, 0.5),
            static fn (float $t): float => 0.05 + 0.55 * $swell($t, 3.0) + 0.45 * $swell($t, 7.9),
        );

        return $body->mix($foam)->looped(1.0)->levelled(0.6);
    }

    /** Wind about a house: gusts that whistle higher as they swell; it goes on for ever. */
    public static function wind(): Wave
    {
        $gust = static fn (float $t): float => 0.55 + 0.25 * sin(2 * M_PI * $t / 9.0) + 0.2 * sin(2 * M_PI * $t / 4.5 + 1.3);
        $low = Synth::shaped(Synth::low(Synth::noise(10.0, 21), 300.0), static fn (float $t): float => 0.4 + 1.4 * $gust($t));
        $whistle = Synth::shaped(
            Synth::band(Synth::noise(10.0, 22), static fn (float $t): float => 380.0 + 420.0 * $gust($t), 9.0),
            static fn (float $t): float => 1.6 * $gust($t) ** 2,
        );

        return $low->mix($whistle)->looped(1.0)->levelled(0.6);
    }

    /** Steady rain on boards; it goes on for ever. */
    public static function rain(): Wave
    {
        $wave = Synth::high(Synth::noise(7.0, 31), 1800.0);
        $wave = Synth::shaped($wave, static fn (float $t): float => 0.13);
        $random = new Random(32);
        for ($k = 0; $k < 420; $k++) {
            $wave->mix(
                Synth::tap(0.02, 900 + 3200 * $random->next() ** 2, 3.0, 40 + $k % 24),
                6.9 * $random->next(),
                0.25 + 0.6 * $random->next() ** 3,
            );
        }

        return $wave->looped(0.8)->levelled(0.6);
    }

    /** A clap, and its rolling away. */
    public static function thunder(): Wave
    {
        $roll = Synth::shaped(
            Synth::low(Synth::noise(6.0, 51), static fn (float $t): float => 90.0 + 260.0 * exp(-$t)),
            static fn (float $t): float => $t < 0.12 ? $t / 0.12 : exp(-($t - 0.12) / 1.7) * (1 + 0.5 * sin(9 * $t) * sin(2.3 * $t)),
        );
        $crack = Synth::shaped(Synth::band(Synth::noise(0.5, 52), 900.0, 0.6), static fn (float $t): float => 0.35 * exp(-11 * $t));

        return $roll->mix($crack, 0.05)->faded(0.01, 0.8)->levelled(0.9);
    }

    /** A hearth: a low breath and crackles; it goes on for ever. */
    public static function fire(): Wave
    {
        $wave = Synth::shaped(
            Synth::low(Synth::noise(7.0, 61), 240.0),
            static fn (float $t): float => 0.8 + 0.25 * sin(2 * M_PI * $t / 3.0),
        );
        $random = new Random(62);
        for ($k = 0; $k < 90; $k++) {
            $wave->mix(
                Synth::tap(0.006 + 0.02 * $random->next(), 1400 + 3600 * $random->next(), 1.5, 70 + $k % 16),
                6.9 * $random->next(),
                0.3 + 2.2 * $random->next() ** 5,
            );
        }

        return $wave->looped(0.8)->levelled(0.6);
    }

    /** Something heavy falls into the water. */
    public static function splash(): Wave
    {
        $wave = Synth::shaped(
            Synth::band(Synth::noise(1.8, 81), static fn (float $t): float => 2400.0 * exp(-1.6 * $t) + 500.0, 0.6),
            static fn (float $t): float => $t < 0.015 ? $t / 0.015 : exp(-($t - 0.015) * 3.2),
        );
        $wave->mix(Synth::tone(0.25, static fn (float $t): float => 90.0 + 60.0 * exp(-14 * $t), [0.5]), 0.0, 0.4);

        return self::drops($wave, 14, 0.35, 1.2, 82)->faded(0.001, 0.3)->levelled(0.8);
    }

    /** One pull of a pair of oars: a creak of wood, the blades, and what drips from them. */
    public static function oars(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 2.6);
        $wave->mix(Things::creak(0.5, 160.0, 210.0, 91), 0.1, 0.35);
        $pull = Synth::shaped(
            Synth::band(Synth::noise(1.1, 92), static fn (float $t): float => 700.0 + 500.0 * sin(3 * $t), 0.7),
            static fn (float $t): float => sin(M_PI * min(1.0, $t / 1.1)) ** 2,
        );
        $wave->mix($pull, 0.45, 0.7);

        return self::drops($wave, 12, 1.5, 1.0, 93)->faded(0.01, 0.2)->levelled(0.7);
    }

    /** Drops that ring as bubbles do: pitches that rise. */
    private static function drops(Wave $wave, int $count, float $from, float $over, int $seed): Wave
    {
        $random = new Random($seed);
        for ($k = 0; $k < $count; $k++) {
            $hertz = 500 + 1400 * $random->next();
            $drop = Synth::shaped(
                Synth::tone(0.05, static fn (float $t): float => $hertz * (1 + 6 * $t), [1.0]),
                static fn (float $t): float => exp(-90 * $t),
            );
            $wave->mix($drop->faded(0.001, 0.01), $from + $over * $random->next(), 0.06 + 0.12 * $random->next());
        }

        return $wave;
    }
}
