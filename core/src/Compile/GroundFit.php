<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\Item;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\Posture;

/**
 * Feet of a beat that was made on even ground, brought to the ground that it plays on: planted feet stand on what is below
 * them and tilt with it, swinging ones go from the one height to the other, and the pelvis sinks so that the lower foot
 * reaches. Settled once for one motion at one place; on even ground there is nothing to settle.
 */
final class GroundFit
{
    private const VERSION = 2;

    /** Metres within which ground counts as even: boards are never quite. */
    private const EVEN = 0.012;

    /** Metres that a foot steps up or down at once. */
    private const STEP = 0.45;

    /** A foot this near to its rest height (metres) and slower than PLANTED_SPEED (m/s) stands. */
    private const PLANTED = 0.04;

    private const PLANTED_SPEED = 0.2;

    /** Steepest tilt of a foot, radians (30 degrees). */
    private const TILT = 0.5236;

    /** Tilt within which ground counts as level, radians. */
    private const LEVEL = 0.07;

    /** Numbers a frame: lift, pitch and roll of the left foot, of the right, and the pelvis. */
    private const WIDTH = 7;

    /** @param  list<float>  $rows  WIDTH numbers a frame from the segment's start on */
    private function __construct(private readonly Figure $figure, private readonly array $rows, private readonly bool $repeats, public readonly float $end, public readonly string $key)
    {
    }

    /** Null where the ground is even. */
    public static function of(LaneSegment $segment, Item $item, Figure $figure, Surroundings $around, AssetSource $assets, float $rate): ?self
    {
        if ($around->isEmpty()) {
            return null;
        }
        $frames = (int) ceil(min(20_000, $segment->end - $segment->start));
        $place = Placement::standing($item->position, $item->headingDeg, $item->scale);
        $region = self::region($segment, $figure, $place, $frames);
        $signature = $around->signature($region);
        if ($signature === [] || $frames < 1) {
            return null;
        }
        $repeats = hypot($segment->loopMove[0], $segment->loopMove[1]) < 0.02;
        $key = hash('sha256', json_encode(['fit', self::VERSION, $segment->fingerprint(), $figure->blob, $item->position, $item->headingDeg, $item->scale, $signature, $rate], JSON_THROW_ON_ERROR));
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            $bytes = (new self($figure, [], false, 0.0, ''))->settled($segment, $place, $around->solids($region), $frames, $rate);
            $assets->keep($key, $bytes);
        }
        if ($bytes === '') {
            return null;
        }

        /** @var array<int, float> $rows */
        $rows = unpack('e*', $bytes);
        $rows = array_values($rows);
        $last = count($rows) - self::WIDTH;

