<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;

/**
 * Turns mixed row after row: the way round from one to the other that was taken in one row is taken in the next, too, so nothing
 * flips where the two are about half a turn apart. Who asks out of order forgets first.
 *
 * @phpstan-type Quat array{float, float, float, float}
 */
final class SteadyMix
{
    /** @var array<string, array{Quat, Quat}> both turns in the row before, by what is mixed */
    private array $before = [];

    public function forget(string $start = ''): void
    {
        $this->before = $start === ''
            ? []
            : array_filter($this->before, static fn (string $k): bool => ! str_starts_with($k, $start), ARRAY_FILTER_USE_KEY);
    }

    /**
     * @param  Quat  $from
     * @param  Quat  $to
     * @return Quat
     */
    public function between(string $key, array $from, array $to, float $share): array
    {
        $from = self::like($from, $this->before[$key][0] ?? $from);
        $to = self::like($to, $this->before[$key][1] ?? $from);
        $this->before[$key] = [$from, $to];
        $cos = $from[0] * $to[0] + $from[1] * $to[1] + $from[2] * $to[2] + $from[3] * $to[3];
        $angle = acos(Ease::clamp($cos, -1.0, 1.0));
        $sin = sin($angle);
        [$a, $b] = $sin < 1e-3 ? [1 - $share, $share] : [sin((1 - $share) * $angle) / $sin, sin($share * $angle) / $sin];

        return Q4::unit([
            $a * $from[0] + $b * $to[0], $a * $from[1] + $b * $to[1], $a * $from[2] + $b * $to[2], $a * $from[3] + $b * $to[3],
        ]);
    }

    /**
     * @param  Quat  $q
     * @param  Quat  $as
     * @return Quat the same turn with the sign nearer to another one
     */
    private static function like(array $q, array $as): array
    {
        return $q[0] * $as[0] + $q[1] * $as[1] + $q[2] * $as[2] + $q[3] * $as[3] < 0.0 ? [-$q[0], -$q[1], -$q[2], -$q[3]] : $q;
    }
}
