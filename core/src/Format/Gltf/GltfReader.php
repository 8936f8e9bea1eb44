<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use Closure;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Rig\Channel;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\Interpolation;

/**
 * Reads glTF 2.0 (GLB, or JSON with embedded data) and checks it on the way: nothing leaves here that is out of range,
 * not finite, cyclic or kept in another file.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 * @phpstan-type Node array{name: string, parent: int, children: list<int>, translation: Vec, rotation: Quat, scale: Vec, mesh: int|null,
 *   skin: int|null}
 * @phpstan-type Primitive array{positions: list<float>, normals: list<float>, index: list<int>, joints: list<int>, weights: list<float>,
 *   colours: list<float>, morphs: int, material: int|null}
 */
final class GltfReader
{
    private const KNOWN_EXTENSIONS = [
        'KHR_materials_unlit', 'KHR_texture_transform', 'KHR_mesh_quantization', 'KHR_materials_specular', 'KHR_materials_ior',
        'KHR_materials_sheen', 'KHR_materials_emissive_strength', 'KHR_materials_variants',
    ];

    private readonly GltfData $data;

    /** @var list<Node> */
    public readonly array $nodes;

    /** @var array<int, string> picture to the name of the file that is not there */
    public readonly array $missingPictures;

    /**
     * @param  array<string, mixed>  $json
     * @param  null|Closure(string): ?string  $companion
     */
    private function __construct(
        public readonly array $json,
        string $binary,
        private readonly GltfLimits $limits,
        private readonly ?Closure $companion,
    ) {
        $this->data = new GltfData($json, $binary, $limits, $companion);
        $this->missingPictures = $this->checkEnvelope();
        $this->nodes = $this->readNodes();
    }

    /**
     * @param  null|Closure(string): ?string  $companion  the bytes of a file that came along, by the name the glTF calls it; null: not
     *   there
     *
     * @throws UnableToReadGltf
     */
    public static function read(string $bytes, ?GltfLimits $limits = null, ?Closure $companion = null): self
    {
        $limits ??= new GltfLimits;
        if (strlen($bytes) > $limits->bytes) {
            throw UnableToReadGltf::tooLarge('File size in bytes', strlen($bytes), $limits->bytes);
        }
        [$json, $binary] = GlbContainer::unpack($bytes);

        return new self($json, $binary, $limits, $companion);
    }

    /** @return array<int, string> pictures that are not there */
    private function checkEnvelope(): array
    {
        $asset = $this->json['asset'] ?? null;
        $version = is_array($asset) ? ($asset['version'] ?? '?') : '?';
        if (! is_string($version) || ! str_starts_with($version, '2.')) {
            throw UnableToReadGltf::unsupportedVersion(is_scalar($version) ? (string) $version : '?');
        }
        foreach (is_array($this->json['extensionsRequired'] ?? null) ? $this->json['extensionsRequired'] : [] as $name) {
            if (! in_array($name, self::KNOWN_EXTENSIONS, true)) {
                throw UnableToReadGltf::unknownExtension(is_string($name) ? $name : '?');
            }
        }
        $missing = [];
        foreach ($this->list('images') as $i => $image) {
            $uri = $image['uri'] ?? null;
            if (is_string($uri) && ! str_starts_with($uri, 'data:')) {
                $companion = $this->companion ?? throw UnableToReadGltf::externalFile("Picture {$i}", $uri);
                if ($companion($uri) === null) {
                    $missing[$i] = $uri;
                }
            }
        }

        return $missing;
    }

    /** @return list<array<string, mixed>> */
    public function list(string $name): array
    {
        return $this->data->list($name);
    }

    /** The bytes of a picture; null when its file is not there. */
    public function picture(int $index): ?string
    {
        return $this->data->picture($index);
    }

    /**
     * An accessor's rows as they are stored, without gaps; null when they are stored sparse or not at all.
     *
     * @return array{bytes: string, component: int, size: int, width: int, count: int}|null
     */
    public function rows(int $index): ?array
    {
        return $this->data->rows($index);
    }

    /**
     * All values of an accessor as floats, normalised ones brought to their range, sparse ones filled in.
     *
     * @return list<float>
     */
    public function accessor(mixed $index, string $where, ?string $type = null): array
    {
        return $this->data->accessor($index, $where, $type);
    }

