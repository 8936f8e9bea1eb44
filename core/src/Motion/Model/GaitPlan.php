<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Rig\BodyFrame;

/**
 * Footfalls of a walk and what goes with them in time: the way made, turns on the spot, the phase of the stride, and over
 * ground that is not even the height at which the hips are carried.
 */
final class GaitPlan
{
    /** Radians that a pair of steps on the spot turns at most, and seconds of each of the two. */
    private const TURN = 1.6;

    private const TURN_STEP = 0.28;

    public FootPlan $feet;

    /** Distance along the course. */
    public MonotoneTrack $travel;

    /** Turn of the body against the course's heading. */
    public MonotoneTrack $turning;

    public MonotoneTrack $phase;

    public MonotoneTrack $strength;

    /** Height that the hips' height is counted from, where the ground is not even. */
    public MonotoneTrack $base;

    /** The first second that counts: a cycle's feet come from before its start. */
    public float $from = 0.0;

    public float $seconds = 0.0;

    /** When it is at the mark; of a walk that stops its end. */
    public float $passes = 0.0;

    public readonly bool $even;

    /** Length of a walk to a mark. */
    private float $length = 0.0;

    /** Steps and slopes on the way; null: the ground is even. */
    private readonly ?Terrain $terrain;

    private readonly Pacing $pacing;

    /** The manner of the step that is being planned. */
    private GaitStyle $now;

    /** @param  list<array{float, GaitStyle}>  $manners  from distances on, rising; they are taken on over the next steps */
    private function __construct(
        private readonly BodyFrame $body, private readonly GaitStyle $style, public readonly bool $cycle, private readonly Course $course,
        array $manners = [],
    ) {
        $this->pacing = new Pacing($style, $manners);
        $this->turning = $this->base = new MonotoneTrack([0.0], [[0.0]]);
        $this->now = $style;
        $this->terrain = $cycle || $course->uneven() === null ? null : new Terrain($course, $body);
        $this->even = $this->terrain === null;
    }

    /** An endless steady walk. */
    public static function cycle(BodyFrame $body, GaitStyle $style): self
    {
        $plan = new self($body, $style, true, Course::straight());
        $plan->planCycle();

        return $plan;
    }

    /**
     * From a stand at a course's start to a stand so many metres along it.
     *
     * @param  float  $facing  heading of the stand it begins with, radians
     * @param  float|null  $face  heading of the stand it ends with; null: as the course arrives
     * @param  list<array{float, GaitStyle}>  $changes  other manners from distances on, rising
     */
    public static function toMark(
        BodyFrame $body, GaitStyle $style, Course $course, float $metres, float $facing = 0.0, ?float $face = null, array $changes = [],
    ): self {
        $plan = new self($body, $style, false, $course, $changes);
        $plan->planToMark($metres, $facing, $face);

        return $plan;
    }

    /**
     * From a stand to where the left foot comes down so many metres along a course, without stopping there.
     *
     * @param  list<array{float, GaitStyle}>  $changes
     */
    public static function through(
        BodyFrame $body, GaitStyle $style, Course $course, float $metres, float $facing = 0.0, array $changes = [],
    ): self {
        $plan = new self($body, $style, false, $course, $changes);
        $plan->planToMark($metres, $facing, null, true);

        return $plan;
    }

    public function strides(): int
    {
        return max(1, (int) round(2.6 / (2 * $this->style->stepSeconds)));
    }

    /** The manner at a distance along the way. */
    public function manner(float $s): GaitStyle
    {
        return $this->terrain?->manner($s) ?? (
            $this->cycle || $this->pacing->isEven() ? $this->style : $this->pacing->at($s, $this->length)
        );
    }

    private function half(): float
    {
        return $this->now->halfTrack + ($this->body->hipHalf - 0.08) * 0.8;
    }

    private function place(float $s, float $m, float $on, float $off, float $land = 1.0): Step
    {
        [$x, $z, $h] = $this->course->at($s);
        $toe = $h + $m * deg2rad(5.0);
        // Where an edge would run under the foot, it steps a little shorter or longer.
        $spare = null;
        foreach ([0.0, 0.05, -0.05, 0.10, -0.10, 0.15, -0.15, 0.20, -0.20] as $shift) {
            $px = $x + cos($h) * $m * $this->half() + sin($h) * $shift;
            $pz = $z - sin($h) * $m * $this->half() + cos($h) * $shift;
            $ground = $this->course->footing($px, $pz, $toe, $s + $shift, FootPlan::sole($this->body));
            if ($ground !== null && (! $ground[2] || $spare === null)) {
                $step = new Step($px, $pz, $toe, $on, $off, $land, 1.0, $ground[0], $ground[1]);
                if (! $ground[2]) {
                    return $step;
                }
                $spare = $step;
            }
        }
        $px = $x + cos($h) * $m * $this->half();
        $pz = $z - sin($h) * $m * $this->half();

        return $spare ?? new Step($px, $pz, $toe, $on, $off, $land, 1.0, $this->course->height($px, $pz, $s));
    }

