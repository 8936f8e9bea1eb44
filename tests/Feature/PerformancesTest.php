<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\Scene;
use App\Scenes\SceneStream;
use CrispReel\Core\CoreFailure;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Staging\UnableToStage;

/** The pier with a walk of Oda's, a touch-up and a contact. */
function acted(object $test, ?App\Models\User $user = null): Scene
{
    $scene = pier($test, $user);
    $test->edit($scene, [
        [
            'do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk', 'start' => 0, 'path' => ['points' => [[1.5, 0.5]], 'arrive' => 96],
            'play' => ['holdAfter' => 12],
        ],
        ['do' => 'touchUp.key', 'item' => 'Oda', 'joint' => 'head', 'frame' => 24, 'turnDeg' => [0, 20, 0]],
        ['do' => 'contact.add', 'item' => 'Bram', 'effector' => 'handR', 'target' => 'Key', 'from' => 48, 'to' => 72],
    ], $user);

    return $scene->refresh();
}

test('paths, play settings, touch-ups and contacts are kept as they were given', function (): void {
    $r = rows(acted($this));
    expect($r['beats'][0]['path'])->toEqual(['points' => [[1.5, 0.5]], 'arrive' => 96])->and($r['beats'][0]['play'])
        ->toBe(['holdAfter' => 12])
        ->and($r['touch_ups'][0])->toMatchArray(['joint' => 'head', 'from' => 24, 'to' => 25])
        ->and($r['touch_ups'][0]['keys'][0]['rotation'][1])->toEqualWithDelta(sin(deg2rad(10)), 1e-9)
        ->and($r['contacts'][0])->toMatchArray(['effector' => 'handR', 'mount' => '', 'from' => 48, 'to' => 72, 'turn' => 'follow']);
});

test('a path leads over the planks of the pier, up its step', function (): void {
    $scene = pier($this);
    $this->edit($scene, [
        ['do' => 'item.place', 'item' => 'Oda', 'position' => [0.4, 0.0, -0.35], 'headingDeg' => -90],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk', 'path' => ['points' => [[-3.0, -0.35]]]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk'],
    ]);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $oda = 'i'.collect(rows($scene)['items'])->firstWhere('name', 'Oda')['id'];
    $lane = $compiled->lanes[$oda];
    $foot = fn (float $f): array => SceneEvaluator::jointPlace($compiled, $oda, $lane->figure->skeleton->roles['footL'], $f)->position;
    $last = $lane->segments[0]->end;
    expect($foot($last)[1] - $foot(0)[1])->toEqualWithDelta(0.30, 0.015)->and($foot($last)[0])->toEqualWithDelta(-3.0, 0.15)
        // The talk that follows stands up there too.
        ->and(V3::distance($foot($last), $foot($last + 40)))->toBeLessThan(0.01)->and($compiled->notes)->toBe([]);
});

test('new work on performances is undone and redone, row for row', function (array $commands): void {
    $user = $this->person();
    $scene = acted($this, $user);
    $first = rows($scene);
    $ids = ['BEAT' => $first['beats'][0]['id'], 'TOUCH' => $first['touch_ups'][0]['id'], 'CONTACT' => $first['contacts'][0]['id']];
    array_walk_recursive($commands, function (&$v) use ($ids): void {
        $v = is_string($v) ? $ids[$v] ?? $v : $v;
    });
    $this->edit($scene, $commands, $user);
    $then = rows($scene);
    expect($then)->not->toBe($first);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo", ['base' => $scene->refresh()->revision])->assertOk();
    expect(rows($scene))->toBe($first);
    $this->postJson("/api/scenes/{$scene->id}/redo", [])->assertOk();
    expect(rows($scene))->toBe($then);
})->with([
    'another path' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'path' => ['points' => [[1, 1], [2, 1.5]], 'faceDeg' => 90]]]],
    'no path' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'path' => null]]],
    'play settings' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'play' => ['mirror' => true, 'energy' => 0.6, 'holdAfter' => null]]]],
    'a split' => [[['do' => 'beat.split', 'beat' => 'BEAT', 'frame' => 40]]],
    'one more key' => [[['do' => 'touchUp.key', 'touchUp' => 'TOUCH', 'frame' => 40, 'turnDeg' => [5, 0, 0]]]],
    'a touch-up changed' => [[['do' => 'touchUp.set', 'touchUp' => 'TOUCH', 'from' => 20, 'to' => 60, 'easeIn' => 2]]],
    'a touch-up taken away' => [[['do' => 'touchUp.remove', 'touchUp' => 'TOUCH']]],
    'a contact changed' => [[[
        'do' => 'contact.set', 'contact' => 'CONTACT', 'effector' => 'handL', 'target' => null, 'offset' => [2.8, 1.2, 0.5], 'to' => 90,
        'turn' => 'keep',
    ]]],
    'a contact let go' => [[['do' => 'contact.remove', 'contact' => 'CONTACT']]],
    'the performer and all of hers' => [[['do' => 'item.remove', 'item' => 'Oda'], ['do' => 'item.remove', 'item' => 'Bram']]],
    'a copy with path and touch-up' => [[['do' => 'item.duplicate', 'item' => 'Oda']]],
    'the rate' => [[['do' => 'production.set', 'rate' => [30, 1]]]],
]);

