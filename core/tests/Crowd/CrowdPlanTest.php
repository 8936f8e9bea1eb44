<?php

declare(strict_types=1);

use CrispReel\Core\Crowd\CrowdPlan;

const YARD = [[0.0, 0.0], [10.0, 0.0], [10.0, 4.0], [4.0, 4.0], [4.0, 10.0], [0.0, 10.0]];

test('people stand inside their area and keep their distance', function (int $seed): void {
    $crowd = (new CrowdPlan(3, 2, $seed))->inArea(YARD, 30, 0.7);
    expect($crowd)->toHaveCount(30);
    foreach ($crowd as $i => $m) {
        // An L: not in its missing corner.
        expect($m->x)->toBeBetween(0.0, 10.0)->and($m->z)->toBeBetween(0.0, 10.0)->and($m->x > 4.0 && $m->z > 4.0)->toBeFalse()
            ->and($m->figure)->toBeBetween(0, 2)->and($m->motion)->toBeBetween(0, 1)->and($m->rate)->toBeBetween(0.93, 1.07);
        foreach (array_slice($crowd, $i + 1) as $o) {
            expect(hypot($m->x - $o->x, $m->z - $o->z))->toBeGreaterThanOrEqual(0.7);
        }
    }
})->with([1, 7, 99]);

test('no two within six metres move in step', function (int $seed): void {
    $crowd = (new CrowdPlan(2, 3, $seed))->inArea([[0, 0], [9, 0], [9, 9], [0, 9]], 24, 0.8);
    foreach ($crowd as $k => $m) {
        expect(CrowdPlan::outOfStep($m, array_values(array_filter($crowd, static fn (int $i): bool => $i !== $k, ARRAY_FILTER_USE_KEY))))
            ->toBeGreaterThan(0.06);
    }
})->with([2, 3, 5]);

test('the same seed is the same crowd, another is another', function (): void {
    $make = static fn (int $seed): string => serialize((new CrowdPlan(2, 2, $seed))->inArea(YARD, 12, 0.6));
    expect($make(4))->toBe($make(4))->and($make(4))->not->toBe($make(5));
});

test('a full area takes as many as fit', function (): void {
    $crowd = (new CrowdPlan(1, 1, 1))->inArea([[0, 0], [2, 0], [2, 2], [0, 2]], 100, 1.0);
    expect(count($crowd))->toBeBetween(3, 9);
});

test('along a route they are spaced, to its sides, and look ahead', function (): void {
    $crowd = (new CrowdPlan(2, 1, 3))->along([[0, 0], [6, 0], [6, 6]], 9, 0.9, 0.4);
    expect($crowd)->toHaveCount(9);
    foreach ($crowd as $m) {
        $first = $m->z < 0.45 && $m->x < 6.45;
        expect($first ? abs($m->z) : abs($m->x - 6))->toBeLessThanOrEqual(0.41)->and(in_array(round($m->headingDeg), [90.0, 0.0], true))
            ->toBeTrue();
    }
    expect((new CrowdPlan(2, 1, 3))->along([[0, 0], [2, 0]], 50, 1.0, 0.0))->toHaveCount(3);
});

test('steps are compared by motion, side and nearness', function (): void {
    $m = static fn (
        float $x, int $motion, float $phase, bool $mirror = false,
    ): CrispReel\Core\Crowd\Member => new CrispReel\Core\Crowd\Member($x, 0.0, 0.0, 0, $motion, $phase, 1.0, $mirror);
    expect(CrowdPlan::outOfStep($m(0, 0, 0.05), [$m(1, 0, 0.95)]))->toEqualWithDelta(0.1, 1e-9)
        ->and(CrowdPlan::outOfStep($m(0, 0, 0.05), [$m(1, 1, 0.05), $m(7, 0, 0.05), $m(1, 0, 0.05, true)]))->toBe(0.5);
});

test('who walks on keeps to one side of the line', function (): void {
    // East for 4 m, then north (towards -z) for 3 m; one who stands half a metre to the north of the line at 1 m.
    $route = [[0.0, 0.0], [4.0, 0.0], [4.0, -3.0]];
    $on = CrowdPlan::onward([1.0, -0.5], $route);
    expect($on)->toHaveCount(2)->and($on[0])->toEqualWithDelta([3.5, -0.5], 1e-9)->and($on[1])->toEqualWithDelta([3.5, -3.0], 1e-9);
    // On the line itself the corners are the line's.
    expect(CrowdPlan::onward([1.0, 0.0], $route))->toEqualWithDelta([[4.0, 0.0], [4.0, -3.0]], 1e-9);
    // On the second leg the first corner is behind; at the end there is nothing left.
    expect(CrowdPlan::onward([4.2, -1.0], $route))->toEqualWithDelta([[4.2, -3.0]], 1e-9);
    expect(CrowdPlan::onward([4.0, -2.9], $route))->toBe([]);
});

test('everybody along a line goes on beside it, about as far from it as they stand', function (): void {
    $route = [[0.0, 0.0], [10.0, 0.0], [10.0, 8.0], [2.0, 8.0]];
    foreach ((new CrowdPlan(2, 1, 4))->along($route, 12, 0.9, 0.6) as $m) {
        $from = [$m->x, $m->z];
        foreach (CrowdPlan::onward($from, $route) as $p) {
            $away = INF;
            for ($i = 1; $i < 4; $i++) {
                [$a, $b] = [$route[$i - 1], $route[$i]];
                $l = hypot($b[0] - $a[0], $b[1] - $a[1]);
                $u = max(0.0, min(1.0, (($p[0] - $a[0]) * ($b[0] - $a[0]) + ($p[1] - $a[1]) * ($b[1] - $a[1])) / $l ** 2));
                $away = min($away, hypot($p[0] - $a[0] - $u * ($b[0] - $a[0]), $p[1] - $a[1] - $u * ($b[1] - $a[1])));
            }
            // Round the outside of a square corner it is the diagonal.
            expect($away)->toBeLessThan(0.62 * M_SQRT2);
        }
    }
});
