<?php

declare(strict_types=1);

use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** A scene by chance: two people, things, beats of every kind, carries, holds, touch-ups, paths, a cloak. @return array<string, mixed> */
function chanceScene(int $seed): array
{
    $r = new Random($seed);
    $between = static fn (float $a, float $b): float => $a + ($b - $a) * $r->next();
    $items = [
        Scenes::item('o', 'oda', $between(-2, 2), $between(-2, 2), $between(-180, 180)),
        Scenes::item('b', 'bram', $between(-2, 2), $between(-2, 2), $between(-180, 180), 0.0, $between(0.9, 1.1)),
        Scenes::item('k', 'key', 0.2, 0.4, 30.0, 0.9), Scenes::item('s', 'stool', $between(-1, 1), $between(-1, 1)),
        Scenes::item('x', 'box', $between(2, 4), $between(2, 4), 0.0, -0.85), Scenes::item('c', 'cloak'),
    ];
    $beats = [];
    foreach (['o', 'b'] as $who) {
        $start = (int) $between(0, 12);
        for ($k = 0; $k < 4; $k++) {
            $motion = $r->pick(['idle', 'walk', 'walkToMark', 'talk', 'wave', 'handOver', 'receive']);
            $play = array_filter([
                'mirror' => $r->next() < 0.3 ? true : null, 'reverse' => $r->next() < 0.15 ? true : null,
                'holdBefore' => $r->next() < 0.2 ? (int) $between(1, 10) : null,
                'energy' => $r->next() < 0.3 ? round($between(0.4, 1.4), 2) : null,
                'armWidthDeg' => $r->next() < 0.2 ? round($between(-8, 15), 1) : null,
                'ease' => $r->next() < 0.2 ? [0.36, -0.35, 0.66, 1.0] : null,
                'anchor' => $r->next() < 0.3 ? 'hips' : null,
            ], static fn (mixed $v): bool => $v !== null);
            $more = [
                'join' => $r->pick(['carryOn', 'blend', 'cut']), 'joinFrames' => (int) $between(0, 14),
                'speed' => round($between(0.7, 1.4), 2), 'play' => $play, 'settings' => ['seed' => (int) $between(1, 3)],
            ];
            if ($motion === 'walk' && $r->next() < 0.7) {
                $more['path'] = ['points' => [
                    [round($between(-3, 4), 2), round($between(-3, 4), 2)], [round($between(-3, 4), 2), round($between(-3, 4), 2)],
                ]] + ($r->next() < 0.4 ? ['changes' => [['after' => 1, 'style' => ['speed' => round($between(0.6, 3.0), 1)]]]] : []);
                $more['play'] = [];
            }
            $beats[] = Scenes::beat("{$who}{$k}", $who, $motion, $start, $more);
            $start += (int) $between(25, 80);
        }
    }
    $from = (int) $between(10, 60);
    $at = (int) $between(5, 100);

    return [
        'items' => $items, 'beats' => $beats,
        'wind' => ['towardsDeg' => round($between(0, 360)), 'speed' => round($between(0, 8), 1), 'gusts' => 0.5],
        'links' => [
            [
                'id' => 'l1', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => $from, 'to' => $from + 60, 'keep' => 'grip',
                'release' => $r->pick(['stay', 'fall']),
            ],
            ['id' => 'l2', 'child' => 'c', 'parent' => 'b', 'mount' => 'upperChest', 'from' => 0, 'keep' => 'grip'],
        ],
        'touchUps' => [[
            'id' => 't',
            'item' => 'b',
            'joint' => 'head',
            'from' => $at,
            'to' => $at + 40,
            'easeIn' => 5,
            'easeOut' => 5,
            'keys' => [['frame' => $at, 'rotation' => Q4::aroundY($between(-0.6, 0.6)), 'shift' => [0, 0, 0]]],
        ]],
        'contacts' => [[
            'id' => 'q', 'item' => 'o', 'effector' => $r->pick(['handL', 'head', 'look', 'footR']), 'target' => 's', 'mount' => 'top',
            'from' => $at, 'to' => $at + 50, 'easeIn' => 8, 'easeOut' => 8,
        ]],
    ];
}

