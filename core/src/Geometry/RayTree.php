<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

/**
 * Triangles in a bounding-volume tree, split by the surface area heuristic over twelve bins (MacDonald and Booth 1990;
 * Wald 2007). Rays meet triangles from both sides by the test of Moeller and Trumbore (1997).
 */
final class RayTree
{
    private const LEAF = 4;

    private const BINS = 12;

    /** Cosine of the steepest slope that a foot can stand on. */
    private const STANDABLE = 0.7;

    /**
     * @param  list<float>  $boxes  6 a node: low x y z, high x y z
     * @param  list<int>  $links  2 a node: a leaf's first triangle and count, or an inner node's second child and 0; its first child is the next node
     * @param  list<float>  $triangles  10 a triangle: corner, two edges, and 1 where one can stand on it
     */
    private function __construct(private readonly array $boxes, private readonly array $links, private readonly array $triangles)
    {
    }

    /** @param  list<float>  $flat  9 numbers a triangle */
    public static function of(array $flat): self
    {
        $n = intdiv(count($flat), 9);
        $low = $high = $middle = [[], [], []];
        for ($i = 0; $i < $n; $i++) {
            for ($k = 0; $k < 3; $k++) {
                $o = 9 * $i + $k;
                $low[$k][] = $l = min($flat[$o], $flat[$o + 3], $flat[$o + 6]);
                $high[$k][] = $h = max($flat[$o], $flat[$o + 3], $flat[$o + 6]);
                $middle[$k][] = ($l + $h) / 2;
            }
        }
        $boxes = $links = $triangles = [];
        // Depth first: [triangles of the node, inner node whose second child it is].
        $todo = $n > 0 ? [[range(0, $n - 1), -1]] : [];
        while ($todo !== []) {
            [$of, $second] = array_pop($todo);
            $node = intdiv(count($links), 2);
            if ($second >= 0) {
                $links[2 * $second] = $node;
            }
            array_push($boxes, ...self::box($of, $low, $high));
            $halves = count($of) > self::LEAF ? self::split($of, $low, $high, $middle) : null;
            if ($halves === null) {
                array_push($links, intdiv(count($triangles), 10), count($of));
                foreach ($of as $i) {
                    array_push($triangles, ...self::triangle($flat, 9 * $i));
                }

                continue;
            }
            array_push($links, 0, 0);
            $todo[] = [$halves[1], $node];
            $todo[] = [$halves[0], -1];
        }

        return new self($boxes, array_values($links), $triangles);
    }

    /**
     * @param  list<int>  $of
     * @param  array<int, list<float>>  $low
     * @param  array<int, list<float>>  $high
     * @return array{float, float, float, float, float, float}
     */
    private static function box(array $of, array $low, array $high): array
    {
        [$lx, $ly, $lz] = $low;
        [$hx, $hy, $hz] = $high;
        $x0 = $y0 = $z0 = INF;
        $x1 = $y1 = $z1 = -INF;
        foreach ($of as $i) {
            $x0 = $lx[$i] < $x0 ? $lx[$i] : $x0;
            $y0 = $ly[$i] < $y0 ? $ly[$i] : $y0;
            $z0 = $lz[$i] < $z0 ? $lz[$i] : $z0;
            $x1 = $hx[$i] > $x1 ? $hx[$i] : $x1;
            $y1 = $hy[$i] > $y1 ? $hy[$i] : $y1;
            $z1 = $hz[$i] > $z1 ? $hz[$i] : $z1;
        }

        return [$x0, $y0, $z0, $x1, $y1, $z1];
    }

