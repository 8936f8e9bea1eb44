<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Rig\Figure;

/**
 * How a performer stands where a beat ends, and the move that carries the next one on from there.
 *
 * @phpstan-type Stance array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>}
 */
final class CarryingOn
{
    /** Frames in which what follows a walk that does not stop is to begin. */
    public const AT_ONCE = 2.0;

    /**
     * How the performer stands when a beat begins.
     *
     * @return Stance|null null before any beat
     */
    public static function stance(?LaneSegment $last, Beat $beat, Figure $figure): ?array
    {
        if ($last === null) {
            return null;
        }
        $frame = (float) $beat->start;
        $frame = $last->from->play->keepLooping ? $frame : min($frame, $last->end);

        return self::footing($last->row($frame), $figure, $last->lift, $last->ground);
    }

    /**
     * The planar move that makes the new beat begin where the last one stands: the feet that are planted in both poses
     * coincide in place and heading; without a common planted foot, or where the beat asks for it, the hips do.
     *
     * @param  Stance|null  $from
     */
    public static function carryOn(?LaneSegment $last, ?array $from, LaneSegment $segment, Figure $figure): void
    {
        if ($last === null || $from === null || $segment->join === 'cut') {
            // The motion starts on the mark: its own root at the performer's place.
            $row = $segment->table->at($segment->in);
            $o = $segment->table->width - 3;
            $segment->move = LaneSegment::undo([$row[$o], $row[$o + 1], $row[$o + 2]]);
        }
        if ($last !== null && $from !== null) {
            $segment->lift = $segment->ground = $last->ground;
            $segment->move = [0.0, 0.0, 0.0];
            $to = self::footing($segment->row($segment->start), $figure, $segment->lift, $last->ground);
            $how = $segment->from->play->anchor;
            $segment->move = LaneSegment::after(self::anchor($from, $to, $how), LaneSegment::undo(self::anchor($to, $from, $how)));
        }
        $segment->carried();
    }

    /**
     * Planted feet and hips of a pose.
     *
     * @param  list<float>  $row
     * @return Stance x, z, heading
     */
    public static function footing(array $row, Figure $figure, float $lift, float $ground): array
    {
        $base = max($lift, $ground);
        $feet = [];
        foreach (['L', 'R'] as $s) {
            $j = $figure->skeleton->roles['foot'.$s] ?? null;
            $rest = $figure->rest('foot'.$s);
            if ($j === null || $rest === null) {
                continue;
            }
            $foot = $figure->standing($row, $j);
            if ($foot[3] < $rest[1] + $base + 0.04) {
                $feet[$s] = [$foot[0], $foot[1], $foot[2]];
            }
        }
        $hips = $figure->standing($row, $figure->hips);

        return ['hips' => [$hips[0], $hips[1], $hips[2]], 'feet' => $feet];
    }

    /**
     * @param  Stance  $of
     * @param  Stance  $other
     * @return array{float, float, float}
     */
    public static function anchor(array $of, array $other, string $how): array
    {
        $both = $how === 'hips' ? [] : array_intersect_key($of['feet'], $other['feet']);
        if (count($both) === 2) {
            [$l, $r] = [$both['L'], $both['R']];
            // Across the feet from right to left is the stance's side axis.
            $turn = atan2(sin($l[2]) + sin($r[2]), cos($l[2]) + cos($r[2]));

            return [($l[0] + $r[0]) / 2, ($l[1] + $r[1]) / 2, $turn];
        }

        return $both === [] ? $of['hips'] : array_values($both)[0];
    }

    /**
     * How fast somebody is who does not stop before a beat that begins out of a walk.
     *
     * @return array<string, float>
     */
    public static function entered(?LaneSegment $last, Beat $beat, Figure $figure, float $rate): array
    {
        if ($last === null || $last->timing->beyond <= 0.0 || $beat->start > $last->end + self::AT_ONCE) {
            return [];
        }
        [$a, $b] = [$last->row($last->end - 6.0), $last->row($last->end + 6.0)];
        $pace = hypot($b[0] - $a[0], $b[2] - $a[2]) / 12.0 * $rate / $figure->body()->scale;

        return ['enters' => round($pace, 2)];
    }
}
