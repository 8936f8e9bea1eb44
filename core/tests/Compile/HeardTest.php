<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\GivingWay;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Coverage\Action;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * A scene of eight seconds with sounds of four seconds.
 *
 * @param  list<array<string, mixed>>  $sounds
 * @param  list<array<string, mixed>>  $lines
 * @param  array<string, mixed>  $digest  what is known of the sound besides
 * @param  array<string, mixed>  $mix
 */
function sounding(array $sounds, array $lines = [], array $digest = [], array $mix = []): CompiledScene
{
    $assets = new FakeAssets;
    $assets->solved['sounds'] = json_encode(['kind' => 'sound', 'seconds' => 4] + $digest, JSON_THROW_ON_ERROR);
    $data = Scenes::data([
        'items' => [Scenes::item('oda', 'oda')], 'beats' => [Scenes::beat('b', 'oda', 'idle', 0, ['play' => ['length' => 240]])],
        'lines' => $lines, 'sounds' => array_map(static fn (array $s): array => $s + ['asset' => 's1'], $sounds),
    ] + ($mix === [] ? [] : ['mix' => $mix]));
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
    $line = [['id' => 'd', 'item' => 'oda', 'text' => 'Hark, the bell!', 'start' => 48]];
    $scene = sounding([], $line, mix: ['lowered' => 14]);
    $lowering = GivingWay::of($scene);
    $u = $scene->utterances[0];
    expect(20 * log10($lowering->gain(($u->from + $u->to) / 48)))->toEqualWithDelta(-14.0, 1e-6)
        ->and($lowering->gain($u->from / 24 - 0.25))->toBe(1.0)
        ->and(GivingWay::of($scene, 24)->gain(($u->from + $u->to) / 48 - 1.0))->toBe($lowering->gain(($u->from + $u->to) / 48))
        ->and(GivingWay::of(sounding([], $line, mix: ['lowered' => 14, 'muted' => ['speech']]))->corners())->toBe([])
        ->and(GivingWay::of(sounding([]))->corners())->toBe([]);
});

test('it gives way as far as it must for speech to stand above it, and no farther', function (
    array $sound, array $digest, array $mix, float $down,
): void {
    $line = [['id' => 'd', 'item' => 'oda', 'text' => 'Hark, the bell!', 'start' => 0]];
    $sounds = $sound === [] ? [] : [$sound + ['id' => 'n', 'start' => 0, 'repeats' => true, 'lane' => 'music']];
    $corners = GivingWay::of(sounding($sounds, $line, $digest, $mix))->corners();
    // A line that nobody has read is taken to have -16 LUFS: the bed comes to -29.5.
    expect(-min([0.0, ...array_column($corners, 1)]))->toEqualWithDelta($down, 0.02);
})->with([
    'as loud as speech' => [['level' => 0], ['loud' => [-16.0, -16.0, -16.0, -16.0]], [], 13.5],
    'softer by its level' => [['level' => -6], ['loud' => [-16.0]], [], 7.5],
    'by the lane and by that of speech' => [['level' => -6], ['loud' => [-16.0]], ['music' => -2, 'speech' => 3], 2.5],
    'soft enough' => [['level' => -30], ['loud' => [-16.0]], [], 0.0],
    'bent' => [['level' => 0, 'curve' => [[0, -5.0]]], ['loud' => [-16.0]], [], 8.5],
    'louder where it is heard' => [['level' => 0, 'sourceIn' => 3], ['loud' => [-70.0, -70.0, -70.0, -10.0]], [], 19.5],
    'never measured' => [['level' => 0], [], [], 14.0], 'never measured, and muted' => [['muted' => true], [], [], 0.0],
    'no bed' => [[], [], [], 0.0], 'effects do not' => [['lane' => 'effects'], ['loud' => [-10.0]], [], 0.0],
    'as somebody wants it' => [['level' => 0], ['loud' => [-16.0]], ['lowered' => 3], 3.0],
]);

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
