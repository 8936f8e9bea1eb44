<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * One hand on a place of the other's body: it comes along the way the surface looks, lies on the drawn skin while it touches and goes
 * with it, its fingers close as far as they can.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Contact
{
    /** Metres by which a palm clears the surface it lies on. */
    private const CLEAR = 0.001;

    /**
     * @param  array<string, Person>  $who
     * @param  array{point: Vec, out: Vec, role: string, relief: Relief}|null  $given  the place, where it is known already
     * @param  Vec|null  $fingers  where they point then, in the shared space
     */
    public function __construct(
        private readonly array $who,
        private readonly Touch $touch,
        private readonly float $rate,
        private readonly ?array $given = null,
        private readonly ?array $fingers = null,
    ) {
    }

    private function doer(): Person
    {
        return $this->who[$this->touch->by];
    }

    private function other(): Person
    {
        return $this->who[$this->touch->by === 'A' ? 'B' : 'A'];
    }

    /**
     * Where wrist and hand are to be if the hand touches in a row.
     *
     * @return array{Vec, Quat, array{point: Vec, out: Vec, role: string, relief: Relief}}
     */
    public function aim(int $f): array
    {
        $t = $this->touch;
        $doer = $this->doer();
        $seen = $doer->at("upperArm{$t->hand}", $f);
        $spot = $this->given ?? Spots::on($this->other(), $t->on, $t->side, $t->ghost ? 0 : $f, $seen, $doer->size());
        $hand = $this->lies($spot['out'], $f);

        return [$this->wristAt($spot['point'], $spot['out'], $hand), $hand, $spot];
    }

    /**
     * @param  Vec  $point
     * @param  Vec  $out
     * @param  Quat  $hand
     * @return Vec
     */
    private function wristAt(array $point, array $out, array $hand): array
    {
        $p = $this->doer();
        $own = $p->palm($this->touch->hand, $this->touch->along);
        if ($this->touch->how === 'fist') {
            $own = V3::mul($p->handAxes($this->touch->hand)[0], 0.088 * $p->figure->body()->scale);
        }

        return V3::sub($point, Q4::rotate($hand, V3::mul($own, $p->place->scale)));
    }

    /**
     * @param  Vec  $out
     * @return Quat
     */
    private function lies(array $out, int $f): array
    {
        $p = $this->doer();
        [$along, $palm] = $p->handAxes($this->touch->hand);
        $ahead = V3::sub($this->other()->at('upperChest', $f), $p->at('upperChest', $f));
        $ahead = V3::unit([$ahead[0], 0.0, $ahead[2]]);
        $left = V3::cross([0.0, 1.0, 0.0], $ahead);
        [$x, $y, $z] = $this->touch->fingers;
        $hint = $this->fingers ?? V3::add(V3::add(V3::mul($left, $x), [0.0, $y, 0.0]), V3::mul($ahead, $z));
        $in = V3::mul($out, -1.0);
        if ($this->touch->how === 'fist') {
            return Q4::fromAxes($along, $palm, $in, V3::across($hint, $in));
        }

        return Q4::fromAxes($palm, $along, $in, V3::across($hint, $in));
    }

    /** Whether the arm is long enough for it, at its beginning and its end. */
    public function reaches(int $frames): bool
    {
        $t = $this->touch;
        foreach ([$t->from, $t->until] as $time) {
            $f = max(0, min($frames - 1, (int) round($time * $this->rate)));
            $far = V3::distance($this->doer()->at("upperArm{$t->hand}", $f), $this->aim($f)[0]);
            if ($far > 0.985 * $this->doer()->armLength($t->hand)) {
                return false;
            }
        }

        return true;
    }

    /** @return float metres that the worst row of the contact misses by */
    public function settle(int $frames): float
    {
        $t = $this->touch;
        [$doer, $other] = [$this->doer(), $this->other()];
        $arm = new Arm($doer, $t->hand);
        $first = max(0, min($frames - 1, (int) ceil($t->from * $this->rate)));
        $last = max($first, min($frames - 1, (int) floor($t->until * $this->rate)));
        [, $hand, $spot] = $this->aim($first);
        $m = $t->hand === 'L' ? 1.0 : -1.0;
        $pole = [$m * $t->pole[0], $t->pole[1], $t->pole[2]];
        // The place rides on its joint from the touch on.
        $joint = static fn (int $f): Placement => $other->joint($spot['role'], $f);
        $held = $joint($first)->inverse();
        $ride = static function (int $f) use ($joint, $held): Placement {
            return $joint($f)->of($held);
        };
        [$push, $hand] = $this->onSkin($arm, $first, $spot, $hand, $pole);
        $miss = 0.0;
        $curls = $t->how === 'flat' ? $this->fingers($spot['relief'], $first) : [];
        $arm->forget();
        for ($f = 0; $f < $frames; $f++) {
            $time = $f / $this->rate;
            $w = $t->weight($time);
            if ($w <= 0.0) {
                continue;
            }
            $at = $t->ghost ? $ride($first) : $ride(max($first, min($last, $f)));
            $out = Q4::rotate($at->rotation, $spot['out']);
            $turn = Q4::mul($at->rotation, $hand);
            $point = V3::addScaled($at->point($spot['point']), $out, $push + $t->off($time) * $doer->size() * ($t->round ? 1.5 : 1.0));
            if ($f > $last && $last > $first && ! $t->ghost) {
                // A hand that lets go runs on for a moment as fast as it went.
                $v = V3::sub($ride($last)->point($spot['point']), $ride($last - 1)->point($spot['point']));
                $point = V3::addScaled($point, $v, 1.5 * (1.0 - exp(-($f - $last) / 1.5)));
            }
            if ($t->round) {
                // Round a body a hand comes from the side and from before it.
                $away = $t->off($time) * $doer->size() * 3.0;
                $point = V3::addScaled($point, Q4::rotate($doer->place->rotation, [$m, 0.0, -0.3]), $away);
            }
            $gap = $arm->bring($f, $this->wristAt($point, $out, $turn), $turn, $pole, $w);
            $miss = $t->holds($time) ? max($miss, $gap) : $miss;
            $this->close($f, $curls, $w);
        }

        return $miss;
    }

    /**
     * Brings the hand to the place once and sees how far its drawn skin is off: the way out by which it is to be moved, and the hand as
     * the wrist allows it.
     *
     * @param  array{point: Vec, out: Vec, role: string, relief: Relief}  $spot
     * @param  Quat  $hand
     * @param  Vec  $pole
     * @return array{float, Quat}
     */
    private function onSkin(Arm $arm, int $f, array $spot, array $hand, array $pole): array
    {
        $t = $this->touch;
        $p = $this->doer();
        $kept = $p->posture($f)->result();
        $push = 0.0;
        $parts = $t->how === 'flat' ? ["hand{$t->hand}", "thumb1{$t->hand}", "thumb2{$t->hand}"] : Person::hand($t->hand);
        $skin = $p->skin->vertices($parts);
        for ($round = 0; $round < 3; $round++) {
            $p->posture($f)->reset($kept);
            $arm->forget();
            if ($t->how === 'fist' || $t->how === 'grip') {
                $this->close($f, [], 1.0);
            }
            $point = V3::addScaled($spot['point'], $spot['out'], $push);
            $arm->bring($f, $this->wristAt($point, $spot['out'], $hand), $hand, $pole, 1.0);
            if ($round === 0 && $t->how !== 'fist') {
                $hand = Arm::eased($p->at("lowerArm{$t->hand}", $f), $p->at("hand{$t->hand}", $f), $hand, $p->handAxes($t->hand)[0]);
                $arm->bring($f, $this->wristAt($point, $spot['out'], $hand), $hand, $pole, 1.0);
            }
            $least = $spot['relief']->least($p->drawn($skin, $f));
            $push -= ($least ?? self::CLEAR) - self::CLEAR;
            $push = Ease::clamp($push, -0.05, 0.08);
        }

        return [$push, $hand];
    }

    /**
     * How far each finger closes until its drawn skin meets the surface.
     *
     * @return array<string, float> by finger
     */
    private function fingers(Relief $relief, int $f): array
    {
        $t = $this->touch;

        return (new Fingers($this->doer(), $t->hand))->closed($relief, $f, 0.0015);
    }

    /** @param  array<string, float>  $curls */
    private function close(int $f, array $curls, float $weight): void
    {
        $fingers = new Fingers($this->doer(), $this->touch->hand);
        match ($this->touch->how) {
            'fist' => $fingers->all($f, 1.55, $weight),
            'grip' => $fingers->all($f, 0.95, $weight),
            default => $fingers->each($f, $curls, $weight),
        };
    }
}
