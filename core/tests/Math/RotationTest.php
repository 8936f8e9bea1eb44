<?php

declare(strict_types=1);

use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;

function near(array $expected, array $found, float $tolerance = 1e-9): void
{
    expect(count($found))->toBe(count($expected));
    foreach ($expected as $i => $e) {
        expect(abs($e - $found[$i]))->toBeLessThan($tolerance, sprintf('at %s: expected %s, found %s', $i, $e, $found[$i]));
    }
}

function anyQuat(Random $r): array
{
    return Q4::unit([$r->signed(), $r->signed(), $r->signed(), $r->signed()]);
}

test('quarter turns go the right-handed way', function (array $q, array $v, array $expected): void {
    near($expected, Q4::rotate($q, $v));
})->with([
    'x takes y to z' => [Q4::aroundX(M_PI / 2), [0, 1, 0], [0, 0, 1]],
    'y takes z to x' => [Q4::aroundY(M_PI / 2), [0, 0, 1], [1, 0, 0]],
    'z takes x to y' => [Q4::aroundZ(M_PI / 2), [1, 0, 0], [0, 1, 0]],
    'the diagonal takes x to y to z' => [Q4::axis(V3::unit([1, 1, 1]), 2 * M_PI / 3), [1, 0, 0], [0, 1, 0]],
]);

test('heading is the turn from +Z towards +X', function (): void {
    expect(Q4::heading(Q4::aroundY(deg2rad(30))))->toEqualWithDelta(deg2rad(30), 1e-12)
        ->and(Q4::heading(Q4::aroundY(deg2rad(-120))))->toEqualWithDelta(deg2rad(-120), 1e-12);
});

test('the product applies the right factor first', function (): void {
    $q = Q4::mul(Q4::aroundY(M_PI / 2), Q4::aroundX(M_PI / 2));
    near([1, 0, 0], Q4::rotate($q, [0, 1, 0]));
});

test('slerp goes at even speed on the short way', function (): void {
    $a = Q4::aroundY(deg2rad(10));
    $b = array_map(static fn (float $v): float => -$v, Q4::aroundY(deg2rad(90)));
    foreach ([0.0, 0.25, 0.5, 1.0] as $t) {
        expect(Q4::heading(Q4::slerp($a, $b, $t)))->toEqualWithDelta(deg2rad(10 + 80 * $t), 1e-9);
    }
});

test('a share of a turn is that share of its angle', function (): void {
    expect(Q4::angleBetween(Q4::IDENTITY, Q4::power(Q4::aroundX(1.2), 0.25)))->toEqualWithDelta(0.3, 1e-12);
});

test('axes are taken to axes', function (): void {
    $q = Q4::fromAxes([0.0, -1.0, 0.0], [1.0, 0.0, 0.0], [0.0, 0.0, 1.0], [0.0, 1.0, 0.0]);
    near([0, 0, 1], Q4::rotate($q, [0, -1, 0]));
    near([0, 1, 0], Q4::rotate($q, [1, 0, 0]));
});

test('a camera looks along its own -Z with +Y up', function (): void {
    $q = Q4::lookAt([0.0, 1.0, 5.0], [3.0, 1.0, 5.0]);
    near([1, 0, 0], Q4::rotate($q, [0, 0, -1]));
    near([0, 1, 0], Q4::rotate($q, [0, 1, 0]));
    near([0, -1, 0], Q4::rotate(Q4::lookAt([0.0, 5.0, 0.0], [0.0, 0.0, 0.0]), [0, 0, -1]));
});

test('matrices come apart as they were put together', function (): void {
    $r = new Random(11);
    for ($i = 0; $i < 200; $i++) {
        $t = [$r->signed() * 9, $r->signed() * 9, $r->signed() * 9];
        $q = anyQuat($r);
        $s = [0.2 + $r->next() * 3, 0.2 + $r->next() * 3, 0.2 + $r->next() * 3];
        [$t2, $q2, $s2] = M4::decompose(M4::compose($t, $q, $s));
        near($t, $t2, 1e-9);
        near($s, $s2, 1e-9);
        expect(Q4::angleBetween($q, $q2))->toBeLessThan(1e-7);
    }
});

test('a matrix moves a point as scale, turn and shift do', function (): void {
    $m = M4::compose([1.0, 2.0, 3.0], Q4::aroundY(M_PI / 2), [2.0, 1.0, 1.0]);
    near([1, 2, 1], M4::point($m, [1.0, 0.0, 0.0]));
    near([2, 2, 3], M4::point($m, [0.0, 0.0, 1.0]));
});

test('a placement and its inverse cancel', function (): void {
    $r = new Random(5);
    for ($i = 0; $i < 100; $i++) {
        $p = new Placement([$r->signed() * 4, $r->signed() * 4, $r->signed() * 4], anyQuat($r), 0.3 + $r->next() * 2);
        $x = [$r->signed(), $r->signed(), $r->signed()];
        near($x, $p->inverse()->point($p->point($x)), 1e-10);
        $both = $p->of($p->inverse());
        near([0, 0, 0], $both->position, 1e-10);
        expect($both->scale)->toEqualWithDelta(1.0, 1e-12);
    }
});

test('placements nest: a child on a turned and grown parent', function (): void {
    $parent = Placement::standing([10.0, 0.0, 0.0], 90.0, 2.0);
    $child = $parent->of(new Placement([0.0, 1.0, 3.0]));
    near([16, 2, 0], $child->position);
});
