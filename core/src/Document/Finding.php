<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** Something that a person should know about a file that came in or about a scene that plays all the same. */
final readonly class Finding
{
    /**
     * @param  string  $sentence  what is so
     * @param  string  $effect  what one sees of it
     * @param  string  $remedy  what to do about it by hand
     * @param  list<string>  $about  ids of rows, or names of a file's parts
     * @param  array{int, int}|null  $frames  first and last in the scene; null: none of it in particular
     * @param  list<Measured>  $figures
     * @param  list<Mend>  $mends  the best first
     */
    public function __construct(
        public string $code,
        public Severity $severity,
        public string $sentence,
        public string $effect = '',
        public string $remedy = '',
        public array $about = [],
        public ?array $frames = null,
        public array $figures = [],
        public array $mends = [],
        public bool $mended = false,
    ) {
    }

    /**
     * Of a file, with the one repair that there is for it.
     *
     * @param  array<string, mixed>|null  $repair  what the repair is done with; null: there is none
     * @param  list<string>  $names  what it concerns
     */
    public static function ofFile(
        string $code,
        Severity $severity,
        string $sentence,
        string $effect,
        ?array $repair = null,
        string $label = '',
        bool $safe = false,
        bool $unasked = false,
        array $names = [],
    ): self {
        $mends = $repair === null
            ? []
            : [new Mend($label, [new Command(Mend::OF_FILE, ['code' => $code, 'with' => $repair])], $safe, $unasked)];

        return new self($code, $severity, $sentence, $effect, about: $names, mends: $mends);
    }

    /** The first of its mends, if there is any. */
    public function mend(): ?Mend
    {
        return $this->mends[0] ?? null;
    }

    public function mended(): self
    {
        return new self(
            $this->code, $this->severity, $this->sentence, $this->effect, $this->remedy, $this->about, $this->frames, $this->figures,
            $this->mends, true,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'code' => $this->code, 'severity' => $this->severity->value, 'sentence' => $this->sentence, 'effect' => $this->effect,
            'remedy' => $this->remedy, 'about' => $this->about, 'frames' => $this->frames,
            'figures' => array_map(static fn (Measured $m): array => $m->toArray(), $this->figures),
            'mends' => array_map(static fn (Mend $m): array => $m->toArray(), $this->mends), 'mended' => $this->mended,
        ];
    }
}
