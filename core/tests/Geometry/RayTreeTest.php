<?php

declare(strict_types=1);

use CrispReel\Core\Geometry\Plane;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Placement;

/** @return list<float> a plate in the plane y = height */
function plate(float $x0, float $z0, float $x1, float $z1, float $height): array
{
    return array_map(floatval(...), [
        $x0, $height, $z0, $x0, $height, $z1, $x1, $height, $z0, $x1, $height, $z0, $x0, $height, $z1, $x1, $height, $z1,
    ]);
}

/** @return list<float> so many small triangles in a cube of 10 m */
function rubble(int $count, int $seed): array
{
    mt_srand($seed);
    $out = [];
    for ($i = 0; $i < $count; $i++) {
        $p = [mt_rand() / mt_getrandmax() * 10, mt_rand() / mt_getrandmax() * 10, mt_rand() / mt_getrandmax() * 10];
        for ($k = 0; $k < 9; $k++) {
            $out[] = $p[$k % 3] + (mt_rand() / mt_getrandmax() - 0.5) * 0.8;
        }
    }

    return $out;
}

/** Every triangle asked in turn: nearest hit of a ray by the plane and three edge tests. */
function nearest(array $flat, array $p, array $d): ?float
{
    $sub = static fn (array $a, array $b): array => [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    $cross = static fn (array $a, array $b): array => [
        $a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0],
    ];
    $dot = static fn (array $a, array $b): float => $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    $best = null;
    foreach (array_chunk($flat, 9) as $t) {
        $v = array_chunk($t, 3);
        $n = $cross($sub($v[1], $v[0]), $sub($v[2], $v[0]));
        if (abs($dot($n, $d)) < 1e-12) {
            continue;
        }
        $at = $dot($n, $sub($v[0], $p)) / $dot($n, $d);
        $hit = [$p[0] + $at * $d[0], $p[1] + $at * $d[1], $p[2] + $at * $d[2]];
        $inside = true;
        for ($k = 0; $k < 3; $k++) {
            $inside = $inside && $dot($n, $cross($sub($v[($k + 1) % 3], $v[$k]), $sub($hit, $v[$k]))) >= 0;
        }
        if ($inside && $at >= 0 && ($best === null || $at < $best)) {
            $best = $at;
        }
    }

    return $best;
}

test('rays find what a search through every triangle finds, before and after the tree is written to bytes', function (): void {
    $flat = rubble(5000, 4);
    $tree = RayTree::of($flat);
    $again = RayTree::fromBytes($tree->toBytes());
    $hits = 0;
    for ($i = 0; $i < 300; $i++) {
        $p = [mt_rand() / mt_getrandmax() * 12 - 1, mt_rand() / mt_getrandmax() * 12 - 1, mt_rand() / mt_getrandmax() * 12 - 1];
        $d = [mt_rand() / mt_getrandmax() - 0.5, mt_rand() / mt_getrandmax() - 0.5, mt_rand() / mt_getrandmax() - 0.5];
        $expected = nearest($flat, $p, $d);
        $hits += $expected === null ? 0 : 1;
        if ($expected === null) {
            expect($tree->hit($p, $d))->toBeNull();
        } else {
            expect($tree->hit($p, $d))->toEqualWithDelta($expected, 1e-9)->and($again->hit($p, $d))->toEqualWithDelta($expected, 1e-3);
        }
    }
    expect($hits)->toBeGreaterThan(100)->and($tree->count())->toBe(5000)->and($again->count())->toBe(5000);
});

test('the floor under a place is the highest standable triangle below the ceiling', function (): void {
    $tree = RayTree::of([
        ...plate(0, 0, 4, 4, 0.0), ...plate(1, 1, 2, 2, 0.5), ...plate(1, 1, 2, 2, 2.0), ...[3, 0, 3, 3, 1, 3, 3.2, 0, 3],
    ]);
    expect($tree->floor(0.5, 0.5))->toBe(0.0)
        ->and($tree->floor(1.5, 1.4))->toBe(2.0)
        ->and($tree->floor(1.5, 1.4, 1.0))->toBe(0.5)
        ->and($tree->floor(3.1, 3.0))->toBe(0.0)
        ->and($tree->floor(5.0, 5.0))->toBeNull()
        ->and(RayTree::of([])->floor(0, 0))->toBeNull()
        ->and(RayTree::of([])->hit([0, 0, 0], [0, 1, 0]))->toBeNull();
});

test('a slope of 44 degrees is ground, one of 50 is not', function (float $deg, bool $ground): void {
    $y = tan(deg2rad($deg));
    $tree = RayTree::of([0, 0, 0, 0, $y, 1, 1, 0, 0, 1, 0, 0, 0, $y, 1, 1, $y, 1]);
    $ground ? expect($tree->floor(0.5, 0.25))->toEqualWithDelta(0.25 * $y, 1e-9) : expect($tree->floor(0.5, 0.25))->toBeNull();
})->with([[44.0, true], [50.0, false]]);

