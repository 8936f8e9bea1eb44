<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * From channels to local joint rotations: the trunk shares its turn over three joints, legs and reaching arms by
 * two-bone IK, hanging arms between thorax and vertical, fingers curl together.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class BodySolver
{
    /** @var array<string, Quat> world rotation by role */
    private array $world = [];

    /** @var array<string, Quat> local rotation by role */
    private array $local = [];

    /** @var array<string, Vec> */
    private array $place = [];

    private readonly SteadyMix $mix;

    /** Solves rows in the order of time: arms that come to a place go the way round that they went before. */
    public function __construct(private readonly BodyFrame $body)
    {
        $this->mix = new SteadyMix;
    }

    /** @return array<string, Quat> local rotation by human role or finger joint name */
    public function solve(Channels $c): array
    {
        $this->local = [];
        $this->trunk($c);
        foreach (['L', 'R'] as $s) {
            $this->leg($c, $s);
            $this->arm($c, $s);
            $this->fingers($c->arm[$s], $s);
        }

        return $this->local;
    }

    private function trunk(Channels $c): void
    {
        $turn = Q4::aroundY($c->heading);
        $hips = Q4::mul($turn, Q4::pitchYawRoll(...$c->pelvis));
        $thorax = Q4::mul($turn, Q4::pitchYawRoll(...$c->thorax));
        $between = Q4::mul(Q4::conjugate($hips), $thorax);
        $spine = Q4::power($between, 0.36);
        $upper = Q4::mul(Q4::power($between, 0.28), Q4::aroundX(-$c->breath * deg2rad(2.2)));
        $chest = Q4::mul($hips, Q4::mul($spine, Q4::mul($spine, $upper)));
        $head = Q4::mul($turn, Q4::pitchYawRoll(...$c->head));
        $nod = Q4::mul(Q4::conjugate($chest), $head);
        $this->world['hips'] = $hips;
        $this->world['upperChest'] = $chest;
        $eye = Q4::pitchYawRoll($c->eyes[1], $c->eyes[0], 0.0);
        $this->local = [
            'hips' => $hips, 'spine' => $spine, 'chest' => $spine, 'upperChest' => $upper,
            'neck' => Q4::power($nod, 0.42), 'head' => Q4::power($nod, 0.58), 'eyeL' => $eye, 'eyeR' => $eye,
        ];
        $b = $this->body;
        $p = V3::add($c->hip, Q4::rotate($hips, $b->offset('spine', 'hips')));
        $w = Q4::mul($hips, $spine);
        $p = V3::add($p, Q4::rotate($w, $b->offset('chest', 'spine')));
        $w = Q4::mul($w, $spine);
        $this->place['upperChest'] = V3::add($p, Q4::rotate($w, $b->offset('upperChest', 'chest')));
        $this->place['hips'] = $c->hip;
    }

    private function leg(Channels $c, string $s): void
    {
        $b = $this->body;
        $g = $b->side[$s];
        $f = $c->foot[$s];
        $foot = Q4::mul(Q4::aroundY($f->heading), Q4::aroundX(-$f->pitch));
        $hips = $this->world['hips'];
        $root = V3::add($c->hip, Q4::rotate($hips, $b->offset('upperLeg'.$s, 'hips')));
        $to = V3::sub($f->ankle, $root);
        $length = min(max(V3::length($to), abs($b->thigh - $b->shin) + 0.05), $b->leg * 0.9995);
        $d = V3::unit($to);
        $ahead = V3::add(
            V3::mul(Q4::rotate(Q4::aroundY($f->heading), [0.0, 0.0, 1.0]), 0.5),
            V3::mul(Q4::rotate($hips, [0.0, 0.0, 1.0]), 0.5),
        );
        $ahead = V3::addScaled($ahead, Q4::rotate(Q4::aroundY($c->heading), [$g['m'], 0.0, 0.0]), $c->kneeOut);
        $axis = V3::mul(V3::unit(V3::cross($d, $ahead)), -1.0);
        $cosine = ($b->thigh ** 2 + $length ** 2 - $b->shin ** 2) / (2 * $b->thigh * $length);
        $thigh = Q4::rotate(Q4::axis($axis, -acos(max(-1.0, min(1.0, $cosine)))), $d);
        $knee = V3::addScaled($root, $thigh, $b->thigh);
        $shin = V3::unit(V3::sub(V3::addScaled($root, $d, $length), $knee));
        $upper = Q4::fromAxes($g['thigh'], [1.0, 0.0, 0.0], $thigh, $axis);
        $lower = Q4::fromAxes($g['shin'], [1.0, 0.0, 0.0], $shin, $axis);
        $this->local['upperLeg'.$s] = Q4::mul(Q4::conjugate($hips), $upper);
        $this->local['lowerLeg'.$s] = Q4::mul(Q4::conjugate($upper), $lower);
        $this->local['foot'.$s] = Q4::mul(Q4::conjugate($lower), $foot);
        $this->local['toes'.$s] = Q4::aroundX($f->pitch - $f->toePitch);
    }

    private function arm(Channels $c, string $s): void
    {
        $b = $this->body;
        $g = $b->side[$s];
        $m = $g['m'];
        $a = $c->arm[$s];
        $chest = $this->world['upperChest'];
        $girdle = Q4::mul(Q4::aroundZ($m * $a->lift), Q4::aroundY(-$m * $a->forward));
        $girdleWorld = Q4::mul($chest, $girdle);
        $joint = V3::add($this->place['upperChest'], Q4::rotate($chest, $b->offset('shoulder'.$s, 'upperChest')));
        $joint = V3::add($joint, Q4::rotate($girdleWorld, $b->offset('upperArm'.$s, 'shoulder'.$s)));
        $upright = Q4::aroundY($c->heading);
        $hang = Q4::slerp($chest, $upright, $a->gravity);
        $upper = Q4::mul($hang, Q4::mul(Q4::aroundX(-$a->flex), Q4::mul(Q4::aroundZ($m * $a->abduct), Q4::aroundY(-$m * $a->inward))));
        $lower = Q4::mul($upper, Q4::aroundX(-$a->elbow));
        $reach = $c->reach[$s] ?? null;
        $hand = null;
        if ($reach !== null && $reach->weight > 0.0) {
            [$upper, $lower] = $this->reaching($s, $reach, $joint, $upright, $upper, $lower);
            $hand = Q4::fromAxes(
                $g['lower'],
                [-$m, 0.0, 0.0],
                Q4::rotate($upright, V3::unit($reach->along)),
                Q4::rotate($upright, $reach->palm),
            );
        }
        if ($hand === null) {
            $this->mix->forget("{$s} ");
        }
        $this->hangArm($s, $a, $girdle, $girdleWorld, $upper, $lower, $hand, $reach->weight ?? 0.0);
    }

    /**
     * @param  Vec  $joint
     * @param  Quat  $upright
     * @param  Quat  $upper
     * @param  Quat  $lower
     * @return array{Quat, Quat}
     */
    private function reaching(string $side, Reach $reach, array $joint, array $upright, array $upper, array $lower): array
    {
        $b = $this->body;
        $to = V3::sub($reach->wrist, $joint);
        $length = min(max(V3::length($to), 0.12), ($b->upperArm + $b->lowerArm) * 0.995);
        $d = V3::unit($to);
        $elbowWay = V3::across(Q4::rotate($upright, $reach->pole), $d);
        $cosine = ($b->upperArm ** 2 + $length ** 2 - $b->lowerArm ** 2) / (2 * $b->upperArm * $length);
        $angle = acos(max(-1.0, min(1.0, $cosine)));
        $u = V3::add(V3::mul($d, cos($angle)), V3::mul($elbowWay, sin($angle)));
        $elbow = V3::addScaled($joint, $u, $b->upperArm);
        $f = V3::unit(V3::sub(V3::addScaled($joint, $d, $length), $elbow));
        $axis = V3::mul(V3::cross($u, $f), -1.0);
        $down = [0.0, -1.0, 0.0];

        return [
            $this->mix->between("{$side} upper", $upper, Q4::fromAxes($down, [1.0, 0.0, 0.0], $u, $axis), $reach->weight),
            $this->mix->between("{$side} lower", $lower, Q4::fromAxes($down, [1.0, 0.0, 0.0], $f, $axis), $reach->weight),
        ];
    }

    /**
     * @param  Quat  $girdle
     * @param  Quat  $girdleWorld
     * @param  Quat  $upper
     * @param  Quat  $lower
     * @param  Quat|null  $held  the hand's world rotation where it is held
     */
    private function hangArm(
        string $s, ArmPose $a, array $girdle, array $girdleWorld, array $upper, array $lower, ?array $held, float $weight,
    ): void {
        $g = $this->body->side[$s];
        $m = $g['m'];
        $upperWorld = Q4::mul($upper, $g['upperHang']);
        $lowerWorld = Q4::mul(Q4::mul($lower, Q4::aroundY(-$m * $a->pronate * 0.5)), $g['lowerHang']);
        $bend = Q4::mul(Q4::aroundZ(-$m * $a->wrist), Q4::aroundX(-$a->deviate));
        $hand = Q4::mul(Q4::mul($lower, Q4::aroundY(-$m * $a->pronate)), Q4::mul($bend, $g['lowerHang']));
        if ($held !== null) {
            // The forearm takes half of the hand's twist, else the wrist wrings.
            $hand = $this->mix->between("{$s} hand", $hand, $held, $weight);
            $plain = Q4::mul($lower, $g['lowerHang']);
            $rel = Q4::mul(Q4::conjugate($plain), $hand);
            $twist = 2 * atan2($rel[0] * $g['lower'][0] + $rel[1] * $g['lower'][1] + $rel[2] * $g['lower'][2], $rel[3]);
            $twist = Angle::wrapped($twist);
            // Near a half turn either way round is as far; the share fades there, so that the forearm never flips.
            $share = 0.5 * Ease::smooth((M_PI - abs($twist)) / deg2rad(100.0));
            $lowerWorld = Q4::mul($plain, Q4::axis($g['lower'], $twist * $share * $weight));
        }
        $this->local['shoulder'.$s] = $girdle;
        $this->local['upperArm'.$s] = Q4::mul(Q4::conjugate($girdleWorld), $upperWorld);
        $this->local['lowerArm'.$s] = Q4::mul(Q4::conjugate($upperWorld), $lowerWorld);
        $this->local['hand'.$s] = Q4::mul(Q4::conjugate($lowerWorld), $hand);
    }

    private function fingers(ArmPose $a, string $s): void
    {
        foreach (self::curl($this->body->side[$s]['lower'], $this->body->side[$s]['m'], $a->curl, $a->point, $a->thumb) as $name => $q) {
            $this->local[$name.$s] = $q;
        }
    }

    /**
     * Fingers closed by one number (radians, about 0 open to 1.4 a fist); the index can stay out.
     *
     * @param  Vec  $along  rest direction of the forearm
     * @return array<string, Quat> by finger joint without side
     */
    public static function curl(array $along, float $m, float $curl, float $index = 0.0, float $thumb = 0.3): array
    {
        $bend = V3::across([0.0, 0.0, 1.0], $along);
        $spread = V3::unit(V3::cross($along, $bend));
        $out = [];
        for ($i = 1; $i < 5; $i++) {
            $c = $curl * (1 + 0.10 * ($i - 2.2)) - ($i === 1 ? $index : 0.0);
            $adduct = deg2rad(($i - 2.6) * -7 - 2);
            $name = BodyFrame::FINGERS[$i];
            $out[$name.'1'] = Q4::mul(Q4::axis($spread, -$adduct), Q4::axis($bend, -$m * $c * 0.8));
            $out[$name.'2'] = Q4::axis($bend, -$m * $c * 1.1);
        }
        $out['thumb1'] = Q4::aroundX(-$thumb * 0.3);

        return $out;
    }
}
