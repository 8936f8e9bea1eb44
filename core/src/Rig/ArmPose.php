<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

/** An arm by its joint angles (radians): how it hangs, bends, twists and holds its fingers. */
final class ArmPose
{
    public function __construct(
        public float $flex = -0.052,
        public float $abduct = 0.157,
        public float $inward = 0.157,
        public float $elbow = 0.332,
        public float $pronate = 0.035,
        public float $wrist = 0.070,
        public float $deviate = 0.0,
        public float $curl = 0.72,
        public float $lift = -0.026,
        public float $forward = 0.052,
        public float $point = 0.0,
        public float $thumb = 0.3,
        public float $gravity = 0.35,
    ) {
    }

    /**
     * From key-pose numbers: degrees for the first seven and for lift and forward, radians for the fingers.
     *
     * @param  list<float>  $v  flex, abduct, inward, elbow, pronate, wrist, deviate, curl, lift, forward, point, thumb
     */
    public static function fromKey(array $v): self
    {
        $d = M_PI / 180;

        return new self(
            $v[0] * $d, $v[1] * $d, $v[2] * $d, $v[3] * $d, $v[4] * $d, $v[5] * $d, $v[6] * $d, $v[7],
            $v[8] * $d, $v[9] * $d, $v[10], $v[11], 0.2,
        );
    }
}
