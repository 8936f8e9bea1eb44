<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Span;
use CrispReel\Core\Document\TouchUp;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Keys;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** What is laid over a row joint by joint: touch-ups, and fingers that close on what is held. */
final class RowTouches
{
    /**
     * With a joint turned, and hips shifted, as a touch-up says at a frame.
     *
     * @param  list<float>  $row
     * @return list<float>
     */
    public static function touchedUp(array $row, TouchUp $t, int $joint, Lane $lane, float $frame): array
    {
        $w = Span::weight($frame, $t->from, $t->to, $t->easeIn, $t->easeOut);
        if ($w <= 0.0) {
            return $row;
        }
        [$i, $j, $share] = Keys::around(array_column($t->keys, 'frame'), $frame);
        [$a, $b] = [$t->keys[$i], $t->keys[$j]];
        $share = Ease::smooth($share);
        $o = 3 + 4 * $joint;
        $turn = Q4::power(Q4::slerp($a->rotation, $b->rotation, $share), $w);
        [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = Q4::mul([$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]], $turn);
        if ($joint === $lane->figure->hips) {
            $shift = V3::mul(V3::mix($a->shift, $b->shift, $share), $w);
            $row = [$row[0] + $shift[0], $row[1] + $shift[1], $row[2] + $shift[2], ...array_slice($row, 3)];
        }

        return array_values($row);
    }

    /**
     * With the fingers of a hand closed by a share.
     *
     * @param  list<float>  $row
     * @return list<float>
     */
    public static function closed(array $row, Lane $lane, string $side, float $curl, float $weight): array
    {
        foreach ($lane->figure->fist($side, $curl) as $j => $q) {
            $o = 3 + 4 * $j;
            if ($weight < 1.0) {
                $q = Q4::slerp([$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]], $q, $weight);
            }
            $row[$o] = $q[0];
            $row[$o + 1] = $q[1];
            $row[$o + 2] = $q[2];
            $row[$o + 3] = $q[3];
        }

        return array_values($row);
    }
}
