<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use Closure;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Motion\Channel;
use CrispReel\Core\Motion\Clip;
use CrispReel\Core\Motion\Interpolation;

/**
 * Reads glTF 2.0 (GLB, or JSON with embedded data) and checks it on the way: nothing leaves here that is out of range,
 * not finite, cyclic or kept in another file.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Quat array{float, float, float, float}
 * @phpstan-type Node array{name: string, parent: int, children: list<int>, translation: Vec, rotation: Quat, scale: Vec, mesh: int|null, skin: int|null}
 * @phpstan-type Primitive array{positions: list<float>, normals: list<float>, index: list<int>, joints: list<int>, weights: list<float>, colours: list<float>, morphs: int, material: int|null}
 */
final class GltfReader
{
    private const WIDTH = ['SCALAR' => 1, 'VEC2' => 2, 'VEC3' => 3, 'VEC4' => 4, 'MAT2' => 4, 'MAT3' => 9, 'MAT4' => 16];

    /** Component type to unpack format, size, and divisor when normalised. */
    private const COMPONENTS = [
        5120 => ['c', 1, 127.0], 5121 => ['C', 1, 255.0], 5122 => ['s', 2, 32767.0], 5123 => ['v', 2, 65535.0],
        5125 => ['V', 4, 4294967295.0], 5126 => ['g', 4, 1.0],
    ];

    private const KNOWN_EXTENSIONS = ['KHR_materials_unlit', 'KHR_texture_transform', 'KHR_mesh_quantization', 'KHR_materials_specular', 'KHR_materials_ior', 'KHR_materials_sheen', 'KHR_materials_emissive_strength'];

    /** @var list<Node> */
    public readonly array $nodes;

    /** @var array<int, string> */
    private array $buffers = [];

    /** @var array<int, list<float>> */
    private array $read = [];

    /** @var array<int, string> picture to the name of the file that is not there */
    public readonly array $missingPictures;

    /**
     * @param  array<string, mixed>  $json
     * @param  null|Closure(string): ?string  $companion
     */
    private function __construct(public readonly array $json, private readonly string $binary, private readonly GltfLimits $limits, private readonly ?Closure $companion)
    {
        $this->missingPictures = $this->checkEnvelope();
        $this->nodes = $this->readNodes();
    }

