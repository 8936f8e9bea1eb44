<?php

declare(strict_types=1);

use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Staging\Ride;
use CrispReel\Core\Staging\UnableToStage;
use CrispReel\Core\Staging\Wear;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** @param  array<string, mixed>|null  $route */
function oneAndThing(string $asset, float $headingDeg = 90.0, ?array $route = null): Document
{
    return Document::fromArray(Scenes::data(['items' => [
        Scenes::item('Oda', 'oda', 3.0, 4.0, 10.0),
        ($route === null ? [] : ['route' => $route]) + Scenes::item('Thing', $asset, 1.0, -2.0, $headingDeg),
    ]]));
}

function ride(Document $scene, string $who, string $on, int $from, ?int $to, bool $getsOn): array
{
    $assets = new FakeAssets;

    return Ride::of(SceneCompiler::compile($scene, $assets), $assets, $who, $on, $from, $to, $getsOn);
}

test('who rides from the first frame on sits there, and holds on by hands, feet and hips for as long as it rolls', function (): void {
    $scene = oneAndThing('bicycle', 90.0, ['points' => [[9.0, -2.0]], 'from' => 12, 'to' => 108]);
    [$rides, $waits, $off] = $commands = ride($scene, 'Oda', 'Thing', 12, 140, false);
    expect(
        array_map(static fn (Command $c): array => [$c->name, $c->payload['motion'], $c->payload['start']], [$rides, $waits, $off]),
    )->toBe([
        ['beat.add', 'ride', 12], ['beat.add', 'wait-on', 108], ['beat.add', 'get-off', 140],
    ]);
    foreach ([$rides, $waits, $off] as $c) {
        expect($c->payload['item'])->toBe('Oda')->and($c->payload['play']['on'])->toBe('Thing');
    }
    $held = array_column(array_map(static fn (Command $c): array => $c->payload, array_slice($commands, 3)), null, 'effector');
    expect(array_keys($held))->toEqualCanonicalizing(['hips', 'handL', 'handR', 'footL', 'footR']);
    // A foot is on the ground before it rolls and after; the other stays on its pedal.
    expect(
        [$held['footL']['from'], $held['footL']['to']],
    )->toBe([15, 105])->and([$held['footR']['from'], $held['footR']['to']])->toBe([12, 140])
        ->and($held['hips']['to'])->toBe(108)->and($held['handL']['turn'])->toBe('follow')->and($held['footR']['turn'])->toBe('keep');
});

test('who gets on walks up to the nearer side first, and the thing waits', function (): void {
    $scene = oneAndThing('bicycle', 90.0, ['points' => [[9.0, -2.0]], 'from' => 0, 'to' => 96]);
    [$route, $on, $rides] = ride($scene, 'Oda', 'Thing', 10, null, true);
    $start = $on->payload['start'];
    expect($on->payload['motion'])->toBe('get-on')->and($start)->toBeGreaterThan(60)->and($rides->payload['motion'])->toBe('ride');
    expect($route->name)->toBe('item.route')->and($route->payload['from'])->toBeGreaterThan($start + 40)
        ->and($route->payload['to'] - $route->payload['from'])->toBe(96);
    // It faces +x: what lies at greater z is on its right.
    expect($on->payload['settings'])->toBe(['side' => -1.0]);
    $other = oneAndThing('bicycle', -90.0);
    expect(ride($other, 'Oda', 'Thing', 10, null, true)[0]->payload['settings'])->toBe(['side' => 1.0]);
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
    'a key' => [fn () => ride(oneAndThing('key'), 'Oda', 'Thing', 0, null, false), 'ride.no-seat', '"Thing" has no places'],
    'a thing that rides' => [
        fn () => ride(oneAndThing('bicycle'), 'Thing', 'Oda', 0, null, false), 'ride.not-performer', '"Thing" is not a performer',
    ],
    'a lantern as a coat' => [
        fn ($a) => Wear::of(oneAndThing('lantern'), $a, 'Oda', 'Thing', 0, null), 'wear.no-cloth', 'cannot be put on',
    ],
    'a thing that wears' => [
        fn ($a) => Wear::of(oneAndThing('cloak'), $a, 'Thing', 'Thing', 0, null), 'wear.not-performer', '"Thing" is not a performer',
    ],
]);
