<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Exceptions\UserError;
use App\Intake\DropDesk;
use App\Intake\References;
use App\Isolation\Box;
use App\Isolation\BoxLimits;
use App\Models\Drop;
use App\Models\Scene;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;

const SECRET = 'SENTINEL-7c1f-lantern-under-the-quay';

beforeEach(function (): void {
    $this->secret = sys_get_temp_dir().'/reel-planted-'.bin2hex(random_bytes(4)).'.mtl';
    file_put_contents($this->secret, 'newmtl '.SECRET."\nKd 1 0 0\nERROR ".SECRET."\n".SECRET."\n");
});

afterEach(function (): void {
    @unlink($this->secret);
});

/** @param  array<string, string>  $files  path to bytes */
function dropInto(Tests\TestCase $test, Scene $scene, array $files): Drop
{
    $drop = Drop::query()->create([
        'production_id' => $scene->production_id, 'user_id' => $scene->production->members()->value('user_id'),
        'uuid' => (string) Str::uuid(), 'unused' => [],
    ]);
    foreach ($files as $path => $bytes) {
        $drop->files()->create(['path' => $path, 'blob' => app(BlobStore::class)->put($bytes), 'bytes' => strlen($bytes)]);
    }
    app(DropDesk::class)->receive($drop);

    return $drop->refresh();
}

/** @param  array<string, string>  $entries  @param  array<string, string>  $links  name to where it points */
function zipOf(array $entries, array $links = []): string
{
    $file = (string) tempnam(sys_get_temp_dir(), 'zip');
    $zip = new ZipArchive;
    $zip->open($file, ZipArchive::OVERWRITE);
    foreach ($entries + $links as $name => $bytes) {
        $zip->addFromString($name, $bytes);
    }
    foreach (array_keys($links) as $name) {
        $zip->setExternalAttributesName($name, ZipArchive::OPSYS_UNIX, 0o120777 << 16);
    }
    $zip->close();
    $bytes = (string) file_get_contents($file);
    unlink($file);

    return $bytes;
}

/** Ways to name a file that is not in the drop. @return array<string, string> */
function ways(string $secret): array
{
    $up = str_repeat('../', 12);

    return ['absolute' => $secret, 'upwards' => $up.ltrim($secret, '/'), 'upwards with backslashes' => str_replace('/', '\\', $up.ltrim($secret, '/')), 'scheme' => "file://{$secret}", 'scheme without host' => "file:{$secret}",
        'encoded' => str_replace('/', '%2F', $secret), 'share' => '\\\\127.0.0.1\\c$'.str_replace('/', '\\', $secret), 'web' => 'http://127.0.0.1:9/secret.mtl', 'process' => '/proc/self/environ', 'drive' => 'C:\\Windows\\win.ini'];
}

