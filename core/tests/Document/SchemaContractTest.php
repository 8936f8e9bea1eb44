<?php

declare(strict_types=1);

use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Tests\Support\Scenes;
use Opis\JsonSchema\Validator;

/** A scene in which everything that a document can say is said. @return array<string, mixed> */
function sayingAll(): array
{
    return Scenes::data([
        'wind' => ['towardsDeg' => 90.0, 'speed' => 3.0, 'gusts' => 0.3, 'seed' => 5],
        'items' => [
            Scenes::item('i1', 'oda', 1.0, 2.0, 30.0) + ['surfaces' => [
                ['key' => 'cloth#733043', 'colour' => '#2f8f4f', 'finish' => 'satin', 'picture' => str_repeat('a', 64), 'metres' => 0.5],
                ['key' => '*', 'variant' => 'Rusty'],
            ]],
            Scenes::item('i2', 'key')
                + ['moves' => [['frame' => 3, 'position' => [0.0, 0.0, 0.0], 'rotation' => [0.0, 0.0, 0.0, 1.0], 'ease' => 'in']]],
            Scenes::item('i3', 'wagon')
                + ['route' => ['points' => [[0.0, 1.0], [2.0, 3.0]], 'from' => 4, 'to' => 60, 'speed' => 1.0, 'by' => null]],
            Scenes::item('i4', 'banner')
                + ['cloth' => ['kind' => 'silk', 'grams' => 80.0, 'bend' => 0.1, 'catch' => 1.0, 'damping' => 0.5]],
        ],
        'beats' => [
            Scenes::beat('b1', 'i1', 'talk', 5, ['sourceIn' => 0.5, 'sourceOut' => 2.5, 'speed' => 1.1, 'loops' => 2, 'root' => 'spot', 'join' => 'blend', 'joinFrames' => 4, 'settings' => ['seconds' => 5.0], 'play' => [
                'mirror' => true, 'reverse' => false, 'ease' => [0.2, 0.0, 0.8, 1.0], 'speeds' => [[0.0, 1.0], [1.0, 1.5]],
                'holdBefore' => 2, 'holdAfter' => 3, 'fill' => null, 'keepLooping' => false, 'skip' => 1, 'length' => null,
                'armWidthDeg' => 5.0, 'energy' => 1.2, 'hipOffset' => -0.1, 'layer' => 1, 'mask' => ['head', 'armL'], 'weight' => 0.8,
                'fadeIn' => 4, 'fadeOut' => 4, 'anchor' => 'hips',
            ]]),
            Scenes::beat(
                'b2',
                'i1',
                'walk',
                90,
                ['path' => [
                    'points' => [[1.0, 5.0], [2.0, 8.0]], 'arrive' => 200, 'faceDeg' => 45.0,
                    'changes' => [['after' => 1, 'style' => ['speed' => 1.5]]],
                ]],
            ),
        ],
        'links' => [[
            'id' => 'l1', 'child' => 'i2', 'parent' => 'i1', 'mount' => 'handR', 'from' => 3, 'to' => 40, 'keep' => 'grip',
            'easeFrames' => 4, 'release' => 'fall', 'velocity' => [0.0, 1.0, 0.0],
        ]],
        'contacts' => [[
            'id' => 'k1', 'item' => 'i1', 'effector' => 'handL', 'target' => 'i3', 'mount' => '', 'offset' => [0.0, 0.5, 0.0],
            'from' => 10, 'to' => 40, 'easeIn' => 4, 'easeOut' => 4, 'turn' => 'keep',
        ]],
        'touchUps' => [[
            'id' => 't1',
            'item' => 'i1',
            'joint' => 'head',
            'from' => 0,
            'to' => 20,
            'easeIn' => 4,
            'easeOut' => 4,
            'keys' => [['frame' => 4, 'rotation' => [0.0, 0.0, 0.0, 1.0], 'shift' => [0.0, 0.0, 0.0]]],
        ]],
        'cameras' => [Scenes::camera('ca', [['frame' => 0], ['frame' => 20, 'focusMetres' => 3.0, 'fStop' => 4.0, 'ease' => 'in']])],
        'shots' => [
            ['id' => 's1', 'camera' => 'ca', 'in' => 0, 'out' => 10, 'label' => '010'],
            ['id' => 's2', 'camera' => 'ca', 'in' => 10, 'out' => null, 'label' => '020'],
        ],
    ]);
}

/**
 * Ways to every value of a document, lists of assets but for the first left out.
 *
 * @param  array<array-key, mixed>  $data
 * @return list<list<int|string>>
 */
function waysIn(array $data, array $way = []): array
{
    $out = [];
    foreach ($data as $key => $value) {
        if ($way === ['assets'] && $key !== 0) {
            continue;
        }
        $out[] = [...$way, $key];
        if (is_array($value)) {
            array_push($out, ...waysIn($value, [...$way, $key]));
        }
    }

    return $out;
}

/** The JSON of a document with another value at one place. @param  list<int|string>  $way */
function withAt(string $json, array $way, mixed $value): string
{
    $data = json_decode($json);
    $at = &$data;
    foreach ($way as $key) {
        if (is_array($at)) {
            $at = &$at[$key];
        } else {
            $at = &$at->{$key};
        }
    }
    $at = $value;

    return json_encode($data, JSON_THROW_ON_ERROR);
}

test('what a document writes of everything that it can say, the schema takes and the reader reads back', function (): void {
    $written = Document::fromArray(sayingAll())->toJson();
    $schema = (string) file_get_contents(dirname(__DIR__, 2).'/resources/scene.schema.json');
    $result = (new Validator)->validate(json_decode($written), $schema);
    expect($result->isValid())
        ->toBeTrue($result->isValid() ? '' : json_encode((new Opis\JsonSchema\Errors\ErrorFormatter)->format($result->error())));
    expect(Document::fromJson($written)->toJson())->toBe($written);
});

test('nonsense at any place is refused by name or taken as the schema takes it; the reader never falls over', function (): void {
    $schema = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/resources/scene.schema.json'));
    $validator = new Validator;
    $json = Document::fromArray(sayingAll())->toJson();
    $ways = waysIn(json_decode($json, true));
    $refused = $tried = 0;
    $laxer = [];
    foreach ($ways as $way) {
        foreach ([null, true, 'no such thing', '', -1, 1.0e12, [], [['a' => 1]], str_repeat('x', 300)] as $nonsense) {
            $bad = withAt($json, $way, $nonsense);
            $tried++;
            try {
                Document::fromJson($bad);
            } catch (UnableToReadDocument $e) {
                $refused++;
                expect($e->remedy())->not->toBe('');

                continue;
            }
            // What the reader takes, the schema takes: else a file could be read and not be a scene by its own rules. A null
            // is as good as nothing there, and an empty list as an empty object.
            $same = $nonsense === null || $nonsense === [];
            if (! $same && ! $validator->validate(json_decode($bad), $schema)->isValid()) {
                $laxer[] = implode('/', $way).' = '.json_encode($nonsense);
            }
        }
    }
    expect($tried)->toBeGreaterThan(2000)->and($refused)->toBeGreaterThan($tried / 2);
    expect($laxer)->toBe([]);
});
