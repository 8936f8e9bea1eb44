<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/**
 * What a motion model asks of a body at one moment. Angles in radians, lengths in model metres; headings are the
 * turn about +Y from +Z towards +X.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Channels
{
    /** @var Vec hips in the motion's space */
    public array $hip = [0.0, 0.86, 0.0];

    public float $heading = 0.0;

    /** @var Vec pitch, yaw, roll against the heading */
    public array $pelvis = [0.0, 0.0, 0.0];

    /** @var Vec */
    public array $thorax = [0.0, 0.0, 0.0];

    /** @var Vec */
    public array $head = [0.0, 0.0, 0.0];

    /** @var array{float, float} yaw, pitch of the eyes in the head */
    public array $eyes = [0.0, 0.0];

    public float $breath = 0.0;

    public float $kneeOut = 0.06;

    /** @var array<string, Footing> by side */
    public array $foot = [];

    /** @var array<string, ArmPose> by side */
    public array $arm = [];

    /** @var array<string, Reach> hands held to a place, by side */
    public array $reach = [];

    /** @var array<string, float> face shapes */
    public array $face = ['smile' => 0.15];

    /** @var Vec planar root: x, z, heading */
    public array $root = [0.0, 0.0, 0.0];

    public function __construct()
    {
        $this->arm = ['L' => new ArmPose, 'R' => new ArmPose];
    }
}
