<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A figure of a finding. */
final readonly class Measured
{
    /** @param  float|null  $allowed  what it may be at most; null: it is only told */
    public function __construct(public string $name, public float $value, public string $unit, public ?float $allowed = null)
    {
    }

    /** @return array{name: string, value: float, unit: string, allowed: float|null} */
    public function toArray(): array
    {
        return ['name' => $this->name, 'value' => $this->value, 'unit' => $this->unit, 'allowed' => $this->allowed];
    }
}
