<?php

declare(strict_types=1);

use App\Assets\AssetIntake;
use App\Models\Invitation;
use App\Models\Production;
use App\Models\Scene;
use App\Renders\RenderDesk;
use App\Scenes\DocumentBuilder;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;

/**
 * A production with one of everything that an address can name.
 *
 * @return array{scene: Scene, names: array<string, string>}
 */
function addressed(Tests\TestCase $test): array
{
    $user = $test->person('Owner');
    $scene = $test->scene($user);
    $asset = app(AssetIntake::class)->model($scene->production, FakeAssets::glb('stool'), 'Stool', 'prop')->asset_id;
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => $asset, 'near' => [0, 0], 'name' => 'Seat'],
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1]],
    ]);
    $blob = app(App\Assets\BlobStore::class)->put(Spoiled::thing(0.4));
    $arrival = $scene->production->arrivals()->create([
        'name' => 'Box', 'path' => 'box.gltf', 'format' => 'gltf', 'original' => $blob, 'bytes' => 900, 'companions' => [],
        'choices' => [], 'motions' => [], 'status' => 'ready', 'asset_id' => $asset, 'kind' => 'prop',
    ]);
    $render = app(RenderDesk::class)
        ->create(DocumentBuilder::build($scene->refresh()), $scene->id, $user->id, 0, 2, 64, 36, 'png', 'draft', 'x.zip');

    return ['scene' => $scene, 'names' => [
        '{production}' => (string) $scene->production_id, '{scene}' => (string) $scene->id, '{asset}' => (string) $asset,
        '{arrival}' => (string) $arrival->id, '{render}' => $render->id,
        '{item}' => (string) $scene->items()->value('id'), '{hash}' => str_repeat('0', 64), '{n}' => '0', '{frame}' => '0',
        '{voice}' => 'oak', '{as}' => 'srt',
        '{token}' => str_repeat('x', 48), '{work}' => '00000000-0000-7000-8000-000000000000',
        '{member}' => (string) $scene->production->members()->value('id'),
        '{invitation}' => (string) Invitation::query()->create([
            'production_id' => $scene->production_id, 'email' => 'guest@crisp-reel.example', 'role' => 'editor',
            'token_hash' => str_repeat('0', 64), 'ends_at' => now()->addDay(),
        ])->id,
    ]];
}

/** @return list<array{string, string, Route}> method, address with names in braces, route */
function addresses(): array
{
    $out = [];
    foreach (Routes::getRoutes()->getRoutes() as $route) {
        if (str_starts_with($route->uri(), 'api/')) {
            $out[] = [array_values(array_diff($route->methods(), ['HEAD']))[0], '/'.$route->uri(), $route];
        }
    }

    return $out;
}

test('whoever is not signed in gets nothing, and whoever does not belong finds nothing', function (): void {
    ['names' => $names] = addressed($this);
    $public = ['/api/me', '/api/register', '/api/sign-in', '/api/password/forgot', '/api/password/reset'];
    $seen = 0;
    foreach (addresses() as [$method, $address]) {
        if (in_array("{$method} {$address}", ['GET /api/invitations/{token}'], true) || in_array($address, $public, true)) {
            continue;
        }
        expect($this->json($method, strtr($address, $names))->status())->toBe(401, "{$method} {$address} as a guest");
        $seen++;
    }
    expect($seen)->toBeGreaterThan(35);
    $this->actingAs($this->person('Stranger'));
    foreach (addresses() as [$method, $address]) {
        if (preg_match('/\{(production|scene|arrival|render)\}/', $address) !== 1) {
            continue;
        }
        DB::beginTransaction();
        expect($this->json($method, strtr($address, $names), [
            'commands' => [['do' => 'scene.set', 'name' => 'Mine']], 'name' => 'Mine',
        ])->status())->toBe(404, "{$method} {$address} as a stranger");
        DB::rollBack();
    }
});

