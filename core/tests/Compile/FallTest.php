<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Fall;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/** A box whose origin is in its middle. @return array{list<float>, list<float>} */
function boxed(float $x, float $y, float $z): array
{
    return [[-$x / 2, -$y / 2, -$z / 2], [$x / 2, $y / 2, $z / 2]];
}

/** Height of the lowest corner of a placed box. @param  array{list<float>, list<float>}  $b */
function lowestCorner(Placement $p, array $b): float
{
    $low = INF;
    for ($c = 0; $c < 8; $c++) {
        $low = min($low, $p->point([$b[$c & 1][0], $b[$c >> 1 & 1][1], $b[$c >> 2][2]])[1]);
    }

    return $low;
}

$floor = static fn (float $x, float $z, float $ceiling): float => 0.0;

test('what is dropped falls by half g t squared until it touches', function () use ($floor): void {
    $fall = new Fall(new Placement([1.0, 2.1, -3.0], Q4::IDENTITY, 1.0), [0.0, 0.0, 0.0], boxed(0.2, 0.2, 0.2), $floor);
    // It touches when its middle is at 0.1: after the root of 2 x 2 / 9.81 = 0.6386 s. Steps of 1/240 s are early by g t / 480.
    foreach ([0.1, 0.3, 0.6] as $t) {
        expect($fall->at($t)->position[1])->toEqualWithDelta(2.1 - 0.5 * 9.81 * $t * $t, 9.81 * $t / 480 + 1e-6);
    }
    expect($fall->at(0.62)->position[1])->toBeGreaterThan(0.1)->and($fall->at($fall->seconds())->position)
        ->toEqualWithDelta([1.0, 0.1, -3.0], 1e-6);
});

test('each bounce is lower than the one before, and it comes to rest', function () use ($floor): void {
    $fall = new Fall(new Placement([0.0, 3.0, 0.0], Q4::IDENTITY, 1.0), [0.0, 0.0, 0.0], boxed(0.3, 0.3, 0.3), $floor);
    $tops = [];
    for ($t = 1 / 120; $t < $fall->seconds(); $t += 1 / 240) {
        [$a, $b, $c] = [$fall->at($t - 1 / 240)->position[1], $fall->at($t)->position[1], $fall->at($t + 1 / 240)->position[1]];
        if ($b > $a + 1e-6 && $b >= $c && $b > 0.152) {
            $tops[] = $b - 0.15;
        }
    }
    expect(count($tops))->toBeGreaterThan(0)->and($fall->seconds())->toBeLessThan(4.0);
    // Speed after a bounce is 0.32 of that before: heights go down by the square of it.
    expect($tops[0])->toEqualWithDelta(0.32 ** 2 * 2.85, 0.04);
    foreach (array_slice($tops, 1) as $n => $h) {
        expect($h)->toBeLessThan(0.2 * $tops[$n]);
    }
});

test('nothing sinks into the ground on its way', function (array $turn, array $velocity, array $size) use ($floor): void {
    $b = boxed(...$size);
    $fall = new Fall(new Placement([0.0, 1.4, 0.0], Q4::unit($turn), 1.0), $velocity, $b, $floor);
    for ($t = 0.0; $t <= $fall->seconds(); $t += 1 / 60) {
        expect(lowestCorner($fall->at($t), $b))->toBeGreaterThan(-0.012);
    }
    expect(lowestCorner($fall->at(10.0), $b))->toEqualWithDelta(0.0, 1e-3);
})->with([
    'a book, upright' => [[0.0, 0.0, 0.0, 1.0], [0.0, 0.0, 0.0], [0.2, 0.3, 0.04]],
    'a book, thrown askew' => [[0.3, 0.2, 0.5, 0.8], [2.0, 1.0, -1.0], [0.2, 0.3, 0.04]],
    'a stick' => [[0.0, 0.0, 0.6, 0.8], [0.5, 0.0, 0.0], [0.05, 1.0, 0.05]],
    'a crate' => [[0.1, 0.9, 0.1, 0.3], [1.0, 2.0, 0.0], [0.6, 0.5, 0.5]],
]);

test('it ends on its flattest side', function (array $turn, array $velocity) use ($floor): void {
    $fall = new Fall(new Placement([0.0, 1.2, 0.0], Q4::unit($turn), 1.0), $velocity, boxed(0.2, 0.3, 0.04), $floor);
    $end = $fall->at($fall->seconds());
    // Its thin axis points straight up or down.
    expect(abs(Q4::rotate($end->rotation, [0.0, 0.0, 1.0])[1]))->toEqualWithDelta(1.0, 1e-4)->and($end->position[1])
        ->toEqualWithDelta(0.02, 1e-3);
})->with([
    [[0.0, 0.0, 0.0, 1.0], [0.0, 0.0, 0.0]], [[0.7, 0.1, 0.2, 0.6], [0.0, 0.0, 0.0]], [[0.2, 0.2, -0.4, 0.9], [1.5, 2.0, 0.5]],
    [[0.0, 0.0, 1.0, 0.2], [-1.0, 0.0, 2.0]],
]);

test('it lands on what is under it: a table, and the floor beside it', function (): void {
    $table = static fn (float $x, float $z, float $ceiling): ?float => abs($x) < 0.5 && $ceiling > 0.74 ? 0.75 : 0.0;
    $on = new Fall(new Placement([0.2, 1.2, 0.0], Q4::IDENTITY, 1.0), [0.0, 0.0, 0.0], boxed(0.1, 0.1, 0.1), $table);
    expect($on->at(9.0)->position[1])->toEqualWithDelta(0.8, 1e-3);
    // Thrown past the edge it does not stop in the air.
    $past = new Fall(new Placement([0.0, 1.0, 0.0], Q4::IDENTITY, 1.0), [4.0, 1.5, 0.0], boxed(0.1, 0.1, 0.1), $table);
    expect($past->at(9.0)->position[0])->toBeGreaterThan(0.5)->and($past->at(9.0)->position[1])->toEqualWithDelta(0.05, 1e-3);
});

