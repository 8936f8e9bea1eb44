<?php

declare(strict_types=1);

namespace CrispReel\Core\Reel;

use CrispReel\Core\Document\Shot;

/**
 * Where a reel dissolves and fades. A dissolve lies half before its cut and half behind it; a fade through a colour goes out before the
 * cut and comes in behind it. None takes more than half of a shot, so that two never meet.
 */
final class Blends
{
    /**
     * @param  list<Shot>  $shots  of the reel in order, each with its out frame
     * @return list<Blend> in order, none over another
     */
    public static function of(array $shots): array
    {
        $out = [];
        foreach ($shots as $i => $shot) {
            $before = $i > 0 && $shots[$i - 1]->out === $shot->in ? $shots[$i - 1] : null;
            array_push($out, ...self::begin($shot, $before));
            if ($shot->ends !== 'cut' && ! isset($shots[$i + 1])) {
                $end = $shot->out ?? $shot->in;
                $n = min($shot->endsOver, self::half($shot));
                $out[] = new Blend($end - $n, $end, $shot->camera, null, $shot->ends);
            }
        }

        return array_values(array_filter($out, static fn (Blend $b): bool => $b->to > $b->from));
    }

    /** @return list<Blend> */
    private static function begin(Shot $shot, ?Shot $before): array
    {
        if ($shot->begins === 'cut' || ($shot->begins === 'dissolve' && $before === null)) {
            return [];
        }
        $n = $shot->beginsOver;
        if ($before === null) {
            return [new Blend($shot->in, $shot->in + min($n, self::half($shot)), null, $shot->camera, $shot->begins)];
        }
        $early = min(intdiv($n, 2), self::half($before));
        $late = min($n - intdiv($n, 2), self::half($shot));
        if ($shot->begins === 'dissolve') {
            return [new Blend($shot->in - $early, $shot->in + $late, $before->camera, $shot->camera)];
        }

        return [
            new Blend($shot->in - $early, $shot->in, $before->camera, null, $shot->begins),
            new Blend($shot->in, $shot->in + $late, null, $shot->camera, $shot->begins),
        ];
    }

    private static function half(Shot $shot): int
    {
        return intdiv($shot->length(), 2);
    }
}
