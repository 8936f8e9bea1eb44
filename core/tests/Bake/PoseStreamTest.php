<?php

declare(strict_types=1);

use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** @return array{array<string, mixed>, list<float>} header and floats, read by the written layout alone */
function opened(string $bytes): array
{
    expect(substr($bytes, 0, 4))->toBe('CRPS');
    $h = unpack('Vversion/Vlength', $bytes, 4);
    expect($h['version'])->toBe(1)->and($h['length'] % 4)->toBe(0);

    return [
        json_decode(substr($bytes, 12, $h['length']), true, 16, JSON_THROW_ON_ERROR),
        array_values(unpack('g*', $bytes, 12 + $h['length'])),
    ];
}

/** @param  array<string, mixed>  $change */
function baked(array $change = []): CompiledScene
{
    static $assets = new FakeAssets;

    return Scenes::compile($change + [
        'items' => [Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.0, 0.0, -90.0), Scenes::item('x', 'box', 0.0, -3.0)],
        'beats' => [Scenes::beat('1', 'o', 'wave', 0), Scenes::beat('2', 'o', 'talk', 110), Scenes::beat('3', 'b', 'talk', 0)],
        'cameras' => [Scenes::camera('ca', [['frame' => 0]])],
    ], $assets);
}

test('a block holds what the evaluation says, as single floats', function (): void {
    $s = baked();
    [$head, $floats] = opened(PoseStream::block($s, 1));
    expect($head['from'])->toBe(48)->and($head['count'])->toBe(48);
    $tracks = array_column($head['tracks'], null, 'item');
    foreach (['o', 'b'] as $id) {
        $t = $tracks[$id];
        expect($t['stride'])->toBe(10 + 3 + 4 * $t['joints'] + $t['morphs'])->and($t['rows'])->toBe(48);
        foreach ([48, 60, 95] as $f) {
            $expected = [
                ...SceneEvaluator::place($s, $id, $f)->flat(),
                ...array_slice(SceneEvaluator::row($s, $id, $f), 0, 3 + 4 * $t['joints'] + $t['morphs']),
            ];
            $found = array_slice($floats, $t['offset'] + ($f - 48) * $t['stride'], $t['stride']);
            foreach ($expected as $i => $v) {
                expect(abs($v - $found[$i]))->toBeLessThan(2e-6);
            }
        }
    }
    expect($tracks['x']['rows'])->toBe(1);
    $camera = array_values(array_filter($head['tracks'], static fn (array $t): bool => ($t['camera'] ?? '') === 'ca'))[0];
    expect(array_slice($floats, $camera['offset'], 3))->toBe([0.0, 1.5, 5.0])->and($camera['stride'])->toBe(10);
});

test('blocks cover every frame once', function (): void {
    $s = baked();
    $next = 0;
    for ($n = 0; $n < PoseStream::blocks($s); $n++) {
        [$from, $count] = PoseStream::range($s, $n);
        expect($from)->toBe($next);
        $next += $count;
    }
    expect($next)->toBe($s->frames);
});

test('the same scene gives the same bytes', function (): void {
    expect(PoseStream::block(baked(), 2))->toBe(PoseStream::block(baked(), 2));
});

test('only blocks that an edit touches change their name', function (array $change, array $touched): void {
    $before = baked();
    $after = baked($change);
    for ($n = 0; $n < min(PoseStream::blocks($before), PoseStream::blocks($after)) - 1; $n++) {
        $same = PoseStream::hash($before, $n) === PoseStream::hash($after, $n);
        expect($same)->toBe(! in_array($n, $touched, true), "block {$n}");
        if ($same) {
            expect(PoseStream::block($before, $n))->toBe(PoseStream::block($after, $n));
        }
    }
})->with([
    'a later beat is moved' => [
        ['beats' => [Scenes::beat('1', 'o', 'wave', 0), Scenes::beat('2', 'o', 'talk', 150), Scenes::beat('3', 'b', 'talk', 0)]],
        [2, 3, 4],
    ],
    'another performer moves house' => [
        ['items' => [Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.5, 0.0, -90.0), Scenes::item('x', 'box', 0.0, -3.0)]],
        [0, 1, 2, 3, 4],
    ],
    'nothing' => [[], []],
]);
