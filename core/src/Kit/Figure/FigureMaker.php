<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\V3;

/** From a spec to a dressed, skinned GLB with face shapes. */
final class FigureMaker
{
    /** Draw order and one primitive per paint; the face is apart so that only it carries morph targets. */
    private const PAINTS = ['skin', 'cloth', 'knit', 'hair', 'leather', 'metal', 'eye', 'gloss'];

    private Workshop $shop;

    private float $scale;

    /** @var array{float, float, float} the head joint, about which the head is enlarged */
    private array $pivot = [0.0, 0.0, 0.0];

    private function __construct(private readonly FigureSpec $spec)
    {
        $this->shop = new Workshop(new Body($spec));
        $this->scale = $spec->heightMetres / 1.70;
    }

    public static function glb(FigureSpec $spec): string
    {
        $maker = new self($spec);
        (new HeadMaker($maker->shop))->make();
        (new ClothesMaker($maker->shop))->make();
        $maker->shop->shade();
        $maker->sizeUp();

        return $maker->write();
    }

    /** Head scale about the head joint, then the height of the whole. */
    private function sizeUp(): void
    {
        $body = $this->shop->body;
        $this->pivot = $body->at('head');
        $head = $this->spec->head;
        $all = $this->scale;
        foreach ($this->shop->parts as $name => $part) {
            $this->shop->parts[$name] = $part->onHead
                ? $part->scaled($this->onHead(...), $head * $all)
                : $part->scaled(/** @param  array{float, float, float}  $p */ static fn (array $p): array => V3::mul($p, $all), $all);
        }
        foreach ($body->joints as $name => $j) {
            $body->joints[$name]['at'] = in_array($name, ['eyeL', 'eyeR', 'jaw'], true) ? $this->onHead($j['at']) : V3::mul($j['at'], $all);
        }
    }

    /**
     * @param  array{float, float, float}  $p
     * @return array{float, float, float}
     */
    private function onHead(array $p): array
    {
        return V3::mul(V3::add($this->pivot, V3::mul(V3::sub($p, $this->pivot), $this->spec->head)), $this->scale);
    }

    private function write(): string
    {
        $w = new GltfWriter('Crisp Reel kit', [
            'name' => $this->spec->name, 'licence' => 'CC0-1.0', 'figure' => $this->facts(), 'spec' => $this->spec->toArray(),
        ]);
        $names = array_keys($this->shop->body->joints);
        $order = array_flip($names);
        $primitives = [];
        foreach (self::PAINTS as $paint) {
            foreach ([true, false] as $moving) {
                $parts = array_values(array_filter(
                    $this->shop->parts,
                    static fn (Part $p): bool => $p->paint === $paint && ($p->morphs !== []) === $moving,
                ));
                if ($parts !== []) {
                    $primitives[] = [$this->primitive($w, $parts, $order, $moving), $paint, $moving];
                }
            }
        }
        $this->nodes($w, $names, $order, $primitives);

        return $w->toGlb();
    }

    /** @return array<string, mixed> what a motion model needs to know of this body */
    private function facts(): array
    {
        $z = [0.0];
        foreach ($this->shop->parts as $name => $part) {
            if (str_starts_with($name, 'sole')) {
                foreach ($part->surface->points as $p) {
                    if ($p[1] < 0.006 * $this->scale) {
                        $z[] = $p[2];
                    }
                }
            }
        }

        return ['soleBack' => min($z), 'soleFront' => max($z), 'height' => $this->spec->heightMetres, 'seed' => $this->spec->seed];
    }

