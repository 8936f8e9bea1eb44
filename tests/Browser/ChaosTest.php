<?php

declare(strict_types=1);

use App\Bench\Chaos;

test('parts are killed while somebody edits and a film is rendered: all are back in time, and nothing is lost', function (): void {
    $result = app(Chaos::class)->run(25, 20261130, 24, static fn (string $text) => null);
    expect($result['lost'])->toBe([])->and($result['kills'])->toBeGreaterThan(3)->and($result['edits_acknowledged'])->toBeGreaterThan(6);
});
