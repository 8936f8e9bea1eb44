<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A way that a thing drives, from where it stands through these places; or along with a performer who pushes it. */
final readonly class Route
{
    /**
     * @param  list<array{float, float}>  $points  x, z in the scene
     * @param  int  $from  frame at which it sets off
     * @param  int|null  $to  frame at which it stands again; null: at its speed
     * @param  float  $speed  metres a second, where no end is given
     * @param  string|null  $by  a performer whose walk it goes ahead of
     */
    public function __construct(public array $points, public int $from, public ?int $to, public float $speed, public ?string $by)
    {
    }

    public static function of(Input $item): ?self
    {
        if (! $item->has('route')) {
            return null;
        }
        $in = $item->child('route');
        $points = $in->pairs('points', Path::MOST_POINTS);
        $by = $in->has('by') ? $in->id('by') : null;
        if ($points === [] && $by === null) {
            throw UnableToReadDocument::at($in->path('points'), 'a route needs a place to go to, or a performer who pushes');
        }
        $from = $in->whole('from', 0, 0);
        $to = $in->has('to') ? $in->whole('to', null, 1) : null;
        if ($to !== null && $to <= $from) {
            throw UnableToReadDocument::at($in->path('to'), 'a route ends after it begins');
        }

        return new self($points, $from, $to, $in->number('speed', 1.2, 0.05, 60.0), $by);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['points' => $this->points, 'from' => $this->from, 'to' => $this->to, 'speed' => $this->speed, 'by' => $this->by];
    }
}
