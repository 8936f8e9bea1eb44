<?php

declare(strict_types=1);

use App\Models\RenderJob;
use App\Models\Work;
use App\Renders\DrawChunk;
use App\Renders\JoinRender;
use App\Renders\RenderDesk;
use App\Scenes\DocumentBuilder;
use App\Work\DoWork;
use App\Work\Worker;
use Illuminate\Contracts\Queue\Job;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;

/** Takes the next job of a queue as a worker does. */
function taken(string $queue): ?Job
{
    return Queue::connection('database')->pop($queue);
}

/** @return list<int> whom the jobs are for, in the order in which they are taken (and finished) */
function order(string $queue): array
{
    $out = [];
    while (($job = taken($queue)) !== null) {
        $out[] = (int) ($job->payload()['person'] ?? 0);
        $job->delete();
    }

    return $out;
}

test('people take turns, however much one of them asks for', function (): void {
    [$a, $b] = [$this->person('A')->id, $this->person('B')->id];
    foreach ([$a, $a, $a, $a, $b, $b] as $n => $person) {
        DoWork::dispatch("w{$n}", $person)->onQueue('trial')->onConnection('database');
    }
    $got = order('trial');
    expect($got)->toHaveCount(6)->and(array_slice($got, 0, 4))->toBe([$a, $b, $a, $b])->and(array_slice($got, 4))->toBe([$a, $a]);
});

test('while others wait, nobody has two at once', function (): void {
    [$a, $b] = [$this->person('A')->id, $this->person('B')->id];
    foreach ([$a, $a, $b] as $n => $person) {
        DoWork::dispatch("w{$n}", $person)->onQueue('trial')->onConnection('database');
    }
    expect(taken('trial')?->payload()['person'])->toBe($a)->and(taken('trial')?->payload()['person'])->toBe($b)
        // Nobody else waits: a free worker is not kept idle.
        ->and(taken('trial')?->payload()['person'])->toBe($a)->and(taken('trial'))->toBeNull();
});

test('what a dead worker had is free for others at the next pulse', function (): void {
    DoWork::dispatch('w1', $this->person()->id)->onQueue('trial')->onConnection('database');
    $job = taken('trial');
    expect($job)->not->toBeNull()->and(taken('trial'))->toBeNull();
    // A worker of this machine whose process is gone, as after a kill.
    DB::table('workers')
        ->insert(['name' => Worker::host().'/gone', 'host' => Worker::host(), 'pid' => 4_000_000, 'started' => 1, 'queues' => 'trial']);
    DB::table('jobs')->where('queue', 'trial')->update(['reserved_by' => Worker::host().'/gone']);
    Worker::pulse();
    expect(DB::table('workers')->where('name', Worker::host().'/gone')->exists())->toBeFalse()->and(taken('trial')?->payload()['person'])
        ->toBe($job?->payload()['person']);
});

test('a machine that is not heard of any more is given up, one that is heard of is not', function (): void {
    foreach (['far-away/render-1' => 30, 'next-door/render-1' => 2] as $name => $seconds) {
        DoWork::dispatch($name, $this->person()->id)->onQueue('trial')->onConnection('database');
        taken('trial');
        DB::table('workers')->insert([
            'name' => $name,
            'host' => explode('/', $name)[0],
            'pid' => 7,
            'started' => 7,
            'queues' => 'render',
            'seen_at' => DB::raw("CURRENT_TIMESTAMP - INTERVAL {$seconds} SECOND"),
        ]);
        DB::table('jobs')->where('queue', 'trial')->whereNull('reserved_by')->update(['reserved_by' => $name]);
    }
    expect(Worker::taken()['render'])->toBeTrue();
    Worker::pulse();
    expect(DB::table('workers')->whereIn('host', ['far-away', 'next-door'])->pluck('host')->all())->toBe(['next-door']);
    expect(DB::table('jobs')->where('queue', 'trial')->whereNull('reserved_at')->count())->toBe(1)
        ->and(DB::table('jobs')->where('queue', 'trial')->where('reserved_by', 'next-door/render-1')->count())->toBe(1);
    DB::table('workers')->where('host', 'next-door')->delete();
    Worker::pulse();
    expect(DB::table('jobs')->where('queue', 'trial')->whereNull('reserved_at')->count())->toBe(2);
});

test('the page is told which work nobody takes', function (): void {
    DB::table('workers')->delete();
    $this->actingAs($user = $this->person())->getJson('/api/health')->assertOk()->assertJsonPath('taken.render', false)
        ->assertJsonPath('taken.desk', false);
    DB::table('workers')->insert(['name' => 'here/desk', 'host' => 'here', 'pid' => 1, 'started' => 1, 'queues' => 'desk,intake']);
    $this->getJson('/api/health')->assertJsonPath('taken.desk', true)->assertJsonPath('taken.intake', true)
        ->assertJsonPath('taken.render', false);
    DB::table('workers')->delete();
    $work = Work::query()->create([
        'id' => '018f0000-0000-7000-8000-000000000001', 'user_id' => $user->id, 'method' => 'GET', 'uri' => '/api/me', 'body' => '',
        'files' => [], 'status' => 'waiting',
    ]);
    $this->worksAtOnce = false;
    $this->getJson("/api/works/{$work->id}")->assertStatus(202)->assertJsonPath('says', null);
    $this->travel(9)->seconds();
    expect($this->getJson("/api/works/{$work->id}")->assertStatus(202)->json('says'))->toContain('Nobody is there');
});

