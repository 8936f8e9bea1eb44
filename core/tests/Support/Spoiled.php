<?php

declare(strict_types=1);

namespace CrispReel\Core\Tests\Support;

use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;

/** A good figure, and the same one as careless exporters would hand it over. */
final class Spoiled
{
    private static ?string $good = null;

    public static function good(): string
    {
        return self::$good ??= FigureMaker::glb(FigureSpec::oda());
    }

    /**
     * Everything under one more node.
     *
     * @param  array{float, float, float, float}  $turn
     * @param  array{float, float, float}  $move
     */
    public static function under(string $glb, float $scale, array $turn = [0.0, 0.0, 0.0, 1.0], array $move = [0.0, 0.0, 0.0]): string
    {
        $d = GltfDraft::open($glb);
        $nodes = $d->list('nodes');
        $nodes[] = [
            'name' => 'Armature', 'children' => $d->list('scenes')[0]['nodes'], 'scale' => [$scale, $scale, $scale], 'rotation' => $turn,
            'translation' => $move,
        ];
        $d->json['nodes'] = $nodes;
        $d->json['scenes'] = [['nodes' => [count($nodes) - 1]]];
        $d->json['scene'] = 0;

        return $d->toGlb();
    }

    /** Surfaces alone: no joints, no weights. */
    public static function naked(string $glb): string
    {
        $d = GltfDraft::open($glb);
        $nodes = array_values(array_filter($d->list('nodes'), static fn (array $n): bool => isset($n['mesh'])));
        foreach ($nodes as $i => $_) {
            unset($nodes[$i]['skin'], $nodes[$i]['children']);
        }
        $d->json['nodes'] = $nodes;
        $d->json['scenes'] = [['nodes' => array_keys($nodes)]];
        unset($d->json['skins'], $d->json['animations']);
        foreach ($d->list('meshes') as $m => $mesh) {
            foreach (array_keys($mesh['primitives']) as $k) {
                $d->amendPrimitive($m, $k, ['attributes' => array_diff_key($d->attributes($m, $k), ['JOINTS_0' => 1, 'WEIGHTS_0' => 1])]);
            }
        }

        return $d->toGlb();
    }

    /** With a loose hat, a collision body, a camera, a light, and joints renamed to $names. */
    public static function cluttered(string $glb): string
    {
        $d = GltfDraft::open($glb);
        $meshes = $d->list('meshes');
        foreach (['hat' => 0.12, 'body_collision' => 0.6] as $name => $half) {
            [$points, $index] = self::box($half, [0.0, $name === 'hat' ? 1.85 : 0.9, 0.0]);
            $meshes[] = [
                'name' => $name,
                'primitives' => [['attributes' => ['POSITION' => $d->add($points, 3)], 'indices' => $d->add($index, 1, 5125)]],
            ];
        }
        $d->json['meshes'] = $meshes;
        $n = count($d->list('nodes'));
        $d->json['nodes'] = [
            ...$d->list('nodes'), ['name' => 'hat', 'mesh' => count($meshes) - 2], ['name' => 'body_collision', 'mesh' => count($meshes) - 1],
            ['name' => 'Camera', 'camera' => 0], ['name' => 'Sun', 'extensions' => ['KHR_lights_punctual' => ['light' => 0]]],
        ];
        $d->json['cameras'] = [['type' => 'perspective', 'perspective' => ['yfov' => 0.8, 'znear' => 0.1]]];
        $d->json['extensions'] = ['KHR_lights_punctual' => ['lights' => [['type' => 'directional']]]];
        $d->json['extensionsUsed'] = ['KHR_lights_punctual'];
        $d->json['scenes'] = [['nodes' => [...$d->list('scenes')[0]['nodes'], $n, $n + 1, $n + 2, $n + 3]]];

        return $d->toGlb();
    }

