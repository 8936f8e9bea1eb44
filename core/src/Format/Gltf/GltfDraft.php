<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use Closure;

/**
 * A glTF that is being worked over: its JSON is open, accessors can be read, replaced and added, and what nothing refers
 * to any more is left out when it is packed. Pictures and buffers that came as files of their own are embedded then.
 *
 * @phpstan-type Map array<string, mixed>
 */
final class GltfDraft
{
    private const TYPES = [1 => 'SCALAR', 2 => 'VEC2', 3 => 'VEC3', 4 => 'VEC4', 16 => 'MAT4'];

    /** @var array<string, mixed> */
    public array $json;

    /** @var array<int, list<float>> accessor to new values */
    private array $values = [];

    /** @var array<int, string> pictures put in, by their place in the list */
    private array $pictures = [];

    /** @var array<int, array{int, bool}> component and normalised, of replaced accessors */
    private array $forms = [];

    private function __construct(private readonly GltfReader $source)
    {
        $this->json = $source->json;
    }

    /**
     * @param  null|Closure(string): ?string  $companion
     *
     * @throws UnableToReadGltf
     */
    public static function open(string $bytes, ?GltfLimits $limits = null, ?Closure $companion = null): self
    {
        return new self(GltfReader::read($bytes, $limits, $companion ?? static fn (string $uri): ?string => null));
    }

    /** As the file stood when it was opened. */
    public function source(): GltfReader
    {
        return $this->source;
    }

    /** The draft as a reader of its own. */
    public function reader(): GltfReader
    {
        return GltfReader::read($this->toGlb());
    }

    /** @return list<Map> */
    public function list(string $name): array
    {
        $list = $this->json[$name] ?? [];

        /** @var list<Map> $list */
        $list = is_array($list) ? array_values(array_filter($list, is_array(...))) : [];

        return $list;
    }

    /** @param  Map  $with  merged over the entry; a null takes a field away */
    public function amend(string $list, int $index, array $with): void
    {
        $entries = $this->list($list);
        $entries[$index] = array_filter($with + $entries[$index], static fn ($v): bool => $v !== null);
        $this->json[$list] = $entries;
    }

    /** @return list<float> */
    public function values(int $accessor): array
    {
        return $this->values[$accessor] ?? $this->source->accessor($accessor, "accessor {$accessor}");
    }

    /** @param  list<float>  $values  as many a row as before */
    public function replace(int $accessor, array $values): void
    {
        $held = $this->list('accessors')[$accessor];
        $index = ($held['type'] ?? '') === 'SCALAR' && in_array($held['componentType'] ?? 0, [5121, 5123, 5125], true) && ($held['normalized'] ?? false) !== true;
        $this->values[$accessor] = $values;
        $this->forms[$accessor] = [$index ? GltfWriter::UINT : GltfWriter::FLOAT, false];
    }

    /** @return int numbers a row */
    public function width(int $accessor): int
    {
        return (int) (array_search($this->list('accessors')[$accessor]['type'] ?? 'SCALAR', self::TYPES, true) ?: 1);
    }

    /**
     * The chosen rows of an accessor as a new one.
     *
     * @param  list<int>  $rows
     */
    public function pick(int $accessor, array $rows, int $component = GltfWriter::FLOAT): int
    {
        $values = $this->values($accessor);
        $width = $this->width($accessor);
        $out = [];
        foreach ($rows as $v) {
            for ($k = 0; $k < $width; $k++) {
                $out[] = $values[$width * $v + $k];
            }
        }

        return $this->add($out, $width, $component);
    }

    /**
     * @param  list<float>  $values
     * @param  int  $width  numbers a row
     */
    public function add(array $values, int $width, int $component = GltfWriter::FLOAT): int
    {
        $all = $this->list('accessors');
        $all[] = ['type' => self::TYPES[$width], 'componentType' => $component, 'count' => intdiv(count($values), $width)];
        $this->json['accessors'] = $all;
        $n = count($all) - 1;
        $this->values[$n] = $values;
        $this->forms[$n] = [$component, false];

        return $n;
    }

