<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

test('what was made is not made again; beyond its bound the longest unasked goes', function (): void {
    $memory = new Memory(3);
    $made = [];
    $of = static function (string $key) use ($memory, &$made): string {
        return $memory->of($key, static function () use ($key, &$made): string {
            $made[] = $key;

            return strtoupper($key);
        });
    };
    expect($of('a'))->toBe('A')->and($of('a'))->toBe('A')->and($made)->toBe(['a']);
    array_map($of, ['b', 'c', 'a', 'd']);
    expect($memory->count())->toBe(3)->and($made)->toBe(['a', 'b', 'c', 'd']);
    // "b" went, since "a" had been asked for after it.
    array_map($of, ['a', 'c', 'd', 'b']);
    expect($made)->toBe(['a', 'b', 'c', 'd', 'b']);
});

test('what is not there is asked for again, and what was put is found', function (): void {
    $memory = new Memory(2);
    $answers = [null, 5, 6];
    $ask = static function () use (&$answers): ?int {
        return array_shift($answers);
    };
    expect($memory->of('x', $ask))->toBeNull()->and($memory->of('x', $ask))->toBe(5)->and($memory->of('x', $ask))->toBe(5);
    $memory->put('x', 7);
    $memory->put('y', 8);
    expect($memory->of('x', $ask))->toBe(7)->and($memory->count())->toBe(2)->and($answers)->toBe([6]);
});

test('of two states of a scene only the lanes that are others are made anew', function (array $change, array $anew): void {
    $assets = new FakeAssets;
    $memory = new Memory;
    $parts = [
        'items' => [Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.0), Scenes::item('x', 'box', 0.0, -3.0)],
        'beats' => [Scenes::beat('1', 'o', 'wave', 0), Scenes::beat('2', 'b', 'talk', 0)],
    ];
    $settle = static fn (array $with) => SceneCompiler::compile(Document::fromArray(Scenes::data($with + $parts)), $assets, $memory);
    [$before, $after] = [$settle([]), $settle($change)];
    foreach (['o', 'b'] as $id) {
        expect($after->lanes[$id] === $before->lanes[$id])->toBe(! in_array($id, $anew, true), $id);
    }
})->with([
    'nothing' => [[], []],
    'a beat of one' => [['beats' => [Scenes::beat('1', 'o', 'wave', 5), Scenes::beat('2', 'b', 'talk', 0)]], ['o']],
    'where one stands' => [
        ['items' => [Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.5), Scenes::item('x', 'box', 0.0, -3.0)]], ['b'],
    ],
    'what stands around' => [
        ['items' => [Scenes::item('o', 'oda', 1.0), Scenes::item('b', 'bram', 3.0), Scenes::item('x', 'box', 0.5, -3.0)]], ['o', 'b'],
    ],
    'a camera' => [['cameras' => [Scenes::camera('c', [['frame' => 0]])]], []],
]);
