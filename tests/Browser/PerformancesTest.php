<?php

declare(strict_types=1);

use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\Evaluate\SceneEvaluator;

test('a path drawn on the plan is walked in the picture, and its places can be dragged', function (): void {
    [$scene, $user, $path] = stage($this);
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
    $foot = SceneEvaluator::jointPlace($compiled, $bram, $compiled->lanes[$bram]->figure->skeleton->roles['footL'], $compiled->lanes[$bram]->end())->position;
    expect(hypot($foot[0] - $x, $foot[2] - $z))->toBeLessThan(0.25);
    $page->editing(fn () => $page->drag('[data-testid=path-point-1]', -20, -14));
    expect($beat()['path']['points'][1][0])->toBeLessThan($x - 0.1)->and($beat()['path']['points'][1][1])->toBeLessThan($z - 0.1);
    $page->editing(fn () => $page->chord('z'));
    expect($beat()['path']['points'][1])->toEqualWithDelta([$x, $z], 1e-6);
});

test('holds and touch-ups are made and set in the card; what is out of reach is noted and found from the note', function (): void {
    [$scene, $user, $path] = stage($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->click('[data-testid=lane-Oda]');
    $page->click('[data-testid=card] summary');
    $page->choose('Part that holds on', 'left hand');
    $page->choose('What it holds on to', 'Bram');
    $page->editing(fn () => $page->click('[data-testid=add-contact]'));
    expect($page->text('[data-testid=card]'))->toContain('Oda, left hand');
    // It takes the hand, not the floor between the feet.
    expect($page->see('select[aria-label=Where]')->getAttribute('value'))->toBe('handR');
    $page->until(fn () => $page->text('[data-testid=notes]') === 'notes: 1', 'the note');
    $page->click('[data-testid=lane-Bram]');
    $page->click('[data-testid=notes]');
    $page->click('[data-testid=note-0]');
    expect($page->see('[data-testid=card] input[aria-label=Name]')->getAttribute('value'))->toBe('Oda');
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
        ->and($page->see('input[aria-label="About y (deg)"]')->getAttribute('value'))->toBe('25');
});

test('how a beat plays is set in its card', function (): void {
    [$scene, $user, $path] = stage($this);
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