$seeds = [1, 2, 3];

test('any frame first: the same scene, bit for bit', function (int $seed): void {
    $assets = new FakeAssets;
    $s = Scenes::compile(chanceScene($seed), $assets);
    $frames = [0.0, 7.0, 13.5, 31.0, 48.0, 77.0, 95.5, 140.0];
    $forward = array_map(static fn (float $f) => SceneEvaluator::at($s, $f), $frames);
    $again = Scenes::compile(chanceScene($seed), new FakeAssets);
    foreach (array_reverse(array_keys($frames)) as $k) {
        $pose = SceneEvaluator::at($again, $frames[$k]);
        expect($pose->rows)->toBe($forward[$k]->rows)->and(array_map(static fn ($p) => $p->flat(), $pose->places))
            ->toBe(array_map(static fn ($p) => $p->flat(), $forward[$k]->places));
    }
    expect(PoseStream::bake($s, PoseStream::moving($s), 1))->toBe(PoseStream::bake($again, PoseStream::moving($again), 1))
        ->and(PoseStream::names($s, PoseStream::items($s)))->toBe(PoseStream::names($again, PoseStream::items($again)));
})->with($seeds);

/**
 * One thing in a scene made another, by chance.
 *
 * @param  array<string, mixed>  $d
 * @return array<string, mixed>
 */
function changed(array $d, Random $r): array
{
    $k = (int) ($r->next() * count($d['beats']));
    switch ((int) ($r->next() * 8)) {
        case 0: $d['items'][(int) ($r->next() * count($d['items']))]['position'][0] += 0.3;
            break;
        case 1: $d['beats'][$k]['start'] += 7;
            break;
        case 2: $d['beats'][$k]['speed'] *= 1.1;
            break;
        case 3: $d['links'][0]['to'] -= 11;
            break;
        case 4: $d['touchUps'][0]['keys'][0]['rotation'] = Q4::aroundY(0.9);
            break;
        case 5: $d['contacts'][0]['to'] += 9;
            break;
        case 6: $d['wind']['speed'] += 2.0;
            break;
        default: array_splice($d['beats'], $k, 1);
    }

    return $d;
}

test('a name never stands for other poses, whatever is changed; who remembers settles as who does not', function (int $seed): void {
    $assets = new FakeAssets;
    $memory = new Memory;
    $r = new Random($seed);
    $scene = chanceScene($seed);
    $known = [];
    $again = 0;
    for ($round = 0; $round < 6; $round++) {
        $s = Scenes::compile($scene, $assets, $memory);
        $fresh = Scenes::compile($scene, $assets);
        expect(PoseStream::bake($s, PoseStream::moving($s), 1))->toBe(PoseStream::bake($fresh, PoseStream::moving($fresh), 1))
            ->and(array_map(static fn ($note): array => $note->toArray(), $s->notes))
            ->toBe(array_map(static fn ($note): array => $note->toArray(), $fresh->notes));
        foreach (PoseStream::moving($s) as $track) {
            for ($n = 0; $n < min(3, PoseStream::pieces($s)); $n++) {
                $name = PoseStream::name($s, $track, $n);
                $bytes = hash('xxh128', PoseStream::bake($s, [$track], $n)[0]);
                $again += isset($known[$name]) ? 1 : 0;
                expect($known[$name] ??= $bytes)->toBe($bytes, "round {$round}: {$track->id}, piece {$n}");
            }
        }
        $scene = changed($scene, $r);
    }
    // Most of what an edit does not reach is known by its name.
    expect($again)->toBeGreaterThan(15);
})->with([11, 12]);

