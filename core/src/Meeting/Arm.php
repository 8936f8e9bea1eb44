<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\SteadyMix;

/**
 * One arm of one person, brought to places row after row: two-bone IK with the elbow to a pole, from turns that do not depend on what
 * was before, mixed with the arm as the motion has it. Between two rows a turn never changes the way round it goes.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Arm
{
    /** Share of its length to which an arm is stretched at most, and over which it gives way. */
    private const MOST = 0.988;

    private const SOFT = 0.03;

    /** An elbow bends so far. */
    private const FLEXION = 142.0;

    /** Degrees a wrist bends at most. */
    private const WRIST = 80.0;

    private readonly SteadyMix $mix;

    public function __construct(private readonly Person $person, public readonly string $side)
    {
        $this->mix = new SteadyMix;
    }

    public function forget(): void
    {
        $this->mix->forget();
    }

    /**
     * @param  Vec  $wrist  in the shared space
     * @param  Quat  $hand  the hand's rotation there
     * @param  Vec  $pole  where the elbow points, in the person's own level space
     * @return float metres that are missing to the wrist
     */
    public function bring(int $f, array $wrist, array $hand, array $pole, float $weight): float
    {
        $p = $this->person;
        $posture = $p->posture($f);
        [$upper, $lower, $end] = $p->arm($this->side);
        [$long, $short] = $p->figure->lengths([$upper, $lower, $end]);
        $shoulder = $posture->at($upper)[0];
        $to = V3::sub($p->place->inverse()->point($wrist), $shoulder);
        $far = V3::length($to);
        $d = $far > 1e-6 ? V3::mul($to, 1 / $far) : [0.0, 0.0, 1.0];
        $least = sqrt($long ** 2 + $short ** 2 - 2 * $long * $short * cos(M_PI - deg2rad(self::FLEXION)));
        $length = max($least, Ease::softMin($far, self::MOST * ($long + $short), self::SOFT * ($long + $short)));
        $cos = ($long ** 2 + $length ** 2 - $short ** 2) / (2 * $long * $length);
        $bend = acos(Ease::clamp($cos, -1.0, 1.0));
        // The pole turns with the body.
        $hips = $p->figure->hips;
        $turn = Q4::heading(Q4::mul($posture->at($hips)[1], Q4::conjugate($p->figure->restTurn($hips))));
        $e = V3::across(Q4::rotate(Q4::aroundY($turn), $pole), $d);
        $u = V3::add(V3::mul($d, cos($bend)), V3::mul($e, sin($bend)));
        $fore = V3::unit(V3::sub(V3::mul($d, $length), V3::mul($u, $long)));
        $axis = V3::cross($d, $e);
        $side = $p->figure->body()->side[$this->side];
        $frame = static fn (float $x, float $y, float $z): array => Q4::fromAxes([0.0, -1.0, 0.0], [1.0, 0.0, 0.0], [$x, $y, $z], $axis);
        $own = Q4::mul(Q4::conjugate($p->place->rotation), $hand);
        $own = Q4::mul($own, $p->figure->restTurn($end));
        $plain = Q4::mul(Q4::mul($frame(...$fore), $side['lowerHang']), $p->figure->restTurn($lower));
        $above = Q4::mul(Q4::mul($frame(...$u), $side['upperHang']), $p->figure->restTurn($upper));
        $rel = Q4::mul(Q4::conjugate($plain), $own);
        $twist = Angle::wrapped(2 * atan2(V3::dot([$rel[0], $rel[1], $rel[2]], $side['lower']), $rel[3]));
        $twist *= 0.5 * Ease::smooth((M_PI - abs($twist)) / deg2rad(100.0));
        $aims = [[$upper, $above], [$lower, Q4::mul($plain, Q4::axis($side['lower'], $twist))], [$end, $own]];
        $was = array_map(static fn (array $a): array => $posture->at($a[0])[1], $aims);
        foreach ($aims as $k => [$j, $aim]) {
            $posture->turn($j, $this->mix->between("{$k}", $was[$k], $aim, $weight));
        }

        return abs($far - $length) < 1e-9 ? 0.0 : max(0.0, $far - $length) * $p->place->scale;
    }

    /**
     * A hand whose fingers would stand too steep on the forearm, turned back about the wrist's own hinge.
     *
     * @param  Vec  $elbow
     * @param  Vec  $wrist
     * @param  Quat  $hand
     * @param  Vec  $along  of the hand, in its own space
     * @return Quat
     */
    public static function eased(array $elbow, array $wrist, array $hand, array $along): array
    {
        $fore = V3::unit(V3::sub($wrist, $elbow));
        $fingers = Q4::rotate($hand, $along);
        $angle = acos(Ease::clamp(V3::dot($fore, $fingers), -1.0, 1.0));
        $over = $angle - deg2rad(self::WRIST);
        $axis = V3::cross($fingers, $fore);

        return $over <= 0.0 || V3::length($axis) < 1e-6 ? $hand : Q4::mul(Q4::axis(V3::unit($axis), $over), $hand);
    }
}
