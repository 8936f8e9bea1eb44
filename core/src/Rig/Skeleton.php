<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
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
        $this->roles = $roles ?? HumanRoles::match($names, $parents);
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
        $positions = [];
        $turned = [];
        $t = $this->translations;
        foreach ($this->parents as $i => $p) {
            $local = $rootTranslation !== null && $i === $root ? $rootTranslation : [$t[3 * $i], $t[3 * $i + 1], $t[3 * $i + 2]];
            $q = [$rotations[4 * $i], $rotations[4 * $i + 1], $rotations[4 * $i + 2], $rotations[4 * $i + 3]];
            if ($p >= 0) {
                $pq = [$turned[4 * $p], $turned[4 * $p + 1], $turned[4 * $p + 2], $turned[4 * $p + 3]];
                $local = V3::add([$positions[3 * $p], $positions[3 * $p + 1], $positions[3 * $p + 2]], Q4::rotate($pq, $local));
                $q = Q4::mul($pq, $q);
            }
            array_push($positions, $local[0], $local[1], $local[2]);
            array_push($turned, $q[0], $q[1], $q[2], $q[3]);
        }

        return [$positions, $turned];
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

    /** @param  array{names: list<string>, parents: list<int>, translations: list<float|int>, rotations: list<float|int>, scales: list<float|int>, roles: array<string, int>}  $a */
    public static function fromArray(array $a): self
    {
        return new self(
            $a['names'], $a['parents'], array_map(floatval(...), $a['translations']),
            array_map(floatval(...), $a['rotations']), array_map(floatval(...), $a['scales']), $a['roles'],
        );
    }
}
