<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Bram gives at his mark, Oda stands somewhere and is tied to him.
 *
 * @param  array<string, mixed>  $oda
 * @param  list<array<string, mixed>>  $before
 */
function paired(array $bram, array $oda, array $before = [], array $with = ['with' => 'g']): CompiledScene
{
    return Scenes::compile([
        'items' => [$oda, $bram],
        'beats' => [...$before, Scenes::beat('g', 'b', 'handOver', 24), Scenes::beat('r', 'o', 'receive', 24, ['play' => $with])],
    ]);
}

/** A joint of the second as the first's hips see it, at a frame. @return array{float, float, float} */
function seen(CompiledScene $s, int $f): array
{
    $hips = static fn (string $who): int => $s->lanes[$who]->figure->hips;
    $of = SceneEvaluator::jointPlace($s, 'b', $hips('b'), $f);

    return $of->inverse()->point(SceneEvaluator::jointPlace($s, 'o', $hips('o'), $f)->position);
}

test('giver and receiver face each other at their gap, wherever the receiver was put', function (): void {
    $s = paired(Scenes::item('b', 'bram', 2.0, 1.0, 90.0), Scenes::item('o', 'oda', -3.0, 4.0, 20.0));
    $b = SceneEvaluator::jointPlace($s, 'b', $s->lanes['b']->figure->hips, 24);
    $o = SceneEvaluator::jointPlace($s, 'o', $s->lanes['o']->figure->hips, 24);
    // Bram stands at (2, 1) and looks along +x: Oda stands 1.02 m ahead and looks back.
    expect($o->position[0] - 2.0)->toEqualWithDelta(1.02, 0.08)->and($o->position[2])->toEqualWithDelta(1.0, 0.08);
    expect(cos(Q4::heading($o->rotation) - Q4::heading($b->rotation)))->toBeLessThan(-0.9);
    // While both hold, the hands meet.
    $hand = static fn (string $who): array => SceneEvaluator::jointPlace(
        $s,
        $who,
        $s->lanes[$who]->figure->skeleton->roles['handR'],
        24 + 40,
    )->point($s->lanes[$who]->figure->grip('R')[0]);
    expect(V3::distance($hand('b'), $hand('o')))->toBeLessThan(0.08);
    expect($s->notes)->toHaveCount(1)->and($s->notes[0]->code)->toBe('pair.far');
});

test('a pair keeps its relative place when the first is moved, turned or walks before', function (): void {
    $plain = paired(Scenes::item('b', 'bram'), Scenes::item('o', 'oda', 0.0, 1.0, 180.0));
    $others = [
        'moved' => paired(Scenes::item('b', 'bram', 5.0, -2.0), Scenes::item('o', 'oda', 0.0, 1.0, 180.0)),
        'turned' => paired(Scenes::item('b', 'bram', 1.0, 1.0, 137.0), Scenes::item('o', 'oda', -1.0, 1.0, 12.0)),
    ];
    foreach ($others as $s) {
        for ($f = 24; $f < 124; $f += 10) {
            expect(V3::distance(seen($s, $f), seen($plain, $f)))->toBeLessThan(1e-6);
        }
    }
});

test('the first may come from anywhere: after a walk the pair still fits', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('b', 'bram'), Scenes::item('o', 'oda', 0.0, 4.2, 180.0)],
        'beats' => [
            Scenes::beat('w', 'b', 'walkToMark', 0), Scenes::beat('g', 'b', 'handOver', 96),
            Scenes::beat('r', 'o', 'receive', 96, ['play' => ['with' => 'g']]),
        ],
    ]);
    $hand = static fn (string $who): array => SceneEvaluator::jointPlace(
        $s,
        $who,
        $s->lanes[$who]->figure->skeleton->roles['handR'],
        96 + 40,
    )->point($s->lanes[$who]->figure->grip('R')[0]);
    expect(V3::distance($hand('b'), $hand('o')))->toBeLessThan(0.08);
});

test('two who wait for each other are told, and a tie to nothing is none', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('b', 'bram'), Scenes::item('o', 'oda', 0.0, 1.0, 180.0)], 'beats' => [
        Scenes::beat('g', 'b', 'handOver', 24, ['play' => ['with' => 'r']]),
        Scenes::beat('r', 'o', 'receive', 24, ['play' => ['with' => 'g']]),
    ]]);
    expect(array_map(static fn ($n): string => $n->code, $s->notes))->toContain('pair.circle');
    $free = paired(Scenes::item('b', 'bram'), Scenes::item('o', 'oda', 3.0, 3.0), with: []);
    $lost = paired(Scenes::item('b', 'bram'), Scenes::item('o', 'oda', 3.0, 3.0), with: ['with' => 'gone']);
    expect(SceneEvaluator::row($lost, 'o', 60))->toBe(SceneEvaluator::row($free, 'o', 60))->and($lost->notes)->toBe([]);
});

test('what takes two and is done with nobody is said', function (): void {
    $items = [Scenes::item('o', 'oda'), Scenes::item('p', 'bram', 0.0, 9.0, 180.0)];
    $alone = Scenes::compile(['items' => $items, 'beats' => [Scenes::beat('b', 'o', 'pushA', 0)]]);
    $codes = static fn (array $notes): array => array_map(static fn (Finding $n): string => $n->code, $notes);
    expect($codes($alone->notes))->toBe(['pair.alone'])->and($alone->notes[0]->sentence)->toContain('with nobody')
        ->and($alone->notes[0]->about)->toBe(['o', 'b']);
    $two = Scenes::compile(['items' => $items, 'beats' => [
        Scenes::beat('b', 'o', 'pushA', 60), Scenes::beat('c', 'p', 'pushB', 60, ['play' => ['with' => 'b']]),
    ]]);
    expect($codes($two->notes))->not->toContain('pair.alone');
    // Waving needs nobody.
    expect(Scenes::compile(['items' => $items, 'beats' => [Scenes::beat('b', 'o', 'wave', 0)]])->notes)->toBe([]);
});
