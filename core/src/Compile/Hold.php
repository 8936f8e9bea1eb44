<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Contact;
use CrispReel\Core\Math\Placement;

/** A contact, settled: which joint of the target, where on it, and which place of the performer is brought there. */
final readonly class Hold
{
    /**
     * @param  int|null  $joint  of the target's figure
     * @param  Placement  $at  on the target (or in the scene)
     * @param  bool  $onItself  the target hangs on the performer, and moves when the trunk leans
     * @param  float  $by  of a look, the share of the way that the head turns; below 1 nobody has asked for it
     * @param  Placement  $own  the place on the performer's joint that touches
     */
    public function __construct(
        public Contact $contact,
        public ?int $joint,
        public Placement $at,
        public Placement $own,
        public bool $onItself = false,
        public float $by = 1.0,
    ) {
    }

    public function fingerprint(): string
    {
        return json_encode(
            [$this->contact->toArray(), $this->joint, $this->at->flat(), $this->own->flat(), $this->by], JSON_THROW_ON_ERROR,
        );
    }
}
