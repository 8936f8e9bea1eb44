<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\V3;

/**
 * Whether a lens sees whom it films, and has room where it stands: rays to the face and the limbs that are in the picture, against
 * sets, things and the bodies of others.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final readonly class Sight
{
    /** Metres before a point at which a ray ends: what one touches hides nothing. */
    private const SHORT = 0.12;

    /** Metres around the lens that are to be free. */
    public const ROOM = 0.25;

    /** Metres up to which something is a backdrop. */
    private const BEHIND = 15.0;

    /** Of 15 rays over the picture. */
    private const LOOKED_PAST = 2;

    /** Radii of bodies, metres, between two joints. */
    private const BODY = [
        ['hips', 'neck', 0.16], ['neck', 'head', 0.12], ['upperArmL', 'lowerArmL', 0.06], ['upperArmR', 'lowerArmR', 0.06],
        ['lowerArmL', 'handL', 0.05], ['lowerArmR', 'handR', 0.05], ['upperLegL', 'lowerLegL', 0.09], ['upperLegR', 'lowerLegR', 0.09],
        ['lowerLegL', 'footL', 0.07], ['lowerLegR', 'footR', 0.07],
    ];

    /** How much it counts whether hands, knees and feet are seen. */
    private const LIMBS = [
        'handL' => 0.5, 'handR' => 0.5, 'lowerLegL' => 0.7, 'lowerLegR' => 0.7, 'footL' => 0.4, 'footR' => 0.4,
    ];

    /** @param  array<string, array{string, Marks}>  $people  names and marks of all by their ids */
    public function __construct(private Solids $solids, private array $people)
    {
    }

    /**
     * @param  list<string>  $but  ids of people who may be in the way
     * @return array{float, string} share of what is to be seen, and what hides most of the rest
     */
    public function of(Aim $aim, Marks $subject, array $but, Gate $gate): array
    {
        $seen = $all = 0.0;
        $hides = [];
        foreach (self::points($subject) as [$point, $weight]) {
            [$x, $y, $depth] = $aim->project($point, $gate);
            if ($depth <= 0.0 || abs($x) > 1.0 || abs($y) > 1.0) {
                continue;
            }
            $all += $weight;
            $name = $this->between($aim->position, $point, $but);
            if ($name === null) {
                $seen += $weight;
            } else {
                $hides[$name] = ($hides[$name] ?? 0.0) + $weight;
            }
        }
        arsort($hides);

        return [$all > 0.0 ? $seen / $all : 0.0, (string) (array_key_first($hides) ?? '')];
    }

    /**
     * @param  Vec  $from
     * @param  Vec  $point
     * @param  list<string>  $but  ids of people who may be in the way
     * @return array{float, string} 1: it is seen; 0: what hides it
     */
    public function point(array $from, array $point, array $but): array
    {
        $hides = $this->between($from, $point, $but);

        return [$hides === null ? 1.0 : 0.0, (string) $hides];
    }

    /**
     * Share of a face that is clear: eyes and chin.
     *
     * @param  Vec  $from
     * @param  list<string>  $but  ids of people who may be in the way
     */
    public function face(array $from, Marks $subject, array $but): float
    {
        $before = $this->beforeFace($from, $subject, $but);

        return count(array_filter($before, is_null(...))) / count($before);
    }

    /**
     * What hides more than half of a face, if anything does: eyes and chin.
     *
     * @param  Vec  $from
     * @param  list<string>  $but  ids of people who may be in the way
     */
    public function covers(array $from, Marks $subject, array $but): ?string
    {
        $before = $this->beforeFace($from, $subject, $but);
        $hides = array_filter($before, is_string(...));
        $names = array_count_values($hides);
        arsort($names);

        return 2 * count($hides) > count($before) ? (string) array_key_first($names) : null;
    }

    /**
     * @param  Vec  $from
     * @param  list<string>  $but
     * @return non-empty-list<string|null> what is before each of its points
     */
    private function beforeFace(array $from, Marks $subject, array $but): array
    {
        return array_map(fn (array $p): ?string => $this->between($from, $p, $but), [...$subject->of('eyes'), $subject->middle('chin')]);
    }

    /** What is nearer to the lens than it may be. */
    public function crowds(Aim $aim): ?string
    {
        $found = $this->solids->near($aim->position, self::ROOM);
        if ($found !== null) {
            return $found;
        }
        foreach ($this->people as [$name, $marks]) {
            if (self::hit($marks, $aim->position, $aim->position, self::ROOM)) {
                return $name;
            }
        }

        return null;
    }

    /** Share of the picture behind which something stands: singles before nothing look into the void. */
    public function backdrop(Aim $aim, Gate $gate): float
    {
        $hits = 0;
        foreach (self::rays($aim, $gate) as $way) {
            $hits += $this->solids->between($aim->position, V3::addScaled($aim->position, $way, self::BEHIND)) !== null ? 1 : 0;
        }

        return $hits / 15;
    }

    /** @return list<Vec> ways to 15 places of the picture, a metre along the axis */
    private static function rays(Aim $aim, Gate $gate): array
    {
        $tau = $gate->tangent($aim->focalMm);
        $right = [-cos($aim->yaw), 0.0, sin($aim->yaw)];
        $up = V3::cross($right, $aim->axis());
        $out = [];
        foreach ([-0.8, -0.4, 0.0, 0.4, 0.8] as $x) {
            foreach ([-0.7, 0.0, 0.7] as $y) {
                $out[] = V3::addScaled(V3::addScaled($aim->axis(), $right, $x * $tau * $gate->aspect), $up, $y * $tau);
            }
        }

        return $out;
    }

    /**
     * What fills the foreground: something close before the lens over more of the picture than one would look past.
     *
     * @param  float  $near  metres from the lens
     * @param  list<string>  $but  ids of people who may
     */
    public function foreground(Aim $aim, float $near, array $but, Gate $gate): ?string
    {
        $hits = [];
        foreach (self::rays($aim, $gate) as $way) {
            $name = $this->between($aim->position, V3::addScaled($aim->position, $way, $near), $but);
            if ($name !== null) {
                $hits[$name] = ($hits[$name] ?? 0) + 1;
            }
        }
        arsort($hits);

        return array_sum($hits) > self::LOOKED_PAST ? (string) array_key_first($hits) : null;
    }

    /**
     * @param  Vec  $from
     * @param  Vec  $to
     * @param  list<string>  $but
     */
    private function between(array $from, array $to, array $but): ?string
    {
        $long = V3::distance($from, $to);
        $to = V3::mix($from, $to, max(0.0, 1 - self::SHORT / max(self::SHORT, $long)));
        $found = $this->solids->between($from, $to);
        if ($found !== null) {
            return $found['name'];
        }
        foreach ($this->people as $id => [$name, $marks]) {
            if (! in_array((string) $id, $but, true) && self::hit($marks, $from, $to, 0.0)) {
                return $name;
            }
        }

        return null;
    }

    /**
     * Whether a straight way comes nearer to a body than its thickness and some metres more.
     *
     * @param  Vec  $from
     * @param  Vec  $to
     */
    private static function hit(Marks $marks, array $from, array $to, float $more): bool
    {
        $j = $marks->joints;
        foreach (self::BODY as [$a, $b, $radius]) {
            if (isset($j[$a], $j[$b]) && self::apart($from, $to, $j[$a], $j[$b]) < $radius + $more) {
                return true;
            }
        }
        if (! isset($marks->points['eyes'])) {
            return false;
        }
        // As large as heads are drawn, with what hair there is to the sides.
        [$top, $chin] = isset($marks->points['skull'], $marks->points['chin'])
            ? [$marks->middle('skull'), $marks->middle('chin')]
            : [$marks->middle('eyes'), $marks->middle('eyes')];
        $head = V3::mix($top, $chin, 0.5);

        return self::apart($from, $to, $head, $head) < max(0.11, 0.6 * V3::distance($top, $chin)) + $more;
    }

    /**
     * The least distance between two straight ways (the closest points of two segments).
     *
     * @param  Vec  $p
     * @param  Vec  $q
     * @param  Vec  $a
     * @param  Vec  $b
     */
    private static function apart(array $p, array $q, array $a, array $b): float
    {
        [$u, $v, $w] = [V3::sub($q, $p), V3::sub($b, $a), V3::sub($p, $a)];
        [$uu, $uv, $vv, $uw, $vw] = [V3::dot($u, $u), V3::dot($u, $v), V3::dot($v, $v), V3::dot($u, $w), V3::dot($v, $w)];
        $under = $uu * $vv - $uv * $uv;
        $s = $under > 1e-9 ? max(0.0, min(1.0, ($uv * $vw - $vv * $uw) / $under)) : 0.0;
        $t = $vv > 1e-9 ? max(0.0, min(1.0, ($uv * $s + $vw) / $vv)) : 0.0;
        $s = $uu > 1e-9 ? max(0.0, min(1.0, ($uv * $t - $uw) / $uu)) : 0.0;

        return V3::distance(V3::addScaled($p, $u, $s), V3::addScaled($a, $v, $t));
    }

    /** @return list<array{Vec, float}> */
    private static function points(Marks $m): array
    {
        if (! $m->isPerson() || ! isset($m->points['chest'])) {
            return array_map(static fn (array $p): array => [V3::mix($p, $m->middle('body'), 0.3), 1.0], $m->of('body'));
        }
        $out = [[$m->middle('chin'), 2.0], [$m->middle('skull'), 1.0], [$m->middle('chest'), 1.0]];
        foreach ($m->of('eyes') as $eye) {
            $out[] = [$eye, 3.0];
        }
        foreach (self::LIMBS as $role => $weight) {
            if (isset($m->joints[$role])) {
                $out[] = [$m->joints[$role], $weight];
            }
        }

        return $out;
    }
}
