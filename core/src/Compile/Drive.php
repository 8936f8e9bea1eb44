<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Route;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Smoothing;
use CrispReel\Core\Rig\Figure;

/** A thing on its route: how far it has come at a frame, by its speed or by who pushes it, where that puts it, and how its wheels stand. */
final class Drive
{
    /** Share of the time in which it gathers and loses speed. */
    private const RAMP = 0.2;

    private readonly Track $track;

    /** @var list<float> way made by frame, from the first frame on */
    private array $made = [];

    private ?string $fingerprint = null;

    private float $from = 0.0;

    private float $to = 0.0;

    /**
     * @param  array<string, Lane>  $lanes  of performers
     * @param  array{int, int|null}|null  $pushing  frames in which the pusher's hands are on it
     */
    public function __construct(
        private readonly Item $item, private readonly Route $route, private readonly Vehicle $vehicle, private readonly ?Figure $figure,
        Surroundings $around, AssetSource $assets, private readonly float $rate, array $lanes, private readonly ?Placement $pusher = null,
        private readonly ?array $pushing = null,
    ) {
        $lane = $route->by === null ? null : $lanes[$route->by] ?? null;
        $this->track = new Track($item, $vehicle, $around, $this->points($lane), $assets);
        $lane === null ? $this->timed() : $this->pushed($lane);
    }

    public function end(): float
    {
        return $this->to;
    }

    /** Whether wheels bear it. */
    public function rolls(): bool
    {
        return array_filter($this->vehicle->wheels, static fn (array $w): bool => $w['bears']) !== [];
    }

    private function start(): Placement
    {
        return Placement::standing($this->item->position, $this->item->headingDeg, $this->item->scale);
    }

    /** @return list<array{float, float, float}> the line of the front (or only) axle */
    private function points(?Lane $lane): array
    {
        $v = $this->vehicle;
        $front = $this->start()
            ->point([$v->rear[0] + sin($v->forward) * $v->wheelbase, 0.0, $v->rear[1] + cos($v->forward) * $v->wheelbase]);
        $points = [[$front[0], 0.0, $front[2]]];
        $way = $lane === null || $this->pusher === null ? $this->route->points : $this->walked($lane, $this->pusher);
        // A place between its axles, as where it stands itself, is none to go to: it would roll back for it.
        [$sx, , $sz] = $this->start()->position;
        $reach = hypot($front[0] - $sx, $front[2] - $sz);
        while (count($way) > 1 && hypot($way[0][0] - $sx, $way[0][1] - $sz) < $reach + 0.1) {
            array_shift($way);
        }
        foreach ($way as [$x, $z]) {
            $last = $points[count($points) - 1];
            if (hypot($x - $last[0], $z - $last[2]) > 0.1) {
                $points[] = [$x, 0.0, $z];
            }
        }
        if (count($points) < 2) {
            $points[] = [$front[0] + 0.1, 0.0, $front[2]];
        }

        return $points;
    }

    /**
     * Where the one who pushes goes, as far ahead as the thing stands: every half metre of the walk, and straight on.
     *
     * @return list<array{float, float}>
     */
    private function walked(Lane $lane, Placement $place): array
    {
        $out = [];
        $last = null;
        $way = [0.0, 0.0];
        for ($f = (float) ($this->pushing[0] ?? $this->route->from), $end = $this->pushedUntil($lane); $f <= $end; $f++) {
            $p = $this->stood($lane, $place, $f);
            if ($last === null || hypot($p[0] - $last[0], $p[1] - $last[1]) > 0.5) {
                if ($last !== null) {
                    $way = [$p[0] - $last[0], $p[1] - $last[1]];
                    $out[] = $p;
                }
                $last = $p;
            }
        }
        $p = $this->stood($lane, $place, $this->pushedUntil($lane));
        $l = max(1e-6, hypot(...$way));
        $out[] = $p;
        $out[] = [$p[0] + $way[0] / $l * 3.0, $p[1] + $way[1] / $l * 3.0];
        $front = $this->start()->position;

        // Only what lies beyond the thing itself.
        return array_values(array_filter(
            $out,
            static fn (array $q): bool => ($q[0] - $front[0]) * $way[0] + ($q[1] - $front[2]) * $way[1] > 0.2,
        ));
    }

    private function pushedUntil(Lane $lane): float
    {
        return min($lane->end(), (float) ($this->pushing[1] ?? $this->route->to ?? $lane->end()));
    }

    /** @return array{float, float} */
    private function stood(Lane $lane, Placement $place, float $frame): array
    {
        $row = $lane->row($frame);
        $at = $place->point([$row[0], 0.0, $row[2]]);

        return [$at[0], $at[2]];
    }

    private function timed(): void
    {
        $this->from = (float) $this->route->from;
        $this->to = $this->route->to === null
            ? $this->from + $this->track->length / ($this->route->speed * (1 - self::RAMP)) * $this->rate
            : (float) $this->route->to;
    }

