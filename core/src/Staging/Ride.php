<?php

declare(strict_types=1);

namespace CrispReel\Core\Staging;

use CrispReel\Core\Compile\Approach;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Nearby;
use CrispReel\Core\Compile\Rides;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Route;
use CrispReel\Core\Motion\Model\Mounting;

/**
 * Somebody on a thing to ride on: walks up to it and gets on, sits with a foot on the ground until it rolls, rides, and gets off; hands
 * and feet where the thing says.
 */
final class Ride
{
    /** Frames from sitting to setting off, and in which feet leave the ground and come to it again. */
    private const READY = 8;

    private const FEET = 3;

    /** Frames from standing over the frame to the seat, and back. */
    private const SITS = 14;

    private readonly bool $astride;

    /** Frames of getting on, and until hands hold on. */
    private readonly int $takes;

    private readonly int $hands;

    /** @var array<array-key, mixed> what the thing says of its rider */
    private readonly array $rider;

    /** Degrees by which the thing turns its rider. */
    private readonly float $turned;

    private readonly float $rate;

    /** From which it is got on: 1 its rider's left. */
    private float $side;

    private function __construct(
        private readonly CompiledScene $scene, AssetSource $assets, private readonly Item $person, private readonly Item $thing,
    ) {
        $digest = $assets->digest($scene->document->assets[$thing->asset]);
        $this->rider = Rides::section($digest, 'rider');
        if ($person->kind !== 'performer') {
            throw UnableToStage::because('ride.not-performer', "\"{$person->name}\" is not a performer.", 'Choose a performer.');
        }
        if ($this->rider === []) {
            throw UnableToStage::because(
                'ride.no-seat', "\"{$thing->name}\" has no places for a rider.",
                'Choose a thing to ride on, or carry the performer and set contacts.',
            );
        }
        $this->side = Rides::gettingOn($digest)['side'];
        $this->turned = Rides::seat($digest)[3];
        $this->rate = $scene->document->rate->perSecond();
        $this->astride = Rides::astride($this->rider);
        $this->takes = (int) ceil(Mounting::SECONDS[$this->astride ? 0 : 1] * $this->rate);
        $this->hands = $this->astride ? (int) round(Mounting::HANDS * $this->rate) : $this->takes + 4;
    }

    /**
     * @param  string  $who  item of a performer
     * @param  string  $on  item with places for a rider in its facts (`vehicle.rider`)
     * @param  int|null  $to  frame at which it is got off; null: to the end
     * @param  bool  $getsOn  whether the rider walks up and gets on; else sits there from the first frame on
     * @return list<Command>
     *
     * @throws UnableToStage
     */
    public static function of(
        CompiledScene $scene, AssetSource $assets, string $who, string $on, int $from, ?int $to, bool $getsOn,
    ): array {
        return (new self($scene, $assets, $scene->document->items[$who], $scene->document->items[$on]))->commands($from, $to, $getsOn);
    }

    /**
     * Off what somebody is riding, from a frame on, or from when it stands again.
     *
     * @return list<Command>
     *
     * @throws UnableToStage
     */
    public static function off(CompiledScene $scene, AssetSource $assets, string $who, int $at): array
    {
        $last = null;
        foreach ($scene->document->beats as $b) {
            $later = $b->item === $who && $b->play->on !== '' && $b->start <= $at && ($last === null || $b->start >= $last->start);
            $last = $later ? $b : $last;
        }
        $thing = $last === null ? null : $scene->document->items[$last->play->on] ?? null;
        if ($last === null || $thing === null) {
            $name = $scene->document->items[$who]->name;

            throw UnableToStage::because(
                'ride.none', "{$name} is on nothing by then.", 'Let somebody get on first, or choose a later frame.',
            );
        }
        $ride = new self($scene, $assets, $scene->document->items[$who], $thing);
        $side = $last->settings['side'] ?? null;
        $ride->side = is_numeric($side) ? (float) $side : $ride->side;

        return $ride->alight(max($at, (int) ceil(($scene->drives[$thing->id] ?? null)?->end() ?? 0.0)));
    }

    /** @return list<Command> */
    private function alight(int $off): array
    {
        $out = [$this->beat('get-off', $off, [])];
        foreach ($this->scene->document->contacts as $c) {
            $to = str_starts_with($c->effector, 'hand') ? $this->letsGo($off) : $off;
            if ($c->item === $this->person->id && $c->target === $this->thing->id && $c->from < $to && ($c->to === null || $c->to > $to)) {
                $out[] = Command::of('contact.set', contact: $c->id, to: $to);
            }
        }

        return $out;
    }

    /** Frame at which hands let go of a thing that is got off. */
    private function letsGo(int $off): int
    {
        return $this->astride ? $off + $this->takes - $this->hands : $off - 4;
    }

