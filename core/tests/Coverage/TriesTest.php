<?php

declare(strict_types=1);

use CrispReel\Core\Coverage\Tries;
use CrispReel\Core\Document\Framing;

function triesOf(Framing $f): array
{
    return array_map(
        static fn (Framing $t): array => [$t->sideDeg, $t->height, $t->focalMm, $t->room],
        iterator_to_array(Tries::of($f), false),
    );
}

test('a framing is tried as it is, then aside by small steps, from higher up, with wider lenses', function (): void {
    $all = triesOf(new Framing('f1', 'c1', 'i1', sideDeg: 170.0, focalMm: 50.0));
    expect($all[0])->toBe([170.0, 'level', 50.0, 1.0])
        ->and(array_column(array_slice($all, 0, 5), 0))->toBe([170.0, 178.0, 162.0, -174.0, 154.0])
        ->and(count($all))->toBeLessThanOrEqual(40);
    $heights = array_unique(array_column($all, 1));
    $lenses = array_unique(array_column($all, 2));
    expect(array_values($heights))->toBe(['level', 'high'])->and(array_values($lenses))->toBe([50.0, 35.0, 28.0, 24.0]);
    foreach ($all as [$side]) {
        expect(abs($side))->toBeLessThanOrEqual(180.0);
    }
});

test('one of two alone is tried farther off the line, on the same side of it', function (float $side): void {
    $all = triesOf(new Framing('f1', 'c1', 'i1', 'i2', sideDeg: $side));
    expect($all[0])->toBe([$side, 'level', 50.0, 1.0])->and(min(array_map(abs(...), array_column($all, 0))))->toBe(abs($side));
    foreach ($all as [$tried]) {
        expect($tried * $side)->toBeGreaterThan(0.0);
    }
    // The look room shrinks, and then leads her to the other half.
    expect(array_values(array_unique(array_column($all, 3))))->toBe([1.0, 0.0, -0.45, -0.8]);
})->with([24.0, -32.0]);

test('what was changed is said', function (array $got, string $says): void {
    $asked = new Framing('f1', 'c1', 'i1', sideDeg: 10.0);
    expect(Tries::changed($asked, Tries::with($asked, $got), 'Table'))->toBe($says);
})->with([
    'aside' => [['sideDeg' => -6.0], '16° aside: Table is in the way.'],
    'higher' => [['height' => 'high'], 'From higher up: Table is in the way.'],
    'another lens' => [['focalMm' => 28.0], 'With 28 mm: Table is in the way.'], 'nothing' => [[], ''],
]);
