<?php

declare(strict_types=1);

use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Coverage\Action;
use CrispReel\Core\Coverage\Cover;
use CrispReel\Core\Coverage\Style;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Staging\Lay;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** Shared over the tests here: what is settled once stays. */
function coverMemory(): Memory
{
    static $memory = new Memory;

    return $memory;
}

/**
 * Two or three who stand around and speak by turns, by seed; the last walks in first.
 *
 * @return array{CompiledScene, list<string>, array<string, mixed>}
 */
function dialogue(int $seed, int $people): array
{
    $r = new Random($seed);
    $items = $beats = [];
    for ($i = 0; $i < $people; $i++) {
        $a = 2 * M_PI * $i / $people + 0.4 * $r->next();
        $far = 0.6 + 0.5 * $r->next();
        $items[] = Scenes::item(
            'i'.$i, $i % 2 === 0 ? 'oda' : 'bram', $far * sin($a), $far * cos($a), rad2deg($a) + 180.0, scale: 0.9 + 0.2 * $r->next(),
        );
    }
    for ($n = 0, $at = 12; $n < 5; $n++) {
        $who = (int) floor($r->next() * $people) % $people;
        $beats[] = Scenes::beat("b{$n}", "i{$who}", 'talk', $at);
        $at += 90 + (int) (40 * $r->next());
    }
    // Of one who speaks twice in a row the beats follow each other.
    $scene = Scenes::compile(['items' => $items, 'beats' => $beats], null, coverMemory());

    return [$scene, array_column($items, 'id'), ['items' => $items, 'beats' => $beats]];
}

function covered(CompiledScene $scene, array $people): Cover
{
    return new Cover($scene, new FakeAssets, coverMemory(), $people, 0, $scene->frames, new Gate(16 / 9));
}

test('a dialogue is cut by the rules, whoever speaks, in each style', function (int $seed, int $people): void {
    [$scene, $all] = dialogue($seed, $people);
    $cover = covered($scene, $all);
    expect(count($cover->candidates))->toBeGreaterThan(4);
    foreach (Style::names() as $style) {
        $cut = $cover->cut($style);
        $facts = $cover->facts($style, $cut);
        expect($facts['crossings'])->toBe(0, "{$style} {$seed}")->and($facts['jumps'])->toBe(0, "{$style} {$seed}")
            ->and($facts['seen'])->toBeGreaterThanOrEqual(0.9, "{$style} {$seed}")
            ->and($facts['shortest'])->toBeGreaterThanOrEqual(18, "{$style} {$seed}")
            ->and($cut[0]['from'])->toBe(0)->and($cut[count($cut) - 1]['to'])->toBe($scene->frames);
        for ($i = 1; $i < count($cut); $i++) {
            expect($cut[$i]['from'])->toBe($cut[$i - 1]['to']);
        }
    }
})->with([[1, 2], [3, 2], [4, 3], [6, 3]]);

test('who speaks is in the picture, told by where the head falls', function (): void {
    [$scene, $all] = dialogue(7, 2);
    $cut = covered($scene, $all)->cut('plain');
    $action = Action::of($scene, new FakeAssets, $all, 0, $scene->frames);
    $in = $of = 0;
    foreach ($cut as $shot) {
        for ($f = $shot['from']; $f < $shot['to']; $f += 5) {
            $speaker = $action->speaker($f);
            if ($speaker !== null) {
                [$x, $y, $depth] = $shot['candidate']->camera->at($f)->project($scene->poses->at($f)->face($speaker) ?? [0, 0, 0], 16 / 9);
                $of++;
                $in += $depth > 0 && abs($x) < 1 && abs($y) < 1 ? 1 : 0;
            }
        }
    }
    expect($of)->toBeGreaterThan(40)->and($in / $of)->toBeGreaterThan(0.9);
});

