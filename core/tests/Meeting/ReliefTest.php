<?php

declare(strict_types=1);

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Meeting\Arm;
use CrispReel\Core\Meeting\Relief;
use CrispReel\Core\Meeting\Touch;
use CrispReel\Core\Rig\SteadyMix;

/** A slope over a square of 40 cm: its height falls by 0.25 a metre towards +x. */
function slope(): Relief
{
    $points = [[-0.2, -0.2, 0.05], [0.2, -0.2, -0.05], [0.2, 0.2, -0.05], [-0.2, 0.2, 0.05]];

    return new Relief($points, [[0, 1, 2], [0, 2, 3]], [0.0, 0.0, 0.0], [0.0, 0.0, 1.0]);
}

test('heights over a slope are those of its plane', function (): void {
    $r = slope();
    // Seen from +z the map's first axis is up across z: (1, 0, 0) or its opposite; heights are asked by points.
    expect($r->above([0.0, 0.0, 0.10]))->toEqualWithDelta(0.10, 2e-3)
        ->and($r->above([0.08, 0.0, 0.10]))->toEqualWithDelta(0.12, 2e-3)
        ->and($r->above([-0.08, 0.04, -0.10]))->toEqualWithDelta(-0.12, 2e-3)->and($r->above([0.5, 0.0, 0.0]))->toBeNull();
    expect($r->least([[0.0, 0.0, 0.2], [0.1, 0.0, 0.0], [0.9, 0.0, 0.0]]))->toEqualWithDelta(0.025, 2e-3)
        ->and($r->least([[0.9, 0.0, 0.0]]))->toBeNull()->and(V3::distance($r->point(), [0.0, 0.0, 0.0]))->toBeLessThan(8e-3);
    // The plane z = -x / 4 has the normal (1, 0, 4) / sqrt(17).
    expect(V3::distance($r->normal(), [1 / sqrt(17), 0.0, 4 / sqrt(17)]))->toBeLessThan(1e-3);
});

test('what lies deeper than asked for, or beside the map, is not in it', function (): void {
    $points = [[-0.1, -0.1, -0.9], [0.1, -0.1, -0.9], [0.0, 0.1, -0.9], [2.0, 2.0, 0.0], [2.1, 2.0, 0.0], [2.0, 2.1, 0.0]];
    $r = new Relief($points, [[0, 1, 2], [3, 4, 5]], [0.0, 0.0, 0.0], [0.0, 0.0, 1.0], 0.18, 0.4);
    expect($r->above([0.0, 0.0, 0.0]))->toBeNull()->and($r->normal())->toBe([0.0, 0.0, 1.0]);
});

test('of two surfaces over each other the outer one counts', function (): void {
    $square = static fn (float $z): array => [[-0.1, -0.1, $z], [0.1, -0.1, $z], [0.1, 0.1, $z], [-0.1, 0.1, $z]];
    $r = new Relief([...$square(0.0), ...$square(0.04)], [[0, 1, 2], [0, 2, 3], [4, 5, 6], [4, 6, 7]], [0.0, 0.0, 0.0], [0.0, 0.0, 1.0]);
    expect($r->above([0.0, 0.0, 0.05]))->toEqualWithDelta(0.01, 1e-6);
});

test('a touch comes, holds and goes: its courses at hand-worked times', function (): void {
    $t = Touch::of(['from' => 1.0, 'until' => 2.0, 'reach' => 0.4, 'gone' => 3.0, 'fingers' => [1, 0, 'x']]);
    expect($t->weight(0.4))->toBe(0.0)->and($t->weight(0.9))->toBe(1.0)->and($t->weight(1.5))->toBe(1.0)
        ->and($t->weight(2.5))->toEqualWithDelta(0.5, 1e-9)->and($t->weight(3.0))->toBe(0.0)
        ->and($t->there(0.7))->toEqualWithDelta(0.5, 1e-9)->and($t->there(1.2))->toBe(1.0)
        ->and($t->off(0.5))->toEqualWithDelta(0.055, 1e-9)->and($t->off(0.88))->toEqualWithDelta(0.0275, 1e-9)->and($t->off(1.0))->toBe(0.0)
        ->and($t->holds(1.0))->toBeTrue()->and($t->holds(2.1))->toBeFalse()->and($t->fingers)->toBe([1.0, 0.0, 0.7]);
    // A blow does not slow down before it lands.
    $hit = Touch::of(['from' => 1.0, 'until' => 1.1, 'reach' => 0.5, 'gone' => 1.6, 'strike' => true]);
    expect($hit->weight(1.0) - $hit->weight(0.96))->toBeGreaterThan(0.07)->and($hit->off(0.9))->toBe(0.0);
});

test('a wrist is turned back to what a wrist can do', function (): void {
    // The forearm points along x, the hand's fingers back over it at 120 degrees.
    $along = [1.0, 0.0, 0.0];
    $hand = Q4::aroundZ(deg2rad(120.0));
    $eased = Arm::eased([0.0, 0.0, 0.0], [0.25, 0.0, 0.0], $hand, $along);
    expect(rad2deg(acos(V3::dot(Q4::rotate($eased, $along), [1.0, 0.0, 0.0]))))->toEqualWithDelta(80.0, 1e-6);
    $fine = Q4::aroundZ(deg2rad(70.0));
    expect(Arm::eased([0.0, 0.0, 0.0], [0.25, 0.0, 0.0], $fine, $along))->toBe($fine);
});

test('turns that are half a turn apart are mixed the same way round, row after row', function (): void {
    $mix = new SteadyMix;
    $before = null;
    foreach (range(0, 40) as $k) {
        // The aim passes the point where the other way round would be shorter.
        $aim = Q4::aroundY(deg2rad(170.0 + $k));
        $q = $mix->between('arm', Q4::IDENTITY, $aim, 0.5);
        expect($before === null || rad2deg(Q4::angleBetween($before, $q)) < 1.0)->toBeTrue("flips at {$k}");
        $before = $q;
    }
    // 210 degrees, half of it: 105.
    expect(rad2deg(Q4::angleBetween(Q4::IDENTITY, $before)))->toEqualWithDelta(105.0, 1e-6);
    // Forgotten, the short way is taken again: 210 degrees are 150 the other way.
    $mix->forget('arm');
    expect(rad2deg(Q4::angleBetween(Q4::IDENTITY, $mix->between('arm', Q4::IDENTITY, Q4::aroundY(deg2rad(210.0)), 0.5))))
        ->toEqualWithDelta(75.0, 1e-6);
});
