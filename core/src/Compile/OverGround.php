<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Path;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Motion\Model\MotionRecipe;

/**
 * Walks that nobody has drawn a way for, over ground that is not even: they go where they would have gone, foot by foot over
 * what is there, for as long as they would have.
 */
final class OverGround
{
    /** A walk shorter than this, metres of the scene, is fitted as it is. */
    private const LEAST = 0.8;

    /**
     * The beat with the way that it goes; null where it is no plain walk.
     *
     * @param  LaneSegment  $flat  the walk on even ground, carried on from what was before
     */
    public static function walk(LaneSegment $flat, ?MotionRecipe $recipe, Item $item): ?Beat
    {
        $beat = $flat->from;
        $play = $beat->play;
        if (
            $recipe === null || ! in_array($recipe->model, ['walk', 'walkToMark'], true) || $beat->root !== 'travel' || $play->reverse
                || $play->ease !== null || $play->speeds !== [] || $play->keepLooping || $play->with !== '' || $play->holdBefore > 0
                || $play->holdAfter > 0 || $play->skip > 0 || $play->mirror || $play->energy !== 1.0 || $play->hipOffset !== 0.0
                || $beat->sourceIn > 0.0 || $beat->sourceOut !== null || $flat->timing->frames < 6
        ) {
            return null;
        }
        $place = Placement::standing($item->position, $item->headingDeg, $item->scale);
        [$a, $b] = [$flat->row($flat->start), $flat->row($flat->end)];
        $from = $place->point([$a[0], 0.0, $a[2]]);
        $to = $place->point([$b[0], 0.0, $b[2]]);
        if (hypot($to[0] - $from[0], $to[2] - $from[2]) < self::LEAST) {
            return null;
        }
        // An endless walk is cut where it would have been, in the middle of a step; one to a mark takes the time it needs.
        $length = $recipe->model === 'walk' ? max(1, (int) round($flat->timing->frames)) : $play->length;

        return new Beat(
            $beat->id, $beat->item, $beat->motion, $beat->start, speed: $beat->speed, join: $beat->join, joinFrames: $beat->joinFrames,
            settings: $beat->settings, path: new Path([[$to[0], $to[2]]]),
            play: new Play(length: $length, armWidthDeg: $play->armWidthDeg, anchor: $play->anchor, stance: $play->stance),
        );
    }
}
