<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

/** Something about a file that a person should know, told by what it changes in the picture. */
final readonly class Finding
{
    /** It spoils the picture or the motion until it is mended. */
    public const HARMS = 'harms';

    /** It may be meant so. */
    public const LOOK = 'look';

    /** Told for completeness; nothing in the picture changes. */
    public const FYI = 'fyi';

    /**
     * @param  self::HARMS|self::LOOK|self::FYI  $severity
     * @param  string  $effect  what one sees of it
     * @param  array<string, mixed>|null  $repair  what the repair is done with; null: there is none
     * @param  bool  $safe  part of "mend all"
     * @param  bool  $unasked  done on arrival; can be undone
     * @param  list<string>  $names  what it concerns
     */
    public function __construct(
        public string $code,
        public string $severity,
        public string $text,
        public string $effect,
        public ?array $repair = null,
        public string $label = '',
        public bool $safe = false,
        public bool $unasked = false,
        public array $names = [],
        public bool $mended = false,
    ) {
    }

    public function mended(): self
    {
        return new self(
            $this->code, $this->severity, $this->text, $this->effect, $this->repair, $this->label, $this->safe, $this->unasked,
            $this->names, true,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'code' => $this->code, 'severity' => $this->severity, 'text' => $this->text, 'effect' => $this->effect,
            'repair' => $this->repair,
            'label' => $this->label, 'safe' => $this->safe, 'names' => $this->names, 'mended' => $this->mended,
        ];
    }
}
