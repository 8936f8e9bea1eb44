<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Vehicle;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Staging\Push;
use CrispReel\Core\Staging\UnableToStage;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Commands of Oda's push of a wagon, by name.
 *
 * @return array<string, list<Command>>
 */
function pushed(array $oda, array $beats = [], ?int $start = null, string $thing = 'Wagon'): array
{
    $items = [$oda, Scenes::item('Wagon', 'wagon'), Scenes::item('Key', 'key', 9.0, 9.0)];
    $data = Scenes::data(['items' => $items, 'beats' => $beats]);
    $scene = Document::fromArray($data);
    $walk = $scene->assets['m-walkToMark'];
    $out = [];
    foreach (Push::of($scene, new FakeAssets, new Memory, $walk, 'Oda', $thing, [[0.0, 3.0], [2.0, 5.0]], $start, 0.85) as $command) {
        $out[$command->name][] = $command;
    }

    return $out;
}

test('who pushes walks to the back of the thing, then behind it, and has both hands on its grips meanwhile', function (): void {
    $all = pushed(Scenes::item('Oda', 'oda', 3.0, -2.0));
    [$there, $along] = $all['beat.add'];
    // The wagon goes along z: its back is at lower z, straight behind it.
    [$x, $z] = $there->payload['path']['points'][0];
    expect($x)->toEqualWithDelta(0.0, 1e-9)->and($z)->toBeLessThan(-0.3)
        ->and($there->payload['path']['faceDeg'])->toEqualWithDelta(0.0, 1e-6)
        ->and($there->payload['start'])->toBe(0)->and($along->payload['start'])->toBeGreaterThan(24)
        ->and($along->payload['settings'])->toBe(['speed' => 0.85, 'lean' => 15]);
    // The walk ends as far before the end of the way as who pushes is behind the axle.
    $rear = Vehicle::of((new FakeAssets)->digest(Document::fromArray(Scenes::data([]))->assets['wagon']))->rear[1];
    $last = $along->payload['path']['points'][count($along->payload['path']['points']) - 1];
    expect(hypot($last[0] - 2.0, $last[1] - 5.0))->toEqualWithDelta($rear - $z, 1e-6);
    expect($all['item.route'][0]->payload)->toMatchArray([
        'item' => 'Wagon', 'by' => 'Oda', 'points' => [[0.0, 3.0], [2.0, 5.0]], 'from' => 0,
    ]);
    expect(array_map(static fn (Command $c): array => [$c->payload['effector'], $c->payload['mount']], $all['contact.add']))
        ->toBe([['handL', 'gripL'], ['handR', 'gripR']]);
    foreach ($all['contact.add'] as $c) {
        expect($c->payload['from'])->toBe($along->payload['start'])->and($c->payload['to'])->toBeGreaterThan($along->payload['start'] + 48);
    }
});

test('who stands there already does not walk there first, and who has something to do does it before', function (): void {
    [, $z] = pushed(Scenes::item('Oda', 'oda', 3.0, -2.0))['beat.add'][0]->payload['path']['points'][0];
    expect(pushed(Scenes::item('Oda', 'oda', 0.0, $z))['beat.add'])->toHaveCount(1);
    $busy = pushed(Scenes::item('Oda', 'oda', 0.0, $z), [Scenes::beat('b', 'Oda', 'wave', 0)]);
    expect($busy['beat.add'])->toHaveCount(1)->and($busy['beat.add'][0]->payload['start'])->toBeGreaterThan(24);
    expect(pushed(Scenes::item('Oda', 'oda', 3.0, -2.0), [], 40)['beat.add'][0]->payload['start'])->toBe(40);
});

test('what has no grips is not pushed', function (): void {
    expect(static fn () => pushed(Scenes::item('Oda', 'oda'), thing: 'Key'))->toThrow(UnableToStage::class, '"Key" has no grips');
});
