<?php

declare(strict_types=1);

use CrispReel\Core\Kit\Figure\Face;
use CrispReel\Core\Kit\Figure\MouthForm;
use CrispReel\Core\Math\V3;

test('rows of a mouth\'s inside lie one below the other, whatever the mouth does', function (string $shape): void {
    [$in, $to] = Face::mouths()[$shape];
    foreach ([$in, $to] as $form) {
        foreach ([-0.99, -0.6, -0.2, 0.0, 0.3, 0.8, 0.99] as $u) {
            $rows = $form->rows($u);
            expect($rows)->toHaveCount(6);
            for ($k = 1; $k < 6; $k++) {
                expect($rows[$k])->toBeLessThanOrEqual($rows[$k - 1] + 1e-12, "{$shape}, row {$k} at {$u}");
            }
        }
    }
})->with(array_keys(Face::mouths()));

test('the edge of the teeth hangs from the skull while the lower lip goes down', function (): void {
    $rest = new MouthForm;
    foreach ([0.008, 0.012, 0.020] as $low) {
        expect($rest->with(['low' => $low])->rows(0.0)[1])->toEqualWithDelta(-0.0062, 1e-9);
    }
    // Of a purse none show; of a shut mouth there is no room for them.
    expect(Face::mouths()['pucker'][1]->rows(0.0)[1])->toEqualWithDelta(Face::mouths()['pucker'][1]->rows(0.0)[0], 1e-9);
    $shut = Face::mouths()['press'][1]->rows(0.0);
    expect($shut[0] - $shut[5])->toBeLessThan(0.003);
});

test('a tongue fills the opening below the teeth', function (): void {
    [$open, $up] = Face::mouths()['tongueUp'];
    expect($up->rows(0.0)[4])->toBeGreaterThan($open->rows(0.0)[4] + 0.002)->toBeLessThan($up->rows(0.0)[1]);
});

test('one side is drawn without the other, and both meet in the middle', function (): void {
    $left = Face::mouths()['stretchL'][1];
    expect($left->x(1.0))->toEqualWithDelta(0.044, 1e-9)->and($left->x(-1.0))->toEqualWithDelta(-0.034, 1e-9)
        ->and($left->x(0.0))->toBe(0.0);
    $up = Face::mouths()['cornerUpR'][1];
    expect($up->y(-1.0, true) - $up->y(1.0, true))->toEqualWithDelta(0.014, 1e-9)
        ->and($up->y(0.0, true))->toEqualWithDelta((new MouthForm)->y(0.0, true), 1e-9);
});

test('the whole mouth goes aside, its middle further than its corners', function (): void {
    $aside = Face::mouths()['mouthL'][1];
    expect($aside->x(0.0))->toEqualWithDelta(0.011, 1e-9)->and($aside->x(1.0) - 0.034)->toBeBetween(0.005, 0.0105);
});

test('skin follows: the chin drops with the jaw, cheeks swell on their own side, far places stay', function (): void {
    $chin = Face::follow('jawOpen', [0.0, -0.125, 0.08]);
    expect($chin[1])->toBeLessThan(-0.02)->and($chin[2])->toBeLessThan(-0.003)
        ->and(V3::length(Face::follow('jawOpen', [0.0, 0.05, 0.10])))->toBe(0.0)
        ->and(Face::follow('chinUp', [0.0, -0.125, 0.08])[1])->toBeGreaterThan(0.006);
    $left = [0.062, -0.045, 0.085];
    $right = [-0.062, -0.045, 0.085];
    expect(Face::follow('cheekL', $left)[1])->toEqualWithDelta(0.010, 1e-9)
        ->and(V3::length(Face::follow('cheekL', $right)))->toBeLessThan(1e-4)
        ->and(Face::follow('cheekR', $right)[0])->toBeLessThan(0.0)->and(Face::follow('cornerDownL', $left)[1])->toBeLessThan(0.0)
        ->and(Face::follow('sneerR', [-0.024, -0.036, 0.135])[1])->toBeGreaterThan(0.009);
});

test('every shape of the face is drawn by something, and each has its name once', function (): void {
    $drawn = ['seal', ...array_keys(Face::mouths())];
    foreach (['L', 'R'] as $side) {
        foreach ([...array_keys(Face::LIDS), ...array_keys(Face::BROWS)] as $kind) {
            $drawn[] = $kind.$side;
        }
    }
    expect(array_diff(Face::MORPHS, $drawn))->toBe([])->and(array_diff($drawn, Face::MORPHS))->toBe([])
        ->and(array_unique(Face::MORPHS))->toHaveCount(35)->and(array_diff(Face::OF_SKIN, Face::MORPHS))->toBe([]);
});
