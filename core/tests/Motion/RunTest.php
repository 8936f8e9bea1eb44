<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\Course;
use CrispReel\Core\Motion\Model\Gait;
use CrispReel\Core\Motion\Model\GaitStyle;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda's way of so many metres straight ahead in some manner. @param  list<array{float, GaitStyle}>  $changes */
function paced(GaitStyle $style, float $metres, array $changes = []): ClipTable
{
    $body = figure('oda')->body();
    $gait = Gait::along($body, $style, Course::through([[0.0, 0.0], [0.0, $metres]]), 0.0, null, 3, $changes);

    return MotionSampler::sampled($body, $gait->at(...), $gait->seconds, false, figure('oda')->morphs);
}

/** Height of the lower sole's joint over its rest, by frame of 60 a second. @return list<float> */
function lowest(ClipTable $t): array
{
    $out = [];
    $f = figure('oda');
    for ($k = 0, $n = (int) ($t->seconds() * 60); $k < $n; $k++) {
        $row = $t->at($k / 60);
        $out[] = min(array_map(
            static fn (string $r): float => $f->standing($row, $f->skeleton->roles[$r])[3] - $f->rest($r)[1],
            ['toesL', 'toesR'],
        ));
    }

    return $out;
}

/** Speed of the hips in the middle of a way, metres a second. */
function pace(ClipTable $t, float $from, float $to): float
{
    [$a, $b] = [null, null];
    for ($k = 0; $k < $t->seconds() * 60; $k++) {
        $z = $t->at($k / 60)[2];
        $a ??= $z >= $from ? $k / 60 : null;
        $b ??= $z >= $to ? $k / 60 : null;
    }

    return ($to - $from) / ($b - $a);
}

test('steps, cadence and time on the ground of a run are those of runners', function (float $speed): void {
    $s = new GaitStyle($speed);
    expect($s->run)->toBe(1.0)->and($s->step / $s->stepSeconds)->toEqualWithDelta($speed, 1e-9);
    // 160 to 195 steps a minute, each foot down for less than two fifths of the cycle.
    expect(60 / $s->stepSeconds)->toBeBetween(160.0, 195.0)->and($s->duty)->toBeBetween(0.18, 0.40);
    expect((new GaitStyle($speed))->lean)->toBeGreaterThan((new GaitStyle(1.3))->lean);
})->with([2.5, 3.0, 4.0, 5.0]);

test('up to a quick walk nothing has changed', function (): void {
    $s = new GaitStyle(1.3);
    expect($s->run)->toBe(0.0)->and($s->kick)->toBe(0.0)->and($s->step)->toEqualWithDelta(0.585, 1e-9)->and($s->stepSeconds)
        ->toEqualWithDelta(0.45, 1e-9);
});

test('a manner half way to another has half of each number', function (): void {
    [$a, $b] = [new GaitStyle(1.0, age: 0.0), new GaitStyle(1.6, age: 1.0)];
    $m = $a->mix($b, 0.5);
    foreach (['speed', 'step', 'duty', 'lean', 'armSwing', 'age'] as $n) {
        expect($m->$n)->toEqualWithDelta(($a->$n + $b->$n) / 2, 1e-9);
    }
    expect($m->stepSeconds)->toEqualWithDelta($m->step / $m->speed, 1e-12)->and($a->mix($b, 0.0))->toBe($a)->and($a->mix($b, 1.0))
        ->toBe($b);
});

test('one who runs leaves the ground, one who walks never does', function (): void {
    $run = array_filter(lowest(paced(new GaitStyle(3.0), 12.0)), static fn (float $h): bool => $h > 0.012);
    $walk = array_filter(lowest(paced(new GaitStyle(1.4), 6.0)), static fn (float $h): bool => $h > 0.012);
    expect(count($run))->toBeGreaterThan(25)->and(count($walk))->toBe(0);
});

test('a run keeps its pace, does not slide, sink or stretch, and stops on the mark', function (float $speed): void {
    $t = paced(new GaitStyle($speed), 12.0);
    expect(pace($t, 4.5, 7.5))->toEqualWithDelta($speed, 0.35);
    [$slip, $deep] = slip('oda', $t);
    expect($slip)->toBeLessThan(0.011)->and($deep)->toBeGreaterThan(-0.012);
    $end = $t->at($t->seconds());
    expect($end[2])->toEqualWithDelta(12.0, 0.05);
    // From one frame of 24 to the next the hips neither jump up nor down.
    for ($k = 1; $k < $t->seconds() * 24; $k++) {
        expect(abs($t->at($k / 24)[1] - $t->at(($k - 1) / 24)[1]))->toBeLessThan(0.06);
    }
})->with([2.6, 2.9]);

