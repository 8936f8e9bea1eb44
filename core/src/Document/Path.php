<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** A drawn way over the ground: from where the performer stands through these places, in metres of the scene. */
final readonly class Path
{
    public const MOST_POINTS = 200;

    /** What a change of the walk may set, with its range. */
    private const MANNERS = [
        'speed' => [0.4, 5.0], 'stride' => [0.6, 1.4], 'bounce' => [0.0, 2.0], 'lean' => [-10.0, 30.0], 'arm' => [0.0, 1.6],
        'weight' => [0.0, 1.0], 'age' => [0.0, 1.0], 'mood' => [-1.0, 1.0],
    ];

    /**
     * @param  list<array{float, float}>  $points  x, z
     * @param  int|null  $arrive  frame at which the last place is reached; null: at the motion's own pace
     * @param  float|null  $faceDeg  heading of the stand at the end; null: as the way arrives
     * @param  array{float, float, float, float}|null  $from  x, y, z and heading (degrees) of the stand at the start; null: as the performer stands when the beat begins
     * @param  list<array{after: int, style: array<string, float>}>  $changes  another manner from a place on (1 is the first of the points): speed, stride, bounce, lean, arm, weight, age, mood
     */
    public function __construct(
        public array $points,
        public ?int $arrive = null,
        public ?float $faceDeg = null,
        public ?array $from = null,
        public array $changes = [],
    ) {
    }

    /** Null where the beat has no path. */
    public static function from(Input $in): ?self
    {
        if (! $in->has('path')) {
            return null;
        }
        $path = $in->child('path');
        $points = $path->pairs('points', self::MOST_POINTS);
        if ($points === []) {
            throw UnableToReadDocument::at($path->path('points'), 'a path needs at least one place to go to');
        }

        return new self(
            $points, $path->has('arrive') ? $path->whole('arrive', null, 1) : null,
            $path->has('faceDeg') ? $path->number('faceDeg', null, -36000, 36000) : null,
            $path->has('from') ? self::stand($path->numbers('from', 4)) : null,
            self::changesOf($path, count($points)),
        );
    }

    /** @return list<array{after: int, style: array<string, float>}> */
    private static function changesOf(Input $path, int $places): array
    {
        $out = [];
        foreach ($path->each('changes') as $k => $c) {
            $after = $c->whole('after', null, 1, $places);
            if ($out !== [] && $after <= $out[count($out) - 1]['after']) {
                throw UnableToReadDocument::at($path->path("changes/{$k}"), 'changes of the walk come in the order of the places');
            }
            $style = [];
            $given = $c->child('style');
            foreach (self::MANNERS as $name => [$low, $high]) {
                if ($given->has($name)) {
                    $style[$name] = $given->number($name, null, $low, $high);
                }
            }
            $out[] = ['after' => $after, 'style' => $style];
        }

        return $out;
    }

    /**
     * @param  list<float>  $v
     * @return array{float, float, float, float}
     */
    private static function stand(array $v): array
    {
        return [$v[0], $v[1], $v[2], $v[3]];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['points' => $this->points, 'arrive' => $this->arrive, 'faceDeg' => $this->faceDeg, 'from' => $this->from]
            + ($this->changes === [] ? [] : ['changes' => $this->changes]);
    }
}
