<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\Model\BodyFrame;
use CrispReel\Core\Rig\Skeleton;

/** What the evaluation knows of a performer's body. */
final class Figure
{
    public readonly Skeleton $skeleton;

    public readonly int $hips;

    /** @var list<string> */
    public readonly array $morphs;

    private ?BodyFrame $frame = null;

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
        [$positions] = $this->skeleton->world($this->skeleton->rotations);
        foreach ($this->skeleton->roles as $role => $j) {
            $this->rest[$role] = [$positions[3 * $j], $positions[3 * $j + 1], $positions[3 * $j + 2]];
        }
    }

    public function isHuman(): bool
    {
        foreach (['hips', 'spine', 'chest', 'upperChest', 'neck', 'head', 'upperLegL', 'lowerLegL', 'footL', 'toesL', 'upperArmL', 'lowerArmL', 'handL', 'shoulderL', 'upperLegR', 'lowerLegR', 'footR', 'handR'] as $role) {
            if (! isset($this->skeleton->roles[$role])) {
                return false;
            }
        }

        return true;
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
