<?php

declare(strict_types=1);

namespace CrispReel\Core\Cloth;

use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Math\V3;

/** What makes a stiff cloth stand: the angle over every edge is held to what it is at rest (isometric bending, Bergou et al. 2006). */
final readonly class Hinges
{
    /** Below this bend braces are enough, and hinges would cost and do nothing that is seen. */
    private const LIMP = 0.2;

    /** Bending rigidity at bend 1, newton metres: card. It falls with the cube of bend, as it does with thickness. */
    private const RIGIDITY = 0.5;

    /** @param  list<array{int, int, int, int, float, float, float, float, float, float}>  $all  four particles times three, their weights, the bend at rest, compliance */
    private function __construct(private array $all)
    {
    }

    /**
     * An edge and the points across it: the sum of the four by their cotangent weights is 0 where the two triangles lie in
     * one plane, and grows with the angle between them. Energy of the sum e: 3/2 D e^2 / (both areas).
     */
    public static function of(Fabric $fabric, float $scale): self
    {
        if ($fabric->bend < self::LIMP) {
            return new self([]);
        }
        $rigidity = self::RIGIDITY * $fabric->bend ** 3;
        $at = static fn (int $p): array => [
            $scale * $fabric->rest[3 * $p], $scale * $fabric->rest[3 * $p + 1], $scale * $fabric->rest[3 * $p + 2],
        ];
        $cot = static function (int $corner, int $b, int $c) use ($at): float {
            [$u, $v] = [V3::sub($at($b), $at($corner)), V3::sub($at($c), $at($corner))];

            return V3::dot($u, $v) / max(1e-9, V3::length(V3::cross($u, $v)));
        };
        $out = [];
        foreach ($fabric->hinges as [$p, $q, $r, $s]) {
            [$a, $b, $c, $d] = [$cot($p, $q, $r), $cot($p, $q, $s), $cot($q, $p, $r), $cot($q, $p, $s)];
            $weights = [$c + $d, $a + $b, -$a - $c, -$b - $d];
            $e = [0.0, 0.0, 0.0];
            foreach ([$p, $q, $r, $s] as $k => $particle) {
                $e = V3::addScaled($e, $at($particle), $weights[$k]);
            }
            $area = 0.0;
            foreach ([$r, $s] as $far) {
                $area += V3::length(V3::cross(V3::sub($at($q), $at($p)), V3::sub($at($far), $at($p)))) / 2;
            }
            $out[] = [
                3 * $p, 3 * $q, 3 * $r, 3 * $s, $weights[0], $weights[1], $weights[2], $weights[3], V3::length($e),
                $area / (3 * $rigidity),
            ];
        }

        return new self($out);
    }

    public function none(): bool
    {
        return $this->all === [];
    }

    /**
     * Brings every hinge towards the angle that it has at rest.
     *
     * @param  array<int, float>  $x  places, 3 a particle
     * @param  list<float>  $w  inverse masses
     * @return array<int, float>
     */
    public function bent(array $x, array $w): array
    {
        $perSecond = ClothSolver::STEPS ** 2;
        foreach ($this->all as [$p, $q, $r, $s, $kp, $kq, $kr, $ks, $rest, $compliance]) {
            $ex = $kp * $x[$p] + $kq * $x[$q] + $kr * $x[$r] + $ks * $x[$s];
            $ey = $kp * $x[$p + 1] + $kq * $x[$q + 1] + $kr * $x[$r + 1] + $ks * $x[$s + 1];
            $ez = $kp * $x[$p + 2] + $kq * $x[$q + 2] + $kr * $x[$r + 2] + $ks * $x[$s + 2];
            $size = sqrt($ex * $ex + $ey * $ey + $ez * $ez);
            if ($size < 1e-9) {
                continue;
            }
            $fp = $kp * $w[intdiv($p, 3)];
            $fq = $kq * $w[intdiv($q, 3)];
            $fr = $kr * $w[intdiv($r, 3)];
            $fs = $ks * $w[intdiv($s, 3)];
            $by = ($rest - $size) / ($size * ($fp * $kp + $fq * $kq + $fr * $kr + $fs * $ks + $compliance * $perSecond));
            [$ex, $ey, $ez] = [$by * $ex, $by * $ey, $by * $ez];
            // Written out: lists made in here cost as much as all the rest.
            $x[$p] += $fp * $ex;
            $x[$p + 1] += $fp * $ey;
            $x[$p + 2] += $fp * $ez;
            $x[$q] += $fq * $ex;
            $x[$q + 1] += $fq * $ey;
            $x[$q + 2] += $fq * $ez;
            $x[$r] += $fr * $ex;
            $x[$r + 1] += $fr * $ey;
            $x[$r + 2] += $fr * $ez;
            $x[$s] += $fs * $ex;
            $x[$s + 1] += $fs * $ey;
            $x[$s + 2] += $fs * $ez;
        }

        return $x;
    }
}