/** Drops in which somebody asks for a file of the server, by format and way. @return array<string, array<string, string>> */
function probes(string $secret): array
{
    $out = [];
    $faces = "v 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\nusemtl ".SECRET."\nf 1 2 3\nf 1 3 4\nf 1 4 2\nf 2 4 3\n";
    foreach (ways($secret) as $way => $name) {
        $out["obj, {$way}"] = [
            'a.obj' => "mtllib own.mtl\nmtllib {$name}\n{$faces}",
            'own.mtl' => "newmtl plain\nKd 1 1 1\nmap_Kd {$name}\nmap_Bump -bm 1 {$name}\n",
        ];
        $out["dae, {$way}"] = ['a.dae' => '<?xml version="1.0"?><!DOCTYPE COLLADA [<!ENTITY x SYSTEM "'.htmlspecialchars($name).'">]><COLLADA xmlns="http://www.collada.org/2005/11/COLLADASchema" version="1.4.1"><asset><unit meter="1"/></asset><library_images><image id="i"><init_from>'.htmlspecialchars($name).'</init_from></image></library_images><extra>&x;</extra></COLLADA>'];
        $out["x3d, {$way}"] = ['a.x3d' => '<?xml version="1.0"?><!DOCTYPE X3D [<!ENTITY x SYSTEM "'.htmlspecialchars($name).'">]><X3D version="3.3"><Scene><Inline url=\'"'.htmlspecialchars($name).'"\'/><Shape><Appearance><ImageTexture url=\'"'.htmlspecialchars($name).'"\'/></Appearance><Box/></Shape>&x;</Scene></X3D>'];
        $out["ply, {$way}"] = ['a.ply' => "ply\nformat ascii 1.0\ncomment TextureFile {$name}\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n"];
        $out["gltf, {$way}"] = ['a.gltf' => (string) json_encode([
            'asset' => ['version' => '2.0'],
            'buffers' => [['uri' => $name, 'byteLength' => 36]],
            'images' => [['uri' => $name]],
            'bufferViews' => [['buffer' => 0, 'byteLength' => 36]],
            'accessors' => [['bufferView' => 0, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC3']],
            'meshes' => [['primitives' => [['attributes' => ['POSITION' => 0]]]]],
            'nodes' => [['mesh' => 0]],
            'scenes' => [['nodes' => [0]]],
        ])];
        foreach (['wav', 'flac', 'ogg', 'mp3'] as $ending) {
            $out["playlist as {$ending}, {$way}"] = ["a.{$ending}" => "#EXTM3U\n#EXT-X-MEDIA-SEQUENCE:0\n#EXTINF:10.0,\n{$name}\n#EXT-X-ENDLIST\n"];
            $out["concat as {$ending}, {$way}"] = ["a.{$ending}" => "ffconcat version 1.0\nfile {$name}\nduration 5\n"];
        }
        $out["subfile as wav, {$way}"] = ['a.wav' => "subfile,,start,0,end,400,,:{$name}"];
        $out["picture, {$way}"] = ['a.png' => "push graphic-context\nimage over 0,0 0,0 '{$name}'\npop graphic-context\n"];
    }
    $out['a link in a zip'] = ['a.zip' => zipOf(['a/a.obj' => "mtllib own.mtl\n{$faces}"], ['a/own.mtl' => $secret])];
    $out['names that climb in a zip'] = ['a.zip' => zipOf(["../../../../{$secret}" => 'x', 'a.obj' => "mtllib {$secret}\n{$faces}"])];

    return $out;
}

test('no byte of a file of the server comes out, however it is asked for', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $root = Storage::disk('reel')->path('');
    $since = time() - 1;
    $log = storage_path('logs/laravel.log');
    $logged = is_file($log) ? filesize($log) : 0;
    $given = [];
    $leaks = [];
    $count = 0;
    foreach (probes($this->secret) as $name => $files) {
        $drop = dropInto($this, $scene, $files);
        $said = json_encode(
            [$drop->unused, $drop->arrivals()->get(['error', 'slip', 'motions', 'name'])->toArray()],
            JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
        );
        // The marker stands in what was dropped as a material's name too: then it may come back, a line of the file around it not.
        if (
            str_contains((string) $said, 'ERROR '.SECRET) || str_contains((string) $said, 'root:x:0')
                || str_contains((string) $said, 'PATH=/')
        ) {
            $leaks[] = "{$name}: ".mb_substr((string) $said, 0, 300);
        }
        foreach ($files as $bytes) {
            $given[hash('sha256', $bytes)] = true;
        }
        expect($drop->status)->toBe('done');
        $count++;
    }
    foreach (Storage::disk('reel')->allFiles('blobs') as $path) {
        if (filemtime($root.$path) >= $since && ! isset($given[basename($path)])) {
            $bytes = (string) file_get_contents($root.$path);
            if (str_contains($bytes, 'ERROR '.SECRET) || str_contains($bytes, "Kd 1 0 0\nERROR") || str_contains($bytes, 'root:x:0')) {
                $leaks[] = "stored as {$path}";
            }
        }
    }
    $this->actingAs($user);
    $answer = (string) $this->getJson("/api/productions/{$scene->production_id}/arrivals")->getContent();
    expect($leaks)->toBe([])->and($count)->toBeGreaterThan(140)->and($answer)->not->toContain('ERROR '.SECRET)
        ->and(is_file($log) ? (string) file_get_contents($log, false, null, $logged) : '')->not->toContain('ERROR '.SECRET);
});

test('a program in the box sees its folder, the system\'s programs and nothing else', function (): void {
    $run = static fn (string ...$command): string => Box::run(
        array_values($command), ['in.txt' => 'hello'], [], new BoxLimits(5, 8),
    )->output;
    expect($run('cat', 'in.txt'))->toBe('hello')
        ->and($run('cat', $this->secret))->toBe('')->and($run('cat', '/etc/passwd'))->toBe('')
        ->and($run('ls', '/'))->not->toContain('home')->not->toContain('var')
        ->and($run('ls', base_path()))->toBe('')->and($run('env'))->not->toContain('APP_KEY')->not->toContain('DB_PASSWORD')
        ->and($run('id', '-u'))->toBe("65534\n")->and($run('ls', '/sys/class/net'))->toBe('');
    // No way out: not even to this machine's own loopback.
    expect($run(
        'bash',
        '-c',
        'exec 3<>/dev/tcp/127.0.0.1/'.(config('database.connections.mariadb.port') ?: 3306).' && echo open',
    ))->not->toContain('open');
});

test('the box holds what it is given to its time, processor and memory', function (array $command, BoxLimits $limits): void {
    $since = microtime(true);
    $result = Box::run($command, [], ['out'], $limits);
    expect($result->code)->not->toBe(0)->and(microtime(true) - $since)->toBeLessThan(8.0)->and(strlen($result->files['out'] ?? ''))
        ->toBeLessThanOrEqual(1 << 20);
})->with([
    'time' => [['sleep', '60'], new BoxLimits(60, 1)], 'processor' => [['bash', '-c', 'while :; do :; done'], new BoxLimits(1, 6)],
    'memory' => [['bash', '-c', 'x=$(head -c 300000000 /dev/zero | tr "\0" x)'], new BoxLimits(5, 6, 100 << 20)],
]);

test('a file that a program writes beyond its limit is cut off', function (): void {
    $result = Box::run(['bash', '-c', 'head -c 50000000 /dev/zero > out'], [], ['out'], new BoxLimits(5, 6, 1 << 30, 1 << 20));
    expect($result->code)->not->toBe(0)->and(strlen($result->files['out'] ?? ''))->toBeLessThanOrEqual(1 << 20);
});

test('a link that a program leaves behind is not followed', function (): void {
    expect(Box::run(['ln', '-s', $this->secret, 'out'], [], ['out'])->files)->toBe([]);
});

test('without a box nothing is read: converters are off, and it is said', function (): void {
    config(['reel.box' => false]);
    $user = $this->person();
    $scene = $this->scene($user);
    $slips = dropInto($this, $scene, ['a.obj' => "v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", 'b.wav' => 'RIFF'])->arrivals;
    expect($slips->pluck('status')->unique()->all())->toBe(['refused'])->and($slips[0]->error['message'])
        ->toContain('not read on this installation');
    $this->actingAs($user)->getJson('/api/health')->assertOk()->assertJsonPath('box', false);
    expect(fn () => Box::run(['true'], []))->toThrow(UserError::class);
    config(['reel.box' => true]);
    Box::forget();
    $this->getJson('/api/health')->assertJsonPath('box', true);
});

test('names of other files are made plain', function (string $given, string $plain): void {
    expect(References::name($given))->toBe($plain);
})->with([
    ['wood.png', 'wood.png'], ['maps/wood.png', 'maps/wood.png'], ['/etc/passwd', 'etc/passwd'], ['../../etc/passwd', 'etc/passwd'],
    ['..\\..\\etc\\passwd', 'etc/passwd'], ['C:\\maps\\wood.png', 'maps/wood.png'],
    ['file:///etc/passwd', 'etc/passwd'], ['file:/etc/passwd', 'etc/passwd'], ['file://host/etc/passwd', 'etc/passwd'],
    ['http://a.example/x.png', 'x.png'], ['\\\\host\\share\\x.png', 'share/x.png'],
    ['%2Fetc%2Fpasswd', 'etc/passwd'], ['concat:/etc/passwd|/etc/hosts', 'etc/passwd_/etc/hosts'], ['a/./b/../c.png', 'a/c.png'],
]);

test('materials and pictures in the drop are still found after that', function (): void {
    $scene = $this->scene($this->person());
    $slip = dropInto($this, $scene, [
        'model/a.obj' => "mtllib mats\\own.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\nvt 0 0\nvt 1 0\nvt 0 1\nusemtl red\nf 1/1 2/2 3/3\nf 1/1 3/2 4/3\nf 1/1 4/2 2/3\nf 2/1 4/2 3/3\n",
        'model/mats/own.mtl' => "newmtl red\nKd 0.9 0.1 0.1\nmap_Kd C:\\somewhere\\else\\wood.png\n",
        'model/maps/wood.png' => CrispReel\Core\Tests\Support\Spoiled::picture(false),
    ])->arrivals()->firstOrFail();
    expect($slip->status)->toBe('ready')->and($slip->slip['missing'] ?? null)->toBe([]);
});
