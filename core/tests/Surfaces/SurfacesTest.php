<?php

declare(strict_types=1);

use CrispReel\Core\Document\Wish;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Intake\Simplify;
use CrispReel\Core\Kit\Patterns;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Surfaces\Dress;
use CrispReel\Core\Surfaces\Oklab;
use CrispReel\Core\Surfaces\SurfaceList;
use CrispReel\Core\Surfaces\Tones;
use CrispReel\Core\Surfaces\Variants;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;

/** @return list<array{key: string, name: string, colour: string, picture: bool, share: float}> */
function surfacesOf(string $glb): array
{
    return SurfaceList::of(GltfDraft::open($glb))->toArray();
}

/** @param  list<Wish>  $wishes */
function dressed(string $glb, array $wishes): string
{
    return Dress::glb($glb, $wishes, static fn (string $hash): string => Spoiled::picture(false));
}

/** Key of the surface of a model with a name. */
function surfaceKey(string $glb, string $name): string
{
    foreach (surfacesOf($glb) as $s) {
        if ($s['name'] === $name) {
            return $s['key'];
        }
    }
    throw new LogicException("No surface {$name}.");
}

/** Points, skins, shapes and triangles in a form that does not ask in which order they are. @return array<string, mixed> */
function bodyOf(string $glb): array
{
    $g = GltfReader::read($glb);
    $corners = [];
    $weights = 0.0;
    foreach ($g->primitives() as [$node, $p]) {
        $m = $g->nodes[$node]['skin'] !== null ? M4::IDENTITY : $g->worldMatrix($node);
        foreach ($p['index'] as $v) {
            $at = M4::point($m, [$p['positions'][3 * $v], $p['positions'][3 * $v + 1], $p['positions'][3 * $v + 2]]);
            $corners[] = sprintf('%.4f %.4f %.4f %d', ...[...$at, $p['joints'][4 * $v] ?? 0]);
            $weights += $p['weights'][4 * $v] ?? 0.0;
        }
    }
    sort($corners);
    $d = AssetDigest::of($g);

    return [
        'corners' => hash('sha256', implode('|', $corners)), 'weights' => round($weights, 2), 'skeleton' => $d['skeleton'],
        'morphs' => $d['morphs'], 'bounds' => $d['bounds'], 'triangles' => $d['triangles'], 'mounts' => $d['mounts'],
        'extras' => $d['extras'],
    ];
}

test('Oklab gives the published values for the corners of sRGB', function (array $rgb, array $lab): void {
    foreach (Oklab::of($rgb) as $k => $v) {
        expect($v)->toEqualWithDelta($lab[$k], 0.0005);
    }
})->with([
    'white' => [[1.0, 1.0, 1.0], [1.0, 0.0, 0.0]], 'black' => [[0.0, 0.0, 0.0], [0.0, 0.0, 0.0]],
    'red' => [[1.0, 0.0, 0.0], [0.6279, 0.2249, 0.1258]],
    'green' => [[0.0, 1.0, 0.0], [0.8664, -0.2339, 0.1795]], 'blue' => [[0.0, 0.0, 1.0], [0.4520, -0.0324, -0.3115]],
]);

test('colours have the names that people give them', function (string $hex, string $name): void {
    expect(Oklab::name(Oklab::linear($hex)))->toBe($name)->and(Oklab::hex(Oklab::linear($hex)))->toBe($hex);
})->with([
    ['#ffffff', 'white'], ['#c8c8c8', 'light grey'], ['#808080', 'grey'], ['#404040', 'dark grey'], ['#0a0a0a', 'black'],
    ['#c03030', 'red'], ['#733043', 'red'], ['#501018', 'dark red'],
    ['#f4a6b4', 'pink'], ['#e08030', 'orange'], ['#6b4423', 'brown'], ['#7d4c39', 'brown'], ['#d8c8a0', 'beige'], ['#f0d030', 'yellow'],
    ['#30a040', 'green'], ['#104818', 'dark green'],
    ['#30a0a0', 'teal'], ['#3060c0', 'blue'], ['#101850', 'dark blue'], ['#a0d0f8', 'light blue'], ['#8040b0', 'violet'],
]);

