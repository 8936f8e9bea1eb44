<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Coverage\Lookout;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda alone, filmed in a medium shot for four seconds. */
function watched(array $items = [], array $beats = [], array $framing = []): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('i1', 'oda', 0.0, 0.0, 0.0), ...$items],
        'beats' => $beats === [] ? [Scenes::beat('b1', 'i1', 'talk', 0)] : $beats,
        'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [$framing + [
            'id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'frame' => 0, 'size' => 'medium', 'sideDeg' => 20.0, 'focalMm' => 50.0,
        ]],
        'shots' => [['id' => 's1', 'camera' => 'c1', 'in' => 0, 'out' => 96]],
    ], null, lookedMemory());
}

function lookedMemory(): Memory
{
    static $memory = new Memory;

    return $memory;
}

/** @return list<Finding> */
function lookedFor(CompiledScene $scene): array
{
    return (new Lookout($scene, new FakeAssets, lookedMemory()))->findings();
}

test('a camera that sees whom it films has nothing to tell', function (): void {
    expect(lookedFor(watched()))->toBe([]);
});

test('somebody who is put before a face later is named, and a free place near it mends that', function (): void {
    $camera = SceneEvaluator::at(watched(), 0)->cameras['c1']->position;
    $face = watched()->poses->at(0)->face('i1');
    $between = V3::mix($camera, $face, 0.6);
    $bram = Scenes::item('i2', 'bram', $between[0], $between[2], 0.0);
    $found = lookedFor(watched([$bram]));
    expect($found)->toHaveCount(1)->and($found[0]->code)->toBe('camera.blocked')->and($found[0]->frames)->toBe([0, 95])
        ->and($found[0]->about)->toBe(['c1', 'i1'])->and($found[0]->sentence)->toContain('before')->and($found[0]->mends)->toHaveCount(1);
    $changes = array_diff_key($found[0]->mends[0]->commands[0]->payload, ['framing' => 0]);
    expect(lookedFor(watched([$bram], [], $changes)))->toBe([]);
});

test('who walks out of a camera that stands still is told of from that frame on, and the mend lets it turn', function (): void {
    $walk = [Scenes::beat('b1', 'i1', 'walk', 0)];
    $scene = watched([], $walk, ['keep' => 'still', 'sideDeg' => 90.0]);
    $found = lookedFor($scene);
    expect($found)->toHaveCount(1)->and($found[0]->code)->toBe('camera.lost');
    // By hand: the first frame, to the step of six, at which her eyes fall outside.
    $out = null;
    for ($f = 0; $f < 96 && $out === null; $f++) {
        [$x, $y, $depth] = SceneEvaluator::at($scene, $f)->cameras['c1']->project($scene->poses->at($f)->face('i1'), 16 / 9);
        $out = $depth <= 0.0 || abs($x) > 1.0 || abs($y) > 1.0 ? $f : null;
    }
    expect($out)->not->toBeNull()->and($found[0]->frames[0])->toBeBetween($out - 6, $out + 6);
    $changes = array_diff_key($found[0]->mends[0]->commands[0]->payload, ['framing' => 0]);
    expect($changes)->toBe(['keep' => 'turn'])->and(lookedFor(watched([], $walk, $changes + ['sideDeg' => 90.0])))->toBe([]);
});

test('what is over in less than half a second is not told', function (): void {
    // She leaves the picture a moment before the shot ends.
    $walk = [Scenes::beat('b1', 'i1', 'walk', 0)];
    $all = lookedFor(watched([], $walk, ['keep' => 'still', 'sideDeg' => 90.0]));
    $cut = $all[0]->frames[0] + 8;
    $scene = Scenes::compile([
        'items' => [Scenes::item('i1', 'oda', 0.0, 0.0, 0.0)], 'beats' => $walk, 'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [[
            'id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'frame' => 0, 'size' => 'medium', 'sideDeg' => 90.0, 'focalMm' => 50.0,
            'keep' => 'still',
        ]],
        'shots' => [['id' => 's1', 'camera' => 'c1', 'in' => 0, 'out' => $cut]],
    ], null, lookedMemory());
    expect(lookedFor($scene))->toBe([]);
});
