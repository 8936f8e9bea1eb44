<?php

declare(strict_types=1);

use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\Evaluate\SceneEvaluator;
use Illuminate\Support\Facades\DB;

test('a path drawn on the plan is walked in the picture, and its places can be dragged', function (): void {
    [$scene, $user, $path] = furnished($this);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 0]]);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $page->click('[data-testid="beat-Bram-Walk"]');
    $page->click('[data-testid=draw-path]');
    // Two clicks on the plan, left of where Bram stands.
    $page->editing(fn () => $page->pressAt('[data-testid="plan-item-Bram"]', -60, 30));
    $page->editing(fn () => $page->pressAt('[data-testid="plan-item-Bram"]', -110, 5));
    $page->click('[data-testid=draw-path]');
    $beat = fn (): array => json_decode((string) json_encode(collect(SceneRows::all($scene->refresh())['beats'])->last()), true);
    expect($beat()['path']['points'])->toHaveCount(2)->and($page->count('[data-testid^=path-point]'))->toBe(2);
    [$x, $z] = $beat()['path']['points'][1];
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $bram = "i{$beat()['itemId']}";
    $foot = SceneEvaluator::jointPlace(
        $compiled,
        $bram,
        $compiled->lanes[$bram]->figure->skeleton->roles['footL'],
        $compiled->lanes[$bram]->end(),
    )->position;
    expect(hypot($foot[0] - $x, $foot[2] - $z))->toBeLessThan(0.25);
    $page->editing(fn () => $page->drag('[data-testid=path-point-1]', -20, -14));
    expect($beat()['path']['points'][1][0])->toBeLessThan($x - 0.1)->and($beat()['path']['points'][1][1])->toBeLessThan($z - 0.1);
    $page->editing(fn () => $page->chord('z'));
    expect($beat()['path']['points'][1])->toEqualWithDelta([$x, $z], 1e-6);
});

