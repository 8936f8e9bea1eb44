<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\LaneSegment;
use CrispReel\Core\Document\Command;

/**
 * An edge of a beat on a frame. What lies within is cut by frames (Play's skip and length), so the moment of the motion that any
 * other frame shows stays what it was, whatever its speed keys, eases, holds and loops. What lies beyond is found where there is
 * more: what was cut off before, what the motion has outside of its source times, and for a motion that repeats, another turn.
 * An edge that is asked for beyond all of that stops at the end of it.
 */
final class Trim
{
    private const ALIKE = 1e-6;

    /**
     * @param  'in'|'out'  $edge
     * @param  int  $frame  of the scene: the first frame of the beat, or the first that is no longer its own
     * @return list<Command>
     *
     * @throws UnableToStage
     */
    public static function of(CompiledScene $scene, string $beat, string $edge, int $frame): array
    {
        $segment = self::find($scene, $beat);
        $changes = $edge === 'in' ? self::begin($segment, max(0, $frame)) : self::finish($segment, $frame);

        return $changes === [] ? [] : [new Command('beat.set', ['beat' => $beat] + $changes)];
    }

    private static function find(CompiledScene $scene, string $beat): LaneSegment
    {
        foreach ($scene->lanes as $lane) {
            foreach ([...$lane->segments, ...$lane->layers] as $segment) {
                if ($segment->beat === $beat) {
                    return $segment;
                }
            }
        }
        throw UnableToStage::noBeat($beat);
    }

    /** @return array<string, mixed> */
    private static function begin(LaneSegment $s, int $frame): array
    {
        $start = (int) $s->from->start;
        $by = $frame - $start;
        if ($by > 0 && $frame >= $s->end - self::ALIKE) {
            throw UnableToStage::nowhere('in', $frame);
        }
        if ($by < 0) {
            return self::earlier($s, -$by);
        }

        return $by === 0 ? [] : ['start' => $frame, 'play' => self::shifted($s, $by)];
    }

    /** @return array<string, mixed> */
    private static function earlier(LaneSegment $s, int $frames): array
    {
        $back = min($frames, $s->from->play->skip);
        $more = min($frames - $back, self::before($s));
        if ($back + $more === 0) {
            throw UnableToStage::nowhere('in', (int) $s->from->start - $frames);
        }
        $out = ['start' => (int) $s->from->start - $back - $more];
        if ($more > 0) {
            // Whole frames of the motion, so that all that was shown stays on its frames.
            $out['sourceIn'] = max(0.0, $s->in - $more * $s->timing->pace);
        }
        $play = self::shifted($s, -$back, $more);

        return $play === [] ? $out : $out + ['play' => $play];
    }

    /** Frames that the motion has before its source time, where they can be had without moving the others. */
    private static function before(LaneSegment $s): int
    {
        $p = $s->from->play;
        $isPlain = $p->ease === null && ! $p->reverse && $p->speeds === [] && $p->holdBefore === 0 && $p->fill === null
            && ! $p->keepLooping;

        return $isPlain && $s->from->path === null && $s->from->loops === 1 ? (int) floor($s->in / $s->timing->pace + self::ALIKE) : 0;
    }

    /**
     * Skip and length after the beginning has moved.
     *
     * @param  int  $skip  frames more to skip
     * @param  int  $grown  frames more at the front
     * @return array<string, int>
     */
    private static function shifted(LaneSegment $s, int $skip, int $grown = 0): array
    {
        $p = $s->from->play;
        $out = $skip === 0 ? [] : ['skip' => $p->skip + $skip];

        return $p->length === null ? $out : $out + ['length' => $p->length - $skip + $grown];
    }

    /** @return array<string, mixed> */
    private static function finish(LaneSegment $s, int $frame): array
    {
        $length = $frame - (int) $s->from->start;
        if ($length < 1) {
            throw UnableToStage::nowhere('out', $frame);
        }
        $p = $s->from->play;
        if ($p->keepLooping) {
            return ['play' => ['keepLooping' => null, 'fill' => $frame, 'length' => null]];
        }
        if ($length <= $s->timing->whole + self::ALIKE) {
            $isWhole = $length >= $s->timing->whole - self::ALIKE;

            return ['play' => ['length' => $isWhole ? null : $length]];
        }

        return self::longer($s, $length);
    }

    /** @return array<string, mixed> */
    private static function longer(LaneSegment $s, int $length): array
    {
        $p = $s->from->play;
        $isEased = $p->ease !== null;
        if ($p->fill !== null && ! $isEased && ! $p->reverse) {
            return ['play' => ['fill' => (int) $s->from->start + $length, 'length' => null]];
        }
        if ($s->from->path === null && $s->from->loops === 1 && ! $isEased && ! $p->reverse && $s->from->sourceOut !== null) {
            $found = self::later($s, $length);
            if ($found !== null) {
                return $found;
            }
        }
        if ($s->table->loops && ! $s->lives && ! $isEased && ! $p->reverse && $s->from->path === null) {
            // A recording goes round where it fits best, not where it ends: it is repeated until then.
            return ['loops' => 1, 'play' => ['fill' => (int) $s->from->start + $length, 'length' => null]];
        }
        // An ease lies over the whole: with more of it, what was cut in two would show other moments.
        if ($s->table->loops && ! ($isEased && $p->skip > 0)) {
            $loops = $s->timing->loopsFor($length);
            if ($loops !== null) {
                return ['loops' => $loops, 'play' => ['length' => $length, 'fill' => null]];
            }
        }
        if ($p->length === null) {
            throw UnableToStage::nowhere('out', (int) $s->from->start + $length);
        }

        return ['play' => ['length' => null]];
    }

    /**
     * More of the motion after its source time, as far as it has any; a repeating one goes on with another turn instead.
     *
     * @return array<string, mixed>|null
     */
    private static function later(LaneSegment $s, int $length): ?array
    {
        $wanted = $s->in + $s->timing->secondsAfter($length);
        $has = $s->table->seconds();
        if ($wanted <= $has + self::ALIKE) {
            return ['sourceOut' => $wanted >= $has - self::ALIKE ? null : $wanted, 'play' => ['length' => null]];
        }

        return $s->table->loops ? null : ['sourceOut' => null, 'play' => ['length' => null]];
    }
}
