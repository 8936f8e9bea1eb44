<?php

declare(strict_types=1);

use CrispReel\Core\Camera\CameraMove;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\HandHeld;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\Shake;
use CrispReel\Core\Math\Lens;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

test('angles of view', function (float $mm, float $focal, float $degrees): void {
    expect(rad2deg(Lens::angle($mm, $focal)))->toEqualWithDelta($degrees, 0.005);
})->with([
    // 2 atan(36 / 100) and so on: the usual tables.
    'full frame at 50 mm, across' => [36.0, 50.0, 39.598], 'full frame at 50 mm, up' => [24.0, 50.0, 26.991],
    '24 mm, across' => [36.0, 24.0, 73.740], 'as long as wide' => [36.0, 18.0, 90.0],
]);

test('the picture fits the sensor by its width', function (): void {
    expect(Lens::verticalAngle(36.0, 50.0, 1.5))->toEqualWithDelta(Lens::angle(24.0, 50.0), 1e-12)
        ->and(Lens::verticalAngle(36.0, 50.0, 16 / 9))->toEqualWithDelta(Lens::angle(20.25, 50.0), 1e-12);
});

test('depth of field by the thin-lens formulas', function (): void {
    $c = Lens::confusion(36.0, 24.0);
    expect($c)->toEqualWithDelta(0.02884, 1e-5);
    // f 50, N 2.8, s 3 m: H = 2500 / (2.8 c) + 50 = 31 008 mm; near 3000 * 30958 / 33908, far 3000 * 30958 / 28008.
    [$near, $far] = Lens::depthOfField(50.0, 2.8, 3.0, $c);
    expect($near)->toEqualWithDelta(2.739, 0.001)->and($far)->toEqualWithDelta(3.316, 0.001);
    // Focused beyond the hyperfocal distance everything far is sharp.
    expect(Lens::depthOfField(24.0, 11.0, 6.0, $c)[1])->toBe(INF);
});

test('points fall where geometry puts them', function (): void {
    $c = new CameraPose([0.0, 1.0, 5.0], Q4::IDENTITY, 18.0, 5.0, 4.0, 36.0);
    // Half the width is at 45 degrees: 5 m away the frame is 10 m wide.
    expect($c->project([5.0, 1.0, 0.0], 2.0))->toEqualWithDelta([1.0, 0.0, 5.0], 1e-9)
        ->and($c->project([0.0, 3.5, 0.0], 2.0))->toEqualWithDelta([0.0, 1.0, 5.0], 1e-9)
        ->and($c->project([0.0, 1.0, 9.0], 2.0)[2])->toBe(-4.0);
});

/** @param  list<array<string, mixed>>  $keys */
function moving(array $keys): Camera
{
    return Camera::from(new Input(Scenes::camera('ca', $keys)));
}

test('a move of two keys', function (string $ease, float $frame, float $x): void {
    $c = moving([
        ['frame' => 10, 'position' => [0, 0, 0], 'ease' => $ease, 'focalMm' => 20.0],
        ['frame' => 30, 'position' => [8, 0, 0], 'focalMm' => 60.0],
    ]);
    $p = CameraMove::at($c, $frame);
    expect($p->position[0])->toEqualWithDelta($x, 1e-6)->and($p->focalMm)->toEqualWithDelta(20 + 5 * $x, 1e-6);
})->with([
    'before' => ['linear', 0.0, 0.0], 'at the first' => ['linear', 10.0, 0.0], 'a quarter' => ['linear', 15.0, 2.0],
    'eased, half' => ['inOut', 20.0, 4.0],
    'held' => ['hold', 29.0, 0.0], 'at the last' => ['hold', 30.0, 8.0], 'after' => ['linear', 99.0, 8.0],
]);

