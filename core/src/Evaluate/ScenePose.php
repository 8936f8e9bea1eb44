<?php

declare(strict_types=1);

namespace CrispReel\Core\Evaluate;

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Math\Placement;

/** A whole scene at one frame. */
final readonly class ScenePose
{
    /**
     * @param  array<string, Placement>  $places
     * @param  array<string, list<float>>  $rows  by performer: hips, joint rotations, morphs
     * @param  array<string, CameraPose>  $cameras
     * @param  array<string, float>  $missing  by contact: metres that it misses
     */
    public function __construct(
        public float $frame,
        public array $places,
        public array $rows,
        public array $cameras,
        public array $missing = [],
    ) {
    }
}
