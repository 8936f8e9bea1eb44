<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\ArmPose;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;
use CrispReel\Core\Rig\Footing;
use CrispReel\Core\Rig\Reach;

/**
 * A motion written down as key moments: where hips, trunk, head, hands and feet are to be, and what trembles or beats on
 * the way. Each part keeps a time line of its own, the body's weight, breath and small unrest are added, legs and
 * hands find their places by inverse kinematics. So a score plays on any figure, feet where they were put.
 *
 * Lengths are metres of a person of 1.70 m, angles degrees; places are in the motion's own space (+Z ahead, +X left). What a
 * key names:
 * - `hip` aside, down, ahead of the stance; `y` height of the hips above the floor (null: as the legs stand)
 * - `pelvis`, `thorax`, `head` pitch (down), yaw (left), roll; `eyes` yaw, pitch; `turn` heading of the body
 * - `armL`, `armR` a pose by name, or its twelve numbers
 * - `handL`, `handR` a place x, y, z with a lie by name and a weight from 0 to 1 (null: the arm hangs by its pose)
 * - `footL`, `footR` x, z, heading, pitch, height of the sole; a foot that changes its place is lifted on the way
 * - `face` shapes, `root` x, z, heading of the travel, `pin` (everything holds what it has), `home` (everything as it began)
 *
 * @phpstan-type Key array<string, mixed>
 * @phpstan-type Pulse array{part: string, axis: int, size: float, hz: float, from: float, to: float, phase?: float, once?: bool}
 * @phpstan-type Keys list<array{float, Key}>
 * @phpstan-type Spans list<array{float, float}>
 * @phpstan-type Sheet array{
 *     seconds: float, loops?: bool, shifts?: bool, looks?: bool, keys: Keys, pulses?: list<Pulse>, talks?: Spans, still?: bool,
 *     rises?: float, reacts?: float, swing?: list<string>,
 * }
 */
final class Score
{
    private const START = [
        'hip' => [0.0, 0.0, 0.0], 'y' => [0.9, 0.0], 'pelvis' => [0.0, 0.0, 0.0], 'thorax' => [0.0, 0.0, 0.0], 'head' => [0.0, 0.0, 0.0],
        'eyes' => [0.0, 0.0], 'turn' => [0.0], 'root' => [0.0, 0.0, 0.0], 'knees' => [0.10],
    ];

    /** Seconds by which a part follows. */
    private const LAG = [
        'hip' => 0.0, 'y' => 0.0, 'pelvis' => 0.0, 'thorax' => 0.03, 'head' => 0.06, 'eyes' => 0.0, 'turn' => 0.02, 'root' => 0.0,
        'knees' => 0.0,
    ];

    /** How a hand lies: where the fingers point and where the palm looks, for the left hand; the right one is mirrored in x. */
    private const LIES = [
        'in' => [[0.0, 0.1, 1.0], [-1.0, 0.0, 0.0]], 'down' => [[-0.15, 0.0, 1.0], [0.0, -1.0, 0.1]],
        'up' => [[0.0, 0.0, 1.0], [0.0, 1.0, 0.0]], 'ahead' => [[0.0, 1.0, 0.25], [0.0, -0.25, 1.0]],
        'body' => [[-0.9, 0.25, 0.3], [-0.25, 0.0, -1.0]], 'across' => [[-1.0, 0.0, 0.2], [0.0, -1.0, 0.1]],
        'fist' => [[0.0, 0.4, 1.0], [-1.0, 0.2, 0.0]], 'face' => [[-0.3, 1.0, -0.1], [-0.5, 0.0, -1.0]],
        'mouth' => [[-0.55, 0.8, 0.0], [-0.8, -0.2, -0.5]], 'floor' => [[0.0, -0.15, 1.0], [0.0, -1.0, -0.1]],
        'reach' => [[0.0, -0.9, 0.5], [-0.6, -0.3, -0.5]], 'over' => [[-0.2, 0.9, 0.5], [-0.6, -0.3, 0.7]],
        'knee' => [[-0.1, -0.5, 1.0], [0.0, -1.0, -0.4]],
    ];

    /** @var array<string, MonotoneTrack> */
    private array $tracks = [];

    /** @var array<string, ArmTrack> */
    private array $arms = [];

    /** @var array<string, MonotoneTrack> place 3, weight, along 3, palm 3 */
    private array $hands = [];

    /** @var array<'L'|'R', list<array{float, list<float>}>> */
    private array $feet = [];

    /** @var array<string, MonotoneTrack> feet that swing through their places without a stop */
    private array $swings = [];

