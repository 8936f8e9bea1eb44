<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\V3;

/**
 * A surface as it is seen along a direction: a map of heights over a plane, its cells filled from the triangles. Told from it:
 * how far a point is above the surface, and which way the surface looks.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Relief
{
    private const CELL = 0.008;

    /** @var Vec */
    private readonly array $u;

    /** @var Vec */
    private readonly array $v;

    /** @var array<int, float> heights by cell */
    private array $heights = [];

    private readonly int $side;

    /**
     * @param  array<int, Vec>  $points
     * @param  list<array{int, int, int}>  $triangles
     * @param  Vec  $centre  of the map
     * @param  Vec  $out  unit, from the surface to whoever looks
     * @param  float  $half  metres from the centre to an edge of the map
     * @param  float  $deep  metres below the centre beyond which nothing counts
     */
    public function __construct(
        array $points,
        array $triangles,
        private readonly array $centre,
        private readonly array $out,
        private readonly float $half = 0.18,
        float $deep = 0.4,
    ) {
        $this->u = V3::across(abs($out[1]) < 0.9 ? [0.0, 1.0, 0.0] : [1.0, 0.0, 0.0], $out);
        $this->v = V3::cross($out, $this->u);
        $this->side = (int) ceil(2 * $half / self::CELL) + 1;
        $flat = array_map($this->flat(...), $points);
        $edge = $half + 0.03;
        foreach ($triangles as [$a, $b, $c]) {
            [$pa, $pb, $pc] = [$flat[$a], $flat[$b], $flat[$c]];
            if (max($pa[2], $pb[2], $pc[2]) < -$deep || abs($pa[0]) > $edge || abs($pa[1]) > $edge) {
                continue;
            }
            $this->fill($pa, $pb, $pc);
        }
    }

    /**
     * @param  Vec  $p
     * @return Vec aside, up, out of the map's plane
     */
    private function flat(array $p): array
    {
        $d = V3::sub($p, $this->centre);

        return [V3::dot($d, $this->u), V3::dot($d, $this->v), V3::dot($d, $this->out)];
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     * @param  Vec  $c
     */
    private function fill(array $a, array $b, array $c): void
    {
        $area = ($b[0] - $a[0]) * ($c[1] - $a[1]) - ($b[1] - $a[1]) * ($c[0] - $a[0]);
        foreach ([$a, $b, $c] as $p) {
            $this->raise((int) round(($p[0] + $this->half) / self::CELL), (int) round(($p[1] + $this->half) / self::CELL), $p[2]);
        }
        if (abs($area) < 1e-9) {
            return;
        }
        $from = static fn (float $x): int => (int) ceil($x / self::CELL);
        $h = $this->half;
        for ($i = $from(min($a[0], $b[0], $c[0]) + $h), $ie = $from(max($a[0], $b[0], $c[0]) + $h); $i < $ie; $i++) {
            for ($j = $from(min($a[1], $b[1], $c[1]) + $h), $je = $from(max($a[1], $b[1], $c[1]) + $h); $j < $je; $j++) {
                [$x, $y] = [$i * self::CELL - $h, $j * self::CELL - $h];
                $s = (($x - $a[0]) * ($c[1] - $a[1]) - ($y - $a[1]) * ($c[0] - $a[0])) / $area;
                $t = (($b[0] - $a[0]) * ($y - $a[1]) - ($b[1] - $a[1]) * ($x - $a[0])) / $area;
                if ($s >= -1e-6 && $t >= -1e-6 && $s + $t <= 1.000001) {
                    $this->raise($i, $j, $a[2] + $s * ($b[2] - $a[2]) + $t * ($c[2] - $a[2]));
                }
            }
        }
    }

    private function raise(int $i, int $j, float $height): void
    {
        if ($i >= 0 && $j >= 0 && $i < $this->side && $j < $this->side) {
            $k = $i * $this->side + $j;
            $this->heights[$k] = max($this->heights[$k] ?? -INF, $height);
        }
    }

    /** Height of the surface over the map's plane; null where there is none. */
    public function height(float $x, float $y): ?float
    {
        $i = (int) round(($x + $this->half) / self::CELL);
        $j = (int) round(($y + $this->half) / self::CELL);

        return $i < 0 || $j < 0 || $i >= $this->side || $j >= $this->side ? null : $this->heights[$i * $this->side + $j] ?? null;
    }

    /**
     * Metres by which a point is above the surface; null beside it.
     *
     * @param  Vec  $p
     */
    public function above(array $p): ?float
    {
        [$x, $y, $z] = $this->flat($p);
        $h = $this->height($x, $y);

        return $h === null ? null : $z - $h;
    }

    /**
     * The least of it, of several points; null when all are beside the surface.
     *
     * @param  array<int, Vec>  $points
     */
    public function least(array $points): ?float
    {
        $least = null;
        foreach ($points as $p) {
            $h = $this->above($p);
            $least = $h === null ? $least : min($least ?? INF, $h);
        }

        return $least;
    }

    /** @return Vec the surface at the map's centre, or at the place nearest to it where there is one */
    public function point(): array
    {
        $best = [INF, 0.0, 0.0, 0.0];
        foreach ($this->heights as $k => $h) {
            $x = intdiv($k, $this->side) * self::CELL - $this->half;
            $y = ($k % $this->side) * self::CELL - $this->half;
            if ($x * $x + $y * $y < $best[0]) {
                $best = [$x * $x + $y * $y, $x, $y, $h];
            }
        }

        return V3::addScaled(V3::addScaled(V3::addScaled($this->centre, $this->u, $best[1]), $this->v, $best[2]), $this->out, $best[3]);
    }

    /**
     * Which way the surface looks about the centre: the normal of the plane that fits the heights within a radius best (least squares).
     *
     * @return Vec unit
     */
    public function normal(float $radius = 0.05): array
    {
        $n = $sx = $sy = $sz = $xx = $yy = $xy = $xz = $yz = 0.0;
        foreach ($this->heights as $k => $h) {
            $x = intdiv($k, $this->side) * self::CELL - $this->half;
            $y = ($k % $this->side) * self::CELL - $this->half;
            if ($x * $x + $y * $y <= $radius * $radius) {
                $n++;
                [$sx, $sy, $sz] = [$sx + $x, $sy + $y, $sz + $h];
                [$xx, $yy, $xy, $xz, $yz] = [$xx + $x * $x, $yy + $y * $y, $xy + $x * $y, $xz + $x * $h, $yz + $y * $h];
            }
        }
        if ($n < 4) {
            return $this->out;
        }
        [$xx, $yy, $xy] = [$xx - $sx * $sx / $n, $yy - $sy * $sy / $n, $xy - $sx * $sy / $n];
        [$xz, $yz] = [$xz - $sx * $sz / $n, $yz - $sy * $sz / $n];
        $det = $xx * $yy - $xy * $xy;
        if (abs($det) < 1e-12) {
            return $this->out;
        }
        $a = ($xz * $yy - $yz * $xy) / $det;
        $b = ($yz * $xx - $xz * $xy) / $det;

        return V3::unit(V3::addScaled(V3::addScaled($this->out, $this->u, -$a), $this->v, -$b));
    }
}
