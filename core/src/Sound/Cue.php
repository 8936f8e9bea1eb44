<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

/** A sound in a mix: where it begins, how loud it is, and how it comes and goes. Samples are those of the mix, per channel. */
final readonly class Cue
{
    /** @var list<array{int, float}> */
    private array $levels;

    /** @var list<array{int, float}> */
    private array $sides;

    /**
     * @param  string  $pcm  16-bit little-endian samples, channels by turns
     * @param  1|2  $channels
     * @param  int  $start  of its first sample in the mix; below 0 it has begun before
     * @param  float  $gain  factor
     * @param  int  $fadeIn  samples
     * @param  list<array{int, float}>  $curve  samples after it begins, and decibels that it is raised by then, straight between
     * @param  list<array{int, float, float}>  $placed  samples of the mix, decibels, and side (-1 left to 1 right), straight between;
     *                                              then it is heard as one channel
     * @param  int|null  $until  it is begun anew until this sample of the mix; null: once
     */
    public function __construct(
        public string $pcm, public int $channels, public int $start, public string $lane = 'speech', public float $gain = 1.0,
        public int $fadeIn = 0, public int $fadeOut = 0, public ?int $until = null,
        public array $curve = [], public array $placed = [],
    ) {
        $this->levels = array_map(static fn (array $p): array => [$p[0], $p[1]], $placed);
        $this->sides = array_map(static fn (array $p): array => [$p[0], $p[2]], $placed);
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
        return $this->fadeIn > 0 || $this->fadeOut > 0 || $this->curve !== [] || $this->placed !== [];
    }

    /**
     * What it is heard as on the left and on the right at a sample of the mix, for where it is: in the middle as it is.
     *
     * @return array{float, float} factors; their squares add up to 2
     */
    public function sides(int $at): array
    {
        if ($this->placed === []) {
            return [1.0, 1.0];
        }
        $level = 10.0 ** (self::along($this->levels, $at) / 20.0);
        $angle = 0.25 * M_PI * (1.0 + self::along($this->sides, $at));

        return [M_SQRT2 * cos($angle) * $level, M_SQRT2 * sin($angle) * $level];
    }

    /** What fades and the curve make of it at a sample of the mix, a factor; fades by the root, so that the power changes evenly. */
    public function share(int $at): float
    {
        $in = $this->fadeIn < 1 ? 1.0 : min(1.0, ($at - $this->start) / $this->fadeIn);
        $out = $this->fadeOut < 1 ? 1.0 : min(1.0, ($this->end() - $at) / $this->fadeOut);

        $raised = self::along($this->curve, $at - $this->start);

        return sin(0.5 * M_PI * max(0.0, $in)) * sin(0.5 * M_PI * max(0.0, $out)) * 10.0 ** ($raised / 20.0);
    }

    /**
     * What a curve is at a place: straight between its points, before the first and after the last one as there; 0 without any.
     *
     * @param  list<array{int|float, float}>  $curve  places, each after the one before, and what it is there
     */
    public static function along(array $curve, float $into): float
    {
        $last = null;
        foreach ($curve as [$at, $db]) {
            if ($into < $at) {
                return $last === null ? $db : $last[1] + ($db - $last[1]) * ($into - $last[0]) / max(1e-9, $at - $last[0]);
            }
            $last = [$at, $db];
        }

        return $last[1] ?? 0.0;
    }
}
