<?php

declare(strict_types=1);

use CrispReel\Core\Document\Document;
use CrispReel\Core\Staging\Ground;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** The ground among some things; the box of the tests is a metre wide, high and deep, from the ground up. */
function groundAmong(array ...$items): Ground
{
    return new Ground(Document::fromArray(Scenes::data(['items' => $items])), new FakeAssets);
}

test('one stands on what is there, on one\'s own storey, and on the plain ground where nothing is', function (): void {
    $hall = Scenes::item('hall', 'box', 0.0, 0.0, 0.0, -10.0, 10.0);
    expect(groundAmong()->stand(3.0, 4.0))->toBe(0.0)
        ->and(groundAmong(Scenes::item('b', 'box', 0.0, 0.0, 0.0, -0.4, 4.0))->stand(0.5, 0.5))->toEqualWithDelta(3.6, 1e-6)
        ->and(groundAmong($hall)->stand(1.0, 1.0))->toEqualWithDelta(0.0, 1e-6);
    // Two floors above each other: the lower one, or the one that is in reach from where one is.
    $deck = Scenes::item('deck', 'box', 0.0, 0.0, 0.0, 2.0, 2.0);
    $both = groundAmong($hall, $deck);
    expect($both->stand(0.0, 0.0, null, 4.0))->toEqualWithDelta(4.0, 1e-6)->and($both->stand(0.0, 0.0, 'deck', 4.0))
        ->toEqualWithDelta(0.0, 1e-6);
});

test('a person is put clear of people and things, in nothing and on no furniture', function (array $items, float $x, float $z): void {
    $ground = groundAmong(...$items);
    [$px, $pz] = $ground->clear($x, $z, Ground::BODY);
    foreach ($items as $i) {
        $half = $i['kind'] === 'performer' ? 0.32 : 0.5 * $i['scale'];
        expect(max(abs($px - $i['position'][0]), abs($pz - $i['position'][2])))->toBeGreaterThan($half, $i['name']);
    }
    expect($ground->stand($px, $pz))->toBe(0.0)->and(hypot($px - $x, $pz - $z))->toBeLessThan(3.0);
})->with([
    'somebody stands there' => [[Scenes::item('o', 'oda')], 0.0, 0.0],
    'a crate stands there' => [[Scenes::item('b', 'box', 1.0, 0.0)], 1.1, 0.1],
    'between two' => [[Scenes::item('o', 'oda', -0.3), Scenes::item('b', 'box', 0.6, 0.0)], 0.0, 0.0],
    'three in a row' => [[Scenes::item('a', 'box'), Scenes::item('b', 'box', 1.0), Scenes::item('c', 'box', -1.0)], 0.0, 0.0],
]);

test('what is large is stood on and does not keep others away; where nothing is free the wish is kept', function (): void {
    $hall = Scenes::item('hall', 'box', 0.0, 0.0, 0.0, -30.0, 30.0);
    $ground = groundAmong($hall);
    expect($ground->clear(2.0, 1.0, Ground::BODY))->toBe([2.0, 1.0])->and($ground->stand(2.0, 1.0))->toEqualWithDelta(0.0, 1e-6);
    $people = array_map(
        static fn (int $k): array => Scenes::item("p{$k}", 'oda', 0.55 * ($k % 25) - 6.6, 0.55 * intdiv($k, 25) - 6.6),
        range(0, 624),
    );
    expect(groundAmong(...$people)->clear(0.0, 0.0, Ground::BODY))->toBe([0.0, 0.0]);
});

test('the radius of a thing is half of its longer side, within reason', function (array $size, float $radius): void {
    [$x, $z] = [$size[0] / 2, $size[1] / 2];
    expect(Ground::radius(['bounds' => [[-$x, 0, -$z], [$x, 1, $z]]]))->toEqualWithDelta($radius, 1e-9);
})->with([[[1.0, 0.4], 0.5], [[0.1, 0.1], 0.25], [[40.0, 3.0], 2.5]]);
