<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Assets\HouseKit;
use App\Models\Asset;
use App\Models\AssetVersion;
use CrispReel\Core\Tests\Support\FakeAssets;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;

test('a GLB becomes a kit asset of its production, with facts', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $file = UploadedFile::fake()->createWithContent('../../My Stool.glb', FakeAssets::glb('stool'));
    $made = $this->actingAs($user)
        ->post("/api/productions/{$scene->production_id}/assets", ['file' => $file], ['Accept' => 'application/json'])->assertStatus(201)
        ->json();
    $asset = Asset::query()->findOrFail($made['asset']);
    expect($asset->name)->toBe('My Stool')->and($asset->slug)->toBe('my-stool')->and($asset->kind)->toBe('prop')
        ->and($made['facts']['size'])->toEqual([1, 1, 1])->and($made['facts']['mounts'])->toBe(['top']);
    $this->edit($scene, [['do' => 'item.add', 'asset' => $asset->id, 'near' => [0, 0]]]);
    expect($scene->items()->count())->toBe(1);
});

test('the same file again is the same version; another file under the name is the next', function (): void {
    $scene = $this->scene($this->person());
    $intake = app(App\Assets\AssetIntake::class);
    $a = $intake->model($scene->production, FakeAssets::glb('stool'), 'Stool', slug: 'stool');
    $b = $intake->model($scene->production, FakeAssets::glb('stool'), 'Stool', slug: 'stool');
    $c = $intake->model($scene->production, FakeAssets::glb('key'), 'Stool', slug: 'stool');
    expect($b->id)->toBe($a->id)->and($c->number)->toBe(2)->and($c->asset_id)->toBe($a->asset_id);
});

test('what cannot be read is refused in plain words and leaves nothing', function (string $bytes, string $reason): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $count = AssetVersion::query()->count();
    $this->actingAs($user)->post(
        "/api/productions/{$scene->production_id}/assets",
        ['file' => UploadedFile::fake()->createWithContent('x.glb', $bytes)],
        ['Accept' => 'application/json'],
    )
        ->assertStatus(422)->assertJsonPath('reason', $reason)->assertJsonStructure(['message', 'remedy']);
    expect(AssetVersion::query()->count())->toBe($count);
})->with([
    'text' => ['hello there', 'gltf.magic'], 'cut off' => [substr(FakeAssets::glb('box'), 0, 200), 'gltf.truncated'],
    'nothing in it' => ['{"asset":{"version":"2.0"}}', 'intake.empty'],
]);

test('a file over the limit is refused', function (): void {
    config(['reel.upload_bytes' => 500]);
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user)->post(
        "/api/productions/{$scene->production_id}/assets",
        ['file' => UploadedFile::fake()->createWithContent('x.glb', FakeAssets::glb('box'))],
        ['Accept' => 'application/json'],
    )
        ->assertStatus(422)->assertJsonPath('reason', 'intake.too-large');
});

test('no file at all is said', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user)->postJson("/api/productions/{$scene->production_id}/assets")->assertStatus(422)
        ->assertJsonPath('reason', 'intake.no-file');
});

test('the house kit is complete, credited, and installing it again changes nothing', function (): void {
    $before = AssetVersion::query()->count();
    // Figures and sets are made again bit for bit in the core's own tests.
    app(HouseKit::class)->install(shelves: ['patterns', 'sounds', 'motions'], again: true);
    expect(AssetVersion::query()->count())->toBe($before);
    $kit = Asset::query()->whereNull('production_id')->get()->keyBy('slug');
    foreach ([
        'oda-ferrant', 'bram-tiel', 'ferry-pier', 'ferry', 'hand-cart', 'lantern', 'bell-post', 'brass-key', 'idle', 'walk', 'talk',
        'wave', 'hand-over', 'receive',
    ] as $slug) {
        expect($kit)->toHaveKey($slug)->and($kit[$slug]->licence)->toBe('CC0-1.0')->and($kit[$slug]->tags)->not->toBe([]);
    }
});

test('of the kit only what other code has made, or what is gone, is made again', function (): void {
    $told = [];
    $install = static function (bool $again = false) use (&$told): array {
        $told = [];
        app(HouseKit::class)->install(static function (string $name) use (&$told): void {
            $told[] = $name;
        }, ['patterns'], $again);

        return $told;
    };
    $patterns = Asset::query()->whereNull('production_id')->where('kind', 'picture')->count();
    expect($install())->toBe([]);
    Asset::query()->whereNull('production_id')->where('kind', 'picture')->orderBy('id')->first()->delete();
    expect($install())->toHaveCount($patterns)->and($install())->toBe([]);
    DB::table('kit_shelves')->where('shelf', 'patterns')->update(['made_by' => str_repeat('0', 64)]);
    expect($install())->toHaveCount($patterns)->and($install(again: true))->toHaveCount($patterns);
});

test('the public validator finds no error in any kit file', function (): void {
    $folder = sys_get_temp_dir().'/crisp-reel-kit-'.bin2hex(random_bytes(4));
    mkdir($folder);
    foreach (Asset::query()->whereNull('production_id')->whereIn('kind', ['performer', 'set', 'prop'])->with('versions')->get() as $asset) {
        file_put_contents("{$folder}/{$asset->slug}.glb", app(BlobStore::class)->get($asset->versions->last()->blob));
    }
    $p = new Process(['node', base_path('tests/node/validate.mjs'), ...glob("{$folder}/*.glb")]);
    $p->setTimeout(120)->mustRun();
    array_map(unlink(...), glob("{$folder}/*.glb"));
    rmdir($folder);
    $found = json_decode($p->getOutput(), true);
    expect(count($found))->toBeGreaterThanOrEqual(15)->and(array_filter($found, static fn (array $f): bool => $f['errors'] > 0))->toBe([]);
});
