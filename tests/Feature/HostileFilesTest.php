<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Intake\DropDesk;
use App\Models\Arrival;
use App\Models\Drop;
use CrispReel\Core\Format\Gltf\GlbContainer;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Tests\Support\Spoiled;
use Illuminate\Support\Str;

/** Small good files of several kinds, to be spoiled. @return array<string, string> ending to bytes */
function seeds(): array
{
    $glb = GltfDraft::open(Spoiled::thing(0.4, ['alphaMode' => 'BLEND'], Spoiled::picture(true)))->toGlb();
    $wave = str_repeat(pack('v', 1200).pack('v', 64336), 400);
    $zip = tempnam(sys_get_temp_dir(), 'zip');
    $z = new ZipArchive;
    $z->open($zip, ZipArchive::OVERWRITE);
    $z->addFromString('../../out/of/here.gltf', Spoiled::thing(0.4));
    $z->addFromString('a/side.png', Spoiled::picture(false));
    $z->close();
    $packed = (string) file_get_contents($zip);
    unlink($zip);

    return [
        'glb' => $glb, 'gltf' => Spoiled::thing(0.4, [], Spoiled::picture(true)), 'png' => Spoiled::picture(true), 'zip' => $packed,
        'wav' => 'RIFF'.pack('V', 36 + strlen($wave)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 16000, 32000, 2, 16).'data'
            .pack('V', strlen($wave)).$wave,
        'bvh' => "HIERARCHY\nROOT hips\n{\n OFFSET 0 90 0\n CHANNELS 6 Xposition Yposition Zposition Zrotation Xrotation Yrotation\n JOINT spine\n {\n  OFFSET 0 10 0\n  CHANNELS 3 Zrotation Xrotation Yrotation\n  End Site\n  {\n   OFFSET 0 10 0\n  }\n }\n}\nMOTION\nFrames: 3\nFrame Time: 0.0333\n0 90 0 0 0 0 1 2 3\n0 90 1 0 0 0 1 2 3\n0 90 2 0 0 0 1 2 3\n",
        'obj' => "o box\nv 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\nf 1 2 3\nf 1 3 4\nf 1 4 2\nf 2 4 3\n",
        'ply' => "ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\n1 0 0\n0 1 0\n3 0 1 2\n",
    ];
}

/** One file spoiled in one of eight ways, by a seed. */
function hostile(string $ending, string $bytes, int $seed): string
{
    mt_srand($seed);
    $n = strlen($bytes);
    $at = static fn (): int => mt_rand(0, max(0, $n - 1));
    switch ($seed % 8) {
        case 0: // flipped bits
            for ($i = 0; $i < 12; $i++) {
                $bytes[$at()] = chr(mt_rand(0, 255));
            }

            return $bytes;
        case 1: // cut off
            return substr($bytes, 0, $at());
        case 2: // a part doubled
            return substr($bytes, 0, $p = $at()).substr($bytes, intdiv($p, 2));
        case 3: // lengths that claim more than there is
            return (string) preg_replace_callback(
                '/"(count|byteLength|byteOffset|bufferView)":(\d+)/',
                static fn (array $m): string => "\"{$m[1]}\":".[10737418240, 4294967295, -1, 999999999][mt_rand(0, 3)],
                $ending === 'glb' ? json_encode(GlbContainer::unpack($bytes)[0]) ?: $bytes : $bytes,
                1,
            );
        case 4: // a tree that is its own ancestor
            return (string) preg_replace(
                '/"nodes":\[\{"name":"thing"/',
                '"nodes":[{"children":[1],"name":"a"},{"children":[0],"name":"thing"',
                $ending === 'glb' ? json_encode(GlbContainer::unpack($bytes)[0]) ?: $bytes : $bytes,
            );
        case 5: // numbers that are none
            return (string) preg_replace_callback(
                '/-?\d+\.?\d*/',
                static fn (array $m): string => mt_rand(0, 9) === 0
                    ? ['1e999', 'NaN', '-1e308', '0', '99999999999999999999'][mt_rand(0, 4)]
                    : $m[0],
                $bytes,
            );
        case 6: // noise with the right beginning
            return substr($bytes, 0, 12).random_bytes(2000);
        default: // deep nesting
            return $ending === 'gltf' ? str_repeat('[', 50000) : $bytes.str_repeat("\0", 5000).$bytes;
    }
}

test('two hundred hostile files: nothing crashes, nothing hangs, nothing lies where it should not', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $blobs = app(BlobStore::class);
    $desk = app(DropDesk::class);
    $temp = static fn (): array => array_filter(
        (array) glob(sys_get_temp_dir().'/reel*'),
        static fn ($p): bool => is_string($p) && (is_file($p) || str_contains($p, '/reel-')),
    );
    $before = $temp();
    $top = glob(storage_path('*')) ?: [];
    $count = 0;
    $slowest = 0.0;
    foreach (seeds() as $ending => $good) {
        for ($k = 0; $k < 26; $k++) {
            $bytes = hostile($ending, $good, 1000 * crc32($ending) % 7919 + $k);
            $drop = Drop::query()->create([
                'production_id' => $scene->production_id, 'user_id' => $user->id, 'uuid' => (string) Str::uuid(), 'unused' => [],
            ]);
            $drop->files()->create(['path' => "hostile{$k}.{$ending}", 'blob' => $blobs->put($bytes), 'bytes' => strlen($bytes)]);
            $since = microtime(true);
            $desk->receive($drop);
            $slowest = max($slowest, microtime(true) - $since);
            $drop->refresh();
            expect($drop->status)->toBe('done');
            foreach ($drop->arrivals as $a) {
                expect(in_array($a->status, ['ready', 'known', 'refused'], true))->toBeTrue();
                if ($a->status === 'refused') {
                    expect(strlen($a->error['message'] ?? ''))->toBeGreaterThan(8)->and(strlen($a->error['remedy'] ?? ''))
                        ->toBeGreaterThan(8)->and($a->error['message'])->not->toContain(sys_get_temp_dir());
                }
            }
            $count++;
        }
    }
    expect($count)->toBeGreaterThanOrEqual(200)->and($slowest)->toBeLessThan(60.0)->and($temp())->toEqual($before)
        ->and(glob(storage_path('*')) ?: [])->toBe($top);
    expect(file_exists(base_path('../out')))->toBeFalse()
        ->and(Arrival::query()->where('production_id', $scene->production_id)->where('status', 'refused')->count())->toBeGreaterThan(40);
});
