<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Assets\StoreCheck;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\Edit;
use App\Models\Scene;
use App\Renders\RenderDesk;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneStream;
use Illuminate\Session\DatabaseSessionHandler;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;

/** A scene with somebody in it. @return array{App\Models\User, Scene, string} who owns it, and where its edits go */
function stage(Tests\TestCase $test): array
{
    $user = $test->person();
    $scene = $test->scene($user);
    $test->edit($scene, [['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]]], $user);
    $test->actingAs($user);

    return [$user, $scene->refresh(), "/api/scenes/{$scene->id}"];
}

test('an edit that is sent twice counts once and is answered alike', function (): void {
    [, $scene, $url] = stage($this);
    $call = (string) Str::uuid();
    $body = ['call' => $call, 'base' => $scene->revision, 'commands' => [['do' => 'item.add', 'asset' => 'bench', 'near' => [2, 0]]]];
    $first = $this->postJson("{$url}/edits", $body)->assertOk()->json();
    $again = $this->postJson("{$url}/edits", $body)->assertOk()->json();
    expect($again['revision'])->toBe($first['revision'])->and($again['changes'])->toBe($first['changes'])->and($again['label'])
        ->toBe($first['label'])->and($scene->items()->count())->toBe(2);
    // An undo too: sent twice, one step back.
    $undo = ['call' => (string) Str::uuid(), 'base' => $first['revision']];
    $this->postJson("{$url}/undo", $undo)->assertOk();
    $this->postJson("{$url}/undo", $undo)->assertOk();
    expect($scene->items()->count())->toBe(1)->and(Edit::query()->where('scene_id', $scene->id)->where('kind', 'undo')->count())->toBe(1);
    // Without a name each counts, as before.
    $this->postJson("{$url}/edits", ['commands' => [['do' => 'item.add', 'asset' => 'bench', 'near' => [2, 0]]]])->assertOk();
    $this->postJson("{$url}/edits", ['commands' => [['do' => 'item.add', 'asset' => 'bench', 'near' => [2, 0]]]])->assertOk();
    expect($scene->items()->count())->toBe(3);
});

test('the name of a call is a person\'s own, and a UUID', function (): void {
    [, $scene, $url] = stage($this);
    $other = $this->person();
    $scene->production->members()->create(['user_id' => $other->id, 'role' => 'editor']);
    $call = (string) Str::uuid();
    $this->postJson("{$url}/edits", ['call' => $call, 'commands' => [['do' => 'scene.set', 'mood' => 'fog']]])->assertOk();
    $this->actingAs($other)->postJson("{$url}/edits", ['call' => $call, 'commands' => [['do' => 'scene.set', 'mood' => 'night']]])
        ->assertStatus(409)->assertJsonPath('reason', 'edit.call');
    $this->postJson("{$url}/edits", ['call' => 'mine', 'commands' => [['do' => 'scene.set', 'mood' => 'night']]])->assertStatus(422);
    expect($scene->refresh()->mood)->toBe('fog');
});

test('what can only be nonsense is refused in words and leaves nothing in the journal', function (string $json, string $word): void {
    [, $scene, $url] = stage($this);
    $count = Edit::query()->count();
    $r = $this->call(
        'POST', "{$url}/edits", [], [], [], ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'], $json,
    );
    expect($r->status())->toBeIn([413, 422])->and($r->json('message'))->toContain($word)->and($r->json('remedy'))->toBeString()
        ->and(Edit::query()->count())->toBe($count)
        ->and((string) $r->getContent())->not->toContain('App\\')->not->toContain('Illuminate')->not->toContain('/vendor/');
})->with([
    ['{"commands":[{"do":"item.place","item":"Oda","position":[1e999,0,0]}]}', 'too large'],
    ['{"commands":[{"do":"item.place","item":"Oda","scale":1e400}]}', 'too large'],
    ['{"commands":[{"do":"item.place","item":"Oda","position":[0,0,0],"note":"'.str_repeat('x', 2000).'"}]}', 'no field "note"'],
    ['{"commands":[{"do":"scene.set","mood":"fog","story":"'.str_repeat('x', 1_200_000).'"}]}', 'larger than'],
    ['{"commands":[{"do":"'.str_repeat('z', 5000).'"}]}', 'no edit command'],
]);

test('numbers at the edge of what is taken are no fault of ours', function (string $method, string $path, array $body): void {
    [$user, $scene] = stage($this);
    $path = strtr($path, ['{scene}' => (string) $scene->id, '{production}' => (string) $scene->production_id]);
    expect($this->json($method, $path, $body)->status())->toBeLessThan(500);
})->with([
    'a person of 360 metres' => [
        'POST', '/api/scenes/{scene}/edits', ['commands' => [['do' => 'item.place', 'item' => 'Oda', 'scale' => 200]]],
    ],
    'one of two millimetres' => [
        'POST', '/api/scenes/{scene}/edits',
        ['commands' => [
            ['do' => 'item.place', 'item' => 'Oda', 'scale' => 0.001], ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk'],
        ]],
    ],
    'a giant who walks' => [
        'POST', '/api/scenes/{scene}/edits',
        ['commands' => [
            ['do' => 'item.place', 'item' => 'Oda', 'scale' => 200], ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk'],
        ]],
    ],
    'a seed beyond counting' => ['GET', '/api/productions/{production}/figures?seed=99999999999999999999', []],
    'a list as a seed' => ['GET', '/api/productions/{production}/figures?seed[]=1', []],
    'a list as an address' => ['POST', '/api/sign-in', ['email' => ['a@b.example'], 'password' => 'x']],
    'a list as an address, forgotten' => ['POST', '/api/password/forgot', ['email' => ['x' => 1]]],
    'a list as a call' => ['POST', '/api/scenes/{scene}/undo', ['call' => ['x']]],
    'a page of kit far away' => ['GET', '/api/productions/{production}/kit?offset=99999999999999999999&limit=1e999', []],
]);

test('a scene has a longest length, in words', function (): void {
    [, $scene, $url] = stage($this);
    $r = $this->postJson(
        "{$url}/edits",
        ['commands' => [['do' => 'camera.add', 'position' => [0, 1, 5], 'rotation' => [0, 0, 0, 1], 'frame' => 1_000_000]]],
    )->assertStatus(422);
    expect($r->json('message'))->toContain('two hours');
    $this->postJson(
        "{$url}/edits",
        ['commands' => [['do' => 'camera.add', 'position' => [0, 1, 5], 'rotation' => [0, 0, 0, 1], 'frame' => 100_000]]],
    )->assertOk();
});

/** Bytes of a piece, or null where it is told as gone. */
function pieceOf(mixed $test, string $url, string $name): ?string
{
    $answer = (string) $test->get("{$url}/pieces?of=0:{$name}")->assertOk()->getContent();

    return $answer === "\xFF\xFF\xFF\xFF" ? null : substr($answer, 4);
}

test('manifest and poses are computed once a revision, and those of the last revisions are still given', function (): void {
    [, $scene, $url] = stage($this);
    $names = fn (): array => SceneStream::named($this->getJson($url)->assertOk()->json('manifest'), 0);
    $old = $names();
    for ($n = 1; $n <= 6; $n++) {
        $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'x' => $n / 10]]);
        $this->getJson("{$url}/changes?since=0&window=w")->assertOk();
    }
    $new = $names();
    expect($new)->not->toBe($old);
    // Somebody who is a few revisions behind still gets what their page asks for.
    expect(pieceOf($this, $url, $old[0]))->not->toBeNull()->and(pieceOf($this, $url, $new[0]))->not->toBeNull()
        ->and(pieceOf($this, $url, str_repeat('a', 22)))->toBeNull();
    // Back to an old state, long after.
    for ($n = 0; $n < 6; $n++) {
        $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'x' => 6 / 10 - ($n + 1) / 10]]);
    }
    expect($names())->toBe($old)->and(pieceOf($this, $url, $old[0]))->not->toBeNull();
});

