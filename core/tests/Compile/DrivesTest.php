<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Fall;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Kit\Pier\Bicycle;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Tests\Support\Scenes;

/** @param  array<string, mixed>  $route @param  list<array<string, mixed>>  $items */
function driven(array $route, array $items = []): CompiledScene
{
    return Scenes::compile(['items' => [['route' => $route] + Scenes::item('w', 'wagon'), ...$items]]);
}

/** How far a wheel has turned about its axle, radians, by adding up frames. */
function turnedBy(CompiledScene $s, string $joint, int $from, int $to): float
{
    $j = $s->lanes['w']->figure->skeleton->index[$joint];
    $sum = 0.0;
    for ($f = $from; $f < $to; $f++) {
        $by = Q4::mul(
            Q4::conjugate(ClipTable::rotation(SceneEvaluator::row($s, 'w', $f), $j)),
            ClipTable::rotation(SceneEvaluator::row($s, 'w', $f + 1), $j),
        );
        $sum += 2 * atan2($by[0], $by[3]);
    }

    return $sum;
}

test('a straight route: way, wheels and end by hand', function (): void {
    $s = driven(['points' => [[0.0, 6.6]], 'from' => 10, 'to' => 106]);
    // The front axle goes from z = 0.6 to 6.6: six metres; the body keeps 0.6 behind it.
    expect(SceneEvaluator::place($s, 'w', 106)->position)->toEqualWithDelta([0.0, 0.0, 6.0], 0.01)
        ->and(SceneEvaluator::place($s, 'w', 58)->position[2])->toEqualWithDelta(3.0, 0.02)
        ->and(SceneEvaluator::place($s, 'w', 5)->position)->toEqualWithDelta([0.0, 0.0, 0.0], 1e-6)
        ->and(turnedBy($s, 'rl', 10, 106))->toEqualWithDelta(6.0 / 0.25, 0.01)
        ->and($s->frames)->toBe(106);
});

test('speed sets the time where no end is given', function (): void {
    // Six metres at 2 m/s with a fifth of the time to gather speed and a fifth to lose it: 6 / (2 * 0.8) = 3.75 s.
    expect(driven(['points' => [[0.0, 6.6]], 'speed' => 2.0])->frames)->toBe(90);
});

test('in a circle the front wheels steer by wheelbase over radius, the rear axle cuts the corner', function (): void {
    $r = 4.0;
    $points = array_map(static fn (int $k): array => [$r - $r * cos($k * M_PI / 16), 0.6 + $r * sin($k * M_PI / 16)], range(1, 24));
    $s = driven(['points' => $points, 'from' => 0, 'to' => 240]);
    $f = 190;
    $j = $s->lanes['w']->figure->skeleton->index['fl'];
    $axle = Q4::rotate(ClipTable::rotation(SceneEvaluator::row($s, 'w', $f), $j), [1.0, 0.0, 0.0]);
    // Front axle on the circle: sin(steer) = wheelbase / radius.
    expect(abs(rad2deg(atan2($axle[2], $axle[0]))))->toEqualWithDelta(rad2deg(asin(1.2 / $r)), 1.5);
    $place = SceneEvaluator::place($s, 'w', $f);
    $rear = $place->point([0.0, 0.0, -0.6]);
    expect(hypot($rear[0] - $r, $rear[2] - 0.6))->toEqualWithDelta(sqrt($r * $r - 1.2 * 1.2), 0.05);
});

test('wheels roll over a kerb like circles, and the body tips with them', function (): void {
    $s = driven(['points' => [[0.0, 8.0]], 'from' => 0, 'to' => 192], [Scenes::item('k', 'box', 0.0, 5.0, 0.0, -1.9, 2.0)]);
    $pitch = static fn (int $f): float => rad2deg(asin(Q4::rotate(SceneEvaluator::place($s, 'w', $f)->rotation, [0.0, 0.0, 1.0])[1]));
    // A kerb of 10 cm: with the front wheels up it stands at asin(0.1 / 1.2).
    $most = max(array_map($pitch, range(0, 192)));
    expect($most)->toEqualWithDelta(rad2deg(atan(0.1 / 1.2)), 0.3)->and($pitch(0))->toEqualWithDelta(0.0, 1e-6);
    for ($f = 0; $f < 192; $f++) {
        expect(abs(SceneEvaluator::place($s, 'w', $f + 1)->position[1] - SceneEvaluator::place($s, 'w', $f)->position[1]))
            ->toBeLessThan(0.03);
    }
});

