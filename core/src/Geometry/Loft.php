<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use Closure;
use CrispReel\Core\Math\V3;

/**
 * Thin, crisp things: a superelliptic section swept along points, and patches laid on a host surface.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Loft
{
    /**
     * @param  list<Vec>  $path
     * @param  Closure(int): Vec  $normal  at each path point
     * @param  Closure(float): float|float  $width  half width across the normal, over 0..1
     * @param  Closure(float): float|float  $height  half height along the normal
     * @param  float  $power  1 an ellipse, below 1 squarer
     */
    public static function sweep(
        array $path, Closure $normal, Closure|float $width, Closure|float $height, int $segments = 8, bool $closed = false,
        float $power = 1.0,
    ): Surface {
        $n = count($path);
        $points = [];
        for ($i = 0; $i < $n; $i++) {
            $before = $path[$closed ? ($i + $n - 1) % $n : max(0, $i - 1)];
            $after = $path[$closed ? ($i + 1) % $n : min($n - 1, $i + 1)];
            $tangent = V3::unit(V3::sub($after, $before));
            $up = V3::across($normal($i), $tangent);
            $side = V3::cross($tangent, $up);
            $t = $i / ($closed ? $n : $n - 1);
            $w = is_float($width) ? $width : $width($t);
            $h = is_float($height) ? $height : $height($t);
            for ($s = 0; $s < $segments; $s++) {
                $a = $s / $segments * 2 * M_PI;
                $x = (cos($a) <=> 0) * abs(cos($a)) ** $power * $w;
                $y = (sin($a) <=> 0) * abs(sin($a)) ** $power * $h;
                $points[] = V3::addScaled(V3::addScaled($path[$i], $side, $x), $up, $y);
            }
        }

        return self::skin($points, $path, $segments, $closed);
    }

    /**
     * @param  list<Vec>  $points
     * @param  list<Vec>  $path
     */
    private static function skin(array $points, array $path, int $segments, bool $closed): Surface
    {
        $n = count($path);
        $index = [];
        for ($i = 0; $i < ($closed ? $n : $n - 1); $i++) {
            for ($s = 0; $s < $segments; $s++) {
                $a = $i * $segments + $s;
                $b = $i * $segments + ($s + 1) % $segments;
                $c = (($i + 1) % $n) * $segments + ($s + 1) % $segments;
                $d = (($i + 1) % $n) * $segments + $s;
                array_push($index, $a, $b, $c, $a, $c, $d);
            }
        }
        foreach ($closed ? [] : [0, $n - 1] as $end) {
            $centre = count($points);
            $points[] = $path[$end];
            for ($s = 0; $s < $segments; $s++) {
                $a = $end * $segments + $s;
                $b = $end * $segments + ($s + 1) % $segments;
                array_push($index, ...($end === 0 ? [$centre, $b, $a] : [$centre, $a, $b]));
            }
        }
        $index = self::volume($points, $index) < 0 ? Surface::flipped($index) : $index;

        return new Surface($points, Surface::faceNormals($points, $index), $index);
    }

    /**
     * Six times the enclosed volume (divergence theorem).
     *
     * @param  list<Vec>  $points
     * @param  list<int>  $index
     */
    private static function volume(array $points, array $index): float
    {
        $o = $points[0];
        $sum = 0.0;
        for ($i = 0, $n = count($index); $i < $n; $i += 3) {
            $sum += V3::dot(V3::sub($points[$index[$i]], $o), V3::cross(
                V3::sub($points[$index[$i + 1]], $o), V3::sub($points[$index[$i + 2]], $o),
            ));
        }

        return $sum;
    }

    /**
     * A patch lifted off its host by $thick, whose border sinks into it.
     *
     * @param  Closure(float, float): array{Vec, Vec}  $host  point and normal over (u, v) in 0..1
     */
    public static function patch(Closure $host, int $nu, int $nv, float $thick, float $sink = 0.003, float $edge = 0.14): Surface
    {
        $stop = static fn (int $i, int $n): float => $i === 0 ? 0.0 : ($i === $n ? 1.0 : $edge + (1 - 2 * $edge) * ($i - 1) / ($n - 2));
        $points = [];
        $outside = [];
        for ($j = 0; $j <= $nv; $j++) {
            for ($i = 0; $i <= $nu; $i++) {
                [$p, $n] = $host($stop($i, $nu), $stop($j, $nv));
                $border = $i === 0 || $j === 0 || $i === $nu || $j === $nv;
                $points[] = V3::addScaled($p, $n, $border ? -$sink : $thick);
                $outside[] = $n;
            }
        }

        return Surface::facing($points, self::gridIndex($nu, $nv), $outside);
    }

    /** @return list<int> two triangles a cell of a grid of ($nu + 1) by ($nv + 1) points, u fastest */
    public static function gridIndex(int $nu, int $nv): array
    {
        $index = [];
        for ($j = 0; $j < $nv; $j++) {
            for ($i = 0; $i < $nu; $i++) {
                $a = $j * ($nu + 1) + $i;
                array_push($index, $a, $a + 1, $a + $nu + 2, $a, $a + $nu + 2, $a + $nu + 1);
            }
        }

        return $index;
    }
}
