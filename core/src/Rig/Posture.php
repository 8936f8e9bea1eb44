<?php

declare(strict_types=1);

namespace CrispReel\Core\Rig;

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/**
 * A row of joint rotations that is corrected in place: where joints are, and limbs brought to a place by analytic
 * two-bone IK (law of cosines, then the shortest turn of the whole limb). All in the figure's own space.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 */
final class Posture
{
    /** @var array<int, array{Vec, Quat}> joints that are known; a change forgets those that may hang on it */
    private array $known = [];

    /** @param  array<int, float>  $row  hips x y z, then four numbers a joint */
    public function __construct(private readonly Skeleton $skeleton, private readonly int $hips, private array $row)
    {
    }

    /** @param  array<int, float>  $row */
    public function reset(array $row): void
    {
        $this->row = $row;
        $this->known = [];
    }

    /** Parents come before children: what comes after a joint may hang on it. */
    private function forget(int $from): void
    {
        foreach ($this->known as $j => $_) {
            if ($j >= $from) {
                unset($this->known[$j]);
            }
        }
    }

    /** @return array{Vec, Quat} place and rotation of a joint; of the figure itself for -1 */
    public function at(int $joint): array
    {
        if ($joint < 0) {
            return [[0.0, 0.0, 0.0], Q4::IDENTITY];
        }
        if (isset($this->known[$joint])) {
            return $this->known[$joint];
        }
        [$p, $q] = $this->at($this->skeleton->parents[$joint]);

        return $this->known[$joint] = $this->under($joint, $p, $q);
    }

    /**
     * Place and rotation of a joint whose parent is known.
     *
     * @param  Vec  $p
     * @param  Quat  $q
     * @return array{Vec, Quat}
     */
    private function under(int $joint, array $p, array $q): array
    {
        $t = $joint === $this->hips ? [$this->row[0], $this->row[1], $this->row[2]] : $this->skeleton->restTranslation($joint);

        return [V3::add($p, Q4::rotate($q, $t)), Q4::mul($q, $this->local($joint))];
    }

    /** @return Quat */
    public function local(int $joint): array
    {
        $o = 3 + 4 * $joint;

        return [$this->row[$o], $this->row[$o + 1], $this->row[$o + 2], $this->row[$o + 3]];
    }

    /** @param  Quat  $q */
    public function turnLocal(int $joint, array $q): void
    {
        $o = 3 + 4 * $joint;
        [$this->row[$o], $this->row[$o + 1], $this->row[$o + 2], $this->row[$o + 3]] = Q4::unit($q);
        $this->forget($joint);
    }

    /** @param  Quat  $q  in the figure's space */
    public function turn(int $joint, array $q): void
    {
        [, $parent] = $this->at($this->skeleton->parents[$joint]);
        $this->turnLocal($joint, Q4::mul(Q4::conjugate($parent), $q));
    }

    /** @param  Vec  $by */
    public function shiftHips(array $by): void
    {
        [, $parent] = $this->at($this->skeleton->parents[$this->hips]);
        $d = Q4::rotate(Q4::conjugate($parent), $by);
        $this->row[0] += $d[0];
        $this->row[1] += $d[1];
        $this->row[2] += $d[2];
        $this->forget($this->hips);
    }

    /**
     * Brings the end of a limb to a place.
     *
     * @param  Vec  $to
     * @param  Quat|null  $turn  the end's rotation; null: as it is, in the figure's space
     * @param  Vec  $hinge  axis of the middle joint for a straight limb, in the figure's space
     * @param  Vec|null  $tip  point (in the figure's space) that is brought there instead, and that goes with the lower part as if it were one piece
     * @return float what is missing to the place, metres
     */
    public function reach(int $upper, int $lower, int $end, array $to, ?array $turn, array $hinge, ?array $tip = null): float
    {
        $parents = $this->skeleton->parents;
        [$pp, $pq] = $this->at($parents[$upper]);
        [$p0, $q0] = $this->under($upper, $pp, $pq);
        [$p1, $q1] = $parents[$lower] === $upper ? $this->under($lower, $p0, $q0) : $this->at($lower);
        [$p2, $q2] = $parents[$end] === $lower ? $this->under($end, $p1, $q1) : $this->at($end);
        $p2 = $tip ?? $p2;
        $a = V3::distance($p0, $p1);
        $b = V3::distance($p1, $p2);
        $far = V3::distance($p0, $to);
        $length = self::within($far, $a, $b);
        $u = V3::unit(V3::sub($p1, $p0));
        $v = V3::unit(V3::sub($p2, $p1));
        $axis = V3::cross($u, $v);
        // A nearly straight limb bends about its hinge, else it would bend any way.
        $straight = V3::unit(V3::across($hinge, $u));
        $much = V3::length($axis);
        $axis = $much < 0.14 || ($much < 0.5 && V3::dot($axis, $straight) < 0.0) ? $straight : V3::unit($axis);
        $now = acos(Ease::clamp(V3::dot($u, $v), -1.0, 1.0));
        $wanted = M_PI - acos(Ease::clamp(($a * $a + $b * $b - $length * $length) / (2 * $a * $b), -1.0, 1.0));
        $bend = Q4::axis($axis, $wanted - $now);
        $bent = V3::add($p1, Q4::rotate($bend, V3::sub($p2, $p1)));
        $swing = self::shortest(V3::sub($bent, $p0), V3::sub($to, $p0), $axis);
        $q0 = Q4::mul($swing, $q0);
        $q1 = Q4::mul($swing, Q4::mul($bend, $q1));
        $this->turnLocal($upper, Q4::mul(Q4::conjugate($pq), $q0));
        $parents[$lower] === $upper ? $this->turnLocal($lower, Q4::mul(Q4::conjugate($q0), $q1)) : $this->turn($lower, $q1);
        if ($tip === null) {
            $parents[$end] === $lower ? $this->turnLocal($end, Q4::mul(Q4::conjugate($q1), $turn ?? $q2)) : $this->turn($end, $turn ?? $q2);
        }

        return max(0.0, $far - $length, abs($a - $b) - $far);
    }

    /** What a limb can span; its last three thousandths are rounded off, so that a straight knee does not snap. */
    private static function within(float $far, float $a, float $b): float
    {
        return max(Ease::softMin($far, ($a + $b) * 0.9999, ($a + $b) * 0.003), abs($a - $b) + 0.01 * ($a + $b));
    }

    /**
     * Shortest turn from one direction to another.
     *
     * @param  Vec  $a
     * @param  Vec  $b
     * @param  Vec  $spare  axis for opposite directions
     * @return Quat
     */
    public static function shortest(array $a, array $b, array $spare): array
    {
        $a = V3::unit($a);
        $b = V3::unit($b);
        $c = V3::cross($a, $b);
        $l = V3::length($c);
        $d = V3::dot($a, $b);
        if ($l < 1e-9) {
            return $d > 0.0 ? Q4::IDENTITY : Q4::axis($spare, M_PI);
        }

        return Q4::axis(V3::mul($c, 1 / $l), atan2($l, $d));
    }

    /** @return list<float> */
    public function result(): array
    {
        return array_values($this->row);
    }
}
