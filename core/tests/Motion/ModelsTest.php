<?php

declare(strict_types=1);

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;

$motions = [
    'idle' => ['idle', ['seconds' => 16]], 'walk' => ['walk', ['speed' => 1.25]], 'slow walk' => ['walk', ['speed' => 0.8]],
    'walk to a mark' => ['walkToMark', ['speed' => 1.15, 'metres' => 3.08]], 'talk' => ['talk', ['seconds' => 8]], 'wave' => ['wave', []],
    'hand over' => ['handOver', []], 'receive' => ['receive', []],
];

test('feet hold the floor, measured on the drawn soles', function (string $who, string $model, array $settings): void {
    [$slip, $deep] = slip($who, solved($who, $model, $settings));
    expect($slip)->toBeLessThan(0.010)->and($deep)->toBeGreaterThan(-0.004);
})->with(['oda', 'bram'])->with($motions);

test('nothing snaps, bends backwards or is not a number', function (string $who, string $model, array $settings): void {
    $t = solved($who, $model, $settings);
    $knees = array_map(static fn (string $r): int => figure($who)->skeleton->roles[$r], ['lowerLegL', 'lowerLegR']);
    $before = null;
    for ($s = 0.0; $s <= $t->seconds(); $s += 1 / 24) {
        $row = $t->at($s);
        foreach ($row as $v) {
            expect(is_finite($v))->toBeTrue();
        }
        foreach ($knees as $j) {
            $q = ClipTable::rotation($row, $j);
            // Flexion is the turn about +X: never below zero, never past 150 degrees.
            $bend = rad2deg(2 * atan2($q[0], $q[3]));
            expect($bend)->toBeBetween(-2.0, 150.0);
            if ($before !== null) {
                expect(rad2deg(Q4::angleBetween($q, ClipTable::rotation($before, $j))))->toBeLessThan(20.0);
            }
        }
        if ($before !== null) {
            // The hips never jump: a walk of 1.25 m/s moves 5.2 cm a frame.
            expect(V3::distance([$row[0], $row[1], $row[2]], [$before[0], $before[1], $before[2]]))->toBeLessThan(0.075);
        }
        $before = $row;
    }
})->with(['oda', 'bram'])->with($motions);

test('repeating motions close: last pose equals first but for the travel', function (string $model, array $settings): void {
    $t = solved('oda', $model, $settings);
    [$a, $b] = [$t->at(0.0), $t->at($t->seconds())];
    $travel = $b[$t->width - 2] - $a[$t->width - 2];
    expect($t->loops)->toBeTrue()->and(abs($b[0] - $a[0]))->toBeLessThan(0.002)->and(abs($b[1] - $a[1]))->toBeLessThan(0.002)
        ->and(abs($b[2] - $a[2] - $travel))->toBeLessThan(0.002);
    for ($j = 0; $j < $t->joints; $j++) {
        expect(rad2deg(Q4::angleBetween(ClipTable::rotation($a, $j), ClipTable::rotation($b, $j))))->toBeLessThan(0.5);
    }
})->with(['idle' => ['idle', ['seconds' => 16]], 'walk' => ['walk', ['speed' => 1.25]]]);

test('every standing motion begins and ends with the feet in the one stance', function (string $model, array $settings): void {
    $t = solved('oda', $model, $settings);
    $home = solved('oda', 'idle', ['seconds' => 16]);
    foreach ([0.0, $t->seconds()] as $s) {
        $ends = drawnSoles('oda', $t->at($s));
        foreach (drawnSoles('oda', $home->at(0.0)) as $i => $v) {
            expect(hypot($ends[$i][0] - $v[0], $ends[$i][2] - $v[2]))->toBeLessThan(0.008);
        }
    }
})->with(['talk' => ['talk', ['seconds' => 8]], 'wave' => ['wave', []], 'hand over' => ['handOver', []], 'receive' => ['receive', []]]);

test('a walk reaches its mark exactly, and speed is what was asked', function (float $metres): void {
    $t = solved('oda', 'walkToMark', ['speed' => 1.2, 'metres' => $metres]);
    $start = drawnSoles('oda', $t->at(0.0));
    foreach (drawnSoles('oda', $t->at($t->seconds())) as $i => $v) {
        expect($v[2] - $start[$i][2])->toEqualWithDelta($metres, 0.012);
    }
    $cycle = solved('oda', 'walk', ['speed' => 1.25]);
    $z = $cycle->at($cycle->seconds())[$cycle->width - 2] - $cycle->at(0.0)[$cycle->width - 2];
    expect($z / $cycle->seconds())->toEqualWithDelta(1.25, 0.01);
})->with([1.6, 3.08, 5.0]);

test('giver and receiver bring their hands to one place', function (): void {
    $place = static function (string $who, string $model): array {
        $t = solved($who, $model);
        $row = $t->at(1.65);
        $f = figure($who);
        [$p, $q] = $f->skeleton->world(array_slice($row, 3, 4 * $f->skeleton->count()), [$row[0], $row[1], $row[2]], $f->hips);
        $j = $f->skeleton->roles['handR'];
        $grip = $f->grip('R');

        return V3::add(
            [$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]],
            Q4::rotate([$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]], $grip[0]),
        );
    };
    $giver = $place('oda', 'handOver');
    $taker = $place('bram', 'receive');
    // Seen from the giver: the receiver stands 1.02 m ahead and faces back.
    $taker = [-$taker[0], $taker[1], 1.02 - $taker[2]];
    expect(V3::distance($giver, $taker))->toBeLessThan(0.085)->and(abs($giver[1] - $taker[1]))->toBeLessThan(0.06);
});

test('talk moves the mouth and no lids, and the same seed is the same talk', function (): void {
    $t = solved('oda', 'talk', ['seconds' => 8]);
    $morphs = array_flip($t->morphs);
    $most = fn (string $m): float => max(array_map(
        static fn (int $i): float => $t->row($i)[3 + 4 * $t->joints + $morphs[$m]],
        range(0, $t->count - 1),
    ));
    expect($most('jawOpen') + $most('funnel') + $most('stretchL'))->toBeGreaterThan(0.6)->and($most('blinkL'))->toBe(0.0)
        ->and($most('browOutUpL'))->toBeGreaterThan(0.13)
        ->and(MotionSampler::table(
            figure('oda')->body(),
            new MotionRecipe('talk', ['seconds' => 8, 'seed' => 3]),
            figure('oda')->morphs,
        )->toBytes())->toBe($t->toBytes())
        ->and(solved('oda', 'talk', ['seconds' => 8, 'seed' => 4])->toBytes())->not->toBe($t->toBytes());
});

test('an unknown model is refused with the ones there are', function (): void {
    new MotionRecipe('somersault');
})->throws(RuntimeException::class, 'no motion model "somersault"');
