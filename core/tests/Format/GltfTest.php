<?php

declare(strict_types=1);

use CrispReel\Core\CoreFailure;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GlbContainer;
use CrispReel\Core\Format\Gltf\GltfLimits;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Format\Gltf\UnableToReadGltf;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Tests\Support\FakeAssets;
use Symfony\Component\Process\Process;

/** @param  callable(array<string, mixed>): array<string, mixed>  $change of the JSON part of a good file */
function tampered(callable $change): string
{
    [$json, $bin] = GlbContainer::unpack(FakeAssets::box());

    return GlbContainer::pack($change($json), $bin);
}

$bad = [
    'nothing' => ['', 'gltf.magic', 'not a glTF file'],
    'another kind of file' => ["\x89PNG\r\n\x1a\n", 'gltf.magic', 'not a glTF file'],
    'cut off in the head' => [substr(FakeAssets::box(), 0, 15), 'gltf.truncated', 'claims'],
    'cut off in the middle' => [substr(FakeAssets::box(), 0, 300), 'gltf.truncated', 'claims'],
    'version 1' => ['glTF'.pack('VV', 1, 20).str_repeat(' ', 8), 'gltf.version', 'version 1'],
    'broken JSON' => ['glTF'.pack('VVVV', 2, 24, 4, 0x4E4F534A).'{"a"', 'gltf.json', 'cannot be read'],
    'an old asset version' => [tampered(function ($j) {
        $j['asset']['version'] = '1.0';

        return $j;
    }), 'gltf.version', '1.0'],
    'nodes in a circle' => [tampered(function ($j) {
        $j['nodes'] = [['children' => [1]], ['children' => [0]]];

        return $j;
    }), 'gltf.cycle', 'its own ancestor'],
    'a node with two parents' => [tampered(function ($j) {
        $j['nodes'] = [['children' => [2]], ['children' => [2]], []];

        return $j;
    }), 'gltf.malformed', 'two parents'],
    'a child that is not there' => [tampered(function ($j) {
        $j['nodes'][0]['children'] = [77];

        return $j;
    }), 'gltf.malformed', 'a child that is not there'],
    'an accessor past its view' => [tampered(function ($j) {
        $j['accessors'][0]['count'] = 100000;

        return $j;
    }), 'gltf.accessor-range', 'reaches to byte'],
    'an accessor of nothing' => [tampered(function ($j) {
        $j['accessors'][0]['count'] = 0;

        return $j;
    }), 'gltf.malformed', 'count'],
    'an unknown component type' => [tampered(function ($j) {
        $j['accessors'][0]['componentType'] = 5;

        return $j;
    }), 'gltf.malformed', 'component type'],
    'a buffer in another file' => [tampered(function ($j) {
        $j['buffers'][0]['uri'] = '../../etc/passwd';

        return $j;
    }), 'gltf.external', 'another file'],
    'a picture in another file' => [tampered(function ($j) {
        $j['images'] = [['uri' => 'skin.png']];

        return $j;
    }), 'gltf.external', 'skin.png'],
    'a matrix that is not numbers' => [tampered(function ($j) {
        $j['nodes'][0]['matrix'] = array_fill(0, 16, 'x');

        return $j;
    }), 'gltf.malformed', 'not all of it are numbers'],
    'a rotation of zero' => [tampered(function ($j) {
        $j['nodes'][0]['rotation'] = [0, 0, 0, 0];

        return $j;
    }), 'gltf.malformed', 'unit quaternion'],
    'a triangle of a vertex that is not there' => [tampered(function ($j) {
        $j['accessors'][0]['count'] = 2;

        return $j;
    }), 'gltf.malformed', 'names vertex'],
    'a needed extension' => [tampered(function ($j) {
        $j['extensionsRequired'] = ['EXT_strange'];

        return $j;
    }), 'gltf.extension', 'EXT_strange'],
    'ten million entries' => [tampered(function ($j) {
        $j['accessors'][0]['count'] = 10_000_000;

        return $j;
    }), 'gltf.too-large', 'at most'],
];

test('broken files are refused by name, place and remedy', function (string $bytes, string $reason, string $message): void {
    try {
        AssetDigest::of(GltfReader::read($bytes));
    } catch (UnableToReadGltf $e) {
        expect($e->reason())->toBe($reason)->and($e->getMessage())->toContain($message)->and(strlen($e->remedy()))->toBeGreaterThan(10);

        return;
    }
    $this->fail('It was taken.');
})->with($bad);

