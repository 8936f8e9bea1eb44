<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GlbContainer;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\Triangles;
use CrispReel\Core\Format\Gltf\UnableToReadGltf;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Rig\Interpolation;

/** A glTF put together by hand. @param  array<string, mixed>  $json */
function byHand(array $json, string $binary): GltfReader
{
    return GltfReader::read(GlbContainer::pack(
        ['asset' => ['version' => '2.0'], 'buffers' => [['byteLength' => strlen($binary)]]] + $json,
        $binary,
    ));
}

/**
 * One accessor over bytes that were packed by hand.
 *
 * @param  array<string, mixed>  $accessor
 * @param  array<string, mixed>  $view
 * @return list<float>
 */
function valuesOf(string $bytes, array $accessor, array $view = []): array
{
    $reader = byHand(
        ['bufferViews' => [$view + ['buffer' => 0, 'byteLength' => strlen($bytes)]], 'accessors' => [$accessor + ['bufferView' => 0]]],
        $bytes,
    );

    return $reader->accessor(0, 'here');
}

/** A mesh of five points and the given primitive. @param  array<string, mixed>  $primitive @param  list<int>  $index */
function meshOf(array $primitive, array $index = []): string
{
    $points = pack('g*', ...[0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0, 0.5, 2, 0]);
    $binary = $points.pack('v*', ...$index);
    $json = [
        'asset' => ['version' => '2.0'], 'buffers' => [['byteLength' => strlen($binary)]],
        'bufferViews' => [
            ['buffer' => 0, 'byteLength' => 60], ['buffer' => 0, 'byteOffset' => 60, 'byteLength' => max(1, 2 * count($index))],
        ],
        'accessors' => [
            ['bufferView' => 0, 'componentType' => 5126, 'type' => 'VEC3', 'count' => 5, 'min' => [0, 0, 0], 'max' => [1, 2, 0]],
            ['bufferView' => 1, 'componentType' => 5123, 'type' => 'SCALAR', 'count' => max(1, count($index))],
        ],
        'meshes' => [['primitives' => [$primitive + ['attributes' => ['POSITION' => 0]] + ($index === [] ? [] : ['indices' => 1])]]],
        'nodes' => [['name' => 'sheet', 'mesh' => 0]], 'scenes' => [['nodes' => [0]]], 'scene' => 0,
    ];

    return GlbContainer::pack($json, $binary);
}

test('whole numbers are read as they are, and normalised ones as the standard says', function (
    int $component, bool $normalised, string $bytes, array $expected,
): void {
    $found = valuesOf($bytes, [
        'componentType' => $component, 'type' => 'SCALAR', 'count' => count($expected), 'normalized' => $normalised,
    ]);
    expect($found)->toHaveCount(count($expected));
    foreach ($expected as $k => $v) {
        expect($found[$k])->toEqualWithDelta($v, 1e-9);
    }
})->with([
    'signed bytes' => [5120, false, pack('c*', -128, -1, 0, 127), [-128, -1, 0, 127]],
    'bytes' => [5121, false, pack('C*', 0, 1, 255), [0, 1, 255]],
    'signed shorts' => [5122, false, pack('v*', 0x8000, 0xFFFF, 0, 0x7FFF), [-32768, -1, 0, 32767]],
    'shorts' => [5123, false, pack('v*', 0, 258, 65535), [0, 258, 65535]],
    'integers' => [5125, false, pack('V*', 0, 70000, 4294967295), [0, 70000, 4294967295]],
    'floats' => [5126, false, pack('g*', -1.5, 0.25, 1e30), [-1.5, 0.25, unpack('g', pack('g', 1e30))[1]]],
    // f = max(c / 127, -1), f = c / 255, and so on (glTF 2.0, section 3.11).
    'signed bytes, normalised' => [5120, true, pack('c*', -128, -127, 64, 127), [-1, -1, 64 / 127, 1]],
    'bytes, normalised' => [5121, true, pack('C*', 0, 51, 255), [0, 0.2, 1]],
    'signed shorts, normalised' => [5122, true, pack('v*', 0x8000, 0x8001, 0x4000, 0x7FFF), [-1, -1, 16384 / 32767, 1]],
    'shorts, normalised' => [5123, true, pack('v*', 0, 13107, 65535), [0, 0.2, 1]],
]);

