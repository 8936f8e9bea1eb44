<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;

/** Versions of a motion that a beat asks for: mirrored, with wider arms, more or less energy, hips higher or lower. */
final class Adjust
{
    private const VERSION = 1;

    /** The name of a motion as a beat asks for it; the motion's own where nothing is asked. */
    public static function key(string $key, Play $play): string
    {
        $plain = ! $play->mirror && $play->armWidthDeg === 0.0 && $play->energy === 1.0 && $play->hipOffset === 0.0;

        return $plain ? $key : hash(
            'sha256',
            json_encode([self::VERSION, $key, $play->mirror, $play->armWidthDeg, $play->energy, $play->hipOffset], JSON_THROW_ON_ERROR),
        );
    }

    public static function table(AssetSource $assets, ClipTable $table, string $key, Play $play, Figure $figure): ClipTable
    {
        $bytes = $assets->solved($key);
        if ($bytes === null) {
            $bytes = self::adjusted($table, $play, $figure)->toBytes();
            $assets->keep($key, $bytes);
        }

        return ClipTable::fromBytes($bytes);
    }

    public static function adjusted(ClipTable $table, Play $play, Figure $figure): ClipTable
    {
        $rows = array_map($table->row(...), range(0, $table->count - 1));
        if ($play->mirror) {
            $rows = self::mirrored($rows, $figure, $table->morphs);
        }
        if ($play->energy !== 1.0) {
            $rows = self::energetic($rows, $play->energy, $figure);
        }
        if ($play->armWidthDeg !== 0.0) {
            $rows = array_map(static fn (array $r): array => self::wider($r, deg2rad($play->armWidthDeg), $figure), $rows);
        }
        if ($play->hipOffset !== 0.0) {
            $rows = array_map(static fn (array $r): array => self::lowered($r, $play->hipOffset, $figure), $rows);
        }

        return ClipTable::fromRows($table->rate, $table->joints, $table->morphs, $table->count, array_merge(...$rows), $table->loops);
    }

    /**
     * The turn that each joint has made from rest, seen in a mirror at x = 0, made by its partner on the other side.
     *
     * @param  list<list<float>>  $rows
     * @param  list<string>  $morphs
     * @return list<list<float>>
     */
    private static function mirrored(array $rows, Figure $figure, array $morphs): array
    {
        $s = $figure->skeleton;
        $partner = self::partners($s->names, $s->roles);
        [, $rest] = $s->world($s->rotations);
        $n = $s->count();
        $faces = self::partners($morphs, []);
        $out = [];
        foreach ($rows as $row) {
            [, $turned] = $s->world(array_slice($row, 3, 4 * $n), [$row[0], $row[1], $row[2]], $figure->hips);
            $world = [];
            $new = $row;
            foreach ($partner as $j => $k) {
                $was = [$turned[4 * $k], $turned[4 * $k + 1], $turned[4 * $k + 2], $turned[4 * $k + 3]];
                $stood = [$rest[4 * $k], $rest[4 * $k + 1], $rest[4 * $k + 2], $rest[4 * $k + 3]];
                [$x, $y, $z, $w] = Q4::mul($was, Q4::conjugate($stood));
                $world[$j] = Q4::mul([$x, -$y, -$z, $w], [$rest[4 * $j], $rest[4 * $j + 1], $rest[4 * $j + 2], $rest[4 * $j + 3]]);
                $p = $s->parents[$j];
                $q = $p < 0 ? $world[$j] : Q4::mul(Q4::conjugate($world[$p]), $world[$j]);
                $o = 3 + 4 * $j;
                [$new[$o], $new[$o + 1], $new[$o + 2], $new[$o + 3]] = $q;
            }
            $new[0] = -$row[0];
            $o = 3 + 4 * $n;
            foreach ($faces as $m => $k) {
                $new[$o + $m] = $row[$o + $k];
            }
            $o += count($morphs);
            $new[$o] = -$row[$o];
            $new[$o + 2] = -$row[$o + 2];
            $out[] = array_values($new);
        }

        return $out;
    }

    /**
     * @param  list<string>  $names
     * @param  array<string, int>  $roles
     * @return array<int, int> for each name the one on the other side; itself on the middle
     */
    private static function partners(array $names, array $roles): array
    {
        $index = array_flip($names);
        $partner = array_keys($names);
        foreach ($roles as $role => $j) {
            $other = $roles[self::otherSide($role)] ?? null;
            if ($other !== null) {
                $partner[$j] = $other;
            }
        }
        foreach ($names as $j => $name) {
            $other = $index[self::otherSide($name)] ?? null;
            if ($partner[$j] === $j && $other !== null) {
                $partner[$j] = $other;
            }
        }

        return $partner;
    }

