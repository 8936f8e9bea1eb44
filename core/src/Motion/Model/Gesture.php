<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\ArmPose;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;
use CrispReel\Core\Rig\Reach;

/**
 * Motions of a standing person: talk, wave, hand over, receive. The whole body takes part: nods, leans and brows go with
 * each stroke, the weight moves towards it, the eyes lead.
 */
final class Gesture
{
    private const STROKES = [
        ['middle', 'beat', 2], ['in', 'offer', 1], ['in', 'wide', 1], ['middle', 'tick', 2],
        ['low', 'offer', 1], ['in', 'aside', 1], ['low', 'chest', 1], ['middle', 'wide', 1],
    ];

    /** @return \Closure(float): Channels */
    public static function idle(BodyFrame $body, int $seed, float $seconds): \Closure
    {
        $stand = new Standing($body, $seed, $seconds);

        return $stand->at(...);
    }

    /**
     * Talk with gestures strung by a seed, or tied to the words of a line.
     *
     * @return \Closure(float): Channels
     */
    public static function talk(BodyFrame $body, int $seed, float $seconds, float $energy = 1.0, string $line = ''): \Closure
    {
        $stand = new Standing($body, $seed, $seconds, $seconds >= 7.0, false);
        [$left, $right, $beats] = $line === '' ? self::strokes($seed, $seconds, $energy) : Strokes::of($line, $seconds, $energy, $seed);
        $spoken = Strokes::spoken($line, $seconds);
        $arms = ['L' => ArmTrack::phrase($left), 'R' => ArmTrack::phrase($right)];

        return static function (float $t) use ($stand, $arms, $beats, $spoken, $seed, $seconds): Channels {
            $d = M_PI / 180;
            $c = $stand->at($t);
            foreach (['L' => 31, 'R' => 47] as $s => $n) {
                $a = $arms[$s]->at($t);
                $a->lift += $c->breath * $d;
                $a->flex += $stand->noise($t, 0.7, $n) * 1.5 * $d;
                $a->elbow += $stand->noise($t, 0.8, $n + 3) * 2.5 * $d;
                $c->arm[$s] = $a;
            }
            [$nod, $yaw, $lean, $brow, $roll] = self::emphasis($t, $beats);
            $on = Ease::smooth(($t - 0.15) / 0.2) * Ease::smooth(($seconds - 0.25 - $t) / 0.3);
            $voice = $spoken === [] ? Ease::smooth(($stand->noise($t, 0.9, 61) + 0.75) / 0.5) * $on : self::voiced($t, $spoken);
            $c->head[0] += $nod + 0.9 * $d * $stand->noise($t, 2.1, 62) * $voice;
            $c->head[1] += $yaw * 0.5 + $stand->noise($t, 1.1, 63) * 3 * $d * $voice;
            $c->head[2] += $roll + $stand->noise($t, 1.3, 64) * 2.4 * $d * $voice;
            $c->thorax[0] += $lean + $nod * 0.25;
            $c->thorax[1] += $yaw;
            $c->hip[0] += $yaw * 0.10;
            $c->pelvis[2] += $yaw * 0.3;
            $stand->settle($c, $t);
            $c->face = self::mouth($t, $voice, $seed)
                + ['browsUp' => Ease::clamp($brow), 'smile' => 0.15 + 0.15 * $stand->noise($t, 0.3, 68)] + $c->face;

            return $c;
        };
    }

