<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * One frame of a scene, worked out as far as it is asked: a thing after what carries it, a performer after what it holds
 * on to. What is known is kept for the frame; nothing is kept from frame to frame.
 */
final class Moment
{
    /** @var array<string, Placement> */
    private array $places = [];

    /** @var array<string, list<float>> */
    private array $rows = [];

    /** @var array<string, list<float>> rows as far as they are solved, of performers that are being worked out */
    private array $partial = [];

    /** @var array<string, float> metres that each contact misses; of looks degrees */
    public array $missing = [];

    private ?self $blind = null;

    private ?Looks $seen = null;

    /** @param  bool  $looks  whether looks are followed */
    public function __construct(private readonly Poses $scene, private readonly float $frame, private readonly bool $looks = true)
    {
    }

    /** Where an item is: carried, let go, or on its own mark. */
    public function place(string $item): Placement
    {
        return $this->places[$item] ??= $this->placed($item);
    }

    private function placed(string $item): Placement
    {
        $carries = $this->scene->carriesOf($item);
        if ($carries === []) {
            return $this->own($item);
        }
        $active = $carries[0];
        foreach ($carries as $c) {
            if ($c->from <= $this->frame) {
                $active = $c;
            }
        }
        $place = $this->carried($item, $active);
        if ($active->before !== null && $active->easeFrames > 0 && $this->frame < $active->from + $active->easeFrames) {
            return $active->before->mix($place, Ease::smooth(($this->frame - $active->from) / $active->easeFrames));
        }

        return $place;
    }

    /** Where an item is by itself: on its mark, by its keys, or on its route. */
    private function own(string $item): Placement
    {
        if (isset($this->scene->drives[$item])) {
            return $this->scene->drives[$item]->place($this->frame);
        }

        return OwnPlaces::keyed($this->scene->document->items[$item], $this->scene->places[$item], $this->frame);
    }

    private function carried(string $item, Carry $c): Placement
    {
        if ($c->parent === null) {
            $seconds = ($this->frame - $c->from) / $this->scene->document->rate->perSecond();

            return match (true) {
                $c->own => null, $c->fall !== null => $c->fall->at($seconds),
                $c->caught !== null => Fall::thrown(
                    $c->offset,
                    $c->caught,
                    max(1e-3, ($c->until - $c->from) / $this->scene->document->rate->perSecond()),
                    $seconds,
                ),
                default => $c->offset,
            } ?? $this->own($item);
        }
        $parent = $this->joint($c->parent, $c->joint);
        if (! $c->upright) {
            return $parent->of($c->offset);
        }
        $grip = $this->gripPoint($c->parent, $c->joint, $parent);
        $turn = Q4::aroundY(Q4::heading($parent->rotation));

        return new Placement(V3::add($grip, Q4::rotate($turn, $c->offset->position)), $turn, $c->offset->scale);
    }

    /** @return array{float, float, float} */
    private function gripPoint(string $item, ?int $joint, Placement $parent): array
    {
        $figure = isset($this->scene->lanes[$item]) ? $this->scene->lanes[$item]->figure : null;
        foreach (['L', 'R'] as $side) {
            if ($figure !== null && ($figure->skeleton->roles['hand'.$side] ?? -1) === $joint) {
                return $parent->point($figure->grip($side)[0] ?? [0.0, 0.0, 0.0]);
            }
        }

        return $parent->position;
    }

    /** A joint of an item in the world, or the item itself. */
    public function joint(string $item, ?int $joint): Placement
    {
        $place = $this->place($item);
        if ($joint === null || ! isset($this->scene->lanes[$item])) {
            return $place;
        }
        $row = $this->row($item);
        $lane = $this->scene->lanes[$item];
        $skeleton = $lane->figure->skeleton;
        // Only the chain up to the root is needed.
        $chain = [];
        for ($j = $joint; $j >= 0; $j = $skeleton->parents[$j]) {
            $chain[] = $j;
        }
        foreach (array_reverse($chain) as $j) {
            $o = 3 + 4 * $j;
            $t = $j === $lane->figure->hips ? [$row[0], $row[1], $row[2]] : $skeleton->restTranslation($j);
            $place = $place->of(new Placement($t, [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]]));
        }

