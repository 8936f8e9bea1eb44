<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Route;
use CrispReel\Core\Geometry\SmoothCurve;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A thing on its route, settled once for every two centimetres of the way: the front axle keeps to the line and the rear
 * one is drawn after it, wheels roll over the ground as circles do, and the body stands on them.
 */
final class Drive
{
    /** Bump when a drive is settled in another way. */
    private const VERSION = 1;

    private const EVERY = 0.02;

    /** Share of the time in which it gathers and loses speed. */
    private const RAMP = 0.2;

    /** Over this rise (metres) wheels do not roll. */
    private const STEP = 0.35;

    private SmoothCurve $line;

    /** @var list<Placement> */
    private array $places = [];

    /** @var list<float> steering angle, radians */
    private array $steering = [];

    /** @var list<float> way of the rear axle, metres */
    private array $rearWay = [];

    /** @var list<float> curvature, 1/m */
    private array $bends = [];

    /** @var list<float> way made by frame, from the first frame on */
    private array $made = [];

    private float $from = 0.0;

    private float $to = 0.0;

    public readonly float $length;

    /**
     * @param  array<string, Lane>  $lanes  of performers
     * @param  array{int, int|null}|null  $pushing  frames in which the pusher's hands are on it
     */
    public function __construct(private readonly Item $item, private readonly Route $route, private readonly Vehicle $vehicle, private readonly ?Figure $figure, private readonly Surroundings $around, private readonly float $rate, array $lanes, private readonly ?Placement $pusher = null, private readonly ?array $pushing = null, ?AssetSource $assets = null)
    {
        $lane = $route->by === null ? null : $lanes[$route->by] ?? null;
        $points = $this->points($lane);
        $this->line = new SmoothCurve($points);
        $this->length = $this->line->length();
        $assets === null ? $this->settle() : $this->kept($assets, $points);
        $lane === null ? $this->timed() : $this->pushed($lane);
    }

    public function end(): float
    {
        return $this->to;
    }

    private function start(): Placement
    {
        return Placement::standing($this->item->position, $this->item->headingDeg, $this->item->scale);
    }

    /** @return list<array{float, float, float}> the line of the front (or only) axle */
    private function points(?Lane $lane): array
    {
        $v = $this->vehicle;
        $front = $this->start()->point([$v->rear[0] + sin($v->forward) * $v->wheelbase, 0.0, $v->rear[1] + cos($v->forward) * $v->wheelbase]);
        $points = [[$front[0], 0.0, $front[2]]];
        $way = $lane === null || $this->pusher === null ? $this->route->points : $this->walked($lane, $this->pusher);
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
        return array_values(array_filter($out, static fn (array $q): bool => ($q[0] - $front[0]) * $way[0] + ($q[1] - $front[2]) * $way[1] > 0.2));
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

    /**
     * Settled once for one line on one ground, and read back.
     *
     * @param  list<array{float, float, float}>  $points
     */
    private function kept(AssetSource $assets, array $points): void
    {
        $x = array_column($points, 0);
        $z = array_column($points, 2);
        $key = hash('sha256', json_encode([
            'drive', self::VERSION, array_map(static fn (float $v): string => sprintf('%.4f', $v), array_merge(...$points)), $this->item->position, $this->item->headingDeg, $this->item->scale, (array) $this->vehicle,
            $x === [] || $z === [] ? [] : $this->around->signature([min($x) - 3, min($z) - 3, max($x) + 3, max($z) + 3]),
        ], JSON_THROW_ON_ERROR));
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            $this->settle();
            $rows = [];
            foreach ($this->places as $i => $p) {
                $rows[] = pack('g10', ...[...$p->position, ...$p->rotation, $this->steering[$i], $this->bends[$i], $this->rearWay[$i]]);
            }
            $bytes = implode('', $rows);
            $assets->keep($key, $bytes);
        }
        $this->places = $this->steering = $this->bends = $this->rearWay = [];
        foreach (str_split($bytes, 40) as $row) {
            /** @var array<int, float> $v */
            $v = unpack('g10', $row);
            $this->places[] = new Placement([$v[1], $v[2], $v[3]], [$v[4], $v[5], $v[6], $v[7]], $this->item->scale);
            $this->steering[] = $v[8];
            $this->bends[] = $v[9];
            $this->rearWay[] = $v[10];
        }
    }

