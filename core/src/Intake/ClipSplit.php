<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GlbContainer;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\GltfWriter;

/** Motions taken out of a character's file: each becomes a file of its own, joints and keys, nothing to draw. */
final class ClipSplit
{
    /**
     * @return list<array{name: string, seconds: float, glb: string}> motions that move a joint or a shape of the face
     */
    public static function of(GltfReader $gltf): array
    {
        $joints = array_flip($gltf->list('skins') === [] ? array_keys($gltf->nodes) : $gltf->joints(0));
        $out = [];
        $clips = $gltf->clips();
        foreach ($gltf->list('animations') as $n => $animation) {
            $moved = 0;
            foreach (is_array($animation['channels'] ?? null) ? $animation['channels'] : [] as $c) {
                $node = is_array($c) && is_array($c['target'] ?? null) ? $c['target']['node'] ?? null : null;
                $moved += is_int($node) && (isset($joints[$node]) || ($c['target']['path'] ?? '') === 'weights') ? 1 : 0;
            }
            if ($moved > 0 && $clips[$n]->seconds > 0.0) {
                $out[] = ['name' => $clips[$n]->name, 'seconds' => $clips[$n]->seconds, 'glb' => self::alone($gltf, $animation, $joints)];
            }
        }

        return $out;
    }

    /**
     * @param  array<string, mixed>  $animation
     * @param  array<int, int>  $joints
     */
    private static function alone(GltfReader $gltf, array $animation, array $joints): string
    {
        $w = new GltfWriter('Crisp Reel');
        $place = [];
        foreach (array_keys($joints) as $node) {
            $n = $gltf->nodes[$node];
            $place[$node] = $w->push('nodes', [
                'name' => $n['name'], 'translation' => $n['translation'], 'rotation' => $n['rotation'], 'scale' => $n['scale'],
            ]);
        }
        $roots = [];
        foreach ($place as $node => $at) {
            $children = array_values(array_filter(
                array_map(static fn (int $c): ?int => $place[$c] ?? null, $gltf->nodes[$node]['children']),
                is_int(...),
            ));
            if ($children !== []) {
                $w->amend('nodes', $at, ['children' => $children]);
            }
            if (! isset($place[$gltf->nodes[$node]['parent']])) {
                $roots[] = $at;
            }
        }
        $w->scene($roots, 'motion');
        $samplers = $channels = $shapes = [];
        foreach (is_array($animation['channels'] ?? null) ? $animation['channels'] : [] as $c) {
            $target = is_array($c) && is_array($c['target'] ?? null) ? $c['target'] : [];
            $s = is_array($animation['samplers'] ?? null) && is_array($c) && is_int($c['sampler'] ?? null)
                ? $animation['samplers'][$c['sampler']] ?? null
                : null;
            if (! is_int($target['node'] ?? null) || ! is_array($s)) {
                continue;
            }
            if (($target['path'] ?? '') === 'weights') {
                $shapes = [...$shapes, ...self::shapes($w, $gltf, $target['node'], $s)];

                continue;
            }
            if (! isset($place[$target['node']])) {
                continue;
            }
            $samplers[] = [
                'input' => $w->accessor($gltf->accessor($s['input'] ?? null, 'motion', 'SCALAR'), 'SCALAR', bounds: true),
                'output' => $w->accessor($gltf->accessor($s['output'] ?? null, 'motion'), $target['path'] === 'rotation' ? 'VEC4' : 'VEC3'),
                'interpolation' => is_string($s['interpolation'] ?? null) ? $s['interpolation'] : 'LINEAR',
            ];
            $channels[] = ['sampler' => count($samplers) - 1, 'target' => ['node' => $place[$target['node']], 'path' => $target['path']]];
        }
        $w->push('animations', [
            'name' => is_string($animation['name'] ?? null) ? $animation['name'] : 'motion',
            'samplers' => $samplers === [] ? [self::still($w, $gltf->nodes[array_key_first($place) ?? 0]['translation'])] : $samplers,
            'channels' => $channels === [] ? [['sampler' => 0, 'target' => ['node' => 0, 'path' => 'translation']]] : $channels,
        ] + ($shapes === [] ? [] : ['extras' => ['shapes' => $shapes]]));

        return $w->toGlb();
    }

    /**
     * A key that moves nothing: a motion needs one.
     *
     * @param  list<float>  $at
     * @return array<string, mixed>
     */
    private static function still(GltfWriter $w, array $at): array
    {
        return [
            'input' => $w->accessor([0.0], 'SCALAR', bounds: true), 'output' => $w->accessor($at, 'VEC3'), 'interpolation' => 'STEP',
        ];
    }

    /**
     * Motion of shapes, by the shapes' names: there is no mesh in the file that it could be a motion of.
     *
     * @param  array<mixed>  $sampler
     * @return list<array<string, mixed>>
     */
    private static function shapes(GltfWriter $w, GltfReader $gltf, int $node, array $sampler): array
    {
        $names = $gltf->shapesOf($gltf->nodes[$node]['mesh'] ?? null);

        return $names === [] ? [] : [[
            'names' => $names, 'interpolation' => is_string($sampler['interpolation'] ?? null) ? $sampler['interpolation'] : 'LINEAR',
            'input' => $w->accessor($gltf->accessor($sampler['input'] ?? null, 'motion', 'SCALAR'), 'SCALAR', bounds: true),
            'output' => $w->accessor($gltf->accessor($sampler['output'] ?? null, 'motion', 'SCALAR'), 'SCALAR'),
        ]];
    }

    /** The same file without its motions. */
    public static function without(string $glb): string
    {
        [$json, $binary] = GlbContainer::unpack($glb);
        unset($json['animations']);

        return GlbContainer::pack($json, $binary);
    }
}
