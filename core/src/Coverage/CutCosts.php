<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Math\Angle;

/** What a cut costs: seconds of a set-up while things happen, how long a shot lasts, and the step from one set-up to another. */
final class CutCosts
{
    /** Share of a style's mean length during which one learns where one is. */
    private const ESTABLISHING = 0.55;

    /** Frames around something that changes hands. */
    private const GIVE = 20;

    /** What crossing the line costs, and what a jump does: more than anything else may save. */
    private const CROSSED = 40.0;

    public const JUMP = 12.0;

    private readonly float $unit;

    /** @var array<int, list<float>> what a set-up costs, summed from the first frame on: by set-up and look */
    private array $sums = [];

    /** @param  list<Candidate>  $candidates */
    public function __construct(
        private readonly Action $action,
        private readonly array $candidates,
        private readonly Watch $watch,
        private readonly Style $style,
        private readonly float $perSecond,
    ) {
        $this->unit = $perSecond / 24.0;
    }

    /** What a set-up costs from one frame to another. */
    public function span(int $k, int $from, int $to): float
    {
        $sums = $this->sums[$k] ??= $this->summed($k);
        $at = static fn (int $f): int => intdiv($f, Watch::STEP);
        [$a, $b] = [$at($from - $this->action->from), $at($to - $this->action->from)];

        return $sums[$b] - $sums[$a];
    }

    /** @return list<float> */
    private function summed(int $k): array
    {
        $sum = 0.0;
        $out = [0.0];
        for ($f = $this->action->from; $f <= $this->action->to; $f += Watch::STEP) {
            $sum += $this->rate($k, $f) * Watch::STEP / $this->perSecond;
            $out[] = $sum;
        }

        return $out;
    }

    /** What a second of a set-up costs at a frame. */
    private function rate(int $k, int $frame): float
    {
        $c = $this->candidates[$k];
        if ($frame < $c->from || $frame > $c->to || ! $this->watch->has($k, $frame)) {
            return 40.0;
        }
        $s = $this->style;
        $how = fn (string $who): float => $this->watch->of($k, $frame, $who)[0];
        $begins = $frame - $this->action->from < self::ESTABLISHING * $s->mean * $this->unit;
        $speaker = $this->action->speaker($frame);
        $doers = $this->action->doers($frame);
        $cost = 0.0;
        if ($speaker !== null) {
            $listens = max([0.0, ...array_map($how, array_values(array_diff($this->action->people, [$speaker])))]);
            $cost += (1 - $how($speaker)) * (1 - $s->react * 0.5 * $listens) * ($begins ? 0.3 : 1.4);
        } elseif ($doers !== []) {
            $cost += 1 - array_sum(array_map($how, $doers)) / count($doers);
        } else {
            $cost += 0.6 * (1 - max([0.0, ...array_map($how, $this->action->people)]));
        }
        $give = $this->give($frame);
        if ($c->role === 'insert') {
            $cost += $give === null ? 2.0 : -1.2;
        } elseif ($give !== null) {
            $cost += 1.5 * (1 - 0.45 * ($how($give[0]) + $how($give[1])));
        }
        foreach ($c->role === 'insert' ? [] : [$c->framing->subject] as $who) {
            [, $x, , $top] = $this->watch->of($k, $frame, $who);
            $cost += abs($x) > 0.86 || $top > 1.12 ? 0.8 : 0.0;
        }
        $wanted = $this->wanted($frame, $begins, $speaker, $give !== null);

        return $cost + ($c->role === 'insert' ? 0.0 : 0.28 * ($c->size - $wanted) ** 2)
            + ($c->role === 'over' ? $s->over : 0.0) + ($c->role === 'two' ? $s->two : 0.0);
    }

    /** The size that one would like to see, as ShotSize counts. */
    private function wanted(int $frame, bool $begins, ?string $speaker, bool $give): float
    {
        $a = $this->action;
        $share = ($frame - $a->from) / max(1, $a->to - $a->from);

        return match (true) {
            $begins => 0.5,
            $give => 3.0,
            $speaker !== null => $this->style->wide + ($this->style->tight - $this->style->wide) * $share,
            $a->travelling($frame) => 1.2,
            $a->doers($frame) !== [] => 2.2,
            default => 1.0,
        };
    }

    /** @return array{string, string}|null who hands something to whom around a frame */
    private function give(int $frame): ?array
    {
        foreach ($this->action->gives as [$at, , $giver, $taker]) {
            if (abs($frame - $at) <= self::GIVE * $this->unit) {
                return [$giver, $taker];
            }
        }

        return null;
    }

    /** What it costs that a shot of a set-up lasts so long. */
    public function length(int $k, int $frames): float
    {
        $n = $frames / $this->unit;
        $mean = $this->style->mean * match ($this->candidates[$k]->role) {
            'insert' => 0.5,
            'master' => 1.05,
            'travel' => 1.2,
            default => 1.0,
        };
        $off = 3.6 * (log($n / $mean) / $this->style->spread) ** 2 * ($n < $mean ? 0.8 : 0.6) * 0.35;

        return $off + ($n < $this->style->least ? 60.0 * (1 - $n / $this->style->least) : 0.0);
    }

    /** What it costs to go from one set-up to another at a frame. */
    public function cut(int $p, int $k, int $frame): float
    {
        [$a, $b] = [$this->candidates[$p], $this->candidates[$k]];
        $cost = $this->crosses($p, $k, $frame) ? self::CROSSED : 0.0;
        $steps = abs($a->size - $b->size);
        if ($a->about === $b->about) {
            $who = $a->framing->subject;
            $turn = abs(rad2deg(Angle::wrapped($this->watch->of($p, $frame, $who)[2] - $this->watch->of($k, $frame, $who)[2])));
            $cost += $turn < 30.0 && $steps < 1.3 ? self::JUMP : ($steps < 0.5 && $turn < 60.0 ? 2.5 : 0.0);
        }
        $cost += $a->role === 'insert' && $b->role === 'insert' ? 3.0 : 0.0;
        $cost += in_array([$a->role, $b->role], [['over', 'single'], ['single', 'over']], true) && $steps > 1.6 ? 1.2 : 0.0;

        return $cost + ($steps > 3.6 ? 0.8 : 0.0);
    }

    /** Whether two people who are in both pictures change sides. */
    public function crosses(int $p, int $k, int $frame): bool
    {
        foreach ($this->action->people as $i => $one) {
            foreach (array_slice($this->action->people, $i + 1) as $other) {
                $at = fn (int $of, string $who): float => $this->watch->of($of, $frame, $who)[1];
                $x = [$at($p, $one), $at($p, $other), $at($k, $one), $at($k, $other)];
                if (max($x) < 1.5 && ($x[0] - $x[1]) * ($x[2] - $x[3]) < 0.0) {
                    return true;
                }
            }
        }

        return false;
    }
}