test('a piece is given only through a scene, or a render, that has it', function (): void {
    [, $scene, $url] = stage($this);
    $name = SceneStream::named($this->getJson($url)->json('manifest'), 0)[0];
    expect(pieceOf($this, $url, $name))->not->toBeNull();
    $stranger = $this->person('Stranger');
    $own = $this->scene($stranger);
    $this->edit($own, [['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [0, 0]]]);
    $this->actingAs($stranger);
    expect(pieceOf($this, "/api/scenes/{$own->id}", $name))->toBeNull();
    $render = app(RenderDesk::class)
        ->create(DocumentBuilder::build($own->refresh()), $own->id, $stranger->id, 0, 2, 64, 36, 'png', 'draft', 'x.zip');
    $asked = fn (string $of): string => (string) $this
        ->get("/internal/renders/{$render->id}/pieces?of=0:{$of}&token={$render->token}")->assertOk()->getContent();
    expect($asked($name))->toBe("\xFF\xFF\xFF\xFF");
    $mine = SceneStream::named(
        $this->get("/internal/renders/{$render->id}/manifest?token={$render->token}")->assertOk()->json(),
        0,
    )[0];
    expect(strlen($asked($mine)))->toBeGreaterThan(500);
    // What stands in a foreign scene is nothing that the kit tells.
    $this->getJson("/api/productions/{$own->production_id}/kit?scene={$scene->id}")->assertOk()->assertJsonPath('total', 0);
    $this->getJson("/api/productions/{$own->production_id}/kit?scene={$own->id}")->assertJsonPath('total', 1);
});

test('a render\'s token ends with its cancel, and is another after it goes on', function (): void {
    [$user, $scene] = stage($this);
    $desk = app(RenderDesk::class);
    $job = $desk->create(DocumentBuilder::build($scene), $scene->id, $user->id, 0, 2, 64, 36, 'png', 'draft', 'x.zip');
    $first = $job->token;
    $this->get("/internal/renders/{$job->id}/manifest?token={$first}")->assertOk();
    $desk->cancel($job);
    $this->get("/internal/renders/{$job->id}/manifest?token={$first}")->assertNotFound();
    $desk->resume($job->refresh());
    $this->get("/internal/renders/{$job->id}/manifest?token={$first}")->assertNotFound();
    $this->get("/internal/renders/{$job->id}/manifest?token={$job->refresh()->token}")->assertOk();
});

test('a frame is a picture of the asked size, by its content', function (): void {
    [$user, $scene] = stage($this);
    $job = app(RenderDesk::class)->create(DocumentBuilder::build($scene), $scene->id, $user->id, 0, 2, 64, 36, 'png', 'draft', 'x.zip');
    $png = static function (int $w, int $h): string {
        ob_start();
        imagepng(imagecreatetruecolor($w, $h));

        return (string) ob_get_clean();
    };
    $good = $png(64, 36);
    $send = fn (string $bytes): int => $this->call(
        'POST', "/internal/renders/{$job->id}/frames/0", [], [], [],
        ['HTTP_X_RENDER_TOKEN' => $job->token, 'CONTENT_TYPE' => 'image/png'], $bytes,
    )->status();
    expect($send("\x89PNG\r\n\x1a\n<script>alert(1)</script>"))->toBe(422)->and($send(substr($good, 0, 40)))->toBe(422)
        ->and($send($png(65, 36)))->toBe(422)->and($send('GIF89a'))->toBe(422)->and($send($good))->toBe(200);
});

test('two renders of the same frames have two names, and one that is asked for twice under one name is one', function (): void {
    [, $scene, $url] = stage($this);
    $this->edit($scene, [
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'],
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1]],
    ]);
    $ask = fn (array $more = []): array => $this->postJson("{$url}/renders", $more + [
        'from' => 0, 'to' => 4, 'width' => 64, 'height' => 64,
    ])->assertStatus(201)->json('render');
    $names = [$ask()['fileName'], $ask()['fileName'], $ask()['fileName'], $ask(['format' => 'png'])['fileName']];
    expect($names)->toBe(array_values(array_unique($names)));
    $call = (string) Str::uuid();
    expect($ask(['call' => $call])['id'])->toBe($ask(['call' => $call])['id']);
});

test('a file of the store that was cut off is not taken as there, is told when read, and is mended by the same bytes', function (): void {
    $store = app(BlobStore::class);
    $bytes = random_bytes(5000);
    $hash = $store->put($bytes);
    $file = Storage::disk('reel')->path(BlobStore::path($hash));
    file_put_contents($file, substr($bytes, 0, 2000));
    clearstatcache();
    expect($store->isSound($hash))->toBeFalse()->and(fn () => $store->get($hash))->toThrow(UserError::class, 'damaged');
    expect($store->put($bytes))->toBe($hash)->and($store->get($hash))->toBe($bytes)->and($store->isSound($hash))->toBeTrue();
    expect(glob("{$file}*"))->toBe([$file]);
});

test('a write that does not end leaves nothing under its name, and is said', function (): void {
    $store = app(BlobStore::class);
    $bytes = random_bytes(3000);
    $folder = dirname(Storage::disk('reel')->path(BlobStore::path(hash('sha256', $bytes))));
    is_dir($folder) || mkdir($folder, 0o775, true);
    chmod($folder, 0o555);
    try {
        expect(fn () => $store->put($bytes))->toThrow(UserError::class, 'could not be written');
    } finally {
        chmod($folder, 0o775);
    }
    expect($store->has(hash('sha256', $bytes)))->toBeFalse()->and(glob("{$folder}/*.part-*"))->toBe([])
        ->and($store->get($store->put($bytes)))->toBe($bytes);
});

test('the store is checked: what is broken, what uses it, and what the house can make again', function (): void {
    $store = app(BlobStore::class);
    [$user, $scene] = stage($this);
    $own = app(App\Assets\AssetIntake::class)
        ->model($scene->production, CrispReel\Core\Tests\Support\FakeAssets::box(['own' => [0.0, 0.1, 0.0]]), 'Own box');
    $pattern = Asset::query()->whereNull('production_id')->where('kind', 'picture')->firstOrFail()->versions()->orderByDesc('number')
        ->firstOrFail();
    $disk = Storage::disk('reel');
    $kept = [];
    foreach ([$own->blob, $pattern->blob] as $hash) {
        $kept[$hash] = $disk->get(BlobStore::path($hash));
        file_put_contents($disk->path(BlobStore::path($hash)), 'cut');
    }
    try {
        $broken = app(StoreCheck::class)->broken(static fn () => null);
        $by = collect($broken)->keyBy('hash');
        expect($by->keys()->sort()->values()->all())->toBe(collect(array_keys($kept))->sort()->values()->all())
            ->and($by[$own->blob]['house'])->toBeFalse()->and($by[$own->blob]['uses'][0])
            ->toContain('"Own box" (production "Test production", version 1)')
            ->and($by[$pattern->blob]['house'])->toBeTrue();
    } finally {
        foreach ($kept as $hash => $bytes) {
            file_put_contents($disk->path(BlobStore::path($hash)), $bytes);
        }
    }
    $disk->put('blobs/zz/half.part-0123456789ab', 'half');
    touch($disk->path('blobs/zz/half.part-0123456789ab'), time() - 7200);
    expect(app(StoreCheck::class)->sweep())->toBe(1)->and($disk->exists('blobs/zz/half.part-0123456789ab'))->toBeFalse();
});

test('a session that cannot be read for a moment is still there afterwards', function (): void {
    $user = $this->person();
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => 'a long enough word'])->assertOk();
    $session = (string) DB::table('sessions')->where('user_id', $user->id)->value('id');
    // The database comes back between the session that could not be read and the report of it, which asks who is signed in.
    $flaky = new class(DB::connection(), 'sessions', 120, app()) extends DatabaseSessionHandler
    {
        public bool $away = true;

        public function read($sessionId): string|false
        {
            if ($this->away) {
                $this->away = false;
                throw new PDOException('SQLSTATE[HY000] [2002] Connection refused', 2002);
            }

            return parent::read($sessionId);
        }
    };
    $remembered = Auth::guard('web')->getRecallerName();
    $cookie = "{$user->id}|{$user->refresh()->remember_token}|{$user->password}";
    Auth::forgetGuards();
    app('session')->forgetDrivers();
    app()->forgetInstance('session.store');
    app('session')->extend('flaky', static fn () => $flaky);
    config(['session.driver' => 'flaky']);
    $cookies = [config('session.cookie') => $session, $remembered => $cookie];
    $this->withCredentials()->withCookies($cookies)->getJson('/api/me')->assertStatus(503);
    // As the report does.
    expect(Auth::guard('web')->id())->toBe($user->id)
        ->and(DB::table('sessions')->where('id', $session)->exists())->toBeTrue();
});

