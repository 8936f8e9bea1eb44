<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Noise;

/**
 * When somebody blinks: once in every slot of some seconds, somewhere in its middle half, so that no two come in step; at the end of a
 * phrase or where the eyes go elsewhere, if one of these lies there. Never where something else has the lids. Times are seconds.
 */
final class Blinks
{
    /** Seconds of a slot, and those that lids take to close, by the kind of life. */
    private const OF = ['calm' => [4.0, 0.125], 'tense' => [3.2, 0.10], 'cold' => [3.6, 0.125], 'tired' => [3.4, 0.20]];

    /** Times as long as they close they open. */
    private const UP = 1.35;

    /** Seconds by which a blink comes late after what it comes with, at most. */
    private const LATE = 0.15;

    private readonly float $every;

    private readonly float $down;

    /** @var array<int, float|null> the moment at which lids are shut, by slot; null: none */
    private array $known = [];

    /**
     * @param  string  $kind  calm, tense, cold or tired
     * @param  list<float>  $shifts  moments at which the eyes go elsewhere: they come first
     * @param  list<float>  $ends  moments at which a phrase ends
     * @param  list<array{float, float}>  $taken  spans in which lids are keyed or closed by something else
     */
    public function __construct(
        string $kind, private readonly int $seed, private readonly array $shifts = [], private readonly array $ends = [],
        private readonly array $taken = [],
    ) {
        [$this->every, $this->down] = self::OF[$kind] ?? self::OF['calm'];
    }

    /** How far lids are closed, 0 to 1. */
    public function at(float $t): float
    {
        $slot = (int) floor($t / $this->every);
        $most = 0.0;
        foreach ([$slot - 1, $slot] as $i) {
            $at = $this->when($i);
            if ($at !== null && $t > $at - $this->down && $t < $at + self::UP * $this->down) {
                $most = max($most, $t < $at
                    ? Ease::smooth(($t - $at + $this->down) / $this->down)
                    : Ease::smooth(($at - $t) / (self::UP * $this->down) + 1.0));
            }
        }

        return $most;
    }

    /** @return list<float> moments at which lids are shut, those whose closing or opening reaches into a span too */
    public function within(float $from, float $to): array
    {
        $out = [];
        for ($i = (int) floor($from / $this->every) - 1; $i * $this->every < $to + $this->every; $i++) {
            $at = $this->when($i);
            if ($at !== null && $at + self::UP * $this->down > $from && $at - $this->down < $to) {
                $out[] = $at;
            }
        }

        return $out;
    }

    private function when(int $slot): ?float
    {
        if (! array_key_exists($slot, $this->known)) {
            $at = $this->wanted($slot);
            foreach ($this->taken as [$from, $to]) {
                if ($at !== null && $at + self::UP * $this->down > $from && $at - $this->down < $to) {
                    $at = null;
                }
            }
            $this->known[$slot] = $at;
        }

        return $this->known[$slot];
    }

    private function wanted(int $slot): float
    {
        [$from, $to] = [($slot + 0.25) * $this->every, ($slot + 0.75) * $this->every];
        $late = self::LATE * Noise::hash($slot, $this->seed + 1);
        foreach ([$this->shifts, $this->ends] as $moments) {
            foreach ($moments as $m) {
                if ($m + $late >= $from && $m + $late <= $to) {
                    return $m + $late;
                }
            }
        }

        return $from + ($to - $from) * Noise::hash($slot, $this->seed);
    }
}
