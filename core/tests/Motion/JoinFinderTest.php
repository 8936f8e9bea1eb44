<?php

declare(strict_types=1);

use CrispReel\Core\Motion\JoinFinder;

test('a motion joins itself at the same moment, at no distance', function (): void {
    $walk = solved('oda', 'walk');
    $found = (new JoinFinder(figure('oda')))->best($walk, [0.9, 0.9], $walk, [0.0, $walk->seconds()]);
    expect($found['enter'])->toEqualWithDelta(0.9, 0.05)->and($found['distance'])->toBeLessThan(0.03);
});

test('the best joint beats end to start, and says by how much', function (): void {
    // Left in the middle of a wave the arm is up; the end of a wave is the start of a talk.
    $wave = solved('oda', 'wave');
    $talk = solved('oda', 'talk', ['seconds' => 8]);
    $found = (new JoinFinder(figure('oda')))->best($wave, [1.2, 1.7], $talk, [0.0, 6.0]);
    expect($found['distance'])->toBeLessThan($found['plain'])->and($found['better'])
        ->toEqualWithDelta(1 - $found['distance'] / $found['plain'], 1e-9)->and($found['better'])->toBeGreaterThan(0.05);
    $rest = (new JoinFinder(figure('oda')))->best($wave, [2.0, $wave->seconds()], $talk, [0.0, 0.4]);
    expect($rest['distance'])->toBeLessThan($found['distance']);
});

test('place and heading of the motions do not matter', function (): void {
    $walk = solved('oda', 'walk');
    // A stride later the same walk is elsewhere; it still joins where the legs agree.
    $found = (new JoinFinder(figure('oda')))->best($walk, [1.3, 1.5], $walk, [0.0, 1.0]);
    expect($found['distance'])->toBeLessThan(0.05);
});
