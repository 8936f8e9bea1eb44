<?php

declare(strict_types=1);

use App\Models\RenderJob;
use App\Renders\DrawChunk;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;
use Symfony\Component\Process\Process;

/** A render worker of its own, leader of a process group, on a queue that nobody else serves. */
function renderWorker(string $queue): Process
{
    $p = new Process(['setsid', PHP_BINARY, 'artisan', 'queue:work', "--queue={$queue}", '--sleep=0.2', '--tries=5', '--max-jobs=1', '--quiet'], base_path(), ['REEL_RETRY_AFTER' => '1']);
    $p->setTimeout(180)->start();

    return $p;
}

test('a killed worker costs no finished frame: the next one draws only what is missing', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]], ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'],
        ['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
    ]);
    $frames = app(FrameStore::class);
    $default = config('queue.default');
    config(['queue.default' => 'null', 'queue.connections.null' => ['driver' => 'null']]);
    $job = app(RenderDesk::class)->start($scene->refresh(), $user, ['width' => 160, 'height' => 90, 'from' => 0, 'to' => 48, 'format' => 'mp4', 'quality' => 'draft']);
    config(['queue.default' => $default]);
    DrawChunk::dispatch($job->chunks()->firstOrFail()->id)->onQueue('trial');

    $first = renderWorker('trial');
    for ($end = microtime(true) + 60; count($frames->drawn($job)) < 6 && microtime(true) < $end; usleep(20_000)) {
    }
    // The worker and its browser, at once, as when a machine goes down.
    $group = (int) $first->getPid();
    expect($group)->toBeGreaterThan(1, $first->getErrorOutput());
    expect(posix_kill(-$group, 9))->toBeTrue();
    $first->stop(0);
    $before = [];
    foreach ($frames->drawn($job) as $f) {
        $before[$f] = [filemtime(Storage::disk('reel')->path($frames->path($job, $f))), hash('sha256', $frames->read($job, $f))];
    }
    expect(count($before))->toBeGreaterThan(5)->toBeLessThan(48);

    // It waits by itself until the reservation of the dead worker has run out.
    renderWorker('trial')->wait();
    expect($frames->missing($job, 0, 48))->toBe([]);
    clearstatcache();
    foreach ($before as $f => [$time, $hash]) {
        expect(filemtime(Storage::disk('reel')->path($frames->path($job, $f))))->toBe($time)->and(hash('sha256', $frames->read($job, $f)))->toBe($hash);
    }
    // The last drawn chunk asks for the video, which the common worker makes.
    for ($end = microtime(true) + 60; ($status = RenderJob::query()->whereKey($job->id)->value('status')) !== 'done' && microtime(true) < $end; usleep(100_000)) {
    }
    expect($status)->toBe('done')->and(is_file($frames->result($job->refresh())))->toBeTrue();
});
