<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Compile\Vehicle;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;

/**
 * Somebody walks behind a thing with grips and pushes it where the points lead: a walk to its back, the push, the thing's
 * route, and both hands on the grips.
 */
final class Push
{
    /** Hips behind the grips, metres for a person of 1.7 m. */
    private const ARMS = 0.29;

    private const TALL = 1.7;

    private const LEAN_DEG = 15;

    /** Frames in which hands come to the grips and leave them. */
    private const EASE = 14;

    /** Seconds of the stand after the last step: hands may leave by then. */
    private const STAND = 0.5;

    /** Metres and radians within which somebody stands there already. */
    private const NEAR = [0.25, 0.4];

    private function __construct(
        private readonly Document $scene,
        private readonly AssetSource $assets,
        private readonly Memory $memory,
        private readonly AssetRef $walk,
        private readonly Item $who,
    ) {
    }

    /**
     * @param  AssetRef  $walk  the motion that is walked with
     * @param  string  $who  item of a performer
     * @param  string  $thing  item with mounts gripL and gripR
     * @param  list<array{float, float}>  $points  x and z of the way of its axle
     * @param  int|null  $start  null: when the performer has nothing more to do
     * @param  float  $speed  metres a second
     * @return list<Command>
     *
     * @throws UnableToStage
     */
    public static function of(
        Document $scene, AssetSource $assets, Memory $memory, AssetRef $walk, string $who, string $thing, array $points, ?int $start,
        float $speed,
    ): array {
        [$person, $pushed] = [$scene->items[$who], $scene->items[$thing]];
        if ($person->kind !== 'performer') {
            throw UnableToStage::because('push.not-performer', "\"{$person->name}\" is not a performer.", 'Choose a performer.');
        }
        $grip = self::grip($assets->digest($scene->assets[$pushed->asset])) ?? throw UnableToStage::because(
            'push.no-grips', "\"{$pushed->name}\" has no grips to push it by.", 'Choose a thing with mounts gripL and gripR.',
        );

        return (new self($scene, $assets, $memory, $walk, $person))->along($pushed, $grip, $points, $start, $speed);
    }

    /**
     * The middle of the grips over the ground, in the thing's space.
     *
     * @param  array<string, mixed>  $digest
     * @return array{float, float}|null
     */
    private static function grip(array $digest): ?array
    {
        $mounts = is_array($digest['mounts'] ?? null) ? $digest['mounts'] : [];
        $sum = [0.0, 0.0];
        foreach (['gripL', 'gripR'] as $name) {
            $at = is_array($mounts[$name] ?? null) && is_array($mounts[$name]['position'] ?? null) ? $mounts[$name]['position'] : null;
            if ($at === null || ! is_numeric($at[0] ?? null) || ! is_numeric($at[2] ?? null)) {
                return null;
            }
            $sum = [$sum[0] + (float) $at[0] / 2, $sum[1] + (float) $at[2] / 2];
        }

        return $sum;
    }

    /**
     * @param  array{float, float}  $grip
     * @param  list<array{float, float}>  $points
     * @return list<Command>
     */
    private function along(Item $thing, array $grip, array $points, ?int $start, float $speed): array
    {
        [$behind, $axle] = $this->stands($thing, $grip);
        $facing = rad2deg(atan2($axle[0] - $behind[0], $axle[1] - $behind[1]));
        $gap = hypot($axle[0] - $behind[0], $axle[1] - $behind[1]);
        $now = SceneCompiler::compile($this->scene, $this->assets, $this->memory);
        $beats = [];
        if (! $this->standsThere($now, $behind, $facing)) {
            $beats[] = ['start' => $start ?? $this->free($now), 'path' => ['points' => [$behind], 'faceDeg' => $facing]];
            $start = null;
        }
        $start ??= $this->free($beats === [] ? $now : $this->with($beats));
        $beats[] = [
            'start' => $start, 'path' => ['points' => self::shortened([$axle, ...$points], $gap)],
            'settings' => ['speed' => $speed, 'lean' => self::LEAN_DEG],
        ];
        // What is pushed is on its way too: standing, it would be ground to walk over.
        $done = $this->with($beats, $thing, $points);
        $end = (int) ceil($done->lanes[$this->who->id]->end() - self::STAND * $this->scene->rate->perSecond());

        return [...$this->walks($beats), ...$this->pushes($thing, $points, $start, $end)];
    }

    /**
     * @param  list<array<string, mixed>>  $beats
     * @return list<Command>
     */
    private function walks(array $beats): array
    {
        return array_map(
            fn (array $b): Command => new Command('beat.add', ['item' => $this->who->id, 'motion' => $this->walk->id] + $b),
            $beats,
        );
    }