test('a key on a covered frame joins the touch-up that is there; one far off begins another', function (): void {
    $scene = acted($this);
    $this->edit($scene, [['do' => 'touchUp.key', 'item' => 'Oda', 'joint' => 'head', 'frame' => 30, 'turnDeg' => [0, -20, 0]]]);
    expect(rows($scene)['touch_ups'])->toHaveCount(1)->and(array_column(rows($scene)['touch_ups'][0]['keys'], 'frame'))->toBe([24, 30])
        ->and(rows($scene)['touch_ups'][0]['to'])->toBe(31);
    $this->edit($scene, [['do' => 'touchUp.key', 'item' => 'Oda', 'joint' => 'head', 'frame' => 90, 'turnDeg' => [0, -20, 0]]]);
    expect(rows($scene)['touch_ups'])->toHaveCount(2);
});

test('a split changes no frame', function (): void {
    $scene = acted($this);
    $oda = 'i'.collect(rows($scene)['items'])->firstWhere('name', 'Oda')['id'];
    $before = app(SceneStream::class)->compile($scene);
    $this->edit($scene, [['do' => 'beat.split', 'beat' => rows($scene)['beats'][0]['id'], 'frame' => 40]]);
    $after = app(SceneStream::class)->compile($scene->refresh());
    expect(count($after->lanes[$oda]->segments))->toBe(2)->and($after->frames)->toBe($before->frames);
    foreach ([0, 39, 40, 41, 70, 100] as $f) {
        expect(SceneEvaluator::row($after, $oda, $f))->toEqualWithDelta(SceneEvaluator::row($before, $oda, $f), 1e-5);
    }
});

test('a new rate brings paths, holds and keys along', function (): void {
    $scene = acted($this);
    $this->edit($scene, [['do' => 'production.set', 'rate' => [48, 1]]]);
    $r = rows($scene);
    expect($r['beats'][0]['path']['arrive'])->toBe(192)->and($r['beats'][0]['play']['holdAfter'])->toBe(24)
        ->and($r['touch_ups'][0]['keys'][0]['frame'])->toBe(48)
        ->and($r['touch_ups'][0]['from'])->toBe(48)->and($r['contacts'][0]['to'])->toBe(144);
});

test('what does not fit is told in the manifest', function (): void {
    $user = $this->person();
    $scene = acted($this, $user);
    $notes = $this->actingAs($user)->getJson("/api/scenes/{$scene->id}")->assertOk()->json('manifest.notes');
    // The key floats two metres from Bram.
    expect($notes)->toHaveCount(1)->and($notes[0]['code'])->toBe('contact.reach')->and($notes[0]['frames'])->toBe([48, 48])
        ->and($notes[0]['sentence'])->toContain('right hand of Bram')
        ->and($notes[0]['figures'][0]['value'])->toBeGreaterThan($notes[0]['figures'][0]['allowed'])
        ->and($notes[0]['mends'][0]['commands'][0]['do'])->toBe('contact.remove');
});

