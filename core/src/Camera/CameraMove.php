<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Keys;
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
        $position = V3::mix($a->position, $b->position, $t);
        $rotation = Q4::slerp($a->rotation, $b->rotation, $t);
        $focus = fn (CameraKey $k): float => $k->focusMetres ?? self::follow($position, $rotation, $subjects);

        return new CameraPose(
            $position, $rotation, Ease::mix($a->focalMm, $b->focalMm, $t), Ease::mix($focus($a), $focus($b), $t),
            Ease::mix($a->fStop, $b->fStop, $t), $camera->sensorWidthMm,
        );
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
