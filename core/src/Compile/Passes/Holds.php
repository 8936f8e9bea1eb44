<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Bearing;
use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Gazes;
use CrispReel\Core\Compile\Hold;
use CrispReel\Core\Compile\Leading;
use CrispReel\Core\Compile\MotionTables;
use CrispReel\Core\Compile\Mounts;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Model\Seating;
use CrispReel\Core\Rig\Figure;

/** Contacts to holds: joints and mounts found, the order in which they are solved, circles refused. */
final class Holds implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $holds = $this->holds();
        foreach ((new Gazes($draft))->holds() as $item => $looks) {
            $holds[$item] = [...$holds[$item] ?? [], ...$looks];
        }
        $draft->putHolds($holds);
    }

    /** @return array<string, list<Hold>> */
    private function holds(): array
    {
        $this->refuseCircles();
        $out = [];
        foreach ($this->contacts() as $c) {
            $out[$c->item][] = $this->hold($c);
        }
        foreach ($out as $item => $holds) {
            // What the performer itself carries is reached for last.
            usort($holds, static fn (Hold $a, Hold $b): int => [
                $a->onItself, array_search($a->contact->effector, Contact::EFFECTORS, true), $a->contact->from, $a->contact->id,
            ]
                <=> [$b->onItself, array_search($b->contact->effector, Contact::EFFECTORS, true), $b->contact->from, $b->contact->id]);
            $out[$item] = $holds;
        }

        return $out;
    }

    /** @return list<Contact> the scene's, and those of hands that lead and arms that carry */
    private function contacts(): array
    {
        $motions = new MotionTables($this->draft->document, $this->draft->assets, $this->draft->memory);

        return [
            ...array_values($this->draft->document->contacts), ...Leading::hands($this->draft, $motions),
            ...Bearing::hands($this->draft, $motions),
        ];
    }

    private function carriedBy(string $thing, string $item): bool
    {
        foreach ($this->draft->document->links as $l) {
            if ($l->child === $thing && $l->parent === $item) {
                return true;
            }
        }

        return false;
    }

    private function hold(Contact $c): Hold
    {
        $item = $this->draft->document->items[$c->item];
        $lane = $this->draft->lanes()[$c->item] ?? null;
        if ($lane === null || ! $lane->figure->isHuman()) {
            throw UnableToCompile::noContact($item->name);
        }
        $none = new Placement([0.0, 0.0, 0.0]);
        if ($c->target === null) {
            return new Hold($c, null, new Placement($c->offset), self::own($lane->figure, $c->effector));
        }
        [$joint, $mount] = $c->mount === '' ? [null, $none] : $this->mount($c->target, $c->mount);

        return new Hold(
            $c,
            $joint,
            $mount->of(new Placement($c->offset)),
            self::own($lane->figure, $c->effector),
            $this->carriedBy($c->target, $c->item),
        );
    }

    /** @return array{int|null, Placement} */
    private function mount(string $target, string $mount): array
    {
        $item = $this->draft->document->items[$target];
        $figure = ($this->draft->lanes()[$target] ?? null)?->figure;
        $joint = $figure?->skeleton->joint($mount);
        if ($figure !== null && $joint !== null) {
            $grip = match ($mount) {
                'handL' => $figure->grip('L'), 'handR' => $figure->grip('R'), default => null,
            };

            // Hand in hand: palm to palm.
            return [
                $joint, $grip === null ? new Placement([0.0, 0.0, 0.0]) : new Placement($grip[0], Q4::mul($grip[1], Q4::aroundY(M_PI))),
            ];
        }

        return [null, Mounts::of($this->draft->document, $this->draft->assets, $item, $mount)];
    }

    /** The place on the body that touches, in the joint's space: grip of a hand, sole of a foot, seat of the hips, brow of the head. */
    private static function own(Figure $figure, string $effector): Placement
    {
        $size = $figure->height() / 1.7;
        $side = substr($effector, -1);
        $grip = str_starts_with($effector, 'hand') ? $figure->grip($side) : null;

        return match ($effector) {
            'handL', 'handR' => new Placement($grip[0] ?? [0.0, 0.0, 0.0], $grip[1] ?? Q4::IDENTITY),
            'footL', 'footR' => new Placement([0.0, $figure->rest('foot'.$side)[1] ?? 0.0, 0.0]),
            'hips' => new Placement([0.0, Seating::HIPS * $size, 0.0]),
            'head' => new Placement([0.0, 0.16 * $size, 0.10 * $size]),
            default => new Placement([0.0, 0.0, 0.0]),
        };
    }

    /** Performers that hold on to each other in a circle at the same time, and hands on what hangs on them; looks are no hold. */
    private function refuseCircles(): void
    {
        $frames = [];
        foreach ([...$this->draft->document->links, ...$this->draft->document->contacts] as $l) {
            $frames[$l->from] = true;
        }
        foreach (array_keys($frames) as $frame) {
            $edges = [];
            foreach ($this->draft->document->links as $l) {
                if (self::on($l, $frame)) {
                    $edges[$l->child] = [$l->parent];
                }
            }
            foreach ($this->draft->document->contacts as $c) {
                if ($c->target === null || $c->effector === 'look' || ! self::on($c, $frame)) {
                    continue;
                }
                $carry = array_values(array_filter(
                    $this->draft->document->links,
                    static fn (Link $l): bool => $l->child === $c->target && self::on($l, $frame) && $l->parent === $c->item,
                ));
                if ($carry !== []) {
                    if ($carry[0]->mount === $c->effector) {
                        throw UnableToCompile::linkCycle([
                            $this->draft->document->items[$c->item]->name, $this->draft->document->items[$c->target]->name,
                            $this->draft->document->items[$c->item]->name,
                        ]);
                    }

                    continue;
                }
                $edges[$c->item][] = $c->target;
            }
            foreach (array_keys($edges) as $start) {
                $this->follow((string) $start, $edges, []);
            }
        }
    }

    private static function on(Link|Contact $l, int $frame): bool
    {
        return $l->from <= $frame && ($l->to === null || $frame < $l->to);
    }

    /**
     * @param  array<string, list<string>>  $edges
     * @param  list<string>  $path
     */
    private function follow(string $at, array $edges, array $path): void
    {
        if (in_array($at, $path, true)) {
            $circle = [...array_slice($path, (int) array_search($at, $path, true)), $at];
            throw UnableToCompile::linkCycle(array_map(fn (string $i): string => $this->draft->document->items[$i]->name, $circle));
        }
        foreach ($edges[$at] ?? [] as $next) {
            $this->follow($next, $edges, [...$path, $at]);
        }
    }
}
