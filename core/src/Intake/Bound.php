<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Math\M4;

/**
 * Hangs surfaces on the joints of the one skin: their points go into the world, where skinned points are, and their nodes
 * become roots.
 *
 * @phpstan-import-type Solid from Subject
 */
final class Bound
{
    /** @param  list<array{Solid, list<float|int>, list<float>}>  $bound  surface, four joints and four weights a point */
    public static function apply(Subject $subject, array $bound): void
    {
        $draft = $subject->draft;
        $meshes = self::ownMeshes($subject, array_values(array_unique(array_map(static fn (array $b): int => $b[0]['node'], $bound))));
        $roots = [];
        foreach ($bound as [$s, $joints, $weights]) {
            $world = $subject->world($s['node']);
            $linear = [...array_slice($world, 0, 12), 0.0, 0.0, 0.0, 1.0];
            $own = $draft->attributes($s['mesh'], $s['primitive']);
            $attributes = [
                'POSITION' => $draft->add($s['positions'], 3),
                'JOINTS_0' => $draft->add(array_map(floatval(...), $joints), 4, GltfWriter::USHORT),
                'WEIGHTS_0' => $draft->add($weights, 4),
            ] + $own;
            unset($attributes['TANGENT']);
            if (isset($attributes['NORMAL'])) {
                [, $q] = M4::decompose($world);
                $attributes['NORMAL'] = $draft->add(
                    Subject::moved($draft->values($attributes['NORMAL']), M4::compose([0.0, 0.0, 0.0], $q, [1.0, 1.0, 1.0])),
                    3,
                );
            }
            $with = ['attributes' => $attributes];
            foreach ($draft->primitives() as $p) {
                if ($p['mesh'] === $s['mesh'] && $p['primitive'] === $s['primitive'] && $p['targets'] !== []) {
                    $with['targets'] = array_map(
                        static fn (array $t): array => isset($t['POSITION'])
                            ? ['POSITION' => $draft->add(Subject::moved($draft->values($t['POSITION']), $linear), 3)]
                            : [],
                        $p['targets'],
                    );
                }
            }
            $draft->amendPrimitive($meshes[$s['node']], $s['primitive'], $with);
            $roots[$s['node']] = true;
        }
        $list = $draft->list('nodes');
        foreach ($list as $i => $n) {
            $left = array_values(array_diff(Json::ints($n['children'] ?? null), array_keys($roots)));
            if ($left === []) {
                unset($list[$i]['children']);
            } else {
                $list[$i]['children'] = $left;
            }
        }
        $draft->json['nodes'] = $list;
        $scene = $draft->list('scenes')[0] ?? [];
        $draft->json['scenes'] = [['nodes' => array_values(array_unique([...Json::ints($scene['nodes'] ?? null), ...array_keys($roots)]))]];
        $changes = [];
        foreach (array_keys($roots) as $node) {
            $changes[$node] = ['mesh' => $meshes[$node], 'skin' => 0, 'translation' => null, 'rotation' => null, 'scale' => null];
        }
        $subject->setNodes($changes);
    }

    /**
     * A mesh that several nodes show is given to each of them, as its points differ from now on.
     *
     * @param  list<int>  $nodes
     * @return array<int, int> node to mesh
     */
    private static function ownMeshes(Subject $subject, array $nodes): array
    {
        $list = $subject->draft->list('meshes');
        $shown = array_count_values(array_filter(array_column($subject->nodes(), 'mesh'), is_int(...)));
        $out = [];
        foreach ($nodes as $node) {
            $mesh = (int) $subject->nodes()[$node]['mesh'];
            if ($shown[$mesh] > 1) {
                $shown[$mesh]--;
                $list[] = $list[$mesh];
                $mesh = count($list) - 1;
            }
            $out[$node] = $mesh;
        }
        $subject->draft->json['meshes'] = $list;

        return $out;
    }
}
