<?php

declare(strict_types=1);

use App\Assets\AssetIntake;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\Scene;
use App\Renders\RenderDesk;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Surfaces\SurfaceList;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;
use Symfony\Component\Process\Process;

/** Blobs of what stands in a scene, in its order. @return list<string> */
function blobsOf(Tests\TestCase $test, Scene $scene): array
{
    return array_column($test->getJson("/api/scenes/{$scene->id}")->assertOk()->json('manifest.items'), 'blob');
}

/** Two women and a bench, and the key of a woman's coat. @return array{Scene, string} */
function twoWomen(Tests\TestCase $test): array
{
    $user = $test->person();
    $scene = $test->scene($user);
    $test->actingAs($user);
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [0, 0], 'name' => 'One'],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [2, 0], 'name' => 'Other'],
        ['do' => 'item.add', 'asset' => 'bench', 'near' => [4, 0], 'name' => 'Bench'],
    ]);
    $surfaces = $test->getJson("/api/scenes/{$scene->id}/items/{$scene->items()->where('name', 'One')->value('id')}/surfaces")->assertOk()
        ->json('surfaces');

    return [$scene, $surfaces[0]['key']];
}

test('one is dressed, then all of her kind, undone step by step and given back', function (): void {
    [$scene, $coat] = twoWomen($this);
    $as = blobsOf($this, $scene);
    expect($as[0])->toBe($as[1]);
    $run = fn (array $commands) => $this->postJson("/api/scenes/{$scene->id}/edits", ['commands' => $commands])->assertOk();
    $run([['do' => 'item.dress', 'item' => 'One', 'surface' => $coat, 'colour' => '#2F8F4F']])
        ->assertJsonPath('label', 'Dress One, red cloth');
    $one = blobsOf($this, $scene);
    expect($one[0])->not->toBe($as[0])->and(array_slice($one, 1))->toBe(array_slice($as, 1))
        ->and($scene->items()->where('name', 'One')->firstOrFail()->surfaces)->toBe([$coat => ['colour' => '#2f8f4f']]);
    $glb = $this->get("/api/blobs/{$one[0]}")->assertOk()->assertHeader('Content-Type', 'model/gltf-binary')->getContent();
    expect(array_column(SurfaceList::of(GltfDraft::open($glb))->toArray(), 'name')[0])->toBe('Green cloth');
    $run([['do' => 'item.dress', 'item' => 'Other', 'surface' => $coat, 'colour' => '#3060c0', 'all' => true]]);
    $all = blobsOf($this, $scene);
    expect($all[0])->toBe($all[1])->not->toBe($one[0])->and($all[2])->toBe($as[2]);
    $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(blobsOf($this, $scene))->toBe($one);
    $run([
        ['do' => 'item.dress', 'item' => 'One', 'surface' => $coat, 'finish' => 'satin'],
        ['do' => 'item.dress', 'item' => 'One', 'surface' => $coat, 'colour' => null],
    ]);
    expect($scene->items()->where('name', 'One')->firstOrFail()->surfaces)->toBe([$coat => ['finish' => 'satin']]);
    $run([['do' => 'item.dress', 'item' => 'One', 'reset' => true]]);
    expect(blobsOf($this, $scene))->toBe($as)->and($scene->items()->where('name', 'One')->firstOrFail()->surfaces)->toBeNull();
    // A copy wears what its original wears.
    $run([['do' => 'item.dress', 'item' => 'One', 'surface' => $coat, 'colour' => '#2f8f4f'], ['do' => 'item.duplicate', 'item' => 'One']]);
    expect(blobsOf($this, $scene)[3])->toBe($one[0]);
});

test('what cannot be dressed is said', function (array $command, string $reason, string $says): void {
    [$scene] = twoWomen($this);
    try {
        $this->edit($scene, [['do' => 'item.dress', 'item' => 'One'] + $command]);
        $this->fail('It was taken.');
    } catch (UserError $e) {
        expect($e->reason)->toBe($reason)->and($e->getMessage().' '.$e->remedy)->toContain($says);
    }
})->with([
    'no surface of that name' => [['surface' => 'velvet', 'colour' => '#112233'], 'dress.surface', 'cloth#'],
    'nothing said' => [['surface' => 'cloth'], 'dress.nothing', 'colour'],
    'a person for a picture' => [['surface' => 'cloth', 'picture' => 'bram-tiel'], 'dress.no-picture', 'shelf of pictures'],
    'a colour that is none' => [['surface' => 'cloth', 'colour' => 'green'], 'edit.input', 'colour'],
    'a finish that is none' => [['surface' => 'cloth', 'finish' => 'velvet'], 'edit.input', 'finish'],
]);

