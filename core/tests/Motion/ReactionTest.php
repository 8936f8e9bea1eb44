<?php

declare(strict_types=1);

use CrispReel\Core\Motion\Model\Reaction;
use CrispReel\Core\Motion\Model\ScoreBook;

test('what is done before the blow stays, what follows is scaled', function (): void {
    $sheet = ['seconds' => 2.0, 'reacts' => 0.6, 'keys' => [
        [0.3, ['head' => [10, 0, 0]]],
        [0.9, ['head' => [-30, 6, 0], 'hip' => [0.0, 0.02, -0.1], 'footR' => [-0.13, -0.42, -16, 0, 0], 'armL' => 'fling']],
    ]];
    $half = Reaction::of($sheet, 0.5);
    expect($half['keys'][0])->toBe($sheet['keys'][0])->and($half['keys'][1][1]['head'])->toBe([-15.0, 3.0, 0.0])
        ->and($half['keys'][1][1]['hip'])->toBe([0.0, 0.01, -0.05])->and($half['keys'][1][1]['armL'])->toBe('fling')
        // A foot steps half as far from where it stands: -0.02 - 0.40 / 2.
        ->and($half['keys'][1][1]['footR'][1])->toEqualWithDelta(-0.22, 1e-9)
        ->and(Reaction::of($sheet, 1.0))->toBe($sheet);
    $plain = ['seconds' => 1.0, 'keys' => []];
    expect(Reaction::of($plain, 1.4))->toBe($plain);
});

test('hard enough, the blow ends in the fall', function (): void {
    foreach (array_filter(ScoreBook::all(), static fn (array $s): bool => isset($s['reacts'])) as $name => $sheet) {
        $fallen = Reaction::of($sheet, Reaction::FALLS);
        $times = array_column($fallen['keys'], 0);
        $sorted = $times;
        sort($sorted);
        expect($times)->toBe($sorted, $name)->and(end($fallen['keys'])[0])->toBeLessThanOrEqual($fallen['seconds'] + 1e-9)
            ->and($fallen['seconds'])->toBeGreaterThan($sheet['reacts'] + 2.0);
    }
});
