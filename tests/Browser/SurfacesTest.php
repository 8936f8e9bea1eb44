<?php

declare(strict_types=1);

use App\Models\Asset;

test('a coat is dyed in the card, takes a pattern for all of its kind, and is given back', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [0, 0], 'name' => 'One'],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [2, 0], 'name' => 'Other'],
    ]);
    [$page, $driver] = $this->desk($user, $scene);
    $one = static fn (): array => $scene->items()->where('name', 'One')->firstOrFail()->surfaces ?? [];
    $other = static fn (): array => $scene->items()->where('name', 'Other')->firstOrFail()->surfaces ?? [];
    $page->click('[data-testid=step-Block]');
    $page->click('[data-testid=lane-One]');
    $page->press('Surfaces', 'summary');
    $coat = $page->attribute('[data-testid^="surface-cloth#"]', 'data-testid');
    $key = substr((string) $coat, strlen('surface-'));
    $page->editing(fn () => $page->give('input[aria-label="Colour of Red cloth"]', '#2f8f4f'));
    expect($one())->toBe([$key => ['colour' => '#2f8f4f']])->and($other())->toBe([]);
    expect($page->text('[data-testid=surfaces] summary'))->toContain('1 changed');
    $page->press('all 2 like it');
    $page->click("[data-testid=\"{$coat}\"] button[aria-expanded]");
    $page->editing(fn () => $page->click('[data-testid=lay-pattern-check]'));
    $check = Asset::query()->where('slug', 'pattern-check')->value('id');
    expect($one()[$key])->toEqual(['colour' => '#2f8f4f', 'picture' => $check])->and($other()[$key])->toEqual(['picture' => $check]);
    $page->editing(fn () => $page->press('satin'));
    expect($other()[$key]['finish'])->toBe('satin');
    $page->editing(fn () => $page->set('Width of the picture (m)', '0.4'));
    expect($one()[$key]['metres'])->toEqual(0.4);
    $page->editing(fn () => $page->click('[data-testid=undress]'));
    expect($one())->toBe([])->and($other())->toBe([]);
    $page->editing(fn () => $page->chord('z'));
    expect($one()[$key]['finish'])->toBe('satin');
});

test('what is collected in one scene is taken into another production', function (): void {
    $user = $this->person('Tess Ribeiro');
    [$from, $to] = [$this->scene($user), $this->scene($user)];
    $stool = app(App\Assets\AssetIntake::class)
        ->model($from->production, CrispReel\Core\Tests\Support\FakeAssets::glb('stool'), 'Harbour stool', 'prop')->asset_id;
    $this->edit($from, [['do' => 'item.add', 'asset' => $stool, 'near' => [0, 0], 'name' => 'Seat']]);
    [$page, $driver] = $this->desk($user, $from);
    $page->click('[data-testid=step-Block]');
    $page->click('[data-testid=lane-Seat]');
    $page->press('Collect');
    $page->until(fn (): bool => str_contains($page->text('body'), 'Harbour stool is in your collection'), 'the collection');
    $driver->get(self::url("/scenes/{$to->id}"));
    $page->click('[data-testid=step-Cast]');
    $page->click('[data-testid=open-kit]');
    $page->give('[data-testid=kit-whose]', 'mine');
    $page->until(fn (): bool => $page->text('[data-testid=kit-total]') === '1 found', 'the collection alone');
    $page->click('[data-testid=kit-shelf] [data-testid=asset-harbour-stool]');
    $page->see('[data-testid=kit-details] [data-testid=turntable][data-state=shown]', 40.0);
    $page->click('[data-testid=adopt]');
    $page->until(
        fn (): bool => $page->count('[data-testid=adopt]') === 0
            && Asset::query()->where('production_id', $to->production_id)->where('name', 'Harbour stool')->exists(),
        'the stool to be taken',
    );
    $page->editing(fn () => $page->press('Put into the scene'));
    expect($to->items()->firstOrFail()->asset_id)->not->toBe($stool);
});

test('a picture is dragged from the tray on to what it is to lie on', function (): void {
    $user = $this->person('Tess Ribeiro');
    $scene = $this->scene($user);
    // A crate that fills the middle of the first view.
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'crate-large', 'position' => [0, 0, 0], 'name' => 'Crate'],
        ['do' => 'item.place', 'item' => 'Crate', 'scale' => 2.5],
    ]);
    [$page, $driver] = $this->desk($user, $scene);
    $page->click('[data-testid=step-Cast]');
    $page->press('Pictures');
    $page->see('[data-testid=asset-pattern-dots]');
    // There has to be something to let it go over.
    $page->until(
        static fn (): bool => $driver->executeScript('return (window.crispReelWorkspace?.firstPicture() ?? 0) > 0') === true,
        'the crate in the picture',
        60.0,
    );
    $page->editing(fn () => $page->dropOn('[data-testid=asset-pattern-dots]', 'canvas'));
    $worn = array_values($scene->items()->firstOrFail()->surfaces ?? []);
    expect($worn)->toHaveCount(1)->and($worn[0]['picture'])->toBe(Asset::query()->where('slug', 'pattern-dots')->value('id'));
});
