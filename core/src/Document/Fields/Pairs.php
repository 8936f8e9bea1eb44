<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** A list of pairs of numbers: places on the ground (x, z), or frames of the row and what holds there. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Pairs extends Field
{
    /**
     * @param  bool  $places  each is x and z in the scene's space
     * @param  bool  $frames  the first of each is a frame
     */
    public function __construct(
        public int $most,
        public int $least = 0,
        public bool $places = false,
        public bool $frames = false,
        public string $says = '',
    ) {
        parent::__construct();
    }

    /** @return list<array{float, float}> */
    public function read(Input $in, string $name): array
    {
        return $in->pairs($name, $this->most);
    }

    public function schema(): array
    {
        $pair = ['type' => 'array', 'items' => ['type' => 'number'], 'minItems' => 2, 'maxItems' => 2];

        return ['type' => 'array', 'minItems' => $this->least, 'maxItems' => $this->most, 'items' => $pair];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