test('bad commands on performances change nothing and say why', function (array $commands, string $message): void {
    $scene = acted($this);
    $before = rows($scene);
    $beat = $before['beats'][0]['id'];
    array_walk_recursive($commands, function (&$v) use ($beat): void {
        $v = $v === 'BEAT' ? $beat : $v;
    });
    try {
        $this->edit($scene, $commands);
    } catch (UserError|CoreFailure $e) {
        expect($e->getMessage())->toContain($message)->and(rows($scene))->toBe($before);

        return;
    }
    $this->fail('It was taken.');
})->with([
    'a path for a talk' => [
        [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'talk', 'path' => ['points' => [[1, 1]]]]], 'does not follow a path',
    ],
    'a path without places' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'path' => ['points' => []]]], 'path.points'],
    'a place of one number' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'path' => ['points' => [[1]]]]], 'path.points.0'],
    'an ease that is none' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'play' => ['ease' => [3, 0, 1, 1]]]], 'play/ease'],
    'a split outside' => [[['do' => 'beat.split', 'beat' => 'BEAT', 'frame' => 5000]], 'not inside this beat'],
    'a touch-up of a crate' => [[['do' => 'touchUp.key', 'item' => 'Key', 'joint' => 'head', 'frame' => 1]], 'is not a performer'],
    'a joint that is not there' => [
        [['do' => 'touchUp.key', 'item' => 'Oda', 'joint' => 'wing', 'frame' => 1]], 'no joint or mount called "wing"',
    ],
    'a contact with nothing' => [[['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'handL', 'from' => 3]], 'needs a place'],
    'an effector that is none' => [
        [['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'elbow', 'offset' => [0, 1, 0], 'from' => 3]], 'effector',
    ],
    'a contact that ends first' => [
        [['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'handL', 'offset' => [0, 1, 0], 'from' => 30, 'to' => 30]],
        'ends after it begins',
    ],
    'holding each other' => [
        [
            ['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'handL', 'target' => 'Bram', 'mount' => 'handR', 'from' => 0],
            ['do' => 'contact.add', 'item' => 'Bram', 'effector' => 'handR', 'target' => 'Oda', 'mount' => 'handL', 'from' => 10],
        ],
        'in a circle',
    ],
]);

test('a performer pushes the cart up the ramp, hands on the grips', function (): void {
    $scene = $this->scene();
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'ferry-pier', 'home' => true],
        ['do' => 'item.add', 'asset' => 'hand-cart', 'name' => 'Cart', 'position' => [1.0, 0, 1.38], 'headingDeg' => 0],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'name' => 'Oda', 'position' => [3.6, 0, 0.6], 'headingDeg' => -90],
        ['do' => 'item.push', 'item' => 'Cart', 'by' => 'Oda', 'points' => [[-1.0, 1.38], [-3.4, 1.38]]],
    ]);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $r = rows($scene);
    $cart = 'i'.collect($r['items'])->firstWhere('name', 'Cart')['id'];
    expect($r['beats'])->toHaveCount(2)->and($r['contacts'])->toHaveCount(2)->and($compiled->notes)->toBe([]);
    $start = SceneEvaluator::place($compiled, $cart, 0)->position;
    $end = SceneEvaluator::place($compiled, $cart, $compiled->frames - 1)->position;
    expect($start)->toBe([1.0, 0.0, 1.38])->and($end[0])->toEqualWithDelta(-3.4, 0.2)->and($end[1])->toEqualWithDelta(0.3, 0.03);
    for ($f = $r['contacts'][0]['from']; $f < $r['contacts'][0]['to']; $f += 10) {
        foreach (SceneEvaluator::at($compiled, $f)->missing as $miss) {
            expect($miss)->toBeLessThan(0.02);
        }
    }
});

test('routes, keys and falls are kept, undone and refused', function (): void {
    $user = $this->person();
    $scene = acted($this, $user);
    $first = rows($scene);
    $this->edit($scene, [
        ['do' => 'item.add', 'as' => '$c', 'asset' => 'hand-cart', 'name' => 'Cart', 'position' => [0, 0, 1.2]],
        ['do' => 'item.route', 'item' => '$c', 'points' => [[-2, 1.2]], 'from' => 5, 'speed' => 1.0],
        ['do' => 'item.key', 'item' => 'Key', 'frame' => 12, 'turnDeg' => [0, 90, 0]],
        [
            'do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 30, 'to' => 60, 'release' => 'fall',
            'velocity' => [1, 2, 0],
        ],
    ], $user);
    $r = rows($scene);
    expect(collect($r['items'])->firstWhere('name', 'Cart')['route'])->toEqual(['points' => [[-2, 1.2]], 'from' => 5, 'speed' => 1.0])
        ->and(collect($r['items'])->firstWhere('name', 'Key')['moves'][0]['frame'])->toBe(12)->and($r['links'][0])
        ->toMatchArray(['release' => 'fall', 'velocity' => [1, 2, 0]]);
    $this->edit(
        $scene,
        [['do' => 'item.route', 'item' => 'Cart', 'points' => null], ['do' => 'item.key', 'item' => 'Key', 'frame' => 12, 'unkey' => true]],
        $user,
    );
    expect(collect(rows($scene)['items'])->firstWhere('name', 'Cart')['route'])->toBeNull()
        ->and(collect(rows($scene)['items'])->firstWhere('name', 'Key')['moves'])->toBe([]);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(rows($scene))->toBe($first);
    foreach ([
        [['do' => 'item.route', 'item' => 'Oda', 'points' => [[1, 1]]], 'is a performer'],
        [['do' => 'item.key', 'item' => 'Oda', 'frame' => 3], 'moves by motions'],
        [['do' => 'item.push', 'item' => 'Key', 'by' => 'Oda', 'points' => [[1, 1]]], 'no grips'],
    ] as [$command, $message]) {
        expect(fn () => $this->edit($scene, [$command]))->toThrow($message);
    }
});

test('the best joint trims both beats and closes the gap; it is undone in one', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit(
        $scene,
        [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'], ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk']],
        $user,
    );
    $first = rows($scene);
    $edit = $this->edit($scene, [['do' => 'beat.bestJoin', 'beat' => $first['beats'][1]['id']]], $user);
    [$a, $b] = rows($scene)['beats'];
    expect($edit->label)->toContain('nearer')->and($a['sourceOut'])->toBeBetween(1.9, 3.41)->and($b['sourceIn'])->toBeBetween(0.0, 1.5)
        ->and(abs($b['start'] - $a['sourceOut'] * 24))->toBeLessThan(0.51);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(rows($scene))->toBe($first);
    expect(fn () => $this->edit($scene, [['do' => 'beat.bestJoin', 'beat' => $first['beats'][0]['id']]]))
        ->toThrow(UserError::class, 'No beat stands before');
});