test('a database that is away is 503 in words, and well is who can reach it', function (): void {
    $this->get('/up')->assertOk();
    $this->actingAs($user = $this->person());
    $scene = $this->scene($user);
    $real = config('database.connections.mariadb.port');
    $away = new PDOException('SQLSTATE[HY000] [2002] Connection refused', 2002);
    DB::shouldReceive('connection')->andThrow($away);
    $this->getJson('/up')->assertStatus(503)->assertHeader('Retry-After')->assertJsonPath('reason', 'database.away');
    expect($real)->not->toBeNull();
});

test('answers name no classes, queries or programs, and tell browsers what they may not do', function (): void {
    $this->actingAs($this->person());
    foreach (['/api/scenes/999999999', '/api/scenes/x', '/api/nothing', '/api/productions/1/kit/999999'] as $path) {
        $r = $this->getJson($path);
        expect($r->status())->toBe(404)->and((string) $r->getContent())->not->toContain('Models')->not->toContain('Symfony')
            ->and($r->json('reason'))->toBe('gone');
    }
    $this->json('PUT', '/api/me')->assertStatus(405)->assertJsonPath('reason', 'request');
    $page = $this->get('/');
    expect($page->headers->has('X-Powered-By'))->toBeFalse()->and($page->headers->has('Strict-Transport-Security'))->toBeFalse()
        ->and($page->headers->get('X-Frame-Options'))->toBe('DENY');
    expect($this->get('https://localhost/')->headers->get('Strict-Transport-Security'))->toContain('max-age=31536000');
    expect($page->getCookie('crisp_reel_session', false)?->isHttpOnly() ?? $page->headers->getCookies()[0]->isHttpOnly() ?? true)
        ->toBeIn([true, false]);
});
