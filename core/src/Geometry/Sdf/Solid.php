<?php

declare(strict_types=1);

namespace CrispReel\Core\Geometry\Sdf;

use Closure;

/**
 * One primitive of a signed-distance field with the way it is joined to what came before.
 * Distances follow the usual closed forms (sphere-swept segment with linear radius, first-order ellipsoid,
 * rounded box, ring, half-space); $blend is the width of the polynomial smooth minimum in metres.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Rgb array{float, float, float}
 */
final class Solid
{
    public const CONE = 0;

    public const ELLIPSOID = 1;

    public const BOX = 2;

    public const RING = 3;

    public const HALF_SPACE = 4;

    public const ADD = 0;

    public const SUBTRACT = 1;

    public const INTERSECT = 2;

    /**
     * @param  list<float>  $p  numbers of the form, see the constructors
     * @param  list<float>|null  $turn  rows of the world-to-local rotation
     * @param  Rgb|null  $colour  linear
     * @param  (Closure(float, float, float): float)|null  $relief  added to the distance, in the local frame
     */
    private function __construct(
        public readonly int $form,
        public readonly array $p,
        public readonly float $blend,
        public readonly int $op = self::ADD,
        public readonly ?array $turn = null,
        public readonly ?array $colour = null,
        public readonly ?Closure $relief = null,
    ) {
    }

    /**
     * Round cone from $a (radius $ra) to $b (radius $rb), optionally squeezed by $scale per axis.
     * p: a 0-2, b-a 3-5 (scaled), ra 6, rb-ra 7, 1/|b-a|^2 8, 1/scale 9-11, scaled flag 12.
     *
     * @param  Vec  $a
     * @param  Vec  $b
     * @param  Vec  $scale
     */
    public static function cone(array $a, array $b, float $ra, float $rb, float $blend = 0.03, array $scale = [1.0, 1.0, 1.0]): self
    {
        $d = [($b[0] - $a[0]) / $scale[0], ($b[1] - $a[1]) / $scale[1], ($b[2] - $a[2]) / $scale[2]];
        $l2 = $d[0] ** 2 + $d[1] ** 2 + $d[2] ** 2;
        $flat = $scale === [1.0, 1.0, 1.0] ? 0.0 : 1.0;

        return new self(self::CONE, [
            ...$a, ...$d, $ra, $rb - $ra, $l2 > 0 ? 1 / $l2 : 0.0, 1 / $scale[0], 1 / $scale[1], 1 / $scale[2], $flat,
        ], $blend);
    }

    /**
     * p: centre 0-2, 1/radius 3-5, smallest radius 6.
     *
     * @param  Vec  $centre
     * @param  Vec  $radii
     */
    public static function ellipsoid(array $centre, array $radii, float $blend = 0.03): self
    {
        return new self(self::ELLIPSOID, [
            ...$centre, 1 / $radii[0], 1 / $radii[1], 1 / $radii[2], min($radii),
        ], $blend);
    }

    /**
     * p: centre 0-2, half sizes less rounding 3-5, rounding 6.
     *
     * @param  Vec  $centre
     * @param  Vec  $half
     */
    public static function box(array $centre, array $half, float $round, float $blend = 0.03): self
    {
        return new self(self::BOX, [...$centre, $half[0] - $round, $half[1] - $round, $half[2] - $round, $round], $blend);
    }

    /**
     * Ring in the local xz plane. p: centre 0-2, ring radius 3, tube radius 4.
     *
     * @param  Vec  $centre
     */
    public static function ring(array $centre, float $radius, float $tube, float $blend = 0.02): self
    {
        return new self(self::RING, [...$centre, $radius, $tube], $blend);
    }

    /**
     * Keeps what lies behind the plane n.p = d. p: n 0-2, d 3.
     *
     * @param  Vec  $normal  unit
     */
    public static function cut(array $normal, float $d, float $blend = 0.01): self
    {
        return new self(self::HALF_SPACE, [...$normal, $d], $blend, self::INTERSECT);
    }

    public function carved(): self
    {
        return new self($this->form, $this->p, $this->blend, self::SUBTRACT, $this->turn, $this->colour, $this->relief);
    }

    /** @param  Rgb  $colour linear */
    public function coloured(array $colour): self
    {
        return new self($this->form, $this->p, $this->blend, $this->op, $this->turn, $colour, $this->relief);
    }

    public function blended(float $blend): self
    {
        return new self($this->form, $this->p, $blend, $this->op, $this->turn, $this->colour, $this->relief);
    }

    /** @param  Closure(float, float, float): float  $relief */
    public function rippled(Closure $relief): self
    {
        return new self($this->form, $this->p, $this->blend, $this->op, $this->turn, $this->colour, $relief);
    }

