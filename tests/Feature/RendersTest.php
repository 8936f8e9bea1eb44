<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\RenderJob;
use App\Renders\DrawChunk;
use App\Renders\Encoder;
use App\Renders\FrameStore;
use App\Renders\JoinRender;
use App\Renders\RenderDesk;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Symfony\Component\Process\Process;

/** @param  array<string, mixed>  $wish */
function job(object $test, array $wish = []): RenderJob
{
    Queue::fake();
    $scene = $test->scene($user = $test->person());
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]], ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk'],
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1]],
    ]);

    return app(RenderDesk::class)->start($scene->refresh(), $user, $wish + ['width' => 64, 'height' => 36]);
}

test('a render is planned in chunks that cover the range once', function (): void {
    $job = job($this, ['from' => 5, 'to' => 120]);
    $chunks = $job->chunks()->orderBy('from_frame')->get();
    expect($chunks->map(fn ($c): array => [$c->from_frame, $c->to_frame])->all())->toBe([[5, 101], [101, 120]]);
    Queue::assertPushedOn('render', DrawChunk::class);
});

test('wishes that cannot be met are refused', function (array $wish, string $message): void {
    expect(fn () => job($this, $wish))->toThrow(UserError::class, $message);
})->with([
    'past the end' => [['from' => 0, 'to' => 9999], 'not within the scene'],
    'backwards' => [['from' => 50, 'to' => 40], 'not within the scene'], 'odd size' => [['width' => 641], 'even numbers'],
]);

test('without a camera there is nothing to render', function (): void {
    expect(fn () => app(RenderDesk::class)->start($this->scene(), null, []))->toThrow(UserError::class, 'no camera on the reel');
});

test('an edit made after the start does not change the running render', function (): void {
    $job = job($this);
    $before = app(RenderDesk::class)->manifest($job);
    $scene = $job->scene;
    $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 90], ['do' => 'scene.set', 'mood' => 'night']]);
    app()->forgetInstance(RenderDesk::class);
    expect(app(RenderDesk::class)->manifest($job->refresh()))->toEqual($before);
});

test('frames are taken with the token only, and only those of the job', function (): void {
    $job = job($this, ['to' => 10]);
    $post = fn (int $f, string $token, string $body) => $this->call(
        'POST', "/internal/renders/{$job->id}/frames/{$f}", [], [], [],
        ['HTTP_X_RENDER_TOKEN' => $token, 'CONTENT_TYPE' => 'image/png', 'HTTP_ACCEPT' => 'application/json'], $body,
    );
    $post(3, $job->token, png(64, 36, 10))->assertOk();
    expect(app(FrameStore::class)->drawn($job))->toBe([3]);
    $post(4, 'guess', png(64, 36, 10))->assertStatus(404);
    $post(40, $job->token, png(64, 36, 10))->assertStatus(422);
    $post(5, $job->token, 'not a picture')->assertStatus(422);
    $this->getJson("/internal/renders/{$job->id}/manifest")->assertStatus(404);
    $this->getJson("/internal/renders/{$job->id}/manifest", ['X-Render-Token' => $job->token])->assertOk()
        ->assertJsonPath('render.width', 64);
    $this->getJson("/internal/renders/{$job->id}/blobs/".str_repeat('0', 64), ['X-Render-Token' => $job->token])->assertStatus(404);
    app(RenderDesk::class)->cancel($job);
    $this->getJson("/internal/renders/{$job->id}/manifest", ['X-Render-Token' => $job->token])->assertStatus(404);
});

test('what is drawn is not drawn again', function (): void {
    $job = job($this, ['to' => 10]);
    $frames = app(FrameStore::class);
    foreach ([0, 1, 2, 5] as $f) {
        $frames->put($job, $f, png(64, 36, 20 * $f));
    }
    expect($frames->missing($job, 0, 10))->toBe([3, 4, 6, 7, 8, 9])->and(app(RenderDesk::class)->progress($job))
        ->toMatchArray(['drawn' => 4, 'frames' => 10, 'status' => 'waiting']);
});

