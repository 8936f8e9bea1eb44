<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use Closure;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Random;

/** Feet on what there is to walk on, and things that land: several of each in one sound, at even distances, none like the other. */
final class Steps
{
    /** Seconds from one step to the next, and how many there are. */
    public const EVERY = 0.5;

    public const COUNT = 8;

    /** The same of things that land. */
    public const LANDS = [0.75, 4];

    /** Two steps a second on planks; it goes on for ever. */
    public static function wood(): Wave
    {
        return self::steps(static fn (int $k): Wave => Things::thud(0.18, 120.0 + 9 * ($k % 2), 3 + $k)->mix(
            Synth::tap(0.05, 520.0, 1.2, 9 + $k),
            0.0,
            0.9,
        ));
    }

    public static function stone(): Wave
    {
        return self::steps(static fn (int $k): Wave => Synth::tap(0.045, 2100.0 + 150 * ($k % 2), 1.0, 15 + $k)->mix(
            Things::thud(0.045, 210.0, 20 + $k),
            0.0,
            0.35,
        ));
    }

    public static function gravel(): Wave
    {
        return self::steps(static function (int $k): Wave {
            $random = new Random(30 + $k);
            $step = Wave::silence(Synth::RATE, 0.26);
            for ($g = 0; $g < 34; $g++) {
                $at = 0.2 * $random->next() ** 1.4;
                $step->mix(
                    Synth::tap(0.004 + 0.01 * $random->next(), 1500 + 3500 * $random->next(), 1.2, 40 + $g % 12),
                    $at,
                    (1 - 3.5 * $at) * (0.3 + $random->next()),
                );
            }

            return $step;
        });
    }

    /** Trodden earth: low and dull. */
    public static function earth(): Wave
    {
        return self::steps(static fn (int $k): Wave => Things::thud(0.10, 84.0 + 6 * ($k % 3), 50 + $k)->mix(
            Synth::tap(0.07, 380.0, 0.7, 60 + $k), 0.0, 0.45,
        ));
    }

    /** Blades that are brushed aside, and what is under them. */
    public static function grass(): Wave
    {
        return self::steps(static fn (int $k): Wave => Synth::shaped(
            Synth::band(Synth::noise(0.26, 70 + $k), static fn (float $t): float => 3200.0 + 3000.0 * $t + 150 * ($k % 3), 0.6),
            static fn (float $t): float => sin(M_PI * min(1.0, $t / 0.26)) ** 1.5 * exp(-4 * $t),
        )->mix(Things::thud(0.07, 78.0, 80 + $k), 0.03, 0.5));
    }

    public static function carpet(): Wave
    {
        return self::steps(static fn (int $k): Wave => Things::thud(0.09, 92.0 + 5 * ($k % 2), 90 + $k)->mix(
            Synth::low(Synth::tap(0.10, 240.0, 0.6, 100 + $k), 500.0), 0.0, 0.6,
        ));
    }

    /** Plates and gratings. */
    public static function metal(): Wave
    {
        return self::steps(static fn (int $k): Wave => Synth::struck(0.36, [
            [296.0 + 9 * ($k % 3), 1.0, 0.34], [811.0, 0.6, 0.25], [1490.0 + 20 * ($k % 2), 0.4, 0.18], [2610.0, 0.2, 0.1],
        ])->mix(Things::thud(0.06, 150.0, 110 + $k), 0.0, 0.6));
    }

    /** Shallow water. */
    public static function water(): Wave
    {
        return self::steps(static fn (int $k): Wave => Synth::shaped(
            Synth::band(Synth::noise(0.42, 120 + $k), static fn (float $t): float => 2300.0 * exp(-3.0 * $t) + 420.0, 0.7),
            static fn (float $t): float => min(1.0, $t / 0.012) * exp(-9 * $t),
        )->mix(Synth::tone(0.12, static fn (float $t): float => 170.0 + 260.0 * $t, [0.6]), 0.05, 0.25));
    }

    /** Something of wood that lands, once more a little, and lies. */
    public static function landsWood(): Wave
    {
        return self::lands(static fn (int $k): Wave => Synth::struck(0.3, [
            [236.0 + 14 * $k, 1.0, 0.18], [561.0 - 9 * $k, 0.7, 0.12], [1040.0, 0.35, 0.07],
        ], 0.001)->mix(Things::thud(0.08, 120.0, 130 + $k), 0.0, 0.7));
    }

    public static function landsMetal(): Wave
    {
        return self::lands(static fn (int $k): Wave => Synth::struck(0.5, [
            [1180.0 + 60 * $k, 1.0, 0.6], [2730.0, 0.6, 0.45], [4310.0 - 80 * $k, 0.4, 0.3], [6120.0, 0.2, 0.15],
        ], 0.0008));
    }

    /** Cloth, paper, a bag. */
    public static function landsSoft(): Wave
    {
        return self::lands(static fn (int $k): Wave => Synth::shaped(
            Synth::low(Synth::noise(0.22, 140 + $k), 900.0 - 60 * $k), static fn (float $t): float => min(1.0, $t / 0.01) * exp(-16 * $t),
        )->mix(Things::thud(0.10, 70.0, 150 + $k), 0.0, 0.8));
    }

    /** @param  Closure(int): Wave  $hit */
    private static function lands(Closure $hit): Wave
    {
        return self::steps(static fn (int $k): Wave => $hit($k)->mix($hit($k + 1), 0.12 + 0.01 * $k, 0.3), ...self::LANDS);
    }

    /** @param  Closure(int): Wave  $step */
    private static function steps(Closure $step, float $every = self::EVERY, int $count = self::COUNT): Wave
    {
        $wave = Wave::silence(Synth::RATE, $every * $count);
        for ($k = 0; $k < $count; $k++) {
            $wave->mix($step($k), 0.02 + $every * $k, [1.0, 0.86, 0.95, 0.9][$k % 4]);
        }

        return $wave->levelled(0.65);
    }
}