test('a picture is worn, credited, valid for others, and stays with who may see it', function (): void {
    [$scene, $coat] = twoWomen($this);
    $picture = app(AssetIntake::class)->asset($scene->production, 'picture', 'Own stripes', [], 'stripes.png');
    $picture->update(['credit' => 'Ada Marsh', 'licence' => 'CC-BY-4.0']);
    app(AssetIntake::class)->version($picture, Spoiled::picture(false), ['kind' => 'picture'], []);
    $this->edit($scene, [
        ['do' => 'item.dress', 'item' => 'One', 'surface' => $coat, 'picture' => 'own-stripes', 'metres' => 0.4],
        ['do' => 'item.dress', 'item' => 'Bench', 'surface' => 'set#3f6f8c', 'picture' => 'pattern-planks'],
    ]);
    $blobs = blobsOf($this, $scene);
    $this->get("/api/blobs/{$blobs[0]}")->assertOk();
    expect($this->getJson("/api/productions/{$scene->production_id}/credits")->json('credits'))
        ->toContain(['credit' => 'Ada Marsh', 'licence' => 'CC-BY-4.0', 'names' => ['Own stripes']]);
    // The figure is of the house, the picture is not.
    $this->actingAs($this->person('Stranger'))->get("/api/blobs/{$blobs[0]}")->assertStatus(404);
    $this->get("/api/blobs/{$blobs[2]}")->assertOk();
    $folder = sys_get_temp_dir().'/crisp-reel-dress-'.bin2hex(random_bytes(4));
    mkdir($folder);
    foreach ([$blobs[0], $blobs[2]] as $k => $b) {
        file_put_contents("{$folder}/{$k}.glb", app(App\Assets\BlobStore::class)->get($b));
    }
    $p = new Process(['node', base_path('tests/node/validate.mjs'), ...glob("{$folder}/*.glb")]);
    $p->setTimeout(60)->mustRun();
    array_map(unlink(...), glob("{$folder}/*.glb"));
    rmdir($folder);
    expect(array_filter(json_decode($p->getOutput(), true), static fn (array $f): bool => $f['errors'] > 0))->toBe([]);
});

test('what is pointed at is told from its material and colour, also once it is dyed', function (): void {
    [$scene, $coat] = twoWomen($this);
    $look = static fn (string $hex): array => CrispReel\Core\Surfaces\Oklab::linear($hex);
    $wears = fn (): array => array_keys($scene->items()->where('name', 'One')->firstOrFail()->surfaces ?? []);
    // A fold of the coat, darker than its middle.
    $this->edit(
        $scene,
        [[
            'do' => 'item.dress',
            'item' => 'One',
            'at' => ['material' => 'cloth', 'colour' => array_map(static fn (float $c): float => $c * 0.7, $look(substr($coat, -7)))],
            'colour' => '#2f8f4f',
        ]],
    );
    expect($wears())->toBe([$coat]);
    $this->edit(
        $scene,
        [[
            'do' => 'item.dress', 'item' => 'One', 'at' => ['material' => 'cloth', 'colour' => $look('#2f8f4f')],
            'picture' => 'pattern-check',
        ]],
    );
    expect($wears())->toBe([$coat]);
    $this->edit(
        $scene,
        [['do' => 'item.dress', 'item' => 'One', 'at' => ['material' => 'hair', 'colour' => $look('#ada7a0')], 'colour' => '#402010']],
    );
    expect($wears())->toHaveCount(2)->and($wears()[1])->toStartWith('hair#');
    // A material without colours at its points.
    $crate = app(AssetIntake::class)->model($scene->production, Spoiled::thing(0.5), 'Crate', 'prop')->asset_id;
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => $crate, 'near' => [6, 0], 'name' => 'Crate'],
        ['do' => 'item.dress', 'item' => 'Crate', 'at' => ['material' => 'paint', 'colour' => null], 'colour' => '#2f8f4f'],
    ]);
    expect($scene->items()->where('name', 'Crate')->firstOrFail()->surfaces)->toBe(['paint' => ['colour' => '#2f8f4f']]);
    expect(fn () => $this->edit(
        $scene,
        [['do' => 'item.dress', 'item' => 'Crate', 'at' => ['material' => 'velvet', 'colour' => null], 'colour' => '#2f8f4f']],
    ))->toThrow(UserError::class);
});

