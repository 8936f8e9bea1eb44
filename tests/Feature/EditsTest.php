<?php

declare(strict_types=1);

use App\Edits\CommandList;
use App\Edits\EditRunner;
use App\Exceptions\UserError;
use App\Scenes\SceneManifests;
use App\Scenes\SceneStream;
use CrispReel\Core\CoreFailure;
use CrispReel\Core\Math\Q4;

const CAMERA = ['position' => [1.0, 1.6, 6.0], 'rotation' => [0.0, 0.0, 0.0, 1.0], 'focalMm' => 40.0];

test('things land on the ground, clear of others, facing who looks', function (): void {
    $scene = pier($this);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [3.0, 0.5], 'facing' => [0.0, 9.0]]]);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'bram-tiel', 'near' => [-4.0, 1.2]]]);
    $items = collect(rows($scene)['items'])->keyBy('name');
    $new = $items['Oda 2'];
    expect(hypot($new['position'][0] - 3.0, $new['position'][2] - 0.5))->toBeGreaterThan(0.6)
        ->and($new['position'][1])->toEqualWithDelta(0.0, 0.012)
        ->and(abs($new['headingDeg'] - rad2deg(atan2(-$new['position'][0], 9 - $new['position'][2]))))->toBeLessThan(0.01)
        // The landing is 0.30 above the deck; planks lie up to 6 mm below it.
        ->and($items['Bram 2']['position'][1])->toEqualWithDelta(0.30, 0.012);
});

test('what is made to hang stands by its lowest point, what has roots or floats by its waterline', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit(
        $scene,
        array_map(
            static fn (string $slug, int $n): array => ['do' => 'item.add', 'asset' => $slug, 'near' => [6 * $n, 0], 'name' => $slug],
            $slugs = ['bell', 'wall-clock', 'rock', 'rowing-boat', 'bench'],
            array_keys($slugs),
        ),
    );
    $y = static fn (string $name): float => (float) $scene->items()->where('name', $name)->value('y');
    expect($y('bell'))->toEqualWithDelta(0.914, 0.002)->and($y('wall-clock'))->toEqualWithDelta(0.194, 0.002)
        ->and([$y('rock'), $y('rowing-boat'), $y('bench')])->toEqual([0.0, 0.0, 0.0]);
    // Grown to twice its size and landed again, and a copy of it.
    $this->edit($scene, [
        ['do' => 'item.place', 'item' => 'bell', 'scale' => 2, 'land' => true], ['do' => 'item.duplicate', 'item' => 'bell'],
    ]);
    expect($scene->items()->where('scale', 2)->pluck('y')->map(static fn (float $v): float => round($v, 2))->all())->toBe([1.83, 1.83]);
});

test('a drag with "land" follows what is below', function (): void {
    $scene = pier($this);
    $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'position' => [-3.0, 0.0, 1.5], 'land' => true]]);
    expect(collect(rows($scene)['items'])->firstWhere('name', 'Oda')['position'][1])->toEqualWithDelta(0.30, 0.012);
});

test('one call may name what it makes', function (): void {
    $scene = $this->scene();
    $this->edit($scene, [
        ['do' => 'item.add', 'as' => '$o', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0]],
        ['do' => 'beat.add', 'as' => '$b', 'item' => '$o', 'motion' => 'Wave'],
        ['do' => 'beat.set', 'beat' => '$b', 'speed' => 2.0], ['do' => 'camera.add', 'as' => '$c'] + CAMERA,
        ['do' => 'shot.cut', 'camera' => '$c', 'frame' => 3],
    ]);
    expect(rows($scene)['beats'][0]['speed'])->toBe(2.0)->and(count(rows($scene)['shots']))->toBe(1);
});

test('motions follow one another without gap or overlap', function (): void {
    $scene = pier($this);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave']]);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk']]);
    $beats = rows($scene)['beats'];
    $segments = app(SceneStream::class)->compile($scene)->lanes['i'.$beats[0]['itemId']]->segments;
    expect($beats[1]['start'])->toBe((int) ceil($segments[0]->end - 1e-6))->and($segments[0]->end)->toEqualWithDelta(3.4 * 24, 0.01);
});

