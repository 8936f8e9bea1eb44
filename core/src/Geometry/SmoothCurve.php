<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry;

use CrispReel\Core\Math\V3;

/**
 * Centripetal Catmull-Rom curve (alpha 0.5; Barry and Goldman 1988) with an arc-length table.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class SmoothCurve
{
    private const PER_SPAN = 64;

    /** @var list<float> arc length at each table entry */
    private array $lengths = [0.0];

    /** @param  list<Vec>  $points two or more */
    public function __construct(private readonly array $points, private readonly bool $closed = false)
    {
        $steps = $this->spans() * self::PER_SPAN;
        $before = $this->raw(0.0);
        for ($i = 1; $i <= $steps; $i++) {
            $p = $this->raw($i / self::PER_SPAN);
            $this->lengths[] = $this->lengths[$i - 1] + V3::distance($p, $before);
            $before = $p;
        }
    }

    public function length(): float
    {
        return $this->lengths[count($this->lengths) - 1];
    }

    /**
     * The point at a distance along the curve, metres.
     *
     * @return Vec
     */
    public function at(float $distance): array
    {
        $low = 0;
        $high = count($this->lengths) - 1;
        if ($distance <= 0.0 || $distance >= $this->lengths[$high]) {
            return $this->raw($distance <= 0.0 ? 0.0 : (float) $this->spans());
        }
        while ($high - $low > 1) {
            $k = ($low + $high) >> 1;
            $this->lengths[$k] <= $distance ? $low = $k : $high = $k;
        }
        $span = $this->lengths[$high] - $this->lengths[$low];

        return $this->raw(($low + ($span > 0.0 ? ($distance - $this->lengths[$low]) / $span : 0.0)) / self::PER_SPAN);
    }

    /**
     * Points evenly spaced along the curve with frames carried along without twist (parallel transport).
     *
     * @return list<array{Vec, Vec, Vec, Vec}> point, tangent, normal, binormal
     */
    public function frames(int $segments): array
    {
        $length = $this->length();
        $e = $length * 1e-3;
        $out = [];
        $normal = null;
        for ($i = 0; $i <= $segments; $i++) {
            $s = $length * $i / $segments;
            $tangent = V3::unit(V3::sub($this->at(min($length, $s + $e)), $this->at(max(0.0, $s - $e))));
            if ($normal === null) {
                $normal = V3::across(abs($tangent[1]) < 0.9 ? [0.0, 1.0, 0.0] : [1.0, 0.0, 0.0], $tangent);
            }
            $normal = V3::across($normal, $tangent);
            $out[] = [$this->at($s), $tangent, $normal, V3::cross($tangent, $normal)];
        }

        return $out;
    }

    private function spans(): int
    {
        return $this->closed ? count($this->points) : count($this->points) - 1;
    }

    /** @return Vec */
    private function point(int $i): array
    {
        $n = count($this->points);
        if ($this->closed) {
            return $this->points[(($i % $n) + $n) % $n];
        }
        if ($i < 0) {
            return V3::sub(V3::mul($this->points[0], 2.0), $this->points[1]);
        }

        return $i < $n ? $this->points[$i] : V3::sub(V3::mul($this->points[$n - 1], 2.0), $this->points[$n - 2]);
    }

    /**
     * @param  float  $u  span number and fraction
     * @return Vec
     */
    private function raw(float $u): array
    {
        $i = max(0, min($this->spans() - 1, (int) floor($u)));
        [$p0, $p1, $p2, $p3] = [$this->point($i - 1), $this->point($i), $this->point($i + 1), $this->point($i + 2)];
        $t1 = max(1e-6, V3::distance($p0, $p1) ** 0.5);
        $t2 = $t1 + max(1e-6, V3::distance($p1, $p2) ** 0.5);
        $t3 = $t2 + max(1e-6, V3::distance($p2, $p3) ** 0.5);
        $t = $t1 + ($t2 - $t1) * ($u - $i);
        $a1 = V3::mix($p0, $p1, $t / $t1);
        $a2 = V3::mix($p1, $p2, ($t - $t1) / ($t2 - $t1));
        $a3 = V3::mix($p2, $p3, ($t - $t2) / ($t3 - $t2));
        $b1 = V3::mix($a1, $a2, $t / $t2);
        $b2 = V3::mix($a2, $a3, ($t - $t1) / ($t3 - $t1));

        return V3::mix($b1, $b2, ($t - $t1) / ($t2 - $t1));
    }
}
