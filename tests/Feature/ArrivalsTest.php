<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Assets\StoredAssets;
use App\Intake\FileMap;
use App\Models\Arrival;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Scene;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\Channel;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Tests\Support\Spoiled;
use Symfony\Component\Process\Process;

/** @param  array<string, string>  $files */
function zipped(array $files): string
{
    $path = tempnam(sys_get_temp_dir(), 'zip');
    $zip = new ZipArchive;
    $zip->open($path, ZipArchive::OVERWRITE);
    foreach ($files as $name => $bytes) {
        $zip->addFromString($name, $bytes);
    }
    $zip->close();
    $bytes = (string) file_get_contents($path);
    unlink($path);

    return $bytes;
}

/** @return array<string, string> */
function picturedBox(): array
{
    return [
        'model/box.gltf' => Spoiled::thing(0.4, [], null, false, 'textures/side.png'),
        'model/textures/side.png' => Spoiled::picture(false),
    ];
}

test('a figure in centimetres gets a slip, is mended, and its motions are motions of the kit', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $bytes = Spoiled::under(Spoiled::cluttered(Spoiled::moving(Spoiled::good(), ['Walk_Forward_01' => ['walk', ['speed' => 1.3]]])), 100.0);
    [$slip] = dropped($this, $user, $scene, ['People/oda_v2.glb' => $bytes]);
    expect($slip['status'])->toBe('ready')->and($slip['kind'])->toBe('performer')->and($slip['name'])->toBe('Oda')
        ->and($slip['facts']['size'][1])->toEqualWithDelta(1.97, 0.03)->and($slip['facts']['fingers'])->toBeTrue()
        ->and($slip['facts']['eyelids'])->toBeTrue();
    $codes = collect($slip['findings'])->pluck('mended', 'code');
    expect($codes['size'])->toBeTrue()->and($codes['unbound'])->toBeFalse()
        ->and($slip['parts']['inFile'])->toBe(count($slip['parts']['made']) + count($slip['parts']['skipped']));
    $motion = Asset::query()->findOrFail(array_values($slip['motions'])[0]);
    $facts = $motion->versions()->firstOrFail()->facts;
    expect($motion->kind)->toBe('motion')->and($motion->name)->toBe('Walk Forward 01 (Oda)')->and($facts['speed'])
        ->toEqualWithDelta(1.3, 0.15)->and($facts['stepsASecond'])->toBeGreaterThan(1.0);
    // Nothing entered the scene; put there it walks with a motion of the house and with its own.
    expect($scene->items()->count())->toBe(0);
    $this->edit($scene, [['do' => 'item.add', 'asset' => $slip['assetId'], 'near' => [0, 0]]]);
    $item = $scene->items()->firstOrFail();
    $this->edit($scene, [
        ['do' => 'beat.add', 'item' => $item->id, 'motion' => $motion->id],
        ['do' => 'beat.add', 'item' => $item->id, 'motion' => Asset::query()->where('slug', 'wave')->value('id')],
    ]);
    $this->actingAs($user)->getJson("/api/scenes/{$scene->id}")->assertOk()->assertJsonPath('manifest.notes', []);
});

test('mend all does what is safe, each can be undone, and the file stays as it came', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $bytes = Spoiled::cluttered(Spoiled::good());
    [$slip] = dropped($this, $user, $scene, ['oda.glb' => $bytes]);
    $asset = Asset::query()->findOrFail($slip['assetId']);
    $all = $this->postJson("/api/arrivals/{$slip['id']}/mend", ['all' => true])->assertOk()->json();
    expect(collect($all['findings'])->where('severity', 'harms')->pluck('mended')->unique()->all())->toBe([true]);
    $second = $asset->versions()->orderByDesc('number')->firstOrFail();
    expect($second->number)->toBe(2);
    $undone = $this->postJson("/api/arrivals/{$slip['id']}/mend", ['choices' => ['unbound' => false]])->assertOk()->json();
    $codes = collect($undone['findings'])->pluck('mended', 'code');
    expect($codes['unbound'])->toBeFalse()->and($codes['colliders'])->toBeTrue();
    // The same choices give the same file again.
    expect($asset->versions()->orderByDesc('number')->firstOrFail()->blob)
        ->toBe($asset->versions()->where('number', 1)->firstOrFail()->blob);
    expect(app(BlobStore::class)->get(Arrival::query()->findOrFail($slip['id'])->original))->toBe($bytes);
});

