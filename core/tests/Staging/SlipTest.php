<?php

declare(strict_types=1);

use CrispReel\Core\Document\CameraKey;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Staging\Slip;
use CrispReel\Core\Staging\UnableToStage;

/** @return list<CameraKey> */
function slippedKeys(int ...$frames): array
{
    return array_map(static fn (int $f): CameraKey => new CameraKey($f, [1.0, 2.0, 3.0], [0.0, 0.0, 0.0, 1.0]), array_values($frames));
}

test('keys come later by as many frames, and say the rest as before', function (): void {
    $keys = slippedKeys(24, 60);
    expect(Slip::by($keys, [], 12, 'A'))->toBe(12);
    $moved = Slip::keys($keys, 12);
    expect(array_column($moved, 'frame'))->toBe([36, 72])
        ->and(array_diff_key($moved[1], ['frame' => 0]))->toBe(array_diff_key($keys[1]->toArray(), ['frame' => 0]));
});

test('nothing begins before the scene does', function (): void {
    expect(Slip::by(slippedKeys(24, 60), [], -30, 'A'))->toBe(-24);
    $framings = [new Framing('f1', 'c1', 'i1', frame: 5), new Framing('f2', 'c1', 'i1', frame: 40, over: 24)];
    expect(Slip::by([], $framings, -9, 'A'))->toBe(-5);
});

test('a camera that does one thing all the time has nothing to slip, and says so', function (): void {
    expect(fn () => Slip::by(slippedKeys(0), [], 6, 'B'))->toThrow(UnableToStage::class, 'Camera B does not move.');
    expect(fn () => Slip::by([], [new Framing('f1', 'c1', 'i1')], 6, 'B'))->toThrow(UnableToStage::class);
    // What goes along is somewhere else at another frame.
    expect(Slip::by([], [new Framing('f1', 'c1', 'i1', keep: 'follow')], 6, 'B'))->toBe(6);
});
