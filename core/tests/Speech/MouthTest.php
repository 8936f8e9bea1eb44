<?php

declare(strict_types=1);

use CrispReel\Core\Speech\Guess;
use CrispReel\Core\Speech\Mouth;
use CrispReel\Core\Speech\MouthTable;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;

/**
 * A reading of sounds by their lengths in milliseconds, with a silence of 300 ms before and after.
 *
 * @param  list<array{string, int}>  $sounds
 */
function spokenAs(array $sounds): Reading
{
    $phones = [new Phone('pau', 0.0, 0.3)];
    $t = 0.3;
    foreach ($sounds as [$name, $ms]) {
        $phones[] = new Phone($name, $t, $t + $ms / 1000, 0, true);
        $t += $ms / 1000;
    }
    $phones[] = new Phone('pau', $t, $t + 0.3);

    return new Reading($t + 0.3, $phones, []);
}

/** @return list<string> a hundred lines of other words each, with many closures */
function hundredLines(): array
{
    $words = explode(' ', 'please put my boat by the window mother found five brave men above a farm before evening bring back some '
        .'blue lamps from the empty room maybe paper moves over every bump and falls from the tower if nobody stops both of them');
    $out = [];
    for ($k = 0; $k < 100; $k++) {
        $line = [];
        for ($i = 0; $i < 8; $i++) {
            $line[] = $words[($k * 7 + $i * ($k % 5 + 1)) % count($words)];
        }
        $out[] = ucfirst(implode(' ', $line)).'.';
    }

    return $out;
}

test('lips close and are tucked in within a frame of every sound that asks for it, on a hundred lines', function (float $rate): void {
    $sounds = $late = 0;
    foreach (hundredLines() as $line) {
        $reading = Guess::of($line);
        $mouth = new Mouth($reading, 1.0 / $rate);
        foreach ($reading->phones as $p) {
            $kind = in_array($p->name, MouthTable::SEALS, true) ? 'seal' : (in_array($p->name, MouthTable::TUCKS, true) ? 'tuck' : null);
            if ($kind === null) {
                continue;
            }
            $sounds++;
            // The frames that are drawn: from the one before the sound to the one after.
            $reached = 0.0;
            for ($f = (int) floor($p->from * $rate); $f <= (int) ceil($p->to * $rate); $f++) {
                $at = $mouth->at($f / $rate);
                $reached = max($reached, $kind === 'seal' ? ($at['press'] ?? 0.0) / 0.85 : $at['lowerIn'] ?? 0.0);
            }
            $late += $reached < 0.95 ? 1 : 0;
        }
    }
    expect($sounds)->toBeGreaterThan(400)->and($late)->toBe(0);
})->with([24.0, 25.0, 30.0]);

test('what seals the lips is as much as the jaw has opened them', function (): void {
    $mouth = new Mouth(spokenAs([['aa', 140], ['m', 90], ['aa', 140]]), 1 / 24);
    for ($t = 0.0; $t < 1.0; $t += 0.01) {
        $at = $mouth->at($t);
        expect($at['seal'] ?? 0.0)->toBeLessThanOrEqual(($at['jawOpen'] ?? 0.0) + 1e-9);
    }
    $sealed = $mouth->at(0.3 + 0.14 + 0.045);
    expect($sealed['seal'])->toEqualWithDelta($sealed['jawOpen'], 1e-9)->and($sealed['press'])->toEqualWithDelta(0.85, 1e-9)
        ->and($sealed['upperUp'] ?? 0.0)->toBe(0.0)->and($sealed['lowerDown'] ?? 0.0)->toBe(0.0);
});

test('vowels have the mouth that one knows them by', function (string $vowel, Closure $looks): void {
    $mouth = new Mouth(spokenAs([['t', 60], [$vowel, 220], ['t', 60]]), 1 / 24);
    expect($looks($mouth->parameters(0.3 + 0.06 + 0.11 - 0.02)))->toBeTrue();
})->with([
    'aa is open' => ['aa', fn (array $p): bool => $p['J'] > 0.6 && abs($p['W']) < 0.3],
    'iy is wide and almost shut' => ['iy', fn (array $p): bool => $p['W'] > 0.8 && $p['J'] < 0.25],
    'uw is pursed' => ['uw', fn (array $p): bool => $p['W'] < -0.75 && $p['J'] < 0.25],
    'ao is a funnel' => ['ao', fn (array $p): bool => $p['F'] > 0.5 && $p['J'] > 0.4],
    'ow closes to a purse' => ['ow', fn (array $p): bool => $p['W'] < -0.2 && $p['F'] > 0.2],
]);

test('lips round before the sound does, and a breath opens them', function (): void {
    $mouth = new Mouth(spokenAs([['w', 80], ['iy', 160]]), 1 / 24);
    expect($mouth->parameters(0.25)['W'])->toBeLessThan(-0.3);
    // The breath is over by 50 ms before the phrase.
    $breath = (new Mouth(spokenAs([['t', 80], ['iy', 160]]), 1 / 24))->parameters(0.10);
    expect($breath['J'])->toBeGreaterThan(0.08)->toBeLessThan(0.2);
});

test('the mouth is still from 0.3 s after the last sound on, and before the first', function (): void {
    $reading = spokenAs([['aa', 120], ['b', 80], ['ow', 200]]);
    $mouth = new Mouth($reading, 1 / 24);
    for ($t = $reading->spoken()[1] + 0.3; $t < $reading->seconds + 1.0; $t += 0.02) {
        expect(max([0.0, ...array_values($mouth->at($t))]))->toBeLessThan(0.02);
    }
    expect($mouth->at(-0.2))->toBe([]);
});

test('apart from closures no shape jumps by more than 0.35 a frame at 24 frames a second', function (): void {
    $most = 0.0;
    foreach (array_slice(hundredLines(), 0, 30) as $line) {
        $reading = Guess::of($line);
        $mouth = new Mouth($reading, 1 / 24);
        $before = [];
        for ($f = 0; $f < $reading->seconds * 24 + 8; $f++) {
            $p = $mouth->parameters($f / 24);
            foreach (['J', 'U', 'L'] as $name) {
                $most = max($most, abs($p[$name] - ($before[$name] ?? 0.0)));
            }
            $before = $p;
        }
    }
    expect($most)->toBeLessThan(0.35);
});

test('loud places open the mouth further than soft ones', function (): void {
    $phones = spokenAs([['aa', 200], ['t', 60], ['aa', 200]])->phones;
    $loud = array_map(static fn (int $i): float => $i < 53 ? 0.02 : 0.10, range(0, 105));
    $mouth = new Mouth(new Reading(1.06, $phones, [], $loud), 1 / 24);
    expect($mouth->parameters(0.65)['J'])->toBeGreaterThan(1.2 * $mouth->parameters(0.38)['J']);
});

test('a reading of nothing has a mouth that does nothing', function (): void {
    expect((new Mouth(new Reading(0.5, [], []), 1 / 24))->at(0.2))->toBe([])
        ->and((new Mouth(Guess::of(''), 1 / 24))->at(0.1))->each->toBeLessThan(0.2);
});