    /**
     * Motions of the house, keyed on the figure's own joints as a file would bring them.
     *
     * @param  array<string, array{string, array<string, mixed>}>  $motions  name to model and settings
     */
    public static function moving(string $glb, array $motions): string
    {
        $d = GltfDraft::open($glb);
        $gltf = GltfReader::read($glb);
        $figure = new Figure('spoiled', AssetDigest::of($gltf));
        $joints = $gltf->joints(0);
        $animations = [];
        foreach ($motions as $name => [$model, $settings]) {
            $table = MotionSampler::table($figure->body(), new MotionRecipe($model, $settings), $figure->morphs);
            $times = $hips = [];
            $turns = array_fill(0, count($joints), []);
            for ($f = 0; $f <= (int) ($table->seconds() * 24); $f++) {
                $row = $table->at($f / 24);
                $times[] = $f / 24;
                array_push($hips, $row[0], $row[1], $row[2]);
                foreach ($joints as $j => $_) {
                    array_push($turns[$j], ...array_slice($row, 3 + 4 * $j, 4));
                }
            }
            $input = $d->add($times, 1);
            $samplers = [['input' => $input, 'output' => $d->add($hips, 3)]];
            $channels = [['sampler' => 0, 'target' => ['node' => $joints[$figure->hips], 'path' => 'translation']]];
            foreach ($joints as $j => $node) {
                $samplers[] = ['input' => $input, 'output' => $d->add($turns[$j], 4)];
                $channels[] = ['sampler' => count($samplers) - 1, 'target' => ['node' => $node, 'path' => 'rotation']];
            }
            $animations[] = ['name' => $name, 'samplers' => $samplers, 'channels' => $channels];
        }
        $d->json['animations'] = $animations;

        return $d->toGlb();
    }

    /** The rest of the nodes bent as in a moment of a walk, while the skin is bound upright. */
    public static function midStride(string $glb): string
    {
        $d = GltfDraft::open($glb);
        $s = new Subject($d, 'glb');
        $changes = [];
        foreach ($s->joints() as $k => $j) {
            $bend = [
                'upperLegL' => 0.5, 'upperLegR' => -0.5, 'lowerLegR' => 0.7, 'upperArmL' => -0.6, 'upperArmR' => 0.6,
            ][array_search($k, $s->skeleton()->roles ?? [], true) ?: ''] ?? 0.0;
            if ($bend !== 0.0) {
                $changes[$j] = ['rotation' => Q4::mul($s->nodes()[$j]['rotation'], Q4::aroundX($bend))];
            }
        }
        $s->setNodes($changes);

        return $d->toGlb();
    }

    /** @param  callable(string): string  $to  new names of joints */
    public static function renamed(string $glb, callable $to): string
    {
        $d = GltfDraft::open($glb);
        $s = new Subject($d, 'glb');
        $s->setNodes(array_map(
            static fn (int $j): array => ['name' => $to($s->nodes()[$j]['name'])],
            array_combine($s->joints(), $s->joints()),
        ));

        return $d->toGlb();
    }

    /**
     * A closed box.
     *
     * @param  array{float, float, float}  $at
     * @return array{list<float>, list<float>} points and triangles
     */
    public static function box(float $half, array $at = [0.0, 0.0, 0.0], bool $insideOut = false): array
    {
        $points = [];
        for ($i = 0; $i < 8; $i++) {
            array_push($points, $at[0] + ($i & 1 ? $half : -$half), $at[1] + ($i & 2 ? $half : -$half), $at[2] + ($i & 4 ? $half : -$half));
        }
        $index = [0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7, 5];
        if ($insideOut) {
            $index = array_reverse($index);
        }

        return [$points, array_map(floatval(...), $index)];
    }

    /**
     * A plain thing: one box with a material and perhaps a picture.
     *
     * @param  array<string, mixed>  $material
     */
    public static function thing(
        float $half,
        array $material = [],
        ?string $picture = null,
        bool $insideOut = false,
        string $uri = '',
    ): string {
        [$points, $index] = self::box($half, [0.0, $half, 0.0], $insideOut);
        $json = [
            'asset' => ['version' => '2.0'],
            'scene' => 0,
            'scenes' => [['nodes' => [0]]],
            'nodes' => [['name' => 'thing', 'mesh' => 0]],
            'meshes' => [['primitives' => [['attributes' => ['POSITION' => 0, 'TEXCOORD_0' => 1], 'indices' => 2, 'material' => 0]]]],
            'materials' => [['name' => 'paint'] + $material],
        ];
        $uv = [];
        for ($i = 0; $i < 8; $i++) {
            array_push($uv, $i & 1 ? 1.0 : 0.0, $i & 2 ? 0.0 : 1.0);
        }
        $binary = pack('g*', ...$points).pack('g*', ...$uv).pack('v*', ...array_map(intval(...), $index));
        $json['accessors'] = [
            [
                'bufferView' => 0, 'componentType' => 5126, 'count' => 8, 'type' => 'VEC3', 'min' => [-$half, 0, -$half],
                'max' => [$half, 2 * $half, $half],
            ],
            ['bufferView' => 1, 'componentType' => 5126, 'count' => 8, 'type' => 'VEC2'],
            ['bufferView' => 2, 'componentType' => 5123, 'count' => 36, 'type' => 'SCALAR'],
        ];
        $json['bufferViews'] = [
            ['buffer' => 0, 'byteOffset' => 0, 'byteLength' => 96], ['buffer' => 0, 'byteOffset' => 96, 'byteLength' => 64],
            ['buffer' => 0, 'byteOffset' => 160, 'byteLength' => 72],
        ];
        if ($picture !== null || $uri !== '') {
            $json['materials'][0]['pbrMetallicRoughness']['baseColorTexture'] = ['index' => 0];
            $json['textures'] = [['source' => 0]];
            $json['images'] = [$uri !== '' ? ['uri' => $uri] : ['uri' => 'data:image/png;base64,'.base64_encode((string) $picture)]];
        }
        $json['buffers'] = [['byteLength' => strlen($binary), 'uri' => 'data:application/octet-stream;base64,'.base64_encode($binary)]];

        return json_encode($json, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);
    }