test('cuts tile the scene: split, change, move, remove', function (): void {
    $scene = pier($this);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk']]);
    $this->edit($scene, [['do' => 'camera.add'] + CAMERA, ['do' => 'camera.add'] + CAMERA, ['do' => 'camera.add'] + CAMERA]);
    $cuts = fn (): array => array_map(
        fn (array $s): array => [collect(rows($scene)['cameras'])->firstWhere('id', $s['cameraId'])['letter'], $s['in'], $s['out']],
        rows($scene)['shots'],
    );
    expect($cuts())->toBe([['A', 0, null]]);
    $this->edit($scene, [['do' => 'shot.cut', 'camera' => 'B', 'frame' => 40]]);
    $this->edit($scene, [['do' => 'shot.cut', 'camera' => 'C', 'frame' => 20]]);
    expect($cuts())->toBe([['A', 0, 20], ['C', 20, 40], ['B', 40, null]]);
    $this->edit($scene, [['do' => 'shot.cut', 'camera' => 'A', 'frame' => 40]]);
    $this->edit($scene, [['do' => 'shot.move', 'shot' => rows($scene)['shots'][2]['id'], 'frame' => 33]]);
    expect($cuts())->toBe([['A', 0, 20], ['C', 20, 33], ['A', 33, null]]);
    $this->edit($scene, [['do' => 'shot.remove', 'shot' => rows($scene)['shots'][1]['id']]]);
    expect($cuts())->toBe([['A', 0, 33], ['A', 33, null]]);
    $this->edit($scene, [['do' => 'camera.remove', 'camera' => 'A']]);
    expect($cuts())->toBe([]);
});

test('camera keys are set, replaced and taken away', function (): void {
    $scene = pier($this);
    $this->edit($scene, [['do' => 'camera.add', 'frame' => 10] + CAMERA]);
    $this->edit($scene, [
        ['do' => 'camera.key', 'camera' => 'A', 'frame' => 50, 'position' => [4, 1, 4], 'rotation' => Q4::aroundY(0.5)],
        ['do' => 'camera.key', 'camera' => 'A', 'frame' => 10, 'focalMm' => 85] + CAMERA,
    ]);
    expect(array_column(rows($scene)['cameras'][0]['keys'], 'frame'))->toBe([10, 50]);
    $this->edit($scene, [
        ['do' => 'camera.unkey', 'camera' => 'A', 'frame' => 10],
        ['do' => 'camera.set', 'camera' => 'A', 'name' => 'Close', 'focalMm' => 70.0],
    ]);
    expect(rows($scene)['cameras'][0])->toMatchArray(['name' => 'Close'])->and(rows($scene)['cameras'][0]['keys'][0])
        ->toMatchArray(['frame' => 50, 'focalMm' => 70]);
    expect(fn () => $this->edit($scene, [['do' => 'camera.unkey', 'camera' => 'A', 'frame' => 50]]))
        ->toThrow(UserError::class, 'at least one key');
});

test('a new rate keeps every beat and cut at its time', function (): void {
    $scene = pier($this);
    $this->edit($scene, [
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'start' => 48],
        ['do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 24, 'to' => 60],
        ['do' => 'camera.add'] + CAMERA, ['do' => 'camera.key', 'camera' => 'A', 'frame' => 36] + CAMERA, ['do' => 'camera.add'] + CAMERA,
        ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 60],
    ]);
    $seconds = app(SceneStream::class)->compile($scene)->frames / 24;
    $this->edit($scene, [['do' => 'production.set', 'rate' => [30, 1]]]);
    $r = rows($scene);
    expect($r['beats'][0]['start'])->toBe(60)->and($r['links'][0]['from'])->toBe(30)->and($r['links'][0]['to'])->toBe(75)
        ->and($r['shots'][1]['in'])->toBe(75)
        ->and($r['cameras'][0]['keys'][1]['frame'])->toBe(45)->and(app(SceneStream::class)->compile($scene->refresh())->frames / 30)
        ->toEqualWithDelta($seconds, 1 / 24);
});