    /** @return list<Command> */
    private function commands(int $from, ?int $to, bool $getsOn): array
    {
        if ($getsOn) {
            $this->side = $this->nearSide($from);
        }
        $start = $getsOn ? $from + $this->comes($from) : $from;
        $sits = $start + ($getsOn ? $this->takes : 0);
        [$rolls, $stands, $out] = $this->ways($sits, $getsOn);
        $off = $to === null ? null : max($to, $sits + 1, $stands ?? 0);
        if ($getsOn) {
            $out[] = $this->beat('get-on', $start, $rolls === null ? [] : ['holdAfter' => max(0, $rolls - $sits)]);
        }
        if ($rolls !== null && $stands !== null) {
            $begin = max($sits, $rolls - self::FEET);
            $out[] = $this->beat($this->astride ? 'ride' : 'row', $begin, ['fill' => max($begin + 1, $stands)]);
        }
        $rests = $rolls === null ? $sits : $stands;
        if ($rests !== null && ($off === null || $off > $rests + 2)) {
            $out[] = $this->beat('wait-on', $rests, ['keepLooping' => true]);
        }
        if ($off !== null) {
            $out[] = $this->beat('get-off', $off, []);
        }

        return [...$out, ...$this->contacts($start, $sits, $rolls, $stands, $off, $getsOn)];
    }

    /**
     * When the thing sets off and stands again; a route that begins before somebody sits waits for the rider.
     *
     * @return array{int|null, int|null, list<Command>} no frames: it does not go anywhere
     */
    private function ways(int $sits, bool $getsOn): array
    {
        $route = $this->thing->route;
        $drive = $this->scene->drives[$this->thing->id] ?? null;
        if (! $route instanceof Route || $drive === null) {
            return [null, null, []];
        }
        $end = (int) ceil($drive->end());
        $late = $getsOn ? max(0, $sits + self::READY - $route->from) : 0;
        $new = $late === 0 ? [] : [Command::of(
            'item.route', item: $this->thing->id, from: $route->from + $late, to: $route->to === null ? null : $route->to + $late,
        )];

        return [$route->from + $late, $end + $late, $new];
    }

    private function nearSide(int $from): float
    {
        [$x, $z] = Nearby::stands($this->scene, $this->person->id, (float) $from);
        $place = $this->scene->poses->at($from)->place($this->thing->id);
        $turned = deg2rad($this->turned);
        [$ax, , $az] = $place->inverse()->point([$x, $place->position[1], $z]);

        return $ax * cos($turned) - $az * sin($turned) < 0.0 ? -1.0 : 1.0;
    }

    /** Frames that the rider takes to come to where it is got on. */
    private function comes(int $from): int
    {
        [$x, $z] = Nearby::stands($this->scene, $this->person->id, (float) $from);
        $at = $this->scene->poses->at($from)->place($this->thing->id)->position;
        $metres = max(0.0, hypot($at[0] - $x, $at[2] - $z) - 0.3);
        $lane = $this->scene->lanes[$this->person->id];
        $busy = 0;
        foreach ($lane->segments as $s) {
            $busy = $s->start <= $from && ! $s->from->play->keepLooping ? max(0, (int) ceil($s->end) - $from) : $busy;
        }

        return $busy + Approach::frames($metres, 90.0, $this->rate);
    }

    /** @param  array<string, mixed>  $play */
    private function beat(string $motion, int $start, array $play): Command
    {
        $ride = [
            'item' => $this->person->id, 'motion' => $motion, 'start' => $start, 'play' => ['on' => $this->thing->id] + array_filter($play),
        ];
        $ride += in_array($motion, ['ride', 'row'], true) ? [] : ['settings' => ['side' => $this->side]];

        return Command::of('beat.add', ...($motion === 'get-on' ? $ride : $ride + ['joinFrames' => self::SITS]));
    }

    /** @return list<Command> */
    private function contacts(int $start, int $sits, ?int $rolls, ?int $stands, ?int $off, bool $getsOn): array
    {
        $side = $this->side < 0.0 ? 'R' : 'L';
        $seat = ['easeIn' => self::SITS, 'easeOut' => self::SITS];
        $out = [];
        foreach ($this->rider as $effector => $where) {
            if (! is_array($where)) {
                continue;
            }
            $effector = (string) $effector;
            $span = match (true) {
                str_starts_with($effector, 'hand') => [
                    $getsOn ? $start + $this->hands : $start, $off === null ? null : $this->letsGo($off),
                ],
                // Who is astride has a foot on the ground while it stands, and may not be on the seat.
                $this->astride && in_array($effector, ["foot{$side}", 'hips'], true) => $rolls === null || $stands === null ? null
                    : ($effector === 'hips' ? [$rolls + self::SITS, $stands] : [$rolls + self::FEET, $stands - self::FEET]),
                default => [$sits, $off],
            };
            if ($span !== null && ($span[1] === null || $span[1] > $span[0])) {
                $out[] = Command::of('contact.add', ...[
                    'item' => $this->person->id, 'effector' => $effector, 'target' => $this->thing->id, 'mount' => $where['mount'] ?? '',
                    'offset' => $where['offset'] ?? [0.0, 0.0, 0.0], 'from' => $span[0], 'to' => $span[1],
                    'turn' => str_starts_with($effector, 'hand') ? 'follow' : 'keep', ...($effector === 'hips' ? $seat : []),
                    ...(str_starts_with($effector, 'hand') && $this->astride ? ['easeIn' => $this->hands, 'easeOut' => $this->hands] : []),
                ]);
            }
        }

        return $out;
    }
}