    private function settle(): void
    {
        $v = $this->vehicle;
        $base = $v->wheelbase * $this->item->scale;
        $count = (int) ceil($this->length / self::EVERY) + 1;
        $start = $this->start();
        $rear = $start->point([$v->rear[0], 0.0, $v->rear[1]]);
        $stands = [];
        for ($i = 0; $i < $count; $i++) {
            $s = min($this->length, $i * self::EVERY);
            $front = $this->line->at($s);
            $heading = $this->tangent($s);
            if ($base > 0.0) {
                // The rear axle is pulled along (a tractrix in small steps).
                $back = V3::unit(V3::sub($rear, [$front[0], $rear[1], $front[2]]));
                $before = $rear;
                $rear = [$front[0] + $back[0] * $base, $rear[1], $front[2] + $back[2] * $base];
                $this->rearWay[] = $i === 0 ? 0.0 : $this->rearWay[$i - 1] + V3::distance($rear, $before);
                $steer = atan2(sin($heading - atan2(-$back[0], -$back[2])), cos($heading - atan2(-$back[0], -$back[2])));
                $heading = atan2(-$back[0], -$back[2]);
            } else {
                $rear = [$front[0], $rear[1], $front[2]];
                $this->rearWay[] = $s;
                $steer = 0.0;
            }
            $turn = $heading - $v->forward;
            $off = Q4::rotate(Q4::aroundY($turn), V3::mul([$v->rear[0], 0.0, $v->rear[1]], $this->item->scale));
            $stands[] = [$rear[0] - $off[0], $rear[2] - $off[2], $turn];
            $this->steering[] = $steer;
            $this->bends[] = ($this->tangent($s + 0.15) - $this->tangent($s - 0.15)) / 0.3;
        }
        $this->ground($stands);
    }

    private function tangent(float $s): float
    {
        $a = $this->line->at(max(0.0, $s - 0.12));
        $b = $this->line->at(min($this->length, $s + 0.12));

        return atan2($b[0] - $a[0], $b[2] - $a[2]);
    }

    /**
     * Stands the body on its wheels (or on the water).
     *
     * @param  list<array{float, float, float}>  $stands  x, z, heading of the item
     */
    private function ground(array $stands): void
    {
        $v = $this->vehicle;
        $scale = $this->item->scale;
        $bearing = array_values(array_filter($v->wheels, static fn (array $w): bool => $w['bears']));
        $wheels = $bearing === [] ? [['x' => $v->rear[0], 'z' => $v->rear[1], 'radius' => 0.05]] : $bearing;
        $heights = [];
        if ($v->floats === null) {
            $region = [INF, INF, -INF, -INF];
            foreach ($stands as [$x, $z]) {
                $region = [min($region[0], $x - 2), min($region[1], $z - 2), max($region[2], $x + 2), max($region[3], $z + 2)];
            }
            $solids = $this->around->solids($region);
            foreach ($wheels as $k => $w) {
                $heights[$k] = $this->rolled($this->profile($solids, $stands, $w['x'] * $scale, $w['z'] * $scale), $w['radius'] * $scale);
            }
        }
        $ahead = [sin($v->forward), cos($v->forward)];
        foreach ($stands as $i => [$x, $z, $turn]) {
            if ($v->floats !== null) {
                $this->places[] = new Placement([$x, $v->floats, $z], Q4::aroundY($turn), $scale);

                continue;
            }
            // A plane through the wheels by least squares, along and across.
            [$y, $pitch, $roll] = self::plane(array_map(static fn (array $w, array $h): array => [($w['x'] * $ahead[0] + $w['z'] * $ahead[1]) * $scale, ($w['x'] * $ahead[1] - $w['z'] * $ahead[0]) * $scale, $h[$i]], $wheels, $heights));
            $pitch -= $v->tilt;
            $q = Q4::mul(Q4::aroundY($turn + $v->forward), Q4::mul(Q4::aroundX(-$pitch), Q4::mul(Q4::aroundZ($roll), Q4::aroundY(-$v->forward))));
            $flat = Q4::rotate(Q4::aroundY($turn), V3::mul([$v->rear[0], 0.0, $v->rear[1]], $scale));
            $tipped = Q4::rotate($q, V3::mul([$v->rear[0], 0.0, $v->rear[1]], $scale));
            $this->places[] = new Placement([$x + $flat[0] - $tipped[0], $y, $z + $flat[2] - $tipped[2]], $q, $scale);
        }
    }

    /**
     * Ground along the track of one wheel.
     *
     * @param  list<array{float, float, float}>  $stands
     * @return list<float>
     */
    private function profile(Solids $solids, array $stands, float $wx, float $wz): array
    {
        $y = $this->item->position[1];
        $out = [];
        foreach ($stands as [$x, $z, $turn]) {
            [$c, $s] = [cos($turn), sin($turn)];
            $y = $solids->height($x + $wx * $c + $wz * $s, $z - $wx * $s + $wz * $c, $y + self::STEP) ?? $y;
            $out[] = $y;
        }

        return $out;
    }

    /**
     * Height of the lowest point of a circle that rolls over a profile.
     *
     * @param  list<float>  $profile
     * @return list<float>
     */
    private function rolled(array $profile, float $radius): array
    {
        $reach = (int) floor($radius / self::EVERY);
        $out = [];
        $n = count($profile);
        foreach ($profile as $i => $_) {
            $best = -INF;
            for ($k = -$reach; $k <= $reach; $k++) {
                $d = $k * self::EVERY;
                $best = max($best, $profile[max(0, min($n - 1, $i + $k))] + sqrt(max(0.0, $radius * $radius - $d * $d)) - $radius);
            }
            $out[] = $best;
        }

        return $out;
    }