test('rows that stand apart are read one by one', function (): void {
    // Position and normal in turns: 24 bytes a vertex.
    $bytes = pack('g*', 1, 2, 3, 9, 9, 9, 4, 5, 6, 9, 9, 9);
    expect(valuesOf($bytes, ['componentType' => 5126, 'type' => 'VEC3', 'count' => 2], ['byteStride' => 24]))->toEqual([1, 2, 3, 4, 5, 6]);
    expect(valuesOf($bytes, ['componentType' => 5126, 'type' => 'VEC3', 'count' => 2, 'byteOffset' => 12], ['byteStride' => 24]))
        ->toEqual([9, 9, 9, 9, 9, 9]);
    // Three bytes of colour and one of padding.
    expect(valuesOf(pack('C*', 1, 2, 3, 0, 4, 5, 6, 0), ['componentType' => 5121, 'type' => 'VEC3', 'count' => 2], ['byteStride' => 4]))
        ->toEqual([1, 2, 3, 4, 5, 6]);
});

test('rows as they are stored come without gaps', function (): void {
    $bytes = pack('g*', 1, 2, 9, 3, 4, 9);
    $reader = byHand(
        [
            'bufferViews' => [['buffer' => 0, 'byteLength' => 24, 'byteStride' => 12]],
            'accessors' => [
                ['bufferView' => 0, 'componentType' => 5126, 'type' => 'VEC2', 'count' => 2],
                ['componentType' => 5126, 'type' => 'VEC2', 'count' => 2],
            ],
        ],
        $bytes,
    );
    expect($reader->rows(0))->toBe(['bytes' => pack('g*', 1, 2, 3, 4), 'component' => 5126, 'size' => 4, 'width' => 2, 'count' => 2])
        ->and($reader->rows(1))->toBeNull();
});

test('sparse accessors: over a base, and over nothing', function (): void {
    $base = pack('g*', 0, 1, 2, 3);
    $bytes = $base.pack('v*', 1, 3).pack('g*', 10, 30);
    $views = [
        ['buffer' => 0, 'byteLength' => 16], ['buffer' => 0, 'byteOffset' => 16, 'byteLength' => 4],
        ['buffer' => 0, 'byteOffset' => 20, 'byteLength' => 8],
    ];
    $sparse = ['count' => 2, 'indices' => ['bufferView' => 1, 'componentType' => 5123], 'values' => ['bufferView' => 2]];
    $of = static fn (array $a): array => byHand(
        ['bufferViews' => $views, 'accessors' => [$a + ['componentType' => 5126, 'type' => 'SCALAR', 'count' => 4]]],
        $bytes,
    )->accessor(0, 'here');
    expect($of(['bufferView' => 0, 'sparse' => $sparse]))->toEqual([0, 10, 2, 30])->and($of(['sparse' => $sparse]))
        ->toEqual([0, 10, 0, 30]);
    expect(fn () => $of(['sparse' => ['count' => 0] + $sparse]))->toThrow(UnableToReadGltf::class, 'no entries');
    expect(fn () => $of(['count' => 3, 'bufferView' => 0, 'sparse' => $sparse]))->toThrow(UnableToReadGltf::class, 'names entry 3');
});

test('an accessor without a view is all zeros', function (): void {
    $reader = byHand(['accessors' => [['componentType' => 5126, 'type' => 'VEC2', 'count' => 3]]], 'x');
    expect($reader->accessor(0, 'here'))->toEqual([0, 0, 0, 0, 0, 0]);
});

