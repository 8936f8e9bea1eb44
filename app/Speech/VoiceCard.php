<?php

declare(strict_types=1);

namespace App\Speech;

/** One of the house's voices: a program's voice, and what is made of it. */
final readonly class VoiceCard
{
    /**
     * @param  string  $says  what it is like, in a few words
     * @param  string  $engine  which program reads: flite, espeak or tones
     * @param  string  $base  that program's own name of the voice
     * @param  string  $language  as in BCP 47
     * @param  list<string>  $suits  of woman, man, child, old
     * @param  float  $pitch  factor of the height
     * @param  float  $size  factor by which the sounds of the mouth are moved: above 1 a smaller body
     */
    public function __construct(
        public string $id, public string $name, public string $says, public string $engine, public string $base, public string $language,
        public array $suits, public float $pitch = 1.0, public float $size = 1.0, public float $pace = 1.0, public float $range = 1.0,
    ) {
    }

    /** @return array{id: string, name: string, says: string, language: string, suits: list<string>} as the page gets it */
    public function told(): array
    {
        return ['id' => $this->id, 'name' => $this->name, 'says' => $this->says, 'language' => $this->language, 'suits' => $this->suits];
    }
}
