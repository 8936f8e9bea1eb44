<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Figure\Face;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Kit\Figure\HairMaker;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Tests\Support\FakeAssets;

test('a figure keeps its budget and has all its joints and shapes', function (string $who, float $height): void {
    $d = FakeAssets::digestOf($who);
    expect($d['triangles'])->toBeLessThanOrEqual(15000)->and($d['draws'])->toBeLessThanOrEqual(10)->and($d['morphs'])->toBe(Face::MORPHS)
        ->and($d['bounds'][0][1])->toEqualWithDelta(0.0, 0.006)->and($d['bounds'][1][1])->toBeBetween($height, $height + 0.16);
    $roles = array_keys($d['skeleton']['roles']);
    foreach (HumanRoles::CENTRE as $role) {
        expect($roles)->toContain($role);
    }
    foreach (HumanRoles::SIDED as $role) {
        expect($roles)->toContain($role.'L', $role.'R');
    }
    foreach (['thumb', 'index', 'middle', 'ring', 'little'] as $finger) {
        expect($d['skeleton']['names'])->toContain($finger.'1L', $finger.'2R');
    }
})->with([['oda', 1.70], ['bram', 1.74]]);

test('weights of every vertex sum to one and name joints that are there', function (): void {
    foreach (GltfReader::read(FakeAssets::glb('bram'))->primitives() as [, $p]) {
        foreach (array_chunk($p['weights'], 4) as $i => $w) {
            expect(array_sum($w))->toEqualWithDelta(1.0, 1e-6);
        }
        expect(max($p['joints']))->toBeLessThan(45);
    }
});

test('left and right are each other\'s mirror image', function (): void {
    $d = FakeAssets::digestOf('oda');
    $s = CrispReel\Core\Rig\Skeleton::fromArray($d['skeleton']);
    foreach ($s->names as $j => $name) {
        if (str_ends_with($name, 'L')) {
            [$l, $r] = [$s->restPosition($j), $s->restPosition($s->index[substr($name, 0, -1).'R'])];
            expect($r)->toEqualWithDelta([-$l[0], $l[1], $l[2]], 1e-6);
        }
    }
});

test('the same spec gives the same bytes, another gives another person', function (): void {
    $short = new FigureSpec(
        'Short', heightMetres: 1.52, build: 0.4, nose: 0.7, jaw: 0.3, hair: 'cropped', top: 'jacket',
        colours: FigureSpec::bram()->colours,
    );
    $glb = FigureMaker::glb($short);
    $d = CrispReel\Core\Format\Gltf\AssetDigest::of(GltfReader::read($glb));
    expect($glb)->toBe(FigureMaker::glb($short))->and($d['bounds'][1][1])->toBeBetween(1.50, 1.66)->and($d['triangles'])
        ->toBeLessThanOrEqual(15000);
});

test('sliders from outside are brought to their ranges, and the same spec gives the same file', function (): void {
    $wild = FigureSpec::fromArray([
        'name' => '  ', 'heightMetres' => 40, 'build' => -3, 'hair' => 'snakes', 'hat' => 7,
        'colours' => ['skin' => 0x123456, 'top' => -1, 'legs' => 'red'],
    ]);
    expect($wild->heightMetres)->toBe(2.1)->and($wild->build)->toBe(0.0)->and($wild->hair)->toBe('cropped')->and($wild->hat)->toBe('none')
        ->and($wild->name)->toBe('New figure')->and($wild->colours['skin'])->toBe(0x123456)->and($wild->colours['top'])->toBeGreaterThan(0);
    $one = FigureSpec::random(12);
    expect(FigureSpec::fromArray($one->toArray()))->toEqual($one)->and(FigureSpec::random(12))->toEqual($one)
        ->and(FigureSpec::random(13))->not->toEqual($one)->and(FigureMaker::glb($one))->toBe(FigureMaker::glb(FigureSpec::random(12)));
});