test('touches and touch-ups are made and set in the card; what is out of reach is noted and found from the note', function (): void {
    [$scene, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->click('[data-testid=lane-Oda]');
    $page->click('[data-testid=card] summary');
    $page->choose('Part that touches', 'left hand');
    $page->choose('What it touches', 'Bram');
    $page->editing(fn () => $page->click('[data-testid=add-contact]'));
    expect($page->text('[data-testid=card]'))->toContain('Oda, left hand');
    // It takes the hand, not the floor between the feet.
    expect($page->value('select[aria-label=Where]'))->toBe('handR');
    $page->until(fn () => $page->text('[data-testid=notes]') === 'notes: 1', 'the note');
    $page->click('[data-testid=lane-Bram]');
    $page->click('[data-testid=notes]');
    $page->click('[data-testid=note-0]');
    expect($page->value('[data-testid=card] input[aria-label=Name]'))->toBe('Oda');
    // Bram comes near: the note goes.
    $page->click('[data-testid=lane-Bram]');
    $page->editing(fn () => $page->set('Place x (m)', '0.55'));
    $page->until(fn () => $page->text('[data-testid=notes]') === 'notes: none', 'no note');
    $page->click('[data-testid=lane-Oda]');
    $page->click('[data-testid=card] summary');
    $page->editing(fn () => $page->click('[data-testid=add-touch-up]'));
    $page->editing(fn () => $page->set('About y (deg)', '25'));
    $row = SceneRows::all($scene->refresh())['touch_ups'][0];
    expect($row['joint'])->toBe('head')->and($row['keys'][0]['rotation'][1])->toEqualWithDelta(sin(deg2rad(12.5)), 1e-6)
        ->and($page->value('input[aria-label="About y (deg)"]'))->toBe('25');
});

test('how a beat plays is set in its card', function (): void {
    [$scene, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->click('[data-testid="beat-Oda-Talk"]');
    $page->press('How it plays', 'summary');
    $page->editing(fn () => $page->set('Hold before (frames)', '12'));
    $page->editing(fn () => $page->choose('Pace', 'anticipate'));
    $page->editing(fn () => $page->set('Energy', '0.5'));
    $play = fn (): array => json_decode((string) json_encode(SceneRows::all($scene->refresh())['beats'][0]['play']), true);
    expect($play())->toEqual(['holdBefore' => 12, 'ease' => [0.36, -0.35, 0.66, 1], 'energy' => 0.5]);
    $page->goTo('48');
    $page->editing(fn () => $page->press('Split here'));
    expect(SceneRows::all($scene->refresh())['beats'])->toHaveCount(2);
});

test('a place is clicked in the picture for a hand to touch', function (): void {
    [$scene, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $page->click('[data-testid=lane-Oda]');
    $page->press('Touches and touch-ups', 'summary');
    $page->choose('Part that touches', 'right hand');
    // Escape leaves it: the next click in the picture only selects.
    $page->click('[data-testid=aim-contact]');
    expect($page->text('body'))->toContain('Click the place for the right hand of Oda');
    $page->key(Facebook\WebDriver\WebDriverKeys::ESCAPE);
    expect($page->text('body'))->not->toContain('Click the place for');
    $page->click('[data-testid=aim-contact]');
    $page->editing(fn () => $page->pressAt('[data-testid=frame]', 0, 150));
    $row = SceneRows::all($scene->refresh())['contacts'][0];
    expect($row['effector'])->toBe('handR')->and($page->text('[data-testid=card]'))->toContain('Oda, right hand');
    // What was clicked lies on the ground or on a thing, and the card shows it.
    expect($page->value('[data-testid=card] input[aria-label="x (m)"]'))->toEqual((string) round($row['offset'][0], 2));
});

test('two look at each other from a frame on, one of them waits in the cold, and eyes are let be', function (): void {
    [$scene, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->goTo('00:00:01:00');
    $page->click('[data-testid=lane-Oda]');
    $page->editing(fn () => $page->choose('Looks at, from here on', 'Bram'));
    $page->editing(fn () => $page->click('[data-testid=look-back]'));
    $rows = SceneRows::all($scene->refresh());
    [$oda, $bram] = [collect($rows['items'])->firstWhere('name', 'Oda'), collect($rows['items'])->firstWhere('name', 'Bram')];
    $looks = collect($rows['contacts'])->where('effector', 'look')->mapWithKeys(fn (array $c): array => [$c['itemId'] => $c]);
    expect($looks[$oda['id']])->toMatchArray(['targetId' => $bram['id'], 'from' => 24, 'to' => null, 'mount' => 'head'])
        ->and($looks[$bram['id']]['targetId'])->toBe($oda['id'])->and($page->count('[data-testid=look-back]'))->toBe(0);
    // Later she looks at nobody any more: what held ends there.
    $page->goTo('00:00:02:00');
    $page->editing(fn () => $page->choose('Looks at, from here on', 'as it comes'));
    $page->editing(fn () => $page->choose('What they are like while they wait', 'Cold'));
    $page->editing(fn () => $page->click('input[aria-label="Eyes meet others by themselves"]'));
    $rows = SceneRows::all($scene->refresh());
    $now = collect($rows['items'])->firstWhere('name', 'Oda');
    expect(collect($rows['contacts'])->firstWhere('itemId', $oda['id'])['to'])->toBe(48)->and($now['life'])->toBe('cold')
        ->and($now['meets'])->toBeFalse();
});

test('a crowd is placed in view, a cloak is put on, and the wind is set', function (): void {
    [$scene, $user, $path] = furnished($this);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'cloak', 'name' => 'Cloak', 'position' => [1.5, 0, 1.0]]]);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->press('Block');
    $page->editing(fn () => $page->set('Wind speed (m/s)', '8'));
    expect($scene->refresh()->wind)->toBe(['speed' => 8]);
    $page->press('Crowd', 'summary');
    $page->set('People in the crowd', '3');
    $page->editing(fn () => $page->click('[data-testid=add-crowd]'));
    $people = collect(SceneRows::all($scene->refresh())['items'])->where('kind', 'performer');
    expect($people)->toHaveCount(5)->and($page->text('body'))->toContain('3 people are on the floor');
    $page->click('[data-testid=floor-Cloak]');
    $page->choose('Who wears it', 'Bram');
    $page->editing(fn () => $page->click('[data-testid=put-on]'));
    $link = SceneRows::all($scene->refresh())['links'];
    expect(collect($link)->last()['mount'])->toBe('upperChest')->and($page->text('[data-testid=card]'))->toContain('Goes with');
});

test('a talk is given its line, a walk breaks into a run', function (): void {
    [$scene, $user, $path] = furnished($this);
    $this->edit(
        $scene,
        [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 0, 'path' => ['points' => [[-1.0, 0.6], [-3.0, 0.9]]]]],
    );
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $page->click('[data-testid="beat-Oda-Talk"]');
    $page->editing(function () use ($page): void {
        $page->fill('textarea[aria-label=Line]', 'No, *you* wind it.');
        $page->press('How it plays', 'summary');
    });
    expect(((array) SceneRows::all($scene->refresh())['beats'][0]['settings'])['line'])->toBe('No, *you* wind it.');
    $page->click('[data-testid="beat-Bram-Walk"]');
    $page->editing(fn () => $page->click('[data-testid=change-walk]'));
    $page->editing(fn () => $page->set('Speed from place 1', '2.6'));
    $beat = collect(SceneRows::all($scene->refresh())['beats'])->last();
    expect($beat['path']['changes'])->toEqual([['after' => 1, 'style' => ['speed' => 2.6]]]);
    // Its manner by a slider: what is let go is set.
    $page->press('Manner', 'summary');
    $page->editing(fn () => $page->give('[data-testid=manner-bounce]', '1.5'));
    expect(((array) collect(SceneRows::all($scene->refresh())['beats'])->last()['settings'])['bounce'])->toEqual(1.5);
});

