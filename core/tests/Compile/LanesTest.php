<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** Where a joint is in the world at a frame. @return array{float, float, float} */
function jointAt(CompiledScene $s, string $item, string $role, float $frame): array
{
    return SceneEvaluator::jointPlace($s, $item, $s->lanes[$item]->figure->skeleton->roles[$role], $frame)->position;
}

test('the first motion starts on the mark: the performer moves by nothing', function (string $motion): void {
    $without = Scenes::compile(['items' => [Scenes::item('o', 'oda', 3.0, -2.0, 70.0)]]);
    $with = Scenes::compile(['items' => [Scenes::item('o', 'oda', 3.0, -2.0, 70.0)], 'beats' => [Scenes::beat('b', 'o', $motion, 12)]]);
    foreach (['footL', 'footR'] as $foot) {
        expect(V3::distance(jointAt($without, 'o', $foot, 0), jointAt($with, 'o', $foot, 12)))->toBeLessThan(0.001);
    }
})->with(['idle', 'talk', 'wave', 'walkToMark', 'handOver']);

test('a performer without beats stands; the rest pose never shows', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda')]]);
    $hand = jointAt($s, 'o', 'handL', 50);
    // At rest the arm points 39 degrees out; standing it hangs.
    expect($hand[0])->toBeLessThan(0.34)->and($s->frames)->toBe(96);
});

test('before the first beat its first pose is held, after the last its last', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('b', 'o', 'wave', 30)]]);
    $lane = $s->lanes['o'];
    $end = (int) ceil($lane->end());
    expect($lane->row(0))->toBe($lane->row(30))->and($lane->row($end + 40))->toBe($lane->row($end));
});

test('a second motion carries on from where the first one ended', function (string $first, string $second): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 1.0, 1.0, 90.0)],
        'beats' => [Scenes::beat('a', 'o', $first, 0, ['settings' => ['metres' => 2.4]]), Scenes::beat('b', 'o', $second, 130)],
    ]);
    $end = $s->lanes['o']->segments[0]->end;
    $joinFrames = 8;
    foreach (['footL', 'footR'] as $foot) {
        $stands = jointAt($s, 'o', $foot, $end);
        for ($f = (int) ceil($end); $f <= 130 + $joinFrames; $f++) {
            $now = jointAt($s, 'o', $foot, $f);
            if ($f <= 130 || $second !== 'walkToMark') {
                expect(hypot($now[0] - $stands[0], $now[2] - $stands[2]))->toBeLessThan(0.012);
            }
        }
    }
    $before = jointAt($s, 'o', 'hips', 129);
    for ($f = 130; $f < 150; $f++) {
        $now = jointAt($s, 'o', 'hips', $f);
        expect(V3::distance($now, $before))->toBeLessThan(0.05);
        $before = $now;
    }
})->with([['walkToMark', 'talk'], ['walkToMark', 'wave'], ['talk', 'walkToMark'], ['wave', 'talk'], ['walkToMark', 'walkToMark']]);

test('two walks in a row go twice as far, straight on', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 90.0)],
        'beats' => [
            Scenes::beat('a', 'o', 'walkToMark', 0, ['settings' => ['metres' => 2.0]]),
            Scenes::beat('b', 'o', 'walkToMark', 100, ['settings' => ['metres' => 2.0]]),
        ],
    ]);
    $feet = fn (float $f): array => V3::mul(V3::add(jointAt($s, 'o', 'footL', $f), jointAt($s, 'o', 'footR', $f)), 0.5);
    $way = V3::sub($feet($s->frames), $feet(0));
    expect($way[0])->toEqualWithDelta(4.0, 0.02)->and($way[2])->toEqualWithDelta(0.0, 0.02);
});

test('a cut starts the new pose at once; a blend takes its frames', function (): void {
    $scene = fn (string $join): CompiledScene => Scenes::compile([
        'items' => [Scenes::item('o', 'oda')],
        'beats' => [
            Scenes::beat('a', 'o', 'talk', 0),
            Scenes::beat('b', 'o', 'wave', 60, ['join' => $join, 'joinFrames' => 10, 'sourceIn' => 1.0]),
        ],
    ]);
    $hand = fn (CompiledScene $s, int $f): float => jointAt($s, 'o', 'handR', $f)[1];
    $cut = $scene('cut');
    $blend = $scene('carryOn');
    expect(abs($hand($cut, 60) - $hand($cut, 59)))->toBeGreaterThan(0.2)
        ->and(abs($hand($blend, 60) - $hand($blend, 59)))->toBeLessThan(0.08)
        ->and($hand($blend, 71))->toEqualWithDelta($hand($cut, 71), 0.02);
});

test('travelling loops add up and on the spot stays', function (): void {
    $scene = fn (string $root): CompiledScene => Scenes::compile([
        'items' => [Scenes::item('o', 'oda')],
        'beats' => [Scenes::beat('a', 'o', 'walk', 0, ['loops' => 3, 'root' => $root])],
    ]);
    $go = $scene('travel');
    $length = $go->lanes['o']->segments[0]->table->seconds();
    expect($go->frames)->toBe((int) ceil($length * 3 * 24 - 1e-6))
        ->and(jointAt($go, 'o', 'hips', $length * 3 * 24)[2] - jointAt($go, 'o', 'hips', 0)[2])->toEqualWithDelta(1.2 * $length * 3, 0.25);
    $before = jointAt($go, 'o', 'hips', 0);
    for ($f = 1; $f < $go->frames; $f++) {
        $now = jointAt($go, 'o', 'hips', $f);
        expect(V3::distance($now, $before))->toBeLessThan(0.075);
        $before = $now;
    }
    $stay = $scene('spot');
    for ($f = 0; $f < $stay->frames; $f += 5) {
        expect(abs(jointAt($stay, 'o', 'hips', $f)[2]))->toBeLessThan(0.12);
    }
});

