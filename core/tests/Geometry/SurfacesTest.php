<?php

declare(strict_types=1);

use CrispReel\Core\Geometry\FloorMap;
use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Sdf\Solid;
use CrispReel\Core\Geometry\Sdf\SurfaceNet;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\SmoothCurve;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\V3;

/** @return array{float, float, bool} enclosed volume, area, whether every edge has two sides */
function measured(Surface $s): array
{
    $volume = $area = 0.0;
    $edges = [];
    for ($i = 0; $i < count($s->index); $i += 3) {
        [$a, $b, $c] = [$s->points[$s->index[$i]], $s->points[$s->index[$i + 1]], $s->points[$s->index[$i + 2]]];
        $n = V3::cross(V3::sub($b, $a), V3::sub($c, $a));
        $volume += V3::dot($a, V3::cross($b, $c)) / 6;
        $area += V3::length($n) / 2;
        for ($k = 0; $k < 3; $k++) {
            [$p, $q] = [$s->index[$i + $k], $s->index[$i + ($k + 1) % 3]];
            $edges[min($p, $q).' '.max($p, $q)] = ($edges[min($p, $q).' '.max($p, $q)] ?? 0) + ($p < $q ? 1 : -1);
        }
    }

    return [$volume, $area, array_filter($edges) === []];
}

test('a meshed ball has the volume and area of a ball, and no holes', function (): void {
    $r = 0.3;
    $s = SurfaceNet::mesh(new Field([Solid::ellipsoid([0.1, 0.2, -0.1], [$r, $r, $r])], [-0.4, -0.3, -0.6], [0.6, 0.7, 0.4]), 0.05);
    [$volume, $area, $closed] = measured($s);
    expect($closed)->toBeTrue()
        ->and($volume / (4 / 3 * M_PI * $r ** 3))->toBeBetween(0.96, 1.01)
        ->and($area / (4 * M_PI * $r ** 2))->toBeBetween(0.96, 1.02);
    foreach ($s->points as $i => $p) {
        $out = V3::sub($p, [0.1, 0.2, -0.1]);
        expect(abs(V3::length($out) - $r))->toBeLessThan(0.003)->and(V3::dot(V3::unit($out), $s->normals[$i]))->toBeGreaterThan(0.99);
    }
});

test('distances of solids by hand', function (Solid $s, array $p, float $expected): void {
    expect($s->distance(...$p))->toEqualWithDelta($expected, 1e-9);
})->with([
    'beside a round cone' => [Solid::cone([0.0, 0.0, 0.0], [0.0, 1.0, 0.0], 0.2, 0.2), [0.5, 0.5, 0.0], 0.3],
    'past its end' => [Solid::cone([0.0, 0.0, 0.0], [0.0, 1.0, 0.0], 0.2, 0.1), [0.0, 1.5, 0.0], 0.4],
    'in the middle of a taper' => [Solid::cone([0.0, 0.0, 0.0], [0.0, 1.0, 0.0], 0.2, 0.1), [0.4, 0.5, 0.0], 0.25],
    'inside a ball' => [Solid::ellipsoid([0.0, 0.0, 0.0], [0.5, 0.5, 0.5]), [0.2, 0.0, 0.0], -0.3],
    'a box corner' => [Solid::box([0.0, 0.0, 0.0], [1.0, 1.0, 1.0], 0.0), [2.0, 2.0, 1.0], sqrt(2.0)],
    'a ring from its middle' => [Solid::ring([0.0, 0.0, 0.0], 1.0, 0.25), [0.0, 0.0, 0.0], 0.75],
    'behind a cut' => [Solid::cut([0.0, 1.0, 0.0], 2.0), [9.0, 1.5, 0.0], -0.5],
    'a turned box' => [Solid::box([0.0, 0.0, 0.0], [1.0, 0.1, 0.1], 0.0)->turned(0.0, 0.0, M_PI / 2), [0.0, 1.5, 0.0], 0.5],
    'a mirrored ball' => [Solid::ellipsoid([1.0, 0.0, 0.0], [0.5, 0.5, 0.5])->mirrored(), [-2.0, 0.0, 0.0], 0.5],
]);

test('carving takes away and blending fills', function (): void {
    $field = new Field(
        [Solid::ellipsoid([0.0, 0.0, 0.0], [1.0, 1.0, 1.0]), Solid::ellipsoid([1.0, 0.0, 0.0], [0.5, 0.5, 0.5], 0.01)->carved()],
        [-1.0, -1.0, -1.0],
        [1.0, 1.0, 1.0],
    );
    expect($field->distance(0.8, 0.0, 0.0))->toBeGreaterThan(0.0)->and($field->distance(-0.8, 0.0, 0.0))->toBeLessThan(0.0);
    $two = [Solid::ellipsoid([-0.5, 0.0, 0.0], [0.5, 0.5, 0.5]), Solid::ellipsoid([0.5, 0.0, 0.0], [0.5, 0.5, 0.5], 0.2)];
    expect(Field::fold($two, 0.0, 0.05, 0.0))->toBeLessThan(min($two[0]->distance(0.0, 0.05, 0.0), $two[1]->distance(0.0, 0.05, 0.0)));
});

