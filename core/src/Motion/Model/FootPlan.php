<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use Closure;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Footing;

/** Where both feet stand and swing over a whole motion. Stance is geometry (the foot rolls in place); swing is a lifted arc. */
final class FootPlan
{
    /** Metres that a drawn sole reaches beyond the points it rolls over. */
    private const RIM = 0.016;

    /** Moments of a swing that are looked at for what is in its way. */
    private const LOOKS = 48;

    /** Metres that a swinging sole may seem to touch: planks are not quite even. */
    private const SKIM = 0.003;

    /**
     * @param  array<string, list<Step>>  $steps by side, in time order
     * @param  (Closure(float, float, float): float)|null  $ground  height at x, z not above a ceiling, for swings over edges
     */
    public function __construct(
        private readonly BodyFrame $body,
        private readonly GaitStyle $style,
        public array $steps,
        private readonly ?Closure $ground = null,
    ) {
    }

    /** @return array{float, float, float} heel, ball and toe tip of the drawn sole ahead of the ankle */
    public static function sole(BodyFrame $body): array
    {
        return [$body->heelZ - self::RIM, $body->ballZ, $body->tipZ + self::RIM];
    }

    /** The foot of one side at a time. */
    public function footing(string $side, float $t): Footing
    {
        [$p, $q] = $this->around($side, $t);
        if ($q === null) {
            [$th, $toe, , , $u] = $this->planted($p, $t);
            [$x, $y, $z] = $this->ankleOf($p, $t);

            return new Footing([$x, $y, $z], $th + $p->slope, $toe + $p->slope, $p->heading, true, $u);
        }

        if ($this->ground !== null) {
            $p->over ??= $this->clearing($this->ground, $p, $q);
        }

        return $this->swing($p, $q, $t);
    }

    /** @return array{Step, Step|null} the step that a foot stands on or comes from, and the one it swings to; null: it stands */
    private function around(string $side, float $t): array
    {
        $steps = $this->steps[$side];
        $last = count($steps) - 1;
        $i = 0;
        while ($i < $last && $steps[$i + 1]->on <= $t) {
            $i++;
        }

        return [$steps[$i], $i === $last || $t <= $steps[$i]->off ? null : $steps[$i + 1]];
    }

    /** Height of what a foot stands on, or of what it swings over on the way from one to the next. */
    public function ground(string $side, float $t): float
    {
        [$p, $q] = $this->around($side, $t);

        return $q === null ? $p->y : $p->y + ($q->y - $p->y) * Ease::smooth(($t - $p->off) / ($q->on - $p->off));
    }

    /**
     * The least that has to be added to a swing so that heel, ball and toe pass over all that rises on the way.
     *
     * @param  Closure(float, float, float): float  $ground
     */
    private function clearing(Closure $ground, Step $p, Step $q): float
    {
        for ($over = 0.0; $over < 0.4; $over += 0.02) {
            $p->over = $over;
            if ($this->clear($ground, $p, $q)) {
                break;
            }
        }

        return $over;
    }

    /** @param  Closure(float, float, float): float  $ground */
    private function clear(Closure $ground, Step $p, Step $q): bool
    {
        $b = $this->body;
        for ($k = 1; $k < self::LOOKS; $k++) {
            $f = $this->swing($p, $q, $p->off + $k / self::LOOKS * ($q->on - $p->off));
            [$c, $s] = [cos($f->pitch), sin($f->pitch)];
            [$ct, $st] = [cos($f->toePitch), sin($f->toePitch)];
            $toe = $b->tipZ - $b->ballZ;
            $air = $this->air($p, $q, $k / self::LOOKS);
            foreach ([
                [$b->heelZ, 0.0, $air], [$b->ballZ, 0.0, $air], [$b->ballZ, $toe, $air],
                // The rims of the drawn sole only matter where they meet the side of a step.
                [$b->heelZ - self::RIM, 0.0, null], [$b->ballZ, $toe + self::RIM, null],
            ] as [$foot, $beyond, $wanted]) {
                $along = $foot * $c + $b->ankleY * $s + $beyond * $ct;
                $up = $f->ankle[1] + $foot * $s - $b->ankleY * $c + $beyond * $st;
                $under = $ground(
                    $f->ankle[0] + sin($f->heading) * $along,
                    $f->ankle[2] + cos($f->heading) * $along,
                    max($p->y, $q->y) + 0.3,
                );
                // Where the ground rises on the way, air is wanted under the sole.
                $rises = abs($under - $p->y) > 0.01 && abs($under - $q->y) > 0.01 && $p->slope === 0.0 && $q->slope === 0.0;
                if ($under + ($wanted === null ? -0.008 : ($rises ? 0.005 : $wanted)) > $up) {
                    return false;
                }
            }
        }

        return true;
    }

