<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Stance;
use CrispReel\Core\Tests\Support\Scenes;

/** A stair of boxes from z = 1.2 on, up or down, with a landing. @return list<array<string, mixed>> */
function stair(float $riser, float $tread, int $steps, bool $down): array
{
    $whole = $steps * $riser;
    $out = [];
    foreach ($down ? range(1, $steps - 1) : range(0, $steps - 1) as $k) {
        [$aside, $top] = $down ? [-0.5, $whole - $k * $riser] : [0.5, ($k + 1) * $riser];
        $out[] = Scenes::item("S{$k}", 'box', 0.0, 1.2 + $k * $tread + $aside, 0.0, $top - 1.0);
    }
    $landing = $down ? 1.7 : 1.7 + ($steps - 1) * $tread;
    foreach ([1.0, 2.0, 3.0] as $j => $far) {
        $out[] = Scenes::item("T{$j}", 'box', 0.0, $down ? $landing - $far : $landing + $far, 0.0, $whole - 1.0);
    }

    return $out;
}

/** Height of that stair. */
function stairAt(float $riser, float $tread, int $steps, bool $down, float $z): float
{
    $n = $z < 1.2 ? 0 : min($steps, (int) floor(($z - 1.2) / $tread) + 1);

    return $riser * ($down ? $steps - $n : $n);
}

/**
 * What a walk does with its feet on drawn soles.
 *
 * @param  callable(float): float  $ground  by z
 * @return array{gap: float, deep: float, knee: float, hips: float, treads: array<string, list<float>>, speed: float, lean: float} metres,
 *   degrees and metres a frame; heights that each side stood on; metres a second and radians of the trunk in the middle
 */
function overIt(CompiledScene $s, callable $ground): array
{
    $figure = $s->lanes['o']->figure;
    $roles = $figure->skeleton->roles;
    $segments = $s->lanes['o']->segments;
    $end = (int) $segments[count($segments) - 1]->end;
    $out = ['gap' => 0.0, 'deep' => 0.0, 'knee' => 0.0, 'hips' => 0.0, 'treads' => ['L' => [], 'R' => []]];
    $base = $s->document->items['o']->position[1];
    $before = [];
    $hips = null;
    for ($f = 0; $f <= $end; $f++) {
        $row = SceneEvaluator::row($s, 'o', $f);
        [$p] = $figure->skeleton->world(array_slice($row, 3, 4 * $figure->skeleton->count()), [$row[0], $row[1], $row[2]], $figure->hips);
        $at = static fn (string $role): array => Stance::at($p, $roles[$role]);
        $out['hips'] = $hips === null ? 0.0 : max($out['hips'], abs($row[1] - $hips));
        $hips = $row[1];
        $low = ['L' => INF, 'R' => INF];
        foreach (drawnSoles('oda', $row) as $i => $v) {
            $side = soles('oda')[$i][0][0] > 0.0 ? 'L' : 'R';
            $low[$side] = min($low[$side], $v[1] + $base - $ground($v[2]));
        }
        foreach (['L', 'R'] as $side) {
            $bend = rad2deg(acos(max(-1.0, min(1.0, V3::dot(
                V3::unit(
                    V3::sub($at('lowerLeg'.$side), $at('upperLeg'.$side)),
                ), V3::unit(V3::sub($at('foot'.$side), $at('lowerLeg'.$side))),
            )))));
            [$was, $foot] = $before[$side] ?? [$bend, $at('foot'.$side)];
            $out['knee'] = max($out['knee'], abs($bend - $was));
            $speed = V3::distance($at('foot'.$side), $foot) * 24;
            if ($speed < 0.1 && $f > 0) {
                $out['gap'] = max($out['gap'], $low[$side]);
                $out['deep'] = min($out['deep'], $low[$side]);
                $stood = round($ground($at('foot'.$side)[2] + 0.04), 3);
                $last = $out['treads'][$side][count($out['treads'][$side]) - 1] ?? null;
                $out['treads'][$side] = $stood === $last ? $out['treads'][$side] : [...$out['treads'][$side], $stood];
            }
            $before[$side] = [$bend, $at('foot'.$side)];
        }
    }
    $middle = intdiv($end, 2);
    [$a, $b] = [SceneEvaluator::row($s, 'o', $middle - 12), SceneEvaluator::row($s, 'o', $middle + 12)];
    $trunk = V3::sub(
        SceneEvaluator::jointPlace(
            $s, 'o', $roles['neck'], $middle,
        )->position, SceneEvaluator::jointPlace($s, 'o', $roles['spine'], $middle)->position,
    );

    return $out + ['speed' => hypot($b[0] - $a[0], $b[2] - $a[2]), 'lean' => atan2($trunk[2], $trunk[1])];
}

