<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Rig\Figure;

/**
 * Beats to segments: motions solved or fetched for the figure, in-points and speeds settled, and each beat carried on
 * from where the one before it left the planted feet.
 */
final class LaneCompiler
{
    /** Frames that a walk which does not stop goes on for under what follows. */
    private const BEYOND = 12.0;

    /** @var list<Finding> */
    private array $notes = [];

    /** @var array<string, Lane> */
    private array $lanes = [];

    /** @var array<string, true> performers whose lanes are being made */
    private array $open = [];

    private readonly MotionTables $motions;

    private readonly StanceChanges $stances;

    private readonly Pairing $pairing;

    private readonly PairTables $pairs;

    private readonly Rides $rides;

    private readonly Seats $seats;

    /** @param  \Closure(Item): (Figure|null)  $figures */
    public function __construct(
        private readonly Document $document,
        private readonly AssetSource $assets,
        \Closure $figures,
        private readonly Surroundings $around,
        OwnPlaces $places,
        Memory $memory = new Memory,
    ) {
        $this->rides = new Rides($document, $assets, $places, $around);
        $this->motions = new MotionTables($document, $assets, $memory);
        $this->seats = new Seats($around);
        $this->stances = new StanceChanges($document, $this->motions, $memory, $this->seats);
        $this->pairs = new PairTables($document, $assets, $figures, $memory);
        $open = fn (Item $i, Figure $f): ?Lane => isset($this->open[$i->id]) ? null : $this->lane($i, $f);
        $this->pairing = new Pairing($document, $this->motions, $figures, $open, $this->along(...));
    }

    /** @return list<Finding> what was noted of a performer's lane */
    public function notesOf(Item $item): array
    {
        return array_values(array_filter($this->notes, static fn (Finding $n): bool => $n->about[0] === $item->id));
    }

    public function lane(Item $item, Figure $figure): Lane
    {
        if (! isset($this->lanes[$item->id])) {
            $this->open[$item->id] = true;
            $this->lanes[$item->id] = $this->made($item, $figure);
            unset($this->open[$item->id]);
        }

        return $this->lanes[$item->id];
    }

    private function made(Item $item, Figure $figure): Lane
    {
        $beats = array_values(array_filter($this->document->beats, static fn (Beat $b): bool => $b->item === $item->id));
        usort($beats, static fn (Beat $a, Beat $b): int => [$a->start, $a->id] <=> [$b->start, $b->id]);
        $segments = [];
        $layers = [];
        $onGround = $figure->isHuman() && ! $item->moves()
            && array_filter($this->document->links, static fn (Link $l): bool => $l->child === $item->id) === [];
        foreach ($beats as $beat) {
            if ($beat->play->layer > 0) {
                $layers[] = $this->segment($beat, $item, $figure);

                continue;
            }
            $last = $segments[count($segments) - 1] ?? null;
            if ($last !== null) {
                array_push($segments, ...$this->stances->changes($last, $beat, $item, $figure));
                $last = $segments[count($segments) - 1];
            }
            $stance = CarryingOn::stance($last, $beat, $figure);
            $along = $figure->isHuman() ? $this->goingAlong($beat, $item, $figure, $last, $stance) : [];
            if ($along !== []) {
                array_push($segments, ...$along);

                continue;
            }
            if ($beat->path !== null && ($beat->path->from !== null || PathStart::leadsSomewhere($beat->path, $stance, $item))) {
                $segments[] = $this->walk($beat, $item, $figure, $stance, $last->ground ?? 0.0);

                continue;
            }
            if ($beat->path !== null) {
                $this->notes[] = LaneNotes::leadsNowhere($beat, $item);
            }
            $segment = $beat->path === null ? $this->segment(
                $beat, $item, $figure, CarryingOn::entered($last, $beat, $figure, $this->document->rate->perSecond()),
            ) : $this->motions->stood($beat, $figure);
            $seated = $last === null ? null : $this->stances->seated($last, $segment, $figure);
            if ($seated !== null) {
                $segments[] = $seated;

                continue;
            }
            $segment = $this->carriedOn($last, $stance, $segment, $item, $figure);
            if ($beat->play->with !== '' && $this->pairing->pair($segment, $item, $figure) && $beat->start > 0) {
                $way = $this->pairing->approach($last, $stance, $segment, $item, $figure);
                $segments = $way === null ? $segments : [...$segments, $way];
            }
            $segments[] = $onGround ? $this->grounded($segment, $item, $figure, $stance, $last->ground ?? 0.0) : $segment;
        }
        usort(
            $layers,
            static fn (LaneSegment $a, LaneSegment $b): int => [$a->from->play->layer, $a->start] <=> [$b->from->play->layer, $b->start],
        );

        array_push($this->notes, ...LaneNotes::covered($this->document, $segments, $item), ...LaneNotes::held($segments, $item));
        array_push($this->notes, ...$this->pairing->notes());

        $life = Lane::life($item, $figure, $this->document->rate->perSecond());

        return new Lane($figure, $segments, $this->motions->standing($figure), $layers, $life);
    }

