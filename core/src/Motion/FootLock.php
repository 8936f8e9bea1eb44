<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * Contacts of feet with the ground in a motion that came from elsewhere, and the correction that makes them hold: a heel
 * or toe that is low and slow stays where it touches, and the leg follows by two-bone IK.
 *
 * A span is its first frame and the one after its last.
 *
 * @phpstan-type Span array{int, int}
 */
final class FootLock
{
    /** A part of the foot is down under this height over its rest and this speed; it is up again over the second speed. */
    private const HEIGHT = 0.04;

    private const SLOW = 0.2;

    private const QUICK = 0.35;

    /** Air that a foot that swings has under it, metres. */
    private const AIR = 0.006;

    /** In how many steps a foot is levelled. */
    private const STEPS = 10;

    /** Sine of the angle from which on a knee is bent about an axis that can be told. */
    private const BENT = 0.1;

    /** Frames (of 30 a second) that a contact lasts at least, seconds over which the correction comes and goes. */
    private const LEAST_SECONDS = 0.1;

    private const EASE_SECONDS = 0.07;

    /**
     * Spans in which a point is in contact.
     *
     * @param  list<array{float, float, float}>  $points  one a frame
     * @param  float  $rest  its height when it stands on the ground
     * @return list<Span>
     */
    public static function spans(array $points, float $rest, float $rate): array
    {
        $spans = [];
        $from = null;
        $n = count($points);
        for ($i = 0; $i < $n; $i++) {
            $speed = max(
                $i > 0 ? V3::distance($points[$i], $points[$i - 1]) * $rate : 0.0,
                $i < $n - 1 ? V3::distance($points[$i + 1], $points[$i]) * $rate : 0.0,
            );
            $down = $points[$i][1] < $rest + self::HEIGHT && $speed < ($from === null ? self::SLOW : self::QUICK);
            if ($down && $from === null) {
                $from = $i;
            } elseif (! $down && $from !== null) {
                $spans[] = [$from, $i];
                $from = null;
            }
        }
        if ($from !== null) {
            $spans[] = [$from, $n];
        }

        return array_values(array_filter($spans, static fn (array $s): bool => max(3, self::LEAST_SECONDS * $rate) <= $s[1] - $s[0]));
    }

    /**
     * Holds what touches the ground, or a step, in a motion that came from another body.
     *
     * @param  list<list<float>>  $rows
     * @param  array<string, list<array{int, int, float}>>  $planted  role of a foot or toes to frames in which it is planted, and how
     *   much higher than on the ground, in legs
     * @return list<list<float>>
     */
    public static function applied(array $rows, Figure $figure, float $rate, array $planted): array
    {
        foreach (['L', 'R'] as $side) {
            $leg = $figure->limb('leg', $side);
            $toes = $figure->skeleton->roles['toes'.$side] ?? null;
            if ($leg === null) {
                continue;
            }
            $long = array_sum($figure->lengths($leg));
            $shift = ['foot' => [], 'toes' => []];
            foreach (array_filter(['foot' => $leg[2], 'toes' => $toes], is_int(...)) as $part => $j) {
                $rest = $figure->rest($part.$side)[1] ?? 0.0;
                $points = array_map(static fn (array $r): array => (new Posture($figure->skeleton, $figure->hips, $r))->at($j)[0], $rows);
                $stands = array_map(static fn (array $s): array => [$s[0], $s[1], $rest + $long * $s[2]], $planted[$part.$side] ?? []);
                $shift[$part] = self::shifts($points, $stands, $rate);
            }
            foreach ($rows as $i => $row) {
                [$foot, $firm] = $shift['foot'][$i] ?? [[0.0, 0.0, 0.0], 0.0];
                [$ball, $firmBall] = $shift['toes'][$i] ?? [[0.0, 0.0, 0.0], 0.0];
                $p = new Posture($figure->skeleton, $figure->hips, $row);
                self::set($p, $figure, $leg, $toes, [$foot, min(1.0, $firm)], [$ball, min(1.0, $firmBall)]);
                $rows[$i] = $p->result();
            }
        }

        return $rows;
    }

    /**
     * One foot of one frame: what is planted is brought to its place, heel by the leg, toes by the turn of the foot.
     *
     * @param  array{int, int, int}  $leg
     * @param  array{array{float, float, float}, float}  $heel  how far the foot's joint is to move (weighted), and its weight
     * @param  array{array{float, float, float}, float}  $ball  the same of the toes' joint
     */
    private static function set(Posture $p, Figure $figure, array $leg, ?int $toes, array $heel, array $ball): void
    {
        [$ankle, $turn] = $p->at($leg[2]);
        $to = V3::add($ankle, $heel[0]);
        if ($toes !== null && $ball[1] > 0.0) {
            // Planted toes stay in any case; the foot turns about them towards where its joint is to be.
            $tip = $p->at($toes)[0];
            $pivot = V3::addScaled(V3::add($tip, $ball[0]), $heel[0], 1 - $ball[1]);
            $by = Posture::shortest(V3::sub($ankle, $tip), V3::sub(V3::addScaled($to, $ball[0], 1 - $heel[1]), $pivot), [0.0, 1.0, 0.0]);
            $to = V3::add($pivot, Q4::rotate($by, V3::sub($ankle, $tip)));
            $turn = Q4::mul($by, $turn);
            $p->turn($leg[2], $turn);
        }
        // A foot that swings does not pass through the ground, whatever its length: it is levelled before the leg is bent.
        $free = 1 - min(1.0, $heel[1] + $ball[1]);
        $rise = $to[1] - $ankle[1];
        if ($free > 0.0) {
            $turn = self::cleared($p, $figure, $leg[2], $toes, $rise, $free);
        }
        $to[1] += max(0.0, -$free * (self::lowest($p, $figure, $leg[2], $toes) + $rise));
        if ($to !== $ankle) {
            $p->reach($leg[0], $leg[1], $leg[2], $to, $turn, self::hinge($p, $figure, $leg));
        }
    }