    /** Turned about its own centre by X, then Y, then Z (radians). Cones and cuts are not turned. */
    public function turned(float $x, float $y, float $z): self
    {
        [$cx, $sx, $cy, $sy, $cz, $sz] = [cos($x), sin($x), cos($y), sin($y), cos($z), sin($z)];

        return new self($this->form, $this->p, $this->blend, $this->op, [
            $cz * $cy, $sz * $cy, -$sy,
            $cz * $sy * $sx - $sz * $cx, $sz * $sy * $sx + $cz * $cx, $cy * $sx,
            $cz * $sy * $cx + $sz * $sx, $sz * $sy * $cx - $cz * $sx, $cy * $cx,
        ], $this->colour, $this->relief);
    }

    /** The mirror image in x = 0. */
    public function mirrored(): self
    {
        $p = $this->p;
        $p[0] = -$p[0];
        if ($this->form === self::CONE) {
            $p[3] = -$p[3];
        }
        $m = $this->turn;
        $turn = $m === null ? null : [$m[0], -$m[1], -$m[2], -$m[3], $m[4], $m[5], -$m[6], $m[7], $m[8]];

        return new self($this->form, array_values($p), $this->blend, $this->op, $turn, $this->colour, $this->relief);
    }

    /**
     * @param  list<self>  $solids
     * @return list<self> the solids and their mirror images
     */
    public static function both(array $solids): array
    {
        return [...$solids, ...array_map(static fn (self $s): self => $s->mirrored(), $solids)];
    }

    /** Signed distance in metres, negative inside. */
    public function distance(float $x, float $y, float $z): float
    {
        $p = $this->p;
        if ($this->form === self::HALF_SPACE) {
            return $p[0] * $x + $p[1] * $y + $p[2] * $z - $p[3];
        }
        $x -= $p[0];
        $y -= $p[1];
        $z -= $p[2];
        $m = $this->turn;
        if ($m !== null) {
            [$x, $y, $z] = [
                $m[0] * $x + $m[1] * $y + $m[2] * $z, $m[3] * $x + $m[4] * $y + $m[5] * $z, $m[6] * $x + $m[7] * $y + $m[8] * $z,
            ];
        }
        if ($this->form === self::CONE) {
            $d = self::coneDistance($p, $x, $y, $z);
        } elseif ($this->form === self::ELLIPSOID) {
            $ix = $x * $p[3];
            $iy = $y * $p[4];
            $iz = $z * $p[5];
            $k0 = sqrt($ix * $ix + $iy * $iy + $iz * $iz);
            $jx = $ix * $p[3];
            $jy = $iy * $p[4];
            $jz = $iz * $p[5];
            $k1 = sqrt($jx * $jx + $jy * $jy + $jz * $jz);
            $d = $k1 < 1e-9 ? -$p[6] : $k0 * ($k0 - 1.0) / $k1;
        } elseif ($this->form === self::BOX) {
            $qx = abs($x) - $p[3];
            $qy = abs($y) - $p[4];
            $qz = abs($z) - $p[5];
            $ux = $qx > 0 ? $qx : 0.0;
            $uy = $qy > 0 ? $qy : 0.0;
            $uz = $qz > 0 ? $qz : 0.0;
            $d = sqrt($ux * $ux + $uy * $uy + $uz * $uz) + min(max($qx, $qy, $qz), 0.0) - $p[6];
        } else {
            $w = sqrt($x * $x + $z * $z) - $p[3];
            $d = sqrt($w * $w + $y * $y) - $p[4];
        }

        return $this->relief === null ? $d : $d + ($this->relief)($x, $y, $z);
    }

    /** @param  list<float>  $p */
    private static function coneDistance(array $p, float $x, float $y, float $z): float
    {
        $x *= $p[9];
        $y *= $p[10];
        $z *= $p[11];
        $t = ($x * $p[3] + $y * $p[4] + $z * $p[5]) * $p[8];
        $t = $t < 0.0 ? 0.0 : ($t > 1.0 ? 1.0 : $t);
        $x -= $p[3] * $t;
        $y -= $p[4] * $t;
        $z -= $p[5] * $t;
        $l = sqrt($x * $x + $y * $y + $z * $z);
        $d = $l - ($p[6] + $p[7] * $t);
        if ($p[12] > 0.5 && $l > 0.0) {
            // First-order correction: divide by the gradient's length in world space.
            $gx = $x / $l * $p[9];
            $gy = $y / $l * $p[10];
            $gz = $z / $l * $p[11];
            $d /= sqrt($gx * $gx + $gy * $gy + $gz * $gz);
        }

        return $d;
    }
}
