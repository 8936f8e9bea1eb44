<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\Life;
use CrispReel\Core\Rig\Posture;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Oda, and Bram two metres from her; she talks for six seconds, he has nothing to do.
 *
 * @param  array<string, mixed>  $oda  more of her
 * @param  array<string, mixed>  $more  of the scene
 */
function waiting(array $oda = [], array $more = []): CompiledScene
{
    static $memory = new Memory;

    return Scenes::compile($more + [
        'items' => [$oda + Scenes::item('i1', 'oda'), Scenes::item('i2', 'bram', 2.0)],
        'beats' => [Scenes::beat('b1', 'i1', 'talk', 0)],
    ], null, $memory);
}

function jointsAt(CompiledScene $s, string $item, string $role, float $frame): array
{
    return $s->poses->at($frame)->joint($item, $s->lanes[$item]->figure->skeleton->roles[$role])->position;
}

/** @return list<int> frames at which lids are closed most */
function blinksOf(CompiledScene $s, string $item, int $from, int $to): array
{
    $f = $s->lanes[$item]->figure;
    $k = 3 + 4 * $f->skeleton->count() + (int) array_search('blinkL', $f->morphs, true);
    $at = array_map(static fn (int $n): float => $s->poses->at($n)->row($item)[$k], range($from, $to));
    $out = [];
    for ($n = 1; $n < count($at) - 1; $n++) {
        if ($at[$n] > 0.6 && $at[$n] >= $at[$n - 1] && $at[$n] > $at[$n + 1]) {
            $out[] = $from + $n;
        }
    }

    return $out;
}

test('after the last beat she breathes, shifts and looks about, and her feet stay where they are', function (): void {
    $s = waiting();
    $end = (int) $s->lanes['i1']->end();
    $of = static fn (string $role): array => array_map(
        static fn (int $f): array => jointsAt($s, 'i1', $role, $f), range($end + 12, $end + 12 + 240, 3),
    );
    $spread = static fn (array $points, int $k): float => max(array_column($points, $k)) - min(array_column($points, $k));
    foreach (['footL', 'footR'] as $foot) {
        $points = $of($foot);
        foreach ($points as $p) {
            expect(V3::distance($p, $points[0]))->toBeLessThan(0.001);
        }
    }
    expect($spread($of('hips'), 0))->toBeBetween(0.008, 0.05)->and($spread($of('head'), 0))->toBeGreaterThan(0.01);
    // The chest turns with every breath: two in eight seconds, one and a half degrees either way.
    $pitch = array_map(static function (int $f) use ($s): float {
        $chest = $s->poses->at($f)->joint('i1', $s->lanes['i1']->figure->skeleton->roles['upperChest'])->rotation;

        return rad2deg(asin(Q4::rotate($chest, [0.0, 0.0, 1.0])[1]));
    }, range($end + 12, $end + 12 + 192));
    expect(max($pitch) - min($pitch))->toBeBetween(1.6, 5.0);
    $middle = (max($pitch) + min($pitch)) / 2;
    $crossings = 0;
    foreach ($pitch as $n => $p) {
        $crossings += $n > 0 && ($p - $middle) * ($pitch[$n - 1] - $middle) < 0.0 ? 1 : 0;
    }
    expect($crossings)->toBeBetween(3, 6);
});

test('who has nothing to do blinks eight to twenty times a minute, never evenly, and nobody in step with another', function (): void {
    $s = waiting([], ['beats' => []]);
    $minute = 60 * 24;
    $blinks = [blinksOf($s, 'i1', 0, $minute), blinksOf($s, 'i2', 0, $minute)];
    foreach ($blinks as $of) {
        expect(count($of))->toBeBetween(8, 20);
        $gaps = array_map(static fn (int $n): int => $of[$n + 1] - $of[$n], range(0, count($of) - 2));
        expect(min($gaps))->toBeGreaterThanOrEqual(2 * 24 - 2)->and(max($gaps))->toBeLessThanOrEqual(6 * 24 + 2)
            ->and(count(array_unique($gaps)))->toBeGreaterThan(count($gaps) / 2);
    }
    $near = static fn (int $a): bool => array_filter($blinks[1], static fn (int $b): bool => abs($a - $b) < 3) !== [];
    $together = array_filter($blinks[0], $near);
    expect(count($together))->toBeLessThan(count($blinks[0]) / 3);
});

