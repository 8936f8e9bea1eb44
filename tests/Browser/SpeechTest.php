<?php

declare(strict_types=1);

use App\Scenes\SceneRows;
use App\Speech\FliteVoice;
use App\Speech\Manner;
use CrispReel\Core\Format\Wave;
use Facebook\WebDriver\WebDriverKeys as Keys;

test('a dialogue is typed, heard with lips by the clock of the sound, moved on its lane, and shown in the picture', function (): void {
    [$scene, $user] = furnished($this);
    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Act]');
    $page->click('[data-testid=act-lines]');
    $page->see('[data-testid=line-entry]');
    $lines = static fn (): array => SceneRows::all($scene->refresh())['lines'];

    // Typed as on a page: Enter for the next line, and whoever did not speak last is next.
    $entry = '[data-testid=line-entry]';
    $page->editing(fn () => $page->on($entry, fn ($e) => $e->sendKeys('Has the last boat *gone*?'.Keys::ENTER)));
    $page->editing(fn () => $page->on($entry, fn ($e) => $e->sendKeys('Not without me. [0.5 s] Never!'.Keys::ENTER)));
    $page->editing(fn () => $page->on($entry, fn ($e) => $e->sendKeys(Keys::TAB.'I said so.'.Keys::ENTER)));
    $names = $scene->items()->pluck('name', 'id');
    expect(array_map(static fn (array $l): string => $names[$l['itemId']], $lines()))->toBe(['Oda', 'Bram', 'Bram'])
        ->and($lines()[1]['afterId'])->toBe($lines()[0]['id']);

    // Voices read them without anybody waiting, and they are on the lanes as they are spoken.
    $read = "return document.querySelectorAll('[data-testid^=said-]:not(.italic)').length";
    $page->until(fn (): bool => $driver->executeScript($read) === 3, 'voices for three lines', 60.0);
    $first = $lines()[0]['id'];

    // While it plays, each picture that is drawn is of the frame that is heard.
    $page->click('[data-testid=subtitles]');
    $driver->executeScript(<<<'JS'
        window.heard = [];
        const w = window.crispReelWorkspace;
        w.onPaint((f) => window.heard.push([f, w.heard()]));
        JS);
    $page->click('[data-testid=play]');
    $words = fn (): bool => str_contains($page->text('[data-testid=subtitle]'), 'Has the last boat gone?');
    $page->until($words, 'the words in the picture', 30.0);
    $page->until(fn (): bool => $driver->executeScript('return window.heard.length') > 8, 'nine pictures', 60.0);
    $page->click('[data-testid=play]');
    $heard = $driver->executeScript('return window.heard');
    expect(array_filter($heard, static fn (array $h): bool => $h[1] !== null))->not->toBe([]);
    foreach ($heard as [$frame, $sound]) {
        if ($sound !== null) {
            expect(abs($frame - floor($sound)))->toBeLessThanOrEqual(1.0);
        }
    }
    expect($driver->executeScript('return window.crispReelWorkspace.heard()'))->toBeNull();

    // Dragged on its lane a line moves, and what waits for it moves along.
    $left = fn (): float => (float) $driver->executeScript(
        "return document.querySelector('[data-testid=said-{$lines()[1]['id']}]').getBoundingClientRect().left",
    );
    $before = $left();
    $page->editing(fn () => $page->drag("[data-testid=said-{$first}]", 60, 0));
    expect($lines()[0]['start'])->toBeGreaterThan(5)->and($left())->toBeGreaterThan($before);

    // Its card: how it is said.
    $page->click("[data-testid=said-{$first}]");
    $page->editing(fn () => $page->choose('How it is said', 'angry'));
    expect($lines()[0]['delivery'])->toBe('angry');
    $page->editing(fn () => $page->click('[data-testid=undo]'));
    expect($lines()[0]['delivery'])->toBe('plain');
});

