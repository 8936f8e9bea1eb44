<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** What one can stand on: upward-facing triangles of placed things, asked for the height under a point. */
final class FloorMap
{
    /** @var list<array{Placement, list<float>, array{float, float, float, float}}> placement, triangles, planar bounds */
    private array $floors = [];

    /** @param  list<float>  $triangles 9 numbers each, in the thing's own space */
    public function add(Placement $place, array $triangles): void
    {
        if ($triangles === []) {
            return;
        }
        $bounds = [INF, INF, -INF, -INF];
        for ($i = 0, $n = count($triangles); $i < $n; $i += 3) {
            $bounds[0] = min($bounds[0], $triangles[$i]);
            $bounds[1] = min($bounds[1], $triangles[$i + 2]);
            $bounds[2] = max($bounds[2], $triangles[$i]);
            $bounds[3] = max($bounds[3], $triangles[$i + 2]);
        }
        $this->floors[] = [$place, $triangles, $bounds];
    }

    /** Metres of air that somebody needs above where he stands. */
    private const AIR = 2.0;

    /** Metres that one comes up from where one is. */
    private const REACH = 1.0;

    /** Metres to each side that a floor is at least wide. */
    private const FOOT = 0.2;

    /** Metres by which the ground 3 cm away may be higher and still belong to this place. */
    private const EDGE = 0.3;

    /**
     * Where one stands at (x, z): on the lowest floor that has two metres of air above it, so in a room and not on its walls or its
     * roof; or, for who is about $from high already, on the highest such floor in reach. Feet and things bridge the gap between
     * two planks. Null where there is nothing.
     */
    public function stand(float $x, float $z, ?float $from = null): ?float
    {
        $here = $this->airy($x, $z, $from);
        foreach ([[0.03, 0.0], [-0.03, 0.0], [0.0, 0.03], [0.0, -0.03]] as [$dx, $dz]) {
            $beside = $this->airy($x + $dx, $z + $dz, $from);
            if ($beside !== null && ($here === null || ($beside > $here && $beside < $here + self::EDGE))) {
                $here = $beside;
            }
        }

        return $here;
    }

    private function airy(float $x, float $z, ?float $from): ?float
    {
        $airy = [];
        $above = INF;
        for ($h = $this->height($x, $z); $h !== null; $h = $this->height($x, $z, $h - 1e-4)) {
            if ($above - $h >= self::AIR) {
                $airy[] = $h;
            }
            $above = $h;
        }
        $near = $from === null ? [] : array_filter($airy, static fn (float $h): bool => $h <= $from + self::REACH);
        $wide = array_filter($airy, fn (float $h): bool => $this->isWide($x, $z, $h));

        return match (true) {
            $near !== [] => max($near),
            $wide !== [] => min($wide),
            // A rail or the top of a wall far up, with nothing under it: the ground on which all stands.
            $airy !== [] && min($airy) > self::AIR => 0.0,
            default => $airy === [] ? null : min($airy),
        };
    }

    /** Whether it goes on at about this height on three of four sides: no rail, no top of a wall. */
    private function isWide(float $x, float $z, float $h): bool
    {
        $goesOn = 0;
        foreach ([[self::FOOT, 0.0], [-self::FOOT, 0.0], [0.0, self::FOOT], [0.0, -self::FOOT]] as [$dx, $dz]) {
            $beside = $this->height($x + $dx, $z + $dz, $h + self::EDGE);
            $goesOn += $beside !== null && $beside > $h - self::EDGE ? 1 : 0;
        }

        return $goesOn >= 3;
    }

    /**
     * The highest floor at (x, z) that is not above $ceiling; null where there is none.
     */
    public function height(float $x, float $z, float $ceiling = INF): ?float
    {
        $best = null;
        foreach ($this->floors as [$place, $t, $b]) {
            $p = V3::mul(Q4::rotate(Q4::conjugate($place->rotation), V3::sub([$x, 0.0, $z], $place->position)), 1 / $place->scale);
            if ($p[0] < $b[0] || $p[2] < $b[1] || $p[0] > $b[2] || $p[2] > $b[3]) {
                continue;
            }
            $top = ($ceiling - $place->position[1]) / $place->scale;
            $y = self::under($t, $p[0], $p[2], $top);
            if ($y !== null) {
                $world = $place->position[1] + $y * $place->scale;
                $best = $best === null || $world > $best ? $world : $best;
            }
        }

        return $best;
    }

    /**
     * Vertical ray against triangles by signed areas in the plane (Moeller and Trumbore 1997, with the ray along y).
     *
     * @param  list<float>  $t
     */
    private static function under(array $t, float $x, float $z, float $top): ?float
    {
        $best = null;
        for ($i = 0, $n = count($t); $i < $n; $i += 9) {
            $ax = $t[$i] - $x;
            $az = $t[$i + 2] - $z;
            $bx = $t[$i + 3] - $x;
            $bz = $t[$i + 5] - $z;
            $cx = $t[$i + 6] - $x;
            $cz = $t[$i + 8] - $z;
            $u = $bz * $cx - $bx * $cz;
            $v = $cz * $ax - $cx * $az;
            $w = $az * $bx - $ax * $bz;
            if (($u < -1e-9 || $v < -1e-9 || $w < -1e-9) && ($u > 1e-9 || $v > 1e-9 || $w > 1e-9)) {
                continue;
            }
            $sum = $u + $v + $w;
            if (abs($sum) < 1e-12) {
                continue;
            }
            $y = ($u * $t[$i + 1] + $v * $t[$i + 4] + $w * $t[$i + 7]) / $sum;
            if ($y <= $top && ($best === null || $y > $best)) {
                $best = $y;
            }
        }

        return $best;
    }
}
