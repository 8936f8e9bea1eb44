<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Math\V3;

/**
 * Joints and proportions of a figure before its height is applied (crown at 1.70 m). Metres, Y up, faces +Z, left is +X.
 * Rest pose: arms 39 degrees off the vertical, every rest rotation the identity.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Body
{
    public const FINGERS = ['thumb', 'index', 'middle', 'ring', 'little'];

    /** @var array<string, array{parent: string|null, at: Vec}> parents before children */
    public array $joints = [];

    /** @var list<array{Vec, Vec, Vec}> left hand: base, middle and tip of each finger */
    public array $fingers;

    /** @var Vec centre of the head before head scale */
    public array $face;

    public float $handSize;

    public float $eyeRadius;

    /** @var Vec left-side joints */
    public array $upperArm;

    /** @var Vec */
    public array $lowerArm;

    /** @var Vec */
    public array $hand;

    /** @var Vec */
    public array $upperLeg;

    /** @var Vec */
    public array $lowerLeg;

    /** @var Vec */
    public array $foot;

    /** @var Vec */
    public array $toes;

    public float $neckY;

    public float $headY;

    public function __construct(public readonly FigureSpec $spec)
    {
        $this->face = $this->between([0.0, 1.512, 0.022], [0.0, 1.516, 0.020]);
        $this->upperArm = $this->between([0.150, 1.262, -0.010], [0.198, 1.268, -0.010]);
        $this->lowerArm = $this->between([0.305, 1.068, -0.012], [0.360, 1.062, -0.012]);
        $this->hand = $this->between([0.425, 0.885, 0.012], [0.483, 0.872, 0.012]);
        $this->upperLeg = $this->between([0.080, 0.830, 0.0], [0.095, 0.820, 0.0]);
        $this->lowerLeg = $this->between([0.085, 0.455, 0.012], [0.105, 0.455, 0.012]);
        $this->foot = $this->between([0.090, 0.085, -0.020], [0.115, 0.085, -0.020]);
        $this->toes = $this->between([0.100, 0.035, 0.095], [0.130, 0.035, 0.110]);
        $this->neckY = $spec->body(1.315, 1.325);
        $this->headY = $spec->body(1.362, 1.372);
        $this->handSize = $spec->body(0.93, 1.12);
        $this->eyeRadius = 0.026 + 0.0025 * $spec->eyes;
        $this->fingers = $this->fingerPoints();
        $this->place();
    }

    /** @return Vec a point given from the head's centre */
    public function onFace(float $x, float $y, float $z): array
    {
        return [$this->face[0] + $x, $this->face[1] + $y, $this->face[2] + $z];
    }

    /** @return Vec */
    public function at(string $joint): array
    {
        return $this->joints[$joint]['at'];
    }

    /** @return Vec left eye's centre before head scale */
    public function eye(): array
    {
        return V3::add($this->face, V3::mix([0.050, 0.012, 0.104], [0.052, 0.008, 0.094], $this->spec->eyes));
    }

    /**
     * A point of the left hand: along the forearm, towards the thumb, out of the palm. Life-size metres.
     *
     * @return Vec
     */
    public function onHand(float $along, float $thumb, float $palm): array
    {
        [$d, $n, $l] = $this->handFrame();
        $s = $this->handSize;
        $p = V3::addScaled($this->hand, $d, $along * $s);

        return V3::addScaled(V3::addScaled($p, $l, $thumb * $s), $n, $palm * $s);
    }

    /** @return array{Vec, Vec, Vec} along the forearm, out of the palm (towards the body), thumb side */
    public function handFrame(): array
    {
        $d = V3::unit(V3::sub($this->hand, $this->lowerArm));
        $n = V3::across([-1.0, -0.2, 0.0], $d);
        $l = V3::cross($n, $d);

        return [$d, $n, $l[2] < 0 ? V3::mul($l, -1.0) : $l];
    }

    /**
     * A place between the slight and the broad body.
     *
     * @param  Vec  $slight
     * @param  Vec  $broad
     * @return Vec
     */
    private function between(array $slight, array $broad): array
    {
        return V3::mix($slight, $broad, $this->spec->build);
    }

    /** @return list<array{Vec, Vec, Vec}> */
    private function fingerPoints(): array
    {
        $bases = [0.088, 0.093, 0.090, 0.082];
        $across = [0.0385, 0.0135, -0.0125, -0.037];
        $length = [0.070, 0.079, 0.073, 0.058];
        $fan = [0.17, 0.04, -0.08, -0.22];
        $out = [[$this->onHand(0.030, 0.034, 0.008), $this->onHand(0.058, 0.062, 0.018), $this->onHand(0.088, 0.080, 0.028)]];
        for ($i = 0; $i < 4; $i++) {
            $q = fn (float $t): array => $this->onHand(
                $bases[$i] + cos($fan[$i]) * $length[$i] * $t, $across[$i] + sin($fan[$i]) * $length[$i] * $t, 0.004 + 0.010 * $t * $t,
            );
            $out[] = [$q(0.0), $q(0.5), $q(1.0)];
        }

        return $out;
    }

    private function place(): void
    {
        $hipsY = 0.86;
        $this->add('hips', null, [0.0, $hipsY, 0.0]);
        $this->add('spine', 'hips', [0.0, $hipsY + 0.10, 0.0]);
        $this->add('chest', 'spine', [0.0, $hipsY + 0.22, 0.0]);
        $this->add('upperChest', 'chest', [0.0, $hipsY + 0.34, -0.005]);
        $this->add('neck', 'upperChest', [0.0, $this->neckY, -0.01]);
        $this->add('head', 'neck', [0.0, $this->headY, 0.0]);
        $this->add('jaw', 'head', $this->onFace(0.0, -0.05, 0.02));
        $this->add('eyeL', 'head', $this->eye());
        $this->add('eyeR', 'head', V3::mirrored($this->eye()));
        foreach (['L', 'R'] as $side) {
            $m = fn (float $x, float $y, float $z): array => [$side === 'L' ? $x : -$x, $y, $z];
            $this->add('shoulder'.$side, 'upperChest', $m(0.03, $this->upperArm[1] - 0.01, 0.0));
            $this->add('upperArm'.$side, 'shoulder'.$side, $m(...$this->upperArm));
            $this->add('lowerArm'.$side, 'upperArm'.$side, $m(...$this->lowerArm));
            $this->add('hand'.$side, 'lowerArm'.$side, $m(...$this->hand));
            foreach (self::FINGERS as $i => $finger) {
                $this->add($finger.'1'.$side, 'hand'.$side, $m(...$this->fingers[$i][0]));
                $this->add($finger.'2'.$side, $finger.'1'.$side, $m(...$this->fingers[$i][1]));
            }
            $this->add('upperLeg'.$side, 'hips', $m(...$this->upperLeg));
            $this->add('lowerLeg'.$side, 'upperLeg'.$side, $m(...$this->lowerLeg));
            $this->add('foot'.$side, 'lowerLeg'.$side, $m(...$this->foot));
            $this->add('toes'.$side, 'foot'.$side, $m(...$this->toes));
        }
    }

    /** @param  Vec  $at */
    private function add(string $name, ?string $parent, array $at): void
    {
        $this->joints[$name] = ['parent' => $parent, 'at' => $at];
    }
}
