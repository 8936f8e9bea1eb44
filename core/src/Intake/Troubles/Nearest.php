<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

/** The nearest of many points, by a grid of cells that is searched outwards. */
final class Nearest
{
    private readonly float $cell;

    /** @var array<string, list<int>> */
    private array $grid = [];

    /** @param  list<float>  $flat  3 numbers a point, at least one point */
    public function __construct(private readonly array $flat)
    {
        $span = 0.0;
        for ($k = 0; $k < 3; $k++) {
            [$l, $h] = [INF, -INF];
            for ($i = $k, $n = count($flat); $i < $n; $i += 3) {
                $l = min($l, $flat[$i]);
                $h = max($h, $flat[$i]);
            }
            $span = max($span, $h - $l);
        }
        $this->cell = max(1e-6, $span / 40);
        for ($i = 0, $n = intdiv(count($flat), 3); $i < $n; $i++) {
            $this->grid[$this->key($flat[3 * $i], $flat[3 * $i + 1], $flat[3 * $i + 2])][] = $i;
        }
    }

    public function of(float $x, float $y, float $z): int
    {
        [$best, $least] = [0, INF];
        [$a, $b, $c] = [(int) floor($x / $this->cell), (int) floor($y / $this->cell), (int) floor($z / $this->cell)];
        for ($ring = 0; $ring === 0 || $least > (($ring - 1) * $this->cell) ** 2; $ring++) {
            if ($ring > 6) {
                return $this->plain($x, $y, $z);
            }
            for ($i = $a - $ring; $i <= $a + $ring; $i++) {
                for ($j = $b - $ring; $j <= $b + $ring; $j++) {
                    for ($k = $c - $ring; $k <= $c + $ring; $k++) {
                        if (max(abs($i - $a), abs($j - $b), abs($k - $c)) !== $ring) {
                            continue;
                        }
                        foreach ($this->grid["{$i} {$j} {$k}"] ?? [] as $v) {
                            $d = ($this->flat[3 * $v] - $x) ** 2 + ($this->flat[3 * $v + 1] - $y) ** 2
                                + ($this->flat[3 * $v + 2] - $z) ** 2;
                            if ($d < $least) {
                                [$best, $least] = [$v, $d];
                            }
                        }
                    }
                }
            }
        }

        return $best;
    }

    /** Far from everything: one look at each. */
    private function plain(float $x, float $y, float $z): int
    {
        [$best, $least] = [0, INF];
        for ($v = 0, $n = intdiv(count($this->flat), 3); $v < $n; $v++) {
            $d = ($this->flat[3 * $v] - $x) ** 2 + ($this->flat[3 * $v + 1] - $y) ** 2 + ($this->flat[3 * $v + 2] - $z) ** 2;
            if ($d < $least) {
                [$best, $least] = [$v, $d];
            }
        }

        return $best;
    }

    private function key(float $x, float $y, float $z): string
    {
        return ((int) floor($x / $this->cell)).' '.((int) floor($y / $this->cell)).' '.((int) floor($z / $this->cell));
    }
}
