<?php

declare(strict_types=1);

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Kit\Sounds\Synth;
use CrispReel\Core\Sound\WavePicture;

test('a file has the chunks that the format asks for, byte by byte', function (): void {
    $wav = (new Wave(8000, [0.0, 1.0, -1.0, 0.5]))->toWav();
    expect(bin2hex($wav))->toBe(implode('', [
        bin2hex('RIFF'), '2c000000', bin2hex('WAVEfmt '), '10000000', '0100', '0100', '401f0000', '803e0000', '0200', '1000',
        bin2hex('data'), '08000000',
        '0000', 'ff7f', '0180', '0040',
    ]));
});

test('samples come back from a file as they went in, to a step and a half', function (): void {
    $in = Synth::noise(0.5, 5);
    $out = Wave::fromPcm($in->rate, substr($in->toWav(), 44));
    expect(count($out->samples))->toBe(count($in->samples));
    foreach ($in->samples as $i => $s) {
        expect(abs($out->samples[$i] - $s))->toBeLessThan(1.5 / 32768);
    }
    expect(Wave::fromPcm(8000, '')->samples)->toBe([])->and(Wave::fromPcm(8000, "\x00\x80\x01")->samples)->toBe([-1.0]);
});

test('what is louder than a file can hold is cut there, and not turned over', function (): void {
    expect(unpack('v*', substr((new Wave(8000, [1.7, -3.0]))->toWav(), 44)))->toBe([1 => 32767, 2 => 0x8001]);
});

test('level, peak and outline by hand', function (): void {
    $w = new Wave(4, [0.0, 0.6, -0.8, 0.0, 0.2, -0.1, 0.0, 0.0]);
    expect($w->seconds())->toBe(2.0)->and($w->peak())->toBe(0.8)->and($w->level())
        ->toEqualWithDelta(sqrt((0.36 + 0.64 + 0.04 + 0.01) / 8), 1e-12)->and($w->level(0.0, 1.0))->toEqualWithDelta(0.5, 1e-12);
    expect($w->outline(4))->toBe([0.6, 0.8, 0.2, 0.0])->and($w->outline(16))->toHaveCount(16)->and((new Wave(4, []))->outline(3))
        ->toBe([0.0, 0.0, 0.0])->and((new Wave(4, []))->level())->toBe(0.0);
});

test('laying over adds, from the moment it is told, and cuts what does not fit', function (): void {
    $base = new Wave(4, [1.0, 1.0, 1.0, 1.0]);
    expect($base->mix(new Wave(4, [0.5, 0.5, 0.5]), 0.5, 0.2)->samples)->toBe([1.0, 1.0, 1.1, 1.1]);
    expect((new Wave(4, [0.0, 0.0]))->mix(new Wave(4, [1.0, 2.0, 3.0]), -0.25)->samples)->toBe([2.0, 3.0]);
});

test('levelled: no constant pressure, and the loudest as loud as asked', function (): void {
    $w = (new Wave(8, [0.5, 0.9, 0.5, 0.1]))->levelled(0.7);
    expect(array_sum($w->samples))->toEqualWithDelta(0.0, 1e-12)->and($w->peak())->toEqualWithDelta(0.7, 1e-12);
    expect((new Wave(8, [0.0, 0.0]))->levelled(0.7)->samples)->toBe([0.0, 0.0]);
});

test('fades begin and end in silence and leave the middle', function (): void {
    $w = (new Wave(10, array_fill(0, 10, 1.0)))->faded(0.4, 0.2);
    expect($w->samples)->toEqualWithDelta([0.0, 0.25, 0.5, 0.75, 1.0, 1.0, 1.0, 1.0, 0.5, 0.0], 1e-12);
});

test('a loop of noise is as loud over its seam as elsewhere, and goes on without a jump', function (): void {
    $rough = Synth::low(Synth::noise(3.0, 8), 300.0);
    $loop = $rough->looped(0.5);
    expect($loop->seconds())->toEqualWithDelta(2.5, 1e-9);
    $steps = [];
    foreach ($loop->samples as $i => $s) {
        $steps[] = abs($s - $loop->samples[($i + 1) % count($loop->samples)]);
    }
    expect(end($steps))->toBeLessThanOrEqual(max(array_slice($steps, 0, -1)))->and($loop->level(0.0, 0.5) / $loop->level(1.0, 2.5))
        ->toBeBetween(0.7, 1.4);
});

