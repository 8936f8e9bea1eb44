<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Kit\Costume;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierKit;
use CrispReel\Core\Kit\Pier\Shore;
use CrispReel\Core\Kit\Places\AllRound;
use CrispReel\Core\Kit\Places\PlaceKit;
use CrispReel\Core\Kit\Places\Things;
use CrispReel\Core\Math\V3;

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

/** @return list<array{slug: string, kind: string, name: string, tags: list<string>, home: array{float, float, float}, glb: string}> made once a run */
function pierThings(): array
{
    static $made = null;

    return $made ??= PierKit::all();
}

test('the house has six sets and at least forty props, each with a name, words and a mount where a hand or body would go', function (): void {
    $all = [...array_column(places(), 0), ...pierThings(), ...Costume::all()];
    $slugs = array_column($all, 'slug');
    expect(count(array_unique($slugs)))->toBe(count($slugs))
        ->and(count(array_filter($all, static fn (array $m): bool => $m['kind'] === 'prop')))->toBeGreaterThanOrEqual(40);
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
    $heights = [
        'chair' => [0.85, 1.05], 'table' => [0.70, 0.80], 'cup' => [0.07, 0.12], 'bottle' => [0.2, 0.35], 'ladder' => [2.4, 3.0],
        'barrel' => [0.75, 0.95], 'postbox' => [1.2, 1.5], 'street-lamp' => [2.7, 3.3], 'suitcase' => [0.38, 0.5], 'tree' => [3.5, 5.2],
        'bookshelf' => [1.7, 1.95], 'basket' => [0.35, 0.5],
    ];
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
})->with([
    ['kitchen', 1.05, 1.27, 0.02], ['street-corner', 0.2, -0.8, 0.15], ['street-corner', 0.2, 3.0, 0.03], ['classroom', 0.95, 0.67, 0.02],
    ['forest-clearing', 0.3, 0.8, 0.05],
    ['stage', 0.0, -0.4, 0.6], ['stage', 2.6, 1.9, 0.3],
]);

test('the plain ground covers no floor of a set: it lies below the lowest that one can walk on', function (string $set): void {
    $floor = array_values(unpack('g*', (string) base64_decode(places()[$set][1]['floor'], true)) ?: []);
    $low = INF;
    for ($i = 1, $n = count($floor); $i < $n; $i += 3) {
        $low = min($low, $floor[$i]);
    }
    expect($low)->toBeGreaterThan(0.0);
})->with(['kitchen', 'street-corner', 'classroom', 'forest-clearing', 'stage']);

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

test('surfaces of the whole kit face outward, waste no triangle, and mounts are where the thing is', function (): void {
    $all = array_map(static fn (array $made): array => $made[0], array_values(places()));
    foreach ([...$all, ...pierThings(), ...Costume::all()] as $m) {
        $slug = $m['slug'];
        $gltf = GltfReader::read($m['glb']);
        [$area, $against, $thin, $count] = [0.0, 0.0, 0, 0];
        foreach ($gltf->primitives() as [, $p]) {
            for ($i = 0, $n = count($p['normals']); $i < $n; $i += 3) {
                if (abs(sqrt($p['normals'][$i] ** 2 + $p['normals'][$i + 1] ** 2 + $p['normals'][$i + 2] ** 2) - 1.0) > 0.01) {
                    $this->fail("{$slug} has a normal that is not of length one.");
                }
            }
            // Of the sets' tens of thousands some thousands, evenly.
            $every = max(1, intdiv(count($p['index']), 12000));
            foreach (array_chunk($p['index'], 3) as $k => $corners) {
                if ($k % $every !== 0) {
                    continue;
                }
                [$a, $b, $c] = array_map(
                    static fn (int $v): array => [$p['positions'][3 * $v], $p['positions'][3 * $v + 1], $p['positions'][3 * $v + 2]],
                    $corners,
                );
                $face = V3::mul(V3::cross(V3::sub($b, $a), V3::sub($c, $a)), 0.5);
                $size = V3::length($face);
                $count++;
                $thin += $size < 1e-9 ? 1 : 0;
                $area += $size;
                $towards = array_sum(array_map(
                    static fn (int $v): float => V3::dot($face, [
                        $p['normals'][3 * $v], $p['normals'][3 * $v + 1], $p['normals'][3 * $v + 2],
                    ]),
                    $corners,
                ));
                $against += $towards < 0 ? $size : 0.0;
            }
        }
        expect($against / $area)->toBeLessThan(0.03, $slug)->and($thin / $count)->toBeLessThan(0.03, $slug);
        $digest = AssetDigest::of($gltf);
        foreach ($digest['mounts'] as $name => $mount) {
            foreach ([0, 1, 2] as $axis) {
                expect($mount['position'][$axis])
                    ->toBeBetween($digest['bounds'][0][$axis] - 0.35, $digest['bounds'][1][$axis] + 0.35, "{$slug}, {$name}");
            }
        }
    }
});

