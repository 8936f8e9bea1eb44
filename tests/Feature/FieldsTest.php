<?php

declare(strict_types=1);

use App\Console\Commands\FieldsCommand;
use App\Edits\CommandList;
use App\Edits\RowRules;
use App\Scenes\DocumentBuilder;
use App\Scenes\RowTables;
use App\Scenes\SceneRows;
use App\Scenes\StoredRow;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Link;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

test('the schema and the types that are checked in are as the fields have them', function (): void {
    foreach (FieldsCommand::files() as $path => $text) {
        expect((string) file_get_contents(base_path($path)))->toBe($text, "{$path} is stale: run bin/reel reel:fields");
    }
    $this->artisan('reel:fields --check')->assertExitCode(0);
});

test('every field has its column, and a column that is lost comes back with what goes without saying', function (): void {
    foreach (SceneRows::classes() as $table => $class) {
        expect(array_diff(array_keys(RowTables::columns($class)), Schema::getColumnListing($table)))->toBe([], $table);
    }
    expect(RowTables::complete())->toBe([]);
});

test('a row comes back from its table as it was said', function (): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0], 'name' => 'Oda'],
        ['do' => 'item.add', 'asset' => 'brass-key', 'position' => [4, 0, 0.5], 'name' => 'Key', 'headingDeg' => 30, 'scale' => 2],
        [
            'do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 3, 'to' => 9, 'release' => 'fall',
            'velocity' => [0, 1, 2.5],
        ],
    ]);
    $link = (array) DB::table('links')->where('scene_id', $scene->id)->sole();
    $oda = DB::table('items')->where('scene_id', $scene->id)->where('name', 'Oda')->value('id');
    expect(StoredRow::document(Link::class, $link))->toEqual([
        'id' => "l{$link['id']}", 'child' => "i{$link['child_id']}", 'parent' => "i{$oda}", 'mount' => 'handR', 'from' => 3, 'to' => 9,
        'keep' => 'place', 'easeFrames' => 0, 'release' => 'fall', 'velocity' => [0.0, 1.0, 2.5],
    ])->and(StoredRow::page(Link::class, $link))->toMatchArray(['parentId' => $oda, 'from' => 3, 'velocity' => [0.0, 1.0, 2.5]]);
    $key = (array) DB::table('items')->where('scene_id', $scene->id)->where('name', 'Key')->sole();
    expect(StoredRow::page(Document::ROWS['items'], $key))->toMatchArray([
        'position' => [4.0, 0.0, 0.5], 'headingDeg' => 30.0, 'scale' => 2.0,
    ]);
});

test('a command takes every field of its row in the range that the field says', function (): void {
    $rules = RowRules::of(Link::class, ['child']);
    expect(array_keys($rules))->toContain(...array_column(array_slice(FieldList::of(Link::class), 1), 'name'))
        ->and($rules['child'])->toBe(['required'])->and($rules['to'])->toBe(['sometimes', 'nullable', 'integer', 'between:1,1000000'])
        ->and($rules['velocity.*'])->toBe(['numeric', 'between:-100,100']);
    expect(CommandList::get('link.set')->rules())->not->toHaveKey('child')->toHaveKey('mount');
});

test('within a part what it does not know is refused, and nothing said takes it back', function (): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0], 'name' => 'Oda'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk', 'play' => ['mirror' => true, 'energy' => 0.5]],
    ]);
    $id = (int) DB::table('beats')->where('scene_id', $scene->id)->value('id');
    $play = static fn (): array => (array) json_decode((string) DB::table('beats')->where('id', $id)->value('play'), true);
    $this->edit($scene->refresh(), [['do' => 'beat.set', 'beat' => $id, 'play' => ['energy' => null, 'holdAfter' => 3]]]);
    expect($play())->toEqual(['mirror' => true, 'holdAfter' => 3]);
    expect(fn () => $this->edit($scene->refresh(), [['do' => 'beat.set', 'beat' => $id, 'play' => ['enrgy' => 1]]]))
        ->toThrow(App\Exceptions\UserError::class);
    expect(fn () => $this->edit($scene->refresh(), [['do' => 'beat.set', 'beat' => $id, 'play' => ['energy' => 'much']]]))
        ->toThrow(App\Exceptions\UserError::class, 'energy');
    expect($play())->toEqual(['mirror' => true, 'holdAfter' => 3]);
});

test('what is locked is moved by no hand until it is unlocked, and a copy of it is locked too', function (): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'hand-cart', 'position' => [0, 0, 0], 'name' => 'Cart']]);
    $this->edit($scene->refresh(), [['do' => 'item.set', 'item' => 'Cart', 'locked' => true]]);
    expect(DocumentBuilder::build($scene->refresh())->items["i{$scene->items()->value('id')}"]->locked)->toBeTrue()
        ->and(SceneRows::all($scene)['items'][0]['locked'])->toBeTrue();
    expect(fn () => $this->edit($scene->refresh(), [['do' => 'item.place', 'item' => 'Cart', 'x' => 1]]))
        ->toThrow(App\Exceptions\UserError::class, 'locked in its place');
    $this->edit($scene->refresh(), [['do' => 'item.duplicate', 'item' => 'Cart']]);
    expect(array_column(SceneRows::all($scene->refresh())['items'], 'locked'))->toBe([true, true]);
    $this->edit($scene->refresh(), [
        ['do' => 'item.set', 'item' => 'Cart', 'locked' => false], ['do' => 'item.place', 'item' => 'Cart', 'x' => 1],
    ]);
    expect((float) $scene->items()->where('name', 'Cart')->value('x'))->toBe(1.0);
});
