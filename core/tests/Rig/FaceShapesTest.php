<?php

declare(strict_types=1);

use CrispReel\Core\Kit\Figure\Face;
use CrispReel\Core\Rig\FacePlayer;
use CrispReel\Core\Rig\FaceShapes;

/** Shapes that many faces from elsewhere have: one for each sound. */
const SOUNDS_OF_A_FACE = [
    'viseme_sil', 'viseme_PP', 'viseme_FF', 'viseme_TH', 'viseme_DD', 'viseme_kk', 'viseme_CH', 'viseme_SS', 'viseme_nn', 'viseme_RR',
    'viseme_aa', 'viseme_E', 'viseme_ih', 'viseme_oh', 'viseme_ou',
];

/** And those of a face that is told muscle by muscle, as far as they concern speech and mood. */
const MUSCLES_OF_A_FACE = [
    'browDownLeft', 'browDownRight', 'browInnerUp', 'browOuterUpLeft', 'browOuterUpRight', 'cheekSquintLeft', 'cheekSquintRight',
    'eyeBlinkLeft', 'eyeBlinkRight', 'eyeSquintLeft', 'eyeSquintRight', 'eyeWideLeft', 'eyeWideRight', 'jawOpen', 'mouthClose',
    'mouthFrownLeft', 'mouthFrownRight', 'mouthFunnel', 'mouthLeft', 'mouthLowerDownLeft', 'mouthLowerDownRight', 'mouthPressLeft',
    'mouthPressRight', 'mouthPucker', 'mouthRight', 'mouthRollLower', 'mouthShrugLower', 'mouthSmileLeft', 'mouthSmileRight',
    'mouthStretchLeft', 'mouthStretchRight', 'mouthUpperUpLeft', 'mouthUpperUpRight', 'noseSneerLeft', 'noseSneerRight', 'tongueOut',
];

/**
 * @param  list<string>  $face
 * @return array<string, float> shapes of a face that play a name
 */
function played(string $name, array $face): array
{
    $out = [];
    foreach ((new FacePlayer($face))->of($name) as $k => $share) {
        $out[$face[$k]] = $share;
    }

    return $out;
}

test('shapes of other faces are told from their words', function (string $name, array $plays): void {
    expect(played($name, Face::MORPHS))->toEqual($plays);
})->with([
    'the same name' => ['blinkL', ['blinkL' => 1.0]], 'a prefix' => ['face.jawOpen', ['jawOpen' => 1.0]],
    'a blink, long side' => ['eyeBlinkLeft', ['blinkL' => 1.0]], 'a blink, side behind' => ['Eyes_Closed_R', ['blinkR' => 1.0]],
    'both lids' => ['blink', ['blinkL' => 1.0, 'blinkR' => 1.0]], 'one brow' => ['browOuterUpLeft', ['browOutUpL' => 1.0]],
    'inner brows' => ['browInnerUp', ['browInUpL' => 1.0, 'browInUpR' => 1.0]], 'brows down' => ['BrowDown_L', ['browDownL' => 1.0]],
    'one letter' => ['A', ['jawOpen' => 0.85, 'upperUp' => 0.25, 'lowerDown' => 0.3]],
    'a letter with a word' => ['viseme_oh', ['funnel' => 0.75, 'jawOpen' => 0.5]], 'lips out' => ['mouthPucker', ['pucker' => 1.0]],
    'lips shut' => ['viseme_PP', ['press' => 0.85]], 'teeth on lips' => ['V_FF', ['lowerIn' => 1.0]],
    'joy' => ['Joy', [
        'cornerUpL' => 1.0, 'cornerUpR' => 1.0, 'cheekL' => 0.4, 'cheekR' => 0.4, 'squintL' => 0.15, 'squintR' => 0.15,
    ]],
    'half a smile' => ['mouthSmileLeft', ['cornerUpL' => 1.0]], 'a frown' => ['mouthFrownRight', ['cornerDownR' => 1.0]],
    'unknown' => ['earWiggle', []], 'a nose' => ['noseSneerLeft', ['sneerL' => 1.0]], 'the whole mouth' => ['mouthLeft', ['mouthL' => 1.0]],
]);

test('every shape of the house is played by a face that is told muscle by muscle', function (): void {
    foreach (array_diff(Face::MORPHS, ['tongueUp']) as $shape) {
        expect(played($shape, MUSCLES_OF_A_FACE))->not->toBe([], $shape);
    }
    expect(played('cornerUpL', MUSCLES_OF_A_FACE))->toBe(['mouthSmileLeft' => 1.0])
        ->and(played('seal', MUSCLES_OF_A_FACE))->toBe(['mouthClose' => 1.0])
        ->and(played('upperUp', MUSCLES_OF_A_FACE))->toBe(['mouthUpperUpLeft' => 1.0, 'mouthUpperUpRight' => 1.0])
        ->and(played('browInUpR', MUSCLES_OF_A_FACE))->toBe(['browInnerUp' => 0.5]);
});

test('a face with one shape for each sound opens, closes and rounds its mouth', function (): void {
    expect(
        played('jawOpen', SOUNDS_OF_A_FACE),
    )->toBe(['viseme_aa' => 0.9])->and(played('press', SOUNDS_OF_A_FACE))->toBe(['viseme_PP' => 1.0])
        ->and(
            played('seal', SOUNDS_OF_A_FACE),
        )->toBe(['viseme_aa' => -0.9])->and(played('lowerIn', SOUNDS_OF_A_FACE))->toBe(['viseme_FF' => 1.0])
        ->and(
            played('pucker', SOUNDS_OF_A_FACE),
        )->toBe(['viseme_ou' => 1.0])->and(played('funnel', SOUNDS_OF_A_FACE))->toBe(['viseme_oh' => 0.8]);
    $row = (new FacePlayer(SOUNDS_OF_A_FACE))->row(['jawOpen' => 0.5, 'seal' => 0.5, 'press' => 0.85]);
    expect(array_sum($row))->toEqualWithDelta(0.85, 1e-9);
});

test('two sides share one shape, and what a face lacks is played by the nearest', function (): void {
    $map = FaceShapes::map(['mouthSmileLeft', 'mouthSmileRight'], ['smile']);
    expect($map)->toEqual([0 => [0 => 0.5, 1 => 0.5]]);
    expect(FaceShapes::map(['viseme_I'], ['aa', 'ee']))->toEqual([1 => [0 => 0.7], 0 => [0 => 0.4]])
        ->and(FaceShapes::map(['smile'], []))->toBe([])->and(FaceShapes::map([], ['smile']))->toBe([]);
});

test('a face that can do nothing does nothing, and nothing goes beyond its measure', function (): void {
    expect((new FacePlayer([]))->row(['jawOpen' => 1.0]))->toBe([])
        ->and((new FacePlayer(['mouthOpen']))->row(['jawOpen' => 1.0, 'seal' => 0.4]))->toEqualWithDelta([0.6], 1e-9)
        ->and((new FacePlayer(['smile']))->row(['cornerUpL' => 9.0]))->toBe([FacePlayer::MOST]);
});
