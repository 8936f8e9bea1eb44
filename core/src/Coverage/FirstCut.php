<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

/**
 * A first cut: of all ways to go from set-up to set-up over the places where one may cut, the one that costs least (dynamic
 * programming over places and set-ups). The same input gives the same cut.
 */
final class FirstCut
{
    /** Frames between places where one may cut within a line. */
    private const WITHIN = 16;

    /** Frames that no shot is longer than. */
    private const LONGEST = 480;

    private readonly float $unit;

    /** @var list<Candidate> shots that stay as they are */
    private readonly array $kept;

    /** @param  list<Candidate>  $candidates  those of shots that are kept hold from their first frame to the one after their last */
    public function __construct(
        private readonly Action $action,
        private readonly array $candidates,
        private readonly CutCosts $costs,
        private readonly Style $style,
        float $perSecond,
    ) {
        $this->unit = $perSecond / 24.0;
        $this->kept = array_values(array_filter($candidates, static fn (Candidate $c): bool => $c->kept !== null));
    }

    /** @return list<array{int, int, int}> from, to and number of the set-up of each shot */
    public function shots(): array
    {
        $places = $this->places();
        $frames = array_keys($places);
        $last = count($frames) - 1;
        $enter = [0 => array_map(fn (Candidate $c): array => [$this->opens($c), -1], $this->candidates)];
        $best = $from = [];
        for ($j = 1; $j <= $last; $j++) {
            foreach (array_keys($this->candidates) as $k) {
                [$best[$k], $from[$j][$k]] = $this->reach($frames, $enter, $j, $k);
            }
            if ($j < $last) {
                $enter[$j] = $this->enter($best, $frames[$j], $places[$frames[$j]]);
            }
        }
        foreach ($this->candidates as $k => $c) {
            $best[$k] += in_array($c->role, ['master', 'travel', 'two'], true) ? 0.0 : 1.5;
        }
        $k = (int) array_search(min([INF, ...$best]), $best, true);
        $out = [];
        for ($j = $last; $j > 0;) {
            $i = $from[$j][$k];
            array_unshift($out, [$frames[$i], $frames[$j], $k]);
            [$j, $k] = [$i, $enter[$i][$k][1]];
        }

        return $out;
    }

    /** What it costs to begin with a set-up: one wants to see where one is. */
    private function opens(Candidate $c): float
    {
        return match ($c->role) {
            'master' => 0.0,
            'two' => 3.0,
            default => 7.0,
        };
    }

    /**
     * The cheapest shot of set-up $k that ends at place $j.
     *
     * @param  list<int>  $frames
     * @param  array<int, array<int, array{float, int}>>  $enter  what it costs to come to a set-up at a place
     * @return array{float, int} cost, and the place at which it begins
     */
    private function reach(array $frames, array $enter, int $j, int $k): array
    {
        $found = [INF, 0];
        // What is kept lasts as long as it does.
        $longest = $this->candidates[$k]->kept === null ? self::LONGEST * $this->unit : INF;
        for ($i = $j - 1; $i >= 0 && $longest >= $frames[$j] - $frames[$i]; $i--) {
            $long = $frames[$j] - $frames[$i];
            if (! $this->mayLast($k, $frames[$i], $frames[$j])) {
                continue;
            }
            $all = $enter[$i][$k][0] + $this->style->shot + $this->costs->span($k, $frames[$i], $frames[$j])
                + $this->costs->length($k, $long);
            $found = $all < $found[0] ? [$all, $i] : $found;
        }

        return $found;
    }

    /** A shot that is kept is there just as long as it was, and nothing else is in its time. */
    private function mayLast(int $k, int $from, int $to): bool
    {
        $one = $this->candidates[$k];
        foreach ($this->kept as $c) {
            if ($from < $c->to && $to > $c->from) {
                return $c === $one && $from === $c->from && $to === $c->to;
            }
        }

        return $one->kept === null;
    }

    /**
     * What it costs to cut to each set-up at a frame, from the one from which that is cheapest.
     *
     * @param  array<int, float>  $best  cost up to there of all that ends with each set-up
     * @return array<int, array{float, int}>
     */
    private function enter(array $best, int $frame, float $place): array
    {
        $out = [];
        foreach (array_keys($this->candidates) as $k) {
            $out[$k] = [INF, -1];
            foreach ($best as $p => $cost) {
                if ($p !== $k && $cost + $place < $out[$k][0]) {
                    $all = $cost + $place + $this->costs->cut($p, $k, $frame);
                    $out[$k] = $all < $out[$k][0] ? [$all, $p] : $out[$k];
                }
            }
        }

        return $out;
    }

    /** @return array<int, float> where one may cut, and what it costs there, in order; first and last frame for nothing */
    private function places(): array
    {
        $a = $this->action;
        $out = [];
        $put = function (float $frame, float $cost) use (&$out, $a): void {
            $f = (int) round($frame);
            if ($f > $a->from + 6 && $f < $a->to - 6) {
                $out[$f] = min($out[$f] ?? INF, $cost);
            }
        };
        foreach ($a->lines as [$first, $last]) {
            foreach ([4 => 0.1, 0 => 0.15, 8 => 0.2, -4 => 0.25, -8 => 0.5] as $off => $cost) {
                $put($first + $off * $this->unit, $cost + 0.02 * abs($off - $this->style->lead));
            }
            $put($last, 0.3);
            for ($f = $first + self::WITHIN; $f < $last - self::WITHIN; $f += self::WITHIN) {
                $put($f, $this->style->inLine);
            }
        }
        foreach ([...$a->travels, ...$a->acts] as [$first, $last]) {
            $put($first, 0.1);
            $put($last, 0.3);
            for ($f = $first + 2 * self::WITHIN; $f < $last - self::WITHIN; $f += 2 * self::WITHIN) {
                $put($f, 0.5);
            }
        }
        foreach ($a->gives as [$frame]) {
            foreach ([-24, -16, 14, 26] as $off) {
                $put($frame + $off * $this->unit, 0.1);
            }
        }
        // Where nothing happens one may still cut.
        for ($f = $a->from; $f < $a->to; $f += 3 * self::WITHIN) {
            $put($f, 0.7);
        }
        foreach ($this->kept as $c) {
            $out = array_filter($out, static fn (int $f): bool => $f <= $c->from || $f >= $c->to, ARRAY_FILTER_USE_KEY);
            $out[$c->from] = $out[$c->to] = 0.0;
        }
        $out[$a->from] = $out[$a->to] = 0.0;
        ksort($out);

        return $out;
    }
}
