<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Measured;
use CrispReel\Core\Document\Path;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Rig\Figure;

/**
 * How the second of a pair comes to where it stands with the first: by a step or two where that is near, else by a walk, both before the
 * motion begins; what there is no time for is told.
 */
final readonly class Approach
{
    /** Metres and degrees that a step or two make. */
    private const STEP = [0.5, 75.0];

    /** Less is nobody's step. */
    private const NOTHING = [0.02, 3.0];

    /** Metres a second of a walk that is asked for by nobody, and seconds for its start, stop and turns. */
    private const SPEED = 1.15;

    private const ENDS = 1.2;

    private const FASTER = 1.7;

    /** @param  Closure(Beat): LaneSegment  $walk  along a beat's path from where the performer stands */
    public function __construct(private Item $item, private Figure $figure, private float $rate, private Closure $walk)
    {
    }

    /** Frames that the way takes when nobody hurries. */
    public static function frames(float $metres, float $degrees, float $rate): int
    {
        if ($metres < self::STEP[0] && $degrees < self::STEP[1]) {
            return (int) round((0.55 + 0.8 * $metres + 0.004 * $degrees) * $rate);
        }

        return (int) ceil(($metres / self::SPEED + self::ENDS + $degrees / 200.0) * $rate);
    }

    /**
     * @param  LaneSegment  $to  as it stands with the other
     * @param  list<float>  $row  as the performer stands before
     * @param  array{float, float, float}  $stands  the same in the plan: x, z, heading, in the performer's own space
     * @param  array{float, float, float}  $goes  and where the motion begins
     * @param  float  $free  frame from which there is time
     * @return array{LaneSegment|null, Finding|null}
     */
    public function before(LaneSegment $to, array $row, array $stands, array $goes, float $free): array
    {
        $metres = hypot($goes[0] - $stands[0], $goes[1] - $stands[1]) * $this->item->scale;
        $degrees = abs(rad2deg(Angle::wrapped($goes[2] - $stands[2])));
        if ($metres < self::NOTHING[0] && $degrees < self::NOTHING[1]) {
            return [null, null];
        }
        $there = (int) floor($to->start - max(0.0, ceil($free)));
        $takes = self::frames($metres, $degrees, $this->rate);
        if ($there * self::FASTER < $takes) {
            return [null, $metres > 0.35 ? $this->tooFar($to, $metres, $takes - $there) : null];
        }
        $takes = min($takes, $there);
        $start = (int) $to->start - $takes;
        if ($metres < self::STEP[0] && $degrees < self::STEP[1]) {
            $table = Sidestep::table($this->figure, $row, $to->row($to->start), $takes, $this->rate);
            $beat = new Beat("{$to->beat}~", $this->item->id, $to->from->motion, $start);
            $seconds = $table->seconds();
            $timing = new Timing($beat->play, 0.0, $seconds, $seconds, 1.0 / $this->rate, 1, null);
            $step = new LaneSegment($beat, $table, 'step '.hash('xxh128', $table->toBytes()), 0.0, $seconds, $timing, $this->figure->hips);
            $step->lives = true;
            $step->ground = $to->lift;

            return [$step, null];
        }
        $place = Placement::standing($this->item->position, $this->item->headingDeg, $this->item->scale);
        $end = $place->point([$goes[0], 0.0, $goes[1]]);
        $beat = new Beat(
            "{$to->beat}~", $this->item->id, $to->from->motion, $start,
            path: new Path([[$end[0], $end[2]]], arrive: (int) $to->start, faceDeg: rad2deg($goes[2]) + $this->item->headingDeg),
        );

        return [($this->walk)($beat), null];
    }

    private function tooFar(LaneSegment $to, float $metres, int $frames): Finding
    {
        return new Finding(
            'pair.far', Severity::Look,
            sprintf('%s is moved %.1f m to stand with the other: there is no time to go there.', $this->item->name, $metres),
            remedy: sprintf('Begin %d frames later, or stand nearer.', max(1, $frames)), about: [$this->item->id, $to->beat],
            frames: [$to->from->start, $to->from->start], figures: [new Measured('moved', $metres, 'm', 0.35)],
        );
    }
}
