<?php

declare(strict_types=1);

use App\Assets\AssetIntake;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Scenes\SceneStream;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;

/** @return array<string, mixed> */
function shelfOf(Tests\TestCase $test, int $production, string $query = ''): array
{
    return $test->getJson("/api/productions/{$production}/kit?{$query}")->assertOk()->json();
}

test('the shelf is filtered by kind, owner, use and words, and sorted by length', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    app(AssetIntake::class)->model($scene->production, FakeAssets::glb('stool'), 'Kitchen stool', tags: ['furniture']);
    $names = fn (string $q): array => array_column(shelfOf($this, $scene->production_id, $q)['assets'], 'name');
    expect($names('q=chair'))->toContain('Kitchen stool')->and($names('house=0'))->toBe(['Kitchen stool'])
        ->and($names('house=0&kind=motion'))->toBe([])
        ->and($names('kind=performer'))->toContain('Oda Ferrant')->and($names('kind=performer'))->not->toContain('Walk');
    $lengths = array_map(
        static fn (array $a): float => (float) $a['facts']['seconds'],
        shelfOf($this, $scene->production_id, 'kind=motion&sort=length')['assets'],
    );
    $sorted = $lengths;
    sort($sorted);
    $within = fn (string $which): array => array_map(
        static fn (array $a): float => (float) $a['facts']['seconds'],
        shelfOf($this, $scene->production_id, "kind=motion&length={$which}")['assets'],
    );
    [$short, $middle, $long] = array_map($within, ['short', 'middle', 'long']);
    expect(max($short))->toBeLessThanOrEqual(3.0)->and(min($middle))->toBeGreaterThan(3.0)->and(max($middle))->toBeLessThanOrEqual(6.0)
        ->and(min($long))->toBeGreaterThan(6.0);
    $total = fn (string $of): int => shelfOf($this, $scene->production_id, "kind=motion{$of}")['total'];
    expect($total('&length=short') + $total('&length=middle') + $total('&length=long'))->toBe($total(''))
        ->and(shelfOf($this, $scene->production_id, 'kind=prop&length=short')['total'])->toBe(0);
    expect($lengths)->toBe($sorted)->and(count($lengths))->toBeGreaterThan(4);
    expect(shelfOf($this, $scene->production_id, 'kind=motion&travel=1')['total'])
        ->toBeLessThan(shelfOf($this, $scene->production_id, 'kind=motion')['total']);
    $this->edit($scene, [['do' => 'item.add', 'asset' => Asset::query()->where('slug', 'lantern')->value('id'), 'near' => [0, 0]]]);
    expect(array_column(shelfOf($this, $scene->production_id, "scene={$scene->id}")['assets'], 'slug'))->toBe(['lantern']);
    expect($names('face=1&kind=prop'))->toBe([]);
});

test('what has working parts is told from what is one piece', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $found = array_column(shelfOf($this, $scene->production_id, 'kind=prop&parts=1')['assets'], 'facts', 'slug');
    expect(array_keys($found))->toContain('bicycle', 'rowing-boat', 'hand-cart')->not->toContain('chair', 'bell-post');
    foreach ($found as $facts) {
        expect($facts['joints'])->toBeGreaterThan(0);
    }
});

test('sounds of the house have a length, a picture and a licence, are found by other words, and come in stretches', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $all = shelfOf($this, $scene->production_id, 'kind=sound&house=1')['assets'];
    expect(count($all))->toBeGreaterThanOrEqual(30);
    foreach ($all as $a) {
        expect($a['facts']['seconds'])->toBeGreaterThan(0.5)->and($a['licence'])->toBe('CC0-1.0')->and($a['picture'])->toHaveLength(64);
    }
    $names = fn (string $q): array => array_column(shelfOf($this, $scene->production_id, "kind=sound&q={$q}")['assets'], 'name');
    expect($names('seagull'))->toBe(['Gulls'])->and($names('footsteps'))->toContain('Steps on wood', 'Steps on stone', 'Steps on gravel')
        ->and($names('ship'))->toContain("Ship's horn");
    $blob = collect($all)->firstWhere('slug', 'sound-bell')['blob'];
    $whole = $this->get("/api/blobs/{$blob}")->assertOk()->assertHeader('Content-Type', 'audio/wav')->assertHeader('Accept-Ranges', 'bytes')
        ->getContent();
    $part = fn (string $range) => $this->get("/api/blobs/{$blob}", ['Range' => $range]);
    $size = strlen($whole);
    expect($part('bytes=10-19')->assertStatus(206)->assertHeader('Content-Range', "bytes 10-19/{$size}")->getContent())
        ->toBe(substr($whole, 10, 10));
    expect($part('bytes=-5')->assertStatus(206)->getContent())->toBe(substr($whole, -5))
        ->and($part('bytes='.($size - 3).'-')->assertStatus(206)->getContent())->toBe(substr($whole, -3))
        ->and($part('bytes=0-999999999')->assertStatus(206)->getContent())->toBe($whole);
    $part("bytes={$size}-")->assertStatus(416)->assertHeader('Content-Range', "bytes */{$size}");
    foreach (['bytes=a-b', 'bytes=-', 'lines=1-2', 'bytes=0-1,4-5'] as $odd) {
        expect($part($odd)->assertOk()->getContent())->toBe($whole);
    }
});

