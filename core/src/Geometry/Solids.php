<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** The placed things of a scene that feet stand on and bodies bump into. All measures in metres of the scene. */
final class Solids
{
    /**
     * Around: middle x, z and planar radius.
     *
     * @var list<array{
     *     name: string, place: Placement, back: Placement, tree: RayTree, around: array{float, float, float}, wild: Plane|null
     * }>
     */
    private array $things = [];

    /** @param  Plane|null  $wild  in the thing's own space: behind it, it is no obstacle for what comes from there */
    public function add(string $name, Placement $place, RayTree $tree, ?Plane $wild = null): void
    {
        $b = $tree->bounds();
        if ($b === null) {
            return;
        }
        $middle = $place->point([($b[0] + $b[3]) / 2, 0.0, ($b[2] + $b[5]) / 2]);
        $this->things[] = [
            'name' => $name, 'place' => $place, 'back' => $place->inverse(), 'tree' => $tree,
            'around' => [$middle[0], $middle[2], hypot($b[3] - $b[0], $b[5] - $b[2]) / 2 * $place->scale + 0.01],
            'wild' => $wild,
        ];
    }

    /** The highest floor at (x, z) not above $ceiling; null where there is none. Things stand upright. */
    public function height(float $x, float $z, float $ceiling = INF): ?float
    {
        return $this->under($x, $z, $ceiling)[1] ?? null;
    }

    /** @return array{string, float}|null the thing whose floor is the highest at (x, z) not above $ceiling, and how high that is */
    public function under(float $x, float $z, float $ceiling = INF): ?array
    {
        $best = null;
        foreach ($this->things as $t) {
            if (hypot($x - $t['around'][0], $z - $t['around'][1]) > $t['around'][2]) {
                continue;
            }
            $p = $t['back']->point([$x, $t['place']->position[1], $z]);
            $y = $t['tree']->floor($p[0], $p[2], ($ceiling - $t['place']->position[1]) / $t['place']->scale);
            if ($y !== null) {
                $y = $t['place']->position[1] + $y * $t['place']->scale;
                $best = $best === null || $y > $best[1] ? [$t['name'], $y] : $best;
            }
        }

        return $best;
    }

    /**
     * What a height says at a place, or what lies 3 cm on both sides of it if that is higher: feet and things bridge the gap
     * between two planks. Beside the rim of a floor it is the floor's.
     *
     * @param  callable(float, float): (float|null)  $height
     */
    public static function bridged(callable $height, float $x, float $z): ?float
    {
        $best = $height($x, $z);
        $rim = null;
        foreach ([[0.03, 0.0], [0.0, 0.03]] as [$dx, $dz]) {
            [$a, $b] = [$height($x + $dx, $z + $dz), $height($x - $dx, $z - $dz)];
            $rim = max($rim, $a, $b);
            $best = $a !== null && $b !== null ? max($best, min($a, $b)) : $best;
        }

        return $best ?? $rim;
    }

    /**
     * A thing that comes nearer to a point than some metres, if any does.
     *
     * @param  array{float, float, float}  $point
     */
    public function near(array $point, float $metres): ?string
    {
        foreach ($this->things as $t) {
            $own = $t['back']->point($point);
            $isOpen = $t['wild'] !== null && $t['wild']->before($own) <= 0.0;
            if (! $isOpen && $t['tree']->isNear($own, $metres / $t['place']->scale)) {
                return $t['name'];
            }
        }

        return null;
    }

    /**
     * The first thing on the straight way between two points.
     *
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     * @return array{name: string, distance: float}|null distance from $from
     */
    public function between(array $from, array $to): ?array
    {
        $found = null;
        $way = V3::sub($to, $from);
        $share = 1.0;
        foreach ($this->things as $t) {
            $own = $t['back']->point($from);
            if ($t['wild'] !== null && $t['wild']->before($own) <= 0.0) {
                continue;
            }
            $d = V3::mul(Q4::rotate($t['back']->rotation, $way), $t['back']->scale);
            $at = $t['tree']->hit($own, $d, $share);
            if ($at !== null) {
                $share = $at;
                $found = ['name' => $t['name'], 'distance' => $at * V3::length($way)];
            }
        }

        return $found;
    }
}