    /**
     * A beat on what is below it; a plain walk goes over it foot by foot.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     */
    private function grounded(LaneSegment $segment, Item $item, Figure $figure, ?array $stance, float $ground): LaneSegment
    {
        $segment->fit = GroundFit::of($segment, $item, $figure, $this->around, $this->assets, $this->document->rate->perSecond());
        if ($segment->fit === null) {
            return $segment;
        }
        $way = OverGround::walk($segment, $this->motions->recipeOf($segment->from), $item);
        $segment->ground = $segment->lift + $segment->fit->end;

        return $way === null ? $segment : $this->walk($way, $item, $figure, $stance, $ground);
    }

    /**
     * A beat from where the one before it left the feet; who sits in it does so on what is there.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     */
    private function carriedOn(?LaneSegment $last, ?array $stance, LaneSegment $segment, Item $item, Figure $figure): LaneSegment
    {
        CarryingOn::carryOn($last, $stance, $segment, $figure);
        $seat = $this->seats->below($segment, $this->motions->recipeOf($segment->from), $item, $figure, $last);
        if ($seat !== null) {
            $segment = $this->segment($segment->from, $item, $figure, ['seat' => $seat]);
            CarryingOn::carryOn($last, $stance, $segment, $figure);
        }

        return $segment;
    }

    /**
     * What is done on a thing, on somebody's arms or by somebody's hand, after the way there; nothing: it is none of these.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     * @return list<LaneSegment>
     */
    private function goingAlong(Beat $beat, Item $item, Figure $figure, ?LaneSegment $last, ?array $stance): array
    {
        $thing = $this->rides->thing($beat);
        if ($thing !== null) {
            return $this->ridden($beat, $thing, $item, $figure, $last, $stance);
        }
        $borne = $this->pairing->borne($beat, $item, $figure);
        $led = $borne === null ? $this->pairing->led($beat, $item, $figure) : null;
        if ($borne !== null) {
            $segment = $this->segment($beat, $item, $figure, ['bearer' => round($borne[1], 3)]);
            CarryingOn::carryOn(null, null, $segment, $figure);
            $segment->riding = $borne[0];
        } elseif ($led !== null) {
            $segment = $this->walk($led, $item, $figure, $stance, $last->ground ?? 0.0);
        } else {
            return [];
        }
        $way = $beat->start > 0 ? $this->pairing->approach($last, $stance, $segment, $item, $figure) : null;

        return $way === null ? [$segment] : [$way, $segment];
    }

