<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Document\Measured;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Path;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Meeting\Meetings;
use CrispReel\Core\Motion\Life;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Repeat;
use CrispReel\Core\Rig\Figure;

/**
 * Beats to segments: motions solved or fetched for the figure, in-points and speeds settled, and each beat carried on
 * from where the one before it left the planted feet.
 */
final class LaneCompiler
{
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

    /** @param  \Closure(Item): (Figure|null)  $figures */
    public function __construct(
        private readonly Document $document,
        private readonly AssetSource $assets,
        \Closure $figures,
        private readonly Surroundings $around,
        Memory $memory = new Memory,
    ) {
        $this->motions = new MotionTables($document, $assets, $memory);
        $this->stances = new StanceChanges($document, $this->motions, $memory);
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
                array_push($segments, ...$this->stances->changes($last, $beat, $figure));
                $last = $segments[count($segments) - 1];
            }
            $stance = CarryingOn::stance($last, $beat, $figure);
            if ($beat->path !== null && ($beat->path->from !== null || $this->leadsSomewhere($beat->path, $stance, $item))) {
                $segments[] = $this->walk($beat, $item, $figure, $stance, $last->ground ?? 0.0);

                continue;
            }
            if ($beat->path !== null) {
                $this->notes[] = new Finding(
                    'path.short', Severity::Look, "The path of {$item->name} leads nowhere.",
                    remedy: 'Draw a place that is farther away.', about: [$item->id, $beat->id], frames: [$beat->start, $beat->start],
                );
            }
            $segment = $beat->path === null ? $this->segment($beat, $item, $figure) : $this->motions->stood($beat, $figure);
            $seated = $last === null ? null : $this->stances->seated($last, $segment, $figure);
            if ($seated !== null) {
                $segments[] = $seated;

                continue;
            }
            CarryingOn::carryOn($last, $stance, $segment, $figure);
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

        $this->noteCovered($segments, $item);
        array_push($this->notes, ...$this->pairing->notes());

        return new Lane($figure, $segments, $this->motions->standing($figure), $layers, $this->life($item, $figure));
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

    /** Who has a head lives, unless that is switched off. */
    private function life(Item $item, Figure $figure): ?Life
    {
        return $item->kind !== 'performer' || $item->life === 'off' || ! isset($figure->skeleton->roles['head'])
            ? null
            : new Life($figure, $item->life, crc32($item->id), $this->document->rate->perSecond());
    }

    /**
     * What goes on under the beat that follows is not seen: said, unless it goes on by its nature or only while the two are joined.
     *
     * @param  list<LaneSegment>  $segments
     */
    private function noteCovered(array $segments, Item $item): void
    {
        foreach ($segments as $k => $s) {
            $next = $segments[$k + 1] ?? null;
            // What was put in between covers the end of what it leads away from.
            if ($next === null || $s->from->play->keepLooping || $next->isBetween()
                || $s->end <= $next->start + max(1, $next->joinFrames)) {
                continue;
            }
            $name = $this->document->assets[$s->from->motion]->name;
            $hidden = (int) ceil($s->end - $next->start);
            [$from, $to] = [(int) $next->start, (int) ceil($s->end)];
            $this->notes[] = new Finding(
                'beat.covered', Severity::Look,
                sprintf('%d frames of "%s" are not seen: what follows begins before it ends.', $hidden, $name),
                remedy: sprintf('Bring its end to frame %d, or what follows to frame %d.', $from, $to),
                about: [$item->id, $s->beat], frames: [$from, $to], figures: [new Measured('covered', $hidden, 'frames', 0.0)],
                mends: [new Mend('End it there', [Command::of('beat.trim', beat: $s->beat, edge: 'out', frame: $from)])],
            );
        }
    }

    /** @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance */
    private function leadsSomewhere(Path $path, ?array $stance, Item $item): bool
    {
        $from = $stance === null ? [0.0, 0.0, 0.0] : CarryingOn::anchor($stance, $stance, 'foot');
        $at = Placement::standing($item->position, $item->headingDeg, $item->scale)->point([$from[0], 0.0, $from[1]]);
        foreach ($path->points as [$x, $z]) {
            if (hypot($x - $at[0], $z - $at[2]) > 0.15) {
                return true;
            }
        }

        return false;
    }