test('a statue of a person is given a skeleton by its markers, and is a statue again when that is undone', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    [$slip] = dropped($this, $user, $scene, ['Statue.glb' => Spoiled::naked(Spoiled::good())]);
    expect($slip['kind'])->toBe('prop')->and(array_column($slip['findings'], 'code'))->toContain('skeleton');
    $places = $this->getJson("/api/arrivals/{$slip['id']}/markers")->assertOk()->json();
    expect($places['sure'])->toBeTrue()->and($places['markers'])->toBe($places['proposed'])->and($places['markers'])->toHaveCount(8);
    $set = ['kneeL' => [0.1, 0.44], 'kneeR' => [-0.1, 0.44]];
    $fitted = $this->postJson("/api/arrivals/{$slip['id']}/mend", ['choices' => ['skeleton' => ['markers' => $set, 'fingers' => true]]])
        ->assertOk()->json();
    expect($fitted['kind'])->toBe('performer')->and($fitted['facts']['roles'])->toBeGreaterThan(20)->and($fitted['facts']['fingers'])
        ->toBeTrue();
    // It walks on its turntable: poses of the core, and before it stands.
    $preview = $this->getJson("/api/arrivals/{$slip['id']}/preview")->assertOk()->json('manifest');
    $before = $this->getJson("/api/arrivals/{$slip['id']}/preview?code=skeleton&as=before")->assertOk()->json('manifest');
    expect($preview['frames'])->toBeGreaterThan(24)->and($preview['items'][0]['kind'])->toBe('performer')->and($before['items'][0]['kind'])
        ->toBe('prop');
    $again = $this->getJson("/api/arrivals/{$slip['id']}/markers")->assertOk()->json();
    expect($again['fingers'])->toBeTrue()->and($again['markers']['kneeL'][1])->toBe(0.44)->and($again['markers']['neck'])
        ->toBe($places['markers']['neck']);
    $undone = $this->postJson("/api/arrivals/{$slip['id']}/mend", ['choices' => ['skeleton' => false]])->assertOk()->json();
    expect($undone['kind'])->toBe('prop')->and(Asset::query()->findOrFail($slip['assetId'])->kind)->toBe('prop');
    [$figure] = dropped($this, $user, $scene, ['Person.glb' => Spoiled::good()]);
    $this->getJson("/api/arrivals/{$figure['id']}/markers")->assertStatus(409)->assertJsonPath('reason', 'fit.skeleton');
    $this->actingAs($this->person('Another'))->getJson("/api/arrivals/{$slip['id']}/markers")->assertNotFound();
});

test('numbers that make no sense are refused and change nothing', function (array $body, string $reason): void {
    $user = $this->person();
    $scene = $this->scene($user);
    [$slip] = dropped($this, $user, $scene, ['box.gltf' => Spoiled::thing(0.4)]);
    $this->postJson("/api/arrivals/{$slip['id']}/mend", $body)->assertStatus(422)->assertJsonPath('reason', $reason);
    expect(Arrival::query()->findOrFail($slip['id'])->choices)->toBe([])->and(Arrival::query()->findOrFail($slip['id'])->status)
        ->toBe('ready');
})->with([
    'no such repair' => [['choices' => ['polish' => []]], 'intake.repair'],
    'not a number' => [['choices' => ['grow' => ['height' => 'tall']]], 'intake.value'],
    'too large' => [['choices' => ['size' => ['factor' => 1e9]]], 'intake.value'],
    'no such axis' => [['choices' => ['turn' => ['about' => 'w', 'degrees' => 90]]], 'intake.value'],
]);

