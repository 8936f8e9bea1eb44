<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\Scene;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use App\Sound\SceneSound;
use App\Speech\Readings;
use CrispReel\Core\Sound\Cue;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Queue;

/** @return list<Cue> */
function cuesOf(Scene $scene): array
{
    $compiled = app(SceneStream::class)->compile($scene->refresh());

    return app(SceneSound::class)->cues($compiled, 0, $compiled->frames);
}

/** @return list<string> lanes that are heard, each once */
function lanesHeard(Scene $scene): array
{
    return array_values(array_unique(array_map(static fn (Cue $c): string => $c->lane, cuesOf($scene))));
}

test('a mix is set in part, kept, undone, and refused where it makes no sense', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [['do' => 'scene.set', 'mix' => ['speech' => 3]]], $user);
    $this->edit($scene, [['do' => 'scene.set', 'mix' => ['muted' => ['music', 'steps'], 'lowered' => 20]]], $user);
    $mix = app(SceneStream::class)->compile($scene->refresh())->document->mix;
    expect([$mix->speech, $mix->muted, $mix->lowered, $mix->effects])->toBe([3.0, ['music', 'steps'], 20.0, 0.0]);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect($scene->refresh()->mix)->toBe(['speech' => 3]);
    $this->getJson("/api/scenes/{$scene->id}")->assertOk()->assertJsonPath('scene.mix.speech', 3);
    expect(fn () => $this->edit($scene, [['do' => 'scene.set', 'mix' => ['speech' => 40]]]))->toThrow(UserError::class, 'speech')
        ->and(fn () => $this->edit($scene, [['do' => 'scene.set', 'mix' => ['muted' => ['choir']]]]))->toThrow(UserError::class);
});

test('lanes are as loud in the film as the mix has them, and what is muted is not in it', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'The last boat has gone.', 'start' => 24],
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0, 'lane' => 'ambience', 'level' => -12,
            'curve' => [[0, -6], [1.5, 0]]],
        ['do' => 'scene.set', 'mix' => ['speech' => 6, 'ambience' => -3]],
    ]);
    app(Readings::class)->makeAll($scene);
    [$said, $sea] = cuesOf($scene);
    expect($said->gain)->toEqualWithDelta(10 ** (6 / 20), 1e-9)->and($sea->gain)->toEqualWithDelta(10 ** (-15 / 20), 1e-9)
        ->and($sea->curve)->toBe([[0, -6.0], [72000, 0.0]])->and($sea->share(0))->toEqualWithDelta(10 ** (-6 / 20), 1e-9)
        ->and($sea->share(36000))->toEqualWithDelta(10 ** (-3 / 20), 1e-9)->and($sea->share(90000))->toBe(1.0);
    $this->edit($scene, [['do' => 'scene.set', 'mix' => ['muted' => ['speech']]]]);
    expect(lanesHeard($scene))->toBe(['ambience']);
});

test('steps are heard when they are wished for, on their own lane, and follow the walk', function (): void {
    $scene = pier($this);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk', 'start' => 24]]);
    expect(cuesOf($scene))->toBe([]);
    $this->edit($scene, [['do' => 'scene.set', 'mix' => ['happens' => true]]]);
    $manifest = static fn (): array => app(SceneManifests::class)->of($scene->refresh());
    $steps = $manifest()['noises'];
    expect(count($steps))->toBeGreaterThan(3)->and($steps[0][0])->toBe('step')->and($manifest()['sounds'])->toBe([])
        ->and(lanesHeard($scene))->toBe(['steps'])->and(count(cuesOf($scene)))->toBe(count($steps));
    $beat = rows($scene)['beats'][0]['id'];
    $this->edit($scene, [['do' => 'beat.set', 'beat' => $beat, 'start' => 60]]);
    foreach ($manifest()['noises'] as $k => $step) {
        expect($step[3] - $steps[$k][3])->toEqualWithDelta(36.0, 0.02);
    }
    $set = rows($scene)['items'][0]['id'];
    $sound = $manifest()['noises'][0][2];
    $this->edit($scene, [['do' => 'item.set', 'item' => $set, 'underfoot' => 'stone']]);
    expect($manifest()['noises'][0][2])->not->toBe($sound);
    $out = tempnam(sys_get_temp_dir(), 'reel').'.wav';
    expect(Artisan::call('reel:sound', ['scene' => (string) $scene->id, '--out' => $out, '--stems' => true]))->toBe(0)
        ->and(is_file(substr($out, 0, -4).'.steps.wav'))->toBeTrue();
    array_map(unlink(...), glob(substr($out, 0, -4).'*') ?: []);
});

test('a sound that hangs on a touch goes with it, and counts in frames of the scene once that is taken away', function (): void {
    $scene = pier($this);
    $this->edit($scene, [
        ['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'handR', 'target' => 'Key', 'from' => 30],
        ['do' => 'sound.add', 'asset' => 'sound-bell', 'start' => 4],
    ]);
    $rows = rows($scene);
    [$contact, $sound] = [$rows['contacts'][0]['id'], $rows['sounds'][0]['id']];
    $this->edit($scene, [['do' => 'sound.set', 'sound' => $sound, 'contact' => $contact]]);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'idle', 'start' => 0]]);
    $start = static fn (): float => app(SceneStream::class)->compile($scene->refresh())->heard[0]->start;
    expect($start())->toBe(34.0);
    $this->edit($scene, [['do' => 'contact.set', 'contact' => $contact, 'from' => 50]]);
    expect($start())->toBe(54.0);
    $this->edit($scene, [['do' => 'contact.remove', 'contact' => $contact]]);
    expect(rows($scene)['sounds'][0]['contactId'])->toBeNull()->and($start())->toBe(4.0);
});
