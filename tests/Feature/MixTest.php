<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\RenderJob;
use App\Models\Scene;
use App\Renders\DrawChunk;
use App\Renders\FrameStore;
use App\Renders\JoinRender;
use App\Renders\RenderDesk;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use App\Sound\SceneSound;
use App\Sound\SoundFiles;
use App\Speech\Readings;
use CrispReel\Core\Compile\GivingWay;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Sound\Cue;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\File;
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

/**
 * LUFS of a part of a sound file, by ffmpeg's meter (EBU R 128), which is not what the mix was made with.
 *
 * @param  float  $from  seconds
 */
function metered(string $file, float $from, float $to): float
{
    $told = (string) shell_exec(sprintf(
        'ffmpeg -nostdin -hide_banner -ss %.3F -to %.3F -i %s -af ebur128=framelog=verbose -f null - 2>&1',
        $from, $to, escapeshellarg($file),
    ));
    preg_match_all('/I:\s+(-?[\d.]+) LUFS/', $told, $m);

    return (float) end($m[1]);
}

test('a sound is as loud as a file says, whether it has one channel or two', function (): void {
    $files = app(SoundFiles::class);
    $tone = Wave::silence(48000, 2.5);
    $tone->samples = array_map(static fn (int $i): float => 0.5 * sin(2 * M_PI * 997 * $i / 48000), range(0, 120_000 - 1));
    $mono = $tone->toWav();
    [$pcm, $channels] = $files->sides($mono);
    expect($channels)->toBe(1)->and(max(unpack('s*', $pcm) ?: [0]))->toEqualWithDelta(16384, 3);
    // A tone of 997 Hz has -3.01 LUFS at full scale on one side (ITU-R BS.1770), so 0 on both, and half of that is -6.02.
    foreach ($files->loudness($mono) as $lufs) {
        expect($lufs)->toEqualWithDelta(-6.02, 0.15);
    }
    $path = tempnam(sys_get_temp_dir(), 'reel').'.wav';
    file_put_contents("{$path}.mono.wav", $mono);
    shell_exec(sprintf(
        'ffmpeg -v error -y -i %s -af "pan=stereo|FL=c0|FR=c0" %s', escapeshellarg("{$path}.mono.wav"), escapeshellarg($path),
    ));
    $stereo = (string) file_get_contents($path);
    expect($files->sides($stereo)[1])->toBe(2)->and($files->loudness($stereo))->toHaveCount(3)
        ->and($files->loudness($stereo)[1])->toEqualWithDelta($files->loudness($mono)[1], 0.11)
        ->and($files->loudness(Wave::silence(48000, 2.0)->toWav()))->toBe([-70.0, -70.0])
        ->and($files->loudness(Wave::silence(48000, 0.2)->toWav()))->toBe([]);
    array_map(unlink(...), [$path, "{$path}.mono.wav"]);
});

test('speech stands twelve decibels above what lies under it, by a meter, whatever is loud by itself', function (
    string $sound, float $level, string $voice, string $text,
): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'item.set', 'item' => 'Oda', 'voice' => $voice], ['do' => 'line.add', 'item' => 'Oda', 'text' => $text, 'start' => 36],
        ['do' => 'sound.add', 'asset' => $sound, 'start' => 0, 'lane' => 'ambience', 'level' => $level, 'repeats' => true],
    ]);
    app(Readings::class)->makeAll($scene);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $u = $compiled->utterances[0];
    expect($compiled->heard[0]->loud)->not->toBe([]);
    $folder = sys_get_temp_dir().'/reel-'.bin2hex(random_bytes(6));
    mkdir($folder);
    app(SceneSound::class)->mix($compiled, 0, $compiled->frames, $folder, stems: true);
    [$from, $to] = [$u->from / 24, $u->to / 24];
    $above = metered("{$folder}/speech.wav", $from, $to) - metered("{$folder}/ambience.wav", $from, $to);
    File::deleteDirectory($folder);
    $lowered = -min([0.0, ...array_column(GivingWay::of($compiled)->corners(), 1)]);
    expect($above)->toBeGreaterThan(12.0);
    if ($lowered > 0.0) {
        // And nothing is lowered farther than it must.
        expect($above)->toBeLessThan(17.0);
    }
})->with([
    'waves' => ['sound-waves', 0.0, 'keel', 'The last boat has gone and left us on the pier, and nobody has said a word of it.'],
    'loud waves' => ['sound-waves', 9.0, 'lantern', 'The last boat has gone and left us on the pier, and nobody has said a word of it.'],
    'soft waves' => ['sound-waves', -24.0, 'lantern', 'The last boat has gone, and nobody has said a word of it.'],
    'loud waves, a short line' => ['sound-waves', 9.0, 'lantern', 'Not without me.'],
]);

