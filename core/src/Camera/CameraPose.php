<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Math\Lens;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A camera at one frame. */
final readonly class CameraPose
{
    /**
     * @param  array{float, float, float}  $position
     * @param  array{float, float, float, float}  $rotation
     */
    public function __construct(
        public array $position,
        public array $rotation,
        public float $focalMm,
        public float $focusMetres,
        public float $fStop,
        public float $sensorWidthMm,
    ) {
    }

    /**
     * Where a point of the world falls in the picture: x and y from -1 to 1 (right, up), and its distance along the axis.
     *
     * @param  array{float, float, float}  $world
     * @return array{float, float, float}
     */
    public function project(array $world, float $aspect): array
    {
        $p = Q4::rotate(Q4::conjugate($this->rotation), V3::sub($world, $this->position));
        $depth = -$p[2];
        $tan = tan(Lens::verticalAngle($this->sensorWidthMm, $this->focalMm, $aspect) / 2);
        $d = $depth === 0.0 ? 1e-9 : $depth;

        return [$p[0] / ($d * $tan * $aspect), $p[1] / ($d * $tan), $depth];
    }
}
