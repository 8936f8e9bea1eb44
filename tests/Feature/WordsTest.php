<?php

declare(strict_types=1);

use App\Scenes\SceneStream;
use App\Speech\Readings;
use App\Speech\ReadLine;
use CrispReel\Core\Document\Finding;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;

test('a gesture by its name is done at its word, whichever voice reads it, and moves with the text', function (): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [['do' => 'line.add', 'item' => 'Oda', 'text' => 'Come here [wave] and tell me.', 'start' => 24]]);
    $compiled = static fn (): CrispReel\Core\Compile\CompiledScene => app(SceneStream::class)->compile($scene->refresh());
    $oda = "i{$scene->items()->where('name', 'like', 'Oda%')->value('id')}";
    $at = static fn (): float => $compiled()->lanes[$oda]->layers[0]->start;
    $guessed = $at();
    app(Readings::class)->makeAll($scene);
    $u = utterances($scene)[0];
    expect($u->reading->guessed)->toBeFalse()->and($u->reading->events[0][0])->toBe('wave')
        ->and(abs($at() - $u->frame($u->reading->events[0][1])))->toBeLessThanOrEqual(1.0)->and(abs($at() - $guessed))->toBeLessThan(24);
    // Its word comes after the event: within two frames.
    expect(abs($at() - $u->frame($u->reading->words[2]->from)))->toBeLessThanOrEqual(2.0)
        ->and(array_filter($compiled()->notes, static fn (Finding $f): bool => $f->code === 'line.unknown'))->toBe([]);
    $before = $at();
    $line = rows($scene)['lines'][0]['id'];
    $this->edit($scene, [['do' => 'line.set', 'line' => $line, 'text' => 'Come over here to me and the others [wave] and tell me.']]);
    app(Readings::class)->makeAll($scene);
    expect($at())->toBeGreaterThan($before + 12);
    $this->edit($scene, [['do' => 'line.set', 'line' => $line, 'text' => 'Come here [juggle] and tell me.']]);
    $codes = array_map(static fn (Finding $f): string => $f->code, $compiled()->notes);
    expect($compiled()->lanes[$oda]->layers)->toBe([])->and($codes)->toContain('line.unknown');
});

test('a noise between words is heard where it stands, and no word is in it', function (string $noise, float $seconds): void {
    Queue::fake();
    $scene = talkers($this);
    $this->edit($scene, [
        ['do' => 'line.add', 'item' => 'Oda', 'text' => "Well, [{$noise}] then we wait.", 'start' => 24],
        ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Well, then we wait.'],
    ]);
    app(Readings::class)->makeAll($scene);
    [$with, $without] = array_map(static fn ($u) => $u->reading, utterances($scene));
    [[$what, $at]] = $with->events;
    $loud = static fn (float $from, float $to): float => max(
        array_slice($with->loudness, (int) ($from * 100), (int) (($to - $from) * 100)),
    );
    expect($what)->toBe($noise)->and($loud($at + 0.02, $at + $seconds - 0.02))->toBeGreaterThan(0.01)
        ->and($with->words[1]->from)->toBeGreaterThanOrEqual($at + $seconds - 0.01)->and($with->words)->toHaveCount(count($without->words));
})->with([['sigh', 1.1], ['laugh', 1.0], ['gasp', 0.45], ['cough', 0.7], ['hm', 0.55], ['sniff', 0.45], ['breath', 0.5]]);

test('voices are asked while an edit is settled, and its answer has what they have read by then', function (): void {
    Queue::fake();
    $user = $this->person();
    $scene = talkers($this);
    $scene->production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
    $this->actingAs($user);
    $say = fn (string $text) => $this->postJson("/api/scenes/{$scene->id}/edits", [
        'commands' => [['do' => 'line.add', 'item' => 'Oda', 'text' => $text]],
    ])->assertOk();
    $answer = $say('The last boat has gone.');
    expect($answer->json('manifest.lines.0.sound'))->toBeNull();
    $asked = [];
    Queue::assertPushed(ReadLine::class, function (ReadLine $job) use (&$asked): bool {
        $asked[] = $job;

        return true;
    });
    // Asked for once, with all that it takes: the line need not be there yet.
    expect($asked)->toHaveCount(1)->and($asked[0]->wish?->text)->toBe('The last boat has gone.');
    $job = unserialize(serialize($asked[0]));
    DB::table('lines')->where('scene_id', $scene->id)->delete();
    $job->handle(app(Readings::class));
    expect(DB::table('readings')->where('key', $job->key)->value('sound'))->not->toBeNull();
});

test('what a voice has read before the edit is done comes with its answer', function (): void {
    $user = $this->person();
    $scene = talkers($this);
    $scene->production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
    config(['queue.default' => 'sync']);
    $answer = $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/edits", [
        'commands' => [['do' => 'line.add', 'item' => 'Oda', 'text' => 'And nobody has said a word of it.']],
    ])->assertOk();
    expect($answer->json('manifest.lines.0.sound'))->toMatch('/^[0-9a-f]{64}$/')
        ->and(count($answer->json('manifest.lines.0.words')))->toBe(8);
});
