<?php

declare(strict_types=1);

namespace CrispReel\Core\Document\Fields;

use Attribute;
use CrispReel\Core\Document\Input;

/** Values by name: any, or numbers each in its range. */
#[Attribute(Attribute::TARGET_PROPERTY)]
final readonly class Values extends Field
{
    /** @param  array<string, array{float, float}>  $ranges  empty: whatever comes */
    public function __construct(public array $ranges = [], public int $most = 20)
    {
        parent::__construct();
    }

    /** @return array<string, mixed> */
    public function read(Input $in, string $name): array
    {
        if ($this->ranges === []) {
            return $in->map($name);
        }
        $given = $in->child($name);
        $out = [];
        foreach ($this->ranges as $key => [$least, $most]) {
            if ($given->has($key)) {
                $out[$key] = $given->number($key, null, $least, $most);
            }
        }

        return $out;
    }

    public function write(mixed $value): object
    {
        return (object) $value;
    }

    public function schema(): array
    {
        return ['type' => 'object'] + ($this->ranges === [] ? [] : ['properties' => array_map(
            static fn (array $r): array => ['type' => 'number', 'minimum' => $r[0], 'maximum' => $r[1]],
            $this->ranges,
        )]);
    }

    public function holds(): Holds
    {
        return Holds::Json;
    }
}