test('a crowd stands on the ground, plays on and on, and is the same for the same seed', function (): void {
    $make = function (): Scene {
        $scene = $this->scene();
        $this->edit($scene, [
            ['do' => 'item.add', 'asset' => 'ferry-pier', 'home' => true],
            [
                'do' => 'crowd.add', 'assets' => ['oda-ferrant', 'bram-tiel'], 'motions' => ['idle', 'talk'], 'count' => 8,
                'area' => [[-5.5, 0.0], [-2.0, 0.0], [-2.0, 2.0], [-5.5, 2.0]], 'spacing' => 0.6, 'seed' => 5, 'facing' => [0, -4],
                'name' => 'Passenger',
            ],
        ]);

        return $scene->refresh();
    };
    $scene = $make();
    $people = collect(rows($scene)['items'])->where('kind', 'performer')->values();
    expect($people)->toHaveCount(8)->and($people->pluck('name')->unique())->toHaveCount(8);
    foreach ($people as $p) {
        expect($p['position'][1])->toEqualWithDelta(0.30, 0.03);
    }
    $compiled = app(SceneStream::class)->compile($scene);
    $id = array_key_first($compiled->lanes);
    expect(SceneEvaluator::row($compiled, $id, 500))->not->toBe(SceneEvaluator::row($compiled, $id, 700));
    $again = collect(rows($make())['items'])->where('kind', 'performer')->pluck('position')->all();
    expect($again)->toBe($people->pluck('position')->all());
    expect(fn () => $this->edit(
        $scene,
        [['do' => 'crowd.add', 'assets' => ['brass-key'], 'motions' => ['idle'], 'count' => 3, 'area' => [[0, 0], [1, 0], [1, 1]]]],
    ))->toThrow(UserError::class, 'is not a performer')
        ->and(fn () => $this->edit(
            $scene,
            [['do' => 'crowd.add', 'assets' => ['oda-ferrant'], 'motions' => ['idle'], 'count' => 0, 'area' => [[0, 0], [1, 0], [1, 1]]]],
        ))->toThrow(UserError::class, 'count');
});

test('a performer rides the bicycle: one command, one step of undo', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit(
        $scene,
        [
            ['do' => 'item.add', 'asset' => 'bicycle', 'name' => 'Bicycle', 'position' => [2.0, 0, 1.5], 'headingDeg' => -90],
            ['do' => 'item.route', 'item' => 'Bicycle', 'points' => [[-1.2, 1.4]], 'speed' => 1.5],
        ],
        $user,
    );
    $first = rows($scene);
    $this->edit($scene, [['do' => 'item.ride', 'item' => 'Oda', 'on' => 'Bicycle', 'from' => 0]], $user);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    expect(rows($scene)['contacts'])->toHaveCount(5)->and($compiled->notes)->toBe([]);
    $oda = 'i'.collect(rows($scene)['items'])->firstWhere('name', 'Oda')['id'];
    $hips = fn (float $f): array => SceneEvaluator::jointPlace($compiled, $oda, $compiled->lanes[$oda]->figure->hips, $f)->position;
    expect($hips(0)[0] - $hips($compiled->frames - 1)[0])->toBeGreaterThan(2.0)->and($hips(30)[1])->toBeBetween(0.85, 1.05);
    // Where Oda stood before is as it was.
    $stood = static fn (array $all): array => collect($all['items'])->firstWhere('name', 'Oda')['position'];
    expect($stood(rows($scene)))->toBe($stood($first));
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(rows($scene))->toBe($first);
    expect(fn () => $this->edit($scene, [['do' => 'item.ride', 'item' => 'Oda', 'on' => 'Key']]))
        ->toThrow(UnableToStage::class, 'no places for a rider');
});

test('a performer walks up to the bicycle, gets on, and gets off where it stands', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'bicycle', 'name' => 'Bicycle', 'position' => [2.0, 0, 1.5], 'headingDeg' => -90],
        ['do' => 'item.route', 'item' => 'Bicycle', 'points' => [[-1.2, 1.4]], 'speed' => 1.5],
    ], $user);
    $said = $this->edit($scene, [['do' => 'item.ride', 'item' => 'Oda', 'on' => 'Bicycle', 'from' => 20, 'to' => 300]], $user);
    $rows = rows($scene->refresh());
    $bicycle = collect($rows['items'])->firstWhere('name', 'Bicycle');
    $on = collect($rows['beats'])->filter(
        fn (array $b): bool => ($b['play']['on'] ?? '') === "i{$bicycle['id']}",
    )->sortBy('start')->values();
    expect($on)->toHaveCount(4)->and($on[0]['start'])->toBeGreaterThan(20)->and(
        $bicycle['route']['from'],
    )->toBeGreaterThan($on[0]['start'] + 40)
        ->and($on[3]['start'])->toBe(300);
    // Taken out, the thing leaves the beats where they are, and the scene still plays.
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Bicycle']], $user);
    expect(app(SceneStream::class)->compile($scene->refresh())->frames)->toBeGreaterThan(300);
});

/** Beats of a performer by their motions' slugs, in time order. @return array<string, array<string, mixed>> */
function beatsOf(array $rows, string $who): array
{
    $item = collect($rows['items'])->firstWhere('name', $who)['id'];
    $slug = Asset::query()->pluck('slug', 'id');

    return collect($rows['beats'])->where('itemId', $item)->sortBy('start')->keyBy(fn (array $b): string => $slug[$b['assetId']])->all();
}

