<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Document\TouchUp;
use CrispReel\Core\Math\Placement;

/** Everything that depends on order or history, settled once; evaluation only reads it. */
final readonly class CompiledScene
{
    /** Frames in a piece of what is settled or sent in pieces. */
    public const PIECE = 48;

    public Document $document;

    /** @var array<string, Lane> by performer */
    public array $lanes;

    /** @var array<string, Placement> where each item stands by itself */
    public array $places;

    /** @var array<string, list<Carry>> by child, in time order */
    public array $carries;

    /** @var array<string, list<Grasp>> by performer */
    public array $grasps;

    /** @var array<string, list<Hold>> by performer, in the order in which they are solved */
    public array $holds;

    /** @var array<string, list<array{TouchUp, int}>> by performer, with the joint */
    public array $touchUps;

    /** @var array<string, Drive> by item */
    public array $drives;

    /**
     * @param  list<string>  $order  items, parents before what they carry
     * @param  list<Shot>  $shots  with every out frame settled
     * @param  list<Finding>  $notes
     * @param  array<string, ClothRun>  $cloths  by item
     * @param  array<string, FramedCamera>  $framed  by camera that knows whom it films
     * @param  list<Utterance>  $utterances  in the order in which they begin
     * @param  list<Heard>  $heard  sounds, in the order in which they begin
     */
    public function __construct(
        public Poses $poses,
        public array $order,
        public int $frames,
        public array $shots,
        public array $notes = [],
        public array $cloths = [],
        public array $framed = [],
        public array $utterances = [],
        public array $heard = [],
    ) {
        $this->document = $poses->document;
        $this->lanes = $poses->lanes;
        $this->places = $poses->places;
        $this->carries = $poses->carries;
        $this->grasps = $poses->grasps;
        $this->holds = $poses->holds;
        $this->touchUps = $poses->touchUps;
        $this->drives = $poses->drives;
    }
}
