<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** A number in a range. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Number extends Field
{
    public function __construct(public float $least = -1e6, public float $most = 1e6, public string $unit = '', ?string $column = null)
    {
        parent::__construct($column);
    }

    public function read(Input $in, string $name): float
    {
        return $in->number($name, null, $this->least, $this->most);
    }

    public function schema(): array
    {
        return ['type' => 'number', 'minimum' => $this->least, 'maximum' => $this->most];
    }

    public function holds(): Holds
    {
        return Holds::Number;
    }
}
