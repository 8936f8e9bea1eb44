<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetRef;
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
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Life;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Motion\Scores\Meetings;
use CrispReel\Core\Rig\Figure;

/**
 * Beats to segments: motions solved or fetched for the figure, in-points and speeds settled, and each beat carried on
 * from where the one before it left the planted feet.
 */
final class LaneCompiler
{
    /** @var list<Finding> */
    private array $notes = [];

    /** @var array<string, ClipTable> what several beats play is unpacked once */
    private array $tables = [];

    /** @var array<string, Lane> */
    private array $lanes = [];

    /** @var array<string, true> performers whose lanes are being made */
    private array $open = [];

    /** @param  \Closure(Item): (Figure|null)  $figures */
    public function __construct(
        private readonly Document $document,
        private readonly AssetSource $assets,
        private readonly \Closure $figures,
        private readonly Surroundings $around,
        private readonly Memory $memory = new Memory,
    ) {
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
            $stance = $this->stance($last, $beat, $figure);
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
            $segment = $beat->path === null ? $this->segment($beat, $item, $figure) : $this->stood($beat, $figure);
            $this->carryOn($last, $stance, $segment, $figure);
            if ($beat->play->with !== '' && $this->pair($segment, $item, $figure) && $beat->start > 0) {
                $way = $this->approach($last, $stance, $segment, $item, $figure);
                $segments = $way === null ? $segments : [...$segments, $way];
            }
            if ($onGround) {
                $segment->fit = GroundFit::of($segment, $item, $figure, $this->around, $this->assets, $this->document->rate->perSecond());
                $segment->ground = $segment->fit === null ? $segment->ground : $segment->lift + $segment->fit->end;
            }
            $segments[] = $segment;
        }
        usort(
            $layers,
            static fn (LaneSegment $a, LaneSegment $b): int => [$a->from->play->layer, $a->start] <=> [$b->from->play->layer, $b->start],
        );

        $this->noteCovered($segments, $item);

        return new Lane($figure, $segments, $this->standing($figure), $layers, $this->life($item, $figure));
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
            if ($next === null || $s->from->play->keepLooping || $s->end <= $next->start + max(1, $next->joinFrames)) {
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
        $from = $stance === null ? [0.0, 0.0, 0.0] : $this->anchor($stance, $stance, 'foot');
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
        [$table, $key] = $this->table($asset, $beat->settings, $item, $figure);
        $half = (new PairTables($this->document, $this->assets, $this->figures, $this->memory))->half(
            $beat,
            $item,
            $figure,
            fn (Beat $b): ?MotionRecipe => $this->recipe($this->document->assets[$b->motion], $b->settings),
            $this->kept(...),
        );
        if ($half !== null) {
            [$table, $key, $miss] = $half;
            $this->noteMiss($beat, $item, $miss);
        }
        $segment = $this->placed($beat, $table, $key, $figure, 1.0);
        $recipe = $this->recipe($asset, $beat->settings);
        $segment->lives = $recipe !== null;
        $rise = $recipe?->rise() ?? 0.0;
        $segment->rise = $rise === 0.0 ? 0.0 : $rise * $figure->body()->scale;

        return $segment;
    }

    /** Hands that cannot reach where they are to lie are told once, with the one who is tied to the other. */
    private function noteMiss(Beat $beat, Item $item, float $miss): void
    {
        if ($beat->play->with !== '' && $miss > self::PAIR_MISS) {
            $this->notes[] = new Finding(
                'pair.short', Severity::Look,
                sprintf('In "%s" a hand misses its place by %.0f cm.', $this->document->assets[$beat->motion]->name, 100 * $miss),
                remedy: 'Choose two of more equal height, or another motion.', about: [$item->id, $beat->id], frames: [$beat->start, $beat->start],
                figures: [new Measured('misses', $miss, 'm', self::PAIR_MISS)],
            );
        }
    }

    private function placed(Beat $beat, ClipTable $table, string $key, Figure $figure, float $pace): LaneSegment
    {
        $wanted = Adjust::key($key, $beat->play);
        if ($wanted !== $key) {
            [$table, $key] = [$this->tables[$wanted] ?? Adjust::table($this->assets, $table, $wanted, $beat->play, $figure), $wanted];
        }
        $table = $this->tables[$key] ??= $table;
        $in = min($beat->sourceIn, $table->seconds());
        $out = min($beat->sourceOut ?? $table->seconds(), $table->seconds());
        if ($out - $in < 1e-4) {
            throw UnableToCompile::emptyMotion($this->document->assets[$beat->motion]->name);
        }
        $fill = $beat->play->fill === null ? null : (float) max(1, $beat->play->fill - $beat->start);
        $timing = new Timing(
            $beat->play, $in, $out, $table->seconds(), $this->document->rate->seconds(1.0) * $beat->speed * $pace, $beat->loops, $fill,
        );

        return new LaneSegment($beat, $table, $key, $in, $out, $timing, $figure->hips);
    }

