<?php

declare(strict_types=1);

use App\Models\AssetVersion;
use App\Models\User;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;

test('a person registers, is signed in, and keeps a hashed password', function (): void {
    $email = uniqid('n', true).'@crisp-reel.example';
    $this->postJson('/api/register', ['name' => 'Noor', 'email' => $email, 'password' => 'kettle on the hob'])->assertOk()
        ->assertExactJson(['done' => true]);
    $this->postJson('/api/sign-in', ['email' => $email, 'password' => 'kettle on the hob'])->assertOk()
        ->assertJsonPath('person.name', 'Noor');
    $this->getJson('/api/me')->assertJsonPath('person.email', $email);
    $user = User::query()->where('email', $email)->firstOrFail();
    expect($user->password)->not->toBe('kettle on the hob')->and(Hash::check('kettle on the hob', $user->password))->toBeTrue();
});

test('bad registrations are answered by what is wrong', function (array $change, string $reason): void {
    $this->postJson('/api/register', $change + [
        'name' => 'Noor', 'email' => uniqid('n', true).'@crisp-reel.example', 'password' => 'kettle on the hob',
    ])
        ->assertStatus(422)->assertJsonPath('reason', $reason)->assertJsonStructure(['message', 'remedy']);
})->with([
    [['name' => ''], 'input'], [['email' => 'nowhere'], 'account.address'], [['email' => ['a@b.example']], 'account.address'],
    [['password' => 'short'], 'password.short'], [['password' => 'iloveyou123'], 'password.common'],
    [['password' => 'P@ssw0rd123!'], 'password.common'], [['password' => 'aaaaaaaaaaaaaaa'], 'password.common'],
    [['password' => str_repeat('word ü ', 12)], 'password.long'],
]);

test('signing in and out', function (): void {
    $user = $this->person();
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => 'wrong'])->assertStatus(422)
        ->assertJsonPath('message', 'This address and password do not belong together.');
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => 'a long enough word'])->assertOk();
    $this->getJson('/api/productions')->assertOk();
    $this->postJson('/api/sign-out')->assertOk();
    $this->app['auth']->forgetGuards();
    $this->getJson('/api/productions')->assertStatus(401);
});

test('guessing is slowed down', function (): void {
    $user = $this->person();
    RateLimiter::clear('sign-in');
    for ($i = 0; $i < 6; $i++) {
        $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => "guess {$i}"])->assertStatus(422);
    }
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => 'a long enough word'])->assertStatus(429);
});

test('another person\'s production is not there', function (string $method, string $path): void {
    $scene = $this->scene($this->person());
    $this->actingAs($this->person('Stranger'))->json(
        $method,
        str_replace(['{scene}', '{production}'], [(string) $scene->id, (string) $scene->production_id], $path),
        ['commands' => [['do' => 'scene.set', 'mood' => 'fog']], 'name' => 'x'],
    )->assertStatus(404);
})->with([
    ['GET', '/api/scenes/{scene}'], ['GET', '/api/scenes/{scene}/changes'], ['POST', '/api/scenes/{scene}/edits'],
    ['POST', '/api/scenes/{scene}/undo'],
    ['GET', '/api/scenes/{scene}/renders'], ['POST', '/api/scenes/{scene}/renders'],
    ['GET', '/api/scenes/{scene}/pieces?of=0:'.str_repeat('a', 22)], ['GET', '/api/scenes/{scene}/manifest'],
    ['POST', '/api/productions/{production}/assets'], ['POST', '/api/productions/{production}/scenes'],
    ['DELETE', '/api/productions/{production}'],
]);

test('a viewer sees and does not change', function (): void {
    $viewer = $this->person('Viewer');
    $scene = $this->scene($viewer, 'viewer');
    $this->actingAs($viewer)->getJson("/api/scenes/{$scene->id}")->assertOk()->assertJsonPath('production.role', 'viewer');
    $this->postJson("/api/scenes/{$scene->id}/edits", ['commands' => [['do' => 'scene.set', 'mood' => 'fog']]])->assertStatus(403)
        ->assertJsonPath('reason', 'access.viewer');
    $this->deleteJson("/api/productions/{$scene->production_id}")->assertStatus(403);
});

test('files of the house kit are for everyone signed in, others only for members', function (): void {
    $house = AssetVersion::query()->whereHas('asset', fn ($q) => $q->whereNull('production_id'))->firstOrFail();
    $this->getJson("/api/blobs/{$house->blob}")->assertStatus(401);
    $this->actingAs($owner = $this->person())->get("/api/blobs/{$house->blob}")->assertOk()
        ->assertHeader('Content-Type', 'model/gltf-binary');
    $scene = $this->scene($owner);
    $own = app(App\Assets\AssetIntake::class)
        ->model($scene->production, CrispReel\Core\Tests\Support\FakeAssets::box(['own' => [0.0, 0.1, 0.0]]), 'Own box');
    $this->get("/api/blobs/{$own->blob}")->assertOk();
    $this->actingAs($this->person('Stranger'))->getJson("/api/blobs/{$own->blob}")->assertStatus(404);
    $this->getJson('/api/blobs/'.str_repeat('0', 64))->assertStatus(404);
});

test('every page carries the safety headers', function (): void {
    $csp = $this->get('/')->assertOk()->headers->get('Content-Security-Policy');
    expect($csp)->toContain("script-src 'self'")->not->toContain("script-src 'self' 'unsafe-inline'")->toContain("frame-ancestors 'none'");
});

test('productions are made, listed and removed by their owner', function (): void {
    $this->actingAs($this->person());
    $made = $this->postJson('/api/productions', ['name' => 'The Late Boat', 'rate' => [25, 1]])->assertStatus(201)->json();
    $this->getJson('/api/productions')->assertJsonPath('productions.0.name', 'The Late Boat')->assertJsonPath('productions.0.rate', [25, 1])
        ->assertJsonCount(1, 'productions.0.scenes');
    $this->postJson("/api/productions/{$made['id']}/scenes", ['name' => 'Scene 1'])->assertStatus(422);
    $this->postJson("/api/productions/{$made['id']}/scenes", ['name' => 'Scene 2'])->assertStatus(201);
    $this->deleteJson("/api/productions/{$made['id']}")->assertOk();
    $this->getJson('/api/productions')->assertJsonCount(0, 'productions');
});
