<?php

declare(strict_types=1);

namespace CrispReel\Core\Cloth;

use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Placement;

/**
 * Position-based cloth with compliance (Macklin, Müller and Chentanez 2016), many small steps of one pass each (Macklin et
 * al. 2019): threads, braces, hinges (isometric bending of Bergou et al. 2006), pins, tethers to the pins (Kim, Chentanez and
 * Müller 2012), wind on the triangles, capsules and a floor with friction. Steps are fixed, so the same
 * input gives the same bytes.
 */
final class ClothSolver
{
    /** Steps a second. */
    public const STEPS = 120;

    private const GRAVITY = 9.81;

    /** Metres that cloth keeps from what it lies on. */
    private const THICK = 0.008;

    private const FRICTION = 0.3;

    /** Metres by which a free particle starts off its place. */
    private const UNEVEN = 0.002;

    /** Metres a newton by which a thread gives; braces give by the fabric. */
    private const GIVE = 1e-6;

    /** Air's weight times drag of a sheet: kg/m3. */
    private const AIR = 1.2 * 1.1;

    /** @var array<int, float> places, 3 a particle, in the world */
    public array $x;

    /** @var array<int, float> metres a second */
    public array $v;

    /** @var list<float> inverse masses; 0 where fixed */
    private array $w = [];

    /** @var list<float> lengths of threads, then of braces */
    private array $lengths = [];

    /** Times that hinges are brought home in a step: with one, a sheet of leather hangs like wool. */
    private const PASSES = 4;

    private readonly Hinges $hinges;

    /** @param  list<float>  $start  3 a particle, in the world */
    public function __construct(private readonly Fabric $fabric, array $start, private readonly float $scale = 1.0)
    {
        $this->x = $start;
        $this->v = array_fill(0, count($start), 0.0);
        foreach ($fabric->mass as $p => $m) {
            $this->w[] = $fabric->pins[$p] >= 1.0 ? 0.0 : 1 / ($m * $scale * $scale);
            // A sheet that lies in one plane to the last bit would stand in it like card.
            for ($k = 0; $k < 3 && $this->w[$p] > 0.0; $k++) {
                $this->x[3 * $p + $k] += self::UNEVEN * (Noise::hash(3 * $p + $k) - 0.5);
            }
        }
        $this->hinges = Hinges::of($fabric, $scale);
        $r = $fabric->rest;
        foreach ([$fabric->threads, $fabric->braces] as $pairs) {
            for ($i = 0, $n = count($pairs); $i < $n; $i += 2) {
                [$a, $b] = [3 * $pairs[$i], 3 * $pairs[$i + 1]];
                $this->lengths[] = $scale * sqrt(($r[$a] - $r[$b]) ** 2 + ($r[$a + 1] - $r[$b + 1]) ** 2 + ($r[$a + 2] - $r[$b + 2]) ** 2);
            }
        }
    }

    /**
     * Goes on by a number of fixed steps.
     *
     * @param  list<float>  $from  where pins are at the beginning: 3 numbers for every particle
     * @param  list<float>  $to  and at the end
     * @param  list<float>  $wind  at every particle, metres a second
     * @param  list<array{float, float, float, float, float, float, float}>  $bodies  capsules at the beginning: two ends, radius
     * @param  list<array{float, float, float, float, float, float, float}>  $bodiesTo  and at the end
     */
    public function advance(
        int $steps, array $from, array $to, array $wind, array $bodies = [], array $bodiesTo = [], float $floor = -INF,
    ): void {
        $near = $this->near($bodies, $bodiesTo);
        $passes = $this->hinges->none() ? 1 : self::PASSES;
        for ($s = 1; $s <= $steps; $s++) {
            $u = $s / $steps;
            $this->blow($wind);
            $before = $this->move();
            $this->pin($from, $to, $u);
            $this->tether();
            $this->hold($this->fabric->threads, 0, self::GIVE);
            $this->hold(
                $this->fabric->braces,
                intdiv(count($this->fabric->threads), 2),
                0.5 * (1 - $this->fabric->bend) ** 4 / max(1e-3, $this->fabric->bend) * 1e-2,
            );
            for ($pass = 0; $pass < $passes; $pass++) {
                $this->x = $this->hinges->bent($this->x, $this->w);
                $this->hold($this->fabric->threads, 0, self::GIVE);
            }
            foreach ($near as $b => $particles) {
                [$p, $q] = [$bodies[$b], $bodiesTo[$b]];
                $was = $u - 1 / $steps;
                $at = $moved = [];
                for ($k = 0; $k < 6; $k++) {
                    $at[] = $p[$k] + ($q[$k] - $p[$k]) * $u;
                    $moved[] = ($q[$k] - $p[$k]) * ($u - $was);
                }
                $this->keepOut($particles, $at, $moved, $p[6], $before);
            }
            $this->stand($floor, $before);
            $rate = (float) self::STEPS;
            foreach ($this->x as $i => $x) {
                $this->v[$i] = ($x - $before[$i]) * $rate;
            }
        }
    }