    /** A PNG of 64 pixels square: a checkerboard in which $clear of the squares are clear, or all of it $alpha (0 clear to 127 solid). */
    public static function picture(bool $cut, int $red = 200): string
    {
        $image = imagecreatetruecolor(64, 64);
        imagealphablending($image, false);
        imagesavealpha($image, true);
        for ($y = 0; $y < 64; $y++) {
            for ($x = 0; $x < 64; $x++) {
                $clear = $cut && (intdiv($x, 8) + intdiv($y, 8)) % 2 === 0;
                imagesetpixel($image, $x, $y, (int) imagecolorallocatealpha($image, $red, 80 + 2 * $x, 90, $clear ? 127 : 0));
            }
        }
        ob_start();
        imagepng($image);

        return (string) ob_get_clean();
    }

    /** A walk of 1.3 m a second as a recording (BVH), told to be so many times as fast. */
    public static function recordedWalk(float $faster = 1.0): string
    {
        $figure = new Figure('good', AssetDigest::of(GltfReader::read(self::good())));
        $table = MotionSampler::table($figure->body(), new MotionRecipe('walkToMark', ['speed' => 1.3, 'metres' => 6.0]), []);

        return BvhWriter::write(
            $figure->skeleton,
            $figure->hips,
            array_map(static fn (int $i): array => $table->at($i / 30), range(0, (int) ($table->seconds() * 30))),
            1 / 30 / $faster,
        );
    }

