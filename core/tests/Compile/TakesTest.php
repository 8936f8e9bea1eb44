<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Take;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Speech\Guess;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * A line of which there is a recording of six seconds that nobody has listened to yet.
 *
 * @param  list<array<string, mixed>>  $takes
 * @return array<string, mixed>
 */
function recordedLine(array $takes, string $text = 'Has the last boat gone?'): array
{
    $data = Scenes::data([
        'items' => [Scenes::item('oda', 'oda')], 'beats' => [Scenes::beat('b', 'oda', 'idle', 0, ['play' => ['length' => 240]])],
        'lines' => [['id' => 'd', 'item' => 'oda', 'text' => $text, 'start' => 24]],
        'takes' => array_map(static fn (array $t): array => $t + ['line' => 'd', 'asset' => 's1'], $takes),
    ]);
    $data['assets'][] = ['id' => 's1', 'kind' => 'sound', 'name' => 'Said', 'blob' => str_repeat('b', 64), 'digest' => 'reading:said'];

    return $data;
}

/** @param  array<string, mixed>  $data */
function settledTakes(array $data): CompiledScene
{
    $assets = new FakeAssets;
    $assets->solved['said'] = json_encode(['kind' => 'sound', 'seconds' => 6], JSON_THROW_ON_ERROR);

    return Scenes::compile($data, $assets);
}

test('until somebody has listened to it, a line is as long as what is heard of its recording', function (
    array $takes, ?float $seconds,
): void {
    $u = settledTakes(recordedLine($takes))->utterances[0];
    $guess = Guess::of('Has the last boat gone?')->seconds;
    expect($u->reading->guessed)->toBeTrue()->and($u->reading->seconds)->toEqualWithDelta($seconds ?? $guess, 1e-9)
        ->and($u->end - $u->start)->toEqualWithDelta(24 * ($seconds ?? $guess), 1e-6);
    // Without gaps, however long it is.
    $at = 0.0;
    foreach ($u->reading->phones as $p) {
        expect($p->from)->toEqualWithDelta($at, 1e-9);
        $at = $p->to;
    }
    expect($at)->toEqualWithDelta($u->reading->seconds, 1e-9)->and($u->reading->words)->toHaveCount(5);
})->with([
    'no recording' => [[], null], 'all of it' => [[['id' => 'g']], 6.0],
    'a part' => [[['id' => 'g', 'sourceIn' => 1, 'sourceOut' => 3.5]], 2.5],
    'from a second on' => [[['id' => 'g', 'sourceIn' => 2]], 4.0], 'one that is not chosen' => [[['id' => 'g', 'chosen' => false]], null],
    'of two the chosen one' => [[['id' => 'g', 'chosen' => false], ['id' => 'h', 'sourceOut' => 2]], 2.0],
]);

test('a recording whose words nobody has told is silence of its length until it is listened to', function (): void {
    $u = settledTakes(recordedLine([['id' => 'g', 'sourceOut' => 3]], ''))->utterances[0];
    expect($u->reading->seconds)->toBe(3.0)->and($u->reading->words)->toBe([])
        ->and(array_unique(array_map(static fn (Phone $p): string => $p->name, $u->reading->phones)))->toBe(['pau']);
});

test('takes are written and read again, and one of a line that is not there is refused', function (): void {
    $document = Document::fromArray(recordedLine([['id' => 'g', 'sourceIn' => 0.5], ['id' => 'h', 'chosen' => false]]));
    $back = Document::fromJson($document->toJson());
    expect($back->takes)->toEqual($document->takes)->and($back->takes[0])->toBeInstanceOf(Take::class)
        ->and($back->takes[0]->sourceIn)->toBe(0.5)->and($back->takes[0]->sourceOut)->toBeNull()->and($back->takes[1]->chosen)->toBeFalse();
    $without = recordedLine([['id' => 'g', 'line' => 'nobody']]);
    expect(static fn (): Document => Document::fromArray($without))->toThrow(UnableToReadDocument::class, 'there is no line "nobody"');
});

test('a reading in other time keeps its order and its shares', function (): void {
    $guess = Guess::of('Put it down, now.');
    $twice = $guess->lasting(2 * $guess->seconds);
    expect($twice->seconds)->toEqualWithDelta(2 * $guess->seconds, 1e-9)->and($twice->guessed)->toBeTrue();
    foreach ($guess->words as $k => $w) {
        expect($twice->words[$k]->from)->toEqualWithDelta(2 * $w->from, 1e-9)->and($twice->words[$k]->text)->toBe($w->text);
    }
    expect(array_column($twice->phones, 'name'))->toBe(array_column($guess->phones, 'name'));
});
