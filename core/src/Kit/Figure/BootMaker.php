<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Sdf\Solid;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/**
 * Boots with their rims and soles.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class BootMaker
{
    public function __construct(private readonly Workshop $shop)
    {
    }

    /** Height where a boot ends. */
    public static function top(Workshop $shop): float
    {
        return $shop->spec()->body(0.245, 0.345);
    }

    public function make(): void
    {
        $b = $this->shop->body;
        $mix = $this->shop->spec()->body(...);
        $a = $b->foot;
        $top = self::top($this->shop);
        $k = $mix(1.0, 1.15);
        $shaft = V3::mix($a, $b->lowerLeg, ($top - $a[1]) / ($b->lowerLeg[1] - $a[1]));
        $solids = [
            Solid::cone(V3::add($a, [0.0, -0.035, -0.012]), V3::add($b->toes, [0.0, 0.014, 0.035]), 0.050 * $k, 0.048 * $k),
            Solid::cone($a, $shaft, $mix(0.054, 0.068), $mix(0.066, 0.088), 0.045),
            Solid::ellipsoid(V3::add($b->toes, [0.002, 0.020, 0.035]), [$mix(0.056, 0.066), $mix(0.046, 0.054), $mix(0.066, 0.078)]),
            Solid::cut([0.0, -1.0, 0.0], -0.012, 0.01),
            Solid::cut([0.0, 1.0, 0.0], $top, 0.015),
        ];
        $field = new Field($solids, [$a[0] - 0.12, -0.02, -0.13], [$a[0] + 0.13, $top + 0.04, 0.24]);
        $this->shop->soft('bootL', 'leather', $field, $mix(0.031, 0.038), 'boot', $this->bootWeights(...), 1);
        $this->shop->mirror('bootL', 'bootR');
        $this->sole($field);
        $r = $mix(0.066, 0.088) + 0.002;
        $ring = Workshop::ring(V3::add($shaft, [0.0, -0.012, 0.0]), [0.0, 0.0, 1.0], [1.0, 0.0, 0.0], $r * 0.97, 14);
        $rim = Loft::sweep(
            $ring, static fn (int $i): array => V3::unit(V3::sub($ring[$i], $shaft)), $mix(0.012, 0.026), 0.011, 6, true, 0.8,
        );
        $this->shop->crisp('bootRimL', 'leather', $rim, $this->shop->colour('boot', $mix(0.7, 1.6)), 'lowerLegL');
        $this->shop->mirror('bootRimL', 'bootRimR');
    }

    /**
     * @param  Vec  $p
     * @return array<string, float>
     */
    private function bootWeights(array $p): array
    {
        $toe = $this->shop->body->toes[2];
        $shin = Ease::between(0.06, 0.15, $p[1] - $p[2] * 0.25);
        $toes = Ease::between($toe - 0.035, $toe + 0.035, $p[2]) * (1 - $shin);

        return ['lowerLegL' => $shin + 0.0001, 'footL' => (1 - $shin) * (1 - $toes) + 0.0001, 'toesL' => $toes + 0.0001];
    }

    private function sole(Field $boot): void
    {
        $b = $this->shop->body;
        $c = [($b->foot[0] + $b->toes[0]) / 2, 0.020, ($b->foot[2] + $b->toes[2]) / 2 + 0.004];
        $path = [];
        for ($i = 0; $i < 18; $i++) {
            $a = $i / 18 * 2 * M_PI;
            $aim = V3::add($c, [0.0, 0.0, cos($a) * 0.06]);
            $start = V3::add($aim, [sin($a) * 0.3, 0.0, cos($a) * 0.3]);
            $p = $boot->march($start, V3::unit(V3::sub($aim, $start)));
            $path[] = [$p[0], 0.014, $p[2]];
        }
        $welt = Loft::sweep(
            $path, static fn (int $i): array => V3::unit(V3::sub($path[$i], [$c[0], 0.014, $path[$i][2] * 0.8 + $c[2] * 0.2])), 0.014,
            0.011, 6, true, 0.7,
        );
        $weights = array_map(fn (array $p): array => SkinWeights::normalised($this->bootWeights($p)), $welt->points);
        $this->shop->crisp('soleL', 'leather', $welt, $this->shop->colour('sole'), $weights);
        $this->shop->mirror('soleL', 'soleR');
    }
}