test('every hair and hat makes a whole figure of at most 15,000 triangles in the house, 20,000 by sliders', function (): void {
    foreach (FigureSpec::house() as $spec) {
        $d = AssetDigest::of(GltfReader::read(FigureMaker::glb($spec)));
        expect($d['triangles'])->toBeLessThanOrEqual(15_000, $spec->name)->and($d['draws'])->toBeLessThanOrEqual(10)
            ->and(count($d['skeleton']['roles']))->toBeGreaterThan(20);
    }
    foreach (HairMaker::STYLES as $n => $hair) {
        $spec = FigureSpec::oda()->with([
            'hair' => $hair, 'hat' => HairMaker::HATS[$n % count(HairMaker::HATS)],
            'top' => FigureSpec::TOPS[$n % count(FigureSpec::TOPS)],
        ]);
        $d = AssetDigest::of(GltfReader::read(FigureMaker::glb($spec)));
        expect($d['triangles'])->toBeLessThanOrEqual(20_000, "{$hair}, {$spec->hat}")->and($d['bounds'][1][1])->toBeGreaterThan(1.65)
            ->and($d['bounds'][0][1])->toEqualWithDelta(0.0, 0.005)->and($d['morphs'])->toBe(Face::MORPHS);
    }
});

test('a colourway changes the clothes and nothing else', function (): void {
    foreach (['oda-ferrant', 'lotte-farrow'] as $slug) {
        $first = FigureSpec::house()[$slug];
        $second = $first->colourway(2);
        expect($second->colours['skin'])->toBe($first->colours['skin'])->and($second->colours['hair'])->toBe($first->colours['hair'])
            ->and($second->colours['top'])->not->toBe($first->colours['top'])->and($first->colourway(1))->toBe($first)
            ->and($first->colourway(3)->colours['top'])->not->toBe($second->colours['top']);
        [$a, $b] = [
            AssetDigest::of(GltfReader::read(FigureMaker::glb($first))), AssetDigest::of(GltfReader::read(FigureMaker::glb($second))),
        ];
        expect($b['bounds'])->toEqual($a['bounds'])->and($b['triangles'])->toBe($a['triangles']);
    }
});

/**
 * Offsets of every shape, by mesh.
 *
 * @return list<list<list<array{float, float, float}>>>
 */
function morphsOf(string $glb): array
{
    $read = GltfReader::read($glb);
    $out = [];
    foreach ($read->list('meshes') as $n => $mesh) {
        $targets = $mesh['primitives'][0]['targets'] ?? [];
        $out[] = array_map(
            static fn (array $t): array => array_chunk(
                $read->accessor($t['POSITION'], "meshes/{$n}"), 3,
            ), is_array($targets) ? $targets : [],
        );
    }

    return array_values(array_filter($out));
}

test('lips that are sealed lie where they rest while the jaw is open, on every face', function (string $who): void {
    [$open, $seal] = [array_search('jawOpen', Face::MORPHS, true), array_search('seal', Face::MORPHS, true)];
    $lips = $chin = 0;
    foreach (morphsOf(FakeAssets::glb($who)) as $targets) {
        foreach ($targets[$seal] as $i => $back) {
            if (V3::length($back) > 1e-6) {
                // Point by point what the jaw has done to the lips, taken back.
                expect(V3::length(V3::add($back, $targets[$open][$i])))->toBeLessThan(1e-5);
                $lips++;
            } elseif (V3::length($targets[$open][$i]) > 0.01) {
                $chin++;
            }
        }
    }
    expect($lips)->toBeGreaterThan(100)->and($chin)->toBeGreaterThan(30);
})->with(['oda', 'bram', 'pim-alder', 'lotte-farrow']);

test('a smile on one side leaves the other as it is', function (): void {
    $left = array_search('cornerUpL', Face::MORPHS, true);
    $moved = ['L' => 0.0, 'R' => 0.0];
    $read = GltfReader::read(FakeAssets::glb('oda'));
    foreach ($read->list('meshes') as $n => $mesh) {
        $p = $mesh['primitives'][0];
        if (! isset($p['targets'])) {
            continue;
        }
        $at = array_chunk($read->accessor($p['attributes']['POSITION'], "meshes/{$n}"), 3);
        foreach (array_chunk($read->accessor($p['targets'][$left]['POSITION'], "meshes/{$n}"), 3) as $i => $by) {
            $side = $at[$i][0] > 0.012 ? 'L' : ($at[$i][0] < -0.012 ? 'R' : '');
            if ($side !== '') {
                $moved[$side] = max($moved[$side], V3::length($by));
            }
        }
    }
    expect($moved['L'])->toBeGreaterThan(0.01)->and($moved['R'])->toBeLessThan(0.0015);
});