    /**
     * What is done on a thing, after the way to it.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     * @return list<LaneSegment>
     */
    private function ridden(Beat $beat, Item $thing, Item $item, Figure $figure, ?LaneSegment $last, ?array $stance): array
    {
        $recipe = $this->motions->recipeOf($beat);
        $way = $recipe !== null && $recipe->model === 'mount' ? $recipe->text('way') : '';
        $side = $beat->settings['side'] ?? null;
        $facts = $way === '' ? [] : $this->rides->facts(
            $thing, $item, $beat->start + ($way === 'off' ? $beat->play->holdBefore : 0), is_numeric($side) ? (float) $side : null,
        );
        $segment = $this->segment($beat, $item, $figure, $facts);
        $segment->lives = $segment->lives && $way !== 'wait';
        CarryingOn::carryOn(null, null, $segment, $figure);
        $segment->riding = $this->rides->riding($thing, $item, $figure);
        $out = [$segment];
        if ($way === 'on' && $beat->start > 0) {
            $segment->ground = $segment->riding->at($segment->start)->position[1] + $facts['ground'];
            $walk = $this->pairing->approach($last, $stance, $segment, $item, $figure);
            $out = $walk === null ? $out : [$walk, $segment];
        }
        $segment->ground = $segment->riding->at($segment->end)->position[1] + ($way === 'off' ? $facts['ground'] : 0.0);

        return $out;
    }

    /** @param  array<string, float>  $facts  numbers that the beat's own settings do not know */
    private function segment(Beat $beat, Item $item, Figure $figure, array $facts = []): LaneSegment
    {
        $asset = $this->document->assets[$beat->motion];
        [$table, $key] = $this->motions->table($asset, $beat->settings + $facts, $item, $figure);
        $half = $this->pairs->half($beat, $item, $figure, $this->motions);
        if ($half !== null) {
            [$table, $key, $miss] = $half;
            $this->pairing->noteMiss($beat, $item, $miss);
        } else {
            array_push($this->notes, ...LaneNotes::alone($this->document, $beat, $item, $asset->name, $this->motions->recipeOf($beat)));
        }
        $round = $this->motions->round($beat, $table, $key, $figure);
        $segment = $round === null
            ? $this->motions->placed($beat, $table, $key, $figure, 1.0)
            : $this->motions->placed($beat, $round['table'], $round['key'], $figure, 1.0, [$round['from'], $round['to']]);
        if ($round !== null) {
            $this->notes[] = LaneNotes::round($beat, $item, $asset->name, $round['from'], $round['to'], $round['distance']);
        }
        $recipe = $this->motions->recipe($asset, $beat->settings);
        $segment->lives = $recipe !== null;
        $rise = $recipe?->rise() ?? 0.0;
        $segment->rise = $rise === 0.0 ? 0.0 : $rise * $figure->body()->scale;

        return $segment;
    }

    /**
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     */
    private function walk(Beat $beat, Item $item, Figure $figure, ?array $stance, float $ground): LaneSegment
    {
        $asset = $this->document->assets[$beat->motion];
        $recipe = $this->motions->recipe($asset, $beat->settings);
        if ($recipe === null || ! in_array($recipe->model, ['walk', 'walkToMark'], true)) {
            throw UnableToCompile::noPathFor($asset->name);
        }
        if (! $figure->isHuman()) {
            throw UnableToCompile::noFigure($asset->name, $item->name);
        }
        [$from, $ground] = PathStart::of($beat, $item, $stance, $ground);

        return $this->along($beat, $item, $figure, $recipe, $from, $ground);
    }

    /** @param  array{float, float, float}  $from  x, z, heading of the stand before, in lane space */
    private function along(Beat $beat, Item $item, Figure $figure, MotionRecipe $recipe, array $from, float $ground): LaneSegment
    {
        $seconds = $beat->path?->arrive === null
            ? 0.0
            : max(0.5, $this->document->rate->seconds((float) ($beat->path->arrive - $beat->start + $beat->play->skip)));
        $walk = new PathWalk($beat, $item, $figure, $recipe, $this->around, $from, $ground, $seconds);
        [$table, $key, $end] = $walk->table($this->assets);
        array_push($this->notes, ...$walk->notes());
        $goesOn = $beat->path?->goesOn === true;
        $segment = $this->motions->placed($beat, $table, $key, $figure, $walk->pace, $goesOn ? [0.0, $walk->passes] : null);
        $segment->timing->beyond = $goesOn ? self::BEYOND : 0.0;
        $segment->ground = $end;
        $segment->lives = true;
        $segment->origin = [$from[0], $ground, $from[1], $from[2]];

        return $segment;
    }
}
