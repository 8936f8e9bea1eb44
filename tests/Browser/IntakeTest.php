<?php

declare(strict_types=1);

use App\Models\Arrival;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Tests\Support\Spoiled;
use Symfony\Component\Process\Process;
use Tests\Browser\Pages\WorkspacePage;

/** A folder on the disk with files in it; paths to bytes. @param  array<string, string>  $files */
function onDisk(array $files): string
{
    $folder = sys_get_temp_dir().'/crisp-reel-drop-'.bin2hex(random_bytes(4));
    foreach ($files as $path => $bytes) {
        @mkdir(dirname("{$folder}/{$path}"), 0700, true);
        file_put_contents("{$folder}/{$path}", $bytes);
    }

    return $folder;
}

function gone(string $folder): void
{
    (new Process(['rm', '-rf', $folder]))->run();
}

/** The kit room's arrivals, open. @return array{WorkspacePage, int} the page, the production */
function arrivals(Tests\BrowserCase $test): array
{
    $user = $test->person('Tess Ribeiro');
    $scene = $test->scene($user);
    [$page] = $test->desk($user, $scene);
    $page->click('[data-testid=open-arrivals]');
    $page->see('[data-testid=kit-room]');

    return [$page, $scene->production_id];
}

/** Opens the slip of a file by the name that it came under. */
function slipOf(WorkspacePage $page, int $production, string $path): Arrival
{
    $arrival = $page->until(
        static fn () => Arrival::query()->where('production_id', $production)->where('path', 'like', "%{$path}")
            ->whereIn('status', ['ready', 'known', 'refused'])->first(),
        "the slip of {$path}",
        60.0,
    );
    // The list moves while others arrive: a click that went to where it stood before is made again.
    $page->until(static function () use ($page, $arrival): bool {
        $page->click("[data-testid=arrival-{$arrival->id}]");
        usleep(700_000);

        return $page->count('[data-testid=slip]') === 1 && str_contains($page->text('[data-testid=slip]'), $arrival->path);
    }, 'its slip', 40.0);

    return $arrival;
}

/** Clicks something in a finding once its slip rests. */
function inFinding(WorkspacePage $page, string $code, bool $mended): void
{
    $css = "[data-testid=finding-{$code}][data-mended=".($mended ? 'true' : 'false').'] button';
    $page->until(fn () => $page->enabled($css), 'the slip to rest');
    $page->click($css);
    $page->see("[data-testid=finding-{$code}][data-mended=".($mended ? 'false' : 'true').']', 40.0);
}

test('a folder is dropped: model, pictures and motions find each other, what is not taken is told', function (): void {
    [$page, $production] = arrivals($this);
    $zip = tempnam(sys_get_temp_dir(), 'reel');
    $z = new ZipArchive;
    $z->open($zip, ZipArchive::OVERWRITE);
    $z->addFromString(
        'cast/Dancer.glb',
        Spoiled::moving(Spoiled::good(), ['Walk_01' => ['walk', ['speed' => 1.3]], 'Wave' => ['wave', []]]),
    );
    $z->addFromString('cast/read me.txt', 'hello');
    $z->close();
    $folder = onDisk([
        'Poster/poster.gltf' => Spoiled::thing(0.4, [], null, false, 'textures/side.png'),
        'Poster/textures/side.png' => Spoiled::picture(false), 'Poster/notes.txt' => 'made by hand',
        'Cast.zip' => (string) file_get_contents($zip),
    ]);
    unlink($zip);
    $page->letGo('[data-testid=kit-room]', ["{$folder}/Poster"]);
    slipOf($page, $production, 'poster.gltf');
    expect($page->text('[data-testid=slip]'))->toContain('Poster/poster.gltf')->toContain('Nothing is wrong with it')
        ->and($page->count('[data-testid=finding-pictures]'))->toBe(0);
    expect($page->text('[data-testid=brings]'))->toContain('face shapes');
    $page->press('1 files were not used', 'summary');
    $page->until(fn (): bool => str_contains($page->text('[data-testid=kit-room]'), 'Poster/notes.txt'), 'what was not used');
    // A zip: the person and each of her motions, taken apart.
    $page->letGo('[data-testid=kit-room]', ["{$folder}/Cast.zip"]);
    $dancer = slipOf($page, $production, 'cast/Dancer.glb');
    $page->see('[data-testid=turntable][data-state=shown]', 60.0);
    expect($dancer->kind)->toBe('performer')->and(array_keys($dancer->motions))->toBe(['Walk 01 (Dancer)', 'Wave (Dancer)'])
        ->and($page->text('[data-testid=slip]'))->toContain('Walk 01 (Dancer), Wave (Dancer)');
    gone($folder);
});