    /** The common stance at a distance along the course, turned by so much against it. */
    private function standAt(string $side, float $s, float $turn): Step
    {
        [$x, $z, $h] = $this->course->at($s);
        $home = Standing::stance($side);
        $h += $turn;
        [$home->x, $home->z] = [$x + cos($h) * $home->x + sin($h) * $home->z, $z - sin($h) * $home->x + cos($h) * $home->z];
        $home->heading += $h;
        [$home->y, $home->slope] = $this->course->footing($home->x, $home->z, $home->heading, $s, FootPlan::sole($this->body))
            ?? [$this->course->height($home->x, $home->z, $s), 0.0];

        return $home;
    }

    /**
     * Steps on the spot that turn a stand, inner foot first, at most TURN a pair.
     *
     * @param  array<string, list<Step>>  $steps  added to
     * @return array{list<float>, list<list<float>>, float} turning keys, and when the last foot is down
     */
    private function turnSteps(array &$steps, float $s, float $from, float $to, float $t): array
    {
        $way = $to - $from;
        $pairs = (int) ceil(abs($way) / self::TURN - 1e-6);
        $times = [$t];
        $turns = [[$from]];
        for ($k = 1; $k <= $pairs; $k++) {
            foreach ($way > 0 ? ['L', 'R'] : ['R', 'L'] as $side) {
                $last = $steps[$side][count($steps[$side]) - 1];
                $last->off = $t + 0.03;
                $last->leave = 0.35;
                $step = $this->standAt($side, $s, $from + $way * $k / $pairs);
                $step->on = $t + self::TURN_STEP - 0.02;
                $step->land = 0.12;
                $steps[$side][] = $step;
                $t += self::TURN_STEP;
            }
            $times[] = $t - 0.06;
            $turns[] = [$from + $way * $k / $pairs];
        }

        return [$times, $turns, $t];
    }

    private function planCycle(): void
    {
        $st = $this->style;
        $swing = (1 - $st->duty) * 2 * $st->stepSeconds;
        $this->seconds = 2 * $st->stepSeconds * $this->strides();
        $count = 2 * $this->strides() + 4;
        $steps = ['L' => [], 'R' => []];
        $keys = ['t' => [], 'v' => [], 'p' => []];
        for ($k = -4; $k <= $count; $k++) {
            $on = $k * $st->stepSeconds;
            $s = $k * $st->step;
            $steps[$k % 2 === 0 ? 'L' : 'R'][] = $this->place($s, $k % 2 === 0 ? 1.0 : -1.0, $on, $on + 2 * $st->stepSeconds - $swing);
            $keys['t'][] = $on + ($st->duty - 0.5) * $st->stepSeconds;
            $keys['v'][] = [$s - $st->step / 2];
            $keys['p'][] = [$k / 2];
        }
        $this->feet = new FootPlan($this->body, $st, $steps, $this->course->uneven());
        $this->travel = new MonotoneTrack($keys['t'], $keys['v']);
        $this->phase = new MonotoneTrack(array_map(static fn (int $k): float => $k * $st->stepSeconds, range(-4, $count)), $keys['p']);
        $this->strength = new MonotoneTrack([0.0], [[1.0]]);
        $this->from = -2 * $st->stepSeconds;
    }