test('shaded folds are one tone, other colours are others, specks join the nearest', function (): void {
    $colours = $weights = [];
    foreach ([[0.40, 0.05, 0.06, 100], [0.05, 0.10, 0.35, 60], [0.60, 0.45, 0.08, 20]] as [$r, $g, $b, $n]) {
        for ($i = 0; $i < $n; $i++) {
            $shade = 0.7 + 0.6 * $i / $n;
            array_push($colours, $r * $shade, $g * $shade, $b * $shade);
            $weights[] = 1.0;
        }
    }
    array_push($colours, 0.0, 0.9, 0.0);
    $weights[] = 0.5;
    $tones = Tones::of($colours, $weights);
    expect($tones->all)->toHaveCount(3)->and(array_map(static fn (array $t): string => Oklab::name($t['rgb']), $tones->all))
        ->toBe(['red', 'blue', 'yellow']);
    expect($tones->all[0]['share'])->toEqualWithDelta(100 / 180.5, 1e-6);
    expect($tones->nearest([0.2, 0.02, 0.03]))->toBe(0)->and($tones->nearest([0.02, 0.04, 0.15]))->toBe(1)
        ->and($tones->nearest([0.9, 0.7, 0.12]))->toBe(2);
    expect(Tones::of([], [])->all)->toBe([])->and(Tones::of([], [])->nearest([1.0, 0.0, 0.0]))->toBe(0);
});

test('surfaces of a person are what she wears, of a plain box its materials', function (): void {
    $all = surfacesOf(FakeAssets::glb('oda'));
    expect(array_column(array_slice($all, 0, 4), 'name'))->toBe(['Red cloth', 'Dark brown leather', 'Dark grey cloth', 'Brown skin'])
        ->and(array_sum(array_column($all, 'share')))->toEqualWithDelta(1.0, 0.01);
    expect(array_unique(array_column($all, 'key')))->toHaveCount(count($all))->and(array_unique(array_column($all, 'name')))
        ->toHaveCount(count($all));
    expect(surfacesOf(Spoiled::thing(0.5, ['pbrMetallicRoughness' => ['baseColorFactor' => [0.0, 0.0, 1.0, 1.0]]])))
        ->toBe([['key' => 'paint', 'name' => 'Paint', 'colour' => '#0000ff', 'picture' => false, 'share' => 1.0]]);
    expect(surfacesOf(FakeAssets::glb('box')))
        ->toBe([['key' => 'surface 0', 'name' => 'Surface 0', 'colour' => '#ffffff', 'picture' => false, 'share' => 1.0]]);
    expect(surfacesOf(Spoiled::thing(0.5, [], Spoiled::picture(false)))[0]['picture'])->toBeTrue();
});

test('a coat is dyed: the coat alone, with its folds, and the body stays as it was', function (): void {
    $glb = FakeAssets::glb('oda');
    $coat = surfaceKey($glb, 'Red cloth');
    $green = dressed($glb, [new Wish($coat, '#2f8f4f')]);
    expect(bodyOf($green))->toBe(bodyOf($glb));
    [$before, $after] = [GltfReader::read($glb)->primitives(), GltfReader::read($green)->primitives()];
    $tones = SurfaceList::of(GltfDraft::open($glb))->groups;
    $cloth = array_values(array_filter($tones, static fn (array $g): bool => $g['name'] === 'cloth'))[0];
    $materials = GltfReader::read($glb)->list('materials');
    $dyed = $kept = 0;
    foreach ($before as $k => [, $p]) {
        $wide = intdiv(count($p['colours']), intdiv(count($p['positions']), 3));
        $isCloth = $materials[$p['material']]['name'] === 'cloth';
        for ($v = 0, $n = intdiv(count($p['positions']), 3); $v < $n; $v++) {
            $old = [$p['colours'][$wide * $v], $p['colours'][$wide * $v + 1], $p['colours'][$wide * $v + 2]];
            $w = intdiv(count($after[$k][1]['colours']), $n);
            $new = [$after[$k][1]['colours'][$w * $v], $after[$k][1]['colours'][$w * $v + 1], $after[$k][1]['colours'][$w * $v + 2]];
            $isCoat = $isCloth && $cloth['tones']->nearest($old) === 0;
            if (! $isCoat) {
                $kept += max(abs($new[0] - $old[0]), abs($new[1] - $old[1]), abs($new[2] - $old[2])) < 1e-6 ? 1 : -1_000_000;
            } elseif (++$dyed % 40 === 0) {
                // As much lighter or darker than the wish as the point was than the coat.
                $wish = Oklab::luminance(Oklab::linear('#2f8f4f'));
                expect(Oklab::luminance($new) / $wish)->toEqualWithDelta(
                    max(0.25, min(2.2, Oklab::luminance($old) / Oklab::luminance($cloth['tones']->all[0]['rgb']))),
                    0.02,
                );
                expect($new[1])->toBeGreaterThan($new[0])->toBeGreaterThan($new[2]);
            }
        }
    }
    expect($dyed)->toBeGreaterThan(500)->and($kept)->toBeGreaterThan(2000);
    expect(surfaceKey($green, 'Green cloth'))->toStartWith('cloth#');
});

