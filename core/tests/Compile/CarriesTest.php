<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

function placed(CompiledScene $s, string $item, float $f): Placement
{
    return SceneEvaluator::place($s, $item, $f);
}

/**
 * @param  array<string, mixed>  $more
 * @return array<string, mixed>
 */
function carry(string $id, string $child, string $parent, int $from, array $more = []): array
{
    return ['id' => $id, 'child' => $child, 'parent' => $parent, 'from' => $from] + $more;
}

test('keep-place takes hold without a jump and goes with the hand', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key', 0.3, 0.4, 35.0, 0.9)],
        'beats' => [Scenes::beat('w', 'o', 'wave', 0)],
        'links' => [carry('l', 'k', 'o', 20, ['mount' => 'handR'])],
    ]);
    $hand = fn (float $f): Placement => SceneEvaluator::jointPlace($s, 'o', $s->lanes['o']->figure->skeleton->roles['handR'], $f);
    expect(V3::distance(placed($s, 'k', 19)->position, [0.3, 0.9, 0.4]))->toBe(0.0)
        ->and(V3::distance(placed($s, 'k', 20)->position, [0.3, 0.9, 0.4]))->toBeLessThan(1e-6)
        ->and(Q4::angleBetween(placed($s, 'k', 20)->rotation, placed($s, 'k', 19)->rotation))->toBeLessThan(1e-6);
    $held = $hand(20)->inverse()->of(placed($s, 'k', 20));
    foreach ([25, 40, 60] as $f) {
        $now = $hand($f)->inverse()->of(placed($s, 'k', $f));
        expect(V3::distance($now->position, $held->position))->toBeLessThan(1e-6)->and(Q4::angleBetween($now->rotation, $held->rotation))
            ->toBeLessThan(1e-6);
    }
});

test('a grip brings the thing\'s own hold into the palm', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 1.0, 1.0, 60.0), Scenes::item('k', 'key', 9.0, 9.0)],
        'beats' => [Scenes::beat('t', 'o', 'talk', 0)],
        'links' => [carry('l', 'k', 'o', 0, ['mount' => 'handL', 'keep' => 'grip'])],
    ]);
    $figure = $s->lanes['o']->figure;
    foreach ([0, 30, 70] as $f) {
        $hand = SceneEvaluator::jointPlace($s, 'o', $figure->skeleton->roles['handL'], $f);
        $hold = placed($s, 'k', $f)->point([0.0, 0.075, 0.0]);
        expect(V3::distance($hold, $hand->point($figure->grip('L')[0])))->toBeLessThan(1e-7);
    }
});

test('fingers close while they hold and open again', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key')],
        'links' => [carry('l', 'k', 'o', 20, ['mount' => 'handR', 'to' => 60, 'keep' => 'grip'])],
    ]);
    $j = $s->lanes['o']->figure->skeleton->index['middle1R'];
    $bend = fn (int $f): float => Q4::angleBetween(Q4::IDENTITY, array_slice(SceneEvaluator::row($s, 'o', $f), 3 + 4 * $j, 4));
    expect($bend(40))->toBeGreaterThan($bend(5) + 0.2)->and($bend(70))->toEqualWithDelta($bend(5), 0.15);
});

test('after letting go it lies where it was', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key')],
        'beats' => [Scenes::beat('w', 'o', 'wave', 0)],
        'links' => [carry('l', 'k', 'o', 0, ['mount' => 'handR', 'to' => 30, 'keep' => 'grip'])],
    ]);
    expect(V3::distance(placed($s, 'k', 30)->position, placed($s, 'k', 29)->position))->toBeLessThan(0.08)
        ->and(placed($s, 'k', 80)->position)->toBe(placed($s, 'k', 30)->position);
});

test('a hand-over goes from one hand to the other without a gap', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 90.0), Scenes::item('b', 'bram', 1.02, 0.0, -90.0), Scenes::item('k', 'key')],
        'beats' => [Scenes::beat('1', 'o', 'handOver', 0), Scenes::beat('2', 'b', 'receive', 0)],
        'links' => [
            carry('l1', 'k', 'o', 0, ['mount' => 'handR', 'to' => 42, 'keep' => 'grip']),
            carry('l2', 'k', 'b', 42, ['mount' => 'handR', 'keep' => 'grip', 'easeFrames' => 5]),
        ],
    ]);
    $before = placed($s, 'k', 0);
    for ($f = 1; $f < 100; $f++) {
        $now = placed($s, 'k', $f);
        expect(V3::distance($now->position, $before->position))->toBeLessThan(0.10);
        $before = $now;
    }
    $bram = SceneEvaluator::jointPlace($s, 'b', $s->lanes['b']->figure->skeleton->roles['handR'], 90);
    expect(V3::distance(placed($s, 'k', 90)->position, $bram->position))->toBeLessThan(0.25);
});

test('things on things on things: mounts, chains and scale', function (): void {
    $s = Scenes::compile([
        'items' => [
            Scenes::item('s', 'stool', 2.0, 0.0, 90.0, 0.0, 2.0), Scenes::item('k', 'key'), Scenes::item('x', 'box', 2.0, 0.0, 0.0, 2.0),
        ],
        'links' => [carry('l', 'k', 's', 0, ['mount' => 'top', 'keep' => 'grip']), carry('m', 'x', 'k', 5)],
    ]);
    // The stool is grown by 2: its top is at 1.0; the key's hold (0.075 up, in its own size) comes to it.
    expect(placed($s, 'k', 10)->point([0.0, 0.075, 0.0]))->toEqualWithDelta([2.0, 1.0, 0.0], 1e-9)
        ->and(placed($s, 'k', 10)->scale)->toEqualWithDelta(1.0, 1e-12)
        ->and(placed($s, 'x', 10)->position)->toEqualWithDelta([2.0, 2.0, 0.0], 1e-6)
        ->and($s->order)->toBe(['s', 'k', 'x']);
});

test('what hangs stays upright whatever the hand does', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 40.0), Scenes::item('n', 'lantern')],
        'beats' => [Scenes::beat('w', 'o', 'wave', 0)],
        'links' => [carry('l', 'n', 'o', 0, ['mount' => 'handR', 'keep' => 'grip'])],
    ]);
    foreach ([0, 20, 30, 50] as $f) {
        expect(Q4::rotate(placed($s, 'n', $f)->rotation, [0.0, 1.0, 0.0]))->toEqualWithDelta([0.0, 1.0, 0.0], 1e-9);
    }
});

test('a circle of carries is refused by name', function (): void {
    Scenes::compile([
        'items' => [Scenes::item('a', 'key'), Scenes::item('b', 'box'), Scenes::item('c', 'stool')],
        'links' => [carry('1', 'a', 'b', 0), carry('2', 'b', 'c', 0), carry('3', 'c', 'a', 0)],
    ]);
})->throws(UnableToCompile::class, 'a > b > c > a');

test('a mount that is not there is refused by name', function (): void {
    Scenes::compile([
        'items' => [Scenes::item('a', 'key'), Scenes::item('b', 'box')], 'links' => [carry('1', 'a', 'b', 0, ['mount' => 'saddle'])],
    ]);
})->throws(UnableToCompile::class, 'no joint or mount called "saddle"');