    /** @param  list<float>  $wind */
    private function blow(array $wind): void
    {
        $air = self::AIR * $this->fabric->catch;
        $x = $this->x;
        $v = $this->v;
        $w = $this->w;
        $t = $this->fabric->triangles;
        $dt = 1 / self::STEPS;
        for ($i = 0, $n = count($t); $i < $n; $i += 3) {
            [$a, $b, $c] = [3 * $t[$i], 3 * $t[$i + 1], 3 * $t[$i + 2]];
            $ex = $x[$b] - $x[$a];
            $ey = $x[$b + 1] - $x[$a + 1];
            $ez = $x[$b + 2] - $x[$a + 2];
            $fx = $x[$c] - $x[$a];
            $fy = $x[$c + 1] - $x[$a + 1];
            $fz = $x[$c + 2] - $x[$a + 2];
            $nx = $ey * $fz - $ez * $fy;
            $ny = $ez * $fx - $ex * $fz;
            $nz = $ex * $fy - $ey * $fx;
            $twice = sqrt($nx * $nx + $ny * $ny + $nz * $nz);
            if ($twice < 1e-9) {
                continue;
            }
            $rx = ($wind[$a] + $wind[$b] + $wind[$c] - $v[$a] - $v[$b] - $v[$c]) / 3;
            $ry = ($wind[$a + 1] + $wind[$b + 1] + $wind[$c + 1] - $v[$a + 1] - $v[$b + 1] - $v[$c + 1]) / 3;
            $rz = ($wind[$a + 2] + $wind[$b + 2] + $wind[$c + 2] - $v[$a + 2] - $v[$b + 2] - $v[$c + 2]) / 3;
            $across = ($rx * $nx + $ry * $ny + $rz * $nz) / $twice;
            // Pressure along the normal, a tenth of it as drag along the sheet; per corner a third of the area.
            $push = $air / 2 * abs($across) * $across / 6 * $dt;
            $drag = 0.05 * $air / 2 * $twice * sqrt($rx * $rx + $ry * $ry + $rz * $rz) / 6 * $dt;
            // The air never makes cloth faster than itself.
            $most = abs($across) / $twice;
            for ($e = 0; $e < 3; $e++) {
                $q = $t[$i + $e];
                $p = 3 * $q;
                $m = $w[$q];
                $k = $push * $m;
                $k = $k > $most ? $most : ($k < -$most ? -$most : $k);
                $d = $drag * $m;
                $d = $d > 1.0 ? 1.0 : $d;
                $v[$p] += $k * $nx + $d * $rx;
                $v[$p + 1] += $k * $ny + $d * $ry;
                $v[$p + 2] += $k * $nz + $d * $rz;
            }
        }
        $this->v = $v;
    }

    /** @return array<int, float> where everything was */
    private function move(): array
    {
        $before = $this->x;
        $dt = 1 / self::STEPS;
        $keep = (1 - $this->fabric->damping) ** $dt;
        $fall = self::GRAVITY * $dt;
        foreach ($this->w as $p => $w) {
            if ($w > 0.0) {
                $i = 3 * $p;
                $this->x[$i] += $this->v[$i] * $keep * $dt;
                $this->x[$i + 1] += ($this->v[$i + 1] * $keep - $fall) * $dt;
                $this->x[$i + 2] += $this->v[$i + 2] * $keep * $dt;
            }
        }

        return $before;
    }