    /** @var array<string, MonotoneTrack> */
    private array $faces = [];

    private readonly Standing $stand;

    /**
     * @param  Sheet  $sheet
     * @param  float  $size  how large gestures are, 1 as written
     * @param  float  $pace  how fast, 1 as written
     */
    public function __construct(
        private readonly BodyFrame $body,
        private readonly array $sheet,
        private readonly int $seed,
        private readonly float $size = 1.0,
        private readonly float $pace = 1.0,
    ) {
        $this->stand = new Standing($body, $seed, max(2.0, $sheet['seconds']), $sheet['shifts'] ?? false, $sheet['looks'] ?? false);
        $this->layOut();
    }

    public function seconds(): float
    {
        return $this->sheet['seconds'] / $this->pace;
    }

    private function layOut(): void
    {
        $now = self::START;
        $lines = array_map(static fn (array $v): array => [[0.0, $v]], $now);
        $arm = ['L' => ArmTrack::pose('rest'), 'R' => ArmTrack::pose('rest')];
        $armKeys = ['L' => [[0.0, $arm['L']]], 'R' => [[0.0, $arm['R']]]];
        $hand = array_map(self::hanging(...), ['L' => 'L', 'R' => 'R']);
        $handKeys = ['L' => [[0.0, $hand['L']]], 'R' => [[0.0, $hand['R']]]];
        $foot = array_map(self::stance(...), ['L' => 'L', 'R' => 'R']);
        $this->feet = ['L' => [[0.0, $foot['L']]], 'R' => [[0.0, $foot['R']]]];
        $faces = [];
        $begun = null;
        foreach ($this->sheet['keys'] as [$t, $key]) {
            $all = isset($key['pin']) || isset($key['home']);
            if (isset($key['home']) && $begun !== null) {
                [$now, $arm, $hand, $foot] = $begun;
            }
            foreach (self::START as $part => $_) {
                if (array_key_exists($part, $key)) {
                    $now[$part] = self::value($part, $key[$part], $now[$part]);
                }
                if ($all || array_key_exists($part, $key)) {
                    $lines[$part][] = [$t, $now[$part]];
                }
            }
            foreach (['L', 'R'] as $s) {
                if (isset($key["arm{$s}"])) {
                    $arm[$s] = $this->armOf($key["arm{$s}"]);
                }
                if ($all || isset($key["arm{$s}"])) {
                    $armKeys[$s][] = [$t, $arm[$s]];
                }
                if (array_key_exists("hand{$s}", $key)) {
                    $hand[$s] = self::handOf($key["hand{$s}"], $s, $hand[$s]);
                }
                if ($all || array_key_exists("hand{$s}", $key)) {
                    $handKeys[$s][] = [$t, $hand[$s]];
                }
                if (is_array($key["foot{$s}"] ?? null)) {
                    $foot[$s] = self::over($key["foot{$s}"], $foot[$s]);
                }
                if ($all || isset($key["foot{$s}"])) {
                    $this->feet[$s][] = [$t, $foot[$s]];
                }
            }
            foreach (is_array($key['face'] ?? null) ? $key['face'] : [] as $shape => $v) {
                $faces[$shape] ??= [[0.0, [0.0]]];
                $faces[$shape][] = [$t, self::numbers($v)];
            }
            if (isset($key['home'])) {
                foreach ($faces as $shape => $_) {
                    $faces[$shape][] = [$t, [0.0]];
                }
            }
            $begun ??= [$now, $arm, $hand, $foot];
        }
        foreach ($lines as $part => $keys) {
            $this->tracks[$part] = $this->track($keys);
        }
        foreach ($faces as $shape => $keys) {
            $this->faces[(string) $shape] = $this->track($keys);
        }
        foreach (['L', 'R'] as $s) {
            $this->hands[$s] = $this->track(self::laid($handKeys[$s]));
            $this->arms[$s] = new ArmTrack($this->timed($armKeys[$s]));
            if (in_array($s, $this->sheet['swing'] ?? [], true)) {
                $this->swings[$s] = $this->track($this->feet[$s]);
            }
        }
    }

    /**
     * A hand that hangs has no lie of its own: before and after a place it takes on that place's lie where the way between the two would
     * lead through nothing.
     *
     * @param  list<array{float, list<float>}>  $keys
     * @return list<array{float, list<float>}>
     */
    private static function laid(array $keys): array
    {
        $n = count($keys);
        $lies = array_column($keys, 1);
        for ($i = $n - 2; $i >= 0; $i--) {
            $lies[$i] = self::like($lies[$i], $lies[$i + 1]);
        }
        for ($i = 1; $i < $n; $i++) {
            $lies[$i] = self::like($lies[$i], $lies[$i - 1]);
        }

        return array_map(static fn (array $k, array $l): array => [$k[0], $l], $keys, $lies);
    }

