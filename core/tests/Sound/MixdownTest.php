<?php

declare(strict_types=1);

use CrispReel\Core\Sound\Cue;
use CrispReel\Core\Sound\Lowering;
use CrispReel\Core\Sound\Mixdown;

/** @param  list<int>  $samples */
function pcm(array $samples): string
{
    return pack('v*', ...array_map(static fn (int $s): int => $s & 0xFFFF, $samples));
}

/**
 * Left and right of a mix.
 *
 * @param  list<Cue>  $cues
 * @return array{list<float>, list<float>}
 */
function mixedDown(array $cues, int $samples, ?Lowering $lowering = null): array
{
    $all = array_values(unpack('g*', implode('', iterator_to_array(Mixdown::blocks($cues, $samples, $lowering), false))) ?: []);

    return [
        array_values(array_filter($all, static fn (int $k): bool => $k % 2 === 0, ARRAY_FILTER_USE_KEY)),
        array_values(array_filter($all, static fn (int $k): bool => $k % 2 === 1, ARRAY_FILTER_USE_KEY)),
    ];
}

test('sounds are added where they begin, one of one channel on both sides', function (): void {
    [$left, $right] = mixedDown([
        new Cue(pcm([16384, -16384, 8192]), 1, 2), new Cue(pcm([3277, -3277, 6554, -6554]), 2, 3, 'effects', 0.5),
    ], 7);
    expect($left)->toEqualWithDelta([0, 0, 0.5, -0.5 + 0.05, 0.25 + 0.1, 0, 0], 1e-4)
        ->and($right)->toEqualWithDelta([0, 0, 0.5, -0.5 - 0.05, 0.25 - 0.1, 0, 0], 1e-4);
});

test('one that has begun before is heard from its middle, and one that goes round begins anew', function (): void {
    [$left] = mixedDown([new Cue(pcm([100, 200, 300, 400]), 1, -2)], 4);
    expect($left)->toEqualWithDelta([300 / 32768, 400 / 32768, 0, 0], 1e-7);
    [$left] = mixedDown([new Cue(pcm([100, 200]), 1, 1, 'ambience', until: 6)], 8);
    expect($left)->toEqualWithDelta(array_map(static fn (int $v): float => $v / 32768, [0, 100, 200, 100, 200, 100, 0, 0]), 1e-7);
});

test('blocks are seamless: a sound over several seconds is what it is', function (): void {
    $samples = array_map(static fn (int $i): int => (int) (10000 * sin($i / 50)), range(0, 2 * Mixdown::RATE + 99));
    [$left] = mixedDown([new Cue(pcm($samples), 1, 48001)], 3 * Mixdown::RATE);
    foreach ([0, 48000, 48001, 96000, 96001, 143999] as $at) {
        expect($left[$at])->toEqualWithDelta(($samples[$at - 48001] ?? 0) / 32768, 1e-7, "sample {$at}");
    }
});

test('fades keep the power: half way in it is 0.707 of it', function (): void {
    [$left] = mixedDown([new Cue(pcm(array_fill(0, 9600, 16384)), 1, 0, 'music', fadeIn: 4800, fadeOut: 2400)], 9600);
    expect($left[0])->toBe(0.0)->and($left[2400])->toEqualWithDelta(0.5 * M_SQRT1_2, 2e-3)->and($left[6000])->toEqualWithDelta(0.5, 1e-4)
        ->and($left[8400])->toEqualWithDelta(0.5 * M_SQRT1_2, 2e-3);
});

test('the bed goes down before the first word and comes back after the last, in 80 and 400 ms', function (): void {
    $l = new Lowering([[2.0, 3.0, 6.0], [3.5, 4.0, 12.0], [8.0, 9.0, 12.0], [20.0, 21.0, 0.0]]);
    expect($l->gain(1.79))->toBe(1.0)->and(20 * log10($l->gain(1.84)))->toEqualWithDelta(-6.0, 0.01)
        ->and(20 * log10($l->gain(1.88)))->toEqualWithDelta(-12.0, 0.01)->and(20 * log10($l->gain(3.25)))->toEqualWithDelta(-12.0, 0.01)
        ->and(20 * log10($l->gain(4.2)))->toEqualWithDelta(-6.0, 0.01)->and($l->gain(4.41))->toBe(1.0)
        ->and($l->corners())->toEqualWithDelta([
            [1.8, 0.0], [1.88, -12.0], [4.0, -12.0], [4.4, 0.0], [7.8, 0.0], [7.88, -12.0], [9.0, -12.0], [9.4, 0.0],
        ], 1e-9);
});