test('a scene in which only steps are heard makes no silent film', function (): void {
    Queue::fake();
    $scene = pier($this);
    $this->edit($scene, [
        ['do' => 'camera.add', 'position' => [0, 1.5, 4], 'rotation' => [0, 0, 0, 1]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk', 'start' => 0], ['do' => 'scene.set', 'mix' => ['happens' => true]],
    ]);
    expect(app(RenderDesk::class)->heard(app(RenderDesk::class)->prepare($scene->refresh(), null, [])))->not->toBeNull();
});

test('the sound of a range is taken away by itself and by lanes, as loud as it was asked for, without drawing', function (): void {
    Queue::fake();
    $user = $this->person();
    $scene = talkers($this);
    $scene->production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
    $this->actingAs($user);
    $ask = fn (array $wish) => $this->postJson("/api/scenes/{$scene->id}/renders", $wish + ['from' => 24, 'to' => 96]);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'idle', 'start' => 0]]);
    $ask(['format' => 'wav'])->assertStatus(422)->assertJsonPath('reason', 'render.silent');
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'The last boat has gone.', 'start' => 24],
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0, 'lane' => 'ambience'],
    ]);
    app(Readings::class)->makeAll($scene);
    $ask(['format' => 'wav', 'loudness' => -3])->assertStatus(422);
    $made = function (array $wish) use ($ask): string {
        $job = RenderJob::query()->findOrFail($ask($wish)->assertCreated()->json('render.id'));
        Queue::assertPushed(JoinRender::class, fn (JoinRender $j): bool => $j->renderId === $job->id);
        app()->call([new JoinRender($job->id), 'handle']);
        expect($job->refresh()->status)->toBe('done')->and($job->chunks()->count())->toBe(0);

        return app(FrameStore::class)->result($job);
    };
    $wav = $made(['format' => 'wav', 'loudness' => -23]);
    expect(metered($wav, 0, 3))->toEqualWithDelta(-23.0, 0.5)
        // Three seconds at 48,000 samples of two channels and two bytes.
        ->and(strlen((string) file_get_contents($wav)))->toBeGreaterThan(575_999)->toBeLessThan(576_200);
    $zip = new ZipArchive;
    expect($zip->open($made(['format' => 'stems'])))->toBeTrue()
        ->and(array_map($zip->getNameIndex(...), range(0, $zip->numFiles - 1)))->toBe(['mix.wav', 'speech.wav', 'ambience.wav']);
    Queue::assertNotPushed(DrawChunk::class);
});

test('what is heard from the camera is told to the page, and is so in the film', function (): void {
    Queue::fake();
    $user = $this->person();
    $scene = talkers($this);
    $scene->production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'The last boat has gone.', 'start' => 24],
        [
            'do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'start' => 0,
        ], ['do' => 'sound.add', 'asset' => 'sound-bell', 'start' => 0],
        ['do' => 'scene.set', 'mix' => ['happens' => true]],
    ]);
    app(Readings::class)->makeAll($scene);
    $places = fn (): array => $this->actingAs($user)->getJson("/api/scenes/{$scene->id}/places")->assertOk()->json();
    expect(array_filter($places()['lines']))->toBe([])->and(array_filter($places()['noises']))->toBe([]);
    $this->edit($scene, [['do' => 'scene.set', 'mix' => ['placed' => ['speech', 'steps', 'effects']]]]);
    $told = $places();
    [$said] = array_values($told['lines']);
    $manifest = app(SceneManifests::class)->of($scene->refresh());
    expect($said[0][2])->toBeLessThan(0.0)->and($said[0][1])->toBeLessThan(-1.0)->and(
        count($told['noises']),
    )->toBe(count($manifest['noises']))
        ->and(array_values($told['sounds']))->toBe([[]]);
    foreach (cuesOf($scene) as $cue) {
        expect($cue->placed === [])->toBe($cue->lane === 'effects');
    }
    [$left, $right] = cuesOf($scene)[0]->sides(48000);
    expect($left)->toBeGreaterThan($right);
});
