<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\Model\ScoreBook;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda at the origin with a beat; more things around her. @param  list<array<string, mixed>>  $items */
function grounded(array $items, string $motion = 'idle', array $more = [], float $x = 0.0, float $z = 0.0): CompiledScene
{
    return Scenes::compile($more + [
        'items' => [Scenes::item('o', 'oda', $x, $z), ...$items], 'beats' => [Scenes::beat('b', 'o', $motion, 0)],
    ]);
}

function ankle(CompiledScene $s, string $side, float $f): Placement
{
    return SceneEvaluator::jointPlace($s, 'o', $s->lanes['o']->figure->skeleton->roles['foot'.$side], $f);
}

/** The box of one metre as a step of a height, its near edge at x. @return array<string, mixed> */
function step(float $x, float $height, float $z = 0.0): array
{
    return Scenes::item('Step', 'box', $x + 0.5, $z, 0.0, $height - 1.0);
}

test('one foot on a step, the other below: both stand, the pelvis is where the lower one reaches', function (): void {
    $flat = grounded([]);
    $s = grounded([step(0.0, 0.2)]);
    foreach ([0, 40, 133] as $f) {
        // The left foot is on +x, where the step is.
        expect(ankle($s, 'L', $f)->position[1] - ankle($flat, 'L', $f)->position[1])->toEqualWithDelta(0.2, 0.002);
        expect(V3::distance(ankle($s, 'R', $f)->position, ankle($flat, 'R', $f)->position))->toBeLessThan(0.002);
        expect(ankle($s, 'L', $f)->position[0])->toEqualWithDelta(ankle($flat, 'L', $f)->position[0], 0.002);
        $hips = SceneEvaluator::row($s, 'o', $f)[1] - SceneEvaluator::row($flat, 'o', $f)[1];
        expect($hips)->toEqualWithDelta(0.0, 0.004);
    }
});

test('even ground changes nothing, and so does ground far away', function (array $items): void {
    $s = grounded($items, 'talk');
    expect($s->lanes['o']->segments[0]->fit)->toBeNull()->and(SceneEvaluator::row($s, 'o', 50))
        ->toBe(SceneEvaluator::row(grounded([], 'talk'), 'o', 50));
})->with([
    'nothing' => [[]],
    'a floor under both' => [[Scenes::item('Floor', 'box', 0.0, 0.0, 0.0, -1.0)]],
    'boards of half a centimetre' => [[Scenes::item('Board', 'box', 0.5, 0.0, 0.0, -0.995)]],
    'a step two metres off' => [[Scenes::item('Step', 'box', 3.0, 0.0, 0.0, -0.8)]],
]);

test('on a ramp feet tilt with it and stand on it', function (float $heading): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, $heading), Scenes::item('Ramp', 'ramp')],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
    ]);
    $flat = Scenes::compile(['items' => [Scenes::item('o', 'oda', 0.0, 0.0, $heading)], 'beats' => [Scenes::beat('b', 'o', 'idle', 0)]]);
    foreach (['L', 'R'] as $side) {
        $on = ankle($s, $side, 30);
        $off = ankle($flat, $side, 30);
        // The sole's normal follows the ramp's: (0, 1, -0.2).
        $up = Q4::rotate(Q4::mul($on->rotation, Q4::conjugate($off->rotation)), [0.0, 1.0, 0.0]);
        expect(rad2deg(acos(min(1.0, V3::dot($up, V3::unit([0.0, 1.0, -0.2]))))))->toBeLessThan(2.5);
        // The sole lies on it: down along the normal from the ankle by its height over the sole.
        $sole = V3::addScaled($on->position, $up, -$s->lanes['o']->figure->rest('foot'.$side)[1]);
        expect($sole[1] - 0.2 * $sole[2])->toEqualWithDelta($off->position[1] - $s->lanes['o']->figure->rest('foot'.$side)[1], 0.02);
    }
})->with([0.0, 90.0, 180.0]);

test('a walk without a path climbs a step, and what follows stays up there', function (): void {
    // A floor of boxes, 15 cm high, from z = 1 on.
    $floor = array_map(static fn (int $k): array => Scenes::item("F{$k}", 'box', 0.0, 1.5 + $k, 0.0, -0.85), range(0, 3));
    $more = ['beats' => [Scenes::beat('b', 'o', 'walkToMark', 0), Scenes::beat('t', 'o', 'talk', 110)]];
    $s = grounded($floor, more: $more);
    $flat = grounded([], more: $more);
    $rest = $s->lanes['o']->figure->rest('footL')[1];
    $end = $s->lanes['o']->segments[0]->end;
    expect($end)->toBeLessThan(110.5);
    $low = INF;
    for ($f = 0; $f < 150; $f++) {
        foreach (['L', 'R'] as $side) {
            $at = ankle($s, $side, $f);
            $ground = $at->position[2] > 1.02 ? 0.15 : 0.0;
            // Away from the edge, where heel and toe are on different heights.
            if (abs($at->position[2] - 1.0) > 0.25) {
                $low = min($low, $at->position[1] - $ground - $rest);
            }
        }
    }
    expect($low)->toBeGreaterThan(-0.02);
    foreach ([112, 130, 160] as $f) {
        expect(SceneEvaluator::row($s, 'o', $f)[1] - SceneEvaluator::row($flat, 'o', $f)[1])->toEqualWithDelta(0.15, 0.02);
        expect(ankle($s, 'L', $f)->position[1] - ankle($flat, 'L', $f)->position[1])->toEqualWithDelta(0.15, 0.02);
    }
    // No jump anywhere on the way.
    for ($f = 0; $f < 150; $f++) {
        expect(abs(SceneEvaluator::row($s, 'o', $f + 1)[1] - SceneEvaluator::row($s, 'o', $f)[1]))->toBeLessThan(0.05);
    }
});

