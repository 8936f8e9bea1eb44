<?php

declare(strict_types=1);

namespace App\Edits;

use CrispReel\Core\Document\Document;

/**
 * What came of an edit that was done and rolled back: the rows that it leaves, and the scene as it would be.
 *
 * @phpstan-import-type Change from Recorder
 */
final readonly class Rehearsal
{
    /**
     * @param  int  $revision  of the scene that it was rehearsed on
     * @param  list<mixed>  $commands
     * @param  list<Change>  $changes
     * @param  int|null  $reverts  the edit that it takes back
     */
    public function __construct(
        public int $revision,
        public string $label,
        public array $commands,
        public array $changes,
        public Document $document,
        public ?int $reverts = null,
    ) {
    }
}
