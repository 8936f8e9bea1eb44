<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * How a skeleton stands at rest: which way is up for it and which way it looks, in quarter turns.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Stance
{
    /**
     * Places at rest with +Y up and +Z ahead, as far as trunk and toes tell.
     *
     * @param  list<float>  $places
     * @param  list<list<string>>  $words  of the joints' names
     * @return list<float>
     */
    public static function stood(Skeleton $skeleton, array $places, int $hips, int $top, array $words): array
    {
        $up = self::nearestAxis(V3::sub(self::at($places, $top), self::at($places, $hips)));
        $ahead = [0.0, 0.0, 0.0];
        foreach ($words as $j => $w) {
            $parent = $skeleton->parents[$j];
            if ($parent >= 0 && preg_match('/^(toe|ball)/', implode('', $w)) === 1) {
                $ahead = V3::add($ahead, V3::sub(self::at($places, $j), self::at($places, $parent)));
            }
        }
        $ahead = V3::addScaled($ahead, $up, -V3::dot($ahead, $up));
        // Without toes: +Z where +Y is up, -Y where +Z is up, as files have it.
        $spare = abs($up[1]) > 0.5 ? [0.0, 0.0, 1.0] : [0.0, -1.0, 0.0];
        $ahead = V3::length($ahead) > 1e-6 ? self::nearestAxis($ahead) : $spare;

        return self::turned($places, Q4::fromAxes($up, $ahead, [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]));
    }

    /**
     * @param  list<float>  $places
     * @param  Quat  $turn
     * @return list<float>
     */
    public static function turned(array $places, array $turn): array
    {
        $out = [];
        for ($j = 0, $n = intdiv(count($places), 3); $j < $n; $j++) {
            array_push($out, ...Q4::rotate($turn, self::at($places, $j)));
        }

        return $out;
    }

    /**
     * @param  list<float>  $places
     * @return Vec
     */
    public static function at(array $places, int $j): array
    {
        return [$places[3 * $j], $places[3 * $j + 1], $places[3 * $j + 2]];
    }

    /**
     * Length of the left leg, thigh and shin.
     *
     * @param  list<float>  $places
     * @param  array<string, int>  $roles
     */
    public static function leg(array $places, array $roles): float
    {
        $knee = self::at($places, $roles['lowerLegL'] ?? $roles['footL']);

        return V3::distance(self::at($places, $roles['upperLegL']), $knee) + V3::distance($knee, self::at($places, $roles['footL']));
    }

    /**
     * @param  Vec  $v
     * @return Vec
     */
    public static function nearestAxis(array $v): array
    {
        $most = max(abs($v[0]), abs($v[1]), abs($v[2]));

        return match ($most) {
            abs($v[1]) => [0.0, $v[1] < 0 ? -1.0 : 1.0, 0.0], abs($v[0]) => [$v[0] < 0 ? -1.0 : 1.0, 0.0, 0.0],
            default => [0.0, 0.0, $v[2] < 0 ? -1.0 : 1.0],
        };
    }
}
