<?php

declare(strict_types=1);

use CrispReel\Core\Document\Shot;
use CrispReel\Core\Reel\ReelMap;
use CrispReel\Core\Tests\Support\Scenes;

function reel(): ReelMap
{
    // The third shot shows again what the first did, from another camera.
    return new ReelMap([new Shot('a', 'ca', 10, 40, '010'), new Shot('b', 'cb', 40, 41, '020'), new Shot('c', 'cc', 20, 35, '030')]);
}

test('reel time to shot, scene frame and camera', function (int $reel, array $expected): void {
    expect(reel()->toScene($reel))->toBe($expected);
})->with([[0, [0, 10, 'ca']], [29, [0, 39, 'ca']], [30, [1, 40, 'cb']], [31, [2, 20, 'cc']], [45, [2, 34, 'cc']]]);

test('there and back is exact for every frame', function (): void {
    $r = reel();
    expect($r->length)->toBe(46);
    for ($f = 0; $f < $r->length; $f++) {
        [$shot, $scene] = $r->toScene($f);
        expect($r->toReel($shot, $scene))->toBe($f)->and($r->showing($scene))->toContain($f);
    }
    expect($r->showing(25))->toBe([15, 36])->and($r->showing(99))->toBe([]);
});

test('frames that are not on the reel are refused', function (callable $ask): void {
    $ask(reel());
})->with([fn ($r) => $r->toScene(46), fn ($r) => $r->toScene(-1), fn ($r) => $r->toReel(0, 40), fn ($r) => $r->toReel(9, 0)])
    ->throws(OutOfRangeException::class);

test('the last shot runs to the end of the scene, however long it grows', function (): void {
    $shots = [['id' => 's1', 'camera' => 'ca', 'in' => 0, 'out' => 20], ['id' => 's2', 'camera' => 'ca', 'in' => 20, 'out' => null]];
    $parts = ['cameras' => [Scenes::camera('ca', [['frame' => 0]])], 'shots' => $shots, 'items' => [Scenes::item('o', 'oda')]];
    $a = Scenes::compile($parts + ['beats' => [Scenes::beat('b', 'o', 'wave', 0)]]);
    $b = Scenes::compile($parts + ['beats' => [Scenes::beat('b', 'o', 'wave', 60)]]);
    expect(ReelMap::of($a)->length)->toBe($a->frames)->and(ReelMap::of($b)->length)->toBe($b->frames)->and($b->frames)
        ->toBe($a->frames + 60);
});
