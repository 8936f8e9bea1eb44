<?php

declare(strict_types=1);

use CrispReel\Core\Kit\Figure\FigureSpec;

test('hands are shaken by drawn palms, whoever the two are', function (string $a, string $b): void {
    [$gap, $deep] = touched(meets('shakeHands', $a, $b), 'A', 'R', 1.12, 2.40);
    expect($gap)->toBeLessThan(1.0)->and($deep)->toBeLessThan(1.0);
})->with(static function (): array {
    $out = [];
    $house = array_keys(FigureSpec::house());
    foreach ($house as $i => $a) {
        foreach (array_slice($house, $i + 1) as $b) {
            $out[] = [$a, $b];
        }
    }

    return $out;
});

test('of another scale, too', function (): void {
    [$gap, $deep] = touched(meets('shakeHands', 'oda-ferrant', 'bram-tiel', [], 1.25), 'A', 'R', 1.12, 2.40);
    expect($gap)->toBeLessThan(1.0)->and($deep)->toBeLessThan(1.0);
});
