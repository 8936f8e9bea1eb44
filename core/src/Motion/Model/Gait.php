<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Smoothing;
use CrispReel\Core\Rig\ArmPose;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;
use CrispReel\Core\Rig\Footing;

/**
 * Walking, feet first: footfalls are planned, the feet roll over them, the pelvis rides on the legs, and the upper body
 * answers with lagged cosines of the one phase. It follows a course over the ground, straight along +Z unless another is
 * given; left heel strikes at whole phases.
 */
final class Gait
{
    /** Radians that a pair of steps on the spot turns at most, and seconds of each of the two. */
    private const TURN = 1.6;

    private const TURN_STEP = 0.28;

    private FootPlan $feet;

    /** Distance along the course. */
    private MonotoneTrack $travel;

    /** Turn of the body against the course's heading. */
    private MonotoneTrack $turning;

    private MonotoneTrack $phase;

    private MonotoneTrack $strength;

    /** @var list<float> smoothed ride height at 60 a second */
    private array $heights = [];

    private float $from = 0.0;

    /** @var list<array{float, GaitStyle}> manners from distances on, rising; they are taken on over the next steps */
    private array $manners = [];

    /** Length of a walk to a mark. */
    private float $length = 0.0;

    /** Steps and slopes on the way; null: the ground is even. */
    private ?Terrain $terrain = null;

    /** Height that the hips' height is counted from, where the ground is not even. */
    private MonotoneTrack $base;

    /** The manner at the moment that is being worked out. */
    private GaitStyle $now;

    public float $seconds = 0.0;

    private function __construct(
        private readonly BodyFrame $body,
        private readonly GaitStyle $style,
        private readonly int $seed,
        private readonly bool $cycle,
        private readonly Course $course,
    ) {
        $this->turning = $this->base = new MonotoneTrack([0.0], [[0.0]]);
        $this->now = $style;
        $this->terrain = $cycle || $course->uneven() === null ? null : new Terrain($course, $body);
    }

    /** An endless steady walk; the motion is one or two whole strides of it. */
    public static function cycle(BodyFrame $body, GaitStyle $style, int $seed = 1): self
    {
        $g = new self($body, $style, $seed, true, Course::straight());
        $g->planCycle();
        $g->ride();

        return $g;
    }

    /** From a stand, so many metres ahead, to a stand on the mark. */
    public static function toMark(BodyFrame $body, GaitStyle $style, float $metres, int $seed = 1): self
    {
        $g = new self($body, $style, $seed, false, Course::straight());
        $g->planToMark(max(0.5, $metres), 0.0, null);
        $g->ride();

        return $g;
    }

    /**
     * Along a course: from a stand at its start, turning first to where it leads, to a stand at its end.
     *
     * @param  float  $facing  heading of the stand it begins with, radians
     * @param  float|null  $face  heading of the stand it ends with; null: as the course arrives
     * @param  list<array{float, GaitStyle}>  $changes  other manners from distances on, rising
     */
    public static function along(
        BodyFrame $body, GaitStyle $style, Course $course, float $facing, ?float $face, int $seed = 1, array $changes = [],
    ): self {
        $g = new self($body, $style, $seed, false, $course);
        $g->manners = $changes;
        $g->planToMark($course->length(), $facing, $face);
        $g->ride();

        return $g;
    }

    /**
     * Seconds that along() takes, without riding it.
     *
     * @param  list<array{float, GaitStyle}>  $changes
     */
    public static function secondsAlong(
        BodyFrame $body, GaitStyle $style, Course $course, float $facing, ?float $face, array $changes = [],
    ): float {
        $g = new self($body, $style, 1, false, $course);
        $g->manners = $changes;
        $g->planToMark($course->length(), $facing, $face);

        return $g->seconds;
    }

    public function metres(): float
    {
        return $this->cycle ? 2 * $this->style->step * $this->strides() : $this->travel->at($this->seconds)[0];
    }

    private function strides(): int
    {
        return max(1, (int) round(2.6 / (2 * $this->style->stepSeconds)));
    }