    /**
     * @param  null|Closure(string): ?string  $companion  the bytes of a file that came along, by the name the glTF calls it; null: not there
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
        $list = $this->json[$name] ?? [];
        if (! is_array($list) || ! array_is_list($list)) {
            throw UnableToReadGltf::malformed($name, 'it should be a list');
        }
        foreach ($list as $i => $entry) {
            if (! is_array($entry)) {
                throw UnableToReadGltf::malformed("{$name}/{$i}", 'it should be an object');
            }
        }

        /** @var list<array<string, mixed>> $list */
        return $list;
    }

    /** @return array<string, mixed> */
    private function entry(string $list, mixed $index, string $where): array
    {
        $all = $this->list($list);
        if (! is_int($index) || ! isset($all[$index])) {
            throw UnableToReadGltf::malformed($where, sprintf('it names %s %s, which is not there', $list, is_scalar($index) ? (string) $index : '?'));
        }

        return $all[$index];
    }

    private function buffer(int $index): string
    {
        if (isset($this->buffers[$index])) {
            return $this->buffers[$index];
        }
        $buffer = $this->entry('buffers', $index, "buffer {$index}");
        $uri = $buffer['uri'] ?? null;
        if (is_string($uri)) {
            $bytes = self::embedded($uri, "buffer {$index}") ?? ($this->companion === null ? null : ($this->companion)($uri)) ?? throw UnableToReadGltf::externalFile("Buffer {$index}", $uri);
        } else {
            $bytes = $index === 0 ? $this->binary : throw UnableToReadGltf::malformed("buffer {$index}", 'it has no data');
        }
        $claimed = $buffer['byteLength'] ?? 0;
        if (! is_int($claimed) || $claimed > strlen($bytes)) {
            throw UnableToReadGltf::truncated(is_int($claimed) ? $claimed : 0, strlen($bytes));
        }

        return $this->buffers[$index] = $bytes;
    }

    /** @return string|null null: not an embedded file */
    private static function embedded(string $uri, string $where): ?string
    {
        if (preg_match('#^data:[\w/+.-]*(;[\w=-]+)*;base64,#', $uri, $m) !== 1) {
            return null;
        }
        $bytes = base64_decode(substr($uri, strlen($m[0])), true);

        return $bytes === false ? throw UnableToReadGltf::malformed($where, 'its embedded data are not base64') : $bytes;
    }

    /** The bytes of a picture; null when its file is not there. */
    public function picture(int $index): ?string
    {
        $image = $this->entry('images', $index, "picture {$index}");
        $uri = $image['uri'] ?? null;
        if (is_string($uri)) {
            return self::embedded($uri, "picture {$index}") ?? ($this->companion === null ? null : ($this->companion)($uri));
        }
        $view = $this->entry('bufferViews', $image['bufferView'] ?? null, "picture {$index}");
        $bytes = $this->buffer(is_int($view['buffer'] ?? null) ? $view['buffer'] : -1);
        [$start, $length] = [$view['byteOffset'] ?? 0, $view['byteLength'] ?? 0];
        if (! is_int($start) || ! is_int($length) || $start < 0 || $length < 0 || $start + $length > strlen($bytes)) {
            throw UnableToReadGltf::malformed("picture {$index}", 'its place in the buffer makes no sense');
        }

        return substr($bytes, $start, $length);
    }

    /**
     * An accessor's rows as they are stored, without gaps; null when they are stored sparse or not at all.
     *
     * @return array{bytes: string, component: int, size: int, width: int, count: int}|null
     */
    public function rows(int $index): ?array
    {
        $a = $this->entry('accessors', $index, "accessor {$index}");
        $component = is_int($a['componentType'] ?? null) ? $a['componentType'] : 0;
        $width = self::WIDTH[is_string($a['type'] ?? null) ? $a['type'] : ''] ?? 0;
        $count = is_int($a['count'] ?? null) ? $a['count'] : 0;
        if (isset($a['sparse']) || ! isset($a['bufferView'], self::COMPONENTS[$component]) || $width === 0 || $count < 1) {
            return null;
        }
        $view = $this->entry('bufferViews', $a['bufferView'], "accessor {$index}");
        $size = self::COMPONENTS[$component][1];
        $bytes = $this->buffer(is_int($view['buffer'] ?? null) ? $view['buffer'] : -1);
        [$start, $offset, $stride] = [$view['byteOffset'] ?? 0, $a['byteOffset'] ?? 0, $view['byteStride'] ?? $size * $width];
        if (! is_int($start) || ! is_int($offset) || ! is_int($stride) || $start < 0 || $offset < 0) {
            throw UnableToReadGltf::malformed("accessor {$index}", 'its place in the buffer makes no sense');
        }
        $row = $size * $width;
        $needed = $start + $offset + $stride * ($count - 1) + $row;
        if ($stride < $row || $needed > strlen($bytes)) {
            throw UnableToReadGltf::accessorOutOfRange($index, $needed, strlen($bytes));
        }
        $out = $stride === $row ? substr($bytes, $start + $offset, $row * $count) : '';
        if ($stride !== $row) {
            for ($i = 0, $at = $start + $offset; $i < $count; $i++, $at += $stride) {
                $out .= substr($bytes, $at, $row);
            }
        }

        return ['bytes' => $out, 'component' => $component, 'size' => $size, 'width' => $width, 'count' => $count];
    }

    /**
     * All values of an accessor as floats, normalised ones brought to their range, sparse ones filled in.
     *
     * @return list<float>
     */
    public function accessor(mixed $index, string $where, ?string $type = null): array
    {
        $a = $this->entry('accessors', $index, $where);
        assert(is_int($index));
        if (isset($this->read[$index])) {
            return $this->read[$index];
        }
        $held = is_string($a['type'] ?? null) ? $a['type'] : '';
        $width = self::WIDTH[$held] ?? throw UnableToReadGltf::malformed("accessor {$index}", 'its type is not known');
        if ($type !== null && $held !== $type) {
            throw UnableToReadGltf::malformed("accessor {$index}", "it holds {$held} where {$type} belongs");
        }
        $count = $a['count'] ?? null;
        if (! is_int($count) || $count < 1) {
            throw UnableToReadGltf::malformed("accessor {$index}", 'its count is not a positive number');
        }
        if ($count > max($this->limits->vertices, $this->limits->keys) || $count * $width > 4 * $this->limits->keys) {
            throw UnableToReadGltf::tooLarge("Accessor {$index}, entries", $count, $this->limits->vertices);
        }
        $component = is_int($a['componentType'] ?? null) ? $a['componentType'] : 0;
        $values = isset($a['bufferView'])
            ? $this->slice($index, $a['bufferView'], is_int($a['byteOffset'] ?? 0) ? $a['byteOffset'] ?? 0 : -1, $component, $width, $count)
            : array_fill(0, $count * $width, 0.0);
        if (is_array($a['sparse'] ?? null)) {
            $values = $this->filled($index, $values, $a['sparse'], $component, $width);
        }
        if (($a['normalized'] ?? false) === true) {
            $by = self::COMPONENTS[$component][2];
            $values = array_map(static fn (float $v): float => max(-1.0, $v / $by), $values);
        }

        return $this->read[$index] = $values;
    }

    /** @return list<float> */
    private function slice(int $accessor, mixed $viewIndex, int $offset, int $component, int $width, int $count): array
    {
        $view = $this->entry('bufferViews', $viewIndex, "accessor {$accessor}");
        [$format, $size] = self::COMPONENTS[$component] ?? throw UnableToReadGltf::malformed("accessor {$accessor}", 'its component type is not known');
        $start = $view['byteOffset'] ?? 0;
        $length = $view['byteLength'] ?? 0;
        $stride = $view['byteStride'] ?? $size * $width;
        $bytes = $this->buffer(is_int($view['buffer'] ?? null) ? $view['buffer'] : -1);
        if (! is_int($start) || ! is_int($length) || ! is_int($stride) || $start < 0 || $offset < 0 || $length < 0 || $stride < $size * $width) {
            throw UnableToReadGltf::malformed("accessor {$accessor}", 'its place in the buffer makes no sense');
        }
        $needed = $offset + $stride * ($count - 1) + $size * $width;
        if ($needed > $length || $start + $length > strlen($bytes)) {
            throw UnableToReadGltf::accessorOutOfRange($accessor, $needed, min($length, max(0, strlen($bytes) - $start)));
        }
        if ($stride === $size * $width) {
            /** @var array<int, float|int> $raw */
            $raw = unpack($format.($count * $width), $bytes, $start + $offset);
        } else {
            $rows = '';
            for ($i = 0; $i < $count; $i++) {
                $rows .= substr($bytes, $start + $offset + $i * $stride, $size * $width);
            }
            /** @var array<int, float|int> $raw */
            $raw = unpack($format.'*', $rows);
        }
        $out = [];
        $i = 0;
        foreach ($raw as $v) {
            $v = (float) $v;
            if ($v - $v !== 0.0) {
                throw UnableToReadGltf::notFinite($accessor, $i);
            }
            $out[] = $v;
            $i++;
        }

        return $out;
    }

    /**
     * @param  list<float>  $values
     * @param  array<mixed>  $sparse
     * @return list<float>
     */
    private function filled(int $accessor, array $values, array $sparse, int $component, int $width): array
    {
        $count = is_int($sparse['count'] ?? null) ? $sparse['count'] : 0;
        $at = is_array($sparse['indices'] ?? null) ? $sparse['indices'] : [];
        $what = is_array($sparse['values'] ?? null) ? $sparse['values'] : [];
        if ($count < 1) {
            throw UnableToReadGltf::malformed("accessor {$accessor}", 'its sparse part has no entries');
        }
        $offset = static fn (array $p): int => is_int($p['byteOffset'] ?? 0) ? $p['byteOffset'] ?? 0 : -1;
        $where = $this->slice($accessor, $at['bufferView'] ?? null, $offset($at), is_int($at['componentType'] ?? null) ? $at['componentType'] : 0, 1, $count);
        $new = $this->slice($accessor, $what['bufferView'] ?? null, $offset($what), $component, $width, $count);
        foreach ($where as $i => $k) {
            $k = (int) $k;
            if ($k * $width >= count($values)) {
                throw UnableToReadGltf::malformed("accessor {$accessor}", "its sparse part names entry {$k}, which is not there");
            }
            for ($c = 0; $c < $width; $c++) {
                $values[$k * $width + $c] = $new[$i * $width + $c];
            }
        }

        return array_values($values);
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
                'name' => is_string($n['name'] ?? null) && $n['name'] !== '' ? $n['name'] : "node{$i}", 'parent' => $parents[$i] ?? -1, 'children' => $children[$i] ?? [],
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
        foreach ($parents as $i => $p) {
            for ($steps = 0; $p !== null; $p = $parents[$p] ?? null) {
                if ($p === $i || ++$steps > count($list)) {
                    throw UnableToReadGltf::cyclicNodes($i);
                }
            }
        }

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
            $mesh = $this->entry('meshes', $node['mesh'], "node {$i}");
            foreach (is_array($mesh['primitives'] ?? null) ? $mesh['primitives'] : [] as $k => $p) {
                if (! is_array($p) || ($p['mode'] ?? 4) !== 4) {
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
        if ($index !== [] && (max($index) >= $count || min($index) < 0)) {
            throw UnableToReadGltf::malformed($where, 'a triangle names vertex '.(min($index) < 0 ? min($index) : max($index))." of {$count}");
        }
        if (count($index) % 3 !== 0) {
            throw UnableToReadGltf::malformed($where, count($index).' indices do not make triangles');
        }

        return [
            'positions' => $positions, 'normals' => $optional('NORMAL'), 'index' => $index,
            'joints' => array_map(intval(...), $optional('JOINTS_0')), 'weights' => $optional('WEIGHTS_0'), 'colours' => $optional('COLOR_0'),
            'morphs' => is_array($p['targets'] ?? null) ? count($p['targets']) : 0, 'material' => is_int($p['material'] ?? null) ? $p['material'] : null,
        ];
    }

    /**
     * Joints of a skin in parents-first order.
     *
     * @return list<int> node indices
     */
    public function joints(int $skin): array
    {
        $s = $this->entry('skins', $skin, "skin {$skin}");
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
            $clips[] = new Clip(is_string($animation['name'] ?? null) ? $animation['name'] : "motion {$i}", $channels);
        }

        return $clips;
    }

    /** @param  array<string, mixed>  $animation */
    private function channel(array $animation, mixed $c, string $where): ?Channel
    {
        $target = is_array($c) && is_array($c['target'] ?? null) ? $c['target'] : throw UnableToReadGltf::malformed($where, 'it has no target');
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
        $kind = Interpolation::tryFrom(is_string($s['interpolation'] ?? null) ? $s['interpolation'] : 'LINEAR') ?? throw UnableToReadGltf::malformed($where, 'its interpolation is not known');
        $rows = count($times) * ($kind === Interpolation::CubicSpline ? 3 : 1);
        if (count($values) % $rows !== 0 || count($values) === 0) {
            throw UnableToReadGltf::malformed($where, 'it has '.count($values).' values for '.count($times).' times');
        }
        $width = intdiv(count($values), $rows);
        if (($path === 'rotation' && $width !== 4) || (in_array($path, ['translation', 'scale'], true) && $width !== 3)) {
            throw UnableToReadGltf::malformed($where, "{$width} numbers a key do not make a {$path}");
        }

        return new Channel($node['name'], (string) $path, $kind, $times, $values, $width);
    }
}
