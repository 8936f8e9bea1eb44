<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use Closure;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A face brought to the other's cheek or ear: whoever is taller comes down until both are level, the second is placed so that the two
 * drawn heads meet (or keep a gap), and both lean far enough that their bodies keep apart.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Faces
{
    /** Degrees that a head turns for it at most, and that who is kissed turns away. */
    private const TURN = 34.0;

    private const OFFER = 14.0;

    private readonly int $hold;

    private readonly Touch $course;

    /**
     * @param  array<string, Person>  $who
     * @param  array<string, mixed>  $sheet  on (cheek, ear), side of the second, apart (metres between the heads), and the times
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
        $number = fn (string $k, float $else): float => is_numeric($this->sheet[$k] ?? null) ? (float) $this->sheet[$k] : $else;
        $apart = $number('apart', -0.003);
        $kept = array_map(fn (Person $p): array => $p->posture($this->hold)->result(), $this->who);
        $lean = $down = $yaw = 0.0;
        for ($round = 0; $round < 6; $round++) {
            [$down, $yaw] = $this->levelled($kept, $lean);
            $by = $this->together($apart);
            $gap = Bodies::trunks($this->who['A'], $this->who['B'], $this->hold, $by);
            if ($gap > 0.005) {
                break;
            }
            $lean += Ease::clamp(-$gap * 60.0 + 2.0, 3.0, 9.0);
        }
        $step($this->together($apart));
        foreach ($this->who as $one => $p) {
            $p->posture($this->hold)->reset($kept[$one]);
        }
        for ($f = 0; $f < $this->frames; $f++) {
            $w = $this->weight($f / $this->rate);
            if ($w > 0.0) {
                $this->bent($f, $lean, $down, $yaw, $w);
            }
        }
    }

    private function weight(float $t): float
    {
        return $this->course->there($t);
    }

    /**
     * How far the taller one comes down until the mouth is as high as the place, and how far the head turns.
     *
     * @param  array<string, list<float>>  $kept
     * @return array{float, float}
     */
    private function levelled(array $kept, float $lean): array
    {
        $yaw = 0.0;
        [$low, $high] = [-1.8, 1.8];
        for ($i = 0; $i < 12; $i++) {
            $down = ($low + $high) / 2;
            foreach ($this->who as $one => $p) {
                $p->posture($this->hold)->reset($kept[$one]);
            }
            $this->bent($this->hold, $lean, $down, $yaw, 1.0);
            $spot = $this->spot();
            $this->mouth()[1] > $spot['point'][1] ? $low = $down : $high = $down;
            $out = $spot['out'];
            $yaw = Ease::clamp(Angle::wrapped(atan2(-$out[0], -$out[2])), -deg2rad(self::TURN), deg2rad(self::TURN));
        }
        foreach ($this->who as $one => $p) {
            $p->posture($this->hold)->reset($kept[$one]);
        }
        $down = ($low + $high) / 2;
        $this->bent($this->hold, $lean, $down, $yaw, 1.0);

        return [$down, $yaw];
    }

    /** @return array{point: Vec, out: Vec, role: string, relief: Relief} */
    private function spot(): array
    {
        $on = is_string($this->sheet['on'] ?? null) ? $this->sheet['on'] : 'cheek';

        return Spots::on($this->who['B'], $on, $this->course->side, $this->hold);
    }

    /** @return Vec where the first's mouth is */
    private function mouth(): array
    {
        $a = $this->who['A'];
        $head = $a->joint('head', $this->hold);
        $k = $a->figure->body()->scale;

        return $head->point([0.0, 0.055 * $k, 0.15 * $k]);
    }

    /**
     * The step of the second after which the heads meet.
     *
     * @return Vec level
     */
    private function together(float $apart): array
    {
        $spot = $this->spot();
        $way = V3::unit([$spot['out'][0], 0.0, $spot['out'][2]]);
        $by = V3::sub($this->mouth(), $spot['point']);
        $by = [$by[0], 0.0, $by[2]];
        $along = V3::dot($by, $way);
        // Across the way out, mouth and place coincide; along it the drawn heads decide.
        $across = V3::addScaled($by, $way, -$along);
        $b = $this->who['B'];
        $a = $this->who['A'];
        $relief = $b->relief(['head', 'neck', 'upperChest', 'upperArmL', 'upperArmR'], $this->hold, $spot['point'], $way, 0.3, 2.0);
        $own = array_map(
            static fn (array $p): array => V3::sub($p, $across),
            $a->drawn($a->skin->vertices(['head', 'neck']), $this->hold),
        );
        $gap = $relief->least($own) ?? 0.0;

        return V3::addScaled($across, $way, $gap - $apart);
    }

    /** Both bend for it in a row: more than nought down lowers the first, less the second. */
    private function bent(int $f, float $lean, float $down, float $yaw, float $w): void
    {
        foreach ($this->who as $one => $p) {
            $k = $p->size();
            $own = max(0.0, $one === 'A' ? $down : -$down);
            $ahead = Q4::rotate($p->place->rotation, [0.0, 0.0, 1.0]);
            $across = Q4::rotate($p->place->rotation, [1.0, 0.0, 0.0]);
            $angle = deg2rad(($one === 'A' ? 8.0 : 2.0) + $lean + 22.0 * $own) * $w;
            // Hips go back as the trunk goes ahead.
            $p->shiftHips($f, V3::add(V3::mul($ahead, (0.02 - 0.004 * $lean - 0.06 * $own) * $k * $w), [0.0, -0.10 * $own * $k * $w, 0.0]));
            $p->bend($f, $across, $angle);
            $turn = $one === 'A' ? $yaw : deg2rad($this->course->side === 'R' ? self::OFFER : -self::OFFER);
            $level = Q4::mul(Q4::aroundY($turn * $w / 2), Q4::axis($across, -0.8 * $angle / 2));
            $p->turn('neck', $f, $level);
            $p->turn('head', $f, $level);
        }
    }
}