test('while a motion of the house plays nothing is added, and life comes and goes without a jump', function (): void {
    $s = waiting([], ['beats' => [Scenes::beat('b1', 'i1', 'talk', 0), Scenes::beat('b2', 'i1', 'wave', 240, ['joinFrames' => 6])]]);
    $lane = $s->lanes['i1'];
    foreach ([10, 60, 120, 262, 270] as $f) {
        expect($lane->living($f))->toBe($lane->row($f));
    }
    $end = (int) $lane->segments[0]->end;
    $n = $lane->figure->skeleton->count();
    $eyes = [$lane->figure->skeleton->roles['eyeL'], $lane->figure->skeleton->roles['eyeR']];
    for ($f = $end - 4; $f < 262; $f++) {
        [$a, $b, $bare, $next] = [$lane->living($f), $lane->living($f + 1), $lane->row($f), $lane->row($f + 1)];
        for ($j = 0; $j < $n; $j++) {
            $turn = static fn (array $p, array $q): float => rad2deg(2 * acos(min(1.0, abs(
                $p[3 + 4 * $j] * $q[3 + 4 * $j] + $p[4 + 4 * $j] * $q[4 + 4 * $j] + $p[5 + 4 * $j] * $q[5 + 4 * $j]
                    + $p[6 + 4 * $j] * $q[6 + 4 * $j],
            ))));
            // What life adds to a step of the pose itself.
            $most = in_array($j, $eyes, true) ? 8.0 : 2.0;
            expect($turn($a, $b))->toBeLessThan($turn($bare, $next) + $most, "frame {$f}, joint {$j}");
        }
    }
});

test('it is switched off for who is as still as the pose, and is another for who is cold or tense', function (): void {
    $s = waiting(['life' => 'off']);
    expect($s->poses->at(400)->row('i1'))->toBe($s->lanes['i1']->row(400))->and($s->lanes['i1']->life)->toBeNull();
    $rough = static function (string $life) use (&$s): float {
        $s = waiting(['life' => $life]);
        $sum = 0.0;
        for ($f = 400; $f < 700; $f++) {
            [$a, $b, $c] = array_map(static fn (int $k): float => jointsAt($s, 'i1', 'handL', $f + $k)[1], [-1, 0, 1]);
            $sum += abs($a - 2 * $b + $c);
        }

        return $sum;
    };
    // A shiver is many small changes of speed.
    expect($rough('cold'))->toBeGreaterThan(3 * $rough('calm'));
    $per = static fn (string $life): int => count(blinksOf(waiting(['life' => $life], ['beats' => []]), 'i1', 0, 1440));
    expect($per('tense'))->toBeGreaterThan($per('calm'));
});

test('a recorded motion only gets breath, lids are left alone, and who sits does not sway', function (): void {
    $s = waiting();
    $figure = $s->lanes['i1']->figure;
    $life = new Life($figure, 'calm', 5, 24.0);
    $row = $s->lanes['i1']->row(100);
    $k = 3 + 4 * $figure->skeleton->count() + (int) array_search('blinkL', $figure->morphs, true);
    $row[$k] = 0.8;
    foreach ([3, 40, 77, 140] as $f) {
        $over = $life->over($row, $f, 0.0, 1.0);
        expect($over[$k])->toBe(0.8);
        foreach (['hips', 'spine', 'upperLegL', 'lowerLegR', 'footL', 'eyeL'] as $role) {
            $o = 3 + 4 * $figure->skeleton->roles[$role];
            expect(array_slice($over, $o, 4))->toEqualWithDelta(array_slice($row, $o, 4), 1e-9);
        }
    }
    // Deep in the knees, as on a chair.
    $p = new Posture($figure->skeleton, $figure->hips, $s->lanes['i1']->row(100));
    $legs = [$figure->limb('leg', 'L'), $figure->limb('leg', 'R')];
    $feet = array_map(static fn (array $leg): array => $p->at($leg[2]), $legs);
    $p->shiftHips([0.0, -0.35, 0.0]);
    foreach ($legs as $n => $leg) {
        $p->reach($leg[0], $leg[1], $leg[2], $feet[$n][0], $feet[$n][1], [1.0, 0.0, 0.0]);
    }
    $sits = $p->result();
    foreach ([10, 60, 130] as $f) {
        expect(array_slice($life->over($sits, $f, 1.0, 1.0), 0, 3))->toEqualWithDelta(array_slice($sits, 0, 3), 1e-9);
    }
});

test('a hand that touches a place stays on it', function (): void {
    $at = [0.35, 1.1, 0.35];
    $s = waiting([], ['contacts' => [['id' => 'k1', 'item' => 'i1', 'effector' => 'handL', 'offset' => $at, 'from' => 20]]]);
    $end = (int) $s->lanes['i1']->end();
    $hands = array_map(static fn (int $f): array => jointsAt($s, 'i1', 'handL', $f), range($end + 12, $end + 204, 4));
    foreach ($hands as $p) {
        expect(V3::distance($p, $hands[0]))->toBeLessThan(0.03);
    }
    foreach (range($end + 12, $end + 204, 16) as $f) {
        $moment = $s->poses->at($f);
        $moment->row('i1');
        expect($moment->missing['k1'])->toBeLessThan(0.002);
    }
});