test('places in the buffer that make no sense are refused with the accessor that has them', function (
    array $accessor, array $view, string $said,
): void {
    expect(fn () => valuesOf(str_repeat("\0", 32), $accessor + ['componentType' => 5126, 'type' => 'VEC3', 'count' => 2], $view))
        ->toThrow(UnableToReadGltf::class, $said);
})->with([
    'one row too many' => [['count' => 3], [], 'reaches to byte'],
    'an offset past the end' => [['byteOffset' => 12], [], 'reaches to byte'],
    'a negative offset' => [['byteOffset' => -4], [], 'makes no sense'],
    'an offset that is a word' => [['byteOffset' => 'four'], [], 'makes no sense'],
    'rows that overlap' => [[], ['byteStride' => 4], 'makes no sense'],
    'a view of another buffer' => [[], ['buffer' => 7], 'not there'],
    'a view that is longer than the buffer' => [['count' => 3], ['byteLength' => 40], 'reaches to byte'],
    'an unknown type' => [['type' => 'VEC5'], [], 'type is not known'],
    'another type than belongs there' => [['componentType' => 9], [], 'component type is not known'],
]);

test('a strip and a fan are the triangles of the standard', function (): void {
    expect(Triangles::of(Triangles::STRIP, [0, 1, 2, 3, 4]))->toBe([0, 1, 2, 1, 3, 2, 2, 3, 4])
        ->and(Triangles::of(Triangles::FAN, [0, 1, 2, 3]))->toBe([1, 2, 0, 2, 3, 0]);
    expect(Triangles::of(Triangles::LIST, [2, 1, 0]))->toBe([2, 1, 0])->and(Triangles::of(Triangles::STRIP, [0, 1]))->toBe([])
        ->and(Triangles::of(Triangles::FAN, []))->toBe([]);
    // Two strips in one, joined by triangles of no area; the second keeps its side.
    expect(Triangles::of(Triangles::STRIP, [0, 1, 2, 2, 2, 3, 3, 4, 5]))->toBe([0, 1, 2, 3, 4, 5]);
});

test('all triangles of a strip face the same way', function (): void {
    // A band that zigzags upwards, seen from +z.
    [, $p] = GltfReader::read(meshOf(['mode' => 5], [0, 1, 2, 3, 4]))->primitives()[0];
    foreach (array_chunk($p['index'], 3) as [$a, $b, $c]) {
        [$ax, $ay, $bx, $by, $cx, $cy] = [
            $p['positions'][3 * $a], $p['positions'][3 * $a + 1], $p['positions'][3 * $b], $p['positions'][3 * $b + 1],
            $p['positions'][3 * $c], $p['positions'][3 * $c + 1],
        ];
        expect(($bx - $ax) * ($cy - $ay) - ($by - $ay) * ($cx - $ax))->toBeGreaterThan(0.0);
    }
});

test('strips, fans and points without an index survive intake as triangles', function (
    array $primitive, array $index, int $triangles,
): void {
    $glb = meshOf($primitive, $index);
    expect(AssetDigest::of(GltfReader::read($glb))['triangles'])->toBe($triangles);
    $mended = GltfDraft::open($glb)->toGlb();
    $reader = GltfReader::read($mended);
    expect($reader->list('meshes')[0]['primitives'][0]['mode'] ?? 4)->toBe(4)->and(AssetDigest::of($reader)['triangles'])->toBe($triangles);
    $e = Examination::of($glb, 'glb');
    expect($e->parts->made)->toBe(['sheet'])->and(AssetDigest::of(GltfReader::read($e->glb))['triangles'])->toBe($triangles);
})->with([
    'a strip' => [['mode' => 5], [0, 1, 2, 3, 4], 3], 'a strip without an index' => [['mode' => 5], [], 3],
    'a fan' => [['mode' => 6], [0, 1, 3, 4], 2], 'a list' => [['mode' => 4], [0, 1, 2, 1, 3, 2], 2],
    'a list, unsaid' => [[], [0, 1, 2], 1],
]);

test('lines and points are left out and told', function (): void {
    $json = GlbContainer::unpack(meshOf([], [0, 1, 2]));
    $json[0]['meshes'][] = ['primitives' => [['mode' => 1, 'attributes' => ['POSITION' => 0]]]];
    $json[0]['nodes'][] = ['name' => 'guide', 'mesh' => 1];
    $json[0]['scenes'][0]['nodes'] = [0, 1];
    $e = Examination::of(GlbContainer::pack(...$json), 'glb');
    expect($e->parts->inFile)->toBe(2)->and($e->parts->made)->toBe(['sheet'])->and($e->parts->skipped)
        ->toBe(['guide' => 'it is made of lines or points, which have no faces']);
});

