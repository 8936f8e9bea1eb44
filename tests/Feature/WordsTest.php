<?php

declare(strict_types=1);

use App\Scenes\SceneStream;
use App\Speech\Readings;
use CrispReel\Core\Document\Finding;
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
