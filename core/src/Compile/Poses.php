<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\TouchUp;
use CrispReel\Core\Math\Placement;
use LogicException;

/** All that places and poses of a frame are worked out from; complete for every item that has its carries here. */
final readonly class Poses
{
    /**
     * @param  array<string, Lane>  $lanes  by performer
     * @param  array<string, Placement>  $places  where each item stands by itself
     * @param  array<string, list<Carry>>  $carries  by child, in time order; none for who is never carried
     * @param  array<string, list<Grasp>>  $grasps  by performer
     * @param  array<string, list<Hold>>  $holds  by performer, in the order in which they are solved
     * @param  array<string, list<array{TouchUp, int}>>  $touchUps  by performer, with the joint
     * @param  array<string, Drive>  $drives  by item
     * @param  array<string, FaceLayer>  $faces  by performer who speaks, listens or shows something
     * @param  array<string, Eyes>  $eyes  by performer
     */
    public function __construct(
        public Document $document,
        public array $lanes,
        public array $places,
        public array $carries,
        public array $grasps,
        public array $holds,
        public array $touchUps,
        public array $drives,
        public array $faces = [],
        public array $eyes = [],
    ) {
    }

    public function at(float $frame): Moment
    {
        return new Moment($this, $frame);
    }

    /** @return list<Carry> */
    public function carriesOf(string $item): array
    {
        return $this->carries[$item] ?? throw new LogicException("Where \"{$item}\" is, is not settled yet.");
    }

    /**
     * What an item does in a range of frames is computed from, by itself: no name, and nothing that reaches into no frame of it.
     *
     * @return array<mixed>
     */
    public function fingerprint(string $id, int $from, int $to): array
    {
        $within = self::within($from, $to);
        $out = [
            $id, $this->places[$id]->flat(), $this->document->items[$id]->moves,
            isset($this->drives[$id]) ? $this->drives[$id]->fingerprint() : null,
            isset($this->lanes[$id]) ? $this->lanes[$id]->fingerprint($from, $to) : null,
            isset($this->faces[$id]) ? $this->faces[$id]->fingerprint($from, $to) : null,
            isset($this->eyes[$id]) ? $this->eyes[$id]->fingerprint($from, $to) : null,
        ];
        foreach ($this->grasps[$id] ?? [] as $g) {
            if ($within($g->from - Grasp::EASE, $g->to)) {
                $out[] = [$g->side, $g->from, $g->to, $g->curl];
            }
        }
        foreach ($this->touchUps[$id] ?? [] as [$t, $joint]) {
            if ($within($t->from - $t->easeIn, $t->to === null ? null : $t->to + $t->easeOut)) {
                $out[] = [$t->toArray(), $joint];
            }
        }
        foreach ($this->holdsIn($id, $from, $to) as $h) {
            $out[] = $h->fingerprint();
        }
        foreach ($this->carriesIn($id, $from, $to) as $c) {
            $out[] = $c->fingerprint();
        }

        return $out;
    }

    /**
     * What an item does in a range of frames is computed from: itself, what carries it, what it holds on to, and what those hang
     * on in turn.
     *
     * @return list<array<mixed>> fingerprints, in the same order whenever they are the same
     */
    public function grounds(string $id, int $from, int $to): array
    {
        $found = [$id => true];
        for ($open = [$id]; $open !== [];) {
            foreach ($this->hangsOn(array_pop($open), $from, $to) as $next) {
                if (! isset($found[$next])) {
                    $found[$next] = true;
                    $open[] = $next;
                }
            }
        }
        ksort($found);

        return array_map(fn (int|string $of): array => $this->fingerprint((string) $of, $from, $to), array_keys($found));
    }

    /** @return list<string> what an item hangs on in a range of frames: what carries it, and what it holds on to */
    public function hangsOn(string $id, int $from, int $to): array
    {
        $out = [];
        foreach ($this->carriesIn($id, $from, $to) as $c) {
            $out[] = $c->parent;
        }
        foreach ($this->holdsIn($id, $from, $to) as $h) {
            $out[] = $h->contact->target;
        }

        return array_values(array_filter($out, static fn (?string $of): bool => $of !== null));
    }

    /** @return list<Hold> those that pull in a range of frames */
    private function holdsIn(string $id, int $from, int $to): array
    {
        $within = self::within($from, $to);

        return array_values(array_filter(
            $this->holds[$id] ?? [],
            static fn (Hold $h): bool => $within(
                $h->contact->from - $h->contact->easeIn,
                $h->contact->to === null ? null : $h->contact->to + $h->contact->easeOut,
            ),
        ));
    }

    /** @return list<Carry> the one that holds when the range begins, and those that begin in it */
    private function carriesIn(string $id, int $from, int $to): array
    {
        $out = [];
        foreach ($this->carries[$id] ?? [] as $k => $c) {
            if ($k === 0 || $c->from <= $from) {
                $out = [$c];
            } elseif ($c->from < $to) {
                $out[] = $c;
            }
        }

        return $out;
    }

    /** @return \Closure(int, int|null): bool whether a span of frames, open at its end where it has none, reaches into a range */
    private static function within(int $from, int $to): \Closure
    {
        return static fn (int $first, ?int $last): bool => $first < $to && ($last === null || $last >= $from);
    }
}
