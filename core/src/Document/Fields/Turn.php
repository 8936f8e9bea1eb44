<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** A turn as a unit quaternion x, y, z, w. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Turn extends Field
{
    /** @return array{float, float, float, float} */
    public function read(Input $in, string $name): array
    {
        return $in->quaternion($name);
    }

    public function schema(): array
    {
        return ['$ref' => '#/$defs/quaternion'];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
