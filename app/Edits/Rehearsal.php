<?php

declare(strict_types=1);

namespace App\Edits;

use App\Speech\Wish;
use CrispReel\Core\Document\Document;

/**
 * What came of an edit that was done and rolled back: the rows that it leaves, and the scene as it would be.
 *
 * @phpstan-import-type Change from Recorder
 */
final readonly class Rehearsal
{
    /**
     * @param  array<int, int>  $revisions  of the scenes that it reaches into, as it was rehearsed on them
     * @param  list<mixed>  $commands
     * @param  list<Change>  $changes
     * @param  int|null  $reverts  the edit that it takes back
     * @param  array<int, Wish>  $wishes  what is said in it, by line
     */
    public function __construct(
        public array $revisions,
        public string $label,
        public array $commands,
        public array $changes,
        public Document $document,
        public ?int $reverts = null,
        public array $wishes = [],
    ) {
    }
}
