<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\Films;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;

/** A camera of the scene as it is, framed or led by keys. */
final readonly class KeptCamera implements Films
{
    public function __construct(private CompiledScene $scene, private string $camera)
    {
    }

    public function at(float $frame): CameraPose
    {
        return SceneEvaluator::at($this->scene, (int) round($frame))->cameras[$this->camera];
    }
}
