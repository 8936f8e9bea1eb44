<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

/**
 * What a file would cost, from what it says of itself, before anything of it is computed. A small file can ask for much: one mesh
 * drawn by thousands of nodes, a chain of thousands of parents, a picture of a few bytes that unfolds to gigabytes.
 */
final readonly class GltfCost
{
    /** @param  list<array<string, mixed>>  $nodes */
    private function __construct(private GltfData $data, private GltfLimits $limits, private array $nodes)
    {
    }

    /**
     * @param  list<array<string, mixed>>  $nodes
     * @param  array<int, int>  $parents  by node
     *
     * @throws UnableToReadGltf with the number that is too large, and the largest that is taken
     */
    public static function check(GltfData $data, GltfLimits $limits, array $nodes, array $parents): void
    {
        $cost = new self($data, $limits, $nodes);
        $cost->depth($parents);
        $cost->surfaces();
        $cost->joints();
        $cost->keys();
        $cost->pictures();
    }

    /**
     * Steps from a node to its root; each node is walked over once.
     *
     * @param  array<int, int>  $parents
     */
    private function depth(array $parents): void
    {
        $depth = [];
        foreach (array_keys($this->nodes) as $node) {
            $way = [];
            for ($n = $node; $n !== null && ! isset($depth[$n]); $n = $parents[$n] ?? null) {
                if (isset($way[$n])) {
                    throw UnableToReadGltf::cyclicNodes($n);
                }
                $way[$n] = true;
            }
            $d = $n === null ? 0 : $depth[$n];
            foreach (array_reverse(array_keys($way)) as $n) {
                $depth[$n] = ++$d;
            }
        }
        $this->most('Steps from the root of its tree to the deepest node', $depth === [] ? 0 : max($depth), $this->limits->depth);
    }

    private function surfaces(): void
    {
        $meshes = $this->data->list('meshes');
        $drawn = $points = 0;
        $of = [];
        foreach ($this->nodes as $n) {
            $m = $n['mesh'] ?? null;
            if (! is_int($m)) {
                continue;
            }
            $of[$m] ??= $this->mesh($meshes[$m] ?? []);
            $drawn += $of[$m][0];
            $points += $of[$m][1];
        }
        $this->most('Surfaces that its nodes draw', $drawn, $this->limits->drawn);
        $this->most('Points of its surfaces', $points, $this->limits->vertices);
    }

    /**
     * @param  array<string, mixed>  $mesh
     * @return array{int, int} surfaces and points
     */
    private function mesh(array $mesh): array
    {
        $all = is_array($mesh['primitives'] ?? null) ? $mesh['primitives'] : [];
        $points = 0;
        foreach ($all as $p) {
            $targets = is_array($p) && is_array($p['targets'] ?? null) ? count($p['targets']) : 0;
            $points += is_array($p) && is_array($p['attributes'] ?? null)
                ? (int) ($this->count($p['attributes']['POSITION'] ?? null) * (1 + $targets / 16))
                : 0;
        }

        return [count($all), $points];
    }

    private function joints(): void
    {
        $joints = 0;
        foreach ($this->data->list('skins') as $s) {
            $joints += is_array($s['joints'] ?? null) ? count($s['joints']) : 0;
        }
        $this->most('Joints of its skins', $joints, $this->limits->joints);
    }

    private function keys(): void
    {
        $keys = 0;
        foreach ($this->data->list('animations') as $a) {
            $samplers = is_array($a['samplers'] ?? null) ? $a['samplers'] : [];
            foreach (is_array($a['channels'] ?? null) ? $a['channels'] : [] as $c) {
                $sampler = is_array($c) && is_int($c['sampler'] ?? null) ? $samplers[$c['sampler']] ?? null : null;
                $keys += is_array($sampler) ? $this->count($sampler['input'] ?? null) : 0;
            }
        }
        $this->most('Keys of its motions', $keys, $this->limits->keys);
    }

    private function pictures(): void
    {
        $all = 0;
        foreach (array_keys($this->data->list('images')) as $i) {
            // The header alone tells the size.
            $size = @getimagesizefromstring($this->data->picture($i) ?? '');
            $pixels = $size === false ? 0 : $size[0] * $size[1];
            $this->most("Pixels of picture {$i}", $pixels, $this->limits->pixels);
            $all += $pixels;
        }
        $this->most('Pixels of all its pictures', $all, $this->limits->allPixels);
    }

    private function count(mixed $accessor): int
    {
        $count = is_int($accessor) ? ($this->data->list('accessors')[$accessor]['count'] ?? 0) : 0;

        return is_int($count) ? max(0, $count) : 0;
    }

    private function most(string $what, int $found, int $limit): void
    {
        if ($found > $limit) {
            throw UnableToReadGltf::tooLarge($what, $found, $limit);
        }
    }
}