test('length follows the content, at any speed and trim', function (array $beat, float $seconds): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('a', 'o', 'wave', 24, $beat)]]);
    expect($s->frames)->toBe((int) ceil(24 + $seconds * 24 - 1e-4));
})->with([
    'as it is' => [[], 3.4], 'twice as fast' => [['speed' => 2.0], 1.7], 'trimmed' => [['sourceIn' => 0.4, 'sourceOut' => 1.9], 1.5],
    'past its end' => [['sourceOut' => 99.0], 3.4],
]);

test('the same motion at another rate takes the same time', function (): void {
    $at = fn (array $rate): float => Scenes::compile([
        'rate' => $rate, 'items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('a', 'o', 'wave', 0)],
    ])->lanes['o']->end() * $rate[1] / $rate[0];
    expect($at([24, 1]))->toEqualWithDelta(3.4, 1e-4)->and($at([30, 1]))->toEqualWithDelta(3.4, 1e-4)->and($at([24000, 1001]))
        ->toEqualWithDelta(3.4, 1e-4);
});

test('motions are solved once for a body and kept', function (): void {
    $assets = new FakeAssets;
    $parts = ['items' => [Scenes::item('o', 'oda'), Scenes::item('p', 'oda', 2.0), Scenes::item('b', 'bram', 4.0)], 'beats' => [
        Scenes::beat('1', 'o', 'wave', 0), Scenes::beat('2', 'p', 'wave', 10), Scenes::beat('3', 'b', 'wave', 0),
    ]];
    Scenes::compile($parts, $assets);
    // Wave for two bodies, and the standing pose of each.
    expect($assets->kept)->toBe(4);
    Scenes::compile($parts, $assets);
    expect($assets->kept)->toBe(4);
});

test('a motion on a thing without a body, and one without length, are named', function (array $parts, string $message): void {
    Scenes::compile($parts);
})->with([
    'no length' => [
        ['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('a', 'o', 'wave', 0, ['sourceIn' => 3.4])]], 'has no length',
    ],
])->throws(UnableToCompile::class);

test('random access equals sequence, bit for bit', function (): void {
    $parts = [
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 2.0, 0.0, -90.0), Scenes::item('k', 'key')],
        'beats' => [Scenes::beat('1', 'o', 'walkToMark', 0), Scenes::beat('2', 'o', 'talk', 100), Scenes::beat('3', 'b', 'talk', 5)],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 3, 'to' => 70, 'keep' => 'grip']],
        'cameras' => [Scenes::camera('ca', [['frame' => 0], ['frame' => 100, 'position' => [2, 2, 4]]])],
    ];
    $assets = new FakeAssets;
    $s = Scenes::compile($parts, $assets);
    $sequence = [];
    for ($f = 0; $f < 120; $f++) {
        $sequence[$f] = serialize(SceneEvaluator::at($s, $f));
    }
    $again = Scenes::compile($parts, $assets);
    $order = range(0, 119);
    mt_srand(4);
    shuffle($order);
    foreach ($order as $f) {
        expect(serialize(SceneEvaluator::at($again, $f)))->toBe($sequence[$f]);
    }
});

test('heading of the performer turns the whole motion', function (): void {
    $a = Scenes::compile(['items' => [Scenes::item('o', 'oda', 0.0, 0.0, 0.0)], 'beats' => [Scenes::beat('w', 'o', 'walkToMark', 0)]]);
    $b = Scenes::compile(['items' => [Scenes::item('o', 'oda', 5.0, 0.0, 120.0)], 'beats' => [Scenes::beat('w', 'o', 'walkToMark', 0)]]);
    foreach ([0, 40, 90] as $f) {
        $p = V3::add([5.0, 0.0, 0.0], Q4::rotate(Q4::aroundY(deg2rad(120)), jointAt($a, 'o', 'handL', $f)));
        expect(V3::distance($p, jointAt($b, 'o', 'handL', $f)))->toBeLessThan(1e-6);
    }
});

test('what goes on under the beat that follows is said, with the frames; what goes on by its nature is not', function (): void {
    $notes = static fn (array $first, int $start): array => Scenes::compile([
        'items' => [Scenes::item('o', 'oda')],
        'beats' => [$first + Scenes::beat('1', 'o', 'idle', 0), ['joinFrames' => 8] + Scenes::beat('2', 'o', 'wave', $start)],
    ])->notes;
    $covered = $notes(['play' => ['fill' => 200]], 120);
    expect($covered)->toHaveCount(1)->and($covered[0]->code)->toBe('beat.covered')->and($covered[0]->about)->toBe(['o', '1'])
        ->and($covered[0]->frames[0])->toBe(120)->and($covered[0]->sentence)->toContain('80 frames of "idle"')
        ->and($covered[0]->remedy)->toContain('its end to frame 120')->toContain('what follows to frame 200')
        ->and($notes(['play' => ['fill' => 127]], 120))->toBe([])
        ->and($notes(['play' => ['fill' => 120]], 120))->toBe([])
        ->and($notes(['play' => ['keepLooping' => true]], 120))->toBe([]);
});
