<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Tests\Support\Scenes;

/** Notes of Oda among some things. The box of the tests is one metre wide, high and deep from the ground up. */
function standing(array $items, array $parts = []): CompiledScene
{
    return Scenes::compile(['items' => [Scenes::item('Oda', 'oda'), ...$items]] + $parts);
}

/** @return list<Finding> */
function inside(CompiledScene $scene): array
{
    return array_values(array_filter($scene->notes, static fn (Finding $f): bool => $f->code === 'body.inside'));
}

test('who stands in something is told of it, and a mend leads into the clear', function (array $box, bool $in): void {
    $found = inside(standing([$box]));
    expect($found !== [])->toBe($in);
    if (! $in) {
        return;
    }
    expect($found[0]->sentence)->toBe('Oda stands in "Counter".')->and($found[0]->about)->toBe(['Oda'])
        ->and($found[0]->frames)->toBe([0, 0]);
    $command = $found[0]->mends[0]->commands[0];
    expect($command->name)->toBe('item.place')->and($command->payload['item'])->toBe('Oda');
    $moved = ['position' => $command->payload['position']] + Scenes::item('Oda', 'oda');
    expect(inside(Scenes::compile(['items' => [$moved, $box]])))->toBe([])
        ->and(hypot($moved['position'][0], $moved['position'][2]))->toBeLessThan(1.5);
})->with([
    'in the middle of it' => [Scenes::item('Counter', 'box', 0.0, 0.0), true],
    'half in it' => [Scenes::item('Counter', 'box', 0.55, 0.0), true],
    'beside it' => [Scenes::item('Counter', 'box', 0.75, 0.0), false],
    'under a roof' => [Scenes::item('Counter', 'box', 0.0, 0.0, 0.0, 3.0), false],
    'under what hangs into the head' => [Scenes::item('Counter', 'box', 0.0, 0.0, 0.0, 1.45), true],
]);

test('aside is on the same floor, and not on what stands beside it', function (): void {
    // Beside the counter a bed of 25 cm, nearer than the clear floor.
    $items = [Scenes::item('Counter', 'box', -0.4, 0.0), Scenes::item('Bed', 'box', 0.7, 0.0, 0.0, -0.75)];
    [$found] = inside(standing($items));
    [$x, $y, $z] = $found->mends[0]->commands[0]->payload['position'];
    expect($y)->toEqualWithDelta(0.0, 0.02)->and(max(abs($x - 0.7), abs($z)))->toBeGreaterThan(0.5);
});

test('on a thing, or holding on to it, is not in it', function (): void {
    expect(inside(standing([], ['items' => [Scenes::item('Oda', 'oda', 0.0, 0.0, 0.0, 1.0), Scenes::item('Box', 'box')]])))->toBe([]);
    $box = Scenes::item('Box', 'box', 0.0, 0.6);
    expect(inside(standing([$box])))->toHaveCount(1);
    $hand = ['id' => 'k', 'item' => 'Oda', 'effector' => 'handL', 'target' => 'Box', 'offset' => [0.0, 1.0, -0.4], 'from' => 0];
    $holds = ['contacts' => [$hand]];
    expect(inside(standing([$box], $holds)))->toBe([]);
});

test('where a beat ends is looked at too, and said with its frame', function (): void {
    $walks = ['beats' => [Scenes::beat('b', 'Oda', 'walk', 0)]];
    $end = standing([], $walks);
    $last = (int) floor($end->lanes['Oda']->segments[0]->end) - 1;
    $hips = $end->poses->at($last)->joint('Oda', $end->lanes['Oda']->figure->hips)->position;
    $found = inside(standing([Scenes::item('Wall', 'box', $hips[0] + 0.1, $hips[2] + 0.55)], $walks));
    expect($found)->toHaveCount(1)->and($found[0]->frames)->toBe([$last, $last])->and($found[0]->mends)->toBe([])
        ->and($found[0]->remedy)->toContain('end earlier');
});
