<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/** Something that a person should know about a scene that still plays: what, where, when, and what to do. */
final readonly class Note
{
    public function __construct(
        public string $code,
        public string $item,
        public int $frame,
        public string $text,
        public string $remedy,
        public ?string $beat = null,
    ) {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'code' => $this->code, 'item' => $this->item, 'frame' => $this->frame, 'text' => $this->text, 'remedy' => $this->remedy,
            'beat' => $this->beat,
        ];
    }
}
