<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** The row's own id. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Id extends Field
{
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
