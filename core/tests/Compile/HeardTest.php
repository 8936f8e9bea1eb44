<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Coverage\Action;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * A scene of eight seconds with sounds of four seconds.
 *
 * @param  list<array<string, mixed>>  $sounds
 * @param  list<array<string, mixed>>  $lines
 */
function sounding(array $sounds, array $lines = []): CompiledScene
{
    $assets = new FakeAssets;
    $assets->solved['sounds'] = json_encode(['kind' => 'sound', 'seconds' => 4], JSON_THROW_ON_ERROR);
    $data = Scenes::data([
        'items' => [Scenes::item('oda', 'oda')], 'beats' => [Scenes::beat('b', 'oda', 'idle', 0, ['play' => ['length' => 240]])],
        'lines' => $lines, 'sounds' => array_map(static fn (array $s): array => $s + ['asset' => 's1'], $sounds),
    ]);
    $data['assets'][] = ['id' => 's1', 'kind' => 'sound', 'name' => 'Sea', 'blob' => str_repeat('b', 64), 'digest' => 'reading:sounds'];

    return Scenes::compile($data, $assets);
}

test('a sound is heard from its frame on for as long as it is, and none beyond the end', function (array $sound, array $spans): void {
    $heard = array_map(static fn (Heard $h): array => [$h->start, $h->end], sounding([['id' => 'n'] + $sound])->heard);
    expect($heard)->toEqualWithDelta($spans, 1e-9);
})->with([
    'whole' => [['start' => 24], [[24.0, 120.0]]], 'a part' => [['start' => 24, 'sourceIn' => 1, 'sourceOut' => 2.5], [[24.0, 60.0]]],
    'cut by the end' => [['start' => 150], [[150.0, 192.0]]], 'again and again' => [['start' => 10, 'repeats' => true], [[10.0, 192.0]]],
    'until a frame' => [['start' => 10, 'repeats' => true, 'until' => 100], [[10.0, 100.0]]],
    'after the end' => [['start' => 300], []], 'nothing left of it' => [['start' => 0, 'sourceIn' => 5], []],
]);

test('what hangs on a line goes with it, and sounds make no scene longer', function (): void {
    $of = static fn (int $start): CompiledScene => sounding(
        [['id' => 'n', 'start' => 12, 'line' => 'd']], [['id' => 'd', 'item' => 'oda', 'text' => 'Hark!', 'start' => $start]],
    );
    expect($of(20)->heard[0]->start)->toBe(32.0)->and($of(60)->heard[0]->start)->toBe(72.0)->and($of(60)->frames)->toBe(192);
});

test('ambience gives way where somebody speaks', function (): void {
    $scene = sounding([], [['id' => 'd', 'item' => 'oda', 'text' => 'Hark, the bell!', 'start' => 48]]);
    $lowering = Heard::lowering($scene->utterances, 14.0);
    $u = $scene->utterances[0];
    expect(20 * log10($lowering->gain(($u->from + $u->to) / 48)))->toEqualWithDelta(-14.0, 1e-6)
        ->and($lowering->gain($u->from / 24 - 0.25))->toBe(1.0)->and(Heard::lowering([], 14.0)->corners())->toBe([]);
});

test('who cuts reads lines as they are spoken, not as long as hands go on', function (): void {
    $scene = Scenes::compile([
        'items' => [Scenes::item('oda', 'oda', -0.5, 0.0, 90.0), Scenes::item('bram', 'bram', 0.5, 0.0, -90.0)],
        'beats' => [Scenes::beat('t', 'oda', 'talk', 0), Scenes::beat('u', 'bram', 'talk', 0)],
        'lines' => [
            ['id' => 'a', 'item' => 'oda', 'text' => 'Has he gone already, or is he late?', 'start' => 10, 'beat' => 't'],
            ['id' => 'c', 'item' => 'oda', 'text' => 'Late again.', 'after' => 'a', 'pause' => 2.0],
        ],
    ]);
    $action = Action::of($scene, new FakeAssets, ['oda', 'bram'], 0, $scene->frames);
    $spoken = array_map(static fn ($u): array => [(int) floor($u->from), (int) ceil($u->to), $u->line->item], $scene->utterances);
    $odas = array_values(array_filter($action->lines, static fn (array $l): bool => $l[2] === 'oda'));
    expect($odas)->toBe($spoken)
        // Who has a motion that speaks and no words speaks for as long as that goes on.
        ->and(array_values(array_filter($action->lines, static fn (array $l): bool => $l[2] === 'bram')))->toHaveCount(1);
});