test('the same scene gives the same cut, a livelier style more shots; the first shows where one is', function (): void {
    [$scene, $all] = dialogue(2, 2);
    $shots = static fn (Cover $cover, string $style): array => array_map(
        static fn (array $s): array => [$s['from'], $s['to'], $s['candidate']->title],
        $cover->cut($style),
    );
    [$one, $other] = [covered($scene, $all), covered($scene, $all)];
    expect($shots($one, 'tense'))->toBe($shots($other, 'tense'))
        ->and(count($shots($one, 'lively')))->toBeGreaterThanOrEqual(count($shots($one, 'plain')));
    $first = $one->cut('plain')[0]['candidate'];
    expect(in_array($first->role, ['master', 'two'], true))->toBeTrue($first->title);
});

test('what happens is read: lines and whom they are for, ways, what changes hands', function (): void {
    $scene = Scenes::compile([
        'items' => [
            Scenes::item('i1', 'oda', 0.0, 0.0, 0.0), Scenes::item('i2', 'bram', 0.0, 1.2, 180.0), Scenes::item('i3', 'key', 3.0, 0.0),
            Scenes::item('i4', 'bram', 5.0, 5.0),
        ],
        'beats' => [
            Scenes::beat('b1', 'i1', 'talk', 10), Scenes::beat('b2', 'i2', 'wave', 20), Scenes::beat('b3', 'i4', 'walk', 0),
            Scenes::beat('b4', 'i2', 'idle', 200),
        ],
        'links' => [
            ['id' => 'l1', 'child' => 'i3', 'parent' => 'i1', 'mount' => 'handR', 'from' => 0],
            ['id' => 'l2', 'child' => 'i3', 'parent' => 'i2', 'mount' => 'handR', 'from' => 80],
        ],
    ], null, coverMemory());
    $a = Action::of($scene, new FakeAssets, ['i1', 'i2', 'i4'], 0, $scene->frames);
    expect(array_column($a->lines, 2))->toBe(['i1'])->and($a->lines[0][0])->toBe(10)->and(array_values($a->spokenTo))->toBe(['i2'])
        ->and(array_column($a->travels, 2))->toBe(['i4'])->and($a->gives)->toBe([[80, 'i3', 'i1', 'i2']])
        ->and($a->pairs())->toBe([['i1', 'i2']])->and($a->speaker(5))->toBeNull()->and($a->speaker(12))->toBe('i1')
        ->and($a->doers(22))->toContain('i2', 'i4')
        ->and(array_column($a->acts, 2))->not->toContain('i1');
    // What changes hands is seen from near.
    $roles = array_map(static fn ($c): string => $c->role, covered($scene, ['i1', 'i2', 'i4'])->candidates);
    expect($roles)->toContain('insert', 'travel', 'over', 'single', 'two', 'master');
});

test('a cut comes down to edit commands that make the same pictures', function (): void {
    [$scene, $all, $parts] = dialogue(3, 2);
    $cut = covered($scene, $all)->cut('plain');
    $commands = Cover::commands($cut);
    $lay = array_pop($commands);
    expect($lay->name)->toBe('reel.lay')->and($lay->payload['from'])->toBe(0)->and(count($lay->payload['shots']))->toBe(count($cut));
    $framings = $cameras = [];
    foreach ($commands as $n => $c) {
        expect($c->name)->toBe('camera.frame');
        $cameras[] = Scenes::camera('c'.$n, [[]]);
        $framings[] = array_diff_key($c->payload, ['as' => 0, 'name' => 0]) + ['id' => 'f'.$n, 'camera' => 'c'.$n];
    }
    $taken = Scenes::compile($parts + ['cameras' => $cameras, 'framings' => $framings], null, coverMemory());
    foreach ($cut as $i => $shot) {
        $id = 'c'.array_search($lay->payload['shots'][$i]['camera'], array_map(static fn ($c) => $c->payload['as'], $commands), true);
        $f = intdiv($shot['from'] + $shot['to'], 2);
        expect(SceneEvaluator::at($taken, $f)->cameras[$id]->position)->toEqualWithDelta($shot['view']->position, 0.001);
    }
});

