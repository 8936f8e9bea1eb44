<?php

declare(strict_types=1);

use App\Models\Scene;
use App\Scenes\SceneManifests;
use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use App\Sound\SceneSound;
use App\Speech\Readings;
use CrispReel\Core\Compile\GivingWay;
use CrispReel\Core\Sound\Cue;
use CrispReel\Core\Sound\Mixdown;
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

/** Lets what the page plays be listened to: window.heardOf(seconds) comes to the mean squares of its left and its right. */
const TAP = <<<'JS'
    const old = AudioNode.prototype.connect;
    AudioNode.prototype.connect = function (to, ...rest) {
        if (to instanceof AudioDestinationNode && to.context instanceof AudioContext && !window.taps) {
            const context = to.context;
            window.taps = [[], []];
            window.tapRate = context.sampleRate;
            context.audioWorklet.addModule(arguments_[0]).then(() => {
                // What has one channel is heard on both sides.
                const both = new GainNode(context, { channelCount: 2, channelCountMode: 'explicit' });
                const splitter = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
                old.call(this, both);
                old.call(both, splitter);
                [0, 1].forEach((k) => {
                    const node = new AudioWorkletNode(context, 'recorder', { numberOfOutputs: 0 });
                    node.port.onmessage = (e) => window.taps[k].push(e.data);
                    old.call(splitter, node, k);
                });
            });
        }
        return old.call(this, to, ...rest);
    };
    JS;

test('each lane is as loud in the workspace as in the film', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has the last boat left the pier?', 'start' => 6],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 0],
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0, 'lane' => 'ambience', 'fadeIn' => 0.5, 'curve' => [[0, -6], [2, 0]]],
        ['do' => 'scene.set', 'mix' => ['happens' => true, 'ambience' => 3, 'placed' => ['speech', 'steps']]],
    ]);
    app(Readings::class)->makeAll($scene->refresh());
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $cues = app(SceneSound::class)->cues($compiled, 0, $compiled->frames);
    $lowering = GivingWay::of($compiled);
    $samples = SceneSound::samples($compiled, $compiled->frames);

    [$page, $driver] = $this->desk($user, $scene);
    $page->see('[data-testid=workspace]', 60.0);
    $worklet = '/build/assets/'.basename((glob(public_path('build/assets/recorder.worklet-*.js')) ?: [''])[0]);
    $driver->executeScript(str_replace('arguments_[0]', json_encode($worklet, JSON_THROW_ON_ERROR), TAP));
    $page->click('[data-testid=step-Act]');
    $page->click('[data-testid=act-sounds]');
    $page->click('[data-testid=mix] summary');
    $power = static fn (array $values): float => array_sum(
        array_map(static fn (float $v): float => $v * $v, $values),
    ) / max(1, count($values));
    foreach (['speech', 'steps', 'ambience'] as $lane) {
        $own = array_values(array_filter($cues, static fn (Cue $c): bool => $c->lane === $lane));
        $all = array_values(unpack('g*', implode('', iterator_to_array(Mixdown::blocks($own, $samples, $lowering), false))) ?: []);
        $film = [];
        foreach ([0, 1] as $k) {
            $film[] = $power(array_filter($all, static fn (int $i): bool => $i % 2 === $k, ARRAY_FILTER_USE_KEY));
        }
        $page->click("[aria-label=\"Only {$lane}\"]");
        $page->click('[data-testid=play]');
        // It goes round: any stretch as long as the scene has all of it, once its first round is over.
        $seconds = $compiled->frames / 24;
        $page->until(fn (): bool => (float) $driver->executeScript(
            'return window.taps ? window.taps[1].length * 128 / window.tapRate : 0',
        ) > 2.0 * $seconds + 1.0, 'two rounds of it', 60.0);
        $heard = $driver->executeScript(
            'const n = Math.round(arguments[0] * window.tapRate); return window.taps.map((blocks) => { let sum = 0, left = n;'
            .'for (const b of blocks.reverse()) for (let i = b.length - 1; i >= 0 && left > 0; i--, left--) sum += b[i] * b[i];'
            .'return sum / n; })',
            [$seconds],
        );
        $page->click('[data-testid=play]');
        $page->click("[aria-label=\"Only {$lane}\"]");
        $driver->executeScript('window.taps[0].length = window.taps[1].length = 0');
        foreach (['left', 'right'] as $k => $side) {
            expect(abs(10 * log10($heard[$k] / $film[$k])))->toBeLessThan(1.0, "{$lane}, {$side}: {$heard[$k]} and {$film[$k]}");
        }
    }
});
