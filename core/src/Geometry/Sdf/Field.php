<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry\Sdf;

use CrispReel\Core\Math\V3;

/**
 * Solids folded in order into one signed-distance field.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Rgb array{float, float, float}
 */
final class Field
{
    /**
     * @param  list<Solid>  $solids
     * @param  Vec  $low  corner of the box that holds the surface
     * @param  Vec  $high
     */
    public function __construct(public readonly array $solids, public readonly array $low, public readonly array $high)
    {
    }

    public function distance(float $x, float $y, float $z): float
    {
        return self::fold($this->solids, $x, $y, $z);
    }

    /** @param  list<Solid>  $solids */
    public static function fold(array $solids, float $x, float $y, float $z): float
    {
        $d = 1e3;
        foreach ($solids as $s) {
            $e = $s->distance($x, $y, $z);
            $k = $s->blend;
            if ($s->op === Solid::ADD) {
                $h = $k - abs($d - $e);
                $d = $d < $e ? $d : $e;
                if ($h > 0.0) {
                    $d -= $h * $h / (4.0 * $k);
                }
            } else {
                if ($s->op === Solid::SUBTRACT) {
                    $e = -$e;
                }
                $h = $k - abs($d - $e);
                $d = $d > $e ? $d : $e;
                if ($h > 0.0) {
                    $d += $h * $h / (4.0 * $k);
                }
            }
        }

        return $d;
    }

    /**
     * Colours mixed with the weight of the smooth minimum.
     *
     * @param  Rgb  $default
     * @return Rgb
     */
    public function colour(float $x, float $y, float $z, array $default): array
    {
        $d = 1e3;
        $c = $default;
        foreach ($this->solids as $s) {
            $e = $s->distance($x, $y, $z);
            $k = $s->blend;
            if ($s->op === Solid::ADD) {
                $t = 0.5 + 0.5 * ($d - $e) / max($k, 0.012);
                $t = $t < 0 ? 0.0 : ($t > 1 ? 1.0 : $t);
                if ($s->colour !== null) {
                    $c = V3::mix($c, $s->colour, $t);
                } elseif ($d > $e) {
                    $c = V3::mix($c, $default, $t);
                }
                $h = $k - abs($d - $e);
                $d = min($d, $e) - ($h > 0 ? $h * $h / (4 * $k) : 0.0);
            } else {
                $e = $s->op === Solid::SUBTRACT ? -$e : $e;
                if ($s->colour !== null) {
                    $t = 0.5 + 0.5 * ($e - $d) / max($k, 0.01);
                    $c = V3::mix($c, $s->colour, $t < 0 ? 0.0 : ($t > 1 ? 1.0 : $t));
                }
                $h = $k - abs($d - $e);
                $d = max($d, $e) + ($h > 0 ? $h * $h / (4 * $k) : 0.0);
            }
        }

        return $c;
    }

    /**
     * Unit gradient by four evaluations on a tetrahedron, and the mean distance.
     *
     * @param  list<Solid>  $solids
     * @param  Vec  $p
     * @return array{float, float, float, float}
     */
    public static function gradientOf(array $solids, array $p, float $e): array
    {
        [$x, $y, $z] = $p;
        $a = self::fold($solids, $x + $e, $y - $e, $z - $e);
        $b = self::fold($solids, $x - $e, $y - $e, $z + $e);
        $c = self::fold($solids, $x - $e, $y + $e, $z - $e);
        $d = self::fold($solids, $x + $e, $y + $e, $z + $e);
        $gx = $a - $b - $c + $d;
        $gy = -$a - $b + $c + $d;
        $gz = -$a + $b - $c + $d;
        $l = sqrt($gx * $gx + $gy * $gy + $gz * $gz) ?: 1.0;

        return [$gx / $l, $gy / $l, $gz / $l, ($a + $b + $c + $d) / 4.0];
    }

    /**
     * @param  Vec  $p
     * @return Vec unit
     */
    public function normal(array $p, float $e = 0.0015): array
    {
        $g = self::gradientOf($this->solids, $p, $e);

        return [$g[0], $g[1], $g[2]];
    }

    /**
     * The solids that can matter within $radius of the point, and the distance there.
     *
     * @return array{float, list<Solid>}
     */
    public function near(float $x, float $y, float $z, float $radius): array
    {
        $d = 1e3;
        $es = [];
        foreach ($this->solids as $s) {
            $e = $s->distance($x, $y, $z);
            $e = $s->op === Solid::SUBTRACT ? -$e : $e;
            $es[] = $e;
            $k = $s->blend;
            $h = $k - abs($d - $e);
            if ($s->op === Solid::ADD) {
                $d = min($d, $e) - ($h > 0 ? $h * $h / (4 * $k) : 0.0);
            } else {
                $d = max($d, $e) + ($h > 0 ? $h * $h / (4 * $k) : 0.0);
            }
        }
        $reach = 2.6 * $radius + 0.02;
        $kept = [];
        foreach ($this->solids as $i => $s) {
            $close = $s->op === Solid::ADD ? $es[$i] <= $d + $reach + $s->blend : $es[$i] >= $d - $reach - $s->blend;
            if ($close) {
                $kept[] = $s;
            }
        }

        return [$d, $kept];
    }

    /**
     * The point of the surface over (x, y), seen from the front or the back. Where the ray misses the body, x is
     * drawn in by 5 % until it hits: without this, patches at the rim grow metre-long spikes.
     *
     * @return Vec
     */
    public function project(float $x, float $y, bool $fromBack = false): array
    {
        $start = $fromBack ? -0.5 : 0.6;
        $way = $fromBack ? 1.0 : -1.0;
        $z = $start;
        for ($try = 0; $try < 14; $try++, $x *= 0.95) {
            $z = $start;
            for ($i = 0; $i < 60; $i++) {
                $d = $this->distance($x, $y, $z);
                if ($d < 0.0003) {
                    return [$x, $y, $z];
                }
                $z += $way * $d * 0.8;
                if (($z - $start) * $way > 0.8) {
                    break;
                }
            }
        }

        return [$x, $y, $z];
    }

    /**
     * First hit along a ray, or the point 1.5 m on.
     *
     * @param  Vec  $from
     * @param  Vec  $direction  unit
     * @return Vec
     */
    public function march(array $from, array $direction): array
    {
        $t = 0.0;
        for ($i = 0; $i < 80 && $t < 1.5; $i++) {
            $p = V3::addScaled($from, $direction, $t);
            $d = $this->distance($p[0], $p[1], $p[2]);
            if ($d < 0.0003) {
                return $p;
            }
            $t += $d * 0.8;
        }

        return V3::addScaled($from, $direction, $t);
    }
}
