<?php

declare(strict_types=1);

use CrispReel\Core\Geometry\FloorMap;
use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\SmoothCurve;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\V3;

/** Area and enclosed volume of a surface (divergence theorem), square and cubic metres. @return array{float, float} */
function areaAndVolume(Surface $s): array
{
    [$area, $volume] = [0.0, 0.0];
    foreach (array_chunk($s->index, 3) as [$a, $b, $c]) {
        $cross = V3::cross(V3::sub($s->points[$b], $s->points[$a]), V3::sub($s->points[$c], $s->points[$a]));
        $area += V3::length($cross) / 2;
        $volume += V3::dot($s->points[$a], $cross) / 6;
    }

    return [$area, $volume];
}

/** Edges that are not shared by two triangles, points at one place counted as one. */
function openEdges(Surface $s): int
{
    $name = static fn (int $v): string => sprintf(
        '%.5f %.5f %.5f',
        $s->points[$v][0] + 0.0,
        $s->points[$v][1] + 0.0,
        $s->points[$v][2] + 0.0,
    );
    $count = [];
    foreach (array_chunk($s->index, 3) as $t) {
        foreach ([[0, 1], [1, 2], [2, 0]] as [$i, $j]) {
            $ends = [str_replace('-0.00000', '0.00000', $name($t[$i])), str_replace('-0.00000', '0.00000', $name($t[$j]))];
            if ($ends[0] === $ends[1]) {
                continue;
            }
            sort($ends);
            $count[implode('|', $ends)] = ($count[implode('|', $ends)] ?? 0) + 1;
        }
    }

    return count(array_filter($count, static fn (int $n): bool => $n % 2 === 1));
}

test('bodies have the area and the volume of what they are', function (Surface $s, float $area, float $volume, float $share): void {
    [$a, $v] = areaAndVolume($s);
    expect($a)->toEqualWithDelta($area, $share * $area)->and($v)->toEqualWithDelta($volume, $share * $volume)->and(openEdges($s))->toBe(0);
})->with([
    'a ball' => [Shapes::sphere(0.5, 48, 32), M_PI, M_PI / 6, 0.01],
    'a ring' => [Shapes::ring(0.5, 0.1, 24, 64), 4 * M_PI ** 2 * 0.05, 2 * M_PI ** 2 * 0.005, 0.02],
    'a box with next to no bevel' => [Shapes::box(1.0, 2.0, 0.5, 0.0005), 7.0, 1.0, 0.005],
    'a straight bar' => [Shapes::tube([[0.0, 0.0, 0.0], [0.0, 1.0, 0.0]], 0.1, 8, 48), 2 * M_PI * 0.1 + 2 * M_PI * 0.01, M_PI * 0.01, 0.01],
    'a turned cylinder' => [
        Shapes::lathe([[0.0, 0.0], [0.3, 0.0], [0.3, 1.0], [0.0, 1.0]], 64), 2 * M_PI * 0.3 + 2 * M_PI * 0.09, M_PI * 0.09, 0.01,
    ],
    'a turned cone' => [
        Shapes::lathe([[0.0, 0.0], [0.3, 0.0], [0.0, 0.4]], 64), M_PI * 0.09 + M_PI * 0.3 * 0.5, M_PI * 0.09 * 0.4 / 3, 0.01,
    ],
]);

test('a bevel takes away what it should', function (): void {
    // Two facets of a chamfer lie inside the round of radius r; a sharp box has a volume of 1.
    [, $sharp] = areaAndVolume(Shapes::box(1.0, 1.0, 1.0, 0.0));
    [, $round] = areaAndVolume(Shapes::box(1.0, 1.0, 1.0, 0.1));
    // Of each edge (1 - pi / 4) r squared would go by a true round: 12 edges of 0.8 and the corners.
    $true = 1.0 - 12 * 0.8 * (1 - M_PI / 4) * 0.01 - (1 - M_PI / 6) * 8 * 0.001;
    expect($sharp)->toEqualWithDelta(1.0, 1e-6)->and($round)->toBeLessThan($true)->and($round)->toBeGreaterThan($true - 0.03);
});

test('a box without a face is open there, and cells do not change its shape', function (): void {
    expect(openEdges(Shapes::box(1.0, 1.0, 1.0, 0.02, [1, 1, 1], '+y')))->toBeGreaterThan(0)
        ->and(openEdges(Shapes::box(1.0, 1.0, 1.0, 0.02, [3, 2, 4])))->toBe(0);
    expect(areaAndVolume(Shapes::box(1.0, 1.0, 1.0, 0.02, [3, 2, 4])))
        ->toEqualWithDelta(areaAndVolume(Shapes::box(1.0, 1.0, 1.0, 0.02)), 1e-9);
});

