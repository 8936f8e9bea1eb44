<?php

declare(strict_types=1);

use App\Models\Arrival;
use App\Models\RenderJob;
use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Symfony\Component\Process\Process;
use Tests\StandIns\ObjectStore;

/** A folder as on a machine of its own: the code, its own storage, and settings. @param  array<string, string>  $settings */
function machine(string $folder, array $settings): void
{
    mkdir($folder, 0o755, true);
    foreach ([
        'app', 'artisan', 'bin', 'bootstrap', 'composer.json', 'composer.packages', 'config', 'core', 'database', 'deploy',
        'package.json', 'package-lock.json', 'resources', 'routes', 'vite.config.ts',
    ] as $name) {
        (new Process(['cp', '-r', base_path($name), "{$folder}/{$name}"]))->mustRun();
    }
    (new Process(['cp', '-rL', base_path('public'), "{$folder}/public"]))->mustRun();
    foreach (['vendor', 'node_modules'] as $name) {
        symlink(base_path($name), "{$folder}/{$name}");
    }
    (new Process(['sh', '-c', "rm -rf {$folder}/bootstrap/cache/* && mkdir -p {$folder}/storage"]))->mustRun();
    file_put_contents(
        "{$folder}/.env",
        implode('', array_map(static fn (string $k, string $v): string => "{$k}={$v}\n", array_keys($settings), $settings)),
    );
}

/** Starts parts there as docs/deployment.md says. @param  list<string>  $parts */
function serving(string $folder, array $parts): Process
{
    $p = new Process(['env', '-i', 'PATH='.getenv('PATH'), 'HOME='.getenv('HOME'), 'bash', 'bin/serve', ...$parts], $folder);
    $p->setTimeout(300)->start();
    $up = static fn (): bool => str_contains($p->getErrorOutput(), 'Running:');
    for ($end = microtime(true) + 90; ! $up() && $p->isRunning() && microtime(true) < $end; usleep(200_000)) {
    }
    expect($p->getErrorOutput())->toContain('Running:');

    return $p;
}

/**
 * What runs beside the machines: a bucket with what the store holds, and Redis.
 *
 * @return array{array<string, string>, Closure} settings, and what ends it
 */
function bucketAndRedis(string $top): array
{
    (new Process(['cp', '-rl', (string) getenv('REEL_STORE'), "{$top}/buckets-reel"]))->mustRun();
    mkdir("{$top}/buckets");
    rename("{$top}/buckets-reel", "{$top}/buckets/".ObjectStore::BUCKET);
    $bucket = new ObjectStore("{$top}/buckets");
    $port = ObjectStore::freePort();
    $redis = new Process(['redis-server', '--port', (string) $port, '--bind', '127.0.0.1', '--save', '', '--dir', $top]);
    $redis->start();
    $settings = $bucket->settings() + [
        'CACHE_STORE' => 'redis', 'SESSION_DRIVER' => 'redis', 'REDIS_CLIENT' => 'predis', 'REDIS_HOST' => '127.0.0.1',
        'REDIS_PORT' => (string) $port,
        'REEL_STORE' => '/nowhere',
    ];

    return [$settings, static function () use ($bucket, $redis): void {
        $bucket->stop();
        $redis->stop(2);
    }];
}

