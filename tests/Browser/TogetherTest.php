<?php

declare(strict_types=1);

use App\Models\Item;
use App\Models\Member;
use App\Models\RenderJob;
use App\Models\User;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Symfony\Component\Process\Process;
use Tests\Browser\Pages\WorkspacePage;

/** Asks the supervisor of this run's parts. */
function parts(string ...$command): string
{
    $p = new Process(['/usr/bin/supervisorctl', '-c', getenv('REEL_RUN').'/supervisord.conf', ...$command]);
    $p->run();

    return $p->getOutput();
}

/** One in a scene with somebody in it. */
function peopled(Tests\TestCase $test, User $owner): App\Models\Scene
{
    $scene = $test->scene($owner);
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [2, 0, 0]],
    ]);

    return $scene->refresh();
}

/** A scene with two in it, opened by its owner. @return array{App\Models\Scene, WorkspacePage, RemoteWebDriver} */
function atTheDesk(Tests\BrowserCase $test): array
{
    $owner = $test->person();
    $scene = peopled($test, $owner);
    [$page, $driver] = $test->desk($owner, $scene);
    $page->see('[data-testid=workspace]', 60.0);

    return [$scene, $page, $driver];
}

test('two people: one is asked in by a link, both see each other and each other\'s edits, a conflict is told to the second, and who is taken out is out', function (): void {
    $owner = $this->person('Ilse Brandt');
    $scene = peopled($this, $owner);
    $guest = $this->person('Noor Anders');
    [$a, $one] = $this->desk($owner, $scene);
    $a->see('[data-testid=workspace]');
    // Asked in by the owner, on another page of theirs.
    $one->get(self::url('/'));
    $a->click('[data-testid=people]');
    $a->see('[data-testid=member]');
    $a->fill('#invite-email', $guest->email);
    $a->press('Ask');
    $link = (string) $a->on('#invitation-link', static fn ($e) => $e->getAttribute('value'));
    $two = $this->open('/');
    $this->signIn($two, $guest->email, 'a long enough word', parse_url($link, PHP_URL_PATH));
    $b = $this->workspace($two);
    $b->press('Join');
    $b->see('[data-testid=workspace]', 60.0);
    expect(Member::query()->where('production_id', $scene->production_id)->where('user_id', $guest->id)->value('role'))->toBe('editor');
    $one->get(self::url("/scenes/{$scene->id}"));
    $a->see('[data-testid=workspace]', 60.0);
    // Each sees the other, and an edit of the other within two seconds of the answer.
    $a->until(fn (): bool => str_contains($a->text('header'), 'with Noor Anders'), 'the guest to be seen');
    $b->until(fn (): bool => str_contains($b->text('header'), 'with Ilse Brandt'), 'the owner to be seen');
    $revision = static fn ($page): int => (int) $page->on('[data-testid=workspace]', static fn ($e) => $e->getAttribute('data-revision'));
    $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'x' => 1.25]], $owner);
    $now = (int) $scene->refresh()->revision;
    foreach ([$a, $b] as $page) {
        $page->until(static fn (): bool => $revision($page) === $now, 'the other\'s edit', 6.0);
    }
    // Both change the same person at once: the second is told what the first did, and keeps the page.
    $oda = (int) Item::query()->where('scene_id', $scene->id)->where('name', 'Oda')->value('id');
    $answers = [];
    foreach ([[$one, 33], [$two, 66]] as [$driver, $heading]) {
        $answers[] = $driver->executeAsyncScript(<<<'JS'
            const [scene, item, base, headingDeg, done] = arguments;
            const token = decodeURIComponent(/XSRF-TOKEN=([^;]+)/.exec(document.cookie)[1]);
            fetch(`/api/scenes/${scene}/edits`, { method: 'POST', headers: { Accept: 'application/json', 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token }, body: JSON.stringify({ base, commands: [{ do: 'item.place', item, headingDeg }] }) })
                .then(async (r) => done([r.status, (await r.json()).message ?? '']));
            JS, [$scene->id, $oda, $now, $heading]);
    }
    expect($answers[0][0])->toBe(200)->and($answers[1][0])->toBe(409)->and($answers[1][1])->toContain('Turn Oda');
    // Taken out: at the next look of the page.
    Member::query()->where('production_id', $scene->production_id)->where('user_id', $guest->id)->delete();
    $b->until(fn (): bool => str_contains($b->text('body'), 'This scene is not here'), 'to be out', 10.0);
});

test('a conflict shows both: theirs on the page, mine in words, and mine is made again by a click', function (): void {
    [$scene, $page, $driver] = atTheDesk($this);
    $page->press('Block');
    $page->click('[data-testid=lane-Oda]');
    // The page does not hear of the other's edit before it sends its own.
    $driver->executeScript(
        'const real = window.fetch; window.held = true; window.fetch = async (...a) => { while (window.held && String(a[0]).includes("/changes")) await new Promise((d) => setTimeout(d, 50)); return real(...a); };'
    );
    usleep(300_000);
    $other = $this->person('Noor Anders');
    $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'x' => 4.0]], $other);
    $driver->executeScript(<<<'JS'
        const f = document.querySelector('input[aria-label="Place x (m)"]'); f.focus(); f.value = '-3'; f.dispatchEvent(new Event('input', { bubbles: true })); f.blur();
        setTimeout(() => (window.held = false), 1500);
        JS);
    $page->see('[data-testid=again]', 15.0);
    expect($page->text('[data-testid=notice]'))->toContain('Move Oda')->toContain('yours was: move Oda');
    $oda = Item::query()->where('scene_id', $scene->id)->where('name', 'Oda')->firstOrFail();
    expect((float) $driver->executeScript('return document.querySelector(`input[aria-label="Place x (m)"]`).value'))->toBe(4.0)
        ->and($oda->x)->toBe(4.0);
    $page->click('[data-testid=again]');
    $page->until(static fn (): bool => $oda->refresh()->x === -3.0, 'mine to be made again', 10.0);
});

