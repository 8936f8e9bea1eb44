<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Rig\Figure;

/**
 * Recordings that are to go round: where one best begins again, and the rows around that place blended so that nothing jumps.
 */
final class Repeat
{
    public const VERSION = 1;

    /** Weighted distance of poses and velocities, metres, over which a place does not fit: the body would jump. */
    public const FITS = 0.12;

    /** Seconds over which the end is blended into what leads to the beginning. */
    private const BLEND = 0.25;

    /** Seconds that a round lasts at least. */
    private const LEAST = 0.5;

    /** Of places that fit nearly as well the ones farthest apart are taken: a share more than the best, and metres. */
    private const NEARLY = 1.25;

    private const NEAR = 0.04;

    /** Moments that are compared at most. */
    private const MOMENTS = 240;

    /**
     * Where a motion is best taken round.
     *
     * @return array{from: float, to: float, distance: float}|null seconds and metres; null: it is too short for a round, or the body has
     *   no hands and feet to compare
     */
    public static function best(ClipTable $table, Figure $figure): ?array
    {
        $end = $table->seconds();
        if ($end < self::LEAST + 2 * self::BLEND || ! isset($figure->skeleton->roles['footL'], $figure->skeleton->roles['handL'])) {
            return null;
        }
        $n = min(self::MOMENTS, max(8, (int) round($end * 12)));
        $finder = new JoinFinder($figure);
        $looks = [];
        for ($i = 0; $i <= $n; $i++) {
            $looks[] = $finder->look($table, $end * $i / $n);
        }
        $found = [];
        $least = INF;
        foreach ($looks as $i => $a) {
            $from = $end * $i / $n;
            if ($from < self::BLEND) {
                continue;
            }
            foreach (array_slice($looks, $i, null, true) as $k => $b) {
                $to = $end * $k / $n;
                if ($to - $from < self::LEAST || $to > $end - 1e-9) {
                    continue;
                }
                $d = JoinFinder::distance($a, $b);
                $least = min($least, $d);
                $found[] = [$d, $from, $to];
            }
        }
        $best = null;
        foreach ($found as $f) {
            if ($f[0] <= max(self::NEARLY * $least, $least + self::NEAR) && ($best === null || $f[2] - $f[1] > $best[2] - $best[1])) {
                $best = $f;
            }
        }

        return $best === null ? null : self::refined($finder, $table, $best, $end / $n);
    }

    /**
     * How well a motion begins again where it is trimmed.
     *
     * @return array{from: float, to: float, distance: float}
     */
    public static function between(ClipTable $table, Figure $figure, float $from, float $to): array
    {
        $finder = new JoinFinder($figure);

        return ['from' => $from, 'to' => $to, 'distance' => JoinFinder::distance($finder->look($table, $from), $finder->look($table, $to))];
    }

    /**
     * @param  array{float, float, float}  $best
     * @return array{from: float, to: float, distance: float}
     */
    private static function refined(JoinFinder $finder, ClipTable $table, array $best, float $step): array
    {
        // On rows of the table, so that the seam is met to the bit.
        $row = static fn (float $s): float => min($table->seconds(), round($s * $table->rate) / $table->rate);
        [$from, $to] = [$row($best[1]), $row($best[2])];
        $start = $finder->look($table, $from);
        $least = JoinFinder::distance($start, $finder->look($table, $to));
        for ($k = -8; $k <= 8; $k++) {
            $at = $row($best[2] + $k * $step / 8);
            $d = JoinFinder::distance($start, $finder->look($table, $at));
            if ($d < $least) {
                [$least, $to] = [$d, $at];
            }
        }

        return ['from' => $from, 'to' => $to, 'distance' => $least];
    }

    /**
     * The motion with the rows before $to blended into those before $from, so that at $to it is where it is at $from.
     */
    public static function closed(ClipTable $table, Figure $figure, float $from, float $to): ClipTable
    {
        $rows = array_map($table->row(...), range(0, $table->count - 1));
        $blend = min(self::BLEND, 0.4 * ($to - $from));
        $first = $figure->standing($table->at($from), $figure->hips);
        $last = $figure->standing($table->at($to), $figure->hips);
        $turn = $last[2] - $first[2];
        [$c, $s] = [cos($turn), sin($turn)];
        $move = [$last[0] - $first[0] * $c - $first[1] * $s, $last[1] + $first[0] * $s - $first[1] * $c, $turn];
        $w = $table->width;
        for ($i = (int) ceil(($to - $blend) * $table->rate); $i < $table->count && $i / $table->rate <= $to + 1 / $table->rate; $i++) {
            $t = $i / $table->rate;
            $share = Ease::smoother(min(1.0, ($t - $to + $blend) / $blend));
            $other = $table->at(max(0.0, $from + $t - $to));
            $moved = ClipTable::moved($other, $move, $figure->hips);
            $mixed = ClipTable::between(array_values($rows[$i]), 0, $moved, 0, $share, $table->joints, $w);
            // The root's track goes with the blend, its heading the short way.
            [$x, $z] = [$other[$w - 3] * $c + $other[$w - 2] * $s + $move[0], -$other[$w - 3] * $s + $other[$w - 2] * $c + $move[1]];
            $mixed[$w - 3] = $rows[$i][$w - 3] + ($x - $rows[$i][$w - 3]) * $share;
            $mixed[$w - 2] = $rows[$i][$w - 2] + ($z - $rows[$i][$w - 2]) * $share;
            $mixed[$w - 1] = $rows[$i][$w - 1] + Angle::between($rows[$i][$w - 1], $other[$w - 1] + $turn) * $share;
            $rows[$i] = array_values($mixed);
        }

        return ClipTable::fromRows($table->rate, $table->joints, $table->morphs, $table->count, array_merge(...$rows), $table->loops);
    }
}