        return $place;
    }

    /**
     * A performer's row: beats, touch-ups, hands closed on what they carry, contacts.
     *
     * @return list<float>
     */
    public function row(string $item): array
    {
        if (isset($this->rows[$item])) {
            return $this->rows[$item];
        }
        // What hangs on a performer that is being worked out sees it as far as it is.
        if (isset($this->partial[$item])) {
            return $this->partial[$item];
        }
        $looks = $this->looks ? $this->active($item, true) : [];
        if ($looks !== []) {
            $this->seen ??= new Looks($this->scene, $this->blind(), $this->active(...), $this->frame);
            $this->rows[$item] = $this->lidded($item, $this->seen->row($item, $looks));
            $this->missing = $this->seen->missing + $this->blind()->missing + $this->missing;

            return $this->rows[$item];
        }
        $lane = $this->scene->lanes[$item];
        $row = $lane->living($this->frame);
        if (isset($this->scene->faces[$item])) {
            $row = $this->scene->faces[$item]->over($row, $this->frame);
        }
        if (isset($this->scene->drives[$item])) {
            $row = $this->scene->drives[$item]->turned($row, $this->frame);
        }
        foreach ($this->scene->touchUps[$item] ?? [] as [$touchUp, $joint]) {
            $row = RowTouches::touchedUp($row, $touchUp, $joint, $lane, $this->frame);
        }
        foreach ($this->scene->grasps[$item] ?? [] as $g) {
            $w = $g->weight($this->frame);
            if ($w > 0.0) {
                $row = RowTouches::closed($row, $lane, $g->side, $g->curl, $w);
            }
        }
        $holds = $this->active($item, false);
        if ($holds !== []) {
            $row = $this->held($item, $row, $holds);
        }

        return $this->rows[$item] = $this->lidded($item, $row);
    }

    /**
     * The lids go by where the eyes look at last, so not before anybody looks.
     *
     * @param  list<float>  $row
     * @return list<float>
     */
    private function lidded(string $item, array $row): array
    {
        return $this->looks && isset($this->scene->eyes[$item]) ? $this->scene->eyes[$item]->over($row, $this->frame) : $row;
    }

    /** @return list<array{Hold, float}> looks, or all other holds, that pull now, with their shares */
    private function active(string $item, bool $looks): array
    {
        $out = [];
        foreach ($this->scene->holds[$item] ?? [] as $h) {
            $w = $h->contact->weight($this->frame);
            if ($w > 0.0 && ($h->contact->effector === 'look') === $looks) {
                $out[] = [$h, $w];
            }
        }

        return $out;
    }

    /** The same frame before anybody looks at anything: what is looked at is where it is there, so looks may be mutual. */
    public function blind(): self
    {
        return $this->blind ??= new self($this->scene, $this->frame, false);
    }

    /** Where a hold is to be brought. */
    public function target(Hold $h): Placement
    {
        return $h->contact->target === null ? $h->at : $this->joint($h->contact->target, $h->joint)->of($h->at);
    }

    /**
     * @param  list<float>  $row
     * @param  list<array{Hold, float}>  $holds  with their shares
     * @return list<float>
     */
    private function held(string $item, array $row, array $holds): array
    {
        $reaching = new Reaching($this->scene->lanes[$item]->figure, $row);
        $this->partial[$item] = $row;
        $back = $this->place($item)->inverse();
        foreach ($holds as [$h, $w]) {
            $this->brought($item, $h, $w, $reaching, $back, true);
        }
        // The trunk that leans for the second hand takes the first one along: hands are set right once more without it.
        $hands = $reaching->leaned
            ? array_filter($holds, static fn (array $h): bool => str_starts_with($h[0]->contact->effector, 'hand'))
            : [];
        if (count($hands) > 1) {
            foreach ($hands as [$h, $w]) {
                $this->brought($item, $h, $w, $reaching, $back, false);
            }
        }
        $row = $reaching->row();
        unset($this->partial[$item]);

        return $row;
    }

    private function brought(string $item, Hold $h, float $weight, Reaching $reaching, Placement $back, bool $mayLean): void
    {
        $c = $h->contact;
        $target = $h->at;
        if ($c->target !== null) {
            // What hangs on the performer is to see it as far as it is brought.
            $this->partial[$item] = $reaching->row();
            $target = $this->joint($c->target, $h->joint)->of($target);
        }
        $this->missing[$c->id] = $reaching->bring($h, $back->of($target), $weight, $mayLean);
    }

    /** @return list<array{float, float, float}> where everybody's face is, for a focus that follows */
    public function heads(): array
    {
        $faces = array_map(fn (int|string $id): ?array => $this->face((string) $id), array_keys($this->scene->lanes));

        return array_values(array_filter($faces));
    }

    /** @return array{float, float, float}|null where somebody's face is; null for who has none */
    public function face(string $item): ?array
    {
        $head = $this->scene->lanes[$item]->figure->skeleton->roles['head'] ?? null;

        return $head === null ? null : $this->joint($item, $head)->point([0.0, 0.15, 0.08]);
    }
}
