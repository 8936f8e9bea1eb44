<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\V3;

/**
 * What is framed, at one moment: points in the scene by the mark that they belong to, which way it faces, and how it is posed.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final readonly class Marks
{
    public const STANDING = 'standing';

    public const SEATED = 'seated';

    public const KNEELING = 'kneeling';

    public const LYING = 'lying';

    public const THING = 'thing';

    /** From wrist to the middle of an open hand, as a share of the forearm. */
    public const HAND = 0.35;

    /**
     * @param  array<string, list<Vec>>  $points  by mark: crown, skull, brow, eyes, chin; outlines at shoulders, chest, waist, belt, hip,
     *                                            thigh, knee; sole; mass of the shoulders; body
     * @param  array<string, Vec>  $joints  by role
     * @param  float  $facing  heading in radians, from +z to +x
     */
    private function __construct(public array $points, public array $joints, public float $facing, public string $posture)
    {
    }

    /**
     * @param  array<string, list<Vec>>  $points
     * @param  array<string, Vec>  $joints
     * @param  float  $upright  height of the hips above the feet when standing, metres
     */
    public static function ofPerson(array $points, array $joints, float $facing, float $upright): self
    {
        return new self($points, $joints, $facing, self::posed($joints, $upright));
    }

    /**
     * A thing by the box around it.
     *
     * @param  array{Vec, Vec}  $bounds  in its own space
     */
    public static function ofThing(Placement $place, array $bounds, float $facing): self
    {
        $corners = [];
        for ($i = 0; $i < 8; $i++) {
            $corners[] = $place->point([$bounds[$i & 1][0], $bounds[($i >> 1) & 1][1], $bounds[$i >> 2][2]]);
        }
        $middle = $place->point(V3::mix($bounds[0], $bounds[1], 0.5));

        return new self(['body' => $corners, 'eyes' => [$middle]], [], $facing, self::THING);
    }

    public function turned(float $facing): self
    {
        return new self($this->points, $this->joints, $facing, $this->posture);
    }

    public function isPerson(): bool
    {
        return $this->posture !== self::THING;
    }

    /** @return list<Vec> of a mark; of the whole body where the figure has none of that name */
    public function of(string $mark): array
    {
        return $this->points[$mark] ?? $this->points['body'];
    }

    /** @return Vec the middle of a mark */
    public function middle(string $mark): array
    {
        return V3::mean($this->of($mark));
    }

    /**
     * @param  string  $part  "leftHand" or "rightHand"
     * @return list<Vec> corners around a hand, as large as it lies open from the wrist on; none: it has no such joints
     */
    public function hand(string $part): array
    {
        $letter = $part === 'leftHand' ? 'L' : 'R';
        [$elbow, $wrist] = [$this->joints["lowerArm{$letter}"] ?? null, $this->joints["hand{$letter}"] ?? null];
        if ($elbow === null || $wrist === null) {
            return [];
        }
        $long = V3::mul(V3::sub($wrist, $elbow), self::HAND);
        [$at, $half] = [V3::addScaled($wrist, $long, 1.0), max(0.04, V3::length($long))];
        $out = [];
        for ($i = 0; $i < 8; $i++) {
            $out[] = V3::add($at, [$i & 1 ? $half : -$half, $i & 2 ? $half : -$half, $i & 4 ? $half : -$half]);
        }

        return $out;
    }

    /** @return Vec what is to stay in the picture: the middle of the eyes, or of a hand */
    public function part(string $part): array
    {
        $hand = $part === 'leftHand' || $part === 'rightHand' ? $this->hand($part) : [];

        return $hand === [] ? $this->middle('eyes') : V3::mix($hand[0], $hand[7], 0.5);
    }

    /** Height of the lowest point. */
    public function lowest(): float
    {
        return min([INF, ...array_column($this->points['sole'] ?? $this->points['body'], 1)]);
    }

    /**
     * Lying: the trunk less than 33 degrees up and the hips low; seated: both thighs more than 50 degrees off the vertical;
     * kneeling: a shin more than 60 degrees off and the hips low.
     *
     * @param  array<string, Vec>  $j
     */
    private static function posed(array $j, float $upright): string
    {
        foreach (['hips', 'neck', 'upperLegL', 'lowerLegL', 'footL', 'upperLegR', 'lowerLegR', 'footR'] as $role) {
            if (! isset($j[$role])) {
                return self::STANDING;
            }
        }
        $off = static function (array $from, array $to): float {
            /** @var Vec $from */
            /** @var Vec $to */
            $d = V3::unit(V3::sub($from, $to));

            return rad2deg(acos(max(-1.0, min(1.0, $d[1]))));
        };
        $rise = ($j['hips'][1] - min($j['footL'][1], $j['footR'][1])) / max(0.1, $upright);
        if ($off($j['neck'], $j['hips']) > 57.0 && $rise < 0.6) {
            return self::LYING;
        }
        if ($off($j['upperLegL'], $j['lowerLegL']) > 50.0 && $off($j['upperLegR'], $j['lowerLegR']) > 50.0) {
            return self::SEATED;
        }
        $shins = max($off($j['lowerLegL'], $j['footL']), $off($j['lowerLegR'], $j['footR']));

        return $shins > 60.0 && $rise < 0.8 ? self::KNEELING : self::STANDING;
    }
}
