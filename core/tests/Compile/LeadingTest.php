<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/** A child is led along a way with a bend; it stands somewhere near before. @param  array<string, mixed>  $more */
function led(float $side = 1.0, array $more = [], float $speed = 0.95): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('o', 'bram'), Scenes::item('c', 'pim-alder', $side * 1.6, -0.6, 60.0)],
        'beats' => [
            Scenes::beat('a', 'o', 'leadByHand', 60, ['settings' => ['speed' => $speed]] + $more),
            Scenes::beat('b', 'c', 'ledByHand', 60, ['settings' => ['side' => $side], 'play' => ['with' => 'a']]),
        ],
    ]);
}

/** @return array{float, float, float} */
function partOf(CompiledScene $s, string $item, string $role, float $frame): array
{
    return SceneEvaluator::jointPlace($s, $item, $s->lanes[$item]->figure->skeleton->roles[$role], $frame)->position;
}

test('a hand stays in the hand, side by side, along a way with a bend and a turn', function (float $side, array $points): void {
    $s = led($side, ['path' => ['points' => $points]]);
    [$walk] = array_values(array_filter($s->lanes['o']->segments, static fn ($g): bool => $g->beat === 'a'));
    $end = (int) $walk->end;
    expect($s->lanes['c']->end())->toBeGreaterThan($end - 3.0);
    for ($f = 72; $f < $end - 6; $f += 4) {
        foreach (SceneEvaluator::at($s, $f)->missing as $id => $missing) {
            if (str_starts_with((string) $id, 'led')) {
                expect($missing)->toBeLessThan(0.01, "{$id} at {$f}");
            }
        }
        $apart = V3::distance(partOf($s, 'o', 'hips', $f), partOf($s, 'c', 'hips', $f));
        expect($apart)->toBeBetween(0.25, 0.95);
    }
    // On the side that was asked for, as the one who leads walks.
    $middle = intdiv(60 + $end, 2);
    [$a, $b, $ahead] = [partOf($s, 'o', 'hips', $middle), partOf($s, 'c', 'hips', $middle), partOf($s, 'o', 'hips', $middle + 6)];
    $left = ($ahead[2] - $a[2]) * ($b[0] - $a[0]) - ($ahead[0] - $a[0]) * ($b[2] - $a[2]);
    expect($left * $side)->toBeGreaterThan(0.0);
})->with([
    'ahead, on the left' => [1.0, [[0.0, 4.0]]], 'round a bend, on the right' => [-1.0, [[0.0, 2.0], [1.5, 3.5], [3.5, 3.5]]],
    'round a bend, on the left' => [1.0, [[0.0, 2.0], [1.5, 3.5], [3.5, 3.5]]],
]);

test('the one who is led comes first, and walks and stops with the other', function (): void {
    $s = led(1.0, ['path' => ['points' => [[0.0, 4.0]]]]);
    expect(
        array_map(static fn ($n): string => $n->sentence, $s->notes),
    )->toBe([])->and($s->lanes['c']->segments[0]->isBetween())->toBeTrue();
    // From frame to frame nobody is moved.
    for ($f = 1; $f < $s->frames; $f++) {
        $step = V3::distance(partOf($s, 'c', 'hips', $f), partOf($s, 'c', 'hips', $f - 1));
        expect($step)->toBeLessThan(0.11, "at {$f}");
    }
    $end = $s->frames - 1;
    expect(partOf($s, 'c', 'hips', $end)[2])->toEqualWithDelta(partOf($s, 'o', 'hips', $end)[2], 0.25);
});

test('without a drawn way one is led as far as the other walks; without anybody who leads it is a walk', function (): void {
    $s = led(1.0, ['loops' => 2]);
    expect(partOf($s, 'c', 'hips', $s->frames - 1)[2])->toBeGreaterThan(2.0);
    $alone = Scenes::compile(['items' => [Scenes::item('c', 'oda')], 'beats' => [Scenes::beat('b', 'c', 'ledByHand', 0)]]);
    expect(partOf($alone, 'c', 'hips', $alone->frames - 1)[2])->toBeGreaterThan(0.8)->and($alone->notes)->toHaveCount(1)
        ->and($alone->notes[0]->code)->toBe('pair.alone');
});

test('who flees looks back over the shoulder that is asked for, and runs on as before', function (float $side): void {
    $yaws = [];
    foreach ([0.0, $side] as $back) {
        $lane = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('b', 'o', 'flee', 0, [
            'path' => ['points' => [[0.0, 9.0]]], 'settings' => ['lookBack' => $back],
        ])]])->lanes['o'];
        $head = $lane->figure->skeleton->roles['head'];
        $yaws[] = array_map(
            static fn (int $f): float => rad2deg($lane->figure->standing($lane->row($f), $head)[2]), range(0, 90, 3),
        );
        $ends[] = array_slice($lane->row($lane->end()), 0, 3);
    }
    $by = array_map(static fn (float $plain, float $turned): float => ($turned - $plain) * $side, ...$yaws);
    expect(max($by))->toBeGreaterThan(65.0)->and(min($by))->toBeGreaterThan(-6.0);
    // It is not all the time.
    expect(count(array_filter($by, static fn (float $d): bool => $d < 10.0)))->toBeGreaterThan(8);
    expect($ends[1])->toEqualWithDelta($ends[0], 0.02);
})->with([1.0, -1.0]);
