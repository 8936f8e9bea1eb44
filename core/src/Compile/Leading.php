<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Path;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Motion\Model\MotionRecipe;

/** Who is led by the hand walks beside the one who leads, wherever that goes, a hand in a hand. */
final class Leading
{
    /** Metres beside and behind the one who leads, for two persons of 1.70 m. */
    private const BESIDE = 0.50;

    private const BEHIND = 0.10;

    /** Metres of the way from one place that is kept to the next. */
    private const EVERY = 0.5;

    /** Frames in which hands find each other, and let go. */
    private const EASE = 10;

    /** Whether a motion is one of who is led. */
    public static function isLed(?MotionRecipe $recipe): bool
    {
        return $recipe !== null && $recipe->number('led', 0.0) > 0.0;
    }

    /** On which side of the one who leads: 1 left. */
    public static function side(Beat $beat): float
    {
        $side = $beat->settings['side'] ?? 1.0;

        return is_numeric($side) && $side < 0 ? -1.0 : 1.0;
    }

    /**
     * The beat of who is led with its way.
     *
     * @param  LaneSegment  $leads  the walk of the one who leads
     * @param  float  $unit  size of the two, 1 for persons of 1.70 m
     * @return Beat|null null: it leads nowhere
     */
    public static function beat(Beat $led, Item $leader, LaneSegment $leads, float $unit): ?Beat
    {
        $place = Placement::standing($leader->position, $leader->headingDeg, $leader->scale);
        $walked = [];
        for ($f = $leads->start; $f < $leads->end; $f += 2.0) {
            $row = $leads->row($f);
            $walked[] = $place->point([$row[0], 0.0, $row[2]]);
        }
        $row = $leads->row($leads->end);
        $walked[] = $place->point([$row[0], 0.0, $row[2]]);
        $kept = [$walked[0]];
        foreach ($walked as $p) {
            $last = $kept[count($kept) - 1];
            if (hypot($p[0] - $last[0], $p[2] - $last[2]) >= self::EVERY) {
                $kept[] = $p;
            }
        }
        if (count($kept) < 2) {
            return null;
        }
        $kept[] = $walked[count($walked) - 1];
        $side = self::side($led);
        $points = [];
        $heading = 0.0;
        foreach ($kept as $k => [$x, , $z]) {
            $next = $kept[$k + 1] ?? null;
            // The last stretch may be short, and is walked as the one before it.
            $heading = $next === null || hypot($next[0] - $x, $next[2] - $z) < 0.2 ? $heading : atan2($next[0] - $x, $next[2] - $z);
            $points[] = [
                $x + (cos($heading) * $side * self::BESIDE - sin($heading) * self::BEHIND) * $unit,
                $z + (-sin($heading) * $side * self::BESIDE - cos($heading) * self::BEHIND) * $unit, $heading,
            ];
        }
        [$x, $z, $first] = array_shift($points);
        $path = new Path(
            array_map(static fn (array $p): array => [$p[0], $p[1]], $points), arrive: (int) ceil($leads->end), faceDeg: rad2deg($heading),
            from: [$x, $place->position[1], $z, rad2deg($first)],
        );

        return new Beat(
            $led->id, $led->item, $led->motion, (int) $leads->start, join: $led->join, joinFrames: $led->joinFrames,
            settings: $led->settings, path: $path, play: new Play(with: $led->play->with),
        );
    }

    /**
     * Hands that hold each other while somebody is led.
     *
     * @return list<Contact>
     */
    public static function hands(Draft $draft, MotionTables $motions): array
    {
        $out = [];
        foreach ($draft->lanes() as $item => $lane) {
            foreach ($lane->segments as $s) {
                $leads = $s->isBetween() || ! self::isLed(
                    $motions->recipeOf($s->from),
                ) ? null : $draft->document->beat($s->from->play->with);
                if ($leads === null) {
                    continue;
                }
                [$own, $their] = self::side($s->from) > 0.0 ? ['handR', 'handL'] : ['handL', 'handR'];
                $out[] = new Contact(
                    "led {$s->beat}", (string) $item, $own, $leads->item, $their, from: (int) $s->start + self::EASE,
                    to: (int) ceil($s->end) - 2, easeIn: self::EASE, easeOut: self::EASE,
                );
            }
        }

        return $out;
    }
}
