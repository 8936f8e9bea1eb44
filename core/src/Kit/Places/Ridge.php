<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Colour;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Math\V3;

/** Land far away, as a strip that rises and leans back, seen from the middle. */
final class Ridge
{
    /** How high over the foot, as a share, and how far back it leans, metres: the rows of the strip but for the lowest. */
    private const LEAN = [[0.55, 0.5], [0.9, 1.5], [1.0, 3.0]];

    /**
     * @param  list<array{float, float}>  $tops  headings in radians and heights along it
     * @param  float  $foot  height of its lowest row
     * @param  array{float, float, float}  $haze  colour that it takes on towards its top
     * @param  float  $clear  metres of height per whole share of haze
     * @param  list<array{float, float}>  $lean
     */
    public static function add(
        Piece $p, array $tops, float $far, float $foot, int $colour, array $haze, float $clear, float $most, array $lean = self::LEAN,
        float $tilt = 0.35,
    ): void {
        $points = $normals = [];
        foreach ($tops as [$a, $h]) {
            foreach ([[null, 0.0], ...$lean] as [$share, $back]) {
                $points[] = [($far + $back) * sin($a), $share === null ? $foot : $share * $h, ($far + $back) * cos($a)];
                $normals[] = V3::unit([-sin($a), $tilt, -cos($a)]);
            }
        }
        $index = Shapes::sheet($points, count($lean), count($tops) - 1)->index;
        [$a, $b, $c] = [$points[$index[0]], $points[$index[1]], $points[$index[2]]];
        $inward = V3::dot(V3::cross(V3::sub($b, $a), V3::sub($c, $a)), $normals[0]) > 0.0;
        $p->add(
            new Surface($points, $normals, $inward ? $index : Surface::flipped($index), [], array_fill(0, count($points), 0.0)),
            static fn (array $q): array => V3::mix(Colour::hex($colour), $haze, min($most, max(0.0, $q[1] / $clear))),
            jitter: 0.0, shift: 0.0, wave: 0.0, vary: 0.0,
        );
    }
}