test('numbers that are none are found', function (): void {
    $w = new GltfWriter('test');
    $mesh = $w->push(
        'meshes',
        ['primitives' => [['attributes' => ['POSITION' => $w->vertices([0.0, 0.0, 0.0, 1.0, NAN, 0.0, 0.0, 1.0, 0.0], 'VEC3')]]]],
    );
    $w->scene([$w->push('nodes', ['mesh' => $mesh])], 'nan');
    expect(fn () => AssetDigest::of(GltfReader::read($w->toGlb())))->toThrow(UnableToReadGltf::class, 'not a number, at position 4');
});

test('files over the limit are refused before they are read', function (): void {
    GltfReader::read(str_repeat('x', 2000), new GltfLimits(bytes: 1000));
})->throws(UnableToReadGltf::class, '2,000 where at most 1,000');

test('two hundred damaged files: each is read or refused by name, none crashes', function (): void {
    $good = FakeAssets::box(['a' => [0.0, 1.0, 0.0]]);
    $r = new Random(99);
    for ($i = 0; $i < 200; $i++) {
        $bytes = $good;
        for ($k = 0; $k < 1 + (int) ($r->next() * 12); $k++) {
            $bytes[(int) ($r->next() * strlen($bytes))] = chr((int) ($r->next() * 256));
        }
        if ($i % 5 === 0) {
            $bytes = substr($bytes, 0, (int) ($r->next() * strlen($bytes)));
        }
        try {
            expect(AssetDigest::of(GltfReader::read($bytes)))->toHaveKey('bounds');
        } catch (CoreFailure $e) {
            expect($e->reason())->toStartWith('gltf.');
        }
    }
});

test('what is written is read back', function (): void {
    $w = new GltfWriter('test');
    $r = new Random(6);
    $floats = array_map(static fn (): float => $r->signed() * 10, range(1, 30));
    $a = $w->accessor($floats, 'VEC3');
    $b = $w->vertices([0, 65535, 32768, 0], 'SCALAR', GltfWriter::USHORT, true);
    $c = $w->vertices([255, 0, 128], 'VEC3', GltfWriter::UBYTE, true);
    $sparse = array_fill(0, 30, 0.0);
    [$sparse[3], $sparse[4], $sparse[5]] = [1.0, 2.0, 3.0];
    $d = $w->sparse($sparse);
    $e = $w->indices([0, 70000, 2]);
    $g = GltfReader::read($w->toGlb());
    expect($g->accessor($a, 'a'))->toEqualWithDelta($floats, 1e-6)
        ->and($g->accessor($b, 'b'))->toEqualWithDelta([0.0, 1.0, 0.5, 0.0], 1e-4)
        ->and($g->accessor($c, 'c'))->toEqualWithDelta([1.0, 0.0, 0.502], 1e-3)
        ->and($g->accessor($d, 'd'))->toBe($sparse)->and($g->accessor($e, 'e'))->toBe([0.0, 70000.0, 2.0]);
});

test('embedded JSON glTF is read like GLB', function (): void {
    [$json, $bin] = GlbContainer::unpack(FakeAssets::box());
    $json['buffers'][0]['uri'] = 'data:application/octet-stream;base64,'.base64_encode($bin);
    expect(AssetDigest::of(GltfReader::read((string) json_encode($json))))->toBe(AssetDigest::of(GltfReader::read(FakeAssets::box())));
});

test('a digest knows size, floor, mounts and body', function (): void {
    $d = FakeAssets::digestOf('key');
    expect($d['bounds'])->toBe([[-0.5, 0.0, -0.5], [0.5, 1.0, 0.5]])->and($d['triangles'])->toBe(12)->and($d['mounts']['hold']['position'])
        ->toEqualWithDelta([0.0, 0.075, 0.0], 1e-6)
        ->and(strlen(base64_decode($d['floor'])))->toBe(2 * 9 * 4)->and($d['skeleton'])->toBeNull();
    $o = FakeAssets::digestOf('oda');
    expect($o['kind'])->toBe('figure')->and(count($o['skeleton']['names']))->toBe(45)->and($o['floor'])->toBe('');
});

test('the public validator finds no error in a figure and a box', function (): void {
    $files = array_map(static function (string $name): string {
        $file = tempnam(sys_get_temp_dir(), 'crisp').'.glb';
        file_put_contents($file, FakeAssets::glb($name));

        return $file;
    }, ['oda', 'bram', 'box', 'key']);
    $p = new Process(['node', dirname(__DIR__, 3).'/tests/node/validate.mjs', ...$files]);
    $p->setTimeout(60)->mustRun();
    array_map(unlink(...), $files);
    $found = json_decode($p->getOutput(), true);
    expect(count($found))->toBe(4)->and(array_filter($found, static fn (array $f): bool => $f['errors'] > 0))->toBe([]);
});

