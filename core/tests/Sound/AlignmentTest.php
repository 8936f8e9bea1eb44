<?php

declare(strict_types=1);

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Sound\Alignment;
use CrispReel\Core\Sound\Cepstra;
use CrispReel\Core\Sound\Fourier;
use CrispReel\Core\Sound\Overheard;
use CrispReel\Core\Sound\Silences;
use CrispReel\Core\Sound\Warp;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Word;

/**
 * Somebody who hums with two resonances a sound: a made-up mouth whose times are known.
 *
 * @param  list<array{string, float}>  $sounds  a name of four, and seconds
 * @param  float  $pitch  Hertz
 * @param  float  $size  factor of the resonances
 * @return array{Wave, list<Phone>}
 */
function hummed(array $sounds, float $pitch, float $size = 1.0, float $noise = 0.0): array
{
    $resonances = ['aa' => [750.0, 1200.0], 'iy' => [300.0, 2300.0], 'uw' => [320.0, 640.0], 's' => [4500.0, 5600.0]];
    $samples = [];
    $phones = [];
    $at = 0;
    foreach ($sounds as [$name, $seconds]) {
        $n = (int) round($seconds * Cepstra::RATE);
        for ($i = 0; $i < $n; $i++) {
            $t = ($at + $i) / Cepstra::RATE;
            $v = 0.0;
            foreach ($name === Phone::PAUSE ? [] : $resonances[$name] as $hz) {
                // Harmonics about each resonance; what hisses has none.
                $near = $name === 's' ? $hz * (1.0 + 0.1 * Noise::value(900.0 * $t, 7)) : $pitch * round($size * $hz / $pitch);
                $v += 0.12 * sin(2 * M_PI * $near * $t) + 0.06 * sin(2 * M_PI * ($near + $pitch) * $t);
            }
            $samples[] = $v + $noise * Noise::value(4000.0 * $t, 3);
        }
        $phones[] = new Phone($name, $at / Cepstra::RATE, ($at + $n) / Cepstra::RATE, $name === Phone::PAUSE ? -1 : 0);
        $at += $n;
    }

    return [new Wave(Cepstra::RATE, $samples), $phones];
}

/** @param  list<Phone>  $phones */
function theReading(Wave $wave, array $phones): Reading
{
    return new Reading($wave->seconds(), $phones, [new Word('word', 0.2, $wave->seconds() - 0.2)], events: [['nod', $phones[2]->from]]);
}

const HUMMED = [['pau', 0.2], ['aa', 0.2], ['s', 0.12], ['iy', 0.15], ['uw', 0.2], ['s', 0.1], ['aa', 0.18], ['pau', 0.2]];

test('powers are those of the sum that defines them, of two stretches at a time', function (): void {
    $a = $b = [];
    for ($i = 0; $i < 16; $i++) {
        $a[] = sin(2 * M_PI * 3 * $i / 16) + 0.5;
        $b[] = $i === 2 ? 1.0 : 0.0;
    }
    [$of, $other] = (new Fourier(16))->powers($a, $b);
    // A sine of three turns: half of 16 at its place, squared; the constant all of it. An impulse has all alike.
    expect($of[3])->toEqualWithDelta(64.0, 1e-9)->and($of[0])->toEqualWithDelta(64.0, 1e-9)->and($of[5])->toEqualWithDelta(0.0, 1e-9)
        ->and($other)->each->toEqualWithDelta(1.0, 1e-9)->and($of)->toHaveCount(9);
    expect(static fn (): Fourier => new Fourier(12))->toThrow(InvalidArgumentException::class, 'takes 2, 4, 8');
});

test('cepstra do not know how loud a sound is, and tell sounds apart whoever makes them', function (): void {
    [$low] = hummed(HUMMED, 110.0);
    [$high] = hummed(HUMMED, 190.0, 1.05);
    $soft = new Wave($low->rate, array_map(static fn (float $s): float => 0.5 * $s, $low->samples));
    $of = Cepstra::of($low);
    expect(Cepstra::loudness($low))->toEqualWithDelta($of->energy, 1e-9)
        ->and($of->frames)->toHaveCount(intdiv(count($low->samples) - 400, 160) + 1)->and($of->frames[0])->toHaveCount(13);
    $far = static fn (array $x, array $y): float => sqrt(
        array_sum(array_map(static fn (float $p, float $q): float => ($p - $q) ** 2, $x, $y)),
    );
    // In the middle of the first "aa" and of the "iy".
    [$aa, $iy] = [29, 58];
    expect($far($of->frames[$aa], Cepstra::of($soft)->frames[$aa]))->toBeLessThan(0.35)
        ->and($far($of->frames[$aa], Cepstra::of($high)->frames[$aa]))->toBeLessThan(0.8 * $far($of->frames[$aa], $of->frames[$iy]));
    expect(static fn (): Cepstra => Cepstra::of(new Wave(8000, [0.0])))->toThrow(InvalidArgumentException::class, '16000');
});