test('everything an edit does is undone and redone, row for row', function (array $commands): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $this->edit($scene, [
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave'],
        ['do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 4, 'keep' => 'grip'],
        ['do' => 'camera.add'] + CAMERA, ['do' => 'camera.add'] + CAMERA, ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 20],
    ], $user);
    $first = rows($scene);
    $ids = ['BEAT' => $first['beats'][0]['id'], 'LINK' => $first['links'][0]['id'], 'SHOT' => $first['shots'][1]['id']];
    array_walk_recursive($commands, function (&$v) use ($ids): void {
        $v = is_string($v) ? $ids[$v] ?? $v : $v;
    });
    $this->edit($scene, $commands, $user);
    $then = rows($scene);
    expect($then)->not->toBe($first);
    $this->actingAs($user)->postJson("/api/scenes/{$scene->id}/undo", ['base' => $scene->refresh()->revision])->assertOk()
        ->assertJsonPath('kind', 'undo');
    expect(rows($scene))->toBe($first);
    $this->postJson("/api/scenes/{$scene->id}/redo", [])->assertOk();
    expect(rows($scene))->toBe($then);
})->with([
    'remove a performer with all that hangs on her' => [[['do' => 'item.remove', 'item' => 'Oda']]],
    'duplicate' => [[['do' => 'item.duplicate', 'item' => 'Oda']]],
    'move, turn, grow' => [[['do' => 'item.place', 'item' => 'Bram', 'position' => [1, 0, 1], 'headingDeg' => 30, 'scale' => 1.1]]],
    'rename and colour' => [[['do' => 'item.set', 'item' => 'Oda', 'name' => 'The clock-mender', 'tape' => 5]]],
    'change a beat' => [[[
        'do' => 'beat.set', 'beat' => 'BEAT', 'start' => 30, 'speed' => 0.5, 'loops' => 2, 'root' => 'spot', 'join' => 'cut',
        'settings' => ['seed' => 4],
    ]]],
    'another motion in its place' => [[['do' => 'beat.set', 'beat' => 'BEAT', 'motion' => 'talk']]],
    'remove a beat' => [[['do' => 'beat.remove', 'beat' => 'BEAT']]],
    'change a carry' => [[[
        'do' => 'link.set', 'link' => 'LINK', 'parent' => 'Bram', 'mount' => 'handL', 'from' => 9, 'to' => 40, 'keep' => 'place',
    ]]],
    'remove a carry' => [[['do' => 'link.remove', 'link' => 'LINK']]],
    'remove a camera and its shots' => [[['do' => 'camera.remove', 'camera' => 'B']]],
    'move a cut' => [[['do' => 'shot.move', 'shot' => 'SHOT', 'frame' => 31]]],
    'a shot\'s camera and label' => [[['do' => 'shot.set', 'shot' => 'SHOT', 'camera' => 'A', 'label' => '025']]],
    'several at once' => [[
        ['do' => 'scene.set', 'mood' => 'night'], ['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 10],
        ['do' => 'shot.remove', 'shot' => 'SHOT'],
    ]],
    'the rate' => [[['do' => 'production.set', 'rate' => [30, 1], 'width' => 1920, 'height' => 1080]]],
]);

test('undo goes back step by step, further than anyone needs, and redo ends with new work', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    for ($i = 1; $i <= 12; $i++) {
        $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => $i]], $user);
    }
    $this->actingAs($user);
    $heading = fn (): float => collect(rows($scene)['items'])->firstWhere('name', 'Oda')['headingDeg'];
    for ($i = 11; $i >= 1; $i--) {
        $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
        expect($heading())->toBe((float) $i);
    }
    $this->postJson("/api/scenes/{$scene->id}/redo")->assertOk()->assertJsonPath('history.redo', 'Turn Oda');
    $this->postJson("/api/scenes/{$scene->id}/redo")->assertOk();
    expect($heading())->toBe(3.0);
    $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 77]], $user);
    $this->postJson("/api/scenes/{$scene->id}/redo")->assertStatus(409)->assertJsonPath('reason', 'edit.nothing-to-redo');
    $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
    expect($heading())->toBe(3.0);
});

