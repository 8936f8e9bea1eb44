<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** The id of another row, or of an asset. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Ref extends Field
{
    /**
     * @param  class-string  $to
     * @param  bool  $owner  the row is part of what it refers to: it goes and is copied with it
     * @param  bool  $needs  the row cannot be without it, but is not part of it: it goes with it and is not copied for it
     * @param  string|null  $row  name in the rows of the page; null: the property's name and "Id"
     */
    public function __construct(
        public string $to,
        public bool $owner = false,
        public bool $needs = false,
        public ?string $row = null,
        ?string $column = null,
    ) {
        parent::__construct($column);
    }

    public function read(Input $in, string $name): string
    {
        return $in->id($name);
    }

    public function schema(): array
    {
        return ['$ref' => '#/$defs/id'];
    }

    public function holds(): Holds
    {
        return Holds::Whole;
    }
}