test('loose, in a folder, in any order or in a zip: the same thing comes of it', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $files = picturedBox();
    [$folder] = dropped($this, $user, $scene, $files);
    $blob = AssetVersion::query()->where('asset_id', $folder['assetId'])->firstOrFail()->blob;
    Arrival::query()->delete();
    foreach ([
        array_reverse($files, true), ['box.gltf' => $files['model/box.gltf'], 'side.png' => $files['model/textures/side.png']],
        ['box.zip' => zipped($files)],
        ['box.zip' => zipped([
            'a/b/'.basename('x/side.png') => $files['model/textures/side.png'], 'a/box.gltf' => $files['model/box.gltf'],
        ])],
    ] as $way) {
        $slips = dropped($this, $user, $scene, $way);
        expect($slips)->toHaveCount(1)->and($slips[0]['findings'])->toBe([])
            ->and(AssetVersion::query()->where('asset_id', $slips[0]['assetId'])->firstOrFail()->blob)->toBe($blob);
        Arrival::query()->delete();
    }
});

test('pictures that come later are linked by name', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $files = picturedBox();
    [$slip] = dropped($this, $user, $scene, ['box.gltf' => $files['model/box.gltf']]);
    expect(collect($slip['findings'])->firstWhere('code', 'pictures')['about'])->toBe(['side.png']);
    expect(dropped($this, $user, $scene, ['Textures/side.png' => $files['model/textures/side.png']]))->toBe([]);
    $again = collect($this->getJson("/api/productions/{$scene->production_id}/arrivals")->json('arrivals'))->firstWhere('id', $slip['id']);
    expect($again['findings'])->toBe([])->and(Asset::query()->whereNotNull('production_id')->where('kind', 'picture')->count())->toBe(0);
});

test('the same file again is known by its bytes', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    [$first] = dropped($this, $user, $scene, ['box.gltf' => Spoiled::thing(0.4)]);
    [$second] = dropped($this, $user, $scene, ['other name.gltf' => Spoiled::thing(0.4)]);
    expect($second['status'])->toBe('known')->and($second['assetId'])->toBe($first['assetId'])
        ->and(Asset::query()->where('production_id', $scene->production_id)->count())->toBe(1);
});

test('other formats come in through the asset import library', function (string $format, string $ending): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $folder = sys_get_temp_dir().'/reel-'.bin2hex(random_bytes(6));
    mkdir($folder);
    file_put_contents("{$folder}/in.gltf", Spoiled::thing(0.45, ['pbrMetallicRoughness' => ['baseColorFactor' => [0.8, 0.2, 0.1, 1]]]));
    (new Process(['assimp', 'export', 'in.gltf', "out.{$ending}", "-f{$format}"], $folder))->mustRun();
    $files = ["thing.{$ending}" => (string) file_get_contents("{$folder}/out.{$ending}")]
        + (is_file("{$folder}/out.mtl") ? ['out.mtl' => (string) file_get_contents("{$folder}/out.mtl")] : []);
    [$slip] = dropped($this, $user, $scene, $files);
    expect($slip['status'])->toBe('ready')->and($slip['kind'])->toBe('prop')->and($slip['facts']['triangles'])->toBe(12);
    foreach ($slip['facts']['size'] as $metres) {
        expect($metres)->toEqualWithDelta(0.9, 0.01);
    }
})->with([
    'collada' => ['collada', 'dae'], 'obj' => ['obj', 'obj'], 'stl' => ['stl', 'stl'], 'ply' => ['ply', 'ply'], 'x3d' => ['x3d', 'x3d'],
]);

