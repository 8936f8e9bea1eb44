<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda before a slope, with a beat. @param  array<string, mixed>  $more */
function beforeSlope(string $motion, array $more): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), ['kind' => 'set'] + Scenes::item('W', 'slope10', 0.0, 1.0)],
        'beats' => [Scenes::beat('b', 'o', $motion, 0, $more)],
    ]);
}

test('a plain walk over a slope goes a way of its own', function (string $motion, array $more): void {
    $segment = beforeSlope($motion, $more)->lanes['o']->segments[0];
    expect($segment->from->path)->not->toBeNull()->and($segment->fit)->toBeNull()->and($segment->from->id)->toBe('b')
        ->and($segment->from->path->points[0][1])->toBeGreaterThan(1.5);
})->with([
    'endless, twice' => ['walk', ['loops' => 2]], 'to a mark' => ['walkToMark', []],
    'with its arms wider' => ['walk', ['loops' => 2, 'play' => ['armWidthDeg' => 10.0]]],
]);

test('what is more than a plain walk is fitted to the ground as it is', function (string $motion, array $more): void {
    $segment = beforeSlope($motion, $more)->lanes['o']->segments[0];
    expect($segment->from->path)->toBeNull()->and($segment->fit)->not->toBeNull();
})->with([
    'backwards' => [
        'walk', ['loops' => 2, 'play' => ['reverse' => true]],
    ], 'eased' => ['walk', ['loops' => 2, 'play' => ['ease' => [0.4, 0.0, 0.6, 1.0]]]],
    'with speeds' => ['walk', ['loops' => 2, 'play' => ['speeds' => [[0, 1.0], [20, 0.5]]]]],
    'held before' => [
        'walk', ['loops' => 2, 'play' => ['holdBefore' => 10]],
    ], 'in a mirror' => ['walk', ['loops' => 2, 'play' => ['mirror' => true]]],
    'from its middle' => ['walk', ['loops' => 2, 'sourceIn' => 0.4]],
]);

test('a walk on the spot and a walk beside the slope stay as they are', function (): void {
    expect(beforeSlope('walk', ['loops' => 2, 'root' => 'spot'])->lanes['o']->segments[0]->from->path)->toBeNull();
    $beside = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 9.0), ['kind' => 'set'] + Scenes::item('W', 'slope10', 0.0, 1.0)],
        'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['loops' => 2])],
    ]);
    expect($beside->lanes['o']->segments[0]->from->path)->toBeNull()->and($beside->lanes['o']->segments[0]->fit)->toBeNull();
});
