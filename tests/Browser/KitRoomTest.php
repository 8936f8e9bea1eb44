<?php

declare(strict_types=1);

use App\Assets\AssetIntake;
use App\Assets\BlobStore;
use App\Assets\PictureMaker;
use App\Models\Arrival;
use App\Models\Asset;
use App\Models\AssetVersion;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;

/** Files as a hand lets them go over the page: path to bytes. @param  array<string, string>  $files */
function letGo(object $driver, string $css, array $files): void
{
    $driver->executeScript(<<<'JS'
        const [css, files] = arguments;
        const data = new DataTransfer();
        for (const [name, base64] of Object.entries(files)) {
            const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
            data.items.add(new File([bytes], name));
        }
        const at = document.querySelector(css);
        for (const kind of ['dragover', 'drop']) at.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }));
        JS, [$css, array_map(base64_encode(...), $files)]);
}

test('a careless file is dropped, mended, undone, looked at and put into the scene', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=open-kit]');
    letGo($driver, '[data-testid=tray] > div', ['Old_Sailor_01.glb' => Spoiled::under(Spoiled::cluttered(Spoiled::good()), 100.0)]);
    $page->see('[data-testid=slip]', 80.0);
    $page->see('[data-testid=finding-size][data-mended=true]');
    $page->see('[data-testid=finding-unbound][data-mended=false]');
    expect($page->text('[data-testid=slip] h2'))->toBe('Old Sailor 01')->and($page->text('[data-testid=parts]'))
        ->toContain('14 objects in the file: 11 made, 3 skipped');
    $page->see('[data-testid=turntable][data-state=shown]', 80.0);
    $page->click('[data-testid=mend-all]');
    $page->see('[data-testid=finding-unbound][data-mended=true]');
    $page->until(fn () => $page->enabled('[data-testid=finding-colliders][data-mended=true] button'), 'the slip to rest');
    $page->click('[data-testid=finding-colliders] button');
    $page->see('[data-testid=finding-colliders][data-mended=false]');
    $page->press('before and after');
    $page->until(fn () => $page->count('[data-testid=before-after] img') === 2, 'pictures of before and after', 80.0);
    $page->editing(fn () => $page->click('[data-testid=take]'));
    expect($scene->items()->count())->toBe(1)->and($scene->items()->firstOrFail()->y)->toEqualWithDelta(0.0, 0.001)
        ->and(Arrival::query()->where('production_id', $scene->production_id)->firstOrFail()->seen_at)->not->toBeNull();
    $page->see('[data-testid^=lane-Old]');
});

test('a person without a skeleton is fitted by dragging markers on its picture, and walks', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    [$page, $driver] = $this->desk($user, $scene);
    $page->click('[data-testid=open-arrivals]');
    letGo($driver, '[data-testid=kit-room]', ['Statue.glb' => Spoiled::naked(Spoiled::good())]);
    $page->see('[data-testid=finding-skeleton][data-mended=false]', 120.0);
    $page->click('[data-testid=finding-skeleton] button');
    $page->see('[data-testid=markers][data-state=shown]', 60.0);
    $x = static fn (): int => $page->on(
        '[data-testid=marker-kneeR]',
        static fn (Facebook\WebDriver\Remote\RemoteWebElement $e): int => $e->getLocation()->getX(),
    );
    $twin = $x();
    $page->on(
        '[data-testid=marker-kneeL]',
        static fn (Facebook\WebDriver\Remote\RemoteWebElement $e) => $driver->action()->clickAndHold($e)->moveByOffset(8, -6)->release()
            ->perform(),
    );
    $page->until(static fn (): bool => $x() < $twin - 4, 'the other side to go along');
    $page->click('[data-testid=fit]');
    $page->see('[data-testid=finding-skeleton][data-mended=true]', 120.0);
    $page->see('[data-testid=turntable][data-state=shown]', 60.0);
    $arrival = Arrival::query()->where('production_id', $scene->production_id)->firstOrFail();
    // Which joint plays what: the head is taken away and given back.
    $page->press('Which joint plays what…');
    $choose = static fn (string $joint) => $page->give('[data-testid=role-head]', $joint);
    $page->see('[data-testid=roles]');
    $choose('');
    $page->until(
        fn () => str_contains($page->text('[data-testid=roles]'), 'head') && $page->value('[data-testid=role-head]') === ''
            && $page->enabled('[data-testid=role-neck]'),
        'the head without a joint',
    );
    $choose('head');
    $page->until(fn () => str_contains($page->text('[data-testid=roles]'), 'chosen'), 'the head chosen by hand');
    expect($arrival->kind)->toBe('performer')->and($arrival->choices['skeleton']['markers']['kneeL'])->toHaveCount(2)
        ->and($arrival->choices['skeleton']['markers']['neck'])->toHaveCount(3);
});

