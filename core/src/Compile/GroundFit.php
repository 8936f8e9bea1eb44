<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Smoothing;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/**
 * Feet of a beat that was made on even ground, brought to the ground that it plays on: planted feet stand on what is below
 * them and tilt with it, swinging ones go from the one height to the other, and the pelvis sinks so that the lower foot
 * reaches. Settled once for one motion at one place; on even ground there is nothing to settle. A motion that was made over a
 * step (it rises by so many metres) is brought from that step to what is there: to a stair of another height, or to the flat.
 */
final class GroundFit
{
    private const VERSION = 4;

    /** Metres within which ground counts as even: boards are never quite. */
    private const EVEN = 0.012;

    /** Metres that a foot steps up or down at once. */
    private const STEP = 0.45;

    /** A foot this near to its rest height (metres) and slower than PLANTED_SPEED (m/s) stands. */
    private const PLANTED = 0.04;

    private const PLANTED_SPEED = 0.2;

    /** Steepest tilt of a foot, radians (30 degrees). */
    private const TILT = 0.5236;

    /** Share of a leg's length at which it counts as straight. */
    private const STRAIGHT = 0.995;

    /** Tilt within which ground counts as level, radians. */
    private const LEVEL = 0.07;

    /** Numbers a frame: lift, pitch and roll of the left foot, of the right, and the pelvis. */
    private const WIDTH = 7;

    /** @param  list<float>  $rows  WIDTH numbers a frame from the segment's start on */
    private function __construct(
        private readonly Figure $figure,
        private readonly array $rows,
        private readonly bool $repeats,
        public readonly float $end,
        public readonly string $key,
    ) {
    }