test('a variant that the file offers is put on and taken off', function (): void {
    [$scene] = twoWomen($this);
    $crate = app(AssetIntake::class)->model($scene->production, Spoiled::variedBox(), 'Crate', 'prop')->asset_id;
    $this->edit($scene, [['do' => 'item.add', 'asset' => $crate, 'near' => [6, 0], 'name' => 'Crate']]);
    $id = $scene->items()->where('name', 'Crate')->value('id');
    $this->getJson("/api/scenes/{$scene->id}/items/{$id}/surfaces")->assertJsonPath('variants.1.name', 'Rusty');
    $plain = blobsOf($this, $scene)[3];
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'Crate', 'variant' => 'Rusty']]);
    expect(blobsOf($this, $scene)[3])->not->toBe($plain)
        ->and(SurfaceList::of(GltfDraft::open($this->get('/api/blobs/'.blobsOf($this, $scene)[3])->getContent()))->toArray()[0]['colour'])
        ->toBe('#0000ff');
    // While it is worn its own materials are listed, and dyed; they come back with it.
    $listed = fn (): array => array_column(
        $this->getJson("/api/scenes/{$scene->id}/items/{$id}/surfaces")->assertOk()->json('surfaces'),
        'key',
    );
    expect($listed())->toBe(['blue paint']);
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'Crate', 'surface' => 'blue paint', 'colour' => '#2f8f4f']]);
    $green = blobsOf($this, $scene)[3];
    expect(SurfaceList::of(GltfDraft::open($this->get("/api/blobs/{$green}")->getContent()))->toArray()[0]['colour'])->toBe('#2f8f4f');
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'Crate', 'variant' => null]]);
    expect($listed())->toBe(['paint'])->and(blobsOf($this, $scene)[3])->not->toBe($green);
    expect(fn () => $this->edit($scene, [['do' => 'item.dress', 'item' => 'Crate', 'surface' => 'blue paint', 'colour' => '#ffffff']]))
        ->toThrow(UserError::class, 'has no surface');
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'Crate', 'variant' => 'Rusty']]);
    expect(blobsOf($this, $scene)[3])->toBe($green);
    $this->edit($scene, [
        ['do' => 'item.dress', 'item' => 'Crate', 'surface' => 'blue paint', 'colour' => null],
        ['do' => 'item.dress', 'item' => 'Crate', 'variant' => null],
    ]);
    expect(blobsOf($this, $scene)[3])->toBe($plain)->and($scene->items()->find($id)->surfaces)->toBeNull();
    expect(fn () => $this->edit($scene, [['do' => 'item.dress', 'item' => 'Crate', 'variant' => 'Polished']]))
        ->toThrow(UserError::class, 'has no variant');
});

test('a render takes the clothes of its moment along', function (): void {
    [$scene, $coat] = twoWomen($this);
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'One', 'surface' => $coat, 'colour' => '#2f8f4f']]);
    $blob = blobsOf($this, $scene)[0];
    $job = app(RenderDesk::class)
        ->create(App\Scenes\DocumentBuilder::build($scene->refresh()), $scene->id, null, 0, 2, 64, 36, 'png', 'draft', 'x.zip');
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'One', 'reset' => true]]);
    $token = ['X-Render-Token' => $job->token];
    expect($this->getJson("/internal/renders/{$job->id}/manifest", $token)->assertOk()->json('items.0.blob'))->toBe($blob);
    $this->get("/internal/renders/{$job->id}/blobs/{$blob}", $token)->assertOk();
});

test('a lighter copy and a new version are dressed like the old one', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $intake = app(AssetIntake::class);
    $own = $intake->model($scene->production, FakeAssets::glb('oda'), 'Own woman', 'performer');
    $this->edit($scene, [['do' => 'item.add', 'asset' => $own->asset_id, 'near' => [0, 0], 'name' => 'Own']]);
    $coat = $this->getJson("/api/scenes/{$scene->id}/items/{$scene->items()->value('id')}/surfaces")->json('surfaces.0.key');
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'Own', 'surface' => $coat, 'colour' => '#2f8f4f']]);
    $first = blobsOf($this, $scene)[0];
    $intake->version(
        Asset::query()->findOrFail($own->asset_id),
        FakeAssets::glb('bram'),
        json_decode(json_encode(FakeAssets::digestOf('bram')), true),
        light: FakeAssets::glb('oda'),
    );
    $second = blobsOf($this, $scene)[0];
    // A wish for what the new version lacks is given back like any other.
    $scene->items()->firstOrFail()->update(['surfaces' => ['velvet#102030' => ['colour' => '#2f8f4f'], $coat => ['colour' => '#2f8f4f']]]);
    $this->edit($scene, [['do' => 'item.dress', 'item' => 'Own', 'surface' => 'velvet#102030', 'reset' => true]]);
    expect(array_keys($scene->items()->firstOrFail()->surfaces))->toBe([$coat]);
    // The lighter copy, here the first figure's file, in the same coat.
    expect($second)->toBe($first);
    $this->get("/api/blobs/{$second}")->assertOk();
});
