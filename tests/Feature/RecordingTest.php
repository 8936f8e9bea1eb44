<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\Scene;
use App\Sound\PeaksShelf;
use App\Sound\SoundFiles;
use App\Speech\EspeakVoice;
use App\Speech\FliteVoice;
use App\Speech\LineReader;
use App\Speech\Manner;
use App\Speech\Readings;
use App\Speech\Take;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Sound\Alignment;
use CrispReel\Core\Sound\Cepstra;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;

/** Forty sentences that nothing was tuned on, made up for this test. */
const UNHEARD = [
    'The harbour bell rang twice before anybody moved.', 'Put the lamp down, and come away from the edge.',
    'I never said that the ferry was late.', 'Somebody has to carry these boxes up the stairs.',
    'Why would he leave his best coat on the railing?', 'Nine gulls sat on the roof, and none of them sang.',
    'Give me that rope, quickly, before the tide turns.', 'Good evening, sir; the house is closed for today.',
    'My brother built this boat with his own two hands.', 'When the fog comes in, we wait.',
    'Nobody told me there would be music.', 'Take the second street on the left, then ask again.',
    'She kept the letter in a box under the floor.', 'You owe me three coins and an apology.',
    'Is that your dog on the far side of the bridge?', 'We could paint the whole fence by noon.',
    'The key turned, but the door did not open.', 'Please read the last page aloud.', 'A thin moon hung over the empty market.',
    'He laughed, shook his head, and went below.', 'Bring water for the horses first.', 'There is a hole in the bottom of this bucket.',
    'They promised us a warm room and soup.', 'Hold still, or I will miss the button.', 'The judge looked tired of everybody.',
    'Somewhere above us a window slammed.', 'I have walked this road in worse weather.', 'Do not touch the red switch.',
    'All summer long the orchard smelled of smoke.', 'Her voice was calm, which frightened him.', 'Pack the blue cups in straw.',
    'What did the captain say about the storm?', 'An old song came back to me yesterday.', 'Five of us shared one small umbrella.',
    'The clock has been wrong for years.', 'Quick, hide behind the curtain.', 'That bridge was made for carts, not trains.',
    'Leave the money, and take the map.', 'I would rather swim than ask him.', 'Tomorrow we begin with the roof.',
];

function at16k(Wave $wave): Wave
{
    return Wave::fromPcm(Cepstra::RATE, app(SoundFiles::class)->pcm($wave->toWav(), 1, Cepstra::RATE));
}

/**
 * How far boundaries between sounds that both name alike are off, milliseconds.
 *
 * @param  list<Phone>  $found
 * @param  list<Phone>  $truth
 * @return list<float>
 */
function boundaryErrors(array $found, array $truth): array
{
    [$a, $b] = array_map(static fn (array $of): array => array_values(array_filter(
        $of, static fn (Phone $p): bool => ! $p->isPause(),
    )), [$found, $truth]);
    // The longest run of names that both have, in their order.
    $longest = array_fill(0, count($a) + 1, array_fill(0, count($b) + 1, 0));
    for ($i = count($a) - 1; $i >= 0; $i--) {
        for ($j = count($b) - 1; $j >= 0; $j--) {
            $longest[$i][$j] = $a[$i]->name === $b[$j]->name
                ? 1 + $longest[$i + 1][$j + 1]
                : max($longest[$i + 1][$j], $longest[$i][$j + 1]);
        }
    }
    $of = [];
    for ($i = $j = 0; $i < count($a) && $j < count($b);) {
        if ($a[$i]->name === $b[$j]->name) {
            $of[$i++] = $j++;
        } elseif ($longest[$i + 1][$j] >= $longest[$i][$j + 1]) {
            $i++;
        } else {
            $j++;
        }
    }
    $out = [];
    foreach ($of as $i => $j) {
        if (($of[$i + 1] ?? -1) === $j + 1 && abs($b[$j]->to - $b[$j + 1]->from) < 0.01) {
            $out[] = 1000 * abs(($a[$i]->to + $a[$i + 1]->from) / 2 - $b[$j]->to);
        }
    }

    return $out;
}

