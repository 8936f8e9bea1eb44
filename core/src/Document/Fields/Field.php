<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;

/**
 * What one property of a row holds. From the list of a row's fields come the reading and writing of documents, the JSON
 * schema, the rules of edit commands, columns, the rows of the page, retiming, duplicating and removing.
 */
abstract readonly class Field
{
    /** @param  string|null  $column  of the stored row; null: the property's name with underscores */
    public function __construct(public ?string $column = null)
    {
    }

    /**
     * The value under a name that is there, checked.
     *
     * @throws UnableToReadDocument
     */
    abstract public function read(Input $in, string $name): mixed;

    /** @return array<string, mixed> JSON Schema of a value */
    abstract public function schema(): array;

    abstract public function holds(): Holds;

    /** The value as JSON holds it. */
    public function write(mixed $value): mixed
    {
        return $value;
    }
}
