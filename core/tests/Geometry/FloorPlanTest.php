<?php

declare(strict_types=1);

use CrispReel\Core\Geometry\FloorPlan;

/** Two triangles of a rectangle. @return list<float> */
function rectangle(array $a, array $b, array $c, array $d): array
{
    return [...$a, ...$b, ...$c, ...$a, ...$c, ...$d];
}

/** A wall over a stretch of x at z, from a height to a height. @return list<float> */
function wallAt(float $x0, float $x1, float $z, float $low, float $high): array
{
    return rectangle([$x0, $low, $z], [$x1, $low, $z], [$x1, $high, $z], [$x0, $high, $z]);
}

/** A level rectangle. @return list<float> */
function slab(float $x0, float $z0, float $x1, float $z1, float $y): array
{
    return rectangle([$x0, $y, $z0], [$x1, $y, $z0], [$x1, $y, $z1], [$x0, $y, $z1]);
}

/** Metres of all lines. @param  list<list<float>>  $lines */
function metres(array $lines): float
{
    $sum = 0.0;
    foreach ($lines as $l) {
        for ($i = 2; $i < count($l); $i += 2) {
            $sum += hypot($l[$i] - $l[$i - 2], $l[$i + 1] - $l[$i - 1]);
        }
    }

    return $sum;
}

test('a wall with a door and a window is drawn with both as gaps', function (): void {
    // 4 m of wall: 1 m of door up to 2 m, 1 m of window from 0.9 to 2 m.
    $walls = [
        ...wallAt(0, 1, 2, 0, 2.5), ...wallAt(1, 2, 2, 2, 2.5), ...wallAt(2, 3, 2, 0, 0.9), ...wallAt(2, 3, 2, 2, 2.5),
        ...wallAt(3, 4, 2, 0, 2.5),
    ];
    $floor = slab(0, 0, 4, 4, 0.0);
    [$storey] = FloorPlan::of([...$walls, ...$floor], $floor);
    expect(metres($storey['walls']))->toEqualWithDelta(2.0, 1e-6)->and(metres($storey['things']))->toEqualWithDelta(3.0, 1e-6)
        ->and($storey['y'])->toBe(0.0)->and($storey['floor'])->toHaveCount(12);
    foreach ($storey['walls'] as $line) {
        expect($line)->toHaveCount(4)->and($line[1])->toBe(2.0);
    }
});

test('what is cut all around is one closed line with its corners only', function (): void {
    $box = [...wallAt(0, 2, 0, 0, 2), ...wallAt(0, 2, 1, 0, 2)];
    foreach ([0.0, 2.0] as $x) {
        array_push($box, ...rectangle([$x, 0, 0], [$x, 0, 1], [$x, 2, 1], [$x, 2, 0]));
    }
    $floor = slab(-5, -5, 5, 5, 0.0);
    [$storey] = FloorPlan::of([...$box, ...$floor], $floor);
    expect($storey['walls'])->toHaveCount(1)->and(array_slice($storey['walls'][0], 0, 2))->toBe(array_slice($storey['walls'][0], -2))
        ->and(metres($storey['walls']))->toEqualWithDelta(6.0, 1e-6)->and(count($storey['walls'][0]) / 2)->toBeLessThanOrEqual(6);
});

test('floors above each other are storeys; a table, a low stage and a roof are none', function (): void {
    $ground = slab(0, 0, 10, 10, 0.2);
    $above = slab(0, 0, 10, 5, 3.0);
    $table = slab(1, 1, 2, 2, 1.0);
    $stage = slab(5, 5, 9, 9, 0.8);
    $roof = slab(0, 0, 10, 10, 6.0);
    $all = [...$ground, ...$above, ...$table, ...$stage, ...$roof, ...wallAt(0, 10, 5, 3.0, 5.5)];
    $heights = array_column(FloorPlan::of($all, $all), 'y');
    expect($heights)->toBe([0.2, 3.0]);
    // The low stage is drawn with the floor that it stands on.
    expect(FloorPlan::of($all, $all)[0]['floor'])->toHaveCount(36);
});

test('a thing that nobody walks on is cut through its middle; nothing gives nothing', function (): void {
    $post = [...wallAt(0, 0.3, 0, 0, 0.5), ...wallAt(0, 0.3, 0.2, 0, 0.5)];
    [$only] = FloorPlan::of($post, []);
    expect($only['walls'])->toBe([])->and(metres($only['things']))->toEqualWithDelta(0.6, 1e-6)->and(FloorPlan::of([], []))->toBe([]);
});