test('x is typed and Tab, then z within half a second: both stay, whatever order the answers come in', function (): void {
    [$scene, $page, $driver] = atTheDesk($this);
    $page->press('Block');
    // Answers come late, each by its own chance.
    $driver->executeScript(<<<'JS'
        const real = window.fetch;
        let n = 7;
        window.fetch = async (...a) => { const r = await real(...a); n = (n * 16807) % 2147483647; if (String(a[0]).includes('/edits')) await new Promise((d) => setTimeout(d, 200 + (n % 1200))); return r; };
        JS);
    $oda = Item::query()->where('scene_id', $scene->id)->where('name', 'Oda')->firstOrFail();
    $page->click('[data-testid=lane-Oda]');
    foreach ([[1.5, -2.25], [0.75, 3.5]] as [$x, $z]) {
        $driver->executeScript(<<<'JS'
            const type = (label, text) => { const f = document.querySelector(`input[aria-label="${label}"]`); f.focus(); f.value = text; f.dispatchEvent(new Event('input', { bubbles: true })); f.blur(); };
            type('Place x (m)', String(arguments[0]));
            setTimeout(() => type('Place z (m)', String(arguments[1])), 120);
            JS, [$x, $z]);
        $page->until(
            static fn (): bool => abs($oda->refresh()->x - $x) < 1e-6 && abs($oda->z - $z) < 1e-6,
            "x {$x} and z {$z} in the scene",
            40.0,
        );
        $shown = static fn (string $label): float => (float) $driver->executeScript(
            'return document.querySelector(`input[aria-label="${arguments[0]}"]`).value',
            [$label],
        );
        // Neither jumps back while answers arrive.
        for ($end = microtime(true) + 2.0; microtime(true) < $end; usleep(80_000)) {
            expect($shown('Place x (m)'))->toBe($x)->and($shown('Place z (m)'))->toBe($z);
        }
    }
});

test('the server goes away: it is said, what is done meanwhile is listed and kept, and sent once it is back', function (): void {
    [$scene, $page, $driver] = atTheDesk($this);
    $page->press('Cover');
    parts('stop', 'reel:nginx');
    try {
        $page->see('[data-testid=away]', 40.0);
        $page->click('[data-testid=camera-from-view]');
        $page->until(
            fn (): bool => str_contains($page->text('[data-testid=away]'), 'add a camera'),
            'the camera in the list of what waits',
            40.0,
        );
        expect($scene->cameras()->count())->toBe(0);
    } finally {
        parts('start', 'reel:nginx');
    }
    $page->until(static fn (): bool => $scene->cameras()->count() === 1, 'the camera to be made', 15.0);
    $page->until(
        fn (): bool => $page->count('[data-testid=away]') === 0 && $page->count('[data-testid=notice]') === 0,
        'the alert to be gone',
        40.0,
    );
    expect($scene->cameras()->count())->toBe(1);
    // A render asked for while it is away: kept, and asked for once.
    $this->edit($scene->refresh(), [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave']]);
    $page->press('Finish');
    $page->see('[data-testid=render]');
    parts('stop', 'reel:nginx');
    try {
        $page->see('[data-testid=away]', 6.0);
        $page->click('[data-testid=render]');
        $page->until(fn (): bool => str_contains($page->text('[data-testid=away]'), 'render'), 'the render in the list of what waits', 8.0);
    } finally {
        parts('start', 'reel:nginx');
    }
    $jobs = RenderJob::query()->where('scene_id', $scene->id);
    $page->until(static fn (): bool => $jobs->count() === 1, 'the render to be asked for', 15.0);
    $page->see('[data-testid=render-entry]', 10.0);
    expect($jobs->count())->toBe(1);
    // Nobody takes renders: said, and taken up by itself.
    parts('stop', 'reel:render-1', 'reel:render-2');
    try {
        $page->see('[data-testid=idle]', 25.0);
        expect($page->text('[data-testid=idle]'))->toContain('renders');
    } finally {
        parts('start', 'reel:render-1', 'reel:render-2');
    }
    $page->until(fn (): bool => $page->count('[data-testid=idle]') === 0, 'the notice to be gone', 25.0);
});

test('Shift and the middle button move the view and never a person', function (): void {
    [$scene, $page, $driver] = atTheDesk($this);
    $before = Item::query()->where('scene_id', $scene->id)->orderBy('id')->get(['x', 'z'])->toArray();
    $driver->executeScript(<<<'JS'
        const c = document.querySelector('[data-testid=frame]'), r = c.getBoundingClientRect();
        const at = (type, x, y, more) => (type === 'pointerdown' ? c : window).dispatchEvent(new PointerEvent(type, { bubbles: true, clientX: x, clientY: y, pointerId: 1, isPrimary: true, ...more }));
        for (const more of [{ button: 0, buttons: 1, shiftKey: true }, { button: 1, buttons: 4 }])
            for (let y = 0.2; y < 0.9; y += 0.1) for (let x = 0.1; x < 1; x += 0.1) {
                const [px, py] = [r.left + x * r.width, r.top + y * r.height];
                at('pointerdown', px, py, more); at('pointermove', px + 60, py + 20, more); at('pointerup', px + 60, py + 20, more);
            }
        JS);
    usleep(500_000);
    expect(Item::query()->where('scene_id', $scene->id)->orderBy('id')->get(['x', 'z'])->toArray())->toBe($before)
        ->and((int) $scene->refresh()->revision)->toBe(1);
});
