<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Troubles;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Intake\Trouble;

/** More triangles than the workspace draws smoothly: it works with a simplified copy, the render with the whole. */
final class Heavy implements Trouble
{
    public const PERFORMER = 60_000;

    public const OTHER = 120_000;

    public function code(): string
    {
        return 'heavy';
    }

    public function look(Subject $subject): ?Finding
    {
        $triangles = 0;
        foreach ($subject->solids() as $s) {
            $triangles += intdiv(count($s['index']), 3);
        }
        $most = $subject->kind() === 'performer' ? self::PERFORMER : self::OTHER;
        if ($triangles <= $most) {
            return null;
        }

        return Finding::ofFile(
            'heavy', Severity::Look, sprintf('It has %s triangles.', number_format($triangles)),
            sprintf('The workspace would stutter; with up to %s it does not. Renders always take the whole.', number_format($most)),
            ['triangles' => intdiv($most, 2)], 'Work with a lighter copy', safe: true,
        );
    }

    /** Nothing changes in the file itself: the lighter copy is made beside it. */
    public function mend(Subject $subject, array $with): void
    {
        Values::number($with['triangles'] ?? null, 30_000.0, 500.0, 5e6);
    }
}
