<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\Q4;
use InvalidArgumentException;

/**
 * A motion sampled at an even rate for one skeleton: what the evaluation reads.
 *
 * Layout of one row (width = 3 + 4 joints + morphs + 3):
 *   hips x y z | joint 0 rotation x y z w | ... | morph 0 .. | root x, root z, root heading
 * Hips and root are in the motion's own space: it starts near the origin, facing +Z. The root track is the
 * planar travel that "on the spot" takes out.
 */
final class ClipTable
{
    public readonly int $width;

    /** Rows are unpacked so many at a time, and so many such lots are kept: frames are mostly asked for in a row. */
    private const LOT = 16;

    private const LOTS = 64;

    /** @var array<int, list<list<float>>> */
    private array $lots = [];

    /**
     * @param  list<string>  $morphs
     * @param  string  $rows  little-endian float32
     */
    private function __construct(
        public readonly float $rate,
        public readonly int $joints,
        public readonly array $morphs,
        public readonly int $count,
        private readonly string $rows,
        public readonly bool $loops,
    ) {
        $this->width = 3 + 4 * $joints + count($morphs) + 3;
        if ($count < 1 || strlen($rows) !== 4 * $count * $this->width) {
            throw new InvalidArgumentException('A clip table needs '.(4 * $count * $this->width).' bytes of rows, not '.strlen($rows).'.');
        }
    }

    /**
     * @param  list<string>  $morphs
     * @param  list<float>  $rows  flat
     */
    public static function fromRows(float $rate, int $joints, array $morphs, int $count, array $rows, bool $loops): self
    {
        $out = [];
        foreach (array_chunk($rows, 4096) as $part) {
            $out[] = pack('g*', ...$part);
        }

        return new self($rate, $joints, $morphs, $count, implode('', $out), $loops);
    }

    public function seconds(): float
    {
        return ($this->count - 1) / $this->rate;
    }

    /** Whether a number of the rows is once below a level and once above it. */
    public function moves(int $column, float $level): bool
    {
        $below = $above = false;
        for ($i = 0; $i < $this->count && ! ($below && $above); $i++) {
            $v = $this->row($i)[$column];
            $below = $below || $v < $level;
            $above = $above || $v >= $level;
        }

        return $below && $above;
    }

    /** @return list<float> */
    public function row(int $i): array
    {
        $lot = intdiv($i, self::LOT);
        if (! isset($this->lots[$lot])) {
            if (count($this->lots) >= self::LOTS) {
                $this->lots = [];
            }
            $first = $lot * self::LOT;
            /** @var array<int, float> $numbers */
            $numbers = unpack('g'.($this->width * min(self::LOT, $this->count - $first)), $this->rows, 4 * $this->width * $first);
            $this->lots[$lot] = array_chunk($numbers, max(1, $this->width));
        }

        return $this->lots[$lot][$i - $lot * self::LOT];
    }

    /**
     * One row at a time (seconds, clamped), rotations interpolated on the short way.
     *
     * @return list<float>
     */
    public function at(float $seconds): array
    {
        $x = $seconds * $this->rate;
        $last = $this->count - 1;
        $x = $x < 0.0 ? 0.0 : ($x > $last ? (float) $last : $x);
        $i = (int) $x;
        $f = $x - $i;
        if ($f < 1e-9 || $i >= $last) {
            return $this->row($i);
        }

        return self::between($this->row($i), 0, $this->row($i + 1), 0, $f, $this->joints, $this->width);
    }