test('a thousand equal triangles end in leaves', function (): void {
    $tree = RayTree::of(array_merge(...array_fill(0, 1000, plate(0, 0, 1, 1, 1.0))));
    expect($tree->floor(0.25, 0.5))->toBe(1.0);
});

test('placed things are found where they stand, turned and scaled', function (): void {
    $solids = new Solids;
    $tree = RayTree::of(plate(0, 0, 1, 1, 0.5));
    $solids->add('plate', Placement::standing([10.0, 1.0, 0.0], 90.0, 2.0), $tree);
    // Turned by 90 degrees about +Y, local +Z is +X and local +X is -Z: it covers x 10..12, z -2..0, at 1 + 2 * 0.5.
    expect($solids->height(11.0, -1.0))->toEqualWithDelta(2.0, 1e-9)
        ->and($solids->height(11.0, 1.0))->toBeNull()
        ->and($solids->height(11.0, -1.0, 1.9))->toBeNull();
    $hit = $solids->between([11.0, 5.0, -1.0], [11.0, 0.0, -1.0]);
    expect($hit['name'])->toBe('plate')->and($hit['distance'])->toEqualWithDelta(3.0, 1e-9)
        ->and($solids->between([11.0, 5.0, -1.0], [11.0, 2.5, -1.0]))->toBeNull();
});

test('what is near a point is told as finely as by many points on each triangle', function (): void {
    $flat = rubble(80, 5);
    $tree = RayTree::of($flat);
    mt_srand(6);
    for ($n = 0; $n < 60; $n++) {
        $p = [mt_rand() / mt_getrandmax() * 10, mt_rand() / mt_getrandmax() * 10, mt_rand() / mt_getrandmax() * 10];
        $least = INF;
        foreach (array_chunk($flat, 9) as $t) {
            for ($u = 0; $u <= 40; $u++) {
                for ($v = 0; $v <= 40 - $u; $v++) {
                    $d = 0.0;
                    for ($k = 0; $k < 3; $k++) {
                        $d += ($t[$k] + $u / 40 * ($t[3 + $k] - $t[$k]) + $v / 40 * ($t[6 + $k] - $t[$k]) - $p[$k]) ** 2;
                    }
                    $least = min($least, sqrt($d));
                }
            }
        }
        // Between two of them lie at most 1.4 cm: sides are up to 1.1 m long.
        expect($tree->isNear($p, $least + 1e-6))->toBeTrue()->and($tree->isNear($p, max(0.0, $least - 0.02)))->toBeFalse();
    }
});

test('things near a point are named, in the scene and at their size, and none behind a wall that is taken away', function (): void {
    $solids = new Solids;
    $solids->add('Table', Placement::standing([2.0, 0.0, 1.0], 30.0, 2.0), RayTree::of(plate(-0.5, -0.5, 0.5, 0.5, 0.4)));
    // Twice as large, its top lies 80 cm up, and reaches 1 m to each side.
    expect($solids->near([2.0, 1.04, 1.0], 0.25))->toBe('Table')->and($solids->near([2.0, 1.06, 1.0], 0.25))->toBeNull()
        ->and($solids->near([2.0, 0.8, 1.0 + sqrt(2) + 0.3], 0.25))->toBeNull()->and((new Solids)->near([0.0, 0.0, 0.0], 1.0))->toBeNull();
    // A floor that counts for what is above it alone.
    $up = new Plane([0.0, 1.0, 0.0], 0.0);
    $solids->add('Cellar roof', Placement::standing([9.0, 0.0, 0.0], 0.0), RayTree::of(plate(-1, -1, 1, 1, 0.0)), $up);
    expect($solids->near([9.0, 0.1, 0.0], 0.25))->toBe('Cellar roof')->and($solids->near([9.0, -0.1, 0.0], 0.25))->toBeNull();
});

test('a gap between two planks is bridged, a slope and an edge are not, and a rim counts as the floor', function (): void {
    // Planks 2 cm apart; beside them nothing from z = 1 on.
    $planks = static fn (float $x, float $z): ?float => $z > 1.0 ? null : (abs(fmod($x + 10.0, 0.2) - 0.1) < 0.01 ? 0.0 : 0.3);
    expect(Solids::bridged($planks, 0.1, 0.0))->toBe(0.3)->and(Solids::bridged($planks, 0.0, 0.0))->toBe(0.3)
        ->and(Solids::bridged($planks, 0.0, 1.02))->toBe(0.3)->and(Solids::bridged($planks, 0.0, 1.2))->toBeNull();
    $slope = static fn (float $x, float $z): float => 0.5 * $z;
    expect(Solids::bridged($slope, 0.0, 1.0))->toEqualWithDelta(0.5, 1e-12);
    $edge = static fn (float $x, float $z): float => $z < 1.0 ? 0.2 : 0.0;
    expect(Solids::bridged($edge, 0.0, 1.01))->toBe(0.0)->and(Solids::bridged($edge, 0.0, 0.99))->toBe(0.2);
});
