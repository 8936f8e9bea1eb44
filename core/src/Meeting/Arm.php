<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

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

    /** @var array<string, Quat> what was turned to in the row before */
    private array $before = [];

    public function __construct(private readonly Person $person, public readonly string $side)
    {
    }

    public function forget(): void
    {
        $this->before = [];
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
        $twist = Angle::wrapped(2 * atan2($rel[0] * $side['lower'][0] + $rel[1] * $side['lower'][1] + $rel[2] * $side['lower'][2], $rel[3]));
        $twist *= 0.5 * Ease::smooth((M_PI - abs($twist)) / deg2rad(100.0));
        $aims = [[$upper, $above], [$lower, Q4::mul($plain, Q4::axis($side['lower'], $twist))], [$end, $own]];
        $was = array_map(static fn (array $a): array => $posture->at($a[0])[1], $aims);
        foreach ($aims as $k => [$j, $aim]) {
            $posture->turn($j, $this->mixed("{$k}", $was[$k], $aim, $weight));
        }

        return abs($far - $length) < 1e-9 ? 0.0 : max(0.0, $far - $length) * $p->place->scale;
    }

    /**
     * Between two turns, on the way round that was taken before.
     *
     * @param  Quat  $from
     * @param  Quat  $to
     * @return Quat
     */
    private function mixed(string $key, array $from, array $to, float $share): array
    {
        $from = self::like($from, $this->before["{$key} from"] ?? $from);
        $to = self::like($to, $this->before["{$key} to"] ?? $from);
        [$this->before["{$key} from"], $this->before["{$key} to"]] = [$from, $to];
        $cos = $from[0] * $to[0] + $from[1] * $to[1] + $from[2] * $to[2] + $from[3] * $to[3];
        $angle = acos(Ease::clamp($cos, -1.0, 1.0));
        $sin = sin($angle);
        [$a, $b] = $sin < 1e-3 ? [1 - $share, $share] : [sin((1 - $share) * $angle) / $sin, sin($share * $angle) / $sin];

        return Q4::unit([
            $a * $from[0] + $b * $to[0], $a * $from[1] + $b * $to[1], $a * $from[2] + $b * $to[2], $a * $from[3] + $b * $to[3],
        ]);
    }

    /**
     * @param  Quat  $q
     * @param  Quat  $as
     * @return Quat the same turn with the sign nearer to another one
     */
    private static function like(array $q, array $as): array
    {
        return $q[0] * $as[0] + $q[1] * $as[1] + $q[2] * $as[2] + $q[3] * $as[3] < 0.0 ? [-$q[0], -$q[1], -$q[2], -$q[3]] : $q;
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