test('music is lowered under speech, effects are not', function (): void {
    $cues = array_map(
        static fn (string $lane): Cue => new Cue(pcm(array_fill(0, Mixdown::RATE, 8192)), 1, 0, $lane), ['music', 'effects'],
    );
    $lowering = new Lowering([[0.4, 0.6, 12.0]]);
    [$music] = mixedDown([$cues[0]], Mixdown::RATE, $lowering);
    [$effects] = mixedDown([$cues[1]], Mixdown::RATE, $lowering);
    expect($music[24000])->toEqualWithDelta(0.25 * 10 ** (-12 / 20), 1e-4)->and($music[2400])->toEqualWithDelta(0.25, 1e-6)
        ->and($effects[24000])->toEqualWithDelta(0.25, 1e-6);
});

test('a curve raises and lowers what is heard, straight in decibels between its points', function (): void {
    $cue = new Cue(
        str_repeat(pack('v', 8192), 48000), 1, 4800, 'effects', curve: [[4800, 0.0], [9600, -12.0], [24000, 6.0]],
    );
    $all = array_values(unpack('g*', implode('', iterator_to_array(Mixdown::blocks([$cue], 52800), false))) ?: []);
    $db = static fn (int $sample): float => 20 * log10($all[2 * $sample] / 0.25);
    expect($cue->bends())->toBeTrue()->and($db(4800 + 100))->toEqualWithDelta(0.0, 0.02)
        ->and($db(4800 + 7200))->toEqualWithDelta(-6.0, 0.05)
        ->and($db(4800 + 9600))->toEqualWithDelta(-12.0, 0.05)->and($db(4800 + 16800))->toEqualWithDelta(-3.0, 0.05)
        ->and($db(4800 + 30000))->toEqualWithDelta(6.0, 0.02)->and($all[2 * 4799])->toBe(0.0)
        ->and((new Cue('', 1, 0))->bends())->toBeFalse();
});

test('what is placed is one sound from there: in the middle as it is, at a side with the same power', function (): void {
    $tone = pcm(array_fill(0, 2 * 4800, 16384));
    $at = static fn (float $side, float $db): array => array_map(
        static fn (array $channel): float => $channel[2400],
        mixedDown([new Cue($tone, 2, 0, 'effects', placed: [[0, $db, $side]])], 4800),
    );
    expect($at(0.0, 0.0))->toEqualWithDelta([0.5, 0.5], 1e-6)->and($at(-1.0, 0.0))->toEqualWithDelta([0.5 * M_SQRT2, 0.0], 1e-6)
        ->and($at(0.0, -6.0206))->toEqualWithDelta([0.25, 0.25], 1e-5)
        ->and(array_sum(array_map(static fn (float $v): float => $v * $v, $at(0.37, 0.0))))->toEqualWithDelta(0.5, 1e-6);
    // Two sides that are each other's opposite are nothing from one place.
    [$left] = mixedDown([new Cue(pcm([8192, -8192, 8192, -8192]), 2, 0, 'effects', placed: [[0, 0.0, 0.0]])], 2);
    expect($left)->toEqualWithDelta([0.0, 0.0], 1e-7);
});

test('what moves goes evenly from side to side', function (): void {
    [$left, $right] = mixedDown([
        new Cue(pcm(array_fill(0, 9600, 16384)), 1, 0, 'steps', placed: [[0, 0.0, -1.0], [9600, 0.0, 1.0]]),
    ], 9600);
    expect($right[0])->toEqualWithDelta(0.0, 1e-6)->and($left[4800])->toEqualWithDelta($right[4800], 1e-4)
        ->and($left[9599])->toBeLessThan(0.002)->and($left[2400])->toEqualWithDelta(0.5 * M_SQRT2 * cos(M_PI / 8), 1e-4);
});