    /**
     * @param  list<float>  $hand
     * @param  list<float>  $near  the key beside it
     * @return list<float>
     */
    private static function like(array $hand, array $near): array
    {
        $apart = $hand[4] * $near[4] + $hand[5] * $near[5] + $hand[6] * $near[6] < 0.0
            || $hand[7] * $near[7] + $hand[8] * $near[8] + $hand[9] * $near[9] < 0.0;

        return $hand[3] > 0.0 || $near[3] <= 0.0 || ! $apart ? $hand : [...array_slice($hand, 0, 4), ...array_slice($near, 4)];
    }

    /** @param  list<array{float, list<float>}>  $keys */
    private function track(array $keys): MonotoneTrack
    {
        $keys = $this->timed($keys);

        return new MonotoneTrack(array_column($keys, 0), array_column($keys, 1));
    }

    /**
     * @param  list<array{float, list<float>}>  $keys
     * @return list<array{float, list<float>}>
     */
    private function timed(array $keys): array
    {
        return ($this->sheet['loops'] ?? false) ? self::around($keys, $this->sheet['seconds']) : self::rising($keys);
    }

    /**
     * Keys of a loop go on before its beginning and beyond its end, so that what lags finds there what comes round; what
     * travels goes on by as much as it travelled.
     *
     * @param  list<array{float, list<float>}>  $keys
     * @return list<array{float, list<float>}>
     */
    private static function around(array $keys, float $period): array
    {
        $keys = self::rising($keys);
        if ($keys[count($keys) - 1][0] < $period - 0.01) {
            $keys[] = [$period, $keys[0][1]];
        }
        $last = count($keys) - 1;
        $way = array_map(static fn (float $a, float $b): float => $b - $a, $keys[0][1], $keys[$last][1]);
        $moved = static fn (int $by): array => array_map(
            static fn (array $k): array => [
                $k[0] + $by * $period, array_map(static fn (float $v, float $w): float => $v + $by * $w, $k[1], $way),
            ],
            $keys,
        );

        return self::rising([...$moved(-1), ...$keys, ...$moved(1)]);
    }

    /**
     * @param  list<array{float, list<float>}>  $keys
     * @return list<array{float, list<float>}>
     */
    private static function rising(array $keys): array
    {
        $times = $values = [];
        foreach ($keys as [$t, $v]) {
            $last = count($times) - 1;
            if ($last >= 0 && $t <= $times[$last] + 0.005) {
                $values[$last] = $v;
            } else {
                $times[] = $t;
                $values[] = $v;
            }
        }

        return array_map(static fn (float $t, array $v): array => [$t, $v], $times, array_values($values));
    }

    /** @return list<float> */
    private static function numbers(mixed $value): array
    {
        return array_map(
            static fn (mixed $v): float => is_int($v) || is_float($v) ? (float) $v : 0.0,
            is_array($value) ? array_values($value) : [$value],
        );
    }

    /**
     * The new numbers, and the old ones where none is given.
     *
     * @param  list<float>  $before
     * @return list<float>
     */
    private static function over(mixed $value, array $before): array
    {
        foreach (self::numbers($value) as $k => $v) {
            $before[$k] = $v;
        }

        return array_values($before);
    }

    /**
     * @param  list<float>  $before
     * @return list<float>
     */
    private static function value(string $part, mixed $value, array $before): array
    {
        if ($part === 'y') {
            return is_numeric($value) ? [(float) $value, 1.0] : [$before[0], 0.0];
        }

        return self::over($value, $before);
    }

    /** @return list<float> */
    private function armOf(mixed $pose): array
    {
        $rest = ArmTrack::pose('rest');
        $to = is_string($pose) ? ArmTrack::pose($pose) : self::numbers($pose);

        return $this->size === 1.0 ? $to : ArmTrack::mix($rest, $to, $this->size);
    }

    /** @return list<float> */
    private static function hanging(string $s): array
    {
        $m = $s === 'L' ? 1.0 : -1.0;

        return [$m * 0.25, 0.8, 0.05, 0.0, 0.0, -1.0, 0.1, -$m, 0.0, 0.0];
    }

