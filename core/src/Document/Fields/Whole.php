<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** A whole number in a range. */
#[Attribute(Attribute::TARGET_PROPERTY)]
readonly class Whole extends Field
{
    public function __construct(public int $least = -1_000_000, public int $most = 1_000_000, ?string $column = null)
    {
        parent::__construct($column);
    }

    public function read(Input $in, string $name): int
    {
        return $in->whole($name, null, $this->least, $this->most);
    }

    public function schema(): array
    {
        return ['type' => 'integer', 'minimum' => $this->least, 'maximum' => $this->most];
    }

    public function holds(): Holds
    {
        return Holds::Whole;
    }
}
