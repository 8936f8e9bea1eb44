<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

use InvalidArgumentException;

/**
 * How a line is spoken: its sounds and words with their times, and how loud it is. Stored beside the sound it was made with,
 * so that nothing calls a voice while a scene is settled.
 */
final readonly class Reading
{
    /** Seconds between two values of the loudness. */
    public const STEP = 0.01;

    /** A silence of so many seconds parts two phrases. */
    private const APART = 0.06;

    private float $full;

    /**
     * @param  list<Phone>  $phones  one after the other, without gaps
     * @param  list<Word>  $words
     * @param  list<float>  $loudness  root of the mean square of each 10 ms, 0 to 1
     * @param  list<array{string, float}>  $events  what is done between words (Script::does()), and when
     * @param  bool  $guessed  from the letters alone: no voice has read it yet
     */
    public function __construct(
        public float $seconds, public array $phones, public array $words, public array $loudness = [], public bool $guessed = false,
        public array $events = [],
    ) {
        $this->full = self::fullOf($loudness);
    }

    /**
     * How loud the loud places are: the 92nd percentile of what is heard at all; 1 where nothing is.
     *
     * @param  list<float>  $loudness
     */
    public static function fullOf(array $loudness): float
    {
        $heard = array_filter($loudness, static fn (float $v): bool => $v > 0.004);
        sort($heard);

        return $heard === [] ? 1.0 : $heard[(int) floor(0.92 * (count($heard) - 1))];
    }

    /**
     * @param  array<array-key, mixed>  $data  as toArray() gives it
     *
     * @throws InvalidArgumentException when it is no reading
     */
    public static function fromArray(array $data): self
    {
        $list = static fn (string $key): array => is_array($data[$key] ?? null) ? array_values($data[$key]) : [];
        $number = static fn (mixed $v): float => is_int($v) || is_float($v)
            ? (float) $v
            : throw new InvalidArgumentException('A reading has a time that is no number.');
        $name = static fn (mixed $v): string => is_string($v) ? $v : throw new InvalidArgumentException(
            'A reading has a sound without a name.',
        );
        $phones = $words = [];
        foreach ($list('phones') as $p) {
            $p = is_array($p) ? array_values($p) : [];
            $phones[] = new Phone(
                $name($p[0] ?? null), $number($p[1] ?? null), $number($p[2] ?? null), (int) $number($p[3] ?? -1), ($p[4] ?? 0) === 1,
                ($p[5] ?? 0) === 1,
            );
        }
        foreach ($list('words') as $w) {
            $w = is_array($w) ? array_values($w) : [];
            $words[] = new Word($name($w[0] ?? null), $number($w[1] ?? null), $number($w[2] ?? null));
        }

        $events = [];
        foreach ($list('events') as $e) {
            $e = is_array($e) ? array_values($e) : [];
            $events[] = [$name($e[0] ?? null), $number($e[1] ?? null)];
        }

        return new self(
            $number($data['seconds'] ?? null), $phones, $words, array_map($number, $list('loudness')), ($data['guessed'] ?? false) === true,
            $events,
        );
    }

    /**
     * The same with what is done between its words.
     *
     * @param  list<array{string, int}>  $does  as Script::does() gives it
     */
    public function doing(array $does): self
    {
        $events = array_map(fn (array $d): array => [
            $d[0], $this->words[$d[1]]->from ?? $this->words[count($this->words) - 1]->to ?? 0.0,
        ], $does);

        return new self($this->seconds, $this->phones, $this->words, $this->loudness, $this->guessed, $events);
    }

    /** The same in other time: for a recording whose length is known and whose words are not found yet. */
    public function lasting(float $seconds): self
    {
        $by = $seconds / max(1e-6, $this->seconds);

        return new self($seconds, array_map(
            static fn (Phone $p): Phone => new Phone($p->name, $by * $p->from, $by * $p->to, $p->word, $p->stressed, $p->accented),
            $this->phones,
        ), array_map(
            static fn (Word $w): Word => new Word($w->text, $by * $w->from, $by * $w->to), $this->words,
        ), guessed: true, events: array_map(static fn (array $e): array => [$e[0], $by * $e[1]], $this->events));
    }

    /** @return array<string, mixed> times to a tenth of a millisecond */
    public function toArray(): array
    {
        $r = static fn (float $s): float => round($s, 4);

        return [
            'seconds' => $r($this->seconds),
            'phones' => array_map(static fn (Phone $p): array => [
                $p->name, $r($p->from), $r($p->to), $p->word, (int) $p->stressed, (int) $p->accented,
            ], $this->phones),
            'words' => array_map(static fn (Word $w): array => [$w->text, $r($w->from), $r($w->to)], $this->words),
            'loudness' => array_map(static fn (float $v): float => round($v, 4), $this->loudness), 'guessed' => $this->guessed,
            'events' => array_map(static fn (array $e): array => [$e[0], $r($e[1])], $this->events),
        ];
    }

    /** @return array{float, float} when the first sound begins and the last one ends, seconds */
    public function spoken(): array
    {
        $phrases = $this->phrases();

        return $phrases === [] ? [0.0, $this->seconds] : [$phrases[0][0], $phrases[count($phrases) - 1][1]];
    }

    /** @return list<array{float, float}> runs of sounds between pauses: from, to */
    public function phrases(): array
    {
        $out = [];
        $open = null;
        foreach ($this->phones as $p) {
            if (! $p->isPause()) {
                $open = [$open[0] ?? $p->from, $p->to];
            } elseif ($open !== null && $p->seconds() >= self::APART) {
                $out[] = $open;
                $open = null;
            }
        }

        return $open === null ? $out : [...$out, $open];
    }

    /**
     * Where the speaker puts weight: vowels of accented syllables, and of each phrase its last stressed one.
     *
     * @return list<array{float, bool}> the vowel's middle, and whether it is the last of its phrase
     */
    public function accents(): array
    {
        $out = [];
        $last = null;
        foreach ([...$this->phones, new Phone(Phone::PAUSE, $this->seconds, $this->seconds + 1.0)] as $p) {
            if ($p->isPause() && $p->seconds() >= self::APART) {
                if ($last !== null) {
                    $out[(string) $last] = [$last, true];
                }
                $last = null;
            } elseif ($p->isVowel() && $p->stressed) {
                $last = ($p->from + $p->to) / 2;
                if ($p->accented) {
                    $out[(string) $last] = [$last, false];
                }
            }
        }
        ksort($out, SORT_NUMERIC);

        return array_values($out);
    }

    /** How loud it is at a moment, against its loud places (their 92nd percentile): 0 to about 1; 1 where that is not known. */
    public function loud(float $t): float
    {
        if ($this->loudness === []) {
            return 1.0;
        }
        $at = (int) floor($t / self::STEP);

        return ($this->loudness[$at] ?? 0.0) / max(1e-6, $this->full);
    }
}
