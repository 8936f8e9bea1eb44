<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

enum Interpolation: string
{
    case Step = 'STEP';
    case Linear = 'LINEAR';
    case CubicSpline = 'CUBICSPLINE';
}
