<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\GltfLimits;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\UnableToReadGltf;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Intake\Fitting\VoxelBody;

/**
 * A file of one triangle a mesh, with these nodes.
 *
 * @param  list<array<string, mixed>>  $nodes
 * @param  array<string, mixed>  $more
 */
function costly(array $nodes, array $more = [], int $meshes = 1): string
{
    $points = base64_encode(pack('g*', 0, 0, 0, 1, 0, 0, 0, 1, 0));

    return (string) json_encode($more + [
        'asset' => ['version' => '2.0'], 'scene' => 0, 'scenes' => [['nodes' => [0]]], 'nodes' => $nodes,
        'buffers' => [['byteLength' => 36, 'uri' => "data:application/octet-stream;base64,{$points}"]],
        'bufferViews' => [['buffer' => 0, 'byteLength' => 36]],
        'accessors' => [['bufferView' => 0, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC3']],
        'meshes' => array_fill(0, $meshes, ['primitives' => [['attributes' => ['POSITION' => 0]]]]),
    ]);
}

/** A PNG that says it is so large, and holds nothing. */
function hollow(int $width, int $height): string
{
    $head = pack('NNCCCCC', $width, $height, 8, 2, 0, 0, 0);

    return "\x89PNG\r\n\x1a\n".pack('N', 13).'IHDR'.$head.pack('N', crc32('IHDR'.$head));
}

/** @return list<array<string, mixed>> nodes, each the only child of the last */
function chained(int $n): array
{
    return array_map(static fn (int $i): array => $i < $n - 1 ? ['children' => [$i + 1]] : ['mesh' => 0], range(0, $n - 1));
}

test('what a small file would cost is told before it is paid', function (Closure $file, string $what, string $number): void {
    $since = hrtime(true);
    expect(static fn () => GltfReader::read($file()))->toThrow(UnableToReadGltf::class, $what);
    try {
        GltfReader::read($file());
    } catch (UnableToReadGltf $e) {
        expect($e->getMessage())->toContain($number)->and($e->remedy())->not->toBe('');
    }
})->with([
    'nodes' => [fn () => costly(array_fill(0, 20_001, ['name' => 'n'])), 'Nodes', '20,001'],
    'one mesh drawn many times' => [fn () => costly(array_fill(0, 6_000, ['mesh' => 0])), 'Surfaces that its nodes draw', '6,000'],
    'many surfaces of one mesh' => [
        fn () => costly(
            array_fill(0, 60, ['mesh' => 0]),
            ['meshes' => [['primitives' => array_fill(0, 100, ['attributes' => ['POSITION' => 0]])]]],
        ),
        'Surfaces that its nodes draw', '6,000',
    ],
    'a deep tree' => [fn () => costly(chained(600)), 'Steps from the root', '600'],
    'joints' => [
        fn () => costly(
            [['mesh' => 0, 'skin' => 0], ...array_fill(0, 1_100, ['name' => 'j'])],
            ['skins' => [['joints' => range(1, 1_100)]]],
        ),
        'Joints of its skins', '1,100',
    ],
    'points that are claimed' => [
        fn () => costly([['mesh' => 0]], ['accessors' => [['componentType' => 5126, 'count' => 4_000_000_000, 'type' => 'VEC3']]]),
        'Points of its surfaces', '4,000,000,000',
    ],
    'keys that are claimed' => [
        fn () => costly([['mesh' => 0]], [
            'animations' => [[
                'samplers' => [['input' => 1, 'output' => 1]],
                'channels' => array_fill(0, 10, ['sampler' => 0, 'target' => ['node' => 0, 'path' => 'translation']]),
            ]],
            'accessors' => [
                ['bufferView' => 0, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC3'],
                ['componentType' => 5126, 'count' => 500_000, 'type' => 'SCALAR'],
            ],
        ]),
        'Keys of its motions', '5,000,000',
    ],
    'a picture that unfolds' => [
        fn () => costly([['mesh' => 0]], ['images' => [['uri' => 'data:image/png;base64,'.base64_encode(hollow(60_000, 60_000))]]]),
        'Pixels of picture 0', '3,600,000,000',
    ],
    'many pictures' => [
        fn () => costly(
            [['mesh' => 0]],
            ['images' => array_fill(0, 5, ['uri' => 'data:image/png;base64,'.base64_encode(hollow(8_000, 8_000))])],
        ),
        'Pixels of all its pictures', '320,000,000',
    ],
]);

test('at its limits a file is read', function (): void {
    expect(GltfReader::read(costly(chained(512)))->nodes)->toHaveCount(512)
        ->and(GltfReader::read(costly(
            [['mesh' => 0]],
            ['images' => [['uri' => 'data:image/png;base64,'.base64_encode(hollow(8192, 8192))]]],
        ))->nodes)->toHaveCount(1)
        ->and(GltfReader::read(costly(chained(9)), new GltfLimits(depth: 9))->nodes)->toHaveCount(9)
        ->and(static fn () => GltfReader::read(costly(chained(10)), new GltfLimits(depth: 9)))->toThrow(UnableToReadGltf::class, '10');
});

test('a tree that is its own ancestor is named, however long the way round', function (): void {
    $ring = array_map(static fn (int $i): array => ['children' => [($i + 1) % 15_000]], range(0, 14_999));
    expect(static fn () => GltfReader::read(costly($ring)))->toThrow(UnableToReadGltf::class, 'its own ancestor');
});

test('thousands of small meshes, and thousands of empty nodes, are gone over without asking each for all', function (array $nodes, int $meshes): void {
    // The number of looks at a list, not the time: what is quadratic takes minutes here and would not end within the limit of the run.
    $done = Examination::of(costly($nodes, ['scenes' => [['nodes' => range(0, count($nodes) - 1)]]], $meshes), 'gltf');
    expect($done->glb)->not->toBe('');
})->with([
    'meshes' => [array_map(static fn (int $i): array => ['mesh' => $i], range(0, 1_499)), 1_500],
    'empty nodes' => [[['mesh' => 0], ...array_fill(0, 15_000, ['name' => 'n'])], 1],
]);

test('a body of many layers is filled as coarsely as its points allow', function (): void {
    $sheet = static fn (float $y): array => ['positions' => [0.0, $y, 0.0, 2.0, $y, 0.0, 0.0, $y, 2.0], 'index' => [0, 1, 2]];
    $body = VoxelBody::of([
        ['positions' => [0.0, 0.0, 0.0, 0.0, 2.0, 0.0, 0.1, 2.0, 0.0], 'index' => [0, 1, 2]],
        ...array_map(static fn (int $i): array => $sheet($i / 1000), range(0, 1_999)),
    ]);
    expect($body->height())->toEqualWithDelta(2.0, 1e-6);
});
