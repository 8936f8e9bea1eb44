<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Keys;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A camera over time: place, aim and lens between keys with ease; before the first and after the last key it stands. */
final class CameraMove
{
    /**
     * @param  list<array{float, float, float}>  $subjects  heads in the scene at this frame, for focus that follows
     */
    public static function at(Camera $camera, float $frame, array $subjects = []): CameraPose
    {
        $keys = $camera->keys;
        [$i, $j, $share] = Keys::around(array_map(static fn (CameraKey $k): int => $k->frame, $keys), $frame);
        [$a, $b] = [$keys[$i], $keys[$j]];
        $t = $j > $i ? Ease::named($a->ease, $share) : 0.0;
        [$position, $rotation, $focal] = self::flowing($keys, $i, $j, $frame) ?? [
            V3::mix($a->position, $b->position, $t), Q4::slerp($a->rotation, $b->rotation, $t), Ease::mix($a->focalMm, $b->focalMm, $t),
        ];
        $focus = fn (CameraKey $k): float => $k->focusMetres ?? self::follow($position, $rotation, $subjects);

        return new CameraPose(
            $position, $rotation, $focal, Ease::mix($focus($a), $focus($b), $t),
            Ease::mix($a->fStop, $b->fStop, $t), $camera->sensorWidthMm,
        );
    }

    /**
     * Where eased keys follow each other, the move goes on through those between: it stops at none but the first and the last.
     *
     * @param  list<CameraKey>  $keys
     * @return array{array{float, float, float}, array{float, float, float, float}, float}|null null: two keys alone
     */
    private static function flowing(array $keys, int $i, int $j, float $frame): ?array
    {
        if ($j === $i || $keys[$i]->ease !== 'inOut') {
            return null;
        }
        $first = $i > 0 && $keys[$i - 1]->ease === 'inOut' ? $i - 1 : $i;
        $last = isset($keys[$j + 1]) && $keys[$j]->ease === 'inOut' ? $j + 1 : $j;
        if ($last - $first < 2) {
            return null;
        }
        $rows = $times = [];
        $before = $keys[$first]->rotation;
        foreach (array_slice($keys, $first, $last - $first + 1) as $k) {
            // A rotation and its negative are the same turn: the way between two is the shorter one.
            $sign = array_sum(array_map(static fn (float $v, float $w): float => $v * $w, $k->rotation, $before)) < 0.0 ? -1.0 : 1.0;
            $before = array_map(static fn (float $v): float => $sign * $v, $k->rotation);
            $times[] = (float) $k->frame;
            $rows[] = [...$k->position, ...$before, log($k->focalMm)];
        }
        [$x, $y, $z, $a, $b, $c, $w, $focal] = (new MonotoneTrack($times, $rows))->at($frame);

        return [[$x, $y, $z], Q4::unit([$a, $b, $c, $w]), exp($focal)];
    }

    /**
     * Distance along the axis to the head nearest the middle of the picture; 8 m where nobody is in front.
     *
     * @param  array{float, float, float}  $position
     * @param  array{float, float, float, float}  $rotation
     * @param  list<array{float, float, float}>  $subjects
     */
    private static function follow(array $position, array $rotation, array $subjects): float
    {
        $axis = Q4::rotate($rotation, [0.0, 0.0, -1.0]);
        $best = INF;
        $focus = 8.0;
        foreach ($subjects as $s) {
            $to = V3::sub($s, $position);
            $depth = V3::dot($to, $axis);
            if ($depth < 0.2) {
                continue;
            }
            $off = V3::length(V3::addScaled($to, $axis, -$depth)) / $depth + 0.01 * $depth;
            if ($off < $best) {
                $best = $off;
                $focus = $depth;
            }
        }

        return $focus;
    }
}