test('a strip that names a vertex which is not there is refused', function (): void {
    expect(fn () => GltfReader::read(meshOf(['mode' => 5], [0, 1, 9]))->primitives())->toThrow(UnableToReadGltf::class, 'names vertex 9');
});

test('a matrix of a node comes apart into place, turn and size', function (): void {
    // Column by column: turned a quarter about y, twice as large, at (1, 2, 3).
    $reader = byHand(
        ['nodes' => [['matrix' => [0, 0, -2, 0, 0, 2, 0, 0, 2, 0, 0, 0, 1, 2, 3, 1], 'children' => [1]], ['translation' => [1, 0, 0]]]],
        'x',
    );
    $n = $reader->nodes[0];
    expect($n['translation'])->toEqual([1, 2, 3])->and($n['scale'])->toEqualWithDelta([2, 2, 2], 1e-12)->and($n['rotation'])
        ->toEqualWithDelta([0, M_SQRT1_2, 0, M_SQRT1_2], 1e-12);
    // The child lies two to -z of it.
    expect(array_slice($reader->worldMatrix(1), 12, 3))->toEqualWithDelta([1, 2, 1], 1e-12);
});

test('channels of a motion are read with their ways of going from key to key', function (): void {
    $times = pack('g*', 0.0, 1.0);
    $turns = pack('g*', 0, 0, 0, 1, 0, M_SQRT1_2, 0, M_SQRT1_2);
    $places = pack('g*', ...[0, 0, 0, 0, 0, 0, 0, 0, 3, 0, 0, -3, 1, 0, 0, 0, 0, 0]);
    $binary = $times.$turns.$places;
    $json = [
        'bufferViews' => [
            ['buffer' => 0, 'byteLength' => 8], ['buffer' => 0, 'byteOffset' => 8, 'byteLength' => 32],
            ['buffer' => 0, 'byteOffset' => 40, 'byteLength' => 72],
        ],
        'accessors' => [
            ['bufferView' => 0, 'componentType' => 5126, 'type' => 'SCALAR', 'count' => 2],
            ['bufferView' => 1, 'componentType' => 5126, 'type' => 'VEC4', 'count' => 2],
            ['bufferView' => 2, 'componentType' => 5126, 'type' => 'VEC3', 'count' => 6],
        ],
        'nodes' => [['name' => 'arm']],
        'animations' => [['name' => 'swing', 'samplers' => [
            ['input' => 0, 'output' => 1], ['input' => 0, 'output' => 2, 'interpolation' => 'CUBICSPLINE'],
            ['input' => 0, 'output' => 1, 'interpolation' => 'STEP'],
        ], 'channels' => [
            ['sampler' => 0, 'target' => ['node' => 0, 'path' => 'rotation']],
            ['sampler' => 1, 'target' => ['node' => 0, 'path' => 'translation']],
            ['sampler' => 2, 'target' => ['node' => 0, 'path' => 'rotation']],
            // Without a node it is no one's, and another path is another extension's.
            ['sampler' => 0, 'target' => ['path' => 'rotation']], ['sampler' => 0, 'target' => ['node' => 0, 'path' => 'pointer']],
        ]]],
    ];
    [$clip] = byHand($json, $binary)->clips();
    expect($clip->name)->toBe('swing')->and($clip->seconds)->toBe(1.0)->and($clip->channels)->toHaveCount(3);
    [$turn, $place, $step] = $clip->channels;
    expect($turn->interpolation)->toBe(Interpolation::Linear)->and($turn->at(0.5))
        ->toEqualWithDelta([0, sin(M_PI / 8), 0, cos(M_PI / 8)], 1e-6);
    // Half way by the Hermite form: (p0 + p1) / 2 + (m0 - m1) / 8, with out-tangent (0, 0, 3) and in-tangent (0, 0, -3).
    expect($place->at(0.5))->toEqualWithDelta([0.5, 0, 0.75], 1e-9)->and($step->at(0.99))->toEqualWithDelta([0, 0, 0, 1], 1e-9)
        ->and($step->at(1.0))->toEqualWithDelta([0, M_SQRT1_2, 0, M_SQRT1_2], 1e-6);
});

