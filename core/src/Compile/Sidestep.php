<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * From one stand to another nearby: the feet step over one after the other, the body goes along between them. Rows are in the
 * performer's own space.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Sidestep
{
    /** Metres of a foot's lift, and those a metre of way. */
    private const LIFT = [0.03, 0.10];

    /** Shares of the time in which the first foot steps, and the second. */
    private const STEPS = [[0.06, 0.50], [0.48, 0.94]];

    /**
     * @param  list<float>  $from
     * @param  list<float>  $to
     */
    public static function table(Figure $figure, array $from, array $to, int $frames, float $rate): ClipTable
    {
        $a = new Posture($figure->skeleton, $figure->hips, $from);
        $b = new Posture($figure->skeleton, $figure->hips, $to);
        $feet = [];
        foreach (['L', 'R'] as $side) {
            $leg = $figure->limb('leg', $side);
            if ($leg !== null) {
                $feet[] = [$leg, $a->at($leg[2]), $b->at($leg[2])];
            }
        }
        // The foot that is ahead in the way to go steps first, so the legs do not cross.
        $way = V3::sub($b->at($figure->hips)[0], $a->at($figure->hips)[0]);
        usort($feet, static fn (array $x, array $y): int => V3::dot($y[1][0], $way) <=> V3::dot($x[1][0], $way));
        $rows = [];
        for ($k = 0; $k <= $frames; $k++) {
            array_push($rows, ...self::row($figure, $from, $to, $feet, $k / $frames));
        }
        $n = $figure->skeleton->count();

        return ClipTable::fromRows($rate, $n, $figure->morphs, $frames + 1, $rows, false);
    }

    /**
     * @param  list<float>  $from
     * @param  list<float>  $to
     * @param  list<array{array{int, int, int}, array{Vec, Quat}, array{Vec, Quat}}>  $feet  leg, from where, to where
     * @return list<float>
     */
    private static function row(Figure $figure, array $from, array $to, array $feet, float $u): array
    {
        $row = ClipTable::between($from, 0, $to, 0, Ease::smoother($u), $figure->skeleton->count(), count($from));
        $posture = new Posture($figure->skeleton, $figure->hips, $row);
        $far = 0.0;
        foreach ($feet as [, [$p], [$q]]) {
            $far = max($far, V3::distance($p, $q));
        }
        // Knees give while a foot is in the air.
        $posture->shiftHips([0.0, -0.05 * $far * sin(M_PI * $u) ** 2, 0.0]);
        $hinge = Q4::rotate(
            Q4::mul($posture->at($figure->hips)[1], Q4::conjugate($figure->restTurn($figure->hips))),
            [1.0, 0.0, 0.0],
        );
        foreach ($feet as $i => [$leg, [$p, $pq], [$q, $qq]]) {
            [$start, $end] = self::STEPS[$i];
            $v = Ease::clamp(($u - $start) / ($end - $start));
            $lift = V3::distance($p, $q) < 0.01 ? 0.0 : (self::LIFT[0] + self::LIFT[1] * V3::distance($p, $q)) * sin(M_PI * $v) ** 2;
            $at = V3::add(V3::mix($p, $q, Ease::smoother($v)), [0.0, $lift, 0.0]);
            $posture->reach($leg[0], $leg[1], $leg[2], $at, Q4::slerp($pq, $qq, Ease::smoother($v)), $hinge);
        }

        return $posture->result();
    }
}
