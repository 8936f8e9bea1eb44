<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfWriter;

/**
 * Normals for surfaces that came without: at a corner, the faces around the point that turn by less than the crease share
 * theirs, weighted by area; a point on a crease becomes several.
 *
 * @phpstan-type Primitive array{mesh: int, primitive: int, attributes: array<string, int>, indices: int|null, material: int|null, targets: list<array<string, int>>}
 */
final class Normals
{
    private const CREASE = 0.64;

    /** @return int how many surfaces had none */
    public static function fill(GltfDraft $draft): int
    {
        $filled = 0;
        foreach ($draft->primitives() as $p) {
            if (! isset($p['attributes']['NORMAL']) && isset($p['attributes']['POSITION'])) {
                self::of($draft, $p);
                $filled++;
            }
        }

        return $filled;
    }

    /** @param  Primitive  $p */
    private static function of(GltfDraft $draft, array $p): void
    {
        $points = $draft->values($p['attributes']['POSITION']);
        $index = $p['indices'] === null ? range(0, intdiv(count($points), 3) - 1) : array_map(intval(...), $draft->values($p['indices']));
        [$faces, $around] = self::faces($points, $index);
        $corners = $normals = $made = $order = [];
        foreach ($index as $k => $v) {
            $own = $faces[intdiv($k, 3)];
            $n = self::corner($own, $around[self::key($points, $v)], $faces);
            $key = "{$v} ".round($n[0], 3).' '.round($n[1], 3).' '.round($n[2], 3);
            if (! isset($made[$key])) {
                $made[$key] = count($order);
                $order[] = $v;
                array_push($normals, ...$n);
            }
            $corners[] = (float) $made[$key];
        }
        $attributes = ['NORMAL' => $draft->add($normals, 3)];
        foreach ($p['attributes'] as $name => $accessor) {
            $attributes[$name] = $draft->pick($accessor, $order, str_starts_with($name, 'JOINTS') ? GltfWriter::USHORT : GltfWriter::FLOAT);
        }
        $with = ['attributes' => $attributes, 'indices' => $draft->add($corners, 1, GltfWriter::UINT)];
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

    /**
     * Faces' normals, as long as their area, and the faces around each place.
     *
     * @param  list<float>  $p
     * @param  list<int>  $index
     * @return array{list<array{float, float, float}>, array<string, list<int>>}
     */
    private static function faces(array $p, array $index): array
    {
        $faces = $around = [];
        for ($i = 0, $n = count($index) - 2; $i < $n; $i += 3) {
            [$a, $b, $c] = [3 * $index[$i], 3 * $index[$i + 1], 3 * $index[$i + 2]];
            [$ux, $uy, $uz] = [$p[$b] - $p[$a], $p[$b + 1] - $p[$a + 1], $p[$b + 2] - $p[$a + 2]];
            [$vx, $vy, $vz] = [$p[$c] - $p[$a], $p[$c + 1] - $p[$a + 1], $p[$c + 2] - $p[$a + 2]];
            $faces[] = [$uy * $vz - $uz * $vy, $uz * $vx - $ux * $vz, $ux * $vy - $uy * $vx];
            for ($k = 0; $k < 3; $k++) {
                $around[self::key($p, $index[$i + $k])][] = count($faces) - 1;
            }
        }

        return [$faces, $around];
    }

    /**
     * @param  array{float, float, float}  $own
     * @param  list<int>  $around
     * @param  list<array{float, float, float}>  $faces
     * @return array{float, float, float}
     */
    private static function corner(array $own, array $around, array $faces): array
    {
        $l = sqrt($own[0] ** 2 + $own[1] ** 2 + $own[2] ** 2);
        $sum = [0.0, 0.0, 0.0];
        foreach ($around as $f) {
            $n = $faces[$f];
            $m = sqrt($n[0] ** 2 + $n[1] ** 2 + $n[2] ** 2);
            if ($l > 0.0 && $m > 0.0 && ($own[0] * $n[0] + $own[1] * $n[1] + $own[2] * $n[2]) / ($l * $m) > self::CREASE) {
                $sum = [$sum[0] + $n[0], $sum[1] + $n[1], $sum[2] + $n[2]];
            }
        }
        $s = sqrt($sum[0] ** 2 + $sum[1] ** 2 + $sum[2] ** 2);

        return $s > 0.0 ? [$sum[0] / $s, $sum[1] / $s, $sum[2] / $s] : [0.0, 1.0, 0.0];
    }

    /** @param  list<float>  $p */
    private static function key(array $p, int $v): string
    {
        return round($p[3 * $v], 5).' '.round($p[3 * $v + 1], 5).' '.round($p[3 * $v + 2], 5);
    }
}
