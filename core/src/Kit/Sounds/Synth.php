<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use Closure;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Random;

/** What the sounds of the house are made of: struck bodies, noises, filters and voices. Times in seconds, pitches in hertz. */
final class Synth
{
    public const RATE = 24000;

    /**
     * A struck body: partials that die away, each with its pitch, loudness and time to a thousandth of it.
     *
     * @param  list<array{float, float, float}>  $partials
     */
    public static function struck(float $seconds, array $partials, float $attack = 0.002): Wave
    {
        $wave = Wave::silence(self::RATE, $seconds);
        $n = count($wave->samples);
        $out = $wave->samples;
        foreach ($partials as [$hertz, $gain, $dies]) {
            // A rotation and a shrinking a sample, instead of a sine and a power.
            $shrink = 0.001 ** (1 / ($dies * self::RATE));
            [$c, $s] = [cos(2 * M_PI * $hertz / self::RATE) * $shrink, sin(2 * M_PI * $hertz / self::RATE) * $shrink];
            [$x, $y] = [$gain, 0.0];
            for ($i = 0; $i < $n; $i++) {
                $out[$i] += $y;
                [$x, $y] = [$x * $c - $y * $s, $x * $s + $y * $c];
            }
        }
        $wave->samples = $out;

        return $wave->faded($attack, min(0.08, $seconds / 4));
    }

    /** White noise. */
    public static function noise(float $seconds, int $seed): Wave
    {
        $wave = Wave::silence(self::RATE, $seconds);
        $random = new Random($seed);
        foreach ($wave->samples as $i => $_) {
            $wave->samples[$i] = $random->signed();
        }

        return $wave;
    }

    /**
     * A resonance of two poles: what lies about a pitch is let through, the narrower the higher q (cookbook formulae for
     * audio equalizer biquad filters, band pass with constant peak gain).
     *
     * @param  float|Closure(float): float  $hertz  a pitch, or the pitch at a time
     */
    public static function band(Wave $wave, float|Closure $hertz, float $q): Wave
    {
        return self::filtered($wave, $hertz, $q, static fn (float $alpha, float $cos): array => [$alpha, 0.0, -$alpha]);
    }

    /** @param  float|Closure(float): float  $hertz */
    public static function low(Wave $wave, float|Closure $hertz, float $q = 0.707): Wave
    {
        return self::filtered($wave, $hertz, $q, static fn (float $alpha, float $cos): array => [(1 - $cos) / 2, 1 - $cos, (1 - $cos) / 2]);
    }

    /** @param  float|Closure(float): float  $hertz */
    public static function high(Wave $wave, float|Closure $hertz, float $q = 0.707): Wave
    {
        return self::filtered($wave, $hertz, $q, static fn (float $alpha, float $cos): array => [
            (1 + $cos) / 2, -1 - $cos, (1 + $cos) / 2,
        ]);
    }

    /**
     * @param  float|Closure(float): float  $hertz
     * @param  Closure(float, float): array{float, float, float}  $front
     */
    private static function filtered(Wave $wave, float|Closure $hertz, float $q, Closure $front): Wave
    {
        [$x1, $x2, $y1, $y2] = [0.0, 0.0, 0.0, 0.0];
        [$b0, $b1, $b2, $a1, $a2] = [0.0, 0.0, 0.0, 0.0, 0.0];
        $out = [];
        foreach ($wave->samples as $i => $x) {
            // A pitch that moves is looked up 750 times a second.
            if ($i === 0 || ($hertz instanceof Closure && $i % 32 === 0)) {
                $w = 2 * M_PI * max(10.0, min(0.45 * $wave->rate, $hertz instanceof Closure ? $hertz($i / $wave->rate) : $hertz))
                    / $wave->rate;
                $cos = cos($w);
                $alpha = sin($w) / (2 * $q);
                $a0 = 1 + $alpha;
                [$f0, $f1, $f2] = $front($alpha, $cos);
                [$b0, $b1, $b2, $a1, $a2] = [$f0 / $a0, $f1 / $a0, $f2 / $a0, -2 * $cos / $a0, (1 - $alpha) / $a0];
            }
            $y = $b0 * $x + $b1 * $x1 + $b2 * $x2 - $a1 * $y1 - $a2 * $y2;
            [$x2, $x1, $y2, $y1] = [$x1, $x, $y1, $y];
            $out[] = $y;
        }

        return new Wave($wave->rate, $out);
    }

    /** @param  Closure(float): float  $gain  loudness at a time */
    public static function shaped(Wave $wave, Closure $gain): Wave
    {
        [$g, $step] = [0.0, 0.0];
        foreach ($wave->samples as $i => $s) {
            if ($i % 16 === 0) {
                [$g, $to] = [$gain($i / $wave->rate), $gain(($i + 16) / $wave->rate)];
                $step = ($to - $g) / 16;
            }
            $wave->samples[$i] = $s * $g;
            $g += $step;
        }

        return $wave;
    }

    /**
     * A tone of harmonics: a pipe, a string, a throat.
     *
     * @param  float|Closure(float): float  $hertz
     * @param  list<float>  $harmonics  loudness of each, from the first
     */
    public static function tone(float $seconds, float|Closure $hertz, array $harmonics): Wave
    {
        $wave = Wave::silence(self::RATE, $seconds);
        $phase = 0.0;
        $pitch = $hertz instanceof Closure ? 0.0 : $hertz;
        foreach ($wave->samples as $i => $_) {
            if ($hertz instanceof Closure && $i % 16 === 0) {
                $pitch = $hertz($i / self::RATE);
            }
            $phase += 2 * M_PI * $pitch / self::RATE;
            $sum = 0.0;
            foreach ($harmonics as $k => $gain) {
                $sum += $gain * sin(($k + 1) * $phase);
            }
            $wave->samples[$i] = $sum;
        }

        return $wave;
    }

    /** A short noise that dies away: a tap, a grain, a drop. */
    public static function tap(float $seconds, float $hertz, float $q, int $seed): Wave
    {
        return self::shaped(self::band(self::noise($seconds, $seed), $hertz, $q), static fn (float $t): float => exp(-7 * $t / $seconds))
            ->faded(0.0005, $seconds / 5);
    }

    /** The echo of a room: three rows of reflections that die away. */
    public static function roomy(Wave $wave, float $seconds, float $share): Wave
    {
        $n = count($wave->samples);
        $wet = array_fill(0, $n, 0.0);
        foreach ([0.0297, 0.0371, 0.0411, 0.0437] as $delay) {
            $d = (int) ($delay * $wave->rate);
            $keep = 0.001 ** ($delay / $seconds);
            $line = [];
            for ($i = 0; $i < $n; $i++) {
                $line[$i] = $wave->samples[$i] + ($i >= $d ? $keep * $line[$i - $d] : 0.0);
                $wet[$i] += $i >= $d ? $line[$i - $d] : 0.0;
            }
        }
        foreach ($wave->samples as $i => $s) {
            $wave->samples[$i] = $s + $share * 0.25 * $wet[$i];
        }

        return $wave;
    }
}
