<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Intake\Placing;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** A height that a person asks for. */
final class Grown implements Trouble
{
    public function code(): string
    {
        return 'grow';
    }

    public function look(Subject $subject): ?Finding
    {
        return null;
    }

    public function mend(Subject $subject, array $with): void
    {
        $height = Values::number($with['height'] ?? null, 1.7, 0.001, 10000.0);
        $now = $subject->size()[1];
        if ($now > 0.0) {
            [$low] = $subject->bounds();
            $factor = $height / $now;
            Placing::apply($subject, scale: $factor, move: [0.0, $low[1] - $low[1] * $factor, 0.0]);
        }
    }
}
