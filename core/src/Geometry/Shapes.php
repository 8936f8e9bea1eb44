<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use Closure;
use CrispReel\Core\Math\V3;

/**
 * Solids for sets and props, with softened edges and the edge marks that dry brushing needs.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Shapes
{
    /**
     * Box whose edges are bevelled by two facets: every face is a grid, points on the bevel are pushed out of the inner
     * box, so normals are exact.
     *
     * @param  array{int, int, int}  $cells  subdivisions along x, y, z
     * @param  string  $without  faces left out, as "+x", "-y" ...
     */
    public static function box(float $w, float $h, float $d, float $round = 0.012, array $cells = [1, 1, 1], string $without = ''): Surface
    {
        $half = [$w / 2, $h / 2, $d / 2];
        $r = min($round, $half[0] * 0.98, $half[1] * 0.98, $half[2] * 0.98);
        $stops = [];
        for ($k = 0; $k < 3; $k++) {
            $stops[$k] = [-$half[$k]];
            for ($i = 0; $i <= $cells[$k]; $i++) {
                $stops[$k][] = (-1 + 2 * $i / $cells[$k]) * ($half[$k] - $r);
            }
            $stops[$k][] = $half[$k];
        }
        /** @var array<string, int> $merged */
        $merged = [];
        $points = $normals = $edge = [];
        /** @var list<int> $index */
        $index = [];
        for ($k = 0; $k < 3; $k++) {
            foreach ([-1.0, 1.0] as $side) {
                if (str_contains($without, ($side < 0 ? '-' : '+').'xyz'[$k])) {
                    continue;
                }
                $u = ($k + 1) % 3;
                $v = ($k + 2) % 3;
                /** @var list<int> $ids */
                $ids = [];
                foreach ($stops[$v] as $b) {
                    foreach ($stops[$u] as $a) {
                        $p = [0.0, 0.0, 0.0];
                        $p[$k] = $side * $half[$k];
                        $p[$u] = $a;
                        $p[$v] = $b;
                        [$q, $n, $rim] = self::bevelPoint([$p[0], $p[1], $p[2]], $half, $r);
                        $key = sprintf('%.4f %.4f %.4f %.2f %.2f %.2f', ...$q, ...$n);
                        if (! isset($merged[$key])) {
                            $merged[$key] = count($points);
                            $points[] = $q;
                            $normals[] = $n;
                            $edge[] = $rim;
                        }
                        $ids[] = $merged[$key];
                    }
                }
                $na = count($stops[$u]);
                for ($j = 0; $j < count($stops[$v]) - 1; $j++) {
                    for ($i = 0; $i < $na - 1; $i++) {
                        [$a, $b, $c, $e] = [
                            $ids[$j * $na + $i], $ids[$j * $na + $i + 1], $ids[($j + 1) * $na + $i], $ids[($j + 1) * $na + $i + 1],
                        ];
                        foreach ($side > 0 ? [$a, $b, $e, $a, $e, $c] : [$a, $e, $b, $a, $c, $e] as $corner) {
                            $index[] = $corner;
                        }
                    }
                }
            }
        }

        return new Surface($points, $normals, $index, [], $edge);
    }

    /**
     * @param  Vec  $p
     * @param  Vec  $half
     * @return array{Vec, Vec, float}
     */
    private static function bevelPoint(array $p, array $half, float $r): array
    {
        $q = $n = [0.0, 0.0, 0.0];
        for ($i = 0; $i < 3; $i++) {
            $q[$i] = max(-$half[$i] + $r, min($half[$i] - $r, $p[$i]));
            $n[$i] = $p[$i] - $q[$i];
        }
        $n = V3::unit([$n[0], $n[1], $n[2]]);
        $bent = count(array_filter($n, static fn (float $x): bool => abs($x) > 0.3));

        return [V3::addScaled([$q[0], $q[1], $q[2]], $n, $r), $n, $bent > 1 ? 1.0 : 0.0];
    }

    /**
     * Turned on the y axis from a profile of [radius, height], outside running upward.
     *
     * @param  list<array{float, float}>  $profile
     */
    public static function lathe(array $profile, int $around = 18): Surface
    {
        $n = count($profile);
        $points = $edge = [];
        for ($i = 0; $i <= $around; $i++) {
            $a = $i / $around * 2 * M_PI;
            foreach ($profile as $k => [$r, $y]) {
                $points[] = [sin($a) * $r, $y, cos($a) * $r];
                $edge[] = $k > 0 && $k < $n - 1 && self::corner($profile[$k - 1], $profile[$k], $profile[$k + 1]) > 0.35 ? 1.0 : 0.0;
            }
        }
        $index = [];
        for ($i = 0; $i < $around; $i++) {
            for ($k = 0; $k < $n - 1; $k++) {
                $a = $i * $n + $k;
                // On the axis a cell is one triangle.
                if ($profile[$k][0] > 1e-6) {
                    array_push($index, $a, $a + $n, $a + $n + 1);
                }
                if ($profile[$k + 1][0] > 1e-6) {
                    array_push($index, $a, $a + $n + 1, $a + 1);
                }
            }
        }
        $normals = Surface::faceNormals($points, $index);
        for ($k = 0; $k < $n; $k++) {
            // The seam's two rows share one normal; the axis points along y.
            $sum = V3::unit(V3::add($normals[$k], $normals[$around * $n + $k]));
            $normals[$k] = $normals[$around * $n + $k] = $sum;
            if ($profile[$k][0] < 1e-6) {
                $up = $k === 0 ? -1.0 : 1.0;
                for ($i = 0; $i <= $around; $i++) {
                    $normals[$i * $n + $k] = [0.0, $up, 0.0];
                }
            }
        }

        return new Surface($points, $normals, $index, [], $edge);
    }

    /**
     * @param  array{float, float}  $a
     * @param  array{float, float}  $b
     * @param  array{float, float}  $c
     */
    private static function corner(array $a, array $b, array $c): float
    {
        $l1 = hypot($b[0] - $a[0], $b[1] - $a[1]) ?: 1.0;
        $l2 = hypot($c[0] - $b[0], $c[1] - $b[1]) ?: 1.0;

        return (($b[0] - $a[0]) * ($c[1] - $b[1]) - ($b[1] - $a[1]) * ($c[0] - $b[0])) / ($l1 * $l2);
    }

    public static function sphere(float $r, int $around = 12, int $rows = 8): Surface
    {
        $profile = [];
        for ($i = 0; $i <= $rows; $i++) {
            $t = M_PI * $i / $rows;
            $profile[] = [$r * sin($t), -$r * cos($t)];
        }
        $s = self::lathe($profile, $around);

        return new Surface($s->points, array_map(V3::unit(...), $s->points), $s->index, [], array_fill(0, count($s->points), 0.0));
    }

    /** Ring in the local xy plane. */
    public static function ring(float $radius, float $tube, int $section = 8, int $around = 28): Surface
    {
        $points = $normals = [];
        for ($i = 0; $i <= $around; $i++) {
            $a = $i / $around * 2 * M_PI;
            for ($j = 0; $j <= $section; $j++) {
                $b = $j / $section * 2 * M_PI;
                $n = [cos($a) * cos($b), sin($a) * cos($b), sin($b)];
                $normals[] = $n;
                $points[] = V3::addScaled([cos($a) * $radius, sin($a) * $radius, 0.0], $n, $tube);
            }
        }

        return (new Surface($points, $normals, Loft::gridIndex($section, $around), [], array_fill(0, count($points), 0.0)))->checked();
    }

    /** Flat ring facing +z, in ring rows rather than a fan, so that baked light has vertices to live on. */
    public static function disc(float $inner, float $outer, int $around = 40, int $rows = 4): Surface
    {
        $points = [];
        for ($k = 0; $k <= $rows; $k++) {
            $r = $inner + ($outer - $inner) * $k / $rows;
            for ($i = 0; $i <= $around; $i++) {
                $a = $i / $around * 2 * M_PI;
                $points[] = [cos($a) * $r, sin($a) * $r, 0.0];
            }
        }
        $up = array_fill(0, count($points), [0.0, 0.0, 1.0]);
        $s = Surface::facing($points, Loft::gridIndex($around, $rows), $up);

        return new Surface($points, $up, $s->index, [], array_fill(0, count($points), 0.0));
    }

    /**
     * Round bar along a smooth path; with $lobes it is a laid rope.
     *
     * @param  list<Vec>  $through
     * @param  Closure(float): float|float  $radius
     */
    public static function tube(
        array $through, Closure|float $radius, int $segments = 12, int $section = 7, bool $closed = false, int $lobes = 0,
        float $pitch = 0.09,
    ): Surface {
        $curve = new SmoothCurve($through, $closed);
        $length = $curve->length();
        $segments = $lobes > 0 ? max($segments, (int) ceil($length / 0.045)) : $segments;
        $frames = $curve->frames($segments);
        $points = $normals = $edge = $index = [];
        foreach ($frames as $i => [$p, $t, $n, $b]) {
            $r = $radius instanceof Closure ? $radius($i / $segments) : $radius;
            for ($j = 0; $j <= $section; $j++) {
                $a = $j / $section * 2 * M_PI;
                $twist = $lobes * $a - $i / $segments * $length / $pitch * 2 * M_PI;
                $k = $lobes > 0 ? cos($twist) : 0.0;
                $out = V3::addScaled(V3::mul($n, cos($a)), $b, sin($a));
                $points[] = V3::addScaled($p, $out, $r * (1 + 0.17 * $k));
                $normals[] = $lobes > 0 ? V3::unit(V3::addScaled($out, V3::cross($t, $out), sin($twist) * 0.45)) : $out;
                $edge[] = $lobes > 0 ? 0.5 + 0.5 * $k : 0.0;
            }
        }
        $index = Loft::gridIndex($section, $segments);
        foreach ($closed ? [] : [0, $segments] as $end) {
            [$p, $t] = $frames[$end];
            $face = V3::mul($t, $end === 0 ? -1.0 : 1.0);
            $centre = count($points);
            $points[] = $p;
            $normals[] = $face;
            $edge[] = 0.0;
            for ($j = 0; $j <= $section; $j++) {
                $points[] = $points[$end * ($section + 1) + $j];
                $normals[] = $face;
                $edge[] = 1.0;
            }
            for ($j = 0; $j < $section; $j++) {
                array_push(
                    $index,
                    ...($end === 0 ? [$centre, $centre + 2 + $j, $centre + 1 + $j] : [$centre, $centre + 1 + $j, $centre + 2 + $j]),
                );
            }
        }

        return (new Surface($points, $normals, $index, [], $edge))->checked();
    }

    /**
     * A sheet of cloth or card: a grid of points with the normals of its faces.
     *
     * @param  list<Vec>  $points
     * @param  list<float>  $edge
     */
    public static function sheet(array $points, int $nu, int $nv, array $edge = []): Surface
    {
        $index = Loft::gridIndex($nu, $nv);

        return new Surface(
            $points,
            Surface::faceNormals($points, $index),
            $index,
            [],
            $edge === [] ? array_fill(0, count($points), 0.0) : $edge,
        );
    }
}
