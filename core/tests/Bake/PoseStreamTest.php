<?php

declare(strict_types=1);

use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** @return array<string, mixed> the lantern in the right hand of the second */
function carriedFrom60To(int $to): array
{
    return ['id' => 'l1', 'child' => 'l', 'parent' => 'b', 'mount' => 'handR', 'from' => 60, 'to' => $to];
}

/**
 * @param  array<string, mixed>  $change
 * @param  bool  $meets  whether they look at whom they speak to
 */
function baked(array $change = [], bool $meets = false): CompiledScene
{
    static $assets = new FakeAssets;

    $parts = $change + [
        'items' => [
            Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.0, 0.0, -90.0), Scenes::item('x', 'box', 0.0, -3.0),
            Scenes::item('l', 'lantern', 4.0, 2.0),
        ],
        'beats' => [Scenes::beat('1', 'o', 'wave', 0), Scenes::beat('2', 'o', 'talk', 110), Scenes::beat('3', 'b', 'talk', 0)],
        'links' => [carriedFrom60To(130)],
        'cameras' => [
            Scenes::camera('ca', [['frame' => 0, 'focusMetres' => 4.0]]),
            Scenes::camera('cb', [['frame' => 0], ['frame' => 200, 'focusMetres' => null]]),
        ],
    ];
    $parts['items'] = array_map(static fn (array $i): array => $i + ['meets' => $meets], $parts['items']);

    return Scenes::compile($parts, $assets);
}

/**
 * Every piece's name and bytes, by track and number; the row of what never moves.
 *
 * @return array<string, list<array{string, string}>>
 */
function pieces(CompiledScene $s): array
{
    $out = [];
    foreach ([...PoseStream::items($s), ...PoseStream::cameras($s)] as $id => $track) {
        if ($track->still !== null) {
            $out[$id] = [['', json_encode($track->still)]];

            continue;
        }
        for ($n = 0; $n < PoseStream::pieces($s); $n++) {
            $out[$id][] = [PoseStream::name($s, $track, $n), PoseStream::bake($s, [$track], $n)[0]];
        }
    }

    return $out;
}

test('a piece holds what the evaluation says, as single floats', function (): void {
    $s = baked();
    foreach (['o', 'b', 'l'] as $id) {
        $t = PoseStream::items($s)[$id];
        expect($t->stride)->toBe($id === 'l' ? 10 : 10 + 3 + 4 * $t->joints + $t->morphs);
        $floats = array_values(unpack('g*', PoseStream::bake($s, [$t], 1)[0]));
        expect(count($floats))->toBe(48 * $t->stride);
        foreach ([48, 60, 95] as $f) {
            $row = $id === 'l' ? [] : array_slice(SceneEvaluator::row($s, $id, $f), 0, $t->stride - 10);
            foreach ([...SceneEvaluator::place($s, $id, $f)->flat(), ...$row] as $i => $v) {
                expect(abs($v - $floats[($f - 48) * $t->stride + $i]))->toBeLessThan(2e-6);
            }
        }
    }
});

test('what never moves has its one row in the manifest and no pieces', function (): void {
    $s = baked();
    $box = PoseStream::items($s)['x'];
    $camera = PoseStream::cameras($s)['ca'];
    expect($box->still)->toBe([0.0, 0.0, -3.0, 0.0, 0.0, 0.0, 1.0, 1.0, 1.0, 1.0])->and(array_slice((array) $camera->still, 0, 3))
        ->toBe([0.0, 1.5, 5.0])->and($camera->stride)->toBe(10)->and(PoseStream::names($s, [$box, $camera]))->toBe([[], []]);
    expect(PoseStream::items($s)['l']->still)->toBeNull()->and(PoseStream::cameras($s)['cb']->still)->toBeNull();
});

test('a piece in which all rows are alike is one row', function (): void {
    $s = baked();
    $lantern = PoseStream::items($s)['l'];
    expect(strlen(PoseStream::bake($s, [$lantern], 0)[0]))->toBe(4 * 10)->and(strlen(PoseStream::bake($s, [$lantern], 2)[0]))
        ->toBe(4 * 10 * 48);
});

test('pieces cover every frame once', function (): void {
    $s = baked();
    $next = 0;
    for ($n = 0; $n < PoseStream::pieces($s); $n++) {
        [$from, $count] = PoseStream::range($s, $n);
        expect($from)->toBe($next);
        $next += $count;
    }
    expect($next)->toBe($s->frames);
});