test('a model and its picture are dropped together; a broken file says what to do', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    [$page, $driver] = $this->desk($user, $scene);
    $page->click('[data-testid=open-arrivals]');
    letGo($driver, '[data-testid=kit-room]', [
        'crate.gltf' => Spoiled::thing(0.4, [], null, false, 'side.png'), 'side.png' => Spoiled::picture(false),
        'torn.glb' => substr(Spoiled::good(), 0, 3000),
    ]);
    $page->until(
        fn () => Arrival::query()->where('production_id', $scene->production_id)->whereIn('status', ['ready', 'refused'])->count() === 2,
        'both files read',
        80.0,
    );
    $torn = Arrival::query()->where('production_id', $scene->production_id)->where('status', 'refused')->firstOrFail();
    $crate = Arrival::query()->where('production_id', $scene->production_id)->where('status', 'ready')->firstOrFail();
    $page->click("[data-testid=arrival-{$torn->id}]");
    expect($page->text('[data-testid=refused]'))->toContain('copy or download it again');
    $page->click("[data-testid=arrival-{$crate->id}]");
    $page->see('[data-testid=turntable][data-state=shown]', 80.0);
    expect($page->text('[data-testid=slip]'))->toContain('Nothing is wrong with it');
});

test('a motion is found by a feeling, seen moving while the pointer rests on it, and a figure is made by sliders', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    [$page, $driver] = $this->desk($user, $scene);
    $page->click('[data-testid=open-kit]');
    $page->see('[data-testid=asset-oda-ferrant]');
    $page->give('[data-testid=kit-style]', 'pictures');
    $page->until(fn () => $page->text('[data-testid=kit-total]') === '0 found', 'nothing with pictures in the house kit');
    $page->give('[data-testid=kit-style]', '');
    $page->press('Motions');
    $page->fill('input[aria-label="Search the kit room"]', 'unhappy');
    $page->until(
        fn () => $page->count('[data-testid=asset-cry]') === 1 && $page->count('[data-testid=asset-laugh]') === 0,
        'sad motions only',
    );
    $page->hover('[data-testid=kit-shelf] [data-testid=asset-cry]');
    $page->see('[data-testid=hover-preview] [data-testid=turntable][data-state=shown]', 80.0);
    $page->click('[data-testid=kit-shelf] [data-testid=asset-cry]');
    $page->see('[data-testid=kit-details] [data-testid=turntable][data-state=shown]', 80.0);
    expect($page->text('[data-testid=kit-details]'))->toContain('6.00 s, 144 frames at 24');
    $page->press('New figure');
    $page->see('[data-testid=figure-room] [data-testid=turntable][data-state=shown]', 80.0);
    $page->fill('[data-testid=figure-room] input[aria-label=Name]', 'Wren Halloway');
    $page->click('[data-testid=figure-keep]');
    $page->until(
        fn () => Asset::query()->where('production_id', $scene->production_id)->where('name', 'Wren Halloway')->exists(),
        'the figure on the shelf',
    );
    $page->press('Credits');
    $page->see('[data-testid=credits]');
});

test('a story is written, its parts are found, and what is missing is put in and told', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    [$page] = $this->desk($user, $scene);
    $page->click('[data-testid=open-kit]');
    $page->press('Parts list');
    $page->fill('textarea[aria-label=Story]', 'Oda waits on the bench with a unicorn. Bram rings the bell.');
    $page->editing(fn () => $page->click('[data-testid=find-parts]'));
    $page->until(fn () => str_contains($page->text('[data-testid=parts-count]'), '0 in the scene'), 'the parts');
    expect($page->text('[data-testid=line-0] [data-testid=missing]'))->toContain('unicorn')->and($page->text('[data-testid=line-1]'))
        ->toContain('Bram Tiel')->toContain('Ring a bell')->toContain('Bell, one stroke');
    $page->editing(fn () => $page->click('[aria-label="Put Bench into the scene"]'));
    $page->until(fn () => str_contains($page->text('[data-testid=parts-count]'), '1 in the scene'), 'the bench in the scene');
    expect($scene->items()->pluck('name')->all())->toBe(['Bench'])->and($scene->refresh()->story)->toContain('unicorn');
    // He who rings is put in and given the ringing.
    $page->editing(fn () => $page->click('[aria-label="Put Bram Tiel into the scene"]'));
    $page->editing(fn () => $page->click('[aria-label="Give Ring a bell to Bram"]'));
    expect($scene->beats()->count())->toBe(1);
    // A motion of the list is shown on its shelf, and given again from there.
    $ring = Asset::query()->where('slug', 'ring-bell')->value('id');
    $page->click("[data-testid=part-{$ring}] button");
    $page->see('[data-testid=kit-details] [data-testid=turntable][data-state=shown]', 80.0);
    expect($page->text('[data-testid=kit-details]'))->toContain('Ring a bell');
    $page->editing(fn () => $page->press('Give it to Bram'));
    expect($scene->beats()->count())->toBe(2)->and($page->count('[data-testid=kit-room]'))->toBe(0);
});

