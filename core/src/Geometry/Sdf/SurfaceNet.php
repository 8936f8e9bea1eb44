<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry\Sdf;

use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\V3;

/**
 * Naive surface nets (Gibson 1998) over a sparse grid: blocks of 4^3 nodes keep only the solids that matter there,
 * and blocks far from the surface are filled with their centre's distance. Vertices are then relaxed and pulled back
 * on to the surface; normals come from the field, so coarse cells still shade smoothly.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class SurfaceNet
{
    private const BLOCK = 4;

    /** @var array<int, float> distance at each node, x fastest */
    private array $d = [];

    /** @var array<int, list<Solid>> solids kept for each block */
    private array $kept = [];

    private int $nx = 0;

    private int $ny = 0;

    private int $nz = 0;

    private int $bx = 0;

    private int $by = 0;

    private int $bz = 0;

    private function __construct(private readonly Field $field, private readonly float $cell)
    {
    }

    /** @param  float  $cell grid size in metres */
    public static function mesh(Field $field, float $cell): Surface
    {
        $net = new self($field, $cell);
        $net->sample();
        [$points, $ids] = $net->crossings();
        $quads = $net->quads($ids);

        return $net->finish($points, $quads);
    }

    private function sample(): void
    {
        $h = $this->cell;
        $low = $this->field->low;
        $high = $this->field->high;
        $b = self::BLOCK;
        $this->bx = (int) ceil((($high[0] - $low[0]) / $h + 1) / $b);
        $this->by = (int) ceil((($high[1] - $low[1]) / $h + 1) / $b);
        $this->bz = (int) ceil((($high[2] - $low[2]) / $h + 1) / $b);
        [$this->nx, $this->ny, $this->nz] = [$this->bx * $b, $this->by * $b, $this->bz * $b];
        $this->d = array_fill(0, $this->nx * $this->ny * $this->nz, 0.0);
        $radius = $h * $b * 0.5 * 1.7321;
        for ($k = 0; $k < $this->bz; $k++) {
            for ($j = 0; $j < $this->by; $j++) {
                for ($i = 0; $i < $this->bx; $i++) {
                    [$d, $solids] = $this->field->near(
                        $low[0] + ($i * $b + 1.5) * $h, $low[1] + ($j * $b + 1.5) * $h, $low[2] + ($k * $b + 1.5) * $h, $radius,
                    );
                    $this->kept[($k * $this->by + $j) * $this->bx + $i] = $solids;
                    $this->fill($i * $b, $j * $b, $k * $b, abs($d) > $radius * 1.35 + 0.004 ? $d : null, $solids);
                }
            }
        }
    }

    /** @param  list<Solid>  $solids */
    private function fill(int $x0, int $y0, int $z0, ?float $far, array $solids): void
    {
        $h = $this->cell;
        $low = $this->field->low;
        for ($z = $z0; $z < $z0 + self::BLOCK; $z++) {
            for ($y = $y0; $y < $y0 + self::BLOCK; $y++) {
                $row = ($z * $this->ny + $y) * $this->nx;
                for ($x = $x0; $x < $x0 + self::BLOCK; $x++) {
                    $this->d[$row + $x] = $far
                        ?? Field::fold($solids, $low[0] + $x * $h, $low[1] + $y * $h, $low[2] + $z * $h);
                }
            }
        }
    }

    /** @return array{list<Vec>, array<int, int>} points, and the point of each crossed cell */
    private function crossings(): array
    {
        $corner = [[0, 0, 0], [1, 0, 0], [0, 1, 0], [1, 1, 0], [0, 0, 1], [1, 0, 1], [0, 1, 1], [1, 1, 1]];
        $edges = [[0, 1], [2, 3], [4, 5], [6, 7], [0, 2], [1, 3], [4, 6], [5, 7], [0, 4], [1, 5], [2, 6], [3, 7]];
        $low = $this->field->low;
        $step = [0, 1, $this->nx, $this->nx + 1, $this->nx * $this->ny, $this->nx * $this->ny + 1,
            $this->nx * $this->ny + $this->nx, $this->nx * $this->ny + $this->nx + 1];
        $points = [];
        $ids = [];
        $d = $this->d;
        for ($z = 0; $z < $this->nz - 1; $z++) {
            for ($y = 0; $y < $this->ny - 1; $y++) {
                for ($x = 0; $x < $this->nx - 1; $x++) {
                    $at = ($z * $this->ny + $y) * $this->nx + $x;
                    $mask = 0;
                    foreach ($step as $i => $o) {
                        $mask |= $d[$at + $o] < 0.0 ? 1 << $i : 0;
                    }
                    if ($mask === 0 || $mask === 255) {
                        continue;
                    }
                    $sum = [0.0, 0.0, 0.0];
                    $count = 0;
                    foreach ($edges as [$a, $b]) {
                        $da = $d[$at + $step[$a]];
                        $db = $d[$at + $step[$b]];
                        if (($da < 0.0) !== ($db < 0.0)) {
                            $t = $da / ($da - $db);
                            for ($q = 0; $q < 3; $q++) {
                                $sum[$q] += $corner[$a][$q] + ($corner[$b][$q] - $corner[$a][$q]) * $t;
                            }
                            $count++;
                        }
                    }
                    $ids[$at] = count($points);
                    $points[] = [
                        $low[0] + ($x + $sum[0] / $count) * $this->cell,
                        $low[1] + ($y + $sum[1] / $count) * $this->cell,
                        $low[2] + ($z + $sum[2] / $count) * $this->cell,
                    ];
                }
            }
        }

        return [$points, $ids];
    }

    /**
     * @param  array<int, int>  $ids
     * @return list<array{int, int, int, int}>
     */
    private function quads(array $ids): array
    {
        $sx = 1;
        $sy = $this->nx;
        $sz = $this->nx * $this->ny;
        $quads = [];
        for ($z = 1; $z < $this->nz - 1; $z++) {
            for ($y = 1; $y < $this->ny - 1; $y++) {
                for ($x = 1; $x < $this->nx - 1; $x++) {
                    $at = ($z * $this->ny + $y) * $this->nx + $x;
                    $inside = $this->d[$at] < 0.0;
                    foreach ([[$sx, $sy, $sz], [$sy, $sz, $sx], [$sz, $sx, $sy]] as [$along, $u, $v]) {
                        if ($inside !== ($this->d[$at + $along] < 0.0)) {
                            $q = [$ids[$at - $u - $v], $ids[$at - $v], $ids[$at], $ids[$at - $u]];
                            $quads[] = $inside ? $q : [$q[3], $q[2], $q[1], $q[0]];
                        }
                    }
                }
            }
        }

        return $quads;
    }

    /**
     * @param  list<Vec>  $points
     * @param  list<array{int, int, int, int}>  $quads
     */
    private function finish(array $points, array $quads): Surface
    {
        $neighbours = array_fill(0, count($points), []);
        foreach ($quads as $q) {
            for ($i = 0; $i < 4; $i++) {
                $neighbours[$q[$i]][$q[($i + 1) % 4]] = true;
                $neighbours[$q[$i]][$q[($i + 3) % 4]] = true;
            }
        }
        $neighbours = array_map(array_keys(...), $neighbours);
        for ($pass = 0; $pass < 2; $pass++) {
            $points = $this->relaxed($points, $neighbours);
        }
        $normals = [];
        foreach ($points as $p) {
            $g = Field::gradientOf($this->solidsAt($p), $p, $this->cell * 0.22);
            $normals[] = [$g[0], $g[1], $g[2]];
        }
        $index = [];
        foreach ($quads as [$a, $b, $c, $d]) {
            $short = V3::distance($points[$a], $points[$c]) < V3::distance($points[$b], $points[$d]);
            array_push($index, ...($short ? [$a, $b, $c, $a, $c, $d] : [$a, $b, $d, $b, $c, $d]));
        }

        return new Surface($points, $normals, $index, array_values($neighbours));
    }

    /**
     * Half a Laplacian step, then one Newton step back to the surface.
     *
     * @param  list<Vec>  $points
     * @param  array<int, list<int>>  $neighbours
     * @return list<Vec>
     */
    private function relaxed(array $points, array $neighbours): array
    {
        $h = $this->cell;
        $out = [];
        foreach ($points as $i => $p) {
            $mean = [0.0, 0.0, 0.0];
            foreach ($neighbours[$i] as $j) {
                $mean = V3::add($mean, $points[$j]);
            }
            $count = count($neighbours[$i]);
            if ($count > 0) {
                $p = V3::mix($p, V3::mul($mean, 1 / $count), 0.5);
            }
            $g = Field::gradientOf($this->solidsAt($p), $p, $h * 0.08);
            $d = max(-$h, min($h, $g[3])) * 0.95;
            $out[] = [$p[0] - $g[0] * $d, $p[1] - $g[1] * $d, $p[2] - $g[2] * $d];
        }

        return $out;
    }

    /**
     * @param  Vec  $p
     * @return list<Solid>
     */
    private function solidsAt(array $p): array
    {
        $low = $this->field->low;
        $size = $this->cell * self::BLOCK;
        $i = max(0, min($this->bx - 1, (int) floor(($p[0] - $low[0]) / $size)));
        $j = max(0, min($this->by - 1, (int) floor(($p[1] - $low[1]) / $size)));
        $k = max(0, min($this->bz - 1, (int) floor(($p[2] - $low[2]) / $size)));

        return $this->kept[($k * $this->by + $j) * $this->bx + $i];
    }
}
