<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;

/** A way of walking: a few sliders turned into the numbers the gait model rides on. Angles in radians. */
final class GaitStyle
{
    public float $step;

    public float $duty;

    public float $halfTrack;

    public float $heelStrike;

    public float $toeOff;

    public float $rollStart = 0.15;

    public float $pushStart;

    public float $clearance;

    public float $kneeStrike;

    public float $kneeLoad;

    public float $kneeMid;

    public float $kneeOff;

    public float $sway;

    public float $pelvisYaw;

    public float $pelvisList;

    public float $pelvisTilt;

    public float $lean;

    public float $thoraxYaw;

    public float $armMean;

    public float $armSwing;

    public float $elbow;

    public float $elbowSwing;

    public float $headPitch;

    public float $stepSeconds;

    /**
     * @param  float  $speed  metres a second, 0.4 to 2.2
     * @param  float  $stride  factor on the usual step length
     * @param  float  $lean  degrees added to the trunk
     * @param  float  $age  0 young, 1 old
     * @param  float  $mood  -1 low, 1 high
     */
    public function __construct(
        public float $speed = 1.2,
        public float $stride = 1.0,
        public float $bounce = 1.0,
        float $lean = 0.0,
        public float $arm = 1.0,
        public float $weight = 0.0,
        public float $age = 0.0,
        public float $mood = 0.0,
    ) {
        $v = $speed;
        $k = $v / 1.3;
        $d = M_PI / 180;
        $this->step = 0.585 * $k ** 0.48 * $stride * (1 - 0.14 * $age);
        $this->duty = Ease::clamp(0.66 - 0.055 * ($v - 0.5) + 0.02 * $age, 0.56, 0.70);
        $this->halfTrack = 0.062 + 0.018 * $age + 0.012 * $weight;
        $this->heelStrike = 17 * $k ** 0.5 * (1 - 0.45 * $age) * $d;
        $this->toeOff = 58 * $k ** 0.25 * (1 - 0.22 * $age) * $d;
        $this->pushStart = Ease::mix(0.52, 0.40, Ease::clamp(($v - 0.5) / 1.5));
        $this->clearance = 0.026 * (1 - 0.3 * $age) * (1 + 0.3 * $mood);
        $this->kneeStrike = (5 + 9 * $age) * $d;
        $this->kneeLoad = (16 * $k ** 0.5 * $bounce + 7 * $age + 4 * $weight) * $d;
        $this->kneeMid = (5 + 12 * $age) * $d;
        $this->kneeOff = 26 * $d;
        $this->sway = 0.034 / max(0.6, $k ** 0.6) * (1 + 0.5 * $weight + 0.25 * $age);
        $this->pelvisYaw = 5.2 * $k ** 0.7 * (1 - 0.3 * $age) * $d;
        $this->pelvisList = 4.6 * (1 - 0.35 * $age) * (1 + 0.5 * $weight) * $d;
        $this->pelvisTilt = (3 + 1.2 * $k) * $d;
        $this->lean = (1.8 + 2.0 * $k + $lean + 9 * $age - 3.5 * $mood) * $d;
        $this->thoraxYaw = 5.5 * $k ** 0.8 * $arm * (1 - 0.4 * $age) * $d;
        $this->headPitch = (2 - 6 * $mood + 4 * $age) * $d;
        $this->armMean = (-5 - 3 * $mood) * $d;
        $this->armSwing = 19 * $k ** 0.9 * $arm * (1 - 0.45 * $age) * $d;
        $this->elbow = (17 + 9 * $k * $k) * $d;
        $this->elbowSwing = 13 * $k * $arm * $d;
        $this->stepSeconds = $this->step / $v;
    }

    /** @param  array<string, mixed>  $a */
    public static function fromArray(array $a): self
    {
        $n = static fn (string $key, float $low, float $high, float $default): float => Ease::clamp(is_numeric($a[$key] ?? null) ? (float) $a[$key] : $default, $low, $high);

        return new self(
            $n('speed', 0.4, 2.2, 1.2), $n('stride', 0.6, 1.4, 1.0), $n('bounce', 0.0, 2.0, 1.0), $n('lean', -10.0, 30.0, 0.0),
            $n('arm', 0.0, 1.6, 1.0), $n('weight', 0.0, 1.0, 0.0), $n('age', 0.0, 1.0, 0.0), $n('mood', -1.0, 1.0, 0.0),
        );
    }
}
