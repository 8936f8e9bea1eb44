<?php

declare(strict_types=1);

use App\Models\Scene;
use App\Scenes\SceneManifests;
use App\Scenes\SceneRows;
use Facebook\WebDriver\WebDriverBy as By;

test('sounds are mixed by lanes, bent on theirs, and steps are heard as they are walked', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 0],
    ]);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Act]');
    $page->click('[data-testid=act-sounds]');
    $page->click('[data-testid=mix] summary');
    $fresh = static fn (): Scene => $scene->refresh();

    // What happens is heard, on a lane of its own.
    $page->editing(fn () => $page->click('[aria-label="Steps, falls and wheels are heard"]'));
    expect($fresh()->mix['happens'])->toBeTrue();
    $page->until(fn (): bool => $page->count('[data-testid=noises-lane] span[title]') > 3, 'steps on their lane');
    expect(count(app(SceneManifests::class)->of($fresh())['noises']))->toBe($page->count('[data-testid=noises-lane] span[title]'));

    // One lane is muted for everybody; another is heard alone, and the scene knows nothing of that.
    $page->editing(fn () => $page->click('[aria-label="Mute ambience"]'));
    expect($fresh()->mix['muted'])->toBe(['ambience']);
    $revision = $fresh()->revision;
    $page->click('[aria-label="Only steps"]');
    $page->until(fn (): bool => $page->count('[aria-label="Only steps"][aria-pressed=true]') === 1, 'steps alone');
    $page->click('[aria-label="Only steps"]');
    expect($fresh()->revision)->toBe($revision);
    $page->editing(fn () => $page->click('[data-testid=undo]'));
    expect($fresh()->mix['muted'] ?? [])->toBe([]);

    // A double click on a selected sound bends its level there; the point is dragged down.
    $sound = SceneRows::all($fresh())['sounds'][0]['id'];
    $lane = "[data-testid=sound-{$sound}]";
    $page->click($lane);
    $curve = static fn (): array => SceneRows::all($scene->refresh())['sounds'][0]['curve'];
    $page->editing(fn () => $driver->action()->doubleClick($driver->findElement(By::cssSelector($lane)))->perform());
    expect($curve())->toHaveCount(1)->and($curve()[0][1])->toEqual(0);
    $page->editing(fn () => $page->drag('[data-testid=bend]', 12, 16));
    expect($curve()[0][1])->toBeLessThan(-6);
});

test('something is done at a word; the angle of a line is chosen, and changes of speaker are cut', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has the last boat left the pier?', 'start' => 30],
        ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Long ago, and without you.', 'start' => 120],
    ]);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $lines = static fn (): array => SceneRows::all($scene->refresh())['lines'];
    [$first, $second] = array_column($lines(), 'id');
    $read = "return document.querySelectorAll('[data-testid^=said-]:not(.italic)').length";
    $page->until(fn (): bool => $driver->executeScript($read) === 2, 'voices for two lines', 60.0);
    $page->click("[data-testid=said-{$first}]");
    $page->click('[data-testid=words] button:nth-child(4)');
    $page->editing(fn () => $page->choose('What is done at the word', 'look Bram'));
    expect($lines()[0]['text'])->toBe('Has the last [look Bram] boat left the pier?');
    $page->until(fn (): bool => $page->count('[data-testid=at-word] button') > 0, 'what is done at it');
    $page->editing(fn () => $page->click('[data-testid=at-word] button'));
    expect($lines()[0]['text'])->toBe('Has the last boat left the pier?');

    // The one camera films both: the change of speaker is told, and gets a camera and a cut.
    $page->click('[data-testid=step-Cover]');
    $page->click('[data-testid=cover-cameras]');
    $page->see('[data-testid=speaker-cuts]');
    $page->editing(fn () => $page->click('[data-testid=cut-speakers]'));
    $shots = static fn (): array => SceneRows::all($scene->refresh())['shots'];
    $at = (int) round(utterances($scene)[1]->from);
    expect($shots())->toHaveCount(2)->and(abs($shots()[1]['in'] - $at))->toBeLessThanOrEqual(3)
        ->and($scene->cameras()->count())->toBe(2);
    $page->until(fn (): bool => $page->count('[data-testid=speaker-cuts]') === 0, 'no change without a cut');

    // Its angle is chosen on the line, and the reel shows it.
    $page->click("[data-testid=said-{$second}]");
    $page->editing(fn () => $page->choose('Camera that is on air while it is said', 'A'));
    $letters = $scene->refresh()->cameras()->pluck('letter', 'id');
    $on = array_values(array_filter($shots(), static fn (array $s): bool => $s['in'] <= $at));
    expect($letters[end($on)['cameraId']])->toBe('A');
});
