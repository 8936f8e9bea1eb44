<?php

declare(strict_types=1);

use App\Assets\BlobStore;
use App\Assets\StoreCheck;
use App\Exceptions\UserError;
use App\Models\Scene;
use App\Renders\Encoder;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;
use App\Scenes\SceneStream;
use App\Sound\SceneSound;
use App\Sound\SoundFiles;
use App\Speech\Readings;
use App\Speech\ReadLine;
use App\Speech\VoiceBook;
use App\Speech\Wish;
use CrispReel\Core\Compile\GivingWay;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Sound\Lowering;
use CrispReel\Core\Sound\Mixdown;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Symfony\Component\Process\Process;

test('a line comes after the last one, with gestures, and one put between shifts who waited', function (): void {
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has he gone?', 'start' => 12, 'as' => '$a']]);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Bram', 'text' => 'Not yet.']]);
    [$a, $b] = linesOf($scene);
    expect($b['afterId'])->toBe($a['id'])->and($a['afterId'])->toBeNull()->and(rows($scene)['beats'])->toHaveCount(2)
        ->and($a['beatId'])->not->toBeNull();
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'I said:', 'after' => $a['id'], 'gestures' => false]]);
    $lines = linesOf($scene);
    expect($lines[2]['afterId'])->toBe($a['id'])->and($lines[1]['afterId'])->toBe($lines[2]['id'])->and($lines[2]['beatId'])->toBeNull();
    $order = array_map(static fn (Utterance $u): string => $u->line->text, utterances($scene));
    expect($order)->toBe(['Has he gone?', 'I said:', 'Not yet.']);
});

test('a line that is taken out takes its gestures, and who waited for it waits for what came before', function (): void {
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'One.', 'start' => 12], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Two.'],
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Three.'],
    ]);
    [$a, $b] = linesOf($scene);
    $this->edit($scene, [['do' => 'line.remove', 'line' => $b['id']]]);
    expect(linesOf($scene)[1]['afterId'])->toBe($a['id'])->and(array_column(rows($scene)['beats'], 'id'))->not->toContain($b['beatId']);
    // The first one gone, the next begins where that did.
    $this->edit($scene, [['do' => 'line.remove', 'line' => $a['id']]]);
    expect(linesOf($scene)[0])->toMatchArray(['afterId' => null, 'start' => 12]);
});

test('moving a line moves what waits for it and the hands that go with it; moving the hands lets them go', function (): void {
    $scene = talkers($this);
    $this->edit($scene, [
        [
            'do' => 'line.add', 'item' => 'Oda', 'text' => 'Has he gone?', 'start' => 12,
        ], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Not yet.'],
    ]);
    [$a] = linesOf($scene);
    $before = utterances($scene);
    $this->edit($scene, [['do' => 'line.set', 'line' => $a['id'], 'start' => 60]]);
    $after = utterances($scene);
    expect($after[1]->start - $before[1]->start)->toEqualWithDelta(48.0, 1.0);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $oda = 'i'.$scene->items()->where('name', 'Oda')->value('id');
    expect($compiled->lanes[$oda]->segments[0]->start)->toEqualWithDelta($after[0]->from - 8.4, 2.0);
    $this->edit($scene, [['do' => 'beat.set', 'beat' => $a['beatId'], 'start' => 0]]);
    expect(linesOf($scene)[0]['beatId'])->toBeNull();
});

