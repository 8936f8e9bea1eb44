<?php

declare(strict_types=1);

namespace CrispReel\Core\Surfaces;

/**
 * The tones that a surface is painted in, where its colours are written at its points: red coat, yellow scarf, brown bag.
 * Colours that differ in brightness alone are one tone, as folds and shade make them.
 *
 * @phpstan-import-type Rgb from Oklab
 */
final class Tones
{
    /** Two colours nearer than this (Oklab, lightness counting LIGHT of it) are one tone. */
    private const APART = 0.075;

    private const LIGHT = 0.42;

    /** Share of the surface below which a tone joins its nearest. */
    private const LEAST = 0.012;

    private const MOST = 8;

    /** Steps of the grid that colours are gathered on before they are compared. */
    private const GRID = 40;

    /** @param  list<array{rgb: Rgb, lab: Rgb, share: float}>  $all  the largest first */
    private function __construct(public readonly array $all)
    {
    }

    /**
     * @param  list<float>  $colours  linear r, g, b a point
     * @param  list<float>  $weights  a point
     */
    public static function of(array $colours, array $weights): self
    {
        $cells = [];
        foreach ($weights as $v => $w) {
            if ($w <= 0.0) {
                continue;
            }
            $rgb = [$colours[3 * $v], $colours[3 * $v + 1], $colours[3 * $v + 2]];
            $lab = Oklab::of($rgb);
            $key = ((int) round($lab[0] * self::GRID)).' '.((int) round($lab[1] * self::GRID * 2)).' '
                .((int) round($lab[2] * self::GRID * 2));
            $cells[$key] = self::joined($cells[$key] ?? [[0.0, 0.0, 0.0], 0.0], $rgb, $w);
        }
        usort($cells, static fn (array $a, array $b): int => $b[1] <=> $a[1]);
        $groups = [];
        foreach ($cells as [$sum, $w]) {
            $rgb = self::mean($sum, $w);
            [$at, $far] = self::nearestOf($groups, Oklab::of($rgb));
            if ($at >= 0 && $far < self::APART) {
                [$all, $weight] = self::joined([$groups[$at]['sum'], $groups[$at]['weight']], $rgb, $w);
                array_splice($groups, $at, 1, [['sum' => $all, 'weight' => $weight, 'lab' => Oklab::of(self::mean($all, $weight))]]);
            } else {
                $groups[] = ['sum' => [$rgb[0] * $w, $rgb[1] * $w, $rgb[2] * $w], 'weight' => $w, 'lab' => Oklab::of($rgb)];
            }
        }

        return new self(self::kept($groups));
    }

    /**
     * @param  array{Rgb, float}  $to  sum and weight
     * @param  Rgb  $rgb
     * @return array{Rgb, float}
     */
    private static function joined(array $to, array $rgb, float $w): array
    {
        return [[$to[0][0] + $w * $rgb[0], $to[0][1] + $w * $rgb[1], $to[0][2] + $w * $rgb[2]], $to[1] + $w];
    }

    /**
     * @param  Rgb  $sum
     * @return Rgb
     */
    private static function mean(array $sum, float $w): array
    {
        return [$sum[0] / $w, $sum[1] / $w, $sum[2] / $w];
    }

    /**
     * @param  list<array{sum: Rgb, weight: float, lab: Rgb}>  $groups
     * @return list<array{rgb: Rgb, lab: Rgb, share: float}>
     */
    private static function kept(array $groups): array
    {
        usort($groups, static fn (array $a, array $b): int => $b['weight'] <=> $a['weight']);
        $total = array_sum(array_column($groups, 'weight'));
        $out = [];
        foreach ($groups as $g) {
            if ($out === [] || ($g['weight'] >= self::LEAST * $total && count($out) < self::MOST)) {
                $out[] = ['rgb' => self::mean($g['sum'], $g['weight']), 'lab' => $g['lab'], 'share' => $g['weight'] / $total];
            }
        }

        return $out;
    }

    /** @param  Rgb  $rgb */
    public function nearest(array $rgb): int
    {
        return max(0, self::nearestOf($this->all, Oklab::of($rgb))[0]);
    }

    /**
     * @param  list<array{lab: Rgb, ...}>  $among
     * @param  Rgb  $lab
     * @return array{int, float} -1 where there is none
     */
    private static function nearestOf(array $among, array $lab): array
    {
        [$best, $far] = [-1, INF];
        foreach ($among as $k => $g) {
            $d = (self::LIGHT * ($g['lab'][0] - $lab[0])) ** 2 + ($g['lab'][1] - $lab[1]) ** 2 + ($g['lab'][2] - $lab[2]) ** 2;
            if ($d < $far) {
                [$best, $far] = [$k, $d];
            }
        }

        return [$best, sqrt($far)];
    }
}