test('pictures that come later are linked, and the same file again is known', function (): void {
    [$page, $production] = arrivals($this);
    $folder = onDisk([
        'lonely.gltf' => Spoiled::thing(0.4, [], null, false, 'textures/side.png'),
        'later/textures/side.png' => Spoiled::picture(false),
    ]);
    $page->letGo('[data-testid=kit-room]', ["{$folder}/lonely.gltf"]);
    slipOf($page, $production, 'lonely.gltf');
    expect($page->text('[data-testid=finding-pictures]'))->toContain('side.png');
    $page->letGo('[data-testid=kit-room]', ["{$folder}/later"]);
    $page->until(fn (): bool => $page->count('[data-testid=finding-pictures]') === 0, 'the picture to be linked', 60.0);
    $page->letGo('[data-testid=kit-room]', ["{$folder}/lonely.gltf"]);
    $page->until(fn (): bool => str_contains($page->text('[data-testid=kit-room]'), 'was here already'), 'the same file to be known', 60.0);
    gone($folder);
});

test('each trouble is found, mended by its button and undone by it', function (): void {
    [$page, $production] = arrivals($this);
    $good = Spoiled::good();
    $figure = GltfDraft::open($good);
    foreach ($figure->list('materials') as $i => $m) {
        $figure->amend('materials', $i, ['pbrMetallicRoughness' => ['roughnessFactor' => 0.02], 'extras' => null]);
    }
    $upright = [0.0, 0.0, 0.0, 1.0];
    // File, trouble, whether it is mended by itself.
    $all = [
        'inches.glb' => ['size', true, Spoiled::under($good, 39.3701)],
        'asleep.glb' => ['lying', true, Spoiled::under($good, 1.0, Q4::aroundX(M_PI / 2))],
        'backwards.glb' => ['facing', true, Spoiled::under($good, 1.0, Q4::aroundY(M_PI))],
        'floating.glb' => ['ground', true, Spoiled::under($good, 1.0, $upright, [0.0, 0.4, 0.0])],
        'stride.glb' => ['bind', true, Spoiled::midStride($good)], 'wet.glb' => ['shiny', false, $figure->toGlb()],
        'hat.glb' => ['unbound', false, Spoiled::cluttered($good)],
        'ghost.gltf' => [
            'seeThrough', false,
            Spoiled::thing(0.4, ['alphaMode' => 'BLEND', 'pbrMetallicRoughness' => ['baseColorFactor' => [1, 0.5, 0.2, 0.0]]]),
        ],
        'lashes.gltf' => ['cutOut', false, Spoiled::thing(0.4, [], Spoiled::picture(true))],
        'glove.gltf' => ['faces', false, Spoiled::thing(0.4, [], null, true)],
    ];
    $folder = onDisk(array_map(static fn (array $a): string => $a[2], $all));
    $page->letGo('[data-testid=kit-room]', array_map(static fn (string $f): string => "{$folder}/{$f}", array_keys($all)));
    $page->until(
        static fn (): bool => Arrival::query()->where('production_id', $production)->where('status', 'ready')->count() === count($all),
        'all ten to be read',
        120.0,
    );
    foreach ($all as $file => [$code, $unasked]) {
        $arrival = slipOf($page, $production, $file);
        $page->see("[data-testid=finding-{$code}][data-mended=".($unasked ? 'true' : 'false').']');
        $blob = static fn (): string => (string) $arrival->refresh()->asset?->versions()->orderByDesc('number')->value('blob');
        $first = $blob();
        inFinding($page, $code, $unasked);
        expect($blob())->not->toBe($first, $file);
        inFinding($page, $code, ! $unasked);
        expect($blob())->toBe($first, $file);
    }
    // And all of them in one go.
    $page->click('[data-testid=mend-every]');
    $page->until(fn (): bool => $page->count('[data-testid=mend-every]') === 0, 'all to be mended', 90.0);
    foreach (['wet.glb' => 'shiny', 'ghost.gltf' => 'seeThrough', 'hat.glb' => 'unbound'] as $file => $code) {
        slipOf($page, $production, $file);
        $page->see("[data-testid=finding-{$code}][data-mended=true]");
    }
    gone($folder);
});

