<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Document\Finding;

/** One thing that can be wrong with a file: how it is noticed and how it is mended. */
interface Trouble
{
    /** Names the repair; also the code of its finding. */
    public function code(): string;

    public function look(Subject $subject): ?Finding;

    /** @param  array<string, mixed>  $with  as the finding proposes, or as a person has set it */
    public function mend(Subject $subject, array $with): void;
}
