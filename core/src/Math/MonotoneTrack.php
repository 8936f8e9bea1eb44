<?php

declare(strict_types=1);

namespace CrispReel\Core\Math;

/**
 * Keyed vector track with monotone cubic interpolation (Fritsch and Carlson 1980, harmonic mean slopes) and flat ends:
 * it passes through every key and never overshoots.
 */
final class MonotoneTrack
{
    private readonly int $width;

    private readonly int $count;

    /** @var list<float> slope of each key and channel, numbers a key */
    private readonly array $slopes;

    /**
     * @param  array<int, float>  $times  strictly rising, numbered from 0
     * @param  array<int, list<float>>  $values  one row a key, all of one width
     */
    public function __construct(private readonly array $times, private readonly array $values)
    {
        $this->width = count($values[0]);
        $this->count = count($times);
        $this->slopes = $this->slopes();
    }

    /** @param  list<array{float, float}>  $keys  time and value, at least one */
    public static function of(array $keys): self
    {
        return new self(array_column($keys, 0), array_map(static fn (array $k): array => [$k[1]], $keys));
    }

    /** @return list<float> */
    public function at(float $t): array
    {
        $n = $this->count;
        if ($t <= $this->times[0] || $n === 1) {
            return $this->values[0];
        }
        if ($t >= $this->times[$n - 1]) {
            return $this->values[$n - 1];
        }
        $low = Keys::below($this->times, $t);
        $high = $low + 1;
        $h = $this->times[$high] - $this->times[$low];
        $u = ($t - $this->times[$low]) / $h;
        $u2 = $u * $u;
        $u3 = $u2 * $u;
        $a = 2 * $u3 - 3 * $u2 + 1;
        $b = ($u3 - 2 * $u2 + $u) * $h;
        $c = 3 * $u2 - 2 * $u3;
        $d = ($u3 - $u2) * $h;
        $out = [];
        for ($i = 0; $i < $this->width; $i++) {
            $out[] = $this->values[$low][$i] * $a + $this->slopes[$low * $this->width + $i] * $b
                + $this->values[$high][$i] * $c + $this->slopes[$high * $this->width + $i] * $d;
        }

        return $out;
    }

    /** @return list<float> */
    private function slopes(): array
    {
        $m = array_fill(0, $this->count * $this->width, 0.0);
        for ($k = 1; $k < $this->count - 1; $k++) {
            $h0 = $this->times[$k] - $this->times[$k - 1];
            $h1 = $this->times[$k + 1] - $this->times[$k];
            for ($i = 0; $i < $this->width; $i++) {
                $a = ($this->values[$k][$i] - $this->values[$k - 1][$i]) / $h0;
                $b = ($this->values[$k + 1][$i] - $this->values[$k][$i]) / $h1;
                $m[$k * $this->width + $i] = $a * $b <= 0.0
                    ? 0.0
                    : 3.0 * ($h0 + $h1) / ((2 * $h1 + $h0) / $a + ($h1 + 2 * $h0) / $b);
            }
        }

        return array_values($m);
    }
}