    /** Goes as far as the walker does, without the swing of the steps. */
    private function pushed(Lane $lane): void
    {
        assert($this->pusher !== null);
        $raw = [0.0];
        $last = $this->stood($lane, $this->pusher, 0.0);
        $end = (int) ceil($this->pushedUntil($lane));
        $from = $this->pushing[0] ?? $this->route->from;
        for ($f = 1; $f <= $end; $f++) {
            $p = $this->stood($lane, $this->pusher, (float) $f);
            $step = hypot($p[0] - $last[0], $p[1] - $last[1]);
            // Sway on the spot is no way made.
            $raw[] = $raw[$f - 1] + ($f > $from && $step * $this->rate > 0.25 ? $step : 0.0);
            $last = $p;
        }
        $this->made = Smoothing::gaussian($raw, 0.22 * $this->rate);
        $this->to = (float) $end;
    }

    /** Metres of the way made at a frame. */
    public function way(float $frame): float
    {
        if ($this->made !== []) {
            $f = max(0.0, min($frame, count($this->made) - 1.000001));
            $i = (int) $f;

            return min($this->track->length, Ease::mix($this->made[$i], $this->made[min(count($this->made) - 1, $i + 1)], $f - $i));
        }
        $u = Ease::clamp(($frame - $this->from) / max(1e-6, $this->to - $this->from));
        $a = self::RAMP;
        $k = 1 / (1 - $a);

        return $this->track->length * match (true) {
            $u < $a => $k * $u * $u / (2 * $a), $u <= 1 - $a => $k * ($u - $a / 2), default => 1 - $k * (1 - $u) ** 2 / (2 * $a),
        };
    }

    public function place(float $frame): Placement
    {
        $s = $this->way($frame);
        $at = $this->track->at($s);
        // Where it stands before is where the person has put it; it comes on to the line within its first steps.
        $begun = Ease::smooth($s / 0.25);
        $at = $begun < 1.0 ? $this->start()->mix($at, $begun) : $at;
        if ($this->vehicle->leans) {
            $v = ($this->way($frame + 0.5) - $this->way($frame - 0.5)) * $this->rate;
            $lean = atan($v * $v * $this->track->bend($s) / 9.81);
            $ahead = Q4::rotate($at->rotation, [sin($this->vehicle->forward), 0.0, cos($this->vehicle->forward)]);

            return new Placement($at->position, Q4::mul(Q4::axis($ahead, -$lean), $at->rotation), $at->scale);
        }

        return $at;
    }

    /**
     * The row with its wheels turned.
     *
     * @param  list<float>  $row
     * @return list<float>
     */
    public function turned(array $row, float $frame): array
    {
        $s = $this->way($frame);
        $steer = $this->track->steer($s) * Ease::smooth($s / 0.1);
        $rear = $this->track->rear($s);
        $axle = [cos($this->vehicle->forward), 0.0, -sin($this->vehicle->forward)];
        foreach ($this->vehicle->wheels as $w) {
            $j = $this->figure?->skeleton->joint($w['joint']);
            if ($j === null || $this->figure === null) {
                continue;
            }
            $q = $w['rolls'] ? Q4::axis($axle, ($w['steers'] ? $s : $rear) / ($w['radius'] * $this->item->scale)) : Q4::IDENTITY;
            $q = $w['steers'] ? Q4::mul(Q4::aroundY($steer), $q) : $q;
            $o = 3 + 4 * $j;
            [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = Q4::mul($this->figure->skeleton->restRotation($j), $q);
        }

        foreach ($this->vehicle->oars as $oar) {
            $j = $this->figure?->skeleton->joint($oar['joint']);
            if ($j === null || $this->figure === null) {
                continue;
            }
            $o = 3 + 4 * $j;
            [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = Q4::mul(
                $this->figure->skeleton->restRotation($j),
                self::stroke($oar, $s / $this->item->scale),
            );
        }

        return array_values($row);
    }

    /**
     * An oar after some way: from the catch ahead through the water to behind, and back above it. Between strokes it hangs
     * where it rests; the first stroke begins from there.
     *
     * @param  array{joint: string, side: float, metres: float, sweep: float, dip: float, rest: float}  $oar
     * @return array{float, float, float, float}
     */
    private static function stroke(array $oar, float $way): array
    {
        $turns = $way / $oar['metres'];
        // The pull takes two fifths of a stroke, the way back three.
        $u = $turns - floor($turns);
        $phase = $u < 0.4 ? M_PI * $u / 0.4 : M_PI + M_PI * ($u - 0.4) / 0.6;
        $begun = Ease::smooth($turns / 0.15);
        $sweep = -$oar['sweep'] * cos($phase) * $begun;
        $dip = $oar['rest'] - $oar['dip'] * sin($phase) * $begun;

        return Q4::mul(Q4::aroundY($oar['side'] * $sweep), Q4::aroundZ($oar['side'] * $dip));
    }

    public function fingerprint(): string
    {
        return $this->fingerprint ??= hash(
            'sha256',
            json_encode(
                [
                    $this->item->toArray(), (array) $this->vehicle,
                    array_map(static fn (float $v): string => sprintf('%.5f', $v), $this->made), $this->track->fingerprint(), $this->rate,
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
    }
}
