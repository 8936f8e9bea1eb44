<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

/**
 * What an asset says of how it drives (extras "vehicle"): which way is ahead, its axles and wheels, or that it floats.
 * Lengths are metres in the asset's space.
 */
final readonly class Vehicle
{
    /**
     * @param  float  $forward  heading of ahead in its own space, radians from +Z towards +X
     * @param  array{float, float}  $rear  x, z of the middle of the rear (or only) axle
     * @param  float  $wheelbase  front axle ahead of the rear one; 0: one axle
     * @param  list<array{joint: string, x: float, z: float, radius: float, steers: bool, rolls: bool, bears: bool}>  $wheels  what turns with the way: wheels that bear it, cranks, and forks that only steer
     * @param  float  $tilt  pitch while it moves (nose down positive), radians: a cart is lifted off its legs
     * @param  bool  $leans  into curves, as two-wheelers do
     * @param  float|null  $floats  height of the water that it lies on
     * @param  list<array{joint: string, side: float, metres: float, sweep: float, dip: float, rest: float}>  $oars  blades to the left (side 1) or right (-1): way made in a stroke, swing to either side, dip and rest below the level, radians
     */
    public function __construct(
        public float $forward, public array $rear, public float $wheelbase, public array $wheels, public float $tilt, public bool $leans,
        public ?float $floats, public array $oars = [],
    ) {
    }

    /** @param  array<string, mixed>  $digest */
    public static function of(array $digest): self
    {
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        $v = is_array($extras['vehicle'] ?? null) ? $extras['vehicle'] : [];
        $number = static fn (mixed $n, float $usual): float => is_int($n) || is_float($n) ? (float) $n : $usual;
        $wheels = [];
        foreach (is_array($v['wheels'] ?? null) ? $v['wheels'] : [] as $w) {
            if (is_array($w) && is_string($w['joint'] ?? null)) {
                $wheels[] = [
                    'joint' => $w['joint'], 'x' => $number($w['x'] ?? null, 0.0), 'z' => $number($w['z'] ?? null, 0.0),
                    'radius' => max(0.01, $number($w['radius'] ?? null, 0.3)), 'steers' => ($w['steers'] ?? false) === true,
                    'rolls' => ($w['rolls'] ?? true) === true, 'bears' => ($w['bears'] ?? true) === true,
                ];
            }
        }
        $oars = [];
        foreach (is_array($v['oars'] ?? null) ? $v['oars'] : [] as $o) {
            if (is_array($o) && is_string($o['joint'] ?? null)) {
                $oars[] = [
                    'joint' => $o['joint'], 'side' => $number($o['side'] ?? null, 1.0) < 0 ? -1.0 : 1.0,
                    'metres' => max(0.2, $number($o['metres'] ?? null, 2.5)), 'sweep' => deg2rad($number($o['sweepDeg'] ?? null, 30.0)),
                    'dip' => deg2rad($number($o['dipDeg'] ?? null, 7.0)), 'rest' => deg2rad($number($o['restDeg'] ?? null, -8.0)),
                ];
            }
        }
        $rear = is_array($v['rear'] ?? null) ? $v['rear'] : [];

        return new self(
            deg2rad($number($v['forwardDeg'] ?? null, 0.0)), [$number($rear[0] ?? null, 0.0), $number($rear[1] ?? null, 0.0)],
            max(0.0, $number($v['wheelbase'] ?? null, 0.0)),
            $wheels, deg2rad($number($v['tiltDeg'] ?? null, 0.0)), ($v['leans'] ?? false) === true,
            isset($v['floats']) ? $number($v['floats'], 0.0) : null, $oars,
        );
    }
}
