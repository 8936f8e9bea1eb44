<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Skeleton;
use InvalidArgumentException;

/**
 * What the computation needs of an asset, without its triangles: skeleton and roles, size, mounts, where one can stand.
 * Made once at intake; the scene works with this and never opens the file again.
 *
 * @phpstan-type Digest array{kind: string, bounds: array{list<float>, list<float>}, triangles: int, vertices: int, draws: int, morphs: list<string>, skeleton: array<string, mixed>|null, jointNodes: list<int>, figure: array<string, mixed>, mounts: array<string, array{position: list<float>, rotation: list<float>}>, floor: string, clips: list<array{name: string, seconds: float}>, style: string, extras: array<string, mixed>}
 */
final class AssetDigest
{
    /** Share of its height that a thing has below its origin, from which on it is made to hang. */
    private const HANGS = 0.45;

    /** @return Digest */
    public static function of(GltfReader $gltf): array
    {
        [$low, $high] = [[INF, INF, INF], [-INF, -INF, -INF]];
        $triangles = $vertices = $draws = 0;
        $floor = [];
        $skins = $gltf->list('skins');
        foreach ($gltf->primitives() as [$node, $p]) {
            if ($gltf->within($node, WildWall::BEYOND) !== null) {
                continue;
            }
            $skinned = $gltf->nodes[$node]['skin'] !== null;
            $m = $skinned ? M4::IDENTITY : $gltf->worldMatrix($node);
            $points = self::moved($p['positions'], $m);
            foreach ($points as $q) {
                $low = [min($low[0], $q[0]), min($low[1], $q[1]), min($low[2], $q[2])];
                $high = [max($high[0], $q[0]), max($high[1], $q[1]), max($high[2], $q[2])];
            }
            $triangles += intdiv(count($p['index']), 3);
            $vertices += count($points);
            $draws++;
            if (! $skinned) {
                self::collectFloor($floor, $points, $p['index']);
            }
        }
        if ($vertices === 0) {
            [$low, $high] = [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0]];
        }
        $extras = self::extras($gltf);
        if (is_array($extras['cloth'] ?? null)) {
            self::checkCloth($gltf, $extras['cloth']);
        }
        // Without a skin, nodes named joint:... turn by themselves: wheels, oars.
        $joints = $skins !== [] ? $gltf->joints(0) : self::jointNodes($gltf);

