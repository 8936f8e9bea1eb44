<?php

declare(strict_types=1);

use App\Scenes\DocumentBuilder;

test('the plan of a room has its walls with gaps for the door and the window, and is nobody else\'s to see', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'kitchen', 'home' => true], ['do' => 'item.add', 'asset' => 'hand-cart', 'position' => [0, 0, 3]],
    ]);
    $assets = DocumentBuilder::build($scene->refresh())->assets;
    $blob = static fn (string $kind): string => array_values(array_filter($assets, static fn ($a): bool => $a->kind === $kind))[0]->blob;
    $of = $blob('set').','.$blob('prop').','.str_repeat('0', 64);
    $plans = $this->actingAs($user)->getJson("/api/scenes/{$scene->id}/plans?of={$of}")->assertOk()->json('plans');
    expect(array_keys($plans))->toEqualCanonicalizing([$blob('set'), $blob('prop')]);
    [$storey] = $plans[$blob('set')];
    expect($plans[$blob('set')])->toHaveCount(1)->and($storey['y'])->toEqualWithDelta(0.01, 0.03)
        ->and(count($storey['walls']))->toBeGreaterThan(4)->and(count($storey['floor']))->toBeGreaterThan(60);
    // A table, a dresser and more stand on the floor; the cart has no storey to walk in.
    expect(count($storey['things']))->toBeGreaterThan(count($storey['walls']))->and($plans[$blob('prop')][0]['walls'])->toBe([]);
    $this->actingAs($this->person('Stranger'))->getJson("/api/scenes/{$scene->id}/plans?of={$of}")->assertNotFound();
});