test('where there is no ground it falls for a while and is let go', function (): void {
    $fall = new Fall(
        new Placement([0.0, 1.0, 0.0], Q4::IDENTITY, 1.0),
        [0.0, 0.0, 0.0],
        boxed(0.1, 0.1, 0.1),
        static fn (): ?float => null,
    );
    expect($fall->seconds())->toEqualWithDelta(6.0, 0.01)->and($fall->at(6.0)->position[1])->toBeLessThan(-150.0);
});

test('a thing twice as large lies twice as high, and a handle beside its middle goes along', function () use ($floor): void {
    $fall = new Fall(new Placement([0.0, 2.0, 0.0], Q4::IDENTITY, 2.0), [0.0, 0.0, 0.0], boxed(0.2, 0.2, 0.2), $floor);
    expect($fall->at(9.0)->position[1])->toEqualWithDelta(0.2, 1e-3)->and($fall->at(9.0)->scale)->toBe(2.0);
    // The origin at the end of a stick: the stick lies flat, and so does its origin.
    $stick = [[-0.02, 0.0, -0.02], [0.02, 1.0, 0.02]];
    $end = (new Fall(new Placement([0.0, 1.0, 0.0], Q4::axis([1.0, 0.0, 0.0], 0.4), 1.0), [0.0, 0.0, 0.0], $stick, $floor))->at(9.0);
    expect($end->position[1])->toEqualWithDelta(0.02, 2e-3)->and(abs(Q4::rotate($end->rotation, [0.0, 1.0, 0.0])[1]))->toBeLessThan(1e-3);
});

test('what is thrown to someone flies a parabola that begins and ends in the hands', function (): void {
    [$from, $to] = [
        new Placement([0.0, 1.5, 0.0], Q4::IDENTITY, 1.0), new Placement([3.0, 1.1, -2.0], Q4::axis([0.0, 1.0, 0.0], 1.0), 1.2),
    ];
    $at = static fn (float $t): Placement => Fall::thrown($from, $to, 0.8, $t);
    expect($at(0.0)->position)->toEqualWithDelta($from->position, 1e-9)->and($at(0.8)->position)->toEqualWithDelta($to->position, 1e-9)
        ->and($at(5.0)->position)->toEqualWithDelta($to->position, 1e-9);
    // Half way it is g T squared / 8 above the straight line.
    expect($at(0.4)->position)->toEqualWithDelta([1.5, 1.3 + 9.81 * 0.64 / 8, -1.0], 1e-9)->and($at(0.4)->scale)
        ->toEqualWithDelta(1.1, 1e-9)->and(Q4::angleBetween($at(0.4)->rotation, Q4::IDENTITY))->toEqualWithDelta(0.5, 1e-9);
    // Its second difference is g, all along.
    for ($t = 0.1; $t < 0.7; $t += 0.1) {
        $second = $at($t + 0.01)->position[1] - 2 * $at($t)->position[1] + $at($t - 0.01)->position[1];
        expect($second / 1e-4)->toEqualWithDelta(-9.81, 1e-6);
    }
});

test('the same fall is the same, however it is asked', function () use ($floor): void {
    $make = static fn (): Fall => new Fall(
        new Placement([0.0, 1.4, 0.0], Q4::unit([0.3, 0.2, 0.5, 0.8]), 1.0),
        [2.0, 1.0, -1.0],
        boxed(0.2, 0.3, 0.04),
        $floor,
    );
    [$a, $b] = [$make(), $make()];
    foreach ([0.9, 0.1, 2.0, 0.5] as $t) {
        expect($b->at($t)->position)->toBe($a->at($t)->position)->and(is_finite(V3::length($b->at($t)->position)))->toBeTrue();
    }
});

test('what is let go and taken much later lies there until then; what is taken soon is caught', function (): void {
    $scene = static fn (int $taken): CompiledScene => Scenes::compile([
        'items' => [
            Scenes::item('o', 'oda', 0.0, 0.0, 90.0), Scenes::item('b', 'bram', 1.2, 0.0, -90.0), Scenes::item('k', 'key', 0.3, 0.0),
        ],
        'links' => [
            [
                'id' => '1', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0, 'to' => 98, 'keep' => 'grip',
                'release' => 'fall',
            ],
            ['id' => '2', 'child' => 'k', 'parent' => 'b', 'mount' => 'handR', 'from' => $taken, 'keep' => 'grip'],
        ],
    ]);
    $heights = static fn (CompiledScene $s, int $from, int $to): array => array_map(
        static fn (int $f): float => SceneEvaluator::place($s, 'k', $f)->position[1], range($from, $to),
    );
    $late = $scene(245);
    expect(max($heights($late, 98, 244)))->toBeLessThan($heights($late, 97, 97)[0] + 0.05)
        // This one's middle is half a metre over its flattest side.
        ->and(max($heights($late, 160, 244)))->toBeLessThan(0.51)
        ->and(SceneEvaluator::place($late, 'k', 250)->position[1])->toBeGreaterThan(0.6);
    $soon = $scene(98 + 24);
    expect(max($heights($soon, 98, 121)))->toBeGreaterThan($heights($soon, 97, 97)[0] + 0.5);
});