test('heavy calls are written down, done by a worker, and answered to who asked and to nobody else', function (): void {
    $this->worksAtOnce = false;
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [['do' => 'scene.set', 'story' => 'Oda waits on the bench.']]);
    $work = $this->actingAs($user)->getJson("/api/scenes/{$scene->id}/parts")->assertStatus(202)->json('work');
    $this->getJson("/api/works/{$work}")->assertStatus(202);
    $job = taken('desk');
    expect($job?->payload()['person'])->toBe($user->id);
    $job?->fire();
    $this->getJson("/api/works/{$work}")->assertOk()->assertJsonStructure(['lines']);
    $this->actingAs($this->person('Stranger'))->getJson("/api/works/{$work}")->assertNotFound();
    // A stranger's own call for it is carried out, and finds nothing.
    $other = $this->getJson("/api/scenes/{$scene->id}/parts")->assertStatus(202)->json('work');
    taken('desk')?->fire();
    $this->getJson("/api/works/{$other}")->assertNotFound()->assertJsonPath('reason', 'gone');
});

test('a call that ends its worker twice is given up in words, and one person cannot fill the desk', function (): void {
    $this->worksAtOnce = false;
    $this->actingAs($user = $this->person());
    $scene = $this->scene($user);
    $work = $this->getJson("/api/scenes/{$scene->id}/parts")->json('work');
    (new DoWork($work, $user->id))->failed();
    $this->getJson("/api/works/{$work}")->assertStatus(422)->assertJsonPath('reason', 'work.stopped');
    for ($n = 0; $n < 12; $n++) {
        $this->getJson("/api/scenes/{$scene->id}/parts")->assertStatus(202);
    }
    $this->getJson("/api/scenes/{$scene->id}/parts")->assertStatus(429)->assertJsonPath('reason', 'work.many');
});

test('too many calls are answered with the seconds to wait, in words', function (): void {
    $this->actingAs($user = $this->person());
    $scene = $this->scene($user);
    for ($n = 0; $n < 60; $n++) {
        $this->postJson("/api/productions/{$scene->production_id}/invitations", ['email' => 'nobody'])->assertStatus(422);
    }
    $answer = $this->postJson("/api/productions/{$scene->production_id}/invitations", ['email' => 'nobody'])->assertStatus(429)
        ->assertHeader('Retry-After');
    expect($answer->json('message'))->toMatch('/open again in \d+ seconds?\./');
    // Another person is not held up by it.
    $other = $this->person();
    $this->actingAs($other)->postJson('/api/productions/'.$this->scene($other)->production_id.'/invitations', ['email' => 'nobody'])
        ->assertStatus(422);
});

test('what a crash has lost of a render is queued again, and only that', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'loops' => 9],
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1]],
    ]);
    $desk = app(RenderDesk::class);
    $job = $desk->start($scene->refresh(), $user, ['to' => 200, 'width' => 64, 'height' => 36]);
    DB::table('jobs')->delete();
    $by = $desk->create(DocumentBuilder::build($scene), $scene->id, $user->id, 0, 2, 64, 36, 'png', 'draft', 'by-hand.zip');
    RenderJob::query()->whereIn('id', [$job->id, $by->id])->update(['created_at' => now()->subMinute()]);
    $chunks = $job->chunks()->orderBy('from_frame')->pluck('id')->all();
    expect(count($chunks))->toBeGreaterThan(1);
    DrawChunk::dispatch($chunks[0], $user->id)->onQueue('render');
    $desk->goOn();
    expect(DB::table('jobs')->where('queue', 'render')->orderBy('id')->pluck('subject')->all())
        ->toBe(array_map(static fn (int $id): string => "chunk:{$id}", $chunks));
    $desk->goOn();
    expect(DB::table('jobs')->where('queue', 'render')->count())->toBe(count($chunks));
    $job->chunks()->update(['status' => 'done']);
    DB::table('jobs')->delete();
    $desk->goOn();
    expect(DB::table('jobs')->pluck('subject')->all())->toBe(["join:{$job->id}"]);
});

test('however many workers draw the last chunks at once, the film is joined once', function (): void {
    Queue::fake();
    $scene = $this->scene($user = $this->person());
    $job = app(RenderDesk::class)->create(DocumentBuilder::build($scene), $scene->id, $user->id, 0, 2, 64, 36, 'mp4', 'draft', 'x.mp4');
    JoinRender::once($job);
    JoinRender::once($job);
    Queue::assertPushed(JoinRender::class, 1);
});
