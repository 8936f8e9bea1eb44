<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Checked;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\Numbers;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Yes;

/** A drawn way over the ground: from where the performer stands through these places, in metres of the scene. */
final readonly class Path implements Checked
{
    use OfFields;

    public const MOST_POINTS = 200;

    /**
     * @param  list<array{float, float}>  $points  x, z
     * @param  int|null  $arrive  frame at which the last place is reached; null: at the motion's own pace
     * @param  float|null  $faceDeg  heading of the stand at the end; null: as the way arrives
     * @param  array{float, float, float, float}|null  $from  x, y, z and heading (degrees) of the stand at the start; null: as
     *                                                         the performer stands when the beat begins
     * @param  list<Manner>  $changes  another manner from a place on
     * @param  bool  $goesOn  the walk does not stop at the last place: what follows begins out of it
     */
    public function __construct(
        #[Pairs(self::MOST_POINTS, least: 1, places: true)] public array $points,
        #[Frame(1)] public ?int $arrive = null,
        #[Number(-36000, 36000, 'deg')] public ?float $faceDeg = null,
        #[Numbers(4, place: true)] public ?array $from = null,
        #[Many(Manner::class, most: 200)] public array $changes = [],
        #[Yes] public bool $goesOn = false,
    ) {
    }

    public function check(Input $in): void
    {
        if ($this->points === []) {
            throw UnableToReadDocument::at($in->path('points'), 'a path needs at least one place to go to');
        }
        $last = 0;
        foreach ($this->changes as $k => $c) {
            if ($c->after > count($this->points)) {
                throw UnableToReadDocument::at(
                    $in->path("changes/{$k}/after"),
                    sprintf('%d is not between 1 and %d', $c->after, count($this->points)),
                );
            }
            if ($c->after <= $last) {
                throw UnableToReadDocument::at($in->path("changes/{$k}"), 'changes of the walk come in the order of the places');
            }
            $last = $c->after;
        }
    }
}