    /**
     * @param  list<float>  $from
     * @param  list<float>  $to
     */
    private function pin(array $from, array $to, float $u): void
    {
        foreach ($this->fabric->pins as $p => $weight) {
            if ($weight <= 0.0) {
                continue;
            }
            // A pin of less than full weight is a soft pull: its compliance falls with the weight.
            $share = $weight >= 1.0 ? 1.0 : $this->w[$p] / ($this->w[$p] + 2e-3 * (1 - $weight) / $weight * self::STEPS ** 2);
            for ($k = 0, $i = 3 * $p; $k < 3; $k++, $i++) {
                $this->x[$i] += ($from[$i] + ($to[$i] - $from[$i]) * $u - $this->x[$i]) * $share;
            }
        }
    }

    /** No particle is farther from its pin than along the threads, but for a hundredth. */
    private function tether(): void
    {
        foreach ($this->fabric->tethers as $p => [$pin, $most]) {
            $i = 3 * $p;
            $j = 3 * $pin;
            $dx = $this->x[$i] - $this->x[$j];
            $dy = $this->x[$i + 1] - $this->x[$j + 1];
            $dz = $this->x[$i + 2] - $this->x[$j + 2];
            $d2 = $dx * $dx + $dy * $dy + $dz * $dz;
            $most *= 1.01 * $this->scale;
            if ($d2 > $most * $most) {
                $k = $most / sqrt($d2) - 1.0;
                $this->x[$i] += $k * $dx;
                $this->x[$i + 1] += $k * $dy;
                $this->x[$i + 2] += $k * $dz;
            }
        }
    }

    /** @param  list<int>  $pairs */
    private function hold(array $pairs, int $first, float $compliance): void
    {
        $x = $this->x;
        $w = $this->w;
        $soft = $compliance * self::STEPS ** 2;
        $lengths = $this->lengths;
        for ($i = 0, $n = count($pairs); $i < $n; $i += 2, $first++) {
            $p = $pairs[$i];
            $q = $pairs[$i + 1];
            $wp = $w[$p];
            $wq = $w[$q];
            $sum = $wp + $wq;
            if ($sum <= 0.0) {
                continue;
            }
            $a = 3 * $p;
            $b = 3 * $q;
            $dx = $x[$a] - $x[$b];
            $dy = $x[$a + 1] - $x[$b + 1];
            $dz = $x[$a + 2] - $x[$b + 2];
            $d = sqrt($dx * $dx + $dy * $dy + $dz * $dz);
            if ($d < 1e-9) {
                continue;
            }
            $k = ($lengths[$first] - $d) / ($d * ($sum + $soft));
            $kp = $k * $wp;
            $kq = $k * $wq;
            $x[$a] += $kp * $dx;
            $x[$a + 1] += $kp * $dy;
            $x[$a + 2] += $kp * $dz;
            $x[$b] -= $kq * $dx;
            $x[$b + 1] -= $kq * $dy;
            $x[$b + 2] -= $kq * $dz;
        }
        $this->x = $x;
    }

    /**
     * Which particles a capsule can meet in this stretch.
     *
     * @param  list<array{float, float, float, float, float, float, float}>  $bodies
     * @param  list<array{float, float, float, float, float, float, float}>  $bodiesTo
     * @return array<int, list<int>>
     */
    private function near(array $bodies, array $bodiesTo): array
    {
        $out = [];
        foreach ($bodies as $b => $c) {
            $to = $bodiesTo[$b];
            $found = [];
            $reach = $c[6] + 0.15;
            foreach ($this->w as $p => $w) {
                if ($w <= 0.0) {
                    continue;
                }
                $i = 3 * $p;
                $inside = true;
                for ($k = 0; $k < 3 && $inside; $k++) {
                    $x = $this->x[$i + $k];
                    $inside = $x > min($c[$k], $c[$k + 3], $to[$k], $to[$k + 3]) - $reach
                        && $x < max($c[$k], $c[$k + 3], $to[$k], $to[$k + 3]) + $reach;
                }
                if ($inside) {
                    $found[] = $p;
                }
            }
            if ($found !== []) {
                $out[$b] = $found;
            }
        }

        return $out;
    }