test('people of the house in other clothes are found by the colour', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $all = array_column(shelfOf($this, $scene->production_id, 'kind=performer&house=1')['assets'], 'name');
    expect(count($all))->toBe(24)->and(count(array_unique($all)))->toBe(24)->and(preg_grep('/\\d/', $all))->toBe([]);
    expect(array_column(shelfOf($this, $scene->production_id, 'kind=performer&q=violet')['assets'], 'name'))
        ->toContain('Oda Ferrant in violet');
});

test('a thing of the house is called what the house calls it now, a thing of one\'s own what one has called it', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $intake = app(AssetIntake::class);
    $house = $intake->model(null, FakeAssets::glb('stool'), 'Seat of old', 'prop', ['old'], 'test-seat')->asset_id;
    $intake->model(null, FakeAssets::glb('stool'), 'Seat of now', 'prop', ['now'], 'test-seat');
    $own = $intake->model($scene->production, FakeAssets::glb('stool'), 'Mine', 'prop', [], 'test-own')->asset_id;
    $intake->model($scene->production, FakeAssets::glb('key'), 'Other', 'prop', [], 'test-own');
    expect(Asset::query()->findOrFail($house))->name->toBe('Seat of now')->tags->toBe(['now'])->and(Asset::query()->findOrFail($own)->name)
        ->toBe('Mine');
    Asset::query()->whereKey($house)->update(['archived_at' => now()]);
});

test('pages follow each other without gap or double', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $whole = shelfOf($this, $scene->production_id, 'limit=120');
    $parts = [];
    for ($o = 0; $o < $whole['total']; $o += 13) {
        array_push($parts, ...array_column(shelfOf($this, $scene->production_id, "limit=13&offset={$o}")['assets'], 'id'));
    }
    expect(array_slice($parts, 0, 120))->toBe(array_column($whole['assets'], 'id'))->and(count(array_unique($parts)))
        ->toBe($whole['total']);
});

test('replacing in place: every use takes the new one and keeps its beats and links', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $intake = app(AssetIntake::class);
    $old = $intake->model($scene->production, FakeAssets::glb('stool'), 'Stool')->asset_id;
    $new = $intake->model($scene->production, FakeAssets::glb('key'), 'Better stool')->asset_id;
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => $old, 'near' => [0, 0], 'name' => 'First'],
        ['do' => 'item.add', 'asset' => $old, 'near' => [2, 0], 'name' => 'Second'],
        ['do' => 'item.add', 'asset' => Asset::query()->where('slug', 'oda-ferrant')->value('id'), 'near' => [1, 1]],
    ]);
    $items = $scene->items()->orderBy('id')->get();
    $this->edit(
        $scene,
        [['do' => 'link.add', 'child' => $items[0]->id, 'parent' => $items[2]->id, 'mount' => 'handR', 'from' => 0, 'keep' => 'grip']],
    );
    $this->actingAs($user)->postJson("/api/productions/{$scene->production_id}/kit/{$old}/replace", ['with' => $new])->assertOk()
        ->assertJsonPath('version', 2);
    $manifest = $this->getJson("/api/scenes/{$scene->id}")->json('manifest');
    $blob = AssetVersion::query()->where('asset_id', $new)->value('blob');
    expect(array_slice(array_column($manifest['items'], 'blob'), 0, 2))->toBe([$blob, $blob])->and($scene->links()->count())->toBe(1)
        ->and($scene->items()->count())->toBe(3);
    // And back.
    $this->postJson("/api/productions/{$scene->production_id}/kit/{$old}/revert", ['version' => 1])->assertOk()
        ->assertJsonPath('version', 3);
    expect($this->getJson("/api/scenes/{$scene->id}")->json('manifest.items.0.blob'))->not->toBe($blob);
    $this->postJson(
        "/api/productions/{$scene->production_id}/kit/{$old}/replace",
        ['with' => Asset::query()->where('slug', 'walk')->value('id')],
    )->assertStatus(422)->assertJsonPath('reason', 'kit.kind');
});