test('a struck body rings at its pitches and has lost sixty decibels when it is told to have died', function (): void {
    $w = Synth::struck(2.0, [[600.0, 1.0, 1.0], [1500.0, 0.5, 0.4]]);
    expect(toneIn($w, 600.0, 0.0, 0.1))->toBeGreaterThan(0.5)->and(toneIn($w, 1500.0, 0.0, 0.1))->toBeGreaterThan(0.15)
        ->and(toneIn($w, 900.0, 0.0, 0.1))->toBeLessThan(0.05);
    // From a tenth of a second to 0.6 s: half of the way to a thousandth is a factor of 31.6.
    expect(toneIn($w, 600.0, 0.10, 0.15) / toneIn($w, 600.0, 0.60, 0.65))->toEqualWithDelta(31.6, 1.5);
});

test('filters pass what they are to pass', function (): void {
    $mixed = Synth::tone(1.0, 200.0, [1.0])->mix(Synth::tone(1.0, 2000.0, [1.0]));
    // One octave of a filter of two poles is 12 decibels; 200 to 2000 Hz are more than three.
    expect(toneIn(Synth::low($mixed, 500.0), 200.0, 0.2))->toEqualWithDelta(1.0, 0.03)->and(toneIn(Synth::low($mixed, 500.0), 2000.0, 0.2))
        ->toBeLessThan(0.08);
    expect(toneIn(Synth::high($mixed, 800.0), 2000.0, 0.2))->toEqualWithDelta(1.0, 0.03)
        ->and(toneIn(Synth::high($mixed, 800.0), 200.0, 0.2))->toBeLessThan(0.08);
    $band = Synth::band($mixed, 2000.0, 8.0);
    expect(toneIn($band, 2000.0, 0.2))->toEqualWithDelta(1.0, 0.01)->and(toneIn($band, 200.0, 0.2))->toBeLessThan(0.02);
    // At the corner a filter of this kind has lost three decibels.
    expect(toneIn(Synth::low(Synth::tone(1.0, 500.0, [1.0]), 500.0), 500.0, 0.2))->toEqualWithDelta(M_SQRT1_2, 0.01);
});

test('a tone has the harmonics that it is given, also where its pitch moves', function (): void {
    $w = Synth::tone(1.0, 220.0, [0.8, 0.0, 0.4]);
    expect(toneIn($w, 220.0))->toEqualWithDelta(0.8, 0.01)->and(toneIn($w, 440.0))->toBeLessThan(0.01)->and(toneIn($w, 660.0))
        ->toEqualWithDelta(0.4, 0.01);
    $glide = Synth::tone(1.0, static fn (float $t): float => 200.0 + 400.0 * $t, [1.0]);
    $crossings = 0;
    foreach (array_slice($glide->samples, 1, null, true) as $i => $s) {
        $crossings += $glide->samples[$i - 1] < 0 && $s >= 0 ? 1 : 0;
    }
    // The mean pitch is 400.
    expect($crossings)->toBeBetween(398, 401);
});

test('a room makes a blow last, and not louder than the blow', function (): void {
    $dry = Synth::tap(0.02, 1000.0, 1.0, 3);
    $tail = static fn (float $seconds): float => Synth::roomy(Wave::silence(Synth::RATE, 1.5)->mix($dry), $seconds, 0.6)->level(0.5, 0.7);
    expect($tail(0.3))->toBeLessThan($tail(1.0))->and($tail(1.0))->toBeLessThan($tail(2.5))
        ->and(Synth::roomy(Wave::silence(Synth::RATE, 1.5)->mix($dry), 1.0, 0.6)->peak())->toBeLessThan(1.3 * $dry->peak());
});

test('the picture of a sound shows where it is loud', function (): void {
    $w = Wave::silence(1000, 2.0)->mix(Synth::tone(0.5, 100.0, [0.8]), 0.0);
    $w = new Wave(1000, array_map(static fn (int $i): float => $i < 1000 ? sin($i) : 0.0, range(0, 1999)));
    $image = imagecreatefromstring(WavePicture::of($w));
    $ink = static fn (int $x): int => count(array_filter(
        range(0, 239),
        static fn (int $y): bool => (imagecolorat($image, $x, $y) & 0xFFFFFF) === 0x0A6E6E,
    ));
    [$loud, $soft] = [max(array_map($ink, range(16, 150))), max(array_map($ink, range(170, 300)))];
    expect([imagesx($image), imagesy($image)])->toBe([320, 240])->and($loud)->toBeGreaterThan(150)->and($soft)->toBeBetween(1, 4);
});