    /**
     * The cheapest cut along the axis on which the middles spread most; null where they all coincide.
     *
     * @param  list<int>  $of
     * @param  array<int, list<float>>  $low
     * @param  array<int, list<float>>  $high
     * @param  array<int, list<float>>  $middle
     * @return array{list<int>, list<int>}|null
     */
    private static function split(array $of, array $low, array $high, array $middle): ?array
    {
        $spread = self::box($of, $middle, $middle);
        $axis = 0;
        for ($k = 1; $k < 3; $k++) {
            $axis = $spread[3 + $k] - $spread[$k] > $spread[3 + $axis] - $spread[$axis] ? $k : $axis;
        }
        $width = $spread[3 + $axis] - $spread[$axis];
        if ($width < 1e-9) {
            return count($of) > 4 * self::LEAF
                ? [array_slice($of, 0, intdiv(count($of), 2)), array_slice($of, intdiv(count($of), 2))]
                : null;
        }
        $bins = array_fill(0, self::BINS, []);
        foreach ($of as $i) {
            $bins[min(self::BINS - 1, (int) (($middle[$axis][$i] - $spread[$axis]) / $width * self::BINS))][] = $i;
        }
        $boxes = array_map(static fn (array $b): array => self::box($b, $low, $high), $bins);
        $right = array_fill(0, self::BINS + 1, 0.0);
        [$box, $count] = [[INF, INF, INF, -INF, -INF, -INF], 0];
        for ($k = self::BINS - 1; $k > 0; $k--) {
            $box = self::joined($box, $boxes[$k]);
            $right[$k] = self::cost($box, $count += count($bins[$k]));
        }
        [$box, $count, $best, $cut] = [[INF, INF, INF, -INF, -INF, -INF], 0, INF, 1];
        for ($k = 1; $k < self::BINS; $k++) {
            $box = self::joined($box, $boxes[$k - 1]);
            $total = self::cost($box, $count += count($bins[$k - 1])) + $right[$k];
            if ($total < $best && $count > 0 && $count < count($of)) {
                [$best, $cut] = [$total, $k];
            }
        }

        return [array_merge(...array_slice($bins, 0, $cut)), array_merge(...array_slice($bins, $cut))];
    }

    /** @param  array{float, float, float, float, float, float}  $b */
    private static function cost(array $b, int $count): float
    {
        [$x, $y, $z] = [$b[3] - $b[0], $b[4] - $b[1], $b[5] - $b[2]];

        return $count === 0 ? 0.0 : $count * ($x * $y + $y * $z + $z * $x);
    }

    /**
     * @param  array<int, float>  $a
     * @param  array<int, float>  $b
     * @return array{float, float, float, float, float, float}
     */
    private static function joined(array $a, array $b): array
    {
        return [min($a[0], $b[0]), min($a[1], $b[1]), min($a[2], $b[2]), max($a[3], $b[3]), max($a[4], $b[4]), max($a[5], $b[5])];
    }

    /**
     * @param  list<float>  $f
     * @return list<float>
     */
    private static function triangle(array $f, int $o): array
    {
        [$ux, $uy, $uz] = [$f[$o + 3] - $f[$o], $f[$o + 4] - $f[$o + 1], $f[$o + 5] - $f[$o + 2]];
        [$vx, $vy, $vz] = [$f[$o + 6] - $f[$o], $f[$o + 7] - $f[$o + 1], $f[$o + 8] - $f[$o + 2]];
        [$nx, $ny, $nz] = [$uy * $vz - $uz * $vy, $uz * $vx - $ux * $vz, $ux * $vy - $uy * $vx];
        $l = sqrt($nx * $nx + $ny * $ny + $nz * $nz);

        return [$f[$o], $f[$o + 1], $f[$o + 2], $ux, $uy, $uz, $vx, $vy, $vz, $l > 1e-9 && $ny / $l > self::STANDABLE ? 1.0 : 0.0];
    }

    public function count(): int
    {
        return intdiv(count($this->triangles), 10);
    }

    /** @return array{float, float, float, float, float, float}|null low and high corner; null when there are no triangles */
    public function bounds(): ?array
    {
        return $this->boxes === []
            ? null
            : [$this->boxes[0], $this->boxes[1], $this->boxes[2], $this->boxes[3], $this->boxes[4], $this->boxes[5]];
    }