    /**
     * @return array{list<array{t: float, from: string, to: string, times: int, hold: float, seconds: float, size: float}>, list<array{t: float, from: string, to: string, times: int, hold: float, seconds: float, size: float}>, list<array{t: float, side: float, sense: string}>}
     */
    private static function strokes(int $seed, float $seconds, float $energy): array
    {
        $left = $right = $beats = [];
        $last = -1;
        for ($t = 0.7, $i = 0; $t < $seconds - 1.6; $i++) {
            $pick = (int) (Noise::hash($i, $seed) * 8);
            $pick = $pick === $last ? ($pick + 3) % 8 : $pick;
            $last = $pick;
            [$from, $to, $times] = self::STROKES[$pick];
            $both = Noise::hash($i, $seed + 1) < 0.34;
            $onLeft = Noise::hash($i, $seed + 2) < 0.42;
            $stroke = [
                't' => $t, 'from' => $from, 'to' => $to, 'times' => $times, 'hold' => 0.25 + 0.45 * Noise::hash($i, $seed + 3),
                'seconds' => 0.17 + 0.10 * Noise::hash($i, $seed + 4), 'size' => (0.8 + 0.3 * Noise::hash($i, $seed + 5)) * $energy,
            ];
            if ($both || $onLeft) {
                $left[] = $stroke;
            }
            if ($both || ! $onLeft) {
                $right[] = ['t' => $t + ($both ? 0.05 : 0.0), 'size' => $stroke['size'] * ($both ? 0.93 : 1.0)] + $stroke;
            }
            $beats[] = ['t' => $t, 'side' => $both ? 0.0 : ($onLeft ? 1.0 : -1.0), 'sense' => ''];
            $t += $stroke['seconds'] + $stroke['hold'] + 0.29 * ($times - 1) + 0.48 + 0.9 * Noise::hash($i, $seed + 6);
        }

        return [$left, $right, $beats];
    }

    /**
     * @param  list<array{t: float, side: float, sense: string}>  $beats
     * @return array{float, float, float, float, float} nod, yaw, lean, brow, roll
     */
    private static function emphasis(float $t, array $beats): array
    {
        $d = M_PI / 180;
        $nod = $yaw = $lean = $brow = $roll = 0.0;
        foreach ($beats as ['t' => $at, 'side' => $side, 'sense' => $sense]) {
            $w = Ease::smooth(($t - $at + 0.5) / 0.5) * Ease::smooth(($at + 1.3 - $t) / 0.6);
            [, , , , $bow, $shake, $tilt, $raise] = Strokes::SENSES[$sense] ?? [0, 0, 0, 0, 5.5, 0, 0, -1];
            $pulse = self::pulse($t, $at + 0.16, 0.14, 0.34);
            $nod += $pulse * $bow * $d;
            // No is shaken, three times to and fro; there and away are looked at.
            $yaw += ($sense === 'no' ? sin(($t - $at) * 13) * self::pulse($t, $at + 0.35, 0.3, 0.4) : $side * $w) * $shake * $d;
            $roll += $w * $tilt * ($side < 0 ? -1 : 1) * $d;
            $yaw += $w * $side * 4.5 * $d;
            $lean += $w * 2.2 * $d;
            $roll += $w * $side * -2.5 * $d;
            $brow += Ease::smooth(($t - $at + 0.3) / 0.25) * Ease::smooth(($at + 0.5 - $t) / 0.3)
                * ($raise >= 0 ? $raise : (Noise::hash((int) floor($at * 10), 9) > 0.45 ? 0.8 : 0.25));
        }

        return [$nod, $yaw, $lean, $brow, $roll];
    }

    /**
     * The voice is on while a word is spoken and a moment beyond, off in the pauses.
     *
     * @param  list<array{at: float, until: float, word: string, marked: bool}>  $spoken
     */
    private static function voiced(float $t, array $spoken): float
    {
        $most = 0.0;
        foreach ($spoken as $s) {
            $most = max(
                $most,
                Ease::smooth(($t - $s['at'] + 0.08) / 0.08) * Ease::smooth(($s['until'] + 0.12 - $t) / 0.12) * ($s['marked'] ? 1.15 : 1.0),
            );
        }

        return min(1.0, $most);
    }

