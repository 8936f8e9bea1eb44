<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/** A wrist held to a place with a weight, and how the hand lies there (directions against the heading). */
final readonly class Reach
{
    /**
     * @param  array{float, float, float}  $wrist
     * @param  array{float, float, float}  $along  forearm to fingers
     * @param  array{float, float, float}  $palm
     * @param  array{float, float, float}  $pole  where the elbow points
     */
    public function __construct(public array $wrist, public float $weight, public array $along, public array $palm, public array $pole)
    {
    }
}