    /**
     * Levels a foot about its joint, and its toes, as far as it takes for nothing of it to be below the ground.
     *
     * @return array{float, float, float, float} the foot's turn
     */
    private static function cleared(Posture $p, Figure $figure, int $foot, ?int $toes, float $rise, float $share): array
    {
        $turn = $p->at($foot)[1];
        $air = self::AIR * $share - $rise;
        if (self::lowest($p, $figure, $foot, $toes) > $air) {
            return $turn;
        }
        $level = [];
        foreach (array_filter([$foot, $toes], is_int(...)) as $j) {
            $now = $p->at($j)[1];
            $up = Q4::rotate(Q4::mul($now, Q4::conjugate($figure->restTurn($j))), [0.0, 1.0, 0.0]);
            $level[$j] = [$now, Q4::mul(Posture::shortest($up, [0.0, 1.0, 0.0], [1.0, 0.0, 0.0]), $now)];
        }
        for ($step = 1; $step <= self::STEPS && self::lowest($p, $figure, $foot, $toes) < $air; $step++) {
            foreach ($level as $j => [$now, $flat]) {
                $p->turn($j, Q4::slerp($now, $flat, $share * $step / self::STEPS));
            }
        }

        return $p->at($foot)[1];
    }

    /**
     * The axis about which a knee bends: the one about which it is bent, or for a straight leg the thigh's own.
     *
     * @param  array{int, int, int}  $leg
     * @return array{float, float, float}
     */
    private static function hinge(Posture $p, Figure $figure, array $leg): array
    {
        [$a, $turn] = $p->at($leg[0]);
        $b = $p->at($leg[1])[0];
        $own = Q4::rotate(Q4::mul($turn, Q4::conjugate($figure->restTurn($leg[0]))), [1.0, 0.0, 0.0]);
        $bent = V3::cross(V3::unit(V3::sub($b, $a)), V3::unit(V3::sub($p->at($leg[2])[0], $b)));

        return V3::length($bent) > self::BENT ? $bent : $own;
    }

    /** Height of the lowest of heel, ball and toe tip over the ground. */
    private static function lowest(Posture $p, Figure $figure, int $foot, ?int $toes): float
    {
        if (! $figure->isHuman()) {
            return INF;
        }
        $b = $figure->body();
        $heights = [INF];
        foreach ([
            [$foot, [[0.0, -$b->ankleY, $b->heelZ], [0.0, -$b->ankleY, $b->ballZ]]],
            [$toes ?? -1, [[0.0, -$b->ballY, $b->tipZ - $b->ballZ]]],
        ] as [$joint, $points]) {
            if ($joint < 0) {
                continue;
            }
            [$at, $turn] = $p->at($joint);
            $turn = Q4::mul($turn, Q4::conjugate($figure->restTurn($joint)));
            foreach ($points as $point) {
                $heights[] = $at[1] + Q4::rotate($turn, V3::mul($point, $b->scale))[1];
            }
        }

        return min($heights);
    }

    /**
     * How far a joint is to move at each frame, weighted, and the weight.
     *
     * @param  list<array{float, float, float}>  $points
     * @param  list<array{int, int, float}>  $stands  frames and height
     * @return list<array{array{float, float, float}, float}>
     */
    private static function shifts(array $points, array $stands, float $rate): array
    {
        $shift = array_fill(0, count($points), [[0.0, 0.0, 0.0], 0.0]);
        foreach ($stands as $stand) {
            $shift = self::held($shift, $points, $stand, $rate);
        }

        return array_map(static fn (array $s): array => [V3::mul($s[0], 1 / max(1.0, $s[1])), $s[1]], $shift);
    }

    /**
     * @param  list<array{array{float, float, float}, float}>  $shift  weighted sum and weight by frame
     * @param  list<array{float, float, float}>  $points
     * @param  array{int, int, float}  $stand
     * @return list<array{array{float, float, float}, float}>
     */
    private static function held(array $shift, array $points, array $stand, float $rate): array
    {
        [$from, $to, $height] = $stand;
        $sum = [0.0, 0.0, 0.0];
        for ($i = $from; $i < $to; $i++) {
            $sum = V3::add($sum, $points[$i]);
        }
        $at = V3::mul($sum, 1 / ($to - $from));
        $at[1] = $height;
        $ease = max(1.0, self::EASE_SECONDS * $rate);
        $n = count($points);
        for ($i = max(0, (int) ($from - $ease)); $i < min($n, $to + $ease); $i++) {
            $w = Ease::smooth(min(1.0, 1 - ($from - $i) / $ease, 1 - ($i - $to + 1) / $ease));
            // Before and after, the correction of the end is carried out of the contact, not the way to its place.
            $by = V3::sub($at, $points[max($from, min($to - 1, $i))]);
            $shift[$i] = [V3::addScaled($shift[$i][0], $by, $w), $shift[$i][1] + $w];
        }

        return array_values($shift);
    }
}
