<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Document\Shot;

/** Shots laid over a span of the reel: what lies there gives way, what reaches in is cut off, and there is no gap and no overlap. */
final class Lay
{
    /**
     * @param  list<Shot>  $shots  of the reel in order, each with its out frame
     * @param  list<array{camera: string, in: int}>  $new  in order; the first begins the span, each lasts until the next
     * @return list<Shot> the reel as it is then; what is new has no id, what was split keeps its id in the first part
     */
    public static function over(array $shots, int $from, int $to, array $new): array
    {
        $laid = [];
        foreach ($new as $i => $n) {
            $laid[] = new Shot('', $n['camera'], $i === 0 ? $from : $n['in'], $new[$i + 1]['in'] ?? $to);
        }
        $before = $after = [];
        foreach ($shots as $s) {
            $out = $s->out ?? $s->in + 1;
            if ($s->in < $from) {
                $before[] = $s->spanning($s->in, min($out, $from));
            }
            if ($out > $to) {
                $after[] = $s->spanning(max($s->in, $to), $out, $s->in < $from ? '' : $s->id);
            }
        }

        // A reel that ended earlier goes on up to what is laid; one without shots begins at the beginning.
        $last = array_pop($before);
        if ($last !== null) {
            $before[] = $last->spanning($last->in, $from);
        } elseif ($laid !== []) {
            $laid[0] = $laid[0]->spanning(0, (int) $laid[0]->out);
        }

        return [...$before, ...$laid, ...$after];
    }
}