test('channels that cannot be played are refused by name and reason', function (callable $break, string $said): void {
    $binary = pack('g*', 0.0, 1.0, 0, 0, 0, 1, 0, 0, 0, 1);
    $json = [
        'bufferViews' => [['buffer' => 0, 'byteLength' => 8], ['buffer' => 0, 'byteOffset' => 8, 'byteLength' => 32]],
        'accessors' => [
            ['bufferView' => 0, 'componentType' => 5126, 'type' => 'SCALAR', 'count' => 2],
            ['bufferView' => 1, 'componentType' => 5126, 'type' => 'VEC4', 'count' => 2],
        ],
        'nodes' => [['name' => 'arm']],
        'animations' => [[
            'samplers' => [['input' => 0, 'output' => 1]],
            'channels' => [['sampler' => 0, 'target' => ['node' => 0, 'path' => 'rotation']]],
        ]],
    ];
    $break($json, $binary);
    expect(fn () => byHand($json, $binary)->clips())->toThrow(UnableToReadGltf::class, $said);
})->with([
    'times that go back' => [function (array &$j, string &$b): void {
        $b = pack('g*', 1.0, 0.5).substr($b, 8);
    }, 'do not rise at key 1'],
    'a time before nought' => [function (array &$j, string &$b): void {
        $b = pack('g*', -1.0, 0.5).substr($b, 8);
    }, 'do not rise at key 0'],
    'a node that is not there' => [function (array &$j): void {
        $j['animations'][0]['channels'][0]['target']['node'] = 4;
    }, 'not there'],
    'a sampler that is not there' => [function (array &$j): void {
        $j['animations'][0]['channels'][0]['sampler'] = 4;
    }, 'not there'],
    'no target' => [function (array &$j): void {
        unset($j['animations'][0]['channels'][0]['target']);
    }, 'no target'],
    'an unknown way' => [function (array &$j): void {
        $j['animations'][0]['samplers'][0]['interpolation'] = 'BOUNCE';
    }, 'interpolation is not known'],
    'four numbers for a place' => [function (array &$j): void {
        $j['animations'][0]['channels'][0]['target']['path'] = 'translation';
    }, 'do not make a translation'],
    'too few values' => [function (array &$j): void {
        $j['animations'][0]['samplers'][0]['interpolation'] = 'CUBICSPLINE';
    }, 'values for 2 times'],
]);

test('files that came along are asked for by the name that the glTF has for them', function (): void {
    $points = pack('g*', 0, 0, 0, 1, 0, 0, 0, 1, 0);
    $json = (string) json_encode([
        'asset' => ['version' => '2.0'],
        'buffers' => [['byteLength' => 36, 'uri' => 'parts/sheet.bin']],
        'bufferViews' => [['buffer' => 0, 'byteLength' => 36]],
        'accessors' => [['bufferView' => 0, 'componentType' => 5126, 'type' => 'VEC3', 'count' => 3]],
        'images' => [['uri' => 'wood.png'], ['uri' => 'gone.png']],
        'meshes' => [['primitives' => [['attributes' => ['POSITION' => 0]]]]],
        'nodes' => [['mesh' => 0]],
    ]);
    $asked = [];
    $reader = GltfReader::read($json, null, function (string $name) use (&$asked, $points): ?string {
        $asked[] = $name;

        return ['parts/sheet.bin' => $points, 'wood.png' => 'PICTURE'][$name] ?? null;
    });
    expect($reader->primitives()[0][1]['positions'])->toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0])->and($reader->missingPictures)
        ->toBe([1 => 'gone.png'])->and($reader->picture(0))->toBe('PICTURE')->and($reader->picture(1))->toBeNull();
    expect(array_unique($asked))->toEqualCanonicalizing(['wood.png', 'gone.png', 'parts/sheet.bin']);
});
