<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\Edit;
use App\Models\Scene;
use App\Models\User;
use CrispReel\Core\Compile\UnableToCompile;
use Illuminate\Cache\Events\CacheMissed;
use Illuminate\Support\Facades\Event;

/**
 * A production of two scenes with one performer and one camera each.
 *
 * @return array{User, Scene, Scene}
 */
function twoScenes(mixed $test): array
{
    $user = $test->person();
    $one = $test->scene($user);
    $two = $one->production->scenes()->create(['name' => 'Scene 2', 'mood' => 'dusk']);
    foreach ([$one, $two] as $scene) {
        $test->edit($scene, [
            ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
            ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'start' => 48],
            ['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0],
        ], $user);
    }
    $test->actingAs($user);

    return [$user, $one->refresh(), $two->refresh()];
}

/** Frame at which the one beat of each scene starts, and the rate that each page is told. */
function startsAndRates(mixed $test, Scene ...$scenes): array
{
    return array_map(static function (Scene $s) use ($test): array {
        $told = $test->getJson("/api/scenes/{$s->id}")->assertOk()->json();

        return [$told['rows']['beats'][0]['start'], $told['manifest']['rate'], $told['manifest']['width']];
    }, $scenes);
}

test('rate and size are changed for all scenes at once, journalled in each, and taken back in all from any of them', function (): void {
    [, $one, $two] = twoScenes($this);
    $before = [[48, [24, 1], 1280], [48, [24, 1], 1280]];
    expect(startsAndRates($this, $one, $two))->toBe($before);
    $this->patchJson("/api/productions/{$one->production_id}", ['rate' => [30, 1], 'width' => 1920, 'height' => 1080])->assertOk();
    $after = [[60, [30, 1], 1920], [60, [30, 1], 1920]];
    expect(startsAndRates($this, $one, $two))->toBe($after);
    foreach ([$one, $two] as $s) {
        expect($s->edits()->orderByDesc('id')->value('label'))->toBe('Set the frame rate')
            ->and($s->refresh()->revision)->toBe((int) $s->edits()->max('revision'));
    }
    // An open page of the other scene is told, of its own rows and of no others.
    $told = $this->getJson("/api/scenes/{$two->id}/changes?since=".($two->revision - 1))->json();
    $beat = $two->beats()->firstOrFail();
    expect(array_column(array_filter($told['changes'], static fn (array $c): bool => $c['table'] === 'beats'), 'id'))->toBe([$beat->id])
        ->and($told['manifest']['rate'])->toBe([30, 1]);
    // Undone from the scene that it was not made in, and done again from there.
    $undo = $this->postJson("/api/scenes/{$two->id}/undo")->assertOk()->json();
    expect($undo['label'])->toBe('Set the frame rate')->and(startsAndRates($this, $one, $two))->toBe($before)
        ->and(array_column(array_filter($undo['changes'], static fn (array $c): bool => $c['table'] === 'beats'), 'id'))->toBe([$beat->id]);
    $this->postJson("/api/scenes/{$one->id}/redo")->assertOk();
    expect(startsAndRates($this, $one, $two))->toBe($after);
    $this->postJson("/api/scenes/{$one->id}/undo")->assertOk();
    expect(startsAndRates($this, $one, $two))->toBe($before);
});

test('what somebody has changed in another scene after it keeps it from being taken back, in both', function (): void {
    [, $one, $two] = twoScenes($this);
    $this->patchJson("/api/productions/{$one->production_id}", ['rate' => [30, 1]])->assertOk();
    $other = $this->person('Other');
    $one->production->members()->create(['user_id' => $other->id, 'role' => 'editor']);
    $this->edit($two, [['do' => 'beat.set', 'beat' => $two->beats()->value('id'), 'start' => 90]], $other);
    $this->postJson("/api/scenes/{$one->id}/undo")->assertStatus(409)->assertJsonPath('reason', 'edit.changed-since');
    expect(startsAndRates($this, $one, $two))->toBe([[60, [30, 1], 1280], [90, [30, 1], 1280]]);
});

