<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Checked;
use CrispReel\Core\Document\Fields\Frame;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Pairs;
use CrispReel\Core\Document\Fields\Ref;

/** A way that a thing drives, from where it stands through these places; or along with a performer who pushes it. */
final readonly class Route implements Checked
{
    use OfFields;

    /**
     * @param  list<array{float, float}>  $points  x, z in the scene
     * @param  int  $from  frame at which it sets off
     * @param  int|null  $to  frame at which it stands again; null: at its speed
     * @param  float  $speed  metres a second, where no end is given
     * @param  string|null  $by  a performer whose walk it goes ahead of
     */
    public function __construct(
        #[Pairs(Path::MOST_POINTS, places: true)] public array $points = [],
        #[Frame] public int $from = 0,
        #[Frame(1, after: 'from', says: 'a route ends after it begins')] public ?int $to = null,
        #[Number(0.05, 60, 'm/s')] public float $speed = 1.2,
        #[Ref(Item::class, needs: true)] public ?string $by = null,
    ) {
    }

    public function check(Input $in): void
    {
        if ($this->points === [] && $this->by === null) {
            throw UnableToReadDocument::at($in->path('points'), 'a route needs a place to go to, or a performer who pushes');
        }
    }
}