test('what cannot be a line is refused in words, and nothing changes', function (array $command, string $message): void {
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'One.', 'start' => 12], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Two.'],
        ['do' => 'item.add', 'asset' => 'brass-key', 'name' => 'Key', 'position' => [3, 0, 0]],
    ]);
    $before = rows($scene);
    $ids = array_column($before['lines'], 'id');
    $command = array_map(static fn (mixed $v): mixed => $v === 'FIRST' ? $ids[0] : ($v === 'SECOND' ? $ids[1] : $v), $command);
    expect(fn () => $this->edit($scene, [$command]))->toThrow(UserError::class, $message)
        ->and(rows($scene))->toBe($before);
})->with([
    'empty' => [['do' => 'line.add', 'item' => 'Oda', 'text' => ' [1 s] '], 'nothing in this line'],
    'a thing' => [['do' => 'line.add', 'item' => 'Key', 'text' => 'Hello'], 'not a performer'],
    'too long' => [['do' => 'line.add', 'item' => 'Oda', 'text' => str_repeat('a', 5001)], '5000'],
    'emptied' => [['do' => 'line.set', 'line' => 'FIRST', 'text' => ''], ''],
    'a circle' => [['do' => 'line.set', 'line' => 'FIRST', 'after' => 'SECOND'], 'waits for this one already'],
    'itself' => [['do' => 'line.set', 'line' => 'FIRST', 'after' => 'FIRST'], 'waits for this one already'],
    'given to a thing' => [['do' => 'line.set', 'line' => 'FIRST', 'item' => 'Key'], 'Only a performer'],
    'no names' => [['do' => 'lines.paste', 'page' => 'just words'], 'no line in it'],
    'a manner of its own' => [['do' => 'line.set', 'line' => 'FIRST', 'delivery' => 'sung'], ''],
]);

test('a page is pasted: names that nobody has are told once, and then meant or left out', function (): void {
    $scene = talkers($this);
    $page = "Oda: Has he gone?\nThe pilot (calls): Not yet!\nGull: Kree.\nODA: Then wait.";
    expect(fn () => $this->edit($scene, [['do' => 'lines.paste', 'page' => $page]]))
        ->toThrow(UserError::class, 'called "The pilot" or "Gull"');
    $this->edit($scene, [['do' => 'lines.paste', 'page' => $page, 'who' => ['The pilot' => 'Bram', 'Gull' => ''], 'start' => 24]]);
    $lines = linesOf($scene);
    $bram = (int) $scene->items()->where('name', 'Bram')->value('id');
    expect(array_column($lines, 'text'))->toBe(['Has he gone?', 'Not yet!', 'Then wait.'])->and($lines[1]['itemId'])->toBe($bram)
        ->and($lines[1]['delivery'])->toBe('called')->and($lines[0]['start'])->toBe(24)
        ->and([$lines[1]['afterId'], $lines[2]['afterId']])->toBe([$lines[0]['id'], $lines[1]['id']]);
});

test('an edit asks for voices and waits for none; the same words twice are read once', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Stop.', 'start' => 0], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Stop.'],
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Stop.'],
    ]);
    Queue::assertPushedOn('voice', ReadLine::class);
    Queue::assertPushed(ReadLine::class, 2);
    expect(utterances($scene)[0]->reading->guessed)->toBeTrue();
    $this->edit($scene, [['do' => 'scene.set', 'mood' => 'dusk']]);
    Queue::assertPushed(ReadLine::class, 2);
    expect(app(Readings::class)->makeAll($scene))->toBe(2)->and(utterances($scene)[0]->reading->guessed)->toBeFalse();
});

test('a worker reads what a line is by then, and an undo brings back the reading of before at once', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $user = $this->person('Ada Quist');
    $scene->production->members()->create(['user_id' => $user->id, 'role' => 'editor']);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Stop.', 'start' => 0]], $user);
    $line = linesOf($scene)[0];
    $wish = Readings::wishes($scene)[$line['id']];
    (new ReadLine($scene->id, $line['id'], $wish->key))->handle(app(Readings::class));
    $first = utterances($scene)[0]->reading->seconds;
    $this->edit($scene, [['do' => 'line.set', 'line' => $line['id'], 'text' => 'Stop where you are, all of you.']], $user);
    expect(utterances($scene)[0]->reading->guessed)->toBeTrue();
    // The job of before comes late: what it was for is gone.
    $new = Readings::wishes($scene)[$line['id']];
    (new ReadLine($scene->id, $line['id'], str_repeat('0', 64)))->handle(app(Readings::class));
    expect(DB::table('readings')->where('key', $new->key)->value('sound'))->toBeNull();
    app(App\Edits\EditRunner::class)->undo($scene->refresh(), $user);
    expect(utterances($scene)[0]->reading->guessed)->toBeFalse()->and(utterances($scene)[0]->reading->seconds)->toBe($first);
});

