<?php

declare(strict_types=1);

namespace CrispReel\Core\Surfaces;

use Closure;
use CrispReel\Core\Document\Wish;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Math\V3;

/**
 * A model with some of its surfaces in other colours, pictures or finishes. Its points, skin and shapes stay as they are; a
 * tone that gets a picture or a finish of its own becomes a part of its own.
 *
 * @phpstan-import-type Rgb from Oklab
 * @phpstan-import-type Primitive from SurfaceList
 * @phpstan-import-type Group from SurfaceList
 */
final class Dress
{
    /** Bump when the same wishes give another file. */
    public const VERSION = 2;

    /** How much darker or lighter than its tone a point may stay: folds, not other colours. */
    private const SHADES = [0.25, 2.2];

    /**
     * @param  Closure(string): string  $picture  bytes of a picture by hash
     */
    private function __construct(private readonly GltfDraft $draft, private readonly Closure $picture)
    {
    }

    /**
     * @param  list<Wish>  $wishes
     * @param  Closure(string): string  $picture  bytes of a PNG or JPEG by hash
     */
    public static function glb(string $bytes, array $wishes, Closure $picture): string
    {
        $draft = GltfDraft::open($bytes);
        foreach ($wishes as $wish) {
            if ($wish->variant !== null) {
                Variants::put($draft, $wish->variant);
            }
        }
        $dress = new self($draft, $picture);
        foreach (SurfaceList::of($draft)->groups as $group) {
            $dress->group($group, self::meant($group, $wishes));
        }

        return $draft->toGlb();
    }

    /**
     * The wish of each tone of a group; a key whose tone is no longer there goes to the nearest of the same material.
     *
     * @param  Group  $group
     * @param  list<Wish>  $wishes
     * @return array<int, Wish> by tone
     */
    private static function meant(array $group, array $wishes): array
    {
        $out = [];
        foreach ($wishes as $wish) {
            if ($group['tones'] === null) {
                if ($wish->key === $group['name']) {
                    $out[0] = $wish;
                }
            } elseif (preg_match('/^(.*)(#[0-9a-f]{6})$/', $wish->key, $m) === 1 && $m[1] === $group['name']) {
                $out[$group['tones']->nearest(Oklab::linear($m[2]))] = $wish;
            }
        }

        return $out;
    }

    /**
     * @param  Group  $group
     * @param  array<int, Wish>  $wishes
     */
    private function group(array $group, array $wishes): void
    {
        foreach ($wishes === [] ? [] : $group['primitives'] as $p) {
            if ($group['tones'] === null) {
                $this->whole($p, $wishes[0]);
            } else {
                $this->toned($p, $group['tones'], $wishes, $group['factor']);
            }
        }
    }

    /** @param  Primitive  $p */
    private function whole(array $p, Wish $wish): void
    {
        $material = $this->material($p['material'], $wish, $wish->colour === null ? null : Oklab::linear($wish->colour));
        $this->draft->amendPrimitive($p['mesh'], $p['primitive'], ['material' => $material]);
        if ($wish->picture !== null && ! isset($p['attributes']['TEXCOORD_0'])) {
            $this->draft->amendPrimitive(
                $p['mesh'],
                $p['primitive'],
                $this->boxed($p, SurfaceList::triangles($this->draft, $p), $wish->metres),
            );
        }
    }

    /**
     * @param  Primitive  $p
     * @param  array<int, Wish>  $wishes
     * @param  Rgb  $factor
     */
    private function toned(array $p, Tones $tones, array $wishes, array $factor): void
    {
        $colours = SurfaceList::colours($this->draft, $p['attributes']['COLOR_0']);
        $of = [];
        $changed = false;
        for ($v = 0, $n = intdiv(count($colours), 3); $v < $n; $v++) {
            $rgb = [$colours[3 * $v], $colours[3 * $v + 1], $colours[3 * $v + 2]];
            $of[$v] = $tones->nearest($rgb);
            $to = self::target($wishes[$of[$v]] ?? null, $factor);
            if ($to !== null) {
                $changed = true;
                $shade = max(
                    self::SHADES[0],
                    min(self::SHADES[1], Oklab::luminance($rgb) / max(1e-4, Oklab::luminance($tones->all[$of[$v]]['rgb']))),
                );
                foreach ([0, 1, 2] as $k) {
                    $colours[3 * $v + $k] = max(0.0, min(1.0, $to[$k] * $shade));
                }
            }
        }
        if ($changed) {
            $p['attributes'] = ['COLOR_0' => $this->draft->add(array_values($colours), 3)] + $p['attributes'];
            $this->draft->amendPrimitive($p['mesh'], $p['primitive'], ['attributes' => $p['attributes']]);
        }
        $this->split($p, $of, array_filter($wishes, static fn (Wish $w): bool => $w->finish !== null || $w->picture !== null));
    }

