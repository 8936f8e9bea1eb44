<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

use CrispReel\Core\Format\Wave;
use InvalidArgumentException;

/**
 * What a sound is like every 10 ms, as numbers that two voices share where they say the same: mel-frequency cepstra (Davis and
 * Mermelstein 1980) of 25 ms each, and how loud it is.
 */
final readonly class Cepstra
{
    /** Samples a second that it takes. */
    public const RATE = 16000;

    /** Seconds between two of them, and from the beginning of one to its middle. */
    public const STEP = 0.01;

    public const MIDDLE = 0.0125;

    public const COUNT = 13;

    private const SIZE = 512;

    private const WINDOW = 400;

    private const HOP = 160;

    private const EMPHASIS = 0.97;

    /** Bands, and the Hertz that they reach from and to. */
    private const BANDS = 26;

    private const LOW = 80.0;

    private const HIGH = 7200.0;

    /** Added to each band, on the scale of 16-bit samples: what lies below is silence. */
    private const FLOOR = 1000.0;

    /** Natural logarithms of the power below the loudest frame within which it is speech, when its mean is taken. */
    private const SPEECH = 7.0;

    /** How much of the first, which is the loudness, counts. */
    private const FIRST = 0.5;

    /**
     * @param  list<list<float>>  $frames  of each 10 ms thirteen numbers
     * @param  list<float>  $energy  natural logarithm of the power of each
     */
    private function __construct(public array $frames, public array $energy)
    {
    }

    public static function of(Wave $wave): self
    {
        if ($wave->rate !== self::RATE) {
            throw new InvalidArgumentException('Cepstra are taken of '.self::RATE." samples a second, not of {$wave->rate}.");
        }
        $fourier = new Fourier(self::SIZE);
        $window = [];
        for ($i = 0; $i < self::WINDOW; $i++) {
            $window[] = 0.54 - 0.46 * cos(2 * M_PI * $i / (self::WINDOW - 1));
        }
        $bands = self::bands();
        $cosines = self::cosines();
        $frames = $energy = [];
        $count = max(0, intdiv(count($wave->samples) - self::WINDOW, self::HOP) + 1);
        for ($k = 0; $k < $count; $k += 2) {
            [$a, $loudA] = self::stretch($wave->samples, $k * self::HOP, $window);
            [$b, $loudB] = self::stretch($wave->samples, ($k + 1) * self::HOP, $window);
            [$left, $right] = $fourier->powers($a, $b);
            foreach ($k + 1 < $count ? [[$left, $loudA], [$right, $loudB]] : [[$left, $loudA]] as [$power, $loud]) {
                $energy[] = $loud;
                $frames[] = self::cepstrum($power, $bands, $cosines);
            }
        }

        return new self(self::evened($frames, $energy), $energy);
    }

    /**
     * Only how loud it is: natural logarithm of the power of each 10 ms, as cepstra of it would have.
     *
     * @return list<float>
     */
    public static function loudness(Wave $wave): array
    {
        $out = [];
        for ($at = 0, $last = count($wave->samples) - self::WINDOW; $at <= $last; $at += self::HOP) {
            $sum = 0.0;
            for ($i = $at; $i < $at + self::WINDOW; $i++) {
                $sum += $wave->samples[$i] * $wave->samples[$i];
            }
            $out[] = self::logarithm($sum);
        }

        return $out;
    }

    private static function logarithm(float $squares): float
    {
        return log(32768.0 ** 2 * $squares / self::WINDOW + 1.0);
    }

    /**
     * @param  array<int, float>  $samples
     * @param  list<float>  $window
     * @return array{list<float>, float} high sounds raised, on the scale of 16 bits; and how loud it is
     */
    private static function stretch(array $samples, int $at, array $window): array
    {
        $out = [];
        $sum = 0.0;
        $last = $samples[$at - 1] ?? 0.0;
        foreach ($window as $i => $w) {
            $s = $samples[$at + $i] ?? 0.0;
            $out[] = 32768.0 * $w * ($s - self::EMPHASIS * $last);
            $sum += $s * $s;
            $last = $s;
        }

        return [array_pad($out, self::SIZE, 0.0), self::logarithm($sum)];
    }

    /**
     * @param  list<float>  $power
     * @param  list<array{int, list<float>}>  $bands
     * @param  list<list<float>>  $cosines
     * @return list<float>
     */
    private static function cepstrum(array $power, array $bands, array $cosines): array
    {
        $logs = [];
        foreach ($bands as [$from, $weights]) {
            $sum = self::FLOOR;
            foreach ($weights as $i => $w) {
                $sum += $w * $power[$from + $i];
            }
            $logs[] = log($sum);
        }
        $out = [];
        foreach ($cosines as $row) {
            $sum = 0.0;
            foreach ($row as $i => $c) {
                $sum += $c * $logs[$i];
            }
            $out[] = $sum;
        }

        return $out;
    }

    /** @return list<array{int, list<float>}> triangles over equal steps of the mel scale: their first bin, and its weights */
    private static function bands(): array
    {
        $mel = static fn (float $hz): float => 2595.0 * log10(1.0 + $hz / 700.0);
        $bin = static fn (float $m): float => 700.0 * (10.0 ** ($m / 2595.0) - 1.0) * self::SIZE / self::RATE;
        $step = ($mel(self::HIGH) - $mel(self::LOW)) / (self::BANDS + 1);
        $out = [];
        for ($b = 0; $b < self::BANDS; $b++) {
            [$from, $top, $to] = array_map(static fn (int $k): float => $bin($mel(self::LOW) + $k * $step), [$b, $b + 1, $b + 2]);
            $weights = [];
            for ($i = (int) ceil($from); $i <= (int) floor($to); $i++) {
                $weights[] = $i <= $top ? ($i - $from) / ($top - $from) : ($to - $i) / ($to - $top);
            }
            $out[] = [(int) ceil($from), $weights];
        }

        return $out;
    }

    /** @return list<list<float>> of the cosine transform: a row for each cepstrum, a column for each band */
    private static function cosines(): array
    {
        $out = [];
        for ($c = 0; $c < self::COUNT; $c++) {
            $row = [];
            for ($b = 0; $b < self::BANDS; $b++) {
                $row[] = cos(M_PI * $c * ($b + 0.5) / self::BANDS);
            }
            $out[] = $row;
        }

        return $out;
    }

    /**
     * The mean of what is speech taken away, and all brought to one scale: what a room and a microphone add is the same all along.
     *
     * @param  list<list<float>>  $frames
     * @param  list<float>  $energy
     * @return list<list<float>>
     */
    private static function evened(array $frames, array $energy): array
    {
        $most = max([0.0, ...$energy]);
        $speech = array_values(array_filter(
            $frames, static fn (int $k): bool => $energy[$k] > $most - self::SPEECH, ARRAY_FILTER_USE_KEY,
        ));
        $mean = $spread = [];
        for ($c = 0; $c < self::COUNT; $c++) {
            $of = array_column($speech, $c);
            $mean[] = $m = array_sum($of) / max(1, count($of));
            $spread[] = sqrt(array_sum(array_map(static fn (float $v): float => ($v - $m) ** 2, $of)) / max(1, count($of)));
        }
        // One number for all: each by its own would raise those that say nothing.
        $scale = max(1e-6, array_sum(array_slice($spread, 1)) / (self::COUNT - 1));
        $out = [];
        foreach ($frames as $f) {
            $row = [];
            foreach ($f as $c => $v) {
                $row[] = ($c === 0 ? self::FIRST : 1.0) * ($v - $mean[$c]) / $scale;
            }
            $out[] = $row;
        }

        return $out;
    }
}