    /** Puts a PNG or JPEG in, repeated over the surface; gives its texture. */
    public function addPicture(string $bytes, string $name): int
    {
        $images = $this->list('images');
        $samplers = $this->list('samplers');
        $textures = $this->list('textures');
        $this->pictures[count($images)] = $bytes;
        $images[] = ['name' => $name];
        // Smooth near and far, repeated both ways.
        $samplers[] = ['magFilter' => 9729, 'minFilter' => 9987, 'wrapS' => 10497, 'wrapT' => 10497];
        $textures[] = ['source' => count($images) - 1, 'sampler' => count($samplers) - 1];
        [$this->json['images'], $this->json['samplers'], $this->json['textures']] = [$images, $samplers, $textures];

        return count($textures) - 1;
    }

    /** @param  Map  $entry */
    public function push(string $list, array $entry): int
    {
        $all = $this->list($list);
        $all[] = $entry;
        $this->json[$list] = $all;

        return count($all) - 1;
    }

    /**
     * Every primitive drawn as triangles.
     *
     * @return list<array{mesh: int, primitive: int, attributes: array<string, int>, indices: int|null, material: int|null, targets: list<array<string, int>>}>
     */
    public function primitives(): array
    {
        $out = [];
        foreach ($this->list('meshes') as $m => $mesh) {
            foreach (is_array($mesh['primitives'] ?? null) ? $mesh['primitives'] : [] as $k => $p) {
                if (! is_array($p) || ($p['mode'] ?? 4) !== 4) {
                    continue;
                }

                /** @var array<string, int> $attributes */
                $attributes = array_filter(is_array($p['attributes'] ?? null) ? $p['attributes'] : [], is_int(...));

                /** @var list<array<string, int>> $targets */
                $targets = array_values(array_filter(is_array($p['targets'] ?? null) ? $p['targets'] : [], is_array(...)));
                $out[] = [
                    'mesh' => $m, 'primitive' => (int) $k, 'attributes' => $attributes, 'indices' => is_int($p['indices'] ?? null) ? $p['indices'] : null,
                    'material' => is_int($p['material'] ?? null) ? $p['material'] : null, 'targets' => $targets,
                ];
            }
        }

        return $out;
    }

    /** @return array<string, int> attributes of one primitive, by name to accessor */
    public function attributes(int $mesh, int $primitive): array
    {
        $p = Json::maps($this->list('meshes')[$mesh]['primitives'] ?? [])[$primitive] ?? [];

        return Json::intMap($p['attributes'] ?? null);
    }

    /** @param  Map  $with */
    public function amendPrimitive(int $mesh, int $primitive, array $with): void
    {
        $entry = $this->list('meshes')[$mesh];
        $list = is_array($entry['primitives'] ?? null) ? $entry['primitives'] : [];
        $list[$primitive] = $with + (is_array($list[$primitive] ?? null) ? $list[$primitive] : []);
        $this->amend('meshes', $mesh, ['primitives' => $list]);
    }

    /**
     * Goes through the keys of all motions.
     *
     * @param  callable(int, string, bool, list<float>): (list<float>|null|false)  $turn  gets node, path, whether the keys are cubic, and values; gives new values, null to leave them, false to take the channel out
     */
    public function rewriteKeys(callable $turn): void
    {
        $animations = $this->list('animations');
        foreach ($animations as $n => $animation) {
            $samplers = Json::maps($animation['samplers'] ?? []);
            $channels = [];
            foreach (Json::maps($animation['channels'] ?? []) as $c) {
                $target = Json::map($c['target'] ?? null);
                $sampler = is_int($c['sampler'] ?? null) ? $samplers[$c['sampler']] ?? null : null;
                if ($sampler !== null && is_int($target['node'] ?? null) && is_string($target['path'] ?? null) && is_int($sampler['output'] ?? null)) {
                    $new = $turn($target['node'], $target['path'], ($sampler['interpolation'] ?? '') === 'CUBICSPLINE', $this->values($sampler['output']));
                    if ($new === false) {
                        continue;
                    }
                    if ($new !== null) {
                        // A sampler may serve several channels, so each gets its own.
                        $samplers[] = ['output' => $this->add($new, $this->width($sampler['output']))] + $sampler;
                        $c['sampler'] = count($samplers) - 1;
                    }
                }
                $channels[] = $c;
            }
            $animations[$n] = ['samplers' => $samplers, 'channels' => $channels] + $animation;
        }
        if ($animations !== []) {
            $this->json['animations'] = $animations;
        }
    }