    /** The manner at a distance: each is taken on over a metre and a half, and nobody runs off from a stand or stops dead. */
    private function manner(float $s, float $metres): GaitStyle
    {
        $st = $this->style;
        foreach ($this->manners as [$from, $to]) {
            $st = $st->mix($to, Ease::smooth(($s - $from + 0.3) / 1.5));
        }
        if ($st->run > 0.0 && ! $this->cycle) {
            $quick = new GaitStyle(1.9, 1.0, $st->bounce, 0.0, $st->arm, $st->weight, $st->age, $st->mood);
            $slow = new GaitStyle(1.35, 1.0, $st->bounce, 0.0, $st->arm, $st->weight, $st->age, $st->mood);
            $st = $quick->mix($st, Ease::smooth($s / 2.2));
            $st = $slow->mix($st, Ease::smooth(($metres - 0.5 - $s) / 3.2));
        }

        return $st;
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
            $ground = $this->course->footing($px, $pz, $toe, $s + $shift, $this->sole());
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

    /** @return array{float, float, float} heel, ball and toe tip ahead of the ankle */
    private function sole(): array
    {
        return [$this->body->heelZ - FootPlan::RIM, $this->body->ballZ, $this->body->tipZ + FootPlan::RIM];
    }

    /** The common stance at a distance along the course, turned by so much against it. */
    private function standAt(string $side, float $s, float $turn): Step
    {
        [$x, $z, $h] = $this->course->at($s);
        $home = Standing::stance($side);
        $h += $turn;
        [$home->x, $home->z] = [$x + cos($h) * $home->x + sin($h) * $home->z, $z - sin($h) * $home->x + cos($h) * $home->z];
        $home->heading += $h;
        [$home->y, $home->slope] = $this->course->footing($home->x, $home->z, $home->heading, $s, $this->sole())
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

    private function planToMark(float $metres, float $facing, ?float $face): void
    {
        $st = $this->style;
        $this->length = $metres;
        $places = $this->terrain?->footfalls($metres, fn (float $s): GaitStyle => $this->manner($s, $metres)) ?? $this->footfalls($metres);
        $count = count($places);
        $first = Angle::wrapped($facing - $this->course->at(0.0)[2]);
        $steps = ['L' => [$this->standAt('L', 0.0, $first)], 'R' => [$this->standAt('R', 0.0, $first)]];
        [$turnTimes, $turns, $begin] = abs($first) > 0.6
            ? $this->turnSteps($steps, 0.0, $first, 0.0, 0.1)
            : [[0.1, 0.9], [[$first], [0.0]], 0.0];
        $travel = [[-5.0, 0.0], [$begin + 0.12, 0.0]];
        // Who has turned is on the way already.
        $t = $begin + ($begin > 0.0 ? 0.06 : 0.30);
        $phase = [[-5.0, -0.5], [$begin, -0.5], [$t - 0.02, -0.5]];
        $strength = [[-5.0, 0.0], [$t - 0.02, 0.0]];
        $height = $steps['L'][0]->y;
        $base = [[-5.0, $height], [$t - 0.02, $height]];
        $before = 0.0;
        for ($k = 1; $k <= $count + 1; $k++) {
            $closing = $k === $count + 1;
            $s = $closing ? $metres : $places[$k - 1];
            $st = $this->now = $this->terrain?->fall($k) ?? $this->manner($s, $metres);
            $t += $st->stepSeconds * ($k === 1 ? 1.35 : ($closing ? 1.15 : 1.0));
            $side = $k % 2 === 1 ? 'L' : 'R';
            $last = $steps[$side][count($steps[$side]) - 1];
            $last->off = $t - (1 - $st->duty) * 2 * $st->stepSeconds * ($k === 1 ? 1.1 : ($closing ? 0.95 : 1.0));
            $was = $last->style;
            if ($was !== null && $was->run > 0.0) {
                // One who slows down leaves the ground as one who runs, and is longer in the air.
                $last->off = min($last->off, $last->on + 1.05 * $was->duty * 2 * $was->stepSeconds);
            }
            $last->leave = $k === 1 ? 0.75 : ($closing ? 0.8 : 1.0);
            // Both feet end in the common stance, so that what follows joins without a slide.
            $step = $k >= $count ? $this->standAt($side, $metres, 0.0) : $this->place($s, $side === 'L' ? 1.0 : -1.0, $t, 1e9);
            $step->style = $st;
            [$step->on, $step->off, $step->land] = [$t, 1e9, $closing ? 0.25 : ($k === 1 ? 0.9 : 1.0)];
            $steps[$side][] = $step;
            $base = Terrain::carried($base, $t, $st->stepSeconds, $height, $step->y);
            $height = $step->y;
            $travel[] = [$t + ($st->duty - 0.5) * $st->stepSeconds * ($closing ? 2.2 : 1.0), ($s + $before) / 2];
            $phase[] = [$t, ($k - 1) / 2];
            $strength[] = [$t, $closing ? 0.0 : ($k === $count ? 0.85 : 1.0)];
            $before = $s;
        }
        $phase[] = [$t + 0.35, $count / 2];
        $strength[] = [$t + 0.35, 0.0];
        $this->seconds = $t + 0.6;
        $last = $face === null ? 0.0 : Angle::wrapped($face - $this->course->at($metres)[2]);
        if (abs($last) > 0.1) {
            [$times, $more, $end] = $this->turnSteps($steps, $metres, 0.0, $last, max($t + 0.35, end($turnTimes) + 0.1));
            array_push($turnTimes, ...$times);
            array_push($turns, ...$more);
            $this->seconds = $end + 0.6;
        }
        $this->feet = new FootPlan($this->body, $this->style, $steps, $this->course->uneven());
        $this->travel = self::track($travel);
        $this->phase = self::track($phase);
        $this->strength = self::track($strength);
        $this->base = self::track($base);
        $this->turning = new MonotoneTrack($turnTimes, $turns);
    }

    /**
     * Distances of the footfalls of a walk to a mark: the first two thirds of a step off, the last on the mark.
     *
     * @return non-empty-list<float>
     */
    private function footfalls(float $metres): array
    {
        if ($this->manners === [] && $this->style->run <= 0.0) {
            $count = max(2, (int) round($metres / $this->style->step + 0.35));
            $length = $metres / ($count - 0.35);

            return array_map(static fn (int $k): float => ($k - 0.35) * $length, range(1, $count));
        }
        $at = 0.65 * $this->manner(0.0, $metres)->step;
        $out = [$at];
        while ($at < $metres - 0.5 * $this->manner($at, $metres)->step || count($out) < 2) {
            $out[] = $at += $this->manner($at, $metres)->step;
        }
        $k = $metres / $at;

        return array_map(static fn (float $s): float => $s * $k, $out);
    }

    /** @param  list<array{float, float}>  $keys */
    private static function track(array $keys): MonotoneTrack
    {
        return new MonotoneTrack(array_column($keys, 0), array_map(static fn (array $k): array => [$k[1]], $keys));
    }

    /** The ride height is smoothed once for the whole motion (Gaussian, 0.09 of a step), then limited by reach. */
    private function ride(): void
    {
        $dt = 1 / 60;
        $count = (int) ceil(($this->seconds - $this->from) / $dt) + 90;
        $raw = [];
        for ($i = 0; $i < $count; $i++) {
            $raw[] = $this->channels($this->from + $i * $dt, true)->hip[1];
        }
        $sigma = 0.09 * $this->style->stepSeconds;
        $this->heights = Smoothing::gaussian($raw, $sigma / $dt);
    }

    /** Catmull-Rom over the smoothed heights. */
    private function rideAt(float $t): float
    {
        $n = count($this->heights);
        $u = Ease::clamp(($t - $this->from) * 60, 0.0, $n - 1.001);
        $i = (int) $u;
        $v = $u - $i;
        $g = fn (int $j): float => $this->heights[max(0, min($n - 1, $j))];
        [$a, $b, $c, $d] = [$g($i - 1), $g($i), $g($i + 1), $g($i + 2)];

        return $b + 0.5 * $v * ($c - $a + $v * (2 * $a - 5 * $b + 4 * $c - $d + $v * (3 * ($b - $c) + $d - $a)));
    }

    public function at(float $t): Channels
    {
        return $this->channels($t, false);
    }

    private function channels(float $t, bool $raw): Channels
    {
        $d = M_PI / 180;
        $c = new Channels;
        $s = $this->travel->at($t)[0];
        $st = $this->now = $this->terrain?->manner($s)
            ?? ($this->manners === [] && $this->style->run <= 0.0 ? $this->style : $this->manner($s, $this->length));
        [$x, $z, $way] = $this->course->at($s);
        $c->heading = $way + $this->turning->at($t)[0];
        $phase = $this->phase->at($t)[0];
        $a = $this->strength->at($t)[0];
        $wave = static fn (float $lag): float => cos(2 * M_PI * ($phase - $lag));
        $wave2 = static fn (float $lag): float => cos(4 * M_PI * ($phase - $lag));
        foreach (['L', 'R'] as $side) {
            $c->foot[$side] = $this->feet->footing($side, $t);
        }
        $c->root = [$x, $z, $c->heading];
        $double = max(0.08, ($st->duty - 0.5) * 2 * $st->stepSeconds);
        $sway = $this->feet->sway($t, $st->stepSeconds * 0.62, $double);
        $swing = Ease::mix(0.055, $st->sway, Ease::smooth($a * 1.2));
        // The fall: the pelvis is over the middle of the feet at heel strike, and fastest in double support.
        $fall = Ease::mix(0.85 * $st->speed * ($st->duty - 0.5) * $st->stepSeconds + 0.036, 0.05, $st->run);
        $ahead = $fall * $a - $a * 0.05 * $st->step * 0.16 * sin(4 * M_PI * ($phase - 0.12)) + (1 - $a) * 0.012;
        $gait = min(1.0, $a * 1.3);
        $idle = 1 - $gait;
        [$sin, $cos] = [sin($c->heading), cos($c->heading)];
        $c->hip = [$x + $cos * $sway * $swing + $sin * $ahead, 0.0, $z - $sin * $sway * $swing + $cos * $ahead];
        $c->pelvis = [
            $st->pelvisTilt * 0.6 * $gait + $a * 1.2 * $d * $wave2(0.06) + $idle * 2 * $d, -$a * $st->pelvisYaw * $wave(0.0),
            $a * $st->pelvisList * $wave(0.145) + $idle * $sway * 1.5 * $d,
        ];
        $c->kneeOut = 0.05 + 0.05 * $idle;
        $this->upper($c, $t, $phase, $a, $sway, $raw);
        if (! $raw) {
            $c->hip[1] = Ride::limited($this->body, $c, $this->rideAt($t), $this->terrain === null ? 0.010 : 0.025) + $idle * 0.002 * $c->breath;

            return $c;
        }
        $left = $this->feet->leftShare($t, $double);
        $knee = fn (string $s): float => Ease::mix(6 * $d, $this->kneeWanted($c->foot[$s]), $a);
        $c->hip[1] = ($this->terrain === null
            ? Ride::height($this->body, $c, $left, $knee('L'), $knee('R'), 0.012)
            : $this->base->at($t)[0] + Ride::height($this->body, $this->levelled($c, $t), $left, $knee('L'), $knee('R'), 0.012))
            + $a * $st->bounce * 0.019 * min(1.3, $st->speed / 1.2) * ($wave2(0.305) * 0.5 - 0.12);
        if ($st->run > 0.0) {
            $c->hip[1] = Ease::mix($c->hip[1], $this->bounced($s, $phase, $st, $this->base->at($t)[0]), $st->run * Ease::smooth($a));
        }

        return $c;
    }

    /** The same moment on even ground: each foot less the height of what it stands on or swings over. */
    private function levelled(Channels $c, float $t): Channels
    {
        $even = clone $c;
        foreach (['L', 'R'] as $side) {
            $f = $c->foot[$side];
            $even->foot[$side] = new Footing(
                [$f->ankle[0], $f->ankle[1] - $this->feet->ground($side, $t), $f->ankle[2]], $f->pitch, $f->toePitch, $f->heading, $f->down, $f->share,
            );
        }

        return $even;
    }

    /** Height of the hips of one who runs: lowest in the middle of each stance, highest in the middle of each flight. */
    private function bounced(float $s, float $phase, GaitStyle $st, float $height = 0.0): float
    {
        $hips = $this->body->at('hips')[1] - $this->body->at('upperLegL')[1];
        $stand = $this->body->ankleY + $this->body->leg * 0.925 + $hips;

        return ($this->terrain === null ? $this->course->under($s) : $height) + $stand + 0.034 * $st->bounce * cos(4 * M_PI * ($phase - $st->duty / 2 - 0.25));
    }

    private function kneeWanted(Footing $f): float
    {
        $st = $this->now;
        $u = $f->down ? $f->share : ($f->share > 0.5 ? 0.0 : 1.0);
        if ($u < 0.22) {
            return Ease::mix($st->kneeStrike, $st->kneeLoad, Ease::smooth($u / 0.22));
        }

        return $u < 0.6
            ? Ease::mix($st->kneeLoad, $st->kneeMid, Ease::smooth(($u - 0.22) / 0.38))
            : Ease::mix($st->kneeMid, $st->kneeOff, Ease::smooth(($u - 0.6) / 0.4));
    }

    private function upper(Channels $c, float $t, float $phase, float $a, float $sway, bool $raw): void
    {
        $st = $this->now;
        $d = M_PI / 180;
        $wave = static fn (float $lag): float => cos(2 * M_PI * ($phase - $lag));
        $wave2 = static fn (float $lag): float => cos(4 * M_PI * ($phase - $lag));
        $idle = 1 - min(1.0, $a * 1.3);
        $strides = $this->strides();
        $c->breath = $this->cycle
            ? sin(2 * M_PI * $phase / $strides + $this->seed)
            : sin(2 * M_PI * $t / 3.2 + $this->seed);
        $c->thorax = [
            $st->lean * (0.35 + 0.65 * $a) + $a * 1.5 * $d * $st->bounce * $wave2(0.13), $a * $st->thoraxYaw * $wave(0.03),
            -$a * 2.0 * $d * (1 + $st->weight * 0.6) * $wave(0.16) - $idle * $sway * $d,
        ];
        $speed = fn (float $u): float => $this->travel->at($u)[0];
        $push = $this->cycle ? 0.0 : ($speed($t + 0.3) - 2 * $speed($t + 0.02) + $speed($t - 0.26)) / 0.078;
        $lean = Ease::clamp($push * 2.4, -7.0, 7.0) * $d;
        $c->thorax[0] += $lean;
        $c->pelvis[0] += $lean * 0.45 + max(0.0, $st->lean - 3 * $d) * 0.45 * Ease::mix(0.4, 1.0, $a);
        $turned = fn (float $lead): float => Angle::wrapped($this->turning->at($t + $lead)[0] - $this->turning->at($t)[0]);
        // Eyes before the head, shoulders before the hips.
        $c->thorax[1] += Ease::clamp($turned(0.12) * 0.8, -0.35, 0.35);
        $c->eyes[0] += Ease::clamp($turned(0.60) - $turned(0.35), -0.4, 0.4);
        $c->head = [
            $st->headPitch * $a + (1 - $a) * $d + $a * 0.8 * $d * $wave2(0.2), $a * 0.012 * $wave(0.06) + $this->lookAhead($t),
            $a * 0.42 * $d * $wave(0.2),
        ];
        foreach (['L' => 0.5, 'R' => 0.0] as $s => $half) {
            $this->arm($c, $s, static fn (float $lag): float => cos(2 * M_PI * ($phase + $half - $lag)), $wave2, $a);
        }
        $low = max(0.0, -$st->mood);
        $c->face = ['smile' => 0.15 + 0.35 * max(0.0, $st->mood), 'browsDown' => $low * 0.5, 'frown' => $low * 0.4];
        if (! $raw) {
            $c->face += ['blinkL' => $this->blink($t), 'blinkR' => $this->blink($t)];
        }
    }

    /** The head looks where the course leads, half a second ahead of the feet. */
    private function lookAhead(float $t): float
    {
        $ahead = $this->course->at($this->travel->at($t + 0.5)[0])[2] + $this->turning->at($t + 0.35)[0];
        $now = $this->course->at($this->travel->at($t)[0])[2] + $this->turning->at($t)[0];

        return Ease::clamp(Angle::wrapped($ahead - $now) * 0.7, -0.7, 0.7);
    }

    /**
     * @param  \Closure(float): float  $wave
     * @param  \Closure(float): float  $wave2
     */
    private function arm(Channels $c, string $s, \Closure $wave, \Closure $wave2, float $a): void
    {
        $st = $this->now;
        $d = M_PI / 180;
        $front = (1 + $wave(0.085)) / 2;
        $rest = new ArmPose;
        $c->arm[$s] = new ArmPose(
            flex: Ease::mix($rest->flex, $st->armMean, $a) + $a * $st->armSwing * $wave(0.03),
            abduct: 9 * $d + $a * 1.5 * $d * $wave2(0.2),
            inward: 10 * $d + $a * 6 * $d * $wave(0.08),
            elbow: Ease::mix(21 * $d, $st->elbow, $a) + $a * $st->elbowSwing * 2 * ($front * $front - 0.25),
            pronate: 4 * $d + $a * 8 * $d * $wave(0.1),
            wrist: 5 * $d + $a * 6.3 * $d * $wave(0.13),
            deviate: $a * 5.4 * $d * $wave(0.16),
            curl: 0.72 + $a * 0.05 * $wave(0.15),
            lift: (-1.5 + 3 * $st->age - 2 * $st->mood) * $d + $a * 1.2 * $d * $wave2(0.1),
            forward: (3 + 9 * $st->age - 5 * $st->mood) * $d + $a * 5 * $d * $wave(0.0),
        );
    }

    private function blink(float $t): float
    {
        $slots = max(1, (int) round($this->seconds / 2.7));
        $slot = $this->seconds / $slots;
        $i = (int) floor($t / $slot);
        $te = ($i + 0.2 + 0.5 * Noise::hash($i % $slots, $this->seed + 50)) * $slot;

        return Ease::smooth(($t - $te) / 0.07) * Ease::smooth(($te + 0.24 - $t) / 0.12);
    }
}
