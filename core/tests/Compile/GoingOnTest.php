<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Tests\Support\Scenes;

/** A walk of three metres that does not stop, and what follows at its end. */
function goingOn(string $motion, float $speed, int $late = 0): CompiledScene
{
    $walk = Scenes::beat('w', 'o', 'walk', 0, ['settings' => ['speed' => $speed], 'path' => ['points' => [[0.0, 3.0]], 'goesOn' => true]]);
    $alone = Scenes::compile(['items' => [Scenes::item('o', 'bram')], 'beats' => [$walk]]);
    $end = (int) ceil($alone->lanes['o']->segments[0]->end);

    return Scenes::compile(['items' => [Scenes::item('o', 'bram')], 'beats' => [$walk, Scenes::beat('b', 'o', $motion, $end + $late)]]);
}

/** Pace of the hips, metres a second, from a frame to the next. */
function paceAt(CompiledScene $s, float $frame): float
{
    [$a, $b] = [$s->lanes['o']->row($frame), $s->lanes['o']->row($frame + 1)];

    return hypot($b[0] - $a[0], $b[2] - $a[2]) * 24;
}

test('a motion out of a walk is entered at the pace of the walk, foot on foot', function (string $motion, float $speed): void {
    $s = goingOn($motion, $speed);
    $lane = $s->lanes['o'];
    $start = (int) $lane->segments[1]->start;
    $before = array_sum(array_map(static fn (int $f): float => paceAt($s, $f), range($start - 7, $start - 2))) / 6;
    foreach (range($start, $start + 2) as $f) {
        expect(paceAt($s, $f) / $before)->toBeBetween(0.85, 1.15);
    }
    // The foot that came down on the mark stays there.
    $foot = $lane->figure->skeleton->roles['footL'];
    [$x, $z] = array_slice($lane->figure->standing($lane->row($start + 1), $foot), 0, 2);
    expect($z)->toEqualWithDelta(3.0, 0.05);
    foreach (range($start + 1, $start + ($speed > 2.0 ? 2 : 4)) as $f) {
        [$nx, $nz] = array_slice($lane->figure->standing($lane->row($f), $foot), 0, 2);
        expect(hypot($nx - $x, $nz - $z))->toBeLessThan(0.05, "at {$f}");
    }
    // Neither hips nor head jump from frame to frame, and in the end one stands.
    for ($f = $start - 4; $f < $lane->end(); $f++) {
        expect(abs($lane->row($f + 1)[1] - $lane->row($f)[1]))->toBeLessThan(0.07, "at {$f}");
    }
    expect(paceAt($s, $lane->end() - 2))->toBeLessThan(0.05);
})->with(
    ['a trip' => ['trip', 1.25], 'a hurried trip' => ['trip', 1.8], 'a jump' => ['jump', 1.6], 'a jump out of a run' => ['jump', 2.8]],
);

test('a trip that is played slower is entered at the pace of the walk all the same', function (): void {
    $walk = Scenes::beat('w', 'o', 'walk', 0, ['settings' => ['speed' => 1.25], 'path' => ['points' => [[0.0, 3.0]], 'goesOn' => true]]);
    $end = (int) ceil(Scenes::compile(['items' => [Scenes::item('o', 'bram')], 'beats' => [$walk]])->lanes['o']->segments[0]->end);
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'bram')], 'beats' => [$walk, Scenes::beat('b', 'o', 'trip', $end, ['settings' => ['pace' => 0.7]])],
    ]);
    $before = paceAt($s, $end - 3);
    // The pace of the motion itself is set by its slider; it is not a stand that it begins with.
    expect(paceAt($s, $end + 1) / $before)->toBeBetween(0.6, 1.15);
    $row = $s->lanes['o']->row($end + 1);
    $foot = $s->lanes['o']->figure->skeleton->roles['footL'];
    expect($s->lanes['o']->figure->standing($row, $foot)[1])->toEqualWithDelta(3.0, 0.06)->and($row[2])->toBeGreaterThan(2.6);
});

test('who trips goes down and ahead, never up', function (): void {
    $lane = goingOn('trip', 1.25)->lanes['o'];
    $start = (int) $lane->segments[1]->start;
    $stand = $lane->row($lane->end())[1];
    $heights = array_map(static fn (int $f): float => $lane->row($f)[1], range($start, $start + 50));
    expect(max($heights))->toBeLessThan($stand + 0.02)->and(min($heights))->toBeLessThan($stand - 0.06);
    expect($lane->row($start + 50)[2] - $lane->row($start)[2])->toBeGreaterThan(1.0);
});

test('a walk that goes on into nothing is held in a step, and that is said with two ways out', function (): void {
    $codes = static fn (CompiledScene $s): array => array_map(static fn (Finding $n): string => $n->code, $s->notes);
    expect($codes(goingOn('trip', 1.25)))->not->toContain('path.held');
    $late = goingOn('trip', 1.25, 20);
    [$note] = array_values(array_filter($late->notes, static fn (Finding $n): bool => $n->code === 'path.held'));
    $end = (int) ceil($late->lanes['o']->segments[0]->end);
    expect($note->remedy)->toContain("frame {$end}")->and($note->mends)->toHaveCount(2)
        ->and($note->mends[0]->commands[0]->payload)->toBe(['beat' => 'b', 'start' => $end])
        ->and($note->mends[1]->commands[0]->payload['path'])->not->toHaveKey('goesOn');
});
