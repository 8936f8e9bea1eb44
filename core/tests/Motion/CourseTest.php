<?php

declare(strict_types=1);

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\Course;
use CrispReel\Core\Motion\Model\Gait;
use CrispReel\Core\Motion\Model\GaitStyle;
use CrispReel\Core\Motion\Model\MotionSampler;

/** A walk along a course, sampled. */
function walked(Course $course, float $facing = 0.0, ?float $face = null, float $speed = 1.2): ClipTable
{
    $gait = Gait::along(figure('oda')->body(), GaitStyle::fromArray(['speed' => $speed]), $course, $facing, $face);

    return MotionSampler::sampled(figure('oda')->body(), $gait->at(...), $gait->seconds, false, []);
}

/**
 * Sole vertices that touch the ground: farthest slide of one that stays, deepest sinking, and whether some sole
 * touches at each moment.
 *
 * @param  Closure(float, float): float  $ground
 * @return array{float, float, int}
 */
function touching(ClipTable $t, Closure $ground): array
{
    $base = [];
    $worst = $deep = 0.0;
    $afloat = 0;
    for ($s = 0.0; $s <= $t->seconds(); $s += 1 / 48) {
        $low = INF;
        foreach (drawnSoles('oda', $t->at($s)) as $i => $v) {
            $above = $v[1] - $ground($v[0], $v[2]);
            $low = min($low, $above);
            $deep = min($deep, $above);
            if ($above >= 0.003) {
                unset($base[$i]);
            } elseif (isset($base[$i])) {
                $worst = max($worst, hypot($v[0] - $base[$i][0], $v[2] - $base[$i][2]));
            } else {
                $base[$i] = $v;
            }
        }
        $afloat += $low > 0.012 ? 1 : 0;
    }

    return [$worst, $deep, $afloat];
}

$flat = static fn (float $x, float $z): float => 0.0;

test('the course passes through its points and goes straight on past its ends', function (): void {
    $c = Course::through([[0, 0], [0, 2], [2, 4]]);
    expect(array_slice($c->at(0.0), 0, 2))->toBe([0.0, 0.0])
        ->and(abs($c->at(0.0)[2]))->toBeLessThan(0.05)
        ->and($c->at($c->length())[0])->toEqualWithDelta(2.0, 1e-9)
        ->and($c->at($c->length())[1])->toEqualWithDelta(4.0, 1e-9)
        ->and($c->length())->toBeGreaterThan(2 + sqrt(8))
        ->and(Course::straight()->at(3.5))->toBe([0.0, 3.5, 0.0]);
});

test('on a straight path no foot slides more than 1 cm, and the walk ends on the last point', function () use ($flat): void {
    $t = walked(Course::through([[0, 0], [0, 4]]));
    [$slip, $deep, $afloat] = touching($t, $flat);
    $end = $t->at($t->seconds());
    expect($slip)->toBeLessThan(0.010)->and($deep)->toBeGreaterThan(-0.004)->and($afloat)->toBe(0)
        ->and($end[$t->width - 2] / figure('oda')->body()->scale)->toEqualWithDelta(4.0, 0.01);
});

test('on a curve of 2 m radius no foot slides more than 2 cm', function () use ($flat): void {
    $points = array_map(static fn (int $k): array => [2 - 2 * cos($k * 0.3), 2 * sin($k * 0.3)], range(0, 8));
    [$slip, $deep, $afloat] = touching(walked(Course::through($points)), $flat);
    expect($slip)->toBeLessThan(0.020)->and($deep)->toBeGreaterThan(-0.006)->and($afloat)->toBe(0);
});

test('a stand that faces away turns on the spot first, without a slide', function () use ($flat): void {
    $t = walked(Course::through([[0, 0], [0, -3]]), 0.0, M_PI / 2);
    [$slip, $deep] = touching($t, $flat);
    $feet = static fn (float $s): array => array_map(
        static fn (string $r): float => figure('oda')->standing($t->at($s), figure('oda')->skeleton->roles[$r])[2],
        ['footL', 'footR'],
    );
    [$l, $r] = $feet($t->seconds());
    $stand = atan2(sin($l) + sin($r), cos($l) + cos($r));
    expect($slip)->toBeLessThan(0.020)->and($deep)->toBeGreaterThan(-0.006)->and($stand)->toEqualWithDelta(M_PI / 2, 0.03);
});