    private function segment(Beat $beat, Item $item, Figure $figure): LaneSegment
    {
        $asset = $this->document->assets[$beat->motion];
        [$table, $key] = $this->motions->table($asset, $beat->settings, $item, $figure);
        $half = $this->pairs->half($beat, $item, $figure, $this->motions);
        if ($half !== null) {
            [$table, $key, $miss] = $half;
            $this->pairing->noteMiss($beat, $item, $miss);
        } else {
            $this->noteAlone($beat, $item, $asset->name);
        }
        $round = $this->motions->round($beat, $table, $key, $figure);
        $segment = $round === null
            ? $this->motions->placed($beat, $table, $key, $figure, 1.0)
            : $this->motions->placed($beat, $round['table'], $round['key'], $figure, 1.0, [$round['from'], $round['to']]);
        if ($round !== null) {
            $this->noteRound($beat, $item, $asset->name, $round['from'], $round['to'], $round['distance']);
        }
        $recipe = $this->motions->recipe($asset, $beat->settings);
        $segment->lives = $recipe !== null;
        $rise = $recipe?->rise() ?? 0.0;
        $segment->rise = $rise === 0.0 ? 0.0 : $rise * $figure->body()->scale;

        return $segment;
    }

    /** What takes two is done with somebody, or said to be done into the air. */
    private function noteAlone(Beat $beat, Item $item, string $name): void
    {
        $recipe = $this->motions->recipeOf($beat);
        $half = $recipe !== null && $recipe->model === 'act' && Meetings::half($recipe)[0] !== '';
        if ($half && PairTables::partner($this->document, $beat) === null) {
            $this->notes[] = new Finding(
                'pair.alone', Severity::Look, sprintf('%s does "%s" with nobody.', $item->name, $name), 'It is done into the air.',
                'Bring somebody within 5 m and click it again, or tie it to another\'s beat under With.',
                [$item->id, $beat->id], [$beat->start, $beat->start],
            );
        }
    }

    /** Where a recording goes round is said; what cannot go round without a jump as well. */
    private function noteRound(Beat $beat, Item $item, string $name, float $from, float $to, float $off): void
    {
        $fits = $off <= Repeat::FITS;
        $this->notes[] = new Finding(
            $fits ? 'repeat.from' : 'repeat.none', $fits ? Severity::Fyi : Severity::Look,
            $fits
                ? sprintf('"%s" goes round from second %.2f to %.2f, where it fits best (%.0f cm off).', $name, $from, $to, 100 * $off)
                : sprintf('"%s" cannot go round: the best place to begin again is %.0f cm off.', $name, 100 * $off),
            $fits ? '' : 'The body jumps at each round.',
            $fits ? 'Trim it, and it goes round where it is trimmed.' : 'Play it once, or trim it to a part that ends as it begins.',
            [$item->id, $beat->id], [$beat->start, $beat->start], [new Measured('off', round($off, 3), 'm', Repeat::FITS)],
            $fits ? [] : [new Mend(
                'Play it once', [Command::of('beat.set', beat: $beat->id, loops: 1, play: ['fill' => null, 'keepLooping' => null])],
            )],
        );
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
        $from = $stance === null ? [0.0, 0.0, 0.0] : CarryingOn::anchor($stance, $stance, 'foot');
        if ($beat->path?->from !== null) {
            [$x, $y, $z, $heading] = $beat->path->from;
            $at = Placement::standing($item->position, $item->headingDeg, $item->scale)->inverse()->point([$x, $y, $z]);
            [$from, $ground] = [[$at[0], $at[2], deg2rad($heading - $item->headingDeg)], $at[1]];
        }

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
        $segment = $this->motions->placed($beat, $table, $key, $figure, $walk->pace);
        $segment->ground = $end;
        $segment->lives = true;
        $segment->origin = [$from[0], $ground, $from[1], $from[2]];

        return $segment;
    }
}
