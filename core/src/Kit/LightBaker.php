<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit;

/**
 * Occlusion and lamp light in vertices: everything is marked in a voxel grid, then 28 cosine-distributed rays leave each
 * vertex, and one ray goes to each lamp. Costs nothing when drawn. A lamp's power falls with the square of the distance (metres) on top
 * of `soft` square metres, by which it is no point.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Lamp array{at: Vec, power: float, reach: float, near: float, facing?: Vec, soft?: float}
 */
final class LightBaker
{
    private const RAYS = 28;

    private const REACH = 0.75;

    /** @var array{int, int, int} */
    private array $n;

    private string $filled;

    /**
     * @param  Vec  $low
     * @param  Vec  $high
     */
    public function __construct(private readonly array $low, array $high, private readonly float $cell = 0.045)
    {
        $this->n = [
            (int) ceil(($high[0] - $low[0]) / $cell), (int) ceil(($high[1] - $low[1]) / $cell), (int) ceil(($high[2] - $low[2]) / $cell),
        ];
        $this->filled = str_repeat("\0", $this->n[0] * $this->n[1] * $this->n[2]);
    }

    /** Marks the cells that a piece's triangles pass through; what glows does not block. */
    public function fill(Piece $piece): void
    {
        $p = $piece->positions;
        $step = $this->cell * 0.7;
        for ($t = 0, $count = count($piece->index); $t < $count; $t += 3) {
            $a = $piece->index[$t] * 3;
            $b = $piece->index[$t + 1] * 3;
            $c = $piece->index[$t + 2] * 3;
            if ($piece->surface[$a + 1] > 0.5) {
                continue;
            }
            [$ux, $uy, $uz] = [$p[$b] - $p[$a], $p[$b + 1] - $p[$a + 1], $p[$b + 2] - $p[$a + 2]];
            [$vx, $vy, $vz] = [$p[$c] - $p[$a], $p[$c + 1] - $p[$a + 1], $p[$c + 2] - $p[$a + 2]];
            $n = max(1, (int) ceil(sqrt(max($ux * $ux + $uy * $uy + $uz * $uz, $vx * $vx + $vy * $vy + $vz * $vz)) / $step));
            for ($i = 0; $i <= $n; $i++) {
                for ($j = 0; $j <= $n - $i; $j++) {
                    $s = $i / $n;
                    $q = $j / $n;
                    $this->mark($p[$a] + $ux * $s + $vx * $q, $p[$a + 1] + $uy * $s + $vy * $q, $p[$a + 2] + $uz * $s + $vz * $q);
                }
            }
        }
    }

    private function mark(float $x, float $y, float $z): void
    {
        $i = (int) floor(($x - $this->low[0]) / $this->cell);
        $j = (int) floor(($y - $this->low[1]) / $this->cell);
        $k = (int) floor(($z - $this->low[2]) / $this->cell);
        if ($i >= 0 && $j >= 0 && $k >= 0 && $i < $this->n[0] && $j < $this->n[1] && $k < $this->n[2]) {
            $this->filled[($k * $this->n[1] + $j) * $this->n[0] + $i] = "\1";
        }
    }

    /**
     * @param  list<Lamp>  $lampsA
     * @param  list<Lamp>  $lampsB
     * @param  float|null  $floor  a ground that occludes from below
     */
    public function bake(Piece $piece, array $lampsA = [], array $lampsB = [], ?float $floor = null): void
    {
        $rays = self::rays();
        $out = [];
        for ($v = 0, $count = $piece->points(); $v < $count; $v++) {
            $p = [$piece->positions[3 * $v], $piece->positions[3 * $v + 1], $piece->positions[3 * $v + 2]];
            $n = [$piece->normals[3 * $v], $piece->normals[3 * $v + 1], $piece->normals[3 * $v + 2]];
            // What a room goes on with is drawn where the walls between it and the lamps are away.
            $isFree = $piece->isBeyond($v);
            $out[] = $isFree ? 1.0 : $this->open($p, $n, $rays, $floor);
            $out[] = $this->lit($p, $n, $lampsA, $isFree);
            $out[] = $this->lit($p, $n, $lampsB, $isFree);
        }
        $piece->bake($out);
    }

    /** @return list<Vec> cosine-weighted directions about +z, golden-angle spiral */
    private static function rays(): array
    {
        $out = [];
        for ($i = 0; $i < self::RAYS; $i++) {
            $z = sqrt(($i + 0.5) / self::RAYS);
            $r = sqrt(1 - $z * $z);
            $out[] = [$r * cos($i * 2.399963), $r * sin($i * 2.399963), $z];
        }

        return $out;
    }