test('a voice that fails or is killed leaves the text, says why, and the rest goes on', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => '🙂🙂', 'start' => 0], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Stop.'],
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Hang on.'],
    ]);
    app(Readings::class)->makeAll($scene);
    $lines = linesOf($scene);
    DB::table('readings')->where('key', Readings::wishes($scene)[$lines[2]['id']]->key)->update(['sound' => null, 'digest' => null]);
    (new ReadLine($scene->id, $lines[2]['id'], Readings::wishes($scene)[$lines[2]['id']]->key))->failed(null);
    $user = $scene->production->members()->firstOrFail()->user;
    $told = $this->actingAs($user)->getJson(
        "/api/scenes/{$scene->id}/changes?since={$scene->refresh()->revision}&voices=1",
    )->assertOk()->json('voices');
    expect($told['waiting'])->toBe(0)->and($told['problems'][$lines[0]['id']])->toContain('nothing in it that could be said')
        ->and($told['problems'][$lines[2]['id']])->toContain('took too long')->and($told['problems'])->toHaveCount(2)
        ->and(utterances($scene)[1]->reading->guessed)->toBeFalse()->and($lines[0]['text'])->toBe('🙂🙂');
});

test('a word is said otherwise in the whole production, and written as it was', function (): void {
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'The Quay, the quays, my quay!', 'start' => 0]]);
    $before = array_values(Readings::wishes($scene))[0];
    $this->edit($scene, [['do' => 'production.set', 'sayAs' => ['quay' => 'key']]]);
    $wish = array_values(Readings::wishes($scene))[0];
    expect($wish->text)->toBe('The key, the quays, my key!')->and($wish->key)->not->toBe($before->key)
        ->and(linesOf($scene)[0]['text'])->toBe('The Quay, the quays, my quay!');
    $this->edit($scene, [['do' => 'production.set', 'sayAs' => ['quay' => null]]]);
    expect(array_values(Readings::wishes($scene))[0]->key)->toBe($before->key);
});

test('a page that waits is told when a voice has read its lines, though nobody has changed anything', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Stop.', 'start' => 0]]);
    $user = $scene->production->members()->firstOrFail()->user;
    $state = $this->actingAs($user)->getJson("/api/scenes/{$scene->id}/manifest")->json('manifest.state');
    $ask = fn (): array => $this->getJson(
        "/api/scenes/{$scene->id}/changes?since={$scene->refresh()->revision}&has={$state}&voices=1",
    )->json();
    expect($ask()['manifest'])->toBeNull()->and($ask()['voices']['waiting'])->toBe(1);
    app(Readings::class)->makeAll($scene);
    $told = $ask();
    expect($told['manifest']['lines'][0]['sound'])->toMatch('/^[0-9a-f]{64}$/')->and($told['voices']['waiting'])->toBe(0)
        ->and($told['manifest']['lines'][0]['words'][0][0])->toBe('Stop');
    $sound = $told['manifest']['lines'][0]['sound'];
    $this->get("/api/scenes/{$scene->id}/sounds/{$sound}")->assertOk()->assertHeader('Content-Type', 'audio/wav');
    $this->get("/api/scenes/{$scene->id}/sounds/".str_repeat('0', 64))->assertNotFound();
    // Who may not see the scene hears nothing of it, and neither does another scene of one's own.
    $this->actingAs($this->person('Stranger'))->get("/api/scenes/{$scene->id}/sounds/{$sound}")->assertNotFound();
    $other = $this->scene($stranger = $this->person('Another'));
    $this->actingAs($stranger)->get("/api/scenes/{$other->id}/sounds/{$sound}")->assertNotFound();
});

test('voices are listed with whose each is, and heard as a sample', function (): void {
    $scene = talkers($this);
    $user = $scene->production->members()->firstOrFail()->user;
    [$oda, $bram] = $scene->items()->orderBy('id')->pluck('id')->all();
    $this->edit($scene, [['do' => 'item.set', 'item' => 'Bram', 'voice' => 'brine']]);
    $told = $this->actingAs($user)->getJson("/api/scenes/{$scene->id}/speech")->assertOk()->json();
    expect(count($told['voices']))->toBeGreaterThan(60)->and($told['cast'][$bram])->toBe('brine')->and($told['cast'][$oda])->toBe('wool');
    expect($this->getJson("/api/scenes/{$scene->id}/voices/slate/sample")->assertOk()->json('seconds'))->toBeGreaterThan(2.0);
    $this->get("/api/scenes/{$scene->id}/voices/slate/sound")->assertOk()->assertHeader('Content-Type', 'audio/wav');
    $this->get("/api/scenes/{$scene->id}/voices/kiln/sound")->assertNotFound();
});