test('feet stand on steps and ramps, up and down', function (Closure $ground, float $edge): void {
    $under = static fn (float $x, float $z, float $ceiling): ?float => $ground($x, $z) <= $ceiling ? $ground($x, $z) : 0.0;
    // Soles are drawn at the figure's size: the ground is asked in the model's metres.
    $k = figure('oda')->body()->scale;
    $drawn = static fn (float $x, float $z): float => $ground($x / $k, $z / $k) * $k;
    $t = walked(Course::through([[0, 0], [0, 5]], $under), speed: 1.0);
    [$slip, $deep, $afloat] = touching($t, $drawn);
    expect($slip)->toBeLessThan(0.020)->and($deep)->toBeGreaterThan(-$edge)->and($afloat)->toBe(0);
    // It did go up: the hips follow the ground.
    $most = max(array_map(static fn (int $i): float => $t->row($i)[1], range(0, $t->count - 1)));
    expect($most - $t->row(0)[1])->toBeGreaterThan(0.25);
})->with([
    // A toe brushes the face of a step by 4 mm, for less than a frame.
    'two steps of 18 cm' => [static fn (float $x, float $z): float => $z < 1.9 ? 0.0 : ($z < 2.9 ? 0.18 : 0.36), 0.03],
    'a ramp of 12 degrees' => [static fn (float $x, float $z): float => max(0.0, min(2.0, $z - 1.5)) * tan(deg2rad(12)), 0.02],
    'up a crate of 30 cm and down again' => [static fn (float $x, float $z): float => $z > 2.0 && $z < 3.2 ? 0.30 : 0.0, 0.06],
    // A toe passes the face of the crate by 5 mm, for less than a frame.
]);

test('a rise over the step height is told with its place', function (): void {
    $c = Course::through(
        [[0, 0], [0, 3]],
        static fn (float $x, float $z, float $ceiling): ?float => $z > 2.0 && $ceiling > 0.8 ? 0.8 : 0.0,
    );
    expect($c->tooHigh)->toHaveCount(1)->and($c->tooHigh[0][0])->toEqualWithDelta(2.0, 0.06)->and($c->tooHigh[0][1])
        ->toEqualWithDelta(0.8, 1e-9)
        ->and($c->under(2.9))->toBe(0.0);
});

test('slower walks take longer, and the time told is the time taken', function (): void {
    $c = Course::through([[0, 0], [1, 3], [3, 4]]);
    $takes = static fn (float $v): float => Gait::secondsAlong(figure('oda')->body(), GaitStyle::fromArray(['speed' => $v]), $c, 0.0, null);
    expect($takes(0.6))->toBeGreaterThan($takes(1.0))->and($takes(1.0))->toBeGreaterThan($takes(1.6))
        ->and(walked($c, speed: 1.0)->seconds())->toEqualWithDelta($takes(1.0), 1e-5);
});

test('nothing snaps on a winding path', function (): void {
    $t = walked(Course::through([[0, 0], [1, 1], [0, 2], [-1.5, 2.5], [-1, 4]]), 0.4);
    for ($i = 1; $i < $t->count; $i++) {
        for ($j = 0; $j < $t->joints; $j++) {
            expect(rad2deg(Q4::angleBetween(ClipTable::rotation($t->row($i), $j), ClipTable::rotation($t->row($i - 1), $j))))
                ->toBeLessThan(20.0);
        }
    }
});

test('a stand turns to its way in so many frames, eyes and shoulders before the hips', function (float $degrees, int $most): void {
    $gait = Gait::along(
        figure('oda')->body(),
        GaitStyle::fromArray(['speed' => 1.2]),
        Course::through([[0, 0], [0, 3]]),
        deg2rad($degrees),
        null,
        3,
        [],
    );
    $done = ['hips' => 0, 'shoulders' => 0, 'eyes' => 0];
    for ($f = 0; $f < 60; $f++) {
        $c = $gait->at($f / 24);
        foreach (['hips' => 0.0, 'shoulders' => $c->thorax[1], 'eyes' => $c->head[1] + $c->eyes[0]] as $part => $more) {
            // Half of the way is when the part leads most.
            if (abs(rad2deg(Angle::wrapped($c->heading + $more))) > abs($degrees) / 2) {
                $done[$part] = $f;
            }
        }
    }
    $turned = max(array_filter(range(0, 60), static fn (int $f): bool => abs(rad2deg($gait->at($f / 24)->heading)) > 0.1 * abs($degrees)));
    expect($turned)->toBeLessThanOrEqual($most)->and($done['eyes'])->toBeLessThan($done['shoulders'] + 1)
        ->and($done['shoulders'])->toBeLessThan($done['hips'] + 1)->and($done['hips'] - $done['eyes'])->toBeGreaterThanOrEqual(3);
})->with([[90.0, 18], [180.0, 30], [-90.0, 18]]);