test('normals are of length one and point away from a body that bulges', function (Surface $s): void {
    foreach ($s->points as $k => $p) {
        expect(V3::length($s->normals[$k]))->toEqualWithDelta(1.0, 1e-6)->and(V3::dot($s->normals[$k], $p))->toBeGreaterThan(-1e-6);
    }
})->with([[Shapes::sphere(0.5)], [Shapes::box(0.4, 0.6, 0.8, 0.05)], [Shapes::lathe([[0.0, -0.5], [0.3, -0.5], [0.3, 0.5], [0.0, 0.5]])]]);

test('a flat ring faces forward and has the area of a ring', function (): void {
    $s = Shapes::disc(0.2, 0.5, 96, 4);
    [$area] = areaAndVolume($s);
    expect($area)->toEqualWithDelta(M_PI * (0.25 - 0.04), 0.002);
    foreach (array_chunk($s->index, 3) as [$a, $b, $c]) {
        expect(V3::cross(V3::sub($s->points[$b], $s->points[$a]), V3::sub($s->points[$c], $s->points[$a]))[2])->toBeGreaterThanOrEqual(0.0);
    }
});

test('a rope is thicker and thinner around, and as thick as it was asked on the average', function (): void {
    $rope = Shapes::tube([[0.0, 0.0, 0.0], [0.0, 1.0, 0.0]], 0.02, 12, 24, lobes: 3);
    $radii = array_map(
        static fn (array $p): float => hypot($p[0], $p[2]),
        array_filter($rope->points, static fn (array $p): bool => hypot($p[0], $p[2]) > 0.005),
    );
    expect(max($radii))->toEqualWithDelta(0.02 * 1.17, 1e-4)->and(min($radii))->toEqualWithDelta(0.02 * 0.83, 1e-4)
        ->and(array_sum($radii) / count($radii))->toEqualWithDelta(0.02, 5e-4);
});

test('a curve through points on a circle is as long as it, and its places are evenly spaced', function (): void {
    $points = array_map(static fn (int $k): array => [cos($k * M_PI / 8), 0.0, sin($k * M_PI / 8)], range(0, 15));
    $circle = new SmoothCurve($points, true);
    expect($circle->length())->toEqualWithDelta(2 * M_PI, 0.005);
    for ($k = 0; $k < 40; $k++) {
        $p = $circle->at($circle->length() * $k / 40);
        expect(hypot($p[0], $p[2]))->toEqualWithDelta(1.0, 0.002)
            ->and(atan2($p[2], $p[0]) < -1e-9 ? atan2($p[2], $p[0]) + 2 * M_PI : abs(atan2($p[2], $p[0])))
            ->toEqualWithDelta(2 * M_PI * $k / 40, 0.01);
    }
});

test('an open curve runs from its first point to its last, through those between', function (): void {
    $through = [[0.0, 0.0, 0.0], [1.0, 0.5, 0.0], [2.0, 0.0, 1.0], [2.5, -1.0, 1.0]];
    $curve = new SmoothCurve($through);
    expect($curve->at(-1.0))->toEqualWithDelta($through[0], 1e-9)->and($curve->at(99.0))->toEqualWithDelta($through[3], 1e-9);
    foreach ($through as $p) {
        $nearest = min(array_map(static fn (int $k): float => V3::distance($p, $curve->at($curve->length() * $k / 2000)), range(0, 2000)));
        expect($nearest)->toBeLessThan(0.002);
    }
    $straight = new SmoothCurve([[0.0, 0.0, 0.0], [3.0, 4.0, 0.0]]);
    expect($straight->length())->toEqualWithDelta(5.0, 1e-9)->and($straight->at(2.5))->toEqualWithDelta([1.5, 2.0, 0.0], 1e-6);
});

test('frames along a curve are square, of length one and do not turn about it', function (): void {
    $frames = (new SmoothCurve([[0.0, 0.0, 0.0], [0.0, 1.0, 0.2], [0.8, 1.5, 0.0], [1.5, 1.2, -0.6]]))->frames(40);
    foreach ($frames as $k => [, $t, $n, $b]) {
        expect(V3::length($t))->toEqualWithDelta(1.0, 1e-6)->and(V3::length($n))->toEqualWithDelta(1.0, 1e-6)->and(V3::dot($t, $n))
            ->toEqualWithDelta(0.0, 1e-6)->and(V3::dot($t, $b))->toEqualWithDelta(0.0, 1e-6);
        if ($k > 0) {
            // Carried along: what changes of the normal lies along the way.
            $change = V3::sub($n, $frames[$k - 1][2]);
            expect(abs(V3::dot($change, $b)))->toBeLessThan(0.02);
        }
    }
});