test('a stair is walked one step at a time: soles on the treads, knees and hips without jerks', function (
    float $riser, float $tread, bool $down
): void {
    $n = 8;
    $ground = static fn (float $z): float => stairAt($riser, $tread, $n, $down, $z);
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 0.0, $down ? $n * $riser : 0.0), ...stair($riser, $tread, $n, $down)],
        'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['path' => ['points' => [[0.0, 2.7 + $n * $tread]]]])],
    ]);
    $w = overIt($s, $ground);
    expect($w['gap'])->toBeLessThan(0.01)->and($w['deep'])->toBeGreaterThan(-0.01)->and($w['knee'])->toBeLessThan(
        $riser > 0.2 ? 29.0 : 24.0,
    )
        ->and($w['hips'])->toBeLessThan($riser > 0.2 ? 0.052 : 0.035);
    // Each foot stands on every other step: together on all of them.
    $stood = [];
    foreach ($w['treads'] as $side) {
        $stood = [...$stood, ...$side];
    }
    for ($k = 0; $k <= $n; $k++) {
        expect($stood)->toContain(round($k * $riser, 3));
    }
    foreach ($w['treads'] as $side) {
        for ($k = 1; $k < count($side); $k++) {
            expect(abs($side[$k] - $side[$k - 1]))->toBeLessThan(2.1 * $riser);
        }
    }
})->with([
    [0.10, 0.32, false], [0.10, 0.32, true], [0.15, 0.30, false], [0.15, 0.30, true],
    [0.18, 0.28, false], [0.18, 0.28, true], [0.22, 0.28, false], [0.22, 0.28, true],
]);

test('on a slope soles lie on it, steps are slower, and the body leans into it, drawn way or not', function (?array $path): void {
    $by = [];
    foreach ([0, 10, 20, 30] as $degrees) {
        $top = 6.0 * tan(deg2rad((float) $degrees));
        $ground = static fn (float $z): float => $z < 1.0 ? 0.0 : min($top, ($z - 1.0) * tan(deg2rad((float) $degrees)));
        $items = $degrees === 0 ? [] : [['kind' => 'set'] + Scenes::item('W', "slope{$degrees}", 0.0, 1.0)];
        $by[$degrees] = overIt(Scenes::compile([
            'items' => [Scenes::item('o', 'oda'), ...$items],
            'beats' => [Scenes::beat('b', 'o', 'walk', 0, $path === null ? ['loops' => 2] : ['path' => $path])],
        ]), $ground);
    }
    foreach ([10, 20] as $degrees) {
        expect($by[$degrees]['gap'])->toBeLessThan(0.01)->and($by[$degrees]['deep'])->toBeGreaterThan(-0.01)
            ->and($by[$degrees]['knee'])->toBeLessThan(21.0)->and($by[$degrees]['hips'])->toBeLessThan(0.03);
    }
    expect($by[10]['speed'])->toBeLessThan(0.8 * $by[0]['speed'])->and($by[20]['speed'])->toBeLessThan(0.8 * $by[10]['speed'])
        ->and($by[30]['speed'])->toBeLessThan(0.8 * $by[20]['speed'])->and($by[10]['lean'])->toBeGreaterThan($by[0]['lean'] + 0.02)
        ->and($by[20]['lean'])->toBeGreaterThan($by[10]['lean'] + 0.02);
})->with(['a drawn way' => [['points' => [[0.0, 8.0]]]], 'none' => [null]]);

test('a walk that nobody drew a way for keeps its place and its time on a stair', function (): void {
    $stair = stair(0.15, 0.30, 8, false);
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), ...$stair],
        'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['loops' => 3]), Scenes::beat('t', 'o', 'talk', 210)],
    ]);
    $flat = Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['loops' => 3])]]);
    $w = overIt($s, static fn (float $z): float => stairAt(0.15, 0.30, 8, false, $z));
    expect($s->lanes['o']->segments[0]->end)->toEqualWithDelta($flat->lanes['o']->segments[0]->end, 1.0)
        ->and($w['gap'])->toBeLessThan(0.02)->and($w['deep'])->toBeGreaterThan(-0.01)->and($w['knee'])->toBeLessThan(25.0);
    // Who has nothing under the feet but the floor walks as ever.
    expect(SceneEvaluator::row($flat, 'o', 60))->toBe(SceneEvaluator::row(Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('Far', 'box', 30.0, 30.0)],
        'beats' => [Scenes::beat('b', 'o', 'walk', 0, ['loops' => 3])],
    ]), 'o', 60));
});