test('the film carries what is said: at its frame to the sample, at the loudness that is asked, without clipping', function (
    string $format, string $codec,
): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        [
            'do' => 'item.set', 'item' => 'Oda', 'voice' => 'tones',
        ], ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Tick tock tick.', 'start' => 40],
    ]);
    app(Readings::class)->makeAll($scene);
    $job = app(RenderDesk::class)->start($scene->refresh(), null, [
        'width' => 64, 'height' => 36, 'from' => 24, 'to' => 84, 'format' => $format,
    ]);
    for ($f = 24; $f < 84; $f++) {
        app(FrameStore::class)->put($job, $f, png(64, 36, $f * 2));
    }
    app(Encoder::class)->join($job->refresh());
    $file = app(FrameStore::class)->result($job);
    $told = new Process(['ffprobe', '-v', 'error', '-show_entries', 'stream=codec_type,codec_name:format=duration', '-of', 'json', $file]);
    $told->mustRun();
    $streams = array_column(json_decode($told->getOutput(), true)['streams'], 'codec_name', 'codec_type');
    $lasts = (float) json_decode($told->getOutput(), true)['format']['duration'];
    expect($streams['audio'])->toBe($codec)->and($lasts)->toEqualWithDelta(2.5, 0.03)->and($file)->toEndWith(".{$format}");
    $pcm = new Process(['ffmpeg', '-v', 'error', '-i', $file, '-map', '0:a:0', '-ac', '1', '-ar', '48000', '-f', 's16le', '-']);
    $pcm->mustRun();
    $samples = array_values(unpack('v*', $pcm->getOutput()) ?: []);
    $first = 0;
    while (isset($samples[$first]) && abs($samples[$first] < 32768 ? $samples[$first] : $samples[$first] - 65536) < 600) {
        $first++;
    }
    // The first tone begins 16 frames after the range, and its silence of so many seconds later.
    $u = utterances($scene)[0];
    expect($first / 48000)->toEqualWithDelta(($u->from - 24) / 24, 1 / 96);
    $loud = new Process(['ffmpeg', '-nostdin', '-i', $file, '-af', 'ebur128=peak=true', '-f', 'null', '-']);
    $loud->mustRun();
    preg_match_all('/I:\s+(-?[\d.]+) LUFS/', $loud->getErrorOutput(), $i);
    preg_match_all('/Peak:\s+(-?[\d.]+) dBFS/', $loud->getErrorOutput(), $peak);
    expect((float) end($i[1]))->toEqualWithDelta(-14.0, 0.5)->and((float) end($peak[1]))->toBeLessThanOrEqual(-0.9);
})->with([['mp4', 'aac'], ['webm', 'opus']]);

test('stems add up to the mix, at the loudness that is asked for', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'The last boat has gone.', 'start' => 24],
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0, 'lane' => 'ambience', 'level' => -12],
    ]);
    $out = tempnam(sys_get_temp_dir(), 'reel').'.wav';
    $ask = ['scene' => (string) $scene->id, '--out' => $out, '--json' => true];
    expect(Artisan::call('reel:sound', $ask + ['--stems' => true, '--loudness' => '-23']))->toBe(0);
    expect(json_decode(Artisan::output(), true)['loudness'])->toEqualWithDelta(-23.0, 0.5);
    $pcm = static fn (string $file): string => app(SoundFiles::class)->pcm((string) file_get_contents($file), 1);
    $of = static fn (string $file): array => Wave::fromPcm(48000, $pcm($file))->samples;
    [$mix, $speech, $bed] = array_map($of, [$out, substr($out, 0, -4).'.speech.wav', substr($out, 0, -4).'.ambience.wav']);
    expect(count($speech))->toBe(count($mix))->and(is_file(substr($out, 0, -4).'.music.wav'))->toBeFalse();
    $off = 0.0;
    foreach ($mix as $i => $v) {
        $off = max($off, abs($v - $speech[$i] - $bed[$i]));
    }
    // At that loudness nothing reaches the limiter.
    expect($off)->toBeLessThan(0.002)->and(max($speech))->toBeGreaterThan(0.02);
    expect(Artisan::call('reel:sound', ['--loudness' => 'loud'] + $ask))->not->toBe(0);
    array_map(unlink(...), glob(substr($out, 0, -4).'*') ?: []);
});

