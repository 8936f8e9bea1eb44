<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Adjust;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Tests\Support\Scenes;

/** World places of all joints in a row. @return list<array{float, float, float}> */
function jointsOf(Figure $figure, array $row): array
{
    [$p] = $figure->skeleton->world(array_slice($row, 3, 4 * $figure->skeleton->count()), [$row[0], $row[1], $row[2]], $figure->hips);

    return array_chunk($p, 3);
}

test('a mirrored motion puts every joint where its partner was, seen in a mirror', function (string $model): void {
    $figure = figure('oda');
    $table = solved('oda', $model);
    $mirror = Adjust::adjusted($table, new Play(mirror: true), $figure);
    $roles = $figure->skeleton->roles;
    foreach ([0.3, 1.1, 2.4] as $s) {
        $a = jointsOf($figure, $table->at($s));
        $b = jointsOf($figure, $mirror->at($s));
        foreach ($roles as $role => $j) {
            $other = $roles[str_ends_with($role, 'L') ? substr($role, 0, -1).'R' : (
                str_ends_with($role, 'R') ? substr($role, 0, -1).'L' : $role
            )];
            expect(V3::distance($b[$j], [-$a[$other][0], $a[$other][1], $a[$other][2]]))->toBeLessThan(2e-5);
        }
    }
})->with(['walk', 'wave', 'handOver']);

test('mirrored twice is the motion itself, on rigs with any rest turns', function (): void {
    mt_srand(11);
    $rand = static fn (): float => mt_rand() / mt_getrandmax() - 0.5;
    $names = ['hips', 'spine', 'arm_l', 'arm_r', 'hand_l', 'hand_r', 'tail'];
    for ($round = 0; $round < 20; $round++) {
        // Left and right rest turns are images of each other, as any symmetrical rig has them.
        $turn = Q4::unit([$rand(), $rand(), $rand(), $rand()]);
        $image = [$turn[0], -$turn[1], -$turn[2], $turn[3]];
        $middle = Q4::aroundX($rand());
        $skeleton = new Skeleton(
            $names,
            [-1, 0, 1, 1, 2, 3, 0],
            array_map(static fn (): float => $rand(), range(1, 21)),
            [...$middle, ...$middle, ...$turn, ...$image, ...$turn, ...$image, ...$middle],
            array_fill(0, 21, 1.0),
        );
        $figure = new Figure('x', ['skeleton' => $skeleton->toArray(), 'bounds' => [[0, 0, 0], [0, 1.7, 0]]]);
        $rows = [];
        for ($i = 0; $i < 3; $i++) {
            array_push($rows, $rand(), $rand(), $rand());
            for ($j = 0; $j < 7; $j++) {
                array_push($rows, ...Q4::unit([$rand(), $rand(), $rand(), $rand()]));
            }
            array_push($rows, 0.2, 0.7, $rand(), $rand(), $rand());
        }
        $table = ClipTable::fromRows(30.0, 7, ['blinkL', 'blinkR'], 3, $rows, false);
        $twice = Adjust::adjusted(Adjust::adjusted($table, new Play(mirror: true), $figure), new Play(mirror: true), $figure);
        $once = Adjust::adjusted($table, new Play(mirror: true), $figure);
        expect($once->row(0)[3 + 28])->toEqualWithDelta(0.7, 1e-6);
        for ($i = 0; $i < 3; $i++) {
            for ($j = 0; $j < 7; $j++) {
                expect(rad2deg(Q4::angleBetween(ClipTable::rotation($table->row($i), $j), ClipTable::rotation($twice->row($i), $j))))
                    ->toBeLessThan(0.001);
            }
            expect(array_slice($twice->row($i), 31))->toEqualWithDelta(array_slice($table->row($i), 31), 1e-6);
        }
    }
});

test('energy scales how far the upper body leaves its mean, and leaves the feet alone', function (): void {
    $figure = figure('oda');
    $table = solved('oda', 'talk', ['seconds' => 8]);
    $spread = static function (ClipTable $t, string $role) use ($figure): float {
        $j = $figure->skeleton->roles[$role];
        $angles = array_map(
            static fn (int $i): float => Q4::angleBetween(ClipTable::rotation($t->row(0), $j), ClipTable::rotation($t->row($i), $j)),
            range(0, $t->count - 1),
        );

        return max($angles) - min($angles);
    };
    $calm = Adjust::adjusted($table, new Play(energy: 0.5), $figure);
    $still = Adjust::adjusted($table, new Play(energy: 0.0), $figure);
    $same = Adjust::adjusted($table, new Play(energy: 1.0, armWidthDeg: 1e-9), $figure);
    expect($spread($calm, 'upperArmR'))->toEqualWithDelta(0.5 * $spread($table, 'upperArmR'), 0.12 * $spread($table, 'upperArmR'))
        ->and($spread($still, 'upperArmR'))->toBeLessThan(0.01);
    foreach (['footL', 'footR'] as $role) {
        $j = $figure->skeleton->roles[$role];
        expect(V3::distance(jointsOf($figure, $calm->at(2.0))[$j], jointsOf($figure, $table->at(2.0))[$j]))->toBeLessThan(1e-5);
    }
    expect($same->at(1.3))->toEqualWithDelta($table->at(1.3), 1e-5);
});

