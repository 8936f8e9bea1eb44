<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Noise;

/**
 * Walking, feet first: footfalls are planned, the feet roll over them, the pelvis rides on the legs, and the upper body
 * answers with lagged cosines of the one phase. Straight ahead along +Z; left heel strikes at whole phases.
 */
final class Gait
{
    private FootPlan $feet;

    private MonotoneTrack $travel;

    private MonotoneTrack $phase;

    private MonotoneTrack $strength;

    /** @var list<float> smoothed ride height at 60 a second */
    private array $heights = [];

    private float $from = 0.0;

    public float $seconds = 0.0;

    private function __construct(
        private readonly BodyFrame $body,
        private readonly GaitStyle $style,
        private readonly int $seed,
        private readonly bool $cycle,
    ) {
    }

    /** An endless steady walk; the motion is one or two whole strides of it. */
    public static function cycle(BodyFrame $body, GaitStyle $style, int $seed = 1): self
    {
        $g = new self($body, $style, $seed, true);
        $g->planCycle();
        $g->ride();

        return $g;
    }

    /** From a stand, so many metres ahead, to a stand on the mark. */
    public static function toMark(BodyFrame $body, GaitStyle $style, float $metres, int $seed = 1): self
    {
        $g = new self($body, $style, $seed, false);
        $g->planToMark(max(0.5, $metres));
        $g->ride();

        return $g;
    }

    public function metres(): float
    {
        return $this->cycle ? 2 * $this->style->step * $this->strides() : $this->travel->at($this->seconds)[1];
    }

    private function strides(): int
    {
        return max(1, (int) round(2.6 / (2 * $this->style->stepSeconds)));
    }

    private function half(): float
    {
        return $this->style->halfTrack + ($this->body->hipHalf - 0.08) * 0.8;
    }