    /** Metres of air that a sole has to have at a share of its swing; below zero it may sink so far. */
    private function air(Step $p, Step $q, float $u): float
    {
        $ends = $u < 0.17 || $u > 0.83;

        // On a slope the ground rises with the foot, which skims it as it leaves and lands; over a crest it is in the way.
        return match (true) {
            $p->slope !== 0.0 && abs($p->slope - $q->slope) < 0.02 => $ends ? -0.012 : -self::SKIM,
            $p->slope !== $q->slope && ! $ends => 0.0035,
            default => -self::SKIM,
        };
    }

    /** Up at once, level, down late: a bump for feet that step over edges. */
    private static function plateau(float $u): float
    {
        return Ease::smooth($u / 0.45) * Ease::smooth((1 - $u) / 0.45);
    }

    /** Share of the weight on the left foot, 0 to 1. */
    public function leftShare(float $t, float $double): float
    {
        $l = $this->load('L', $t, $double);
        $r = $this->load('R', $t, $double);

        return $l / ($l + $r);
    }

    /** Side sway -1 to 1: the load share under a raised cosine, which is the body's own slowness. */
    public function sway(float $t, float $width, float $double): float
    {
        $sum = 0.0;
        $total = 0.0;
        for ($k = -4; $k <= 4; $k++) {
            $w = (1 + cos(M_PI * $k / 4)) / 2 + 0.02;
            $sum += $w * ($this->leftShare($t + $k / 4 * $width, $double) * 2 - 1);
            $total += $w;
        }

        return $sum / $total;
    }

    private function load(string $side, float $t, float $double): float
    {
        [$p] = $this->around($side, $t);
        $d = max($double, 0.06);

        return min(Ease::smooth(($t - $p->on) / $d), $p->stays() ? 1.0 : Ease::smooth(($p->off - $t) / $d)) + 0.0005;
    }

    /** @return array{float, float, float, float, float} pitch, toe pitch, ankle along and up, share of stance */
    private function planted(Step $p, float $t): array
    {
        $st = $p->style ?? $this->style;
        $usual = $st->duty * 2 * $st->stepSeconds;
        $length = $p->stays() ? $usual : $p->off - $p->on;
        $u = ($t - $p->on) / $length;
        if ($p->stays()) {
            $u = min($u, 0.4);
        } elseif ($length > $usual * 1.15) {
            // A long stance strikes by the clock and pushes off counted back from leaving.
            $back = 1 - ($p->off - $t) / $usual;
            $striking = $t - $p->on < $usual * 0.45;
            $u = $striking ? ($t - $p->on) / $usual : max($st->rollStart + 0.01, $back);
            $u = $p->on < -50 ? max(0.4, $back) : max($u, 0.0);
        }
        $late = Ease::clamp(($u - $st->pushStart) / (1 - $st->pushStart));
        $th = $st->heelStrike * $p->land * (1 - Ease::smooth($u / $st->rollStart))
            - ($p->stays() ? 0.0 : $st->toeOff * $p->leave * $late * $late);
        [$z, $y, $toe] = $this->body->roll($th);

        return [$th, $toe, $z, $y, $u];
    }