test('name, tags, colour, folder, maker and licence are kept; what is put away comes back', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $id = app(AssetIntake::class)->model($scene->production, FakeAssets::glb('stool'), 'Stool')->asset_id;
    $url = "/api/productions/{$scene->production_id}/kit/{$id}";
    $this->patchJson($url, [
        'name' => 'Milking stool', 'tags' => ['farm', 'wood'], 'colour' => 3, 'folder' => 'Barn', 'credit' => 'Ilse Brandt',
        'licence' => 'CC-BY-4.0',
    ])->assertOk()->assertJsonPath('name', 'Milking stool')->assertJsonPath('colour', 3);
    expect(shelfOf($this, $scene->production_id, 'folder=Barn&colour=3&licence=CC-BY-4.0&q=farm')['total'])->toBe(1);
    $this->patchJson($url, ['colour' => 12])->assertStatus(422);
    $this->postJson("{$url}/archive")->assertOk()->assertJsonPath('archived', true);
    expect(shelfOf($this, $scene->production_id, 'house=0')['total'])->toBe(0)
        ->and(shelfOf($this, $scene->production_id, 'house=0&archived=1')['total'])->toBe(1);
    $this->postJson("{$url}/archive", ['back' => true])->assertOk()->assertJsonPath('archived', false);
    $this->edit($scene, [['do' => 'item.add', 'asset' => $id, 'near' => [0, 0]]]);
    $credits = $this->getJson("/api/productions/{$scene->production_id}/credits")->assertOk()->json('credits');
    expect($credits)->toBe([['credit' => 'Ilse Brandt', 'licence' => 'CC-BY-4.0', 'names' => ['Milking stool']]]);
});

test('the house kit changes for nobody, and kits of others are not there', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $house = Asset::query()->where('slug', 'lantern')->value('id');
    $this->actingAs($user)->patchJson("/api/productions/{$scene->production_id}/kit/{$house}", ['name' => 'Mine'])->assertStatus(403)
        ->assertJsonPath('reason', 'kit.house');
    $this->getJson("/api/productions/{$scene->production_id}/kit/{$house}")->assertOk()->assertJsonPath('house', true);
    $theirs = app(AssetIntake::class)->model($this->scene($this->person())->production, FakeAssets::glb('stool'), 'Stool')->asset_id;
    $this->getJson("/api/productions/{$scene->production_id}/kit/{$theirs}")->assertStatus(404);
    $this->getJson("/api/productions/{$scene->production_id}/previews?asset={$theirs}")->assertStatus(404);
    $this->postJson("/api/productions/{$scene->production_id}/kit/{$theirs}/archive")->assertStatus(404);
});

test('a motion plays on the figure that was chosen', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $walk = Asset::query()->where('slug', 'walk')->value('id');
    $bram = Asset::query()->where('slug', 'bram-tiel')->firstOrFail();
    $m = $this->actingAs($user)->getJson("/api/productions/{$scene->production_id}/previews?asset={$walk}&on={$bram->id}")->assertOk()
        ->json('manifest');
    expect($m['items'][0]['blob'])->toBe($bram->versions()->latest('number')->value('blob'))->and($m['frames'])->toBeGreaterThan(20);
    $name = SceneStream::named($m, 0)[0];
    expect(strlen((string) $this->get("/api/previews/pieces?of=0:{$name}")->assertOk()->getContent()))->toBeGreaterThan(1000);
    $this->getJson("/api/productions/{$scene->production_id}/previews?asset={$walk}&on={$walk}")->assertStatus(404);
});

