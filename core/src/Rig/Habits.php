<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/**
 * What was learned of a body from its motion, for bringing the motion to another one.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final readonly class Habits
{
    /**
     * @param  Quat  $upright  turn that makes the source stand upright and face +Z
     * @param  array<string, Vec>  $bends  upper part of a limb to the axis that its lower part bends about, as Bends tells it
     * @param  array<string, Vec>  $flat  foot or toes to what points up in it when it lies flat
     * @param  float  $ankle  height of the joint of a planted foot, units of the source
     */
    public function __construct(public array $upright, public array $bends, public array $flat, public float $ankle)
    {
    }
}
