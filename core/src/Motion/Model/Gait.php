<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
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
    /** @var list<float> smoothed ride height at 60 a second */
    private array $heights = [];

    /** The manner at the moment that is being worked out. */
    private GaitStyle $now;

    public readonly float $seconds;

    /** When it is at the end of its course. */
    public readonly float $passes;

    private function __construct(
        private readonly BodyFrame $body, private readonly GaitStyle $style, private readonly int $seed, private readonly GaitPlan $plan,
        private readonly Course $course,
    ) {
        $this->now = $style;
        [$this->seconds, $this->passes] = [$plan->seconds, $plan->passes];
        $this->ride();
    }

    /** An endless steady walk; the motion is one or two whole strides of it. */
    public static function cycle(BodyFrame $body, GaitStyle $style, int $seed = 1): self
    {
        return new self($body, $style, $seed, GaitPlan::cycle($body, $style), Course::straight());
    }

    /** From a stand, so many metres ahead, to a stand on the mark. */
    public static function toMark(BodyFrame $body, GaitStyle $style, float $metres, int $seed = 1): self
    {
        return new self($body, $style, $seed, GaitPlan::toMark($body, $style, Course::straight(), max(0.5, $metres)), Course::straight());
    }

    /**
     * Along a course: from a stand at its start, turning first to where it leads, to a stand at its end.
     *
     * @param  float  $facing  heading of the stand it begins with, radians
     * @param  float|null  $face  heading of the stand it ends with; null: as the course arrives
     * @param  list<array{float, GaitStyle}>  $changes  other manners from distances on, rising
     * @param  bool  $goesOn  does not stop at the end: the left foot comes down there, and it goes on straight ahead for a few steps
     */
    public static function along(
        BodyFrame $body, GaitStyle $style, Course $course, float $facing, ?float $face, int $seed = 1, array $changes = [],
        bool $goesOn = false,
    ): self {
        return new self($body, $style, $seed, self::planned($body, $style, $course, $facing, $face, $changes, $goesOn), $course);
    }

    /** @param  list<array{float, GaitStyle}>  $changes */
    private static function planned(
        BodyFrame $body, GaitStyle $style, Course $course, float $facing, ?float $face, array $changes, bool $goesOn,
    ): GaitPlan {
        return $goesOn
            ? GaitPlan::through($body, $style, $course, $course->length(), $facing, $changes)
            : GaitPlan::toMark($body, $style, $course, $course->length(), $facing, $face, $changes);
    }

    /**
     * Seconds that along() takes to the end of its course, without riding it.
     *
     * @param  list<array{float, GaitStyle}>  $changes
     */
    public static function secondsAlong(
        BodyFrame $body, GaitStyle $style, Course $course, float $facing, ?float $face, array $changes = [], bool $goesOn = false,
    ): float {
        return self::planned($body, $style, $course, $facing, $face, $changes, $goesOn)->passes;
    }

    public function metres(): float
    {
        return $this->plan->cycle ? 2 * $this->style->step * $this->plan->strides() : $this->plan->travel->at($this->seconds)[0];
    }

    /** The ride height is smoothed once for the whole motion (Gaussian, 0.09 of a step), then limited by reach. */
    private function ride(): void
    {
        $dt = 1 / 60;
        $count = (int) ceil(($this->seconds - $this->plan->from) / $dt) + 90;
        $raw = [];
        for ($i = 0; $i < $count; $i++) {
            $raw[] = $this->channels($this->plan->from + $i * $dt, true)->hip[1];
        }
        $sigma = 0.09 * $this->style->stepSeconds;
        $this->heights = Smoothing::gaussian($raw, $sigma / $dt);
    }

    /** Catmull-Rom over the smoothed heights. */
    private function rideAt(float $t): float
    {
        $n = count($this->heights);
        $u = Ease::clamp(($t - $this->plan->from) * 60, 0.0, $n - 1.001);
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
        $s = $this->plan->travel->at($t)[0];
        $st = $this->now = $this->plan->manner($s);
        [$x, $z, $way] = $this->course->at($s);
        $c->heading = $way + $this->plan->turning->at($t)[0];
        $phase = $this->plan->phase->at($t)[0];
        $a = $this->plan->strength->at($t)[0];
        $wave = static fn (float $lag): float => cos(2 * M_PI * ($phase - $lag));
        $wave2 = static fn (float $lag): float => cos(4 * M_PI * ($phase - $lag));
        foreach (['L', 'R'] as $side) {
            $c->foot[$side] = $this->plan->feet->footing($side, $t);
        }
        $c->root = [$x, $z, $c->heading];
        $double = max(0.08, ($st->duty - 0.5) * 2 * $st->stepSeconds);
        $sway = $this->plan->feet->sway($t, $st->stepSeconds * 0.62, $double);
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
        $this->upper($c, $t, $phase, $a, $sway);
        if (! $raw) {
            $c->hip[1] = Ride::limited($this->body, $c, $this->rideAt($t), $this->plan->even ? 0.010 : 0.025) + $idle * 0.002 * $c->breath;

            return $c;
        }
        $left = $this->plan->feet->leftShare($t, $double);
        $knee = fn (string $s): float => Ease::mix(6 * $d, $this->kneeWanted($c->foot[$s]), $a);
        $c->hip[1] = ($this->plan->even
            ? Ride::height($this->body, $c, $left, $knee('L'), $knee('R'), 0.012)
            : $this->plan->base->at($t)[0] + Ride::height($this->body, $this->levelled($c, $t), $left, $knee('L'), $knee('R'), 0.012))
            + $a * $st->bounce * 0.019 * min(1.3, $st->speed / 1.2) * ($wave2(0.305) * 0.5 - 0.12);
        if ($st->run > 0.0) {
            $c->hip[1] = Ease::mix($c->hip[1], $this->bounced($s, $phase, $st, $this->plan->base->at($t)[0]), $st->run * Ease::smooth($a));
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
                [
                    $f->ankle[0], $f->ankle[1] - $this->plan->feet->ground($side, $t), $f->ankle[2],
                ], $f->pitch, $f->toePitch, $f->heading, $f->down, $f->share,
            );
        }

        return $even;
    }

    /** Height of the hips of one who runs: lowest in the middle of each stance, highest in the middle of each flight. */
    private function bounced(float $s, float $phase, GaitStyle $st, float $height = 0.0): float
    {
        $hips = $this->body->at('hips')[1] - $this->body->at('upperLegL')[1];
        $stand = $this->body->ankleY + $this->body->leg * 0.925 + $hips;

        return (
            $this->plan->even ? $this->course->under($s) : $height
        ) + $stand + 0.034 * $st->bounce * cos(4 * M_PI * ($phase - $st->duty / 2 - 0.25));
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

    private function upper(Channels $c, float $t, float $phase, float $a, float $sway): void
    {
        $st = $this->now;
        $d = M_PI / 180;
        $wave = static fn (float $lag): float => cos(2 * M_PI * ($phase - $lag));
        $wave2 = static fn (float $lag): float => cos(4 * M_PI * ($phase - $lag));
        $idle = 1 - min(1.0, $a * 1.3);
        $strides = $this->plan->strides();
        $c->breath = $this->plan->cycle
            ? sin(2 * M_PI * $phase / $strides + $this->seed)
            : sin(2 * M_PI * $t / 3.2 + $this->seed);
        $c->thorax = [
            $st->lean * (0.35 + 0.65 * $a) + $a * 1.5 * $d * $st->bounce * $wave2(0.13), $a * $st->thoraxYaw * $wave(0.03),
            -$a * 2.0 * $d * (1 + $st->weight * 0.6) * $wave(0.16) - $idle * $sway * $d,
        ];
        $speed = fn (float $u): float => $this->plan->travel->at($u)[0];
        $push = $this->plan->cycle ? 0.0 : ($speed($t + 0.3) - 2 * $speed($t + 0.02) + $speed($t - 0.26)) / 0.078;
        $lean = Ease::clamp($push * 2.4, -7.0, 7.0) * $d;
        $c->thorax[0] += $lean;
        $c->pelvis[0] += $lean * 0.45 + max(0.0, $st->lean - 3 * $d) * 0.45 * Ease::mix(0.4, 1.0, $a);
        $turned = fn (float $lead): float => Angle::wrapped($this->plan->turning->at($t + $lead)[0] - $this->plan->turning->at($t)[0]);
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
    }

    /** The head looks where the course leads, half a second ahead of the feet. */
    private function lookAhead(float $t): float
    {
        $ahead = $this->course->at($this->plan->travel->at($t + 0.5)[0])[2] + $this->plan->turning->at($t + 0.35)[0];
        $now = $this->course->at($this->plan->travel->at($t)[0])[2] + $this->plan->turning->at($t)[0];

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
}
