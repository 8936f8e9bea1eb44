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

/** A person who does not look along +Z, told from toes or shoulders. */
final class Facing implements Trouble
{
    public function code(): string
    {
        return 'facing';
    }

    public function look(Subject $subject): ?Finding
    {
        $forward = self::forward($subject);
        if ($forward === null) {
            return null;
        }
        $angle = rad2deg(atan2($forward[0], $forward[2]));
        if (abs($angle) < 30) {
            return null;
        }
        $quarter = 90 * round($angle / 90);
        $by = abs($angle - $quarter) < 15 ? $quarter : $angle;

        return Finding::ofFile(
            'facing', Severity::Harms,
            sprintf('The figure looks %s.', abs($by) > 135 ? 'backwards' : ($by > 0 ? 'to its left' : 'to its right')),
            'It would walk '.(abs($by) > 135 ? 'backwards.' : 'sideways.'), ['degrees' => -$by], 'Turn it to face forward', safe: true,
            unasked: true,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        Placing::apply($subject, turn: Q4::aroundY(deg2rad(Values::number($with['degrees'] ?? null, 0.0, -360.0, 360.0))));
    }

    /** @return array{float, float, float}|null level, unit */
    private static function forward(Subject $subject): ?array
    {
        $sum = [0.0, 0.0, 0.0];
        foreach (['L', 'R'] as $side) {
            [$foot, $toes] = [$subject->place("foot{$side}"), $subject->place("toes{$side}")];
            if ($foot !== null && $toes !== null) {
                $sum = V3::add($sum, V3::sub($toes, $foot));
            }
        }
        [$l, $r] = [
            $subject->place('upperArmL') ?? $subject->place('upperLegL'), $subject->place('upperArmR') ?? $subject->place('upperLegR'),
        ];
        if (hypot($sum[0], $sum[2]) < 1e-6 && $l !== null && $r !== null) {
            // Left is +X when one looks along +Z.
            $sum = V3::cross(V3::sub($l, $r), [0.0, 1.0, 0.0]);
        }
        $length = hypot($sum[0], $sum[2]);

        return $length < 1e-9 ? null : [$sum[0] / $length, 0.0, $sum[2] / $length];
    }
}
