<?php

declare(strict_types=1);

use CrispReel\Core\Library\StoryParts;

/** @return list<array{id: int, kind: string, name: string, tags: list<string>, facts: array<string, mixed>}> */
function smallKit(): array
{
    $able = ['roles' => 25, 'mouths' => 4, 'shapes' => 14, 'fingers' => true];
    $rows = [
        [1, 'performer', 'Oda Ferrant', ['person', 'old'], $able], [2, 'performer', 'Oda Ferrant in violet', ['person', 'old'], $able],
        [3, 'performer', 'Pim Alder', ['person', 'child'], $able],
        [10, 'set', 'Ferry pier', ['pier', 'sea']], [11, 'set', 'Ferry', ['boat', 'ship']],
        [12, 'set', 'Forest clearing', ['forest', 'wood']],
        [20, 'prop', 'Hand cart with clock face', ['cart', 'wheels']], [21, 'prop', 'Brass key', ['key', 'metal', 'hand']],
        [22, 'prop', 'Bench', ['bench', 'seat']], [23, 'prop', 'Sofa', ['sofa', 'couch']],
        [24, 'prop', 'Bucket', ['bucket', 'water', 'hand']], [25, 'prop', 'Table', ['table']],
        [30, 'motion', 'Walk', ['walk', 'travel']], [31, 'motion', 'Sit', ['sit', 'idle']], [32, 'motion', 'Sit down', ['sit', 'seat']],
        [33, 'motion', 'Hand over', ['give', 'hand']], [34, 'motion', 'Pick up from a table', ['pick up', 'take', 'table']],
        [35, 'motion', 'Pick up from the floor', ['pick up', 'take', 'floor']],
        [36, 'motion', 'Ring a bell', ['ring', 'bell', 'pull']], [37, 'motion', 'Push a cart', ['push', 'cart']],
        [38, 'motion', 'Talk, angry', ['talk', 'speak', 'angry']], [39, 'motion', 'Get up', ['get up', 'rise']],
        [40, 'motion', 'Cry', ['cry', 'sad']],
        [50, 'sound', 'Bell, one stroke', ['sound', 'bell', 'ring']], [51, 'sound', 'Door opens', ['sound', 'door', 'open']],
        [52, 'sound', 'Door shuts', ['sound', 'door', 'shut']], [53, 'sound', 'Gulls', ['sound', 'gulls', 'birds']],
    ];

    return array_map(
        static fn (array $r): array => ['id' => $r[0], 'kind' => $r[1], 'name' => $r[2], 'tags' => $r[3], 'facts' => $r[4] ?? []],
        $rows,
    );
}

/** @return array{list<string>, list<string>, list<string>} names of parts, what is missing, what cannot be done, of the first line */
function partsOf(string $line, array $cast = [], array $more = []): array
{
    [$first] = (new StoryParts)->of($line, [...smallKit(), ...$more], $cast);

    return [array_column($first['found'], 'name'), $first['missing'], $first['cannot']];
}

test('a line calls for people, places, things, motions and sounds', function (string $line, array $names, array $missing): void {
    [$found, $lacking] = partsOf($line);
    expect($found)->toEqualCanonicalizing($names)->and($lacking)->toBe($missing);
})->with([
    'a place' => ['It is dusk at the ferry pier.', ['Ferry pier'], []],
    'who is named, once and in her first clothes' => ['Oda walks.', ['Oda Ferrant', 'Walk'], []],
    'who is told of' => ['A child walks.', ['Pim Alder', 'Walk'], []],
    'a thing of two words, and what is done with it' => [
        'Pim pushes the hand cart.', ['Pim Alder', 'Hand cart with clock face', 'Push a cart'], [],
    ],
    'a key is a key, though held in a hand' => ['He hands over the key.', ['Brass key', 'Hand over'], []],
    'the longer name where it is said' => ['Oda sits down on the bench.', ['Oda Ferrant', 'Bench', 'Sit down'], []],
    'the shorter where it is not' => ['Oda sits on the bench.', ['Oda Ferrant', 'Bench', 'Sit'], []],
    'small words that make a motion' => ['She gets up.', ['Get up'], []],
    'one of two that begin alike' => ['She picks it up from the floor.', ['Pick up from the floor'], []],
    'a table is no motion' => ['There is a table.', ['Table'], []],
    'a sound by its head, not by every door' => ['The door opens.', ['Door opens'], []],
    'another word where nothing else is called so' => ['A couch in the forest.', ['Sofa', 'Forest clearing'], []],
    'what is called so stands before what is meant' => ['The boat at the bench.', ['Ferry', 'Bench'], []],
    'what the kit has not' => ['Oda walks to the dragon and juggles.', ['Oda Ferrant', 'Walk'], ['dragon', 'juggles']],
    'how it is done calls for nothing' => ['She walks wearily.', ['Walk'], []],
    'words that end otherwise' => ['Pim cries; gulls.', ['Pim Alder', 'Cry', 'Gulls'], []],
    'a thing and the sound of what is done with it' => ['She rings the bell.', ['Ring a bell', 'Bell, one stroke'], []],
    'nothing to find' => ['And then it was over.', [], []],
]);

