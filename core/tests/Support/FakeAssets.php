<?php

declare(strict_types=1);

namespace CrispReel\Core\Tests\Support;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Costume;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Kit\Motions\MotionKit;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\Bicycle;
use CrispReel\Core\Kit\Pier\Ferry;
use CrispReel\Core\Kit\Pier\Props;
use CrispReel\Core\Kit\Pier\RowingBoat;
use CrispReel\Core\Kit\Places\Furniture;
use CrispReel\Core\Motion\Model\MotionRecipe;

/** Assets in memory: the kit's figures (made once a run; all by their slugs), a box, a key with a hold, and every motion model. */
final class FakeAssets implements AssetSource
{
    /** @var array<string, string> */
    private static array $glb = [];

    /** @var array<string, array<string, mixed>> */
    private static array $digests = [];

    /** @var array<string, string> */
    public array $solved = [];

    public int $kept = 0;

    public static function glb(string $name): string
    {
        return self::$glb[$name] ??= match ($name) {
            'oda' => FigureMaker::glb(FigureSpec::oda()),
            'bram' => FigureMaker::glb(FigureSpec::bram()),
            'box' => self::box(),
            'key' => self::box(['hold' => [0.0, 0.075, 0.0]]),
            'lantern' => self::box(['hang' => [0.0, 0.40, 0.0]]),
            'wagon' => self::wagon(),
            'bicycle' => Bicycle::draw()->glb(extras: ['vehicle' => Bicycle::vehicle()]),
            // Four metres square, rising by 0.2 a metre towards +z from y = 0 in its middle.
            'ramp' => (new Piece('Ramp', 1))->add(
                Shapes::sheet([[-2.0, -0.4, -2.0], [-2.0, 0.4, 2.0], [2.0, -0.4, -2.0], [2.0, 0.4, 2.0]], 1, 1),
                0x888888,
                jitter: 0.0,
                shift: 0.0,
                wave: 0.0,
            )->glb(),
            'boat' => RowingBoat::draw()->glb(extras: ['vehicle' => RowingBoat::vehicle()], doubleSided: true),
            'cloak' => Costume::all()[0]['glb'],
            'banner' => Ferry::pennant()
                ->glb(extras: ['cloth' => ['pins' => [['low' => [-0.001, -1.0, -1.0], 'high' => [0.1, 1.0, 1.0]]]]], doubleSided: true),
            'chair' => self::piece(Furniture::chair(...)),
            'bench' => self::piece(Props::bench(...)),
            'stool' => self::box(['top' => [0.0, 0.5, 0.0]]),
            default => preg_match('/^slope(\d+)$/', $name, $m) === 1 ? self::slope((float) $m[1]) : (isset(FigureSpec::house()[$name])
                ? FigureMaker::glb(FigureSpec::house()[$name])
                : throw new \LogicException("No asset {$name}.")),
        };
    }

    /** Six metres that rise towards +z by so many degrees, from the ground at their near edge, and a landing of two metres behind. */
    public static function slope(float $degrees): string
    {
        $top = 6.0 * tan(deg2rad($degrees));
        $piece = new Piece('Slope', 1);
        foreach ([[0.0, 0.0, 6.0, $top], [6.0, $top, 8.0, $top]] as [$z, $low, $far, $high]) {
            $piece->add(
                Shapes::sheet([[-1.0, $low, $z], [-1.0, $high, $far], [1.0, $low, $z], [1.0, $high, $far]], 1, 1),
                0x888888, jitter: 0.0, shift: 0.0, wave: 0.0,
            );
        }

        return $piece->glb();
    }

    /** @return array<string, mixed> */
    public static function digestOf(string $name): array
    {
        return self::$digests[$name] ??= AssetDigest::of(GltfReader::read(self::glb($name)));
    }