test('a figure by sliders is seen before it is kept, and kept under its name', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $base = "/api/productions/{$scene->production_id}/figures";
    $like = Asset::query()->where('slug', 'lotte-farrow')->value('id');
    $spec = $this->actingAs($user)->getJson("{$base}?like={$like}")->assertOk()->json('spec');
    expect($spec['hair'])->toBe('plaits')->and($this->getJson("{$base}?seed=4")->json('spec.seed'))->toBe(4);
    $spec = ['name' => 'Wren Halloway', 'hat' => 'brim', 'heightMetres' => 1.5] + $spec;
    $m = $this->getJson("{$base}/preview?spec=".urlencode((string) json_encode($spec)))->assertOk()->json('manifest');
    $this->get("/api/previews/blobs/{$m['items'][0]['blob']}")->assertOk();
    $made = $this->postJson($base, ['spec' => $spec])->assertStatus(201)->json();
    expect($made['name'])->toBe('Wren Halloway')->and($made['blob'])->toBe($m['items'][0]['blob'])->and($made['facts']['fingers'])
        ->toBeTrue();
    $this->edit($scene, [['do' => 'item.add', 'asset' => $made['id'], 'near' => [0, 0]]]);
    $this->edit(
        $scene,
        [[
            'do' => 'beat.add', 'item' => $scene->items()->firstOrFail()->id,
            'motion' => Asset::query()->where('slug', 'laugh')->value('id'),
        ]],
    );
    $this->getJson("/api/scenes/{$scene->id}")->assertOk()->assertJsonPath('manifest.notes', []);
    $this->postJson($base, ['spec' => 'tall'])->assertStatus(422)->assertJsonPath('reason', 'figure.spec');
    $stool = app(AssetIntake::class)->model($scene->production, FakeAssets::glb('stool'), 'Stool')->asset_id;
    $this->getJson("{$base}?like={$stool}")->assertStatus(422)->assertJsonPath('reason', 'figure.foreign');
});

test('an item stays at a version of its asset, or follows the newest', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $intake = app(AssetIntake::class);
    $first = $intake->model($scene->production, FakeAssets::glb('stool'), 'Stool', slug: 'stool');
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => $first->asset_id, 'near' => [0, 0], 'name' => 'Kept'],
        ['do' => 'item.add', 'asset' => $first->asset_id, 'near' => [2, 0], 'name' => 'Follows'],
    ]);
    $this->edit($scene, [['do' => 'item.set', 'item' => 'Kept', 'version' => 1]]);
    $second = $intake->model($scene->production, FakeAssets::glb('key'), 'Stool', slug: 'stool');
    $this->actingAs($user);
    $blobs = fn (): array => collect($this->getJson("/api/scenes/{$scene->id}")->json('manifest.items'))->pluck('blob', 'name')->all();
    expect($second->number)->toBe(2)->and($blobs())->toBe(['Kept' => $first->blob, 'Follows' => $second->blob]);
    expect(collect($this->getJson("/api/scenes/{$scene->id}")->json('rows.items'))->pluck('pinned', 'name')->all())
        ->toBe(['Kept' => 1, 'Follows' => null]);
    $this->edit($scene, [['do' => 'item.set', 'item' => 'Kept', 'version' => null]]);
    expect($blobs()['Kept'])->toBe($second->blob);
    expect(fn () => $this->edit($scene, [['do' => 'item.set', 'item' => 'Kept', 'version' => 7]]))
        ->toThrow(UserError::class, 'has no version 7');
});

test('styles are told from surfaces, and the shelf is filtered by them', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $intake = app(AssetIntake::class);
    $intake->model($scene->production, Spoiled::thing(0.2, [], Spoiled::picture(false)), 'Pictured crate');
    $intake->model($scene->production, Spoiled::thing(0.2), 'Plain crate');
    $names = fn (string $style): array => array_column(shelfOf($this, $scene->production_id, "style={$style}&kind=prop")['assets'], 'name');
    expect($names('pictures'))->toBe(['Pictured crate'])->and($names('plain'))->toBe(['Plain crate'])->and($names('painted'))
        ->toContain('Lantern')->and($names('painted'))->not->toContain('Plain crate');
});

