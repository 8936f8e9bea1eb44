<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfWriter;

/**
 * A lighter copy by vertex clustering (after Rossignac and Borrel, 1993): points in one cell become the one nearest to
 * their middle, triangles that lose a corner go. The cell grows until few enough are left. Skins, shapes and colours stay
 * since points are chosen, not mixed.
 */
final class Simplify
{
    public static function apply(GltfDraft $draft, int $most): void
    {
        $primitives = $draft->primitives();
        $total = 0;
        $span = 0.0;
        $load = [];
        foreach ($primitives as $k => $p) {
            $positions = $draft->values($p['attributes']['POSITION']);
            $index = $p['indices'] === null
                ? range(0, intdiv(count($positions), 3) - 1)
                : array_map(intval(...), $draft->values($p['indices']));
            $load[$k] = [$positions, $index];
            $total += intdiv(count($index), 3);
            $span = max($span, self::span($positions));
        }
        if ($total <= $most || $span <= 0.0) {
            return;
        }
        // Triangles of a surface fall with the square of the cell.
        for ($cell = $span / sqrt($most) * 0.8, $round = 0; $round < 12; $cell *= 1.3, $round++) {
            $cut = [];
            $left = 0;
            foreach ($load as $k => [$positions, $index]) {
                $cut[$k] = self::clustered($positions, $index, $cell);
                $left += intdiv(count($cut[$k]), 3);
            }
            if ($left <= $most) {
                break;
            }
        }
        foreach ($cut as $k => $index) {
            self::write($draft, $primitives[$k], $index);
        }
    }

    /** @param  list<float>  $positions */
    private static function span(array $positions): float
    {
        $span = 0.0;
        for ($k = 0; $k < 3; $k++) {
            [$l, $h] = [INF, -INF];
            for ($i = $k, $n = count($positions); $i < $n; $i += 3) {
                $l = min($l, $positions[$i]);
                $h = max($h, $positions[$i]);
            }
            $span = max($span, $h - $l);
        }

        return $span;
    }

    /**
     * @param  list<float>  $positions
     * @param  list<int>  $index
     * @return list<int> triangles over the old points
     */
    public static function clustered(array $positions, array $index, float $cell): array
    {
        $count = intdiv(count($positions), 3);
        $of = $sums = $members = [];
        for ($v = 0; $v < $count; $v++) {
            [$x, $y, $z] = [$positions[3 * $v], $positions[3 * $v + 1], $positions[3 * $v + 2]];
            $key = (((int) floor($x / $cell) & 0xFFFFF) << 40) | (((int) floor($y / $cell) & 0xFFFFF) << 20)
                | ((int) floor($z / $cell) & 0xFFFFF);
            $of[] = $key;
            $s = $sums[$key] ?? [0.0, 0.0, 0.0, 0];
            $sums[$key] = [$s[0] + $x, $s[1] + $y, $s[2] + $z, $s[3] + 1];
        }
        $least = [];
        foreach ($of as $v => $key) {
            $s = $sums[$key];
            $d = ($positions[3 * $v] - $s[0] / $s[3]) ** 2 + ($positions[3 * $v + 1] - $s[1] / $s[3]) ** 2
                + ($positions[3 * $v + 2] - $s[2] / $s[3]) ** 2;
            if (! isset($least[$key]) || $d < $least[$key]) {
                $least[$key] = $d;
                $members[$key] = $v;
            }
        }
        $out = $seen = [];
        for ($i = 0, $n = count($index) - 2; $i < $n; $i += 3) {
            [$a, $b, $c] = [$members[$of[$index[$i]]], $members[$of[$index[$i + 1]]], $members[$of[$index[$i + 2]]]];
            if ($a === $b || $b === $c || $a === $c) {
                continue;
            }
            $first = min($a, $b, $c);
            $key = match ($first) {
                $a => "{$a} {$b} {$c}", $b => "{$b} {$c} {$a}", default => "{$c} {$a} {$b}",
            };
            if (! isset($seen[$key])) {
                $seen[$key] = true;
                array_push($out, $a, $b, $c);
            }
        }

        return $out;
    }

    /**
     * @param  array{mesh: int, primitive: int, attributes: array<string, int>, indices: int|null, material: int|null, targets: list<array<string, int>>}  $p
     * @param  list<int>  $index
     */
    private static function write(GltfDraft $draft, array $p, array $index): void
    {
        if ($index === []) {
            // Smaller than a cell: it goes as one triangle of no size, so that the file stays whole.
            $index = [0, 0, 0];
        }
        $new = $order = [];
        $triangles = [];
        foreach ($index as $v) {
            if (! isset($new[$v])) {
                $new[$v] = count($order);
                $order[] = $v;
            }
            $triangles[] = (float) $new[$v];
        }
        $attributes = [];
        foreach ($p['attributes'] as $name => $accessor) {
            $attributes[$name] = $draft->pick($accessor, $order, str_starts_with($name, 'JOINTS') ? GltfWriter::USHORT : GltfWriter::FLOAT);
        }
        $with = ['attributes' => $attributes, 'indices' => $draft->add($triangles, 1, GltfWriter::UINT)];
        if ($p['targets'] !== []) {
            $with['targets'] = array_map(
                static fn (array $t): array => array_map(
                    static fn (int $a): int => $draft->pick($a, $order),
                    array_filter($t, is_int(...)),
                ),
                $p['targets'],
            );
        }
        $draft->amendPrimitive($p['mesh'], $p['primitive'], $with);
    }
}