    public function digest(AssetRef $asset): array
    {
        if (str_starts_with($asset->digest, 'reading:')) {
            /** @var array<string, mixed> */
            return json_decode($this->solved[substr($asset->digest, 8)], true, 64, JSON_THROW_ON_ERROR);
        }
        if (! str_starts_with($asset->id, 'm-')) {
            return self::digestOf($asset->id);
        }
        $motion = substr($asset->id, 2);
        if ($motion === 'recordedWalk') {
            return ['kind' => 'motion', 'format' => 'bvh'];
        }
        if (in_array($motion, ['getOn', 'getOff', 'waitOn'], true)) {
            $way = ['getOn' => 'on', 'getOff' => 'off', 'waitOn' => 'wait'][$motion];

            return ['kind' => 'motion', 'recipe' => ['model' => 'mount', 'settings' => ['way' => $way, 'seed' => 3]]];
        }
        if (in_array($motion, ['leadByHand', 'ledByHand', 'flee', 'carrySomebody'], true)) {
            [$kit] = array_values(array_filter(
                MotionKit::all(), static fn (array $m): bool => str_replace('-', '', $m['slug']) === strtolower($motion),
            ));

            return ['kind' => 'motion', 'recipe' => $kit['recipe']->toArray()];
        }
        [$model, $settings] = in_array($motion, MotionRecipe::MODELS, true) ? [$motion, []] : ['act', ['score' => $motion]];

        return ['kind' => 'motion', 'recipe' => ['model' => $model, 'settings' => $settings + ['seed' => 3]]];
    }

    public function blob(AssetRef $asset): string
    {
        return $asset->id === 'm-recordedWalk' ? walkAsBvh() : self::glb($asset->id);
    }

    public function solved(string $key): ?string
    {
        return $this->solved[$key] ?? null;
    }

    public function keep(string $key, string $bytes): void
    {
        $this->solved[$key] = $bytes;
        $this->kept++;
    }

    /** A cart with four wheels that turn: wheelbase 1.2 m, radius 0.25 m, grips behind; it faces +Z. */
    public static function wagon(): string
    {
        $wheels = [];
        $w = new GltfWriter(
            'test',
            ['vehicle' => [
                'rear' => [0.0, -0.6],
                'wheelbase' => 1.2,
                'wheels' => array_map(
                    static fn (array $p): array => ['joint' => $p[0], 'x' => $p[1], 'z' => $p[2], 'radius' => 0.25, 'steers' => $p[2] > 0],
                    [['fl', 0.4, 0.6], ['fr', -0.4, 0.6], ['rl', 0.4, -0.6], ['rr', -0.4, -0.6]],
                ),
            ]],
        );
        $mesh = $w->push(
            'meshes',
            ['primitives' => [[
                'attributes' => ['POSITION' => $w->vertices([-0.4, 0.3, -0.7, 0.4, 0.3, -0.7, 0.0, 0.3, 0.7], 'VEC3', bounds: true)],
                'indices' => $w->indices([0, 2, 1]),
            ]]],
        );
        foreach ([['fl', 0.4, 0.6], ['fr', -0.4, 0.6], ['rl', 0.4, -0.6], ['rr', -0.4, -0.6]] as [$name, $x, $z]) {
            $wheels[] = $w->push('nodes', ['name' => "joint:{$name}", 'translation' => [$x, 0.25, $z]]);
        }
        $top = [$w->push('nodes', [
            'name' => 'joint:body',
            'children' => [...$wheels, $w->push('nodes', ['name' => 'bed', 'mesh' => $mesh])],
        ])];
        foreach (['gripL' => 0.25, 'gripR' => -0.25] as $name => $x) {
            $top[] = $w->push('nodes', ['name' => "mount:{$name}", 'translation' => [$x, 0.9, -1.0]]);
        }
        $w->scene($top, 'wagon');

        return $w->toGlb();
    }

    /** @param  \Closure(Piece): mixed  $draw */
    private static function piece(\Closure $draw): string
    {
        $p = new Piece('Piece', 1);
        $draw($p);

        return $p->glb();
    }

    /**
     * A unit cube from y = 0 to 1.
     *
     * @param  array<string, list<float>>  $mounts
     */
    public static function box(array $mounts = []): string
    {
        $w = new GltfWriter('test');
        $points = [];
        foreach ([0, 1, 2, 3, 4, 5, 6, 7] as $i) {
            array_push($points, ($i & 1) - 0.5, ($i >> 1) & 1, ($i >> 2) - 0.5);
        }
        $points = array_map(floatval(...), $points);
        $index = [0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7, 5];
        $mesh = $w->push(
            'meshes',
            ['primitives' => [[
                'attributes' => ['POSITION' => $w->vertices($points, 'VEC3', bounds: true)],
                'indices' => $w->indices($index),
            ]]],
        );
        $top = [$w->push('nodes', ['name' => 'box', 'mesh' => $mesh])];
        foreach ($mounts as $name => $at) {
            $top[] = $w->push('nodes', ['name' => 'mount:'.$name, 'translation' => $at]);
        }
        $w->scene($top, 'box');

        return $w->toGlb();
    }
}
