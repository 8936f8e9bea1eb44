<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Whole;
use CrispReel\Core\Math\Noise;

/**
 * Wind of a scene: where it blows to (degrees, 0 is +z, 90 is +x), metres a second, and how gusty it is from 0 (steady) to 1.
 * Gusts travel with the wind; the same seed gives the same weather.
 */
final readonly class Wind
{
    use OfFields;

    public function __construct(
        #[Number(-3600, 3600, 'deg')] public float $towardsDeg = 270.0,
        #[Number(0, 40, 'm/s')] public float $speed = 3.0,
        #[Number(0, 1)] public float $gusts = 0.4,
        #[Whole(0)] public int $seed = 1,
    ) {
    }

    /**
     * @param  array{float, float, float}  $at  metres
     * @param  float  $seconds  of scene time
     * @return array{float, float, float} metres a second
     */
    public function at(array $at, float $seconds): array
    {
        if ($this->speed <= 0.0) {
            return [0.0, 0.0, 0.0];
        }
        $to = deg2rad($this->towardsDeg);
        $way = ($at[0] * sin($to) + $at[2] * cos($to)) / max(0.5, $this->speed);
        $aside = 0.35 * ($at[0] * cos($to) - $at[2] * sin($to)) + 0.5 * $at[1];
        // A slow swell, a quick flurry, and a wobble of the direction.
        $swell = Noise::value(0.45 * ($seconds - $way), $this->seed);
        $flurry = Noise::value(1.9 * ($seconds - $way) + $aside, $this->seed + 17);
        $turn = $to + 0.5 * $this->gusts * Noise::value(1.1 * ($seconds - $way) + 0.7 * $aside, $this->seed + 29);
        $lift = 0.22 * $this->gusts * Noise::value(2.3 * ($seconds - $way) - $aside, $this->seed + 41);
        $speed = $this->speed * max(0.0, 1.0 + $this->gusts * (0.55 * $swell + 0.35 * $flurry));

        return [$speed * sin($turn), $speed * $lift, $speed * cos($turn)];
    }
}