    /** Null where the ground is even. */
    public static function of(
        LaneSegment $segment, Item $item, Figure $figure, Surroundings $around, AssetSource $assets, float $rate,
    ): ?self {
        if ($around->isEmpty() && $segment->rise === 0.0) {
            return null;
        }
        $frames = (int) ceil(min(20_000, $segment->end - $segment->start));
        $place = Placement::standing($item->position, $item->headingDeg, $item->scale);
        $region = self::region($segment, $figure, $place, $frames);
        $signature = $around->signature($region);
        if (($signature === [] && $segment->rise === 0.0) || $frames < 1) {
            return null;
        }
        $repeats = hypot($segment->loopMove[0], $segment->loopMove[1]) < 0.02;
        $key = hash(
            'sha256',
            json_encode(
                [
                    'fit', self::VERSION, $segment->fingerprint(), $segment->rise, $figure->blob, $item->position, $item->headingDeg,
                    $item->scale, $signature, $rate,
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
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
        $end = (float) array_pop($rows);

        return new self($figure, $rows, $repeats, $end, $key);
    }

    /** @return array{float, float, float, float} */
    private static function region(LaneSegment $segment, Figure $figure, Placement $place, int $frames): array
    {
        $region = [INF, INF, -INF, -INF];
        // A few places of the way are enough, and each costs rows to unpack.
        for ($k = 0; $k <= 6; $k++) {
            $row = $segment->row($segment->start + $frames * $k / 6);
            $p = $place->point([$row[0], 0.0, $row[2]]);
            $region = [
                min($region[0], $p[0] - 1.0), min($region[1], $p[2] - 1.0), max($region[2], $p[0] + 1.0), max($region[3], $p[2] + 1.0),
            ];
        }

        return $region;
    }

    /** Rows as doubles and the height on which the segment ends; nothing where the ground is as the motion was made. */
    private function settled(LaneSegment $segment, Placement $place, Solids $solids, int $frames, float $rate): string
    {
        $base = $place->position[1] + $segment->lift * $place->scale;
        $feet = [];
        $uneven = $segment->rise !== 0.0;
        $end = 0.0;
        foreach (['L', 'R'] as $side) {
            $track = $this->footTrack($segment, $side, $frames);
            if ($track === []) {
                return '';
            }
            $made = $this->made($track, $side, $segment);
            $feet[$side] = $this->fitted(
                $track, $made, $place, $solids, $base, $rate, $segment->rise === 0.0 ? null : $this->sole($side) + $segment->lift,
            );
            $end += ($feet[$side][$frames][0] + $made[$frames]) / 2;
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
            $pelvis[] = $segment->rise === 0.0
                ? min($l[0], $r[0])
                : min(($l[0] + $r[0]) / 2, $l[0] + $this->slack($segment, 'L', $f), $r[0] + $this->slack($segment, 'R', $f));
        }
        $pelvis = Smoothing::gaussian($pelvis, max(0.1, 0.12 * $rate), 2.5);
        $out = [];
        foreach ($feet['L'] as $f => $l) {
            array_push($out, ...$l, ...$feet['R'][$f], ...[$pelvis[$f]]);
        }

        return pack('e*', ...$out, ...[$end]);
    }

    /**
     * The height of the ground that a foot's motion was made on, by frame, above the segment's lift: of the steps of a
     * motion that rises the one nearest below its sole.
     *
     * @param  list<array{float, float, float, float}>  $track
     * @return list<float>
     */
    private function made(array $track, string $side, LaneSegment $segment): array
    {
        if ($segment->rise === 0.0) {
            return array_fill(0, count($track), 0.0);
        }
        $rest = $this->sole($side) + $segment->lift;

        return array_map(static fn (array $at): float => $segment->rise * round(($at[1] - $rest) / $segment->rise), $track);
    }

    /** Metres that the pelvis could rise before the leg of a side is straight. */
    private function slack(LaneSegment $segment, string $side, int $f): float
    {
        $leg = $this->figure->limb('leg', $side);
        if ($leg === null) {
            return INF;
        }
        $row = $segment->row($segment->start + $f);
        $hip = $this->figure->standing($row, $leg[0]);
        $ankle = $this->figure->standing($row, $leg[2]);
        $whole = self::STRAIGHT * array_sum($this->figure->lengths($leg));

        return sqrt(max(0.0, $whole ** 2 - ($hip[0] - $ankle[0]) ** 2 - ($hip[1] - $ankle[1]) ** 2)) - ($hip[3] - $ankle[3]);
    }

    /** Height of the foot's joint over its sole. */
    private function sole(string $side): float
    {
        return $this->figure->rest('foot'.$side)[1] ?? 0.08;
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
     * @param  non-empty-list<array{float, float, float, float}>  $track
     * @param  list<float>  $made
     * @param  float|null  $rest  height at which the foot's joint stands on ground of height 0; null: its lowest is that
     * @return list<array{float, float, float}>
     */
    private function fitted(array $track, array $made, Placement $place, Solids $solids, float $base, float $rate, ?float $rest): array
    {
        $n = count($track);
        $low = self::PLANTED + ($rest ?? min(array_column($track, 1)));
        $spans = [];
        for ($f = 0; $f < $n; $f++) {
            [$a, $b] = [$track[max(0, $f - 1)], $track[min($n - 1, $f + 1)]];
            $speed = sqrt(($b[0] - $a[0]) ** 2 + ($b[1] - $a[1]) ** 2 + ($b[2] - $a[2]) ** 2) * $rate / 2;
            if ($track[$f][1] - $made[$f] <= $low && $speed < self::PLANTED_SPEED) {
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
            $middle = intdiv($from + $to, 2);
            [$lift, $pitch, $roll, $last] = $this->stand($track[$middle], $place, $solids, $base, $last, $made[$middle] * $place->scale);
            $stands[] = [$from, $to, [$lift, $pitch, $roll], $made[$middle]];
        }
        if ($stands === []) {
            return array_fill(0, $n, [0.0, 0.0, 0.0]);
        }
        $out = [];
        for ($f = 0, $k = 0, $way = 0.0; $f < $n; $f++) {
            while ($k + 1 < count($stands) && $stands[$k + 1][0] <= $f) {
                $k++;
            }
            [$from, $to, $here, $step] = $stands[$k];
            $next = $stands[$k + 1] ?? null;
            if ($f <= $to || $next === null || $f < $from) {
                $out[] = $here;
                $way = 0.0;

                continue;
            }
            $u = ($f - $to) / max(1, $next[0] - $to);
            $w = Ease::smooth($u);
            $rise = abs($next[2][0] - $here[0]);
            // Over an edge a foot is lifted before it goes across.
            if ($next[3] !== $step) {
                // The motion goes from the one step to the other by itself: as far as it is, so far is the ground.
                $way = max($way, min(1.0, ($track[$f][1] - ($rest ?? 0.0) - $step) / ($next[3] - $step)));
                $out[] = [
                    $here[0] + ($next[2][0] - $here[0]) * $way + 0.15 * $rise * sin(M_PI * $way),
                    $here[1] + ($next[2][1] - $here[1]) * $w, $here[2] + ($next[2][2] - $here[2]) * $w,
                ];

                continue;
            }
            $early = $next[2][0] > $here[0] ? Ease::smooth($u / 0.6) : Ease::smooth(($u - 0.4) / 0.6);
            $out[] = [
                $here[0] + ($next[2][0] - $here[0]) * $early + 0.15 * $rise * sin(M_PI * $u), $here[1] + ($next[2][1] - $here[1]) * $w,
                $here[2] + ($next[2][2] - $here[2]) * $w,
            ];
        }

        return $out;
    }

    /**
     * How a planted foot stands on what is below it.
     *
     * @param  array{float, float, float, float}  $foot
     * @param  float  $made  height of the step it was made on, metres of the scene above $base
     * @return array{float, float, float, float} lift, pitch, roll; the ground's height
     */
    private function stand(array $foot, Placement $place, Solids $solids, float $base, float $last, float $made): array
    {
        $reach = self::STEP + abs($made);
        $height = static function (float $ahead, float $aside) use ($foot, $place, $solids, $last, $reach): ?float {
            [$s, $c] = [sin($foot[3]), cos($foot[3])];
            $p = $place->point([$foot[0] + $ahead * $s + $aside * $c, 0.0, $foot[2] + $ahead * $c - $aside * $s]);
            $y = Solids::bridged(static fn (float $x, float $z): ?float => $solids->height($x, $z, $last + $reach), $p[0], $p[2]);

            return $y === null || $y < $last - $reach ? null : $y;
        };
        $middle = $height(0.06, 0.0);
        if ($middle === null) {
            // Stepping down from the last thing there is leads to the floor of the scene.
            $y = $made < 0.0 && $last > 0.0 ? max(0.0, $last - $reach) : $last;

            return [($y - $base - $made) / $place->scale, 0.0, 0.0, $y];
        }
        [$heel, $ball, $left, $right] = [$height(-0.05, 0.0), $height(0.15, 0.0), $height(0.06, 0.045), $height(0.06, -0.045)];
        $tilt = static fn (?float $a, ?float $b, float $apart): float => $a === null || $b === null
            || abs($a - $b) > $apart * 0.7 * $place->scale ? 0.0
            : max(-self::TILT, min(self::TILT, atan(($b - $a) / ($apart * $place->scale))));
        $pitch = $tilt($heel, $ball, 0.20);
        // At the edge of a step the whole foot is on the higher of what heel and ball find.
        $y = $pitch === 0.0 ? max($middle, $heel ?? $middle, $ball ?? $middle) : $middle;

        return [($y - $base - $made) / $place->scale, -$pitch, $tilt($right, $left, 0.09), $y];
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
            $tilt = Q4::mul(
                Q4::aroundY($heading),
                Q4::mul(Q4::mul(Q4::aroundX($v[$k + 1]), Q4::aroundZ($v[$k + 2])), Q4::aroundY(-$heading)),
            );
            // The foot turns about its sole, not about its joint.
            $rest = $this->sole($side);
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
