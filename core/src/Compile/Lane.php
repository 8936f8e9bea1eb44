<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Motion\ClipTable;

/**
 * A performer's lane, settled: any frame, in any order, the same answer. Between and outside beats the nearest pose is
 * held; a rest pose never shows.
 */
final readonly class Lane
{
    /**
     * @param  list<LaneSegment>  $segments  by start
     * @param  list<float>  $standing  the row shown when there is no beat
     */
    public function __construct(public Figure $figure, public array $segments, public array $standing)
    {
    }

    /**
     * Hips, joint rotations, morphs (and the root track) at a frame, in the performer's own space.
     *
     * @return list<float>
     */
    public function row(float $frame): array
    {
        $i = $this->active($frame);
        if ($i < 0) {
            return $this->segments === [] ? $this->standing : $this->segments[0]->row($this->segments[0]->start);
        }

        return $this->blended($i, $frame);
    }

    /** @return list<float> */
    private function blended(int $i, float $frame): array
    {
        $s = $this->segments[$i];
        $row = $s->row($frame);
        $into = $frame - $s->start;
        if ($i === 0 || $s->join === 'cut' || $s->joinFrames < 1 || $into >= $s->joinFrames) {
            return $row;
        }
        $before = $this->blended($i - 1, $frame);

        return ClipTable::between($before, 0, $row, 0, Ease::smooth(($into + 1) / ($s->joinFrames + 1)), $this->figure->skeleton->count(), count($row));
    }

    private function active(float $frame): int
    {
        $found = -1;
        foreach ($this->segments as $i => $s) {
            if ($s->start <= $frame) {
                $found = $i;
            }
        }

        return $found;
    }

    public function end(): float
    {
        return array_reduce($this->segments, static fn (float $m, LaneSegment $s): float => max($m, $s->end), 0.0);
    }

    /** What the frames from $from up to $to are computed from. */
    public function fingerprint(float $from, float $to): string
    {
        $first = max(0, $this->active($from));
        // A join reaches back through the beats before it.
        while ($first > 0 && $this->segments[$first]->start + $this->segments[$first]->joinFrames > $from) {
            $first--;
        }
        $parts = [$this->figure->blob];
        foreach (array_slice($this->segments, $first) as $s) {
            if ($s->start >= $to && count($parts) > 1) {
                break;
            }
            $parts[] = $s->fingerprint();
        }

        return implode(';', $parts);
    }
}
