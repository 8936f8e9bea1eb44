<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Placing;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** Up is another axis than ours: told for a person from hips to head, for a thing from what it stands on. */
final class Lying implements Trouble
{
    public function code(): string
    {
        return 'lying';
    }

    public function look(Subject $subject): ?Finding
    {
        $hips = $subject->place('hips');
        $head = $subject->place('head');
        if ($hips !== null && $head !== null) {
            $up = V3::unit(V3::sub($head, $hips));
            if ($up[1] > 0.64) {
                return null;
            }
            $turn = self::upright($up);

            return Finding::ofFile(
                'lying', Severity::Harms, $up[1] < -0.64 ? 'The figure stands on its head.' : 'The figure lies on the floor.',
                'It would be drawn lying, and walk along the wall.', ['turn' => $turn], 'Stand it up', safe: true, unasked: true,
            );
        }
        if ($subject->isFigure() || ! in_array($subject->format, ['obj', 'stl', 'ply', 'x3d', 'dae'], true)) {
            return null;
        }
        [$low, $high] = $subject->bounds();
        $size = V3::sub($high, $low);
        $standsOnZ = abs($low[2]) < 0.02 * max($size[2], 1e-6) && abs($low[1]) > 0.2 * $size[1];
        if (! $standsOnZ || $size[2] < 0.05 * max($size)) {
            return null;
        }

        return Finding::ofFile(
            'lying', Severity::Look, 'It stands on the XY plane, as files do whose up is Z.', 'It would be drawn lying on its back.',
            ['turn' => Q4::aroundX(-M_PI / 2)], 'Stand it up', safe: true,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        Placing::apply($subject, turn: Values::turn($with['turn'] ?? null));
    }

    /**
     * @param  array{float, float, float}  $up
     * @return array{float, float, float, float} the quarter turns that bring $up nearest to +Y
     */
    private static function upright(array $up): array
    {
        return match (true) {
            $up[1] < -0.64 => Q4::aroundZ(M_PI),
            abs($up[2]) >= abs($up[0]) => Q4::aroundX($up[2] > 0 ? -M_PI / 2 : M_PI / 2),
            default => Q4::aroundZ($up[0] > 0 ? M_PI / 2 : -M_PI / 2),
        };
    }
}
