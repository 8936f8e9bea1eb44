<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Passes\Carries;
use CrispReel\Core\Compile\Passes\Places;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** One with a performer and a key in her hand. */
function draftOf(): Draft
{
    $more = [
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key', 0.3, 0.4)],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 10]],
    ];

    return new Draft(Document::fromArray(Scenes::data($more)), new FakeAssets);
}

test('a slot is read after it is written, and written once', function (): void {
    $draft = draftOf();
    expect(fn () => $draft->places())->toThrow(LogicException::class, '"places" is not settled yet');
    (new Places)->settle($draft);
    expect($draft->places())->not->toBe([])->and(fn () => (new Places)->settle($draft))
        ->toThrow(LogicException::class, '"places" is settled already');
});

test('a pass in the wrong place of the list says what is missing', function (): void {
    expect(fn () => (new Carries)->settle(draftOf()))->toThrow(LogicException::class, 'is not settled yet')
        ->and(fn () => draftOf()->scene())->toThrow(LogicException::class, 'is not settled yet');
});

test('nobody asks where something is before that is settled', function (): void {
    $draft = draftOf();
    foreach (['Order', 'Places', 'Lines', 'Lanes', 'Drives', 'Length', 'Faces', 'TouchUps', 'Grasps', 'Holds', 'Lids'] as $pass) {
        $class = "CrispReel\\Core\\Compile\\Passes\\{$pass}";
        (new $class)->settle($draft);
    }
    expect($draft->order())->toBe(['o', 'k'])
        ->and(fn () => $draft->posesWith([])->at(0.0)->place('o'))->toThrow(LogicException::class, '"o" is, is not settled yet')
        ->and(fn () => $draft->posesWith(['o' => []])->at(0.0)->place('k'))->toThrow(LogicException::class, '"k" is, is not settled yet')
        ->and($draft->posesWith(['o' => [], 'k' => []])->at(0.0)->place('k')->position)->toBe([0.3, 0.0, 0.4]);
});