test('a page of dialogue is pasted: who is meant by a name that nobody has is asked once', function (): void {
    [$scene, $user] = furnished($this);
    [$page] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Act]');
    $page->click('[data-testid=act-lines]');
    $page->click('[data-testid=paste-page]');
    $page->fill('[data-testid=page]', "Oda: Is it late?\nPilot (calls): Not yet!\nOda: Then we wait.");
    $page->choose('Who is Pilot', 'Bram');
    $page->editing(fn () => $page->click('[data-testid=take-page]'));
    $lines = SceneRows::all($scene->refresh())['lines'];
    expect(array_column($lines, 'text'))->toBe(['Is it late?', 'Not yet!', 'Then we wait.'])->and($lines[1]['delivery'])->toBe('called');
    $page->until(fn (): bool => $page->count('[data-testid^=line-] textarea') === 3, 'three lines on the page');

    // What shows in a face, from here on: two clicks.
    $page->click('[data-testid=lane-Oda]');
    $page->editing(fn () => $page->choose('What shows from here on', 'sad'));
    expect(SceneRows::all($scene->refresh())['expressions'][0])->toMatchArray(['emotion' => 'sad']);
    $page->see('[data-testid=amount]');
});

test('a line is recorded over playback, its words found and its end trimmed; a refused microphone is said', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has the last boat left the pier?', 'start' => 30]]);
    // What the microphone hears: the line, after two seconds of silence.
    $take = (new FliteVoice)->read('Has the last boat left the pier?', new Manner('rms'));
    $wave = Wave::silence($take->wave->rate, $take->wave->seconds() + 3.0)->mix($take->wave, 2.0);
    $file = sys_get_temp_dir().'/said-'.bin2hex(random_bytes(4)).'.wav';
    file_put_contents($file, $wave->toWav());
    [$page, $driver] = $this->desk($user, $scene, [
        '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream', "--use-file-for-fake-audio-capture={$file}%noloop",
    ]);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Act]');
    $page->click('[data-testid=act-lines]');
    $page->click('[data-testid^=said-]');
    $page->click('[data-testid=record]');
    $heard = "return parseFloat(document.querySelector('[data-testid=recording] .mono')?.innerText ?? '0')";
    $page->until(fn (): bool => $driver->executeScript($heard) > 6.0, 'six seconds of a recording', 90.0);
    $page->editing(fn () => $page->click('[data-testid=record-stop]'));
    $page->until(fn (): bool => $page->count('[data-testid=wave-words] span') >= 7, 'its words', 60.0);
    [$row] = SceneRows::all($scene->refresh())['takes'];
    expect($row['chosen'])->toBeTrue()->and($row['sourceIn'])->toBeNull();
    $page->see('[data-testid=wave]');
    // The line sounds as it was said: its first word shortly after its start.
    $u = utterances($scene)[0];
    expect($u->from - $u->start)->toBeGreaterThan(3.0)->toBeLessThan(9.0)->and($u->to - $u->from)->toBeGreaterThan(24.0);

    $page->editing(fn () => $page->drag('[data-testid=trim-to]', -12, 0));
    [$row] = SceneRows::all($scene->refresh())['takes'];
    expect($row['sourceOut'])->toBeGreaterThan(2.0)->and($row['sourceIn'])->toBeNull();
    $page->editing(fn () => $page->click('[data-testid=take-voice]'));
    expect(SceneRows::all($scene->refresh())['takes'][0]['chosen'])->toBeFalse();
    unlink($file);

    // Somebody who does not let the page listen.
    [$page] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $page->click('[data-testid=step-Act]');
    $page->click('[data-testid=act-lines]');
    $page->click('[data-testid=record-new]');
    $page->until(fn (): bool => preg_match('/microphone/i', $page->text('body')) === 1, 'a word about the microphone', 30.0);
    expect(SceneRows::all($scene->refresh())['takes'])->toHaveCount(1);
});