test('a thing that is pushed goes as far as its pusher walks, with both hands on it', function (): void {
    $s = Scenes::compile([
        'items' => [['route' => ['points' => [], 'by' => 'o']] + Scenes::item('w', 'wagon', 0.0, 1.35), Scenes::item('o', 'oda')],
        'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['path' => ['points' => [[0.0, 3.0]]], 'settings' => ['speed' => 0.9]])],
        'contacts' => array_map(
            static fn (string $side): array => [
                'id' => "c{$side}", 'item' => 'o', 'effector' => "hand{$side}", 'target' => 'w', 'mount' => "grip{$side}", 'from' => 0,
                'to' => 200,
            ],
            ['L', 'R'],
        ),
    ]);
    $end = (int) $s->lanes['o']->end();
    expect(SceneEvaluator::place($s, 'w', $end)->position[2] - 1.35)->toEqualWithDelta(3.0, 0.15)->and(turnedBy($s, 'rl', 0, $end) * 0.25)
        ->toEqualWithDelta(3.0, 0.15);
    foreach (range(10, $end, 9) as $f) {
        foreach (SceneEvaluator::at($s, $f)->missing as $missing) {
            expect($missing)->toBeLessThan(0.01);
        }
    }
});

test('a rider goes with the seat', function (): void {
    $s = Scenes::compile([
        'items' => [
            ['route' => ['points' => [[0.0, 6.0]], 'to' => 100]] + Scenes::item('w', 'wagon'),
            Scenes::item('o', 'oda', 0.0, -0.2, 0.0, 0.3),
        ],
        'links' => [['id' => 'l', 'child' => 'o', 'parent' => 'w', 'from' => 0]],
    ]);
    foreach ([0, 40, 100] as $f) {
        $on = SceneEvaluator::place($s, 'w', $f)->inverse()->of(SceneEvaluator::place($s, 'o', $f))->position;
        expect($on)->toEqualWithDelta([0.0, 0.3, -0.2], 1e-6);
    }
});

test('routes and keys that make no sense are refused', function (): void {
    expect(fn () => driven(['points' => []]))->toThrow(UnableToReadDocument::class, 'a place to go to')
        ->and(fn () => driven(['points' => [[0, 5]], 'from' => 9, 'to' => 9]))->toThrow(UnableToReadDocument::class, 'ends after it begins')
        ->and(fn () => driven(['points' => [[0, 5]], 'by' => 'nobody']))->toThrow(UnableToReadDocument::class, 'no item "nobody"')
        ->and(fn () => Scenes::compile(['items' => [['route' => ['points' => [[0, 5]]]] + Scenes::item('o', 'oda')]]))
        ->toThrow(UnableToCompile::class, 'is a performer');
});

test('a thing without wheels slides along its route on the ground', function (): void {
    $s = Scenes::compile(['items' => [['route' => ['points' => [[3.0, 0.0]], 'to' => 72]] + Scenes::item('w', 'box')]]);
    expect(SceneEvaluator::place($s, 'w', 72)->position)->toEqualWithDelta([3.0, 0.0, 0.0], 0.02);
});

test('keys of a thing\'s own: through each, eased between', function (): void {
    $s = Scenes::compile(['items' => [['moves' => [
        ['frame' => 10, 'position' => [0, 1, 0]], ['frame' => 34, 'position' => [2, 1, 0], 'rotation' => Q4::aroundY(M_PI / 2)],
    ]] + Scenes::item('k', 'key')]]);
    $at = static fn (float $f): Placement => SceneEvaluator::place($s, 'k', $f);
    expect($at(0)->position)->toBe([0.0, 1.0, 0.0])->and($at(10)->position[0])->toBe(0.0)->and($at(22)->position[0])
        ->toEqualWithDelta(1.0, 1e-6)->and($at(34)->position[0])->toBe(2.0)->and($at(90)->position[0])->toBe(2.0)
        ->and(rad2deg(Q4::heading($at(22)->rotation)))->toEqualWithDelta(45.0, 1e-4)->and($s->frames)->toBe(35);
});

