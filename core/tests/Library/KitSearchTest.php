<?php

declare(strict_types=1);

use CrispReel\Core\Library\KitSearch;

/** @return list<array{id: int, name: string, tags: list<string>}> */
function shelf(): array
{
    return [
        ['id' => 1, 'name' => 'Walk, tired', 'tags' => ['walk', 'travel', 'tired']], ['id' => 2, 'name' => 'Walk', 'tags' => ['walk', 'travel']], ['id' => 3, 'name' => 'Bench', 'tags' => ['seat', 'wood']],
        ['id' => 4, 'name' => 'Sofa', 'tags' => ['seat']], ['id' => 5, 'name' => 'Cry', 'tags' => ['sad', 'face']], ['id' => 6, 'name' => 'Ferry', 'tags' => ['boat']], ['id' => 7, 'name' => 'Walking stick', 'tags' => ['prop']],
    ];
}

test('all words must be met, in name or tags, whatever their ending', function (string $query, array $ids): void {
    expect((new KitSearch)->find($query, shelf()))->toBe($ids);
})->with([
    'nothing asked' => ['', [1, 2, 3, 4, 5, 6, 7]], 'a name' => ['ferry', [6]], 'another ending' => ['walks', [1, 2, 7]], 'two words' => ['tired walk', [1]], 'a beginning' => ['fer', [6]],
    'the same by another word' => ['couch', [4]], 'a feeling' => ['unhappy', [5]], 'a tag that means it' => ['ship', [6]], 'a name before a tag' => ['seat', [3, 4]], 'unknown' => ['zebra', []], 'one unknown of two' => ['walk zebra', []],
]);

test('a thousand assets are searched in a blink', function (): void {
    $entries = array_map(static fn (int $n): array => ['id' => $n, 'name' => "Thing {$n} of wood", 'tags' => ['prop', "series{$n}"]], range(1, 2000));
    expect((new KitSearch)->find('series77 wooden', $entries))->toBe([])->and((new KitSearch)->find('series77', $entries)[0])->toBe(77);
});
