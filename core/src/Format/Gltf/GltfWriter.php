<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

/**
 * Builds a glTF 2.0 asset piece by piece and packs it as GLB. Indices are returned as pieces are added.
 * Callers hand over finite numbers; matrices are column-major.
 */
final class GltfWriter
{
    public const FLOAT = 5126;

    public const UINT = 5125;

    public const USHORT = 5123;

    public const UBYTE = 5121;

    private const WIDTH = ['SCALAR' => 1, 'VEC2' => 2, 'VEC3' => 3, 'VEC4' => 4, 'MAT4' => 16];

    private const ARRAY_BUFFER = 34962;

    private const INDEX_BUFFER = 34963;

    private string $binary = '';

    /** @var array<string, mixed> */
    private array $json = [];

    /** @var array<string, list<array<string, mixed>>> */
    private array $lists = [];

    /** @param  array<string, mixed>  $extras */
    public function __construct(string $generator, array $extras = [])
    {
        $this->json = ['asset' => ['version' => '2.0', 'generator' => $generator] + ($extras === [] ? [] : ['extras' => $extras])];
    }

    /**
     * @param  list<float|int>  $values
     * @param  string  $type  SCALAR, VEC2, VEC3, VEC4, MAT4
     * @param  bool  $bounds  write min and max (needed for POSITION and animation input)
     */
    public function accessor(
        array $values,
        string $type,
        int $component = self::FLOAT,
        bool $normalized = false,
        bool $bounds = false,
        ?int $target = null,
    ): int {
        $width = self::WIDTH[$type];
        $accessor = [
            'bufferView' => $this->view(
                self::bytes($values, $component, $width, $target === self::ARRAY_BUFFER),
                $target,
                self::stride($component, $width),
            ),
            'componentType' => $component,
            'count' => intdiv(count($values), $width),
            'type' => $type,
        ];
        if ($normalized) {
            $accessor['normalized'] = true;
        }
        if ($bounds) {
            [$accessor['min'], $accessor['max']] = self::bounds($values, $width);
        }

        return $this->push('accessors', $accessor);
    }

    /** @param  list<float|int>  $values */
    public function vertices(array $values, string $type, int $component = self::FLOAT, bool $normalized = false, bool $bounds = false): int
    {
        return $this->accessor($values, $type, $component, $normalized, $bounds, self::ARRAY_BUFFER);
    }

    /** @param  list<int>  $values */
    public function indices(array $values): int
    {
        $wide = $values !== [] && max($values) > 65534;

        return $this->accessor($values, 'SCALAR', $wide ? self::UINT : self::USHORT, false, false, self::INDEX_BUFFER);
    }

    /**
     * Offsets of which most are zero, stored sparse (section 3.6.2.3).
     *
     * @param  list<float>  $values  VEC3
     */
    public function sparse(array $values): int
    {
        $where = [];
        $what = [];
        $n = count($values);
        for ($i = 0; $i < $n; $i += 3) {
            if (abs($values[$i]) + abs($values[$i + 1]) + abs($values[$i + 2]) > 1e-6) {
                $where[] = intdiv($i, 3);
                array_push($what, $values[$i], $values[$i + 1], $values[$i + 2]);
            } else {
                [$values[$i], $values[$i + 1], $values[$i + 2]] = [0.0, 0.0, 0.0];
            }
        }
        $accessor = ['componentType' => self::FLOAT, 'count' => intdiv($n, 3), 'type' => 'VEC3'];
        [$accessor['min'], $accessor['max']] = self::bounds(array_values($values), 3);
        if ($where !== []) {
            $accessor['sparse'] = [
                'count' => count($where),
                'indices' => ['bufferView' => $this->view(self::bytes($where, self::UINT, 1), null, null), 'componentType' => self::UINT],
                'values' => ['bufferView' => $this->view(self::bytes($what, self::FLOAT, 3), null, null)],
            ];
        }

        return $this->push('accessors', $accessor);
    }

    /** @param  array<string, mixed>  $value */
    public function push(string $list, array $value): int
    {
        $this->lists[$list][] = $value;

        return count($this->lists[$list]) - 1;
    }

    /** @param  array<string, mixed>  $value merged into the list's entry */
    public function amend(string $list, int $index, array $value): void
    {
        $this->lists[$list][$index] = $value + $this->lists[$list][$index];
    }

    /** @param  list<int>  $nodes */
    public function scene(array $nodes, string $name): void
    {
        $this->push('scenes', ['name' => $name, 'nodes' => $nodes]);
        $this->json['scene'] = 0;
    }

    public function toGlb(): string
    {
        $json = $this->json + $this->lists;
        if ($this->binary !== '') {
            $json['buffers'] = [['byteLength' => strlen($this->binary)]];
        }

        return GlbContainer::pack($json, $this->binary);
    }

    private function view(string $bytes, ?int $target, ?int $stride): int
    {
        $this->binary .= str_repeat("\0", (4 - strlen($this->binary) % 4) % 4);
        $view = ['buffer' => 0, 'byteOffset' => strlen($this->binary), 'byteLength' => strlen($bytes)];
        if ($target !== null) {
            $view['target'] = $target;
        }
        if ($stride !== null && $target === self::ARRAY_BUFFER) {
            $view['byteStride'] = $stride;
        }
        $this->binary .= $bytes;

        return $this->push('bufferViews', $view);
    }

    private static function size(int $component): int
    {
        return match ($component) {
            self::UBYTE => 1, self::USHORT => 2, default => 4,
        };
    }

    /** Vertex attributes start on 4-byte boundaries (section 3.6.2.4). */
    private static function stride(int $component, int $width): int
    {
        return (int) (ceil(self::size($component) * $width / 4) * 4);
    }

    /** @param  list<float|int>  $values */
    private static function bytes(array $values, int $component, int $width, bool $padded = false): string
    {
        $format = match ($component) {
            self::FLOAT => 'g', self::UINT => 'V', self::USHORT => 'v', default => 'C',
        };
        if ($values === []) {
            return '';
        }
        $packed = pack($format.'*', ...$values);
        $row = self::size($component) * $width;
        if ($row % 4 === 0 || ! $padded) {
            return $packed;
        }
        $pad = str_repeat("\0", 4 - $row % 4);

        return implode('', array_map(static fn (string $r): string => $r.$pad, str_split($packed, max(1, $row))));
    }

    private static function single(float $v): float
    {
        /** @var array{1: float} $u */
        $u = unpack('g', pack('g', $v));

        return $u[1];
    }

    /**
     * @param  list<float|int>  $values
     * @return array{list<float|int>, list<float|int>}
     */
    private static function bounds(array $values, int $width): array
    {
        $min = array_fill(0, $width, INF);
        $max = array_fill(0, $width, -INF);
        foreach ($values as $i => $v) {
            // The validator compares with the stored 32-bit value.
            $v = is_float($v) ? self::single($v) : $v;
            $k = $i % $width;
            $min[$k] = $v < $min[$k] ? $v : $min[$k];
            $max[$k] = $v > $max[$k] ? $v : $max[$k];
        }

        return [array_values($min), array_values($max)];
    }
}
