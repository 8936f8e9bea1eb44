<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Model\Mounting;
use CrispReel\Core\Rig\Figure;

/** Beats that are done on a thing: getting on it, riding it, getting off. */
final readonly class Rides
{
    /** Metres above a thing's own ground from which one may get on. */
    private const STEP = 1.0;

    public function __construct(
        private Document $document,
        private AssetSource $assets,
        private OwnPlaces $places,
        private Surroundings $around,
    ) {
    }

    /** The thing that a beat is done on; null: on none that there is. */
    public function thing(Beat $beat): ?Item
    {
        $thing = $beat->play->on === '' ? null : $this->document->items[$beat->play->on] ?? null;

        return $thing === null || $thing->kind === 'performer' || $thing->id === $beat->item ? null : $thing;
    }

    /**
     * What a motion of getting on is to know of the thing, in metres of the one who rides.
     *
     * @param  float|null  $side  from which it is got on or off, 1 its rider's left, -1 its right; null: as the thing says
     * @return array<string, float>
     */
    public function facts(Item $thing, Item $rider, float $frame, ?float $side): array
    {
        $digest = $this->assets->digest($this->document->assets[$thing->asset]);
        $unit = $thing->scale / $rider->scale;
        $own = self::section($digest, 'rider');
        [$x, $y, $z, $turn] = self::seat($digest);
        $facts = ['astride' => self::astride($own) ? 1.0 : 0.0, 'seat' => $y * $unit];
        $on = self::gettingOn($digest);
        foreach (['away', 'ahead', 'over', 'behind', 'floor', 'half'] as $name) {
            $facts[$name] = $on[$name] * $unit;
        }
        $facts['side'] = ($side ?? $on['side']) < 0.0 ? -1.0 : 1.0;
        $at = $this->places->of($thing)($frame);
        $stand = self::below($at, [$x, $z, $turn])->point([$facts['side'] * $on['away'] * $thing->scale, 0.0, 0.0]);
        $base = $at->position[1];
        $solids = $this->around->solids([$stand[0] - 0.2, $stand[2] - 0.2, $stand[0] + 0.2, $stand[2] + 0.2], [$thing->id]);
        $below = $solids->height($stand[0], $stand[2], $base + self::STEP);
        if ($below === null) {
            $below = $base > -self::STEP && $base < self::STEP ? 0.0 : $base;
        }
        // What lies far below is no ground to stand on; whole millimetres, so that what is solved once serves again.
        $facts['ground'] = round(max($base - 0.3, $below) - $base, 3) / $rider->scale;

        return $facts;
    }

    /** A beat's rows along with the thing. */
    public function riding(Item $thing, Item $rider, Figure $figure): Riding
    {
        [$x, , $z, $turn] = self::seat($this->assets->digest($this->document->assets[$thing->asset]));
        $at = $this->places->of($thing);

        return Riding::along(
            $rider, $figure, static fn (float $frame): Placement => self::below($at($frame), [$x, $z, $turn]),
            Memory::key('riding', $this->places->grounds($thing)),
        );
    }

    /**
     * The space of motions on a thing: below its seat, as its rider faces.
     *
     * @param  array{float, float, float}  $seat  x, z in the thing's space, degrees
     */
    private static function below(Placement $thing, array $seat): Placement
    {
        return new Placement($thing->point([$seat[0], 0.0, $seat[1]]), Q4::mul($thing->rotation, Q4::aroundY(deg2rad($seat[2]))));
    }

    /**
     * Where one sits on a thing: the place of the seat in its space, and degrees by which a rider is turned.
     *
     * @param  array<string, mixed>  $digest
     * @return array{float, float, float, float}
     */
    public static function seat(array $digest): array
    {
        $at = Mounts::in($digest, 'seat')->position ?? [0.0, 0.8, 0.0];
        $turned = self::section($digest, 'rider')['headingDeg'] ?? 0.0;

        return [...$at, is_numeric($turned) ? (float) $turned : 0.0];
    }

    /**
     * A part of what an asset says of how it is driven.
     *
     * @param  array<string, mixed>  $digest
     * @return array<array-key, mixed> empty: it says nothing
     */
    public static function section(array $digest, string $part): array
    {
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        $vehicle = is_array($extras['vehicle'] ?? null) ? $extras['vehicle'] : [];

        return is_array($vehicle[$part] ?? null) ? $vehicle[$part] : [];
    }

    /**
     * How a thing says it is got on; what it does not say is as usual.
     *
     * @param  array<string, mixed>  $digest
     * @return array{side: float, away: float, ahead: float, over: float, behind: float, floor: float, half: float}
     */
    public static function gettingOn(array $digest): array
    {
        $on = self::section($digest, 'getOn');
        $number = static fn (string $name): float => is_numeric($on[$name] ?? null) ? (float) $on[$name] : (float) Mounting::USUAL[$name];

        return [
            'side' => $number('side') < 0.0 ? -1.0 : 1.0, 'away' => $number('away'), 'ahead' => $number('ahead'), 'over' => $number('over'),
            'behind' => $number('behind'), 'floor' => $number('floor'), 'half' => $number('half'),
        ];
    }

    /**
     * Who has pedals sits astride; feet that rest in the thing itself have been put aboard.
     *
     * @param  array<array-key, mixed>  $rider
     */
    public static function astride(array $rider): bool
    {
        $foot = is_array($rider['footL'] ?? null) ? $rider['footL'] : [];

        return ($foot['mount'] ?? '') !== '';
    }
}
