<?php

declare(strict_types=1);

namespace App\Bench;

use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Rig\Skeleton;

/** A performer's lane written as a GLB of bones and keys, one a frame, that any glTF reader plays. */
final class SkeletonClip
{
    public static function write(Lane $lane, int $from, int $frames, float $rate): string
    {
        $rows = [];
        for ($i = 0; $i < $frames; $i++) {
            $rows[] = $lane->row($from + $i);
        }

        return self::bones($lane->figure->skeleton, $lane->figure->hips, [$rows], $rate);
    }

    /** @param  list<list<list<float>>>  $clips  rows of each clip */
    public static function bones(Skeleton $skeleton, int $hips, array $clips, float $rate): string
    {
        $n = $skeleton->count();
        $w = new GltfWriter('Crisp Reel benchmark');
        $children = array_fill(0, $n, []);
        foreach ($skeleton->parents as $j => $parent) {
            if ($parent >= 0) {
                $children[$parent][] = $j;
            }
        }
        for ($j = 0; $j < $n; $j++) {
            $w->push(
                'nodes',
                ['name' => $skeleton->names[$j], 'translation' => $skeleton->restTranslation($j), 'rotation' => $skeleton->restRotation($j)]
                    + ($children[$j] === [] ? [] : ['children' => $children[$j]]),
            );
        }
        $identity = array_merge(...array_fill(0, $n, [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0]));
        $skin = $w->push('skins', ['joints' => range(0, $n - 1), 'inverseBindMatrices' => $w->accessor($identity, 'MAT4')]);
        $mesh = $w->push('meshes', ['primitives' => [['attributes' => [
            'POSITION' => $w->vertices([0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, 0.0], 'VEC3', bounds: true),
            'JOINTS_0' => $w->vertices(array_fill(0, 12, 0), 'VEC4', GltfWriter::UBYTE),
            'WEIGHTS_0' => $w->vertices(array_merge(...array_fill(0, 3, [1.0, 0.0, 0.0, 0.0])), 'VEC4'),
        ]]]]);
        $body = $w->push('nodes', ['name' => 'body', 'mesh' => $mesh, 'skin' => $skin]);
        foreach ($clips as $rows) {
            $w->push('animations', self::animation($w, $skeleton, $hips, $rows, $rate));
        }
        $roots = array_keys(array_filter($skeleton->parents, static fn (int $p): bool => $p < 0));
        $w->scene([...$roots, $body], 'clip');

        return $w->toGlb();
    }

    /**
     * @param  list<list<float>>  $rows
     * @return array<string, mixed>
     */
    private static function animation(GltfWriter $w, Skeleton $skeleton, int $root, array $rows, float $rate): array
    {
        $n = $skeleton->count();
        $times = $hips = [];
        $turns = array_fill(0, $n, []);
        foreach ($rows as $i => $row) {
            $times[] = $i / $rate;
            array_push($hips, $row[0], $row[1], $row[2]);
            for ($j = 0; $j < $n; $j++) {
                array_push($turns[$j], ...array_slice($row, 3 + 4 * $j, 4));
            }
        }
        $input = $w->accessor($times, 'SCALAR', bounds: true);
        $samplers = $channels = [];
        foreach ($turns as $j => $values) {
            $samplers[] = ['input' => $input, 'output' => $w->accessor($values, 'VEC4'), 'interpolation' => 'LINEAR'];
            $channels[] = ['sampler' => $j, 'target' => ['node' => $j, 'path' => 'rotation']];
        }
        $samplers[] = ['input' => $input, 'output' => $w->accessor($hips, 'VEC3'), 'interpolation' => 'LINEAR'];
        $channels[] = ['sampler' => $n, 'target' => ['node' => $root, 'path' => 'translation']];

        return ['name' => 'lane', 'channels' => $channels, 'samplers' => $samplers];
    }
}