test('edges of a beat are dragged and typed: each lands where it is dropped, and all of it can be shown again', function (): void {
    [$scene, $user, $path] = furnished($this);
    $this->edit($scene, [
        ['do' => 'beat.set', 'beat' => $scene->beats()->firstOrFail()->id, 'speed' => 0.8, 'play' => ['holdBefore' => 6]],
        // Longer than hers, so that the scene stays as long as it is.
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'idle'],
    ]);
    $driver = $this->open();
    $page = $this->workspace($driver);
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page->see('[data-testid=workspace]', 60.0);
    $page->press('Act');
    $bar = '[data-testid=beat-Oda-Talk]';
    $edges = static fn (): array => $driver->executeScript(
        'const r = document.querySelector(arguments[0]).getBoundingClientRect(); return [r.left, r.right];',
        [$bar],
    );
    $page->click($bar);
    [$left, $right] = $edges();
    $half = (int) (($right - $left) / 2) - 3;
    $page->drag($bar, -60, 0, $half, 0);
    $page->until(static fn (): bool => abs($edges()[1] - ($right - 60)) < 4, 'the end where it was dropped');
    $page->saved();
    $page->drag($bar, 40, 0, 30 - (int) (($edges()[1] - $edges()[0]) / 2) - 27, 0);
    $page->until(static fn (): bool => abs($edges()[0] - ($left + 40)) < 4, 'the beginning where it was dropped');
    expect($edges()[1])->toEqualWithDelta($right - 60, 4.0);
    $cut = static fn (): array => (array) json_decode(
        (string) DB::table('beats')->where('scene_id', $scene->id)->orderBy('id')->value('play'),
        true,
    );
    $page->until(static fn (): bool => isset($cut()['skip'], $cut()['length']), 'both edges in the scene');
    expect($cut()['skip'])->toBe((int) $scene->beats()->orderBy('id')->value('start'))->and($cut()['length'])->toBeGreaterThan(10);
    // The same by typing, and all of it again.
    $end = (int) $driver->executeScript('return document.querySelector(`input[aria-label="End frame"]`).value');
    $driver->executeScript(<<<'JS'
        const f = document.querySelector('input[aria-label="End frame"]');
        f.focus(); f.value = '-=5'; f.dispatchEvent(new Event('input', { bubbles: true })); f.blur();
        JS);
    $shown = static fn (): int => (int) $driver->executeScript('return document.querySelector(`input[aria-label="End frame"]`).value');
    $page->until(static fn (): bool => $shown() === $end - 5, 'five frames less');
    $page->press('Show all');
    $page->until(static fn (): bool => abs($edges()[0] - $left) < 4 && abs($edges()[1] - $right) < 4, 'all of it');
});

