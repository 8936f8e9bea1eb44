<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A hand of each that meet at a point between the two, palm to palm or on one thing: both arms use the same part of their reach.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Join
{
    /** Metres between two palms that lie on each other, for the flesh that gives way on neither. */
    private const GAP = 0.002;

    /** Fingers of an open hand, radians. */
    private const OPEN = 0.24;

    /** @var array<string, Touch> by person */
    private array $touch = [];

    /** @var array{how: string, height: float, reach: float, aside: float, radius: float, pump: float} */
    private array $as;

    /** Whether the meeting point goes along with the two. */
    private readonly bool $rides;

    /** Way out by which both hands are moved apart so that their drawn skins do not meet. */
    private float $apart = 0.0;

    /**
     * @param  array<string, Person>  $who
     * @param  array<string, mixed>  $sheet
     */
    public function __construct(private readonly array $who, array $sheet, private readonly float $rate)
    {
        $number = static fn (string $k, float $else): float => is_numeric($sheet[$k] ?? null) ? (float) $sheet[$k] : $else;
        foreach (['A', 'B'] as $one) {
            $own = is_array($sheet["{$one}'s"] ?? null) ? $sheet["{$one}'s"] : [];
            $this->touch[$one] = Touch::of(['by' => $one, 'hand' => $sheet[$one] ?? 'R', 'pole' => [0.45, -1.0, -0.25]] + $own + $sheet);
        }
        $this->rides = ($sheet['rides'] ?? false) === true;
        $this->as = [
            'how' => is_string($sheet['join'] ?? null) ? $sheet['join'] : 'shake', 'height' => $number('height', -0.277),
            'reach' => $number('share', 0.82), 'aside' => $number('aside', 0.0), 'radius' => $number('radius', 0.0),
            'pump' => $number('pump', 0.0),
        ];
    }

    public function hand(string $one): string
    {
        return $this->touch[$one]->hand;
    }

    public function first(): int
    {
        return (int) round($this->touch['A']->from * $this->rate);
    }

    /** When the two hands meet. */
    public function times(): Touch
    {
        return $this->touch['A'];
    }

    public function course(float $time): float
    {
        return $this->touch['A']->lent($time, Trunks::LEAD);
    }

    /** @return Vec */
    private function shoulder(string $one, int $f): array
    {
        return $this->who[$one]->at('upperArm'.$this->hand($one), $f);
    }

    private function height(int $f): float
    {
        $y = 0.0;
        foreach (['A', 'B'] as $one) {
            $y += ($this->shoulder($one, $f)[1] + $this->as['height'] * $this->who[$one]->size()) / 2;
        }

        return $y;
    }

    /** Metres in the plan from a shoulder to the meeting point. */
    private function plan(string $one, int $f): float
    {
        $p = $this->who[$one];
        $k = $p->size();
        $long = $this->as['reach'] * ($p->armLength($this->hand($one)) + 0.066 * $k);

        return max(0.26 * $k, sqrt(max(0.0, $long ** 2 - ($this->shoulder($one, $f)[1] - $this->height($f)) ** 2)));
    }

    /** Metres by which the second is to be farther away. */
    public function wanted(): float
    {
        $f = $this->first();
        [$a, $b] = [$this->shoulder('A', $f), $this->shoulder('B', $f)];
        $r = $this->plan('A', $f) + $this->plan('B', $f);
        $beside = hypot($b[0] - $a[0], 2 * $this->as['aside']);

        return sqrt(max(0.04, $r ** 2 - $beside ** 2)) - ($b[2] - $a[2]);
    }

    /** @return Vec where the two meet in a row */
    private function point(int $f): array
    {
        [$a, $b] = [$this->shoulder('A', $f), $this->shoulder('B', $f)];
        [$ra, $rb] = [$this->plan('A', $f), $this->plan('B', $f)];
        $m = V3::mix($a, $b, $ra / ($ra + $rb));
        // Aside to the left of the first as the two stand now.
        $level = V3::unit([$b[0] - $a[0], 0.0, $b[2] - $a[2]]);
        $size = ($this->who['A']->size() + $this->who['B']->size()) / 2;
        $m = V3::addScaled($m, V3::cross([0.0, 1.0, 0.0], $level), $this->as['aside'] * $size);

        return [$m[0], $this->height($f), $m[2]];
    }

    /** @return Vec where somebody's wrist is at the first touch */
    public function wrist(string $one): array
    {
        $f = $this->first();
        [$point, $out, $hand] = $this->aim($one, $f, $this->point($f));

        return $this->wristAt($one, $point, $out, $hand, 0.0);
    }

    /**
     * @param  Vec  $point
     * @return array{Vec, Vec, Quat} point, way out of the other's palm, hand
     */
    private function aim(string $one, int $f, array $point): array
    {
        $p = $this->who[$one];
        [$a, $b] = [$this->shoulder('A', $f), $this->shoulder('B', $f)];
        $level = V3::unit([$b[0] - $a[0], 0.0, $b[2] - $a[2]]);
        $m = $one === 'A' ? 1.0 : -1.0;
        $to = V3::mul($level, $m);
        [$along, $palm] = $p->handAxes($this->hand($one));
        if ($this->as['how'] === 'facing') {
            [$x, $y, $z] = $this->touch[$one]->fingers;
            $left = V3::cross([0.0, 1.0, 0.0], $to);
            $fingers = V3::add(V3::add(V3::mul($left, $x), [0.0, $y, 0.0]), V3::mul($to, $z));

            return [$point, V3::mul($to, -1.0), Q4::fromAxes($palm, $along, $to, V3::across($fingers, $to))];
        }
        $looks = V3::mul(V3::cross([0.0, 1.0, 0.0], $level), $m * ($this->hand('A') === 'R' ? 1.0 : -1.0));
        $r = hypot($point[0] - $this->shoulder($one, $f)[0], $point[2] - $this->shoulder($one, $f)[2]);
        $pitch = Ease::clamp(0.5 * atan2($point[1] - $this->shoulder($one, $f)[1], $r) + 0.10, -0.5, 0.35) - 0.16;
        $fingers = V3::add(V3::mul($to, cos($pitch)), [0.0, sin($pitch), 0.0]);

        return [$point, V3::mul($looks, -1.0), Q4::fromAxes($palm, $along, $looks, V3::across($fingers, $looks))];
    }

    /**
     * @param  Vec  $point
     * @param  Vec  $out
     * @param  Quat  $hand
     * @return Vec
     */
    private function wristAt(string $one, array $point, array $out, array $hand, float $off): array
    {
        $p = $this->who[$one];
        $own = $p->palm($this->hand($one), $this->as['how'] === 'thing' ? 0.075 : 0.066);
        $place = V3::addScaled($point, $out, self::GAP / 2 + $this->apart / 2 + $this->as['radius'] + $off);

        return V3::sub($place, Q4::rotate($hand, V3::mul($own, $p->place->scale)));
    }

    /** @return float metres that the worst row misses by */
    public function settle(int $frames): float
    {
        $arms = ['A' => new Arm($this->who['A'], $this->hand('A')), 'B' => new Arm($this->who['B'], $this->hand('B'))];
        $f = $this->first();
        $fixed = $this->point($f);
        $kept = array_map(static fn (Person $p): array => $p->posture($f)->result(), $this->who);
        $this->bring($arms, $f, $fixed, 1.0);
        if ($this->as['how'] !== 'thing') {
            $this->part($f);
            $this->bring($arms, $f, $fixed, 1.0);
        }
        $curls = $this->curls($f);
        foreach ($this->who as $one => $p) {
            $p->posture($f)->reset($kept[$one]);
            $arms[$one]->forget();
        }
        $miss = 0.0;
        for ($g = 0; $g < $frames; $g++) {
            $time = $g / $this->rate;
            $gap = $this->bring($arms, $g, $this->rides ? $this->point($g) : $this->moved($fixed, $time), null);
            $miss = $this->touch['A']->holds($time) ? max($miss, $gap) : $miss;
            foreach ($this->who as $one => $p) {
                $t = $this->touch[$one];
                $shut = Ease::smooth(($time - $t->from + 0.12) / 0.16) * (1.0 - Ease::smooth(($time - $t->until + 0.02) / 0.16));
                $w = $t->weight($time);
                $fingers = new Fingers($p, $this->hand($one));
                // One course from the hand as it hangs over the open one to the closed one.
                $fingers->each($g, array_map(static fn (float $c): float => Ease::mix(self::OPEN, $c, $shut), $curls[$one]), $w);
            }
        }

        return $miss;
    }

    /**
     * @param  Vec  $at
     * @return Vec
     */
    private function moved(array $at, float $time): array
    {
        $t = $this->touch['A'];
        if ($this->as['pump'] === 0.0) {
            return $at;
        }
        $on = Ease::smooth(($time - $t->from) / 0.2) * Ease::smooth(($t->until - $time) / 0.3);
        $k = min($this->who['A']->size(), $this->who['B']->size());

        return V3::add($at, [0.0, $this->as['pump'] * $k * $on * sin(2 * M_PI * 2.2 * ($time - $t->from)), 0.0]);
    }

    /**
     * @param  array<string, Arm>  $arms
     * @param  Vec  $at
     */
    private function bring(array $arms, int $f, array $at, ?float $weight): float
    {
        $miss = 0.0;
        foreach ($arms as $one => $arm) {
            $t = $this->touch[$one];
            $w = $weight ?? $t->weight($f / $this->rate);
            if ($w > 0.0) {
                $m = $this->hand($one) === 'L' ? 1.0 : -1.0;
                [$point, $out, $hand] = $this->aim($one, $this->rides ? $f : $this->first(), $at);
                $off = $weight === null ? $t->off($f / $this->rate) * $this->who[$one]->size() : 0.0;
                $wrist = $this->wristAt($one, $point, $out, $hand, $off);
                $miss = max($miss, $arm->bring($f, $wrist, $hand, [$m * $t->pole[0], $t->pole[1], $t->pole[2]], $w));
            }
        }

        return $miss;
    }

    /** Palms whose drawn skins would press into each other are moved apart. */
    private function part(int $f): void
    {
        [, $out] = $this->aim('A', $f, $this->point($f));
        // The palm of the second looks along the way out of the first's, so it is seen from there.
        $b = $this->who['B'];
        $hand = $this->hand('B');
        $relief = $b->relief(["hand{$hand}", "lowerArm{$hand}"], $f, $this->point($f), $out, 0.14, 0.06);
        $least = $relief->least($this->who['A']->drawn($this->who['A']->skin->vertices(['hand'.$this->hand('A')]), $f));
        if ($least !== null && $least < 0.0) {
            $this->apart = Ease::clamp(-$least, 0.0, 0.03);
        }
    }

    /** @return array<string, array<string, float>> by person and finger */
    private function curls(int $f): array
    {
        $out = [];
        foreach (['A' => 'B', 'B' => 'A'] as $one => $other) {
            if ($this->as['how'] === 'thing') {
                $out[$one] = array_fill_keys(['index', 'middle', 'ring', 'little'], 0.8);

                continue;
            }
            [, $away] = $this->aim($one, $f, $this->point($f));
            $o = $this->who[$other];
            $hand = $this->hand($other);
            $relief = $o->relief(["lowerArm{$hand}", ...Person::hand($hand)], $f, $this->point($f), $away, 0.16, 0.08);
            $out[$one] = (new Fingers($this->who[$one], $this->hand($one)))->closed($relief, $f, 0.0);
        }

        return $out;
    }
}
