<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * Two who hold each other turn about the point between them: bodies evenly, feet in steps, one after the other in time.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final readonly class Whirl
{
    /** Metres by which a foot is lifted for a person of 1.70 m. */
    private const LIFT = 0.05;

    /**
     * @param  array<string, Person>  $who
     * @param  array<string, mixed>  $sheet  from, until (seconds), degrees in all, beat (seconds a step)
     */
    public function __construct(private array $who, private array $sheet, private float $rate, private int $frames)
    {
    }

    private function number(string $key, float $else): float
    {
        return is_numeric($this->sheet[$key] ?? null) ? (float) $this->sheet[$key] : $else;
    }

    /** Angle of the bodies at a time, radians. */
    private function turned(float $t): float
    {
        [$from, $until] = [$this->number('from', 1.0), $this->number('until', 4.0)];
        $u = Ease::clamp(($t - $from) / ($until - $from));

        // Even, with a soft start and end.
        return deg2rad($this->number('degrees', 180.0)) * Ease::mix($u, Ease::smooth($u), 0.5);
    }

    public function settle(): void
    {
        [$a, $b] = [$this->who['A'], $this->who['B']];
        $middle = V3::mix($a->at('hips', 0), $b->at('hips', 0), 0.5);
        $middle = [$middle[0], 0.0, $middle[2]];
        foreach (['A' => 'L', 'B' => 'R'] as $one => $first) {
            $p = $this->who[$one];
            for ($f = 0; $f < $this->frames; $f++) {
                $this->row($p, $f, $middle, $first);
            }
        }
    }

    /** @param  Vec  $middle */
    private function row(Person $p, int $f, array $middle, string $first): void
    {
        $t = $f / $this->rate;
        $turn = $this->turned($t);
        $back = $p->place->inverse();
        $posture = $p->posture($f);
        $feet = [];
        foreach (['L', 'R'] as $side) {
            $leg = $p->figure->limb('leg', $side);
            if ($leg !== null) {
                $feet[$side] = [$leg, $posture->at($leg[2])];
            }
        }
        $hips = $p->figure->hips;
        [$at, $rotation] = $posture->at($hips);
        $world = $p->place->point($at);
        $moved = V3::add($middle, Q4::rotate(Q4::aroundY($turn), V3::sub($world, $middle)));
        // Feet that step shift the weight from one to the other and back.
        $posture->turn($hips, Q4::mul(Q4::aroundY($turn), $rotation));
        $posture->shiftHips(V3::sub($back->point($moved), $at));
        $hinge = Q4::rotate(Q4::mul($posture->at($hips)[1], Q4::conjugate($p->figure->restTurn($hips))), [1.0, 0.0, 0.0]);
        foreach ($feet as $side => [$leg, [$place, $q]]) {
            [$angle, $lift] = $this->step($t, $side === $first);
            $to = V3::add($middle, Q4::rotate(Q4::aroundY($angle), V3::sub($p->place->point($place), $middle)));
            $to = V3::add($to, [0.0, $lift * $p->size(), 0.0]);
            $posture->reach($leg[0], $leg[1], $leg[2], $back->point($to), Q4::mul(Q4::aroundY($angle), $q), $hinge);
        }
    }

    /** @return array{float, float} angle of a foot about the middle, and metres that it is lifted */
    private function step(float $t, bool $first): array
    {
        $beat = $this->number('beat', 0.55);
        $from = $this->number('from', 1.0) - ($first ? 0.0 : $beat);
        // A foot steps every other beat; it lands where the body will be in the middle of its stand.
        $n = floor(($t - $from) / (2 * $beat));
        $u = (($t - $from) / (2 * $beat) - $n) * 2.0;
        $stand = fn (float $k): float => $this->turned($from + (2 * $k + 1.5) * $beat);
        [$was, $will] = [$stand($n - 1), $stand($n)];
        if ($u >= 1.0 || abs($will - $was) < 1e-4) {
            return [$will, 0.0];
        }

        return [Ease::mix($was, $will, Ease::smoother($u)), self::LIFT * sin(M_PI * $u) ** 2];
    }
}
