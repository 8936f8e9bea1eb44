<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** What the evaluation knows of a performer's body. */
final class Figure
{
    public readonly Skeleton $skeleton;

    public readonly int $hips;

    /** @var list<string> */
    public readonly array $morphs;

    private ?BodyFrame $frame = null;

    /** @var list<float> world rotations at rest */
    private readonly array $restTurns;

    /** @var array<string, list<int>> */
    private array $parts = [];

    /** @var array<string, array<string, array{int, int, int}|null>> joints of limbs by kind and side */
    private array $limbs = [];

    /** @var array<int, array{float, float, float}> */
    private array $ahead = [];

    /** @var array<int, array{float, float}> lengths of limbs by their last joint */
    private array $lengths = [];

    /** @var array<string, array<int, array{float, float, float, float}>> */
    private array $fists = [];

    /** @var array<string, array{float, float, float}> rest positions by role */
    private array $rest = [];

    /** @param  array<string, mixed>  $digest */
    public function __construct(public readonly string $blob, private readonly array $digest)
    {
        /** @var array{names: list<string>, parents: list<int>, translations: list<float>, rotations: list<float>, scales: list<float>, roles: array<string, int>} $s */
        $s = $digest['skeleton'];
        $this->skeleton = Skeleton::fromArray($s);
        $this->hips = $this->skeleton->roles['hips'] ?? 0;

        /** @var list<string> $morphs */
        $morphs = $digest['morphs'] ?? [];
        $this->morphs = $morphs;
        [$positions, $this->restTurns] = $this->skeleton->world($this->skeleton->rotations);
        $r = $this->skeleton->roles;
        foreach (['leg' => ['upperLeg', 'lowerLeg', 'foot'], 'arm' => ['upperArm', 'lowerArm', 'hand']] as $kind => [$a, $b, $c]) {
            foreach (['L', 'R'] as $side) {
                $this->limbs[$kind][$side] = isset($r[$a.$side], $r[$b.$side], $r[$c.$side])
                    ? [$r[$a.$side], $r[$b.$side], $r[$c.$side]]
                    : null;
            }
        }
        foreach ($r as $role => $j) {
            $this->rest[$role] = [$positions[3 * $j], $positions[3 * $j + 1], $positions[3 * $j + 2]];
        }
    }

    public function isHuman(): bool
    {
        foreach ([
            'hips', 'spine', 'chest', 'upperChest', 'neck', 'head', 'upperLegL', 'lowerLegL', 'footL', 'toesL', 'upperArmL', 'lowerArmL',
            'handL', 'shoulderL', 'upperLegR', 'lowerLegR', 'footR', 'handR',
        ] as $role) {
            if (! isset($this->skeleton->roles[$role])) {
                return false;
            }
        }

        return true;
    }

    /**
     * Where a joint stands in a row: x, z, heading (the turn that it has made from rest), height.
     *
     * @param  list<float>  $row
     * @return array{float, float, float, float}
     */
    public function standing(array $row, int $joint): array
    {
        [$p, $q] = $this->skeleton->jointIn($row, $this->hips, $joint);

        return [$p[0], $p[2], Q4::heading(Q4::mul($q, Q4::conjugate($this->restTurn($joint)))), $p[1]];
    }

    /**
     * Joints of a limb from the body outward: upper, lower, hand or foot.
     *
     * @return array{int, int, int}|null null where a joint is not matched
     */
    public function limb(string $kind, string $side): ?array
    {
        return $this->limbs[$kind][$side];
    }

    /**
     * Lengths of a limb's upper and lower part at rest, metres.
     *
     * @param  array{int, int, int}  $limb
     * @return array{float, float}
     */
    public function lengths(array $limb): array
    {
        return $this->lengths[$limb[2]] ??= [
            V3::distance($this->restPlace($limb[0]), $this->restPlace($limb[1])),
            V3::distance($this->restPlace($limb[1]), $this->restPlace($limb[2])),
        ];
    }

    /** @return array{float, float, float} */
    private function restPlace(int $joint): array
    {
        return $this->skeleton->jointIn([0.0, 0.0, 0.0, ...$this->skeleton->rotations], -1, $joint)[0];
    }

    /**
     * Joints of a part of the body: head, trunk, armL, armR, legs; face has shapes and eyes.
     *
     * @return list<int>
     */
    public function part(string $part): array
    {
        return $this->parts[$part] ??= $this->partJoints($part);
    }