    /**
     * @param  array<int, array{float, float, float}>  $points  along, across (to the left), height
     * @return array{float, float, float} height over the origin, pitch (nose up) and roll (left side up)
     */
    private static function plane(array $points): array
    {
        $n = count($points);
        [$a, $b, $h] = [array_sum(array_column($points, 0)) / $n, array_sum(array_column($points, 1)) / $n, array_sum(array_column($points, 2)) / $n];
        [$aa, $bb, $ah, $bh] = [0.0, 0.0, 0.0, 0.0];
        foreach ($points as [$p, $q, $y]) {
            $aa += ($p - $a) ** 2;
            $bb += ($q - $b) ** 2;
            $ah += ($p - $a) * ($y - $h);
            $bh += ($q - $b) * ($y - $h);
        }
        $along = $aa > 1e-6 ? $ah / $aa : 0.0;
        $across = $bb > 1e-6 ? $bh / $bb : 0.0;

        return [$h - $along * $a - $across * $b, atan($along), atan($across)];
    }

    private function timed(): void
    {
        $this->from = (float) $this->route->from;
        $this->to = $this->route->to === null ? $this->from + $this->length / ($this->route->speed * (1 - self::RAMP)) * $this->rate : (float) $this->route->to;
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
        $sigma = 0.22 * $this->rate;
        $reach = (int) ceil(3 * $sigma);
        foreach ($raw as $f => $_) {
            [$sum, $total] = [0.0, 0.0];
            for ($k = -$reach; $k <= $reach; $k++) {
                $w = exp(-0.5 * ($k / $sigma) ** 2);
                $sum += $w * $raw[max(0, min($end, $f + $k))];
                $total += $w;
            }
            $this->made[] = $sum / $total;
        }
        $this->to = (float) $end;
    }

    /** Metres of the way made at a frame. */
    public function way(float $frame): float
    {
        if ($this->made !== []) {
            $f = max(0.0, min($frame, count($this->made) - 1.000001));
            $i = (int) $f;

            return min($this->length, Ease::mix($this->made[$i], $this->made[min(count($this->made) - 1, $i + 1)], $f - $i));
        }
        $u = Ease::clamp(($frame - $this->from) / max(1e-6, $this->to - $this->from));
        $a = self::RAMP;
        $k = 1 / (1 - $a);

        return $this->length * match (true) {
            $u < $a => $k * $u * $u / (2 * $a), $u <= 1 - $a => $k * ($u - $a / 2), default => 1 - $k * (1 - $u) ** 2 / (2 * $a),
        };
    }

    public function place(float $frame): Placement
    {
        $s = $this->way($frame);
        $at = $this->between($s);
        // Where it stands before is where the person has put it; it comes on to the line within its first steps.
        $begun = Ease::smooth($s / 0.25);
        $at = $begun < 1.0 ? $this->start()->mix($at, $begun) : $at;
        if ($this->vehicle->leans) {
            $v = ($this->way($frame + 0.5) - $this->way($frame - 0.5)) * $this->rate;
            $lean = atan($v * $v * $this->bends[(int) min(count($this->bends) - 1, $s / self::EVERY)] / 9.81);
            $ahead = Q4::rotate($at->rotation, [sin($this->vehicle->forward), 0.0, cos($this->vehicle->forward)]);

            return new Placement($at->position, Q4::mul(Q4::axis($ahead, -$lean), $at->rotation), $at->scale);
        }

        return $at;
    }

    private function between(float $s): Placement
    {
        $x = min($s / self::EVERY, count($this->places) - 1);
        $i = (int) $x;

        return $this->places[$i]->mix($this->places[min(count($this->places) - 1, $i + 1)], $x - $i);
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
        $steer = $this->steering[(int) min(count($this->steering) - 1, $s / self::EVERY)] * Ease::smooth($s / 0.1);
        $x = min($s / self::EVERY, count($this->rearWay) - 1);
        $rear = Ease::mix($this->rearWay[(int) $x], $this->rearWay[min(count($this->rearWay) - 1, (int) $x + 1)], $x - (int) $x);
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

        return array_values($row);
    }

    public function fingerprint(): string
    {
        return hash('sha256', json_encode([$this->item->toArray(), (array) $this->vehicle, array_map(static fn (float $v): string => sprintf('%.5f', $v), $this->made), array_map(static fn (Placement $p): array => array_map(static fn (float $v): string => sprintf('%.5f', $v), $p->flat()), array_filter($this->places, static fn (int $i): bool => $i % 10 === 0, ARRAY_FILTER_USE_KEY)), $this->rate], JSON_THROW_ON_ERROR));
    }
}
