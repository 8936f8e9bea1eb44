<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Timing;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Document\UnableToReadDocument;

/** A beat of a motion of 4 s, seconds 1 to 3 of it, at 24 frames a second. @param  array<string, mixed>  $play */
function timing(array $play = [], int $loops = 1, ?float $fill = null, float $in = 1.0, float $out = 3.0): Timing
{
    return new Timing(Play::from(new Input($play)), $in, $out, 4.0, 1 / 24, $loops, $fill);
}

test('a plain beat plays its motion frame by frame', function (): void {
    $t = timing();
    expect($t->frames)->toEqualWithDelta(48.0, 1e-9);
    foreach ([[0, 1.0], [12, 1.5], [48, 3.0], [99, 3.0], [-5, 1.0]] as [$frame, $seconds]) {
        expect($t->at($frame)[0])->toEqualWithDelta($seconds, 1e-9)->and($t->at($frame)[1])->toBe(0);
    }
});

test('loops start over, and the last one ends at its end', function (): void {
    $t = timing(loops: 3);
    expect($t->frames)->toEqualWithDelta(144.0, 1e-9)->and($t->at(47.999)[1])->toBe(0)->and($t->at(48)[1])->toBe(1)->and($t->at(48)[0])
        ->toEqualWithDelta(1.0, 1e-6)
        ->and($t->at(120)[1])->toBe(2)->and($t->at(120)[0])->toEqualWithDelta(2.0, 1e-9)->and($t->at(144)[1])->toBe(2)->and($t->at(144)[0])
        ->toEqualWithDelta(3.0, 1e-9);
});

test('reverse runs from the end to the start, loops too', function (): void {
    $t = timing(['reverse' => true], 2);
    expect($t->at(0))->toEqual([3.0, 1])->and($t->at(24)[0])->toEqualWithDelta(2.0, 1e-9)->and($t->at(24)[1])->toBe(1)
        ->and($t->at(72)[0])->toEqualWithDelta(2.0, 1e-9)->and($t->at(72)[1])->toBe(0)->and($t->at(96))->toEqual([1.0, 0]);
});

test('holds lengthen the beat and keep the end poses', function (): void {
    $t = timing(['holdBefore' => 10, 'holdAfter' => 6]);
    expect($t->frames)->toEqualWithDelta(64.0, 1e-9)->and($t->at(9)[0])->toBe(1.0)->and($t->at(22)[0])->toEqualWithDelta(1.5, 1e-9)
        ->and($t->at(63)[0])->toEqualWithDelta(3.0, 1e-9);
});

test('filling repeats to the frame, the last time in part', function (): void {
    $t = timing(fill: 60.0);
    expect($t->frames)->toEqualWithDelta(60.0, 1e-9)->and($t->at(60)[1])->toBe(1)->and($t->at(60)[0])->toEqualWithDelta(1.5, 1e-9);
});

test('a beat that goes on repeating has no last frame', function (): void {
    $t = timing(['keepLooping' => true]);
    expect($t->frames)->toEqualWithDelta(48.0, 1e-9)->and($t->at(4 * 48 + 12)[1])->toBe(4)->and($t->at(4 * 48 + 12)[0])
        ->toEqualWithDelta(1.5, 1e-6);
});

test('speed keys are integrated: hand-worked way and length', function (): void {
    // From full speed at frame 0 evenly to half speed at frame 24, then on at half speed. 24 frames play 24 * 0.75 / 24 = 0.75 s;
    // the other 1.25 s take 1.25 * 24 / 0.5 = 60 frames.
    $t = timing(['speeds' => [[0, 1.0], [24, 0.5]]]);
    expect($t->at(24)[0])->toEqualWithDelta(1.75, 1e-9)->and($t->frames)->toEqualWithDelta(84.0, 1e-9)->and($t->at(12)[0])
        ->toEqualWithDelta(1 + (12 * (1 + 0.75) / 2) / 24, 1e-9);
});

test('speed that runs down to nothing stops the motion there', function (): void {
    $t = timing(['speeds' => [[0, 1.0], [24, 0.0]]]);
    expect($t->frames)->toEqualWithDelta(24.0, 1e-9)->and($t->at(24)[0])->toEqualWithDelta(1.5, 1e-9);
});

test('eases start and end where the beat does; anticipation goes back and overshoot beyond first', function (): void {
    $slow = timing(['ease' => [0.42, 0.0, 0.58, 1.0]]);
    expect($slow->at(0)[0])->toBe(1.0)->and($slow->at(24)[0])->toEqualWithDelta(2.0, 1e-6)->and($slow->at(48)[0])
        ->toEqualWithDelta(3.0, 1e-9)
        ->and($slow->at(4)[0])->toBeLessThan(1 + 4 / 24);
    $back = timing(['ease' => Play::EASES['anticipate']]);
    expect(min(array_map(fn (int $f): float => $back->at($f)[0], range(0, 20))))->toBeBetween(0.6, 0.97);
    $over = timing(['ease' => Play::EASES['overshoot']]);
    expect(max(array_map(fn (int $f): float => $over->at($f)[0], range(20, 48))))->toBeBetween(3.02, 3.4)->and($over->at(48)[0])
        ->toEqualWithDelta(3.0, 1e-9);
    // Without material beyond the trim it waits at the end.
    $waits = timing(['ease' => Play::EASES['anticipate']], in: 0.0, out: 4.0);
    expect($waits->at(10)[0])->toBe(0.0);
});

test('a split plays what the whole played, whatever is set', function (array $play, int $loops): void {
    mt_srand(7);
    $whole = timing($play, $loops);
    for ($i = 0; $i < 12; $i++) {
        $at = mt_rand(1, (int) $whole->frames - 1);
        $first = timing(['length' => $at] + $play, $loops);
        $second = timing(['skip' => $at] + $play, $loops);
        expect($first->frames)->toEqualWithDelta((float) $at, 1e-9)->and($second->frames)->toEqualWithDelta($whole->frames - $at, 1e-6);
        for ($f = 0; $f <= $whole->frames; $f += 3.7) {
            $part = $f <= $at ? $first->at($f) : $second->at($f - $at);
            expect($part[0] + 2.0 * $part[1])->toEqualWithDelta($whole->at($f)[0] + 2.0 * $whole->at($f)[1], 1e-6);
        }
    }
})->with([
    [[], 1], [['reverse' => true], 2], [['holdBefore' => 9, 'ease' => [0.42, 0.0, 0.58, 1.0]], 1], [['speeds' => [[0, 0.5], [30, 2.0]]], 3],
]);

test('settings out of range are told with their place', function (array $play, string $message): void {
    expect(fn () => Play::from(new Input($play, 'beats/3/play')))->toThrow(UnableToReadDocument::class, $message);
})->with([
    [['ease' => [2, 0, 0, 1]], 'beats/3/play/ease'],
    [['ease' => [0, 0]], '4 numbers'],
    [['speeds' => [[5, 1], [2, 1]]], 'speeds/1'],
    [['speeds' => [[0, 0]]], 'above zero'],
    [['mask' => ['tail']], '"tail" is not one of'],
    [['mirror' => 'yes'], 'true or false'],
    [['energy' => 9], '9 is not between 0 and 2'],
    [['layer' => 1.5], 'whole number'],
]);

test('only what is set is written', function (): void {
    $play = Play::from(new Input(['mirror' => true, 'energy' => 1.0, 'holdAfter' => 3]));
    expect($play->toArray())->toBe(['mirror' => true, 'holdAfter' => 3]);
});