test('a sound is found by another word, heard by a click, and gone to at a place; so is one that was brought in', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    [$page, $driver] = $this->desk($user, $scene);
    $page->click('[data-testid=open-kit]');
    $page->press('Sounds');
    $page->fill('input[aria-label="Search the kit room"]', 'seagull');
    $page->until(fn () => $page->text('[data-testid=kit-total]') === '1 found', 'the gulls alone');
    $page->click('[data-testid=kit-shelf] [data-testid=asset-sound-gulls]');
    $page->until(fn () => str_ends_with($page->text('[data-testid=heard]'), 'of 6.0 s'), 'its length');
    $page->see('[data-testid=sound-player][data-playing=true]');
    $at = fn (): float => (float) $driver->executeScript('return document.querySelector("[data-testid=sound-player] audio").currentTime');
    $before = $at();
    $page->until(fn () => $at() > $before + 0.2, 'it to go on');
    $page->click('[data-testid=hear]');
    $page->see('[data-testid=sound-player][data-playing=false]');
    // Two thirds along its picture.
    $width = $page->on(
        '[aria-label="Go to a place in Gulls"]',
        static fn (Facebook\WebDriver\Remote\RemoteWebElement $e): int => $e->getSize()->getWidth(),
    );
    $page->pressAt('[aria-label="Go to a place in Gulls"]', (int) round($width * 0.9 / 6), 0);
    $page->until(fn () => abs($at() - 4.0) < 0.1, 'the place');
    // One from outside.
    letGo($driver, '[data-testid=kit-room]', ['harbour_bell.wav' => CrispReel\Core\Kit\Sounds\Things::bell()->toWav()]);
    $page->click('[data-testid=slip] [data-testid=hear]');
    $page->until(fn () => str_ends_with($page->text('[data-testid=heard]'), 'of 4.2 s') && $at() > 0.1, 'the bell to be heard');
    expect(Arrival::query()->where('production_id', $scene->production_id)->firstOrFail()->kind)->toBe('sound');
});