/** A voice's reading as somebody might record it: another pace, a pause in the middle, a noisy room. */
function asRecorded(Take $take, int $n): Take
{
    $wave = $take->wave;
    $phones = $take->phones;
    if ($n % 4 === 1) {
        // A pause of 0.6 s where a word ends.
        $k = count($phones) >> 1;
        while ($k < count($phones) - 2 && $phones[$k]->word === $phones[$k + 1]->word) {
            $k++;
        }
        $at = $phones[$k]->to;
        $cut = (int) round($at * $wave->rate);
        $wave = new Wave($wave->rate, [
            ...array_slice($wave->samples, 0, $cut), ...array_fill(0, (int) (0.6 * $wave->rate), 0.0), ...array_slice($wave->samples, $cut),
        ]);
        $phones = array_map(static fn (Phone $p): Phone => $p->from >= $at - 1e-9
            ? new Phone($p->name, $p->from + 0.6, $p->to + 0.6, $p->word)
            : $p, $phones);
    }
    if ($n % 4 === 2) {
        $level = 0.18 * $wave->level();
        $samples = $wave->samples;
        foreach ($samples as $i => $s) {
            $samples[$i] = $s + 1.7 * $level * (2.0 * Noise::hash($i, $n) - 1.0);
        }
        $wave = new Wave($wave->rate, $samples);
    }

    return new Take($wave, $phones, $take->words);
}

test('forty sentences of another voice are aligned: pauses, other pace and noise among them', function (): void {
    [$flite, $espeak] = [new FliteVoice, new EspeakVoice];
    $errors = [];
    foreach (UNHEARD as $n => $text) {
        // By turns: two voices of one program, and two programs, either way; every fourth slower, paused, noisy.
        [$by, $base, $other, $as] = [
            [
                $flite, 'slt', $flite, 'rms',
            ], [$flite, 'rms', $flite, 'awb'], [$espeak, 'en-us', $flite, 'slt'], [$flite, 'slt', $espeak, 'en-us'],
            [$flite, 'rms', $flite, 'slt'],
        ][$n % 5];
        $read = $by->read($text, new Manner($base));
        $recorded = asRecorded($other->read($text, new Manner($as, $n % 4 === 3 ? 0.78 : 1.0)), $n);
        $reading = new Reading($read->wave->seconds(), $read->phones, $read->words);
        $found = Alignment::of($reading, at16k($read->wave), at16k($recorded->wave));
        array_push($errors, ...boundaryErrors($found->phones, $recorded->phones));
    }
    sort($errors);
    $count = count($errors);
    fwrite(
        STDERR,
        sprintf("\n%d boundaries: median %.1f ms, 90 %% below %.1f ms\n", $count, $errors[$count >> 1], $errors[(int) (0.9 * $count)]),
    );
    expect($count)->toBeGreaterThan(800)->and($errors[$count >> 1])->toBeLessThanOrEqual(20.0)
        ->and($errors[(int) (0.9 * $count)])->toBeLessThanOrEqual(70.0);
});

/** A file of somebody who says something, with silence before and after. */
function saidFile(string $text, float $before = 1.0, float $gain = 1.0): UploadedFile
{
    $take = (new FliteVoice)->read($text, new Manner('rms'));
    $wave = Wave::silence($take->wave->rate, $before + $take->wave->seconds() + 0.8)->mix($take->wave, $before, $gain);

    return UploadedFile::fake()->createWithContent('said.wav', $wave->toWav());
}

/** Keeps a file as a sound of the scene's production. */
function keptRecording(Tests\TestCase $test, Scene $scene, UploadedFile $file): int
{
    $told = $test->post("/api/scenes/{$scene->id}/recordings", ['file' => $file, 'name' => 'Oda: said'], ['Accept' => 'application/json']);

    return (int) $told->assertStatus(201)->json('asset');
}

