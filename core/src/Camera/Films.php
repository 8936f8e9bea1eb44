<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

/** What a camera sees, over time. */
interface Films
{
    /** @param  float  $frame  of the scene */
    public function at(float $frame): CameraPose;
}