test('what hangs is told from what stands, has roots or floats', function (): void {
    $rise = static fn (string $slug): float => AssetDigest::rise(places()[$slug][1]);
    expect($rise('wall-clock'))->toEqualWithDelta(0.194, 0.005)
        ->and([$rise('rock'), $rise('tree'), $rise('chair'), $rise('cup'), $rise('book')])->toBe([0.0, 0.0, 0.0, 0.0, 0.0]);
    $made = array_column(pierThings(), 'glb', 'slug');
    $of = static fn (string $slug): float => AssetDigest::rise(AssetDigest::of(GltfReader::read($made[$slug])));
    expect($of('bell'))->toEqualWithDelta(0.914, 0.005)->and($of('rowing-boat'))->toBe(0.0)->and($of('bell-post'))->toBe(0.0)
        ->and(AssetDigest::rise([]))->toBe(0.0)->and(AssetDigest::rise(['kind' => 'thing', 'bounds' => 'none']))->toBe(0.0);
    // A performer stands on the feet that it has, wherever its joints are.
    expect(AssetDigest::rise(['kind' => 'figure', 'bounds' => [[0.0, -1.0, 0.0], [1.0, 0.5, 1.0]]]))->toBe(0.0);
});

test('what lies all round lies on all sides, near and far, faces the middle, and costs little', function (array $made): void {
    $gltf = GltfReader::read($made['glb']);
    $triangles = 0;
    $near = $far = array_fill(0, 8, false);
    foreach ($gltf->primitives() as [, $p]) {
        $triangles += intdiv(count($p['index']), 3);
        foreach (array_chunk($p['positions'], 3) as [$x, $y, $z]) {
            $k = (int) floor(8 * (atan2($x, $z) + M_PI) / (2 * M_PI)) % 8;
            $away = hypot($x, $z);
            $near[$k] = $near[$k] || ($away > 6.0 && $away < 60.0 && $y > 1.5);
            $far[$k] = $far[$k] || ($away > 70.0 && $y > 3.0);
        }
    }
    expect($triangles)->toBeLessThan(40_000)->and(array_filter($near))->toHaveCount(8)->and(array_filter($far))->toHaveCount(8);
})->with(static function (): iterable {
    foreach (array_filter(AllRound::all(), static fn (array $m): bool => $m['slug'] !== 'sea-all-round') as $made) {
        yield $made['slug'] => [$made];
    }
});

test('the open sea has something to see on all sides but where the shore lies, and all of it stands in the water', function (): void {
    $made = array_column(AllRound::all(), 'glb', 'slug')['sea-all-round'];
    $gltf = GltfReader::read($made);
    $digest = AssetDigest::of($gltf);
    expect($digest['extras'])->toMatchArray(['backdrop' => true, 'water' => Shore::WATER])
        ->and($digest['extras'])->not->toHaveKey('ground');
    $sides = $low = [];
    $triangles = 0;
    foreach ($gltf->primitives() as [, $p]) {
        $triangles += intdiv(count($p['index']), 3);
        foreach (array_chunk($p['positions'], 3) as [$x, $y, $z]) {
            $deg = fmod(rad2deg(atan2($x, $z)) + 360.0, 360.0);
            expect($y < 0.0 || $deg < 145.0 || $deg > 215.0)->toBeTrue("something stands before the shore at {$deg} degrees");
            expect(hypot($x, $z))->toBeGreaterThan(14.0);
            $y > 0.5 && $sides[(int) ($deg / 45)] = true;
            $low[] = $y;
        }
    }
    expect($triangles)->toBeLessThan(12_000)->and(count($sides))->toBeGreaterThanOrEqual(6)
        ->and(min($low))->toBeLessThan(Shore::WATER - 0.5);
});