    /**
     * @param  list<array{float, float}>  $points
     * @return list<Command>
     */
    private function pushes(Item $thing, array $points, int $from, int $to): array
    {
        $out = [Command::of('item.route', item: $thing->id, points: $points, from: 0, to: null, by: $this->who->id)];
        foreach (['L', 'R'] as $side) {
            $out[] = Command::of(
                'contact.add', item: $this->who->id, effector: "hand{$side}", target: $thing->id, mount: "grip{$side}",
                from: $from, to: $to, easeIn: self::EASE, easeOut: self::EASE, turn: 'match',
            );
        }

        return $out;
    }

    /**
     * Where who pushes stands, and where the axle is, over the ground.
     *
     * @param  array{float, float}  $grip
     * @return array{array{float, float}, array{float, float}}
     */
    private function stands(Item $thing, array $grip): array
    {
        $vehicle = Vehicle::of($this->assets->digest($this->scene->assets[$thing->asset]));
        $place = Placement::standing($thing->position, $thing->headingDeg, $thing->scale);
        $arms = self::ARMS * $this->height() / self::TALL / $place->scale;
        $behind = $place->point([$grip[0] - sin($vehicle->forward) * $arms, 0.0, $grip[1] - cos($vehicle->forward) * $arms]);
        $axle = $place->point([$vehicle->rear[0], 0.0, $vehicle->rear[1]]);

        return [[$behind[0], $behind[2]], [$axle[0], $axle[2]]];
    }

    private function height(): float
    {
        $bounds = $this->assets->digest($this->scene->assets[$this->who->asset])['bounds'] ?? null;
        $high = is_array($bounds) && is_array($bounds[1] ?? null) ? $bounds[1][1] ?? null : null;

        return (is_numeric($high) ? (float) $high : self::TALL) * $this->who->scale;
    }

    /** The frame from which somebody has nothing more to do. */
    private function free(CompiledScene $scene): int
    {
        $lane = $scene->lanes[$this->who->id];

        return $lane->segments === [] ? 0 : (int) ceil($lane->end() - 1e-6);
    }

    /** @param  array{float, float}  $behind */
    private function standsThere(CompiledScene $scene, array $behind, float $facingDeg): bool
    {
        $lane = $scene->lanes[$this->who->id];
        $hips = $lane->figure->hips;
        $at = SceneEvaluator::jointPlace($scene, $this->who->id, $hips, $lane->end());
        $ahead = Q4::heading(Q4::mul($at->rotation, Q4::conjugate($lane->figure->restTurn($hips))));
        $off = Angle::wrapped($ahead - deg2rad($facingDeg));

        return hypot($at->position[0] - $behind[0], $at->position[2] - $behind[1]) < self::NEAR[0] && abs($off) < self::NEAR[1];
    }

    /**
     * The scene with some walks more.
     *
     * @param  list<array<string, mixed>>  $beats
     * @param  Item|null  $thing  what goes ahead of them
     * @param  list<array{float, float}>  $points  along which it goes
     */
    private function with(array $beats, ?Item $thing = null, array $points = []): CompiledScene
    {
        // As JSON has it: what is an object there is read as values by name.
        $data = (array) json_decode($this->scene->toJson(), true);
        $said = is_array($data['beats']) ? $data['beats'] : [];
        foreach ($beats as $k => $b) {
            $said[] = ['id' => "push-{$k}", 'item' => $this->who->id, 'motion' => $this->walk->id] + $b;
        }
        $route = ['route' => ['points' => $points, 'from' => 0, 'by' => $this->who->id]];
        $data['items'] = array_map(
            static fn (mixed $item): mixed => is_array($item) && $item['id'] === $thing?->id ? $route + $item : $item,
            (array) $data['items'],
        );
        $assets = $this->scene->assets + [$this->walk->id => $this->walk];

        return SceneCompiler::compile(Document::fromArray([
            'beats' => $said,
            'assets' => array_map(static fn (AssetRef $a): array => $a->toArray(), array_values($assets)),
        ] + $data), $this->assets, $this->memory);
    }

    /**
     * The line without its last part: where the one behind stops.
     *
     * @param  list<array{float, float}>  $points
     * @return list<array{float, float}>
     */
    private static function shortened(array $points, float $by): array
    {
        while (count($points) > 1 && $by > 0.0) {
            [$a, $b] = [$points[count($points) - 2], $points[count($points) - 1]];
            $l = hypot($b[0] - $a[0], $b[1] - $a[1]);
            if ($l > $by) {
                $points[count($points) - 1] = [$b[0] + ($a[0] - $b[0]) * $by / $l, $b[1] + ($a[1] - $b[1]) * $by / $l];
                break;
            }
            $by -= $l;
            array_pop($points);
        }

        return array_values($points);
    }
}
