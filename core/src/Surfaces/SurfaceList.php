<?php

declare(strict_types=1);

namespace CrispReel\Core\Surfaces;

use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Math\V3;

/**
 * The surfaces of a model as a person would name them: one a material, and where a material is painted in several tones,
 * one a tone. Keys stay the same when the file is brought in again: the material's name, and the tone's colour.
 *
 * @phpstan-import-type Rgb from Oklab
 * @phpstan-type Primitive array{mesh: int, primitive: int, attributes: array<string, int>, indices: int|null, material: int|null, targets: list<array<string, int>>}
 * @phpstan-type Group array{name: string, primitives: list<Primitive>, tones: Tones|null, factor: Rgb, picture: bool, area: float}
 */
final class SurfaceList
{
    /** @param  list<Group>  $groups */
    private function __construct(public readonly array $groups)
    {
    }

    public static function of(GltfDraft $draft): self
    {
        $groups = [];
        $all = 0.0;
        foreach (self::byName($draft) as $name => $primitives) {
            $material = $draft->list('materials')[$primitives[0]['material'] ?? -1] ?? [];
            $pbr = Json::map($material['pbrMetallicRoughness'] ?? []);
            [$colours, $weights] = self::painted($draft, $primitives);
            $factor = Json::floats($pbr['baseColorFactor'] ?? []);
            $groups[] = [
                'name' => (string) $name, 'primitives' => $primitives, 'tones' => $colours === null ? null : Tones::of($colours, $weights),
                'factor' => [$factor[0] ?? 1.0, $factor[1] ?? 1.0, $factor[2] ?? 1.0], 'picture' => isset($pbr['baseColorTexture']),
                'area' => array_sum($weights),
            ];
            $all += array_sum($weights);
        }

        return new self(array_map(static fn (array $g): array => ['area' => $all > 0.0 ? $g['area'] / $all : 0.0] + $g, $groups));
    }

    /** @return array<string, list<Primitive>> */
    private static function byName(GltfDraft $draft): array
    {
        $out = [];
        $materials = $draft->list('materials');
        foreach ($draft->primitives() as $p) {
            $name = $p['material'] === null ? '' : $materials[$p['material']]['name'] ?? '';
            $out[is_string($name) && $name !== '' ? $name : 'surface '.(($p['material'] ?? -1) + 1)][] = $p;
        }

        return $out;
    }

    /**
     * Colours and areas at all points of some primitives; no colours where one of them has none.
     *
     * @param  list<Primitive>  $primitives
     * @return array{list<float>|null, list<float>}
     */
    private static function painted(GltfDraft $draft, array $primitives): array
    {
        $colours = $weights = [];
        $every = true;
        foreach ($primitives as $p) {
            array_push($weights, ...self::areas($draft, $p));
            $every = $every && isset($p['attributes']['COLOR_0']);
            if ($every) {
                array_push($colours, ...self::colours($draft, $p['attributes']['COLOR_0']));
            }
        }

        return [$every ? $colours : null, $weights];
    }

    /** @return list<float> r, g, b a point, whether alpha is there or not */
    public static function colours(GltfDraft $draft, int $accessor): array
    {
        $values = $draft->values($accessor);
        if ($draft->width($accessor) === 3) {
            return $values;
        }
        $out = [];
        for ($i = 0, $n = count($values); $i < $n; $i += 4) {
            array_push($out, $values[$i], $values[$i + 1], $values[$i + 2]);
        }

        return $out;
    }

    /**
     * A third of the area of its triangles at each point, in the mesh's own units.
     *
     * @param  Primitive  $p
     * @return list<float>
     */
    private static function areas(GltfDraft $draft, array $p): array
    {
        $at = $draft->values($p['attributes']['POSITION']);
        $index = self::triangles($draft, $p);
        $out = array_fill(0, intdiv(count($at), 3), 0.0);
        for ($i = 0, $n = count($index) - 2; $i < $n; $i += 3) {
            [$a, $b, $c] = array_map(
                static fn (int $v): array => [$at[3 * $v], $at[3 * $v + 1], $at[3 * $v + 2]],
                [$index[$i], $index[$i + 1], $index[$i + 2]],
            );
            $third = V3::length(V3::cross(V3::sub($b, $a), V3::sub($c, $a))) / 6;
            foreach ([0, 1, 2] as $k) {
                $out[$index[$i + $k]] += $third;
            }
        }

        return array_values($out);
    }

    /**
     * @param  Primitive  $p
     * @return list<int>
     */
    public static function triangles(GltfDraft $draft, array $p): array
    {
        return $p['indices'] === null
            ? range(0, intdiv(count($draft->values($p['attributes']['POSITION'])), 3) - 1)
            : array_map(intval(...), $draft->values($p['indices']));
    }

    /** @return list<array{key: string, name: string, colour: string, picture: bool, share: float}> the largest first */
    public function toArray(): array
    {
        $out = [];
        foreach ($this->groups as $g) {
            foreach ($g['tones']->all ?? [['rgb' => $g['factor'], 'share' => 1.0]] as $t) {
                $rgb = $g['tones'] === null
                    ? $t['rgb']
                    : [$t['rgb'][0] * $g['factor'][0], $t['rgb'][1] * $g['factor'][1], $t['rgb'][2] * $g['factor'][2]];
                $several = count($g['tones']->all ?? []) > 1;
                $out[] = [
                    'key' => self::key($g, $t['rgb']),
                    'name' => ucfirst(
                        $several
                            ? Oklab::name($rgb).($g['name'] === 'set' ? '' : " {$g['name']}")
                            : ($g['name'] === 'set' ? 'all of it' : $g['name'])
                    ),
                    'colour' => Oklab::hex($rgb), 'picture' => $g['picture'], 'share' => round($t['share'] * $g['area'], 4),
                ];
            }
        }
        usort($out, static fn (array $a, array $b): int => $b['share'] <=> $a['share']);

        return self::toldApart($out);
    }

    /**
     * @param  Group  $group
     * @param  Rgb  $tone
     */
    public static function key(array $group, array $tone): string
    {
        return $group['tones'] === null ? $group['name'] : $group['name'].Oklab::hex($tone);
    }

    /**
     * @param  list<array{key: string, name: string, colour: string, picture: bool, share: float}>  $list
     * @return list<array{key: string, name: string, colour: string, picture: bool, share: float}>
     */
    private static function toldApart(array $list): array
    {
        $seen = [];
        foreach ($list as $k => $s) {
            $n = $seen[$s['name']] = ($seen[$s['name']] ?? 0) + 1;
            $list[$k]['name'] = $n > 1 ? "{$s['name']} {$n}" : $s['name'];
        }

        return $list;
    }
}