test('wider arms open both by the same angle', function (): void {
    $figure = figure('oda');
    $table = solved('oda', 'idle', ['seconds' => 16]);
    $wide = Adjust::adjusted($table, new Play(armWidthDeg: 15.0), $figure);
    foreach (['L', 'R'] as $side) {
        [$a, $b] = array_map(
            static fn (ClipTable $t): array => [
                jointsOf($figure, $t->at(1.0))[$figure->skeleton->roles['upperArm'.$side]],
                jointsOf($figure, $t->at(1.0))[$figure->skeleton->roles['lowerArm'.$side]],
            ],
            [$table, $wide],
        );
        $angle = rad2deg(acos(V3::dot(V3::unit(V3::sub($a[1], $a[0])), V3::unit(V3::sub($b[1], $b[0])))));
        expect($angle)->toBeBetween(12.0, 15.1)->and(abs($b[1][0]))->toBeGreaterThan(abs($a[1][0]));
    }
});

test('lower hips bend the knees and leave the feet', function (): void {
    $figure = figure('bram');
    $table = solved('bram', 'idle', ['seconds' => 16]);
    $low = Adjust::adjusted($table, new Play(hipOffset: -0.2), $figure);
    $a = jointsOf($figure, $table->at(1.0));
    $b = jointsOf($figure, $low->at(1.0));
    $r = $figure->skeleton->roles;
    expect($a[$r['hips']][1] - $b[$r['hips']][1])->toEqualWithDelta(0.2 * $figure->height() / 1.7, 1e-5);
    foreach (['footL', 'footR', 'toesL'] as $foot) {
        expect(V3::distance($a[$r[$foot]], $b[$r[$foot]]))->toBeLessThan(1e-4);
    }
    expect($b[$r['lowerLegL']][2])->toBeGreaterThan($a[$r['lowerLegL']][2] + 0.05);
});

test('a laid-over beat moves what its mask names, as far as its share, and fades', function (): void {
    $base = ['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('b', 'o', 'idle', 0)]];
    $over = $base;
    $over['beats'][] = Scenes::beat(
        'w',
        'o',
        'wave',
        20,
        ['play' => ['layer' => 1, 'mask' => ['armR', 'face'], 'fadeIn' => 4, 'fadeOut' => 4]],
    );
    $plain = Scenes::compile($base);
    $s = Scenes::compile($over);
    $figure = $s->lanes['o']->figure;
    $arm = $figure->part('armR');
    foreach ([40, 60] as $f) {
        $row = SceneEvaluator::row($s, 'o', $f);
        $was = SceneEvaluator::row($plain, 'o', $f);
        $moved = array_filter(
            array_keys($figure->skeleton->names),
            static fn (int $j): bool => ClipTable::rotation($row, $j) !== ClipTable::rotation($was, $j),
        );
        expect(array_diff($moved, $arm, $figure->part('face')))->toBe([])->and(count(array_intersect($moved, $arm)))->toBeGreaterThan(3);
        expect(array_slice($row, 0, 3))->toBe(array_slice($was, 0, 3));
    }
    $j = $figure->skeleton->roles['upperArmR'];
    $away = static fn (int $f): float => Q4::angleBetween(
        ClipTable::rotation(SceneEvaluator::row($s, 'o', $f), $j),
        ClipTable::rotation(SceneEvaluator::row($plain, 'o', $f), $j),
    );
    $end = (int) ceil($s->lanes['o']->layers[0]->end);
    expect($away(19))->toBeLessThan(1e-9)->and($away($end))->toBeLessThan(1e-9)->and($away($end - 1))->toBeLessThan($away($end - 6) + 0.2)
        ->and($s->frames)->toBeGreaterThanOrEqual($end);
});

test('a split beat plays on as if nothing had happened', function (): void {
    $whole = ['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['loops' => 3])]];
    $parts = ['items' => $whole['items'], 'beats' => [
        Scenes::beat('b', 'o', 'walk', 0, ['loops' => 3, 'play' => ['length' => 50]]),
        Scenes::beat('c', 'o', 'walk', 50, ['loops' => 3, 'joinFrames' => 0, 'play' => ['skip' => 50, 'anchor' => 'hips']]),
    ]];
    [$a, $b] = [Scenes::compile($whole), Scenes::compile($parts)];
    for ($f = 0; $f < 150; $f += 7) {
        expect(array_slice(SceneEvaluator::row($b, 'o', $f), 0, 100))
            ->toEqualWithDelta(array_slice(SceneEvaluator::row($a, 'o', $f), 0, 100), 1e-6);
    }
});

test('through a join the planted feet move at most 5 mm', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [
        Scenes::beat('a', 'o', 'walkToMark', 0), Scenes::beat('b', 'o', 'talk', 108, ['joinFrames' => 12]),
        Scenes::beat('c', 'o', 'wave', 200, ['joinFrames' => 10]), Scenes::beat('d', 'o', 'idle', 280, ['joinFrames' => 16]),
    ]]);
    $r = $s->lanes['o']->figure->skeleton->roles;
    foreach ([[108, 12], [200, 10], [280, 16]] as [$start, $frames]) {
        foreach (['footL', 'footR'] as $role) {
            $at = static fn (float $f): array => SceneEvaluator::jointPlace($s, 'o', $r[$role], $f)->position;
            for ($f = $start; $f < $start + $frames; $f++) {
                expect(V3::distance($at($f), $at($start - 1)))->toBeLessThan(0.005);
            }
        }
    }
});