    /**
     * Share of the sky a point sees, 0 to 1.
     *
     * @param  Vec  $p
     * @param  Vec  $n
     * @param  list<Vec>  $rays
     */
    private function open(array $p, array $n, array $rays, ?float $floor): float
    {
        [$tx, $ty, $tz] = abs($n[1]) < 0.9 ? [$n[2], 0.0, -$n[0]] : [0.0, -$n[2], $n[1]];
        $l = sqrt($tx * $tx + $ty * $ty + $tz * $tz) ?: 1.0;
        $tx /= $l;
        $ty /= $l;
        $tz /= $l;
        $bx = $n[1] * $tz - $n[2] * $ty;
        $by = $n[2] * $tx - $n[0] * $tz;
        $bz = $n[0] * $ty - $n[1] * $tx;
        $c = $this->cell;
        // Cell coordinates: one multiplication less in the innermost loop.
        $sx = ($p[0] + $n[0] * $c * 1.6 - $this->low[0]) / $c;
        $sy = ($p[1] + $n[1] * $c * 1.6 - $this->low[1]) / $c;
        $sz = ($p[2] + $n[2] * $c * 1.6 - $this->low[2]) / $c;
        $ground = $floor === null ? -1e9 : ($floor - $this->low[1]) / $c;
        $end = self::REACH / $c;
        [$nx, $ny, $nz] = $this->n;
        $filled = $this->filled;
        $hidden = 0.0;
        foreach ($rays as $d) {
            $dx = $tx * $d[0] + $bx * $d[1] + $n[0] * $d[2];
            $dy = $ty * $d[0] + $by * $d[1] + $n[1] * $d[2];
            $dz = $tz * $d[0] + $bz * $d[1] + $n[2] * $d[2];
            for ($t = 0.6; $t < $end; $t += 1.1) {
                $y = $sy + $dy * $t;
                if ($y < $ground) {
                    $hidden += 1 - 0.75 * $t / $end;
                    break;
                }
                $i = (int) ($sx + $dx * $t);
                $j = (int) $y;
                $k = (int) ($sz + $dz * $t);
                if ($i >= 0 && $j >= 0 && $k >= 0 && $i < $nx && $j < $ny && $k < $nz && $filled[($k * $ny + $j) * $nx + $i] === "\1") {
                    $hidden += 1 - 0.75 * $t / $end;
                    break;
                }
            }
        }

        return max(0.0, 1 - $hidden / self::RAYS) ** 1.25;
    }

    /**
     * @param  Vec  $p
     * @param  Vec  $n
     * @param  list<Lamp>  $lamps
     */
    private function lit(array $p, array $n, array $lamps, bool $isFree): float
    {
        $sum = 0.0;
        foreach ($lamps as $lamp) {
            $ex = $lamp['at'][0] - $p[0];
            $ey = $lamp['at'][1] - $p[1];
            $ez = $lamp['at'][2] - $p[2];
            $d = sqrt($ex * $ex + $ey * $ey + $ez * $ez);
            if ($d > $lamp['reach'] || $d < 1e-4) {
                continue;
            }
            $facing = max(0.0, (($n[0] * $ex + $n[1] * $ey + $n[2] * $ez) / $d + 0.15) / 1.15);
            if (isset($lamp['facing'])) {
                $f = $lamp['facing'];
                $facing *= max(0.0, -($ex * $f[0] + $ey * $f[1] + $ez * $f[2]) / $d);
            }
            if ($facing <= 0.0 || ! $isFree && $this->blocked($p, $n, $ex / $d, $ey / $d, $ez / $d, $d - $lamp['near'])) {
                continue;
            }
            $fade = 1 - $d / $lamp['reach'];
            $sum += $lamp['power'] * $facing * $fade * $fade / (($lamp['soft'] ?? 0.12) + $d * $d);
        }

        return $sum;
    }

    /**
     * @param  Vec  $p
     * @param  Vec  $n
     */
    private function blocked(array $p, array $n, float $dx, float $dy, float $dz, float $distance): bool
    {
        $c = $this->cell;
        for ($t = $c; $t < $distance; $t += $c * 1.4) {
            $i = (int) floor(($p[0] + $n[0] * $c * 1.6 + $dx * $t - $this->low[0]) / $c);
            $j = (int) floor(($p[1] + $n[1] * $c * 1.6 + $dy * $t - $this->low[1]) / $c);
            $k = (int) floor(($p[2] + $n[2] * $c * 1.6 + $dz * $t - $this->low[2]) / $c);
            if ($i >= 0 && $j >= 0 && $k >= 0 && $i < $this->n[0] && $j < $this->n[1] && $k < $this->n[2]
                && $this->filled[($k * $this->n[1] + $j) * $this->n[0] + $i] === "\1") {
                return true;
            }
        }

        return false;
    }
}
