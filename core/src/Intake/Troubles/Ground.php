<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Placing;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Stands above or below its own zero, or far to the side of it. */
final class Ground implements Trouble
{
    public function code(): string
    {
        return 'ground';
    }

    public function look(Subject $subject): ?Finding
    {
        [$low, $high] = $subject->bounds();
        $size = $subject->size();
        $kind = $subject->kind();
        $across = max($size[0], $size[2], 0.01);
        [$x, $z] = [($low[0] + $high[0]) / 2, ($low[2] + $high[2]) / 2];
        $aside = hypot($x, $z);
        $isAside = $aside > ($kind === 'set' ? max(50.0, 3 * $across) : 0.5 + 0.75 * $across);
        $off = $low[1];
        $isOff = $kind === 'set' ? $off > 0.5 || $off < -20.0 : abs($off) > max(0.01, 0.01 * $size[1]);
        if (! $isOff && ! $isAside) {
            return null;
        }
        $told = [];
        if ($isOff) {
            $told[] = sprintf('It %s its own ground by %s', $off > 0 ? 'floats above' : 'reaches below', Values::metres(abs($off)));
        }
        if ($isAside) {
            $told[] = sprintf('%s stands %s beside the point it is moved by', $told === [] ? 'It' : 'and', Values::metres($aside));
        }
        $move = [$isAside ? -$x : 0.0, $isOff ? -$off : 0.0, $isAside ? -$z : 0.0];
        $person = $kind === 'performer';

        return Finding::ofFile(
            'ground', $isAside || $person ? Severity::Harms : Severity::Look, implode(', ', $told).'.',
            $isOff
                ? ($off > 0 ? 'It would hang in the air.' : 'It would sink into the floor.')
                : 'It would turn and move around a point far from it.',
            ['move' => $move], 'Set it on the ground'.($isAside ? ', in its middle' : ''), safe: true, unasked: $person,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        Placing::apply($subject, move: Values::point($with['move'] ?? null));
    }
}
