<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Geometry\SmoothCurve;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * The ground that a vehicle covers, settled for every two centimetres of its line: the front axle keeps to the line and
 * the rear one is drawn after it, wheels roll over the ground as circles do, and the body stands on them.
 */
final class Track
{
    /** Bump when a track is settled in another way. */
    private const VERSION = 3;

    private const EVERY = 0.02;

    /** Over this rise (metres) wheels do not roll. */
    private const STEP = 0.35;

    private readonly SmoothCurve $line;

    /** @var list<Placement> */
    private array $places = [];

    /** @var list<float> steering angle, radians */
    private array $steering = [];

    /** @var list<float> way of the rear axle, metres */
    private array $rearWay = [];

    /** @var list<float> curvature, 1/m */
    private array $bends = [];

    public readonly float $length;

    /** @param  list<array{float, float, float}>  $points  of the front (or only) axle, two or more */
    public function __construct(
        private readonly Item $item,
        private readonly Vehicle $vehicle,
        private readonly Surroundings $around,
        array $points,
        AssetSource $assets,
    ) {
        $this->line = new SmoothCurve($points);
        $this->length = $this->line->length();
        $this->kept($assets, $points);
    }

    public function at(float $s): Placement
    {
        [$i, $next, $share] = $this->step($s);

        return $this->places[$i]->mix($this->places[$next], $share);
    }

    /** Metres that the rear axle has made where the front one has made $s. */
    public function rear(float $s): float
    {
        [$i, $next, $share] = $this->step($s);

        return Ease::mix($this->rearWay[$i], $this->rearWay[$next], $share);
    }

    /** Angle of the front wheels, radians. */
    public function steer(float $s): float
    {
        return $this->steering[$this->step($s)[0]];
    }

    /** Curvature, 1/m; to the left positive. */
    public function bend(float $s): float
    {
        return $this->bends[$this->step($s)[0]];
    }

    /** @return array{int, int, float} the steps on both sides and the share of the later one */
    private function step(float $s): array
    {
        $x = min($s / self::EVERY, count($this->places) - 1);

        return [(int) $x, min(count($this->places) - 1, (int) $x + 1), $x - (int) $x];
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
            'drive', self::VERSION, array_map(static fn (float $v): string => sprintf('%.4f', $v), array_merge(...$points)),
            $this->item->position, $this->item->headingDeg, $this->item->scale, (array) $this->vehicle,
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
        $rear = Placement::standing($this->item->position, $this->item->headingDeg, $this->item->scale)
            ->point([$v->rear[0], 0.0, $v->rear[1]]);
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
                $steer = Angle::wrapped($heading - atan2(-$back[0], -$back[2]));
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
            $this->bends[] = Angle::wrapped($this->tangent($s + 0.15) - $this->tangent($s - 0.15)) / 0.3;
        }
        $this->ground($stands);
    }

    private function tangent(float $s): float
    {
        // Before its beginning and beyond its end the line goes on as it begins and ends.
        $s = Ease::clamp($s, 0.0, $this->length);
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
            [$y, $pitch, $roll] = self::plane(array_map(
                static fn (array $w, array $h): array => [
                    ($w['x'] * $ahead[0] + $w['z'] * $ahead[1]) * $scale, ($w['x'] * $ahead[1] - $w['z'] * $ahead[0]) * $scale, $h[$i],
                ],
                $wheels,
                $heights,
            ));
            $pitch -= $v->tilt;
            $q = Q4::mul(
                Q4::aroundY($turn + $v->forward),
                Q4::mul(Q4::aroundX(-$pitch), Q4::mul(Q4::aroundZ($roll), Q4::aroundY(-$v->forward))),
            );
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
        [$a, $b, $h] = [
            array_sum(array_column($points, 0)) / $n, array_sum(array_column($points, 1)) / $n, array_sum(array_column($points, 2)) / $n,
        ];
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

    public function fingerprint(): string
    {
        $text = static fn (Placement $p): array => array_map(static fn (float $v): string => sprintf('%.5f', $v), $p->flat());

        return hash(
            'sha256',
            json_encode(
                array_map($text, array_filter($this->places, static fn (int $i): bool => $i % 10 === 0, ARRAY_FILTER_USE_KEY)),
                JSON_THROW_ON_ERROR,
            ),
        );
    }
}
