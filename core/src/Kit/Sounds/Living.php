<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Random;

/** Hands, voices of many, birds and crickets. */
final class Living
{
    /** Gulls, near and far. */
    public static function gulls(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 6.0);
        foreach ([
            [0.2, 1.0, 1.0], [0.75, 1.05, 0.9], [1.2, 1.1, 0.7], [2.6, 0.92, 0.35], [3.0, 0.95, 0.4], [3.9, 1.15, 0.8], [4.3, 1.18, 0.75],
            [4.65, 1.2, 0.6],
        ] as [$at, $pitch, $loud]) {
            $cry = Synth::tone(
                0.42,
                static fn (float $t): float => $pitch * (900.0 + 900.0 * sin(M_PI * min(1.0, $t / 0.42)) ** 1.5),
                [0.6, 1.0, 0.7, 0.4, 0.2],
            );
            $wave->mix(
                Synth::shaped(
                    Synth::band($cry, 2300.0 * $pitch, 1.2),
                    static fn (float $t): float => sin(M_PI * min(1.0, $t / 0.42)) ** 0.7,
                ),
                $at,
                $loud,
            );
        }

        return Synth::roomy($wave, 0.9, 0.35)->faded(0.01, 0.2)->levelled(0.6);
    }

    /** A summer evening's crickets; it goes on for ever. */
    public static function crickets(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 6.0);
        foreach ([[4300.0, 1.0, 0.0, 1.0], [4650.0, 1.5, 0.35, 0.5], [3950.0, 0.75, 0.6, 0.35]] as [$hertz, $every, $first, $loud]) {
            for ($at = $first; $at < 5.9; $at += $every) {
                for ($pulse = 0; $pulse < 3; $pulse++) {
                    $chirp = Synth::shaped(
                        Synth::tone(0.03, $hertz, [1.0]),
                        static fn (float $t): float => sin(M_PI * min(1.0, $t / 0.03)) ** 2,
                    );
                    $wave->mix($chirp, $at + 0.045 * $pulse, $loud);
                }
            }
        }

        return $wave->levelled(0.4);
    }

    /** Many voices at once, none of them to be understood; it goes on for ever. */
    public static function murmur(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 8.0);
        for ($who = 0; $who < 9; $who++) {
            $random = new Random(300 + $who);
            $base = 95 + 115 * $random->next();
            for ($at = 0.6 * $random->next(); $at < 7.8;) {
                $long = 0.11 + 0.14 * $random->next();
                $pitch = $base * (0.9 + 0.25 * $random->next());
                [$first, $second] = $random->pick([[730.0, 1090.0], [530.0, 1840.0], [390.0, 1990.0], [570.0, 840.0], [440.0, 1020.0]]);
                $throat = Synth::tone($long, $pitch, [1.0, 0.8, 0.65, 0.5, 0.42, 0.34, 0.28, 0.22, 0.18, 0.14]);
                $vowel = Synth::band($throat, $first, 5.0)->mix(Synth::band($throat, $second, 7.0), 0.0, 0.5);
                $wave->mix(
                    Synth::shaped($vowel, static fn (float $t): float => sin(M_PI * min(1.0, $t / $long))),
                    $at,
                    0.5 + 0.5 * $random->next(),
                );
                $at += $long * (0.9 + 0.4 * $random->next()) + ($random->next() < 0.16 ? 0.35 + 0.5 * $random->next() : 0.0);
            }
        }

        return Synth::roomy(Synth::low($wave, 2400.0), 0.8, 0.5)->looped(0.7)->levelled(0.5);
    }

    /** A hall claps. */
    public static function applause(): Wave
    {
        $wave = Wave::silence(Synth::RATE, 5.0);
        $claps = [];
        for ($k = 0; $k < 12; $k++) {
            $claps[] = Synth::tap(0.03, 900.0 + 130 * $k, 1.1, 400 + $k);
        }
        $random = new Random(420);
        for ($who = 0; $who < 36; $who++) {
            $every = 0.2 + 0.09 * $random->next();
            $loud = 0.35 + 0.65 * $random->next();
            for ($at = 0.7 * $random->next() ** 2; $at < 4.8; $at += $every * (0.94 + 0.12 * $random->next())) {
                $wave->mix($claps[$who % 12], $at, $loud * min(1.0, (0.25 + $at) / 0.8) * min(1.0, max(0.0, (4.9 - $at) / 1.6)));
            }
        }

        return Synth::roomy($wave, 0.9, 0.4)->faded(0.005, 0.3)->levelled(0.7);
    }
}
