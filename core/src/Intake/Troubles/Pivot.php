<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Intake\Placing;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** The point a thing is moved and turned by, where a person wants it. Never found, only asked for. */
final class Pivot implements Trouble
{
    public function code(): string
    {
        return 'pivot';
    }

    public function look(Subject $subject): ?Finding
    {
        return null;
    }

    public function mend(Subject $subject, array $with): void
    {
        [$low, $high] = $subject->bounds();
        $middle = [($low[0] + $high[0]) / 2, ($low[1] + $high[1]) / 2, ($low[2] + $high[2]) / 2];
        $at = match ($with['to'] ?? 'base') {
            'base' => [$middle[0], $low[1], $middle[2]],
            'centre' => $middle,
            'point' => Values::point($with['point'] ?? null),
            default => throw new \InvalidArgumentException('The pivot goes to the base, the centre or a point.'),
        };
        Placing::apply($subject, move: [-$at[0], -$at[1], -$at[2]]);
    }
}
