<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Document\Shake;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A pose as hands hold it: seeded noise of three octaves on turn and place, the same whichever frame is asked for first. */
final class HandHeld
{
    private const OCTAVES = [1.0, 0.5, 0.25];

    /** What turns less than it pans: roll, beside pitch and yaw. */
    private const ROLL = 0.4;

    public static function shaken(CameraPose $pose, Shake $shake, float $seconds): CameraPose
    {
        $n = static fn (int $channel): float => self::noise($seconds * $shake->hertz, 97 * $shake->seed + 13 * $channel);
        $turn = deg2rad($shake->degrees);
        $by = Q4::pitchYawRoll($turn * $n(0), $turn * $n(1), self::ROLL * $turn * $n(2));
        $off = V3::mul([$n(3), $n(4), $n(5)], $shake->metres);

        return new CameraPose(
            V3::add($pose->position, Q4::rotate($pose->rotation, $off)), Q4::mul($pose->rotation, $by), $pose->focalMm, $pose->focusMetres,
            $pose->fStop, $pose->sensorWidthMm,
        );
    }

    /** -1 to 1 */
    private static function noise(float $t, int $seed): float
    {
        $sum = 0.0;
        foreach (self::OCTAVES as $k => $share) {
            $sum += $share * Noise::value($t * 2 ** $k, $seed + $k);
        }

        return $sum / array_sum(self::OCTAVES);
    }
}
