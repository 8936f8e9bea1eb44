<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Tests\Support\Scenes;

/** @param  array<string, mixed>  $path @param  array<string, mixed>  $settings */
function arriving(array $path, array $settings, float $headingDeg): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('o', 'bram', 0.4, -0.3, $headingDeg)],
        'beats' => [Scenes::beat('w', 'o', 'walk', 12, ['path' => $path, 'settings' => $settings])],
    ]);
}

test('a walk ends on the asked mark, facing as asked, at the asked frame', function (array $path, array $settings, float $from): void {
    $s = arriving($path, $settings, $from);
    $lane = $s->lanes['o'];
    $row = $lane->row($lane->end());
    $place = $s->places['o'];
    // Where one stands is the middle between the feet.
    $feet = [];
    foreach (['footL', 'footR'] as $role) {
        [$x, $z, $heading] = $lane->figure->standing($row, $lane->figure->skeleton->roles[$role]);
        $at = $place->point([$x, 0.0, $z]);
        $feet[] = [$at[0], $at[2], $heading + deg2rad($from)];
    }
    [$wx, $wz] = $path['points'][count($path['points']) - 1];
    $middle = [($feet[0][0] + $feet[1][0]) / 2, ($feet[0][1] + $feet[1][1]) / 2];
    expect(hypot($middle[0] - $wx, $middle[1] - $wz))->toBeLessThan(0.01);
    if (isset($path['faceDeg'])) {
        $facing = $feet[0][2] + Angle::wrapped($feet[1][2] - $feet[0][2]) / 2;
        expect(abs(rad2deg(Angle::wrapped($facing - deg2rad($path['faceDeg'])))))->toBeLessThan(2.0);
    }
    if (isset($path['arrive'])) {
        expect($lane->end())->toEqualWithDelta((float) $path['arrive'], 1.0);
    }
})->with([
    'straight ahead' => [['points' => [[0.4, 3.0]]], ['speed' => 1.2], 0.0],
    'one step' => [['points' => [[0.4, 0.35]]], ['speed' => 1.2], 0.0],
    'with a turn at both ends' => [['points' => [[3.0, 2.0]], 'faceDeg' => -70.0], ['speed' => 1.3], 180.0],
    'round a bend, an old man' => [['points' => [[2.0, 1.0], [3.0, 4.0]], 'faceDeg' => 40.0], ['speed' => 0.8, 'age' => 1.0], 20.0],
    'on time' => [['points' => [[0.4, 4.0]], 'arrive' => 140, 'faceDeg' => 90.0], ['speed' => 1.2], 0.0],
    'at a run' => [['points' => [[0.4, 6.0]], 'faceDeg' => 0.0], ['speed' => 2.8], 0.0],
    'at a run, on time' => [['points' => [[6.0, 1.0]], 'arrive' => 110], ['speed' => 2.8], 45.0],
]);
