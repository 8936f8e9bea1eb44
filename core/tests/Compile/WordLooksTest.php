<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda says something to Bram, before her; a lantern stands to her right. */
function sayingWith(string $text, int $start = 24): CompiledScene
{
    return Scenes::compile([
        'items' => [
            ['life' => 'off'] + Scenes::item('o', 'oda'), ['name' => 'Bram Tiel'] + Scenes::item('b', 'bram', 0.0, 1.4, 180.0),
            ['name' => 'Lantern'] + Scenes::item('l', 'lantern', -1.2, 0.6, y: 1.0),
        ],
        'lines' => [['id' => 'd', 'item' => 'o', 'text' => $text, 'start' => $start, 'to' => 'b']],
    ]);
}

/** Degrees that Oda's left eye looks to her left, and up. @return array{float, float} */
function looksTo(CompiledScene $s, float $frame): array
{
    $f = $s->lanes['o']->figure;
    $own = SceneEvaluator::jointPlace($s, 'o', $f->skeleton->roles['eyeL'], $frame);
    $d = Q4::rotate(Q4::mul($own->rotation, Q4::conjugate($f->restTurn($f->skeleton->roles['eyeL']))), [0.0, 0.0, 1.0]);

    return [rad2deg(atan2($d[0], $d[2])), rad2deg(asin($d[1]))];
}

/** The first frame from one on in which her eyes have moved by three degrees since. */
function eyesMoveAt(CompiledScene $s, int $from): int
{
    $was = looksTo($s, $from);
    for ($f = $from + 1; $f < $from + 60; $f++) {
        if (hypot(looksTo($s, $f)[0] - $was[0], looksTo($s, $f)[1] - $was[1]) > 3.0) {
            return $f;
        }
    }

    return -1;
}

test('who is to look at a thing at a word does so from that word on, and back at whom they speak to', function (): void {
    $s = sayingWith('It was here [look at the lantern] all the evening long [look back] and you know that it was.');
    [$there, $back] = array_map(static fn (array $e): float => $s->utterances[0]->frame($e[1]), $s->utterances[0]->reading->events);
    expect(abs(eyesMoveAt($s, (int) $there - 6) - $there))->toBeLessThanOrEqual(3.0);
    $j = $s->lanes['o']->figure->skeleton->roles['eyeL'];
    $eye = SceneEvaluator::jointPlace($s, 'o', $j, $back - 2);
    $ahead = Q4::rotate(Q4::mul($eye->rotation, Q4::conjugate($s->lanes['o']->figure->restTurn($j))), [0.0, 0.0, 1.0]);
    [$low, $high] = FakeAssets::digestOf('lantern')['bounds'];
    $box = V3::add([-1.2, 1.0, 0.6], V3::mix($low, $high, 0.5));
    expect(rad2deg(acos(min(1.0, V3::dot($ahead, V3::unit(V3::sub($box, $eye->position)))))))->toBeLessThan(8.0)
        ->and(abs(looksTo($s, $back + 24)[0]))->toBeLessThan(8.0)->and(abs(looksTo($s, $there - 4)[0]))->toBeLessThan(20.0);
});

test('a longer line before the word moves the look with it', function (): void {
    $of = static fn (string $before): float => (float) eyesMoveAt($s = sayingWith(
        "{$before} [look up] and then it rained for hours and hours.",
    ),
        (int) $s->utterances[0]->frame($s->utterances[0]->reading->events[0][1]) - 4);
    $s = sayingWith('We sat [look up] and then it rained for hours and hours.');
    $long = sayingWith('We sat on the wall by the water [look up] and then it rained for hours and hours.');
    $at = static fn (CompiledScene $s): float => $s->utterances[0]->frame($s->utterances[0]->reading->events[0][1]);
    expect($of('We sat on the wall by the water') - $of('We sat'))->toEqualWithDelta($at($long) - $at($s), 2.0)
        ->and($at($long))->toBeGreaterThan($at($s) + 10);
});

test('ways are away, up, down, left and right', function (string $way, float $left, float $up): void {
    $s = sayingWith("Well, then [look {$way}] I could not tell you that even if I knew it myself.");
    $u = $s->utterances[0];
    [$x, $y] = looksTo($s, $u->frame($u->reading->events[0][1]) + 16);
    expect($left === 0.0 ? abs($x) : $x * ($left <=> 0.0))->toBeBetween(...$left === 0.0 ? [0.0, 12.0] : [20.0, 55.0]);
    if ($up !== 0.0) {
        expect($y * ($up <=> 0.0))->toBeGreaterThan(12.0);
    }
})->with([['left', 1.0, 0.0], ['right', -1.0, 0.0], ['up', 0.0, 1.0], ['down', 0.0, -1.0]]);

test('a gesture by its name begins with its word, over what the body does', function (): void {
    $s = sayingWith('Do come over [wave] here to me, will you, before it rains.');
    $u = $s->utterances[0];
    [$layer] = $s->lanes['o']->layers;
    expect(
        count($s->lanes['o']->layers),
    )->toBe(1)->and(abs($layer->start - $u->frame($u->reading->events[0][1])))->toBeLessThanOrEqual(1.0);
    $hand = static fn (float $f): float => max(array_map(
        static fn (string $role): float => SceneEvaluator::jointPlace(
            $s, 'o', $s->lanes['o']->figure->skeleton->roles[$role], $f,
        )->position[1],
        ['handL', 'handR'],
    ));
    expect(
        max(array_map($hand, range((int) $layer->start + 8, (int) $layer->start + 30))) - $hand($layer->start - 2),
    )->toBeGreaterThan(0.3);
    $feet = static fn (float $f): array => SceneEvaluator::jointPlace(
        $s, 'o', $s->lanes['o']->figure->skeleton->roles['footL'], $f,
    )->position;
    expect(V3::distance($feet($layer->start), $feet($layer->start + 20)))->toBeLessThan(0.002);
});

test('what nobody knows is told, with what may stand there', function (string $text, bool $isTold): void {
    $codes = array_map(static fn (Finding $f): string => $f->code, sayingWith($text)->notes);
    expect(in_array('line.unknown', $codes, true))->toBe($isTold);
})->with([
    ['a [juggle] b', true], ['a [look at nobody] b', true], ['a [look bram] b', false], ['a [look at the Lantern] b', false],
    ['a [Wave] b', false], ['a [sigh] b', false], ['a [look away] b', false],
]);

test('a noise shows in the face while it lasts', function (): void {
    $s = sayingWith('Well [laugh] I never knew.');
    $u = $s->utterances[0];
    $at = $u->frame($u->reading->events[0][1]);
    $f = $s->lanes['o']->figure;
    $k = 3 + 4 * $f->skeleton->count() + (int) array_search('cornerUpL', $f->morphs, true);
    $most = max(array_map(static fn (int $n): float => $s->poses->at($n)->row('o')[$k], range((int) $at + 4, (int) $at + 20)));
    expect($most)->toBeGreaterThan(0.5)->and($s->poses->at($at - 6)->row('o')[$k])->toBeLessThan(0.35);
});
