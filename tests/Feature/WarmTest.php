<?php

declare(strict_types=1);

use App\Scenes\DocumentBuilder;
use App\Scenes\PieceStore;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use App\Scenes\WarmDesk;
use App\Scenes\WarmHouse;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Document\Document;
use Illuminate\Support\Facades\Cache;
use Symfony\Component\Process\Process;

/** The document of a small scene, kept as a state that was not settled yet. */
function unsettled(mixed $test, string $state): Document
{
    $scene = $test->scene($test->person());
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]], ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'],
        ['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
    ]);
    $document = DocumentBuilder::build($scene->refresh());
    Cache::put("document.{$state}", $document->toJson(), 60);

    return $document;
}

test('what the warm process keeps is what anybody would have made', function (): void {
    $document = unsettled($this, $state = hash('sha256', 'a state'));
    $house = app(WarmHouse::class);
    expect($house->answer(['do' => 'settle', 'state' => $state, 'light' => []]))->toBe(['done' => true]);
    $manifest = json_decode(Cache::get("manifest.{$state}"), true);
    $stream = app(SceneStream::class);
    $own = json_decode(json_encode(['state' => $state] + $stream->manifest($stream->compileDocument($document))), true);
    expect($manifest)->toEqual($own);
    $names = SceneStream::named($manifest, 0);
    expect($house->answer(['do' => 'bake', 'state' => $state, 'n' => 0, 'names' => $names]))->toBe(['done' => true]);
    $pieces = app(PieceStore::class);
    expect(array_filter(array_map($pieces->get(...), $names)))->toHaveCount(count($names));
});

test('a state that cannot be settled is refused in its own words, one that nobody knows is left to who asks', function (): void {
    $document = json_decode(unsettled($this, 'x')->toJson(), true);
    $document['beats'][0]['path'] = ['points' => [[3, 0], [4, 1]]];
    Cache::put('document.broken', json_encode($document), 60);
    $answer = app(WarmHouse::class)->answer(['do' => 'settle', 'state' => 'broken', 'light' => []]);
    expect($answer['refused'])->toBe('motion.path')->and($answer['message'])->toContain('Wave')->and($answer['remedy'])->not->toBe('');
    expect(app(WarmHouse::class)->answer(['do' => 'settle', 'state' => 'unknown', 'light' => []]))->toBe(['done' => false])
        ->and(app(WarmHouse::class)->answer(['do' => 'dance']))->toBe(['done' => false])
        ->and(app(WarmHouse::class)->answer([]))->toBe(['done' => false]);
});

test('who asks does without it where it is not there, or hangs up', function (): void {
    $desk = app(WarmDesk::class);
    config(['reel.warm' => null]);
    expect($desk->settle('a', []))->toBeFalse();
    $socket = sys_get_temp_dir().'/warm-'.bin2hex(random_bytes(4)).'.sock';
    config(['reel.warm' => $socket]);
    expect($desk->settle('a', []))->toBeFalse();
    // A file that is no socket, and one whom nobody answers at.
    touch($socket);
    expect($desk->bake('a', 0, ['x']))->toBeFalse();
    unlink($socket);
});

test('the process answers on its socket, one question a line, refusals as such, and keeps strangers of the machine out', function (): void {
    $folder = sys_get_temp_dir().'/warm-'.bin2hex(random_bytes(4));
    mkdir($folder, 0o700);
    // A store that both processes see.
    config(['cache.default' => 'file']);
    $p = new Process([PHP_BINARY, 'artisan', 'reel:warm'], base_path(), [
        'REEL_RUN' => $folder, 'APP_CONFIG_CACHE' => "{$folder}/none.php", 'CACHE_STORE' => 'file',
    ]);
    $p->start();
    $socket = "{$folder}/warm.sock";
    for ($end = microtime(true) + 20; ! file_exists($socket) && $p->isRunning() && microtime(true) < $end; usleep(50_000)) {
    }
    try {
        expect(file_exists($socket))->toBeTrue($p->getErrorOutput().$p->getOutput());
        clearstatcache();
        expect(fileperms($socket) & 0o777)->toBe(0o600);
        config(['reel.warm' => $socket]);
        $document = json_decode(unsettled($this, $state = hash('sha256', 'another state'))->toJson(), true);
        expect(app(WarmDesk::class)->settle($state, []))->toBeTrue()->and(Cache::get("manifest.{$state}"))->toContain('Oda');
        $document['beats'][0]['path'] = ['points' => [[3, 0], [4, 1]]];
        Cache::put('document.broken-too', json_encode($document), 60);
        expect(fn () => app(WarmDesk::class)->settle('broken-too', []))->toThrow(UnableToCompile::class, 'Wave');
        // Nonsense is answered and breaks nothing.
        $line = stream_socket_client("unix://{$socket}");
        fwrite($line, "nonsense\n");
        expect(fgets($line))->toBe("{\"done\":false}\n")->and(app(WarmDesk::class)->settle($state, []))->toBeTrue();
    } finally {
        $p->stop(1, SIGKILL);
        array_map(unlink(...), glob("{$folder}/*") ?: []);
        rmdir($folder);
    }
});

test('a piece that was cut off on the disk is not taken for whole; old ones go', function (): void {
    $pieces = app(PieceStore::class);
    $name = 'test'.bin2hex(random_bytes(9));
    expect($pieces->get($name))->toBeNull();
    $pieces->put($name, $bytes = random_bytes(400));
    expect($pieces->get($name))->toBe($bytes);
    $file = array_values(glob(storage_path("framework/pieces/*/{$name}")) ?: [])[0];
    file_put_contents($file, substr((string) file_get_contents($file), 0, 200));
    expect($pieces->get($name))->toBeNull();
    $pieces->put($name, $bytes);
    expect($pieces->get($name))->toBe($bytes);
    touch($file, time() - 30 * 86_400, time() - 30 * 86_400);
    expect($pieces->sweep(14))->toBeGreaterThanOrEqual(1)->and($pieces->get($name))->toBeNull();
});

test('a manifest is told as what is another since a state, whole where that is not remembered', function (): void {
    $manifests = app(SceneManifests::class);
    $of = static fn (string $state, array $items): array => [
        'state' => $state, 'frames' => 96, 'mood' => 'dusk', 'items' => $items, 'cameras' => [['id' => 'c1', 'name' => 'A']],
    ];
    [$a, $b] = [hash('sha256', 'a'), hash('sha256', 'b')];
    $manifests->keep($a, array_diff_key($of($a, [['id' => 'i1', 'x' => 1], ['id' => 'i2', 'x' => 2]]), ['state' => 0]));
    $now = $of($b, [['id' => 'i1', 'x' => 1], ['id' => 'i2', 'x' => 3]]);
    expect($manifests->since($now, $a))
        ->toBe(['since' => $a, 'state' => $b, 'items' => ['i1', ['id' => 'i2', 'x' => 3]], 'cameras' => ['c1']])
        ->and($manifests->since($now, null))->toBe($now)->and($manifests->since($now, hash('sha256', 'c')))->toBe($now)
        ->and($manifests->since($now, '../../nonsense'))->toBe($now);
});
