<?php

declare(strict_types=1);

use CrispReel\Core\Library\KitSearch;

/** @return list<array{id: int, name: string, tags: list<string>}> */
function shelf(): array
{
    return [
        ['id' => 1, 'name' => 'Walk, tired', 'tags' => ['walk', 'travel', 'tired']],
        ['id' => 2, 'name' => 'Walk', 'tags' => ['walk', 'travel']], ['id' => 3, 'name' => 'Bench', 'tags' => ['seat', 'wood']],
        ['id' => 4, 'name' => 'Sofa', 'tags' => ['seat']], ['id' => 5, 'name' => 'Cry', 'tags' => ['sad', 'face']],
        ['id' => 6, 'name' => 'Ferry', 'tags' => ['boat']], ['id' => 7, 'name' => 'Walking stick', 'tags' => ['prop']],
    ];
}

test('all words must be met, in name or tags, whatever their ending', function (string $query, array $ids): void {
    expect((new KitSearch)->find($query, shelf()))->toBe($ids);
})->with([
    'nothing asked' => ['', [1, 2, 3, 4, 5, 6, 7]], 'a name' => ['ferry', [6]], 'another ending' => ['walks', [1, 2, 7]],
    'two words' => ['tired walk', [1]], 'a beginning' => ['fer', [6]],
    'the same by another word' => ['couch', [4]], 'a feeling' => ['unhappy', [5]], 'a tag that means it' => ['ship', [6]],
    'a name before a tag' => ['seat', [3, 4]], 'unknown' => ['zebra', []], 'one unknown of two' => ['walk zebra', []],
]);

test('a thousand assets are searched in a blink', function (): void {
    $entries = array_map(
        static fn (int $n): array => ['id' => $n, 'name' => "Thing {$n} of wood", 'tags' => ['prop', "series{$n}"]],
        range(1, 2000),
    );
    expect((new KitSearch)->find('series77 wooden', $entries))->toBe([])->and((new KitSearch)->find('series77', $entries)[0])->toBe(77);
});

test('a word is met by its other forms, and by nothing that only looks like one', function (string $query, string $name, bool $met): void {
    expect((new KitSearch)->find($query, [['id' => 1, 'name' => $name, 'tags' => []]]) !== [])->toBe($met);
})->with([
    ['stone', 'Steps on stones', true], ['stones', 'Stone', true], ['benches', 'Bench', true], ['bench', 'Two benches', true],
    ['run', 'Running', true], ['running', 'Run, fast', true], ['dancing', 'Dance, turning', true], ['carried', 'Carry a box', true],
    ['carries', 'Carry a box', true],
    ['sit', 'Sitting', true], ['fall', 'Falling', true], ['pass', 'Passing', true], ['jumped', 'Jump', true], ['WALK', 'walk', true],
    ['  walk,  ', 'Walk', true], ['glass', 'Glasses', true],
    ['thing', 'Th', false], ['red', 'Re', false], ['bed', 'B', false], ['ring', 'R', false],
]);

test('slips of the finger are forgiven where nothing else fits', function (string $query, array $names): void {
    $shelf = array_map(
        static fn (int $n, string $name): array => ['id' => $n, 'name' => $name, 'tags' => []],
        range(0, 5),
        $all = ['Bicycle', 'Lantern', 'Bench', 'Beach', 'Chair', 'Cup'],
    );
    expect(array_map(static fn (int $id): string => $all[$id], (new KitSearch)->find($query, $shelf)))->toBe($names);
})->with([
    'a letter too few' => ['lanern', ['Lantern']], 'two changed places' => ['bicylce', ['Bicycle']],
    'also in a short word' => ['chiar', ['Chair']], 'two wrong letters in a long word' => ['bicyckle', ['Bicycle']],
    'one that is right stands alone' => ['bench', ['Bench', 'Chair']], 'one wrong' => ['chaor', ['Chair']],
    'between two' => ['beqch', ['Bench', 'Beach']], 'too short to guess' => ['cop', []], 'another first letter' => ['hair', []],
]);

test('what is met better stands first: name, beginning of a name, tag, another word', function (): void {
    $shelf = [
        ['id' => 1, 'name' => 'Vessel', 'tags' => []], ['id' => 2, 'name' => 'Ferry', 'tags' => ['boat']],
        ['id' => 3, 'name' => 'Boathouse', 'tags' => []], ['id' => 4, 'name' => 'Rowing boat', 'tags' => []],
        ['id' => 5, 'name' => 'Pier', 'tags' => ['boats']],
    ];
    expect((new KitSearch)->find('boat', $shelf))->toBe([4, 3, 2, 5, 1]);
});

test('letters of other languages are letters', function (): void {
    $shelf = [['id' => 1, 'name' => 'Café table', 'tags' => ['für draußen']], ['id' => 2, 'name' => 'Дом', 'tags' => []]];
    expect((new KitSearch)->find('café', $shelf))->toBe([1])->and((new KitSearch)->find('CAFÉ für', $shelf))->toBe([1])
        ->and((new KitSearch)->find('дом', $shelf))->toBe([2])->and((new KitSearch)->find('%_\'"', $shelf))->toBe([1, 2]);
});
