<?php

declare(strict_types=1);

use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

test('a scene without anything is empty at every frame', function (): void {
    $s = Scenes::compile([]);
    $pose = SceneEvaluator::at($s, 0);
    expect($pose->places)->toBe([])->and($pose->cameras)->toBe([])->and(PoseStream::pieces($s))->toBe((int) ceil($s->frames / 48));
});

test('everything stands on its mark: place, heading and scale by hand', function (): void {
    // Heading 30 degrees from +z towards +x: front is (sin 30, 0, cos 30); a point 2 m ahead at scale 1.5 is 3 m off.
    $s = Scenes::compile(['items' => [Scenes::item('b', 'box', 1.0, -2.0, 30.0, 0.25, 1.5)]]);
    $place = SceneEvaluator::at($s, 0)->places['b'];
    expect(V3::distance($place->point([0.0, 0.0, 2.0]), [1.0 + 3.0 * 0.5, 0.25, -2.0 + 3.0 * sqrt(3) / 2]))->toBeLessThan(1e-12);
});

test('a joint in the world is its figure\'s place times the chain of joints', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda', 2.0, 1.0, 90.0)], 'beats' => [Scenes::beat('w', 'o', 'wave', 0)]]);
    $skeleton = $s->lanes['o']->figure->skeleton;
    foreach ([0.0, 17.0, 31.5] as $frame) {
        $row = SceneEvaluator::row($s, 'o', $frame);
        $turns = array_slice($row, 3, 4 * $skeleton->count());
        [$places] = $skeleton->world($turns, [$row[0], $row[1], $row[2]], $s->lanes['o']->figure->hips);
        foreach (['head', 'handR', 'footL'] as $role) {
            $j = $skeleton->roles[$role];
            // A quarter turn to +x takes the figure's (x, y, z) to (z, y, -x).
            $expected = [2.0 + $places[3 * $j + 2], $places[3 * $j + 1], 1.0 - $places[3 * $j]];
            expect(V3::distance(SceneEvaluator::jointPlace($s, 'o', $j, $frame)->position, $expected))->toBeLessThan(1e-6);
        }
    }
});

test('asking between two frames lies between them', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('w', 'o', 'walk', 0)]]);
    foreach ([4, 15, 27] as $f) {
        [$a, $m, $b] = array_map(static fn (float $at): array => SceneEvaluator::row($s, 'o', $at), [$f, $f + 0.5, $f + 1.0]);
        // A walk goes forward all the time: the hips' z in the middle is between its neighbours.
        expect($m[2])->toBeGreaterThan($a[2])->toBeLessThan($b[2]);
        for ($o = 3; $o < 3 + 4 * 45; $o += 4) {
            [$qa, $qm, $qb] = array_map(static fn (array $r): array => array_slice($r, $o, 4), [$a, $m, $b]);
            expect(Q4::angleBetween($qa, $qm))->toBeLessThanOrEqual(Q4::angleBetween($qa, $qb) + 0.02);
        }
    }
});

test('every value of a long scene is finite and every rotation is unit', function (): void {
    $s = Scenes::compile([
        'items' => [
            Scenes::item('o', 'oda', -1.0), Scenes::item('p', 'bram', 2.0, 0.0, -90.0), Scenes::item('k', 'key', 0.2, 0.3, 0.0, 0.9),
        ],
        'beats' => [
            Scenes::beat('a', 'o', 'walkToMark', 0), Scenes::beat('b', 'o', 'talk', 130), Scenes::beat('c', 'o', 'handOver', 300),
            Scenes::beat('d', 'p', 'idle', 0), Scenes::beat('e', 'p', 'receive', 300),
        ],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'from' => 10, 'mount' => 'handR']],
        'cameras' => [Scenes::camera('ca', [['frame' => 0], ['frame' => 90, 'position' => [1, 1.6, 3]]])],
    ]);
    for ($f = 0; $f < $s->frames; $f += 7) {
        $pose = SceneEvaluator::at($s, $f);
        foreach ($pose->rows as $row) {
            expect(is_finite(array_sum($row)))->toBeTrue();
            for ($o = 3; $o < 3 + 4 * 45; $o += 4) {
                expect($row[$o] ** 2 + $row[$o + 1] ** 2 + $row[$o + 2] ** 2 + $row[$o + 3] ** 2)->toEqualWithDelta(1.0, 1e-4);
            }
        }
        foreach ($pose->places as $place) {
            expect(array_sum(array_map(static fn (float $v): float => $v ** 2, $place->rotation)))->toEqualWithDelta(1.0, 1e-6);
        }
        expect($pose->cameras['ca']->focalMm)->toBe(35.0)->and($pose->cameras['ca']->focusMetres)->toBeGreaterThan(0.1);
    }
});

test('camera moves run in time with the keys, at any rate', function (array $rate): void {
    $s = Scenes::compile([
        'rate' => $rate,
        'cameras' => [Scenes::camera('ca', [
            ['frame' => 10, 'position' => [0, 1, 4]], ['frame' => 30, 'position' => [2, 1, 4], 'ease' => 'linear'],
        ])],
    ]);
    $x = static fn (float $f): float => SceneEvaluator::at($s, $f)->cameras['ca']->position[0];
    expect($x(0))->toBe(0.0)->and($x(10))->toBe(0.0)->and($x(30))->toEqualWithDelta(2.0, 1e-12)->and($x(500))->toEqualWithDelta(2.0, 1e-12)
        ->and($x(20))->toBeGreaterThan(0.6)->toBeLessThan(1.4);
})->with([[[24, 1]], [[25, 1]], [[30000, 1001]]]);