test('a creature that is no person comes in with the motion of its COLLADA file, and plays it', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $slips = dropped($this, $user, $scene, ['post.dae' => Spoiled::bendingPost()]);
    expect($slips)->toHaveCount(1)->and($slips[0]['kind'])->toBe('performer')->and($slips[0]['facts']['joints'])->toBe(2)
        ->and($slips[0]['motions'])->toHaveCount(1);
    $motion = Asset::query()->findOrFail(array_values($slips[0]['motions'])[0]);
    $clip = GltfReader::read(app(BlobStore::class)->get($motion->versions()->firstOrFail()->blob))->clips()[0];
    expect($motion->kind)->toBe('motion')->and($clip->seconds)->toEqualWithDelta(1.0, 1e-4)
        ->and($motion->versions()->firstOrFail()->facts['seconds'])->toEqual(1.0);
    $turns = array_values(array_filter(
        $clip->channels,
        static fn (Channel $c): bool => $c->path === 'rotation' && rad2deg(2 * acos(min(1.0, abs($c->at(0.5)[3])))) > 1.0,
    ));
    // 60 degrees about z half way, 30 a quarter of the way.
    expect($turns)->toHaveCount(1)->and(rad2deg(2 * asin($turns[0]->at(0.5)[2])))->toEqualWithDelta(60.0, 0.01)
        ->and(rad2deg(2 * asin($turns[0]->at(0.25)[2])))->toEqualWithDelta(30.0, 0.01);
    // On its turntable, in the kit and in the scene.
    $this->getJson("/api/arrivals/{$slips[0]['id']}/preview")->assertOk()->assertJsonPath('manifest.frames', 24);
    $this->getJson("/api/productions/{$scene->production_id}/previews?asset={$slips[0]['assetId']}")->assertOk();
    $this->getJson("/api/productions/{$scene->production_id}/previews?asset={$motion->id}")->assertOk()
        ->assertJsonPath('manifest.frames', 24);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => $slips[0]['assetId'], 'near' => [0, 0], 'name' => 'Post', 'as' => '$p'],
        ['do' => 'beat.add', 'item' => '$p', 'motion' => $motion->id, 'start' => 0],
    ]);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $item = 'i'.$scene->items()->value('id');
    $place = SceneEvaluator::jointPlace($compiled, $item, 1, 12.0);
    expect($place->position[1])->toEqualWithDelta(0.5, 1e-3)->and(rad2deg(Q4::angleBetween(
        $place->rotation,
        Q4::mul(SceneEvaluator::jointPlace($compiled, $item, 1, 0.0)->rotation, Q4::aroundZ(M_PI / 3)),
    )))->toBeLessThan(0.5);
    // A person's walk is not for it.
    expect(fn () => $this->edit($scene, [['do' => 'beat.add', 'item' => 'Post', 'motion' => 'walk', 'start' => 40]]))
        ->toThrow(UnableToCompile::class);
});

test('sounds and pictures are taken with their facts', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $wave = implode('', array_map(static fn (int $i): string => pack('v', ((int) (8000 * sin($i / 9))) & 0xFFFF), range(0, 7999)));
    $wav = 'RIFF'.pack('V', 36 + strlen($wave)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 16000, 32000, 2, 16).'data'.pack('V', strlen($wave))
        .$wave;
    $slips = dropped($this, $user, $scene, ['gulls_over_pier.wav' => $wav]);
    expect($slips[0]['kind'])->toBe('sound')->and($slips[0]['facts']['seconds'])->toEqual(0.5)->and($slips[0]['facts']['channels'])->toBe(1)
        ->and($slips[0]['name'])->toBe('Gulls over pier');
    // A sine as loud all along: bars of one height. It can be heard from its slip.
    $outline = imagecreatefromstring(app(BlobStore::class)->get((string) $slips[0]['picture']));
    $bars = array_map(
        static fn (int $x): int => count(array_filter(
            range(0, 239),
            static fn (int $y): bool => (imagecolorat($outline, $x, $y) & 0xFFFFFF) === 0x0A6E6E,
        )),
        range(0, 319),
    );
    $bars = array_filter($bars);
    expect(count($bars))->toBeGreaterThan(120)->and(min($bars))->toBeGreaterThan(0.85 * max($bars));
    $this->get("/api/blobs/{$slips[0]['blob']}")->assertOk()->assertHeader('Content-Type', 'audio/wav');
    [$picture] = dropped($this, $user, $scene, ['map.png' => Spoiled::picture(false)]);
    expect($picture['kind'])->toBe('picture')->and($picture['facts']['pixels'])->toBe([64, 64]);
});

