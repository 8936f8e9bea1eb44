<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Document;
use CrispReel\Core\Math\Placement;

/** Everything that depends on order or history, settled once; evaluation only reads it. */
final class CompiledScene
{
    /**
     * @param  array<string, Lane>  $lanes  by performer
     * @param  array<string, Placement>  $places  where each item stands by itself
     * @param  array<string, list<Carry>>  $carries  by child, in time order
     * @param  array<string, list<Grasp>>  $grasps  by performer
     * @param  list<string>  $order  items, parents before what they carry
     * @param  list<\CrispReel\Core\Document\Shot>  $shots  with every out frame settled
     * @param  list<Note>  $notes
     * @param  array<string, list<Hold>>  $holds  by performer, in the order in which they are solved
     * @param  array<string, list<array{\CrispReel\Core\Document\TouchUp, int}>>  $touchUps  by performer, with the joint
     * @param  array<string, Drive>  $drives  by item
     * @param  array<string, ClothRun>  $cloths  by item
     */
    public function __construct(
        public readonly Document $document,
        public readonly array $lanes,
        public readonly array $places,
        public array $carries,
        public array $grasps,
        public readonly array $order,
        public readonly int $frames,
        public readonly array $shots,
        public array $notes = [],
        public array $holds = [],
        public array $touchUps = [],
        public array $drives = [],
        public array $cloths = [],
    ) {
    }
}
