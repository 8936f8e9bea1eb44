<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Motion\ClipTable;

/**
 * One beat, settled: which rows play when, and the planar move that carries them on from the beat before.
 *
 * @phpstan-type Move array{float, float, float}
 */
final class LaneSegment
{
    /** Frames in which life comes into a pose that is held, and goes before it moves. */
    private const STIRS = 12;

    /** @var Move x, z, heading applied to every row */
    public array $move = [0.0, 0.0, 0.0];

    /** What every row is raised by. */
    public float $lift = 0.0;

    /** Metres by which the ground that the motion was made on rises in one round (a stair; a jump down has less than 0). */
    public float $rise = 0.0;

    /** @var array{float, float, float, float}|null where a walk along a path begins: x, y, z and heading, in lane space */
    public ?array $origin = null;

    /** Height of the ground where the beat ends, in lane space. */
    public float $ground = 0.0;

    /** @var Move what one loop travels, in the motion's own space */
    public readonly array $loopMove;

    /** @var array<int, Move> moves by number of the loop */
    private array $moves = [];

    /** Feet on ground that is not even. */
    public ?GroundFit $fit = null;

    /** The thing that it is done on, and along with. */
    public ?Riding $riding = null;

    public readonly string $beat;

    public readonly float $start;

    public readonly float $end;

    public readonly string $join;

    public readonly int $joinFrames;

    /** How the body is held at its end, where the motion itself does not say. */
    public ?string $stance = null;

    /** Whether the motion breathes by itself; recorded ones do not. */
    public bool $lives = false;

    private readonly bool $onTheSpot;

    /**
     * @param  float  $in  source seconds
     * @param  float  $out  source seconds
     */
    public function __construct(
        public readonly Beat $from,
        public readonly ClipTable $table,
        public readonly string $tableKey,
        public readonly float $in,
        public readonly float $out,
        public readonly Timing $timing,
        public readonly int $hips,
    ) {
        [$this->beat, $this->start, $this->join, $this->joinFrames] = [$from->id, (float) $from->start, $from->join, $from->joinFrames];
        $this->end = $this->start + $timing->frames;
        $this->onTheSpot = $from->root === 'spot';
        $a = $this->root($table->at($in));
        $b = $this->root($table->at($out));
        $this->loopMove = $this->onTheSpot ? [0.0, 0.0, 0.0] : self::after($b, self::undo($a));
    }

    /**
     * The row at a frame, clamped to the segment, in lane space.
     *
     * @return list<float>
     */
    public function row(float $frame): array
    {
        [$seconds, $loop] = $this->timing->at($frame - $this->start);
        $row = $this->table->at($seconds);
        if ($this->onTheSpot) {
            $row = ClipTable::moved(
                $row,
                self::after($this->root($this->table->at($this->in)), self::undo($this->root($row))),
                $this->hips,
            );
        }
        $move = $loop === 0 ? $this->move : $this->looped($loop);

        $lift = $this->lift + $loop * $this->rise;
        $row = $move === [0.0, 0.0, 0.0] && $lift === 0.0 ? $row : ClipTable::moved($row, $move, $this->hips, $lift);

        $row = $this->fit === null ? $row : $this->fit->apply($row, $frame - $this->start);

        return $this->riding === null ? $row : $this->riding->apply($row, $frame);
    }

    /** Whether it was put in between two beats by itself. */
    public function isBetween(): bool
    {
        return str_contains($this->beat, '~');
    }

    /** @return Move */
    private function looped(int $loop): array
    {
        if (isset($this->moves[$loop])) {
            return $this->moves[$loop];
        }
        $step = $loop > 0 ? $this->loopMove : self::undo($this->loopMove);
        $move = $this->move;
        for ($k = abs($loop); $k > 0; $k--) {
            $move = self::after($move, $step);
        }

        return $this->moves[$loop] = $move;
    }

    /**
     * How much life a frame lacks: all of it where the motion stands still, of breath too where it has none by itself.
     *
     * @return array{float, float}
     */
    public function lacks(float $frame): array
    {
        [$a, $b] = $this->timing->moves();
        $f = $frame - $this->start;
        $still = max(1.0 - Ease::smooth(($f - $a + self::STIRS) / self::STIRS), Ease::smooth(($f - $b) / self::STIRS));
        $still = $f < $a - self::STIRS ? 1.0 : $still;

        return [$still, $this->lives ? $still : 1.0];
    }

    public function carried(): void
    {
        $this->moves = [];
    }

    /** Share of a laid-over beat at a frame. */
    public function weight(float $frame): float
    {
        $p = $this->from->play;
        if ($frame < $this->start || ($frame >= $this->end && ! $p->keepLooping)) {
            return 0.0;
        }
        $in = $p->fadeIn < 1 ? 1.0 : Ease::smooth(($frame - $this->start + 1) / ($p->fadeIn + 1));
        $out = $p->fadeOut < 1 || $p->keepLooping ? 1.0 : Ease::smooth(($this->end - $frame) / ($p->fadeOut + 1));

        return $p->weight * min($in, $out);
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
            '%s%s%s|%s|%.6f|%s|%d|%s|%d|%.7f,%.7f,%.7f,%.7f', $this->lives ? 'l' : '', $this->fit->key ?? '', $this->riding->key ?? '',
            $this->tableKey, $this->start, $this->timing->fingerprint(), (int) $this->onTheSpot, $this->join, $this->joinFrames,
            $this->lift, ...$this->move,
        );
    }
}
