<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Keys;
use CrispReel\Core\Math\Q4;

/**
 * One animated property, sampled as glTF 2.0 Appendix C says.
 * Values hold $width numbers a key; cubic splines hold in-tangent, value, out-tangent for each key.
 */
final readonly class Channel
{
    /**
     * @param  string  $target  joint name
     * @param  string  $path  translation, rotation, scale, weights
     * @param  array<int, float>  $times  seconds, rising, numbered from 0
     * @param  list<float>  $values
     */
    public function __construct(
        public string $target,
        public string $path,
        public Interpolation $interpolation,
        public array $times,
        public array $values,
        public int $width,
    ) {
    }

    /** @return list<float> */
    public function at(float $seconds): array
    {
        $n = count($this->times);
        if ($n === 1 || $seconds <= $this->times[0]) {
            return $this->key(0);
        }
        if ($seconds >= $this->times[$n - 1]) {
            return $this->key($n - 1);
        }
        $low = Keys::below($this->times, $seconds);
        $span = $this->times[$low + 1] - $this->times[$low];
        $t = ($seconds - $this->times[$low]) / $span;

        return match ($this->interpolation) {
            Interpolation::Step => $this->key($low),
            Interpolation::Linear => $this->linear($low, $t),
            Interpolation::CubicSpline => $this->cubic($low, $t, $span),
        };
    }

    /** The same keys, so many times as fast; tangents are per second and grow with it. */
    public function paced(float $factor): self
    {
        $values = $this->values;
        if ($this->interpolation === Interpolation::CubicSpline) {
            foreach ($values as $i => $v) {
                $values[$i] = intdiv($i, $this->width) % 3 === 1 ? $v : $v * $factor;
            }
        }

        return new self(
            $this->target,
            $this->path,
            $this->interpolation,
            array_map(static fn (float $t): float => $t / $factor, $this->times),
            $values,
            $this->width,
        );
    }

    public function duration(): float
    {
        return $this->times[count($this->times) - 1];
    }

    /** @return list<float> */
    private function key(int $k): array
    {
        return $this->interpolation === Interpolation::CubicSpline ? $this->row(3 * $k + 1) : $this->row($k);
    }

    /** @return list<float> */
    private function row(int $k): array
    {
        return array_slice($this->values, $k * $this->width, $this->width);
    }

    /** @return list<float> */
    private function linear(int $low, float $t): array
    {
        $a = $this->row($low);
        $b = $this->row($low + 1);
        if ($this->path === 'rotation') {
            return Q4::slerp([$a[0], $a[1], $a[2], $a[3]], [$b[0], $b[1], $b[2], $b[3]], $t);
        }
        $out = [];
        foreach ($a as $i => $v) {
            $out[] = $v + ($b[$i] - $v) * $t;
        }

        return $out;
    }

    /**
     * Cubic Hermite with tangents scaled by the key interval; rotations are normalised afterwards (C.5).
     *
     * @return list<float>
     */
    private function cubic(int $low, float $t, float $span): array
    {
        $v0 = $this->row(3 * $low + 1);
        $out0 = $this->row(3 * $low + 2);
        $in1 = $this->row(3 * $low + 3);
        $v1 = $this->row(3 * $low + 4);
        $t2 = $t * $t;
        $t3 = $t2 * $t;
        $out = [];
        foreach ($v0 as $i => $v) {
            $out[] = (2 * $t3 - 3 * $t2 + 1) * $v + $span * ($t3 - 2 * $t2 + $t) * $out0[$i]
                + (-2 * $t3 + 3 * $t2) * $v1[$i] + $span * ($t3 - $t2) * $in1[$i];
        }

        return $this->path === 'rotation' ? Q4::unit([$out[0], $out[1], $out[2], $out[3]]) : $out;
    }
}