test('a shot that is kept may last longer than any that is found', function (): void {
    [, $all, $parts] = dialogue(3, 2);
    $long = ['id' => 's1', 'camera' => 'c1', 'in' => 10, 'out' => 530, 'kept' => true];
    $tail = [Scenes::beat('b9', 'i0', 'talk', 640)];
    $more = ['beats' => [...$parts['beats'], ...$tail], 'cameras' => [Scenes::camera('c1', [[]])], 'shots' => [$long]];
    $scene = Scenes::compile($more + $parts, null, coverMemory());
    $cut = covered($scene, $all)->cut('plain');
    $kept = array_filter($cut, static fn (array $s): bool => $s['candidate']->kept !== null);
    expect(array_map(static fn (array $s): array => [$s['from'], $s['to']], array_values($kept)))->toBe([[10, 530]]);
});

test('what is kept stays on its frames, and the cut goes around it', function (array $kept, int $lays): void {
    [, $all, $parts] = dialogue(3, 2);
    $reel = [];
    foreach ([0, 100, 200, 260, 330] as $i => $in) {
        $reel[] = ['id' => "s{$i}", 'camera' => 'c1', 'in' => $in, 'out' => $in + 60, 'kept' => in_array($in, $kept, true)];
    }
    $scene = Scenes::compile($parts + ['cameras' => [Scenes::camera('c1', [[]])], 'shots' => $reel], null, coverMemory());
    foreach (['plain', 'lively'] as $style) {
        $cut = covered($scene, $all)->cut($style);
        $stays = array_values(array_filter($cut, static fn (array $s): bool => $s['candidate']->kept !== null));
        expect(array_map(static fn (array $s): array => [$s['from'], $s['to'], $s['candidate']->kept], $stays))
            ->toBe(array_map(static fn (int $in): array => [$in, $in + 60, 'c1'], $kept));
        $commands = Cover::commands($cut);
        $laid = array_values(array_filter($commands, static fn ($c): bool => $c->name === 'reel.lay'));
        expect($laid)->toHaveCount($lays);
        foreach ($laid as $lay) {
            foreach ($kept as $in) {
                expect($lay->payload['to'] <= $in || $lay->payload['from'] >= $in + 60)->toBeTrue();
            }
            expect($lay->payload['shots'][0]['in'])->toBe($lay->payload['from']);
        }
    }
})->with([
    'one in the middle' => [[100], 2], 'the first' => [[0], 1], 'two that meet' => [[200, 260], 2],
    'two apart' => [[0, 260], 2], 'none' => [[], 1],
]);

test('shots are laid over a span, and what lay there gives way', function (int $from, int $to, array $expected): void {
    $reel = [new Shot('s1', 'a', 0, 40), new Shot('s2', 'b', 40, 60), new Shot('s3', 'c', 60, 100)];
    $laid = Lay::over($reel, $from, $to, [['camera' => 'x', 'in' => $from], ['camera' => 'y', 'in' => $from + 5]]);
    expect(array_map(static fn (Shot $s): array => [$s->id, $s->camera, $s->in, $s->out], $laid))->toBe($expected);
})->with([
    'within one' => [10, 20, [
        ['s1', 'a', 0, 10], ['', 'x', 10, 15], ['', 'y', 15, 20], ['', 'a', 20, 40], ['s2', 'b', 40, 60], ['s3', 'c', 60, 100],
    ]],
    'over a whole one' => [30, 70, [['s1', 'a', 0, 30], ['', 'x', 30, 35], ['', 'y', 35, 70], ['s3', 'c', 70, 100]]],
    'after its end' => [120, 150, [
        ['s1', 'a', 0, 40], ['s2', 'b', 40, 60], ['s3', 'c', 60, 120], ['', 'x', 120, 125], ['', 'y', 125, 150],
    ]],
    'over all' => [0, 100, [['', 'x', 0, 5], ['', 'y', 5, 100]]],
]);
