<?php

declare(strict_types=1);

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Staging\Retime;

test('every field that is told in frames goes to its time at another rate', function (string $class, array $said, array $expected): void {
    expect(Retime::of($class, $said, 2.5))->toBe($expected);
})->with([
    'a beat with all that is cut by frames' => [
        Beat::class,
        [
            'id' => 'b1', 'start' => 24, 'speed' => 2.0, 'joinFrames' => 8, 'path' => ['points' => [[1.0, 2.0]], 'arrive' => 48],
            'play' => ['holdBefore' => 3, 'fadeIn' => 6, 'speeds' => [[0.0, 1.0], [10.0, 0.5]], 'energy' => 0.5],
        ],
        [
            'start' => 60, 'joinFrames' => 20, 'path' => ['arrive' => 120, 'points' => [[1.0, 2.0]]],
            'play' => ['speeds' => [[0.0, 1.0], [25.0, 0.5]], 'holdBefore' => 8, 'fadeIn' => 15, 'energy' => 0.5],
        ],
    ],
    'a carry' => [Link::class, ['from' => 10, 'to' => 20, 'easeFrames' => 4], ['from' => 25, 'to' => 50, 'easeFrames' => 10]],
    'a contact that lasts' => [
        Contact::class, ['from' => 3, 'to' => null, 'easeIn' => 2, 'easeOut' => 0], ['from' => 8, 'easeIn' => 5, 'easeOut' => 0],
    ],
    'a thing with a way and keys' => [
        Item::class,
        ['moves' => [['frame' => 2, 'ease' => 'in']], 'route' => ['points' => [[0.0, 0.0]], 'from' => 4, 'to' => 8], 'surfaces' => []],
        ['moves' => [['frame' => 5, 'ease' => 'in']], 'route' => ['from' => 10, 'to' => 20, 'points' => [[0.0, 0.0]]]],
    ],
]);

test('what is a frame long stays a frame long, and of keys on one frame the first stays', function (): void {
    // At 24 / 60 of the rate 3 and 4 both round to 1 and 2, but 5 and 6 to 2 and 2.
    expect(Retime::of(Link::class, ['from' => 5, 'to' => 6], 0.4))->toBe(['from' => 2, 'to' => 3]);
    $keys = array_map(static fn (int $f): array => ['frame' => $f, 'focalMm' => 20.0 + $f], [0, 1, 2, 3]);
    expect(Retime::of(Camera::class, ['keys' => $keys], 0.4)['keys'])->toBe([
        ['frame' => 0, 'focalMm' => 20.0], ['frame' => 1, 'focalMm' => 22.0],
    ]);
});

test('each kind of row that has a time of its own says so', function (): void {
    foreach (Document::ROWS as $list => $class) {
        $frames = array_filter(FieldList::of($class), static fn ($f): bool => $f->field instanceof CrispReel\Core\Document\Fields\Frame);
        expect($frames !== [])->toBe(! in_array($list, ['items', 'cameras', 'takes'], true), $list);
    }
});