test('a grid has two triangles a cell, all with one side up', function (): void {
    $index = Loft::gridIndex(3, 2);
    expect(count($index))->toBe(3 * 2 * 6)->and(max($index))->toBe(11)->and(array_slice($index, 0, 6))->toBe([0, 1, 5, 0, 5, 4]);
});

test('the height under a place: highest of what is placed, not above the ceiling, nothing beside it', function (): void {
    $map = new FloorMap;
    $square = [-1.0, 0.0, -1.0, -1.0, 0.0, 1.0, 1.0, 0.0, 1.0, -1.0, 0.0, -1.0, 1.0, 0.0, 1.0, 1.0, 0.0, -1.0];
    $map->add(Placement::standing([0.0, 0.0, 0.0], 0.0, 3.0), $square);
    $map->add(Placement::standing([1.0, 0.75, 0.0], 45.0, 0.5), $square);
    $map->add(Placement::standing([0.0, 5.0, 0.0], 0.0, 1.0), []);
    expect($map->height(0.0, 0.0))->toEqualWithDelta(0.0, 1e-9)->and($map->height(1.0, 0.0))->toEqualWithDelta(0.75, 1e-9)
        ->and($map->height(1.0, 0.0, 0.7))->toEqualWithDelta(0.0, 1e-9)->and($map->height(3.5, 0.0))->toBeNull();
    // Turned by 45 degrees its corner reaches 0.707 along x, and its side 0.5 along the diagonal.
    expect($map->height(1.69, 0.0))->toEqualWithDelta(0.75, 1e-9)->and($map->height(1.72, 0.0))->toEqualWithDelta(0.0, 1e-9)
        ->and($map->height(1.4, 0.4))->toEqualWithDelta(0.0, 1e-9);
    // A slope: half way up it is half as high.
    $slope = new FloorMap;
    $slope->add(Placement::standing([0.0, 1.0, 0.0], 90.0, 2.0), [
        0.0, 0.0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0, 0.0, 1.0, 1.0, 1.0, 1.0, 1.0, 0.0, 0.0, 0.0, 1.0,
    ]);
    expect($slope->height(1.0, -1.0))->toEqualWithDelta(2.0, 1e-9);
});

/** A level square as two triangles. @return list<float> */
function level(float $x0, float $z0, float $x1, float $z1, float $y): array
{
    return [$x0, $y, $z0, $x0, $y, $z1, $x1, $y, $z0, $x1, $y, $z0, $x0, $y, $z1, $x1, $y, $z1];
}

test('one stands on floors, not on walls, rails and roofs; who is upstairs stays there', function (
    float $x, ?float $from, ?float $on,
): void {
    $map = new FloorMap;
    // A room with a wall (0.2 m thick), a table, a roof at 2.8 m over half of it, and stairs of 17 cm on the ground.
    $map->add(Placement::standing([0.0, 0.0, 0.0], 0.0, 1.0), [
        ...level(-4.0, -1.0, 6.0, 1.0, 0.0), ...level(-0.1, -1.0, 0.1, 1.0, 2.8), ...level(1.0, -1.0, 2.0, 1.0, 0.75),
        ...level(-4.0, -1.0, -2.0, 1.0, 2.9), ...level(3.0, -1.0, 3.3, 1.0, 0.17), ...level(3.3, -1.0, 3.6, 1.0, 0.34),
        // Two planks with a gap of 2 cm, and nothing under them.
        ...level(8.0, -1.0, 8.5, 1.0, 1.2), ...level(8.52, -1.0, 9.0, 1.0, 1.2),
        // A rail far up with nothing under it, and a bridge.
        ...level(12.0, -0.03, 13.0, 0.03, 4.6), ...level(14.0, -1.0, 16.0, 1.0, 4.0),
    ]);
    $found = $map->stand($x, 0.0, $from);
    expect($found === null ? null : round($found, 6))->toEqual($on);
})->with([
    'on the floor' => [0.6, null, 0.0], 'on a wall line: the floor' => [0.0, null, 0.0], 'on the table' => [1.5, null, 0.75],
    'under the roof: the floor' => [-3.0, null, 0.0], 'on the roof already: stays' => [-3.0, 2.9, 2.9],
    'came to the roof from below: stays below' => [-3.0, 0.4, 0.0], 'on a stair' => [3.1, null, 0.17], 'on the next' => [3.4, 0.17, 0.34],
    'over a gap of planks' => [8.51, null, 1.2], 'far higher than where it is: there is nothing else' => [8.2, 0.0, 1.2],
    'where there is nothing' => [20.0, null, null], 'under a rail: on the ground' => [12.5, null, 0.0], 'on a bridge' => [15.0, null, 4.0],
]);