test('a cancelled render keeps its frames and goes on', function (): void {
    $job = job($this, ['to' => 10]);
    app(FrameStore::class)->put($job, 0, png(64, 36, 1));
    $desk = app(RenderDesk::class);
    $desk->cancel($job);
    expect($job->refresh()->status)->toBe('cancelled');
    $desk->resume($job);
    expect($job->refresh()->status)->toBe('waiting')->and(app(FrameStore::class)->drawn($job))->toBe([0]);
    // One that was not stopped goes on by itself; to ask for it is no fault.
    $desk->resume($job);
    expect($job->refresh()->status)->toBe('waiting');
    $job->chunks()->update(['status' => 'done']);
    $desk->cancel($job);
    $desk->resume($job->refresh());
    Queue::assertPushed(JoinRender::class);
});

test('the video has the size, rate, frames and order that were asked for', function (array $rate): void {
    $job = job($this, ['from' => 4, 'to' => 28]);
    if ($rate !== [24, 1]) {
        $document = CrispReel\Core\Document\Document::fromJson(app(App\Assets\BlobStore::class)->get($job->document))->toArray();
        $job->update(['document' => app(App\Assets\BlobStore::class)->put((string) json_encode(
            ['rate' => $rate] + $document,
            JSON_PRESERVE_ZERO_FRACTION,
        ))]);
    }
    for ($f = 4; $f < 28; $f++) {
        app(FrameStore::class)->put($job, $f, png(64, 36, $f * 8));
    }
    app(Encoder::class)->join($job->refresh());
    $file = app(FrameStore::class)->result($job);
    $p = new Process([
        'ffprobe', '-v', 'error', '-count_frames', '-select_streams', 'v:0', '-show_entries',
        'stream=codec_name,pix_fmt,width,height,r_frame_rate,nb_read_frames', '-of', 'json', $file,
    ]);
    $p->mustRun();
    expect(
        json_decode($p->getOutput(), true)['streams'][0]
    )->toMatchArray([
        'codec_name' => 'h264', 'pix_fmt' => 'yuv420p', 'width' => 64, 'height' => 36, 'r_frame_rate' => "{$rate[0]}/{$rate[1]}",
        'nb_read_frames' => '24',
    ]);
    // Fast start: the index comes before the pictures.
    $bytes = (string) file_get_contents($file);
    expect(strpos($bytes, 'moov'))->toBeLessThan(strpos($bytes, 'mdat'));
})->with([[[24, 1]], [[30000, 1001]]]);

test('pictures come as one zip', function (): void {
    $job = job($this, ['to' => 3, 'format' => 'png']);
    for ($f = 0; $f < 3; $f++) {
        app(FrameStore::class)->put($job, $f, png(64, 36, $f));
    }
    app(Encoder::class)->join($job);
    $zip = new ZipArchive;
    $zip->open(app(FrameStore::class)->result($job));
    expect($zip->numFiles)->toBe(3)->and($zip->getNameIndex(2))->toBe('000002.png')->and($zip->getFromIndex(1))->toBe(png(64, 36, 1));
});

test('a missing frame stops the encoding by name', function (): void {
    $job = job($this, ['to' => 3]);
    app(FrameStore::class)->put($job, 0, png(64, 36, 1));
    expect(fn () => app(Encoder::class)->join($job))->toThrow(RuntimeException::class, 'the first is 1');
});

test('drawing pages leave no session behind', function (): void {
    $scene = $this->scene();
    $this->edit($scene, [['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1]]]);
    $job = app(App\Renders\RenderDesk::class)->start(
        $scene->refresh()->load('production'),
        $this->person(),
        ['width' => 64, 'height' => 64, 'quality' => 'draft', 'from' => 0, 'to' => 1],
    );
    $before = DB::table('sessions')->count();
    $page = $this->get("/internal/draw/{$job->id}")->assertOk();
    $manifest = $this->get("/internal/renders/{$job->id}/manifest", ['X-Render-Token' => $job->token])->assertOk();
    expect($page->headers->getCookies())->toBe([])->and($manifest->headers->getCookies())->toBe([])
        ->and(DB::table('sessions')->count())->toBe($before)->and($page->getContent())->toContain('data-quality="draft"');
    $this->get("/internal/renders/{$job->id}/manifest")->assertStatus(404);
});