    private function planToMark(float $mark, float $facing, ?float $face, bool $through = false): void
    {
        [$places, $through] = $this->footfalls($mark, $through);
        [$count, $metres] = [count($places), $this->length];
        $first = Angle::wrapped($facing - $this->course->at(0.0)[2]);
        $steps = ['L' => [$this->standAt('L', 0.0, $first)], 'R' => [$this->standAt('R', 0.0, $first)]];
        [$turnTimes, $turns, $begin] = abs($first) > 0.6
            ? $this->turnSteps($steps, 0.0, $first, 0.0, 0.1)
            : [[0.1, 0.9], [[$first], [0.0]], 0.0];
        // The body falls ahead before the first foot leaves the ground; who has turned is on the way already.
        $t = $begin + ($begin > 0.0 ? 0.04 : 0.20);
        $travel = [[-5.0, 0.0], [$t - 0.10, 0.0]];
        $phase = [[-5.0, -0.5], [$begin, -0.5], [$t - 0.02, -0.5]];
        $strength = [[-5.0, 0.0], [$t - 0.02, 0.0]];
        $height = $steps['L'][0]->y;
        $base = [[-5.0, $height], [$t - 0.02, $height]];
        [$before, $passes] = [0.0, null];
        for ($k = 1; $k <= $count + 1; $k++) {
            $closing = $k === $count + 1;
            $s = $closing ? $metres : $places[$k - 1];
            $st = $this->now = $this->terrain?->fall($k) ?? $this->pacing->at($s, $metres);
            // A shorter step takes less time, so that nobody slows down and hurries again on the way to a stop.
            $usual = $this->style->run > 0.0 && $s > 0.5 * $metres ? Ease::clamp(($s - $before) / $st->step, 0.65, 1.0) : 1.0;
            $t += $st->stepSeconds * ($k === 1 ? 1.12 : ($closing ? 0.95 : $usual));
            $side = $k % 2 === 1 ? 'L' : 'R';
            $last = $steps[$side][count($steps[$side]) - 1];
            Pacing::leaves($last, $st, $t, $k === 1 ? 1.1 : ($closing ? 0.95 : 1.0));
            $last->leave = $k === 1 ? 0.75 : ($closing ? 0.8 : 1.0);
            // Both feet end in the common stance, so that what follows joins without a slide.
            $step = $k >= $count ? $this->standAt($side, $metres, 0.0) : $this->place($s, $side === 'L' ? 1.0 : -1.0, $t, 1e9);
            $step->style = $st;
            [$step->on, $step->off, $step->land] = [$t, 1e9, $closing ? 0.25 : ($k === 1 ? 0.9 : 1.0)];
            $steps[$side][] = $step;
            $base = Terrain::carried($base, $t, $st->stepSeconds, $height, $step->y);
            $now = $t + ($st->duty - 0.5) * $st->stepSeconds * ($closing ? 2.2 : 1.0);
            if ($k === 1 || $closing) {
                $travel[] = Pacing::between($travel[count($travel) - 1], [$now, ($s + $before) / 2], $closing);
            }
            $travel[] = [$now, ($s + $before) / 2];
            $phase[] = [$t, ($k - 1) / 2];
            $strength[] = [$t, $closing ? 0.0 : ($k === $count ? 0.85 : 1.0)];
            [$height, $before] = [$step->y, $s];
            $passes = $k === $through ? $t : $passes;
        }
        [$phase[], $strength[], $this->seconds] = [[$t + 0.35, $count / 2], [$t + 0.35, 0.0], $t + 0.6];
        $last = $face === null ? 0.0 : Angle::wrapped($face - $this->course->at($metres)[2]);
        if (abs($last) > 0.1) {
            [$times, $more, $end] = $this->turnSteps($steps, $metres, 0.0, $last, max($t + 0.35, end($turnTimes) + 0.1));
            array_push($turnTimes, ...$times);
            array_push($turns, ...$more);
            $this->seconds = $end + 0.6;
        }
        $this->feet = new FootPlan($this->body, $this->style, $steps, $this->course->uneven());
        $this->travel = MonotoneTrack::of($travel);
        $this->phase = MonotoneTrack::of($phase);
        $this->strength = MonotoneTrack::of($strength);
        $this->base = MonotoneTrack::of($base);
        $this->turning = new MonotoneTrack($turnTimes, $turns);
        $this->passes = $passes ?? $this->seconds;
    }

    /**
     * Where feet fall on the way to a mark, and the number of the one that comes down on it without a stop after it.
     *
     * @return array{non-empty-list<float>, int} 0: it stops there, as it does over steps and slopes
     */
    private function footfalls(float $mark, bool $through): array
    {
        if ($through && $this->even) {
            [$places, $number] = $this->pacing->through($mark);
            $this->length = $places[count($places) - 1];

            return [$places, $number];
        }
        $this->length = $mark;

        return [
            $this->terrain?->footfalls($mark, fn (float $s): GaitStyle => $this->pacing->at($s, $mark)) ?? $this->pacing->footfalls($mark), 0,
        ];
    }
}
