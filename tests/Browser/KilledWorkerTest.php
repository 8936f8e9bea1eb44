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
    $p = new Process(
        ['setsid', PHP_BINARY, 'artisan', 'queue:work', "--queue={$queue}", '--sleep=0.2', '--tries=5', '--max-jobs=1', '--quiet'],
        base_path(),
        ['REEL_RETRY_AFTER' => '1'],
    );
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
    $job = app(RenderDesk::class)->start($scene->refresh(), $user, [
        'width' => 160, 'height' => 90, 'from' => 0, 'to' => 48, 'format' => 'mp4', 'quality' => 'draft',
    ]);
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
        expect(filemtime(Storage::disk('reel')->path($frames->path($job, $f))))->toBe($time)->and(hash('sha256', $frames->read($job, $f)))
            ->toBe($hash);
    }
    // The last drawn chunk asks for the video, which the common worker makes.
    for ($end = microtime(true) + 60; (
        $status = RenderJob::query()->whereKey($job->id)->value('status')
    ) !== 'done' && microtime(true) < $end; usleep(100_000)) {
    }
    expect($status)->toBe('done')->and(is_file($frames->result($job->refresh())))->toBeTrue();
});

test('two workers are killed at twenty moments: the film is whole, no frame that arrived is drawn again, and it is byte for byte the film of an undisturbed render', function (): void {
    $random = new Random\Randomizer(new Random\Engine\Mt19937(20261130));
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'loops' => 12],
        ['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
    ]);
    $frames = app(FrameStore::class);
    $wish = ['width' => 320, 'height' => 180, 'from' => 0, 'to' => 144, 'format' => 'mp4', 'quality' => 'draft'];
    $job = app(RenderDesk::class)->start($scene->refresh(), $user, $wish);
    $control = ['/usr/bin/supervisorctl', '-c', getenv('REEL_RUN').'/supervisord.conf'];
    $arrived = [];
    $look = static function () use (&$arrived, $frames, $job): void {
        clearstatcache();
        foreach ($frames->drawn($job) as $f) {
            $arrived[$f] ??= filemtime(Storage::disk('reel')->path($frames->path($job, $f)));
        }
    };
    $kills = 0;
    for ($end = microtime(true) + 150; $kills < 20 && microtime(true) < $end;) {
        usleep($random->getInt(200_000, 4_500_000));
        $ask = new Process([...$control, 'pid', 'reel:render-'.$random->getInt(1, 2)]);
        $ask->run();
        $look();
        $kills += (int) trim($ask->getOutput()) > 1 && posix_kill((int) trim($ask->getOutput()), 9) ? 1 : 0;
    }
    $done = static function (RenderJob $j): void {
        for ($end = microtime(true) + 150; (
            $status = RenderJob::query()->whereKey($j->id)->value('status')
        ) !== 'done' && microtime(true) < $end; usleep(200_000)) {
        }
        expect($status)->toBe('done', (string) RenderJob::query()->whereKey($j->id)->value('error'));
    };
    $done($job);
    $before = $arrived;
    $look();
    expect($kills)->toBe(20)->and($frames->missing($job, 0, 144))->toBe([])->and(array_intersect_key($arrived, $before))->toBe($before);
    foreach ($arrived as $f => $time) {
        expect(filemtime(Storage::disk('reel')->path($frames->path($job, $f))))->toBe($time);
    }
    // No browser of a killed worker is left.
    $left = new Process(['sh', '-c', 'pgrep -u "$(id -u)" -f '.sys_get_temp_dir().'/crisp-reel-browser- | wc -l']);
    for ($end = microtime(true) + 20; microtime(true) < $end; usleep(500_000)) {
        $left->run();
        if ((int) $left->getOutput() <= 1) {
            break;
        }
    }
    expect((int) $left->getOutput())->toBeLessThanOrEqual(1);
    $again = app(RenderDesk::class)->start($scene->refresh(), $user, $wish);
    $done($again);
    expect(hash_file('sha256', $frames->result($job->refresh())))->toBe(hash_file('sha256', $frames->result($again->refresh())));
});
