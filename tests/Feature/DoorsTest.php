<?php

declare(strict_types=1);

use App\Doors\Address;
use App\Models\Invitation;
use App\Models\User;
use Illuminate\Hashing\HashManager;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Mail;

const WORD = 'a long enough word';

/** The hasher, which from now on counts what it is asked for. */
function counted(): HashManager
{
    $counting = new class(app()) extends HashManager
    {
        public int $checks = 0;

        public int $makes = 0;

        public function check($value, $hashedValue, array $options = []): bool
        {
            $this->checks++;

            return parent::check($value, $hashedValue, $options);
        }

        public function make($value, array $options = []): string
        {
            $this->makes++;

            return parent::make($value, $options);
        }
    };
    Hash::swap($counting);

    return $counting;
}

test('an address has one form, and what only looks like it reaches nobody', function (string $given, ?string $kept): void {
    expect(Address::of($given))->toBe($kept);
})->with([
    'capitals' => ['Noor@Crisp-Reel.Example', 'noor@crisp-reel.example'],
    'blanks around' => [' noor@crisp-reel.example ', 'noor@crisp-reel.example'],
    'a zero-width space' => ["no\u{200B}or@crisp-reel.example", 'noor@crisp-reel.example'],
    'a byte order mark' => ["noor@crisp-reel\u{FEFF}.example", 'noor@crisp-reel.example'],
    'full-width letters' => ["\u{FF4E}oor@crisp-reel.example", 'noor@crisp-reel.example'],
    'a letter with two dots' => ["n\u{00F6}or@crisp-reel.example", null],
    'a letter of another script' => ["n\u{043E}or@crisp-reel.example", null],
    'a host with dots on it' => ['noor@büro.example', 'noor@xn--bro-hoa.example'],
    'no host' => ['nowhere', null],
    'a zero byte' => ["a@b\0.example", 'a@b.example'],
    'too long' => [str_repeat('a', 300).'@x.example', null],
    'no UTF-8' => ["\xFF@x.example", null],
]);

test('wrong passwords count against the person, however the address is written', function (): void {
    $user = $this->person();
    $user->update(['email' => 'noor.'.uniqid().'@crisp-reel.example']);
    [$name, $host] = explode('@', $user->email);
    $variants = [
        $user->email, strtoupper($user->email), " {$user->email}", "{$name}\u{200B}@{$host}", "\u{200D}{$user->email}",
        "{$name}@\u{FEFF}{$host}", "{$name}\u{00AD}@{$host}", strtoupper($name).'@'.$host,
    ];
    $open = 0;
    foreach ([...$variants, ...$variants, ...$variants] as $address) {
        $open += $this->postJson('/api/sign-in', ['email' => $address, 'password' => 'wrong guess'])->status() === 422 ? 1 : 0;
    }
    expect($open)->toBe(6);
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => WORD])->assertStatus(429)
        ->assertJsonPath('reason', 'account.tries');
    // Accents are no way round: é is not e.
    expect($this->postJson('/api/sign-in', ['email' => strtr($user->email, ['o' => 'ó']), 'password' => WORD])->status())->toBe(422);
    $this->travel(61)->seconds();
    $this->postJson('/api/sign-in', ['email' => "{$name}\u{200B}@{$host}", 'password' => WORD])->assertOk()
        ->assertJsonPath('person.id', $user->id);
});

test('one place cannot try everybody', function (): void {
    for ($n = 0; $n < 40; $n++) {
        $this->postJson('/api/sign-in', ['email' => "somebody{$n}@crisp-reel.example", 'password' => 'wrong guess'])->assertStatus(422);
    }
    $this->postJson('/api/sign-in', ['email' => 'another@crisp-reel.example', 'password' => 'wrong guess'])->assertStatus(429);
});

test('register, sign-in and reset answer the same whether there is such a person or not', function (): void {
    Mail::fake();
    $user = $this->person();
    $same = static fn (array $a, array $b) => expect([$a['status'], $a['body']])->toBe([$b['status'], $b['body']]);
    $ask = fn (string $path, array $body): array => [
        'status' => ($r = $this->postJson("/api/{$path}", $body))->status(), 'body' => $r->json(),
    ];
    $new = fn (): string => uniqid('n').'@crisp-reel.example';
    $same(
        $ask('register', ['name' => 'X', 'email' => $user->email, 'password' => 'another long word']),
        $ask('register', ['name' => 'X', 'email' => $new(), 'password' => 'another long word']),
    );
    $same(
        $ask('sign-in', ['email' => $user->email, 'password' => 'wrong guess']),
        $ask('sign-in', ['email' => $new(), 'password' => 'wrong guess']),
    );
    $same($ask('password/forgot', ['email' => $user->email]), $ask('password/forgot', ['email' => $new()]));
    $same(
        $ask('password/reset', ['email' => $user->email, 'token' => 'x', 'password' => 'another long word']),
        $ask('password/reset', ['email' => $new(), 'token' => 'x', 'password' => 'another long word']),
    );
    // Who registers with somebody's address changes nothing of theirs.
    expect(Hash::check(WORD, $user->refresh()->password))->toBeTrue()->and($user->name)->toBe('Ilse Brandt')
        ->and(User::query()->where('email', $user->email)->count())->toBe(1);
});

