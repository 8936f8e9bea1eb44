<?php

declare(strict_types=1);

use CrispReel\Core\Sound\Peaks;

test('peaks are the loudest sample of each hundredth of a second, either way', function (): void {
    $pcm = pack('s*', ...array_fill(0, 80, 0), ...array_fill(0, 79, 100), ...[-32768], ...array_fill(0, 80, 16384));
    $peaks = Peaks::of($pcm);
    expect($peaks['perSecond'])->toBe(100)->and(array_values((array) unpack('C*', $peaks['levels'])))->toBe([0, 255, 128]);
});

test('what is very long gets coarser peaks and not more of them; half a sample is none', function (): void {
    $peaks = Peaks::of(str_repeat(pack('s', 1000), 8000 * 1200).'x');
    expect(strlen($peaks['levels']))->toBe(60000)->and($peaks['perSecond'])->toBe(50)->and(ord($peaks['levels'][59999]))->toBe(8)
        ->and(Peaks::of(''))->toBe(['perSecond' => 100, 'levels' => '']);
});
