<?php

declare(strict_types=1);

namespace CrispReel\Core\Tests\Support;

use CrispReel\Core\Camera\SkinnedSurface;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Geometry\TriangleDistance;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/**
 * A figure as it is drawn in a row, skinned here and not by the code that is tested: each vertex by the matrices of its joints against
 * those at rest.
 */
final class Drawn
{
    /** @var array<string, SkinnedSurface> */
    private static array $surfaces = [];

    /** @var list<array{float, float, float}> */
    public readonly array $points;

    public readonly SkinnedSurface $surface;

    /** @param  list<float>  $row */
    public function __construct(private readonly Figure $figure, string $asset, array $row, Placement $place)
    {
        $this->surface = self::$surfaces[$asset] ??= new SkinnedSurface(GltfReader::read(FakeAssets::glb($asset)));
        $s = $figure->skeleton;
        [$rest] = $s->world($s->rotations);
        [$p, $q] = $s->world(array_slice($row, 3, 4 * $s->count()), [$row[0], $row[1], $row[2]], $figure->hips);
        $points = [];
        foreach ($this->surface->vertices as [$at, $shares]) {
            $sum = [0.0, 0.0, 0.0];
            foreach ($shares as $j => $w) {
                $away = V3::sub($at, [$rest[3 * $j], $rest[3 * $j + 1], $rest[3 * $j + 2]]);
                $turned = Q4::rotate([$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]], $away);
                $sum = V3::addScaled($sum, V3::add([$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]], $turned), $w);
            }
            $points[] = $place->point($sum);
        }
        $this->points = $points;
    }

    /**
     * Of the vertices of some joints: metres of the nearest one to the other's triangles, and of the deepest one inside.
     *
     * @param  list<string>  $joints
     * @return array{float, float} gap, depth
     */
    public function against(self $other, array $joints): array
    {
        $own = [];
        $wanted = array_flip(array_map(fn (string $n): int => $this->figure->skeleton->joint($n) ?? -1, $joints));
        foreach ($this->surface->vertices as $v => [, $shares]) {
            arsort($shares);
            if (isset($wanted[array_key_first($shares)])) {
                $own[] = $this->points[$v];
            }
        }
        $middle = V3::mean($own);
        $all = $near = $flat = [];
        foreach ($other->surface->triangles as $t) {
            [$a, $b, $c] = [$other->points[$t[0]], $other->points[$t[1]], $other->points[$t[2]]];
            array_push($all, ...$a, ...$b, ...$c);
            if (V3::distance($a, $middle) < 0.28 && V3::length(V3::cross(V3::sub($b, $a), V3::sub($c, $a))) > 1e-10) {
                $near[] = $a;
                array_push($flat, ...$a, ...V3::sub($b, $a), ...V3::sub($c, $a));
            }
        }
        $gap = INF;
        $close = [];
        foreach ($own as $p) {
            $least = INF;
            foreach ($near as $i => $corner) {
                if (V3::distance($p, $corner) < $least + 0.05) {
                    $least = min($least, sqrt(TriangleDistance::squared($flat, 9 * $i, $p)));
                }
            }
            $gap = min($gap, $least);
            $close[] = [$least, $p];
        }
        // The deepest first, a dozen of them; which are inside tells the winding number.
        $close = array_values(array_filter($close, static fn (array $c): bool => $c[0] > 0.004 && $c[0] < 0.04));
        usort($close, static fn (array $x, array $y): int => $y[0] <=> $x[0]);
        $step = max(1, intdiv(count($close), 12));
        for ($i = 0, $n = count($close); $i < $n; $i += $step) {
            if (self::winding($close[$i][1], $all) > 0.5) {
                return [$gap, $close[$i][0]];
            }
        }

        return [$gap, 0.0];
    }

    /**
     * Sum of the solid angles over a full turn (van Oosterom and Strackee 1983): 1 inside, 0 outside.
     *
     * @param  array{float, float, float}  $p
     * @param  list<float>  $corners  nine numbers a triangle
     */
    private static function winding(array $p, array $corners): float
    {
        [$px, $py, $pz] = $p;
        $sum = 0.0;
        for ($i = 0, $n = count($corners); $i < $n; $i += 9) {
            $ax = $corners[$i] - $px;
            $ay = $corners[$i + 1] - $py;
            $az = $corners[$i + 2] - $pz;
            $bx = $corners[$i + 3] - $px;
            $by = $corners[$i + 4] - $py;
            $bz = $corners[$i + 5] - $pz;
            $cx = $corners[$i + 6] - $px;
            $cy = $corners[$i + 7] - $py;
            $cz = $corners[$i + 8] - $pz;
            $a = sqrt($ax * $ax + $ay * $ay + $az * $az);
            $b = sqrt($bx * $bx + $by * $by + $bz * $bz);
            $c = sqrt($cx * $cx + $cy * $cy + $cz * $cz);
            $det = $ax * ($by * $cz - $bz * $cy) + $ay * ($bz * $cx - $bx * $cz) + $az * ($bx * $cy - $by * $cx);
            $ab = $ax * $bx + $ay * $by + $az * $bz;
            $bc = $bx * $cx + $by * $cy + $bz * $cz;
            $ca = $cx * $ax + $cy * $ay + $cz * $az;
            $sum += 2 * atan2($det, $a * $b * $c + $ab * $c + $bc * $a + $ca * $b);
        }

        return $sum / (4 * M_PI);
    }
}