    /**
     * @param  list<Part>  $parts
     * @param  array<string, int>  $order
     * @return array<string, mixed>
     */
    private function primitive(GltfWriter $w, array $parts, array $order, bool $moving): array
    {
        $positions = $normals = $colours = $joints = $weights = $index = [];
        $morphs = $moving ? array_fill_keys(Face::MORPHS, []) : [];
        foreach ($parts as $part) {
            $base = intdiv(count($positions), 3);
            foreach ($part->surface->points as $i => $p) {
                array_push($positions, ...$p);
                array_push($normals, ...V3::unit($part->surface->normals[$i]));
                foreach ($part->colours[$i] as $c) {
                    $colours[] = (int) round(max(0.0, min(1.0, $c)) * 65535);
                }
                $colours[] = 65535;
                [$js, $ws] = self::skinRow($part->weights[$i], $order);
                array_push($joints, ...$js);
                array_push($weights, ...$ws);
                foreach ($morphs as $name => $_) {
                    array_push($morphs[$name], ...($part->morphs[$name][$i] ?? [0.0, 0.0, 0.0]));
                }
            }
            foreach ($part->surface->index as $k) {
                $index[] = $base + $k;
            }
        }
        $primitive = [
            'attributes' => [
                'POSITION' => $w->vertices($positions, 'VEC3', bounds: true),
                'NORMAL' => $w->vertices($normals, 'VEC3'),
                'COLOR_0' => $w->vertices($colours, 'VEC4', GltfWriter::USHORT, true),
                'JOINTS_0' => $w->vertices($joints, 'VEC4', GltfWriter::UBYTE),
                'WEIGHTS_0' => $w->vertices($weights, 'VEC4', GltfWriter::USHORT, true),
            ],
            'indices' => $w->indices($index),
        ];
        if ($moving) {
            $primitive['targets'] = array_map(static fn (array $m): array => ['POSITION' => $w->sparse($m)], array_values($morphs));
        }

        return $primitive;
    }

    /**
     * Four joints and 16-bit weights that sum to 65535 exactly.
     *
     * @param  array<string, float>  $row
     * @param  array<string, int>  $order
     * @return array{list<int>, list<int>}
     */
    private static function skinRow(array $row, array $order): array
    {
        $row = SkinWeights::normalised(array_filter($row, static fn (float $v): bool => $v > 0.004));
        $js = [];
        $ws = [];
        foreach ($row as $name => $v) {
            $js[] = $order[$name];
            $ws[] = (int) round($v * 65535);
        }
        $ws[0] += 65535 - array_sum($ws);

        return [array_pad($js, 4, 0), array_pad($ws, 4, 0)];
    }

    /**
     * @param  list<string>  $names
     * @param  array<string, int>  $order
     * @param  list<array{array<string, mixed>, string, bool}>  $primitives
     */
    private function nodes(GltfWriter $w, array $names, array $order, array $primitives): void
    {
        $joints = $this->shop->body->joints;
        $children = [];
        foreach ($names as $i => $name) {
            if ($joints[$name]['parent'] !== null) {
                $children[$order[$joints[$name]['parent']]][] = $i;
            }
        }
        $inverse = [];
        foreach ($names as $i => $name) {
            $at = $joints[$name]['at'];
            $parent = $joints[$name]['parent'];
            $local = $parent === null ? $at : V3::sub($at, $joints[$parent]['at']);
            $w->push('nodes', ['name' => $name, 'translation' => $local] + (isset($children[$i]) ? ['children' => $children[$i]] : []));
            array_push($inverse, ...M4::compose(V3::mul($at, -1.0), [0.0, 0.0, 0.0, 1.0], [1.0, 1.0, 1.0]));
        }
        $skin = $w->push('skins', [
            'name' => $this->spec->name, 'joints' => range(0, count($names) - 1), 'skeleton' => 0,
            'inverseBindMatrices' => $w->accessor($inverse, 'MAT4'),
        ]);
        $top = [0];
        foreach ($primitives as [$primitive, $paint, $moving]) {
            $primitive['material'] = $w->push('materials', self::material($paint));
            $mesh = ['name' => $paint.($moving ? 'Face' : ''), 'primitives' => [$primitive]];
            if ($moving) {
                $mesh['extras'] = ['targetNames' => Face::MORPHS];
                $mesh['weights'] = array_fill(0, count(Face::MORPHS), 0.0);
            }
            $top[] = $w->push('nodes', ['name' => $mesh['name'], 'mesh' => $w->push('meshes', $mesh), 'skin' => $skin]);
        }
        $w->scene($top, $this->spec->name);
    }

    /** @return array<string, mixed> plain values for other programs; our own drawing reads the paint's name */
    private static function material(string $paint): array
    {
        return [
            'name' => $paint,
            'doubleSided' => in_array($paint, ['cloth', 'gloss'], true),
            'pbrMetallicRoughness' => [
                'metallicFactor' => $paint === 'metal' ? 0.55 : 0.0,
                'roughnessFactor' => [
                    'skin' => 0.74, 'cloth' => 0.95, 'knit' => 1.0, 'hair' => 0.8, 'leather' => 0.62, 'metal' => 0.38, 'eye' => 0.22,
                    'gloss' => 0.55,
                ][$paint],
            ],
            'extras' => ['paint' => $paint],
        ];
    }
}