test('a tone with a finish or a picture becomes a part of its own, whole and in one piece with the rest', function (Wish $wish, bool $pictured): void {
    $glb = FakeAssets::glb('oda');
    $key = surfaceKey($glb, 'Brown leather');
    $out = dressed($glb, [new Wish($key, $wish->colour, $wish->finish, $wish->picture, $wish->metres)]);
    expect(bodyOf($out))->toBe(bodyOf($glb));
    $g = GltfReader::read($out);
    $new = array_values(array_filter(
        $g->primitives(),
        static fn (array $p): bool => $p[1]['material'] >= count(GltfReader::read($glb)->list('materials')),
    ));
    expect($new)->toHaveCount(1)->and(count($new[0][1]['index']))->toBeGreaterThan(300)->and(count($g->primitives()))
        ->toBe(count(GltfReader::read($glb)->primitives()) + 1);
    $m = $g->list('materials')[$new[0][1]['material']];
    expect($m['name'])->toBe('leather')->and($m['extras']['paint'])->toBe('leather');
    expect(isset($m['pbrMetallicRoughness']['baseColorTexture']))->toBe($pictured)->and($m['extras']['gloss'] ?? null)
        ->toBe($pictured ? null : 0.42);
    if ($pictured) {
        expect($g->picture(count($g->list('images')) - 1))->toBe(Spoiled::picture(false));
    }
})->with(['gloss' => [new Wish('', null, 'gloss'), false], 'picture' => [new Wish('', null, null, str_repeat('a', 64), 0.5), true]]);

test('a picture is laid on from six sides at its width, and a map of one\'s own is kept', function (): void {
    $out = dressed(FakeAssets::glb('box'), [new Wish('surface 0', picture: str_repeat('b', 64), metres: 0.5)]);
    $g = GltfDraft::open($out);
    $p = $g->primitives()[0];
    $uv = $g->values($p['attributes']['TEXCOORD_0']);
    $at = $g->values($p['attributes']['POSITION']);
    // Eight corners that each belong to three faces.
    expect(count($at) / 3)->toBe(24)->and(count($g->values($p['indices'])))->toBe(36);
    $us = array_values(array_filter($uv, static fn (int $k): bool => $k % 2 === 0, ARRAY_FILTER_USE_KEY));
    expect(max($us) - min($us))->toEqualWithDelta(2.0, 1e-6);
    for ($i = 0; $i < 36; $i += 3) {
        [$a, $b, $c] = array_map(intval(...), array_slice($g->values($p['indices']), $i, 3));
        // No triangle is squeezed: half a square metre of the cube is two squares of the picture.
        $area = abs(
            ($uv[2 * $b] - $uv[2 * $a]) * ($uv[2 * $c + 1] - $uv[2 * $a + 1]) - ($uv[2 * $c] - $uv[2 * $a])
                * ($uv[2 * $b + 1] - $uv[2 * $a + 1])
        ) / 2;
        expect($area)->toEqualWithDelta(2.0, 1e-6);
    }
    $own = Spoiled::thing(0.5, [], Spoiled::picture(false));
    $kept = GltfDraft::open(dressed($own, [new Wish('paint', picture: str_repeat('b', 64))]));
    expect($kept->values($kept->primitives()[0]['attributes']['TEXCOORD_0']))
        ->toBe(GltfDraft::open($own)->values(GltfDraft::open($own)->primitives()[0]['attributes']['TEXCOORD_0']));
});

test('a plain material takes colour and finish, and keeps how clear it is', function (): void {
    $glass = Spoiled::thing(0.5, [
        'alphaMode' => 'BLEND',
        'pbrMetallicRoughness' => ['baseColorFactor' => [1.0, 1.0, 1.0, 0.4], 'roughnessFactor' => 0.9],
    ]);
    $m = GltfReader::read(dressed($glass, [new Wish('paint', '#ff0000', 'metal')]))->list('materials')[1];
    expect($m['pbrMetallicRoughness'])->toMatchArray(['roughnessFactor' => 0.3, 'metallicFactor' => 1])->and($m['alphaMode'])
        ->toBe('BLEND');
    expect(array_map(floatval(...), $m['pbrMetallicRoughness']['baseColorFactor']))->toBe([1.0, 0.0, 0.0, 0.4]);
});

