<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;

/** The pelvis rides on the legs: each leg asks for the height at which its knee bends as wanted. */
final class Ride
{
    /**
     * Height of the hips so that both knees bend about as wanted, weighted by load and limited by reach.
     *
     * @param  float  $left  share of the weight on the left leg
     * @param  float  $kneeL  wanted flexion, radians
     */
    public static function height(BodyFrame $b, Channels $c, float $left, float $kneeL, float $kneeR, float $soft = 0.02): float
    {
        $want = [];
        $limit = [];
        foreach (['L' => $kneeL, 'R' => $kneeR] as $s => $knee) {
            [$base, $planar] = self::reachOf($b, $c, $s);
            $l2 = $b->thigh ** 2 + $b->shin ** 2 + 2 * $b->thigh * $b->shin * cos($knee);
            $want[] = $base + sqrt(max(0.04, $l2 - $planar));
            $limit[] = $base + sqrt(max(0.04, ($b->leg * 0.9985) ** 2 - $planar));
        }
        $y = $want[0] * $left + $want[1] * (1 - $left);

        return Ease::softMin(Ease::softMin($y, $limit[0], $soft), $limit[1], $soft);
    }

    /** $y lowered so that neither leg is over-reached. */
    public static function limited(BodyFrame $b, Channels $c, float $y, float $soft): float
    {
        foreach (['L', 'R'] as $s) {
            [$base, $planar] = self::reachOf($b, $c, $s);
            $y = Ease::softMin($y, $base + sqrt(max(0.04, ($b->leg * 0.9985) ** 2 - $planar)), $soft);
        }

        return $y;
    }

    /** @return array{float, float} ankle height less the hip joint's offset, squared planar distance hip to ankle */
    private static function reachOf(BodyFrame $b, Channels $c, string $s): array
    {
        $q = Q4::mul(Q4::aroundY($c->heading), Q4::pitchYawRoll(...$c->pelvis));
        $o = Q4::rotate($q, V3::sub($b->at('upperLeg'.$s), $b->at('hips')));
        $a = $c->foot[$s]->ankle;
        $dx = $c->hip[0] + $o[0] - $a[0];
        $dz = $c->hip[2] + $o[2] - $a[2];

        return [$a[1] - $o[1], $dx * $dx + $dz * $dz];
    }
}
