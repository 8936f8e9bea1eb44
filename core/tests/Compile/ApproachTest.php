<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Nearby;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Tests\Support\Scenes;

/** Bram gives from a frame on, Oda stands somewhere and takes. */
function comes(int $start, float $x, float $z, float $heading): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('b', 'bram'), Scenes::item('o', 'oda', $x, $z, $heading)],
        'beats' => [Scenes::beat('g', 'b', 'handOver', $start), Scenes::beat('r', 'o', 'receive', $start, ['play' => ['with' => 'g']])],
    ]);
}

/** Metres that a foot slips between two frames while it is down. */
function slipping(CompiledScene $s, string $who, int $f): float
{
    $worst = 0.0;
    foreach (['footL', 'footR'] as $role) {
        $j = $s->lanes[$who]->figure->skeleton->roles[$role];
        [$a, $b] = [SceneEvaluator::jointPlace($s, $who, $j, $f)->position, SceneEvaluator::jointPlace($s, $who, $j, $f + 1)->position];
        $down = max($a[1], $b[1]) < $s->lanes[$who]->figure->rest($role)[1] + 0.008;
        $worst = max($worst, $down ? hypot($b[0] - $a[0], $b[2] - $a[2]) : 0.0);
    }

    return $worst;
}

test('who stands near steps over before it begins, and stands before that where they were put', function (): void {
    $s = comes(60, 0.2, 1.15, 165.0);
    expect($s->notes)->toBe([]);
    [$x, $z, $heading] = Nearby::stands($s, 'o', 20);
    expect(hypot($x - 0.2, $z - 1.15))->toBeLessThan(0.05)->and(abs(rad2deg(Angle::wrapped($heading - deg2rad(165)))))->toBeLessThan(4.0);
    // The segment before the motion is the step.
    [$step, $motion] = $s->lanes['o']->segments;
    expect($step->beat)->toBe('r~')->and($step->end)->toEqualWithDelta(60.0, 0.01)->and($motion->start)->toBe(60.0);
    for ($f = (int) $step->start; $f < 60; $f++) {
        expect(slipping($s, 'o', $f))->toBeLessThan(0.012, "slips at {$f}");
    }
    // Each foot leaves the ground once.
    $lifted = static fn (string $role): float => max(array_map(
        static fn (int $f): float => SceneEvaluator::jointPlace($s, 'o', $s->lanes['o']->figure->skeleton->roles[$role], $f)->position[1],
        range((int) $step->start, 60),
    )) - $s->lanes['o']->figure->rest($role)[1];
    expect($lifted('footL'))->toBeGreaterThan(0.02)->and($lifted('footR'))->toBeGreaterThan(0.02);
});

test('who stands farther away walks there, and arrives turned to the other', function (): void {
    $s = comes(110, 1.6, 2.4, 0.0);
    expect($s->notes)->toBe([]);
    [$x, $z] = Nearby::stands($s, 'o', 5);
    expect(hypot($x - 1.6, $z - 2.4))->toBeLessThan(0.05);
    [$x, $z, $heading] = Nearby::stands($s, 'o', 110);
    expect(abs($x))->toBeLessThan(0.1)->and($z)->toBeGreaterThan(0.6)->and(cos($heading))->toBeLessThan(-0.97);
    for ($f = 30; $f < 109; $f++) {
        expect(slipping($s, 'o', $f))->toBeLessThan(0.03, "slips at {$f}");
    }
});

test('what there is no time for is told, with what would be enough', function (): void {
    $s = comes(12, 3.0, 4.0, 0.0);
    expect($s->notes)->toHaveCount(1)->and($s->notes[0]->code)->toBe('pair.far')->and($s->notes[0]->remedy)->toContain('frames later')
        ->and($s->notes[0]->figures[0]->value)->toBeGreaterThan(3.0);
});

test('nearest is who stands before somebody, not who is a little nearer behind', function (): void {
    $s = Scenes::compile(['items' => [
        Scenes::item('b', 'bram'), Scenes::item('o', 'oda', 0.0, 1.5, 180.0), Scenes::item('p', 'oda', 0.0, -1.0, 0.0),
        Scenes::item('q', 'oda', 0.0, 40.0),
    ]]);
    expect(Nearby::to($s, 'b', 0))->toBe('o')->and(Nearby::to($s, 'q', 0))->toBeNull();
});