test('a walk that breaks into a run and falls back again', function (): void {
    $changes = [[3.0, new GaitStyle(2.8)], [9.0, new GaitStyle(0.9, age: 0.8)]];
    $t = paced(new GaitStyle(1.2), 13.0, $changes);
    expect(pace($t, 1.2, 2.4))->toEqualWithDelta(1.2, 0.25)->and(pace($t, 5.5, 8.0))->toEqualWithDelta(2.8, 0.4)->and(pace($t, 10.8, 12.2))
        ->toEqualWithDelta(0.9, 0.2);
    [$slip, $deep] = slip('oda', $t);
    expect($slip)->toBeLessThan(0.011)->and($deep)->toBeGreaterThan(-0.012);
    expect(array_filter(lowest($t), static fn (float $h): bool => $h > 0.012))->not->toBeEmpty();
    // Steps grow and shrink by degrees: no two that follow differ by more than two fifths.
    $falls = [];
    $f = figure('oda');
    for ($k = 1; $k < $t->seconds() * 60; $k++) {
        foreach (['toesL', 'toesR'] as $r) {
            $h = static fn (int $i): float => $f->standing($t->at($i / 60), $f->skeleton->roles[$r])[3] - $f->rest($r)[1];
            if ($h($k) < 0.008 && $h($k - 1) >= 0.008) {
                $falls[] = $f->standing($t->at($k / 60), $f->skeleton->roles[$r])[1];
            }
        }
    }
    expect(count($falls))->toBeGreaterThan(12);
});

test('changes of a path belong to its places, in order', function (array $changes, string $said): void {
    expect(fn () => Scenes::compile([
        'items' => [Scenes::item('o', 'oda')],
        'beats' => [Scenes::beat('w', 'o', 'walk', 0, ['path' => ['points' => [[0, 2], [0, 4]], 'changes' => $changes]])],
    ]))->toThrow(UnableToReadDocument::class, $said);
})->with([
    'a place that is not there' => [[['after' => 3, 'style' => []]], 'changes'],
    'twice' => [[['after' => 1, 'style' => []], ['after' => 1, 'style' => []]], 'order of the places'],
    'too quick' => [[['after' => 1, 'style' => ['speed' => 50]]], 'speed'],
]);

test('a drawn walk changes where its place is, and arrives when it is asked to', function (): void {
    $walk = static fn (array $path): CompiledScene => Scenes::compile([
        'items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('w', 'o', 'walk', 0, ['path' => $path])],
    ]);
    $plain = $walk(['points' => [[0.0, 3.0], [0.0, 9.0]]]);
    $quick = $walk(['points' => [[0.0, 3.0], [0.0, 9.0]], 'changes' => [['after' => 1, 'style' => ['speed' => 2.6]]]]);
    $z = static fn (CompiledScene $s, float $f): float => SceneEvaluator::jointPlace(
        $s,
        'o',
        $s->lanes['o']->figure->hips,
        $f,
    )->position[2];
    expect($quick->lanes['o']->end())->toBeLessThan(0.85 * $plain->lanes['o']->end());
    expect($z($quick, 40))->toEqualWithDelta($z($plain, 40), 0.15)->and($z($quick, 110) - $z($plain, 110))->toBeGreaterThan(0.8);
    $timed = $walk(['points' => [[0.0, 3.0], [0.0, 9.0]], 'changes' => [['after' => 1, 'style' => ['speed' => 2.0]]], 'arrive' => 150]);
    expect($timed->lanes['o']->end())->toEqualWithDelta(150.0, 0.6)->and($z($timed, 150))->toEqualWithDelta(9.0, 0.1);
});

/** Pace of the hips from frame to frame of 24, metres a second. @return list<float> */
function paces(ClipTable $t): array
{
    $out = [];
    for ($k = 1; $k <= $t->seconds() * 24; $k++) {
        [$a, $b] = [$t->at(($k - 1) / 24), $t->at($k / 24)];
        $out[] = hypot($b[0] - $a[0], $b[2] - $a[2]) * 24;
    }

    return $out;
}

test('who sets off gathers speed without dragging along, and who stops does not hurry once more', function (
    float $speed, float $metres, int $within, float $dip,
): void {
    $t = paced(new GaitStyle($speed), $metres);
    $paces = paces($t);
    $peak = max($paces);
    $moving = array_values(array_filter(array_keys($paces), static fn (int $k): bool => $paces[$k] > 0.12 * $peak));
    $quick = array_values(array_filter(array_keys($paces), static fn (int $k): bool => $paces[$k] > 0.85 * $peak));
    expect($quick[0] - $moving[0])->toBeLessThanOrEqual($within);
    // No plateau: nine frames on it is always faster by a twentieth of the pace, until it is nearly there.
    for ($k = $moving[0]; $paces[$k + 9] < 0.7 * $peak; $k++) {
        expect($paces[$k + 9] - $paces[$k])->toBeGreaterThan(0.05 * $peak, "at {$k}");
    }
    // Slower and slower from the last full pace on: no more than the sway of a step.
    $least = INF;
    for ($k = $quick[count($quick) - 1]; $k < count($paces); $k++) {
        $least = min($least, $paces[$k]);
        expect($paces[$k] - $least)->toBeLessThan(0.32, "at {$k}");
    }
    $heights = array_map(static fn (int $i): float => $t->row($i)[1], range(0, $t->count - 1));
    expect($heights[0] - min($heights))->toBeLessThan($dip * figure('oda')->body()->scale);
})->with([
    'a walk of 3 m' => [1.2, 3.0, 22, 0.05], 'a quick walk' => [1.75, 4.0, 20, 0.06], 'a run of 4 m' => [2.8, 4.0, 14, 0.085],
    'a run of 8 m' => [2.8, 8.0, 14, 0.085],
]);