test('the same scene gives the same bytes and names', function (): void {
    expect(pieces(baked()))->toBe(pieces(baked()));
});

test('who looks at somebody is sent anew with them, as long as they look', function (): void {
    $nod = [[
        'id' => 't', 'item' => 'b', 'joint' => 'head', 'from' => 4, 'to' => 10, 'easeIn' => 2, 'easeOut' => 2,
        'keys' => [['frame' => 6, 'rotation' => [0.0, 0.2, 0.0, 0.98], 'shift' => [0, 0, 0]]],
    ]];
    [$before, $after] = [pieces(baked([], true)), pieces(baked(['touchUps' => $nod], true))];
    $changed = static fn (string $id): array => array_keys(array_filter(
        $before[$id], static fn (array $p, int $n): bool => $p !== $after[$id][$n], ARRAY_FILTER_USE_BOTH,
    ));
    expect($changed('b'))->toBe([0])->and($changed('o'))->toBe([0])->and($changed('l'))->toBe([]);
});

test('an edit renames the pieces that it reaches, and no others', function (array $change, array $touched): void {
    $before = pieces(baked());
    $after = pieces(baked($change));
    foreach ($before as $id => $list) {
        // The last piece of a scene that grew shorter or longer has another number of frames.
        $whole = min(count($list), count($after[$id])) - (count($list) === count($after[$id]) ? 0 : 1);
        $renamed = [];
        for ($n = 0; $n < $whole; $n++) {
            if ($list[$n] !== $after[$id][$n]) {
                $renamed[] = $n;
            }
            expect($list[$n][0] === $after[$id][$n][0])->toBe($list[$n][0] === '' || $list[$n] === $after[$id][$n], "{$id}, piece {$n}");
        }
        expect($renamed)->toBe($touched[$id] ?? [], "pieces of {$id}");
    }
})->with([
    'a later beat is moved' => [
        ['beats' => [Scenes::beat('1', 'o', 'wave', 0), Scenes::beat('2', 'o', 'talk', 150), Scenes::beat('3', 'b', 'talk', 0)]],
        ['o' => [2, 3, 4], 'cb' => [2, 3, 4]],
    ],
    'a performer moves house, with what it carries' => [
        ['items' => [
            Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.5, 0.0, -90.0), Scenes::item('x', 'box', 0.0, -3.0),
            Scenes::item('l', 'lantern', 4.0, 2.0),
        ]],
        ['b' => [0, 1, 2, 3, 4, 5], 'l' => [1, 2, 3, 4, 5], 'cb' => [0, 1, 2, 3, 4, 5]],
    ],
    'a camera gets another letter and name' => [
        ['cameras' => [
            ['letter' => 'Q', 'name' => 'wide'] + Scenes::camera('ca', [['frame' => 0, 'focusMetres' => 4.0]]),
            ['name' => 'follows'] + Scenes::camera('cb', [['frame' => 0], ['frame' => 200, 'focusMetres' => null]]),
        ]],
        [],
    ],
    'a touch-up early on' => [
        ['touchUps' => [[
            'id' => 't', 'item' => 'b', 'joint' => 'head', 'from' => 4, 'to' => 10, 'easeIn' => 2, 'easeOut' => 2,
            'keys' => [['frame' => 6, 'rotation' => [0.0, 0.2, 0.0, 0.98], 'shift' => [0, 0, 0]]],
        ]]],
        ['b' => [0], 'cb' => [0]],
    ],
    'a touch-up while it carries takes what is carried along' => [
        ['touchUps' => [[
            'id' => 't', 'item' => 'b', 'joint' => 'upperArmR', 'from' => 100, 'to' => 110, 'easeIn' => 2, 'easeOut' => 2,
            'keys' => [['frame' => 105, 'rotation' => [0.0, 0.2, 0.0, 0.98], 'shift' => [0, 0, 0]]],
        ]]],
        ['b' => [2], 'l' => [2], 'cb' => [2]],
    ],
    'the lamp is let go sooner' => [
        ['links' => [carriedFrom60To(120)]],
        ['l' => [2, 3, 4, 5]],
    ],
    'nothing' => [[], []],
]);
