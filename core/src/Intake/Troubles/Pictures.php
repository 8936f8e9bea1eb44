<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** Pictures that the file names and that did not come with it. */
final class Pictures implements Trouble
{
    public function code(): string
    {
        return 'pictures';
    }

    public function look(Subject $subject): ?Finding
    {
        $missing = array_values($subject->draft->source()->missingPictures);
        if ($missing === []) {
            return null;
        }
        $names = array_map(static fn (string $uri): string => basename(str_replace('\\', '/', rawurldecode($uri))), $missing);

        return Finding::ofFile(
            'pictures',
            Severity::Harms,
            count($names) === 1 ? "The picture \"{$names[0]}\" did not come along." : count($names).' pictures did not come along.',
            'Their surfaces are drawn in one plain colour. Drop the folder that holds them: they are linked by name.',
            names: $names,
        );
    }

    public function mend(Subject $subject, array $with): void
    {
    }
}
