<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Scores\Stances;
use CrispReel\Core\Rig\Figure;

/** What is put between two beats of unlike stance, unasked: who lies gets up to walk, who sits waves seated. */
final readonly class StanceChanges
{
    /** Frames that a stance is held before it is left, and how much faster than written it may be. */
    private const HELD = 6;

    private const HURRY = 1.7;

    public function __construct(
        private Document $document, private MotionTables $motions, private Memory $memory, private Seats $seats,
    ) {
    }

    /**
     * What leads from how the body is held to how a beat wants it: it ends where the beat begins, over the end of what was before.
     *
     * @return list<LaneSegment>
     */
    public function changes(LaneSegment $last, Beat $beat, Item $item, Figure $figure): array
    {
        $recipe = $beat->play->stance === 'own' || ! $figure->isHuman() ? null : $this->motions->recipeOf($beat);
        $before = $this->motions->recipeOf($last->from);
        if ($recipe === null || $before === null) {
            return [];
        }
        [$from, $to] = [$last->stance ?? Stances::ends($before)[1], Stances::ends($recipe)[0]];
        if ($from === 'sit' && Stances::seated($recipe)) {
            return [];
        }
        $scores = Stances::between($from, $to);
        $tables = array_map(
            fn (string $score): array => $this->motions->kept(new MotionRecipe('act', ['score' => $score, 'seed' => 3]), $figure),
            $scores,
        );
        $rate = $this->document->rate->perSecond();
        $takes = array_sum(array_map(static fn (array $t): float => $t[0]->seconds() * $rate, $tables));
        // A way is walked to its end; what stays in its place may be left before.
        $free = $beat->start - ($last->from->path === null ? $last->start + self::HELD : $last->end);
        if ($tables === [] || $free <= 0.0 || $free * self::HURRY < $takes) {
            return [];
        }
        $pace = max(1.0, $takes / $free);
        $at = $beat->start - $takes / $pace;
        $out = [];
        foreach ($tables as $k => [$table, $key]) {
            $change = new Beat("{$beat->id}~{$k}", $beat->item, $beat->motion, (int) round($at));
            $led = new MotionRecipe('act', ['score' => $scores[$k], 'seed' => 3]);
            $segment = $this->led($last, $change, $table, $key, $pace / $rate, $led, $figure);
            $seat = $this->seats->below($segment, $led, $item, $figure, $last);
            if ($seat !== null) {
                [$table, $key] = $this->motions->kept($led->with(['seat' => $seat]), $figure);
                $segment = $this->led($last, $change, $table, $key, $pace / $rate, $led, $figure);
            }
            $out[] = $last = $segment;
            $at += $table->seconds() * $rate / $pace;
        }

        return $out;
    }

    /** One of the motions that lead from stance to stance, carried on from what is before it. */
    private function led(
        LaneSegment $last, Beat $change, ClipTable $table, string $key, float $pace, MotionRecipe $recipe, Figure $figure,
    ): LaneSegment {
        $timing = new Timing($change->play, 0.0, $table->seconds(), $table->seconds(), $pace, 1, null);
        $segment = new LaneSegment($change, $table, $key, 0.0, $table->seconds(), $timing, $figure->hips);
        $segment->lives = true;
        $segment->stance = Stances::ends($recipe)[1];
        CarryingOn::carryOn($last, CarryingOn::stance($last, $change, $figure), $segment, $figure);

        return $segment;
    }

    /** The same done by who sits already; null where that is not so. */
    public function seated(LaneSegment $last, LaneSegment $segment, Figure $figure): ?LaneSegment
    {
        $beat = $segment->from;
        $recipe = $this->motions->recipeOf($beat);
        $before = $this->motions->recipeOf($last->from);
        $sits = $recipe !== null && $before !== null && $beat->play->stance === 'fit' && $beat->play->with === '' && $beat->path === null
            && ($last->stance ?? Stances::ends($before)[1]) === 'sit' && Stances::seated($recipe);
        if (! $sits || PairTables::partner($this->document, $beat) !== null) {
            return null;
        }
        $row = $last->row($last->from->play->keepLooping ? $segment->start : min($segment->start, $last->end));
        $key = hash('sha256', 'seated '.$segment->tableKey.pack('g*', ...$row));
        $table = $this->memory->of("clip {$key}", static fn (): ClipTable => Seated::table($figure, $segment->table, $row));
        $out = new LaneSegment($beat, $table, $key, $segment->in, $segment->out, $segment->timing, $figure->hips);
        $out->lives = $segment->lives;
        $out->stance = 'sit';
        $out->ground = $last->ground;

        return $out;
    }
}