test('joints are given their parts by hand, and a repair afterwards keeps that', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    [$slip] = dropped($this, $user, $scene, ['Someone.glb' => Spoiled::under(FakeAssets::glb('oda'), 100.0)]);
    $asset = Asset::query()->findOrFail($slip['assetId']);
    $url = "/api/productions/{$scene->production_id}/kit/{$asset->id}/roles";
    $sheet = $this->getJson($url)->assertOk()->json();
    expect($sheet['roles']['head'])->toMatchArray(['joint' => 'head', 'byHand' => false])->and($sheet['roles']['head']['confidence'])
        ->toBeGreaterThan(0.9)->and($sheet['parts'])->toHaveCount(25)->and($sheet['joints'])->toContain('toesL');
    $chosen = $this->postJson($url, ['choices' => ['head' => 'neck', 'jaw' => '']])->assertOk()->json();
    expect($chosen['roles']['head'])->toMatchArray(['joint' => 'neck', 'byHand' => true])->and($chosen['roles'])->not->toHaveKey('jaw');
    $versions = $asset->versions()->count();
    $this->postJson("/api/arrivals/{$slip['id']}/mend", ['choices' => ['size' => false]])->assertOk();
    expect($asset->versions()->count())->toBeGreaterThan($versions)->and($this->getJson($url)->json('roles.head'))
        ->toMatchArray(['joint' => 'neck', 'byHand' => true]);
    $this->postJson($url, ['choices' => ['head' => 'nose']])->assertStatus(422)->assertJsonPath('reason', 'rig.joint');
    $house = Asset::query()->where('slug', 'oda-ferrant')->value('id');
    $this->postJson("/api/productions/{$scene->production_id}/kit/{$house}/roles", ['choices' => ['head' => 'neck']])->assertStatus(403);
    $this->getJson("/api/productions/{$scene->production_id}/kit/".Asset::query()->where('slug', 'lantern')->value('id').'/roles')
        ->assertStatus(422)->assertJsonPath('reason', 'roles.none');
});

test('the parts list tells what a story needs, what stands in the scene, and what is nowhere', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $parts = fn (): array => $this->getJson("/api/scenes/{$scene->id}/parts")->assertOk()->json('lines');
    expect($parts())->toBe([]);
    $this->edit($scene, [
        ['do' => 'scene.set', 'story' => "Oda waits on the bench. Nan gives her the brass key.\nA dragon knocks at the door."],
        ['do' => 'item.add', 'asset' => 'bench', 'near' => [0, 0]],
        ['do' => 'item.add', 'asset' => 'mirre-tolland', 'near' => [2, 0], 'name' => 'Nan'],
    ]);
    $lines = $parts();
    $names = static fn (int $n): array => array_column($lines[$n]['found'], 'here', 'name');
    expect($lines)->toHaveCount(3)->and($names(0))->toMatchArray(['Oda Ferrant' => false, 'Bench' => true])->and($names(1))
        ->toMatchArray(['Nan' => true, 'Brass key' => false, 'Hand over' => false])->and($lines[2]['missing'])->toBe(['dragon'])
        ->and($names(2))->toMatchArray(['Knock' => false, 'Knock at a door' => false]);
    // What lies in a collection, but belongs to another production, is not offered: it could not be put in.
    $other = $this->scene($user);
    $unicorn = app(AssetIntake::class)->model($other->production, FakeAssets::glb('stool'), 'Dragon', 'prop', ['dragon'])->asset_id;
    $this->postJson("/api/productions/{$other->production_id}/kit/{$unicorn}/keep", ['keep' => true])->assertOk();
    expect($parts()[2]['missing'])->toBe(['dragon']);
    // A part of one's own goes before one of the house; one that is put away is not offered.
    $own = app(AssetIntake::class)->model($scene->production, FakeAssets::glb('key'), 'Brass key', 'prop', ['key'])->asset_id;
    $key = static fn (): int => collect($parts()[1]['found'])->firstWhere('name', 'Brass key')['id'];
    expect($key())->toBe($own);
    Asset::query()->whereKey($own)->update(['archived_at' => now()]);
    expect($key())->not->toBe($own);
    $this->edit($scene, [['do' => 'scene.set', 'story' => null]], $user);
    expect($parts())->toBe([]);
    // Undone, the story is back.
    $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect($parts())->toHaveCount(3)->and($scene->refresh()->story)->toStartWith('Oda waits');
    expect(fn () => $this->edit($scene, [['do' => 'scene.set', 'story' => str_repeat('x', 20001)]]))->toThrow(UserError::class);
    $this->actingAs($this->person())->getJson("/api/scenes/{$scene->id}/parts")->assertNotFound();
});
