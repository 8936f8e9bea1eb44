<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** @return array{float, float, float} the middle of the feet in the scene */
function between(CompiledScene $s, string $item, float $frame): array
{
    $r = $s->lanes[$item]->figure->skeleton->roles;

    return V3::mix(
        SceneEvaluator::jointPlace($s, $item, $r['footL'], $frame)->position,
        SceneEvaluator::jointPlace($s, $item, $r['footR'], $frame)->position,
        0.5,
    );
}

/** @param  array<string, mixed>  $path */
function along(array $path, array $more = [], array $items = [], int $headingDeg = 90): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 1.0, 2.0, $headingDeg), ...$items],
        'beats' => [Scenes::beat('w', 'o', 'walk', 10, ['path' => $path]), ...$more],
    ]);
}

test('a walk leads to the last place of its path, through the others', function (): void {
    $s = along(['points' => [[2.5, 2.2], [3.5, 0.5]]]);
    $end = $s->lanes['o']->segments[0]->end;
    $at = between($s, 'o', $end);
    expect(hypot($at[0] - 3.5, $at[2] - 0.5))->toBeLessThan(0.04)->and(hypot(between($s, 'o', 0)[0] - 1, between($s, 'o', 0)[2] - 2))
        ->toBeLessThan(0.04);
    $nearest = min(array_map(
        static fn (int $f): float => hypot(between($s, 'o', $f)[0] - 2.5, between($s, 'o', $f)[2] - 2.2),
        range(10, (int) $end),
    ));
    expect($nearest)->toBeLessThan(0.15);
});

test('what follows carries on from the end of the path, on its height and with its facing', function (): void {
    $s = along(
        ['points' => [[3.0, 2.0]], 'faceDeg' => 0.0],
        [Scenes::beat('t', 'o', 'talk', 300)],
        [Scenes::item('x', 'box', 3.2, 2.0, 0.0, -0.8)],
    );
    // The box of 1 m sunk by 0.8 m is a step of 20 cm.
    $at = between($s, 'o', 360);
    expect(hypot($at[0] - 3.0, $at[2] - 2.0))->toBeLessThan(0.05)->and($at[1] - between($s, 'o', 0)[1])->toEqualWithDelta(0.2, 0.01);
    $figure = $s->lanes['o']->figure;
    $hips = $figure->standing(SceneEvaluator::row($s, 'o', 360), $figure->hips);
    expect(rad2deg($hips[2]) + 90)->toEqualWithDelta(0.0, 6.0)->and($s->notes)->toBe([]);
});

test('a second path starts where the first one ended', function (): void {
    $s = along(['points' => [[3.0, 2.0]]], [Scenes::beat('x', 'o', 'walk', 150, ['path' => ['points' => [[3.0, 5.0]]]])]);
    $a = between($s, 'o', 149);
    expect(V3::distance($a, between($s, 'o', 151)))->toBeLessThan(0.02)->and(hypot($a[0] - 3.0, $a[2] - 2.0))->toBeLessThan(0.05);
    $end = between($s, 'o', $s->lanes['o']->segments[1]->end);
    expect(hypot($end[0] - 3.0, $end[2] - 5.0))->toBeLessThan(0.05);
});

test('it arrives at the frame that is asked for', function (int $arrive): void {
    $s = along(['points' => [[3.0, 2.4], [5.0, 2.0]], 'arrive' => $arrive]);
    $end = $s->lanes['o']->segments[0]->end;
    expect($end)->toEqualWithDelta((float) $arrive, 0.5);
    $at = between($s, 'o', $arrive);
    expect(hypot($at[0] - 5.0, $at[2] - 2.0))->toBeLessThan(0.05);
})->with([100, 150, 240]);

test('walls and rises on the way are noted with their place', function (): void {
    $wall = along(['points' => [[5.0, 2.0]]], items: [Scenes::item('Shed', 'box', 3.5, 2.0, 0.0, 0.0, 2.0)]);
    $codes = array_map(static fn ($n): string => $n->code, $wall->notes);
    $table = along(['points' => [[5.0, 2.0]]], items: [Scenes::item('Table', 'box', 3.5, 2.0, 0.0, -0.2)]);
    expect($codes)->toBe(['path.wall'])->and($wall->notes[0]->sentence)->toContain('"Shed"')->toContain('1.5 m')
        ->and(array_map(static fn ($n): string => $n->code, $table->notes))->toBe(['path.wall', 'path.step'])
        ->and($table->notes[1]->sentence)
        ->toContain('0.80 m stands 2.0 m along')
        ->and(along(['points' => [[5.0, 2.0]]], items: [Scenes::item('Shed', 'box', 3.5, 4.5, 0.0, 0.0, 2.0)])->notes)->toBe([]);
});

test('a performer of another size stands as well', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'bram', 0, 0, 0, 0.0, 1.3), Scenes::item('x', 'box', 0.0, 2.5, 0.0, -0.7, 1.0)],
        'beats' => [Scenes::beat('w', 'o', 'walk', 0, ['path' => ['points' => [[0.0, 2.5]]]])],
    ]);
    $r = $s->lanes['o']->figure->rest('footL');
    $foot = SceneEvaluator::jointPlace(
        $s,
        'o',
        $s->lanes['o']->figure->skeleton->roles['footL'],
        $s->lanes['o']->segments[0]->end,
    )->position;
    expect($foot[1])->toEqualWithDelta(0.3 + 1.3 * $r[1], 0.01)->and($foot[2])->toEqualWithDelta(2.5, 0.15);
});

test('the solved walk is made once, and anew when the ground under it moves', function (): void {
    $assets = new FakeAssets;
    $parts = fn (float $x, float $far): array => [
        'items' => [Scenes::item('o', 'oda'), Scenes::item('x', 'box', $x, 2.0, 0.0, -0.8), Scenes::item('y', 'box', $far, 40.0)],
        'beats' => [Scenes::beat('w', 'o', 'walk', 0, ['path' => ['points' => [[0.0, 3.0]]]])],
    ];
    Scenes::compile($parts(0.0, 0.0), $assets);
    $kept = $assets->kept;
    Scenes::compile($parts(0.0, 9.0), $assets);
    expect($assets->kept)->toBe($kept);
    Scenes::compile($parts(0.3, 9.0), $assets);
    expect($assets->kept)->toBe($kept + 1);
});

test('paths that cannot be walked are refused by name', function (): void {
    expect(fn () => along(['points' => []]))->toThrow(UnableToReadDocument::class, 'at least one place')
        ->and(fn () => along(['points' => [[1, 2, 3]]]))->toThrow(UnableToReadDocument::class, '2 numbers')
        ->and(fn () => along(['points' => [[NAN, 2]]]))->toThrow(UnableToReadDocument::class, 'finite')
        ->and(fn () => Scenes::compile([
            'items' => [Scenes::item('o', 'oda')],
            'beats' => [Scenes::beat('w', 'o', 'talk', 0, ['path' => ['points' => [[1, 1]]]])],
        ]))->toThrow(UnableToCompile::class, 'does not follow a path');
});

test('a path of one place where the performer stands is a stand', function (): void {
    $s = along(['points' => [[1.0, 2.0]]]);
    foreach ([10, 30, 60] as $f) {
        expect(hypot(between($s, 'o', $f)[0] - 1, between($s, 'o', $f)[2] - 2))->toBeLessThan(0.05);
    }
    expect($s->notes)->toHaveCount(1)->and($s->notes[0]->code)->toBe('path.short');
});