    private static function otherSide(string $name): string
    {
        $swap = [
            'L' => 'R', 'R' => 'L', 'l' => 'r', 'r' => 'l', 'Left' => 'Right', 'Right' => 'Left', 'left' => 'right', 'right' => 'left',
            'LEFT' => 'RIGHT', 'RIGHT' => 'LEFT',
        ];
        foreach ([
            '/(Left|Right|left|right|LEFT|RIGHT)/', '/(?<=[a-z0-9])([LR])$/', '/(?<=[._ -])([LRlr])$/', '/^([LRlr])(?=[._ -])/',
        ] as $pattern) {
            if (preg_match($pattern, $name) === 1) {
                return (string) preg_replace_callback($pattern, static fn (array $m): string => $swap[$m[1]], $name, 1);
            }
        }

        return $name;
    }

    /**
     * Upper body only: the feet stay where they are.
     *
     * @param  list<list<float>>  $rows
     * @return list<list<float>>
     */
    private static function energetic(array $rows, float $energy, Figure $figure): array
    {
        foreach (array_merge($figure->part('trunk'), $figure->part('head'), $figure->part('armL'), $figure->part('armR')) as $j) {
            $o = 3 + 4 * $j;
            $mean = [0.0, 0.0, 0.0, 0.0];
            $first = array_slice($rows[0], $o, 4);
            foreach ($rows as $r) {
                $sign = $r[$o] * $first[0] + $r[$o + 1] * $first[1] + $r[$o + 2] * $first[2] + $r[$o + 3] * $first[3] < 0.0 ? -1.0 : 1.0;
                $mean = [
                    $mean[0] + $sign * $r[$o], $mean[1] + $sign * $r[$o + 1], $mean[2] + $sign * $r[$o + 2],
                    $mean[3] + $sign * $r[$o + 3],
                ];
            }
            $mean = Q4::unit($mean);
            foreach ($rows as $i => $r) {
                $away = Q4::mul(Q4::conjugate($mean), [$r[$o], $r[$o + 1], $r[$o + 2], $r[$o + 3]]);
                [$r[$o], $r[$o + 1], $r[$o + 2], $r[$o + 3]] = Q4::mul($mean, Q4::power($away, $energy));
                $rows[$i] = array_values($r);
            }
        }

        return $rows;
    }

    /**
     * Upper arms away from the body, about the axis that points ahead at rest.
     *
     * @param  list<float>  $row
     * @return list<float>
     */
    private static function wider(array $row, float $angle, Figure $figure): array
    {
        $s = $figure->skeleton;
        [, $rest] = $s->world($s->rotations);
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $m) {
            $j = $s->roles['upperArm'.$side] ?? null;
            $p = $j === null ? -1 : $s->parents[$j];
            if ($j === null || $p < 0) {
                continue;
            }
            $ahead = Q4::rotate(Q4::conjugate([$rest[4 * $p], $rest[4 * $p + 1], $rest[4 * $p + 2], $rest[4 * $p + 3]]), [0.0, 0.0, 1.0]);
            $o = 3 + 4 * $j;
            [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]] = Q4::mul(
                Q4::axis($ahead, $m * $angle),
                [$row[$o], $row[$o + 1], $row[$o + 2], $row[$o + 3]],
            );
        }

        return array_values($row);
    }

    /**
     * @param  list<float>  $row
     * @return list<float>
     */
    private static function lowered(array $row, float $by, Figure $figure): array
    {
        $posture = new Posture($figure->skeleton, $figure->hips, $row);
        $feet = [];
        foreach (['L', 'R'] as $side) {
            $leg = $figure->limb('leg', $side);
            if ($leg !== null) {
                $feet[$side] = [$leg, $posture->at($leg[2])];
            }
        }
        $posture->shiftHips([0.0, $by * $figure->height() / 1.7, 0.0]);
        foreach ($feet as [$leg, [$place, $turn]]) {
            $posture->reach($leg[0], $leg[1], $leg[2], $place, $turn, Q4::rotate($posture->at($figure->hips)[1], [1.0, 0.0, 0.0]));
        }

        return $posture->result();
    }
}