test('what is clicked is done on what is near: a bicycle got on and off, a seat sat on', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'bicycle', 'name' => 'Bicycle', 'position' => [2.0, 0, 1.5], 'headingDeg' => -90],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'get-on', 'start' => 30, 'partner' => 'near'],
    ], $user);
    $on = beatsOf(rows($scene->refresh()), 'Oda');
    expect(array_keys($on))->toContain('get-on', 'wait-on')->and($on['get-on']['start'])->toBeGreaterThan(30);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'get-off', 'start' => 400, 'partner' => 'near']], $user);
    $off = rows($scene->refresh());
    expect(beatsOf($off, 'Oda')['get-off']['start'])->toBe(400)->and(collect($off['contacts'])->pluck('to')->max())->toBeLessThan(450);
    expect(
        fn () => $this->edit($scene, [['do' => 'item.alight', 'item' => 'Bram', 'at' => 40]]),
    )->toThrow(UnableToStage::class, 'on nothing');

    $room = $this->scene($user);
    $this->edit($room, [
        ['do' => 'item.add', 'asset' => 'chair', 'name' => 'Chair', 'position' => [0, 0, -1.5]],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'name' => 'Bram', 'position' => [1.4, 0, 1.0], 'headingDeg' => 180],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'sit-down', 'partner' => 'near'],
    ], $user);
    expect(array_keys(beatsOf(rows($room->refresh()), 'Bram')))->toBe(['walk', 'sit-down']);
    $compiled = app(SceneStream::class)->compile($room->refresh());
    $id = array_key_first($compiled->lanes);
    $hips = SceneEvaluator::jointPlace($compiled, $id, $compiled->lanes[$id]->figure->hips, $compiled->frames - 1)->position;
    expect([$hips[0], $hips[2]])->toEqualWithDelta([0.0, -1.5], 0.06);
});

test('a trip after a drawn walk is entered without a stop; a walk may be told to stop again', function (): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'name' => 'Bram', 'position' => [0, 0, 0]],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'walk', 'path' => ['points' => [[0, 3]]]],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'trip'],
    ]);
    $beats = beatsOf(rows($scene->refresh()), 'Bram');
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    [$walk] = array_values($compiled->lanes)[0]->segments;
    expect($beats['walk']['path']['goesOn'])->toBeTrue()->and($beats['trip']['start'])->toBe((int) ceil($walk->end))
        ->and($compiled->notes)->toBe([]);
    $this->edit($scene, [['do' => 'beat.set', 'beat' => $beats['walk']['id'], 'path' => ['points' => [[0, 3]], 'goesOn' => false]]]);
    expect(array_values(app(SceneStream::class)->compile($scene->refresh())->lanes)[0]->segments[0]->end)->toBeGreaterThan($walk->end + 10);
});

test('a ball is thrown to whoever is near, and a child led by the hand, with one command each', function (): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'mirre-tolland', 'name' => 'Mirre', 'position' => [0, 0, 0], 'headingDeg' => 90],
        ['do' => 'item.add', 'asset' => 'pim-alder', 'name' => 'Pim', 'position' => [2.6, 0, 0.3], 'headingDeg' => -90],
        ['do' => 'item.add', 'asset' => 'ball', 'name' => 'Ball', 'position' => [0, 0.5, 0]],
        ['do' => 'link.add', 'child' => 'Ball', 'parent' => 'Mirre', 'mount' => 'handR', 'from' => 0, 'keep' => 'grip'],
        ['do' => 'beat.add', 'item' => 'Mirre', 'motion' => 'throw-to-a', 'partner' => 'near'],
    ]);
    $rows = rows($scene->refresh());
    expect(array_keys(beatsOf($rows, 'Pim')))->toBe(['throw-to-b'])->and($rows['links'])->toHaveCount(2)
        ->and(beatsOf($rows, 'Mirre')['throw-to-a']['settings']['gap'])->toEqualWithDelta(2.6, 0.1)
        ->and($rows['links'][0]['release'])->toBe('fall')->and($rows['links'][1]['from'])->toBeGreaterThan($rows['links'][0]['to']);
    // Whichever half is clicked, the one who leads goes first.
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Pim', 'motion' => 'led-by-hand', 'partner' => 'near']]);
    $rows = rows($scene->refresh());
    $lead = beatsOf($rows, 'Mirre')['lead-by-hand'];
    expect(beatsOf($rows, 'Pim')['led-by-hand']['play']['with'])->toBe("b{$lead['id']}");
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Pim', 'motion' => 'be-carried', 'partner' => 'near']]);
    $rows = rows($scene->refresh());
    $bears = beatsOf($rows, 'Mirre')['carry-somebody'];
    expect(beatsOf($rows, 'Pim')['be-carried']['play'])->toBe(['keepLooping' => true, 'with' => "b{$bears['id']}"]);
    $held = collect(app(SceneStream::class)->compile($scene->refresh())->holds)->flatten(1)->map(fn ($h): string => $h->contact->id);
    expect($held->filter(fn (string $id): bool => str_starts_with($id, 'borne')))->toHaveCount(2)
        ->and($held->filter(fn (string $id): bool => str_starts_with($id, 'led')))->toHaveCount(1);
});