test('music gives way to speech in the mix, by as much as it is to, and is as loud as it is said without', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'The last boat has gone and left us on the pier.', 'start' => 72],
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0, 'lane' => 'music', 'level' => -6],
        ['do' => 'scene.set', 'mix' => ['lowered' => 14]],
    ]);
    app(Readings::class)->makeAll($scene);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    [$speech, $bed] = [$compiled->utterances[0], $compiled->heard[0]];
    $cues = app(SceneSound::class)->cues($compiled, 0, $compiled->frames);
    expect($cues)->toHaveCount(2)->and($cues[0]->start)->toBe(72 * 2000)->and($cues[1]->gain)->toEqualWithDelta(10 ** -0.3, 1e-9);
    $lowering = GivingWay::of($compiled);
    $level = static function (array $cues, float $from, float $to, ?Lowering $lowering): float {
        $n = (int) ($to * 48000);
        $all = unpack('g*', implode('', iterator_to_array(Mixdown::blocks($cues, $n, $lowering), false))) ?: [];
        $part = array_slice(array_values($all), 2 * (int) ($from * 48000));

        return 10 * log10(array_sum(array_map(static fn (float $v): float => $v * $v, $part)) / max(1, count($part)) + 1e-12);
    };
    [$from, $to] = [$speech->from / 24, $speech->to / 24];
    $bedUnder = $level([$cues[1]], $from, $to, $lowering);
    expect($level([$cues[1]], $from, $to, null) - $bedUnder)->toEqualWithDelta(14.0, 0.1)
        ->and($level([$cues[1]], 0.5, 2.5, $lowering))->toEqualWithDelta($level([$cues[1]], 0.5, 2.5, null), 0.01)
        ->and($level([$cues[0]], $from, $to, $lowering) - $bedUnder)->toBeGreaterThan(12.0)
        ->and($bed->end)->toBe((float) $compiled->frames);
});

test('what is said is taken away as subtitles, and the mix as a file', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has he *gone*?', 'start' => 24]]);
    $user = $scene->production->members()->firstOrFail()->user;
    $out = tempnam(sys_get_temp_dir(), 'reel').'.wav';
    expect(Artisan::call('reel:sound', ['scene' => (string) $scene->id, '--out' => $out, '--json' => true]))->toBe(0);
    $told = json_decode(Artisan::output(), true);
    expect($told['loudness'])->toEqualWithDelta(-14.0, 0.5)->and(substr((string) file_get_contents($out), 0, 4))->toBe('RIFF');
    $srt = (string) $this->actingAs($user)->get("/api/scenes/{$scene->id}/subtitles.srt")->assertOk()->getContent();
    expect($srt)->toStartWith("1\r\n00:00:01,")->toContain('Has he gone?');
    expect((string) $this->get("/api/scenes/{$scene->id}/subtitles.vtt")->assertOk()->getContent())->toContain('<v Oda>Has he gone?');
    $this->get("/api/scenes/{$scene->id}/subtitles.txt")->assertNotFound();
    $this->actingAs($this->person('Stranger'))->get("/api/scenes/{$scene->id}/subtitles.srt")->assertNotFound();
    expect(Artisan::call('reel:sound', ['scene' => (string) $scene->id, '--out' => '/tmp/x.mp3']))->not->toBe(0)
        ->and(Artisan::call('reel:sound', ['scene' => (string) $scene->id, '--from' => '9999']))->not->toBe(0);
});