        return [
            'kind' => $skins !== [] ? 'figure' : 'thing', 'bounds' => [$low, $high], 'triangles' => $triangles, 'vertices' => $vertices,
            'draws' => $draws, 'morphs' => self::morphs($gltf),
            'skeleton' => $joints === [] ? null : self::ofJoints($gltf, $joints)->toArray(), 'jointNodes' => $joints,
            'figure' => self::named($extras['figure'] ?? null), 'mounts' => self::mounts($gltf),
            'floor' => base64_encode($floor === [] ? '' : pack('g*', ...$floor)),
            'clips' => array_map(static fn ($c): array => ['name' => $c->name, 'seconds' => $c->seconds], $gltf->clips()),
            'style' => self::style($gltf), 'extras' => $extras,
        ];
    }

    /**
     * How high the origin of a thing is above the ground that it is put on, metres: 0 for what stands, and for what has roots in
     * the ground (rocks, trees) or floats; the whole depth below it for what is made to hang (a bell, a wall clock).
     *
     * @param  array<array-key, mixed>  $digest
     */
    public static function rise(array $digest): float
    {
        $bounds = $digest['bounds'] ?? null;
        if (
            ! is_array($bounds) || ! is_array($bounds[0] ?? null) || ! is_array($bounds[1] ?? null) || ! is_numeric($bounds[0][1] ?? null)
                || ! is_numeric($bounds[1][1] ?? null)
        ) {
            return 0.0;
        }
        [$low, $high] = [(float) $bounds[0][1], (float) $bounds[1][1]];
        $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
        $floats = is_array($extras['vehicle'] ?? null) && isset($extras['vehicle']['floats']);

        return ($digest['kind'] ?? '') === 'thing' && ! $floats && $low < -self::HANGS * ($high - $low) ? -$low : 0.0;
    }

    /** How its surfaces were made: painted in the manner of the house, with pictures on them, or in plain colours. */
    private static function style(GltfReader $gltf): string
    {
        $materials = $gltf->list('materials');
        $all = count($materials);
        $painted = count(array_filter(
            $materials,
            static fn (array $m): bool => is_array($m['extras'] ?? null) && is_string($m['extras']['paint'] ?? null),
        ));

        return match (true) {
            $all > 0 && $painted === $all => 'painted',
            $gltf->list('textures') !== [] => 'pictures',
            default => 'plain',
        };
    }

    /** @param  array<array-key, mixed>  $facts */
    private static function checkCloth(GltfReader $gltf, array $facts): void
    {
        try {
            $count = Fabric::of($gltf, $facts)->count();
        } catch (InvalidArgumentException $e) {
            throw UnableToReadGltf::malformed('extras, cloth', lcfirst(rtrim($e->getMessage(), '.')));
        }
        if ($count > Fabric::MOST) {
            throw UnableToReadGltf::tooLarge('Particles of a cloth', $count, Fabric::MOST);
        }
    }

    /** @return list<int> parents first */
    private static function jointNodes(GltfReader $gltf): array
    {
        $depth = [];
        foreach ($gltf->nodes as $i => $n) {
            if (str_starts_with($n['name'], 'joint:')) {
                for ($d = 0, $p = $n['parent']; $p >= 0; $p = $gltf->nodes[$p]['parent']) {
                    $d++;
                }
                $depth[$i] = $d;
            }
        }
        asort($depth);

        return array_keys($depth);
    }

    /** All nodes of a file without a skin as joints, parents first. */
    public static function skeletonOfNodes(GltfReader $gltf): Skeleton
    {
        $order = [];
        $add = static function (int $j) use (&$add, &$order, $gltf): void {
            if (! isset($order[$j])) {
                $p = $gltf->nodes[$j]['parent'];
                if ($p >= 0) {
                    $add($p);
                }
                $order[$j] = true;
            }
        };
        foreach (array_keys($gltf->nodes) as $j) {
            $add($j);
        }

        return self::ofJoints($gltf, array_keys($order));
    }

    public static function skeleton(GltfReader $gltf, int $skin): Skeleton
    {
        return self::ofJoints($gltf, $gltf->joints($skin));
    }

    /** @param  list<int>  $joints  nodes, parents first */
    private static function ofJoints(GltfReader $gltf, array $joints): Skeleton
    {
        $order = array_flip($joints);
        $names = $parents = $t = $r = $s = [];
        foreach ($joints as $j) {
            $n = $gltf->nodes[$j];
            $name = preg_replace('/^joint:/', '', $n['name']) ?? '';
            $names[] = in_array($name, $names, true) ? $name.' '.$j : $name;
            $parents[] = $order[$n['parent']] ?? -1;
            if (! isset($order[$n['parent']]) && $n['parent'] !== -1) {
                // What stands above the first joint belongs to its rest place.
                [$nt, $nq, $ns] = M4::decompose($gltf->worldMatrix($j));
            } else {
                [$nt, $nq, $ns] = [$n['translation'], $n['rotation'], $n['scale']];
            }
            array_push($t, ...$nt);
            array_push($r, ...$nq);
            array_push($s, ...$ns);
        }

        return new Skeleton($names, $parents, $t, $r, $s);
    }

    /** @return array<string, mixed> */
    private static function extras(GltfReader $gltf): array
    {
        $asset = $gltf->json['asset'] ?? [];

        /** @var array<string, mixed> $extras */
        $extras = is_array($asset) && is_array($asset['extras'] ?? null) ? $asset['extras'] : [];

        return $extras;
    }

    /** @return array<string, mixed> */
    private static function named(mixed $value): array
    {
        /** @var array<string, mixed> $map */
        $map = is_array($value) ? $value : [];

        return $map;
    }

    /** @return list<string> shape names of the first mesh that has any */
    private static function morphs(GltfReader $gltf): array
    {
        foreach (array_keys($gltf->list('meshes')) as $mesh) {
            $names = $gltf->shapesOf($mesh);
            if ($names !== []) {
                return $names;
            }
        }

        return [];
    }

    /** @return array<string, array{position: list<float>, rotation: list<float>}> nodes named mount:... */
    private static function mounts(GltfReader $gltf): array
    {
        $mounts = [];
        foreach ($gltf->nodes as $i => $n) {
            if (str_starts_with($n['name'], 'mount:')) {
                [$t, $q] = M4::decompose($gltf->worldMatrix($i));
                $mounts[substr($n['name'], 6)] = ['position' => $t, 'rotation' => $q];
            }
        }

        return $mounts;
    }

    /**
     * @param  list<float>  $flat
     * @param  list<float>  $m
     * @return list<array{float, float, float}>
     */
    private static function moved(array $flat, array $m): array
    {
        $points = [];
        for ($i = 0, $n = count($flat); $i < $n; $i += 3) {
            $points[] = M4::point($m, [$flat[$i], $flat[$i + 1], $flat[$i + 2]]);
        }

        return $points;
    }

    /**
     * Triangles that face up by more than 45 degrees and are larger than a nail's head: what a foot can stand on.
     *
     * @param  list<float>  $floor  9 numbers a triangle, added to
     * @param  list<array{float, float, float}>  $points
     * @param  list<int>  $index
     */
    private static function collectFloor(array &$floor, array $points, array $index): void
    {
        for ($i = 0, $n = count($index); $i < $n; $i += 3) {
            [$a, $b, $c] = [$points[$index[$i]], $points[$index[$i + 1]], $points[$index[$i + 2]]];
            $x = V3::cross(V3::sub($b, $a), V3::sub($c, $a));
            $l = V3::length($x);
            if ($l > 0.002 && $x[1] / $l > 0.7) {
                array_push($floor, ...$a, ...$b, ...$c);
            }
        }
    }
}
