<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Models\Asset;
use CrispReel\Core\Format\Gltf\GltfReader;

/** @return Illuminate\Support\Collection<string, Asset> */
function houseKit(): Illuminate\Support\Collection
{
    return Asset::query()->whereNull('production_id')->with('versions')->get()->keyBy('slug');
}

test('vertices are finite, normals unit, colours within range, and indices inside', function (string $slug): void {
    $asset = houseKit()[$slug];
    $gltf = GltfReader::read(app(BlobStore::class)->get($asset->versions[0]->blob));
    $low = [INF, INF, INF];
    $high = [-INF, -INF, -INF];
    $triangles = 0;
    // Wheels are meshes of their own about their axle: what is measured is where their node puts them.
    $place = [];
    foreach ($gltf->nodes as $i => $node) {
        if ($node['mesh'] !== null) {
            $place[$node['mesh']] = array_slice($gltf->worldMatrix($i), 12, 3);
        }
    }
    foreach ($gltf->list('meshes') as $m => $mesh) {
        foreach ($mesh['primitives'] as $k => $primitive) {
            $read = static fn (string $name): array => $gltf->accessor(
                $primitive['attributes'][$name],
                "meshes[{$m}].primitives[{$k}].{$name}",
            );
            $positions = $read('POSITION');
            $normals = $read('NORMAL');
            expect(count($normals))->toBe(count($positions));
            for ($i = 0, $n = count($normals); $i < $n; $i += 3) {
                $length = sqrt($normals[$i] ** 2 + $normals[$i + 1] ** 2 + $normals[$i + 2] ** 2);
                if (abs($length - 1.0) > 0.01 || ! is_finite($positions[$i] + $positions[$i + 1] + $positions[$i + 2])) {
                    throw new RuntimeException("{$slug}: vertex ".intdiv($i, 3)." has a normal of length {$length}.");
                }
                for ($c = 0; $c < 3; $c++) {
                    $low[$c] = min($low[$c], $positions[$i + $c] + $place[$m][$c]);
                    $high[$c] = max($high[$c], $positions[$i + $c] + $place[$m][$c]);
                }
            }
            $colours = $read('COLOR_0');
            expect(min($colours))->toBeGreaterThanOrEqual(0.0)->and(max($colours))->toBeLessThanOrEqual(1.0);
            $indices = $gltf->accessor($primitive['indices'], 'indices');
            expect(max($indices))->toBeLessThan(intdiv(count($positions), 3))->and(count($indices) % 3)->toBe(0);
            $triangles += intdiv(count($indices), 3);
        }
    }
    $facts = $asset->versions[0]->facts;
    expect($facts['triangles'])->toBe($triangles);
    for ($c = 0; $c < 3; $c++) {
        expect($facts['size'][$c])->toEqualWithDelta($high[$c] - $low[$c], 0.02, $slug);
    }
})->with([
    'ferry-pier', 'ticket-hut', 'ferry', 'hand-cart', 'bicycle', 'bell-post', 'bare-bell-post', 'bell', 'bench', 'crate-large',
    'crate-small', 'lantern-post', 'lantern', 'brass-key', 'pennant', 'far-shore',
]);

test('sizes are those of the things they stand for', function (string $slug, int $axis, float $from, float $to): void {
    expect(houseKit()[$slug]->versions[0]->facts['size'][$axis])->toBeGreaterThan($from)->toBeLessThan($to);
})->with([
    'Oda is a short woman' => ['oda-ferrant', 1, 1.5, 1.85], 'Bram is taller' => ['bram-tiel', 1, 1.75, 2.0],
    'a crate to sit on' => ['crate-small', 1, 0.35, 0.5],
    'a bench for two' => ['bench', 0, 1.0, 1.6], 'a key in a hand' => ['brass-key', 1, 0.1, 0.25],
    'a cart that one person pushes' => ['hand-cart', 0, 1.5, 2.5],
    'a ferry one can stand on' => ['ferry', 0, 5.0, 9.0], 'a lantern to carry' => ['lantern', 1, 0.25, 0.5],
]);

test('things that hands, riders and ropes go to carry mounts for them', function (string $slug, array $mounts): void {
    expect(houseKit()[$slug]->versions[0]->facts['mounts'])->toEqualCanonicalizing($mounts);
})->with([
    ['hand-cart', ['gripL', 'gripR', 'keyhole']], ['brass-key', ['hold']], ['lantern', ['hang']], ['bell-post', ['pull']],
    ['bell', ['pull']],
    ['ferry', ['masthead', 'helm', 'gangway', 'seat']], ['bench', ['seatR', 'seatL']],
]);

test('figures stay within 15,000 triangles and 10 draw calls, with a shape for each mouth and lid', function (string $slug): void {
    $facts = houseKit()[$slug]->versions[0]->facts;
    expect($facts['triangles'])->toBeLessThanOrEqual(15_000)->and($facts['draws'])->toBeLessThanOrEqual(10)
        ->and($facts['joints'])->toBeGreaterThanOrEqual(45)->and($facts['shapes'])->toBe(35);
})->with(['oda-ferrant', 'bram-tiel']);

test('what is dropped near others lands on what is below, clear of them', function (string $slug, array $near, float $height): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'ferry-pier', 'home' => true],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [2.2, 0.2]],
    ]);
    $this->edit($scene, [['do' => 'item.add', 'asset' => $slug, 'near' => $near]]);
    [$oda, $new] = [$scene->items()->where('name', 'Oda')->firstOrFail(), $scene->items()->orderByDesc('id')->firstOrFail()];
    expect($new->y)->toEqualWithDelta($height, 0.015)->and(hypot($new->x - $oda->x, $new->z - $oda->z))->toBeGreaterThan(0.3);
})->with([
    'on the deck, where someone stands' => ['bram-tiel', [2.2, 0.2], 0.0], 'a crate beside her' => ['crate-small', [2.25, 0.25], 0.0],
    'on the landing' => ['lantern', [-4.2, 0.6], 0.3],
]);
