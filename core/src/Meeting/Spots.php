<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * Places on a body where another's hand can lie, read from the drawn surface in a pose.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Spots
{
    /**
     * Joint; from it aside (outward), up, ahead, metres of a person of 1.70 m; the way out of the surface there (outward, up, ahead);
     * what is drawn there; where on a limb (share from this joint to the next).
     */
    private const PLACES = [
        'chest' => ['upperChest', [0.085, 0.02, 0.0], [0.0, 0.0, 1.0], ['upperChest', 'chest', 'spine', 'upperArm']],
        'heart' => ['upperChest', [0.03, 0.02, 0.0], [0.0, 0.0, 1.0], ['upperChest', 'chest', 'spine']],
        'shoulder' => ['upperArm', [0.01, 0.0, 0.01], [0.35, 1.0, 0.1], ['upperArm', 'upperChest', 'shoulder']],
        'upperArm' => ['upperArm', [0.0, 0.0, 0.0], [1.0, 0.15, 0.25], ['upperArm', 'lowerArm'], ['lowerArm', 0.62]],
        'elbow' => ['lowerArm', [0.0, 0.0, 0.0], [0.5, -0.2, 0.2], ['lowerArm', 'upperArm'], ['hand', 0.14]],
        'wrist' => ['lowerArm', [0.0, 0.0, 0.0], [0.2, 0.8, 0.5], ['lowerArm', 'hand'], ['hand', 0.80]],
        'back' => ['upperChest', [0.06, -0.06, 0.0], [0.15, 0.0, -1.0], ['upperChest', 'chest', 'spine']],
        'cheek' => ['head', [0.05, 0.085, 0.08], [0.85, 0.0, 0.6], ['head']],
        'ear' => ['head', [0.04, 0.13, 0.02], [1.0, 0.0, 0.3], ['head']],
        'chin' => ['head', [0.03, 0.015, 0.06], [0.45, -0.1, 1.0], ['head']],
        'crown' => ['head', [0.0, 0.2, 0.0], [0.0, 1.0, 0.1], ['head']],
        'knees' => ['upperLeg', [0.0, 0.0, 0.0], [0.0, -0.8, -0.6], ['upperLeg', 'lowerLeg'], ['lowerLeg', 0.86]],
    ];

    public static function has(string $name): bool
    {
        return isset(self::PLACES[$name]);
    }

    /**
     * @param  string  $side  L or R of the one who is touched
     * @param  Vec|null  $seen  from where it is touched: the way out leans there where the place allows it
     * @param  float  $size  of who touches: on a chest large hands lie farther aside and lower, so that two of them have room there
     * @return array{point: Vec, out: Vec, role: string, relief: Relief}
     */
    public static function on(Person $of, string $name, string $side, int $f, ?array $seen = null, float $size = 0.0): array
    {
        [$role, $from, $out, $parts] = self::PLACES[$name];
        $limb = self::PLACES[$name][4] ?? null;
        $sided = static fn (string $r): string => in_array($r, ['upperArm', 'lowerArm', 'hand', 'shoulder', 'upperLeg', 'lowerLeg'], true)
            ? $r.$side
            : $r;
        $joint = $of->joint($sided($role), $f);
        $m = $side === 'L' ? 1.0 : -1.0;
        $k = $of->figure->body()->scale;
        $body = $of->joint(in_array($role, ['head'], true) ? 'head' : 'upperChest', $f)->rotation;
        $k *= $of->place->scale;
        $aside = $name === 'chest' ? max($from[0] * $k, 0.072 * $size) : $from[0] * $k;
        $up = $from[1] * $k - ($name === 'chest' ? 0.16 * max(0.0, $size - $k) : 0.0);
        $point = V3::add($joint->position, Q4::rotate($body, [$m * $aside, $up, $from[2] * $k]));
        if ($limb !== null) {
            $point = V3::mix($point, $of->at($sided($limb[0]), $f), $limb[1]);
        }
        $way = V3::unit(Q4::rotate($body, [$m * $out[0], $out[1], $out[2]]));
        if ($limb !== null) {
            // On a limb the way out is across it, on the side from which the hand comes.
            $next = V3::sub($of->at($sided($limb[0]), $f), $joint->position);
            $way = $seen === null ? $way : V3::addScaled($way, V3::unit(V3::sub($seen, $point)), 0.7);
            $way = V3::unit(V3::across($way, V3::unit($next)));
        }
        $joints = array_map($sided, $parts);
        if (in_array('hand', $parts, true)) {
            $joints = [...$joints, ...Person::hand($side)];
        }
        $relief = $of->relief($joints, $f, $point, $way);
        if ($limb === null && $name !== 'crown') {
            // Where the surface leans, so does what lies on it.
            $way = V3::unit(V3::add($way, V3::mul($relief->normal(), $name === 'chest' || $name === 'heart' ? 1.0 : 0.8)));
            $relief = $of->relief($joints, $f, $relief->point(), $way);
        }

        // On a shoulder a hand goes with the girdle, whatever the arm does.
        $rides = $name === 'shoulder' ? "shoulder{$side}" : $sided($role);

        return ['point' => $relief->point(), 'out' => $way, 'role' => $rides, 'relief' => $relief];
    }
}
