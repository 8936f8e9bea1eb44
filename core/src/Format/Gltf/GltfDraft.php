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
    public const TYPES = [1 => 'SCALAR', 2 => 'VEC2', 3 => 'VEC3', 4 => 'VEC4', 16 => 'MAT4'];

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
        // Lists are looked over once, here: what is written later is written by us.
        $this->json = array_map(
            static fn (mixed $v): mixed => is_array($v) && array_is_list($v) ? array_values(array_filter($v, is_array(...))) : $v,
            $source->json,
        );
    }

    /**
     * @param  null|Closure(string): ?string  $companion
     *
     * @throws UnableToReadGltf
     */
    public static function open(string $bytes, ?GltfLimits $limits = null, ?Closure $companion = null): self
    {
        $draft = new self(GltfReader::read($bytes, $limits, $companion ?? static fn (string $uri): ?string => null));
        $draft->listed();

        return $draft;
    }

    /** Strips and fans become lists of triangles, which all that is done here works on. */
    private function listed(): void
    {
        foreach ($this->list('meshes') as $m => $mesh) {
            foreach (Json::maps($mesh['primitives'] ?? []) as $k => $p) {
                $mode = $p['mode'] ?? Triangles::LIST;
                $position = Json::intMap($p['attributes'] ?? null)['POSITION'] ?? null;
                if ($mode !== Triangles::STRIP && $mode !== Triangles::FAN || $position === null) {
                    continue;
                }
                $vertices = is_int($p['indices'] ?? null)
                    ? array_map(intval(...), $this->values($p['indices']))
                    : range(0, intdiv(count($this->values($position)), 3) - 1);
                $index = array_map(floatval(...), Triangles::of($mode, $vertices));
                if ($index !== []) {
                    $this->amendPrimitive($m, $k, ['mode' => Triangles::LIST, 'indices' => $this->add($index, 1, GltfWriter::UINT)]);
                }
            }
        }
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
        $list = is_array($list) && array_is_list($list) ? $list : self::entries($this->json, $name);

        return $list;
    }

    /**
     * @param  Map  $json
     * @return list<Map>
     */
    public static function entries(array $json, string $name): array
    {
        $list = $json[$name] ?? [];

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
        $index = ($held['type'] ?? '') === 'SCALAR' && in_array($held['componentType'] ?? 0, [5121, 5123, 5125], true)
            && ($held['normalized'] ?? false) !== true;
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
                    'mesh' => $m, 'primitive' => (int) $k, 'attributes' => $attributes,
                    'indices' => is_int($p['indices'] ?? null) ? $p['indices'] : null,
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
                if (
                    $sampler !== null && is_int($target['node'] ?? null) && is_string($target['path'] ?? null)
                        && is_int($sampler['output'] ?? null)
                ) {
                    $new = $turn(
                        $target['node'],
                        $target['path'],
                        ($sampler['interpolation'] ?? '') === 'CUBICSPLINE',
                        $this->values($sampler['output']),
                    );
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
        return (new GltfPacker($this->json, $this->source, $this->values(...), $this->values, $this->forms, $this->pictures))->toGlb();
    }
}