    /**
     * @param  list<int>  $particles
     * @param  list<float>  $at  two ends
     * @param  list<float>  $moved  of the two ends in this step
     * @param  array<int, float>  $before
     */
    private function keepOut(array $particles, array $at, array $moved, float $radius, array $before): void
    {
        [$ax, $ay, $az, $bx, $by, $bz] = $at;
        [$sx, $sy, $sz] = [$bx - $ax, $by - $ay, $bz - $az];
        $length = max(1e-12, $sx * $sx + $sy * $sy + $sz * $sz);
        $keep = $radius + self::THICK;
        foreach ($particles as $p) {
            $i = 3 * $p;
            $dx = $this->x[$i] - $ax;
            $dy = $this->x[$i + 1] - $ay;
            $dz = $this->x[$i + 2] - $az;
            $t = ($dx * $sx + $dy * $sy + $dz * $sz) / $length;
            $t = $t < 0.0 ? 0.0 : ($t > 1.0 ? 1.0 : $t);
            $dx -= $t * $sx;
            $dy -= $t * $sy;
            $dz -= $t * $sz;
            $d2 = $dx * $dx + $dy * $dy + $dz * $dz;
            if ($d2 >= $keep * $keep) {
                continue;
            }
            $d = sqrt($d2);
            if ($d < 1e-9) {
                [$dx, $dy, $dz, $d] = [0.0, 1.0, 0.0, 1.0];
            }
            $out = ($d2 < 1e-18 ? $keep : $keep - $d) / $d;
            $this->x[$i] += $out * $dx;
            $this->x[$i + 1] += $out * $dy;
            $this->x[$i + 2] += $out * $dz;
            $this->rub(
                $i, $dx / $d, $dy / $d, $dz / $d, $before, $moved[0] + ($moved[3] - $moved[0]) * $t,
                $moved[1] + ($moved[4] - $moved[1]) * $t, $moved[2] + ($moved[5] - $moved[2]) * $t,
            );
        }
    }

    /**
     * Friction takes part of the way made along a surface, as seen from that surface.
     *
     * @param  array<int, float>  $before
     */
    private function rub(int $i, float $nx, float $ny, float $nz, array $before, float $mx, float $my, float $mz): void
    {
        $dx = $this->x[$i] - $before[$i] - $mx;
        $dy = $this->x[$i + 1] - $before[$i + 1] - $my;
        $dz = $this->x[$i + 2] - $before[$i + 2] - $mz;
        $along = $dx * $nx + $dy * $ny + $dz * $nz;
        $this->x[$i] -= self::FRICTION * ($dx - $along * $nx);
        $this->x[$i + 1] -= self::FRICTION * ($dy - $along * $ny);
        $this->x[$i + 2] -= self::FRICTION * ($dz - $along * $nz);
    }

    /** @param  array<int, float>  $before */
    private function stand(float $floor, array $before): void
    {
        $least = $floor + self::THICK;
        foreach ($this->w as $p => $w) {
            $i = 3 * $p;
            if ($w > 0.0 && $this->x[$i + 1] < $least) {
                $this->x[$i + 1] = $least;
                $this->rub($i, 0.0, 1.0, 0.0, $before, 0.0, 0.0, 0.0);
            }
        }
    }

    /** Takes everything along with a sudden change of place, so that a cut is no gust. */
    public function carryAlong(Placement $shift): void
    {
        for ($i = 0, $n = count($this->x); $i < $n; $i += 3) {
            [$this->x[$i], $this->x[$i + 1], $this->x[$i + 2]] = $shift->point([$this->x[$i], $this->x[$i + 1], $this->x[$i + 2]]);
            $this->v[$i] = $this->v[$i + 1] = $this->v[$i + 2] = 0.0;
        }
    }
}
