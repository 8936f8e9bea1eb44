<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Bvh;

use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\Skeleton;

/** A motion as its file has it: units, axes and facing are left alone; what was mended is told. */
final readonly class BvhMotion
{
    /** @param  list<string>  $findings */
    public function __construct(
        public Skeleton $skeleton,
        public Clip $clip,
        public int $frames,
        public float $frameSeconds,
        public array $findings,
    ) {
    }
}