    /**
     * Mouth shapes that change with about five syllables a second while the voice is on.
     *
     * @return array<string, float>
     */
    public static function mouth(float $t, float $voice, int $seed): array
    {
        $shapes = ['aa', 'ee', 'oh', 'ih', 'oo', 'el', 'mbp', 'fv'];
        $rate = 5.2;
        $k = (int) floor($t * $rate);
        $f = $t * $rate - $k;
        $out = [];
        foreach ([[$k, 1 - Ease::smooth(($f - 0.35) / 0.65)], [$k + 1, Ease::smooth(($f - 0.35) / 0.65)]] as [$i, $w]) {
            $h = Noise::hash($i, $seed + 70);
            $name = $shapes[(int) ($h * $h * 4 + Noise::hash($i, $seed + 71) * 4)];
            $out[$name] = ($out[$name] ?? 0.0) + $w * $voice * (0.55 + 0.4 * Noise::hash($i, $seed + 72));
        }

        return $out;
    }

    private static function pulse(float $t, float $at, float $rise, float $fall): float
    {
        return Ease::smooth(($t - $at + $rise) / $rise) * Ease::smooth(($at + $fall - $t) / $fall);
    }

    /** @return \Closure(float): Channels */
    public static function wave(BodyFrame $body, int $seed, float $seconds): \Closure
    {
        $stand = new Standing($body, $seed, $seconds, false, false);
        $rest = ArmTrack::pose('rest');
        $up = ArmTrack::pose('waveUp');
        $keys = [[-9.0, $rest], [0.25, $rest], [0.5, ArmTrack::mix($rest, ArmTrack::pose('middle'), 0.75)], [0.92, $up]];
        $t = 0.92;
        for ($i = 0; $i < 5; $i++) {
            $way = ($i % 2 === 0 ? 1 : -1) * (1 - 0.12 * $i);
            $k = $up;
            $k[2] += $way * 17;
            $k[6] += $way * 9;
            $k[3] += $way * -4;
            $keys[] = [$t += 0.19, array_values($k)];
        }
        array_push(
            $keys,
            [$t + 0.2, $up],
            [$t + 0.48, ArmTrack::mix($up, ArmTrack::pose('low'), 0.55)],
            [$t + 0.95, $rest],
            [$t + 9.0, $rest],
        );
        $right = new ArmTrack($keys);
        $left = new ArmTrack([[-9.0, $rest], [9.0, $rest]]);

        return static function (float $t) use ($stand, $right, $left): Channels {
            $d = M_PI / 180;
            $c = $stand->at($t);
            $c->arm = ['L' => $left->at($t), 'R' => $right->at($t)];
            $w = Ease::smooth(($t - 0.2) / 0.5) * Ease::smooth((2.9 - $t) / 0.7);
            $c->thorax[2] += $w * 4 * $d;
            $c->thorax[1] += $w * 4 * $d;
            $c->head[2] -= $w * 5 * $d;
            $c->head[0] -= $w * 3 * $d;
            $c->hip[0] += $w * 0.028;
            $c->pelvis[2] += $w * 2.5 * $d;
            $stand->settle($c, $t);
            $c->face['smile'] = 0.2 + 0.6 * $w;
            $c->face['browsUp'] = 0.7 * self::pulse($t, 0.6, 0.2, 0.7);
            $c->face['aa'] = 0.35 * self::pulse($t, 1.2, 0.25, 0.5);

            return $c;
        };
    }

