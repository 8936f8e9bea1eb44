<?php

declare(strict_types=1);

namespace CrispReel\Core\Surfaces;

use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\Json;

/** Sets of materials that a file offers in place of one another (glTF extension KHR_materials_variants): painted, rusty, snowed in. */
final class Variants
{
    private const NAME = 'KHR_materials_variants';

    /** @return list<array{name: string, colour: string, picture: bool}> colour and picture of the first material that each puts on */
    public static function of(GltfDraft $draft): array
    {
        $out = [];
        foreach (self::names($draft) as $n => $name) {
            $first = self::mapped($draft, $n)[0]['to'] ?? -1;
            $pbr = Json::map(($draft->list('materials')[$first] ?? [])['pbrMetallicRoughness'] ?? []);
            $c = Json::floats($pbr['baseColorFactor'] ?? []);
            $out[] = [
                'name' => $name, 'colour' => Oklab::hex([$c[0] ?? 1.0, $c[1] ?? 1.0, $c[2] ?? 1.0]),
                'picture' => isset($pbr['baseColorTexture']),
            ];
        }

        return $out;
    }

    /** Puts the materials of a variant on; one that is not there changes nothing. */
    public static function put(GltfDraft $draft, string $variant): void
    {
        $n = array_search($variant, self::names($draft), true);
        foreach ($n === false ? [] : self::mapped($draft, $n) as ['mesh' => $mesh, 'primitive' => $primitive, 'to' => $to]) {
            $draft->amendPrimitive($mesh, $primitive, ['material' => $to]);
        }
    }

    /** @return list<string> */
    private static function names(GltfDraft $draft): array
    {
        $all = Json::maps(Json::map(Json::map($draft->json['extensions'] ?? [])[self::NAME] ?? [])['variants'] ?? []);
        $names = [];
        foreach ($all as $n => $v) {
            $name = is_string($v['name'] ?? null) && $v['name'] !== '' ? mb_substr($v['name'], 0, 80) : 'variant '.($n + 1);
            $names[] = in_array($name, $names, true) ? "{$name} ".($n + 1) : $name;
        }

        return $names;
    }

    /** @return list<array{mesh: int, primitive: int, to: int}> */
    private static function mapped(GltfDraft $draft, int $variant): array
    {
        $out = [];
        $count = count($draft->list('materials'));
        foreach ($draft->primitives() as ['mesh' => $mesh, 'primitive' => $primitive]) {
            $p = Json::maps($draft->list('meshes')[$mesh]['primitives'] ?? [])[$primitive] ?? [];
            foreach (Json::maps(Json::map(Json::map($p['extensions'] ?? [])[self::NAME] ?? [])['mappings'] ?? []) as $m) {
                $to = $m['material'] ?? null;
                if (is_int($to) && $to >= 0 && $to < $count && in_array($variant, Json::ints($m['variants'] ?? []), true)) {
                    $out[] = ['mesh' => $mesh, 'primitive' => $primitive, 'to' => $to];
                }
            }
        }

        return $out;
    }
}
