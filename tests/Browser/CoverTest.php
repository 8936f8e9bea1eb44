<?php

declare(strict_types=1);

use App\Scenes\SceneRows;

test('somebody is chosen, set-ups show themselves; one is taken by a click, aimed anew, led closer, loosened', function (): void {
    [$scene, $user] = furnished($this);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Cover]');
    $page->click('[data-testid=lane-Oda]');
    // Eight sizes of her and what suits the two, each as a small picture of this moment.
    $page->until(fn (): bool => $page->count('[data-testid=setups] img') === 16, 'pictures of sixteen set-ups', 90.0);
    $page->editing(fn () => $page->click('[data-testid="setup-Close-up"]'));
    $rows = static fn (): array => SceneRows::all($scene->refresh());
    expect(array_column($rows()['framings'], 'size'))->toBe(['closeUp'])->and($rows()['cameras'])->toHaveCount(2);
    $page->until(fn (): bool => str_contains($page->text('[data-testid=view-label]'), 'Camera B'), 'to look through the new camera');

    // The same camera over his shoulder, with no number typed.
    $page->press('Aim B so');
    $page->editing(fn () => $page->click('[data-testid="setup-Over Bram, on Oda"]'));
    expect($rows()['framings'])->toHaveCount(1)->and($rows()['framings'][0]['kind'])->toBe('overShoulder');
    $page->editing(fn () => $page->click('[data-testid="setup-Medium shot"]'));

    // All cameras with what they see, and the new one cut to.
    $page->click('[data-testid=cover-cameras]');
    $page->until(fn (): bool => $page->count('[data-testid=tray] li img') === 2, 'what both cameras see', 60.0);
    $page->editing(fn () => $page->click('[data-testid=cut-to-B]'));
    $page->click('[data-testid=camera-B]');
    $page->goTo('00:00:01:00');
    $page->editing(fn () => $page->press('Push in'));
    expect(array_column($rows()['framings'], 'size'))->toBe(['medium', 'closeUp'])->and($rows()['framings'][1]['over'])->toBe(48);
    $page->editing(fn () => $page->press('Loosen to keys'));
    expect($rows()['framings'])->toBe([])->and(count($rows()['cameras'][1]['keys']))->toBeGreaterThan(3);
    $page->editing(fn () => $page->click('[data-testid=undo]'));
    expect($rows()['framings'])->toHaveCount(2);
});

test('a dialogue of two is covered by clicks alone: who takes part, a strip to look at, taken, played, taken back', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'talk', 'start' => 110]]);
    [$page] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Cover]');
    $page->click('[data-testid=cover-cut]');
    $page->click('[data-testid=look-for-cut]');
    $page->until(fn (): bool => $page->count('[data-testid=first-cut] li') > 1, 'a first cut', 90.0);
    $shots = $page->count('[data-testid=first-cut] li');
    $page->until(fn (): bool => $page->count('[data-testid=first-cut] img') === $shots, 'pictures of its shots', 60.0);
    expect($page->text('[data-testid=tray]'))->toContain('no rule of cutting is broken');
    $rows = static fn (): array => SceneRows::all($scene->refresh());
    expect($rows()['cameras'])->toHaveCount(1);
    $page->editing(fn () => $page->click('[data-testid=take-cut]'));
    expect($rows()['shots'])->toHaveCount($shots)->and(count($rows()['cameras']))->toBeGreaterThan(1);
    $page->editing(fn () => $page->click('[data-testid=undo]'));
    expect($rows()['shots'])->toHaveCount(1)->and($rows()['cameras'])->toHaveCount(1);
});