    /**
     * The giver's or the receiver's half of a hand-over, 1.02 m between the two stances. Both hold the thing from
     * 1.45 s to 1.85 s at 1.06 m height, midway.
     *
     * @return \Closure(float): Channels
     */
    public static function handOver(BodyFrame $body, int $seed, float $seconds, bool $giver, float $gap = 1.02): \Closure
    {
        $stand = new Standing($body, $seed, $seconds, false, false);
        // World metres: two people of different height meet at one place.
        $k = 1 / $body->scale;
        $half = $gap / 2 * $k;
        $meet = [0.0, 1.06 * $k, $half];
        $hand = $giver
            ? new MonotoneTrack([0.0, 0.5, 1.3, 1.45, 1.85, 2.12, 2.6, 6.0], [
                [-0.10, 1.0, 0.28], [-0.10, 1.0, 0.28], [$meet[0], $meet[1] + 0.012, $meet[2] - 0.012], $meet, $meet,
                [0.0, $meet[1] - 0.03, $meet[2] - 0.08], [-0.06, $meet[1] - 0.1, $meet[2] - 0.26], [-0.06, $meet[1] - 0.1, $meet[2] - 0.26],
            ])
            : new MonotoneTrack([0.0, 0.6, 1.15, 1.40, 1.57, 1.85, 2.1, 2.9, 6.0], [
                [-0.10, $meet[1] - 0.12, $meet[2] - 0.24], [-0.10, $meet[1] - 0.1, $meet[2] - 0.22],
                [-0.02, $meet[1] - 0.02, $meet[2] - 0.075],
                [-0.01, $meet[1] - 0.012, $meet[2] - 0.03], $meet, $meet, [0.0, $meet[1] + 0.015, $meet[2] - 0.03],
                [-0.04, $meet[1] + 0.01, 0.27], [-0.04, $meet[1] + 0.01, 0.27],
            ]);
        $weight = $giver
            ? new MonotoneTrack([0.0, 0.55, 2.25, 3.0, 6.0], [[0.0], [1.0], [1.0], [0.0], [0.0]])
            : new MonotoneTrack([0.0, 0.55, 1.25, 3.1, 3.9, 6.0], [[0.0], [0.0], [1.0], [1.0], [0.0], [0.0]]);
        $along = $giver ? [0.10, 0.12, 1.0] : [0.12, 0.18, 1.0];
        $palm = $giver ? [0.55, 0.84, 0.0] : [0.82, 0.57, 0.0];

        return static function (float $t) use ($stand, $giver, $hand, $weight, $along, $palm): Channels {
            $d = M_PI / 180;
            $c = $stand->at($t);
            $c->arm = ['L' => ArmPose::fromKey(ArmTrack::pose('rest')), 'R' => ArmPose::fromKey(ArmTrack::pose('rest'))];
            $reach = $giver
                ? Ease::smoother(($t - 0.45) / 0.75) * Ease::smoother((2.9 - $t) / 0.8)
                : Ease::smoother(($t - 0.75) / 0.6) * Ease::smoother((2.9 - $t) / 0.8);
            $c->thorax[0] += $reach * 10 * $d;
            $c->thorax[1] += $reach * 10 * $d;
            $c->pelvis[0] += $reach * 3 * $d;
            $c->hip[2] += $reach * 0.045;
            $c->arm['R']->forward += $reach * 9 * $d;
            $look = $giver
                ? Ease::smoother(($t - 0.25) / 0.3) * Ease::smoother((2.3 - $t) / 0.4)
                : Ease::smoother(($t - 0.45) / 0.3) * Ease::smoother((3.2 - $t) / 0.4);
            $c->head[0] += $look * 18 * $d + self::pulse($t, $giver ? 2.45 : 2.6, 0.16, 0.3) * 6 * $d;
            $c->eyes[1] += $look * 0.12;
            $w = $weight->at($t)[0];
            $p = $hand->at($t);
            $f = V3::unit($along);
            $n = V3::unit($palm);
            $wrist = V3::addScaled(V3::addScaled([$p[0], $p[1], $p[2]], $f, -0.105), $n, -0.050);
            $c->reach['R'] = new Reach(
                V3::add(Q4::rotate(Q4::aroundY($c->heading), $wrist), [0.0, 0.0, 0.0]),
                $w,
                $along,
                $palm,
                [-0.5, -1.0, -0.3],
            );
            $grip = $giver ? 1 - Ease::smooth(($t - 1.73) / 0.25) * Ease::smooth((2.6 - $t) / 0.3) : Ease::smooth(($t - 1.47) / 0.25);
            $c->arm['R']->curl = Ease::mix(0.72, Ease::mix(0.22, 0.85, $grip), Ease::smooth($w * 2));
            $stand->settle($c, $t);
            $c->face['smile'] = 0.2 + 0.45 * Ease::smoother(($t - 2.1) / 0.5) * Ease::smoother(($giver ? 3.2 - $t : 4.0 - $t) / 0.5);
            $c->face['browsUp'] = $giver ? 0.0 : 0.6 * self::pulse($t, 1.0, 0.3, 0.8);

            return $c;
        };
    }
}
