<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use Closure;

/**
 * Packs a worked-over glTF into one file: what nothing refers to any more is left out, untouched accessors go over as they
 * are stored, pictures and buffers that came as files of their own are embedded.
 *
 * @phpstan-type Map array<string, mixed>
 */
final readonly class GltfPacker
{
    /** @var list<Map> */
    private array $accessors;

    /**
     * @param  Map  $json
     * @param  Closure(int): list<float>  $valuesOf  values of any accessor
     * @param  array<int, list<float>>  $values  of those that were replaced or added
     * @param  array<int, array{int, bool}>  $forms  their component and whether it is normalised
     * @param  array<int, string>  $pictures  put in, by their place in the list
     */
    public function __construct(
        private array $json,
        private GltfReader $source,
        private Closure $valuesOf,
        private array $values,
        private array $forms,
        private array $pictures,
    ) {
        $this->accessors = GltfDraft::entries($json, 'accessors');
    }

    public function toGlb(): string
    {
        $json = $this->json;
        unset($json['buffers'], $json['bufferViews'], $json['accessors'], $json['images']);
        [$binary, $views, $accessors] = ['', [], []];
        $place = static function (string $bytes, int $stride = 0) use (&$binary, &$views): int {
            $binary .= str_repeat("\0", (4 - strlen($binary) % 4) % 4);
            $views[] = ['buffer' => 0, 'byteOffset' => strlen($binary), 'byteLength' => strlen($bytes)]
                + ($stride > 0 ? ['byteStride' => $stride] : []);
            $binary .= $bytes;

            return count($views) - 1;
        };
        $moved = [];
        foreach ($this->used() as $old) {
            $moved[$old] = count($accessors);
            $accessors[] = $this->packed($old, $place);
        }
        $json = $this->renumbered($json, $moved);
        $images = [];
        foreach (GltfDraft::entries($this->json, 'images') as $i => $image) {
            $bytes = $this->pictures[$i] ?? $this->source->picture($i);
            $name = is_string($image['name'] ?? null) ? $image['name'] : "picture{$i}";
            // A picture that is not there keeps its place, so that its surfaces are known when it comes.
            $images[] = $bytes === null
                ? [
                    'name' => $name,
                    'bufferView' => $place(self::blank()),
                    'mimeType' => 'image/png',
                    'extras' => ['missing' => $this->source->missingPictures[$i] ?? $name],
                ]
                : [
                    'name' => $name,
                    'bufferView' => $place($bytes),
                    'mimeType' => str_starts_with($bytes, "\xFF\xD8") ? 'image/jpeg' : 'image/png',
                ];
        }
        $json += array_filter(
            ['accessors' => $accessors, 'bufferViews' => $views, 'images' => $images],
            static fn (array $l): bool => $l !== [],
        );
        if ($binary !== '') {
            $binary .= str_repeat("\0", (4 - strlen($binary) % 4) % 4);
            $json['buffers'] = [['byteLength' => strlen($binary)]];
        }
        foreach (['nodes', 'meshes', 'skins', 'animations', 'materials', 'textures', 'samplers', 'cameras', 'scenes'] as $list) {
            if (($json[$list] ?? null) === []) {
                unset($json[$list]);
            }
        }

        return GlbContainer::pack(self::withObjects($json), $binary);
    }

    /**
     * Empty objects of the JSON, which PHP reads as empty lists, made objects again.
     *
     * @param  array<array-key, mixed>  $json
     * @return array<array-key, mixed>
     */
    private static function withObjects(array $json): array
    {
        foreach ($json as $key => $value) {
            if (is_array($value)) {
                $isObject = $value === [] && is_string($key)
                    && (in_array($key, ['extras', 'extensions', 'pbrMetallicRoughness'], true) || str_starts_with($key, 'KHR_'));
                $json[$key] = $isObject ? new \stdClass : self::withObjects($value);
            }
        }

        return $json;
    }

    /** A white pixel. */
    private static function blank(): string
    {
        return (string) base64_decode('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAIAAACQd1PeAAAADElEQVR4nGP4//8/AAX+Av4N70a4AAAAAElFTkSuQmCC', true);
    }

    /**
     * @param  callable(string, int=): int  $place
     * @return Map
     */
    private function packed(int $accessor, callable $place): array
    {
        $a = $this->accessors[$accessor];
        $rows = isset($this->values[$accessor]) ? null : $this->source->rows($accessor);
        if ($rows !== null) {
            unset($a['byteOffset'], $a['bufferView']);
            $pad = (4 - $rows['size'] * $rows['width'] % 4) % 4;
            if ($pad > 0 && $rows['width'] > 1) {
                // Rows of vertices start on multiples of four (section 3.6.2.4).
                $bytes = implode(
                    '',
                    array_map(
                        static fn (string $r): string => $r.str_repeat("\0", $pad),
                        str_split($rows['bytes'], max(1, $rows['size'] * $rows['width'])),
                    ),
                );

                return ['bufferView' => $place($bytes, $rows['size'] * $rows['width'] + $pad)] + $a;
            }

            return ['bufferView' => $place($rows['bytes'])] + $a;
        }
        $values = ($this->valuesOf)($accessor);
        $width = array_search($a['type'] ?? 'SCALAR', GltfDraft::TYPES, true) ?: 1;
        [$component] = $this->forms[$accessor] ?? [GltfWriter::FLOAT, false];
        $out = ['type' => $a['type'], 'componentType' => $component, 'count' => intdiv(count($values), (int) $width)];
        $out['bufferView'] = $place(pack(match ($component) {
            GltfWriter::FLOAT => 'g*', GltfWriter::UINT => 'V*', GltfWriter::USHORT => 'v*', default => 'C*',
        }, ...$values));
        if ($component === GltfWriter::FLOAT && in_array($width, [1, 3], true)) {
            [$out['min'], $out['max']] = self::bounds($values, (int) $width);
        }

        return $out;
    }

    /**
     * @param  list<float>  $values
     * @return array{list<float>, list<float>}
     */
    private static function bounds(array $values, int $width): array
    {
        $low = $high = [];
        for ($k = 0; $k < $width; $k++) {
            [$l, $h] = [INF, -INF];
            for ($i = $k, $n = count($values); $i < $n; $i += $width) {
                $l = min($l, $values[$i]);
                $h = max($h, $values[$i]);
            }

            /** @var array{1: float, 2: float} $single the stored, shorter number */
            $single = unpack('g2', pack('gg', $l, $h));
            [$low[], $high[]] = [$single[1], $single[2]];
        }

        return [$low, $high];
    }

    /** @return list<int> accessors that something refers to, in their order */
    private function used(): array
    {
        $seen = [];
        $this->eachReference($this->json, static function (int $accessor) use (&$seen): int {
            $seen[$accessor] = true;

            return $accessor;
        });
        ksort($seen);

        return array_keys($seen);
    }

    /**
     * @param  Map  $json
     * @param  array<int, int>  $moved
     * @return Map
     */
    private function renumbered(array $json, array $moved): array
    {
        return $this->eachReference($json, static fn (int $accessor): int => $moved[$accessor]);
    }

    /**
     * @param  Map  $json
     * @param  callable(int): int  $turn
     * @return Map
     */
    private function eachReference(array $json, callable $turn): array
    {
        $all = static fn (mixed $map): array => array_map($turn, Json::intMap($map));
        $meshes = Json::maps($json['meshes'] ?? []);
        foreach ($meshes as $m => $mesh) {
            $primitives = Json::maps($mesh['primitives'] ?? []);
            foreach ($primitives as $k => $p) {
                $primitives[$k] = ['attributes' => $all($p['attributes'] ?? [])]
                    + (is_int($p['indices'] ?? null) ? ['indices' => $turn($p['indices'])] : [])
                    + (isset($p['targets']) ? ['targets' => array_map($all, Json::maps($p['targets']))] : []) + $p;
            }
            $meshes[$m] = ['primitives' => $primitives] + $mesh;
        }
        $skins = array_map(
            static fn (array $s): array => (
                is_int($s['inverseBindMatrices'] ?? null) ? ['inverseBindMatrices' => $turn($s['inverseBindMatrices'])] : []
            ) + $s,
            Json::maps($json['skins'] ?? []),
        );
        $animations = array_map(
            static fn (array $a): array => ['samplers' => array_map(
                static fn (array $s): array => $all(array_intersect_key($s, ['input' => 1, 'output' => 1])) + $s,
                Json::maps($a['samplers'] ?? []),
            )] + $a,
            Json::maps($json['animations'] ?? []),
        );

        return array_filter(['meshes' => $meshes, 'skins' => $skins, 'animations' => $animations], static fn (array $l): bool => $l !== [])
            + $json;
    }
}
