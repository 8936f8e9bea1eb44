<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Motion\Scores\Stances;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda sits from frame 0 to 96, then does something. @param  array<string, mixed>  $more */
function afterSitting(string $motion, int $start = 96, array $more = [], string $before = 'sitIdle'): CompiledScene
{
    $usual = Scenes::data([])['assets'];
    $known = array_map(static fn (string $id): string => substr($id, 2), array_column($usual, 'id'));

    return Scenes::compile([
        'assets' => [
            ...$usual,
            ...array_map(static fn (string $m): array => [
                'id' => "m-{$m}", 'kind' => 'motion', 'name' => $m, 'blob' => hash('sha256', $m), 'digest' => hash('sha256', "{$m} digest"),
            ], array_values(array_diff(array_unique([$motion, $before]), $known))),
        ],
        'items' => [Scenes::item('o', 'oda')],
        'beats' => [Scenes::beat('s', 'o', $before, 0, ['sourceOut' => 4.0]), Scenes::beat('m', 'o', $motion, $start, $more)],
    ]);
}

function hipsAt(CompiledScene $s, float $f): float
{
    return SceneEvaluator::jointPlace($s, 'o', $s->lanes['o']->figure->hips, $f)->position[1];
}

test('who sits points seated: hips and legs stay, the arm is the motion\'s', function (): void {
    $s = afterSitting('point');
    expect($s->notes)->toBe([])->and($s->lanes['o']->segments)->toHaveCount(2);
    $roles = $s->lanes['o']->figure->skeleton->roles;
    $most = 0.0;
    for ($f = 97; $f < 150; $f += 4) {
        expect(hipsAt($s, $f))->toEqualWithDelta(hipsAt($s, 90), 0.012);
        $most = max($most, SceneEvaluator::jointPlace($s, 'o', $roles['handR'], $f)->position[1]);
    }
    expect($most)->toBeGreaterThan(SceneEvaluator::jointPlace($s, 'o', $roles['handR'], 80)->position[1] + 0.2);
});

test('who sits rises before a walk, in the last frames of sitting', function (): void {
    $s = afterSitting('walkToMark');
    $standing = hipsAt(Scenes::compile(['items' => [Scenes::item('o', 'oda')]]), 0);
    expect($s->lanes['o']->segments)->toHaveCount(3)->and($s->lanes['o']->segments[1]->end)->toEqualWithDelta(96.0, 1.0)
        ->and(hipsAt($s, 10))->toBeLessThan(0.62)->and(hipsAt($s, 97))->toEqualWithDelta($standing, 0.06)->and($s->notes)->toBe([]);
    // The hips rise steadily, never by a jump.
    for ($f = 20; $f < 110; $f++) {
        expect(abs(hipsAt($s, $f + 1) - hipsAt($s, $f)))->toBeLessThan(0.06, "hips jump at {$f}");
    }
});

test('after a way there is time or there is none: nothing is laid over a walk', function (): void {
    $scene = static fn (int $sits): CompiledScene => Scenes::compile([
        'items' => [Scenes::item('o', 'oda')],
        'beats' => [
            Scenes::beat('w', 'o', 'walk', 0, ['path' => ['points' => [[0.0, 2.0]]]]), Scenes::beat('m', 'o', 'sitIdle', $sits),
        ],
    ]);
    $walk = (int) ceil($scene(400)->lanes['o']->segments[0]->end);
    // The second half of a walk that was split follows at once, and needs nothing.
    $split = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [
        Scenes::beat('w', 'o', 'walk', 0, ['path' => ['points' => [[0.0, 2.0]]]]), Scenes::beat('v', 'o', 'walk', $walk),
    ]]);
    expect($split->lanes['o']->segments)->toHaveCount(2);
    $names = static fn (int $sits): array => array_map(static fn ($g): string => $g->beat, $scene($sits)->lanes['o']->segments);
    expect($names($walk))->toBe(['w', 'm'])->and($names($walk + 90))->toBe(['w', 'm~0', 'm']);
});

test('from lying to sitting leads over standing', function (): void {
    $s = afterSitting('sitIdle', 260, [], 'lieIdle');
    $scores = array_map(static fn ($g): string => $g->beat, $s->lanes['o']->segments);
    expect($scores)->toBe(['s', 'm~0', 'm~1', 'm']);
    expect(max(array_map(static fn (int $f): float => hipsAt($s, $f), range(150, 259))))->toBeGreaterThan(0.75)
        ->and(hipsAt($s, 262))->toBeLessThan(0.62);
});

test('it is left out where it is not wanted, where there is no time, and where nothing changes', function (): void {
    expect(afterSitting('walkToMark', 96, ['play' => ['stance' => 'own']])->lanes['o']->segments)->toHaveCount(2)
        ->and(afterSitting('walkToMark', 14)->lanes['o']->segments)->toHaveCount(2)
        ->and(afterSitting('walkToMark', 96, [], 'point')->lanes['o']->segments)->toHaveCount(2);
});

test('the table of stances fits the motions that lead from one to another', function (): void {
    expect(Stances::between('sit', 'stand'))->toBe(['standUp'])->and(Stances::between('lie', 'sit'))->toBe(['getUp', 'sitDown'])
        ->and(Stances::between('stand', 'kneel'))->toBe(['kneel'])->and(Stances::between('', 'sit'))->toBe([])
        ->and(Stances::between('sit', 'sit'))->toBe([])->and(Stances::between('crouch', 'lie'))->toBe(['crouchUp', 'lieDown']);
});
