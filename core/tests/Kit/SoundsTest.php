<?php

declare(strict_types=1);

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Kit\Sounds\Living;
use CrispReel\Core\Kit\Sounds\SoundKit;
use CrispReel\Core\Kit\Sounds\Steps;
use CrispReel\Core\Kit\Sounds\Things;
use CrispReel\Core\Kit\Sounds\Weather;

/** @return array<string, array{slug: string, name: string, tags: list<string>, wave: Wave, loops: bool}> */
function houseSounds(): array
{
    static $made = null;
    if ($made === null) {
        foreach (SoundKit::all() as $s) {
            $made[$s['slug']] = $s;
        }
    }

    return $made;
}

/** Moments at which a sound suddenly grows loud, seconds. @return list<float> */
function onsets(Wave $wave, float $share = 0.25, float $apart = 0.12): array
{
    $out = [];
    $peaks = $wave->outline((int) ($wave->seconds() * 100));
    $most = max($peaks);
    foreach ($peaks as $n => $p) {
        if ($p > $share * $most && ($n === 0 || $peaks[$n - 1] < 0.6 * $p) && ($out === [] || $n / 100 - end($out) > $apart)) {
            $out[] = $n / 100;
        }
    }

    return $out;
}

test('thirty sounds and more, each with a name, words, a length and no silence', function (): void {
    $all = houseSounds();
    expect(count($all))->toBeGreaterThanOrEqual(30)->and(count(array_unique(array_column($all, 'name'))))->toBe(count($all));
    foreach ($all as $slug => $s) {
        expect($s['wave']->seconds())->toBeBetween(0.5, 12.0, $slug)->and(count($s['tags']))->toBeGreaterThan(2, $slug)
            ->and($s['wave']->level())->toBeGreaterThan(0.01, $slug);
    }
});

test('none is cut by being too loud, none has a constant pressure, every sample is a number', function (): void {
    foreach (houseSounds() as $slug => $s) {
        $mean = array_sum($s['wave']->samples) / count($s['wave']->samples);
        expect($s['wave']->peak())->toBeBetween(0.35, 0.95, $slug)->and(abs($mean))->toBeLessThan(1e-6, $slug)
            ->and(is_finite(array_sum($s['wave']->samples)))->toBeTrue($slug);
    }
});

test('what sounds once ends in silence, what goes on for ever has no click at its seam', function (): void {
    foreach (houseSounds() as $slug => $s) {
        $w = $s['wave'];
        if (! $s['loops']) {
            expect($w->level($w->seconds() - 0.01) / $w->peak())->toBeLessThan(0.02, $slug);

            continue;
        }
        $steps = [];
        $last = end($w->samples);
        foreach ($w->samples as $v) {
            $steps[] = abs($v - $last);
            $last = $v;
        }
        // The first step is that over the seam.
        expect($steps[0])->toBeLessThanOrEqual(max(array_slice($steps, 1)), $slug);
    }
});

test('the bell has the partials of a bell: a fifth of its octave, a minor third, the octave, and between them nothing', function (): void {
    $bell = Things::bell();
    foreach ([330.0, 660.0, 792.0, 1320.0] as $hertz) {
        expect(toneIn($bell, $hertz, 0.1, 0.6))->toBeGreaterThan(6 * toneIn($bell, 0.87 * $hertz, 0.1, 0.6));
    }
    // The hum lasts longer than the octave.
    expect(toneIn($bell, 330.0, 2.5, 3.0) / toneIn($bell, 330.0, 0.1, 0.6))
        ->toBeGreaterThan(3 * toneIn($bell, 1320.0, 2.5, 3.0) / toneIn($bell, 1320.0, 0.1, 0.6));
});

test('things happen as often as they are called', function (): void {
    expect(onsets(Things::knock()))->toHaveCount(3)->and(onsets(Things::bellThree(), 0.4, 0.5))->toHaveCount(3)
        ->and(onsets(Things::clockStrikes(), 0.4, 0.5))->toHaveCount(2);
    $steps = [Steps::wood(), Steps::stone(), Steps::gravel(), Steps::earth(), Steps::carpet(), Steps::metal(), Steps::water()];
    foreach ([...$steps, Things::clockTicks()] as $even) {
        $at = onsets($even, 0.25, 0.3);
        expect($at)->toHaveCount(8);
        foreach (array_slice($at, 1) as $n => $t) {
            expect($t - $at[$n])->toEqualWithDelta(0.5, 0.021);
        }
    }
});

test('the fiddle plays its notes in tune', function (): void {
    $fiddle = Things::fiddle();
    foreach ([[293.66, 0.15, 0.45], [369.99, 0.65, 0.95], [440.0, 1.2, 1.6], [493.88, 1.85, 2.15]] as [$hertz, $from, $to]) {
        $heard = array_map(
            static fn (int $cents): float => toneIn($fiddle, $hertz * 2 ** ($cents / 1200), $from, $to),
            [-200, -100, 0, 100, 200],
        );
        expect(array_search(max($heard), $heard, true))->toBe(2);
    }
});

test('what is low is low and what is high is high', function (): void {
    // Share of the sound above a pitch, by what a step from sample to sample is worth.
    $brightness = static function (Wave $w): float {
        $sum = $all = 0.0;
        foreach ($w->samples as $i => $s) {
            $sum += $i > 0 ? ($s - $w->samples[$i - 1]) ** 2 : 0.0;
            $all += $s * $s;
        }

        return sqrt($sum / $all) * $w->rate / (2 * M_PI);
    };
    $b = array_map($brightness, [
        'thunder' => Weather::thunder(), 'engine' => Things::engine(), 'horn' => Things::horn(), 'gulls' => Living::gulls(),
        'rain' => Weather::rain(), 'crickets' => Living::crickets(),
    ]);
    expect($b['thunder'])->toBeLessThan(700.0)->and($b['engine'])->toBeLessThan(300.0)->and($b['horn'])->toBeBetween(100.0, 600.0)
        ->and($b['gulls'])->toBeBetween(1000.0, 4000.0)->and($b['rain'])->toBeGreaterThan(2000.0)->and($b['crickets'])
        ->toEqualWithDelta(4300.0, 250.0);
});

test('the same sound is made again, bit for bit', function (): void {
    foreach ([
        [Things::key(...), 'sound-key'], [Living::gulls(...), 'sound-gulls'], [Weather::splash(...), 'sound-splash'],
    ] as [$make, $slug]) {
        expect(hash('sha256', $make()->toWav()))->toBe(hash('sha256', houseSounds()[$slug]['wave']->toWav()));
    }
});