test('bodies of revolution, boxes and bars are closed and face outward', function (Surface $s, float $volume, float $tolerance): void {
    [$found] = measured($s);
    expect($found / $volume)->toBeBetween(1 - $tolerance, 1 + $tolerance);
    $sum = 0.0;
    foreach (Surface::faceNormals($s->points, $s->index) as $i => $n) {
        $sum += V3::dot($n, $s->normals[$i]);
    }
    expect($sum / count($s->points))->toBeGreaterThan(0.6);
})->with([
    'box with bevels' => [Shapes::box(2.0, 1.0, 0.5, 0.02, [2, 2, 2]), 1.0, 0.02],
    'cylinder by lathe' => [Shapes::lathe([[0.0, 0.0], [0.5, 0.0], [0.5, 1.0], [0.0, 1.0]], 48), M_PI * 0.25, 0.01],
    'ball' => [Shapes::sphere(0.5, 40, 24), 4 / 3 * M_PI * 0.125, 0.02],
    'ring' => [Shapes::ring(1.0, 0.2, 24, 60), 2 * M_PI * M_PI * 0.04, 0.02],
    'straight bar' => [Shapes::tube([[0.0, 0.0, 0.0], [0.0, 0.0, 2.0]], 0.1, 4, 32), M_PI * 0.01 * 2, 0.02],
    'swept bar' => [
        Loft::sweep([[0.0, 0.0, 0.0], [0.0, 0.5, 0.0], [0.0, 1.0, 0.0]], static fn (): array => [0.0, 0.0, 1.0], 0.1, 0.1, 32),
        M_PI * 0.01, 0.02,
    ],
]);

test('a mirrored surface still faces outward', function (): void {
    [$volume] = measured(Shapes::box(1.0, 1.0, 1.0, 0.02)->mirrored());
    expect($volume)->toBeGreaterThan(0.9);
});

test('a smooth curve runs through its points at even speed', function (): void {
    $line = new SmoothCurve([[0.0, 0.0, 0.0], [1.0, 0.0, 0.0], [3.0, 0.0, 0.0]]);
    expect($line->length())->toEqualWithDelta(3.0, 1e-6)->and($line->at(1.7)[0])->toEqualWithDelta(1.7, 1e-3);
    $circle = [];
    for ($i = 0; $i < 16; $i++) {
        $circle[] = [cos($i / 8 * M_PI) * 2, 0.0, sin($i / 8 * M_PI) * 2];
    }
    $c = new SmoothCurve($circle, true);
    expect($c->length())->toEqualWithDelta(4 * M_PI, 0.02);
    for ($s = 0.0; $s < $c->length(); $s += 0.31) {
        expect(V3::length($c->at($s)))->toEqualWithDelta(2.0, 0.005);
    }
});

test('the floor under a point', function (): void {
    $map = new FloorMap;
    $square = static fn (float $y, float $s): array => [-$s, $y, -$s, -$s, $y, $s, $s, $y, $s, -$s, $y, -$s, $s, $y, $s, $s, $y, -$s];
    $map->add(new Placement([0.0, 0.0, 0.0]), $square(0.0, 5.0));
    $map->add(Placement::standing([2.0, 0.3, 0.0], 45.0, 2.0), $square(0.5, 0.5));
    // A ramp from y 0 to 1 over x 0 to 1, standing at (-3, 0).
    $map->add(Placement::standing([-3.0, 0.0, 0.0], 0.0), [
        0.0, 0.0, -1.0, 0.0, 0.0, 1.0, 1.0, 1.0, 1.0, 0.0, 0.0, -1.0, 1.0, 1.0, 1.0, 1.0, 1.0, -1.0,
    ]);
    expect($map->height(0.0, 4.0))->toBe(0.0)
        ->and($map->height(2.0, 0.0))->toEqualWithDelta(1.3, 1e-9)
        ->and($map->height(2.0, 1.3))->toEqualWithDelta(1.3, 1e-9)
        ->and($map->height(2.9, 0.9))->toEqualWithDelta(0.0, 1e-9)
        ->and($map->height(-2.75, 0.2))->toEqualWithDelta(0.25, 1e-9)
        ->and($map->height(2.0, 0.0, 1.0))->toBe(0.0)
        ->and($map->height(7.0, 0.0))->toBeNull();
});
