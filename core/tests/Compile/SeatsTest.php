<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Somebody before a block of so many metres, who does these motions one after the other.
 *
 * @param  list<string>  $motions
 */
function seatedOn(string $who, float $high, array $motions, float $edge = -0.10): CompiledScene
{
    $items = [['kind' => 'performer'] + Scenes::item('o', $who), Scenes::item('s', 'box', 0.0, -0.5 + $edge, 0.0, $high - 1.0)];
    $beats = [];
    $start = 10;
    foreach ($motions as $k => $motion) {
        $beats[] = Scenes::beat("b{$k}", 'o', $motion, $start);
        $start = (int) ceil(Scenes::compile(['items' => $items, 'beats' => $beats])->lanes['o']->end());
    }

    return Scenes::compile(['items' => $items, 'beats' => $beats]);
}

/** Drawn soles' lowest point over the floor at a frame, metres. */
function soleHeight(CompiledScene $s, string $who, float $frame): float
{
    return min(array_column(drawnSoles($who, $s->lanes['o']->row($frame)), 1));
}

test('whoever sits down does so on what is there, feet on the ground or hanging free', function (string $who, float $high): void {
    $s = seatedOn($who, $high, ['sitDown', 'sitForward']);
    $lane = $s->lanes['o'];
    $unit = $lane->figure->body()->scale;
    foreach ([$lane->segments[0]->end - 1, $lane->segments[1]->start + 30, $lane->segments[1]->end - 10] as $f) {
        expect($lane->row($f)[1])->toEqualWithDelta($high + 0.10 * $unit, 0.02, "at {$f}");
        $b = $lane->figure->body();
        $reaches = ($high / $unit + 0.05) < $b->shin + $b->ankleY;
        $sole = soleHeight($s, $who, $f);
        $reaches ? expect($sole)->toBeBetween(-0.012, 0.012) : expect($sole)->toBeBetween(-0.001, $high - 0.2);
    }
    // Before the seat is met nobody sinks into it, and no hips jump.
    for ($f = 10; $f < $lane->segments[1]->start + 20; $f++) {
        expect(abs($lane->row($f + 1)[1] - $lane->row($f)[1]))->toBeLessThan(0.06, "at {$f}");
    }
})->with([
    'a man on a chair' => ['bram', 0.465], 'an old woman on a chair' => ['oda', 0.465], 'on a low stump' => ['bram', 0.34],
    'a child on a chair' => ['pim-alder', 0.465], 'a child on a high bench' => ['pim-alder', 0.54],
]);

test('a seat is got up from by who goes on standing, feet first on the ground', function (): void {
    $s = seatedOn('pim-alder', 0.465, ['sitDown', 'sitIdle', 'wave', 'standUp', 'walk']);
    $lane = $s->lanes['o'];
    $up = $lane->segments[3];
    expect($lane->row($up->start + 1)[1])->toEqualWithDelta(0.465 + 0.10 * $lane->figure->body()->scale, 0.03);
    expect(
        soleHeight($s, 'pim-alder', $up->start),
    )->toBeGreaterThan(0.02)->and(soleHeight($s, 'pim-alder', $up->end - 1))->toBeBetween(-0.012, 0.012);
    for ($f = $lane->segments[1]->start; $f < $lane->segments[4]->start + 10; $f++) {
        expect(abs($lane->row($f + 1)[1] - $lane->row($f)[1]))->toBeLessThan(0.07, "at {$f}");
    }
});

test('where there is no seat, or none that is sat on, a motion is as it was made', function (): void {
    $alone = Scenes::compile(['items' => [Scenes::item('o', 'bram')], 'beats' => [Scenes::beat('b', 'o', 'sitDown', 0)]])->lanes['o'];
    $hips = $alone->row($alone->end())[1];
    foreach ([0.08, 1.2] as $high) {
        $lane = seatedOn('bram', $high, ['sitDown'], $high > 1.0 ? -0.10 : -0.2)->lanes['o'];
        expect($lane->row($lane->segments[0]->end)[1])->toEqualWithDelta($hips, 0.1);
    }
});
