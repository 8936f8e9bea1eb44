<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Alpha;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Hair, lashes, leaves: pictures that are either there or not, on surfaces that do not say so. */
final class CutOut implements Trouble
{
    public function code(): string
    {
        return 'cutOut';
    }

    public function look(Subject $subject): ?Finding
    {
        $names = array_map(static fn (int $i): string => Alpha::name($subject->draft, $i), self::found($subject));
        if ($names === []) {
            return null;
        }

        return Finding::ofFile(
            'cutOut', Severity::Harms,
            count($names) === 1
                ? "The picture of \"{$names[0]}\" is cut out, its surface is not."
                : 'The pictures of '.count($names).' surfaces are cut out, the surfaces are not.',
            'Hair and lashes would stand in dark boxes or hide each other.', [], 'Cut out by the picture', safe: true, names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
        foreach (self::found($subject) as $i) {
            $subject->draft->amend('materials', $i, ['alphaMode' => 'MASK', 'alphaCutoff' => 0.5, 'doubleSided' => true]);
        }
    }

    /** @return list<int> materials */
    private static function found(Subject $subject): array
    {
        $found = [];
        foreach ($subject->draft->list('materials') as $i => $m) {
            $picture = ($m['alphaMode'] ?? 'OPAQUE') === 'MASK' ? null : $subject->alpha($m);
            if ($picture !== null && $picture->clear > 0.04 && $picture->clear < 0.995 && $picture->clear + $picture->solid > 0.85) {
                $found[] = $i;
            }
        }

        return $found;
    }
}
