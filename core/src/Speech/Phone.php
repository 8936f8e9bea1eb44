<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/** One speech sound: an ARPAbet name in lower case or "pau", seconds from the beginning of its reading. */
final readonly class Phone
{
    public const PAUSE = 'pau';

    private const VOWELS = ['aa', 'ae', 'ah', 'ax', 'ao', 'aw', 'ay', 'eh', 'er', 'ey', 'ih', 'iy', 'ow', 'oy', 'uh', 'uw'];

    /**
     * @param  int  $word  which word of the reading it belongs to; -1: none
     * @param  bool  $stressed  whether its syllable has the stress of its word
     * @param  bool  $accented  whether the speaker puts weight on its syllable
     */
    public function __construct(
        public string $name, public float $from, public float $to, public int $word = -1, public bool $stressed = false,
        public bool $accented = false,
    ) {
    }

    public function isPause(): bool
    {
        return $this->name === self::PAUSE;
    }

    public function isVowel(): bool
    {
        return in_array($this->name, self::VOWELS, true);
    }

    public function seconds(): float
    {
        return $this->to - $this->from;
    }
}
