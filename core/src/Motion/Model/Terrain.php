<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Rig\BodyFrame;

/**
 * Ground that is not even, as one who walks over it takes it: edges of steps, slopes between them, and where feet come down.
 * Each step of a stair gets one foot; on slopes steps are shorter and slower, and the body leans.
 */
final class Terrain
{
    private const EVERY = 0.05;

    /** A rise of more than this between two places is an edge, metres. */
    private const EDGE = 0.045;

    /** Radians of slope at which one goes at three tenths of the speed. */
    private const STEEP = 0.56;

    /** @var list<array{float, float}> place along the course and rise of each edge */
    private readonly array $edges;

    /** @var list<array{float, GaitStyle}> places and manners of the footfalls */
    private array $falls = [];

    public function __construct(private readonly Course $course, private readonly BodyFrame $body)
    {
        $edges = [];
        for ($s = self::EVERY, $end = $course->length(); $s <= $end; $s += self::EVERY) {
            $rise = $course->under($s) - $course->under($s - self::EVERY);
            if (abs($rise) > self::EDGE) {
                $edges[] = [$this->edge($s - self::EVERY, $s), $rise];
            }
        }
        $this->edges = $edges;
    }

    /** Where the ground jumps between two places along the course. */
    private function edge(float $low, float $high): float
    {
        $below = $this->course->under($low);
        $half = ($below + $this->course->under($high)) / 2;
        $up = $this->course->under($high) > $below;
        for ($i = 0; $i < 5; $i++) {
            $s = ($low + $high) / 2;
            [$x, $z] = $this->course->at($s);
            ($this->course->height($x, $z, $s) > $half) === $up ? $high = $s : $low = $s;
        }

        return ($low + $high) / 2;
    }

    /** Slope ahead at a place, radians, edges left out. */
    private function slope(float $s): float
    {
        $rise = $way = 0.0;
        for ($k = -4; $k < 4; $k++) {
            $a = $this->course->under($s + $k * self::EVERY);
            $b = $this->course->under($s + ($k + 1) * self::EVERY);
            if (abs($b - $a) <= self::EDGE) {
                $rise += $b - $a;
                $way += self::EVERY;
            }
        }

        return $way > 0.0 ? atan($rise / $way) : 0.0;
    }

    /**
     * Distances of the footfalls to a mark and the manner of each step: one foot on each step of a stair, others evenly between.
     *
     * @param  \Closure(float): GaitStyle  $manner  by distance, on even ground
     * @return non-empty-list<float>
     */
    public function footfalls(float $metres, \Closure $manner): array
    {
        $out = [];
        $from = 0.0;
        foreach ($this->anchors($metres, $manner(0.0)->step) as $to) {
            $step = 0.0;
            for ($k = 0; $k < 4; $k++) {
                $step += $this->sloped($manner($from), $from + ($to - $from) * ($k + 0.5) / 4)->step / 4;
            }
            // Out of the stand the first step is two thirds of one.
            $less = $from === 0.0 ? 0.35 : 0.0;
            $n = max(1, (int) round(($to - $from) / $step + $less));
            $n = $from === 0.0 && $to >= $metres - 1e-9 ? max(2, $n) : $n;
            $less = $n > 1 ? $less : 0.0;
            array_push($out, ...self::shared($from, $to, $n, 1.0 - $less, $from > 0.0, $to < $metres));
            $from = $to;
        }
        $out = $out === [] ? [$metres] : $out;
        $out = count($out) < 2 ? [$metres / 2, ...$out] : $out;
        $before = 0.0;
        $this->falls = [[0.0, $manner(0.0)]];
        foreach ($out as $s) {
            $rise = $this->course->under($s) - $this->course->under($before);
            $this->falls[] = [$s, $this->stepped($this->sloped($manner($s), $s), $s - $before, $rise, $this->slope(($s + $before) / 2))];
            $before = $s;
        }

        return $out;
    }

    /**
     * So many steps between two places: they grow out of a stair and shrink towards one.
     *
     * @param  float  $first  length of the first step, in steps
     * @return list<float>
     */
    private static function shared(float $from, float $to, int $steps, float $first, bool $leaves, bool $comes): array
    {
        $shares = array_fill(0, $steps, 1.0);
        $shares[0] = $first;
        foreach ($shares as $k => $share) {
            $grown = $leaves ? 0.3 * exp((float) -$k) : 0.0;
            $shrunk = $comes ? 0.25 * exp((float) ($k + 1 - $steps)) : 0.0;
            $shares[$k] = $share * (1.0 - $grown - $shrunk);
        }
        $whole = array_sum($shares);
        $out = [];
        $at = $from;
        foreach ($shares as $share) {
            $at += ($to - $from) * $share / $whole;
            $out[] = $at;
        }

        return $out;
    }

