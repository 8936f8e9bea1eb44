<?php

declare(strict_types=1);

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Fields\JsonSchema;
use CrispReel\Core\Document\Fields\Listed;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Whole;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Play;
use CrispReel\Core\Document\Route;
use CrispReel\Core\Document\UnableToReadDocument;

/** A row with only what must be said of it. @param  class-string  $class */
function barely(string $class): array
{
    return match ($class) {
        Item::class => ['id' => 'i1', 'kind' => 'prop', 'name' => 'Key', 'asset' => 'a1', 'position' => [0, 0, 0]],
        Beat::class => ['id' => 'b1', 'item' => 'i1', 'motion' => 'a2'],
        CrispReel\Core\Document\Link::class => ['id' => 'l1', 'child' => 'i1', 'parent' => 'i2'],
        CrispReel\Core\Document\Camera::class => [
            'id' => 'c1', 'keys' => [['frame' => 0, 'position' => [0, 0, 0], 'rotation' => [0, 0, 0, 1]]],
        ],
        CrispReel\Core\Document\Shot::class => ['id' => 's1', 'camera' => 'c1', 'in' => 0],
        CrispReel\Core\Document\Framing::class => ['id' => 'f1', 'camera' => 'c1', 'subject' => 'i1'],
        CrispReel\Core\Document\TouchUp::class => ['id' => 't1', 'item' => 'i1', 'joint' => 'head', 'keys' => [['frame' => 0]]],
        CrispReel\Core\Document\Line::class => ['id' => 'd1', 'item' => 'i1', 'text' => 'Go.'],
        CrispReel\Core\Document\Sound::class => ['id' => 'n1', 'asset' => 'a1'],
        CrispReel\Core\Document\Take::class => ['id' => 'g1', 'line' => 'd1', 'asset' => 'a1'],
        CrispReel\Core\Document\Expression::class => ['id' => 'x1', 'item' => 'i1'],
        default => ['id' => 'k1', 'item' => 'i1', 'effector' => 'head'],
    };
}

test('a row is read with only what must be said, and what goes without saying is what its constructor has', function (string $class): void {
    $row = FieldList::read($class, new Input(barely($class)));
    foreach (FieldList::of($class) as $f) {
        if (! array_key_exists($f->name, barely($class))) {
            expect($row->{$f->name})->toEqual($f->default, $f->name);
        }
    }
    expect(FieldList::write(FieldList::read($class, new Input(json_decode((string) json_encode(FieldList::write($row)), true)))))
        ->toEqual(FieldList::write($row));
})->with(array_values(Document::ROWS));

test('each field that must be there is missed by its name', function (string $class): void {
    $needed = array_filter(FieldList::of($class), static fn (Listed $f): bool => $f->required);
    expect($needed)->not->toBe([]);
    foreach ($needed as $f) {
        expect(static fn () => FieldList::read($class, new Input(array_diff_key(barely($class), [$f->name => 0]), 'rows/3')))
            ->toThrow(UnableToReadDocument::class, "rows/3/{$f->name}");
    }
})->with(array_values(Document::ROWS));

test('numbers are held to their ranges, by the reader and by the schema alike', function (): void {
    $looked = 0;
    $schema = JsonSchema::document()['$defs'];
    $look = function (string $class) use (&$look, &$looked, $schema): void {
        $name = lcfirst(substr($class, (int) strrpos($class, '\\') + 1));
        foreach (FieldList::of($class) as $f) {
            if ($f->field instanceof Part || $f->field instanceof Many) {
                $look($f->field->of);
            }
            if ($f->field instanceof Number || $f->field instanceof Whole) {
                $looked++;
                $said = $schema[$name]['properties'][$f->name];
                expect([$said['minimum'], $said['maximum']])->toBe([$f->field->least, $f->field->most], "{$name}.{$f->name}");
                foreach ([$f->field->least - 1, $f->field->most + 1] as $beyond) {
                    expect(fn () => $f->field->read(new Input([$f->name => $beyond]), $f->name))->toThrow(UnableToReadDocument::class);
                }
            }
        }
    };
    array_map($look, Document::ROWS);
    expect($looked)->toBeGreaterThan(40);
});

test('what is said of how a beat plays is only what is not as usual', function (): void {
    $beat = FieldList::read(Beat::class, new Input(barely(Beat::class) + ['play' => ['mirror' => true, 'energy' => 1.0]]));
    expect((array) FieldList::write($beat)['play'])->toBe(['mirror' => true])
        ->and($beat->play)->toEqual(new Play(mirror: true));
});

test('rows that refer to nothing are named, wherever the reference stands', function (array $change, string $message): void {
    $data = CrispReel\Core\Tests\Support\Scenes::data($change + [
        'items' => [CrispReel\Core\Tests\Support\Scenes::item('i1', 'oda')],
    ]);
    expect(static fn () => Document::fromArray($data))->toThrow(UnableToReadDocument::class, $message);
})->with([
    'a beat' => [['beats' => [['id' => 'b1', 'item' => 'i9', 'motion' => 'talk']]], 'beats/b1/item: there is no item "i9"'],
    'a motion' => [['beats' => [['id' => 'b1', 'item' => 'i1', 'motion' => 'fly']]], 'beats/b1/motion: there is no asset "fly"'],
    'a shot' => [['shots' => [['id' => 's1', 'camera' => 'cz', 'in' => 0]]], 'shots/s1/camera: there is no camera "cz"'],
    'who pushes' => [
        ['items' => [CrispReel\Core\Tests\Support\Scenes::item('i1', 'key') + ['route' => ['by' => 'i7']]]],
        'items/i1/route/by: there is no item "i7"',
    ],
]);

test('whom a row hangs on is said where it can be told from what it only names', function (): void {
    $flags = static fn (string $class, string $name): array => (static fn (Ref $r): array => [$r->owner, $r->needs])(
        array_column(FieldList::of($class), null, 'name')[$name]->field,
    );
    expect($flags(Beat::class, 'item'))->toBe([true, false])->and($flags(CrispReel\Core\Document\Contact::class, 'target'))
        ->toBe([false, true])->and($flags(Route::class, 'by'))->toBe([false, true])
        ->and($flags(Beat::class, 'motion'))->toBe([false, false]);
});
