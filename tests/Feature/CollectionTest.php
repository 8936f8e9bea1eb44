<?php

declare(strict_types=1);

use App\Assets\AssetIntake;
use App\Models\Asset;
use CrispReel\Core\Tests\Support\FakeAssets;

test('what is collected in one production is at hand in another, and taken there once', function (): void {
    $user = $this->person();
    [$from, $to] = [$this->scene($user), $this->scene($user)];
    $from->production->update(['name' => 'The Late Boat']);
    $this->actingAs($user);
    $stool = app(AssetIntake::class)->model(
        $from->production, FakeAssets::glb('stool'), 'Harbour stool', 'prop', ['furniture'], credit: 'Ada Marsh', licence: 'CC-BY-4.0',
    )->asset_id;
    $kit = "/api/productions/{$to->production_id}/kit";
    $this->getJson("{$kit}/{$stool}")->assertStatus(404);
    $this->postJson("/api/productions/{$from->production_id}/kit/{$stool}/keep", ['keep' => true])->assertOk()
        ->assertJsonPath('collected', true)->assertJsonPath('elsewhere', null);
    $this->getJson("{$kit}?house=mine")->assertJsonPath('total', 1)->assertJsonPath('assets.0.name', 'Harbour stool');
    $this->getJson("{$kit}?house=0")->assertJsonPath('total', 0);
    $this->getJson("{$kit}?q=stool")->assertJsonFragment(['name' => 'Harbour stool']);
    $this->getJson("{$kit}/{$stool}")->assertOk()->assertJsonPath('elsewhere', 'The Late Boat');
    $this->getJson("/api/productions/{$to->production_id}/previews?asset={$stool}")->assertOk();
    // It is seen, not changed, and stands in no scene before it is the production's own.
    $this->patchJson("{$kit}/{$stool}", ['name' => 'Mine'])->assertStatus(404);
    $this->postJson("/api/scenes/{$to->id}/edits", ['commands' => [['do' => 'item.add', 'asset' => $stool, 'near' => [0, 0]]]])
        ->assertStatus(422)->assertJsonPath('reason', 'edit.no-asset');
    $own = $this->postJson("{$kit}/{$stool}/adopt")->assertOk()->json();
    expect($own['id'])->not->toBe($stool)->and($own)->toMatchArray([
        'name' => 'Harbour stool', 'credit' => 'Ada Marsh', 'licence' => 'CC-BY-4.0', 'source' => 'From The Late Boat',
        'elsewhere' => null, 'version' => 1, 'tags' => ['furniture'],
    ]);
    expect($this->postJson("{$kit}/{$stool}/adopt")->json('id'))->toBe($own['id']);
    $this->postJson("/api/scenes/{$to->id}/edits", ['commands' => [['do' => 'item.add', 'asset' => $own['id'], 'near' => [0, 0]]]])
        ->assertOk();
    $this->postJson("/api/productions/{$from->production_id}/kit/{$stool}/keep", ['keep' => false])->assertOk()
        ->assertJsonPath('collected', false);
    $this->getJson("{$kit}?house=mine")->assertJsonPath('total', 0);
    $this->getJson("{$kit}?house=0")->assertJsonPath('total', 1);
});

test('a house asset is collected too, and taking it makes no copy', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $lantern = Asset::query()->where('slug', 'lantern')->value('id');
    $this->postJson("/api/productions/{$scene->production_id}/kit/{$lantern}/keep")->assertOk()->assertJsonPath('collected', true);
    $this->getJson("/api/productions/{$scene->production_id}/kit?house=mine")->assertJsonPath('total', 1);
    $this->postJson("/api/productions/{$scene->production_id}/kit/{$lantern}/adopt")->assertOk()->assertJsonPath('id', $lantern);
});

test('a collection shows nothing of a production that one has left, or was never in', function (): void {
    [$owner, $guest] = [$this->person('Owner'), $this->person('Guest')];
    [$from, $to] = [$this->scene($owner), $this->scene($guest)];
    $from->production->members()->create(['user_id' => $guest->id, 'role' => 'viewer']);
    $stool = app(AssetIntake::class)->model($from->production, FakeAssets::glb('stool'), 'Harbour stool', 'prop')->asset_id;
    $this->actingAs($guest);
    $this->postJson("/api/productions/{$from->production_id}/kit/{$stool}/keep")->assertOk();
    $kit = "/api/productions/{$to->production_id}/kit";
    $this->getJson("{$kit}?house=mine")->assertJsonPath('total', 1);
    $from->production->members()->where('user_id', $guest->id)->delete();
    $this->getJson("{$kit}?house=mine")->assertJsonPath('total', 0);
    $this->getJson("{$kit}/{$stool}")->assertStatus(404);
    $this->postJson("{$kit}/{$stool}/adopt")->assertStatus(404);
    $this->actingAs($this->person('Stranger'))->postJson("/api/productions/{$from->production_id}/kit/{$stool}/keep")->assertStatus(404);
    // A viewer takes nothing into what is not theirs to change.
    $viewer = $this->person('Viewer');
    $to->production->members()->create(['user_id' => $viewer->id, 'role' => 'viewer']);
    $this->actingAs($viewer)->postJson("{$kit}/".Asset::query()->where('slug', 'lantern')->value('id').'/adopt')->assertStatus(403);
});