test('who is in the scene stands before the shelf, under the name there', function (): void {
    [$first] = (new StoryParts)->of("Nan walks with Oda's key.", smallKit(), [['name' => 'Nan', 'id' => 2]]);
    expect($first['found'][0])->toBe(['kind' => 'performer', 'id' => 2, 'name' => 'Nan', 'words' => ['nan']])->and($first['found'][1]['id'])
        ->toBe(1)->and($first['missing'])->toBe([]);
});

test('what the cast cannot do is told with who and why', function (): void {
    $statue = [
        [
            'id' => 90,
            'kind' => 'performer',
            'name' => 'Granite',
            'tags' => [],
            'facts' => ['roles' => 20, 'mouths' => 0, 'shapes' => 0, 'fingers' => false],
        ],
        ['id' => 91, 'kind' => 'performer', 'name' => 'Lobster', 'tags' => [], 'facts' => ['roles' => 0]],
    ];
    expect(partsOf('Granite talks angrily to Oda.', [], $statue)[2])
        ->toBe(['Granite has no shapes of the mouth: "Talk, angry" will be mute.']);
    expect(partsOf('Granite cries.', [], $statue)[2])->toBe(['Granite has no face that moves: "Cry" will show in the body alone.']);
    expect(partsOf('Granite hands over the key.', [], $statue)[2])
        ->toBe(['Granite has no fingers: the hands stay as they are in "Hand over".']);
    expect(partsOf('The lobster walks.', [], $statue)[2])->toBe(['Lobster has not the joints of a person: "Walk" cannot be played.'])
        ->and(partsOf('Oda talks and cries.', [], $statue)[2])->toBe([])->and(partsOf('Granite walks.', [], $statue)[2])->toBe([]);
});

test('a story comes apart into its sentences, whatever ends them', function (): void {
    $texts = static fn (string $story): array => array_column((new StoryParts)->of($story, [], []), 'text');
    expect($texts("Oda waits. Bram rings!  Who comes?\n\nA line without a stop\r\nand another"))
        ->toBe(['Oda waits.', 'Bram rings!', 'Who comes?', 'A line without a stop', 'and another'])->and($texts(''))->toBe([])
        ->and($texts(" \n . "))->toBe(['.']);
    // A whole book is read as far as a scene goes.
    expect($texts(str_repeat("She walks.\n", 1000)))->toHaveCount(200);
});

test('words of any kind do no harm', function (string $story): void {
    foreach ((new StoryParts)->of($story, smallKit(), [['name' => '', 'id' => 1], ['name' => '42', 'id' => 3]]) as $line) {
        expect($line['missing'])->each->toBeString()->and(count($line['found']))->toBeLessThan(20);
    }
})->with([
    'numbers' => ['42 people walk 3 steps at 7:30.'],
    'signs' => ['%s %d {} [] <b>key</b> \\ "key"'],
    'another alphabet' => ['Ода идёт к морю. 海 key'],
    'one long word' => [str_repeat('walk', 500)],
    'many words' => [implode(' ', array_map(static fn (int $n): string => "word{$n}", range(1, 3000)))],
]);
