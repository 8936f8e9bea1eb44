<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Math\Lens;

/** The opening behind the lens: its width on the sensor, and the shape of the picture. */
final readonly class Gate
{
    public function __construct(public float $aspect, public float $sensorWidthMm = 36.0)
    {
    }

    /** Tangent of half the vertical angle of view. */
    public function tangent(float $focalMm): float
    {
        return tan(Lens::verticalAngle($this->sensorWidthMm, $focalMm, $this->aspect) / 2);
    }
}
