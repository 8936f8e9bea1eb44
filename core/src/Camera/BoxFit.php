<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Math\V3;

/** The smallest distance at which points lie within a part of the picture. */
final class BoxFit
{
    private const STEPS = 26;

    private const CENTRINGS = 4;

    /** Directions in which the outermost points are looked for, and rounds in which those that were missed are added. */
    private const SIDES = 40;

    private const ROUNDS = 4;

    /** Share of the picture's half by which a point may be outside. */
    private const OFF = 0.0005;

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float, float}  $box  left, right, low, high in the picture (-1 to 1)
     * @param  float  $side  heading from them to the lens, radians
     * @param  float  $rise  elevation of the lens over their middle, radians
     * @param  float|null  $height  of the lens, metres; null: as $rise says
     */
    public static function solve(
        array $points, array $box, float $side, float $rise, float $focalMm, Gate $gate, ?float $height = null,
    ): Aim {
        $some = self::outermost($points);
        // Few points hold the box; which, is found by looking whether all of them are in it.
        for ($i = 0; ; $i++) {
            $aim = self::fitted($some, $box, $side, $rise, $focalMm, $gate, $height);
            $more = $i < self::ROUNDS ? self::outside($points, $box, $aim, $gate) : [];
            if ($more === []) {
                return $aim;
            }
            array_push($some, ...$more);
        }
    }

    /**
     * Those that lie farthest to many sides: all that matter but for a few.
     *
     * @param  list<array{float, float, float}>  $points
     * @return list<array{float, float, float}>
     */
    private static function outermost(array $points): array
    {
        if (count($points) <= 2 * self::SIDES) {
            return $points;
        }
        $kept = [];
        for ($i = 0; $i < self::SIDES; $i++) {
            $y = 1 - 2 * ($i + 0.5) / self::SIDES;
            $a = $i * M_PI * (3 - sqrt(5));
            [$dx, $dz] = [sqrt(1 - $y * $y) * cos($a), sqrt(1 - $y * $y) * sin($a)];
            [$best, $most] = [0, -INF];
            foreach ($points as $n => $p) {
                $far = $p[0] * $dx + $p[1] * $y + $p[2] * $dz;
                if ($far > $most) {
                    [$best, $most] = [$n, $far];
                }
            }
            $kept[$best] = $points[$best];
        }

        return array_values($kept);
    }

    /**
     * The outermost to each side of the picture of those that are not in the box.
     *
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float, float}  $box
     * @return list<array{float, float, float}>
     */
    private static function outside(array $points, array $box, Aim $aim, Gate $gate): array
    {
        $most = [self::OFF, self::OFF, self::OFF, self::OFF];
        $out = [];
        foreach ($points as $p) {
            [[$x], [$y]] = self::extent([$p], $aim, $gate);
            foreach ([$box[0] - $x, $x - $box[1], $box[2] - $y, $y - $box[3]] as $k => $off) {
                if ($off > $most[$k]) {
                    [$most[$k], $out[$k]] = [$off, $p];
                }
            }
        }

        return array_values($out);
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float, float}  $box
     */
    private static function fitted(
        array $points, array $box, float $side, float $rise, float $focalMm, Gate $gate, ?float $height,
    ): Aim {
        $middle = self::middle($points);
        $reach = max(0.05, ...array_map(static fn (array $p): float => V3::distance($p, $middle), $points));
        [$near, $far] = [log(0.2 * $reach), log(400.0 * $reach)];
        $best = null;
        for ($i = 0; $i < self::STEPS; $i++) {
            $log = ($near + $far) / 2;
            $aim = self::centred($points, $box, $middle, exp($log), $side, $rise, $focalMm, $gate, $height);
            if (self::holds($points, $box, $aim, $gate)) {
                [$best, $far] = [$aim, $log];
            } else {
                $near = $log;
            }
        }

        return $best ?? self::centred($points, $box, $middle, exp($far), $side, $rise, $focalMm, $gate, $height);
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @return array{float, float, float} of the box around them
     */
    private static function middle(array $points): array
    {
        $at = static fn (int $k): float => (min([INF, ...array_column($points, $k)]) + max([-INF, ...array_column($points, $k)])) / 2;

        return [$at(0), $at(1), $at(2)];
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float, float}  $box
     * @param  array{float, float, float}  $middle
     */
    private static function centred(
        array $points, array $box, array $middle, float $far, float $side, float $rise, float $focalMm, Gate $gate, ?float $height,
    ): Aim {
        $out = $far * cos($rise);
        $position = [$middle[0] + $out * sin($side), $height ?? $middle[1] + $far * sin($rise), $middle[2] + $out * cos($side)];
        $aim = Aim::at($position, $middle, 0.0, 0.0, $focalMm, $gate);
        $tau = $gate->tangent($focalMm);
        for ($i = 0; $i < self::CENTRINGS; $i++) {
            [$x, $y] = self::extent($points, $aim, $gate);
            $dx = ($x[0] + $x[1]) / 2 - ($box[0] + $box[1]) / 2;
            $dy = ($y[0] + $y[1]) / 2 - ($box[2] + $box[3]) / 2;
            $turn = atan($dx * $tau * $gate->aspect) / max(0.2, cos($aim->pitch));
            $aim = new Aim($position, $aim->yaw - $turn, $aim->pitch + atan($dy * $tau), $focalMm);
        }

        return $aim;
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @return array{array{float, float}, array{float, float}, float} across, up, and the nearest depth
     */
    public static function extent(array $points, Aim $aim, Gate $gate): array
    {
        [$ax, $ay, $az] = $aim->axis();
        [$rx, $rz] = [-cos($aim->yaw), sin($aim->yaw)];
        [$ux, $uy, $uz] = [-$rz * $ay, $rz * $ax - $rx * $az, $rx * $ay];
        [$px, $py, $pz] = $aim->position;
        $tau = $gate->tangent($aim->focalMm);
        $x = $y = [INF, -INF];
        $near = INF;
        foreach ($points as $p) {
            [$dx, $dy, $dz] = [$p[0] - $px, $p[1] - $py, $p[2] - $pz];
            $depth = $dx * $ax + $dy * $ay + $dz * $az;
            $at = max(0.01, $depth) * $tau;
            $across = ($dx * $rx + $dz * $rz) / ($at * $gate->aspect);
            $up = ($dx * $ux + $dy * $uy + $dz * $uz) / $at;
            $x = [min($x[0], $across), max($x[1], $across)];
            $y = [min($y[0], $up), max($y[1], $up)];
            $near = min($near, $depth);
        }

        return [$x, $y, $near];
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  array{float, float, float, float}  $box
     */
    private static function holds(array $points, array $box, Aim $aim, Gate $gate): bool
    {
        [$x, $y, $depth] = self::extent($points, $aim, $gate);

        return $depth > 0.05 && $x[0] >= $box[0] - 1e-4 && $x[1] <= $box[1] + 1e-4 && $y[0] >= $box[2] - 1e-4 && $y[1] <= $box[3] + 1e-4;
    }
}
