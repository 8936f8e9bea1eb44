<?php

declare(strict_types=1);

use CrispReel\Core\Kit\Figure\Face;
use CrispReel\Core\Rig\FaceShapes;

test('shapes of other faces are told from their words', function (string $name, array $plays): void {
    $map = FaceShapes::map([$name], Face::MORPHS);
    $got = [];
    foreach ($map as $to => $shares) {
        $got[Face::MORPHS[$to]] = $shares[0];
    }
    expect($got)->toEqual($plays);
})->with([
    'the same name' => ['blinkL', ['blinkL' => 1.0]], 'a prefix' => ['face.smile', ['smile' => 1.0]],
    'a blink, long side' => ['eyeBlinkLeft', ['blinkL' => 1.0]], 'a blink, side behind' => ['Eyes_Closed_R', ['blinkR' => 1.0]],
    'both lids' => ['blink', ['blinkL' => 1.0, 'blinkR' => 1.0]], 'brows' => ['browOuterUpLeft', ['browsUp' => 1.0]],
    'brows down' => ['BrowDown_L', ['browsDown' => 1.0]], 'a jaw' => ['jawOpen', ['aa' => 1.0]], 'one letter' => ['A', ['aa' => 1.0]],
    'a letter with a word' => ['viseme_oh', ['oh' => 1.0]], 'lips out' => ['mouthPucker', ['oo' => 1.0]],
    'lips shut' => ['viseme_PP', ['mbp' => 1.0]], 'teeth on lips' => ['V_FF', ['fv' => 1.0]], 'joy' => ['Joy', ['smile' => 1.0]],
    'half a smile' => ['mouthSmileLeft', ['smile' => 1.0]], 'a frown' => ['mouthFrownRight', ['frown' => 1.0]],
    'unknown' => ['earWiggle', []], 'a nose' => ['noseSneerLeft', []],
]);

test('two sides share one shape, and what a face lacks is played by the nearest', function (): void {
    $map = FaceShapes::map(['mouthSmileLeft', 'mouthSmileRight'], ['smile']);
    expect($map)->toEqual([0 => [0 => 0.5, 1 => 0.5]]);
    expect(FaceShapes::map(['viseme_I'], ['aa', 'ee']))->toEqual([1 => [0 => 0.7], 0 => [0 => 0.4]])
        ->and(FaceShapes::map(['smile'], []))->toBe([])->and(FaceShapes::map([], ['smile']))->toBe([]);
});