    /** The highest triangle that one can stand on at (x, z), not above $top; null where there is none. */
    public function floor(float $x, float $z, float $top = INF): ?float
    {
        $b = $this->boxes;
        $links = $this->links;
        $t = $this->triangles;
        $best = -INF;
        $stack = [0];
        $deep = $b === [] ? -1 : 0;
        while ($deep >= 0) {
            $node = $stack[$deep--];
            $o = 6 * $node;
            if ($x < $b[$o] || $z < $b[$o + 2] || $x > $b[$o + 3] || $z > $b[$o + 5] || $b[$o + 1] > $top || $b[$o + 4] <= $best) {
                continue;
            }
            $count = $links[2 * $node + 1];
            if ($count === 0) {
                $stack[++$deep] = $links[2 * $node];
                $stack[++$deep] = $node + 1;

                continue;
            }
            for ($i = 10 * $links[2 * $node], $end = $i + 10 * $count; $i < $end; $i += 10) {
                $area = $t[$i + 5] * $t[$i + 6] - $t[$i + 3] * $t[$i + 8];
                if ($t[$i + 9] === 0.0 || ($area < 1e-12 && $area > -1e-12)) {
                    continue;
                }
                $px = $x - $t[$i];
                $pz = $z - $t[$i + 2];
                $u = ($pz * $t[$i + 6] - $px * $t[$i + 8]) / $area;
                $v = ($px * $t[$i + 5] - $pz * $t[$i + 3]) / $area;
                if ($u < -1e-9 || $v < -1e-9 || $u + $v > 1.0 + 1e-9) {
                    continue;
                }
                $y = $t[$i + 1] + $u * $t[$i + 4] + $v * $t[$i + 7];
                if ($y <= $top && $y > $best) {
                    $best = $y;
                }
            }
        }

        return $best === -INF ? null : $best;
    }

    /**
     * Distance to the nearest triangle along a ray, in lengths of $d; null when none is nearer than $most.
     *
     * @param  array{float, float, float}  $p
     * @param  array{float, float, float}  $d
     */
    public function hit(array $p, array $d, float $most = INF): ?float
    {
        $b = $this->boxes;
        $links = $this->links;
        $t = $this->triangles;
        [$px, $py, $pz] = $p;
        [$dx, $dy, $dz] = $d;
        $ix = $dx != 0.0 ? 1.0 / $dx : 1e300;
        $iy = $dy != 0.0 ? 1.0 / $dy : 1e300;
        $iz = $dz != 0.0 ? 1.0 / $dz : 1e300;
        $best = $most;
        $found = false;
        $stack = [0];
        $deep = $b === [] ? -1 : 0;
        while ($deep >= 0) {
            $node = $stack[$deep--];
            $o = 6 * $node;
            $x0 = ($b[$o] - $px) * $ix;
            $x1 = ($b[$o + 3] - $px) * $ix;
            $y0 = ($b[$o + 1] - $py) * $iy;
            $y1 = ($b[$o + 4] - $py) * $iy;
            $z0 = ($b[$o + 2] - $pz) * $iz;
            $z1 = ($b[$o + 5] - $pz) * $iz;
            $in = $x0 < $x1 ? $x0 : $x1;
            $out = $x0 < $x1 ? $x1 : $x0;
            $v = $y0 < $y1 ? $y0 : $y1;
            $in = $v > $in ? $v : $in;
            $v = $y0 < $y1 ? $y1 : $y0;
            $out = $v < $out ? $v : $out;
            $v = $z0 < $z1 ? $z0 : $z1;
            $in = $v > $in ? $v : $in;
            $v = $z0 < $z1 ? $z1 : $z0;
            $out = $v < $out ? $v : $out;
            if ($out < $in - 1e-9 || $out < 0.0 || $in > $best) {
                continue;
            }
            $count = $links[2 * $node + 1];
            if ($count === 0) {
                // The child on the ray's side first: what it finds rules the other out.
                $other = $links[2 * $node];
                $f = 6 * $node + 6;
                $g = 6 * $other;
                $ahead = ($b[$g] + $b[$g + 3] - $b[$f] - $b[$f + 3]) * $dx + ($b[$g + 1] + $b[$g + 4] - $b[$f + 1] - $b[$f + 4]) * $dy
                    + ($b[$g + 2] + $b[$g + 5] - $b[$f + 2] - $b[$f + 5]) * $dz;
                $stack[++$deep] = $ahead > 0.0 ? $other : $node + 1;
                $stack[++$deep] = $ahead > 0.0 ? $node + 1 : $other;

                continue;
            }
            for ($i = 10 * $links[2 * $node], $end = $i + 10 * $count; $i < $end; $i += 10) {
                $hx = $dy * $t[$i + 8] - $dz * $t[$i + 7];
                $hy = $dz * $t[$i + 6] - $dx * $t[$i + 8];
                $hz = $dx * $t[$i + 7] - $dy * $t[$i + 6];
                $det = $t[$i + 3] * $hx + $t[$i + 4] * $hy + $t[$i + 5] * $hz;
                if ($det < 1e-14 && $det > -1e-14) {
                    continue;
                }
                $sx = $px - $t[$i];
                $sy = $py - $t[$i + 1];
                $sz = $pz - $t[$i + 2];
                $u = ($sx * $hx + $sy * $hy + $sz * $hz) / $det;
                if ($u < 0.0 || $u > 1.0) {
                    continue;
                }
                $qx = $sy * $t[$i + 5] - $sz * $t[$i + 4];
                $qy = $sz * $t[$i + 3] - $sx * $t[$i + 5];
                $qz = $sx * $t[$i + 4] - $sy * $t[$i + 3];
                $v = ($dx * $qx + $dy * $qy + $dz * $qz) / $det;
                if ($v < 0.0 || $u + $v > 1.0) {
                    continue;
                }
                $at = ($t[$i + 6] * $qx + $t[$i + 7] * $qy + $t[$i + 8] * $qz) / $det;
                if ($at >= 0.0 && $at < $best) {
                    $best = $at;
                    $found = true;
                }
            }
        }

        return $found ? $best : null;
    }

