<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;

/** When feet come down in a stretch of a lane: heel or ball stands still that was on its way. */
final class Footfalls
{
    /** Metres a second of a body of 1.70 m: slower than the first a part of a foot stands, quicker than the second both are in the air. */
    private const STILL = 0.45;

    private const QUICK = 0.9;

    /** That of a foot just before it comes down in a walk. */
    private const WALKS = 3.0;

    /** Of a frame: a foot that lies still from one frame to the next came down a little later than at the first. */
    private const WITHIN = 0.3;

    /** Frames looked back for how quick it was. */
    private const BACK = 5;

    /**
     * @return list<array{float, array{float, float, float}, float}> frames after the stretch begins, where the sole is in the lane's
     *   space, and how hard it comes down: 1 as in a walk
     */
    public static function of(LaneSegment $segment, Figure $figure, float $end, float $rate): array
    {
        $feet = array_filter([$figure->skeleton->roles['footL'] ?? null, $figure->skeleton->roles['footR'] ?? null], is_int(...));
        if ($segment->riding !== null || $feet === []) {
            return [];
        }
        $body = $figure->body();
        $soles = array_map(
            static fn (float $z): array => V3::mul([0.0, -$body->ankleY, $z], $body->scale), [$body->heelZ, $body->ballZ],
        );
        $heels = $balls = [];
        for ($f = 0, $n = (int) floor($end - $segment->start) + 1; $f <= $n; $f++) {
            $row = $segment->row($segment->start + $f);
            foreach ($feet as $foot) {
                [$at, $turn] = $figure->skeleton->jointIn($row, $figure->hips, $foot);
                $own = Q4::mul($turn, Q4::conjugate($figure->restTurn($foot)));
                $heels[$foot][] = V3::add($at, Q4::rotate($own, $soles[0]));
                $balls[$foot][] = V3::add($at, Q4::rotate($own, $soles[1]));
            }
        }
        $out = [];
        foreach ($feet as $foot) {
            array_push($out, ...self::landings($heels[$foot], $balls[$foot], $rate / max(1e-6, $figure->height() / 1.7)));
        }
        usort($out, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return $out;
    }

    /**
     * @param  list<array{float, float, float}>  $heel  a frame each
     * @param  list<array{float, float, float}>  $ball
     * @return list<array{float, array{float, float, float}, float}>
     */
    private static function landings(array $heel, array $ball, float $rate): array
    {
        $out = [];
        $last = [];
        $flies = false;
        for ($f = 0; $f < count($heel) - 1; $f++) {
            [$h, $b] = [V3::distance($heel[$f], $heel[$f + 1]) * $rate, V3::distance($ball[$f], $ball[$f + 1]) * $rate];
            if ($flies && min($h, $b) < self::STILL) {
                $out[] = [$f + self::WITHIN, $h < $b ? $heel[$f] : $ball[$f], min(3.0, max($last) / self::WALKS)];
                $flies = false;
            }
            $flies = $flies || min($h, $b) > self::QUICK;
            $last = [...array_slice($last, 1 - self::BACK), max($h, $b)];
        }

        return $out;
    }
}
