<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/** One carries the other along a way of four metres with a bend. */
function borne(string $bearer, string $other): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('a', $bearer), Scenes::item('b', $other, 0.8, 0.6, -120.0)],
        'beats' => [
            Scenes::beat('w', 'a', 'carrySomebody', 60, ['path' => ['points' => [[0.0, 2.0], [1.5, 3.5]]]]),
            Scenes::beat('c', 'b', 'beCarried', 60, ['play' => ['with' => 'w', 'keepLooping' => true]]),
        ],
    ]);
}

/** A role's joint, seen from the hips of the one who carries. @return array{float, float, float} */
function onArms(CompiledScene $s, string $item, string $role, float $frame): array
{
    $joint = static fn (string $i, string $r): array => SceneEvaluator::jointPlace(
        $s, $i, $s->lanes[$i]->figure->skeleton->roles[$r], $frame,
    )->position;

    return V3::sub($joint($item, $role), $joint('a', 'hips'));
}

test('who is carried lies on the arms, whatever the two are like, and goes along without a slip', function (
    string $bearer, string $other
): void {
    $s = borne($bearer, $other);
    $unit = $s->lanes['a']->figure->body()->scale;
    $before = null;
    for ($f = 78; $f < $s->frames; $f += 3) {
        $hips = onArms($s, 'b', 'hips', $f);
        expect($hips[1])->toBeBetween(0.10 * $unit, 0.28 * $unit)->and(hypot($hips[0], $hips[2]))->toBeBetween(0.2 * $unit, 0.45 * $unit);
        // A hand is below the knees and one below the shoulders: nearer to the body than a hand is wide.
        foreach (['handL', 'handR'] as $hand) {
            $at = onArms($s, 'a', $hand, $f);
            $near = min(array_map(
                static fn (string $r): float => V3::distance($at, onArms($s, 'b', $r, $f)),
                ['spine', 'chest', 'upperChest', 'upperLegL', 'upperLegR', 'lowerLegL', 'lowerLegR', 'hips'],
            ));
            expect($near)->toBeLessThan(0.28 * $unit, "{$hand} at {$f}");
        }
        // The feet hang, and touch nothing.
        expect(onArms($s, 'b', 'footL', $f)[1])->toBeGreaterThan(-0.45 * $unit);
        if ($before !== null) {
            expect(abs(V3::length($hips) - V3::length($before)))->toBeLessThan(0.02);
        }
        $before = $hips;
    }
})->with([['bram', 'oda'], ['oda', 'pim-alder'], ['bram', 'pim-alder']]);

test('who is to be carried comes there first, and is not on anybody\'s arms without a bearer', function (): void {
    $s = borne('bram', 'oda');
    expect($s->lanes['b']->segments[0]->isBetween())->toBeTrue();
    for ($f = 1; $f < 60; $f++) {
        expect(V3::distance(
            SceneEvaluator::jointPlace($s, 'b', $s->lanes['b']->figure->hips, $f)->position,
            SceneEvaluator::jointPlace($s, 'b', $s->lanes['b']->figure->hips, $f - 1)->position,
        ))->toBeLessThan(0.09, "at {$f}");
    }
    $alone = Scenes::compile(['items' => [Scenes::item('b', 'oda')], 'beats' => [Scenes::beat('c', 'b', 'beCarried', 0)]]);
    expect(SceneEvaluator::jointPlace($alone, 'b', $alone->lanes['b']->figure->hips, 20)->position[1])->toBeLessThan(0.4);
});