    /** @return list<Node> */
    private function readNodes(): array
    {
        $list = $this->list('nodes');
        if (count($list) > $this->limits->nodes) {
            throw UnableToReadGltf::tooLarge('Nodes', count($list), $this->limits->nodes);
        }
        [$parents, $children] = $this->family($list);
        $nodes = [];
        foreach ($list as $i => $n) {
            [$t, $q, $s] = $this->transform($n, $i);
            $nodes[] = [
                'name' => is_string($n['name'] ?? null) && $n['name'] !== '' ? $n['name'] : "node{$i}", 'parent' => $parents[$i] ?? -1,
                'children' => $children[$i] ?? [],
                'translation' => $t, 'rotation' => $q, 'scale' => $s,
                'mesh' => is_int($n['mesh'] ?? null) ? $n['mesh'] : null, 'skin' => is_int($n['skin'] ?? null) ? $n['skin'] : null,
            ];
        }

        return $nodes;
    }

    /**
     * @param  list<array<string, mixed>>  $list
     * @return array{array<int, int>, array<int, list<int>>} parent and children by node
     */
    private function family(array $list): array
    {
        $parents = [];
        $children = [];
        foreach ($list as $i => $n) {
            foreach (is_array($n['children'] ?? null) ? $n['children'] : [] as $child) {
                if (! is_int($child) || ! isset($list[$child])) {
                    throw UnableToReadGltf::malformed("node {$i}", 'it names a child that is not there');
                }
                if (isset($parents[$child])) {
                    throw UnableToReadGltf::malformed("node {$child}", 'it has two parents');
                }
                $parents[$child] = $i;
                $children[$i][] = $child;
            }
        }
        GltfCost::check($this->data, $this->limits, $list, $parents);

        return [$parents, $children];
    }

    /**
     * @param  array<string, mixed>  $n
     * @return array{Vec, Quat, Vec}
     */
    private function transform(array $n, int $i): array
    {
        if (isset($n['matrix'])) {
            return M4::decompose($this->numbers($n['matrix'], 16, "node {$i}, matrix"));
        }
        $t = $this->numbers($n['translation'] ?? [0, 0, 0], 3, "node {$i}, translation");
        $q = $this->numbers($n['rotation'] ?? [0, 0, 0, 1], 4, "node {$i}, rotation");
        $s = $this->numbers($n['scale'] ?? [1, 1, 1], 3, "node {$i}, scale");
        $l = sqrt($q[0] ** 2 + $q[1] ** 2 + $q[2] ** 2 + $q[3] ** 2);
        if ($l < 0.5) {
            throw UnableToReadGltf::malformed("node {$i}, rotation", 'it is not a unit quaternion');
        }

        return [[$t[0], $t[1], $t[2]], [$q[0] / $l, $q[1] / $l, $q[2] / $l, $q[3] / $l], [$s[0], $s[1], $s[2]]];
    }

    /** @return list<float> */
    private function numbers(mixed $value, int $count, string $where): array
    {
        if (! is_array($value) || count($value) !== $count) {
            throw UnableToReadGltf::malformed($where, "{$count} numbers belong here");
        }
        $out = [];
        foreach ($value as $v) {
            if ((! is_int($v) && ! is_float($v)) || ! is_finite((float) $v)) {
                throw UnableToReadGltf::malformed($where, 'not all of it are numbers');
            }
            $out[] = (float) $v;
        }

        return $out;
    }

    /**
     * World matrix of a node at rest.
     *
     * @return list<float>
     */
    public function worldMatrix(int $node): array
    {
        $n = $this->nodes[$node];
        $m = M4::compose($n['translation'], $n['rotation'], $n['scale']);

        return $n['parent'] === -1 ? $m : M4::mul($this->worldMatrix($n['parent']), $m);
    }

    /**
     * What the name of a node, or of the nearest one above it, says after a prefix; null: none has it.
     *
     * @param  int  $node  its number
     */
    public function within(int $node, string $prefix): ?string
    {
        $n = $this->nodes[$node];
        if (str_starts_with($n['name'], $prefix)) {
            return substr($n['name'], strlen($prefix));
        }

        return $n['parent'] === -1 ? null : $this->within($n['parent'], $prefix);
    }

