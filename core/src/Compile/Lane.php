<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Life;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * A performer's lane, settled: any frame, in any order, the same answer. Between and outside beats the nearest pose is
 * held; a rest pose never shows.
 */
final class Lane
{
    /** @var array<string, string> by range: a lane lives through many states of its scene */
    private array $fingerprints = [];

    /**
     * @param  list<LaneSegment>  $segments  by start
     * @param  list<float>  $standing  the row shown when there is no beat
     * @param  list<LaneSegment>  $layers  laid over the lane, lowest first
     * @param  Life|null  $life  what the body does by itself where its motions do nothing; null: nothing
     */
    public function __construct(
        public readonly Figure $figure,
        public readonly array $segments,
        public readonly array $standing,
        public readonly array $layers = [],
        public readonly ?Life $life = null,
    ) {
    }

    /** Who has a head lives, unless that is switched off. */
    public static function life(Item $item, Figure $figure, float $rate): ?Life
    {
        return $item->kind !== 'performer' || $item->life === 'off' || ! isset($figure->skeleton->roles['head'])
            ? null
            : new Life($figure, $item->life, crc32($item->id), $rate);
    }

    /**
     * Hips, joint rotations, morphs (and the root track) at a frame, in the performer's own space.
     *
     * @return list<float>
     */
    public function row(float $frame): array
    {
        $i = $this->active($frame);
        $row = $i >= 0
            ? $this->blended($i, $frame)
            : ($this->segments === [] ? $this->standing : $this->segments[0]->row($this->segments[0]->start));
        foreach ($this->layers as $layer) {
            $w = $layer->weight($frame);
            if ($w > 0.0) {
                $row = $this->laidOver($row, $layer->row($frame), $layer->from->play->mask, $w);
            }
        }

        return $row;
    }

    /**
     * The same with what the body does by itself.
     *
     * @return list<float>
     */
    public function living(float $frame): array
    {
        $row = $this->row($frame);
        if ($this->life === null) {
            return $row;
        }
        [$full, $least] = $this->lacks($this->active($frame), $frame);

        return $least > 0.0 ? $this->life->over($row, $frame, $full, $least) : $row;
    }

    /** @return array{float, float} how much life is lacking: all of it; breath */
    private function lacks(int $i, float $frame): array
    {
        if ($this->segments === []) {
            return [1.0, 1.0];
        }
        // Before the first beat its first pose is held, and life goes out of it until it begins.
        $s = $this->segments[max(0, $i)];
        $own = $s->lacks($frame);
        if ($i <= 0) {
            return $own;
        }
        $into = $frame - $s->start;
        $over = $s->join === 'cut' || $s->joinFrames < 1 ? 0 : max(8, $s->joinFrames);
        if ($into >= $over) {
            return $own;
        }
        $before = $this->lacks($i - 1, $frame);
        $share = Ease::smooth(($into + 1) / ($over + 1));

        return [Ease::mix($before[0], $own[0], $share), Ease::mix($before[1], $own[1], $share)];
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
        $share = Ease::smooth(($into + 1) / ($s->joinFrames + 1));
        $mixed = ClipTable::between($before, 0, $row, 0, $share, $this->figure->skeleton->count(), count($row));

        return $this->locked($mixed, $before, $row, $share);
    }

    /**
     * Joint angles that are mixed move the feet; they are brought back to the mix of where both poses have them.
     *
     * @param  list<float>  $mixed
     * @param  list<float>  $before
     * @param  list<float>  $after
     * @return list<float>
     */
    private function locked(array $mixed, array $before, array $after, float $share): array
    {
        $f = $this->figure;
        $p = new Posture($f->skeleton, $f->hips, $mixed);
        $hinge = Q4::rotate($p->at($f->hips)[1], [1.0, 0.0, 0.0]);
        foreach (['L', 'R'] as $side) {
            $leg = $f->limb('leg', $side);
            if ($leg === null) {
                continue;
            }
            [$a, $qa] = $f->skeleton->jointIn($before, $f->hips, $leg[2]);
            [$b, $qb] = $f->skeleton->jointIn($after, $f->hips, $leg[2]);
            $p->reach($leg[0], $leg[1], $leg[2], V3::mix($a, $b, $share), Q4::slerp($qa, $qb, $share), $hinge);
        }

        return $p->result();
    }

    /**
     * @param  list<float>  $row
     * @param  list<float>  $over
     * @param  list<string>  $mask
     * @return list<float>
     */
    private function laidOver(array $row, array $over, array $mask, float $weight): array
    {
        $n = $this->figure->skeleton->count();
        $joints = $mask === []
            ? array_diff(range(0, $n - 1), [$this->figure->hips])
            : array_merge(...array_map($this->figure->part(...), $mask));
        foreach ($joints as $j) {
            $o = 3 + 4 * $j;
            [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = Q4::slerp(
                [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]],
                [$over[$o], $over[$o + 1], $over[$o + 2], $over[$o + 3]],
                $weight,
            );
        }
        if ($mask === [] || in_array('face', $mask, true)) {
            for ($k = 3 + 4 * $n, $end = $k + count($this->figure->morphs); $k < $end; $k++) {
                $row[$k] += ($over[$k] - $row[$k]) * $weight;
            }
        }

        return array_values($row);
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

    /** @param  bool  $open  whether beats that go on repeating count, which have no end of their own */
    public function end(bool $open = true): float
    {
        $end = 0.0;
        foreach ([...$this->segments, ...$this->layers] as $s) {
            $end = max($end, $s->from->play->keepLooping && ! $open ? 0.0 : $s->end);
        }

        return $end;
    }

    /** What the frames from $from up to $to are computed from. */
    public function fingerprint(float $from, float $to): string
    {
        return $this->fingerprints["{$from} {$to}"] ??= hash('xxh128', $this->grounds($from, $to));
    }

    private function grounds(float $from, float $to): string
    {
        $first = max(0, $this->active($from));
        // A join reaches back through the beats before it.
        while ($first > 0 && $this->segments[$first]->start + max(8, $this->segments[$first]->joinFrames) > $from) {
            $first--;
        }
        $parts = [$this->figure->blob, $this->life?->fingerprint() ?? ''];
        foreach (array_slice($this->segments, $first) as $s) {
            if ($s->start >= $to && count($parts) > 2) {
                break;
            }
            $parts[] = $s->fingerprint();
        }
        foreach ($this->layers as $s) {
            if ($s->start < $to && ($s->end > $from || $s->from->play->keepLooping)) {
                $parts[] = $s->fingerprint();
            }
        }

        return implode(';', $parts);
    }
}