    /**
     * Blend of two rows; the inner loop of everything, so it works on flat lists with offsets.
     *
     * @param  list<float>  $ra
     * @param  list<float>  $rb
     * @return list<float>
     */
    public static function between(array $ra, int $a, array $rb, int $b, float $f, int $joints, int $width): array
    {
        $g = 1.0 - $f;
        $out = [$ra[$a] * $g + $rb[$b] * $f, $ra[$a + 1] * $g + $rb[$b + 1] * $f, $ra[$a + 2] * $g + $rb[$b + 2] * $f];
        $end = 3 + 4 * $joints;
        for ($k = 3; $k < $end; $k += 4) {
            $ax = $ra[$a + $k];
            $ay = $ra[$a + $k + 1];
            $az = $ra[$a + $k + 2];
            $aw = $ra[$a + $k + 3];
            $bx = $rb[$b + $k];
            $by = $rb[$b + $k + 1];
            $bz = $rb[$b + $k + 2];
            $bw = $rb[$b + $k + 3];
            $d = $ax * $bx + $ay * $by + $az * $bz + $aw * $bw;
            $s = $d < 0.0 ? -1.0 : 1.0;
            $d *= $s;
            if ($d > 0.9995) {
                $u = $g;
                $v = $f * $s;
            } else {
                $w = acos($d);
                $i = 1.0 / sin($w);
                $u = sin($g * $w) * $i;
                $v = sin($f * $w) * $i * $s;
            }
            $x = $ax * $u + $bx * $v;
            $y = $ay * $u + $by * $v;
            $z = $az * $u + $bz * $v;
            $q = $aw * $u + $bw * $v;
            $l = 1.0 / sqrt($x * $x + $y * $y + $z * $z + $q * $q);
            $out[] = $x * $l;
            $out[] = $y * $l;
            $out[] = $z * $l;
            $out[] = $q * $l;
        }
        for ($k = $end; $k < $width; $k++) {
            $out[] = $ra[$a + $k] * $g + $rb[$b + $k] * $f;
        }

        return $out;
    }

    /** Little-endian: rate, joints, count, loops, morph names, then float32 rows. */
    public function toBytes(): string
    {
        $names = implode("\n", $this->morphs);

        return pack('a4gVVVV', 'CRT1', $this->rate, $this->joints, $this->count, $this->loops ? 1 : 0, strlen($names)).$names.$this->rows;
    }

    public static function fromBytes(string $bytes): self
    {
        /** @var array{magic: string, rate: float, joints: int, count: int, loops: int, names: int} $h */
        $h = unpack('a4magic/grate/Vjoints/Vcount/Vloops/Vnames', $bytes);
        $names = substr($bytes, 24, $h['names']);

        return new self(
            $h['rate'], $h['joints'], $names === '' ? [] : explode("\n", $names), $h['count'], substr($bytes, 24 + $h['names']),
            $h['loops'] === 1,
        );
    }

    /**
     * The rotation of one joint in a row.
     *
     * @param  list<float>  $row
     * @return array{float, float, float, float}
     */
    public static function rotation(array $row, int $joint): array
    {
        $o = 3 + 4 * $joint;

        return [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]];
    }

    /**
     * @param  list<float>  $row
     * @param  array{float, float, float, float}  $q
     * @return list<float>
     */
    public static function withHips(array $row, float $x, float $y, float $z, int $hips, array $q): array
    {
        [$row[0], $row[1], $row[2]] = [$x, $y, $z];
        $o = 3 + 4 * $hips;
        [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = $q;

        return array_values($row);
    }

    /**
     * A planar move of a whole pose: turn by a heading about the origin, then shift, and raise.
     *
     * @param  list<float>  $row
     * @param  array{float, float, float}  $move  x, z, heading
     * @return list<float>
     */
    public static function moved(array $row, array $move, int $hips, float $lift = 0.0): array
    {
        $c = cos($move[2]);
        $s = sin($move[2]);
        $q = Q4::mul(Q4::aroundY($move[2]), self::rotation($row, $hips));

        return self::withHips(
            $row,
            $row[0] * $c + $row[2] * $s + $move[0],
            $row[1] + $lift,
            -$row[0] * $s + $row[2] * $c + $move[1],
            $hips,
            $q,
        );
    }
}
