<?php

declare(strict_types=1);

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\HeardFrom;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** A camera at (0, 1, 0) that looks along -z through a lens whose picture is as wide as it is far. */
function earAt(): CameraPose
{
    // Half of the sensor's width of 36 mm over 18 mm: the border is at 45 degrees.
    return new CameraPose([0.0, 1.0, 0.0], [0.0, 0.0, 0.0, 1.0], 18.0, 3.0, 4.0, 36.0);
}

test('what is farther is softer by its distance, and no more than so much', function (float $metres, float $decibels): void {
    expect(HeardFrom::from(earAt(), [0.0, 1.0, -$metres], 16 / 9))->toEqualWithDelta([$decibels, 0.0], 0.01);
})->with([
    'near' => [0.5, 0.0], 'where it begins' => [2.5, 0.0], 'twice as far' => [5.0, -6.02], 'ten times' => [25.0, -18.0],
    'at the horizon' => [400.0, -18.0],
]);

test('it comes from the side that it is seen at', function (array $at, float $side): void {
    expect(HeardFrom::from(earAt(), $at, 16 / 9)[1])->toEqualWithDelta($side, 0.002);
})->with([
    'in the middle' => [[0.0, 1.0, -2.0], 0.0], 'at the right border' => [[2.0, 1.0, -2.0], 0.7], 'half way' => [[-1.0, 3.0, -2.0], -0.35],
    'out of the picture, before the camera' => [[4.0, 1.0, -2.0], 0.8], 'square to the view' => [[2.0, 1.0, 0.0], 0.9],
    'behind, at the left' => [[-2.0, 1.0, 2.0], -0.636], 'right behind' => [[0.0, 1.0, 2.0], 0.0],
]);

/**
 * Two who stand at the left and at the right, a line of each, and two cameras: one before them, and one ten metres away.
 *
 * @param  list<string>  $placed
 */
function heardFromCameras(array $placed): CompiledScene
{
    $assets = new FakeAssets;
    $assets->solved['sounds'] = json_encode(['kind' => 'sound', 'seconds' => 6], JSON_THROW_ON_ERROR);
    $data = Scenes::data([
        'items' => [Scenes::item('oda', 'oda', -1.0), Scenes::item('bram', 'bram', 1.0), Scenes::item('key', 'key', 1.0, 0.0, 0.0, 1.0)],
        'beats' => [Scenes::beat('b', 'oda', 'idle', 0, ['play' => ['length' => 240]])],
        'lines' => [
            ['id' => 'a', 'item' => 'oda', 'text' => 'Has the last boat left the pier?', 'start' => 10],
            ['id' => 'c', 'item' => 'bram', 'text' => 'Long ago, and without you.', 'start' => 90],
        ],
        'cameras' => [Scenes::camera('ca', [['position' => [0, 1, 3]]]), Scenes::camera('cb', [['position' => [0, 1, 10]]])],
        'shots' => [['id' => 's1', 'camera' => 'ca', 'in' => 0], ['id' => 's2', 'camera' => 'cb', 'in' => 100]],
        'sounds' => [
            ['id' => 'n', 'start' => 0, 'asset' => 's', 'thing' => 'key', 'lane' => 'effects'],
            ['id' => 'm', 'start' => 0, 'asset' => 's', 'lane' => 'effects'],
        ],
        'mix' => ['placed' => $placed],
    ]);
    $data['assets'][] = ['id' => 's', 'kind' => 'sound', 'name' => 'Hum', 'blob' => str_repeat('b', 64), 'digest' => 'reading:sounds'];

    return Scenes::compile($data, $assets);
}

test('lines are heard from whom they are of, and a cut is heard', function (): void {
    $scene = heardFromCameras(['speech', 'effects']);
    $of = new HeardFrom($scene);
    [$odas, $brams] = array_map($of->line(...), $scene->utterances);
    foreach ($odas as [$frame, $decibels, $side]) {
        expect($side)->toBeLessThan(-0.2)->and($decibels)->toBeGreaterThan(-3.0)->and($frame)->toBeLessThan(100.0);
    }
    $side = [...array_filter($brams, static fn (array $p): bool => $p[0] < 100.0)];
    $after = [...array_filter($brams, static fn (array $p): bool => $p[0] >= 100.0)];
    expect($side)->not->toBe([])->and(min(array_column($side, 2)))->toBeGreaterThan(0.2)
        ->and(end($side)[0])->toBe(99.99)->and($after[0][0])->toBe(100.0)
        ->and($after[0][1])->toEqualWithDelta(-20 * log10(10.05 / 2.5), 0.2)->and($after[0][2])->toBeLessThan($side[0][2]);
    // Each is told in the order of its frames, and what hangs on nothing is nowhere.
    expect(array_column($brams, 0))->toBe(array_unique([...array_column($brams, 0)]));
    foreach ($scene->heard as $h) {
        expect($of->sound($h) === [])->toBe($h->sound->id === 'm');
    }
});

test('lanes of which it is not said are heard as they are', function (): void {
    $scene = heardFromCameras(['steps']);
    $of = new HeardFrom($scene);
    expect(array_map($of->line(...), $scene->utterances))->toBe([[], []])->and($of->sound($scene->heard[0]))->toBe([]);
});