test('a motion file at a quarter of its rate is noticed and mended', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $plain = Spoiled::recordedWalk();
    [$slip] = dropped($this, $user, $scene, ['walk.bvh' => $plain]);
    expect($slip['kind'])->toBe('motion')->and(collect($slip['findings'])->where('code', 'speed')->all())->toBe([])
        ->and($slip['facts']['speed'])->toEqualWithDelta(1.05, 0.25);
    $fast = (string) preg_replace_callback(
        '/Frame Time:\s*([\d.]+)/',
        static fn (array $m): string => 'Frame Time: '.((float) $m[1] / 4),
        $plain,
    );
    [$hurried] = dropped($this, $user, $scene, ['walk fast.bvh' => $fast]);
    $finding = collect($hurried['findings'])->firstWhere('code', 'speed');
    expect($finding['severity'])->toBe('harms')->and($finding['mends'][0]['commands'][0]['with']['factor'])->toEqualWithDelta(0.25, 0.08);
    $mended = $this->postJson("/api/arrivals/{$hurried['id']}/mend", ['choices' => ['speed' => ['factor' => 0.25]]])->assertOk()->json();
    expect(collect($mended['findings'])->firstWhere('code', 'speed')['mended'])->toBeTrue()->and($mended['facts']['speed'])
        ->toEqualWithDelta($slip['facts']['speed'], 0.1);
});

test('a recording whose ground is not at zero is put on the ground, which is told and can be left', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    // The same walk a metre lower, with a pose for measuring before it.
    [$head, $rows] = preg_split('/(?<=\n)(?=[-\d])/', Spoiled::recordedWalk(), 2);
    $rows = array_map(static function (string $row): string {
        $n = explode(' ', $row);
        $n[1] = (string) ((float) $n[1] - 100.0);

        return implode(' ', $n);
    }, explode("\n", trim($rows)));
    $stray = explode(' ', $rows[0]);
    $stray = implode(' ', ['0', $stray[1], '-150', ...array_fill(0, count($stray) - 3, '0')]);
    $head = (string) preg_replace('/^Frames: .*$/m', 'Frames: '.(count($rows) + 1), $head);
    [$slip] = dropped($this, $user, $scene, ['sunk.bvh' => $head.implode("\n", [$stray, ...$rows])]);
    $found = collect($slip['findings'])->keyBy('code');
    expect($found['ground']['sentence'])->toMatch('/1\.\d\d m below zero/')->and($found['ground']['mended'])->toBeTrue()
        ->and($found['first']['mended'])->toBeTrue()->and($slip['facts']['loops'])->toBeTrue();
    $heights = function () use ($slip): array {
        $version = AssetVersion::query()->where('asset_id', $slip['assetId'])->orderByDesc('number')->firstOrFail();
        $digest = app(StoredAssets::class)->byHash($version->digest);
        $house = AssetVersion::query()->whereHas('asset', static fn ($q) => $q->where('slug', 'bram-tiel')->whereNull('production_id'))
            ->orderByDesc('number')->firstOrFail();
        [$table] = ImportedMotion::table(
            app(StoredAssets::class), new AssetRef('m', 'motion', 'sunk', $version->blob, $version->digest), $digest,
            new Figure($house->blob, app(StoredAssets::class)->byHash($house->digest)),
        );

        return [$table->at(1.0)[1], $table->at(0.0)[2]];
    };
    [$stands, $starts] = $heights();
    $left = $this->postJson("/api/arrivals/{$slip['id']}/mend", ['choices' => ['ground' => false, 'first' => false]])->assertOk()->json();
    $found = collect($left['findings'])->keyBy('code');
    expect($found['ground']['mended'])->toBeFalse()->and($found['first']['mended'])->toBeFalse();
    [$sunk, $strays] = $heights();
    expect($stands)->toBeGreaterThan(0.7)->and($stands - $sunk)->toEqualWithDelta(1.0, 0.12)->and($starts - $strays)->toBeGreaterThan(1.0);
    $back = $this->postJson("/api/arrivals/{$slip['id']}/mend", ['choices' => ['ground' => []]])->assertOk()->json();
    // The pose for measuring is still in it: the ground is found a little aside.
    expect(collect($back['findings'])->keyBy('code')['ground']['mended'])->toBeTrue()->and($heights()[0])->toEqualWithDelta($stands, 3e-4);
});

