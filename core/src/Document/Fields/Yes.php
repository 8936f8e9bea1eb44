<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** True or false. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Yes extends Field
{
    public function read(Input $in, string $name): bool
    {
        return $in->yes($name);
    }

    public function schema(): array
    {
        return ['type' => 'boolean'];
    }

    public function holds(): Holds
    {
        return Holds::YesNo;
    }
}
