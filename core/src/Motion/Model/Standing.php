<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;

/**
 * Standing is never still: breath, weight shifts with a re-planted foot, gaze in quick jumps, slow noise everywhere.
 * Everything repeats after the period, and every standing motion begins and ends in the same stance, so that any two
 * join without a slide.
 */
final class Standing
{
    public const HALF = 0.085;

    private readonly FootPlan $feet;

    private readonly MonotoneTrack $weight;

    private readonly GaitStyle $style;

    /** @param  float  $period seconds after which the motion repeats */
    public function __construct(
        private readonly BodyFrame $body,
        private readonly int $seed,
        private readonly float $period,
        bool $shifts = true,
        private readonly bool $looks = true,
    ) {
        $this->style = new GaitStyle(speed: 1.0);
        [$steps, $times, $weights] = self::plan($seed, $period, $shifts);
        $this->feet = new FootPlan($body, $this->style, $steps);
        $this->weight = new MonotoneTrack($times, $weights);
    }

    /** Where a foot stands in the common stance: x, z, heading. */
    public static function stance(string $side): Step
    {
        $m = $side === 'L' ? 1.0 : -1.0;

        return new Step($m * self::HALF, $m * 0.02, $m * deg2rad(9.0), -99.0, 1e9, 0.0);
    }

    /**
     * Two or four shifts of weight; each frees a foot, which re-plants, and the last ones bring both feet home.
     *
     * @return array{array<string, list<Step>>, list<float>, list<list<float>>}
     */
    private static function plan(int $seed, float $period, bool $shifts): array
    {
        $steps = ['L' => [self::stance('L')], 'R' => [self::stance('R')]];
        $times = [-2.0];
        $weights = [[0.72]];
        $count = $shifts ? 2 * (int) floor($period / 7.0) : 0;
        for ($i = 0; $i < $count; $i++) {
            $slot = $period / $count;
            $t = $slot * ($i + 0.30 + 0.25 * Noise::hash($i, $seed));
            $to = $i % 2 === 0
                ? -(0.55 + 0.35 * Noise::hash($i, $seed + 2))
                : ($i === $count - 1 ? 0.72 : 0.55 + 0.35 * Noise::hash($i, $seed + 2));
            array_push($times, $t, $t + 0.75);
            array_push($weights, end($weights), [$to]);
            self::replant($steps[$to > 0 ? 'R' : 'L'], $to > 0 ? 'R' : 'L', $t + 0.85, $i >= $count - 2, $i, $seed);
        }
        $times[] = $period + 20.0;
        $weights[] = end($weights);

        return [$steps, $times, $weights];
    }

    /** @param  list<Step>  $steps */
    private static function replant(array &$steps, string $side, float $t, bool $home, int $i, int $seed): void
    {
        $last = end($steps);
        if ($last === false) {
            return;
        }
        $m = $side === 'L' ? 1.0 : -1.0;
        $to = self::stance($side);
        if (! $home) {
            $to->x += $m * 0.03 * Noise::hash($i, $seed + 4);
            $to->z += (Noise::hash($i, $seed + 5) - 0.4) * 0.12;
            $to->heading += $m * deg2rad(8.0) * (Noise::hash($i, $seed + 6) - 0.3);
        } elseif (count($steps) === 1) {
            return; // it never left its place
        }
        $last->off = $t;
        $last->leave = 0.42;
        $to->on = $t + 0.36;
        $to->land = 0.12;
        $steps[] = $to;
    }

    public function at(float $t): Channels
    {
        $c = new Channels;
        $d = M_PI / 180;
        $t = $t < 0 ? 0.0 : ($t > $this->period ? $this->period : $t);
        foreach (['L', 'R'] as $s) {
            $c->foot[$s] = $this->feet->footing($s, $t);
        }
        $w = $this->weight->at($t)[0];
        $breath = $this->breath($t);
        $l = $c->foot['L']->ankle;
        $r = $c->foot['R']->ankle;
        $c->hip = [
            ($l[0] + $r[0]) / 2 + $w * 0.052 + $this->noise($t, 0.55, 1) * 0.006, 0.0,
            ($l[2] + $r[2]) / 2 + $this->noise($t, 0.45, 2) * 0.008 + 0.012,
        ];
        $c->pelvis = [2 * $d + $this->noise($t, 0.4, 3) * 0.5 * $d, $w * 4 * $d + $this->noise($t, 0.3, 4) * $d, $w * 5.5 * $d];
        $c->thorax = [
            1.5 * $d + $this->noise($t, 0.35, 5) * 0.8 * $d, -$w * 3.5 * $d + $this->noise($t, 0.4, 6) * 1.5 * $d,
            -$w * 3.6 * $d + $this->noise($t, 0.3, 7) * 0.5 * $d,
        ];
        $c->breath = $breath * 1.1;
        $this->look($c, $t, $w);
        $this->arms($c, $t, $breath);
        $c->kneeOut = 0.10;
        $this->settle($c, $t);
        $c->face = ['smile' => 0.2];

        return $c;
    }

