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
     * What an item does in a range of frames is computed from, by itself.
     *
     * @return array<mixed>
     */
    public function fingerprint(string $id, int $from, int $to): array
    {
        return [$this->throughout($id), isset($this->lanes[$id]) ? $this->lanes[$id]->fingerprint($from, $to) : null];
    }

    /** @return array<mixed> what it is computed from in whichever frames */
    public function throughout(string $id): array
    {
        $out = [
            $id, $this->places[$id]->flat(), $this->document->items[$id]->moves,
            isset($this->drives[$id]) ? $this->drives[$id]->fingerprint() : null,
        ];
        if (isset($this->lanes[$id])) {
            foreach ($this->grasps[$id] ?? [] as $g) {
                $out[] = [$g->side, $g->from, $g->to, $g->curl];
            }
            foreach ($this->touchUps[$id] ?? [] as [$t, $joint]) {
                $out[] = [$t->toArray(), $joint];
            }
            foreach ($this->holds[$id] ?? [] as $h) {
                $out[] = $h->fingerprint();
            }
        }
        foreach ($this->carries[$id] ?? [] as $c) {
            $out[] = $c->fingerprint();
        }

        return $out;
    }
}
