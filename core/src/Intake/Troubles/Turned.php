<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Intake\Placing;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;
use CrispReel\Core\Math\Q4;

/** A turn about an upright, level or forward axis that a person asks for. */
final class Turned implements Trouble
{
    public function code(): string
    {
        return 'turn';
    }

    public function look(Subject $subject): ?Finding
    {
        return null;
    }

    public function mend(Subject $subject, array $with): void
    {
        $angle = deg2rad(Values::number($with['degrees'] ?? null, 90.0, -360.0, 360.0));
        Placing::apply($subject, turn: match ($with['about'] ?? 'y') {
            'x' => Q4::aroundX($angle), 'y' => Q4::aroundY($angle), 'z' => Q4::aroundZ($angle),
            default => throw new \InvalidArgumentException('A turn goes about x, y or z.'),
        });
    }
}
