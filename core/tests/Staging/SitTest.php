<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Staging\Sit;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** @param  list<array<string, mixed>>  $items */
function wantsToSit(array $items, int $at = 12): array
{
    return array_map(
        static fn (Command $c): array => $c->payload, Sit::of(Scenes::compile(['items' => $items]), new FakeAssets, 'o', $at),
    );
}

test('one walks to where one stands before the nearest seat, turns as it faces, and sits down', function (): void {
    $scene = [Scenes::item('o', 'bram', 2.0, 2.0), Scenes::item('far', 'chair', 0.0, -2.0), Scenes::item('near', 'chair', 1.0, 0.5, 90.0)];
    [$walk, $sit] = wantsToSit($scene);
    expect($walk['motion'])->toBe('walk')->and($walk['start'])->toBe(12)->and($sit['motion'])->toBe('sit-down');
    $unit = figure('bram')->body()->scale;
    expect($walk['path']['points'][0])->toEqualWithDelta([1.0 + 0.345 * $unit, 0.5], 0.001)->and($walk['path']['faceDeg'])
        ->toEqualWithDelta(90.0, 0.01)->and($walk['path']['arrive'])->toBe($sit['start'])->and($sit['start'])->toBeGreaterThan(50);
    // Done so, the hips come down on the seat.
    $data = ['items' => $scene, 'beats' => [
        Scenes::beat('w', 'o', 'walk', 12, ['path' => $walk['path']]), Scenes::beat('s', 'o', 'sitDown', $sit['start']),
    ]];
    $s = Scenes::compile($data);
    $hips = hipsOf($s, $s->lanes['o']->end() - 1);
    expect([$hips[0], $hips[2]])->toEqualWithDelta([1.0, 0.5], 0.05)->and($hips[1])->toEqualWithDelta(0.465 + 0.10 * $unit, 0.02);
});

test('a seat on which somebody sits is left to them; who stands before one just sits down; nothing near is no seat', function (): void {
    $unit = figure('bram')->body()->scale;
    $taken = [Scenes::item('o', 'bram', 2.0, 2.0), Scenes::item('c', 'chair'), Scenes::item('p', 'oda', 0.0, 0.1)];
    expect(wantsToSit($taken))->toBe([]);
    expect(wantsToSit([Scenes::item('o', 'bram', 0.0, 0.345 * $unit), Scenes::item('c', 'chair')]))->toBe([]);
    expect(wantsToSit([Scenes::item('o', 'bram', 9.0, 0.0), Scenes::item('c', 'chair')]))->toBe([]);
    expect(wantsToSit([Scenes::item('o', 'bram', 1.0, 1.0), Scenes::item('c', 'bicycle'), Scenes::item('k', 'key')]))->toBe([]);
});

test('of a bench with two places the free one is taken, and a seat on another storey is left', function (): void {
    $bench = Scenes::item('b', 'bench');
    $first = wantsToSit([Scenes::item('o', 'bram', 0.9, 2.0), $bench])[0]['path']['points'][0];
    expect($first)->toEqualWithDelta([0.312, 0.02 + 0.345 * figure('bram')->body()->scale], 0.01);
    $second = wantsToSit([Scenes::item('o', 'bram', 0.9, 2.0), $bench, Scenes::item('p', 'oda', 0.31, 0.1)])[0]['path']['points'][0];
    expect($second[0])->toEqualWithDelta(-0.312, 0.01);
    foreach ([-1.2, 0.9] as $storey) {
        expect(wantsToSit([Scenes::item('o', 'bram', 0.9, 2.0), Scenes::item('b', 'bench', y: $storey)]))->toBe([]);
    }
});

/** @return array{float, float, float} */
function hipsOf(CompiledScene $s, float $frame): array
{
    return $s->poses->at($frame)->joint('o', $s->lanes['o']->figure->hips)->position;
}
