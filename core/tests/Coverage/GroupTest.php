<?php

declare(strict_types=1);

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Framer;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Coverage\Group;
use CrispReel\Core\Coverage\Proposal;
use CrispReel\Core\Coverage\SetUps;
use CrispReel\Core\Coverage\Stand;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * People of one height at places on the ground.
 *
 * @param  array<string, array{float, float, float}>  $at  x, z and heading in degrees, by id
 * @param  array<string, mixed>  $more
 */
function crowdStand(array $at, array $more = [], int $frame = 0): Stand
{
    static $memory = new Memory;
    $items = [];
    foreach ($at as $id => [$x, $z, $heading]) {
        $items[] = Scenes::item($id, $id === 'i2' ? 'bram' : 'oda', $x, $z, $heading);
    }

    return new Stand(Scenes::compile(['items' => $items] + $more, null, $memory), new FakeAssets, $memory, $frame, new Gate(16 / 9));
}

/** A row of four along x; the two in the middle are named first. */
const ROW = ['i1' => [-0.5, 0.0, 0.0], 'i2' => [0.5, 0.1, 0.0], 'i3' => [-1.6, 0.0, 0.0], 'i4' => [1.7, 0.0, 0.0]];

test('the ends of a row are the two farthest apart, whoever is named first', function (): void {
    $ends = (new Group(crowdStand(ROW), array_keys(ROW)))->ends();
    sort($ends);
    expect($ends)->toBe(['i3', 'i4']);
});

test('a row that looks one way is seen from before its faces; people in a ring from square to their longest side', function (): void {
    [$line, $before] = (new Group(crowdStand(ROW), array_keys(ROW)))->headings();
    // From i1 to i2 is along +x, all look to +z.
    expect(rad2deg($line))->toEqualWithDelta(84.0, 2.0)->and(rad2deg($before))->toEqualWithDelta(0.0, 3.0);
    // Two pairs face each other across z = 0; the longest side runs along x, and one more looks to -z.
    $ring = ['i1' => [-1.5, 0.2, 90.0], 'i2' => [1.5, 0.0, -90.0], 'i3' => [0.0, 0.6, 180.0]];
    [, $before] = (new Group(crowdStand($ring), array_keys($ring)))->headings();
    expect(abs(rad2deg($before)))->toEqualWithDelta(180.0, 6.0);
});

test('set-ups of a group hold every one of them in the picture, by each size', function (): void {
    $stand = crowdStand(ROW);
    $all = (new SetUps($stand))->of('i1', 'i2', 20.0, 'level', 0.0, ['i3', 'i4']);
    $group = array_values(array_filter($all, static fn (Proposal $p): bool => $p->family === 'group'));
    expect($group)->toHaveCount(6);
    $far = [];
    foreach ($group as $p) {
        expect($p->view)->not->toBeNull("{$p->title}: {$p->says}")->and($p->framing->people())->toBe(['i1', 'i2', 'i3', 'i4']);
        foreach (array_keys(ROW) as $who) {
            foreach (['eyes', 'crown', 'chest'] as $mark) {
                [$x, $y, $depth] = $p->view->project($stand->marks($who)->middle($mark), 16 / 9);
                expect($depth > 0 && abs($x) < 0.95 && abs($y) < 0.97)->toBeTrue("{$p->title}: {$who} {$mark} at {$x}, {$y}");
            }
        }
        $far[$p->title] = $p->view->focusMetres / $p->framing->focalMm;
    }
    expect($far['All, whole'])->toBeGreaterThan($far['All, to the belt'])
        ->and($far['All, with what is around'])->toBeGreaterThan($far['All, whole']);
    // Faces look to +z: so the lens stands there.
    expect($group[0]->view?->position[2])->toBeGreaterThan(1.0);
});

test('a group is seen from where nobody stands before another', function (): void {
    // Along the line of sight from before them i2 hides i1, and i4 hides i3.
    $files = ['i1' => [-0.6, -0.9, 0.0], 'i2' => [-0.6, 0.9, 0.0], 'i3' => [0.6, -0.9, 0.0], 'i4' => [0.6, 0.9, 0.0]];
    $stand = crowdStand($files);
    $found = array_column((new SetUps($stand))->of('i1', 'i4', 20.0, 'level', 0.0, ['i2', 'i3']), null, 'title')['All, whole'];
    expect($found->view)->not->toBeNull($found->says);
    $aim = Framer::solve($found->framing, $stand->marks('i1'), array_map($stand->marks(...), $found->framing->with()), $stand->gate);
    foreach (array_keys($files) as $who) {
        expect($aim)->toBeInstanceOf(Aim::class)->and($stand->clear($aim, $who, []))->toBeGreaterThan(0.5, $who);
    }
});

test('a camera on a group keeps the middle of all of them while one walks off, and films each', function (): void {
    $more = [
        'beats' => [Scenes::beat('b1', 'i4', 'walk', 0)],
        'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [[
            'id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'partner' => 'i2', 'others' => ['i3', 'i4'], 'kind' => 'together',
            'size' => 'full', 'sideDeg' => -84.0, 'focalMm' => 35.0,
        ]],
    ];
    $scene = crowdStand(ROW, $more)->scene;
    expect($scene->framed['c1']->subjects())->toBe(['i1', 'i2', 'i3', 'i4']);
    foreach ([0, 24, 36] as $frame) {
        $stand = crowdStand(ROW, $more, $frame);
        $middle = V3::mean(array_map(fn (string $w): array => $stand->marks($w)->middle('eyes'), array_keys(ROW)));
        $at = SceneEvaluator::at($scene, $frame)->cameras['c1']->project($middle, 16 / 9);
        $first ??= $at;
        expect(hypot($at[0] - $first[0], $at[1] - $first[1]))->toBeLessThan(0.05);
    }
});

test('a hand is offered while it holds something, fills the picture, and is told of when it leaves it', function (): void {
    $more = [
        'items' => [Scenes::item('i1', 'oda', 0.0, 0.0, 0.0), Scenes::item('i2', 'lantern', 0.0, 1.0, 0.0)],
        'links' => [['id' => 'l1', 'child' => 'i2', 'parent' => 'i1', 'mount' => 'handR', 'from' => 10, 'keep' => 'grip']],
    ];
    $titles = static function (int $frame) use ($more): array {
        static $memory = new Memory;
        $stand = new Stand(Scenes::compile($more, null, $memory), new FakeAssets, $memory, $frame, new Gate(16 / 9));

        return array_column((new SetUps($stand))->of('i1', null, 30.0, 'level'), null, 'title');
    };
    expect($titles(0))->not->toHaveKey('The right hand')->and($titles(20))->not->toHaveKey('The left hand');
    $found = $titles(20)['The right hand'];
    expect($found->framing->part)->toBe('rightHand')->and($found->view)->not->toBeNull();
    $stand = crowdStand(['i1' => [0.0, 0.0, 0.0]], [], 20);
    $box = $stand->marks('i1')->hand('rightHand');
    $ys = array_map(static fn (array $p): float => $found->view->project($p, 16 / 9)[1], $box);
    expect(max($ys))->toBeLessThan(0.6)->and(max($ys) - min($ys))->toBeGreaterThan(0.5);
});
