<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Bvh;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Skeleton;

/**
 * A figure's motion as BVH text, in centimetres. BVH knows no rest turns: offsets are written as they lie at rest in the
 * figure's space, and each joint's turn is the one it has made from rest, seen from its parent's.
 */
final class BvhWriter
{
    private const UNIT = 100.0;

    /**
     * @param  list<list<float>>  $rows  hips x y z, then 4 numbers a joint
     */
    public static function write(Skeleton $skeleton, int $hips, array $rows, float $frameSeconds): string
    {
        [$places, $rest] = $skeleton->world($skeleton->rotations);
        $children = array_fill(0, $skeleton->count(), []);
        $roots = [];
        foreach ($skeleton->parents as $j => $p) {
            $p >= 0 ? $children[$p][] = $j : $roots[] = $j;
        }
        // Roots travel, and so do hips that hang on something else.
        $travels = array_fill_keys([...$roots, $hips], true);
        $order = [];
        $text = "HIERARCHY\n";
        foreach ($roots as $root) {
            $text .= self::joint($skeleton, $places, $children, $root, 0, $order, $travels);
        }
        $text .= sprintf("MOTION\nFrames: %d\nFrame Time: %.9f\n", count($rows), $frameSeconds);
        foreach ($rows as $row) {
            $text .= self::line($skeleton, $hips, $travels, $rest, $order, $row)."\n";
        }

        return $text;
    }

    /**
     * @param  list<float>  $places
     * @param  array<int, list<int>>  $children
     * @param  list<int>  $order  joints as written, added to
     * @param  array<int, true>  $travels  joints whose place is written
     */
    private static function joint(
        Skeleton $s, array $places, array $children, int $j, int $depth, array &$order, array $travels,
    ): string {
        $order[] = $j;
        $in = str_repeat("\t", $depth);
        $p = $s->parents[$j];
        $offset = [];
        for ($k = 0; $k < 3; $k++) {
            $offset[] = self::UNIT * ($places[3 * $j + $k] - ($p < 0 ? 0.0 : $places[3 * $p + $k]));
        }
        $text = $in.($depth === 0 ? 'ROOT ' : 'JOINT ').preg_replace('/\s+/', '_', $s->names[$j])."\n{$in}{\n"
            .sprintf("{$in}\tOFFSET %.6f %.6f %.6f\n", ...$offset)
            .$in.(
                isset($travels[$j])
                    ? "\tCHANNELS 6 Xposition Yposition Zposition Zrotation Xrotation Yrotation\n"
                    : "\tCHANNELS 3 Zrotation Xrotation Yrotation\n"
            );
        foreach ($children[$j] as $c) {
            $text .= self::joint($s, $places, $children, $c, $depth + 1, $order, $travels);
        }
        if ($children[$j] === []) {
            $text .= "{$in}\tEnd Site\n{$in}\t{\n{$in}\t\tOFFSET 0.000000 5.000000 0.000000\n{$in}\t}\n";
        }

        return "{$text}{$in}}\n";
    }

    /**
     * @param  array<int, true>  $travels
     * @param  list<float>  $rest  world rotations at rest
     * @param  list<int>  $order
     * @param  list<float>  $row
     */
    private static function line(Skeleton $s, int $hips, array $travels, array $rest, array $order, array $row): string
    {
        $n = $s->count();
        [$p, $q] = $s->world(array_slice($row, 3, 4 * $n), [$row[0], $row[1], $row[2]], $hips);
        $turn = static function (int $j) use ($q, $rest): array {
            $o = 4 * $j;

            return Q4::mul(
                [$q[$o], $q[$o + 1], $q[$o + 2], $q[$o + 3]],
                Q4::conjugate([$rest[$o], $rest[$o + 1], $rest[$o + 2], $rest[$o + 3]]),
            );
        };
        $out = [];
        foreach ($order as $j) {
            $parent = $s->parents[$j];
            if (isset($travels[$j])) {
                $at = [$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]];
                $above = $parent < 0 ? [0.0, 0.0, 0.0] : [$p[3 * $parent], $p[3 * $parent + 1], $p[3 * $parent + 2]];
                $by = V3::sub($at, $above);
                array_push($out, ...V3::mul($parent < 0 ? $by : Q4::rotate(Q4::conjugate($turn($parent)), $by), self::UNIT));
            }
            $local = $parent < 0 ? $turn($j) : Q4::mul(Q4::conjugate($turn($parent)), $turn($j));
            array_push($out, ...self::zxy($local));
        }

        return implode(' ', array_map(static fn (float $v): string => sprintf('%.6f', $v), $out));
    }

    /**
     * Degrees about Z, then X, then Y (Z outermost): R = Z X Y.
     *
     * @param  array{float, float, float, float}  $q
     * @return array{float, float, float}
     */
    private static function zxy(array $q): array
    {
        [$x, $y, $z, $w] = $q;
        $sin = max(-1.0, min(1.0, 2 * ($y * $z + $x * $w)));
        if (abs($sin) > 0.9999999) {
            return [rad2deg(atan2(2 * ($x * $y + $z * $w), 1 - 2 * ($y * $y + $z * $z))), rad2deg(asin($sin)), 0.0];
        }

        return [
            rad2deg(atan2(-2 * ($x * $y - $z * $w), 1 - 2 * ($x * $x + $z * $z))), rad2deg(asin($sin)),
            rad2deg(atan2(-2 * ($x * $z - $y * $w), 1 - 2 * ($x * $x + $y * $y))),
        ];
    }
}
