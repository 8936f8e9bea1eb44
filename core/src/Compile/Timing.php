<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Play;
use CrispReel\Core\Math\Ease;

/**
 * Which moment of a motion a frame of a beat shows: holds, loops, speed keys (factors between keys change evenly, so the
 * way played is their integral by trapezoids), an ease over the whole, and reverse.
 */
final class Timing
{
    /** Frames of the beat as it is laid down: holds included, cut to its length. */
    public readonly float $frames;

    /** Frames that it goes on for while what follows comes in, where the motion has more. */
    public float $beyond = 0.0;

    /** Frames before they are cut to the beat's length. */
    public readonly float $whole;

    /** Seconds of the motion that are played in all. */
    private readonly float $total;

    /** Frames without holds. */
    private readonly float $moving;

    private readonly float $span;

    /**
     * @param  float  $in  seconds of the motion
     * @param  float  $out  seconds of the motion
     * @param  float  $pace  seconds of the motion a frame
     * @param  float|null  $fill  frames to fill by repeating, holds included
     */
    public function __construct(
        private readonly Play $play, private readonly float $in, private readonly float $out, private readonly float $most,
        public readonly float $pace, int $loops, ?float $fill,
    ) {
        $this->span = $out - $in;
        if ($fill !== null) {
            $this->moving = max(0.0, $fill + $play->skip - $play->holdBefore - $play->holdAfter);
            $this->total = $this->played($this->moving);
        } else {
            $this->total = $this->span * $loops;
            $this->moving = $this->framesFor($this->total);
        }
        $whole = $play->holdBefore + $this->moving + $play->holdAfter - $play->skip;
        $this->whole = max(0.0, $whole);
        $this->frames = $play->length === null ? $this->whole : min($this->whole, (float) $play->length);
    }

    /** Seconds of the motion that a beat of so many frames would have played at its end, holds taken off. */
    public function secondsAfter(float $frames): float
    {
        return $this->played(max(0.0, $frames + $this->play->skip - $this->play->holdBefore - $this->play->holdAfter));
    }

    /** The least turns of the motion that last for so many frames; null where its speed runs down to nothing before. */
    public function loopsFor(float $frames): ?int
    {
        $loops = max(1, (int) ceil($this->secondsAfter($frames) / $this->span - 1e-9));
        $lasts = $this->play->holdBefore + $this->framesFor($loops * $this->span) + $this->play->holdAfter - $this->play->skip;

        return $lasts >= $frames - 1e-6 ? $loops : null;
    }

    /** Seconds of the motion passed after so many moving frames, before any ease. */
    private function played(float $frames): float
    {
        $keys = $this->play->speeds;
        if ($keys === []) {
            return $frames * $this->pace;
        }
        $sum = min($frames, $keys[0][0]) * $keys[0][1];
        foreach ($keys as $k => [$at, $factor]) {
            if ($frames <= $at) {
                break;
            }
            $next = $keys[$k + 1] ?? null;
            $until = $next === null ? $frames : min($frames, $next[0]);
            $then = $next === null ? $factor : $factor + ($next[1] - $factor) * ($until - $at) / ($next[0] - $at);
            $sum += ($until - $at) * ($factor + $then) / 2;
        }

        return $sum * $this->pace;
    }

    /** The first frame at which so much is played; where the speed runs down to nothing before, its last key. */
    private function framesFor(float $seconds): float
    {
        $keys = $this->play->speeds;
        if ($keys === []) {
            return $seconds / $this->pace;
        }
        [$last, $factor] = $keys[count($keys) - 1];
        $done = $this->played($last);
        if ($done <= $seconds) {
            return $factor > 1e-6 ? $last + ($seconds - $done) / ($factor * $this->pace) : $last;
        }
        [$low, $high] = [0.0, $last];
        for ($i = 0; $i < 60; $i++) {
            $middle = ($low + $high) / 2;
            $this->played($middle) < $seconds ? $low = $middle : $high = $middle;
        }

        return $high;
    }

    /** @return array{float, int} seconds of the motion and number of the loop, at a frame of the beat */
    public function at(float $frame): array
    {
        $open = $this->play->keepLooping;
        $f = max(0.0, $open ? $frame : min($frame, $this->frames + $this->beyond)) + $this->play->skip - $this->play->holdBefore;
        $f = max(0.0, $open ? $f : min($f, $this->moving + $this->beyond));
        if ($this->play->ease === null || $open || $this->moving <= 0.0) {
            $p = $this->played($f);
        } else {
            $p = Ease::bezier($this->play->ease[0], $this->play->ease[1], $this->play->ease[2], $this->play->ease[3], $f / $this->moving)
                * $this->total;
        }
        if ($this->play->reverse) {
            $p = $this->total - $p;
        }
        if ($this->total <= $this->span * 1.0000001 && ! $open) {
            // An ease that runs past the ends finds what the motion has beyond its trim, or waits there.
            return [max(0.0, min($this->most, $this->in + $p)), 0];
        }
        if (! $open) {
            $p = max(0.0, min($this->total, $p));
        }
        $loop = (int) floor($p / $this->span + 1e-9);
        if (! $open && $loop * $this->span >= $this->total - 1e-9 * $this->span && $loop > 0) {
            $loop--;
        }

        return [min($this->out, $this->in + $p - $loop * $this->span), $loop];
    }

    /** @return array{float, float} the frames of the beat between which it moves: holds are before and after */
    public function moves(): array
    {
        $from = max(0.0, (float) ($this->play->holdBefore - $this->play->skip));

        return [$from, $this->play->keepLooping ? INF : min($this->frames, $this->play->holdBefore - $this->play->skip + $this->moving)];
    }

    public function fingerprint(): string
    {
        return sprintf('%.6f,%.6f,%.9f,%.9f,%.6f,%.0f,', $this->in, $this->out, $this->pace, $this->total, $this->moving, $this->beyond)
            .json_encode($this->play->toArray(), JSON_THROW_ON_ERROR);
    }
}
