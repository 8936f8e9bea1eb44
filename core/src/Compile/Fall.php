<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A thing let go: a ballistic arc, bounces that lose speed, and rest on its flattest side. Settled once in steps of
 * 1/240 s; any moment is read off.
 */
final class Fall
{
    private const G = 9.81;

    private const STEP = 1 / 240;

    private const MOST_SECONDS = 6.0;

    /** Speed up after a bounce by speed down before, and what friction leaves of the speed along the ground. */
    private const BOUNCE = 0.32;

    private const GRIP = 0.55;

    /** @var list<Placement> one a step */
    private array $steps = [];

    /**
     * @param  array{float, float, float}  $velocity  metres a second
     * @param  array{list<float>, list<float>}  $bounds  of the thing, in its own space
     * @param  Closure(float, float, float): (float|null)  $ground  height at x, z not above a ceiling
     */
    public function __construct(Placement $from, array $velocity, array $bounds, Closure $ground)
    {
        $scale = $from->scale;
        $middle = V3::mul(
            [($bounds[0][0] + $bounds[1][0]) / 2, ($bounds[0][1] + $bounds[1][1]) / 2, ($bounds[0][2] + $bounds[1][2]) / 2],
            $scale,
        );
        $half = V3::mul(
            [($bounds[1][0] - $bounds[0][0]) / 2, ($bounds[1][1] - $bounds[0][1]) / 2, ($bounds[1][2] - $bounds[0][2]) / 2],
            $scale,
        );
        $rest = self::lying($from->rotation, $half);
        $spin = V3::length($velocity) > 0.3 ? V3::unit(V3::cross([0.0, 1.0, 0.0], V3::unit($velocity))) : [0.0, 0.0, 0.0];
        $rate = min(9.0, 1.6 * V3::length($velocity));
        $at = V3::add($from->position, Q4::rotate($from->rotation, $middle));
        $turn = $from->rotation;
        $touched = null;
        $still = 0;
        for ($i = 0; $i * self::STEP < self::MOST_SECONDS && $still < 12; $i++) {
            $this->steps[] = new Placement(V3::sub($at, Q4::rotate($turn, $middle)), $turn, $scale);
            $velocity[1] -= self::G * self::STEP;
            $next = V3::addScaled($at, $velocity, self::STEP);
            if ($touched === null && V3::length($spin) > 0.5) {
                $turn = Q4::mul(Q4::axis($spin, $rate * self::STEP), $turn);
            } elseif ($touched !== null) {
                // It tips on to its side within a quarter of a second.
                $turn = Q4::slerp($turn, $rest, min(1.0, self::STEP / max(self::STEP, 0.25 - ($i - $touched) * self::STEP)));
            }
            $floor = $ground($next[0], $next[2], $at[1] + 0.02);
            $low = self::below($turn, $half);
            if ($floor !== null && $floor > $next[1] - $low) {
                $rest = $touched === null ? self::lying($turn, $half) : $rest;
                $touched ??= $i;
                $next[1] = $floor + $low;
                $down = -$velocity[1];
                $velocity = [$velocity[0] * self::GRIP, $down > 0.35 ? $down * self::BOUNCE : 0.0, $velocity[2] * self::GRIP];
                $lies = Q4::angleBetween($turn, $rest) < 0.002 && hypot($velocity[0], $velocity[2]) < 0.02 && $velocity[1] === 0.0;
                $still = $lies ? $still + 1 : 0;
            }
            $at = $next;
        }
    }

    /**
     * The nearest of the stands on the thing's flattest side.
     *
     * @param  array{float, float, float, float}  $turn
     * @param  array{float, float, float}  $half
     * @return array{float, float, float, float}
     */
    private static function lying(array $turn, array $half): array
    {
        $least = min($half);
        $best = null;
        $nearest = INF;
        foreach ([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]] as $k => $axis) {
            if ($half[$k] > $least * 1.25) {
                continue;
            }
            foreach ([1.0, -1.0] as $sign) {
                $now = Q4::rotate($turn, V3::mul($axis, $sign));
                $by = \CrispReel\Core\Rig\Posture::shortest($now, [0.0, 1.0, 0.0], [1.0, 0.0, 0.0]);
                $angle = Q4::angleBetween(Q4::IDENTITY, $by);
                if ($angle < $nearest) {
                    [$nearest, $best] = [$angle, Q4::mul($by, $turn)];
                }
            }
        }

        return $best ?? $turn;
    }

    /**
     * How far a turned box reaches below its middle.
     *
     * @param  array{float, float, float, float}  $turn
     * @param  array{float, float, float}  $half
     */
    private static function below(array $turn, array $half): float
    {
        $sum = 0.0;
        foreach ([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]] as $k => $axis) {
            $sum += abs(Q4::rotate($turn, $axis)[1]) * $half[$k];
        }

        return $sum;
    }

    public function at(float $seconds): Placement
    {
        $x = max(0.0, min($seconds / self::STEP, count($this->steps) - 1));
        $i = (int) $x;

        return $this->steps[$i]->mix($this->steps[min(count($this->steps) - 1, $i + 1)], $x - $i);
    }

    /** Seconds until it lies still. */
    public function seconds(): float
    {
        return (count($this->steps) - 1) * self::STEP;
    }

    /** @return array{float, float}|null seconds until it first hits what is below, and how fast it is then, metres a second */
    public function hits(): ?array
    {
        for ($i = 2; $i < count($this->steps); $i++) {
            $before = ($this->steps[$i - 1]->position[1] - $this->steps[$i - 2]->position[1]) / self::STEP;
            $after = ($this->steps[$i]->position[1] - $this->steps[$i - 1]->position[1]) / self::STEP;
            if ($before < -0.3 && $after > $before + 0.2) {
                return [($i - 1) * self::STEP, -$before];
            }
        }

        return null;
    }

    /**
     * The arc from one place to another in a given time (constant gravity, no air).
     */
    public static function thrown(Placement $from, Placement $to, float $seconds, float $at): Placement
    {
        $u = max(0.0, min(1.0, $at / $seconds));
        $t = $u * $seconds;
        $v = V3::mul(V3::sub($to->position, $from->position), 1 / $seconds);
        $v[1] += 0.5 * self::G * $seconds;
        $p = V3::addScaled($from->position, $v, $t);
        $p[1] -= 0.5 * self::G * $t * $t;

        return new Placement($p, Q4::slerp($from->rotation, $to->rotation, $u), $from->scale + ($to->scale - $from->scale) * $u);
    }
}
