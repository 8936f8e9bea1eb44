<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Placement;

/** One span of a thing's time: carried by a parent with an offset, or lying still. */
final readonly class Carry
{
    /**
     * @param  string|null  $parent  item; null: it lies at $offset
     * @param  int|null  $joint  of the parent's figure
     * @param  Placement  $offset  in the parent's (or joint's) space
     * @param  bool  $upright  hangs: only the parent's heading turns it
     * @param  Placement|null  $before  where it was, for the ease in
     * @param  Fall|null  $fall  it has been let go
     * @param  Placement|null  $caught  it flies until it is here, at frame $until
     * @param  bool  $own  it stands, moves or drives by itself
     */
    public function __construct(
        public int $from,
        public ?string $parent,
        public ?int $joint,
        public Placement $offset,
        public bool $upright = false,
        public int $easeFrames = 0,
        public ?Placement $before = null,
        public ?Fall $fall = null,
        public ?Placement $caught = null,
        public int $until = 0,
        public bool $own = false,
    ) {
    }

    public function fingerprint(): string
    {
        return json_encode(
            [
                $this->from, $this->parent, $this->joint, $this->offset->flat(), $this->upright, $this->easeFrames,
                $this->before?->flat(), $this->fall?->at(INF)->flat(), $this->fall?->at(0.1)->flat(), $this->caught?->flat(),
                // Only a throw knows its end beforehand.
                $this->caught === null ? 0 : $this->until, $this->own,
            ],
            JSON_THROW_ON_ERROR,
        );
    }
}