test('what is let go falls by the law of falling and comes to rest on its flat side', function (): void {
    $fall = new Fall(
        new Placement([0.0, 2.0, 0.0], Q4::aroundX(0.4)),
        [1.0, 0.0, 0.0],
        [[-0.1, -0.02, -0.2], [0.1, 0.02, 0.2]],
        static fn (): float => 0.0,
    );
    // 0.3 s: 0.5 g t^2 = 0.44 m down (Euler steps of 1/240 s add g t dt / 2), 0.3 m along.
    expect($fall->at(0.3)->position[1])->toEqualWithDelta(2.0 - 0.5 * 9.81 * 0.09, 0.01)->and($fall->at(0.3)->position[0])
        ->toEqualWithDelta(0.3, 0.005);
    $rest = $fall->at(99.0);
    expect($rest->position[1])->toEqualWithDelta(0.02, 0.002)->and(abs(Q4::rotate($rest->rotation, [0.0, 1.0, 0.0])[1]))
        ->toEqualWithDelta(1.0, 1e-4)->and($fall->seconds())->toBeBetween(0.7, 4.0);
    for ($t = 0.0; $t < $fall->seconds(); $t += 0.01) {
        expect($fall->at($t)->position[1])->toBeGreaterThan(0.0);
    }
});

test('a key dropped from a hand lies on the box below; one thrown is caught', function (): void {
    $base = ['items' => [
        Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 0.0, 3.0, 180.0), Scenes::item('k', 'key', 0, 0, 0, 0.9, 0.1),
        Scenes::item('x', 'box', 0.0, 0.0, 0.0, -3.8, 4.0),
    ]];
    $drop = Scenes::compile($base + ['links' => [[
        'id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0, 'to' => 20, 'keep' => 'grip', 'release' => 'fall',
    ]]]);
    $low = SceneEvaluator::place($drop, 'k', 120)->position[1];
    expect(V3::distance(SceneEvaluator::place($drop, 'k', 19.999)->position, SceneEvaluator::place($drop, 'k', 20)->position))
        ->toBeLessThan(0.01)
        ->and($low)->toBeBetween(0.199, 0.31);
    $throw = Scenes::compile($base + ['links' => [
        ['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0, 'to' => 20, 'keep' => 'grip', 'release' => 'fall'],
        ['id' => 'm', 'child' => 'k', 'parent' => 'b', 'mount' => 'handL', 'from' => 44, 'keep' => 'grip'],
    ]]);
    $at = static fn (float $f): array => SceneEvaluator::place($throw, 'k', $f)->position;
    expect(V3::distance($at(43.999), $at(44)))->toBeLessThan(0.01);
    // One second in the air: half way it is g/8 above the straight line between hands.
    $line = V3::mix($at(20), $at(44), 0.5);
    expect($at(32)[1] - $line[1])->toEqualWithDelta(9.81 / 8, 0.01)->and(hypot($at(32)[0] - $line[0], $at(32)[2] - $line[2]))
        ->toBeLessThan(0.01);
});

test('what is let go without a fall stays', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key', 0, 0, 0, 0.9)],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0, 'to' => 20, 'keep' => 'grip']],
    ]);
    expect(SceneEvaluator::place($s, 'k', 20)->position)->toBe(SceneEvaluator::place($s, 'k', 90)->position);
});

/** A bicycle in a circle of 6 m to the left of +Z, ridden by Oda. */
function cycling(): CompiledScene
{
    static $made = null;
    $r = 6.0;
    $points = array_map(static fn (int $k): array => [$r - $r * cos($k * M_PI / 12), 0.54 + $r * sin($k * M_PI / 12)], range(1, 20));
    $seat = Bicycle::vehicle()['rider'];

    return $made ??= Scenes::compile([
        'items' => [
            ['route' => ['points' => $points, 'from' => 0, 'speed' => 4.0]] + Scenes::item('c', 'bicycle'),
            Scenes::item('o', 'oda', 0.0, -0.24),
        ],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
        'links' => [['id' => 'l', 'child' => 'o', 'parent' => 'c', 'from' => 0]],
        'contacts' => array_map(
            static fn (string $e): array => [
                'id' => $e, 'item' => 'o', 'effector' => $e, 'target' => 'c', 'mount' => $seat[$e]['mount'],
                'offset' => $seat[$e]['offset'] ?? [0, 0, 0], 'from' => 0, 'turn' => str_starts_with($e, 'hand') ? 'follow' : 'keep',
            ],
            array_keys($seat),
        ),
    ]);
}

test('a two-wheeler leans into a curve by v squared over r g', function (): void {
    $s = cycling();
    $f = (int) ($s->frames * 0.5);
    $up = Q4::rotate(SceneEvaluator::place($s, 'c', $f)->rotation, [0.0, 1.0, 0.0]);
    // 16 / (6 * 9.81), towards the middle of the circle.
    expect(rad2deg(acos($up[1])))->toEqualWithDelta(rad2deg(atan(16 / (6 * 9.81))), 1.0);
    $place = SceneEvaluator::place($s, 'c', $f)->position;
    expect(($up[0] * (6.0 - $place[0]) + $up[2] * (0.54 - $place[2])))->toBeGreaterThan(0.0);
});

