<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

/** A field at its place in a row: the property's name, and what it is when nothing is said of it. */
final readonly class Listed
{
    public string $column;

    public function __construct(
        public string $name,
        public Field $field,
        public bool $required,
        public bool $nullable,
        public mixed $default,
    ) {
        $this->column = $field->column ?? strtolower((string) preg_replace('/[A-Z]/', '_$0', $name)).($field instanceof Ref ? '_id' : '');
    }
}