test('a dissolve shows both cameras in their shares, and a fade its colour', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [
        ['do' => 'camera.add', 'position' => [-1.5, 1.6, 3.0], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 30],
    ]);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->until(fn (): bool => $driver->executeScript('return (window.crispReelWorkspace?.firstPicture() ?? 0) > 0'), 'a picture', 60.0);
    $page->click('[data-testid=shot-020]');
    $page->editing(fn () => $page->choose('How the shot begins', 'with a dissolve'));
    $page->until(fn (): bool => $page->count('[data-testid=blend]') === 1, 'the dissolve on the reel', 30.0);
    $page->goTo('00:00:01:06');
    // Frame 30, by hand: left, right, and both in the shares of a dissolve of 12 frames around it.
    [$a, $b, $both] = $driver->executeAsyncScript(<<<'JS'
        const done = arguments[0];
        const w = window.crispReelWorkspace;
        w.settled().then(() => {
            const p = w.painter(), gl = p.renderer.getContext(), block = w.block();
            const of = (k) => ({ ...block.camera(block.manifest.cameras[k].id, 30), sensorWidthMm: 36, wallsAway: null });
            p.exact = true;
            const read = (mixed) => {
                p.draw(block, 30, of(1), mixed);
                const px = new Uint8Array(4 * 64 * 64);
                gl.readPixels(200, 120, 64, 64, gl.RGBA, gl.UNSIGNED_BYTE, px);
                return Array.from(px);
            };
            const mix = (a, b, share) => ({ a, b, share, blend: { a: a && 'a', b: b && 'b', colour: 'white' } });
            done([read(mix(of(0), of(1), 0)), read(mix(of(0), of(1), 1)), read(mix(of(0), of(1), 0.25))]);
        });
        JS);
    $worst = 0.0;
    $sum = 0.0;
    foreach ($both as $i => $seen) {
        $off = abs($seen - (0.75 * $a[$i] + 0.25 * $b[$i]));
        $worst = max($worst, $off);
        $sum += $off;
    }
    expect($worst)->toBeLessThanOrEqual(1.0)->and($sum / count($both))->toBeLessThan(0.5)->and($a)->not->toBe($b);
});

test('a group of three is chosen and taken; a move is drawn on the lane, dragged there and on the plan, and slips', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'mirre-tolland', 'near' => [1.5, 1.5], 'name' => 'Mirre']]);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Cover]');
    $page->click('[data-testid=lane-Oda]');
    $page->choose('With whom', 'Bram');
    $page->on('[aria-label="Who else is in a group with them"]', fn () => $page->press('Mirre'));
    $page->until(fn (): bool => $page->count('[data-testid="setup-All, whole"] img') === 1, 'a picture of the group', 90.0);
    $page->editing(fn () => $page->click('[data-testid="setup-All, whole"]'));
    $framings = static fn (): array => array_values(SceneRows::all($scene->refresh())['framings']);
    expect($framings()[0])->toMatchArray(['kind' => 'together', 'size' => 'full'])->and($framings()[0]['others'])->toHaveCount(1);

    // A move over the frames that are drawn, then its end and its place dragged.
    $page->click('[data-testid=cover-cameras]');
    $page->click('[data-testid=camera-B]');
    $lane = '[data-testid=camera-lane-B]';
    $driver->executeScript('document.querySelector(arguments[0]).scrollIntoView({block: "center"})', [$lane]);
    $page->drag($lane, 160, 0, -100);
    $page->see('[data-testid=draw-move]');
    $page->editing(fn () => $page->press('Push in'));
    [, $move] = $framings();
    expect($move['size'])->toBe('medium')->and($move['over'])->toBeGreaterThan(8);
    $page->editing(fn () => $page->drag('[data-testid=framing-B-1]', 60, 0));
    expect($framings()[1]['frame'])->toBeGreaterThan($move['frame'])->and($framings()[1]['over'])->toBe($move['over']);
    $page->click('[data-testid=fold-card]');
    $page->see('[data-testid=unfold-card]');
    $page->press('Fit');
    $page->editing(fn () => $page->drag('[data-testid=camera-stop-1]', 30, 20));
    expect($framings()[1]['focalMm'])->not->toBe($move['focalMm'])->and($framings()[1]['sideDeg'])->not->toBe($move['sideDeg']);
});

test('what is not sharp is tinted while one looks for it, and clear again after', function (): void {
    [$scene, $user] = furnished($this);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->until(fn (): bool => $driver->executeScript('return (window.crispReelWorkspace?.firstPicture() ?? 0) > 0'), 'a picture', 60.0);
    $page->click('[data-testid=step-Cover]');
    $page->click('[data-testid=cover-cameras]');
    $page->click('[data-testid=camera-A]');
    $page->until(fn (): bool => str_contains($page->text('[data-testid=view-label]'), 'Camera A'), 'to look through it');
    $last = [0.0, 0.0];
    $page->until(function () use ($page, &$last): bool {
        [$before, $last] = [$last, $page->picture()];

        return $last === $before && $last[0] > 1.0;
    }, 'a picture that stays');
    $off = static fn (array $p): float => hypot($p[0] - $last[0], $p[1] - $last[1]);
    $page->click('[data-testid=guides-menu]');
    $tint = static fn () => $driver->executeScript(
        '[...document.querySelectorAll("label")].find((l) => l.textContent.includes("not sharp")).querySelector("input").click()',
    );
    $tint();
    $page->until(fn (): bool => $off($page->picture()) > 2.0, 'a tinted picture');
    $tint();
    $page->until(fn (): bool => $off($page->picture()) < 0.5, 'the picture as it was');
    expect($off($page->picture()))->toBeLessThan(0.5);
});