test('a warp finds a stretch that was drawn out, and never turns back', function (): void {
    $a = array_map(static fn (int $i): array => [(float) $i], range(0, 19));
    $slow = [];
    foreach ($a as $i => $f) {
        array_push($slow, ...array_fill(0, $i >= 5 && $i < 10 ? 2 : 1, $f));
    }
    $warp = Warp::of($a, $slow);
    expect($warp[4])->toBe(4.0)->and($warp[12])->toBe(17.0)->and($warp[19])->toBe(24.0)->and($warp[7])->toEqualWithDelta(9.5, 0.6);
    foreach ($warp as $k => $at) {
        expect($at)->toBeGreaterThanOrEqual($warp[$k - 1] ?? 0.0);
    }
    // Three times as long: more than the slope allows, so it is spread first.
    $long = Warp::of($a, array_map(static fn (int $i): array => [$i / 3.0], range(0, 57)));
    expect($long[10])->toEqualWithDelta(30.0, 2.0)->and(Warp::of([[1.0]], [[1.0], [2.0]]))->toBe([0.0]);
});

test('boundaries of a recording are found: another voice, another pace, a pause in between, and noise', function (
    array $said, float $pitch, float $noise, float $most,
): void {
    [$voice, $phones] = hummed(HUMMED, 120.0);
    [$recorded, $truth] = hummed($said, $pitch, 1.04, $noise);
    $found = Alignment::of(theReading($voice, $phones), $voice, $recorded, [0.1, 0.2]);
    $sounds = static fn (array $of): array => array_values(array_filter($of, static fn (Phone $p): bool => ! $p->isPause()));
    [$is, $was] = [$sounds($found->phones), $sounds($truth)];
    expect(array_column($is, 'name'))->toBe(array_column($was, 'name'));
    foreach ($is as $k => $p) {
        expect(abs($p->from - $was[$k]->from))->toBeLessThan($most, "{$k} {$p->name}");
        expect(abs($p->to - $was[$k]->to))->toBeLessThan($most, "{$k} {$p->name}");
    }
    // Without gaps from the beginning to the end, and what hangs on a word comes along.
    $at = 0.0;
    foreach ($found->phones as $p) {
        expect($p->from)->toEqualWithDelta($at, 1e-9);
        $at = $p->to;
    }
    expect($at)->toEqualWithDelta($recorded->seconds(), 1e-9)->and($found->loudness)->toBe([0.1, 0.2])
        ->and($found->words[0]->from)->toBe($is[0]->from)->and($found->words[0]->to)->toBe($is[6 - 1]->to)
        ->and($found->events[0][0])->toBe('nod')->and($found->events[0][1])->toEqualWithDelta($was[1]->from, $most);
})->with([
    'the same' => [HUMMED, 120.0, 0.0, 0.011],
    'a higher voice' => [HUMMED, 205.0, 0.0, 0.03],
    'slower, and not evenly' => [
        [['pau', 0.4], ['aa', 0.3], ['s', 0.12], ['iy', 0.26], ['uw', 0.22], ['s', 0.15], ['aa', 0.3], ['pau', 0.1]], 120.0, 0.0, 0.035,
    ],
    'a pause' => [
        [['pau', 0.1], ['aa', 0.2], ['s', 0.12], ['iy', 0.15], ['pau', 0.5], ['uw', 0.2], ['s', 0.1], ['aa', 0.18], ['pau', 0.6]],
        120.0, 0.0, 0.04,
    ],
    'noise' => [HUMMED, 140.0, 0.01, 0.035],
]);

test('a recording in which nothing is heard is one pause', function (): void {
    [$voice, $phones] = hummed(HUMMED, 120.0);
    $found = Alignment::of(theReading($voice, $phones), $voice, new Wave(Cepstra::RATE, []));
    expect($found->phones)->toHaveCount(1)->and($found->phones[0]->isPause())->toBeTrue();
    expect(Silences::heard(array_fill(0, 50, 0.0), 0.2, 0.2))->toBeNull();
});

test('silence before and after is found, with the room that is asked for', function (): void {
    [$wave] = hummed([['pau', 1.0], ['aa', 0.5], ['pau', 0.8]], 120.0);
    [$from, $to] = Silences::heard(Cepstra::of($wave)->energy, 0.25, 0.2);
    expect($from)->toEqualWithDelta(0.75, 0.02)->and($to)->toEqualWithDelta(1.7, 0.02);
    // No more room than there is.
    [$short] = hummed([['aa', 0.5]], 120.0);
    expect(Silences::heard(Cepstra::of($short)->energy, 0.25, 0.2))->toEqualWithDelta([0.0, 0.495], 1e-9);
    expect(Silences::of([9.0, 1.0, 1.0, 9.0, 1.0], 0.02))->toBe([[1, 3]]);
});

test('words that nobody knows open the mouth as they sound, and shut it where it is silent', function (): void {
    [$wave] = hummed([['pau', 0.3], ['aa', 0.3], ['pau', 0.2], ['s', 0.2], ['uw', 0.3], ['pau', 0.3]], 120.0);
    $reading = Overheard::of($wave, [0.1]);
    $at = static fn (float $t): string => array_values(array_filter(
        $reading->phones, static fn (Phone $p): bool => $p->from <= $t && $p->to > $t,
    ))[0]->name;
    expect($at(0.1))->toBe('pau')->and($at(0.45))->toBe('aa')->and($at(0.7))->toBe('pau')->and($at(0.9))->toBe('s')
        ->and($at(1.15))->toBe('uh')->and($at(1.5))->toBe('pau')->and($reading->words)->toBe([])->and($reading->guessed)->toBeTrue();
});