/** A chain of joints with animations of all three interpolations. */
function animated(): string
{
    $w = new GltfWriter('test');
    $r = new Random(21);
    $inverse = [];
    $n = 9;
    for ($i = 0; $i < $n; $i++) {
        $q = Q4::unit([$r->signed(), $r->signed(), $r->signed(), 2.0]);
        $w->push(
            'nodes',
            ['name' => "j{$i}", 'translation' => [$r->signed() * 0.4, 0.3 + $r->next(), $r->signed() * 0.4], 'rotation' => $q]
                + ($i < $n - 1 ? ['children' => [$i + 1]] : []),
        );
        array_push($inverse, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0);
    }
    $skin = $w->push('skins', ['joints' => range(0, $n - 1), 'inverseBindMatrices' => $w->accessor($inverse, 'MAT4')]);
    $mesh = $w->push('meshes', ['primitives' => [['attributes' => [
        'POSITION' => $w->vertices([0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, 0.0], 'VEC3', bounds: true),
        'JOINTS_0' => $w->vertices(array_fill(0, 12, 0), 'VEC4', GltfWriter::UBYTE),
        'WEIGHTS_0' => $w->vertices(array_merge(...array_fill(0, 3, [1.0, 0.0, 0.0, 0.0])), 'VEC4'),
    ]]]]);
    $body = $w->push('nodes', ['name' => 'body', 'mesh' => $mesh, 'skin' => $skin]);
    $channels = $samplers = [];
    for ($i = 0; $i < $n; $i++) {
        $kind = ['STEP', 'LINEAR', 'CUBICSPLINE'][$i % 3];
        $times = $values = [];
        for ($k = 0, $t = 0.0; $k < 6; $k++, $t += 0.2 + $r->next() * 0.4) {
            $times[] = $t;
            $q = Q4::unit([$r->signed(), $r->signed(), $r->signed(), 1.5]);
            $tangent = static fn (): array => [$r->signed(), $r->signed(), $r->signed(), $r->signed()];
            array_push($values, ...($kind === 'CUBICSPLINE' ? [...$tangent(), ...$q, ...$tangent()] : $q));
        }
        $samplers[] = [
            'input' => $w->accessor($times, 'SCALAR', bounds: true), 'output' => $w->accessor($values, 'VEC4'), 'interpolation' => $kind,
        ];
        $channels[] = ['sampler' => $i, 'target' => ['node' => $i, 'path' => 'rotation']];
    }
    $samplers[] = [
        'input' => $w->accessor([0.0, 0.7, 1.5], 'SCALAR', bounds: true),
        'output' => $w->accessor([0.0, 1.0, 0.0, 2.0, 1.0, 1.0, 0.0, 2.0, 0.0], 'VEC3'),
        'interpolation' => 'LINEAR',
    ];
    $channels[] = ['sampler' => $n, 'target' => ['node' => 0, 'path' => 'translation']];
    $w->push('animations', ['name' => 'test', 'channels' => $channels, 'samplers' => $samplers]);
    $w->scene([0, $body], 'animated');

    return $w->toGlb();
}

test('joints stand where three.js puts them', function (): void {
    $file = tempnam(sys_get_temp_dir(), 'crisp').'.glb';
    file_put_contents($file, animated());
    $times = [0.0, 0.13, 0.4, 0.77, 1.0, 1.31, 1.9, 5.0];
    $p = new Process(['node', dirname(__DIR__, 3).'/tests/node/three-reference.mjs', $file, implode(',', $times)]);
    $p->setTimeout(60)->mustRun();
    unlink($file);
    $reference = json_decode($p->getOutput(), true);
    $gltf = GltfReader::read(animated());
    $skeleton = AssetDigest::skeleton($gltf, 0);
    $clip = $gltf->clips()[0];
    $worst = [0.0, 0.0];
    foreach ($times as $i => $t) {
        [$rotations, $root] = $clip->pose($skeleton, $t, 0);
        [$places, $turns] = $skeleton->world($rotations, $root);
        foreach ($skeleton->names as $j => $name) {
            $ref = $reference[$i][$name];
            for ($k = 0; $k < 3; $k++) {
                $worst[0] = max($worst[0], abs($ref['position'][$k] - $places[3 * $j + $k]));
            }
            $worst[1] = max($worst[1], rad2deg(Q4::angleBetween($ref['rotation'], array_slice($turns, 4 * $j, 4))));
        }
    }
    expect($worst[0])->toBeLessThan(1e-5)->and($worst[1])->toBeLessThan(1e-4);
});