test('wishes find their surface in the lighter copy and in a new version, and what is not there changes nothing', function (): void {
    $glb = FakeAssets::glb('oda');
    $light = GltfDraft::open($glb);
    Simplify::apply($light, 3000);
    $coat = surfaceKey($glb, 'Red cloth');
    $bright = static fn (string $file): array => array_column(array_slice(surfacesOf($file), 0, 2), 'name');
    expect($bright($light->toGlb())[0])->toBe('Red cloth')->and($bright(dressed($light->toGlb(), [new Wish($coat, '#3060c0')]))[0])
        ->toBe('Blue cloth');
    $same = dressed($glb, [new Wish('velvet#102030', '#3060c0'), new Wish('nonsense', null, 'gloss')]);
    expect(surfacesOf($same))->toBe(surfacesOf($glb))->and(bodyOf($same))->toBe(bodyOf($glb));
    expect(dressed($glb, [new Wish($coat, '#3060c0')]))->toBe(dressed($glb, [new Wish($coat, '#3060c0')]));
});

test('variants of a file are listed and put on, through intake too', function (): void {
    $glb = Examination::of(Spoiled::variedBox(), 'glb')->glb;
    expect(Variants::of(GltfDraft::open($glb)))->toBe([
        ['name' => 'New', 'colour' => '#ff0000', 'picture' => false], ['name' => 'Rusty', 'colour' => '#0000ff', 'picture' => false],
    ]);
    $worn = static fn (array $wishes): string => surfacesOf(dressed($glb, $wishes))[0]['name'].' '
        .surfacesOf(dressed($glb, $wishes))[0]['colour'];
    expect($worn([]))->toBe('Paint #ffffff')->and($worn([new Wish(Wish::WHOLE, variant: 'Rusty')]))->toBe('Blue paint #0000ff')
        ->and($worn([new Wish(Wish::WHOLE, variant: 'Polished')]))->toBe('Paint #ffffff');
    // A colour goes over the variant.
    expect($worn([new Wish(Wish::WHOLE, variant: 'Rusty'), new Wish('blue paint', '#00ff00')]))->toBe('Blue paint #00ff00');
    expect(Variants::of(GltfDraft::open(FakeAssets::glb('box'))))->toBe([]);
});

test('a cloth in a picture hangs by the same particles', function (string $name): void {
    $glb = FakeAssets::glb($name);
    $facts = FakeAssets::digestOf($name)['extras']['cloth'];
    $key = surfacesOf($glb)[0]['key'];
    $g = GltfReader::read(dressed($glb, [new Wish($key, null, 'satin', str_repeat('c', 64), 0.3)]));
    expect(count($g->primitives()))->toBe(count(GltfReader::read($glb)->primitives()))
        ->and(isset($g->list('meshes')[0]['primitives'][0]['attributes']['TEXCOORD_0']))->toBeTrue();
    [$before, $after] = [Fabric::of(GltfReader::read($glb), $facts), Fabric::of($g, $facts)];
    expect($after->rest)->toBe($before->rest)->and($after->count())->toBe($before->count());
})->with(['banner', 'cloak']);

test('the house patterns repeat without a seam', function (): void {
    foreach (Patterns::all() as $p) {
        $image = imagecreatefromstring($p['png']);
        $n = imagesx($image);
        expect($n)->toBe(imagesy($image));
        $far = static function (int $x1, int $y1, int $x2, int $y2) use ($image): int {
            [$a, $b] = [imagecolorat($image, $x1, $y1), imagecolorat($image, $x2, $y2)];

            return abs(($a >> 16 & 255) - ($b >> 16 & 255)) + abs(($a >> 8 & 255) - ($b >> 8 & 255)) + abs(($a & 255) - ($b & 255));
        };
        // Across the edge as many points differ as across the worst line inside, and no more.
        $count = static fn (callable $pair): int => count(array_filter(range(0, $n - 1), static fn (int $k): bool => $pair($k) > 90));
        $inside = [
            max(array_map(static fn (int $x): int => $count(static fn (int $k): int => $far($x, $k, $x + 1, $k)), range(0, $n - 2))),
            max(array_map(static fn (int $y): int => $count(static fn (int $k): int => $far($k, $y, $k, $y + 1)), range(0, $n - 2))),
        ];
        expect($count(static fn (int $k): int => $far($n - 1, $k, 0, $k)))->toBeLessThanOrEqual($inside[0] + 2, $p['slug'])
            ->and($count(static fn (int $k): int => $far($k, $n - 1, $k, 0)))->toBeLessThanOrEqual($inside[1] + 2, $p['slug']);
    }
});
