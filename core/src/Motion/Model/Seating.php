<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Rig\BodyFrame;

/**
 * Seated motions on a seat of some height: the hips as far above it as a body is thick there, feet on the ground, or hanging where the
 * legs do not reach it.
 *
 * @phpstan-import-type Sheet from Score
 * @phpstan-import-type Key from Score
 */
final class Seating
{
    /** Metres of a person of 1.70 m from what is sat on to the middle of the hips. */
    public const HIPS = 0.10;

    /** Metres by which a thigh slopes down to the knee at most, and toes hang. */
    private const SLOPE = 0.05;

    private const HANGING = -24.0;

    /**
     * @param  Sheet  $sheet
     * @param  float  $height  of the seat above the ground, metres of a person of 1.70 m
     * @return Sheet
     */
    public static function on(array $sheet, BodyFrame $body, float $height): array
    {
        $seats = array_values(array_filter(array_map(static fn (array $k): mixed => $k[1]['y'] ?? null, $sheet['keys']), is_numeric(...)));
        if ($seats === []) {
            return $sheet;
        }
        // What begins seated says there how high it sits; what ends so says it at its end.
        $own = is_numeric($sheet['keys'][0][1]['y'] ?? null) ? $seats[0] : $seats[count($seats) - 1];
        $by = $height + self::HIPS - (float) $own;
        $hangs = $height + self::HIPS - self::SLOPE - ($body->shin + $body->ankleY);
        $keys = [];
        $onGround = true;
        foreach ($sheet['keys'] as [$t, $key]) {
            $key = self::raised($key, $by);
            $isSeated = isset($key['y'], $key['footL'], $key['footR']);
            if ($hangs > 0.0 && $isSeated) {
                $key = self::hanging($key, $hangs);
                $onGround = false;
            } elseif (! $onGround && isset($key['y']) && ! isset($key['footL'])) {
                // Who gets up comes down to the ground first.
                $key += ['footL' => [0.10, 0.06, 8, 0, 0], 'footR' => [-0.10, 0.06, -8, 0, 0]];
                $onGround = true;
            }
            $keys[] = [$t, $key];
        }

        return ['keys' => $keys] + $sheet;
    }

    /**
     * @param  Key  $key
     * @return Key
     */
    private static function raised(array $key, float $by): array
    {
        if (is_numeric($key['y'] ?? null)) {
            $key['y'] = (float) $key['y'] + $by;
        }
        foreach (['handL', 'handR'] as $hand) {
            // Hands that lie on the knees go up with them.
            if (is_array($key[$hand] ?? null) && ($key[$hand][3] ?? null) === 'knee' && is_numeric($key[$hand][1])) {
                $key[$hand][1] = (float) $key[$hand][1] + $by;
            }
        }

        return $key;
    }

    /**
     * @param  Key  $key
     * @return Key
     */
    private static function hanging(array $key, float $height): array
    {
        foreach (['footL', 'footR'] as $foot) {
            if (is_array($key[$foot] ?? null)) {
                $key[$foot][3] = self::HANGING;
                $key[$foot][4] = $height;
            }
        }

        return $key;
    }
}
