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

    /** Frames (of 30 a second) that a contact lasts at least, seconds over which the correction comes and goes. */
    private const AIR = 0.008;

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
     * Brings the lowest feet to the ground and holds what touches it.
     *
     * @param  list<list<float>>  $rows
     * @return list<list<float>>
     */
    public static function applied(array $rows, Figure $figure, float $rate): array
    {
        $rows = self::grounded($rows, $figure);
        foreach (['L', 'R'] as $side) {
            $leg = $figure->limb('leg', $side);
            $toes = $figure->skeleton->roles['toes'.$side] ?? null;
            if ($leg === null) {
                continue;
            }
            $shift = array_fill(0, count($rows), [[0.0, 0.0, 0.0], 0.0]);
            foreach (array_filter([$leg[2], $toes], is_int(...)) as $j) {
                $role = $j === $leg[2] ? 'foot'.$side : 'toes'.$side;
                $rest = $figure->rest($role)[1] ?? 0.0;
                $points = array_map(static fn (array $r): array => (new Posture($figure->skeleton, $figure->hips, $r))->at($j)[0], $rows);
                foreach (self::spans($points, $rest, $rate) as $span) {
                    $shift = self::held($shift, $points, $span, $rest, $rate);
                }
            }
            foreach ($rows as $i => $row) {
                [$sum, $weight] = $shift[$i];
                $p = new Posture($figure->skeleton, $figure->hips, $row);
                [$ankle, $turn] = $p->at($leg[2]);
                $to = V3::addScaled($ankle, $sum, 1 / max(1.0, $weight));
                // A foot that swings has a little air under it, whatever the length of its toes.
                $low = self::lowest($p, $figure, $leg[2], $toes) + $to[1] - $ankle[1];
                $to[1] += max(0.0, self::AIR * (1 - min(1.0, $weight)) - $low);
                if ($to !== $ankle) {
                    $p->reach($leg[0], $leg[1], $leg[2], $to, $turn, [1.0, 0.0, 0.0]);
                    $rows[$i] = $p->result();
                }
            }
        }

        return $rows;
    }

    /** Height of the lowest of heel, ball and toe tip over the ground. */
    private static function lowest(Posture $p, Figure $figure, int $foot, ?int $toes): float
    {
        if (! $figure->isHuman()) {
            return INF;
        }
        $b = $figure->body();
        $heights = [];
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

        return $heights === [] ? INF : min($heights);
    }

    /**
     * The whole motion up or down, so that what is lowest for most of it stands on the ground.
     *
     * @param  list<list<float>>  $rows
     * @return list<list<float>>
     */
    private static function grounded(array $rows, Figure $figure): array
    {
        $lows = [];
        foreach ($rows as $row) {
            $p = new Posture($figure->skeleton, $figure->hips, $row);
            $low = INF;
            foreach (['footL', 'footR', 'toesL', 'toesR'] as $role) {
                $j = $figure->skeleton->roles[$role] ?? null;
                $rest = $figure->rest($role);
                $low = $j === null || $rest === null ? $low : min($low, $p->at($j)[0][1] - $rest[1]);
            }
            $lows[] = $low;
        }
        sort($lows);
        // The fifth part of the way up: a few frames of sinking are mended by the contacts, jumps do not count.
        $by = $lows[intdiv(count($lows), 5)];

        return is_finite($by) ? array_map(static function (array $row) use ($by): array {
            return [$row[0], $row[1] - $by, ...array_slice($row, 2)];
        }, $rows) : $rows;
    }

    /**
     * @param  list<array{array{float, float, float}, float}>  $shift  weighted sum and weight by frame
     * @param  list<array{float, float, float}>  $points
     * @param  Span  $span
     * @return list<array{array{float, float, float}, float}>
     */
    private static function held(array $shift, array $points, array $span, float $rest, float $rate): array
    {
        [$from, $to] = $span;
        $sum = [0.0, 0.0, 0.0];
        for ($i = $from; $i < $to; $i++) {
            $sum = V3::add($sum, $points[$i]);
        }
        $at = V3::mul($sum, 1 / ($to - $from));
        $at[1] = $rest;
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
