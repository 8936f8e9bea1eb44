<?php

declare(strict_types=1);

use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\MonotoneTrack;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Random;

test('cubic-bezier solves for x', function (string $name, float $t, float $expected): void {
    expect(Ease::named($name, $t))->toEqualWithDelta($expected, 1e-6);
})->with([
    // In at u = 1/2: x = 3/8 * 0.42 + 3/8 * 1 + 1/8 = 0.6575, y = 3/8 * 0 + 3/8 * 1 + 1/8 = 0.5.
    'linear keeps' => ['linear', 0.3, 0.3],
    'in at a hand-worked place' => ['in', 0.6575, 0.5],
    'out mirrors in' => ['out', 1 - 0.6575, 0.5],
    'in-out is symmetric' => ['inOut', 0.5, 0.5],
    'ends' => ['inOut', 1.0, 1.0],
    'hold waits' => ['hold', 0.999, 0.0],
    'hold jumps' => ['hold', 1.0, 1.0],
]);

test('eases rise and stay within 0 to 1', function (): void {
    foreach (array_keys(Ease::NAMED) as $name) {
        $before = 0.0;
        for ($i = 0; $i <= 200; $i++) {
            $v = Ease::named($name, $i / 200);
            expect($v)->toBeGreaterThanOrEqual($before - 1e-9)->toBeLessThanOrEqual(1.0 + 1e-9);
            $before = $v;
        }
    }
});

test('smoothsteps at the half and their ends', function (): void {
    expect(Ease::smooth(0.5))->toBe(0.5)->and(Ease::smooth(0.25))->toBe(0.15625)
        ->and(Ease::smoother(0.5))->toBe(0.5)->and(Ease::smooth(-1.0))->toBe(0.0)->and(Ease::between(2.0, 1.0, 1.25))
        ->toBe(Ease::smooth(0.75));
});

test('the soft minimum equals the minimum away from the corner', function (): void {
    expect(Ease::softMin(1.0, 5.0, 0.5))->toBe(1.0)->and(Ease::softMin(1.0, 1.0, 0.4))->toEqualWithDelta(0.9, 1e-12);
});

test('a monotone track passes through its keys and never overshoots', function (): void {
    $r = new Random(3);
    for ($n = 0; $n < 40; $n++) {
        $times = $values = [];
        $t = 0.0;
        for ($i = 0; $i < 8; $i++) {
            $times[] = $t += 0.1 + $r->next();
            $values[] = [$r->signed() * 3];
        }
        $track = new MonotoneTrack($times, $values);
        foreach ($times as $i => $at) {
            expect($track->at($at)[0])->toEqualWithDelta($values[$i][0], 1e-12);
        }
        for ($i = 0; $i < 7; $i++) {
            [$low, $high] = [min($values[$i][0], $values[$i + 1][0]), max($values[$i][0], $values[$i + 1][0])];
            for ($k = 1; $k < 20; $k++) {
                $v = $track->at($times[$i] + ($times[$i + 1] - $times[$i]) * $k / 20)[0];
                expect($v)->toBeGreaterThanOrEqual($low - 1e-9)->toBeLessThanOrEqual($high + 1e-9);
            }
        }
    }
});

test('noise is the same every time, within bounds, and loops where asked', function (): void {
    for ($i = -50; $i < 50; $i++) {
        $t = $i * 0.37;
        expect(Noise::value($t, 9))->toBe(Noise::value($t, 9))->toBeBetween(-1.0, 1.0)
            ->and(Noise::loop($t, 4, 6))->toEqualWithDelta(Noise::loop($t + 6, 4, 6), 1e-9);
    }
    expect(Noise::hash(1, 1))->not->toBe(Noise::hash(2, 1));
});

test('seeded numbers spread evenly', function (): void {
    $r = new Random(77);
    $bins = array_fill(0, 10, 0);
    for ($i = 0; $i < 20000; $i++) {
        $bins[(int) ($r->next() * 10)]++;
    }
    // Each bin expects 2000 with a standard deviation of 42; five of them either way.
    foreach ($bins as $n) {
        expect($n)->toBeBetween(1788, 2212);
    }
});