test('a password is looked at for nobody as for somebody, so neither takes longer', function (string $who): void {
    $user = $this->person();
    // The first look at nobody ever makes what all later ones compare with.
    $this->postJson('/api/sign-in', ['email' => 'another@crisp-reel.example', 'password' => 'wrong guess']);
    $count = counted();
    $this->postJson('/api/sign-in', [
        'email' => $who === 'somebody' ? $user->email : 'nobody@crisp-reel.example',
        'password' => 'wrong guess',
    ])->assertStatus(422);
    expect($count->checks)->toBe(1)->and($count->makes)->toBe(0);
})->with(['somebody', 'nobody']);

test('a registration makes a hash for a taken address as for a free one', function (string $which): void {
    $user = $this->person();
    $count = counted();
    $this->postJson('/api/register', [
        'name' => 'X',
        'email' => $which === 'taken' ? $user->email : uniqid('n').'@crisp-reel.example',
        'password' => 'another long word',
    ])->assertOk();
    expect($count->makes)->toBe(1);
})->with(['taken', 'free']);

test('a password is changed by who knows it, and all other sessions end', function (): void {
    $user = $this->person();
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => WORD])->assertOk();
    DB::table('sessions')->insert(['id' => 'elsewhere', 'user_id' => $user->id, 'payload' => '', 'last_activity' => time()]);
    $remembered = $user->refresh()->remember_token;
    $this->postJson('/api/password', ['old' => 'not it at all', 'password' => 'quite another word'])->assertStatus(422)
        ->assertJsonPath('reason', 'password.old');
    $this->postJson('/api/password', ['old' => WORD, 'password' => 'short'])->assertStatus(422)->assertJsonPath('reason', 'password.short');
    $this->postJson('/api/password', ['old' => WORD, 'password' => 'quite another word'])->assertOk();
    $this->getJson('/api/productions')->assertOk();
    expect(DB::table('sessions')->where('id', 'elsewhere')->exists())->toBeFalse()
        ->and(Hash::check('quite another word', $user->refresh()->password))->toBeTrue()
        ->and($user->remember_token)->not->toBe($remembered);
});

test('a session that was opened with the old password is out, whatever holds it', function (): void {
    $user = $this->person();
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => WORD])->assertOk();
    $this->getJson('/api/productions')->assertOk();
    $user->refresh()->update(['password' => 'quite another word']);
    $this->app['auth']->forgetGuards();
    $this->getJson('/api/productions')->assertStatus(401);
});

test('a forgotten password: the link comes by mail, is good once and for an hour, and ends every session', function (): void {
    config(['mail.default' => 'array']);
    $user = $this->person();
    $links = [];
    foreach ([1, 2] as $n) {
        (new App\Doors\ResetMail($user->email))->handle();
        $sent = Mail::mailer()->getSymfonyTransport()->messages();
        $text = $sent[count($sent) - 1]->getOriginalMessage()->getTextBody();
        expect(preg_match('#new-password\#email=(\S+?)&token=(\w+)#', $text, $m))->toBe(1);
        $links[] = ['email' => urldecode($m[1]), 'token' => $m[2]];
    }
    DB::table('sessions')->insert(['id' => 'elsewhere', 'user_id' => $user->id, 'payload' => '', 'last_activity' => time()]);
    $this->postJson('/api/password/reset', $links[0] + ['password' => 'quite another word'])->assertStatus(422)
        ->assertJsonPath('reason', 'password.link');
    $this->postJson('/api/password/reset', $links[1] + ['password' => 'short'])->assertStatus(422)
        ->assertJsonPath('reason', 'password.short');
    $this->postJson('/api/password/reset', $links[1] + ['password' => 'quite another word'])->assertOk();
    $this->postJson('/api/password/reset', $links[1] + ['password' => 'and yet another one'])->assertStatus(422);
    expect(DB::table('sessions')->where('id', 'elsewhere')->exists())->toBeFalse();
    $this->postJson('/api/sign-in', ['email' => $user->email, 'password' => 'quite another word'])->assertOk();
    (new App\Doors\ResetMail($user->email))->handle();
    $sent = Mail::mailer()->getSymfonyTransport()->messages();
    preg_match('#token=(\w+)#', $sent[count($sent) - 1]->getOriginalMessage()->getTextBody(), $m);
    $this->travel(61)->minutes();
    $this->postJson('/api/password/reset', ['email' => $user->email, 'token' => $m[1], 'password' => 'one more long word'])
        ->assertStatus(422);
});