test('a pusher who is taken out leaves the cart where it stands; undo brings both back', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'hand-cart', 'name' => 'Cart', 'position' => [0, 0, 0], 'headingDeg' => 0],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'name' => 'Oda', 'position' => [2.6, 0, 0.6], 'headingDeg' => -90],
        ['do' => 'item.push', 'item' => 'Cart', 'by' => 'Oda', 'points' => [[-2.0, 0.0]]],
    ], $user);
    $first = rows($scene);
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Oda']], $user);
    expect(collect(rows($scene)['items'])->firstWhere('name', 'Cart')['route'])->toBeNull()->and(rows($scene)['contacts'])->toBe([]);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(rows($scene))->toBe($first);
});

test('routes, keys and crowds follow the rate', function (): void {
    $scene = pier($this);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'bicycle', 'name' => 'Bicycle', 'position' => [2, 0, 1.5]],
        ['do' => 'item.route', 'item' => 'Bicycle', 'points' => [[2, 3.0]], 'from' => 12, 'to' => 60],
        ['do' => 'item.key', 'item' => 'Key', 'frame' => 24],
    ]);
    $this->edit($scene, [['do' => 'production.set', 'rate' => [48, 1]]]);
    $items = collect(rows($scene)['items'])->keyBy('name');
    expect($items['Bicycle']['route'])->toMatchArray(['from' => 24, 'to' => 120])->and($items['Key']['moves'][0]['frame'])->toBe(48);
    // The same crowd in a production of twice the rate is as many seconds ahead.
    $skips = function (array $rate): array {
        $scene = $this->scene();
        $this->edit($scene, [['do' => 'production.set', 'rate' => $rate]]);
        $this->edit(
            $scene,
            [[
                'do' => 'crowd.add', 'assets' => ['oda-ferrant'], 'motions' => ['idle'], 'count' => 3,
                'area' => [[0, 0], [4, 0], [4, 4], [0, 4]], 'seed' => 3,
            ]],
        );

        return array_map(fn (array $b): float => ($b['play']['skip'] ?? 0) / $rate[0], rows($scene)['beats']);
    };
    expect($skips([48, 1]))->toEqualWithDelta($skips([24, 1]), 0.03);
});

test('a crowd that walks a line goes to its end, each on a way of its own', function (): void {
    $scene = $this->scene();
    $this->edit(
        $scene,
        [[
            'do' => 'crowd.add', 'assets' => ['oda-ferrant', 'bram-tiel'], 'motions' => ['walk'], 'count' => 4,
            'route' => [[0.0, 0.0], [6.0, 0.0]], 'spacing' => 1.0, 'width' => 0.8, 'seed' => 2,
        ]],
    );
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $walked = 0;
    foreach ($compiled->lanes as $id => $lane) {
        $hips = $lane->figure->hips;
        $start = SceneEvaluator::jointPlace($compiled, $id, $hips, 0)->position;
        $end = SceneEvaluator::jointPlace($compiled, $id, $hips, 400)->position;
        if ($start[0] < 5.5) {
            $walked++;
            expect($end[0])->toEqualWithDelta(6.0, 0.12)->and($end[2])->toEqualWithDelta($start[2], 0.12);
        }
    }
    expect($walked)->toBe(3);
});

test('wind is set in part, kept, and undone', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [['do' => 'scene.set', 'wind' => ['speed' => 7]]], $user);
    $this->edit($scene, [['do' => 'scene.set', 'wind' => ['gusts' => 0.9]]], $user);
    $wind = app(SceneStream::class)->compile($scene->refresh())->document->wind;
    expect([$wind->speed, $wind->gusts, $wind->towardsDeg])->toBe([7.0, 0.9, 270.0]);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect($scene->refresh()->wind)->toBe(['speed' => 7]);
    $this->actingAs($user)->getJson("/api/scenes/{$scene->id}")->assertOk()->assertJsonPath('scene.wind.speed', 7);
    expect(fn () => $this->edit($scene, [['do' => 'scene.set', 'wind' => ['speed' => -1]]]))->toThrow(UserError::class, 'speed');
});

test('a performer puts on a cloak, cut to size and fastened', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit(
        $scene,
        [
            ['do' => 'item.add', 'asset' => 'bram-tiel', 'name' => 'Bram', 'position' => [2.0, 0, 1.0]],
            ['do' => 'item.add', 'asset' => 'cloak', 'name' => 'Cloak'],
            ['do' => 'item.add', 'asset' => 'crate-small', 'name' => 'Crate'],
        ],
        $user,
    );
    $this->edit($scene, [['do' => 'item.wear', 'item' => 'Bram', 'cloth' => 'Cloak']], $user);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $ids = collect($compiled->document->items)->pluck('id', 'name');
    $chest = SceneEvaluator::jointPlace(
        $compiled,
        $ids['Bram'],
        $compiled->lanes[$ids['Bram']]->figure->skeleton->roles['upperChest'],
        10,
    )->position;
    $place = SceneEvaluator::place($compiled, $ids['Cloak'], 10);
    // The hold of the cut lies on the joint, at the figure's scale (1.74 m to 1.70 m).
    expect(V3::distance($place->point([0.0, 1.20, -0.005]), $chest))->toBeLessThan(1e-6)->and($place->scale)
        ->toEqualWithDelta(1.74 / 1.70, 1e-3);
    expect($compiled->cloths)->toHaveKey($ids['Cloak']);
    expect(fn () => $this->edit($scene, [['do' => 'item.wear', 'item' => 'Crate', 'cloth' => 'Cloak']]))
        ->toThrow(UnableToStage::class, 'is not a performer');
    expect(fn () => $this->edit($scene, [['do' => 'item.wear', 'item' => 'Bram', 'cloth' => 'Crate']]))
        ->toThrow(UnableToStage::class, 'cannot be put on');
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(rows($scene)['links'])->toBe([]);
});