    /**
     * Every primitive that is drawn as triangles, with the node that carries it.
     *
     * @return list<array{int, Primitive}>
     */
    public function primitives(): array
    {
        $out = [];
        $vertices = 0;
        foreach ($this->nodes as $i => $node) {
            if ($node['mesh'] === null) {
                continue;
            }
            $mesh = $this->data->entry('meshes', $node['mesh'], "node {$i}");
            foreach (is_array($mesh['primitives'] ?? null) ? $mesh['primitives'] : [] as $k => $p) {
                if (! is_array($p) || ! in_array($p['mode'] ?? Triangles::LIST, Triangles::MODES, true)) {
                    continue;
                }
                $primitive = $this->primitive($p, "mesh {$node['mesh']}, primitive {$k}");
                $vertices += intdiv(count($primitive['positions']), 3);
                if ($vertices > $this->limits->vertices) {
                    throw UnableToReadGltf::tooLarge('Vertices', $vertices, $this->limits->vertices);
                }
                $out[] = [$i, $primitive];
            }
        }

        return $out;
    }

    /**
     * @param  array<mixed>  $p
     * @return Primitive
     */
    private function primitive(array $p, string $where): array
    {
        $attributes = is_array($p['attributes'] ?? null) ? $p['attributes'] : [];
        $optional = fn (string $name): array => isset($attributes[$name]) ? $this->accessor($attributes[$name], "{$where}, {$name}") : [];
        $positions = $this->accessor($attributes['POSITION'] ?? null, "{$where}, POSITION", 'VEC3');
        $count = intdiv(count($positions), 3);
        $index = isset($p['indices'])
            ? array_map(intval(...), $this->accessor($p['indices'], "{$where}, indices", 'SCALAR'))
            : range(0, $count - 1);
        $mode = is_int($p['mode'] ?? null) ? $p['mode'] : Triangles::LIST;
        if ($index !== [] && (max($index) >= $count || min($index) < 0)) {
            throw UnableToReadGltf::malformed(
                $where,
                'a triangle names vertex '.(min($index) < 0 ? min($index) : max($index))." of {$count}",
            );
        }
        if ($mode === Triangles::LIST && count($index) % 3 !== 0) {
            throw UnableToReadGltf::malformed($where, count($index).' indices do not make triangles');
        }

        $index = Triangles::of($mode, $index);

        return [
            'positions' => $positions, 'normals' => $optional('NORMAL'), 'index' => $index,
            'joints' => array_map(intval(...), $optional('JOINTS_0')), 'weights' => $optional('WEIGHTS_0'),
            'colours' => $optional('COLOR_0'),
            'morphs' => is_array($p['targets'] ?? null) ? count($p['targets']) : 0,
            'material' => is_int($p['material'] ?? null) ? $p['material'] : null,
        ];
    }

    /**
     * Joints of a skin in parents-first order.
     *
     * @return list<int> node indices
     */
    public function joints(int $skin): array
    {
        $s = $this->data->entry('skins', $skin, "skin {$skin}");
        $joints = [];
        foreach (is_array($s['joints'] ?? null) ? $s['joints'] : [] as $j) {
            if (! is_int($j) || ! isset($this->nodes[$j])) {
                throw UnableToReadGltf::malformed("skin {$skin}", 'it names a joint that is not there');
            }
            $joints[] = $j;
        }
        $depth = function (int $n): int {
            for ($d = 0; $this->nodes[$n]['parent'] !== -1; $d++) {
                $n = $this->nodes[$n]['parent'];
            }

            return $d;
        };
        usort($joints, static fn (int $a, int $b): int => [$depth($a), $a] <=> [$depth($b), $b]);

        return $joints;
    }

    /** @return list<Clip> */
    public function clips(): array
    {
        $clips = [];
        foreach ($this->list('animations') as $i => $animation) {
            $channels = [];
            foreach (is_array($animation['channels'] ?? null) ? $animation['channels'] : [] as $k => $c) {
                $channel = $this->channel($animation, $c, "animation {$i}, channel {$k}");
                if ($channel !== null) {
                    $channels[] = $channel;
                }
            }
            foreach ($this->keptShapes($animation, "animation {$i}") as $channel) {
                $channels[] = $channel;
            }
            $clips[] = new Clip(is_string($animation['name'] ?? null) ? $animation['name'] : "motion {$i}", $channels);
        }

        return $clips;
    }

