<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Fitting;

/**
 * A body in small cubes: which of them it fills, and how far it is through it from a line to each of them. The surface may
 * have holes smaller than a cube.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class VoxelBody
{
    /** Cubes over the height. */
    private const FINE = 88;

    /** Filled cubes at most, more or less. */
    private const MOST = 50_000;

    /** Points of the skin that are looked at in one go. */
    private const MOST_SAMPLES = 4e6;

    /** Steps to the 26 neighbours cost 3, 4 and 5 (Borgefors 1986): at most a twelfth off. */
    private const COSTS = [0, 3, 4, 5];

    /** @var list<int> */
    public readonly array $size;

    /** @var array<int, true> cubes that are filled, by number */
    private array $filled = [];

    /** @var list<array{int, int}> steps to the neighbours and their costs */
    private array $steps = [];

    /**
     * @param  Vec  $low
     * @param  float  $cube  metres
     * @param  Vec  $high
     */
    private function __construct(public readonly array $low, public readonly array $high, public readonly float $cube)
    {
        $this->size = array_map(static fn (int $k): int => (int) ceil(($high[$k] - $low[$k]) / $cube) + 5, [0, 1, 2]);
        foreach ([-1, 0, 1] as $x) {
            foreach ([-1, 0, 1] as $y) {
                foreach ([-1, 0, 1] as $z) {
                    if ($x !== 0 || $y !== 0 || $z !== 0) {
                        $this->steps[] = [$x + $this->size[0] * ($y + $this->size[1] * $z), self::COSTS[abs($x) + abs($y) + abs($z)]];
                    }
                }
            }
        }
    }

    /** @param  non-empty-list<array{positions: list<float>, index: list<int>}>  $surfaces  in the world, metres */
    public static function of(array $surfaces): self
    {
        [$low, $high] = [[INF, INF, INF], [-INF, -INF, -INF]];
        foreach ($surfaces as $s) {
            foreach (array_chunk($s['positions'], 3) as $p) {
                for ($k = 0; $k < 3; $k++) {
                    $low[$k] = min($low[$k], $p[$k]);
                    $high[$k] = max($high[$k], $p[$k]);
                }
            }
        }
        $tall = max(1e-6, $high[1] - $low[1]);
        // Wide things get larger cubes, so that there are never more than about 300,000.
        $cube = max($tall / self::FINE, (max(1e-6, $high[0] - $low[0]) * $tall * max(1e-6, $high[2] - $low[2]) / 3e5) ** (1 / 3));
        $body = self::filled($surfaces, $low, $high, $cube);
        // A person fills about 25,000; a bulky thing needs no more.
        $many = count($body->filled) / self::MOST;

        return $many > 1.0 ? self::filled($surfaces, $low, $high, $cube * $many ** (1 / 3)) : $body;
    }

    /**
     * @param  non-empty-list<array{positions: list<float>, index: list<int>}>  $surfaces
     * @param  Vec  $low
     * @param  Vec  $high
     */
    private static function filled(array $surfaces, array $low, array $high, float $cube): self
    {
        $body = new self($low, $high, $cube);
        $skin = [];
        $step = 0.7 * $cube;
        $samples = array_sum(array_map(static fn (array $s): float => self::samples($s['positions'], $s['index'], $step), $surfaces));
        // A body's skin takes some hundred thousand. What takes more lies in many layers, and is none.
        $step *= max(1.0, sqrt($samples / self::MOST_SAMPLES));
        foreach ($surfaces as $s) {
            $skin += $body->skin($s['positions'], $s['index'], $step);
        }
        $body->fill($skin);

        return $body;
    }

    public function height(): float
    {
        return $this->high[1] - $this->low[1];
    }

    /**
     * @param  list<float>  $p
     * @param  list<int>  $index
     * @return array<int, true>
     */
    private function skin(array $p, array $index, float $step): array
    {
        $out = [];
        for ($t = 0, $n = count($index) - 2; $t < $n; $t += 3) {
            [$a, $b, $c] = [3 * $index[$t], 3 * $index[$t + 1], 3 * $index[$t + 2]];
            [$ax, $ay, $az] = [$p[$a], $p[$a + 1], $p[$a + 2]];
            [$ux, $uy, $uz] = [$p[$b] - $ax, $p[$b + 1] - $ay, $p[$b + 2] - $az];
            [$vx, $vy, $vz] = [$p[$c] - $ax, $p[$c + 1] - $ay, $p[$c + 2] - $az];
            $m = (int) ceil(sqrt(max(
                $ux * $ux + $uy * $uy + $uz * $uz,
                $vx * $vx + $vy * $vy + $vz * $vz,
                ($ux - $vx) ** 2 + ($uy - $vy) ** 2 + ($uz - $vz) ** 2,
            )) / $step);
            $m = max(1, min(400, $m));
            for ($i = 0; $i <= $m; $i++) {
                for ($j = 0; $j <= $m - $i; $j++) {
                    $out[$this->at(
                        $ax + ($ux * $i + $vx * $j) / $m,
                        $ay + ($uy * $i + $vy * $j) / $m,
                        $az + ($uz * $i + $vz * $j) / $m,
                    )] = true;
                }
            }
        }

        return $out;
    }

    /**
     * Points that skin() would look at.
     *
     * @param  list<float>  $p
     * @param  list<int>  $index
     */
    private static function samples(array $p, array $index, float $step): float
    {
        $sum = 0.0;
        for ($t = 0, $n = count($index) - 2; $t < $n; $t += 3) {
            [$a, $b, $c] = [3 * $index[$t], 3 * $index[$t + 1], 3 * $index[$t + 2]];
            $long = max(
                ($p[$b] - $p[$a]) ** 2 + ($p[$b + 1] - $p[$a + 1]) ** 2 + ($p[$b + 2] - $p[$a + 2]) ** 2,
                ($p[$c] - $p[$a]) ** 2 + ($p[$c + 1] - $p[$a + 1]) ** 2 + ($p[$c + 2] - $p[$a + 2]) ** 2,
            );
            $sum += min(160_000.0, $long / ($step * $step)) / 2;
        }

        return $sum;
    }

    /**
     * All that cannot be reached from outside is filled.
     *
     * @param  array<int, true>  $skin
     */
    private function fill(array $skin): void
    {
        [$nx, $ny, $nz] = $this->size;
        $outside = [0 => true];
        $todo = [0];
        $all = $nx * $ny * $nz;
        $slab = $nx * $ny;
        while ($todo !== []) {
            $c = array_pop($todo);
            $x = $c % $nx;
            $y = intdiv($c, $nx) % $ny;
            $z = intdiv($c, $slab);
            foreach ([
                [$x > 0, -1], [$x < $nx - 1, 1], [$y > 0, -$nx], [$y < $ny - 1, $nx], [$z > 0, -$slab], [$z < $nz - 1, $slab],
            ] as [$may, $by]) {
                if ($may && ! isset($outside[$c + $by]) && ! isset($skin[$c + $by])) {
                    $outside[$c + $by] = true;
                    $todo[] = $c + $by;
                }
            }
        }
        for ($c = 0; $c < $all; $c++) {
            if (! isset($outside[$c])) {
                $this->filled[$c] = true;
            }
        }
    }

    /** Number of the cube at a place. */
    public function at(float $x, float $y, float $z): int
    {
        [$nx, $ny, $nz] = $this->size;
        $i = min($nx - 1, max(0, (int) (($x - $this->low[0]) / $this->cube + 2.5)));
        $j = min($ny - 1, max(0, (int) (($y - $this->low[1]) / $this->cube + 2.5)));
        $k = min($nz - 1, max(0, (int) (($z - $this->low[2]) / $this->cube + 2.5)));

        return $i + $nx * ($j + $ny * $k);
    }

    /** @return Vec middle of a cube */
    public function place(int $c): array
    {
        [$nx, $ny] = $this->size;

        return [
            $this->low[0] + ($c % $nx - 2) * $this->cube, $this->low[1] + (intdiv($c, $nx) % $ny - 2) * $this->cube,
            $this->low[2] + (intdiv($c, $nx * $ny) - 2) * $this->cube,
        ];
    }

    /**
     * The level cut at a height, in pieces that hang together.
     *
     * @return list<non-empty-list<Vec>> places of the filled cubes, the largest piece first
     */
    public function cut(float $y): array
    {
        [$nx, $ny, $nz] = $this->size;
        $j = min($ny - 1, max(0, (int) (($y - $this->low[1]) / $this->cube + 2.5)));
        $left = [];
        for ($k = 0; $k < $nz; $k++) {
            for ($i = 0; $i < $nx; $i++) {
                $c = $i + $nx * ($j + $ny * $k);
                if (isset($this->filled[$c])) {
                    $left[$c] = true;
                }
            }
        }
        $pieces = [];
        $slab = $nx * $ny;
        while ($left !== []) {
            $first = array_key_first($left);
            unset($left[$first]);
            [$todo, $piece] = [[$first], []];
            while ($todo !== []) {
                $c = array_pop($todo);
                $piece[] = $this->place($c);
                foreach ([-1, 1, -$slab, $slab, -1 - $slab, -1 + $slab, 1 - $slab, 1 + $slab] as $by) {
                    if (isset($left[$c + $by])) {
                        unset($left[$c + $by]);
                        $todo[] = $c + $by;
                    }
                }
            }
            $pieces[] = $piece;
        }
        usort($pieces, static fn (array $a, array $b): int => count($b) <=> count($a));

        return $pieces;
    }

    /**
     * Middle and number of the filled cubes near a place: within a radius, and within a slab across a direction.
     *
     * @param  Vec  $at
     * @param  Vec  $along  unit
     * @return array{Vec, int}
     */
    public function across(array $at, array $along, float $radius, float $half): array
    {
        $sum = [0.0, 0.0, 0.0];
        $n = 0;
        $r = (int) ceil($radius / $this->cube);
        for ($k = -$r; $k <= $r; $k++) {
            for ($j = -$r; $j <= $r; $j++) {
                for ($i = -$r; $i <= $r; $i++) {
                    [$x, $y, $z] = [$i * $this->cube, $j * $this->cube, $k * $this->cube];
                    if ($x * $x + $y * $y + $z * $z > $radius * $radius || abs($x * $along[0] + $y * $along[1] + $z * $along[2]) > $half) {
                        continue;
                    }
                    [$x, $y, $z] = [$x + $at[0], $y + $at[1], $z + $at[2]];
                    if ($this->inside($x, $y, $z)) {
                        [$sum[0], $sum[1], $sum[2]] = [$sum[0] + $x, $sum[1] + $y, $sum[2] + $z];
                        $n++;
                    }
                }
            }
        }

        return $n === 0 ? [$at, 0] : [[$sum[0] / $n, $sum[1] / $n, $sum[2] / $n], $n];
    }

    public function inside(float $x, float $y, float $z): bool
    {
        return isset($this->filled[$this->at($x, $y, $z)]);
    }

    /** @return list<Vec> places of all filled cubes */
    public function cubes(): array
    {
        return array_map($this->place(...), array_keys($this->filled));
    }

    /**
     * How far it is from a line to each filled cube, through the body only (Dial 1969 over the neighbours).
     *
     * @param  list<array{Vec, Vec}>  $lines
     * @param  float  $reach  metres; what is farther is left out
     * @return array<int, float> metres by cube
     */
    public function distances(array $lines, float $reach): array
    {
        $seeds = [];
        foreach ($lines as [$a, $b]) {
            $n = max(1, (int) ceil(2 * hypot($b[0] - $a[0], $b[1] - $a[1]) / $this->cube + 2 * abs($b[2] - $a[2]) / $this->cube));
            for ($i = 0; $i <= $n; $i++) {
                $c = $this->at($a[0] + ($b[0] - $a[0]) * $i / $n, $a[1] + ($b[1] - $a[1]) * $i / $n, $a[2] + ($b[2] - $a[2]) * $i / $n);
                $seeds[$c] = true;
            }
        }
        $most = (int) ceil($reach / $this->cube * 3);
        $known = [];
        $levels = array_fill(0, $most + 6, []);
        foreach ($seeds as $c => $_) {
            // A line that runs outside for a while goes on; its cubes count as filled for it.
            $levels[0][] = $c;
        }
        $filled = $this->filled;
        for ($d = 0; $d <= $most; $d++) {
            for ($q = 0; $q < count($levels[$d]); $q++) {
                $c = $levels[$d][$q];
                if (isset($known[$c])) {
                    continue;
                }
                $known[$c] = $d;
                foreach ($this->steps as [$by, $cost]) {
                    if (isset($filled[$c + $by]) && ! isset($known[$c + $by]) && $d + $cost <= $most) {
                        $levels[$d + $cost][] = $c + $by;
                    }
                }
            }
            $levels[$d] = [];
        }
        $scale = $this->cube / 3;

        return array_map(static fn (int $d): float => $d * $scale, $known);
    }
}
