<?php

declare(strict_types=1);

use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Staging\Ride;
use CrispReel\Core\Staging\UnableToStage;
use CrispReel\Core\Staging\Wear;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

function oneAndThing(string $asset, float $headingDeg = 90.0): Document
{
    return Document::fromArray(Scenes::data(['items' => [
        Scenes::item('Oda', 'oda', 3.0, 4.0, 10.0), Scenes::item('Thing', $asset, 1.0, -2.0, $headingDeg),
    ]]));
}

test('who rides sits on the seat, goes with the thing, and holds it by hands, feet and hips for as long', function (): void {
    $scene = oneAndThing('bicycle');
    $assets = new FakeAssets;
    [$place, $link, $first] = $commands = Ride::of($scene, $assets, 'Oda', 'Thing', 12, 80);
    $seat = $assets->digest($scene->assets['bicycle'])['mounts']['seat']['position'];
    // Turned by 90 degrees, what lies along its z lies along the scene's x.
    expect($place->name)->toBe('item.place')->and($place->payload['item'])->toBe('Oda')
        ->and($place->payload['position'][0])->toEqualWithDelta(1.0 + $seat[2], 1e-9)
        ->and($place->payload['position'][2])->toEqualWithDelta(-2.0 - $seat[0], 1e-9)
        ->and($place->payload['headingDeg'])->toEqualWithDelta(90.0, 1e-9);
    expect($link->toArray())->toBe([
        'do' => 'link.add', 'child' => 'Oda', 'parent' => 'Thing', 'from' => 12, 'to' => 80, 'keep' => 'place',
    ]);
    $held = array_map(static fn (Command $c): string => $c->payload['effector'], array_slice($commands, 2));
    expect($held)->toContain('hips', 'handL', 'handR', 'footL', 'footR')->and($first->name)->toBe('contact.add');
    foreach (array_slice($commands, 2) as $c) {
        expect($c->payload['target'])->toBe('Thing')->and([$c->payload['from'], $c->payload['to']])->toBe([12, 80])
            ->and($c->payload['turn'])->toBe(str_starts_with($c->payload['effector'], 'hand') ? 'follow' : 'keep');
    }
});

test('what is put on is cut to who wears it, and hangs from the joint that its file names', function (): void {
    $scene = oneAndThing('cloak');
    [$place, $link] = Wear::of($scene, new FakeAssets, 'Oda', 'Thing', 0, null);
    $height = (new FakeAssets)->digest($scene->assets['oda'])['figure']['height'];
    expect($place->payload)->toMatchArray(['item' => 'Thing', 'position' => [3.0, 0.0, 4.0], 'headingDeg' => 10.0])
        ->and($place->payload['scale'])->toEqualWithDelta($height / 1.7, 1e-9);
    expect($link->payload)->toMatchArray(['child' => 'Thing', 'parent' => 'Oda', 'from' => 0, 'to' => null, 'keep' => 'grip'])
        ->and($link->payload['mount'])->not->toBe('');
});

test('what cannot be ridden or worn is refused with the way out', function (callable $try, string $reason, string $says): void {
    try {
        $try(new FakeAssets);
    } catch (UnableToStage $e) {
        expect($e->reason())->toBe($reason)->and($e->getMessage())->toContain($says)->and($e->remedy())->not->toBe('');

        return;
    }
    $this->fail('It was staged.');
})->with([
    'a key' => [fn ($a) => Ride::of(oneAndThing('key'), $a, 'Oda', 'Thing', 0, null), 'ride.no-seat', '"Thing" has no places'],
    'a thing that rides' => [
        fn ($a) => Ride::of(oneAndThing('bicycle'), $a, 'Thing', 'Oda', 0, null), 'ride.not-performer', '"Thing" is not a performer',
    ],
    'a lantern as a coat' => [
        fn ($a) => Wear::of(oneAndThing('lantern'), $a, 'Oda', 'Thing', 0, null), 'wear.no-cloth', 'cannot be put on',
    ],
    'a thing that wears' => [
        fn ($a) => Wear::of(oneAndThing('cloak'), $a, 'Thing', 'Thing', 0, null), 'wear.not-performer', '"Thing" is not a performer',
    ],
]);