test('what is one\'s own is kept in order: name, folder, colour, another in its place, an earlier version, put away, credits', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    $intake = app(AssetIntake::class);
    $stool = $intake->model($scene->production, FakeAssets::glb('stool'), 'Net stool', 'prop')->asset_id;
    $intake->model($scene->production, FakeAssets::glb('key'), 'Better stool', 'prop');
    $this->edit($scene, [['do' => 'item.add', 'asset' => $stool, 'near' => [0, 0], 'name' => 'Seat']]);
    [$page, $driver] = $this->desk($user, $scene);
    $asset = static fn (): Asset => Asset::query()->findOrFail($stool);
    $choose = static fn (string $css, string $value) => $page->give($css, $value);
    $page->press('Cast');
    $page->click('[data-testid=open-kit]');
    $page->fill('input[aria-label="Search the kit room"]', 'stool');
    $page->click('[data-testid=kit-shelf] [data-testid=asset-net-stool]');
    $page->see('[data-testid=kit-details] [data-testid=turntable][data-state=shown]', 80.0);
    $page->set('Name', 'Milking stool');
    $page->until(static fn (): bool => $asset()->name === 'Milking stool', 'the new name');
    $page->click('[data-testid=kit-details] button[aria-label="Colour 3"]');
    $page->until(static fn (): bool => $asset()->colour === 2, 'the colour');
    $driver->executeScript(
        'const f = [...document.querySelectorAll("[data-testid=kit-details] label")].find((l) => l.textContent.includes("Folder")).querySelector("input"); f.value = "Furniture"; f.dispatchEvent(new Event("change", {bubbles: true}))'
    );
    $page->until(static fn (): bool => $asset()->folder === 'Furniture', 'the folder');
    $page->until(
        fn () => $driver->executeScript(
            'return [...document.querySelectorAll("[data-testid=kit-room] option")].some((o) => o.value === "Furniture")'
        ),
        'the folder among the filters',
    );
    // Another in its place, and back.
    $blob = static fn (): string => $asset()->versions()->orderByDesc('number')->firstOrFail()->blob;
    $first = $blob();
    $other = Asset::query()->where('name', 'Better stool')->orderByDesc('id')->value('id');
    // The list may be drawn anew once more, after the folder.
    $page->until(static function () use ($page, $choose, $other): bool {
        $choose('[data-testid=replace-by]', (string) $other);

        return $page->value('[data-testid=replace-by]') === (string) $other;
    }, 'the other to be chosen');
    $page->press('Replace');
    $page->until(static fn (): bool => $blob() !== $first, 'the other in its place');
    $choose('select[aria-label="Earlier version"]', '1');
    $page->until(static fn (): bool => $blob() === $first && $asset()->versions()->count() === 3, 'the earlier version');
    $page->press('Put away');
    $page->until(static fn (): bool => $asset()->archived_at !== null, 'it to be put away');
    $page->press('Bring back');
    $page->until(static fn (): bool => $asset()->archived_at === null, 'it to be back');
    $page->press('Credits');
    $page->until(fn () => str_contains($page->text('[data-testid=credits]'), 'Milking stool'), 'the credits');
    // In the scene it stays at a version when it is told to.
    $driver->executeScript(
        '[...document.querySelectorAll("[data-testid=kit-room] button")].find((b) => b.textContent.startsWith("Back to")).click()'
    );
    $page->pressAt('[data-testid="plan-item-Seat"]', 0, 0);
    $page->editing(fn () => $choose('[data-testid=pin]', '2'));
    expect($scene->items()->firstOrFail()->pinned_version_id)->toBe($asset()->versions()->where('number', 2)->value('id'));
});

test('pictures of the shelf are drawn by themselves, fill their tiles, and what cannot be drawn costs the others none', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    $intake = app(AssetIntake::class);
    $sway = "HIERARCHY\nROOT trunk\n{\nOFFSET 0 0 0\nCHANNELS 3 Zrotation Xrotation Yrotation\nJOINT bough\n{\nOFFSET 0 50 0\nCHANNELS 3 Zrotation Xrotation Yrotation\nEnd Site\n{\nOFFSET 0 50 0\n}\n}\n}\nMOTION\nFrames: 2\nFrame Time: 0.04\n0 0 0 0 0 0\n10 0 0 5 0 0\n";
    $versions = [
        $intake->model($scene->production, FakeAssets::glb('stool'), 'Box stool', 'prop'),
        $intake->model($scene->production, $sway, 'Sway of a tree'),
        Asset::query()->where('slug', 'bell')->whereNull('production_id')->firstOrFail()->versions()->firstOrFail(),
        Asset::query()->where('slug', 'far-shore')->firstOrFail()->versions()->firstOrFail(),
    ];
    app(PictureMaker::class)->of((new Illuminate\Database\Eloquent\Collection($versions))->load('asset'));
    [$stool, $sway, $bell, $shore] = array_map(static fn (AssetVersion $v): string => (string) $v->refresh()->picture, $versions);
    expect($sway)->toBe('')->and(count(array_unique([$stool, $bell, $shore])))->toBe(3);
    foreach ([$stool, $bell] as $hash) {
        $picture = imagecreatefromstring(app(BlobStore::class)->get($hash));
        expect(imagesx($picture))->toBe(320)->and(imagesy($picture))->toBe(240);
        // The thing reaches most of the way up and is not cut above: rows that differ from the studio at their ends.
        $odd = static function (int $x, int $y) use ($picture): bool {
            [$a, $b] = [imagecolorat($picture, $x, $y), imagecolorat($picture, $x < 160 ? 2 : 317, $y)];

            return abs(($a >> 16 & 255) - ($b >> 16 & 255)) + abs(($a >> 8 & 255) - ($b >> 8 & 255)) + abs(($a & 255) - ($b & 255)) > 40;
        };
        $rows = array_values(array_filter(
            range(0, 239),
            static fn (int $y): bool => count(array_filter(range(40, 280, 2), static fn (int $x): bool => $odd($x, $y))) > 0,
        ));
        expect(max($rows) - min($rows))->toBeGreaterThan(120)->and(min($rows))->toBeGreaterThan(4);
    }
});
