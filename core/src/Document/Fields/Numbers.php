<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** So many numbers. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Numbers extends Field
{
    /** @param  bool  $place  the first three are x, y, z in the scene's space */
    public function __construct(public int $count, public bool $place = false)
    {
        parent::__construct();
    }

    /** @return list<float> */
    public function read(Input $in, string $name): array
    {
        return $in->numbers($name, $this->count);
    }

    public function schema(): array
    {
        return ['type' => 'array', 'items' => ['type' => 'number'], 'minItems' => $this->count, 'maxItems' => $this->count];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
