<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use Closure;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * Two bodies in each other's arms: trunks bend and step aside until chests meet before heads do, then come together; who is much taller
 * comes down. Arms go round backs, each by the way that leads least into the other.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Embrace
{
    /** Metres by which clothes give way, and that heads keep. */
    private const GIVE = 0.004;

    private const HEADS = 0.012;

    /** Sizes that differ by so much hug as a grown one and a child do. */
    private const UNLIKE = 0.16;

    private readonly int $hold;

    private readonly Touch $course;

    /**
     * @param  array<string, Person>  $who
     * @param  array<string, mixed>  $sheet  reach, from, until, gone; far: metres between the trunks
     */
    public function __construct(
        private readonly array $who,
        private readonly array $sheet,
        private readonly float $rate,
        private readonly int $frames,
    ) {
        $this->course = Touch::of($sheet);
        $this->hold = (int) round($this->course->from * $rate);
    }

    /** @param  Closure(Vec): void  $step  moves the second */
    public function settle(Closure $step): void
    {
        [$a, $b] = [$this->who['A'], $this->who['B']];
        $unlike = abs($a->size() - $b->size()) > self::UNLIKE;
        $far = is_numeric($this->sheet['far'] ?? null) ? (float) $this->sheet['far'] : 0.0;
        $x = 0.0;
        if (! $unlike) {
            for (; $x < 1.0; $x += 0.25) {
                [$trunks, $heads] = $this->tried($x);
                if ($heads >= $trunks + self::HEADS) {
                    break;
                }
            }
            $step([-0.17 * $x * ($a->size() + $b->size()) / 2, 0.0, 0.0]);
        }
        for ($f = 0; $f < $this->frames; $f++) {
            $w = $this->weight($f / $this->rate);
            if ($w > 0.0) {
                $this->bent('A', $f, $x, $w);
                $this->bent('B', $f, $x, $w);
            }
        }
        [$trunks, $heads] = $this->gaps();
        $step([0.0, 0.0, -min($trunks + self::GIVE - $far, $heads - self::HEADS / 2)]);
        foreach (['A', 'B'] as $one) {
            $this->arm($one, 'R', true);
            $this->arm($one, 'L', false);
        }
    }

    private function weight(float $t): float
    {
        return $this->course->there($t);
    }

    /** @return array{float, float} metres between trunks and between heads when both bend by a share */
    private function tried(float $x): array
    {
        $kept = array_map(fn (Person $p): array => $p->posture($this->hold)->result(), $this->who);
        $b = $this->who['B'];
        $place = $b->place;
        $aside = -0.17 * $x * ($this->who['A']->size() + $this->who['B']->size()) / 2;
        foreach (['A', 'B'] as $one) {
            $this->bent($one, $this->hold, $x, 1.0);
        }
        $b->place = new Placement(V3::add($place->position, [$aside, 0.0, 0.0]), $place->rotation, $place->scale);
        $gaps = $this->gaps();
        $b->place = $place;
        foreach ($this->who as $one => $p) {
            $p->posture($this->hold)->reset($kept[$one]);
        }

        return $gaps;
    }

    /** @return array{float, float} metres along the line between the two: trunks, heads */
    private function gaps(): array
    {
        [$a, $b] = [$this->who['A'], $this->who['B']];

        return [Bodies::trunks($a, $b, $this->hold), Bodies::heads($a, $b, $this->hold)];
    }

    /** Bends a person for the embrace in a row by a weight. */
    private function bent(string $one, int $f, float $x, float $w): void
    {
        $p = $this->who[$one];
        $other = $this->who[$one === 'A' ? 'B' : 'A'];
        $k = $p->size();
        $taller = $k - $other->size();
        $ahead = Q4::rotate($p->place->rotation, [0.0, 0.0, 1.0]);
        $across = Q4::rotate($p->place->rotation, [1.0, 0.0, 0.0]);
        if (abs($taller) <= self::UNLIKE) {
            $p->shiftHips($f, V3::mul($ahead, 0.07 * $k * $w));
            $p->bend($f, $across, -deg2rad(7.0) * $w);
            $p->bend($f, $ahead, -deg2rad(9.0) * $x * $w);
            $p->turn('head', $f, Q4::mul(Q4::axis($ahead, -deg2rad(14.0) * $x * $w), Q4::axis($across, deg2rad(5.0) * $w)));
        } elseif ($taller > 0.0) {
            $p->shiftHips($f, [0.0, -min(0.17, 0.55 * $taller) * $w, 0.0]);
            $p->bend($f, $across, deg2rad(min(14.0, 60.0 * $taller)) * $w);
            $p->turn('head', $f, Q4::axis($across, deg2rad(14.0) * $w));
        } else {
            $p->bend($f, $across, -deg2rad(9.0) * $w);
            $p->turn('head', $f, Q4::mul(Q4::aroundY(deg2rad(38.0) * $w), Q4::axis($across, deg2rad(6.0) * $w)));
        }
    }

    private function arm(string $one, string $hand, bool $over): void
    {
        $c = $this->course;
        $p = $this->who[$one];
        $other = $this->who[$one === 'A' ? 'B' : 'A'];
        $f = $this->hold;
        $k = $p->size();
        $y = min(
            $p->at("upperArm{$hand}", $f)[1] - ($over ? 0.05 : 0.24) * $k,
            $other->at('upperArmL', $f)[1] - ($over ? 0.13 : 0.24) * $other->size(),
        );
        $y = max($y, $other->at('hips', $f)[1] + 0.06 * $other->size());
        // A hand that comes from far above lies on the shoulder blades, one from far below on the small of the back.
        $axis = V3::mix($other->at('chest', $f), $other->at('upperChest', $f), 0.5);
        $back = Q4::rotate($other->joint('upperChest', $f)->rotation, [0.0, 0.0, -1.0]);
        $back = V3::unit([$back[0], 0.0, $back[2]]);
        $side = Q4::rotate($p->place->rotation, [$hand === 'L' ? 1.0 : -1.0, 0.0, 0.0]);
        $hull = new Hull($other, $f, $axis);
        $best = [INF, null, [0.5, -1.0, -0.2], [0.0, 0.0, 0.0]];
        $kept = $p->posture($f)->result();
        // Round a child an arm goes round its arms, too.
        $parts = $k - $other->size() > self::UNLIKE
            ? ['upperChest', 'chest', 'spine', 'hips', 'upperArmL', 'upperArmR']
            : ['upperChest', 'chest', 'spine', 'hips'];
        foreach ([12, 28, 44, 60, 78, 96, 115] as $angle) {
            [$s, $q] = [sin(deg2rad($angle)), cos(deg2rad($angle))];
            $out = V3::add(V3::mul($back, $q), V3::mul($side, $s));
            $relief = $other->relief($parts, $f, [$axis[0], $y, $axis[2]], $out, 0.14, 0.3);
            $normal = V3::unit(V3::add($relief->normal(), $out));
            $spot = ['point' => $relief->point(), 'out' => $normal, 'role' => 'upperChest', 'relief' => $relief];
            $along = V3::sub(V3::mul($back, $s), V3::mul($side, $q));
            foreach ([-0.35, 0.0, 0.35] as $tilt) {
                $fingers = V3::add($along, [0.0, $tilt, 0.0]);
                foreach ([-70, -45, -20, 5, 30] as $pole) {
                    $to = [cos(deg2rad($pole)), sin(deg2rad($pole)), -0.2];
                    $cost = $this->cost($p, $hand, $spot, $fingers, $to, $hull, $kept)
                        + 0.006 * $angle + 0.003 * abs($pole - ($over ? -5 : -35));
                    if ($cost < $best[0]) {
                        $best = [$cost, $spot, $to, $fingers];
                    }
                }
            }
        }
        $p->posture($f)->reset($kept);
        if ($best[1] === null) {
            return;
        }
        $touch = Touch::of([
            'by' => $one, 'hand' => $hand, 'on' => 'back', 'reach' => $c->reach + ($over ? 0.0 : 0.06), 'from' => $c->from,
            'until' => $c->until,
            'gone' => $c->gone, 'pole' => $best[2], 'round' => true,
        ]);
        (new Contact($this->who, $touch, $this->rate, $best[1], $best[3]))->settle($this->frames);
    }

    /**
     * @param  array{point: Vec, out: Vec, role: string, relief: Relief}  $spot
     * @param  Vec  $fingers  in the shared space
     * @param  Vec  $pole
     * @param  list<float>  $kept
     */
    private function cost(Person $p, string $hand, array $spot, array $fingers, array $pole, Hull $hull, array $kept): float
    {
        $f = $this->hold;
        $p->posture($f)->reset($kept);
        [$along, $palm] = $p->handAxes($hand);
        $in = V3::mul($spot['out'], -1.0);
        $turn = Q4::fromAxes($palm, $along, $in, V3::across($fingers, $in));
        $wrist = V3::sub($spot['point'], Q4::rotate($turn, V3::mul($p->palm($hand, 0.06), $p->place->scale)));
        $m = $hand === 'L' ? 1.0 : -1.0;
        $miss = (new Arm($p, $hand))->bring($f, $wrist, $turn, [$m * $pole[0], $pole[1], $pole[2]], 1.0);
        [$shoulder, $elbow, $at] = [$p->at("upperArm{$hand}", $f), $p->at("lowerArm{$hand}", $f), $p->at("hand{$hand}", $f)];
        $bent = V3::dot(V3::unit(V3::sub($at, $elbow)), V3::unit(V3::across($fingers, $in)));
        $deep = 0.0;
        foreach ([0.1, 0.3, 0.5, 0.7, 0.85, 0.95] as $share) {
            $deep += $hull->depth(V3::mix($elbow, $at, $share), 0.035 * $p->size());
        }
        foreach ([0.7, 0.9] as $share) {
            $deep += $hull->depth(V3::mix($shoulder, $elbow, $share), 0.04 * $p->size());
        }
        $far = V3::distance($shoulder, $at) / $p->armLength($hand);

        return 8 * $deep + 40 * $miss + 3 * max(0.0, $far - 0.93) + 0.9 * max(0.0, 0.5 - $bent);
    }
}
