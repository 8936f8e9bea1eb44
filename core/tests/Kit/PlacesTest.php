<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Kit\Costume;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierKit;
use CrispReel\Core\Kit\Places\PlaceKit;
use CrispReel\Core\Kit\Places\Things;

/** @return array<string, array{array<string, mixed>, array<string, mixed>}> slug to what was made and its digest */
function places(): array
{
    static $made = null;
    if ($made === null) {
        foreach (PlaceKit::all() as $m) {
            $made[$m['slug']] = [$m, AssetDigest::of(GltfReader::read($m['glb']))];
        }
    }

    return $made;
}

test('the house has six sets and at least forty props, each with a name, words and a mount where a hand or body would go', function (): void {
    $all = [...array_column(places(), 0), ...PierKit::all(), ...Costume::all()];
    $slugs = array_column($all, 'slug');
    expect(count(array_unique($slugs)))->toBe(count($slugs))->and(count(array_filter($all, static fn (array $m): bool => $m['kind'] === 'prop')))->toBeGreaterThanOrEqual(40);
    foreach (['ferry-pier', 'kitchen', 'street-corner', 'forest-clearing', 'classroom', 'stage'] as $set) {
        expect($slugs)->toContain($set);
    }
    foreach (places() as $slug => [$m, $d]) {
        expect(count($m['tags']))->toBeGreaterThan(0);
        if ($m['kind'] === 'prop' && ! in_array($slug, ['tree', 'pine', 'bush', 'mushroom', 'curtain'], true)) {
            expect(count($d['mounts']))->toBeGreaterThan(0, $slug);
        }
    }
});

test('everything stands on the ground, within its budget, with a size that a person believes', function (): void {
    $heights = ['chair' => [0.85, 1.05], 'table' => [0.70, 0.80], 'cup' => [0.07, 0.12], 'bottle' => [0.2, 0.35], 'ladder' => [2.4, 3.0], 'barrel' => [0.75, 0.95], 'postbox' => [1.2, 1.5], 'street-lamp' => [2.7, 3.3], 'suitcase' => [0.38, 0.5], 'tree' => [3.5, 5.2], 'bookshelf' => [1.7, 1.95], 'basket' => [0.35, 0.5]];
    foreach (places() as $slug => [$m, $d]) {
        [$low, $high] = $d['bounds'];
        expect($d['triangles'])->toBeLessThanOrEqual($m['kind'] === 'set' ? 65_000 : 8_000, $slug);
        if ($m['kind'] === 'prop' && ! in_array($slug, ['wall-clock', 'blackboard'], true)) {
            expect($low[1])->toBeBetween(-0.4, 0.06, $slug);
        }
        if (isset($heights[$slug])) {
            expect($high[1])->toBeBetween(...$heights[$slug]);
        }
    }
});

test('one can stand in the middle of every set', function (string $set, float $x, float $z, float $height): void {
    $tree = RayTree::of(array_values(unpack('g*', (string) base64_decode(places()[$set][1]['floor'], true)) ?: []));
    expect($tree->floor($x, $z, $height + 0.6))->toEqualWithDelta($height, 0.03);
})->with([['kitchen', 1.0, 1.2, 0.0], ['street-corner', 0.2, -0.8, 0.0], ['classroom', 0.9, 0.6, 0.0], ['forest-clearing', 0.3, 0.8, 0.0], ['stage', 0.0, -0.4, 0.6], ['stage', 2.6, 1.9, 0.3]]);

test('seats are as high as people sit, and a thing is made again bit for bit', function (): void {
    foreach (['chair' => 0.465, 'stool' => 0.48, 'armchair' => 0.48, 'bed' => 0.60] as $slug => $height) {
        expect(places()[$slug][1]['mounts']['seat']['position'][1])->toEqualWithDelta($height, 0.01);
    }
    $cup = static function (): string {
        $p = new Piece('Cup', 5);
        Things::cup($p);

        return $p->glb();
    };
    expect($cup())->toBe($cup());
});
