<?php

declare(strict_types=1);

use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Staging\Thrown;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** @param  list<array<string, mixed>>  $links */
function throwers(array $links): array
{
    return Scenes::data([
        'items' => [Scenes::item('a', 'bram'), Scenes::item('b', 'oda', 0.0, 3.0, 180.0), Scenes::item('k', 'key', 0.0, 0.0, 0.0, 1.0)],
        'beats' => [
            Scenes::beat('t', 'a', 'throwToA', 24, ['settings' => ['gap' => 3.0]]),
            Scenes::beat('c', 'b', 'throwToB', 24, ['play' => ['with' => 't']]),
        ],
        'links' => $links,
    ]);
}

test('what is thrown leaves the one hand, flies, and is in the other when that closes', function (): void {
    $held = ['id' => 'l', 'child' => 'k', 'parent' => 'a', 'mount' => 'handR', 'from' => 0, 'keep' => 'grip'];
    $data = throwers([$held]);
    [$leaves, $comes] = $commands = Thrown::commands(Document::fromArray($data), 'a', 'b', 24);
    expect(array_map(static fn (Command $c): string => $c->name, $commands))->toBe(['link.set', 'link.add'])
        ->and($leaves->payload)->toBe(['link' => 'l', 'to' => 24 + 29, 'release' => 'fall'])->and($comes->payload['from'])->toBe(24 + 46);
    $data['links'] = [['to' => 53, 'release' => 'fall'] + $held, ['id' => 'm'] + $comes->payload];
    $s = SceneCompiler::compile(Document::fromArray($data), new FakeAssets);
    $key = static fn (float $f): array => SceneEvaluator::place($s, 'k', $f)->position;
    // Nowhere does it jump, and half way it is in the air between the two.
    for ($f = 1; $f < $s->frames; $f++) {
        expect(V3::distance($key($f), $key($f - 1)))->toBeLessThan(0.60, "at {$f}");
    }
    expect($key(61)[2])->toBeBetween(0.8, 2.4)->and($key(61)[1])->toBeGreaterThan(1.2)->and($key($s->frames - 1)[2])->toBeGreaterThan(2.3);
});

test('what is not in a hand is not thrown', function (array $link): void {
    $data = throwers([['id' => 'l', 'child' => 'k', 'from' => 0, 'keep' => 'grip'] + $link]);
    expect(Thrown::commands(Document::fromArray($data), 'a', 'b', 24))->toBe([]);
})->with([
    'on the back' => [['parent' => 'a', 'mount' => 'chest']], 'in the other one\'s hand' => [['parent' => 'b', 'mount' => 'handR']],
    'let go before' => [['parent' => 'a', 'mount' => 'handR', 'to' => 20]],
]);

test('without a start nothing is thrown', function (): void {
    $data = throwers([['id' => 'l', 'child' => 'k', 'parent' => 'a', 'mount' => 'handR', 'from' => 0, 'keep' => 'grip']]);
    expect(Thrown::commands(Document::fromArray($data), 'a', 'b', null))->toBe([]);
});