test('a broken rate, a viewer and a stranger change nothing', function (): void {
    [, $one, $two] = twoScenes($this);
    $url = "/api/productions/{$one->production_id}";
    $count = Edit::query()->count();
    expect($this->patchJson($url, ['rate' => [9000, 1]])->assertStatus(422)->json('message'))->toContain('frames a second');
    expect($this->patchJson($url, ['width' => 8])->assertStatus(422)->json('message'))->toContain('64');
    $viewer = $this->person('Viewer');
    $one->production->members()->create(['user_id' => $viewer->id, 'role' => 'viewer']);
    $this->actingAs($viewer)->patchJson($url, ['rate' => [30, 1]])->assertForbidden();
    $this->actingAs($this->person('Stranger'))->patchJson($url, ['rate' => [30, 1]])->assertNotFound();
    expect(Edit::query()->count())->toBe($count)->and($two->production->refresh()->rate_num)->toBe(24);
});

/** Does something while the first edit that is carried out now is being settled: its rows are rolled back, nothing is written yet. */
function meanwhile(Closure $act): void
{
    $done = false;
    Event::listen(CacheMissed::class, static function (CacheMissed $e) use (&$done, $act): void {
        if (! $done && str_starts_with($e->key, 'manifest.')) {
            $done = true;
            $act();
        }
    });
}

test('somebody who edits another scene between rehearsal and writing loses nothing', function (): void {
    [$user, $one, $two] = twoScenes($this);
    meanwhile(fn () => $this->edit($two, [['do' => 'beat.set', 'beat' => $two->beats()->value('id'), 'start' => 72]]));
    $this->edit($one, [['do' => 'production.set', 'rate' => [48, 1]]], $user);
    expect($two->beats()->value('start'))->toBe(144)->and($one->beats()->value('start'))->toBe(96);
});

test('two people on one scene at the same moment: both edits are there, with numbers of their own', function (): void {
    [$user, $one] = twoScenes($this);
    meanwhile(fn () => $this->edit($one, [['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [2, 0, 0]]]));
    $edit = $this->edit($one, [['do' => 'item.add', 'asset' => 'bench', 'position' => [-2, 0, 0]]], $user);
    $names = $one->items()->orderBy('id')->pluck('name')->all();
    expect($names)->toHaveCount(3)->and($names)->toContain('Bram')->and($edit->revision)->toBe($one->refresh()->revision)
        ->and($one->edits()->count())->toBe(3)->and($edit->row_changes[0]['id'])->toBe($one->items()->orderByDesc('id')->value('id'));
});

test('two people on one thing at the same moment: the second is told and changes nothing', function (): void {
    [$user, $one] = twoScenes($this);
    $base = $one->revision;
    meanwhile(fn () => $this->edit($one, [['do' => 'item.place', 'item' => 'Oda', 'x' => 3]]));
    expect(fn () => $this->edit($one, [['do' => 'item.place', 'item' => 'Oda', 'x' => 9]], $user, $base))
        ->toThrow(UserError::class, 'Someone else changed the same thing');
    expect($one->items()->where('name', 'Oda')->value('x'))->toEqual(3.0);
});

test('a scene that cannot be settled refuses the edit and leaves no trace', function (): void {
    [$user, $one] = twoScenes($this);
    $before = [$one->items()->count(), Edit::query()->count(), $one->revision];
    expect(fn () => $this->edit($one, [
        ['do' => 'item.add', 'asset' => 'bench', 'as' => 'a'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'path' => ['points' => [[3, 0], [4, 1]]]],
    ], $user))->toThrow(UnableToCompile::class);
    expect([$one->items()->count(), Edit::query()->count(), $one->refresh()->revision])->toBe($before);
});