test('nothing is ever no number, no rotation is stretched, and no bone changes its length', function (int $seed): void {
    $s = Scenes::compile(chanceScene($seed));
    for ($f = 0.0; $f < min(200, $s->frames); $f += 17.5) {
        $pose = SceneEvaluator::at($s, $f);
        foreach ($pose->places as $id => $p) {
            expect(array_filter($p->flat(), static fn (float $v): bool => ! is_finite($v)))->toBe([], "{$id} at {$f}")
                ->and(sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, $p->rotation))))->toEqualWithDelta(1.0, 1e-6);
        }
        foreach ($pose->rows as $id => $row) {
            expect(array_filter($row, static fn (float $v): bool => ! is_finite($v)))->toBe([], "{$id} at {$f}");
            $skeleton = $s->lanes[$id]->figure->skeleton;
            $off = 0.0;
            for ($j = 0; $j < $skeleton->count(); $j++) {
                $off = max(
                    $off,
                    abs(1.0 - sqrt(array_sum(array_map(static fn (float $v): float => $v * $v, ClipTable::rotation($row, $j))))),
                );
            }
            expect($off)->toBeLessThan(1e-5);
            foreach ([['upperLegL', 'lowerLegL'], ['lowerArmR', 'handR'], ['neck', 'head']] as [$a, $b]) {
                $rest = V3::length($skeleton->restTranslation($skeleton->roles[$b]));
                $d = V3::distance(
                    SceneEvaluator::jointPlace($s, $id, $skeleton->roles[$a], $f)->position,
                    SceneEvaluator::jointPlace($s, $id, $skeleton->roles[$b], $f)->position,
                );
                expect($d)->toEqualWithDelta($rest * $pose->places[$id]->scale, 1e-6);
            }
        }
        $cloth = $s->cloths['c']->at($f);
        expect(array_filter($cloth, static fn (float $v): bool => ! is_finite($v) || abs($v) > 4.0))->toBe([]);
    }
})->with($seeds);

test('what is carried stays in the hand', function (int $seed): void {
    $data = chanceScene($seed);
    $s = Scenes::compile($data);
    $link = $data['links'][0];
    $hand = $s->lanes['o']->figure->skeleton->roles['handR'];
    $seen = [];
    for ($f = $link['from']; $f < $link['to']; $f += 7) {
        $place = SceneEvaluator::place($s, 'k', $f);
        $seen[] = SceneEvaluator::jointPlace($s, 'o', $hand, $f)->inverse()->point($place->position);
    }
    foreach ($seen as $p) {
        expect(V3::distance($p, $seen[0]))->toBeLessThan(1e-6);
    }
})->with($seeds);

test('a document goes to JSON and back without a change', function (int $seed): void {
    $d = Document::fromArray(Scenes::data(chanceScene($seed)));
    $json = $d->toJson();
    expect(Document::fromJson($json)->toJson())->toBe($json);
})->with($seeds);

test('a split at any frame changes nothing', function (int $seed): void {
    $data = chanceScene($seed);
    $r = new Random($seed + 100);
    $play = $r->next() < 0.5 ? ['mirror' => true] : [];
    $beat = ['id' => 'a', 'item' => 'o', 'motion' => 'm-'.$r->pick(['idle', 'talk', 'wave', 'handOver']), 'start' => 4, 'play' => $play];
    $whole = Scenes::compile(['items' => $data['items'], 'beats' => [$beat]]);
    $length = (int) ($whole->lanes['o']->segments[0]->end - 4);
    $at = 1 + (int) ($r->next() * ($length - 2));
    $first = ['play' => $play + ['length' => $at]] + $beat;
    $second = ['id' => 'a2', 'start' => 4 + $at, 'join' => 'carryOn', 'joinFrames' => 0, 'play' => $play + ['skip' => $at]] + $beat;
    $split = Scenes::compile(['items' => $data['items'], 'beats' => [$first, $second]]);
    for ($f = 0; $f < 4 + $length; $f += 3) {
        $row = SceneEvaluator::row($split, 'o', $f);
        $off = max(array_map(static fn (float $a, float $b): float => abs($a - $b), SceneEvaluator::row($whole, 'o', $f), $row));
        expect($off)->toBeLessThan(1e-6);
    }
})->with([1, 2, 3, 4]);