test('two machines, as the deployment page says: sign in on the one, bring a file in, render on the other, download from the first', function (string $kind): void {
    $page = (string) file_get_contents(base_path('docs/deployment.md'));
    expect($page)->toContain('bin/serve --listen=127.0.0.1:8080 web desk voice intake pictures')->toContain('bin/serve render');
    $top = sys_get_temp_dir().'/reel-machines-'.bin2hex(random_bytes(4));
    mkdir($top);
    [$more, $stop] = $kind === 'bucket' ? bucketAndRedis($top) : [[], static fn () => null];
    $env = static fn (string $name): string => (string) getenv($name);
    $port = ObjectStore::freePort();
    $settings = $more + [
        'APP_KEY' => $env('APP_KEY'), 'APP_ENV' => 'production', 'APP_URL' => "http://127.0.0.1:{$port}",
        'REEL_INTERNAL_URL' => "http://127.0.0.1:{$port}", 'REEL_STORE' => $env('REEL_STORE'), 'REEL_DRAW_PICTURES' => '0',
        'DB_CONNECTION' => 'mariadb', 'DB_HOST' => '127.0.0.1', 'DB_PORT' => $env('DB_PORT'), 'DB_DATABASE' => $env('DB_DATABASE'),
        'DB_USERNAME' => $env('DB_USERNAME'), 'DB_PASSWORD' => $env('DB_PASSWORD'),
        'QUEUE_CONNECTION' => 'database', 'SESSION_DRIVER' => 'database', 'CACHE_STORE' => 'database',
    ];
    (new Process(['/usr/bin/supervisorctl', '-c', $env('REEL_RUN').'/supervisord.conf', 'stop', 'reel:*']))->run();
    $running = [];
    try {
        machine("{$top}/first", $settings + ['REEL_HOST' => 'first']);
        machine("{$top}/second", $settings + ['REEL_HOST' => 'second']);
        $running[] = serving("{$top}/first", ["--listen=127.0.0.1:{$port}", 'web', 'desk', 'intake', 'pictures']);
        $running[] = serving("{$top}/second", ['render']);
        $user = $this->person();
        $scene = $this->scene($user);
        $this->edit($scene, [
            ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
            ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'],
            ['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
        ]);
        $jar = new CookieJar;
        $http = new Client(['base_uri' => "http://127.0.0.1:{$port}", 'cookies' => $jar, 'http_errors' => false, 'timeout' => 30]);
        $head = static fn (): array => [
            'Accept' => 'application/json',
            'X-XSRF-TOKEN' => rawurldecode($jar->getCookieByName('XSRF-TOKEN')?->getValue() ?? ''),
        ];
        $http->get('/');
        expect($http->post('/api/sign-in', [
            'headers' => $head(),
            'json' => ['email' => $user->email, 'password' => 'a long enough word'],
        ])->getStatusCode())->toBe(200);
        expect($http->post("/api/productions/{$scene->production_id}/drops", ['headers' => $head(), 'multipart' => [
            ['name' => 'drop', 'contents' => (string) Str::uuid()], ['name' => 'last', 'contents' => '1'],
            ['name' => 'paths[]', 'contents' => 'crate.obj'],
            [
                'name' => 'files[]',
                'contents' => "v 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\nf 1 2 3\nf 1 3 4\nf 1 4 2\nf 2 4 3\n",
                'filename' => 'crate.obj',
            ],
        ]])->getStatusCode())->toBe(201);
        $render = json_decode(
            (string) $http->post("/api/scenes/{$scene->id}/renders", [
                'headers' => $head(),
                'json' => ['from' => 0, 'to' => 12, 'width' => 160, 'height' => 90, 'quality' => 'draft'],
            ])->getBody(),
            true,
        )['render']['id'];
        $status = '';
        for ($end = microtime(true) + 120; microtime(true) < $end && $status !== 'done'; usleep(300_000)) {
            $status = RenderJob::query()->whereKey($render)->value('status');
        }
        expect($status)->toBe('done')->and(DB::table('workers')->where('queues', 'render')->pluck('host')->all())->toBe(['second']);
        $kind === 'bucket' && expect("{$top}/buckets/".ObjectStore::BUCKET."/renders/{$render}/result.mp4")->toBeFile();
        expect(Arrival::query()->where('production_id', $scene->production_id)->value('status'))->toBe('ready');
        $film = $http->get("/api/renders/{$render}/file?download=1");
        expect($film->getStatusCode())->toBe(200)->and(substr((string) $film->getBody(), 4, 4))->toBe('ftyp')
            ->and(strlen((string) $film->getBody()))->toBeGreaterThan(2000);
        // What the outside sees: no demo account, no version of what answers.
        expect($http->post('/api/sign-in', [
            'headers' => $head(),
            'json' => ['email' => 'x@crisp-reel.example', 'password' => 'half-past-the-tide'],
        ])->getStatusCode())->toBe(422)
            ->and($film->getHeaderLine('X-Powered-By'))->toBe('')->and($film->getHeaderLine('Server'))->toBe('nginx')
            ->and($http->get('/_store/blobs/00/x')->getStatusCode())->not->toBe(200);
    } finally {
        foreach ($running as $p) {
            $p->signal(SIGTERM);
        }
        foreach ($running as $p) {
            $p->wait();
        }
        (new Process(['/usr/bin/supervisorctl', '-c', $env('REEL_RUN').'/supervisord.conf', 'start', 'reel:*']))->run();
        $stop();
        // Whoever comes next finds the site as it was: the supervisor has begun its parts before they answer.
        expect($this->answers(self::url('/')))->toBeTrue();
        (new Process(['rm', '-rf', $top]))->run();
    }
})->with(['a folder that both see' => ['folder'], 'a bucket, and Redis' => ['bucket']]);
