<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A camera that knows whom it films as plain keys: as few as lead it the same way, to a pixel of a picture 1280 wide. */
final class Loosen
{
    private const WIDTH = 1280;

    private const PIXELS = 0.5;

    /** @return list<CameraKey> over frames $from to $to */
    public static function keys(FramedCamera $camera, int $from, int $to): array
    {
        $poses = [];
        for ($f = $from; $f <= max($from, $to); $f++) {
            $poses[$f] = $camera->at($f);
        }
        $kept = [$from => true, max($from, $to) => true];
        for ($open = [[$from, max($from, $to)]]; $open !== [];) {
            [$a, $b] = array_pop($open);
            [$worst, $at] = self::worst($poses, $a, $b);
            if ($worst > self::PIXELS) {
                $kept[$at] = true;
                array_push($open, [$a, $at], [$at, $b]);
            }
        }
        ksort($kept);
        if (count($kept) === 2 && self::error($poses[$from], $poses[max($from, $to)]) <= self::PIXELS) {
            $kept = [$from => true];
        }

        return array_map(static fn (int $f): CameraKey => self::key($f, $poses[$f]), array_keys($kept));
    }

    public static function key(int $frame, CameraPose $p): CameraKey
    {
        return new CameraKey($frame, $p->position, $p->rotation, $p->focalMm, $p->focusMetres, $p->fStop, 'linear');
    }

    /**
     * @param  array<int, CameraPose>  $poses
     * @return array{float, int} pixels, and the frame that is off most
     */
    private static function worst(array $poses, int $a, int $b): array
    {
        [$worst, $at] = [0.0, $a];
        for ($f = $a + 1; $f < $b; $f++) {
            $t = ($f - $a) / ($b - $a);
            [$p, $q] = [$poses[$a], $poses[$b]];
            $off = self::error(new CameraPose(
                V3::mix($p->position, $q->position, $t), Q4::slerp($p->rotation, $q->rotation, $t), Ease::mix($p->focalMm, $q->focalMm, $t),
                Ease::mix($p->focusMetres, $q->focusMetres, $t), $p->fStop, $p->sensorWidthMm,
            ), $poses[$f]);
            if ($off > $worst) {
                [$worst, $at] = [$off, $f];
            }
        }

        return [$worst, $at];
    }

    /** Pixels by which what is sharp, in the middle and near two edges, is off between two poses; a pull of focus counts, too. */
    private static function error(CameraPose $a, CameraPose $b): float
    {
        $half = $b->sensorWidthMm / 2 / $b->focalMm * $b->focusMetres;
        $most = 10 * abs($a->focusMetres / max(0.1, $b->focusMetres) - 1);
        foreach ([[0.0, 0.0, 1.0], [0.8 * $half, 0.0, 1.1], [0.0, 0.5 * $half, 0.9], [0.0, -0.5 * $half, 0.85]] as [$x, $y, $deep]) {
            $point = V3::add($b->position, Q4::rotate($b->rotation, [$x, $y, -$deep * $b->focusMetres]));
            [$p, $q] = [$a->project($point, 1.0), $b->project($point, 1.0)];
            $most = max($most, self::WIDTH / 2 * hypot($p[0] - $q[0], $p[1] - $q[1]));
        }

        return $most;
    }
}
