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
 * @phpstan-type Joint array{float, float, float, float, float, float, float}
 */
final class Posture
{
    private const ORIGIN = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0];

    /** @var array<int, Joint|null> joints (place, rotation) as far as they are known; a change forgets those that may hang on it */
    private array $known;

    /** No joint after this one is known. */
    private int $highest = -1;

    /** @param  array<int, float>  $row  hips x y z, then four numbers a joint */
    public function __construct(private readonly Skeleton $skeleton, private readonly int $hips, private array $row)
    {
        $this->known = $skeleton->unknown;
    }

    /** @param  array<int, float>  $row */
    public function reset(array $row): void
    {
        $this->row = $row;
        $this->known = $this->skeleton->unknown;
        $this->highest = -1;
    }

    /** Parents come before children: what comes after a joint may hang on it. */
    private function forget(int $from): void
    {
        for ($j = $from; $j <= $this->highest; $j++) {
            $this->known[$j] = null;
        }
        $this->highest = $from - 1;
    }

    /** @return array{Vec, Quat} place and rotation of a joint; of the figure itself for -1 */
    public function at(int $joint): array
    {
        [$x, $y, $z, $a, $b, $c, $w] = $this->joint($joint);

        return [[$x, $y, $z], [$a, $b, $c, $w]];
    }

    /**
     * Where a joint is. Every limb of every frame asks for it, so the products are written out: place = parent place +
     * parent turn applied to the local place; turn = parent turn times local turn.
     *
     * @return Joint
     */
    private function joint(int $joint): array
    {
        if (isset($this->known[$joint])) {
            return $this->known[$joint];
        }
        $way = [];
        $parents = $this->skeleton->parents;
        $known = $this->known;
        for ($j = $joint; $j >= 0 && $known[$j] === null; $j = $parents[$j]) {
            $way[] = $j;
        }
        $at = $known[$j] ?? self::ORIGIN;
        [$px, $py, $pz, $ax, $ay, $az, $aw] = $at;
        $t = $this->skeleton->translations;
        $row = $this->row;
        for ($i = count($way) - 1; $i >= 0; $i--) {
            $j = $way[$i];
            if ($j === $this->hips) {
                [$x, $y, $z] = $row;
            } else {
                $x = $t[3 * $j];
                $y = $t[3 * $j + 1];
                $z = $t[3 * $j + 2];
            }
            $o = 3 + 4 * $j;
            $bx = $row[$o];
            $by = $row[$o + 1];
            $bz = $row[$o + 2];
            $bw = $row[$o + 3];
            $tx = 2.0 * ($ay * $z - $az * $y);
            $ty = 2.0 * ($az * $x - $ax * $z);
            $tz = 2.0 * ($ax * $y - $ay * $x);
            $px += $x + $aw * $tx + $ay * $tz - $az * $ty;
            $py += $y + $aw * $ty + $az * $tx - $ax * $tz;
            $pz += $z + $aw * $tz + $ax * $ty - $ay * $tx;
            $qx = $aw * $bx + $ax * $bw + $ay * $bz - $az * $by;
            $qy = $aw * $by - $ax * $bz + $ay * $bw + $az * $bx;
            $qz = $aw * $bz + $ax * $by - $ay * $bx + $az * $bw;
            $aw = $aw * $bw - $ax * $bx - $ay * $by - $az * $bz;
            $ax = $qx;
            $ay = $qy;
            $az = $qz;
            $at = $known[$j] = [$px, $py, $pz, $ax, $ay, $az, $aw];
        }
        $this->known = $known;
        if ($joint > $this->highest) {
            $this->highest = $joint;
        }

        return $at;
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
        $this->write($joint, $q);
        $this->forget($joint);
    }

    /** @param  Quat  $q */
    private function write(int $joint, array $q): void
    {
        $o = 3 + 4 * $joint;
        [$x, $y, $z, $w] = $q;
        $l = 1.0 / max(1e-12, sqrt($x * $x + $y * $y + $z * $z + $w * $w));
        $this->row[$o] = $x * $l;
        $this->row[$o + 1] = $y * $l;
        $this->row[$o + 2] = $z * $l;
        $this->row[$o + 3] = $w * $l;
    }

    /** @param  Quat  $q  in the figure's space */
    public function turn(int $joint, array $q): void
    {
        [, , , $ax, $ay, $az, $aw] = $this->joint($this->skeleton->parents[$joint]);
        [$bx, $by, $bz, $bw] = $q;
        $x = $aw * $bx - $ax * $bw - $ay * $bz + $az * $by;
        $y = $aw * $by + $ax * $bz - $ay * $bw - $az * $bx;
        $z = $aw * $bz - $ax * $by + $ay * $bx - $az * $bw;
        $w = $aw * $bw + $ax * $bx + $ay * $by + $az * $bz;
        $this->turnLocal($joint, [$x, $y, $z, $w]);
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
     * @param  Vec|\Closure(): Vec  $hinge  axis of the middle joint for a straight limb, in the figure's space; asked for when it is needed
     * @param  Vec|null  $tip  point (in the figure's space) that is brought there instead, and that goes with the lower part as if it were one piece
     * @return float what is missing to the place, metres
     */
    public function reach(int $upper, int $lower, int $end, array $to, ?array $turn, array|\Closure $hinge, ?array $tip = null): float
    {
        [$x, $y, $z, $a, $b, $c, $w] = $this->joint($end);
        $u = $this->joint($upper);
        $l = $this->joint($lower);
        $how = self::fold($u, $l, $to, $hinge, $tip ?? [$x, $y, $z]);
        $q1 = $this->swing($upper, $lower, $u, $l, $how);
        if ($tip === null) {
            $turn ??= [$a, $b, $c, $w];
            $this->skeleton->parents[$end] === $lower ? $this->under($end, $q1, $turn) : $this->turn($end, $turn);
        }

        return $how[8];
    }

    /**
     * The bend of the middle joint and the swing of the whole limb that bring $tip to $to. This and swing() are the most
     * travelled lines of a frame: written out, and each short enough for the compiler, which follows 512 steps at most.
     *
     * @param  Joint  $upper
     * @param  Joint  $lower
     * @param  Vec  $to
     * @param  Vec|\Closure(): Vec  $hinge
     * @param  Vec  $tip
     * @return array{float, float, float, float, float, float, float, float, float} bend, swing (quaternions), metres missing
     */
    private static function fold(array $upper, array $lower, array $to, array|\Closure $hinge, array $tip): array
    {
        [$x, $y, $z] = $upper;
        [$x1, $y1, $z1] = $lower;
        $ux = $x1 - $x;
        $uy = $y1 - $y;
        $uz = $z1 - $z;
        $vx = $tip[0] - $x1;
        $vy = $tip[1] - $y1;
        $vz = $tip[2] - $z1;
        $gx = $to[0] - $x;
        $gy = $to[1] - $y;
        $gz = $to[2] - $z;
        $long = sqrt($ux * $ux + $uy * $uy + $uz * $uz);
        $short = sqrt($vx * $vx + $vy * $vy + $vz * $vz);
        $far = sqrt($gx * $gx + $gy * $gy + $gz * $gz);
        if ($long < 1e-9 || $short < 1e-9 || $far < 1e-9) {
            return [0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, $far];
        }
        $length = self::within($far, $long, $short);
        $i = 1.0 / ($long * $short);
        $ax = ($uy * $vz - $uz * $vy) * $i;
        $ay = ($uz * $vx - $ux * $vz) * $i;
        $az = ($ux * $vy - $uy * $vx) * $i;
        $much = sqrt($ax * $ax + $ay * $ay + $az * $az);
        $wanted = M_PI - acos(Ease::clamp(0.5 * ($long * $long + $short * $short - $length * $length) * $i, -1.0, 1.0));
        $cos = ($ux * $vx + $uy * $vy + $uz * $vz) * $i;
        // A nearly straight limb bends about its hinge, else it would bend any way; one that is bent the wrong way is righted.
        $h = $much < 0.5 ? V3::across(is_array($hinge) ? $hinge : $hinge(), [$ux / $long, $uy / $long, $uz / $long]) : null;
        if ($h !== null && ($much < 0.14 || $ax * $h[0] + $ay * $h[1] + $az * $h[2] < 0.0)) {
            [$ax, $ay, $az] = $h;
            $much = 1.0;
            [$bx, $by, $bz, $w] = self::straightened([$vx, $vy, $vz], [$ux, $uy, $uz], $h, $wanted);
        } else {
            $half = 0.5 * ($wanted - acos(Ease::clamp($cos, -1.0, 1.0)));
            $s = sin($half) / $much;
            $w = cos($half);
            $bx = $ax * $s;
            $by = $ay * $s;
            $bz = $az * $s;
        }
        $tx = 2.0 * ($by * $vz - $bz * $vy);
        $ty = 2.0 * ($bz * $vx - $bx * $vz);
        $tz = 2.0 * ($bx * $vy - $by * $vx);
        // The limb as it is bent, and the shortest turn of it to where it should point.
        $dx = $ux + $vx + $w * $tx + $by * $tz - $bz * $ty;
        $dy = $uy + $vy + $w * $ty + $bz * $tx - $bx * $tz;
        $dz = $uz + $vz + $w * $tz + $bx * $ty - $by * $tx;
        $i = 1.0 / (sqrt($dx * $dx + $dy * $dy + $dz * $dz) * $far);
        $cos = ($dx * $gx + $dy * $gy + $dz * $gz) * $i;
        if ($cos < -0.99) {
            [$sx, $sy, $sz, $sw] = self::shortest([$dx, $dy, $dz], [$gx, $gy, $gz], [$ax / $much, $ay / $much, $az / $much]);
        } else {
            $sw = sqrt(0.5 + 0.5 * $cos);
            $i *= 0.5 / $sw;
            $sx = ($dy * $gz - $dz * $gy) * $i;
            $sy = ($dz * $gx - $dx * $gz) * $i;
            $sz = ($dx * $gy - $dy * $gx) * $i;
        }
        $near = abs($long - $short) - $far;
        $miss = $far > $length ? $far - $length : 0.0;

        return [$bx, $by, $bz, $w, $sx, $sy, $sz, $sw, $near > $miss ? $near : $miss];
    }

    /**
     * Lays a direction along another one and bends it from there.
     *
     * @param  Vec  $from
     * @param  Vec  $along
     * @param  Vec  $axis  unit
     * @return Quat
     */
    private static function straightened(array $from, array $along, array $axis, float $angle): array
    {
        return Q4::mul(Q4::axis($axis, $angle), self::shortest($from, $along, $axis));
    }

    /**
     * @param  Joint  $u  of the upper part
     * @param  Joint  $l  of the lower part
     * @param  array{float, float, float, float, float, float, float, float, float}  $how  as fold() gives it
     * @return Quat of the lower part
     */
    private function swing(int $upper, int $lower, array $u, array $l, array $how): array
    {
        [$bx, $by, $bz, $bw, $sx, $sy, $sz, $sw] = $how;
        [, , , $lx, $ly, $lz, $lw] = $l;
        // bend, then swing, of the lower part
        $cx = $sw * $bx + $sx * $bw + $sy * $bz - $sz * $by;
        $cy = $sw * $by - $sx * $bz + $sy * $bw + $sz * $bx;
        $cz = $sw * $bz + $sx * $by - $sy * $bx + $sz * $bw;
        $cw = $sw * $bw - $sx * $bx - $sy * $by - $sz * $bz;
        $q1 = [
            $cw * $lx + $cx * $lw + $cy * $lz - $cz * $ly, $cw * $ly - $cx * $lz + $cy * $lw + $cz * $lx,
            $cw * $lz + $cx * $ly - $cy * $lx + $cz * $lw, $cw * $lw - $cx * $lx - $cy * $ly - $cz * $lz,
        ];
        [$x, $y, $z, $lx, $ly, $lz, $lw] = $u;
        $cx = $sw * $lx + $sx * $lw + $sy * $lz - $sz * $ly;
        $cy = $sw * $ly - $sx * $lz + $sy * $lw + $sz * $lx;
        $cz = $sw * $lz + $sx * $ly - $sy * $lx + $sz * $lw;
        $cw = $sw * $lw - $sx * $lx - $sy * $ly - $sz * $lz;
        [, , , $lx, $ly, $lz, $lw] = $this->joint($this->skeleton->parents[$upper]);
        $this->under($upper, [$lx, $ly, $lz, $lw], [$cx, $cy, $cz, $cw]);
        $this->known[$upper] = [$x, $y, $z, $cx, $cy, $cz, $cw];
        $this->highest = $upper;
        $this->skeleton->parents[$lower] === $upper ? $this->under($lower, [$cx, $cy, $cz, $cw], $q1) : $this->turn($lower, $q1);

        return $q1;
    }

    /**
     * Turns a joint whose parent's rotation is known. Both are of unit length.
     *
     * @param  Quat  $parent
     * @param  Quat  $q
     */
    private function under(int $joint, array $parent, array $q): void
    {
        [$ax, $ay, $az, $aw] = $parent;
        [$bx, $by, $bz, $bw] = $q;
        $o = 3 + 4 * $joint;
        $this->row[$o] = $aw * $bx - $ax * $bw - $ay * $bz + $az * $by;
        $this->row[$o + 1] = $aw * $by + $ax * $bz - $ay * $bw - $az * $bx;
        $this->row[$o + 2] = $aw * $bz - $ax * $by + $ay * $bx - $az * $bw;
        $this->row[$o + 3] = $aw * $bw + $ax * $bx + $ay * $by + $az * $bz;
        if ($joint <= $this->highest) {
            $this->forget($joint);
        }
    }

    /** The lower part of a limb takes half of the end's twist, else the wrist wrings. The end stays where and as it is. */
    public function shareTwist(int $lower, int $end): void
    {
        [$x, $y, $z] = V3::unit($this->skeleton->restTranslation($end));
        $o = 3 + 4 * $end;
        $ax = $this->row[$o];
        $ay = $this->row[$o + 1];
        $az = $this->row[$o + 2];
        $aw = $this->row[$o + 3];
        [$rx, $ry, $rz, $rw] = $this->skeleton->restRotation($end);
        // The turn since rest: local turn after the rest turn undone; of it, the part about the lower part's own length.
        $about = $x * ($ax * $rw - $aw * $rx - $ay * $rz + $az * $ry) + $y * ($ay * $rw - $aw * $ry + $ax * $rz - $az * $rx) + $z
            * ($az * $rw - $aw * $rz - $ax * $ry + $ay * $rx);
        $twist = 2.0 * atan2($about, $aw * $rw + $ax * $rx + $ay * $ry + $az * $rz);
        if ($twist > M_PI || $twist < -M_PI) {
            $twist -= $twist > 0.0 ? 2.0 * M_PI : -2.0 * M_PI;
        }
        $sin = sin(0.25 * $twist);
        $hw = cos(0.25 * $twist);
        $hx = $x * $sin;
        $hy = $y * $sin;
        $hz = $z * $sin;
        // The end turns with the lower part, so it is turned back by as much within it.
        $this->row[$o] = $hw * $ax - $hx * $aw - $hy * $az + $hz * $ay;
        $this->row[$o + 1] = $hw * $ay + $hx * $az - $hy * $aw - $hz * $ax;
        $this->row[$o + 2] = $hw * $az - $hx * $ay + $hy * $ax - $hz * $aw;
        $this->row[$o + 3] = $hw * $aw + $hx * $ax + $hy * $ay + $hz * $az;
        $this->turnLocal($lower, Q4::mul($this->local($lower), [$hx, $hy, $hz, $hw]));
    }

    /** What a limb can span; its last three thousandths are rounded off (as Ease::softMin does), so that a straight knee does not snap. */
    private static function within(float $far, float $a, float $b): float
    {
        $most = ($a + $b) * 0.9999;
        $corner = ($a + $b) * 0.003;
        $over = $far - $most;
        $span = $over < 0.0 ? $far : $most;
        if ($over < $corner && $over > -$corner) {
            $h = 1.0 - ($over < 0.0 ? -$over : $over) / $corner;
            $span -= 0.25 * $h * $h * $corner;
        }
        $least = ($a > $b ? $a - $b : $b - $a) + 0.01 * ($a + $b);

        return $span < $least ? $least : $span;
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
        $d = V3::dot($a, $b);
        if ($d > -0.99) {
            // The half angle's cosine and sine stand as 1 + cos and sin.
            $l = 1.0 / sqrt($c[0] * $c[0] + $c[1] * $c[1] + $c[2] * $c[2] + (1.0 + $d) * (1.0 + $d));

            return [$c[0] * $l, $c[1] * $l, $c[2] * $l, (1.0 + $d) * $l];
        }
        $l = V3::length($c);

        return $l < 1e-9 ? Q4::axis($spare, M_PI) : Q4::axis(V3::mul($c, 1 / $l), atan2($l, $d));
    }

    /** @return list<float> */
    public function result(): array
    {
        return array_values($this->row);
    }
}
