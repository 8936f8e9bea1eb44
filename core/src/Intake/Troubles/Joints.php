<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Parts of a body that no joint was told as, and names that are there twice. */
final class Joints implements Trouble
{
    private const NEEDED = [
        'hips' => 'hips', 'spine' => 'spine', 'head' => 'head', 'upperArmL' => 'left upper arm', 'upperArmR' => 'right upper arm',
        'lowerArmL' => 'left forearm', 'lowerArmR' => 'right forearm',
        'handL' => 'left hand', 'handR' => 'right hand', 'upperLegL' => 'left thigh', 'upperLegR' => 'right thigh',
        'lowerLegL' => 'left shin', 'lowerLegR' => 'right shin', 'footL' => 'left foot', 'footR' => 'right foot',
    ];

    public function code(): string
    {
        return 'joints';
    }

    public function look(Subject $subject): ?Finding
    {
        $skeleton = $subject->skeleton();
        if ($skeleton === null) {
            return null;
        }
        $missing = array_values(array_diff_key(self::NEEDED, $skeleton->roles));
        if ($missing !== []) {
            return count($missing) > 8
                ? Finding::ofFile(
                    'joints',
                    Severity::Look,
                    'Its joints are not those of a person.',
                    'It takes no human motions; its own it does.',
                    names: $missing,
                )
                : Finding::ofFile(
                    'joints',
                    Severity::Harms,
                    'No joint could be told as '.implode(', ', $missing).'.',
                    'These parts stay stiff in every motion until a joint is chosen for them.',
                    names: $missing,
                );
        }
        $names = array_map(static fn (int $j): string => $subject->nodes()[$j]['name'], $subject->joints());
        $double = array_keys(array_filter(array_count_values($names), static fn (int $n): bool => $n > 1));

        return $double === [] ? null : Finding::ofFile(
            'joints',
            Severity::Fyi,
            count($double).' joint names were there twice and have been told apart.',
            'Nothing changes in the picture.',
            names: array_map(strval(...), $double),
        );
    }

    public function mend(Subject $subject, array $with): void
    {
    }
}
