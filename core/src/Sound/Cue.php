<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

/** A sound in a mix: where it begins, how loud it is, and how it comes and goes. Samples are those of the mix, per channel. */
final readonly class Cue
{
    /**
     * @param  string  $pcm  16-bit little-endian samples, channels by turns
     * @param  1|2  $channels
     * @param  int  $start  of its first sample in the mix; below 0 it has begun before
     * @param  float  $gain  factor
     * @param  int  $fadeIn  samples
     * @param  list<array{int, float}>  $curve  samples after it begins, and decibels that it is raised by then, straight between
     * @param  int|null  $until  it is begun anew until this sample of the mix; null: once
     */
    public function __construct(
        public string $pcm, public int $channels, public int $start, public string $lane = 'speech', public float $gain = 1.0,
        public int $fadeIn = 0, public int $fadeOut = 0, public ?int $until = null,
        public array $curve = [],
    ) {
    }

    /** Samples of one turn. */
    public function length(): int
    {
        return intdiv(strlen($this->pcm), 2 * $this->channels);
    }

    /** The sample of the mix that it is over at. */
    public function end(): int
    {
        return $this->until ?? $this->start + $this->length();
    }

    /** Whether its loudness changes by itself. */
    public function bends(): bool
    {
        return $this->fadeIn > 0 || $this->fadeOut > 0 || $this->curve !== [];
    }

    /** What fades and the curve make of it at a sample of the mix, a factor; fades by the root, so that the power changes evenly. */
    public function share(int $at): float
    {
        $in = $this->fadeIn < 1 ? 1.0 : min(1.0, ($at - $this->start) / $this->fadeIn);
        $out = $this->fadeOut < 1 ? 1.0 : min(1.0, ($this->end() - $at) / $this->fadeOut);

        return sin(0.5 * M_PI * max(0.0, $in)) * sin(0.5 * M_PI * max(0.0, $out)) * 10.0 ** ($this->raised($at - $this->start) / 20.0);
    }

    /** Decibels of the curve so many samples after the beginning: before its first point and after its last one as there. */
    private function raised(int $into): float
    {
        $last = null;
        foreach ($this->curve as [$at, $db]) {
            if ($into < $at) {
                return $last === null ? $db : $last[1] + ($db - $last[1]) * ($into - $last[0]) / max(1, $at - $last[0]);
            }
            $last = [$at, $db];
        }

        return $last[1] ?? 0.0;
    }
}