test('by hand: the point it is moved by is clicked, it is turned, its height is typed, and all is undone', function (): void {
    [$page, $production] = arrivals($this);
    $folder = onDisk(['crate.gltf' => Spoiled::thing(0.5)]);
    $page->letGo('[data-testid=kit-room]', ["{$folder}/crate.gltf"]);
    $crate = slipOf($page, $production, 'crate.gltf');
    $page->see('[data-testid=turntable][data-state=shown]', 60.0);
    $bounds = static fn (): array => json_decode(
        app(App\Assets\BlobStore::class)->get($crate->refresh()->asset->versions()->orderByDesc('number')->firstOrFail()->digest),
        true,
    )['bounds'];
    $page->click('[data-testid=pivot-centre]');
    $page->until(static fn (): bool => abs($bounds()[0][1] + 0.5) < 1e-3, 'its centre to be its point', 30.0);
    $page->see('[data-testid=pivot-mark]');
    $page->click('[data-testid=pivot-base]');
    $page->until(static fn (): bool => abs($bounds()[0][1]) < 1e-3, 'its base to be its point', 30.0);
    // The row that says so and the picture of it come together.
    $page->see('[data-testid=pivot-base][aria-pressed=true]');
    $page->until(
        fn () => $page->see('[data-testid=turntable][data-state=shown]') && $page->enabled('[data-testid=pivot-point]'),
        'the slip to rest',
    );
    $page->click('[data-testid=pivot-point]');
    $page->see('canvas.cursor-crosshair');
    $page->pressAt('[data-testid=turntable] canvas', 6, -4);
    $page->until(static fn (): bool => is_array($crate->refresh()->choices['pivot']['point'] ?? null), 'a point to be taken', 30.0);
    $point = $crate->choices['pivot']['point'];
    // It lies on the crate, and is where the crate is moved by now.
    expect(max(abs(abs($point[0]) - 0.5), 0.0) < 0.01 || max(abs(abs($point[2]) - 0.5), 0.0) < 0.01 || abs($point[1] - 1.0) < 0.01)
        ->toBeTrue();
    $page->until(static fn (): bool => abs($bounds()[0][1] + $point[1]) < 0.01, 'the crate to hang on that point');
    $page->until(
        fn () => $page->count('[data-testid=manual-pivot] button') === 1 && $page->enabled('[data-testid=manual-pivot] button'),
        'the slip to rest',
    );
    $page->click('[data-testid=manual-pivot] button');
    $page->until(static fn (): bool => abs($bounds()[0][1]) < 1e-3, 'the point to be undone', 30.0);
    $page->fill('input[aria-label="Height in metres"]', '250 cm');
    $page->press('tall');
    $page->until(static fn (): bool => abs($bounds()[1][1] - 2.5) < 1e-3, 'two and a half metres', 30.0);
    $page->click('[data-testid=turn]');
    $page->see('[data-testid=manual-turn]');
    $page->click('[data-testid=manual-grow] button');
    $page->until(static fn (): bool => abs($bounds()[1][1] - 1.0) < 1e-3, 'its own height', 30.0);
    gone($folder);
});

test('motions, sounds and pictures have slips too, and a motion at the wrong rate is mended', function (): void {
    [$page, $production] = arrivals($this);
    $folder = onDisk([
        'hurried.bvh' => Spoiled::recordedWalk(4.0), 'gull.wav' => toneWav(), 'poster.png' => Spoiled::picture(false),
        'broken.glb' => substr(Spoiled::good(), 0, 3000),
    ]);
    $page->letGo(
        '[data-testid=kit-room]',
        array_map(static fn (string $f): string => "{$folder}/{$f}", ['hurried.bvh', 'gull.wav', 'broken.glb']),
    );
    $read = static fn (int $count): bool => Arrival::query()->where('production_id', $production)->whereIn('status', ['ready', 'refused'])
        ->count() === $count;
    $page->until(static fn (): bool => $read(3), 'all three to be read', 90.0);
    $page->letGo('[data-testid=kit-room]', ["{$folder}/poster.png"]);
    $page->until(static fn (): bool => $read(4), 'the picture to be read', 90.0);
    slipOf($page, $production, 'hurried.bvh');
    $page->see('[data-testid=turntable][data-state=shown]', 60.0);
    inFinding($page, 'speed', false);
    inFinding($page, 'speed', true);
    slipOf($page, $production, 'gull.wav');
    expect($page->text('[data-testid=slip]'))->toContain('0.50 s');
    slipOf($page, $production, 'poster.png');
    $page->see('[data-testid=slip] img[alt=Poster]');
    slipOf($page, $production, 'broken.glb');
    expect($page->text('[data-testid=refused]'))->toContain('copy or download it again');
    gone($folder);
});

/** Half a second of a tone, 8 kHz, 8 bits. */
function toneWav(): string
{
    $data = implode('', array_map(static fn (int $k): string => chr(128 + (int) (60 * sin($k / 5))), range(0, 3999)));

    return 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 1, 8000, 8000, 1, 8).'data'.pack('V', strlen($data))
        .$data;
}