test('a sound is put where it belongs by what the kit says of it; a motion is none', function (): void {
    $scene = talkers($this);
    $this->edit($scene, array_map(static fn (string $slug): array => ['do' => 'sound.add', 'asset' => $slug, 'start' => 0], [
        'sound-waves', 'sound-bell', 'sound-fiddle', 'sound-steps-wood',
    ]));
    $rows = rows($scene)['sounds'];
    expect(array_column($rows, 'lane'))->toBe(['ambience', 'effects', 'music', 'effects'])
        ->and(array_column($rows, 'repeats'))->toBe([true, false, false, true]);
    expect(fn () => $this->edit($scene, [['do' => 'sound.add', 'asset' => 'walk', 'start' => 0]]))
        ->toThrow(UserError::class, 'is no sound');
    // What hangs on a line that goes stays where it is told.
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Hark!', 'start' => 30, 'as' => '$l'],
        ['do' => 'sound.set', 'sound' => $rows[1]['id'], 'line' => '$l', 'start' => 4],
    ]);
    expect(app(SceneStream::class)->compile($scene->refresh())->heard)->toHaveCount(4);
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Oda']]);
    expect(rows($scene)['lines'])->toBe([])->and(rows($scene)['sounds'])->toHaveCount(4);
});

test('who speaks and is taken out leaves those who waited for them in their place', function (): void {
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'One.', 'start' => 48], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Two.'],
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Three.'], ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Four.'],
    ]);
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Oda']]);
    $lines = linesOf($scene);
    expect(array_column($lines, 'text'))->toBe(['Two.', 'Four.'])->and($lines[0])->toMatchArray(['afterId' => null, 'start' => 48])
        ->and($lines[1]['afterId'])->toBe($lines[0]['id']);
    // And a production with all of it goes as a whole.
    $scene->production->erase();
    expect(DB::table('lines')->where('scene_id', $scene->id)->count())->toBe(0);
});

test('a reading whose sound is lost from the store is told, and read again', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Lost '.uniqid().' for good.', 'start' => 0]]);
    app(Readings::class)->makeAll($scene);
    $key = array_values(Readings::wishes($scene))[0]->key;
    $sound = (string) DB::table('readings')->where('key', $key)->value('sound');
    app(BlobStore::class)->disk()->delete(BlobStore::path($sound));
    $broken = collect(app(StoreCheck::class)->broken(static fn () => null))->keyBy('hash');
    expect($broken[$sound]['uses'])->toBe(['a line that a voice has read; it is read again when its scene is opened'])
        ->and(DB::table('readings')->where('key', $key)->exists())->toBeFalse()->and(utterances($scene)[0]->reading->guessed)->toBeTrue();
    expect(app(Readings::class)->makeAll($scene))->toBe(1)
        ->and(app(BlobStore::class)->has((string) DB::table('readings')->where('key', $key)->value('sound')))->toBeTrue();
});

test('a silent scene makes a film without a sound track, and so does a range in which nobody speaks', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Stop.', 'start' => 200]]);
    app(Readings::class)->makeAll($scene);
    $job = app(RenderDesk::class)->start($scene->refresh(), null, ['width' => 64, 'height' => 36, 'from' => 0, 'to' => 10]);
    expect(app(RenderDesk::class)->heard($job))->toBeNull();
    $job = app(RenderDesk::class)->start($scene->refresh(), null, ['width' => 64, 'height' => 36, 'from' => 190, 'to' => 210]);
    expect(app(RenderDesk::class)->heard($job))->not->toBeNull();
});

test('a name of a reading depends on all that its sound depends on, and on nothing else', function (): void {
    $of = static fn (string $text, string $voice, string $delivery, float $pace): string => (new Wish(
        $text, VoiceBook::find($voice) ?? throw new LogicException, $delivery, $pace,
    ))->key;
    $all = [
        $of('A', 'oak', 'plain', 1.0), $of('B', 'oak', 'plain', 1.0), $of('A', 'keel', 'plain', 1.0), $of('A', 'oak', 'sad', 1.0),
        $of('A', 'oak', 'plain', 1.1),
    ];
    expect(array_unique($all))->toHaveCount(5)->and($of('A', 'oak', 'plain', 1.0))->toBe($all[0]);
});
