<?php

declare(strict_types=1);

use CrispReel\Core\Document\Shot;
use CrispReel\Core\Reel\Blend;
use CrispReel\Core\Reel\Blends;

/** @return list<list<mixed>> from, to, what is left, what comes, colour */
function blends(Shot ...$shots): array
{
    return array_map(static fn (Blend $b): array => array_values($b->toArray()), Blends::of(array_values($shots)));
}

it('lays dissolves around their cut and fades to both of its sides', function (): void {
    expect(blends(
        new Shot('s1', 'A', 0, 100, begins: 'black', beginsOver: 24),
        new Shot('s2', 'B', 100, 200, begins: 'dissolve', beginsOver: 12),
        new Shot('s3', 'C', 200, 300, begins: 'white', beginsOver: 9),
        new Shot('s4', 'A', 300, 400),
        new Shot('s5', 'B', 400, 480, ends: 'black', endsOver: 30),
    ))->toBe([
        [0, 24, null, 'A', 'black'],
        [94, 106, 'A', 'B', null],
        [196, 200, 'B', null, 'white'],
        [200, 205, null, 'C', 'white'],
        [450, 480, 'B', null, 'black'],
    ]);
});

it('takes no more than half of a shot, so that two never meet', function (): void {
    $all = Blends::of([
        new Shot('s1', 'A', 0, 10, begins: 'black', beginsOver: 48),
        new Shot('s2', 'B', 10, 16, begins: 'dissolve', beginsOver: 48),
        new Shot('s3', 'C', 16, 17, begins: 'dissolve', beginsOver: 48, ends: 'white', endsOver: 48),
    ]);

    expect(array_map(static fn (Blend $b): array => [$b->from, $b->to], $all))->toBe([[0, 5], [5, 13], [13, 16]]);
});

it('never meets, whatever is asked for', function (): void {
    mt_srand(5);
    for ($n = 0; $n < 300; $n++) {
        $at = 0;
        $shots = [];
        for ($i = 0; $i < 8; $i++) {
            $to = $at + mt_rand(1, 40);
            $shots[] = new Shot(
                "s{$i}", chr(65 + mt_rand(0, 3)), $at, $to, begins: Shot::BEGINS[mt_rand(0, 3)], beginsOver: mt_rand(1, 60),
                ends: Shot::ENDS[mt_rand(0, 2)], endsOver: mt_rand(1, 60),
            );
            $at = $to;
        }
        $last = 0;
        foreach (Blends::of($shots) as $b) {
            expect($b->from)->toBeGreaterThanOrEqual($last)->and($b->to)->toBeGreaterThan($b->from);
            $last = $b->to;
        }
        expect($last)->toBeLessThanOrEqual($at);
    }
});

it('has nothing to dissolve from at the beginning, or behind a gap', function (): void {
    expect(blends(
        new Shot('s1', 'A', 0, 40, begins: 'dissolve'), new Shot('s2', 'B', 50, 90, begins: 'dissolve'),
    ))->toBe([]);
});

it('passes evenly, and alike from both sides', function (): void {
    $blend = new Blend(10, 14, 'A', 'B');
    expect(array_map($blend->share(...), [9, 10, 11, 12, 13, 14]))->toBe([0.0, 0.125, 0.375, 0.625, 0.875, 1.0]);
});
