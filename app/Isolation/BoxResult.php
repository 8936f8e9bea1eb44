<?php

declare(strict_types=1);

namespace App\Isolation;

/** How a program in the box ended. What it wrote on its error stream is not kept: it may quote what it read. */
final readonly class BoxResult
{
    /** @param  array<string, string>  $files  name to bytes */
    public function __construct(public int $code, public string $output, public bool $timedOut, public array $files = [])
    {
    }

    /** @param  array<string, string>  $files */
    public function with(array $files): self
    {
        return new self($this->code, $this->output, $this->timedOut, $files);
    }

    /** It was stopped from outside: by its limits or by a fault of its own. */
    public function broke(): bool
    {
        return $this->code >= 128;
    }
}
