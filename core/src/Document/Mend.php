<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A way out of what was found. */
final readonly class Mend
{
    /** What a file is to be changed with, for the one that brings it in; everything else is an edit command of a scene. */
    public const OF_FILE = 'file.mend';

    /**
     * @param  string  $words  on the button
     * @param  list<Command>  $commands
     * @param  bool  $safe  part of "mend all"
     * @param  bool  $unasked  done at once; can be undone
     */
    public function __construct(public string $words, public array $commands, public bool $safe = false, public bool $unasked = false)
    {
    }

    /**
     * What a file is changed with.
     *
     * @return array<string, mixed>
     */
    public function with(): array
    {
        $with = ($this->commands[0] ?? null)?->payload['with'] ?? null;
        if (! is_array($with)) {
            return [];
        }

        /** @var array<string, mixed> $with */
        return $with;
    }

    /** @return array{words: string, commands: list<array<string, mixed>>, safe: bool} */
    public function toArray(): array
    {
        return [
            'words' => $this->words, 'commands' => array_map(static fn (Command $c): array => $c->toArray(), $this->commands),
            'safe' => $this->safe,
        ];
    }
}