test('a viewer changes nothing, whatever is asked for', function (): void {
    ['scene' => $scene, 'names' => $names] = addressed($this);
    $viewer = $this->person('Viewer');
    $scene->production->members()->create(['user_id' => $viewer->id, 'role' => 'viewer']);
    $this->actingAs($viewer);
    // What they may do is look, note that a slip was seen, and keep something in their own collection.
    $may = ['/api/arrivals/{arrival}/seen', '/api/productions/{production}/kit/{asset}/keep'];
    $state = static fn (): string => json_encode([
        DB::table('productions')->where('id', $scene->production_id)->get(['name', 'rate_num', 'width']),
        DB::table('scenes')->where('production_id', $scene->production_id)->get(['id', 'name', 'revision']),
        DB::table('assets')->where('production_id', $scene->production_id)->get(),
        DB::table('arrivals')->where('production_id', $scene->production_id)->get(['id', 'choices', 'asset_id']),
        DB::table('items')->where('scene_id', $scene->id)->get(),
        DB::table('render_jobs')->where('scene_id', $scene->id)->get(['id', 'status']),
        DB::table('drops')->where('production_id', $scene->production_id)->count(),
    ], JSON_THROW_ON_ERROR);
    $before = $state();
    foreach (addresses() as [$method, $address]) {
        if ($method === 'GET' || in_array($address, $may, true) || preg_match('/\{(production|scene|arrival|render)\}/', $address) !== 1) {
            continue;
        }
        $status = $this->json($method, strtr($address, $names), [
            'commands' => [['do' => 'scene.set', 'name' => 'Mine']], 'name' => 'Mine', 'choices' => [], 'with' => (int) $names['{asset}'],
            'version' => 1,
        ])->status();
        expect($status)->toBeIn([403, 404, 409, 422], "{$method} {$address} as a viewer")->and($state())
            ->toBe($before, "{$method} {$address} as a viewer");
    }
});

test('nonsense sent to any address is answered in words', function (): void {
    ['scene' => $scene, 'names' => $names] = addressed($this);
    $this->actingAs(
        App\Models\User::query()->findOrFail(Production::query()->findOrFail($scene->production_id)->members()->value('user_id'))
    );
    $bodies = [[], [
        'name' => ['a' => 1], 'kind' => 7, 'commands' => 'none', 'choices' => 'all', 'with' => [], 'version' => 'x', 'rate' => 'fast',
        'spec' => 3, 'tags' => 'red', 'colour' => 99, 'from' => 'x', 'to' => [], 'format' => [],
    ],
        [
            'commands' => [7, [], ['do' => []]],
            'choices' => ['size' => 'big', 'pivot' => ['to' => 5], 'skeleton' => ['markers' => 'here']],
            'name' => str_repeat('x', 5000),
            'folder' => ['x'],
            'rate' => [0, 0],
            'spec' => ['height' => 'tall', 'seed' => []],
            'format' => 'gif',
            'from' => -5,
            'to' => 1.0e12,
        ]];
    $nowhere = [
        '{production}' => '999999999', '{scene}' => '999999999', '{asset}' => '999999999', '{arrival}' => '999999999',
        '{render}' => '00000000-0000-0000-0000-000000000000', '{item}' => '999999999', '{hash}' => 'zz', '{n}' => '99999',
        '{frame}' => '0',
    ];
    $fell = [];
    foreach (addresses() as [$method, $address]) {
        if (in_array($address, ['/api/sign-out', '/api/register', '/api/sign-in'], true)) {
            continue;
        }
        foreach ([
            ...array_map(static fn (array $b): array => [$names, $b, ''], $bodies), [$nowhere, [], ''],
            [$names, [], '?q[]=1&kind[]=x&offset=-1&limit=zz&sort=rude&asset=x&on=x&since=x&code[]=x&spec[]=1&scene=x'],
        ] as [$in, $body, $query]) {
            DB::beginTransaction();
            $r = $this->json($method, strtr($address, $in).$query, $body);
            if ($r->status() >= 500) {
                $fell[] = "{$method} {$address}{$query} ".substr((string) json_encode($body), 0, 60).": {$r->status()} "
                    .substr((string) ($r->json('message') ?? $r->exception?->getMessage()), 0, 160);
            } elseif ($r->status() === 422) {
                expect($r->json('message'))->toBeString()->not->toBe('')->and($r->json('remedy'))->toBeString()->not->toBe('');
            }
            DB::rollBack();
        }
    }
    expect($fell)->toBe([]);
});

test('what a scene may use of the kit has an address of its own, and is sent again only when it has changed', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    expect($this->getJson("/api/scenes/{$scene->id}")->assertOk()->json())->not->toHaveKey('assets');
    $first = $this->getJson("/api/scenes/{$scene->id}/assets")->assertOk();
    $tag = (string) $first->headers->get('ETag');
    expect(collect($first->json('assets'))->pluck('slug')->all())->toContain('oda-ferrant')->and($tag)->not->toBe('')
        ->and((string) $first->headers->get('Cache-Control'))->toContain('no-cache')->toContain('private');
    $again = $this->withHeaders(['If-None-Match' => $tag])->getJson("/api/scenes/{$scene->id}/assets")->assertStatus(304);
    expect($again->getContent())->toBe('');
    // As nginx hands it on when it has packed the answer.
    $this->withHeaders(['If-None-Match' => "W/{$tag}"])->getJson("/api/scenes/{$scene->id}/assets")->assertStatus(304);
    app(App\Assets\AssetIntake::class)->model($scene->production, CrispReel\Core\Tests\Support\FakeAssets::glb('stool'), 'Own stool');
    $this->withHeaders(['If-None-Match' => $tag])->getJson("/api/scenes/{$scene->id}/assets")->assertOk();
});