    private function place(float $s, float $m, float $on, float $off, float $land = 1.0): Step
    {
        return new Step($m * $this->half(), $s, $m * deg2rad(5.0), $on, $off, $land);
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
            $keys['v'][] = [0.0, $s - $st->step / 2];
            $keys['p'][] = [$k / 2];
        }
        $this->feet = new FootPlan($this->body, $st, $steps);
        $this->travel = new MonotoneTrack($keys['t'], $keys['v']);
        $this->phase = new MonotoneTrack(array_map(static fn (int $k): float => $k * $st->stepSeconds, range(-4, $count)), $keys['p']);
        $this->strength = new MonotoneTrack([0.0], [[1.0]]);
        $this->from = -2 * $st->stepSeconds;
    }

    private function planToMark(float $metres): void
    {
        $st = $this->style;
        $count = max(2, (int) round($metres / $st->step + 0.35));
        $length = $metres / ($count - 0.35);
        $steps = ['L' => [Standing::stance('L')], 'R' => [Standing::stance('R')]];
        $kt = [-5.0, 0.12];
        $kv = [[0.0, 0.0], [0.0, 0.0]];
        $pt = [-5.0, 0.0];
        $pv = [[-0.5], [-0.5]];
        $at = [-5.0, 0.0];
        $av = [[0.0], [0.0]];
        $t = 0.30;
        $before = 0.0;
        array_push($pt, $t - 0.02);
        array_push($pv, [-0.5]);
        array_push($at, $t - 0.02);
        array_push($av, [0.0]);
        for ($k = 1; $k <= $count + 1; $k++) {
            $closing = $k === $count + 1;
            $s = $closing ? $metres : ($k - 0.35) * $length;
            $t += $st->stepSeconds * ($k === 1 ? 1.35 : ($closing ? 1.15 : 1.0));
            $side = $k % 2 === 1 ? 'L' : 'R';
            $last = $steps[$side][count($steps[$side]) - 1];
            $last->off = $t - (1 - $st->duty) * 2 * $st->stepSeconds * ($k === 1 ? 1.1 : ($closing ? 0.95 : 1.0));
            $last->leave = $k === 1 ? 0.75 : ($closing ? 0.8 : 1.0);
            $step = $this->place($s, $side === 'L' ? 1.0 : -1.0, $t, 1e9, $closing ? 0.25 : ($k === 1 ? 0.9 : 1.0));
            if ($k >= $count) {
                // Both feet end in the common stance, so that what follows joins without a slide.
                $home = Standing::stance($side);
                [$step->x, $step->z, $step->heading] = [$home->x, $metres + $home->z, $home->heading];
            }
            $steps[$side][] = $step;
            $kt[] = $t + ($st->duty - 0.5) * $st->stepSeconds * ($closing ? 2.2 : 1.0);
            $kv[] = [0.0, ($s + $before) / 2];
            $pt[] = $t;
            $pv[] = [($k - 1) / 2];
            $at[] = $t;
            $av[] = [$closing ? 0.0 : ($k === $count ? 0.85 : 1.0)];
            $before = $s;
        }
        array_push($pt, $t + 0.35);
        array_push($pv, [$count / 2]);
        array_push($at, $t + 0.35);
        array_push($av, [0.0]);
        $this->feet = new FootPlan($this->body, $st, $steps);
        $this->travel = new MonotoneTrack($kt, $kv);
        $this->phase = new MonotoneTrack($pt, $pv);
        $this->strength = new MonotoneTrack($at, $av);
        $this->seconds = $t + 0.6;
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
        $reach = (int) ceil(3 * $sigma / $dt);
        foreach ($raw as $i => $_) {
            $sum = 0.0;
            $total = 0.0;
            for ($k = -$reach; $k <= $reach; $k++) {
                $w = exp(-0.5 * ($k * $dt / $sigma) ** 2);
                $sum += $w * $raw[max(0, min($count - 1, $i + $k))];
                $total += $w;
            }
            $this->heights[] = $sum / $total;
        }
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
        $st = $this->style;
        $d = M_PI / 180;
        $c = new Channels;
        [$x, $z] = $this->travel->at($t);
        $phase = $this->phase->at($t)[0];
        $a = $this->strength->at($t)[0];
        $wave = static fn (float $lag): float => cos(2 * M_PI * ($phase - $lag));
        $wave2 = static fn (float $lag): float => cos(4 * M_PI * ($phase - $lag));
        foreach (['L', 'R'] as $s) {
            $c->foot[$s] = $this->feet->footing($s, $t);
        }
        $c->root = [$x, $z, 0.0];
        $double = max(0.08, ($st->duty - 0.5) * 2 * $st->stepSeconds);
        $sway = $this->feet->sway($t, $st->stepSeconds * 0.62, $double);
        $swing = Ease::mix(0.055, $st->sway, Ease::smooth($a * 1.2));
        // The fall: the pelvis is over the middle of the feet at heel strike, and fastest in double support.
        $ahead = (0.85 * $st->speed * ($st->duty - 0.5) * $st->stepSeconds + 0.036) * $a - $a * 0.05 * $st->step * 0.16 * sin(4 * M_PI * ($phase - 0.12)) + (1 - $a) * 0.012;
        $gait = min(1.0, $a * 1.3);
        $idle = 1 - $gait;
        $c->hip = [$x + $sway * $swing, 0.0, $z + $ahead];
        $c->pelvis = [
            $st->pelvisTilt * 0.6 * $gait + $a * 1.2 * $d * $wave2(0.06) + $idle * 2 * $d, -$a * $st->pelvisYaw * $wave(0.0),
            $a * $st->pelvisList * $wave(0.145) + $idle * $sway * 1.5 * $d,
        ];
        $c->kneeOut = 0.05 + 0.05 * $idle;
        $this->upper($c, $t, $phase, $a, $sway, $raw);
        if (! $raw) {
            $c->hip[1] = Ride::limited($this->body, $c, $this->rideAt($t), 0.010) + $idle * 0.002 * $c->breath;

            return $c;
        }
        $left = $this->feet->leftShare($t, $double);
        $knee = fn (string $s): float => Ease::mix(6 * $d, $this->kneeWanted($c->foot[$s]), $a);
        $c->hip[1] = Ride::height($this->body, $c, $left, $knee('L'), $knee('R'), 0.012)
            + $a * $st->bounce * 0.019 * min(1.3, $st->speed / 1.2) * ($wave2(0.305) * 0.5 - 0.12);

        return $c;
    }

    private function kneeWanted(Footing $f): float
    {
        $st = $this->style;
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
        $st = $this->style;
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
        $speed = fn (float $u): float => $this->travel->at($u)[1];
        $push = $this->cycle ? 0.0 : ($speed($t + 0.3) - 2 * $speed($t + 0.02) + $speed($t - 0.26)) / 0.078;
        $lean = Ease::clamp($push * 2.4, -7.0, 7.0) * $d;
        $c->thorax[0] += $lean;
        $c->pelvis[0] += $lean * 0.45 + max(0.0, $st->lean - 3 * $d) * 0.45 * Ease::mix(0.4, 1.0, $a);
        $c->head = [$st->headPitch * $a + (1 - $a) * $d + $a * 0.8 * $d * $wave2(0.2), $a * 0.012 * $wave(0.06), $a * 0.42 * $d * $wave(0.2)];
        foreach (['L' => 0.5, 'R' => 0.0] as $s => $half) {
            $this->arm($c, $s, static fn (float $lag): float => cos(2 * M_PI * ($phase + $half - $lag)), $wave2, $a);
        }
        $low = max(0.0, -$st->mood);
        $c->face = ['smile' => 0.15 + 0.35 * max(0.0, $st->mood), 'browsDown' => $low * 0.5, 'frown' => $low * 0.4];
        if (! $raw) {
            $c->face += ['blinkL' => $this->blink($t), 'blinkR' => $this->blink($t)];
        }
    }

    /**
     * @param  \Closure(float): float  $wave
     * @param  \Closure(float): float  $wave2
     */
    private function arm(Channels $c, string $s, \Closure $wave, \Closure $wave2, float $a): void
    {
        $st = $this->style;
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