    public function toGlb(): string
    {
        $json = $this->json;
        unset($json['buffers'], $json['bufferViews'], $json['accessors'], $json['images']);
        [$binary, $views, $accessors] = ['', [], []];
        $place = static function (string $bytes, int $stride = 0) use (&$binary, &$views): int {
            $binary .= str_repeat("\0", (4 - strlen($binary) % 4) % 4);
            $views[] = ['buffer' => 0, 'byteOffset' => strlen($binary), 'byteLength' => strlen($bytes)] + ($stride > 0 ? ['byteStride' => $stride] : []);
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
        foreach ($this->list('images') as $i => $image) {
            $bytes = $this->pictures[$i] ?? $this->source->picture($i);
            $name = is_string($image['name'] ?? null) ? $image['name'] : "picture{$i}";
            // A picture that is not there keeps its place, so that its surfaces are known when it comes.
            $images[] = $bytes === null
                ? ['name' => $name, 'bufferView' => $place(self::blank()), 'mimeType' => 'image/png', 'extras' => ['missing' => $this->source->missingPictures[$i] ?? $name]]
                : ['name' => $name, 'bufferView' => $place($bytes), 'mimeType' => str_starts_with($bytes, "\xFF\xD8") ? 'image/jpeg' : 'image/png'];
        }
        $json += array_filter(['accessors' => $accessors, 'bufferViews' => $views, 'images' => $images], static fn (array $l): bool => $l !== []);
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
                $isObject = $value === [] && is_string($key) && (in_array($key, ['extras', 'extensions', 'pbrMetallicRoughness'], true) || str_starts_with($key, 'KHR_'));
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
        $a = $this->list('accessors')[$accessor];
        $rows = isset($this->values[$accessor]) ? null : $this->source->rows($accessor);
        if ($rows !== null) {
            unset($a['byteOffset'], $a['bufferView']);
            $pad = (4 - $rows['size'] * $rows['width'] % 4) % 4;
            if ($pad > 0 && $rows['width'] > 1) {
                // Rows of vertices start on multiples of four (section 3.6.2.4).
                $bytes = implode('', array_map(static fn (string $r): string => $r.str_repeat("\0", $pad), str_split($rows['bytes'], max(1, $rows['size'] * $rows['width']))));

                return ['bufferView' => $place($bytes, $rows['size'] * $rows['width'] + $pad)] + $a;
            }

            return ['bufferView' => $place($rows['bytes'])] + $a;
        }
        $values = $this->values($accessor);
        $width = array_search($a['type'] ?? 'SCALAR', self::TYPES, true) ?: 1;
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
                $primitives[$k] = ['attributes' => $all($p['attributes'] ?? [])] + (is_int($p['indices'] ?? null) ? ['indices' => $turn($p['indices'])] : [])
                    + (isset($p['targets']) ? ['targets' => array_map($all, Json::maps($p['targets']))] : []) + $p;
            }
            $meshes[$m] = ['primitives' => $primitives] + $mesh;
        }
        $skins = array_map(static fn (array $s): array => (is_int($s['inverseBindMatrices'] ?? null) ? ['inverseBindMatrices' => $turn($s['inverseBindMatrices'])] : []) + $s, Json::maps($json['skins'] ?? []));
        $animations = array_map(static fn (array $a): array => ['samplers' => array_map(static fn (array $s): array => $all(array_intersect_key($s, ['input' => 1, 'output' => 1])) + $s, Json::maps($a['samplers'] ?? []))] + $a, Json::maps($json['animations'] ?? []));

        return array_filter(['meshes' => $meshes, 'skins' => $skins, 'animations' => $animations], static fn (array $l): bool => $l !== []) + $json;
    }
}
