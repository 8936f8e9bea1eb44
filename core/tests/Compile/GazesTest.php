<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Hold;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Oda talks; Bram stands 1.4 m before her, half turned away; a third stands behind her.
 *
 * @param  array<string, mixed>  $more
 */
function spokenWith(array $more = [], array $bram = []): CompiledScene
{
    return Scenes::compile($more + [
        'items' => [
            Scenes::item('o', 'oda', 0.0, 0.0, 90.0), $bram + Scenes::item('b', 'bram', 1.4, 0.2, -60.0),
            Scenes::item('c', 'oda', -1.0, 0.0, 90.0),
        ],
        'beats' => [Scenes::beat('1', 'o', 'talk', 24)],
    ]);
}

/** @return list<array{string, int, int|null}> whom somebody looks at by themselves, from and to */
function gazesOf(CompiledScene $s, string $who): array
{
    return array_map(
        static fn (Hold $h): array => [(string) $h->contact->target, $h->contact->from, $h->contact->to],
        array_values(array_filter($s->holds[$who] ?? [], static fn (Hold $h): bool => $h->by < 1.0)),
    );
}

/** Degrees by which somebody's eyes miss the middle of another's. */
function eyesMiss(CompiledScene $s, string $who, string $at, int $frame): float
{
    $f = $s->lanes[$who]->figure;
    $eye = static function (string $of, string $side) use ($s, $frame): array {
        $j = $s->lanes[$of]->figure->skeleton->roles["eye{$side}"];

        return SceneEvaluator::jointPlace($s, $of, $j, $frame)->position;
    };
    $j = $f->skeleton->roles['eyeL'];
    $own = SceneEvaluator::jointPlace($s, $who, $j, $frame);
    $ahead = Q4::rotate(Q4::mul($own->rotation, Q4::conjugate($f->restTurn($j))), [0.0, 0.0, 1.0]);
    $to = V3::unit(V3::sub(V3::mix($eye($at, 'L'), $eye($at, 'R'), 0.5), $own->position));

    return rad2deg(acos(min(1.0, V3::dot($ahead, $to))));
}

test('who speaks looks at whom they speak to, who looks back, and nobody else is drawn in', function (): void {
    $s = spokenWith();
    $end = (int) $s->lanes['o']->end();
    expect(gazesOf($s, 'o'))->toBe([['b', 20, $end + 4]])->and(gazesOf($s, 'b'))->toBe([['o', 20, $end + 4]])
        ->and(gazesOf($s, 'c'))->toBe([]);
    foreach ([40, 90, 140] as $f) {
        expect(eyesMiss($s, 'o', 'b', $f))->toBeLessThan(4.0)->and(eyesMiss($s, 'b', 'o', $f))->toBeLessThan(4.0);
    }
    // Before and after he looks where he stood to look.
    expect(eyesMiss($s, 'b', 'o', 0))->toBeGreaterThan(15.0);
});

test('heads keep most of what the motion does with them', function (): void {
    [$s, $plain] = [spokenWith(), spokenWith([], ['meets' => false])];
    $head = static fn (CompiledScene $of, int $f): array => SceneEvaluator::jointPlace(
        $of, 'b', $of->lanes['b']->figure->skeleton->roles['head'], $f,
    )->rotation;
    $turn = rad2deg(2 * acos(min(1.0, abs(array_sum(array_map(
        static fn (float $a, float $b): float => $a * $b, $head($s, 80), $head($plain, 80),
    ))))));
    // He stands 38 degrees off her: the head makes about half of it, the eyes the rest.
    expect($turn)->toBeBetween(8.0, 30.0);
});

test('what is said by hand comes first, and eyes that are not to meet do not', function (): void {
    $by = ['contacts' => [['id' => 'k', 'item' => 'o', 'effector' => 'look', 'offset' => [0.0, 1.0, 3.0], 'from' => 30, 'to' => 60]]];
    $s = spokenWith($by);
    expect(gazesOf($s, 'o'))->toBe([])->and(gazesOf($s, 'b'))->toHaveCount(1)
        ->and(gazesOf(spokenWith([], ['meets' => false]), 'b'))->toBe([]);
    // A note is made of what somebody asked for, not of this.
    expect(SceneEvaluator::at(spokenWith(), 60)->missing)->toBe([]);
});

test('with nobody before them people speak into the air', function (): void {
    $s = spokenWith(['items' => [Scenes::item('o', 'oda', 0.0, 0.0, 90.0), Scenes::item('b', 'bram', -1.4)]]);
    expect($s->holds)->toBe([]);
});
