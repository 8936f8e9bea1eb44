<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Sounds;

use CrispReel\Core\Format\Wave;

/** Small noises that people make between words. */
final class Noises
{
    /** Seconds that each takes. */
    public const SECONDS = ['breath' => 0.5, 'sigh' => 1.1, 'gasp' => 0.45, 'laugh' => 1.0, 'cough' => 0.7, 'hm' => 0.55, 'sniff' => 0.45];

    /**
     * @param  string  $name  one of SECONDS
     * @param  float  $hertz  pitch of the voice
     * @param  float  $loud  loudest sample
     * @return Wave at the kit's rate, as long as SECONDS says
     */
    public static function of(string $name, float $hertz, float $loud): Wave
    {
        $wave = Wave::silence(Synth::RATE, self::SECONDS[$name]);
        match ($name) {
            'breath' => $wave->mix(self::air(0.42, 1500.0, 2200.0, 0.7, 11), 0.03, 0.5),
            'sigh' => $wave->mix(
                self::air(1.0, 1500.0, 600.0, 0.25, 12), 0.03,
            )->mix(self::voiced(0.5, 1.1 * $hertz, 0.7 * $hertz), 0.1, 0.3),
            'gasp' => $wave->mix(self::air(0.34, 900.0, 2600.0, 0.75, 13), 0.03),
            'laugh' => self::laughs($wave, $hertz),
            'cough' => $wave->mix(self::burst(0.2, 14), 0.04)->mix(self::burst(0.24, 15), 0.34, 0.8),
            'hm' => $wave->mix(Synth::low(self::voiced(0.42, 1.15 * $hertz, 0.95 * $hertz), 700.0), 0.05),
            default => $wave->mix(self::air(0.16, 2600.0, 3600.0, 0.6, 16), 0.03)->mix(self::air(0.14, 2800.0, 3900.0, 0.6, 17), 0.24, 0.8),
        };
        $wave->faded(0.01, 0.03);

        return $wave->levelled($loud);
    }

    /** Breath whose colour goes from one pitch to another, loudest after a share of it. */
    private static function air(float $seconds, float $from, float $to, float $most, int $seed): Wave
    {
        return Synth::shaped(
            Synth::band(Synth::noise($seconds, $seed), static fn (float $t): float => $from + ($to - $from) * $t / $seconds, 1.1),
            static fn (float $t): float => $t / $seconds < $most
                ? sin(0.5 * M_PI * $t / $seconds / $most) ** 2
                : sin(0.5 * M_PI * max(0.0, 1.0 - $t / $seconds) / (1.0 - $most)) ** 2,
        );
    }

    private static function voiced(float $seconds, float $from, float $to): Wave
    {
        return Synth::shaped(
            Synth::tone($seconds, static fn (float $t): float => $from + ($to - $from) * $t / $seconds, [1.0, 0.6, 0.4, 0.25, 0.15, 0.1]),
            static fn (float $t): float => sin(M_PI * min(1.0, $t / $seconds)),
        );
    }

    private static function laughs(Wave $wave, float $hertz): Wave
    {
        foreach ([0.03, 0.22, 0.41, 0.60, 0.78] as $k => $at) {
            $wave->mix(self::air(0.07, 1300.0, 1100.0, 0.4, 20 + $k), $at, 0.5);
            $wave->mix(self::voiced(0.13, (1.7 - 0.09 * $k) * $hertz, (1.4 - 0.08 * $k) * $hertz), $at + 0.04, 1.0 - 0.13 * $k);
        }

        return $wave;
    }

    private static function burst(float $seconds, int $seed): Wave
    {
        return Synth::shaped(
            Synth::band(Synth::noise($seconds, $seed), static fn (float $t): float => 900.0 + 500.0 * exp(-20 * $t), 0.8),
            static fn (float $t): float => min(1.0, $t / 0.006) * exp(-3.2 * $t / $seconds),
        );
    }
}
