<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

/** Where a sound is silent, told by how loud it is every 10 ms. */
final class Silences
{
    /** Natural logarithms of the power below the loudest frame from which on it is silence: some 20 dB. */
    private const GATE = 4.5;

    /** Silence all through: the loudest frame is below that (of 16-bit samples, a root mean square of about ten). */
    private const NOTHING = 4.6;

    /**
     * @param  list<float>  $energy  natural logarithm of the power of each 10 ms, as Cepstra gives it
     * @param  float  $least  seconds
     * @return list<array{int, int}> from and up to which frame
     */
    public static function of(array $energy, float $least): array
    {
        $gate = max([0.0, ...$energy]) - self::GATE;
        $out = [];
        $open = null;
        foreach ([...$energy, INF] as $k => $e) {
            if ($e < $gate) {
                $open ??= $k;
            } elseif ($open !== null) {
                if (($k - $open) * Cepstra::STEP >= $least - 1e-9) {
                    $out[] = [$open, $k];
                }
                $open = null;
            }
        }

        return $out;
    }

    /**
     * The seconds within which anything is heard, with some room before and after.
     *
     * @param  list<float>  $energy
     * @return array{float, float}|null null: nothing is heard
     */
    public static function heard(array $energy, float $before, float $after): ?array
    {
        if (max([0.0, ...$energy]) < self::NOTHING) {
            return null;
        }
        $n = count($energy);
        [$from, $to] = [0, $n];
        foreach (self::of($energy, 0.0) as [$a, $z]) {
            $from = $a === 0 ? $z : $from;
            $to = $z === $n ? $a : $to;
        }
        $end = ($n - 1) * Cepstra::STEP + 2 * Cepstra::MIDDLE;

        return [
            max(0.0, $from * Cepstra::STEP + Cepstra::MIDDLE - $before), min($end, ($to - 1) * Cepstra::STEP + Cepstra::MIDDLE + $after),
        ];
    }
}