test('a line is heard as a recording: trimmed by itself, its words found, others kept, and the voice again', function (): void {
    $scene = talkers($this);
    $this->actingAs($scene->production->members()->firstOrFail()->user);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has the last boat left the pier?', 'start' => 24, 'as' => '$a']]);
    $line = linesOf($scene)[0]['id'];
    $asset = keptRecording($this, $scene, saidFile('Has the last boat left the pier?', 1.0, 0.3));
    $this->edit($scene, [['do' => 'take.add', 'line' => $line, 'asset' => $asset]]);

    // Before anybody has listened to it, the line is as long as the recording.
    $u = utterances($scene)[0];
    expect($u->reading->guessed)->toBeTrue()->and($u->reading->seconds)->toBeGreaterThan(3.0);
    expect(app(Readings::class)->makeAll($scene))->toBe(1);
    $u = utterances($scene)[0];
    [$from] = $u->spoken;
    expect($u->reading->guessed)->toBeFalse()->and($from)->toEqualWithDelta(0.25, 0.06)->and($u->reading->words)->toHaveCount(7)
        ->and($u->reading->seconds)->toBeLessThan(2.6);
    // It is as loud as voices are, and the page is told which part of the recording it is.
    $told = $this->getJson("/api/scenes/{$scene->id}")->json('manifest.lines.0');
    expect($told['take']['from'])->toEqualWithDelta(0.95, 0.12)->and($told['take']['seconds'])->toBeGreaterThan(3.0);
    $wave = Wave::fromPcm(
        48000, app(SoundFiles::class)->pcm($this->get("/api/scenes/{$scene->id}/sounds/{$told['sound']}")->getContent() ?: '', 1),
    );
    expect(Reading::fullOf(LineReader::loudness($wave)))->toEqualWithDelta(0.13, 0.02);

    // Trimmed by hand, nothing of it is lost.
    $take = rows($scene)['takes'][0];
    expect($take['sourceIn'])->toBeNull()->and($take['chosen'])->toBeTrue();
    $this->edit($scene, [['do' => 'take.set', 'take' => $take['id'], 'sourceIn' => 0.5, 'sourceOut' => 3.0]]);
    app(Readings::class)->makeAll($scene);
    expect(utterances($scene)[0]->reading->seconds)->toEqualWithDelta(2.5, 0.01);
    $this->edit($scene, [['do' => 'take.set', 'take' => $take['id'], 'sourceIn' => null, 'sourceOut' => null]]);
    expect(utterances($scene)[0]->spoken[0])->toEqualWithDelta($from, 1e-6);
    expect(fn () => $this->edit($scene, [['do' => 'take.set', 'take' => $take['id'], 'sourceIn' => 2.0, 'sourceOut' => 1.0]]))
        ->toThrow(UserError::class, 'end before it begins');

    // A second take is heard instead; the first one can be chosen again, or the voice.
    $this->edit($scene, [['do' => 'take.add', 'line' => $line, 'asset' => keptRecording($this, $scene, saidFile('The last boat.'))]]);
    expect(array_column(rows($scene)['takes'], 'chosen'))->toBe([false, true]);
    $this->edit($scene, [['do' => 'take.set', 'take' => $take['id'], 'chosen' => true]]);
    expect(array_column(rows($scene)['takes'], 'chosen'))->toBe([true, false]);
    $this->edit($scene, [['do' => 'take.set', 'take' => $take['id'], 'chosen' => false]]);
    expect(utterances($scene)[0]->reading->guessed)->toBeTrue()->and(utterances($scene)[0]->reading->seconds)->toBeLessThan(3.0);
    // Takes go with their line.
    $this->edit($scene, [['do' => 'line.remove', 'line' => $line]]);
    expect(rows($scene)['takes'])->toBe([]);
    $scene->production->erase();
    expect(Scene::query()->find($scene->id))->toBeNull();
});