test('what cannot be taken is refused in plain words, and the rest of the drop comes in', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $slips = dropped($this, $user, $scene, [
        'cut.glb' => substr(Spoiled::good(), 0, 4000), 'empty.obj' => '', 'noise.wav' => random_bytes(400), 'not.stl' => 'hello',
        'box.gltf' => Spoiled::thing(0.4), 'notes.docx' => 'PK', 'broken.zip' => 'PK but no zip',
    ]);
    expect(collect($slips)->pluck('status', 'path')->all())
        ->toBe(['cut.glb' => 'refused', 'empty.obj' => 'refused', 'noise.wav' => 'refused', 'not.stl' => 'refused', 'box.gltf' => 'ready']);
    foreach (collect($slips)->where('status', 'refused') as $slip) {
        expect($slip['error']['message'])->not->toBe('')->and($slip['error']['remedy'])->not->toBe('')
            ->and($slip['error']['message'])->not->toContain('/tmp')->and($slip['assetId'])->toBeNull();
    }
    $unused = $this->getJson("/api/productions/{$scene->production_id}/arrivals")->json('unused');
    expect(array_keys($unused))->toEqualCanonicalizing(['notes.docx', 'broken.zip']);
});

test('names in a zip cannot climb out, nested and swollen zips are refused', function (): void {
    config(['reel.upload_bytes' => 2_000_000]);
    $user = $this->person();
    $scene = $this->scene($user);
    $slips = dropped($this, $user, $scene, [
        'evil.zip' => zipped(['../../../../etc/box.gltf' => Spoiled::thing(0.4), '/abs/../x.txt' => 'no']),
        'bomb.zip' => zipped(['big.bin' => str_repeat("\0", 9_000_000)]), 'nest.zip' => zipped(['inner.zip' => zipped(['a' => 'b'])]),
    ]);
    expect($slips)->toHaveCount(1)->and($slips[0]['path'])->toBe('evil/etc/box.gltf');
    $unused = $this->getJson("/api/productions/{$scene->production_id}/arrivals")->json('unused');
    expect($unused['bomb.zip'])->toContain('more than is taken')->and($unused['nest.zip'])->toContain('another zip');
});

test('paths are made plain', function (string $path, string $plain): void {
    expect(FileMap::plain($path))->toBe($plain);
})->with([
    ['a/./b//c', 'a/b/c'], ['../../x', 'x'], ['C:\\Models\\chair.obj', 'Models/chair.obj'], ["a\0b", 'a_b'],
    ['/etc/passwd', 'etc/passwd'], ['a/../../b', 'b'],
]);

test('arrivals of someone else are not there, and a viewer changes nothing', function (): void {
    $owner = $this->person();
    $scene = $this->scene($owner);
    [$slip] = dropped($this, $owner, $scene, ['box.gltf' => Spoiled::thing(0.4)]);
    $other = $this->person();
    $this->actingAs($other)->getJson("/api/productions/{$scene->production_id}/arrivals")->assertStatus(404);
    $this->getJson("/api/arrivals/{$slip['id']}/preview")->assertStatus(404);
    $this->postJson("/api/arrivals/{$slip['id']}/mend", ['all' => true])->assertStatus(404);
    $scene->production->members()->create(['user_id' => $other->id, 'role' => 'viewer']);
    $this->postJson("/api/arrivals/{$slip['id']}/mend", ['all' => true])->assertStatus(403);
    $this->getJson("/api/arrivals/{$slip['id']}/preview")->assertOk();
});

test('a turntable of it, before and after a repair, drawn from poses of the core', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    [$slip] = dropped($this, $user, $scene, ['oda.glb' => Spoiled::under(Spoiled::good(), 100.0, Q4::aroundX(M_PI / 2))]);
    $height = function (string $query) use ($slip): float {
        $m = $this->getJson("/api/arrivals/{$slip['id']}/preview?{$query}")->assertOk()->json('manifest');
        $this->get("/api/previews/blobs/{$m['items'][0]['blob']}")->assertOk();
        $this->get('/api/previews/pieces?of=0:'.SceneStream::named($m, 0)[0])->assertOk();

        return $m['items'][0]['bounds'][1][1] - $m['items'][0]['bounds'][0][1];
    };
    expect($height('beside=1'))->toEqualWithDelta(1.79, 0.02)->and($height('code=size&as=before'))->toBeGreaterThan(100.0)
        ->and($height('code=size&as=after'))->toEqualWithDelta(1.79, 0.02);
    $this->actingAs($this->person())->get('/api/previews/blobs/'.Arrival::query()->findOrFail($slip['id'])->original)->assertStatus(404);
});
