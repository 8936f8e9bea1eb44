<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;

/** How a walk to a mark changes on its way: manners that are taken on, how a run gathers and loses speed, and where its feet fall. */
final readonly class Pacing
{
    /** Shares of a step that the first, the second and the last of a walk to a mark are long. */
    private const FIRST = 0.8;

    private const SECOND = 0.95;

    private const LAST = 0.65;

    /** @param  list<array{float, GaitStyle}>  $manners  from distances on, rising; they are taken on over the next steps */
    public function __construct(private GaitStyle $style, private array $manners)
    {
    }

    /** Whether it is the same from the first step to the last. */
    public function isEven(): bool
    {
        return $this->manners === [] && $this->style->run <= 0.0;
    }

    /** Each manner is taken on over a metre and a half, and nobody runs off from a stand or stops dead. */
    public function at(float $s, float $metres): GaitStyle
    {
        $st = $this->style;
        foreach ($this->manners as [$from, $to]) {
            $st = $st->mix($to, Ease::smooth(($s - $from + 0.3) / 1.5));
        }
        if ($st->run > 0.0) {
            $quick = new GaitStyle(1.9, 1.0, $st->bounce, 0.0, $st->arm, $st->weight, $st->age, $st->mood);
            $slow = new GaitStyle(1.35, 1.0, $st->bounce, 0.0, $st->arm, $st->weight, $st->age, $st->mood);
            $st = $quick->mix($st, Ease::smooth($s / 1.4));
            $st = $slow->mix($st, Ease::smooth(($metres - 0.4 - $s) / 1.6));
        }

        return $st;
    }

    /**
     * Distances of the footfalls of a walk to a mark: the first a little, the last, on the mark, shorter than the others.
     *
     * @return non-empty-list<float>
     */
    public function footfalls(float $metres): array
    {
        if ($this->isEven()) {
            $count = max(2, (int) round($metres / $this->style->step + 1.0 - self::FIRST + (1.0 - self::SECOND) + 1.0 - self::LAST));

            return self::ramp($count, $metres, self::LAST);
        }
        // As far as both the manner that it leaves in and the one that it lands in step.
        $next = function (float $at) use ($metres): float {
            $step = $this->at($at, $metres)->step;

            return min($step, $this->at($at + $step, $metres)->step);
        };
        $at = self::FIRST * $this->at(0.0, $metres)->step;
        $out = [$at];
        while ($at < $metres - 0.5 * $next($at) || count($out) < 2) {
            $out[] = $at += $next($at);
        }
        $k = $metres / $at;

        return array_map(static fn (float $s): float => $s * $k, $out);
    }

    /**
     * So many footfalls over a distance: the first two shorter, the last as long as is said, all others alike.
     *
     * @return non-empty-list<float>
     */
    private static function ramp(int $count, float $metres, float $last): array
    {
        $falls = [$at = self::FIRST];
        for ($k = 2; $k <= $count; $k++) {
            $falls[] = $at += match ($k) {
                $count => $last, 2 => self::SECOND, default => 1.0,
            };
        }

        return array_map(static fn (float $s): float => $s * $metres / $at, $falls);
    }

    /**
     * Footfalls of a walk that goes on beyond a mark, with the left foot on it and a few steps more to stop in, which nobody sees.
     *
     * @return array{non-empty-list<float>, int} distances, and the number of the one on the mark, from 1
     */
    public function through(float $metres): array
    {
        $step = $this->at($metres, INF)->step;
        // Left feet come down with odd numbers.
        $count = max(1, 2 * (int) round(($metres / $step + 1.0 - self::FIRST + 1.0 - self::SECOND - 1.0) / 2) + 1);
        $falls = self::ramp($count, $metres, 1.0);
        foreach ([1.0, 2.0, 2.0 + self::LAST] as $more) {
            $falls[] = $metres + $more * $step;
        }

        return [$falls, $count];
    }

    /** When a foot leaves the ground that is to come down at $t, its swing so much longer than usual. */
    public static function leaves(Step $last, GaitStyle $st, float $t, float $longer): void
    {
        $last->off = $t - (1 - $st->duty) * 2 * $st->stepSeconds * $longer;
        $was = $last->style;
        if ($was !== null && $was->run > 0.0) {
            // One who slows down leaves the ground as one who runs, and is longer in the air.
            $last->off = min($last->off, $last->on + 1.05 * $was->duty * 2 * $was->stepSeconds);
        }
    }

    /**
     * A body gathers speed as the cube of time, and loses it as the square: a moment on the way from one key of its travel to the next.
     *
     * @param  array{float, float}  $from  time and metres
     * @param  array{float, float}  $to
     * @return array{float, float}
     */
    public static function between(array $from, array $to, bool $stops): array
    {
        [$u, $v] = $stops ? [0.5, 0.75] : [0.6, 0.216];

        return [Ease::mix($from[0], $to[0], $u), Ease::mix($from[1], $to[1], $v)];
    }
}