test('nobody steps down where it is too deep, and who is carried is left alone', function (): void {
    // Standing on a metre-high box, half over its edge.
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 0.0, 1.0), Scenes::item('Block', 'box', 0.5, 0.0)],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
    ]);
    expect($s->lanes['o']->segments[0]->fit)->toBeNull();
    $carried = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), step(0.0, 0.2), Scenes::item('w', 'wagon', 0.0, 5.0)],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
        'links' => [['id' => 'l', 'child' => 'o', 'parent' => 'w', 'from' => 0, 'keep' => 'place', 'mount' => '']],
    ]);
    expect($carried->lanes['o']->segments[0]->fit)->toBeNull();
});

test('a beat that goes on and on keeps its feet where they are', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), step(0.0, 0.2)],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0, ['play' => ['keepLooping' => true]])],
    ]);
    $once = $s->lanes['o']->segments[0]->end;
    expect(V3::distance(ankle($s, 'L', 20)->position, ankle($s, 'L', 20 + $once)->position))->toBeLessThan(0.003);
});

test('a motion made over a step: on that step as it was made, on another fitted to it, on the flat brought down to it', function (
    string $motion, float $made, float $from, float $to,
): void {
    // From z = 0.2 on (a person of 1.70 m puts the first foot to 0.36) there are boxes of the height to come.
    $edge = $motion === 'jumpDown' ? 0.35 : 0.2;
    $ground = [];
    foreach (range(0, 2) as $k) {
        $ground[] = Scenes::item("T{$k}", 'box', 0.0, $edge + 0.5 + $k, 0.0, $to - 1.0);
    }
    $ground[] = Scenes::item('F', 'box', 0.0, $edge - 0.5, 0.0, $from - 1.0);
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 0.0, $from), ...$ground],
        'beats' => [Scenes::beat('b', 'o', $motion, 0), Scenes::beat('n', 'o', 'talk', 80)],
    ]);
    $lane = $s->lanes['o'];
    $rest = $lane->figure->rest('footL')[1];
    $end = (int) $lane->segments[0]->end;
    expect($lane->segments[1]->ground)->toEqualWithDelta($to - $from, 0.01);
    foreach ([$end, 90, 120] as $f) {
        foreach (['L', 'R'] as $side) {
            expect(ankle($s, $side, $f)->position[1] - $to - $rest)->toEqualWithDelta(0.0, 0.02);
        }
    }
    // Nobody's foot is under the ground that is beneath it, and nothing leaps.
    $fastest = 0.0;
    for ($f = 0; $f < 100; $f++) {
        foreach (['L', 'R'] as $side) {
            $at = ankle($s, $side, $f)->position;
            $here = $at[2] > $edge + 0.2 ? $to : ($at[2] < $edge - 0.2 ? $from : min($from, $to));
            expect($at[1] - $rest - $here)->toBeGreaterThan(-0.03);
        }
        $fastest = max($fastest, abs(SceneEvaluator::row($s, 'o', $f + 1)[1] - SceneEvaluator::row($s, 'o', $f)[1]) * 24);
    }
    // A fall from 60 cm ends at 3.4 m/s, one from 18 cm at 1.9 m/s.
    expect($fastest)->toBeLessThan($motion === 'jumpDown' ? 3.8 : 1.9);
    expect($made)->toBe(ScoreBook::sheet($motion)['rises']);
})->with([
    'up, as made' => ['stepUp', 0.18, 0.0, 0.18], 'up, higher' => ['stepUp', 0.18, 0.0, 0.3],
    'up, on the flat' => ['stepUp', 0.18, 0.0, 0.0],
    'down, as made' => ['stepDown', -0.18, 0.18, 0.0], 'down, lower' => ['stepDown', -0.18, 0.3, 0.02],
    'down, on the flat' => ['stepDown', -0.18, 0.0, 0.0],
    'jump, as made' => ['jumpDown', -0.6, 0.6, 0.0], 'jump, lower' => ['jumpDown', -0.6, 0.8, 0.0],
    'jump, on the flat' => ['jumpDown', -0.6, 0.0, 0.0],
]);

test('with nothing around, who steps up stays on the floor, who jumps down from a height lands on it, and three steps climb a stair', function (): void {
    $flat = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('b', 'o', 'stepUp', 0)]]);
    $rest = $flat->lanes['o']->figure->rest('footL')[1];
    expect(ankle($flat, 'R', 26)->position[1] - $rest)->toEqualWithDelta(0.0, 0.02)->and(ankle($flat, 'L', 60)->position[1] - $rest)
        ->toEqualWithDelta(0.0, 0.01);
    $from = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', y: 0.5), Scenes::item('Block', 'box', 0.0, -0.2, 0.0, -0.5)],
        'beats' => [Scenes::beat('b', 'o', 'jumpDown', 0)],
    ]);
    expect(ankle($from, 'L', 57)->position[1] - $rest)->toEqualWithDelta(0.0, 0.02);

    $stairs = array_map(
        static fn (int $k): array => Scenes::item(
            "S{$k}",
            'box',
            0.0,
            0.2 + 0.37 * $k * $flat->lanes['o']->figure->body()->scale + 0.5,
            0.0,
            0.17 * ($k + 1) - 1.0,
        ),
        range(0, 2),
    );
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), ...$stairs], 'beats' => [Scenes::beat('b', 'o', 'stepUp', 0, ['loops' => 3])],
    ]);
    expect($s->lanes['o']->segments[0]->ground)->toEqualWithDelta(0.51, 0.01)->and(ankle($s, 'L', 158)->position[1] - $rest)
        ->toEqualWithDelta(0.51, 0.02);
});