test('people are asked in by a link for their address alone, with a role and an end', function (): void {
    $owner = $this->person('Owner');
    $scene = $this->scene($owner);
    $guest = $this->person('Guest');
    $base = "/api/productions/{$scene->production_id}";
    $this->actingAs($owner);
    $asked = $this->postJson("{$base}/invitations", ['email' => strtoupper($guest->email), 'role' => 'viewer', 'days' => 2])
        ->assertStatus(201)->assertJsonPath('mailed', false)->json();
    expect(preg_match('#/join/(\w{48})$#', $asked['link'], $m))->toBe(1)
        ->and(Invitation::query()->findOrFail($asked['id'])->token_hash)->not->toContain($m[1]);
    $token = $m[1];
    $this->postJson("/api/invitations/{$token}")->assertStatus(403)->assertJsonPath('reason', 'members.other');
    $this->actingAs($guest)->getJson("/api/scenes/{$scene->id}")->assertNotFound();
    $this->getJson("/api/invitations/{$token}")->assertOk()->assertJsonPath('yours', true)->assertJsonPath('role', 'viewer');
    $this->postJson("/api/invitations/{$token}")->assertOk()->assertJsonPath('scene', $scene->id);
    $this->postJson("/api/invitations/{$token}")->assertNotFound()->assertJsonPath('reason', 'members.link');
    $this->getJson("/api/scenes/{$scene->id}")->assertOk()->assertJsonPath('production.role', 'viewer');
    $this->postJson("/api/scenes/{$scene->id}/edits", ['commands' => [['do' => 'scene.set', 'mood' => 'fog']]])->assertStatus(403);
    // Guests do not see the addresses of others, nor who else was asked.
    $list = $this->getJson("{$base}/members")->assertOk()->json();
    expect(collect($list['members'])->firstWhere('name', 'Owner')['email'])->toBeNull()->and($list['owner'])->toBeFalse();
    $this->postJson("{$base}/invitations", ['email' => 'x@crisp-reel.example', 'role' => 'editor'])->assertStatus(403);
    // An editor from the next call on; out from the next call on.
    $member = collect($this->actingAs($owner)->getJson("{$base}/members")->json('members'))->firstWhere('name', 'Guest');
    $this->patchJson("{$base}/members/{$member['id']}", ['role' => 'editor'])->assertOk();
    $this->actingAs($guest)->postJson("/api/scenes/{$scene->id}/edits", ['commands' => [['do' => 'scene.set', 'mood' => 'fog']]])
        ->assertOk();
    $this->patchJson("{$base}/members/{$member['id']}", ['role' => 'owner'])->assertStatus(403);
    $this->actingAs($owner)->deleteJson("{$base}/members/{$member['id']}")->assertOk();
    $this->actingAs($guest)->getJson("/api/scenes/{$scene->id}")->assertNotFound();
    $this->postJson("/api/scenes/{$scene->id}/edits", ['commands' => [['do' => 'scene.set', 'mood' => 'dusk']]])->assertNotFound();
});

test('links end, are withdrawn, are replaced by newer ones; a production keeps an owner', function (): void {
    $owner = $this->person('Owner');
    $scene = $this->scene($owner);
    $base = "/api/productions/{$scene->production_id}";
    $this->actingAs($owner);
    $link = fn (string $email): array => $this->postJson("{$base}/invitations", ['email' => $email, 'role' => 'editor', 'days' => 1])
        ->json();
    $token = static fn (array $asked): string => basename($asked['link']);
    $first = $link('guest@crisp-reel.example');
    $second = $link('guest@crisp-reel.example');
    $this->getJson('/api/invitations/'.$token($first))->assertNotFound();
    $this->getJson('/api/invitations/'.$token($second))->assertOk();
    $this->deleteJson("{$base}/invitations/{$second['id']}")->assertOk();
    $this->getJson('/api/invitations/'.$token($second))->assertNotFound();
    $third = $link('guest@crisp-reel.example');
    $this->travel(25)->hours();
    $this->getJson('/api/invitations/'.$token($third))->assertNotFound();
    $me = $this->getJson("{$base}/members")->json('members.0.id');
    $this->deleteJson("{$base}/members/{$me}")->assertStatus(409)->assertJsonPath('reason', 'members.last');
    $this->patchJson("{$base}/members/{$me}", ['role' => 'viewer'])->assertStatus(409);
    // Of another production, nothing is changed through this one.
    $other = $this->scene($this->person('Other'));
    $stranger = $other->production->members()->value('id');
    $this->deleteJson("{$base}/members/{$stranger}")->assertNotFound();
    expect($other->production->members()->count())->toBe(1);
});

test('the demo is not loaded in production, and the kit alone is', function (): void {
    $this->app['env'] = 'production';
    $this->artisan('reel:demo')->assertExitCode(2);
    $this->artisan('reel:demo', ['--with-account' => true])->expectsQuestion('A password for the demo account', 'half-past-the-tide')
        ->assertExitCode(2);
    $this->artisan('reel:kit', ['--if-empty' => true])->assertExitCode(0);
    $this->app['env'] = 'testing';
});