    /**
     * @param  list<float>  $before
     * @return list<float>
     */
    private static function handOf(mixed $place, string $s, array $before): array
    {
        if (! is_array($place)) {
            return self::over([$before[0], $before[1], $before[2], 0.0], $before);
        }
        $m = $s === 'L' ? 1.0 : -1.0;
        $lie = $place[3] ?? 'in';
        [$along, $palm] = self::LIES[is_string($lie) ? $lie : 'in'] ?? self::LIES['in'];
        $n = self::numbers($place);

        return [
            $n[0] ?? 0.0, $n[1] ?? 0.0, $n[2] ?? 0.0, $n[4] ?? 1.0, $m * $along[0], $along[1], $along[2], $m * $palm[0], $palm[1],
            $palm[2],
        ];
    }

    /** @return list<float> x, z, heading, pitch, height */
    private static function stance(string $s): array
    {
        $m = $s === 'L' ? 1.0 : -1.0;

        return [$m * Standing::HALF, $m * 0.02, $m * 9.0, 0.0, 0.0];
    }

    public function at(float $time): Channels
    {
        $t = $time * $this->pace;
        $d = M_PI / 180;
        $c = $this->stand->at($this->sheet['still'] ?? false ? 0.0 : $t);
        $v = [];
        foreach ($this->tracks as $part => $track) {
            $v[$part] = $track->at($t - self::LAG[$part]);
        }
        $pulse = $this->pulses($t);
        $c->heading = $v['turn'][0] * $d;
        $c->root = [$v['root'][0], $v['root'][1], $v['root'][2] * $d];
        $bend = static fn (string $part): array => [
            ($v[$part][0] + ($pulse["{$part}0"] ?? 0.0)) * $d, ($v[$part][1] + ($pulse["{$part}1"] ?? 0.0)) * $d,
            ($v[$part][2] + ($pulse["{$part}2"] ?? 0.0)) * $d,
        ];
        [$c->pelvis, $c->thorax, $c->head] = [
            V3::add($c->pelvis, $bend('pelvis')), V3::add($c->thorax, $bend('thorax')), V3::add($c->head, $bend('head')),
        ];
        $c->eyes = [$c->eyes[0] + $v['eyes'][0] * $d, $c->eyes[1] + $v['eyes'][1] * $d];
        $c->kneeOut = $v['knees'][0];
        foreach (['L', 'R'] as $s) {
            $c->foot[$s] = $this->footing($s, $t, $pulse["foot{$s}3"] ?? 0.0);
            $c->arm[$s] = $this->arm($s, $t, $pulse);
            $this->reach($c, $s, $t, $pulse);
        }
        $this->hips($c, $v, $pulse, $t);
        foreach ($this->faces as $shape => $track) {
            $c->face[$shape] = $track->at($t)[0] + ($pulse[$shape.'0'] ?? 0.0);
        }
        foreach ($this->sheet['talks'] ?? [] as [$from, $to]) {
            $voice = Ease::smooth(($t - $from) / 0.12) * Ease::smooth(($to - $t) / 0.12);
            $c->face = Gesture::mouth($t, $voice, $this->seed) + $c->face;
        }

        return $c;
    }

    /**
     * @param  array<string, list<float>>  $v
     * @param  array<string, float>  $pulse
     */
    private function hips(Channels $c, array $v, array $pulse, float $t): void
    {
        $turned = Standing::turned($c, $c->hip[0], 0.0, $c->hip[2]);
        $c->hip = [$turned[0] + $v['hip'][0] + ($pulse['hip0'] ?? 0.0), 0.0, $turned[2] + $v['hip'][2] + ($pulse['hip2'] ?? 0.0)];
        $c->hip[1] = Ride::height($this->body, $c, 0.5, 0.09, 0.09) + 0.0012 * $this->stand->breath($t);
        $c->hip[1] = Ease::mix($c->hip[1] - $v['hip'][1], $v['y'][0], $v['y'][1]) + ($pulse['hip1'] ?? 0.0);
        if ($v['y'][1] < 0.5) {
            $c->hip[1] = Ride::limited($this->body, $c, $c->hip[1], 0.01);
        }
    }

