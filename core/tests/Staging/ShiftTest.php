<?php

declare(strict_types=1);

use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Camera;
use CrispReel\Core\Document\Contact;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Link;
use CrispReel\Core\Staging\Shift;

test('places of the scene are shifted, and nothing else', function (string $class, array $said, array $expected): void {
    expect(Shift::of($class, $said, [1.0, 0.5, -2.0]))->toBe($expected);
})->with([
    'a thing, its keys and its way' => [
        Item::class,
        [
            'position' => [1, 2, 3], 'headingDeg' => 90.0, 'moves' => [['frame' => 3, 'position' => [0.0, 0.0, 0.0]]],
            'route' => ['points' => [[4.0, 5.0]], 'speed' => 2.0], 'surfaces' => [['key' => 'coat']], 'cloth' => ['kind' => 'silk'],
        ],
        [
            'position' => [2.0, 2.5, 1.0], 'moves' => [['position' => [1.0, 0.5, -2.0], 'frame' => 3]],
            'route' => ['points' => [[5.0, 3.0]], 'speed' => 2.0],
        ],
    ],
    'a walk, with where it begins and how one stands there' => [
        Beat::class, ['path' => ['points' => [[0, 0]], 'from' => [1.0, 2.0, 3.0, 45.0]], 'play' => ['energy' => 2.0]],
        ['path' => ['points' => [[1.0, -2.0]], 'from' => [2.0, 2.5, 1.0, 45.0]]],
    ],
    'a point of the scene that is touched' => [
        Contact::class, ['target' => null, 'offset' => [0.0, 1.0, 0.0]], ['offset' => [1.0, 1.5, -2.0]],
    ],
    'a place on another thing' => [Contact::class, ['target' => 'i3', 'offset' => [0.0, 1.0, 0.0]], []],
    'a throw has no place' => [Link::class, ['velocity' => [1.0, 0.0, 0.0]], []],
    'a camera' => [
        Camera::class, ['keys' => [['frame' => 0, 'position' => [0.0, 0.0, 0.0]]]],
        ['keys' => [['position' => [1.0, 0.5, -2.0], 'frame' => 0]]],
    ],
]);