test('a move of several eased keys goes through them: it stops at the first and the last alone, and overshoots none', function (): void {
    $c = moving([
        ['frame' => 0, 'position' => [0, 0, 0]], ['frame' => 20, 'position' => [2, 1, 0], 'rotation' => Q4::aroundY(0.4)],
        ['frame' => 40, 'position' => [4, 1, 0], 'rotation' => Q4::mul(Q4::aroundY(0.8), [0, 0, 0, -1])],
        ['frame' => 60, 'position' => [4, 1, 0]],
    ]);
    $x = static fn (float $f): float => CameraMove::at($c, $f)->position[0];
    $speed = static fn (float $f): float => ($x($f + 0.01) - $x($f - 0.01)) / 0.02;
    expect($x(20))->toEqualWithDelta(2.0, 1e-6)->and($speed(20))->toBeGreaterThan(0.08)->and($speed(0.1))->toBeLessThan(0.02)
        // What stands between two alike keys stands still, and is come to gently.
        ->and($x(50))->toEqualWithDelta(4.0, 1e-6)->and($speed(39.9))->toBeLessThan(0.02);
    for ($f = 0.0; $f < 60.0; $f += 0.5) {
        $p = CameraMove::at($c, $f);
        expect($p->position[1])->toBeLessThanOrEqual(1.0 + 1e-9)
            ->and(Q4::angleBetween($p->rotation, CameraMove::at($c, $f + 0.5)->rotation))->toBeLessThan(0.04);
    }
});

test('a hand trembles within what is said, evenly over time, and the same for any frame asked for first', function (): void {
    $pose = new CameraPose([1.0, 1.5, 4.0], Q4::aroundY(0.3), 50.0, 3.0, 4.0, 36.0);
    $shake = new Shake(2.0, 1.5, 0.05, 7);
    $at = static fn (float $s): CameraPose => HandHeld::shaken($pose, $shake, $s);
    $turns = $moves = [];
    for ($f = 0; $f < 480; $f++) {
        $p = $at($f / 24);
        $turns[] = rad2deg(Q4::angleBetween($p->rotation, $pose->rotation));
        $moves[] = V3::distance($p->position, $pose->position);
        // 24 pictures a second follow it: nothing leaps.
        expect(rad2deg(Q4::angleBetween($p->rotation, $at(($f + 1) / 24)->rotation)))->toBeLessThan(1.5);
    }
    expect(max($turns))->toBeGreaterThan(1.0)->toBeLessThan(2.0 * sqrt(2.16))->and(max($moves))->toBeGreaterThan(0.02)
        ->toBeLessThan(0.05 * sqrt(3))->and($at(3.7))->toEqual($at(3.7))
        ->and(HandHeld::shaken($pose, new Shake(2.0, 1.5, 0.05, 8), 3.7))->not->toEqual($at(3.7));
});

test('keys may come in any order', function (): void {
    expect(array_map(static fn ($k): int => $k->frame, moving([['frame' => 30], ['frame' => 10], ['frame' => 20]])->keys))
        ->toBe([10, 20, 30]);
});

test('aim turns evenly', function (): void {
    $c = moving([['frame' => 0, 'ease' => 'linear'], ['frame' => 10, 'rotation' => Q4::aroundY(1.0)]]);
    expect(Q4::angleBetween(CameraMove::at($c, 5)->rotation, Q4::aroundY(0.5)))->toBeLessThan(1e-9);
});

test('focus follows the head in the middle unless it is set', function (): void {
    $free = moving([['frame' => 0, 'position' => [0, 1.5, 5]]]);
    expect(CameraMove::at($free, 0, [[0.1, 1.5, 1.0], [2.0, 1.5, 3.0]])->focusMetres)->toEqualWithDelta(4.0, 1e-9)
        ->and(CameraMove::at($free, 0, [[0.0, 1.5, 8.0]])->focusMetres)->toBe(8.0)
        ->and(CameraMove::at(moving([['frame' => 0, 'focusMetres' => 2.5]]), 0, [[0.0, 1.5, 1.0]])->focusMetres)->toBe(2.5);
});
