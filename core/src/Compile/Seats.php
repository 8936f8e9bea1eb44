<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Scores\Stances;
use CrispReel\Core\Rig\Figure;

/** What somebody sits down on, is sat on, or gets up from. */
final readonly class Seats
{
    /** Metres of a person of 1.70 m: heights that are sat on, and what is above the hips of who sits and no seat. */
    private const LOWEST = 0.15;

    private const HIGHEST = 0.85;

    private const ABOVE = 0.26;

    public function __construct(private Surroundings $around)
    {
    }

    /**
     * Height of the seat below somebody who sits in a motion, as it is made for no seat in particular.
     *
     * @param  LaneSegment|null  $last  what was before
     * @return float|null above the ground that it is done on, metres of a person of 1.70 m; null: nobody sits, or on nothing
     */
    public function below(LaneSegment $segment, ?MotionRecipe $recipe, Item $item, Figure $figure, ?LaneSegment $last): ?float
    {
        $ends = $recipe === null ? ['', ''] : Stances::ends($recipe);
        if (! in_array('sit', $ends, true) || $this->around->isEmpty()) {
            return null;
        }
        $sits = $ends[0] === 'sit';
        $row = $segment->row($sits ? $segment->start : $segment->end);
        $place = Placement::standing($item->position, $item->headingDeg, $item->scale);
        [$x, $y, $z] = $place->point([$row[0], $row[1], $row[2]]);
        $unit = $figure->body()->scale * $item->scale;
        $ground = $item->position[1] + $segment->lift * $item->scale;
        // Who sits already does so as high as before.
        $y = $sits && $last !== null ? max(
            $y, $place->point([0.0, $last->row(min($segment->start, $last->end))[1], 0.0])[1] - 0.2 * $unit,
        ) : $y;
        $seat = $this->around->solids([$x - 0.3, $z - 0.3, $x + 0.3, $z + 0.3])->height($x, $z, $y + self::ABOVE * $unit);
        $height = $seat === null ? 0.0 : ($seat - $ground) / $unit;

        // Whole millimetres, so that what is solved once serves again.
        return $height < self::LOWEST || $height > self::HIGHEST ? null : round($height, 3);
    }
}
