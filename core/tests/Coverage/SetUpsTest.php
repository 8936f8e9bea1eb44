<?php

declare(strict_types=1);

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Coverage\Proposal;
use CrispReel\Core\Coverage\SetUps;
use CrispReel\Core\Coverage\Stand;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * @param  list<array<string, mixed>>  $items
 * @param  array<string, mixed>  $more
 * @param  list<string>  $others
 * @return array<string, Proposal> by title
 */
function setUps(
    array $items, string $subject, ?string $partner, float $side = 20.0, float $hand = 0.0, array $more = [], array $others = [],
): array {
    static $memory = new Memory;
    $scene = Scenes::compile(['items' => $items] + $more, null, $memory);
    $stand = new Stand($scene, new FakeAssets, $memory, 0, new Gate(16 / 9));
    $all = (new SetUps($stand))->of($subject, $partner, $side, 'level', $hand, $others);

    return array_combine(array_map(static fn (Proposal $p): string => $p->title, $all), $all);
}

/** @return list<array<string, mixed>> two who face each other along z */
function facing(float $apart = 1.4): array
{
    return [Scenes::item('i1', 'oda', 0.0, 0.0, 0.0), Scenes::item('i2', 'bram', 0.0, $apart, 180.0)];
}

test('one person is seen in eight sizes, each farther than the one before', function (): void {
    $found = setUps(facing(), 'i1', null, 120.0);
    expect(count($found))->toBe(8);
    $last = 0.0;
    foreach ($found as $title => $p) {
        expect($p->view)->not->toBeNull("{$title}: {$p->says}");
        $tan = $p->view->focusMetres / $p->framing->focalMm;
        expect($tan)->toBeGreaterThan($last);
        $last = $tan;
    }
});

test('cameras on two stand on one side of the line between them, each seen alone where it is asked for', function (): void {
    $found = setUps(facing(), 'i1', 'i2');
    $two = array_filter($found, static fn (Proposal $p): bool => $p->family === 'two');
    expect($two)->toHaveKeys([
        'Over i2, on i1', 'Over i1, on i2', 'Both, to the belt', 'Both, whole', 'i1 alone, close-up', 'i2 alone, close-up',
    ]);
    foreach ($two as $title => $p) {
        expect($p->view)->not->toBeNull("{$title}: {$p->says}");
        // The line runs along z: all stand at its +x.
        expect($p->view->position[0])->toBeGreaterThan(0.05, $title);
    }
    $ahead = static fn (Proposal $p): array => Q4::rotate($p->view->rotation, [0.0, 0.0, -1.0]);
    // One looks to the right of the picture and the other to the left: the eyelines meet.
    expect($ahead($two['Over i2, on i1'])[2])->toBeLessThan(0.0)->and($ahead($two['Over i1, on i2'])[2])->toBeGreaterThan(0.0);
    foreach (['i1 alone, close-up' => [0.0, 1.5, 1.27], 'i2 alone, close-up' => [0.0, 1.5, 0.13]] as $title => $other) {
        [$x, , $depth] = $two[$title]->view->project($other, 16 / 9);
        expect($depth < 0 || abs($x) > 1.0)->toBeTrue("{$title} shows the other's face");
    }
});

test('the side is kept that cameras have, and what crosses the line is marked', function (): void {
    $more = [
        'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [[
            'id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'partner' => 'i2', 'kind' => 'overShoulder', 'sideDeg' => -30.0,
        ]],
    ];
    $kept = setUps(facing(), 'i1', 'i2', more: $more)['Both, whole'];
    expect($kept->view?->position[0])->toBeLessThan(-0.5)->and($kept->crosses)->toBeFalse();
    $seenFromTheOther = setUps(facing(), 'i2', 'i1', more: $more)['Both, whole'];
    expect($seenFromTheOther->view?->position[0])->toBeLessThan(-0.5)->and($seenFromTheOther->crosses)->toBeFalse();
    $across = setUps(facing(), 'i1', 'i2', hand: 1.0, more: $more)['Both, whole'];
    expect($across->view?->position[0])->toBeGreaterThan(0.5)->and($across->crosses)->toBeTrue();
});