    /** @return list<int> */
    private function partJoints(string $part): array
    {
        $r = $this->skeleton->roles;
        $top = match ($part) {
            'face' => ['eyeL', 'eyeR', 'jaw'],
            'head' => ['neck', 'head'],
            'armL' => ['shoulderL', 'upperArmL'],
            'armR' => ['shoulderR', 'upperArmR'],
            'legs' => ['upperLegL', 'upperLegR'],
            default => [],
        };
        if ($part === 'trunk') {
            return array_values(array_intersect_key($r, ['spine' => 1, 'chest' => 1, 'upperChest' => 1]));
        }
        $roots = array_values(array_intersect_key($r, array_flip($top)));
        $found = [];
        foreach ($this->skeleton->parents as $j => $p) {
            if (in_array($j, $roots, true) || isset($found[$p])) {
                $found[$j] = true;
            }
        }
        $out = array_keys($found);

        return $part === 'head' ? array_values(array_diff($out, $this->partJoints('face'))) : $out;
    }

    public function body(): BodyFrame
    {
        /** @var array{soleBack?: float, soleFront?: float, height?: float} $facts */
        $facts = $this->digest['figure'] ?? [];

        return $this->frame ??= new BodyFrame($this->skeleton, $facts);
    }

    /** @return array{float, float, float}|null */
    public function rest(string $role): ?array
    {
        return $this->rest[$role] ?? null;
    }

    /** @return array{float, float, float, float} rotation of a joint at rest, in the figure's space */
    public function restTurn(int $joint): array
    {
        $o = 4 * $joint;

        return [$this->restTurns[$o], $this->restTurns[$o + 1], $this->restTurns[$o + 2], $this->restTurns[$o + 3]];
    }

    /** @return array{float, float, float} the figure's +Z at rest, in a joint's own space */
    public function ahead(int $joint): array
    {
        return $this->ahead[$joint] ??= Q4::rotate(Q4::conjugate($this->restTurn($joint)), [0.0, 0.0, 1.0]);
    }

    /**
     * Local rotations of the fingers of a closed hand, by joint; none where the figure has no hand.
     *
     * @return array<int, array{float, float, float, float}>
     */
    public function fist(string $side, float $curl): array
    {
        return $this->fists[$side.$curl] ??= $this->closedFingers($side, $curl);
    }

    /** @return array<int, array{float, float, float, float}> */
    private function closedFingers(string $side, float $curl): array
    {
        $out = [];
        if ($this->isHuman()) {
            $g = $this->body()->side[$side];
            foreach (BodySolver::curl($g['lower'], $g['m'], $curl, 0.0, 1.2) as $name => $q) {
                $j = $this->skeleton->index[$name.$side] ?? null;
                if ($j !== null) {
                    $out[$j] = $q;
                }
            }
        }

        return $out;
    }

    public function height(): float
    {
        /** @var array{list<float>, list<float>} $bounds */
        $bounds = $this->digest['bounds'] ?? [[0.0, 0.0, 0.0], [0.0, 1.7, 0.0]];

        return (float) $bounds[1][1];
    }

    /**
     * Where a held thing lies in the hand: place and rotation in the hand joint's space. A shaft (+Y) runs across the
     * palm and comes out at the thumb; +Z leaves the palm.
     *
     * @return array{array{float, float, float}, array{float, float, float, float}}|null
     */
    public function grip(string $side): ?array
    {
        $hand = $this->rest['hand'.$side] ?? null;
        $elbow = $this->rest['lowerArm'.$side] ?? null;
        if ($hand === null || $elbow === null) {
            return null;
        }
        $m = $side === 'L' ? 1.0 : -1.0;
        $along = V3::unit(V3::sub($hand, $elbow));
        $palm = V3::across([-$m, -0.2, 0.0], $along);
        $thumb = V3::across([0.0, 0.0, 1.0], $along);
        $size = V3::distance($hand, $elbow) / 0.24;
        $place = V3::addScaled(V3::mul($along, 0.086 * $size), $palm, 0.030 * $size);

        return [$place, Q4::fromAxes([0.0, 1.0, 0.0], [0.0, 0.0, 1.0], $thumb, $palm)];
    }
}