test('a recording dropped on somebody is a line whose words may be told later', function (): void {
    $scene = talkers($this);
    $this->actingAs($scene->production->members()->firstOrFail()->user);
    $asset = keptRecording($this, $scene, saidFile('Give me that rope, quickly.'));
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Bram', 'recording' => $asset, 'start' => 12]]);
    $line = linesOf($scene)[0];
    expect($line['text'])->toBe('')->and(rows($scene)['takes'][0]['lineId'])->toBe($line['id']);
    app(Readings::class)->makeAll($scene);
    $u = utterances($scene)[0];
    // Nobody knows the words: the mouth opens as it sounds, and the hands go along.
    expect($u->reading->words)->toBe([])->and($u->spoken[1] - $u->spoken[0])->toBeGreaterThan(1.0)->and($line['beatId'])->not->toBeNull();
    $open = max(array_map(static fn (int $k): float => $u->mouth->at($k / 24)['jawOpen'] ?? 0.0, range(0, 40)));
    expect($open)->toBeGreaterThan(0.2);
    $this->edit($scene, [['do' => 'line.set', 'line' => $line['id'], 'text' => 'Give me that rope, quickly.']]);
    app(Readings::class)->makeAll($scene);
    expect(utterances($scene)[0]->reading->words)->toHaveCount(5);
    // With a recording its words may go again.
    $this->edit($scene, [['do' => 'line.set', 'line' => $line['id'], 'text' => '']]);
    expect(linesOf($scene)[0]['text'])->toBe('');
});

test('what is silent, broken, too long or no sound is said, and the line keeps its text', function (): void {
    $scene = talkers($this);
    $this->actingAs($scene->production->members()->firstOrFail()->user);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Who is there?']]);
    $line = linesOf($scene)[0]['id'];
    $send = fn (UploadedFile $file) => $this->post(
        "/api/scenes/{$scene->id}/recordings", ['file' => $file], ['Accept' => 'application/json'],
    );
    $send(UploadedFile::fake()->createWithContent('said.wav', 'RIFF????WAVEnothing'))->assertStatus(422)
        ->assertJsonPath('reason', 'sound.unreadable');
    $send(UploadedFile::fake()->createWithContent('said.png', 'x'))->assertStatus(422)->assertJsonPath('reason', 'take.file');
    $send(UploadedFile::fake()->createWithContent('said.wav', Wave::silence(8000, 301.0)->toWav()))->assertStatus(422)
        ->assertJsonPath('reason', 'take.long');
    $this->post("/api/scenes/{$scene->id}/recordings", [], ['Accept' => 'application/json'])->assertStatus(422)
        ->assertJsonPath('reason', 'intake.no-file');
    expect(fn () => $this->edit($scene, [['do' => 'take.add', 'line' => $line, 'asset' => 'oda-ferrant']]))
        ->toThrow(UserError::class, 'is no sound');

    $silent = keptRecording($this, $scene, UploadedFile::fake()->createWithContent('said.wav', Wave::silence(22050, 2.0)->toWav()));
    $this->edit($scene, [['do' => 'take.add', 'line' => $line, 'asset' => $silent]]);
    app(Readings::class)->makeAll($scene);
    $told = $this->getJson("/api/scenes/{$scene->id}/changes?since={$scene->refresh()->revision}&voices=1")->json('voices');
    expect(
        $told['problems'][$line],
    )->toContain('Nothing is heard in the recording')->and(linesOf($scene)[0]['text'])->toBe('Who is there?');
});

test('peaks of a sound are made once, and told to who may see the scene', function (): void {
    $scene = talkers($this);
    $this->actingAs($scene->production->members()->firstOrFail()->user);
    $asset = keptRecording($this, $scene, saidFile('Who is there?'));
    $blob = (string) DB::table('asset_versions')->where('asset_id', $asset)->value('blob');
    expect(DB::table('peaks')->where('sound', $blob)->count())->toBe(1);
    $told = $this->getJson("/api/scenes/{$scene->id}/peaks/{$blob}")->assertOk();
    $levels = array_values((array) unpack('C*', (string) base64_decode((string) $told->json('levels'), true)));
    expect(
        $told->json('perSecond'),
    )->toBe(100)->and(max(array_slice($levels, 0, 95)))->toBeLessThan(4)->and(max($levels))->toBeGreaterThan(20);
    $this->getJson("/api/scenes/{$scene->id}/peaks/".str_repeat('0', 64))->assertNotFound();
    $this->actingAs($this->person('Stranger'))->getJson("/api/scenes/{$scene->id}/peaks/{$blob}")->assertNotFound();
    expect(app(PeaksShelf::class)->of($blob)['levels'])->toHaveLength(count($levels));
});