    /**
     * What points of a tone are painted in: the colour; white under a picture.
     *
     * @param  Rgb  $factor  of the material, which multiplies them
     * @return Rgb|null
     */
    private static function target(?Wish $wish, array $factor): ?array
    {
        if ($wish === null || ($wish->colour === null && $wish->picture === null)) {
            return null;
        }
        $to = $wish->colour === null ? [1.0, 1.0, 1.0] : Oklab::linear($wish->colour);

        return [$to[0] / max(0.02, $factor[0]), $to[1] / max(0.02, $factor[1]), $to[2] / max(0.02, $factor[2])];
    }

    /**
     * Triangles of tones with a material of their own become primitives of their own.
     *
     * @param  Primitive  $p
     * @param  array<int, int>  $of  tone by point
     * @param  array<int, Wish>  $wishes
     */
    private function split(array $p, array $of, array $wishes): void
    {
        if ($wishes === []) {
            return;
        }
        $index = SurfaceList::triangles($this->draft, $p);
        $parts = [];
        for ($i = 0, $n = count($index) - 2; $i < $n; $i += 3) {
            [$a, $b, $c] = [$of[$index[$i]], $of[$index[$i + 1]], $of[$index[$i + 2]]];
            $tone = $b === $c ? $b : $a;
            $to = isset($wishes[$tone]) ? $tone : -1;
            $parts[$to][] = $index[$i];
            $parts[$to][] = $index[$i + 1];
            $parts[$to][] = $index[$i + 2];
        }
        $made = [];
        if ($this->isCloth()) {
            // What hangs as one cloth stays one surface.
            $parts = [array_key_first($wishes) => $index];
        }
        foreach ($parts as $tone => $triangles) {
            $wish = $wishes[$tone] ?? null;
            $part = ['material' => $wish === null ? $p['material'] : $this->material($p['material'], $wish, null)];
            $made[] = $part + ($wish?->picture !== null && ! isset($p['attributes']['TEXCOORD_0'])
                ? $this->boxed($p, $triangles, $wish->metres)
                : ['indices' => $this->draft->add(array_map(floatval(...), $triangles), 1, GltfWriter::UINT)]);
        }
        $mesh = $this->draft->list('meshes')[$p['mesh']];
        $primitives = Json::maps($mesh['primitives'] ?? []);
        $old = ['attributes' => $p['attributes']] + $primitives[$p['primitive']];
        foreach ($made as $k => $part) {
            $whole = array_filter($part + $old, static fn (mixed $v): bool => $v !== null);
            if ($k === 0) {
                $primitives[$p['primitive']] = $whole;
            } else {
                $primitives[] = $whole;
            }
        }
        $this->draft->amend('meshes', $p['mesh'], ['primitives' => $primitives]);
    }

    private function isCloth(): bool
    {
        $extras = Json::map(Json::map($this->draft->json['asset'] ?? [])['extras'] ?? []);

        return isset($extras['cloth']);
    }