test('who stands in the way is gone around, or named', function (): void {
    // A crate, a metre each way, between her and where the lens would stand.
    $box = [...facing(6.0), Scenes::item('i3', 'box', 0.0, 1.6, scale: 1.0, y: 0.9)];
    $found = setUps($box, 'i1', null, 0.0);
    expect($found['Full shot']->view)->not->toBeNull()->and($found['Full shot']->framing->sideDeg)->not->toBe(0.0)
        ->and($found['Full shot']->says)->toContain('i3 is in the way');
    // Walled in on all sides, close by.
    $walls = [Scenes::item('i1', 'oda')];
    foreach ([[0, 1.2], [0, -1.2], [1.2, 0], [-1.2, 0], [0.9, 0.9], [-0.9, 0.9], [0.9, -0.9], [-0.9, -0.9]] as $n => [$x, $z]) {
        $walls[] = Scenes::item('w'.$n, 'box', $x, $z, scale: 1.0, y: 0.0);
        $walls[] = Scenes::item('v'.$n, 'box', $x, $z, scale: 1.0, y: 1.0);
    }
    $full = setUps($walls, 'i1', null, 0.0)['Full shot'];
    expect($full->view)->toBeNull()->and($full->says)->toMatch('/^[wv]\d is in the way\.$/');
});

test('a thing has set-ups of its own, and who does not face the other is told', function (): void {
    expect(array_keys(setUps([Scenes::item('i1', 'lantern')], 'i1', null)))->toBe(['Detail', 'All of it', 'With what is around']);
    $back = setUps([Scenes::item('i1', 'oda', 0.0, 0.0, 180.0), Scenes::item('i2', 'bram', 0.0, 1.4, 0.0)], 'i1', 'i2');
    expect($back['Over i2, on i1']->view)->toBeNull()->and($back['Over i2, on i1']->says)->toContain('do not face');
});

test('who walks is followed', function (): void {
    static $memory = new Memory;
    $scene = Scenes::compile(['items' => facing(9.0), 'beats' => [Scenes::beat('b1', 'i2', 'walk', 0)]], null, $memory);
    $all = (new SetUps(new Stand($scene, new FakeAssets, $memory, 40, new Gate(16 / 9))))->of('i2', null, 0.0, 'level');
    $moving = array_filter($all, static fn (Proposal $p): bool => $p->family === 'moving');
    expect(array_map(static fn (Proposal $p): string => $p->title, array_values($moving)))
        ->toBe(['Goes ahead of i2', 'Goes beside i2', 'Goes behind i2', 'Turns with i2'])
        ->and(array_keys(setUps(facing(9.0), 'i1', null)))->not->toContain('Goes ahead of i1');
});

test('what changes hands about now is proposed from near and with both, and at no other time', function (): void {
    $items = [...facing(1.0), Scenes::item('i3', 'key', 0.0, 0.5)];
    $links = static fn (int $frame): array => ['links' => [
        ['id' => 'l1', 'child' => 'i3', 'parent' => 'i1', 'mount' => 'handR', 'from' => 0, 'to' => $frame],
        ['id' => 'l2', 'child' => 'i3', 'parent' => 'i2', 'mount' => 'handR', 'from' => $frame],
    ], 'beats' => [Scenes::beat('b1', 'i1', 'talk', 0)]];
    $hands = static fn (array $all): array => array_filter($all, static fn (Proposal $p): bool => $p->family === 'hands');
    foreach (['i1', 'i2'] as $who) {
        $found = $hands(setUps($items, $who, null, more: $links(20)));
        expect(array_slice(array_keys($found), 0, 3))->toBe(['i3, hand to hand', 'i3, from near', 'Both, down to the hands']);
        foreach ($found as $p) {
            expect($p->view)->not->toBeNull($p->says);
        }
        $thing = $found['i3, from near']->view;
        // Less of the scene is seen around it, through whatever lens.
        $wide = static fn (CameraPose $v): float => $v->focusMetres / $v->focalMm;
        expect($wide($thing))->toBeLessThan($wide($found['Both, down to the hands']->view));
    }
    expect($hands(setUps($items, 'i1', null, more: $links(90))))->not->toHaveKey('i3, hand to hand');
});

test('a thing that goes somewhere is followed like a person', function (): void {
    $drives = ['moves' => [['frame' => 0, 'position' => [3.0, 0.0, 0.0]], ['frame' => 48, 'position' => [3.0, 0.0, 6.0]]]];
    $found = setUps([Scenes::item('i1', 'oda'), $drives + Scenes::item('i2', 'wagon', 3.0, 0.0)], 'i2', null);
    $moving = array_filter($found, static fn (Proposal $p): bool => $p->family === 'moving');
    expect(array_keys($moving))->toBe(['Goes ahead of i2', 'Goes beside i2', 'Goes behind i2', 'Turns with i2'])
        ->and(setUps([Scenes::item('i1', 'oda'), Scenes::item('i2', 'wagon', 3.0, 0.0)], 'i2', null))->toHaveCount(3);
});
