<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use Closure;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;
use CrispReel\Core\Rig\Footing;
use CrispReel\Core\Rig\Reach;

/**
 * What is laid over a walk: crouching, a limp, something held before the body. The feet stay where the walk has put them;
 * hips go down, trunk and arms are set anew.
 */
final class Manner
{
    private const HOLDS = [
        'box' => [[0.19, 0.10, 0.33], [[0.0, 0.1, 1.0], [-1.0, 0.0, 0.0]], -5.0],
        'cart' => [[0.21, 0.06, 0.47], [[-0.15, 0.0, 1.0], [0.0, -1.0, 0.1]], 12.0],
        'person' => [[0.24, 0.11, 0.32], [[-0.25, 0.15, 1.0], [0.0, 1.0, 0.0]], -8.0],
        'tray' => [[0.14, 0.22, 0.30], [[0.0, 0.0, 1.0], [0.0, 1.0, 0.0]], -3.0],
    ];

    /** Seconds from one look back to the next, and between which of them somebody looks. */
    private const BACK = [2.6, 0.45, 1.55];

    /**
     * @param  Closure(float): Channels  $walk
     * @param  array<string, mixed>  $settings  crouch 0 to 1, limp -1 (left) to 1 (right), sneak 0 to 1, lookBack -1 (right) to 1, hold by
     *   name
     * @return Closure(float): Channels
     */
    public static function over(BodyFrame $body, Closure $walk, array $settings): Closure
    {
        $n = static fn (string $k, float $low): float => Ease::clamp(
            is_numeric($settings[$k] ?? null) ? (float) $settings[$k] : 0.0,
            $low,
            1.0,
        );
        [$crouch, $limp, $sneak, $back] = [$n('crouch', 0.0), $n('limp', -1.0), $n('sneak', 0.0), $n('lookBack', -1.0)];
        $hold = is_string($settings['hold'] ?? null) ? self::HOLDS[$settings['hold']] ?? null : null;
        if ($crouch === 0.0 && $limp === 0.0 && $sneak === 0.0 && $back === 0.0 && $hold === null) {
            return $walk;
        }

        return static function (float $t) use ($body, $walk, $crouch, $limp, $sneak, $back, $hold): Channels {
            $c = $walk($t);
            $d = M_PI / 180;
            $low = max($crouch, 0.75 * $sneak);
            $c->hip[1] -= 0.13 * $low;
            $c->thorax[0] += 24 * $low * $d;
            $c->pelvis[0] += 10 * $low * $d;
            $c->kneeOut += 0.12 * $low;
            if ($sneak > 0.0) {
                self::sneaks($body, $c, $sneak);
            }
            if ($limp !== 0.0) {
                self::limps($c, $limp);
            }
            if ($back !== 0.0) {
                self::looksBack($c, $back, $t);
            }
            if ($hold !== null) {
                self::holds($c, $hold);
            }
            $c->hip[1] = Ride::limited($body, $c, $c->hip[1], 0.01);

            return $c;
        };
    }

    private static function sneaks(BodyFrame $body, Channels $c, float $sneak): void
    {
        $d = M_PI / 180;
        foreach (['L', 'R'] as $s) {
            $foot = $c->foot[$s];
            $up = $foot->down ? 0.0 : $sneak * 0.10 * Ease::smooth(($foot->ankle[1] - $body->ankleY) / 0.05);
            $c->foot[$s] = new Footing(
                [$foot->ankle[0], $foot->ankle[1] + $up, $foot->ankle[2]], $foot->pitch, $foot->toePitch, $foot->heading, $foot->down,
                $foot->share,
            );
            $c->arm[$s]->elbow = Ease::mix($c->arm[$s]->elbow, 98 * $d, $sneak);
            $c->arm[$s]->flex = Ease::mix($c->arm[$s]->flex, 34 * $d, $sneak);
            $c->arm[$s]->curl = 0.9;
        }
        $c->head[0] -= 6 * $sneak * $d;
    }

    private static function limps(Channels $c, float $limp): void
    {
        $d = M_PI / 180;
        [$bad, $m] = $limp > 0.0 ? ['R', -1.0] : ['L', 1.0];
        $load = $c->foot[$bad]->down ? 1.0 : 0.0;
        // How near the hips are over the bad foot: the dip comes and goes without a step.
        $z = $c->foot[$bad]->ankle[2] - $c->hip[2];
        $dip = abs($limp) * $load * exp(-($z / 0.16) ** 2);
        $c->hip[1] -= 0.05 * $dip;
        $c->thorax[2] -= $m * 9 * $dip * $d;
        $c->thorax[0] += (4 * abs($limp) + 5 * $dip) * $d;
        $c->head[0] += 4 * $dip * $d;
        $c->face['frown'] = max($c->face['frown'] ?? 0.0, 0.6 * $dip);
    }

    /** Over a shoulder to what is behind: eyes before the head, the head before the shoulders, again and again. */
    private static function looksBack(Channels $c, float $side, float $t): void
    {
        [$every, $from, $to] = self::BACK;
        $at = fmod($t, $every);
        $share = static fn (float $later): float => Ease::smooth(($at - $from - $later) / 0.28) * Ease::smooth(($to + $later - $at) / 0.28);
        $d = $side * M_PI / 180;
        $c->eyes[0] += 24 * $d * $share(-0.10);
        $c->head[1] += 74 * $d * $share(0.0);
        $c->thorax[1] += 34 * $d * $share(0.06);
        $c->pelvis[1] += 8 * $d * $share(0.08);
        $c->face['browsUp'] = max($c->face['browsUp'] ?? 0.0, 0.8 * $share(0.0));
    }

    /** @param  array{array{float, float, float}, array{array{float, float, float}, array{float, float, float}}, float}  $hold */
    private static function holds(Channels $c, array $hold): void
    {
        [[$x, $y, $z], [$along, $palm], $lean] = $hold;
        $c->thorax[0] += $lean * M_PI / 180;
        foreach (['L' => 1.0, 'R' => -1.0] as $s => $m) {
            $at = Standing::turned($c, $m * $x, 0.0, $z);
            $place = [$c->hip[0] + $at[0], $c->hip[1] + $y, $c->hip[2] + $at[2]];
            $back = Standing::turned(
                $c,
                -0.105 * $m * $along[0] - 0.045 * $m * $palm[0],
                -0.105 * $along[1] - 0.045 * $palm[1],
                -0.105 * $along[2] - 0.045 * $palm[2],
            );
            $c->reach[$s] = new Reach(
                [$place[0] + $back[0], $place[1] + $back[1], $place[2] + $back[2]],
                1.0,
                [$m * $along[0], $along[1], $along[2]],
                [$m * $palm[0], $palm[1], $palm[2]],
                [$m * 0.6, -1.0, -0.35],
            );
            $c->arm[$s]->curl = 1.1;
        }
    }
}