    /**
     * Whether any triangle comes nearer to a point than some metres.
     *
     * @param  array{float, float, float}  $p
     */
    public function isNear(array $p, float $metres): bool
    {
        $b = $this->boxes;
        $most = $metres * $metres;
        $todo = $b === [] ? [] : [0];
        while ($todo !== []) {
            $node = array_pop($todo);
            $o = 6 * $node;
            $x = max($b[$o] - $p[0], 0.0, $p[0] - $b[$o + 3]);
            $y = max($b[$o + 1] - $p[1], 0.0, $p[1] - $b[$o + 4]);
            $z = max($b[$o + 2] - $p[2], 0.0, $p[2] - $b[$o + 5]);
            if ($x * $x + $y * $y + $z * $z >= $most) {
                continue;
            }
            $count = $this->links[2 * $node + 1];
            if ($count === 0) {
                array_push($todo, $this->links[2 * $node], $node + 1);

                continue;
            }
            for ($i = 10 * $this->links[2 * $node], $end = $i + 10 * $count; $i < $end; $i += 10) {
                if (TriangleDistance::squared($this->triangles, $i, $p) < $most) {
                    return true;
                }
            }
        }

        return false;
    }

    /** Counts, then float32 boxes and triangles and 32-bit links. */
    public function toBytes(): string
    {
        $out = pack('a4VV', 'CRB1', count($this->links), count($this->triangles));
        foreach (['g*' => $this->boxes, 'V*' => $this->links, 'g* ' => $this->triangles] as $code => $list) {
            foreach (array_chunk($list, 4096) as $part) {
                $out .= pack(trim($code), ...$part);
            }
        }

        return $out;
    }

    public static function fromBytes(string $bytes): self
    {
        /** @var array{links: int, triangles: int} $h */
        $h = unpack('a4magic/Vlinks/Vtriangles', $bytes);
        $n = $h['links'];

        /** @var array<int, float> $boxes */
        $boxes = $n === 0 ? [] : unpack('g'.(3 * $n), $bytes, 12);

        /** @var array<int, int> $links */
        $links = $n === 0 ? [] : unpack("V{$n}", $bytes, 12 + 12 * $n);

        /** @var array<int, float> $triangles */
        $triangles = $n === 0 ? [] : unpack("g{$h['triangles']}", $bytes, 12 + 16 * $n);

        return new self(array_values($boxes), array_values($links), array_values($triangles));
    }
}