test('two people: what does not touch is taken, what does is refused with both sides told', function (): void {
    $a = $this->person('Ana');
    $b = $this->person('Ben');
    $scene = pier($this, $a);
    $scene->production->members()->create(['user_id' => $b->id, 'role' => 'editor']);
    $base = $scene->refresh()->revision;
    $this->actingAs($a)->postJson("/api/scenes/{$scene->id}/edits", [
        'base' => $base,
        'commands' => [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 5]],
    ])->assertOk();
    $answer = $this->actingAs($b)->postJson("/api/scenes/{$scene->id}/edits", [
        'base' => $base,
        'commands' => [['do' => 'item.place', 'item' => 'Bram', 'headingDeg' => 6]],
    ])->assertOk()->json();
    expect(array_column($answer['changes'], 'id'))->toHaveCount(2);
    $this->postJson("/api/scenes/{$scene->id}/edits", [
        'base' => $base,
        'commands' => [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 9]],
    ])->assertStatus(409)->assertJsonPath('reason', 'edit.conflict');
    expect(collect(rows($scene)['items'])->firstWhere('name', 'Oda')['headingDeg'])->toBe(5.0);
    $this->getJson("/api/scenes/{$scene->id}/changes?since={$base}&window=w2")->assertOk()->assertJsonCount(2, 'changes');
    // Ben cannot undo over Ana's later change of the same thing.
    $this->postJson("/api/scenes/{$scene->id}/edits", ['commands' => [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 50]]])
        ->assertOk();
    $this->actingAs($a)
        ->postJson("/api/scenes/{$scene->id}/edits", ['commands' => [['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 60]]])
        ->assertOk();
    $this->actingAs($b)->postJson("/api/scenes/{$scene->id}/undo")->assertStatus(409)->assertJsonPath('reason', 'edit.changed-since');
});

test('bad commands change nothing and say what, where and what to do', function (array $commands, string $message): void {
    $scene = pier($this);
    $before = rows($scene);
    try {
        $this->edit($scene, [['do' => 'scene.set', 'mood' => 'fog'], ...$commands]);
    } catch (UserError|CoreFailure $e) {
        expect($e->getMessage())->toContain($message)->and(rows($scene))->toBe($before)->and($scene->refresh()->mood)->toBe('dusk');

        return;
    }
    $this->fail('It was taken.');
})->with([
    'no name' => [[['item' => 1]], 'has no name'],
    'an unknown command' => [[['do' => 'item.explode']], 'There is no edit command "item.explode"'],
    'an unknown item' => [[['do' => 'item.remove', 'item' => 'Nobody']], 'There is no item "Nobody"'],
    'an unknown asset' => [[['do' => 'item.add', 'asset' => 'unicorn']], 'There is no asset "unicorn"'],
    'a motion as a thing' => [[['do' => 'item.add', 'asset' => 'wave']], 'is a motion'],
    'a motion on a prop' => [[['do' => 'beat.add', 'item' => 'Key', 'motion' => 'wave']], 'is not a performer'],
    'a negative frame' => [[['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'start' => -5]], 'start'],
    'not a number' => [[['do' => 'item.place', 'item' => 'Oda', 'position' => [0, 'up', 0]]], 'position.1'],
    'a name that is taken' => [[['do' => 'item.set', 'item' => 'Oda', 'name' => 'Bram']], 'is called "Bram"'],
    'carrying itself' => [[['do' => 'link.add', 'child' => 'Key', 'parent' => 'Key', 'from' => 0]], 'cannot carry itself'],
    'a carry that ends first' => [
        [['do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'from' => 9, 'to' => 9]], 'ends after it begins',
    ],
    'a mount that is not there' => [
        [['do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'mount' => 'saddle', 'from' => 0]],
        'no joint or mount called "saddle"',
    ],
    'a circle' => [
        [
            ['do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'from' => 0],
            ['do' => 'link.add', 'child' => 'Oda', 'parent' => 'Key', 'from' => 0],
        ],
        'in a circle',
    ],
    'a trim of nothing' => [
        [
            ['do' => 'beat.add', 'as' => '$b', 'item' => 'Oda', 'motion' => 'wave', 'sourceIn' => 2],
            ['do' => 'beat.set', 'beat' => '$b', 'sourceOut' => 1],
        ],
        'ends after it begins',
    ],
    'a rotation that is none' => [[['do' => 'camera.add', 'position' => [0, 1, 2], 'rotation' => [0, 0, 0, 0]]], 'unit quaternion'],
    'a broken rate' => [[['do' => 'production.set', 'rate' => [9000, 1]]], 'frames a second'],
    'an unknown mood' => [[['do' => 'scene.set', 'mood' => 'doom']], 'mood'],
]);

test('ten thousand commands in one call are refused at once', function (): void {
    $scene = pier($this);
    expect(fn () => $this->edit($scene, array_fill(0, 10_000, ['do' => 'scene.set', 'mood' => 'fog'])))
        ->toThrow(UserError::class, '10000 commands');
});

test('every command has its entry in the documentation', function (): void {
    $doc = (string) file_get_contents(base_path('docs/edits.md'));
    foreach (CommandList::byName() as $name => $command) {
        expect($doc)->toContain("`{$name}`");
        foreach (array_keys($command->rules()) as $key) {
            if (! str_contains($key, '.')) {
                expect($doc)->toContain($key);
            }
        }
    }
});

test('pieces come by name; what no state of the scene has is told as gone', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $manifest = $this->actingAs($user)->getJson("/api/scenes/{$scene->id}")->assertOk()->json('manifest');
    $oda = collect($manifest['items'])->firstWhere('name', 'Oda')['track'];
    $none = str_repeat('b', 22);
    $r = (string) $this->get("/api/scenes/{$scene->id}/pieces?of=0:{$oda['pieces'][0]},{$none};1:{$oda['pieces'][1]}")->assertOk()
        ->getContent();
    $length = unpack('V', $r)[1];
    expect($length % (4 * $oda['stride']))->toBe(0)->and($length)->toBeGreaterThan(0)
        ->and(substr($r, 4 + $length, 4))->toBe("\xFF\xFF\xFF\xFF")
        ->and(unpack('V', substr($r, 8 + $length, 4))[1])->toBeGreaterThan(0);
    foreach (['', 'x', '0:short', "0:{$none};", '0:'.implode(',', array_fill(0, 241, $none))] as $of) {
        $this->get("/api/scenes/{$scene->id}/pieces?of={$of}")->assertNotFound();
    }
});

test('the answer to an edit tells what is another now, with the poses that are looked at', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $url = "/api/scenes/{$scene->id}";
    $before = $this->actingAs($user)->getJson($url)->assertOk()->json('manifest');
    $turn = ['do' => 'item.place', 'item' => 'Oda', 'headingDeg' => 33.3];
    $answer = $this->postJson("{$url}/edits", ['commands' => [$turn], 'has' => $before['state'], 'frame' => 50])->assertOk()->json();
    $part = $answer['manifest'];
    $oda = collect($part['items'])->firstWhere('name', 'Oda');
    expect($part['since'])->toBe($before['state'])->and(count($part['items']))->toBe(count($before['items']))
        ->and(array_filter($part['items'], is_array(...)))->toHaveCount(1)->and(array_key_exists('frames', $part))->toBeFalse()
        ->and(array_keys($answer['pieces']))->toContain($oda['track']['pieces'][1])->not->toContain($oda['track']['pieces'][0]);
    $piece = base64_decode($answer['pieces'][$oda['track']['pieces'][1]]);
    $asked = (string) $this->get("{$url}/pieces?of=1:{$oda['track']['pieces'][1]}")->getContent();
    expect(strlen($piece) % (4 * $oda['track']['stride']))->toBe(0)->and($asked)->toBe(pack('V', strlen($piece)).$piece);
    // Put together with what was there it is the whole.
    $whole = $this->getJson("{$url}/manifest")->assertOk()->json('manifest');
    $known = array_column($before['items'], null, 'id');
    expect(array_map(static fn (array|string $i): array => is_string($i) ? $known[$i] : $i, $part['items']))->toBe($whole['items'])
        ->and($whole['state'])->toBe($part['state']);
    // Who asks from a state that nobody remembers gets all of it.
    $all = $this->getJson("{$url}/changes?since=0&has=".str_repeat('0', 64))->assertOk()->json('manifest');
    expect($all)->toEqual($whole);
});

test('a camera that gets another name sends no pose', function (): void {
    $user = $this->person();
    $scene = pier($this, $user);
    $url = "/api/scenes/{$scene->id}";
    $this->edit($scene, [['do' => 'camera.add', 'position' => [0, 1.4, 3], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35.0]]);
    $before = $this->actingAs($user)->getJson($url)->assertOk()->json();
    $camera = $before['rows']['cameras'][0]['id'];
    $answer = $this->postJson("{$url}/edits", [
        'commands' => [['do' => 'camera.set', 'camera' => $camera, 'name' => 'wide']], 'has' => $before['manifest']['state'], 'frame' => 0,
    ])->assertOk()->json();
    expect($answer['pieces'])->toBe([])->and(array_filter($answer['manifest']['items'], is_array(...)))->toBe([]);
    $changed = array_values(array_filter($answer['manifest']['cameras'], is_array(...)));
    expect($changed[0]['name'])->toBe('wide')->and($changed[0]['track'])
        ->toBe(collect($before['manifest']['cameras'])->firstWhere('id', "c{$camera}")['track']);
});

test('who is left alone of several alike loses the number, and has it again when the others are back', function (): void {
    $scene = $this->scene($this->person());
    $add = ['do' => 'item.add', 'asset' => 'oda-ferrant'];
    $this->edit($scene, [$add, $add, $add]);
    $names = static fn (): array => $scene->items()->orderBy('id')->pluck('name')->all();
    expect($names())->toBe(['Oda', 'Oda 2', 'Oda 3']);
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Oda']]);
    expect($names())->toBe(['Oda 2', 'Oda 3']);
    $user = $this->person('Who undoes');
    $this->edit($scene, [['do' => 'item.remove', 'item' => 'Oda 3']], $user);
    expect($names())->toBe(['Oda']);
    app(EditRunner::class)->undo($scene->refresh(), $user);
    expect($names())->toBe(['Oda 2', 'Oda 3']);
});

test('on the stage one stands on its boards and not on the rail of its curtains; a queue under an awning on the street', function (): void {
    foreach ([['stage', 1.6], ['street-corner', 0.6]] as [$set, $most]) {
        $scene = $this->scene($this->person());
        $this->edit($scene, [['do' => 'item.add', 'asset' => $set, 'position' => [0, 0, 0]]]);
        foreach (range(-4, 4) as $x) {
            $this->edit($scene, [['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [$x, -2.0 + 0.37 * ($x + 4)]]]);
        }
        expect((float) $scene->items()->where('kind', 'performer')->max('y'))->toBeLessThan($most, $set);
    }
});

test('"to the ground" brings somebody down from where nobody stands', function (): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'kitchen', 'position' => [0, 0, 0]],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0.4, 2.8, 0.4]],
    ]);
    $this->edit($scene, [['do' => 'item.place', 'item' => 'Oda', 'land' => true]]);
    expect((float) $scene->items()->where('name', 'Oda')->value('y'))->toBeLessThan(0.3);
});

test('who is put into a set lands in the clear, wherever on its floor it is dropped', function (string $set, array $at): void {
    $scene = $this->scene($this->person());
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => $set, 'home' => true],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => $at, 'name' => 'Oda'],
    ]);
    $said = array_map(static fn ($n): string => $n->sentence, app(SceneStream::class)->compile($scene->refresh())->notes);
    expect($said)->toBe([])
        // Nor on the furniture.
        ->and((float) $scene->items()->where('name', 'Oda')->value('y'))->toBeLessThan($set === 'stage' ? 0.65 : 0.2);
})->with(static function (): iterable {
    foreach (['kitchen', 'street-corner', 'classroom', 'stage'] as $set) {
        foreach ([[0.0, 0.0], [-0.8, 0.2], [1.2, -1.0], [-1.4, -1.6], [2.2, 0.8]] as $at) {
            yield "{$set} at {$at[0]}, {$at[1]}" => [$set, $at];
        }
    }
});

test('who stands in a thing is led aside by the mend that the note offers, and back by undo', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0], 'name' => 'Oda'],
        ['do' => 'item.add', 'asset' => 'hand-cart', 'position' => [0.1, 0, 0], 'name' => 'Cart'],
    ], $user);
    $notes = fn (): array => app(SceneStream::class)->compile($scene->refresh())->notes;
    [$note] = $notes();
    expect($note->sentence)->toBe('Oda stands in "Cart".')->and($note->severity->value)->toBe('harms');
    $this->edit($scene, array_map(static fn ($c): array => $c->toArray(), $note->mends[0]->commands), $user);
    expect($notes())->toBe([]);
    app(EditRunner::class)->undo($scene->refresh(), $user);
    expect($notes())->toHaveCount(1);
});

