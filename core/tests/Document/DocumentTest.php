<?php

declare(strict_types=1);

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Rate;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Tests\Support\Scenes;
use Opis\JsonSchema\Validator;

/** @return array<string, mixed> */
function fullScene(): array
{
    return Scenes::data([
        'items' => [Scenes::item('i1', 'oda', 1.0, 2.0, 30.0), Scenes::item('i2', 'key')],
        'beats' => [Scenes::beat('b1', 'i1', 'talk', 5, ['sourceOut' => 2.5, 'loops' => 2, 'settings' => ['seconds' => 5.0]])],
        'links' => [[
            'id' => 'l1', 'child' => 'i2', 'parent' => 'i1', 'mount' => 'handR', 'from' => 3, 'to' => 40, 'keep' => 'grip',
            'easeFrames' => 4,
        ]],
        'cameras' => [Scenes::camera('ca', [['frame' => 0], ['frame' => 20, 'focusMetres' => 3.0]])],
        'shots' => [
            ['id' => 's1', 'camera' => 'ca', 'in' => 0, 'out' => 10, 'label' => '010'],
            ['id' => 's2', 'camera' => 'ca', 'in' => 10, 'out' => null, 'label' => '020'],
        ],
    ]);
}

test('a document survives its JSON form, byte for byte', function (): void {
    $json = Document::fromArray(fullScene())->toJson();
    expect(Document::fromJson($json)->toJson())->toBe($json);
});

test('the published schema takes what is written and refuses what is not a scene', function (): void {
    $schema = (string) file_get_contents(dirname(__DIR__, 2).'/resources/scene.schema.json');
    $validator = new Validator;
    $written = json_decode(Document::fromArray(fullScene())->toJson());
    $result = $validator->validate($written, $schema);
    expect($result->isValid())
        ->toBeTrue($result->isValid() ? '' : json_encode((new Opis\JsonSchema\Errors\ErrorFormatter)->format($result->error())));
    foreach ([
        fn ($d) => $d->format = 'other', fn ($d) => $d->items[0]->scale = -1, fn ($d) => $d->shots[0]->in = -4,
        fn ($d) => $d->cameras[0]->keys = [],
    ] as $break) {
        $bad = json_decode(Document::fromArray(fullScene())->toJson());
        $break($bad);
        expect($validator->validate($bad, $schema)->isValid())->toBeFalse();
    }
});

test('bad input is named by its place', function (callable $break, string $message): void {
    $data = fullScene();
    $break($data);
    try {
        Document::fromArray($data);
    } catch (UnableToReadDocument $e) {
        expect($e->getMessage())->toContain($message)->and($e->remedy())->not->toBe('')->and($e->reason())->toBe('document');

        return;
    }
    $this->fail('It was taken.');
})->with([
    'another format' => [function (array &$d): void {
        $d['format'] = 'mystery';
    }, 'format: "mystery" is not one of'],
    'a newer version' => [function (array &$d): void {
        $d['version'] = 99;
    }, 'newer version'],
    'a broken rate' => [function (array &$d): void {
        $d['rate'] = [0, 1];
    }, 'rate'],
    'not a number' => [function (array &$d): void {
        $d['items'][0]['position'] = [NAN, 0, 0];
    }, 'items/0/position: 3 finite numbers'],
    'a far-off place' => [function (array &$d): void {
        $d['items'][0]['position'] = [1e9, 0, 0];
    }, 'items/0/position'],
    'no scale' => [function (array &$d): void {
        $d['items'][0]['scale'] = 0;
    }, 'items/0/scale: 0 is not between'],
    'an id twice' => [function (array &$d): void {
        $d['items'][1]['id'] = 'i1';
    }, 'items/1: the id "i1" is used twice'],
    'a strange id' => [function (array &$d): void {
        $d['items'][0]['id'] = '../etc';
    }, 'items/0/id'],
    'an unknown asset' => [function (array &$d): void {
        $d['items'][0]['asset'] = 'ghost';
    }, 'items/i1/asset: there is no asset "ghost"'],
    'an unknown performer' => [function (array &$d): void {
        $d['beats'][0]['item'] = 'nobody';
    }, 'beats/b1/item'],
    'a negative frame' => [function (array &$d): void {
        $d['beats'][0]['start'] = -1;
    }, 'beats/0/start: -1 is not between'],
    'half a frame' => [function (array &$d): void {
        $d['beats'][0]['start'] = 1.5;
    }, 'whole number'],
    'a carry that ends first' => [function (array &$d): void {
        $d['links'][0]['to'] = 2;
    }, 'links/0/to: a carry ends after it begins'],
    'a shot that ends first' => [function (array &$d): void {
        $d['shots'][0]['out'] = 0;
    }, 'shots/0/out'],
    'a camera without keys' => [function (array &$d): void {
        $d['cameras'][0]['keys'] = [];
    }, 'cameras/0/keys: a camera needs at least one key'],
    'a rotation that is none' => [function (array &$d): void {
        $d['cameras'][0]['keys'][0]['rotation'] = [0, 0, 0, 0];
    }, 'cameras/0/keys/0/rotation: a unit quaternion'],
    'a text for a list' => [function (array &$d): void {
        $d['items'] = 'all';
    }, 'items: a list belongs here'],
    'far too many' => [function (array &$d): void {
        $d['beats'] = array_fill(0, 20_001, []);
    }, '20001 entries'],
]);

test('text that is not JSON is refused', function (): void {
    Document::fromJson('{"format": ');
})->throws(UnableToReadDocument::class, 'it is not JSON');

test('timecode counts as SMPTE ST 12-1 does', function (array $rate, int $frame, string $expected): void {
    expect((new Rate(...$rate))->timecode($frame))->toBe($expected);
})->with([
    [[24, 1], 0, '00:00:00:00'],
    [[24, 1], 24 * 3661 + 7, '01:01:01:07'],
    [[25, 1], 49, '00:00:01:24'],
    // Drop-frame skips numbers 0 and 1 of each minute but every tenth.
    [[30000, 1001], 1799, '00:00:59;29'],
    [[30000, 1001], 1800, '00:01:00;02'],
    [[30000, 1001], 17981, '00:09:59;29'],
    [[30000, 1001], 17982, '00:10:00;00'],
    [[30000, 1001], 107892, '01:00:00;00'],
    [[60000, 1001], 3600, '00:01:00;04'],
    [[24000, 1001], 1440, '00:01:00:00'],
]);

test('frames and seconds are each other\'s inverse', function (): void {
    $r = new Rate(30000, 1001);
    expect($r->seconds(30000))->toEqualWithDelta(1001.0, 1e-9)->and($r->frame($r->seconds(1234.0)))->toEqualWithDelta(1234.0, 1e-9);
});