        return new self($figure, $rows, $repeats, ($rows[$last] + $rows[$last + 3]) / 2, $key);
    }

    /** @return array{float, float, float, float} */
    private static function region(LaneSegment $segment, Figure $figure, Placement $place, int $frames): array
    {
        $region = [INF, INF, -INF, -INF];
        // A few places of the way are enough, and each costs rows to unpack.
        for ($k = 0; $k <= 6; $k++) {
            $row = $segment->row($segment->start + $frames * $k / 6);
            $p = $place->point([$row[0], 0.0, $row[2]]);
            $region = [min($region[0], $p[0] - 1.0), min($region[1], $p[2] - 1.0), max($region[2], $p[0] + 1.0), max($region[3], $p[2] + 1.0)];
        }

        return $region;
    }

    /** Rows as doubles; nothing where the ground is even. */
    private function settled(LaneSegment $segment, Placement $place, Solids $solids, int $frames, float $rate): string
    {
        $base = $place->position[1] + $segment->lift * $place->scale;
        $feet = [];
        $uneven = false;
        foreach (['L', 'R'] as $side) {
            $track = $this->footTrack($segment, $side, $frames);
            if ($track === []) {
                return '';
            }
            $feet[$side] = $this->fitted($track, $place, $solids, $base, $rate);
            foreach ($feet[$side] as [$lift, $pitch, $roll]) {
                $uneven = $uneven || abs($lift) * $place->scale > self::EVEN || max(abs($pitch), abs($roll)) > self::LEVEL;
            }
        }
        if (! $uneven) {
            return '';
        }
        $pelvis = [];
        foreach ($feet['L'] as $f => $l) {
            $r = $feet['R'][$f];
            $pelvis[] = min($l[0], $r[0]);
        }
        $pelvis = self::smoothed($pelvis, 0.12 * $rate);
        $out = [];
        foreach ($feet['L'] as $f => $l) {
            array_push($out, ...$l, ...$feet['R'][$f], ...[$pelvis[$f]]);
        }

        return pack('e*', ...$out);
    }

    /** @return list<array{float, float, float, float}> x, y, z of the foot's joint and its heading, by frame, in lane space */
    private function footTrack(LaneSegment $segment, string $side, int $frames): array
    {
        $leg = $this->figure->limb('leg', $side);
        if ($leg === null) {
            return [];
        }
        $out = [];
        for ($f = 0; $f <= $frames; $f++) {
            $s = $this->figure->standing($segment->row($segment->start + $f), $leg[2]);
            $out[] = [$s[0], $s[3], $s[1], $s[2]];
        }

        return $out;
    }

    /**
     * Lift, pitch and roll by frame, metres of the lane and radians.
     *
     * @param  list<array{float, float, float, float}>  $track
     * @return list<array{float, float, float}>
     */
    private function fitted(array $track, Placement $place, Solids $solids, float $base, float $rate): array
    {
        $n = count($track);
        $low = INF;
        foreach ($track as [, $y]) {
            $low = min($low, $y + self::PLANTED);
        }
        $spans = [];
        for ($f = 0; $f < $n; $f++) {
            [$a, $b] = [$track[max(0, $f - 1)], $track[min($n - 1, $f + 1)]];
            $speed = sqrt(($b[0] - $a[0]) ** 2 + ($b[1] - $a[1]) ** 2 + ($b[2] - $a[2]) ** 2) * $rate / 2;
            if ($track[$f][1] <= $low && $speed < self::PLANTED_SPEED) {
                if ($spans !== [] && $spans[count($spans) - 1][1] === $f - 1) {
                    $spans[count($spans) - 1][1] = $f;
                } else {
                    $spans[] = [$f, $f];
                }
            }
        }
        $last = $base;
        $stands = [];
        foreach ($spans as [$from, $to]) {
            [$lift, $pitch, $roll, $last] = $this->stand($track[intdiv($from + $to, 2)], $place, $solids, $base, $last);
            $stands[] = [$from, $to, [$lift, $pitch, $roll]];
        }
        if ($stands === []) {
            return array_fill(0, $n, [0.0, 0.0, 0.0]);
        }
        $out = [];
        for ($f = 0, $k = 0; $f < $n; $f++) {
            while ($k + 1 < count($stands) && $stands[$k + 1][0] <= $f) {
                $k++;
            }
            [$from, $to, $here] = $stands[$k];
            $next = $stands[$k + 1] ?? null;
            if ($f <= $to || $next === null || $f < $from) {
                $out[] = $here;

                continue;
            }
            $u = ($f - $to) / max(1, $next[0] - $to);
            $w = Ease::smooth($u);
            $rise = abs($next[2][0] - $here[0]);
            // Over an edge a foot is lifted before it goes across.
            $early = $next[2][0] > $here[0] ? Ease::smooth($u / 0.6) : Ease::smooth(($u - 0.4) / 0.6);
            $out[] = [$here[0] + ($next[2][0] - $here[0]) * $early + 0.15 * $rise * sin(M_PI * $u), $here[1] + ($next[2][1] - $here[1]) * $w, $here[2] + ($next[2][2] - $here[2]) * $w];
        }

        return $out;
    }

    /**
     * How a planted foot stands on what is below it.
     *
     * @param  array{float, float, float, float}  $foot
     * @return array{float, float, float, float} lift, pitch, roll; the ground's height
     */
    private function stand(array $foot, Placement $place, Solids $solids, float $base, float $last): array
    {
        $height = static function (float $ahead, float $aside) use ($foot, $place, $solids, $last): ?float {
            [$s, $c] = [sin($foot[3]), cos($foot[3])];
            $p = $place->point([$foot[0] + $ahead * $s + $aside * $c, 0.0, $foot[2] + $ahead * $c - $aside * $s]);
            $y = Solids::bridged(static fn (float $x, float $z): ?float => $solids->height($x, $z, $last + self::STEP), $p[0], $p[2]);

            return $y === null || $y < $last - self::STEP ? null : $y;
        };
        $middle = $height(0.06, 0.0);
        if ($middle === null) {
            return [($last - $base) / $place->scale, 0.0, 0.0, $last];
        }
        [$heel, $ball, $left, $right] = [$height(-0.05, 0.0), $height(0.15, 0.0), $height(0.06, 0.045), $height(0.06, -0.045)];
        $tilt = static fn (?float $a, ?float $b, float $apart): float => $a === null || $b === null || abs($a - $b) > $apart * 0.7 * $place->scale ? 0.0 : max(-self::TILT, min(self::TILT, atan(($b - $a) / ($apart * $place->scale))));
        $pitch = $tilt($heel, $ball, 0.20);
        // At the edge of a step the whole foot is on the higher of what heel and ball find.
        $y = $pitch === 0.0 ? max($middle, $heel ?? $middle, $ball ?? $middle) : $middle;

        return [($y - $base) / $place->scale, -$pitch, $tilt($right, $left, 0.09), $y];
    }

    /**
     * @param  list<float>  $values
     * @return list<float>
     */
    private static function smoothed(array $values, float $sigma): array
    {
        $reach = (int) ceil(2.5 * $sigma);
        $n = count($values);
        $out = [];
        foreach ($values as $i => $v) {
            [$sum, $total] = [0.0, 0.0];
            for ($k = -$reach; $k <= $reach; $k++) {
                $w = exp(-0.5 * ($k / max(0.1, $sigma)) ** 2);
                $sum += $w * $values[max(0, min($n - 1, $i + $k))];
                $total += $w;
            }
            $out[] = $sum / $total;
        }

        return $out;
    }

    /**
     * @param  list<float>  $row  in lane space
     * @param  float  $into  frames since the segment began
     * @return list<float>
     */
    public function apply(array $row, float $into): array
    {
        $v = $this->at($into);
        $p = new Posture($this->figure->skeleton, $this->figure->hips, $row);
        $turns = $places = [];
        foreach (['L' => 0, 'R' => 3] as $side => $k) {
            $leg = $this->figure->limb('leg', $side);
            if ($leg === null) {
                return $row;
            }
            [$at, $q] = $p->at($leg[2]);
            $heading = Q4::heading(Q4::mul($q, Q4::conjugate($this->figure->restTurn($leg[2]))));
            $tilt = Q4::mul(Q4::aroundY($heading), Q4::mul(Q4::mul(Q4::aroundX($v[$k + 1]), Q4::aroundZ($v[$k + 2])), Q4::aroundY(-$heading)));
            // The foot turns about its sole, not about its joint.
            $rest = $this->figure->rest('foot'.$side)[1] ?? 0.08;
            $up = Q4::rotate($tilt, [0.0, $rest, 0.0]);
            $places[$side] = [$at[0] + $up[0], $at[1] + $v[$k] + $up[1] - $rest, $at[2] + $up[2]];
            $turns[$side] = Q4::mul($tilt, $q);
        }
        $p->shiftHips([0.0, $v[6], 0.0]);
        foreach ($places as $side => $place) {
            $leg = $this->figure->limb('leg', (string) $side);
            if ($leg !== null) {
                $p->reach($leg[0], $leg[1], $leg[2], $place, $turns[$side], Q4::rotate($p->at($this->figure->hips)[1], [1.0, 0.0, 0.0]));
            }
        }

        return $p->result();
    }

    /** @return list<float> */
    private function at(float $into): array
    {
        $last = intdiv(count($this->rows), self::WIDTH) - 1;
        if ($this->repeats && $into > $last && $last > 0) {
            $into = fmod($into, $last);
        }
        $f = max(0.0, min((float) $last, $into));
        $i = (int) $f;
        $u = $f - $i;
        $o = $i * self::WIDTH;
        $next = min($last, $i + 1) * self::WIDTH;
        $out = [];
        for ($k = 0; $k < self::WIDTH; $k++) {
            $out[] = $this->rows[$o + $k] + ($this->rows[$next + $k] - $this->rows[$o + $k]) * $u;
        }

        return $out;
    }
}
