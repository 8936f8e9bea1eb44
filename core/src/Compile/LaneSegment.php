<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Motion\ClipTable;

/**
 * One beat, settled: which rows play when, and the planar move that carries them on from the beat before.
 *
 * @phpstan-type Move array{float, float, float}
 */
final class LaneSegment
{
    /** @var Move x, z, heading applied to every row */
    public array $move = [0.0, 0.0, 0.0];

    /** @var Move what one loop travels, in the motion's own space */
    public array $loopMove = [0.0, 0.0, 0.0];

    public readonly float $end;

    /**
     * @param  float  $start  frame
     * @param  float  $in  source seconds
     * @param  float  $out  source seconds
     */
    public function __construct(
        public readonly string $beat,
        public readonly ClipTable $table,
        public readonly string $tableKey,
        public readonly float $start,
        public readonly float $in,
        public readonly float $out,
        public readonly float $secondsPerFrame,
        public readonly int $loops,
        public readonly bool $onTheSpot,
        public readonly string $join,
        public readonly int $joinFrames,
        public readonly int $hips,
    ) {
        $this->end = $start + ($out - $in) * $loops / $secondsPerFrame;
        $a = $this->root($table->at($in));
        $b = $this->root($table->at($out));
        $this->loopMove = $onTheSpot ? [0.0, 0.0, 0.0] : self::after($b, self::undo($a));
    }

    /**
     * The row at a frame, clamped to the segment, in lane space.
     *
     * @return list<float>
     */
    public function row(float $frame): array
    {
        $local = ($frame < $this->start ? 0.0 : ($frame > $this->end ? $this->end - $this->start : $frame - $this->start)) * $this->secondsPerFrame;
        $span = $this->out - $this->in;
        $loop = 0;
        if ($this->loops > 1 && $span > 0.0) {
            $loop = min($this->loops - 1, (int) floor($local / $span + 1e-9));
            $local -= $loop * $span;
        }
        $row = $this->table->at($this->in + $local);
        if ($this->onTheSpot) {
            $row = ClipTable::moved($row, self::after($this->root($this->table->at($this->in)), self::undo($this->root($row))), $this->hips);
        }
        $move = $this->move;
        for ($k = 0; $k < $loop; $k++) {
            $move = self::after($move, $this->loopMove);
        }

        return $move === [0.0, 0.0, 0.0] ? $row : ClipTable::moved($row, $move, $this->hips);
    }

    /**
     * @param  list<float>  $row
     * @return Move
     */
    private function root(array $row): array
    {
        $o = $this->table->width - 3;

        return [$row[$o], $row[$o + 1], $row[$o + 2]];
    }

    /**
     * Planar composition: first $b, then $a.
     *
     * @param  Move  $a
     * @param  Move  $b
     * @return Move
     */
    public static function after(array $a, array $b): array
    {
        $c = cos($a[2]);
        $s = sin($a[2]);

        return [$b[0] * $c + $b[1] * $s + $a[0], -$b[0] * $s + $b[1] * $c + $a[1], $a[2] + $b[2]];
    }

    /**
     * @param  Move  $a
     * @return Move
     */
    public static function undo(array $a): array
    {
        $c = cos($a[2]);
        $s = sin($a[2]);

        return [-($a[0] * $c - $a[1] * $s), -($a[0] * $s + $a[1] * $c), -$a[2]];
    }

    public function fingerprint(): string
    {
        return sprintf(
            '%s|%.6f|%.6f|%.6f|%.9f|%d|%d|%s|%d|%.7f,%.7f,%.7f', $this->tableKey, $this->start, $this->in, $this->out,
            $this->secondsPerFrame, $this->loops, (int) $this->onTheSpot, $this->join, $this->joinFrames, ...$this->move,
        );
    }
}
