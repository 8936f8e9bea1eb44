<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use InvalidArgumentException;

/**
 * Joints, parents before children. Rest transforms are local; translations in metres, rotations x y z w.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final readonly class Skeleton
{
    /** @var array<string, int> */
    public array $index;

    /** @var array<string, int> human role to joint */
    public array $roles;

    /** @var list<null> one for each joint: what a posture knows before it looks */
    public array $unknown;

    /**
     * @param  list<string>  $names
     * @param  list<int>  $parents  -1 for a root
     * @param  list<float>  $translations  3 a joint
     * @param  list<float>  $rotations  4 a joint
     * @param  list<float>  $scales  3 a joint
     * @param  array<string, int>|null  $roles  matched by name when null
     */
    public function __construct(
        public array $names,
        public array $parents,
        public array $translations,
        public array $rotations,
        public array $scales,
        ?array $roles = null,
    ) {
        foreach ($parents as $i => $p) {
            if ($p >= $i) {
                throw new InvalidArgumentException("Joint {$i} comes before its parent {$p}.");
            }
        }
        $this->index = array_flip($names);
        $this->unknown = array_fill(0, count($names), null);
        $this->roles = $roles ?? HumanRoles::named($this);
    }

    /**
     * @param  list<float>  $turns  4 a joint
     * @return Quat of one joint
     */
    public static function turnOf(array $turns, int $joint): array
    {
        $o = 4 * $joint;

        return [$turns[$o], $turns[$o + 1], $turns[$o + 2], $turns[$o + 3]];
    }

    /** @return array<int, list<int>> by joint, those that hang on it; roots at -1 */
    public function children(): array
    {
        $out = [];
        foreach ($this->parents as $j => $p) {
            $out[$p][] = $j;
        }

        return $out;
    }

    /** @return list<int> a joint and all that it hangs on, up to its root */
    public function above(int $joint): array
    {
        $out = [];
        for ($j = $joint; $j >= 0; $j = $this->parents[$j]) {
            $out[] = $j;
        }

        return $out;
    }

    public function count(): int
    {
        return count($this->names);
    }

    public function joint(string $nameOrRole): ?int
    {
        return $this->index[$nameOrRole] ?? $this->roles[$nameOrRole] ?? null;
    }

    /** @return Vec local rest translation */
    public function restTranslation(int $joint): array
    {
        return [$this->translations[3 * $joint], $this->translations[3 * $joint + 1], $this->translations[3 * $joint + 2]];
    }

    /** @return Quat */
    public function restRotation(int $joint): array
    {
        $o = 4 * $joint;

        return [$this->rotations[$o], $this->rotations[$o + 1], $this->rotations[$o + 2], $this->rotations[$o + 3]];
    }

    /**
     * Model-space transforms of all joints.
     *
     * @param  list<float>  $rotations  4 a joint, local
     * @param  Vec|null  $rootTranslation  in place of the rest translation of joint $root
     * @return array{list<float>, list<float>} positions 3 a joint, rotations 4 a joint
     */
    public function world(array $rotations, ?array $rootTranslation = null, int $root = 0): array
    {
        $p = [];
        $q = [];
        $t = $this->translations;
        // The innermost loop of baking, so the products are written out: place = parent place + parent turn applied to the
        // local place; turn = parent turn times local turn.
        foreach ($this->parents as $i => $parent) {
            $o = 4 * $i;
            $bx = $rotations[$o];
            $by = $rotations[$o + 1];
            $bz = $rotations[$o + 2];
            $bw = $rotations[$o + 3];
            if ($rootTranslation !== null && $i === $root) {
                [$x, $y, $z] = $rootTranslation;
            } else {
                $x = $t[3 * $i];
                $y = $t[3 * $i + 1];
                $z = $t[3 * $i + 2];
            }
            if ($parent < 0) {
                $p[] = $x;
                $p[] = $y;
                $p[] = $z;
                $q[] = $bx;
                $q[] = $by;
                $q[] = $bz;
                $q[] = $bw;

                continue;
            }
            $o = 4 * $parent;
            $ax = $q[$o];
            $ay = $q[$o + 1];
            $az = $q[$o + 2];
            $aw = $q[$o + 3];
            $tx = 2.0 * ($ay * $z - $az * $y);
            $ty = 2.0 * ($az * $x - $ax * $z);
            $tz = 2.0 * ($ax * $y - $ay * $x);
            $p[] = $p[3 * $parent] + $x + $aw * $tx + $ay * $tz - $az * $ty;
            $p[] = $p[3 * $parent + 1] + $y + $aw * $ty + $az * $tx - $ax * $tz;
            $p[] = $p[3 * $parent + 2] + $z + $aw * $tz + $ax * $ty - $ay * $tx;
            $q[] = $aw * $bx + $ax * $bw + $ay * $bz - $az * $by;
            $q[] = $aw * $by - $ax * $bz + $ay * $bw + $az * $bx;
            $q[] = $aw * $bz + $ax * $by - $ay * $bx + $az * $bw;
            $q[] = $aw * $bw - $ax * $bx - $ay * $by - $az * $bz;
        }

        return [$p, $q];
    }

    /**
     * Place and rotation of one joint in a row (hips x y z, then four numbers a joint), in model space: from the joint up
     * to its root, without what else there is.
     *
     * @param  array<int, float>  $row
     * @return array{Vec, Quat}
     */
    public function jointIn(array $row, int $hips, int $joint): array
    {
        $parents = $this->parents;
        $t = $this->translations;
        $o = 3 + 4 * $joint;
        $x = $joint === $hips ? $row[0] : $t[3 * $joint];
        $y = $joint === $hips ? $row[1] : $t[3 * $joint + 1];
        $z = $joint === $hips ? $row[2] : $t[3 * $joint + 2];
        $bx = $row[$o];
        $by = $row[$o + 1];
        $bz = $row[$o + 2];
        $bw = $row[$o + 3];
        for ($j = $parents[$joint]; $j >= 0; $j = $parents[$j]) {
            $o = 3 + 4 * $j;
            $ax = $row[$o];
            $ay = $row[$o + 1];
            $az = $row[$o + 2];
            $aw = $row[$o + 3];
            $tx = 2.0 * ($ay * $z - $az * $y);
            $ty = 2.0 * ($az * $x - $ax * $z);
            $tz = 2.0 * ($ax * $y - $ay * $x);
            $at = $j === $hips ? $row : [$t[3 * $j], $t[3 * $j + 1], $t[3 * $j + 2]];
            $x += $at[0] + $aw * $tx + $ay * $tz - $az * $ty;
            $y += $at[1] + $aw * $ty + $az * $tx - $ax * $tz;
            $z += $at[2] + $aw * $tz + $ax * $ty - $ay * $tx;
            $qx = $aw * $bx + $ax * $bw + $ay * $bz - $az * $by;
            $qy = $aw * $by - $ax * $bz + $ay * $bw + $az * $bx;
            $qz = $aw * $bz + $ax * $by - $ay * $bx + $az * $bw;
            $bw = $aw * $bw - $ax * $bx - $ay * $by - $az * $bz;
            $bx = $qx;
            $by = $qy;
            $bz = $qz;
        }

        return [[$x, $y, $z], [$bx, $by, $bz, $bw]];
    }

    /**
     * Position of a joint at rest, in model space.
     *
     * @return Vec
     */
    public function restPosition(int $joint): array
    {
        [$positions] = $this->world($this->rotations);

        return [$positions[3 * $joint], $positions[3 * $joint + 1], $positions[3 * $joint + 2]];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'names' => $this->names, 'parents' => $this->parents, 'translations' => $this->translations,
            'rotations' => $this->rotations, 'scales' => $this->scales, 'roles' => $this->roles,
        ];
    }

    /**
     * @param  array{
     *     names: list<string>, parents: list<int>, translations: list<float|int>, rotations: list<float|int>,
     *     scales: list<float|int>, roles: array<string, int>
     * }  $a
     */
    public static function fromArray(array $a): self
    {
        return new self(
            $a['names'], $a['parents'], array_map(floatval(...), $a['translations']),
            array_map(floatval(...), $a['rotations']), array_map(floatval(...), $a['scales']), $a['roles'],
        );
    }
}
