<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

/** Three and more people as one: how they stand to each other, and from where their faces are seen. */
final readonly class Group
{
    /** How much they have to face the same way for that to count: 1 is all of them exactly. */
    private const AGREE = 0.35;

    /** @param  non-empty-list<string>  $people */
    public function __construct(private Stand $stand, private array $people)
    {
    }

    /**
     * The two who are farthest apart, of all: the ends of a row.
     *
     * @return array{string, string}
     */
    public function ends(): array
    {
        $best = [$this->people[0], $this->people[1] ?? $this->people[0]];
        $most = -1.0;
        foreach ($this->people as $n => $a) {
            foreach (array_slice($this->people, $n + 1) as $b) {
                $apart = $this->apart($a, $b);
                [$best, $most] = $apart > $most ? [[$a, $b], $apart] : [$best, $most];
            }
        }

        return $best;
    }

    /**
     * Headings in radians: from the first of them to the second, and from their middle to where a lens sees them best: before their
     * faces where those look one way, else square to the row, on the side to which more of them look.
     *
     * @return array{float, float}
     */
    public function headings(): array
    {
        [$p, $q] = [$this->at($this->people[0]), $this->at($this->people[1] ?? $this->people[0])];
        $line = atan2($q[0] - $p[0], $q[1] - $p[1]);
        $sum = [0.0, 0.0];
        foreach ($this->people as $who) {
            $facing = $this->stand->marks($who)->facing;
            $sum = [$sum[0] + sin($facing) / count($this->people), $sum[1] + cos($facing) / count($this->people)];
        }
        if (hypot(...$sum) > self::AGREE) {
            return [$line, atan2($sum[0], $sum[1])];
        }
        [$a, $b] = array_map($this->at(...), $this->ends());
        $square = atan2($b[0] - $a[0], $b[1] - $a[1]) + M_PI / 2;

        return [$line, sin($square) * $sum[0] + cos($square) * $sum[1] < 0.0 ? $square + M_PI : $square];
    }

    private function apart(string $a, string $b): float
    {
        [$p, $q] = [$this->at($a), $this->at($b)];

        return hypot($p[0] - $q[0], $p[1] - $q[1]);
    }

    /** @return array{float, float} where the eyes of somebody are, from above */
    private function at(string $who): array
    {
        [$x, , $z] = $this->stand->marks($who)->middle('eyes');

        return [$x, $z];
    }
}