test('a thing is given to a hand, on its own card and on the performer\'s, at any step', function (): void {
    [$scene, $user, $path] = furnished($this);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'brass-key', 'name' => 'Key', 'position' => [1.0, 0, 1.2]],
        ['do' => 'item.add', 'asset' => 'lantern', 'name' => 'Lamp', 'position' => [0.6, 0, 1.2]],
    ]);
    $driver = $this->open();
    $page = $this->workspace($driver);
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page->see('[data-testid=workspace]', 60.0);
    $page->press('Block');
    $page->click('[data-testid=lane-Oda]');
    $page->choose('What is given', 'Lamp');
    $page->choose('Hand', 'left hand');
    $page->editing(fn () => $page->click('[data-testid=give]'));
    expect($page->text('[data-testid=card]'))->toContain('Lamp')->toContain('with Oda');
    $page->press('Cast');
    $page->click('[data-testid=lane-Key]');
    $page->choose('Given to', 'Bram');
    $page->editing(fn () => $page->click('[data-testid=give]'));
    $rows = SceneRows::all($scene->refresh());
    $name = array_column($rows['items'], 'name', 'id');
    $links = array_map(
        static fn (array $l): array => [$name[$l['childId']], $name[$l['parentId']], $l['mount'], $l['keep']],
        $rows['links'],
    );
    expect($links)->toBe([['Lamp', 'Oda', 'handL', 'grip'], ['Key', 'Bram', 'handR', 'grip']]);
});

test('one click lets two do something together, and how hard it is taken is set by a slider', function (): void {
    [$scene, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->click('[data-testid=lane-Oda]');
    $page->press('Act');
    $page->fill('input[placeholder="Search motions"]', 'punch');
    $before = count(SceneRows::all($scene->refresh())['beats']);
    $page->editing(fn () => $page->click('[data-testid=asset-punch-a]'));
    $beats = SceneRows::all($scene->refresh())['beats'];
    expect($beats)->toHaveCount($before + 2);
    $page->click('[data-testid="beat-Bram-Be punched"]');
    $page->press('Manner', 'summary');
    $page->editing(fn () => $page->give('[data-testid=manner-strength]', '1.6'));
    $scene->refresh();
    $taken = collect(json_decode((string) json_encode(SceneRows::all($scene)['beats']), true))->last();
    expect($taken['settings']['strength'])->toEqualWithDelta(1.6, 0.05);
    $compiled = app(SceneStream::class)->compile($scene);
    $bram = "i{$taken['itemId']}";
    $head = SceneEvaluator::jointPlace(
        $compiled, $bram, $compiled->lanes[$bram]->figure->skeleton->roles['head'], $taken['start'] + 70,
    )->position;
    expect($head[1])->toBeLessThan(0.9);
    // Both halves go in one step back.
    $page->editing(fn () => $page->chord('z'));
    $page->editing(fn () => $page->chord('z'));
    expect(SceneRows::all($scene->refresh())['beats'])->toHaveCount($before);
});

test('a bicycle is got on and off by its card, and a walk told to go on or to stop by its own', function (): void {
    [$scene, $user, $path] = furnished($this);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'bicycle', 'name' => 'Bicycle', 'position' => [1.5, 0, 2.0], 'headingDeg' => -90],
        ['do' => 'item.route', 'item' => 'Bicycle', 'points' => [[-2.5, 2.0]], 'speed' => 2.0],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 0, 'path' => ['points' => [[2.0, -2.0]]]],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'trip'],
    ]);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $page->click('[data-testid="plan-item-Bicycle"]');
    $page->choose('Who rides it', 'Oda');
    $page->editing(fn () => $page->click('[data-testid=get-on]'));
    $page->see('[data-testid="beat-Oda-Get on"]');
    $page->see('[data-testid="beat-Oda-Ride a bicycle"]');
    expect($page->text('[data-testid=card]'))->toContain('Oda rides it');
    $page->goTo('10s');
    $page->editing(fn () => $page->click('[data-testid=get-off]'));
    $page->see('[data-testid="beat-Oda-Get off"]');
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $oda = array_key_first(
        array_filter($compiled->lanes, fn ($l, $id) => $compiled->document->items[$id]->name === 'Oda', ARRAY_FILTER_USE_BOTH),
    );
    expect($compiled->lanes[$oda]->end(false))->toBeGreaterThan(270);
    $page->click('[data-testid="beat-Bram-Walk"]');
    expect($page->value('select[aria-label="At its last place"]'))->toBe('on');
    $page->editing(fn () => $page->choose('At its last place', 'it stops'));
    expect(SceneRows::all($scene->refresh())['beats'][0]['path']['goesOn'] ?? false)->toBeFalse();
});
