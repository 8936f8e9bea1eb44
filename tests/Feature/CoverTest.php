<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\Scene;
use App\Models\User;
use App\Scenes\FirstCuts;
use App\Scenes\SceneManifests;
use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Staging\UnableToStage;

/** Oda talks to Bram, who walks off later. */
function talking(Tests\TestCase $test, ?User $user = null): Scene
{
    $scene = $test->scene($user ?? $test->person());
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0], 'headingDeg' => 90, 'name' => 'Oda'],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [1.4, 0, 0], 'headingDeg' => -90, 'name' => 'Bram'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk', 'start' => 0],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 60],
    ]);

    return $scene->refresh();
}

function camera(Scene $scene, float $frame, string $letter = 'A'): CameraPose
{
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $id = array_key_first(array_filter($compiled->document->cameras, static fn ($c): bool => $c->letter === $letter));

    return SceneEvaluator::at($compiled, $frame)->cameras[$id];
}

test('a camera on somebody is made, aimed anew, led elsewhere, and each is one step', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $this->edit($scene, [['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 10, 'size' => 'closeUp', 'sideDeg' => 30]]);
    $rows = SceneRows::all($scene->refresh());
    expect($rows['cameras'])->toHaveCount(1)->and($rows['shots'])->toHaveCount(1)
        ->and($rows['framings'][0])->toMatchArray(['size' => 'closeUp', 'sideDeg' => 30.0, 'keep' => 'turn', 'partnerId' => null]);
    $near = camera($scene, 10);
    // Moved with her, wherever she is put, with whom she speaks to.
    $this->edit($scene, [
        ['do' => 'item.place', 'item' => 'Oda', 'position' => [0, 0, 3]],
        ['do' => 'item.place', 'item' => 'Bram', 'position' => [1.4, 0, 3]],
    ]);
    expect(camera($scene, 10)->position[2] - $near->position[2])->toEqualWithDelta(3.0, 0.01);
    $this->edit($scene, [['do' => 'camera.frame', 'camera' => 'A', 'subject' => 'Oda', 'frame' => 10, 'size' => 'full']]);
    expect(SceneRows::all($scene->refresh())['framings'])->toHaveCount(1)->and(camera($scene, 10)->focusMetres)->toBeGreaterThan(3.0);
    $this->edit($scene, [[
        'do' => 'camera.frame', 'camera' => 'A', 'move' => true, 'subject' => 'Oda', 'frame' => 30, 'over' => 24, 'size' => 'medium',
    ]], $user);
    expect(SceneRows::all($scene->refresh())['framings'])->toHaveCount(2)
        ->and(camera($scene, 30)->focusMetres)->toBeGreaterThan(camera($scene, 42)->focusMetres)
        ->and(camera($scene, 42)->focusMetres)->toBeGreaterThan(camera($scene, 54)->focusMetres);
    expect(app(App\Edits\EditRunner::class)->undo($scene->refresh(), $user)[0]->label)->toContain('Move camera A');
});

test('loosened or held it is where it was, and takes keys again', function (): void {
    $scene = talking($this);
    $this->edit($scene, [[
        'do' => 'camera.frame', 'subject' => 'Bram', 'frame' => 60, 'size' => 'full', 'sideDeg' => 40, 'keep' => 'follow',
    ]]);
    $key = ['do' => 'camera.key', 'camera' => 'A', 'frame' => 1, 'position' => [0, 1, 4], 'rotation' => [0, 0, 0, 1]];
    expect(fn () => $this->edit($scene, [$key]))->toThrow(UserError::class, 'led by whom it films');
    $before = array_map(static fn (int $f): array => camera($scene, $f)->position, [0, 70, 100]);
    $this->edit($scene, [['do' => 'camera.loosen', 'camera' => 'A']]);
    $rows = SceneRows::all($scene->refresh());
    expect($rows['framings'])->toBe([])->and(count($rows['cameras'][0]['keys']))->toBeGreaterThan(4)
        ->and(array_map(static fn (int $f): array => camera($scene, $f)->position, [0, 70, 100]))->toEqualWithDelta($before, 0.02);
    $this->edit($scene, [['do' => 'camera.frame', 'camera' => 'A', 'subject' => 'Bram', 'frame' => 60, 'keep' => 'follow']]);
    $there = camera($scene, 90)->position;
    $this->edit($scene, [['do' => 'camera.loosen', 'camera' => 'A', 'hold' => 90]]);
    expect(SceneRows::all($scene->refresh())['cameras'][0]['keys'])->toHaveCount(1)
        ->and(camera($scene, 5)->position)->toEqualWithDelta($there, 1e-4);
    expect(fn () => $this->edit($scene, [['do' => 'camera.loosen', 'camera' => 'A']]))->toThrow(UserError::class, 'has keys already');
});

test('who is filmed is taken out: the camera stays where it stood, and that is said', function (): void {
    $scene = talking($this);
    $this->edit($scene, [[
        'do' => 'camera.frame', 'subject' => 'Oda', 'partner' => 'Bram', 'kind' => 'overShoulder', 'sideDeg' => 30, 'frame' => 10,
    ]]);
    $stood = camera($scene, 10)->position;
    $edit = $this->edit($scene, [['do' => 'item.remove', 'item' => 'Bram']]);
    expect($edit->label)->toBe('Remove Bram; camera A stays where it stood')
        ->and(camera($scene, 10)->position)->toEqualWithDelta($stood, 0.02)->and(SceneRows::all($scene->refresh())['framings'])->toBe([]);
});

test('what makes no sense is refused in words', function (array $in, string $says): void {
    $scene = talking($this);
    expect(fn () => $this->edit($scene, [['do' => 'camera.frame', 'frame' => 0] + $in]))->toThrow(UserError::class, $says);
})->with([
    'with herself' => [['subject' => 'Oda', 'partner' => 'Oda'], 'cannot be filmed with Oda'],
    'over nobody\'s shoulder' => [['subject' => 'Oda', 'kind' => 'overShoulder'], 'takes two'],
    'nobody' => [['subject' => 'Nobody'], 'There is no item "Nobody"'],
]);

test('a lens of a camera that knows whom it films is changed, and it steps back for it', function (): void {
    $scene = talking($this);
    $this->edit($scene, [['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 10, 'size' => 'medium', 'focalMm' => 35]]);
    $near = camera($scene, 10);
    $this->edit($scene, [['do' => 'camera.set', 'camera' => 'A', 'focalMm' => 70, 'fStop' => 2.8]]);
    $far = camera($scene, 10);
    expect($far->focalMm)->toBe(70.0)->and($far->fStop)->toBe(2.8)->and($far->focusMetres / $near->focusMetres)->toEqualWithDelta(2.0, 0.1);
});

test('set-ups come with what they would see, and a stranger gets none', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $ids = collect(SceneRows::all($scene)['items'])->pluck('id', 'name');
    $path = "/api/scenes/{$scene->id}/set-ups?subject=i{$ids['Oda']}&partner=i{$ids['Bram']}&frame=20&sideDeg=35&height=level";
    $found = $this->actingAs($user)->getJson($path)->assertOk()->json('setUps');
    expect(array_count_values(array_column($found, 'family')))->toBe(['one' => 8, 'two' => 8])
        ->and($found[1])->toMatchArray(['title' => 'Close-up', 'says' => '', 'crosses' => false])
        ->and($found[1]['view']['position'])->toHaveCount(3)
        ->and($found[1]['framing'])->toMatchArray(['subject' => "i{$ids['Oda']}", 'size' => 'closeUp', 'frame' => 20]);
    // What is shown is what one gets.
    $this->edit($scene, [['do' => 'camera.frame'] + $found[1]['framing']]);
    expect(camera($scene, 20)->position)->toEqualWithDelta($found[1]['view']['position'], 0.001);
    $this->getJson("/api/scenes/{$scene->id}/set-ups?subject=i999999&frame=x&height=sky")->assertOk()->assertExactJson(['setUps' => []]);
    $this->actingAs($this->person())->getJson($path)->assertNotFound();
});

test('shots are laid over a span of the reel as one step, and what is out of order is refused', function (): void {
    $scene = talking($this);
    $this->edit($scene, [
        ['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 0], ['do' => 'camera.frame', 'subject' => 'Bram', 'frame' => 0],
    ]);
    $edit = $this->edit($scene, [['do' => 'reel.lay', 'from' => 20, 'to' => 60, 'shots' => [
        ['camera' => 'B', 'in' => 20], ['camera' => 'A', 'in' => 44],
    ]]]);
    $shots = static fn (): array => array_map(
        static fn (array $s): array => [$s['in'], $s['out']],
        SceneRows::all($scene->refresh())['shots'],
    );
    expect($edit->label)->toBe('Lay 2 shots on the reel')->and($shots())->toBe([[0, 20], [20, 44], [44, 60], [60, null]]);
    expect(fn () => $this->edit($scene, [['do' => 'reel.lay', 'from' => 20, 'to' => 60, 'shots' => [
        ['camera' => 'B', 'in' => 20], ['camera' => 'A', 'in' => 80],
    ]]]))->toThrow(UserError::class, 'begins at frame 80');
    // Over all of it: one shot that lasts as long as the scene.
    $this->edit($scene, [['do' => 'reel.lay', 'from' => 0, 'to' => 1000, 'shots' => [['camera' => 'B', 'in' => 0]]]]);
    expect($shots())->toBe([[0, null]]);
});

test('first cuts come in three styles, and taking one makes its cameras and shots, undone as one', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $cuts = $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/cuts", ['people' => ['Oda', 'Bram']])->assertOk()->json('cuts');
    expect(array_keys($cuts))->toBe(['plain', 'tense', 'lively'])
        ->and($cuts['plain']['facts'])->toMatchArray(['crossings' => 0, 'jumps' => 0]);
    $edit = $this->edit($scene, $cuts['tense']['commands'], $user);
    $rows = SceneRows::all($scene->refresh());
    $count = count($cuts['tense']['shots']);
    expect($edit->label)->toContain('on the reel')->and($rows['shots'])->toHaveCount($count)
        ->and(array_column($rows['shots'], 'in'))->toBe(array_column($cuts['tense']['shots'], 'from'))
        ->and(count($rows['framings']))->toBe(count($rows['cameras']));
    app(App\Edits\EditRunner::class)->undo($scene->refresh(), $user);
    expect(SceneRows::all($scene->refresh()))->toMatchArray(['shots' => [], 'cameras' => [], 'framings' => []]);
    $ask = fn (array $in) => $this->postJson("/api/scenes/{$scene->id}/cuts", $in);
    expect($ask(['from' => 10, 'to' => 20])->assertStatus(422)->json('message'))->toContain('too short')
        ->and($ask(['people' => ['Nobody']])->assertStatus(422)->json('message'))->toContain('Nobody is chosen');
});

test('a first cut from the command line', function (): void {
    $scene = talking($this);
    $this->artisan('reel:cover', ['scene' => (string) $scene->id, '--style' => 'sudden'])->assertExitCode(2);
    $this->artisan('reel:cover', ['scene' => (string) $scene->id, '--people' => 'Oda,Bram', '--take' => true])->assertExitCode(0);
    expect(SceneRows::all($scene->refresh())['shots'])->not->toBe([]);
});

test('the shots are a list to read and a file to take along', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $this->edit($scene, [['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 0, 'size' => 'full']]);
    $this->actingAs($user)->getJson("/api/scenes/{$scene->id}/shots")->assertOk()->assertJsonPath('shots.0.name', 'Oda')
        ->assertJsonPath('shots.0.size', 'full');
    $file = $this->get("/api/scenes/{$scene->id}/shots?as=csv")->assertOk();
    expect($file->headers->get('Content-Disposition'))->toContain('scene-1-shots.csv')
        ->and($file->getContent())->toContain('Shot,Camera,Name');
    $this->actingAs($this->person())->getJson("/api/scenes/{$scene->id}/shots")->assertNotFound();
});

test('a locked camera stays what it is until it is unlocked', function (array $command): void {
    $scene = talking($this);
    $this->edit($scene, [
        ['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 0], ['do' => 'camera.set', 'camera' => 'A', 'locked' => true],
    ]);
    $framing = SceneRows::all($scene->refresh())['framings'][0]['id'];
    $before = camera($scene, 5);
    $command = array_map(static fn (mixed $v): mixed => $v === 'FRAMING' ? $framing : $v, $command);
    expect(fn () => $this->edit($scene, [$command]))->toThrow(UserError::class, 'Camera A is locked.')
        ->and(camera($scene, 5))->toEqual($before);
    $this->edit($scene, [['do' => 'camera.set', 'camera' => 'A', 'locked' => false], $command]);
})->with([
    'aimed' => [['do' => 'camera.frame', 'camera' => 'A', 'subject' => 'Bram', 'frame' => 0]],
    'its lens' => [['do' => 'camera.set', 'camera' => 'A', 'focalMm' => 85]],
    'its framing' => [['do' => 'framing.set', 'framing' => 'FRAMING', 'size' => 'closeUp']],
    'a framing less' => [['do' => 'framing.remove', 'framing' => 'FRAMING']],
    'loosened' => [['do' => 'camera.loosen', 'camera' => 'A']], 'removed' => [['do' => 'camera.remove', 'camera' => 'A']],
]);

test('a camera in somebody\'s hands trembles over its own way, and stands when they let go', function (): void {
    $scene = talking($this);
    $this->edit($scene, [['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 0, 'keep' => 'still']]);
    $stood = camera($scene, 30);
    $this->edit($scene, [['do' => 'camera.set', 'camera' => 'A', 'shake' => ['degrees' => 1, 'hertz' => 2, 'metres' => 0.02]]]);
    expect(camera($scene, 30)->position)->not->toEqual($stood->position)
        ->and(camera($scene, 30)->position)->toEqualWithDelta($stood->position, 0.04);
    $this->edit($scene, [['do' => 'camera.set', 'camera' => 'A', 'shake' => null]]);
    expect(camera($scene, 30))->toEqual($stood);
});

test('a camera that is led by keys is aimed before it is led on', function (): void {
    $scene = talking($this);
    $this->edit($scene, [['do' => 'camera.add', 'position' => [0, 1.5, 4], 'rotation' => [0, 0, 0, 1]]]);
    $lead = ['do' => 'camera.frame', 'camera' => 'A', 'move' => true, 'subject' => 'Oda', 'frame' => 24, 'over' => 12];
    expect(fn () => $this->edit($scene, [$lead]))->toThrow(UserError::class, 'led by keys')
        ->and(camera($scene, 30)->position)->toBe([0.0, 1.5, 4.0]);
    $this->edit($scene, [['do' => 'camera.frame', 'camera' => 'A', 'subject' => 'Oda', 'frame' => 0], $lead]);
    expect(SceneRows::all($scene->refresh())['framings'])->toHaveCount(2);
});

test('a shot dissolves and the reel fades, and what is split or removed leaves the end of the reel its fade', function (): void {
    $scene = talking($this);
    $this->edit($scene, [
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'camera.add', 'position' => [3, 1.5, 4], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 40],
    ]);
    $shots = static fn (): array => $scene->shots()->orderBy('sort')->get()->all();
    $this->edit($scene->refresh(), [
        ['do' => 'shot.set', 'shot' => $shots()[0]->id, 'begins' => 'black', 'beginsOver' => 10],
        ['do' => 'shot.set', 'shot' => $shots()[1]->id, 'begins' => 'dissolve', 'beginsOver' => 8, 'ends' => 'white', 'endsOver' => 6],
    ]);
    $manifest = static fn (): array => app(SceneManifests::class)->of($scene->refresh());
    $camera = static fn (string $letter): string => array_column($manifest()['cameras'], 'id', 'letter')[$letter];
    $end = $manifest()['frames'];
    expect(array_map(array_values(...), $manifest()['blends']))->toBe([
        [0, 10, null, $camera('A'), 'black'], [36, 44, $camera('A'), $camera('B'), null], [$end - 6, $end, $camera('B'), null, 'white'],
    ]);
    // The shot that ends the reel is split: its last part fades.
    $this->edit($scene->refresh(), [['do' => 'shot.cut', 'camera' => 'A', 'frame' => 60]]);
    expect($manifest()['blends'][2]['a'])->toBe($camera('A'));
    $this->edit($scene->refresh(), [['do' => 'shot.remove', 'shot' => $shots()[2]->id]]);
    expect(array_map(array_values(...), $manifest()['blends'])[2])->toBe([$end - 6, $end, $camera('B'), null, 'white']);
    expect(fn () => $this->edit($scene->refresh(), [['do' => 'shot.set', 'shot' => $shots()[0]->id, 'begins' => 'wipe']]))
        ->toThrow(UserError::class);
});

test('a first cut leaves what is kept, and lays the rest around it', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $this->edit($scene, [
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'camera.add', 'position' => [3, 1.5, 4], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 60], ['do' => 'shot.cut', 'camera' => 'A', 'frame' => 100],
    ]);
    $kept = $scene->shots()->orderBy('sort')->get()[1];
    $this->edit($scene->refresh(), [['do' => 'shot.set', 'shot' => $kept->id, 'kept' => true, 'label' => 'mine']]);
    $cuts = app(FirstCuts::class)->of($scene->refresh(), [], 0, null);
    $this->edit($scene->refresh(), $cuts['plain']['commands'], $user);
    $now = $scene->shots()->where('id', $kept->id)->first();
    expect([$now->in_frame, $now->out_frame, $now->label, $now->camera_id])->toBe([60, 100, 'mine', $kept->camera_id]);
    $all = $scene->shots()->orderBy('sort')->get();
    for ($i = 1; $i < count($all); $i++) {
        expect($all[$i]->in_frame)->toBe($all[$i - 1]->out_frame);
    }
});

test('a cut moves alone, or with all that follow, and nothing gets a gap', function (): void {
    $scene = talking($this);
    $this->edit($scene, [
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'camera.add', 'position' => [3, 1.5, 4], 'rotation' => [0, 0, 0, 1], 'focalMm' => 40.0],
        ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 40], ['do' => 'shot.cut', 'camera' => 'A', 'frame' => 70],
    ]);
    $span = static fn (array $s): array => [$s['in'], $s['out']];
    $shots = static fn (): array => array_map($span, SceneRows::all($scene->refresh())['shots']);
    $second = $scene->shots()->orderBy('sort')->get()[1]->id;
    $this->edit($scene, [['do' => 'shot.move', 'shot' => $second, 'frame' => 30]]);
    expect($shots())->toBe([[0, 30], [30, 70], [70, null]]);
    $this->edit($scene, [['do' => 'shot.move', 'shot' => $second, 'frame' => 50, 'ripple' => true]]);
    expect($shots())->toBe([[0, 50], [50, 90], [90, null]]);
    $this->edit($scene, [['do' => 'shot.move', 'shot' => $second, 'frame' => 10, 'ripple' => true]]);
    expect($shots())->toBe([[0, 10], [10, 50], [50, null]]);
    expect(fn () => $this->edit($scene, [['do' => 'shot.move', 'shot' => $second, 'frame' => 5000, 'ripple' => true]]))
        ->toThrow(UserError::class, 'With all that follows');
});

test('what a camera loses on the reel is told, to those who may see the scene', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $this->edit($scene, [
        ['do' => 'camera.frame', 'subject' => 'Bram', 'frame' => 0, 'size' => 'mediumCloseUp', 'sideDeg' => 90, 'keep' => 'still'],
    ]);
    $path = "/api/scenes/{$scene->id}/lookout";
    $notes = $this->actingAs($user)->getJson($path)->assertOk()->json('notes');
    expect(array_column($notes, 'code'))->toContain('camera.lost');
    $mend = $notes[array_search('camera.lost', array_column($notes, 'code'), true)]['mends'][0]['commands'];
    $this->edit($scene->refresh(), $mend, $user);
    expect(array_column($this->getJson($path)->json('notes'), 'code'))->not->toContain('camera.lost');
    $this->actingAs($this->person())->getJson($path)->assertNotFound();
});

test('who was sharp is taken out: the camera stays, and is sharp on whom it films', function (): void {
    $scene = talking($this);
    $this->edit($scene, [['do' => 'camera.frame', 'subject' => 'Oda', 'focus' => 'Bram', 'frame' => 0, 'shift' => [0.5, 0, 0]]]);
    expect(SceneRows::all($scene->refresh())['framings'][0])->toMatchArray(['shift' => [0.5, 0, 0]]);
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Bram']]);
    expect(SceneRows::all($scene->refresh())['framings'][0])->toMatchArray(['focusId' => null]);
});

test('a group is filmed as one; who is taken out of the scene leaves it, and comes back with undo', function (): void {
    $user = $this->person();
    $scene = talking($this, $user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'mirre-tolland', 'position' => [0.7, 0, 1.2], 'headingDeg' => 180, 'name' => 'Mirre'],
        [
            'do' => 'camera.frame', 'subject' => 'Oda', 'partner' => 'Bram', 'others' => ['Mirre'], 'kind' => 'together',
            'size' => 'full', 'sideDeg' => 90, 'frame' => 0,
        ],
    ], $user);
    $others = static fn (): array => SceneRows::all($scene->refresh())['framings'][0]['others'];
    $mirre = $others();
    expect($mirre)->toHaveCount(1)->and($mirre[0])->toMatch('/^i\d+$/');
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Mirre']], $user);
    expect($others())->toBe([])->and(SceneRows::all($scene)['framings'])->toHaveCount(1);
    app(App\Edits\EditRunner::class)->undo($scene->refresh(), $user);
    expect($others())->toBe($mirre);
    $twice = ['do' => 'camera.frame', 'subject' => 'Oda', 'partner' => 'Bram', 'others' => ['Oda'], 'kind' => 'together', 'frame' => 0];
    expect(fn () => $this->edit($scene, [$twice]))->toThrow(UserError::class, 'Oda is named twice');
});

test('what a camera does slips under its shots: framings and keys come later, cuts stay, a still one is refused', function (): void {
    $scene = talking($this);
    $this->edit($scene, [
        ['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 10, 'size' => 'closeUp'],
        ['do' => 'camera.frame', 'camera' => 'A', 'move' => true, 'subject' => 'Oda', 'frame' => 30, 'over' => 24, 'size' => 'medium'],
    ]);
    $before = camera($scene, 42);
    $shots = SceneRows::all($scene)['shots'];
    $this->edit($scene, [['do' => 'camera.slip', 'camera' => 'A', 'by' => 12]]);
    $rows = SceneRows::all($scene->refresh());
    expect(array_column($rows['framings'], 'frame'))->toBe([22, 42])->and($rows['shots'])->toEqual($shots)
        ->and(camera($scene, 54)->focusMetres)->toEqualWithDelta($before->focusMetres, 0.1);
    $this->edit($scene, [['do' => 'camera.loosen', 'camera' => 'A']]);
    $keys = array_column(SceneRows::all($scene->refresh())['cameras'][0]['keys'], 'frame');
    $this->edit($scene, [['do' => 'camera.slip', 'camera' => 'A', 'by' => 5]]);
    expect(array_column(SceneRows::all($scene->refresh())['cameras'][0]['keys'], 'frame'))
        ->toBe(array_map(static fn (int $f): int => $f + 5, $keys));
    $this->edit($scene, [['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 10]]);
    expect(fn () => $this->edit($scene, [['do' => 'camera.slip', 'camera' => 'B', 'by' => 5]]))
        ->toThrow(UnableToStage::class, 'does not move');
});
