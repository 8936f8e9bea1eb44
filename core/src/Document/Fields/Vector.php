<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** x, y and z. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Vector extends Field
{
    /**
     * @param  array{string, string, string}|null  $columns  of the stored row, one for each number; null: one that holds all
     * @param  bool  $place  in the scene's space: a copy of the row has it elsewhere
     * @param  string|null  $unless  a property with which it is no place of the scene but lies in that one's space
     */
    public function __construct(
        public ?array $columns = null,
        public bool $place = false,
        public ?string $unless = null,
        public float $most = 1e5,
    ) {
        parent::__construct();
    }

    /** @return array{float, float, float} */
    public function read(Input $in, string $name): array
    {
        return $in->vector($name);
    }

    public function schema(): array
    {
        return ['$ref' => '#/$defs/vector'];
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
