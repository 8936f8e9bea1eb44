<?php

declare(strict_types=1);

use App\Bench\Figures;
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
        ->and($data['against_three']['ratio'])
        ->toEqualWithDelta($data['against_three']['core_ms_per_pose'] / $data['against_three']['three_ms_per_pose'], 1e-9)
        ->and($data)->not->toHaveKey('draft')
        ->and([User::query()->count(), Production::query()->count()])->toBe([$people, $productions]);
});

test('the kit is measured, and its two thousand assets go again', function (): void {
    $before = App\Models\Asset::query()->count();
    expect(Artisan::call('reel:bench', ['--only' => 'kit', '--json' => true]))->toBe(0);
    $kit = json_decode(Artisan::output(), true)['kit'];
    expect($kit['assets_on_the_shelf'])->toBeGreaterThan(2000)->and($kit['stiff_against_soft'])
        ->toEqualWithDelta($kit['stiff_cloth_ms'] / $kit['cloth_of_289_points_a_second_ms'], 1e-9)->and(App\Models\Asset::query()->count())
        ->toBe($before);
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
