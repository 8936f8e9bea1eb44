<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Figure\Face;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
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
    $short = new FigureSpec('Short', heightMetres: 1.52, build: 0.4, nose: 0.7, jaw: 0.3, hair: 'cropped', top: 'jacket', colours: FigureSpec::bram()->colours);
    $glb = FigureMaker::glb($short);
    $d = CrispReel\Core\Format\Gltf\AssetDigest::of(GltfReader::read($glb));
    expect($glb)->toBe(FigureMaker::glb($short))->and($d['bounds'][1][1])->toBeBetween(1.50, 1.66)->and($d['triangles'])->toBeLessThanOrEqual(15000);
});
