<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** An edit command as a value: what an intention comes down to. Who keeps the scene checks, applies and records it. */
final readonly class Command
{
    /** @param  array<string, mixed>  $payload  as docs/edits.md lists it, without "do" */
    public function __construct(public string $name, public array $payload)
    {
    }

    public static function of(string $name, mixed ...$payload): self
    {
        return new self($name, array_filter($payload, is_string(...), ARRAY_FILTER_USE_KEY));
    }

    /** @return array<string, mixed> as it is sent */
    public function toArray(): array
    {
        return ['do' => $this->name] + $this->payload;
    }
}