    /**
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $stance
     */
    private function walk(Beat $beat, Item $item, Figure $figure, ?array $stance, float $ground): LaneSegment
    {
        $asset = $this->document->assets[$beat->motion];
        $recipe = $this->recipe($asset, $beat->settings);
        if ($recipe === null || ! in_array($recipe->model, ['walk', 'walkToMark'], true)) {
            throw UnableToCompile::noPathFor($asset->name);
        }
        if (! $figure->isHuman()) {
            throw UnableToCompile::noFigure($asset->name, $item->name);
        }
        $from = $stance === null ? [0.0, 0.0, 0.0] : $this->anchor($stance, $stance, 'foot');
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
        $segment = $this->placed($beat, $table, $key, $figure, $walk->pace);
        $segment->ground = $end;
        $segment->lives = true;
        $segment->origin = [$from[0], $ground, $from[1], $from[2]];

        return $segment;
    }

    /** @param  array<string, mixed>  $settings */
    private function recipe(AssetRef $asset, array $settings): ?MotionRecipe
    {
        $digest = $this->assets->digest($asset);
        if (! isset($digest['recipe'])) {
            return null;
        }

        /** @var array{model: string, settings?: array<string, mixed>} $r */
        $r = $digest['recipe'];

        return (new MotionRecipe($r['model'], $r['settings'] ?? []))->with($settings);
    }

    /**
     * @param  array<string, mixed>  $settings
     * @return array{ClipTable, string}
     */
    private function table(AssetRef $asset, array $settings, Item $item, Figure $figure): array
    {
        $recipe = $this->recipe($asset, $settings);
        if ($recipe === null) {
            return ImportedMotion::table($this->assets, $asset, $this->assets->digest($asset), $figure);
        }
        if (! $figure->isHuman()) {
            throw UnableToCompile::noFigure($asset->name, $item->name);
        }

        return $this->kept($recipe, $figure);
    }

    /** @return array{ClipTable, string} */
    private function kept(MotionRecipe $recipe, Figure $figure): array
    {
        $key = hash('sha256', json_encode([MotionSampler::VERSION, $recipe->toArray(), $figure->blob], JSON_THROW_ON_ERROR));
        if (isset($this->tables[$key])) {
            return [$this->tables[$key], $key];
        }
        $bytes = $this->assets->solved($key);
        if ($bytes !== null) {
            $table = $this->memory->of("clip {$key}", static fn (): ClipTable => ClipTable::fromBytes($bytes));

            return [$this->tables[$key] = $table, $key];
        }
        $table = MotionSampler::table($figure->body(), $recipe, $figure->morphs);
        $bytes = $table->toBytes();
        $this->assets->keep($key, $bytes);

        // Read back, so that the first answer and all later ones are the same bytes.
        return [ClipTable::fromBytes($bytes), $key];
    }

    private function stood(Beat $beat, Figure $figure): LaneSegment
    {
        [$table, $key] = $this->kept(new MotionRecipe('idle', ['seed' => 1, 'seconds' => 8]), $figure);

        $segment = $this->placed($beat, $table, $key, $figure, 1.0);
        $segment->lives = true;

        return $segment;
    }

    /** @return list<float> */
    private function standing(Figure $figure): array
    {
        if (! $figure->isHuman()) {
            $rest = $figure->skeleton->restTranslation($figure->hips);

            return [...$rest, ...$figure->skeleton->rotations, ...array_fill(0, count($figure->morphs), 0.0), 0.0, 0.0, 0.0];
        }

        return $this->kept(new MotionRecipe('idle', ['seed' => 1, 'seconds' => 8]), $figure)[0]->at(0.0);
    }

    /**
     * How the performer stands when a beat begins.
     *
     * @return array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null null before any beat
     */
    private function stance(?LaneSegment $last, Beat $beat, Figure $figure): ?array
    {
        if ($last === null) {
            return null;
        }
        $frame = (float) $beat->start;
        $frame = $last->from->play->keepLooping ? $frame : min($frame, $last->end);

        return $this->footing($last->row($frame), $figure, $last->lift, $last->ground);
    }

    /** Metres by which hands may miss their places untold. */
    private const PAIR_MISS = 0.02;