test('two beats are paired and untied; bad pairs are refused', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit(
        $scene,
        [
            ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'hand-over', 'start' => 48],
            ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'receive', 'start' => 60],
            ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'idle', 'start' => 200],
        ],
        $user,
    );
    [$give, $take, $idle] = rows($scene)['beats'];
    $this->edit($scene, [['do' => 'beat.pair', 'beat' => $take['id'], 'with' => $give['id']]], $user);
    $after = rows($scene)['beats'][1];
    expect($after['start'])->toBe(48)->and((array) $after['play'])->toBe(['with' => "b{$give['id']}"]);
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $ids = collect($compiled->document->items)->pluck('id', 'name');
    $hips = fn (string $n): array => SceneEvaluator::jointPlace(
        $compiled,
        $ids[$n],
        $compiled->lanes[$ids[$n]]->figure->hips,
        60,
    )->position;
    expect(hypot($hips('Oda')[0] - $hips('Bram')[0], $hips('Oda')[2] - $hips('Bram')[2]))->toEqualWithDelta(1.02, 0.1);
    expect(fn () => $this->edit($scene, [['do' => 'beat.pair', 'beat' => $take['id'], 'with' => $idle['id']]]))
        ->toThrow(UserError::class, 'paired with itself');
    expect(fn () => $this->edit($scene, [['do' => 'beat.pair', 'beat' => $give['id'], 'with' => $take['id']]]))
        ->toThrow(UserError::class, 'already stands by');
    $this->edit($scene, [['do' => 'beat.pair', 'beat' => $take['id'], 'with' => null]], $user);
    expect((array) rows($scene)['beats'][1]['play'])->toBe([]);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect((array) rows($scene)['beats'][1]['play'])->toBe(['with' => "b{$give['id']}"]);
});

test('a talk takes a line, and a line is a text', function (): void {
    $scene = pier($this);
    $this->edit(
        $scene,
        [[
            'do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk', 'start' => 0,
            'settings' => ['seconds' => 4, 'line' => 'No, *you* wind it.'],
        ]],
    );
    expect(((array) rows($scene)['beats'][0]['settings'])['line'])->toBe('No, *you* wind it.');
    expect(fn () => $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk', 'settings' => ['line' => 7]]]))
        ->toThrow(UserError::class, 'at most 400 letters');
    expect(fn () => $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk', 'settings' => ['seconds' => 'long']]]))
        ->toThrow(UserError::class, 'A setting is a number');
    app(SceneStream::class)->compile($scene->refresh());
});

test('a copy of a performer has what the first one carries, holds on to and does, as far away as the copy is', function (): void {
    $scene = $this->scene();
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [6, 0, 0]],
        ['do' => 'item.add', 'asset' => 'lantern', 'name' => 'Lamp', 'position' => [0.4, 0, 0.3]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'talk'],
        ['do' => 'link.add', 'child' => 'Lamp', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 0, 'to' => 40, 'release' => 'stay'],
        ['do' => 'link.add', 'child' => 'Lamp', 'parent' => 'Bram', 'mount' => 'handR', 'from' => 60],
        ['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'look', 'target' => 'Bram', 'from' => 0, 'to' => 30],
        ['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'handL', 'target' => 'Lamp', 'from' => 5, 'to' => 30],
        ['do' => 'contact.add', 'item' => 'Oda', 'effector' => 'footL', 'offset' => [0.1, 0, 0], 'from' => 0, 'to' => 9],
        ['do' => 'touchUp.key', 'item' => 'Oda', 'joint' => 'head', 'frame' => 4, 'turnDeg' => [0, 10, 0]],
        ['do' => 'item.duplicate', 'item' => 'Oda', 'as' => '$copy'],
    ]);
    $rows = rows($scene);
    $named = array_column($rows['items'], null, 'name');
    [$copy, $lamp] = [$named['Oda 2'], $named['Lamp 2']];
    $by = array_map(static fn (int $k): float => $copy['position'][$k] - $named['Oda']['position'][$k], [0, 1, 2]);
    expect(hypot($by[0], $by[2]))->toBeGreaterThan(0.6);
    foreach ([0, 1, 2] as $k) {
        expect($lamp['position'][$k])->toEqualWithDelta($named['Lamp']['position'][$k] + $by[$k], 1e-6);
    }
    // The lamp's way to Bram stays that of the first lamp.
    $links = array_values(array_filter($rows['links'], static fn (array $l): bool => $l['childId'] === $lamp['id']));
    expect(array_column($links, 'parentId'))->toBe([$copy['id']])->and($links[0])
        ->toMatchArray(['from' => 0, 'to' => 40, 'mount' => 'handR']);
    $contacts = array_column(
        array_filter($rows['contacts'], static fn (array $c): bool => $c['itemId'] === $copy['id']),
        null,
        'effector',
    );
    expect($contacts['look']['targetId'])->toBe($named['Bram']['id'])->and($contacts['handL']['targetId'])->toBe($lamp['id'])
        ->and($contacts['footL']['offset'][0])->toEqualWithDelta(0.1 + $by[0], 1e-6)
        ->and(array_filter($rows['touch_ups'], static fn (array $t): bool => $t['itemId'] === $copy['id']))->toHaveCount(1);
    // It plays: the copy's hand is as far from the copy's lamp as the first one's.
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    $reach = static function (int $who, int $what) use ($compiled): float {
        $hand = $compiled->lanes["i{$who}"]->figure->skeleton->roles['handR'];

        return V3::distance(
            SceneEvaluator::jointPlace($compiled, "i{$who}", $hand, 20)->position,
            SceneEvaluator::place($compiled, "i{$what}", 20)->position,
        );
    };
    expect($reach($copy['id'], $lamp['id']))->toEqualWithDelta($reach($named['Oda']['id'], $named['Lamp']['id']), 5e-3);
});

test('an edge of a beat is dropped on a frame: it is there, and the rest of the beat stays; undo puts it back', function (): void {
    $scene = $this->scene($user = $this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk', 'start' => 12, 'path' => ['points' => [[0, 4]]], 'as' => '$b'],
    ]);
    $id = rows($scene)['beats'][0]['id'];
    $before = app(SceneStream::class)->compile($scene);
    $oda = array_key_first($before->lanes);
    $this->edit($scene, [['do' => 'beat.trim', 'beat' => $id, 'edge' => 'in', 'frame' => 40]], $user);
    $this->edit($scene, [['do' => 'beat.trim', 'beat' => $id, 'edge' => 'out', 'frame' => 70]], $user);
    $after = app(SceneStream::class)->compile($scene->refresh());
    $segment = $after->lanes[$oda]->segments[0];
    expect([$segment->start, $segment->end])->toBe([40.0, 70.0]);
    // Also where it is on its way: a walk that is taken up later is the same walk.
    $hips = $before->lanes[$oda]->figure->hips;
    foreach ([40, 55, 69] as $f) {
        expect(SceneEvaluator::jointPlace($after, $oda, $hips, $f)->position)
            ->toEqualWithDelta(SceneEvaluator::jointPlace($before, $oda, $hips, $f)->position, 1e-4);
    }
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk()->assertJsonPath('history.redo', 'Trim a beat');
    expect(app(SceneStream::class)->compile($scene->refresh())->lanes[$oda]->segments[0]->end)->toBeGreaterThan(80.0);
});

