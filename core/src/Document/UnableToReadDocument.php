<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\CoreFailure;
use RuntimeException;

final class UnableToReadDocument extends RuntimeException implements CoreFailure
{
    private function __construct(string $message, private readonly string $remedyText)
    {
        parent::__construct($message);
    }

    /** @param  string  $where place in the document, as items/3/place */
    public static function at(string $where, string $what, string $remedy = 'Correct the value at this place.'): self
    {
        return new self("{$where}: {$what}.", $remedy);
    }

    public function reason(): string
    {
        return 'document';
    }

    public function remedy(): string
    {
        return $this->remedyText;
    }
}