    /** Puts the hips at the height the legs ask for; call again after moving them. */
    public function settle(Channels $c, float $t, float $bob = 0.0): void
    {
        $w = $this->weight->at($t)[0];
        $knee = static fn (float $s): float => deg2rad(4 + 16 * Ease::smooth((-$w * $s + 0.2) / 1.1));
        $c->hip[1] = 0.0;
        $c->hip[1] = Ride::height($this->body, $c, Ease::clamp(0.5 + $w * 0.48), $knee(1.0), $knee(-1.0)) + 0.0012 * $this->breath($t)
            + $bob;
    }

    public function breath(float $t): float
    {
        $cycles = max(1, (int) round($this->period / 3.7));

        return sin(2 * M_PI * $cycles * $t / $this->period + $this->seed);
    }

    /** Value noise near a frequency (Hz) that repeats with the period, -1 to 1. */
    public function noise(float $t, float $hz, int $channel): float
    {
        $cells = max(2, (int) round($hz * $this->period));

        return Noise::loop($t / $this->period * $cells, $this->seed * 13 + $channel, $cells);
    }

    private function look(Channels $c, float $t, float $w): void
    {
        $d = M_PI / 180;
        [$eye, $head] = $this->looks ? $this->gaze($t) : [[0.0, 0.0], [0.0, 0.0]];
        $c->head = [
            1 * $d + $head[1] * 0.7 + $this->noise($t, 0.5, 8) * 0.7 * $d, $head[0] * 0.72 + $this->noise($t, 0.4, 9) * $d,
            $w * 2 * $d - $head[0] * 0.08 + $this->noise($t, 0.35, 10) * 1.2 * $d,
        ];
        $c->eyes = [
            Ease::clamp(($eye[0] - $head[0] * 0.72) * 0.9, -0.45, 0.45), Ease::clamp($eye[1] - $head[1] * 0.7, -0.25, 0.25),
        ];
        $c->thorax[1] += $head[0] * 0.12;
    }

    /**
     * Looks jump every two seconds or so: the eyes in 0.07 s, the head after them.
     *
     * @return array{array{float, float}, array{float, float}} eye and head, yaw and pitch
     */
    private function gaze(float $t): array
    {
        $targets = [[0.0, 0.0], [0.35, 0.03], [-0.4, 0.0], [0.1, 0.12], [-0.12, -0.06], [0.0, 0.02]];
        $slots = max(2, (int) round($this->period / 2.1));
        $slot = $this->period / $slots;
        $jump = fn (int $k): float => ($k + 0.6 * Noise::hash((($k % $slots) + $slots) % $slots, $this->seed)) * $slot;
        $i = (int) floor($t / $slot);
        $i = $t < $jump($i) ? $i - 1 : $i;
        // The first and the last look go straight ahead, so that motions join.
        $pick = fn (int $k): array => $k <= 0 || $k >= $slots - 1 ? [0.0, 0.0] : $targets[(int) (Noise::hash($k, $this->seed + 9) * 6)];
        $u = $t - $jump($i);
        [$a, $b] = [$pick($i - 1), $pick($i)];
        $e = Ease::smooth($u / 0.07);
        $h = Ease::smoother(($u - 0.06) / 0.42);

        return [
            [Ease::mix($a[0], $b[0], $e), Ease::mix($a[1], $b[1], $e)],
            [Ease::mix($a[0], $b[0], $h), Ease::mix($a[1], $b[1], $h)],
        ];
    }

    private function arms(Channels $c, float $t, float $breath): void
    {
        $d = M_PI / 180;
        foreach (['L' => 1, 'R' => -1] as $s => $m) {
            $a = $c->arm[$s];
            $a->flex += ($this->noise($t, 0.35, 11 + $m) * 2.2 + $breath * 0.5 + (Noise::hash($m + 2, 3) - 0.5) * 6) * $d;
            $a->elbow += (Noise::hash($m + 5, 3) * 12 + $this->noise($t, 0.3, 14 + $m) * 3) * $d;
            $a->inward += (Noise::hash($m + 9, 3) * 8 + $this->noise($t, 0.3, 20 + $m) * 3) * $d;
            $a->abduct += $breath * 0.7 * $d;
            $a->lift += $breath * 1.3 * $d;
            $a->curl += $this->noise($t, 0.4, 17 + $m) * 0.08;
        }
    }

    public function body(): BodyFrame
    {
        return $this->body;
    }

    /** @return array{float, float, float} a point given against the stance, turned with the body's heading */
    public static function turned(Channels $c, float $x, float $y, float $z): array
    {
        return Q4::rotate(Q4::aroundY($c->heading), [$x, $y, $z]);
    }
}