test('a cut beat at another speed shows the same of its motion', function (): void {
    $scene = $this->scene();
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'play' => ['skip' => 12, 'length' => 30]],
    ]);
    $shown = static function () use ($scene): array {
        $s = array_values(app(SceneStream::class)->compile($scene->refresh())->lanes)[0]->segments[0];

        return [$s->timing->at(0.0)[0], $s->timing->at($s->timing->frames)[0], $s->timing->frames];
    };
    [$from, $to] = $shown();
    $this->edit($scene, [['do' => 'beat.set', 'beat' => rows($scene)['beats'][0]['id'], 'speed' => 2.0]]);
    expect($shown())->toEqualWithDelta([$from, $to, 15.0], 1e-6)->and($to - $from)->toEqualWithDelta(30 / 24, 1e-6);
});

test('half of what two people do puts the other half on who is near, in one step', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'slap-a', 'partner' => 'near']], $user);
    [$slap, $slapped] = rows($scene)['beats'];
    $names = collect(rows($scene)['items'])->pluck('name', 'id');
    expect($names[$slap['itemId']])->toBe('Oda')->and($names[$slapped['itemId']])->toBe('Bram')
        ->and($slapped['start'])->toBe($slap['start'])
        ->and((array) $slapped['play'])->toBe(['with' => "b{$slap['id']}"]);
    // Who is to come has the time for it: nothing is told.
    $compiled = app(SceneStream::class)->compile($scene->refresh());
    expect(array_filter($compiled->notes, static fn ($n): bool => str_starts_with($n->code, 'pair.')))->toBe([]);
    $ids = collect($compiled->document->items)->pluck('id', 'name');
    $head = static fn (float $f): array => SceneEvaluator::jointPlace(
        $compiled, $ids['Bram'], $compiled->lanes[$ids['Bram']]->figure->skeleton->roles['head'], $f,
    )->position;
    expect(V3::distance($head($slap['start'] + 14), $head($slap['start'] + 20)))->toBeGreaterThan(0.01);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect(rows($scene)['beats'])->toBe([]);
    // With somebody by name; not with oneself; what is no half has no other.
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'receive', 'start' => 90, 'partner' => 'Oda']], $user);
    expect(rows($scene)['beats'])->toHaveCount(2);
    expect(fn () => $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'hug-a', 'partner' => 'Oda']]))
        ->toThrow(UserError::class, 'cannot do that with');
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'start' => 300, 'partner' => 'near']], $user);
    expect(rows($scene)['beats'])->toHaveCount(3);
});
