<?php

declare(strict_types=1);

use CrispReel\Core\Motion\Blinks;
use CrispReel\Core\Motion\ClipTable;

/** @return list<float> seconds between one and the next */
function gapsOf(array $at): array
{
    return array_map(static fn (int $n): float => $at[$n + 1] - $at[$n], range(0, count($at) - 2));
}

test('whoever lives blinks eight to twenty times a minute, two to six seconds apart when calm', function (): void {
    foreach (['calm', 'tense', 'cold', 'tired'] as $kind) {
        foreach (range(1, 20) as $seed) {
            $at = (new Blinks($kind, $seed))->within(0.0, 60.0);
            expect(count($at))->toBeBetween(8, 20, "{$kind} {$seed}")->and(min(gapsOf($at)))->toBeGreaterThan(1.5);
            if ($kind === 'calm') {
                expect(min(gapsOf($at)))->toBeGreaterThanOrEqual(2.0)->and(max(gapsOf($at)))->toBeLessThanOrEqual(6.0);
            }
        }
    }
});

test('lids are shut for three frames down and four up, and open in between', function (): void {
    $blinks = new Blinks('calm', 7);
    [$at] = $blinks->within(0.0, 8.0);
    $by = array_map(static fn (int $n): float => $blinks->at($at + $n / 24), [-4, -3, -2, -1, 0, 1, 2, 3, 4, 5]);
    expect($by[0])->toBe(0.0)->and($by[1])->toBe(0.0)->and($by[4])->toBe(1.0)->and($by[8])->toBeLessThan(0.01)->and($by[9])->toBe(0.0);
    foreach ([1, 2, 3] as $n) {
        expect($by[$n + 1])->toBeGreaterThan($by[$n])->and($by[$n + 4])->toBeLessThan($by[$n + 3]);
    }
});

test('a blink goes to the end of a phrase, and sooner to where the eyes go elsewhere', function (): void {
    $phrase = new Blinks('calm', 3, [], [9.0, 9.9]);
    $both = new Blinks('calm', 3, [10.4], [9.0]);
    $near = static fn (array $at, float $to): array => array_filter($at, static fn (float $t): bool => $t >= $to && $t <= $to + 0.15);
    // The slot from 8 to 12 has its blink between 9 and 11.
    expect($near($phrase->within(8.0, 12.0), 9.0))->toHaveCount(1)->and($near($both->within(8.0, 12.0), 10.4))->toHaveCount(1)
        ->and($near($both->within(8.0, 12.0), 9.0))->toBe([]);
});

test('where lids are taken there is no part of a blink', function (): void {
    $free = (new Blinks('calm', 5))->within(0.0, 60.0);
    $taken = new Blinks('calm', 5, [], [], [[$free[3] + 0.1, $free[3] + 0.4], [$free[6] - 9.0, $free[6] - 0.05]]);
    $left = $taken->within(0.0, 60.0);
    expect($left)->not->toContain($free[3])->not->toContain($free[6])->not->toContain($free[5])->toContain($free[2]);
    for ($t = $free[6] - 9.0; $t < $free[6] - 0.05; $t += 1 / 24) {
        expect($taken->at($t))->toBe(0.0);
    }
});

test('a motion that shuts and opens the lids itself is known by its rows', function (): void {
    $row = static fn (float $lid): array => [0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, $lid, 0.0, 0.0, 0.0];
    $table = static fn (float ...$lids): ClipTable => ClipTable::fromRows(
        24.0, 1, ['blink'], count($lids), array_merge(...array_map($row, $lids)), false,
    );
    expect($table(0.0, 0.2, 0.9, 0.1)->moves(7, 0.5))->toBeTrue()->and($table(0.0, 0.2, 0.4)->moves(7, 0.5))->toBeFalse()
        ->and($table(0.9, 1.0, 0.8)->moves(7, 0.5))->toBeFalse();
});