test('a place that is put where it belongs brings what lies around it, once, and both go by one undo', function (): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $names = static fn (): array => $scene->items()->orderBy('id')->pluck('name')->all();
    $edit = $this->edit($scene, [['do' => 'item.add', 'asset' => 'street-corner', 'home' => true]], $user);
    expect($names())->toBe(['Street corner with shops', 'Street that goes on'])->and($edit->label)->toContain('and what lies around it');
    // The ground is that of the street, and nobody stands on what is far off.
    $manifest = app(SceneManifests::class)->of($scene->refresh());
    expect($manifest['look']['ground'][0])->toBe('#77736c');
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'forest-clearing', 'home' => true]], $user);
    expect($names())->toHaveCount(3);
    app(EditRunner::class)->undo($scene->refresh(), $user);
    app(EditRunner::class)->undo($scene->refresh(), $user);
    expect($names())->toBe([]);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'kitchen', 'home' => true]], $user);
    expect($names())->toBe(['Kitchen', 'Country with hills']);
    app(EditRunner::class)->undo($scene->refresh(), $user);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'stage', 'home' => true]], $user);
    expect($names())->toBe(['Stage with curtains'])
        ->and(app(SceneManifests::class)->of($scene->refresh())['look']['ground'][0])->not->toBe('#77736c');
});