    private function swing(Step $p, Step $q, float $t): Footing
    {
        $st = $q->style ?? $this->style;
        $span = $q->on - $p->off;
        $u = ($t - $p->off) / $span;
        $e = 0.004;
        $a0 = $this->ankleOf($p, $p->off);
        $a1 = $this->ankleOf($p, $p->off - $e);
        $b0 = $this->ankleOf($q, $q->on);
        // Slow at the touch: what skims within 3 mm of the floor is seen to slide.
        $touch = $st->speed * Ease::mix(0.09, 0.0, $st->run) * (1 - min(1.0, 1.2 * $st->age)) * $span * Ease::clamp($q->land);
        $v = $u;
        $u2 = $u * $u;
        $u3 = $u2 * $u;
        $rise = $p->slope === 0.0 && $q->slope === 0.0 ? $q->y - $p->y : 0.0;
        if ($p->over > 0.0 || abs($rise) > 0.05) {
            // Over an edge: up first, across, then down.
            $stair = min(1.0, abs($rise) / 0.16);
            $u1 = $rise > 0.0 ? $u ** (1 + 0.5 * $stair) : 1 - (1 - $u) ** (1 + 0.5 * $stair);
            $v = Ease::mix($u1, Ease::smooth(Ease::smooth($u)), min(1.0, ($p->over ?? 0.0) / 0.10));
            [$u2, $u3] = [$v * $v, $v ** 3];
        }
        $hermite = fn (float $a, float $b, float $ma, float $mb): float => $a * (2 * $u3 - 3 * $u2 + 1) + $ma * ($u3 - 2 * $u2 + $v) + $b
            * (3 * $u2 - 2 * $u3) + $mb * ($u3 - $u2);
        $x = $hermite($a0[0], $b0[0], ($a0[0] - $a1[0]) / $e * $span, sin($q->heading) * $touch);
        $z = $hermite($a0[2], $b0[2], ($a0[2] - $a1[2]) / $e * $span, cos($q->heading) * $touch);
        $far = Ease::clamp(hypot($q->x - $p->x, $q->z - $p->z) / (2 * $st->step));
        $th = $this->swingPitch($a0[3], ($a0[3] - $a1[3]) / $e * $span, $b0[3], -deg2rad(4.0) * $far, $u);
        [, $y, $toe] = $this->body->roll($th);
        // On a ramp the ground rises with the way made; over an edge it rises before it.
        $ramp = Ease::clamp(max(abs($p->slope), abs($q->slope)) / deg2rad(6.0));
        $made = (($x - $p->x) * ($q->x - $p->x) + ($z - $p->z) * ($q->z - $p->z)) / max(1e-6, ($q->x - $p->x) ** 2 + ($q->z - $p->z) ** 2);
        $ground = Ease::mix(self::passing($p->y, $q->y, $u), $p->y + ($q->y - $p->y) * $made, $ramp);
        $slope = $p->slope + ($q->slope - $p->slope) * Ease::smooth($u);
        $lift = $st->clearance * (0.35 + 0.65 * $far) * sin(M_PI * $u ** 0.75);
        // A swing longer than the manner's own, as one slows down, is carried higher, or it would skim where it lands.
        $lift += max(0.0, hypot($q->x - $p->x, $q->z - $p->z) / (2 * $st->step) - 1.0) * 0.09 * sin(M_PI * $u ** 1.3);
        // The heel of one who runs is kicked up behind, early in the swing.
        $lift += $st->kick * $far * sin(M_PI * $u ** 0.62) ** 2;
        $heading = $p->heading + ($q->heading - $p->heading) * Ease::smooth($u);

        return new Footing(
            [$x, max($y, 0.0) + $lift + $ground + ($p->over ?? 0.0) * self::plateau($u), $z],
            $th + $slope,
            $toe + $slope,
            $heading,
            false,
            $u,
        );
    }

    /** Height of the ground that a swinging foot has to clear: up before the edge, down only after it. */
    private static function passing(float $from, float $to, float $u): float
    {
        $share = $to > $from ? Ease::smooth($u / 0.72) : Ease::smooth(($u - 0.16) / 0.84);

        return $from + ($to - $from) * $share + min(0.03, 0.4 * abs($to - $from)) * sin(M_PI * $u);
    }

    /** Toe-off angle, then toes level at 55 %, then toes up before the heel strikes. */
    private function swingPitch(float $from, float $rate, float $to, float $mid, float $u): float
    {
        $half = 0.55;
        if ($u < $half) {
            $v = $u / $half;
            $v2 = $v * $v;
            $v3 = $v2 * $v;

            return $from * (2 * $v3 - 3 * $v2 + 1) + max($rate, -deg2rad(70.0)) * $half * ($v3 - 2 * $v2 + $v)
                + $mid * (3 * $v2 - 2 * $v3) + ($to - $mid) * 0.9 * ($v3 - $v2);
        }
        $v = ($u - $half) / (1 - $half);

        return Ease::mix($mid, $to * 1.05, Ease::smooth($v)) + ($to - $mid) * 0.9 * (1 - $half) / $half * ($v * (1 - $v) ** 2)
            - $to * 0.05 * Ease::smooth(($v - 0.6) / 0.4);
    }

    /** @return array{float, float, float, float} ankle x y z and pitch */
    private function ankleOf(Step $p, float $t): array
    {
        [$th, , $along, $up] = $this->planted($p, $t);
        // On a slope the whole roll tips about the ground under the ankle.
        $z = $along * cos($p->slope) - $up * sin($p->slope);
        $y = $along * sin($p->slope) + $up * cos($p->slope);

        return [$p->x + sin($p->heading) * $z, $p->y + $y, $p->z + cos($p->heading) * $z, $th];
    }
}
