<?php

declare(strict_types=1);

use App\Bench\Figures;
use App\Bench\FramingBench;
use App\Models\Production;
use App\Models\User;
use Illuminate\Support\Facades\Artisan;

test('quantiles lie on the straight line between neighbours', function (array $values, float $share, float $expected): void {
    expect(Figures::quantile($values, $share))->toEqualWithDelta($expected, 1e-12);
})->with([
    'middle of three' => [[9, 1, 5], 0.5, 5.0], 'middle of four' => [[4, 1, 3, 2], 0.5, 2.5], 'one value' => [[7], 0.95, 7.0],
    'ninety-fifth of 21' => [range(0, 20), 0.95, 19.0], 'all' => [[3, 8], 1.0, 8.0], 'none' => [[3, 8], 0.0, 3.0],
]);

test('the benchmark computes what three.js computes and leaves nothing behind', function (): void {
    [$people, $productions] = [User::query()->count(), Production::query()->count()];
    expect(Artisan::call('reel:bench', ['--only' => 'core', '--json' => true]))->toBe(0);
    $data = json_decode(Artisan::output(), true);
    expect($data['core']['frames'])->toBe(1046)->and($data['against_three']['joints'])->toBeGreaterThan(40)
        ->and($data['against_three']['largest_difference_m'])->toBeLessThan(1e-5)
        ->and($data)->not->toHaveKey('draft')
        ->and([User::query()->count(), Production::query()->count()])->toBe([$people, $productions]);
});

test('the kit is measured among as many assets as are asked for', function (): void {
    $user = $this->person();
    $house = App\Models\Asset::query()->whereNull('production_id')->count();
    $kit = app(App\Bench\KitBench::class)->all($this->scene($user)->production, $user, 60);
    expect($kit['assets_on_the_shelf'])->toBe(60 + $house)->and($kit['slowest_search_ms'])->toBeGreaterThan(0.0)
        ->and($kit['figure_dyed_ms'])->toBeGreaterThan(0.0)->and($kit['stiff_cloth_ms'])->toBeGreaterThan(0.0);
});

test('an unknown part is refused', function (): void {
    expect(Artisan::call('reel:bench', ['--only' => 'everything']))->toBe(2);
});

test('a production goes with its cameras, cuts, carries and own models', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant'], ['do' => 'item.add', 'asset' => 'brass-key'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'idle'],
        ['do' => 'link.add', 'child' => 'Brass key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 3],
        ['do' => 'camera.add', 'position' => [0, 1, 4], 'rotation' => [0, 0, 0, 1]],
    ]);
    expect($scene->refresh()->shots()->count())->toBe(1);
    $this->actingAs($user)->deleteJson("/api/productions/{$scene->production_id}")->assertOk();
    foreach (['items', 'beats', 'links', 'cameras', 'shots', 'edits'] as $table) {
        expect(DB::table($table)->where('scene_id', $scene->id)->count())->toBe(0, $table);
    }
});

test('every tolerance of the core is reached', function (): void {
    expect(Artisan::call('reel:bench', ['--only' => 'tolerances', '--json' => true]))->toBe(0);
    $lines = json_decode(Artisan::output(), true)['tolerances_reached_and_bar'];
    expect($lines)->toHaveCount(15)->and(array_filter($lines, static fn (string $l): bool => str_contains($l, 'not reached')))->toBe([]);
});

test('lines of a figure fall where framing puts them, to the bars', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0], 'headingDeg' => 90, 'name' => 'Oda'],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [1.4, 0, 0], 'headingDeg' => -90, 'name' => 'Bram'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk'],
    ]);
    $found = app(FramingBench::class)->all($scene->refresh(), figures: 2);
    expect($found['framing']['figures'])->toBe(2)->and($found['framing']['lines'])->toBeGreaterThan(1000)
        ->and($found['framing']['within_1_percent'])->toBeGreaterThanOrEqual(98.0)
        ->and($found['framing']['within_3_percent'])->toBeGreaterThanOrEqual(99.9)
        ->and($found['covering']['plain_rules_broken'])->toBe(0)
        ->and($found['covering']['plain_speaker_seen_percent'])->toBeGreaterThanOrEqual(90.0);
});
