<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

enum Interpolation: string
{
    case Step = 'STEP';
    case Linear = 'LINEAR';
    case CubicSpline = 'CUBICSPLINE';
}
