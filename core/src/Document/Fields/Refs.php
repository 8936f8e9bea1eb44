<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** Ids of other rows of one kind, each once; one that is removed leaves the list. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Refs extends Field
{
    /** @param  class-string  $to */
    public function __construct(public string $to, public int $most)
    {
        parent::__construct();
    }

    /** @return list<string> */
    public function read(Input $in, string $name): array
    {
        return $in->ids($name, $this->most);
    }

    public function schema(): array
    {
        return ['type' => 'array', 'maxItems' => $this->most, 'uniqueItems' => true, 'items' => ['$ref' => '#/$defs/id']];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
