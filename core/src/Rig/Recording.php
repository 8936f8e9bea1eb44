<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A motion of another body, ready to be read: sizes of joints multiplied out, what moves above the hips brought into them,
 * and the pose that counts as its rest. A rest that is no stand (bones laid out in a row, a moment of a jump) is replaced by
 * the moment of the motion that looks most like one.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final readonly class Recording
{
    /** A rest worse than this is no stand (0 is upright on straight legs). */
    private const NO_STAND = 1.0;

    /** A first frame farther than this from the second, in metres of a body with legs of 0.85 m, is no part of the motion. */
    private const APART = 0.2;

    /** Seconds between the moments that are looked at for one. */
    private const EVERY = 0.1;

    /**
     * @param  array<string, int>  $roles
     * @param  list<int>  $over  the hips and all above them, root first
     * @param  list<float>  $sizes  by joint, what its place is multiplied with
     * @param  float|null  $restAt  second of the motion whose pose counts as rest; null: its own rest
     * @param  Quat  $upright  turn that makes it stand upright and face +Z
     * @param  float  $begins  second before which there is only a pose for measuring, which is not shown
     */
    private function __construct(
        public Clip $clip, public Skeleton $skeleton, public array $roles, public int $hips, private array $over, private array $sizes,
        public ?float $restAt, public array $upright, private Skeleton $given, public float $begins = 0.0,
    ) {
    }

    /**
     * @param  array<string, int>  $roles
     * @param  int  $hips  joint whose place is followed
     * @param  list<string>  $leave  "rest": its own rest counts, whatever it is; "first": all frames are shown
     */
    public static function of(Clip $clip, Skeleton $skeleton, array $roles, int $hips, array $leave = []): self
    {
        $over = array_reverse($skeleton->above($hips));
        $sizes = self::sizes($skeleton);
        $even = self::even($skeleton, $sizes);
        $plain = new self($clip, $even, $roles, $hips, $over, $sizes, null, Q4::IDENTITY, $even);
        if (! isset($roles['upperLegL'], $roles['upperLegR'], $roles['footL'], $roles['footR'])) {
            return $plain;
        }
        [$rest] = $even->world($even->rotations);
        $at = null;
        if (! in_array('rest', $leave, true) && self::unlikeStand($rest, $roles) > self::NO_STAND) {
            $at = $plain->bestStand();
            if ($at !== null) {
                [$rotations, $place] = $plain->pose($at);
                $even = self::withRest($even, $rotations, $place, $hips);
                [$rest] = $even->world($even->rotations);
            }
        }

        $upright = self::standing($rest, $roles, $at !== null);
        $whole = new self($clip, $even, $roles, $hips, $over, $sizes, $at, $upright, $plain->skeleton);

        return in_array('first', $leave, true)
            ? $whole
            : new self($clip, $even, $roles, $hips, $over, $sizes, $at, $upright, $plain->skeleton, $whole->firstFrame());
    }

    /** The second at which the motion begins: after the first frame, if that is a pose of its own. */
    private function firstFrame(): float
    {
        $second = INF;
        foreach ($this->clip->channels as $c) {
            $second = count($c->times) > 2 ? min($second, $c->times[1]) : $second;
        }
        if (! is_finite($second) || $second > 0.1) {
            return 0.0;
        }
        $metre = 0.85 / max(1e-9, $this->leg());
        $steps = [];
        for ($k = 0; $k < 4; $k++) {
            [$a] = $this->world($k * $second);
            [$b] = $this->world(($k + 1) * $second);
            $most = 0.0;
            foreach ($this->roles as $j) {
                $most = max($most, $metre * V3::distance(Stance::at($a, $j), Stance::at($b, $j)));
            }
            $steps[] = $most;
        }

        return $steps[0] > self::APART && $steps[0] > 5 * max($steps[1], $steps[2], $steps[3]) ? $second : 0.0;
    }

    /**
     * Local rotations and the place of the hips at a time; joints above the hips are at rest, their motion is in the hips'.
     *
     * @return array{list<float>, Vec}
     */
    public function pose(float $seconds): array
    {
        [$rotations, $places] = $this->clip->places($this->given, max($this->begins, $seconds), $this->over, $this->sizes);
        [$p, $q] = [[0.0, 0.0, 0.0], Q4::IDENTITY];
        [$rp, $rq] = [[0.0, 0.0, 0.0], Q4::IDENTITY];
        foreach ($this->over as $j) {
            $p = V3::add($p, Q4::rotate($q, $places[$j]));
            $q = Q4::mul($q, [$rotations[4 * $j], $rotations[4 * $j + 1], $rotations[4 * $j + 2], $rotations[4 * $j + 3]]);
            if ($j !== $this->hips) {
                $rp = V3::add($rp, Q4::rotate($rq, $this->skeleton->restTranslation($j)));
                $rest = $this->skeleton->restRotation($j);
                $rq = Q4::mul($rq, $rest);
                [$rotations[4 * $j], $rotations[4 * $j + 1], $rotations[4 * $j + 2], $rotations[4 * $j + 3]] = $rest;
            }
        }
        $back = Q4::conjugate($rq);
        $h = 4 * $this->hips;
        [$rotations[$h], $rotations[$h + 1], $rotations[$h + 2], $rotations[$h + 3]] = Q4::unit(Q4::mul($back, $q));

        return [array_values($rotations), Q4::rotate($back, V3::sub($p, $rp))];
    }

    /**
     * World places and rotations at a time, as they are in the file.
     *
     * @return array{list<float>, list<float>}
     */
    public function world(float $seconds): array
    {
        [$rotations, $place] = $this->pose($seconds);

        return $this->skeleton->world($rotations, $place, $this->hips);
    }

    /** Length of a leg in the file's units. */
    public function leg(): float
    {
        [$p] = $this->skeleton->world($this->skeleton->rotations);

        return Stance::leg($p, $this->roles);
    }

    /** @return list<float> */
    private static function sizes(Skeleton $s): array
    {
        $sizes = [];
        /** @var list<float> $own */
        $own = [];
        foreach ($s->parents as $j => $p) {
            $sizes[] = $size = $p < 0 ? 1.0 : $own[$p];
            $volume = abs($s->scales[3 * $j] * $s->scales[3 * $j + 1] * $s->scales[3 * $j + 2]);
            $own[] = $size * ($volume > 0.0 ? exp(log($volume) / 3) : 1.0);
        }

        return $sizes;
    }

    /** @param  list<float>  $sizes */
    private static function even(Skeleton $s, array $sizes): Skeleton
    {
        $t = [];
        foreach ($sizes as $j => $size) {
            array_push($t, ...V3::mul($s->restTranslation($j), $size));
        }

        return new Skeleton($s->names, $s->parents, $t, $s->rotations, array_fill(0, 3 * $s->count(), 1.0), $s->roles);
    }

    /**
     * @param  list<float>  $rotations
     * @param  Vec  $place
     */
    private static function withRest(Skeleton $s, array $rotations, array $place, int $hips): Skeleton
    {
        $t = $s->translations;
        array_splice($t, 3 * $hips, 3, $place);

        return new Skeleton($s->names, $s->parents, $t, $rotations, $s->scales, $s->roles);
    }

    private function bestStand(): ?float
    {
        $best = null;
        $least = INF;
        for ($s = 0.0; $s <= $this->clip->seconds; $s += self::EVERY) {
            [$p] = $this->world($s);
            $off = self::unlikeStand($p, $this->roles);
            if ($off < $least) {
                [$best, $least] = [$s, $off];
            }
        }

        return $best;
    }

    /**
     * How unlike a stand a pose is: radians that trunk and legs are off the vertical, knees bent, and arms unlike each other.
     *
     * @param  list<float>  $p
     * @param  array<string, int>  $roles
     */
    private static function unlikeStand(array $p, array $roles): float
    {
        $at = static fn (string $role): array => Stance::at($p, $roles[$role]);
        $top = $roles['head'] ?? $roles['neck'] ?? $roles['hips'];
        $feet = V3::mul(V3::add($at('footL'), $at('footR')), 0.5);
        $body = V3::sub(Stance::at($p, $top), $feet);
        $up = Stance::nearestAxis($body);
        $middle = V3::mul(V3::add($at('upperLegL'), $at('upperLegR')), 0.5);
        $off = self::angle($body, $up) + self::angle(V3::sub(Stance::at($p, $top), $middle), $up);
        foreach (['L', 'R'] as $s) {
            $off += 0.5 * max(0.0, self::angle(V3::sub($at('upperLeg'.$s), $at('foot'.$s)), $up) - 0.35);
            if (isset($roles['lowerLeg'.$s])) {
                $off += self::angle(V3::sub($at('upperLeg'.$s), $at('lowerLeg'.$s)), V3::sub($at('lowerLeg'.$s), $at('foot'.$s)));
            }
        }
        if (V3::length(V3::sub($at('upperLegL'), $at('upperLegR'))) < 1e-9 || V3::length($body) < 1e-9) {
            return INF;
        }

        return $off;
    }

    /**
     * @param  Vec  $a
     * @param  Vec  $b
     */
    private static function angle(array $a, array $b): float
    {
        $l = V3::length($a) * V3::length($b);

        return $l < 1e-12 ? M_PI : acos(max(-1.0, min(1.0, V3::dot($a, $b) / $l)));
    }

    /**
     * The turn to +Y up and +Z ahead: up is from the feet to the head, across from right to left hip. Of a rest only whole
     * quarter turns (a figure that leans at rest is not laid straight), of a moment of the motion also its heading.
     *
     * @param  list<float>  $p
     * @param  array<string, int>  $roles
     * @return Quat
     */
    public static function standing(array $p, array $roles, bool $heading): array
    {
        $top = $roles['head'] ?? $roles['neck'] ?? $roles['hips'];
        $feet = V3::mul(V3::add(Stance::at($p, $roles['footL']), Stance::at($p, $roles['footR'])), 0.5);
        $up = V3::sub(Stance::at($p, $top), $feet);
        $across = V3::sub(Stance::at($p, $roles['upperLegL']), Stance::at($p, $roles['upperLegR']));
        if (V3::length($up) < 1e-9 || V3::length($across) < 1e-9) {
            return Q4::IDENTITY;
        }
        $up = Stance::nearestAxis($up);
        $across = V3::across($across, $up);

        return Q4::fromAxes($up, $heading ? $across : Stance::nearestAxis($across), [0.0, 1.0, 0.0], [1.0, 0.0, 0.0]);
    }
}