    /** @param  Rgb|null  $factor */
    private function material(?int $from, Wish $wish, ?array $factor): int
    {
        $m = $this->draft->list('materials')[$from ?? -1] ?? [];
        $pbr = Json::map($m['pbrMetallicRoughness'] ?? []);
        $extras = Json::map($m['extras'] ?? []);
        if ($factor !== null) {
            $alpha = Json::floats($pbr['baseColorFactor'] ?? [])[3] ?? 1.0;
            $pbr = ['baseColorFactor' => [...$factor, $alpha]] + $pbr;
        }
        if ($wish->finish !== null) {
            [$rough, $metal, $gloss] = Wish::FINISHES[$wish->finish];
            unset($pbr['metallicRoughnessTexture']);
            $pbr = ['roughnessFactor' => $rough, 'metallicFactor' => $metal] + $pbr;
            $extras = ['gloss' => $gloss] + $extras;
        }
        if ($wish->picture !== null) {
            $pbr = ['baseColorTexture' => ['index' => $this->draft->addPicture(
                ($this->picture)($wish->picture),
                substr($wish->picture, 0, 12),
            )]] + $pbr;
            if ($factor === null) {
                $pbr = ['baseColorFactor' => [1.0, 1.0, 1.0, 1.0]] + $pbr;
            }
        }

        return $this->draft->push(
            'materials',
            array_filter(['pbrMetallicRoughness' => $pbr, 'extras' => $extras], static fn (array $v): bool => $v !== []) + $m,
        );
    }

    /**
     * Triangles with points of their own, each seen along the axis that it faces most: a picture is laid on from six sides.
     *
     * @param  Primitive  $p
     * @param  list<int>  $triangles
     * @return array<string, mixed> attributes, indices and targets
     */
    private function boxed(array $p, array $triangles, float $metres): array
    {
        $at = $this->draft->values($p['attributes']['POSITION']);
        $keys = $index = [];
        for ($i = 0, $n = count($triangles) - 2; $i < $n; $i += 3) {
            [$a, $b, $c] = array_map(
                static fn (int $v): array => [$at[3 * $v], $at[3 * $v + 1], $at[3 * $v + 2]],
                [$triangles[$i], $triangles[$i + 1], $triangles[$i + 2]],
            );
            $side = self::side(V3::cross(V3::sub($b, $a), V3::sub($c, $a)));
            foreach ([0, 1, 2] as $k) {
                $index[] = $key = 6 * $triangles[$i + $k] + $side;
                $keys[$key] = true;
            }
        }
        // In the order of the points they come from: a cloth's particles are told by it.
        ksort($keys);
        $new = array_flip(array_keys($keys));
        $order = $map = [];
        foreach ($keys as $key => $_) {
            $order[] = $v = intdiv($key, 6);
            array_push($map, ...self::laid([$at[3 * $v], $at[3 * $v + 1], $at[3 * $v + 2]], $key % 6, $metres));
        }
        $index = array_map(static fn (int $key): float => (float) $new[$key], $index);
        $attributes = ['TEXCOORD_0' => $this->draft->add($map, 2)];
        foreach ($p['attributes'] as $name => $accessor) {
            $attributes[$name] ??= $this->draft->pick(
                $accessor,
                $order,
                str_starts_with($name, 'JOINTS') ? GltfWriter::USHORT : GltfWriter::FLOAT,
            );
        }

        return ['attributes' => $attributes, 'indices' => $this->draft->add($index, 1, GltfWriter::UINT)]
            + ($p['targets'] === [] ? [] : ['targets' => array_map(
                fn (array $t): array => array_map(fn (int $a): int => $this->draft->pick($a, $order), $t),
                $p['targets'],
            )]);
    }

    /** @param  Rgb  $normal  0 and 1 along x, 2 and 3 along y, 4 and 5 along z */
    private static function side(array $normal): int
    {
        $size = array_map(abs(...), $normal);
        $axis = $size[0] >= $size[1] && $size[0] >= $size[2] ? 0 : ($size[1] >= $size[2] ? 1 : 2);

        return 2 * $axis + ($normal[$axis] < 0.0 ? 1 : 0);
    }

    /**
     * Place on the picture; upright on walls, and read from left to right from outside.
     *
     * @param  Rgb  $at
     * @return array{float, float}
     */
    private static function laid(array $at, int $side, float $metres): array
    {
        [$u, $v] = match ($side) {
            0 => [-$at[2], -$at[1]], 1 => [$at[2], -$at[1]], 2 => [$at[0], $at[2]], 3 => [$at[0], -$at[2]], 4 => [$at[0], -$at[1]],
            default => [-$at[0], -$at[1]],
        };

        return [$u / $metres, $v / $metres];
    }
}