    /** @param  array<string, mixed>  $animation */
    private function channel(array $animation, mixed $c, string $where): ?Channel
    {
        $target = is_array($c) && is_array($c['target'] ?? null)
            ? $c['target']
            : throw UnableToReadGltf::malformed($where, 'it has no target');
        $path = $target['path'] ?? '';
        if (! isset($target['node']) || ! in_array($path, ['translation', 'rotation', 'scale', 'weights'], true)) {
            return null;
        }
        $node = is_int($target['node']) ? $this->nodes[$target['node']] ?? null : null;
        $samplers = is_array($animation['samplers'] ?? null) ? $animation['samplers'] : [];
        $s = is_int($c['sampler'] ?? null) ? $samplers[$c['sampler']] ?? null : null;
        if ($node === null || ! is_array($s)) {
            throw UnableToReadGltf::malformed($where, 'its node or sampler is not there');
        }
        $times = $this->accessor($s['input'] ?? null, $where, 'SCALAR');
        $values = $this->accessor($s['output'] ?? null, $where);
        foreach ($times as $i => $t) {
            if ($t < 0.0 || ($i > 0 && $t <= $times[$i - 1])) {
                throw UnableToReadGltf::malformed($where, sprintf('its times do not rise at key %d', $i));
            }
        }
        $kind = Interpolation::tryFrom(is_string($s['interpolation'] ?? null) ? $s['interpolation'] : 'LINEAR')
            ?? throw UnableToReadGltf::malformed($where, 'its interpolation is not known');
        $rows = count($times) * ($kind === Interpolation::CubicSpline ? 3 : 1);
        if (count($values) % $rows !== 0 || count($values) === 0) {
            throw UnableToReadGltf::malformed($where, 'it has '.count($values).' values for '.count($times).' times');
        }
        $width = intdiv(count($values), $rows);
        if (($path === 'rotation' && $width !== 4) || (in_array($path, ['translation', 'scale'], true) && $width !== 3)) {
            throw UnableToReadGltf::malformed($where, "{$width} numbers a key do not make a {$path}");
        }

        $named = $path === 'weights' ? implode("\n", $this->shapesOf($node['mesh'])) : $node['name'];

        return new Channel($named, (string) $path, $kind, $times, $values, $width);
    }

    /** @return list<string> names of a mesh's shapes */
    public function shapesOf(?int $mesh): array
    {
        $entry = $mesh === null ? [] : $this->list('meshes')[$mesh] ?? [];
        $first = is_array($entry['primitives'] ?? null) ? $entry['primitives'][0] ?? [] : [];
        $count = is_array($first) && is_array($first['targets'] ?? null) ? count($first['targets']) : 0;
        $names = is_array(
            $entry['extras'] ?? null,
        ) && is_array($entry['extras']['targetNames'] ?? null) ? $entry['extras']['targetNames'] : [];

        return array_map(
            static fn (int $i): string => is_string($names[$i] ?? null) ? $names[$i] : "shape{$i}",
            $count === 0 ? [] : range(0, $count - 1),
        );
    }

    /**
     * Motion of shapes in a file of the house that has nothing to draw: names, times and values stand in the extras.
     *
     * @param  array<string, mixed>  $animation
     * @return list<Channel>
     */
    private function keptShapes(array $animation, string $where): array
    {
        $extras = is_array($animation['extras'] ?? null) ? $animation['extras'] : [];
        $out = [];
        foreach (is_array($extras['shapes'] ?? null) ? $extras['shapes'] : [] as $kept) {
            $names = is_array($kept) && is_array($kept['names'] ?? null) ? array_values(array_filter($kept['names'], is_string(...))) : [];
            $times = is_array($kept) ? $this->accessor($kept['input'] ?? null, $where, 'SCALAR') : [];
            $values = is_array($kept) ? $this->accessor($kept['output'] ?? null, $where, 'SCALAR') : [];
            $kind = Interpolation::tryFrom(
                is_array($kept) && is_string($kept['interpolation'] ?? null) ? $kept['interpolation'] : 'LINEAR',
            );
            $rows = count($times) * ($kind === Interpolation::CubicSpline ? 3 : 1);
            if ($names === [] || $kind === null || $rows === 0 || count($values) !== $rows * count($names)) {
                throw UnableToReadGltf::malformed($where, 'its shapes are not whole');
            }
            $out[] = new Channel(implode("\n", $names), 'weights', $kind, $times, $values, count($names));
        }

        return $out;
    }
}
