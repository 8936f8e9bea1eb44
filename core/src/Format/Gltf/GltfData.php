<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use Closure;

/** The lists, buffers, pictures and accessors of a glTF: each read where it is asked for, and checked then. */
final class GltfData
{
    private const WIDTH = ['SCALAR' => 1, 'VEC2' => 2, 'VEC3' => 3, 'VEC4' => 4, 'MAT2' => 4, 'MAT3' => 9, 'MAT4' => 16];

    /** Component type to unpack format, size, and divisor when normalised. */
    private const COMPONENTS = [
        5120 => ['c', 1, 127.0], 5121 => ['C', 1, 255.0], 5122 => ['s', 2, 32767.0], 5123 => ['v', 2, 65535.0],
        5125 => ['V', 4, 4294967295.0], 5126 => ['g', 4, 1.0],
    ];

    /** @var array<int, string> */
    private array $buffers = [];

    /** @var array<int, list<float>> */
    private array $read = [];

    /** @var array<string, list<array<string, mixed>>> */
    private array $lists = [];

    /**
     * @param  array<string, mixed>  $json
     * @param  null|Closure(string): ?string  $companion
     */
    public function __construct(
        private readonly array $json,
        private readonly string $binary,
        private readonly GltfLimits $limits,
        private readonly ?Closure $companion,
    ) {
    }

    /** @return list<array<string, mixed>> */
    public function list(string $name): array
    {
        // Looked over once: each node of thousands asks for its mesh.
        return $this->lists[$name] ??= $this->looked($name);
    }

    /** @return list<array<string, mixed>> */
    private function looked(string $name): array
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
    public function entry(string $list, mixed $index, string $where): array
    {
        $all = $this->list($list);
        if (! is_int($index) || ! isset($all[$index])) {
            throw UnableToReadGltf::malformed(
                $where,
                sprintf('it names %s %s, which is not there', $list, is_scalar($index) ? (string) $index : '?'),
            );
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
            $bytes = self::embedded($uri, "buffer {$index}") ?? ($this->companion === null ? null : ($this->companion)($uri))
                ?? throw UnableToReadGltf::externalFile("Buffer {$index}", $uri);
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
        [$format, $size] = self::COMPONENTS[$component]
            ?? throw UnableToReadGltf::malformed("accessor {$accessor}", 'its component type is not known');
        $start = $view['byteOffset'] ?? 0;
        $length = $view['byteLength'] ?? 0;
        $stride = $view['byteStride'] ?? $size * $width;
        $bytes = $this->buffer(is_int($view['buffer'] ?? null) ? $view['buffer'] : -1);
        if (
            ! is_int($start) || ! is_int($length) || ! is_int($stride) || $start < 0 || $offset < 0 || $length < 0
                || $stride < $size * $width
        ) {
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
        $where = $this->slice(
            $accessor,
            $at['bufferView'] ?? null,
            $offset($at),
            is_int($at['componentType'] ?? null) ? $at['componentType'] : 0,
            1,
            $count,
        );
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
}
