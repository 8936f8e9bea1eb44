<?php

declare(strict_types=1);

namespace CrispReel\Core\Sound;

/**
 * How far music and ambience are lowered while somebody speaks: the curve is known beforehand, so that it is the same wherever it
 * is heard. It goes down before the first word and comes back slowly.
 */
final readonly class Lowering
{
    /** Seconds: how early it begins, how long it goes down, how long it comes back, and pauses that it stays down in. */
    private const AHEAD = 0.20;

    private const ATTACK = 0.08;

    private const RELEASE = 0.40;

    private const STAYS = 0.8;

    /** @var list<array{float, float, float}> */
    private array $spans;

    /** @param  list<array{float, float, float}>  $spoken  seconds from and to, and decibels of how far down (0 or more), in any order */
    public function __construct(array $spoken)
    {
        usort($spoken, static fn (array $a, array $b): int => $a <=> $b);
        $out = [];
        $open = null;
        foreach ($spoken as [$from, $to, $decibels]) {
            if ($open !== null && $from - $open[1] < self::STAYS) {
                $open = [$open[0], max($open[1], $to), max($open[2], $decibels)];
            } else {
                $out[] = $open;
                $open = [$from, $to, $decibels];
            }
        }
        $out[] = $open;
        $this->spans = array_values(array_filter($out, static fn (?array $s): bool => $s !== null && $s[2] > 0.0));
    }

    /** Factor at a moment, seconds. */
    public function gain(float $t): float
    {
        $down = 0.0;
        foreach ($this->spans as [$from, $to, $decibels]) {
            $in = ($t - $from + self::AHEAD) / self::ATTACK;
            $out = ($to + self::RELEASE - $t) / self::RELEASE;
            $down = max($down, $decibels * min(1.0, $in, $out));
        }

        return 10.0 ** (-$down / 20.0);
    }

    /** @return list<array{float, float}> the curve's corners: seconds and decibels, straight between them */
    public function corners(): array
    {
        $out = [];
        foreach ($this->spans as [$from, $to, $decibels]) {
            array_push(
                $out, [$from - self::AHEAD, 0.0], [$from - self::AHEAD + self::ATTACK, -$decibels], [$to, -$decibels],
                [$to + self::RELEASE, 0.0],
            );
        }

        return $out;
    }
}