    /** @param  array<string, float>  $pulse */
    private function arm(string $s, float $t, array $pulse): ArmPose
    {
        $d = M_PI / 180;
        $a = $this->arms[$s]->at($t);
        $n = $s === 'L' ? 31 : 47;
        $a->lift += $this->stand->breath($t) * 1.2 * $d + ($pulse["arm{$s}8"] ?? 0.0) * $d;
        $a->flex += $this->stand->noise($t, 0.4, $n) * 1.4 * $d + ($pulse["arm{$s}0"] ?? 0.0) * $d;
        $a->abduct += ($pulse["arm{$s}1"] ?? 0.0) * $d;
        $a->inward += ($pulse["arm{$s}2"] ?? 0.0) * $d;
        $a->elbow += $this->stand->noise($t, 0.5, $n + 3) * 2.0 * $d + ($pulse["arm{$s}3"] ?? 0.0) * $d;
        $a->wrist += ($pulse["arm{$s}5"] ?? 0.0) * $d;

        return $a;
    }

    /** @param  array<string, float>  $pulse */
    private function reach(Channels $c, string $s, float $t, array $pulse): void
    {
        $h = $this->hands[$s]->at($t - 0.02);
        if ($h[3] <= 0.001) {
            return;
        }
        $m = $s === 'L' ? 1.0 : -1.0;
        $along = V3::unit([$h[4], $h[5], $h[6]]);
        $palm = V3::unit(V3::across([$h[7], $h[8], $h[9]], $along));
        $place = [$h[0] + ($pulse["hand{$s}0"] ?? 0.0), $h[1] + ($pulse["hand{$s}1"] ?? 0.0), $h[2] + ($pulse["hand{$s}2"] ?? 0.0)];
        // The palm is on the place, so the wrist is a hand's length before it.
        $back = Q4::rotate(Q4::aroundY($c->heading), V3::add(V3::mul($along, -0.105), V3::mul($palm, -0.045)));
        $c->reach[$s] = new Reach(V3::add($place, $back), Ease::clamp($h[3]), $along, $palm, [$m * 0.6, -1.0, -0.35]);
    }

    /** A foot on the floor rolls about its heel or over its ball as its pitch asks; on its way to another place it is lifted. */
    private function footing(string $s, float $t, float $tap): Footing
    {
        $keys = $this->feet[$s];
        if (isset($this->swings[$s])) {
            return $this->placed(array_values($this->swings[$s]->at($t)), 0.0, 0.0);
        }
        $i = 0;
        while ($i < count($keys) - 1 && $keys[$i + 1][0] <= $t) {
            $i++;
        }
        [$t0, $a] = $keys[$i];
        [$t1, $b] = $keys[$i + 1] ?? $keys[$i];
        $u = $t1 > $t0 ? Ease::clamp(($t - $t0) / ($t1 - $t0)) : 0.0;
        $e = Ease::smoother($u);
        $way = hypot($b[0] - $a[0], $b[1] - $a[1]);
        $moves = $way > 0.004 || abs($b[2] - $a[2]) > 2.0;
        $lift = $moves ? (0.035 + 0.12 * $way) * sin(M_PI * Ease::smooth($u)) : 0.0;
        $p = [];
        foreach ($a as $k => $from) {
            $p[] = $from + ($b[$k] - $from) * $e;
        }
        $more = $moves ? -18 * sin(M_PI * Ease::clamp($u * 1.6)) + 10 * sin(M_PI * Ease::clamp(($u - 0.5) * 2)) : 0.0;

        return $this->placed($p, max(0.0, $tap) + $more, $lift, ! $moves && $p[4] < 0.01);
    }

    /** @param  list<float>  $p  x, z, heading, pitch, height */
    private function placed(array $p, float $pitchMore, float $lift, bool $planted = false): Footing
    {
        $pitch = deg2rad($p[3] + $pitchMore);
        [$ahead, $up, $toe] = $this->body->roll($pitch);
        $heading = deg2rad($p[2]);
        $w = Q4::rotate(Q4::aroundY($heading), [0.0, 0.0, $ahead]);

        return new Footing([$p[0] + $w[0], $p[4] + $up + $lift, $p[1] + $w[2]], $pitch, $toe, $heading, $planted, 0.5);
    }

    /** @return array<string, float> by part and axis */
    private function pulses(float $t): array
    {
        $out = [];
        foreach ($this->sheet['pulses'] ?? [] as $p) {
            $span = $p['to'] - $p['from'];
            $on = Ease::smooth(($t - $p['from']) / min(0.25, $span / 3)) * Ease::smooth(($p['to'] - $t) / min(0.35, $span / 3));
            if ($on > 0.0) {
                $key = $p['part'].$p['axis'];
                $out[$key] = ($out[$key] ?? 0.0) + $on * $p['size'] * sin(2 * M_PI * $p['hz'] * ($t - $p['from']) + ($p['phase'] ?? 0.0));
            }
        }

        return $out;
    }
}
