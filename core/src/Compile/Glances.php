<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Noise;

/**
 * Where on a face eyes rest that look at it by themselves: now on one eye, now on the other, now and then on the mouth; and when they
 * leave it: of who speaks while words are found, of who listens for a moment. Times are seconds, angles degrees.
 *
 * @phpstan-type Glance array{from: float, to: float, aside: float, down: float}
 */
final class Glances
{
    /** Seconds in which eyes jump from one place to the other: two frames of film. */
    public const JUMP = 1.0 / 12.0;

    /** Seconds in which the head goes along, and its share of the way. */
    private const HEAD = [0.4, 0.33];

    /** Seconds that eyes rest on one point of a face on the average; of these they jump in the first part. */
    private const RESTS = 1.0;

    private const FIRST = 0.45;

    /** Of all rests, those on the left eye, and those on an eye at all. */
    private const EYES = [0.42, 0.84];

    /** A line so long begins with eyes that are elsewhere, seconds. */
    private const LONG = 2.5;

    /** Seconds between two looks aside of who speaks, and how long they last; and of who listens: at least, and up to so much more. */
    private const SPEAKS = [2.2, 2.3, 0.5, 0.4];

    private const LISTENS = [6.0, 2.0, 0.43, 0.1];

    /** Degrees aside, and up or down, at least and up to so much more. */
    private const ASIDE = [11.0, 5.0];

    private const DOWN = [5.0, 4.0];

    /** @var list<Glance> in the order in which they begin */
    private array $away = [];

    /**
     * @param  list<Utterance>  $says  what this one says
     * @param  list<Utterance>  $hears
     */
    public function __construct(array $says, array $hears, private readonly int $seed)
    {
        foreach ($says as $u) {
            $rate = $u->perSecond;
            $this->speaks($u->from / $rate, $u->to / $rate);
        }
        foreach ($hears as $u) {
            $this->every(self::LISTENS, $u->from / $u->perSecond, $u->to / $u->perSecond - 0.5);
        }
        usort($this->away, static fn (array $a, array $b): int => $a['from'] <=> $b['from']);
    }

    private function speaks(float $from, float $to): void
    {
        if ($to - $from < self::LONG) {
            return;
        }
        // Up is where words are looked for by some, down by others.
        $until = $from + 0.55 + 0.4 * $this->chance($from, 1);
        $this->add($from - 0.25, $until, $this->chance($from, 2) < 0.4 ? -0.8 : 1.0);
        $this->every(self::SPEAKS, $until, $to - 1.0);
    }

    /** @param  array{float, float, float, float}  $how */
    private function every(array $how, float $from, float $until): void
    {
        [$apart, $more, $lasts, $longer] = $how;
        for ($t = $from; ; $t = $end) {
            $t += $apart + $more * $this->chance($t, 3);
            $end = $t + $lasts + $longer * $this->chance($t, 4);
            if ($end > $until) {
                return;
            }
            $this->add($t, $end, 1.0);
        }
    }

    private function add(float $from, float $to, float $down): void
    {
        $side = $this->chance($from, 5) < 0.5 ? 1.0 : -1.0;
        $this->away[] = [
            'from' => $from, 'to' => $to, 'aside' => $side * (self::ASIDE[0] + self::ASIDE[1] * $this->chance($from, 6)),
            'down' => $down * (self::DOWN[0] + self::DOWN[1] * $this->chance($from, 7)),
        ];
    }

    /** 0 to 1, the same for the same moment to a hundredth of a second. */
    private function chance(float $t, int $what): float
    {
        return Noise::hash((int) round(100.0 * $t), $this->seed + 40 + $what);
    }

    /**
     * On what of a face eyes rest.
     *
     * @return array{float, float, float} shares of its left eye, its right eye and its mouth
     */
    public function point(float $t): array
    {
        $slot = (int) floor($t / self::RESTS);
        $at = ($slot + self::FIRST * Noise::hash($slot, $this->seed + 21)) * self::RESTS;
        $w = Ease::smooth(($t - $at) / self::JUMP);
        [$last, $now] = [$this->rest($slot - 1), $this->rest($slot)];
        $of = static fn (int $k): float => ($last === $k ? 1.0 - $w : 0.0) + ($now === $k ? $w : 0.0);

        return [$of(0), $of(1), $of(2)];
    }

    private function rest(int $slot): int
    {
        $h = Noise::hash($slot, $this->seed + 20);

        return $h < self::EYES[0] ? 0 : ($h < self::EYES[1] ? 1 : 2);
    }

    /** @return array{float, float} degrees to the left, and down, by which eyes are off the face */
    public function eyes(float $t): array
    {
        return $this->off($t, 0.0, self::JUMP, 1.0);
    }

    /** @return array{float, float} the same of the head, which follows and goes part of the way */
    public function head(float $t): array
    {
        return $this->off($t, self::JUMP, ...self::HEAD);
    }

    /** @return array{float, float} */
    private function off(float $t, float $late, float $takes, float $share): array
    {
        $out = [0.0, 0.0];
        $last = $this->last($t);
        foreach (array_slice($this->away, max(0, $last - 1), $last < 1 ? $last + 1 : 2) as $g) {
            $w = $share * (Ease::smooth(($t - $g['from'] - $late) / $takes) - Ease::smooth(($t - $g['to'] - $late) / $takes));
            $out = [$out[0] + $w * $g['aside'], $out[1] + $w * $g['down']];
        }

        return $out;
    }

    /** @return int the last glance that has begun, -1 for none */
    private function last(float $t): int
    {
        [$low, $high] = [-1, count($this->away) - 1];
        while ($low < $high) {
            $middle = intdiv($low + $high + 2, 2);
            [$low, $high] = $this->away[$middle]['from'] <= $t ? [$middle, $high] : [$low, $middle - 1];
        }

        return $low;
    }

    /** @return list<array{float, float}> spans in which eyes are elsewhere, with their going and coming */
    public function spans(): array
    {
        return array_map(static fn (array $g): array => [$g['from'], $g['to'] + self::JUMP], $this->away);
    }
}
