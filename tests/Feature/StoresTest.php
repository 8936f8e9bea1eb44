<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Assets\StoreCheck;
use App\Exceptions\UserError;
use Illuminate\Support\Facades\Storage;
use Tests\StandIns\ObjectStore;

/**
 * What is promised of the store, the same for a folder and for a bucket. Each case gets a store, and damage(path, bytes) that
 * writes past it, as a killed write or another program would.
 */
function withStore(string $kind, Closure $run): void
{
    $folder = sys_get_temp_dir().'/reel-store-'.bin2hex(random_bytes(4));
    mkdir($folder);
    $bucket = $kind === 'bucket' ? new ObjectStore($folder) : null;
    $settings = config('filesystems.disks.reel');
    config(['filesystems.disks.reel' => $bucket?->disk() ?? ['driver' => 'local', 'root' => $folder, 'throw' => true]]);
    Storage::forgetDisk('reel');
    $inside = $bucket === null ? $folder : "{$folder}/".ObjectStore::BUCKET;
    try {
        $run(app(BlobStore::class), static function (string $path, string $bytes) use ($inside): void {
            file_put_contents("{$inside}/{$path}", $bytes);
            clearstatcache();
        }, $inside, $bucket);
    } finally {
        $bucket?->stop();
        config(['filesystems.disks.reel' => $settings]);
        Storage::forgetDisk('reel');
        (new Illuminate\Filesystem\Filesystem)->deleteDirectory($folder);
    }
}

$kinds = ['a folder' => ['folder'], 'a bucket' => ['bucket']];

test('bytes put are there whole under the hash of their content', function (string $kind): void {
    withStore($kind, function (BlobStore $store, Closure $damage, string $inside): void {
        foreach (['', 'a', random_bytes(70_000)] as $bytes) {
            $hash = $store->put($bytes);
            expect($hash)->toBe(hash('sha256', $bytes))->and($store->has($hash))->toBeTrue()->and($store->get($hash))->toBe($bytes)
                ->and(file_get_contents("{$inside}/".BlobStore::path($hash)))->toBe($bytes);
        }
        expect($store->has(hash('sha256', 'never put')))->toBeFalse();
    });
})->with($kinds);

test('one that was cut off is told when read, and mended by the same bytes', function (string $kind): void {
    withStore($kind, function (BlobStore $store, Closure $damage): void {
        $bytes = random_bytes(5000);
        $hash = $store->put($bytes);
        $damage(BlobStore::path($hash), substr($bytes, 0, 2000));
        expect($store->isSound($hash))->toBeFalse()->and(fn () => $store->get($hash))->toThrow(UserError::class, 'damaged');
        expect($store->put($bytes))->toBe($hash)->and($store->get($hash))->toBe($bytes);
    });
})->with($kinds);

test('a film larger than one call may carry arrives whole, and is listed and removed with its folder', function (string $kind): void {
    withStore($kind, function (BlobStore $store): void {
        $file = (string) tempnam(sys_get_temp_dir(), 'film');
        $bytes = str_repeat(random_bytes(1024), 18 * 1024);
        file_put_contents($file, $bytes);
        $store->wholeFile('renders/r1/film.mp4', $file);
        $store->whole('renders/r1/frames/1.png', 'png');
        unlink($file);
        $disk = $store->disk();
        expect(hash('sha256', (string) $disk->get('renders/r1/film.mp4')))->toBe(hash('sha256', $bytes))
            ->and($disk->size('renders/r1/film.mp4'))->toBe(strlen($bytes))
            ->and($disk->allFiles('renders'))->toBe(['renders/r1/film.mp4', 'renders/r1/frames/1.png'])
            ->and(stream_get_contents($disk->readStream('renders/r1/frames/1.png')))->toBe('png');
        $disk->deleteDirectory('renders/r1');
        expect($disk->allFiles('renders'))->toBe([]);
    });
})->with($kinds);

test('what is broken is found and half-written files are swept', function (string $kind): void {
    withStore($kind, function (BlobStore $store, Closure $damage, string $inside): void {
        $hash = $store->put('whole for now');
        $damage(BlobStore::path($hash), 'whole no more');
        $store->put('sound');
        $broken = collect(app(StoreCheck::class)->broken(static fn () => null))->keyBy('hash');
        expect($broken[$hash]['what'])->toContain('not what its name says')->and($broken->keys())->not->toContain(hash('sha256', 'sound'));
        $store->disk()->put('blobs/zz/half.part-0123456789ab', 'half');
        touch("{$inside}/blobs/zz/half.part-0123456789ab", time() - 7200);
        expect(app(StoreCheck::class)->sweep())->toBe(1);
    });
})->with($kinds);

test('a bucket that is away or refuses is said in words, and keeps nothing half', function (): void {
    withStore('bucket', function (BlobStore $store, Closure $damage, string $inside, ObjectStore $bucket): void {
        config(['filesystems.disks.reel.secret' => 'another']);
        Storage::forgetDisk('reel');
        expect(fn () => $store->whole('renders/x', 'refused'))->toThrow(UserError::class, 'could not be written');
        config(['filesystems.disks.reel.secret' => ObjectStore::SECRET]);
        Storage::forgetDisk('reel');
        $bucket->stop();
        expect(fn () => $store->put('away'))->toThrow(UserError::class, 'cannot be reached')
            ->and(fn () => $store->get(hash('sha256', 'away')))->toThrow(UserError::class, 'cannot be reached')
            ->and(is_file("{$inside}/renders/x"))->toBeFalse();
    });
});
