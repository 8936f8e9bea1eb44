<?php

declare(strict_types=1);

use CrispReel\Core\Compile\LaneSegment;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Channel;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\Interpolation;

test('channels sample as glTF 2.0 Appendix C says', function (Interpolation $kind, array $values, float $t, array $expected): void {
    expect((new Channel('joint', 'translation', $kind, [1.0, 3.0], $values, 1))->at($t))->toEqualWithDelta($expected, 1e-12);
})->with([
    'step holds' => [Interpolation::Step, [5.0, 9.0], 2.999, [5.0]],
    'step at the key' => [Interpolation::Step, [5.0, 9.0], 3.0, [9.0]],
    'linear' => [Interpolation::Linear, [5.0, 9.0], 2.5, [8.0]],
    'before the first key' => [Interpolation::Linear, [5.0, 9.0], 0.0, [5.0]],
    'after the last key' => [Interpolation::Linear, [5.0, 9.0], 9.0, [9.0]],
    // Hermite at s = 1/4, interval 2: 27/32 * 1 + 2 * 9/64 * 4 + 5/32 * 3 - 2 * 3/64 * 8 = 1.6875.
    'cubic by hand' => [Interpolation::CubicSpline, [0.0, 1.0, 4.0, 8.0, 3.0, 0.0], 1.5, [0.84375 + 1.125 + 0.46875 - 0.75]],
    'cubic at the key' => [Interpolation::CubicSpline, [0.0, 1.0, 4.0, 8.0, 3.0, 0.0], 3.0, [3.0]],
]);

test('rotations are interpolated on the sphere and stay unit', function (): void {
    $a = Q4::aroundX(0.2);
    $b = Q4::aroundX(1.4);
    $c = new Channel('j', 'rotation', Interpolation::Linear, [0.0, 1.0], [...$a, ...$b], 4);
    expect(Q4::angleBetween(Q4::aroundX(0.5), $c->at(0.25)))->toBeLessThan(1e-9);
    $cubic = new Channel(
        'j',
        'rotation',
        Interpolation::CubicSpline,
        [0.0, 1.0],
        [0, 0, 0, 0, ...$a, 1, 2, 0, 0, 0, 3, 0, 0, ...$b, 0, 0, 0, 0],
        4,
    );
    $q = $cubic->at(0.4);
    expect($q[0] ** 2 + $q[1] ** 2 + $q[2] ** 2 + $q[3] ** 2)->toEqualWithDelta(1.0, 1e-12);
});

/** Two joints, one shape, three rows a second apart. */
function table(): ClipTable
{
    $row = static fn (float $x, float $turn, float $shape, float $z): array => [
        $x, 1.0, 0.0, ...Q4::aroundY($turn), ...Q4::aroundX($turn), $shape, 0.0, $z, 0.0,
    ];

    return ClipTable::fromRows(
        1.0,
        2,
        ['smile'],
        3,
        [...$row(0.0, 0.0, 0.0, 0.0), ...$row(2.0, 1.0, 0.5, 1.0), ...$row(4.0, 0.0, 1.0, 2.0)],
        false,
    );
}

test('a table is read at any time and clamps at its ends', function (): void {
    $r = table()->at(0.5);
    expect($r[0])->toEqualWithDelta(1.0, 1e-6)->and($r[11])->toEqualWithDelta(0.25, 1e-6)->and($r[13])->toEqualWithDelta(0.5, 1e-6)
        ->and(Q4::angleBetween(ClipTable::rotation($r, 0), Q4::aroundY(0.5)))->toBeLessThan(1e-5)
        ->and(table()->at(-5.0)[0])->toBe(0.0)->and(table()->at(99.0)[0])->toBe(4.0)->and(table()->seconds())->toBe(2.0);
});

test('a table survives its bytes', function (): void {
    $t = table();
    $back = ClipTable::fromBytes($t->toBytes());
    expect($back->toBytes())->toBe($t->toBytes())->and($back->at(1.3))->toBe($t->at(1.3))->and($back->morphs)->toBe(['smile']);
});

test('bytes that do not fit are refused', function (): void {
    ClipTable::fromBytes(substr(table()->toBytes(), 0, -8));
})->throws(InvalidArgumentException::class, 'bytes of rows');

test('a planar move turns and shifts the hips only', function (): void {
    $r = ClipTable::moved(table()->at(1.0), [10.0, 0.0, M_PI / 2], 0);
    // (2, 0) turned by +90 degrees goes from +x to -z.
    expect($r[0])->toEqualWithDelta(10.0, 1e-6)->and($r[2])->toEqualWithDelta(-2.0, 1e-6)->and($r[1])->toBe(1.0)
        ->and(Q4::angleBetween(ClipTable::rotation($r, 0), Q4::aroundY(1.0 + M_PI / 2)))->toBeLessThan(1e-5)
        ->and(Q4::angleBetween(ClipTable::rotation($r, 1), Q4::aroundX(1.0)))->toBeLessThan(1e-5);
});

test('planar moves form a group', function (): void {
    $r = new Random(8);
    for ($i = 0; $i < 50; $i++) {
        $a = [$r->signed() * 3, $r->signed() * 3, $r->signed() * 3];
        $b = [$r->signed() * 3, $r->signed() * 3, $r->signed() * 3];
        expect(LaneSegment::after($a, LaneSegment::undo($a)))->toEqualWithDelta([0.0, 0.0, 0.0], 1e-12)
            ->and(LaneSegment::after(LaneSegment::undo($b), LaneSegment::undo($a)))
            ->toEqualWithDelta(LaneSegment::undo(LaneSegment::after($a, $b)), 1e-12);
    }
});

test('a motion is sampled so that every key is met, at least sixty times a second', function (float $rate, int $keys, int $samples): void {
    $times = array_map(static fn (int $i): float => $i / $rate, range(0, $keys - 1));
    $clip = new Clip('walk', [
        new Channel('a', 'rotation', Interpolation::Linear, $times, array_merge(...array_fill(0, $keys, Q4::IDENTITY)), 4),
        new Channel('b', 'rotation', Interpolation::Linear, [0.0], Q4::IDENTITY, 4),
    ]);
    expect($clip->samples(60.0))->toBe($samples);
})->with([
    [24.0, 25, 24 * 3 + 1], [25.0, 26, 25 * 3 + 1], [30.0, 31, 61], [60.0, 61, 61], [120.0, 121, 121], [240.0, 241, 241],
    [1000.0, 1001, 61], [0.5, 2, 121],
]);

test('keys that come unevenly are sampled by the rate alone', function (): void {
    $clip = new Clip(
        'walk',
        [new Channel('a', 'rotation', Interpolation::Linear, [0.0, 0.1, 0.5], array_merge(...array_fill(0, 3, Q4::IDENTITY)), 4)],
    );
    expect($clip->samples(60.0))->toBe(31)->and((new Clip('none', []))->samples(60.0))->toBe(1);
});