    /** Stands a performer to the one of another beat as their motions were made; false where there is none. */
    private function pair(LaneSegment $segment, Item $item, Figure $figure): bool
    {
        $with = null;
        foreach ($this->document->beats as $b) {
            $with = $b->id === $segment->from->play->with && $b->item !== $item->id ? $b : $with;
        }
        $other = $with === null ? null : $this->document->items[$with->item];
        $its = $other === null ? null : ($this->figures)($other);
        if ($with === null || $other === null || $its === null) {
            return false;
        }
        if (isset($this->open[$other->id])) {
            $this->notes[] = new Finding(
                'pair.circle', Severity::Harms, "{$item->name} and {$other->name} wait for each other.",
                remedy: 'Untie one of the two beats.', about: [$item->id, $segment->beat],
                frames: [$segment->from->start, $segment->from->start],
                mends: [new Mend('Untie this one', [Command::of('beat.pair', beat: $segment->beat, with: null)])],
            );

            return false;
        }
        foreach ($this->lane($other, $its)->segments as $s) {
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
    private function approach(?LaneSegment $last, ?array $stance, LaneSegment $to, Item $item, Figure $figure): ?LaneSegment
    {
        $rate = $this->document->rate->perSecond();
        $row = $last === null ? $this->standing($figure) : $last->row(min($to->start, $last->end));
        $stance ??= $this->footing($row, $figure, 0.0, 0.0);
        $goes = $this->footing($to->row($to->start), $figure, $to->lift, $to->ground);
        $ground = $last->ground ?? 0.0;
        $recipe = new MotionRecipe('walkToMark', ['speed' => 1.15, 'seed' => 3]);
        $from = $this->anchor($stance, $goes, 'foot');
        $walk = fn (Beat $b): LaneSegment => $this->along($b, $item, $figure, $recipe, $from, $ground);
        $free = match (true) {
            $last === null => 0.0, $last->from->play->keepLooping => $last->start + $rate, default => $last->end,
        };
        [$way, $note] = (new Approach($item, $figure, $rate, $walk))->before(
            $to, $row, $from, $this->anchor($goes, $stance, 'foot'), $free,
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
        $a = $this->recipe($this->document->assets[$first->motion], $first->settings);
        $b = $this->recipe($this->document->assets[$second->motion], $second->settings);
        if ($a === null || $b === null) {
            return [0.0, 0.0, 0.0];
        }

        [$pair] = Meetings::half($a);

        return [0.0, $pair === '' ? $a->number('gap', 1.02) : Meetings::all()[$pair]['gap'], M_PI];
    }

    /**
     * The planar move that makes the new beat begin where the last one stands: the feet that are planted in both poses
     * coincide in place and heading; without a common planted foot, or where the beat asks for it, the hips do.
     *
     * @param  array{feet: array<string, array{float, float, float}>, hips: array{float, float, float}}|null  $from
     */
    private function carryOn(?LaneSegment $last, ?array $from, LaneSegment $segment, Figure $figure): void
    {
        if ($last === null || $from === null || $segment->join === 'cut') {
            // The motion starts on the mark: its own root at the performer's place.
            $row = $segment->table->at($segment->in);
            $o = $segment->table->width - 3;
            $segment->move = LaneSegment::undo([$row[$o], $row[$o + 1], $row[$o + 2]]);
        }
        if ($last !== null && $from !== null) {
            $segment->lift = $segment->ground = $last->ground;
            $segment->move = [0.0, 0.0, 0.0];
            $to = $this->footing($segment->row($segment->start), $figure, $segment->lift, $last->ground);
            $how = $segment->from->play->anchor;
            $segment->move = LaneSegment::after($this->anchor($from, $to, $how), LaneSegment::undo($this->anchor($to, $from, $how)));
        }
        $segment->carried();
    }

    /**
     * Planted feet and hips of a pose.
     *
     * @param  list<float>  $row
     * @return array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>} x, z, heading
     */
    private function footing(array $row, Figure $figure, float $lift, float $ground): array
    {
        $base = max($lift, $ground);
        $feet = [];
        foreach (['L', 'R'] as $s) {
            $j = $figure->skeleton->roles['foot'.$s] ?? null;
            $rest = $figure->rest('foot'.$s);
            if ($j === null || $rest === null) {
                continue;
            }
            $foot = $figure->standing($row, $j);
            if ($foot[3] < $rest[1] + $base + 0.04) {
                $feet[$s] = [$foot[0], $foot[1], $foot[2]];
            }
        }
        $hips = $figure->standing($row, $figure->hips);

        return ['hips' => [$hips[0], $hips[1], $hips[2]], 'feet' => $feet];
    }

    /**
     * @param  array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>}  $of
     * @param  array{hips: array{float, float, float}, feet: array<string, array{float, float, float}>}  $other
     * @return array{float, float, float}
     */
    private function anchor(array $of, array $other, string $how): array
    {
        $both = $how === 'hips' ? [] : array_intersect_key($of['feet'], $other['feet']);
        if (count($both) === 2) {
            [$l, $r] = [$both['L'], $both['R']];
            // Across the feet from right to left is the stance's side axis.
            $turn = atan2(sin($l[2]) + sin($r[2]), cos($l[2]) + cos($r[2]));

            return [($l[0] + $r[0]) / 2, ($l[1] + $r[1]) / 2, $turn];
        }

        return $both === [] ? $of['hips'] : array_values($both)[0];
    }
}
