<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/** @param  array<string, mixed>  $more */
function looking(string $id, string $who, string $at, array $more = []): array
{
    return $more + ['id' => $id, 'item' => $who, 'effector' => 'look', 'target' => $at, 'mount' => 'head', 'from' => 0, 'easeIn' => 0];
}

/** @return array{float, float, float} where an eye is */
function eyeAt(CompiledScene $s, string $who, string $side, float $frame): array
{
    return SceneEvaluator::jointPlace($s, $who, $s->lanes[$who]->figure->skeleton->roles["eye{$side}"], $frame)->position;
}

/** Degrees by which the worse of somebody's eyes misses a place. */
function missesEye(CompiledScene $s, string $who, array $at, float $frame): float
{
    $figure = $s->lanes[$who]->figure;
    $worst = 0.0;
    foreach (['L', 'R'] as $side) {
        $j = $figure->skeleton->roles["eye{$side}"];
        $eye = SceneEvaluator::jointPlace($s, $who, $j, $frame);
        $ahead = Q4::rotate(Q4::mul($eye->rotation, Q4::conjugate($figure->restTurn($j))), [0.0, 0.0, 1.0]);
        $worst = max($worst, rad2deg(acos(min(1.0, V3::dot($ahead, V3::unit(V3::sub($at, $eye->position)))))));
    }

    return $worst;
}

test('two who look at each other meet eyes within two degrees, whatever their heights and however they stand', function (
    float $scale, float $aside, float $turned,
): void {
    $s = Scenes::compile([
        'items' => [
            Scenes::item('o', 'oda', 0.0, 0.0, 90.0 + $turned), Scenes::item('b', 'bram', 1.2, $aside, -90.0 + $turned, scale: $scale),
        ],
        'beats' => [Scenes::beat('1', 'o', 'talk', 0)],
        'contacts' => [looking('k1', 'o', 'b'), looking('k2', 'b', 'o')],
    ]);
    foreach ([0, 30, 77, 200] as $f) {
        foreach ([['o', 'b'], ['b', 'o']] as [$who, $other]) {
            $off = min(missesEye($s, $who, eyeAt($s, $other, 'L', $f), $f), missesEye($s, $who, eyeAt($s, $other, 'R', $f), $f));
            expect($off)->toBeLessThan(2.0, "{$who} at frame {$f}");
        }
    }
})->with([
    'alike' => [1.0, 0.0, 0.0], 'a child' => [0.62, 0.0, 0.0], 'a giant' => [1.3, 0.3, 0.0], 'half turned away' => [1.0, 0.4, 45.0],
    'aside' => [0.85, -0.8, 0.0],
]);

test('three may look round in a circle, and at whom they carry something for', function (): void {
    $s = Scenes::compile([
        'items' => [
            Scenes::item('o', 'oda', 0.0, 0.0, 90.0), Scenes::item('b', 'bram', 1.3, 0.0, -90.0), Scenes::item('c', 'oda', 0.6, 1.2, 180.0),
            Scenes::item('k', 'key', 0.5, 0.2, 0.0, 1.0),
        ],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0]],
        'contacts' => [
            looking('k1', 'o', 'b'), looking('k2', 'b', 'c'), looking('k3', 'c', 'k', ['mount' => '']),
            // He touches what she carries while she looks at him.
            ['id' => 'k4', 'item' => 'b', 'effector' => 'handL', 'target' => 'k', 'from' => 0, 'easeIn' => 0],
        ],
    ]);
    $pose = SceneEvaluator::at($s, 10);
    expect(array_keys($pose->missing))->toContain('k1', 'k2', 'k3', 'k4')
        ->and(missesEye($s, 'c', $pose->places['k']->position, 10))->toBeLessThan(2.0);
});

test('who looks at somebody far to the side is turned as far as necks go, and the rest of the pose stays', function (): void {
    $items = [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 2.0, -2.0)];
    $plain = Scenes::compile(['items' => $items]);
    $s = Scenes::compile(['items' => $items, 'contacts' => [looking('k1', 'o', 'b')]]);
    $figure = $s->lanes['o']->figure;
    [$a, $b] = [$plain->poses->at(5)->row('o'), $s->poses->at(5)->row('o')];
    foreach (['hips', 'spine', 'upperChest', 'upperArmL', 'handR', 'footL'] as $role) {
        $o = 3 + 4 * $figure->skeleton->roles[$role];
        expect(array_slice($b, $o, 4))->toEqualWithDelta(array_slice($a, $o, 4), 1e-6);
    }
    $head = SceneEvaluator::jointPlace($s, 'o', $figure->skeleton->roles['head'], 5);
    $ahead = Q4::rotate(Q4::mul($head->rotation, Q4::conjugate($figure->restTurn($figure->skeleton->roles['head']))), [0.0, 0.0, 1.0]);
    expect(rad2deg(atan2($ahead[0], $ahead[2])))->toBeBetween(50.0, 85.0);
});