    /** A COLLADA file written by hand: a post of two joints a half metre long each; the upper bends by 60 degrees and back in a second. */
    public static function bendingPost(): string
    {
        $numbers = static fn (array $v): string => implode(' ', array_map(static fn (float $f): string => sprintf('%.6f', $f), $v));
        $bent = static fn (float $degrees): array => [
            cos(deg2rad($degrees)), -sin(deg2rad($degrees)), 0.0, 0.0, sin(deg2rad($degrees)), cos(deg2rad($degrees)), 0.0, 0.5, 0.0, 0.0,
            1.0, 0.0, 0.0, 0.0, 0.0, 1.0,
        ];
        $points = $triangles = [];
        foreach ([0.0, 0.5, 1.0] as $y) {
            array_push($points, -0.1, $y, -0.1, 0.1, $y, -0.1, 0.1, $y, 0.1, -0.1, $y, 0.1);
        }
        foreach ([0, 4] as $ring) {
            foreach ([0, 1, 2, 3] as $k) {
                [$a, $b] = [$ring + $k, $ring + ($k + 1) % 4];
                array_push($triangles, $a, $a + 4, $b, $b, $a + 4, $b + 4);
            }
        }
        $source = static fn (string $id, string $element, string $values, int $count, int $stride, string $name, string $type): string => "<source id=\"{$id}\"><{$element} id=\"{$id}-values\" count=\"".$count * $stride."\">{$values}</{$element}><technique_common><accessor source=\"#{$id}-values\" count=\"{$count}\" stride=\"{$stride}\"><param name=\"{$name}\" type=\"{$type}\"/></accessor></technique_common></source>";
        $one = '1 0 0 0 0 1 0 0 0 0 1 0 0 0 0 1';

        return '<?xml version="1.0" encoding="utf-8"?><COLLADA xmlns="http://www.collada.org/2005/11/COLLADASchema" version="1.4.1"><asset><unit name="meter" meter="1"/><up_axis>Y_UP</up_axis></asset>'
            .'<library_animations><animation id="bend">'.$source('time', 'float_array', '0 0.5 1', 3, 1, 'TIME', 'float')
            .$source('turn', 'float_array', $numbers([...$bent(0.0), ...$bent(60.0), ...$bent(0.0)]), 3, 16, 'TRANSFORM', 'float4x4')
            .$source('way', 'Name_array', 'LINEAR LINEAR LINEAR', 3, 1, 'INTERPOLATION', 'name').'<sampler id="keys"><input semantic="INPUT" source="#time"/><input semantic="OUTPUT" source="#turn"/><input semantic="INTERPOLATION" source="#way"/></sampler><channel source="#keys" target="upper/transform"/></animation></library_animations>'
            .'<library_geometries><geometry id="post"><mesh>'.str_replace(
                '<param name="P" type="float"/>',
                '<param name="X" type="float"/><param name="Y" type="float"/><param name="Z" type="float"/>',
                $source('places', 'float_array', $numbers($points), 12, 3, 'P', 'float'),
            )
            .'<vertices id="corners"><input semantic="POSITION" source="#places"/></vertices><triangles count="16"><input semantic="VERTEX" source="#corners" offset="0"/><p>'.implode(' ', $triangles).'</p></triangles></mesh></geometry></library_geometries>'
            ."<library_controllers><controller id=\"bound\"><skin source=\"#post\"><bind_shape_matrix>{$one}</bind_shape_matrix>"
            .$source('joints', 'Name_array', 'lower upper', 2, 1, 'JOINT', 'name')
            .$source('inverse', 'float_array', $one.' 1 0 0 0 0 1 0 -0.5 0 0 1 0 0 0 0 1', 2, 16, 'TRANSFORM', 'float4x4')
            .$source('weights', 'float_array', '1', 1, 1, 'WEIGHT', 'float')
            .'<joints><input semantic="JOINT" source="#joints"/><input semantic="INV_BIND_MATRIX" source="#inverse"/></joints><vertex_weights count="12"><input semantic="JOINT" source="#joints" offset="0"/><input semantic="WEIGHT" source="#weights" offset="1"/><vcount>'.str_repeat('1 ', 12).'</vcount><v>'.str_repeat('0 0 ', 6).str_repeat('1 0 ', 6).'</v></vertex_weights></skin></controller></library_controllers>'
            ."<library_visual_scenes><visual_scene id=\"scene\"><node id=\"lower\" sid=\"lower\" name=\"lower\" type=\"JOINT\"><matrix sid=\"transform\">{$one}</matrix><node id=\"upper\" sid=\"upper\" name=\"upper\" type=\"JOINT\"><matrix sid=\"transform\">".$numbers($bent(0.0)).'</matrix></node></node>'
            .'<node id="body" name="body"><instance_controller url="#bound"><skeleton>#lower</skeleton></instance_controller></node></visual_scene></library_visual_scenes><scene><instance_visual_scene url="#scene"/></scene></COLLADA>';
    }

    /** The plain box in white, which its file also offers in red, and in blue with rust named as a variant. */
    public static function variedBox(): string
    {
        $d = GltfDraft::open(self::thing(0.5, ['pbrMetallicRoughness' => ['baseColorFactor' => [1.0, 1.0, 1.0, 1.0]]]));
        $red = $d->push('materials', ['name' => 'red paint', 'pbrMetallicRoughness' => ['baseColorFactor' => [1.0, 0.0, 0.0, 1.0]]]);
        $blue = $d->push('materials', ['name' => 'blue paint', 'pbrMetallicRoughness' => ['baseColorFactor' => [0.0, 0.0, 1.0, 1.0]]]);
        $d->json['extensionsUsed'] = ['KHR_materials_variants'];
        $d->json['extensions'] = ['KHR_materials_variants' => ['variants' => [['name' => 'New'], ['name' => 'Rusty']]]];
        $d->amendPrimitive(
            0,
            0,
            ['extensions' => ['KHR_materials_variants' => ['mappings' => [
                ['material' => $red, 'variants' => [0]], ['material' => $blue, 'variants' => [1]],
            ]]]],
        );

        return $d->toGlb();
    }
}
