<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Format\Gltf\GltfReader;

/**
 * All that is drawn of a figure at rest, with what moves it: a vertex is its place, shares by joint of the skeleton, its material.
 *
 * @phpstan-type Vertex array{array{float, float, float}, array<int, float>, string}
 */
final readonly class SkinnedSurface
{
    /** @var list<Vertex> */
    public array $vertices;

    /** @var list<array{int, int, int}> */
    public array $triangles;

    public function __construct(GltfReader $gltf)
    {
        $vertices = $triangles = [];
        // The skin's list of joints has an order of its own.
        $skin = $gltf->list('skins')[0] ?? [];
        $order = array_flip($gltf->joints(0));
        $listed = array_map(
            static fn (mixed $node): int => $order[is_int($node) ? $node : -1] ?? -1,
            is_array($skin['joints'] ?? null) ? array_values($skin['joints']) : [],
        );
        $materials = array_map(
            static fn (mixed $m): string => is_array($m) && is_string($m['name'] ?? null) ? $m['name'] : '',
            $gltf->list('materials'),
        );
        foreach ($gltf->primitives() as [, $p]) {
            if ($p['joints'] === []) {
                continue;
            }
            $first = count($vertices);
            for ($v = 0, $n = intdiv(count($p['positions']), 3); $v < $n; $v++) {
                $at = [$p['positions'][3 * $v], $p['positions'][3 * $v + 1], $p['positions'][3 * $v + 2]];
                $vertices[] = [$at, self::shares($p, $v, $listed), $materials[$p['material'] ?? -1] ?? ''];
            }
            foreach (array_chunk($p['index'], 3) as [$a, $b, $c]) {
                $triangles[] = [$first + $a, $first + $b, $first + $c];
            }
        }
        $this->vertices = $vertices;
        $this->triangles = $triangles;
    }

    /**
     * @param  array{joints: list<int>, weights: list<float>}  $p
     * @param  list<int>  $listed  joints of the skeleton by the skin's numbers
     * @return array<int, float> of which none is too small to matter; together 1
     */
    private static function shares(array $p, int $v, array $listed): array
    {
        $out = [];
        for ($k = 4 * $v; $k < 4 * $v + 4; $k++) {
            $joint = $listed[$p['joints'][$k]] ?? -1;
            if ($joint >= 0 && ($p['weights'][$k] ?? 0.0) > 0.005) {
                $out[$joint] = ($out[$joint] ?? 0.0) + $p['weights'][$k];
            }
        }
        $all = array_sum($out);

        return $all > 0.0 ? array_map(static fn (float $w): float => $w / $all, $out) : [];
    }
}
