<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Measured;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Meeting\Meetings;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Rig\Figure;

/** Stands the second of a pair to the first, and brings it there. */
final class Pairing
{
    /** Metres by which hands may miss their places untold. */
    private const PAIR_MISS = 0.02;

    /** @var list<Finding> */
    private array $notes = [];

    /**
     * @param  Closure(Item): (Figure|null)  $figures
     * @param  Closure(Item, Figure): (Lane|null)  $lane  somebody's lane; null while it is being made itself
     * @param  Closure(Beat, Item, Figure, MotionRecipe, array{float, float, float}, float): LaneSegment  $along
     */
    public function __construct(
        private readonly Document $document,
        private readonly MotionTables $motions,
        private readonly Closure $figures,
        private readonly Closure $lane,
        private readonly Closure $along,
    ) {
    }

    /** @return list<Finding> what was noted since this was asked last */
    public function notes(): array
    {
        [$notes, $this->notes] = [$this->notes, []];

        return $notes;
    }

    /**
     * The one on whose arms somebody is in a beat, with its size over that of the one who is carried; null: on nobody's.
     *
     * @return array{Riding, float}|null
     */
    public function borne(Beat $beat, Item $item, Figure $figure): ?array
    {
        $bearer = Bearing::isBorne($this->motions->recipeOf($beat)) ? $this->partner($beat) : null;
        if ($bearer === null) {
            return null;
        }
        [$other, $its, $lane] = $bearer;

        return [
            Bearing::riding($item, $figure, $other, $lane),
            $its->body()->scale * $other->scale / ($figure->body()->scale * $item->scale),
        ];
    }

    /** The beat of somebody who is led, with the way of the one who leads; null: nobody does. */
    public function led(Beat $beat, Item $item, Figure $figure): ?Beat
    {
        $leader = Leading::isLed($this->motions->recipeOf($beat)) ? $this->partner($beat) : null;
        foreach ($leader[2]->segments ?? [] as $s) {
            if ($leader !== null && $s->beat === $beat->play->with) {
                $unit = ($leader[1]->body()->scale * $leader[0]->scale + $figure->body()->scale * $item->scale) / 2;

                return Leading::beat($beat, $leader[0], $s, $unit);
            }
        }

        return null;
    }

    /**
     * Whom a beat is tied to, with their lane.
     *
     * @return array{Item, Figure, Lane}|null null: to nobody, or they wait for this one
     */
    private function partner(Beat $beat): ?array
    {
        $with = $this->document->beat($beat->play->with);
        $other = $with === null || $with->item === $beat->item ? null : $this->document->items[$with->item];
        $its = $other === null ? null : ($this->figures)($other);
        $lane = $other === null || $its === null ? null : ($this->lane)($other, $its);

        return $other === null || $its === null || $lane === null ? null : [$other, $its, $lane];
    }

    /** Stands a performer to the one of another beat as their motions were made; false where there is none. */
    public function pair(LaneSegment $segment, Item $item, Figure $figure): bool
    {
        $with = $this->document->beat($segment->from->play->with);
        $other = $with === null || $with->item === $item->id ? null : $this->document->items[$with->item];
        $its = $other === null ? null : ($this->figures)($other);
        if ($with === null || $other === null || $its === null) {
            return false;
        }
        $lane = ($this->lane)($other, $its);
        if ($lane === null) {
            $this->notes[] = new Finding(
                'pair.circle', Severity::Harms, "{$item->name} and {$other->name} wait for each other.",
                remedy: 'Untie one of the two beats.', about: [$item->id, $segment->beat],
                frames: [$segment->from->start, $segment->from->start],
                mends: [new Mend('Untie this one', [Command::of('beat.pair', beat: $segment->beat, with: null)])],
            );

            return false;
        }
        foreach ($lane->segments as $s) {
            if ($s->beat === $with->id) {
                $there = Placement::standing($other->position, $other->headingDeg, $other->scale);
                $at = $there->point([$s->move[0], 0.0, $s->move[1]]);
                $stand = [$at[0], $at[2], $s->move[2] + deg2rad($other->headingDeg)];
                $stand = LaneSegment::after($stand, $this->apart($with, $segment->from));
                $here = Placement::standing($item->position, $item->headingDeg, $item->scale);
                $p = $here->inverse()->point([$stand[0], $here->position[1], $stand[1]]);
                $segment->move = [$p[0], $p[2], $stand[2] - deg2rad($item->headingDeg)];
                $segment->carried();

                return true;
            }
        }

        return false;
    }

    /**
     * The way to where a pair stands, before its motion begins.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     */
    public function approach(?LaneSegment $last, ?array $stance, LaneSegment $to, Item $item, Figure $figure): ?LaneSegment
    {
        $rate = $this->document->rate->perSecond();
        $row = $last === null ? $this->motions->standing($figure) : $last->row(min($to->start, $last->end));
        $stance ??= CarryingOn::footing($row, $figure, 0.0, 0.0);
        $goes = CarryingOn::footing($to->row($to->start), $figure, $to->lift, $to->ground);
        $ground = $last->ground ?? 0.0;
        $recipe = new MotionRecipe('walkToMark', ['speed' => 1.15, 'seed' => 3]);
        $from = CarryingOn::anchor($stance, $goes, 'foot');
        $walk = fn (Beat $b): LaneSegment => ($this->along)($b, $item, $figure, $recipe, $from, $ground);
        $free = match (true) {
            $last === null => 0.0, $last->from->play->keepLooping => $last->start + $rate, default => $last->end,
        };
        [$way, $note] = (new Approach($item, $figure, $rate, $walk))->before(
            $to, $row, $from, CarryingOn::anchor($goes, $stance, 'foot'), $free,
        );
        array_push($this->notes, ...($note === null ? [] : [$note]));

        return $way;
    }

    /**
     * Where the second of a pair has its origin, seen from the first's: generated halves face each other at their gap,
     * recorded ones share one origin.
     *
     * @return array{float, float, float}
     */
    private function apart(Beat $first, Beat $second): array
    {
        $a = $this->motions->recipeOf($first);
        $b = $this->motions->recipeOf($second);
        if ($a === null || $b === null) {
            return [0.0, 0.0, 0.0];
        }

        [$pair] = Meetings::half($a);

        return [0.0, $pair === '' ? $a->number('gap', 1.02) : Meetings::all()[$pair]['gap'], M_PI];
    }

    /** Hands that cannot reach where they are to lie are told once, with the one who is tied to the other. */
    public function noteMiss(Beat $beat, Item $item, float $miss): void
    {
        if ($beat->play->with !== '' && $miss > self::PAIR_MISS) {
            $this->notes[] = new Finding(
                'pair.short', Severity::Look,
                sprintf('In "%s" a hand misses its place by %.0f cm.', $this->document->assets[$beat->motion]->name, 100 * $miss),
                remedy: 'Choose two of more equal height, or another motion.', about: [$item->id, $beat->id],
                frames: [$beat->start, $beat->start],
                figures: [new Measured('misses', $miss, 'm', self::PAIR_MISS)],
            );
        }
    }
}