test('nothing is special about a heading of 180 degrees: it leans there as elsewhere', function (): void {
    $s = cycling();
    for ($f = 60; $f < $s->frames - 60; $f += 2) {
        $up = Q4::rotate(SceneEvaluator::place($s, 'c', $f)->rotation, [0.0, 1.0, 0.0]);
        expect(rad2deg(acos($up[1])))->toBeBetween(12.5, 17.5);
    }
});

test('cranks turn by their gear, the fork steers and does not roll', function (): void {
    $s = cycling();
    $figure = $s->lanes['c']->figure;
    $way = static function (string $joint) use ($s, $figure): float {
        $sum = 0.0;
        for ($f = 100; $f < 124; $f++) {
            $by = Q4::mul(
                Q4::conjugate(ClipTable::rotation(SceneEvaluator::row($s, 'c', $f), $figure->skeleton->index[$joint])),
                ClipTable::rotation(SceneEvaluator::row($s, 'c', $f + 1), $figure->skeleton->index[$joint]),
            );
            $sum += 2 * atan2($by[0], $by[3]);
        }

        return $sum;
    };
    expect($way('wheelR') / $way('crank'))->toEqualWithDelta(0.78 / 0.33, 0.01)->and($way('wheelR'))
        ->toEqualWithDelta(4.0 * cos(asin(1.04 / 6.0)) / 0.33, 0.05)->and($way('wheelF'))->toEqualWithDelta(4.0 / 0.33, 0.05);
    $fork = ClipTable::rotation(SceneEvaluator::row($s, 'c', 110), $figure->skeleton->index['fork']);
    expect(rad2deg(2 * asin(abs($fork[1]))))->toEqualWithDelta(rad2deg(asin(1.04 / 6.0)), 1.2)->and(abs($fork[0]))->toBeLessThan(0.001);
});

test('the rider sits, holds the bars and keeps both feet on the turning pedals', function (): void {
    $s = cycling();
    foreach (range(5, $s->frames - 1, 7) as $f) {
        foreach (SceneEvaluator::at($s, $f)->missing as $id => $missing) {
            expect($missing)->toBeLessThan(0.03, "{$id} at {$f}");
        }
        // No knee bends backwards.
        foreach (['lowerLegL', 'lowerLegR'] as $role) {
            $q = ClipTable::rotation(SceneEvaluator::row($s, 'o', $f), $s->lanes['o']->figure->skeleton->roles[$role]);
            expect(rad2deg(2 * atan2($q[0], $q[3])))->toBeBetween(-2.0, 160.0);
        }
    }
});

test('oars: the blade is in the water while it goes back, in the air while it comes forward, and holds on to the water', function (): void {
    $s = Scenes::compile(['items' => [['route' => ['points' => [[0.0, 26.0]], 'from' => 0, 'to' => 480]] + Scenes::item('b', 'boat')]]);
    $blade = static function (string $joint, float $m, float $f) use ($s): array {
        return SceneEvaluator::jointPlace($s, 'b', $s->lanes['b']->figure->skeleton->index[$joint], $f)->point([$m * 1.4, 0.0, 0.0]);
    };
    $water = \CrispReel\Core\Kit\Pier\Shore::WATER;
    [$pulled, $carried, $slip] = [0, 0, []];
    for ($f = 120; $f < 360; $f++) {
        $place = SceneEvaluator::place($s, 'b', $f);
        expect($place->position[1])->toEqualWithDelta($water, 1e-6);
        [$l, $next] = [$blade('oarL', 1.0, $f), $blade('oarL', 1.0, $f + 1)];
        $r = $blade('oarR', -1.0, $f);
        // Both sides alike.
        expect([$r[0], $r[1], $r[2]])->toEqualWithDelta([-$l[0], $l[1], $l[2]], 1e-6);
        $on = SceneEvaluator::place($s, 'b', $f + 1)->position[2];
        $back = $next[2] - $on < $l[2] - $place->position[2];
        if ($back && $l[1] < $water - 0.05) {
            $pulled++;
            $slip[] = abs($next[2] - $l[2]);
        } elseif (! $back && $l[1] > $water + 0.02) {
            $carried++;
        }
    }
    expect($pulled)->toBeGreaterThan(50)->and($carried)->toBeGreaterThan(80);
    // In the water a blade moves over the ground by less than the boat does.
    $step = SceneEvaluator::place($s, 'b', 241)->position[2] - SceneEvaluator::place($s, 'b', 240)->position[2];
    expect(array_sum($slip) / count($slip))->toBeLessThan($step);
});
