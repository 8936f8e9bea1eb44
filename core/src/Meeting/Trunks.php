<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use Closure;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * What the body lends to hands that have far to go: who is much taller stoops, and one number a person brings hips, spine, girdle and
 * head along together until the arm has its place in reach.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Reaching array{string, int, Vec, Closure(float): float, float}
 */
final class Trunks
{
    /** At full share, for a person of 1.70 m: hips ahead and down (metres), spine towards the place, turned, girdle (degrees). */
    private const FULL = ['ahead' => 0.06, 'down' => 0.10, 'lean' => 24.0, 'turn' => 12.0, 'girdle' => 14.0, 'head' => 0.75];

    private const REACH = 0.90;

    /** Seconds by which the trunk is ahead of the hand. */
    public const LEAD = 0.12;

    /** @param  array<string, Person>  $who */
    public function __construct(private readonly array $who, private readonly float $rate, private readonly int $frames)
    {
    }

    /** Who reaches for a place far below the own shoulder goes down to it. */
    public function stoop(Touch $t): void
    {
        $f = (int) round($t->from * $this->rate);
        $p = $this->who[$t->by];
        $other = $this->who[$t->by === 'A' ? 'B' : 'A'];
        $k = $p->size();
        $y = Spots::has($t->on) ? Spots::on($other, $t->on, $t->side, $f)['point'][1] : $other->at('upperChest', $f)[1];
        $low = Ease::clamp(($p->at("upperArm{$t->hand}", $f)[1] - $y - 0.22 * $k) / (0.30 * $k), 0.0, 1.4);
        $this->lowered($p, $t, $low);
        if (in_array($t->on, ['wrist', 'elbow'], true)) {
            // An arm held out too high for the other is held lower.
            $high = Ease::clamp(($y - $p->at("upperArm{$t->hand}", $f)[1] - 0.24 * $k) / (0.24 * $other->size()), 0.0, 1.3);
            $this->lowered($other, $t, $high);
        }
    }

    /** Hips go down and the trunk leans by a share, as long as the hand is there. */
    private function lowered(Person $p, Touch $t, float $low): void
    {
        for ($g = 0; $low > 0.0 && $g < $this->frames; $g++) {
            $w = $low * $t->lent($g / $this->rate, 0.2);
            if ($w > 0.0) {
                $p->shiftHips($g, [0.0, -0.17 * $p->size() * $w, 0.0]);
                $this->lean($p, $g, $this->ahead($p), deg2rad(11.0) * $w);
                $p->turn('head', $g, Q4::axis(V3::cross([0.0, 1.0, 0.0], $this->ahead($p)), -deg2rad(8.0) * $w));
            }
        }
    }

    /**
     * @param  list<Touch>  $touches
     * @param  list<Join>  $joins
     * @param  Closure(Touch, int): Vec  $wrist
     */
    public function lend(array $touches, array $joins, Closure $wrist): void
    {
        foreach (['A', 'B'] as $one) {
            $arms = [];
            foreach ($touches as $t) {
                if ($t->by === $one && Spots::has($t->on)) {
                    $f = (int) round($t->from * $this->rate);
                    $course = static fn (float $time): float => $t->lent($time, self::LEAD);
                    $arms[] = [$t->hand, $f, $wrist($t, $f), $course, $t->strike ? 0.94 : self::REACH];
                }
            }
            foreach ($joins as $j) {
                $arms[] = [$j->hand($one), $j->first(), $j->wrist($one), $j->course(...), self::REACH];
            }
            if ($arms !== []) {
                $this->share($this->who[$one], $arms);
            }
        }
    }

    /** @param  non-empty-list<Reaching>  $arms  hand, row of the contact, wrist, course, reach */
    private function share(Person $p, array $arms): void
    {
        $short = function (float $s) use ($p, $arms): bool {
            foreach ($arms as [$hand, $f, $wrist, , $reach]) {
                $kept = $p->posture($f)->result();
                $this->lent($p, $f, $hand, $wrist, $s);
                $far = V3::distance($p->at("upperArm{$hand}", $f), $wrist) > $reach * $p->armLength($hand);
                $p->posture($f)->reset($kept);
                if ($far) {
                    return true;
                }
            }

            return false;
        };
        if (! $short(0.0)) {
            return;
        }
        [$low, $high] = [0.0, 1.0];
        for ($i = 0; $i < 7 && $short(1.0) === false; $i++) {
            $s = ($low + $high) / 2;
            $short($s) ? $low = $s : $high = $s;
        }
        // The arm that has farthest to go leads through all rows.
        usort($arms, fn (array $x, array $y): int => $this->ratio($p, $y) <=> $this->ratio($p, $x));
        [$hand, , $wrist, $course] = $arms[0];
        for ($f = 0; $f < $this->frames; $f++) {
            $this->lent($p, $f, $hand, $wrist, $high * $course($f / $this->rate));
        }
    }

    /** @param  array{string, int, Vec, Closure(float): float, float}  $arm */
    private function ratio(Person $p, array $arm): float
    {
        return V3::distance($p->at("upperArm{$arm[0]}", $arm[1]), $arm[2]) / ($arm[4] * $p->armLength($arm[0]));
    }

    /** @param  Vec  $to */
    private function lent(Person $p, int $f, string $hand, array $to, float $s): void
    {
        if ($s <= 0.0) {
            return;
        }
        $k = $p->size();
        $way = V3::unit(V3::sub($to, $p->at("upperArm{$hand}", $f)));
        $level = V3::unit([$way[0], 0.0, $way[2]]);
        $down = Ease::clamp(-2 * $way[1] - 0.8);
        $p->shiftHips($f, V3::add(V3::mul($level, self::FULL['ahead'] * $k * $s), [0.0, -self::FULL['down'] * $k * $s * $down, 0.0]));
        $head = $p->joint('head', $f)->rotation;
        $this->lean($p, $f, $level, deg2rad(self::FULL['lean']) * $s);
        $m = $hand === 'L' ? -1.0 : 1.0;
        $p->bend($f, [0.0, 1.0, 0.0], $m * deg2rad(self::FULL['turn']) * $s);
        $shoulder = $p->at("shoulder{$hand}", $f);
        $axis = V3::cross(V3::sub($p->at("upperArm{$hand}", $f), $shoulder), V3::sub($to, $shoulder));
        if (V3::length($axis) > 1e-6) {
            $p->turn("shoulder{$hand}", $f, Q4::axis(V3::unit($axis), deg2rad(self::FULL['girdle']) * $s));
        }
        $back = Q4::power(Q4::mul($head, Q4::conjugate($p->joint('head', $f)->rotation)), self::FULL['head'] / 2);
        $p->turn('neck', $f, $back);
        $p->turn('head', $f, $back);
    }

    /** @param  Vec  $way  level */
    private function lean(Person $p, int $f, array $way, float $angle): void
    {
        $p->bend($f, V3::unit(V3::cross([0.0, 1.0, 0.0], $way)), $angle);
    }

    /** @return Vec level, to the other */
    private function ahead(Person $p): array
    {
        return Q4::rotate($p->place->rotation, [0.0, 0.0, 1.0]);
    }
}