    /**
     * Places where a foot has to be: before the first edge, on each step, behind the last, and on the mark.
     *
     * @return list<float>
     */
    private function anchors(float $metres, float $step): array
    {
        $tip = $this->body->tipZ + 0.035;
        $hold = $this->body->ballZ + 0.02;
        $heel = -$this->body->heelZ + 0.03;
        $out = [];
        foreach ($this->edges as $k => [$at, $rise]) {
            // The last foot before an edge: toes short of a rise, the ball on the brink of a drop.
            $before = $at - ($rise > 0.0 ? $tip : $hold);
            $start = $this->edges[$k - 1][0] ?? null;
            $last = $start === null ? 0.0 : $start + $heel;
            if ($start === null || $at - $start > 1.2 * $step) {
                if ($start !== null) {
                    $out[] = $start + max($heel, 0.5 * ($heel + min($at - $start, 0.36) - $tip));
                }
                $out[] = $before;
            } else {
                $out[] = $rise > 0.0 ? max(
                    $last, min(($last + $before) / 2, $before),
                ) : min(max($last, ($last + $before) / 2), $at - 0.5 * $hold);
            }
        }
        $end = $this->edges === [] ? null : $this->edges[count($this->edges) - 1][0];
        if ($end !== null) {
            $out[] = $end + $heel + 0.03;
        }
        $kept = [];
        foreach ($out as $s) {
            if ($s > 0.22 && $s < $metres - 0.2 && ($kept === [] || $s - $kept[count($kept) - 1] > 0.1)) {
                $kept[] = $s;
            }
        }

        return [...$kept, $metres];
    }

    /** A manner on a slope: shorter, slower, and leaning into it. */
    private function sloped(GaitStyle $st, float $s): GaitStyle
    {
        // The slope under this foot or under the one before.
        [$here, $behind] = [$this->slope($s), $this->slope($s - 0.4)];
        $slope = abs($behind) > abs($here) ? $behind : $here;
        if (abs($slope) < 0.03) {
            return $st;
        }
        $out = clone $st;
        $much = min(1.0, abs($slope) / self::STEEP);
        $out->step *= 1 - 0.44 * $much;
        $out->speed *= exp(-1.2 * $much);
        $out->stepSeconds = $out->step / $out->speed;
        $out->lean += $slope * ($slope > 0.0 ? 0.42 : 0.22);
        $out->heelStrike *= 1 - 0.6 * $much;
        $out->toeOff *= 1 - 0.25 * $much;

        return $out;
    }

    /** The manner of a step that goes so far and so high. */
    private function stepped(GaitStyle $st, float $far, float $rise, float $slope): GaitStyle
    {
        // What of the rise is an edge, and no slope.
        $edge = abs($rise) - abs($far) * tan(abs($slope));
        $much = abs($rise) < 0.04 ? 0.0 : Ease::smooth(($edge - 0.03) / 0.08);
        $short = $far < 0.8 * $st->step;
        if ($much === 0.0 && ! $short) {
            return $st;
        }
        $out = clone $st;
        $hurry = sqrt(max(0.4, $st->speed) / 1.2);
        // Steps of a stair take their time, whatever the stride: some hundred a minute.
        $seconds = $much > 0.0 ? (0.5 + 0.7 * abs($rise)) / $hurry : $st->stepSeconds * Ease::mix(0.85, 1.0, Ease::clamp($far / $st->step));
        $out->step = $far;
        $out->stepSeconds = Ease::mix($st->stepSeconds, $seconds, max($much, $short ? 1.0 : 0.0));
        $out->speed = $far / $out->stepSeconds;
        $out->heelStrike *= 1 - 0.9 * $much;
        $out->toeOff *= 1 - 0.35 * $much;
        $out->lean += $much * ($rise > 0.0 ? 0.10 : -0.02);
        $out->armSwing *= 1 - 0.4 * $much;
        $out->pelvisYaw *= 1 - 0.5 * $much;
        $out->duty = Ease::mix($out->duty, 0.57, $much);
        $out->kneeStrike = Ease::mix($out->kneeStrike, deg2rad(12.0), $much);

        return $out;
    }

    /**
     * Height that the hips are carried at over one step. Up: the leg behind pushes, and they rise when it has left the ground.
     * Down: they sink before the foot is there, since the leg ahead is no longer than it is.
     *
     * @param  list<array{float, float}>  $keys  seconds and metres
     * @param  float  $t  when the foot comes down
     * @param  float  $from  height of the other foot
     * @param  float  $to  height of this one
     * @return list<array{float, float}>
     */
    public static function carried(array $keys, float $t, float $stepSeconds, float $from, float $to): array
    {
        while ($keys[count($keys) - 1][0] > $t - 0.01) {
            array_pop($keys);
        }
        $rise = $to - $from;

        return [...$keys, ...($rise > 0.0
            ? [[$t, $from + 0.15 * $rise], [$t + 0.28 * $stepSeconds, $from + 0.38 * $rise], [$t + 0.75 * $stepSeconds, $to]]
            : [[$t, $to - 0.12 * $rise], [$t + 0.3 * $stepSeconds, $to]])];
    }

    /** The manner at a distance, going over from one footfall's to the next one's. */
    public function manner(float $s): GaitStyle
    {
        $last = count($this->falls) - 1;
        for ($k = 0; $k < $last && $this->falls[$k + 1][0] <= $s; $k++) {
            // Up to the footfall before.
        }
        $next = $this->falls[min($last, $k + 1)];
        $span = $next[0] - $this->falls[$k][0];

        return $span < 1e-6 ? $next[1] : $this->falls[$k][1]->mix($next[1], Ease::smooth(($s - $this->falls[$k][0]) / $span));
    }

    public function fall(int $k): GaitStyle
    {
        return $this->falls[min($k, count($this->falls) - 1)][1];
    }
}
