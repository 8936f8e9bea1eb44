<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Math\Ease;

/**
 * A way of walking or, above some two metres a second, of running: a few sliders turned into the numbers the gait model
 * rides on. Angles in radians.
 */
final class GaitStyle
{
    /** Metres a second from which one runs. */
    public const RUNS = 2.15;

    public const FASTEST = 5.0;

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

    /** 0 walks, 1 runs: both feet leave the ground, and the body rides on a bounce instead of on its legs. */
    public float $run;

    /** Metres that the heel is kicked up behind. */
    public float $kick;

    /**
     * @param  float  $speed  metres a second, 0.4 to 5
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
        $r = $this->run = Ease::smooth(($speed - self::RUNS) / 0.3);
        $v = min($speed, 2.2);
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
        $this->kick = 0.0;
        if ($r > 0.0) {
            $this->running($r, $speed, $lean, $d);
        }
        $this->stepSeconds = $this->step / $speed;
    }

    /** Numbers of a run, taken over from those of a quick walk by share: more than 165 steps a minute, a third of the time on each foot. */
    private function running(float $r, float $speed, float $lean, float $d): void
    {
        $step = $speed * Ease::clamp(0.365 - 0.014 * ($speed - 2.2), 0.31, 0.365) * $this->stride;
        $to = [
            // No leg reaches farther than a foot is left behind: the way made over it is at most 62 cm.
            'step' => $step, 'duty' => Ease::clamp(0.31 / $step, 0.19, 0.36), 'halfTrack' => 0.045,
            'heelStrike' => 7 * $d, 'toeOff' => 50 * $d, 'pushStart' => 0.45, 'clearance' => 0.045, 'kneeStrike' => 18 * $d,
            'kneeLoad' => 36 * $d, 'kneeMid' => 34 * $d,
            'sway' => 0.012, 'pelvisYaw' => 7 * $d, 'pelvisList' => 2.6 * $d, 'pelvisTilt' => 7 * $d,
            'lean' => (7.5 + 1.2 * ($speed - 2.4) + $lean + 6 * $this->age - 2 * $this->mood) * $d, 'thoraxYaw' => 9 * $this->arm * $d,
            'armMean' => -1 * $d, 'armSwing' => (26 + 4 * ($speed - 2.4)) * $this->arm * $d, 'elbow' => 86 * $d,
            'elbowSwing' => 7 * $this->arm * $d, 'headPitch' => (-2 - 4 * $this->mood) * $d,
            'kick' => Ease::clamp(0.16 + 0.07 * ($speed - 2.4), 0.12, 0.34),
        ];
        foreach ($to as $name => $value) {
            $this->$name = Ease::mix($this->$name, $value, $r);
        }
    }

    /** One on the way from this manner to another. */
    public function mix(self $to, float $share): self
    {
        if ($share <= 0.0 || $share >= 1.0) {
            return $share <= 0.0 ? $this : $to;
        }
        $out = clone $this;
        /** @var array<string, float> $ways */
        $ways = get_object_vars($to);
        foreach ($ways as $name => $value) {
            /** @var float $own */
            $own = $out->$name;
            $out->$name = Ease::mix($own, $value, $share);
        }
        $out->stepSeconds = $out->step / $out->speed;
        if ($out->run > 0.0) {
            // Half way between long steps and long stances there would be both.
            $out->duty = min($out->duty, Ease::mix(0.40, 0.31, $out->run) / $out->step);
        }

        return $out;
    }

    /** @param  array<string, mixed>  $a */
    public static function fromArray(array $a): self
    {
        $n = static fn (string $key, float $low, float $high, float $default): float => Ease::clamp(
            is_numeric($a[$key] ?? null) ? (float) $a[$key] : $default,
            $low,
            $high,
        );

        return new self(
            $n('speed', 0.4, self::FASTEST, 1.2), $n('stride', 0.6, 1.4, 1.0), $n('bounce', 0.0, 2.0, 1.0), $n('lean', -10.0, 30.0, 0.0),
            $n('arm', 0.0, 1.6, 1.0), $n('weight', 0.0, 1.0, 0.0), $n('age', 0.0, 1.0, 0.0), $n('mood', -1.0, 1.0, 0.0),
        );
    }
}
