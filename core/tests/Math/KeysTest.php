<?php

declare(strict_types=1);

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Keys;
use CrispReel\Core\Math\Smoothing;

test('the keys around a time, and the share of the way between them', function (array $times, float $at, array $wanted): void {
    expect(Keys::around($times, $at))->toEqualWithDelta($wanted, 1e-12);
})->with([
    'before all' => [[10, 20, 40], 3.0, [0, 0, 0.0]],
    'on the first' => [[10, 20, 40], 10.0, [0, 1, 0.0]],
    'between' => [[10, 20, 40], 12.5, [0, 1, 0.25]],
    'on one' => [[10, 20, 40], 20.0, [1, 2, 0.0]],
    'later' => [[10, 20, 40], 35.0, [1, 2, 0.75]],
    'on the last' => [[10, 20, 40], 40.0, [2, 2, 0.0]],
    'after all' => [[10, 20, 40], 99.0, [2, 2, 0.0]],
    'one alone' => [[10], 10.5, [0, 0, 0.0]],
]);

test('the key below is what a walk along them finds', function (): void {
    for ($n = 1; $n < 40; $n++) {
        $times = array_map(static fn (int $k): float => $k * 1.5 + ($k % 3) * 0.1, range(0, $n));
        for ($at = -1.0; $at < 1.5 * $n + 2; $at += 0.37) {
            $found = 0;
            foreach ($times as $k => $t) {
                $found = $t <= $at ? $k : $found;
            }
            expect(Keys::below($times, $at))->toBe($found);
        }
    }
});

test('directions come back between minus and plus half a turn', function (float $from, float $to, float $wanted): void {
    expect(rad2deg(Angle::between(deg2rad($from), deg2rad($to))))->toEqualWithDelta($wanted, 1e-9);
})->with([[10, 30, 20], [350, 10, 20], [10, 350, -20], [-170, 170, -20], [0, 720, 0], [0, 190, -170]]);

test('a bell spreads one value as the bell is, keeps even ones, and loses nothing inside', function (): void {
    expect(Smoothing::gaussian(array_fill(0, 9, 2.5), 1.7))->toEqualWithDelta(array_fill(0, 9, 2.5), 1e-12);
    $peak = array_fill(0, 41, 0.0);
    $peak[20] = 1.0;
    $out = Smoothing::gaussian($peak, 2.0);
    // Ratios of the bell: exp(-d^2 / 8) at a distance of d.
    foreach ([1, 2, 5] as $d) {
        expect($out[20 + $d] / $out[20])->toEqualWithDelta(exp(-$d * $d / 8), 1e-12)->and($out[20 - $d])
            ->toEqualWithDelta($out[20 + $d], 1e-15);
    }
    expect(array_sum($out))->toEqualWithDelta(1.0, 1e-12)->and($out[20 + 7])->toBe(0.0)
        // A straight line stays one, away from its ends.
        ->and(Smoothing::gaussian(range(0, 20), 1.0)[10])->toEqualWithDelta(10.0, 1e-12)
        ->and(Smoothing::gaussian([], 1.0))->toBe([]);
});
