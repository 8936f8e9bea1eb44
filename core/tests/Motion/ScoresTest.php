<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Kit\Motions\MotionKit;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Motion\Model\ScoreBook;
use CrispReel\Core\Rig\Figure;

/** Two people of different build, made once. */
function actor(string $who): Figure
{
    static $made = [];

    return $made[$who] ??= new Figure(
        $who,
        AssetDigest::of(GltfReader::read(FigureMaker::glb($who === 'oda' ? FigureSpec::oda() : FigureSpec::bram()))),
    );
}

dataset(
    'scores',
    array_combine(array_keys(ScoreBook::all()), array_map(static fn (string $n): array => [$n], array_keys(ScoreBook::all()))),
);

test('a score can be played: finite, no joint jumps, feet are where they were put, loops close', function (string $score): void {
    foreach (['oda', 'bram'] as $who) {
        $figure = actor($who);
        $sheet = ScoreBook::sheet($score);
        [$model, $seconds, $loops] = MotionSampler::model($figure->body(), new MotionRecipe('act', ['score' => $score, 'seed' => 4]));
        $table = MotionSampler::sampled($figure->body(), $model, $seconds, $loops, $figure->morphs, 30.0);
        $joints = $figure->skeleton->count();
        $before = null;
        $reach = 0.0;
        $finite = true;
        $fastest = [0.0, ''];
        for ($f = 0; $f <= (int) floor($seconds * 30); $f++) {
            $row = $table->at(min($seconds, $f / 30));
            $finite = $finite && is_finite(array_sum($row));
            for ($j = 0; $before !== null && $j < $joints; $j++) {
                $a = Q4::angleBetween(array_slice($before, 3 + 4 * $j, 4), array_slice($row, 3 + 4 * $j, 4));
                $fastest = $a > $fastest[0] ? [$a, "{$score}, {$who}, {$figure->skeleton->names[$j]} at frame {$f}"] : $fastest;
            }
            $before = $row;
            // The legs reach what they are asked to.
            $c = $model(min($seconds, $f / 30));
            [$p] = $figure->skeleton->world(array_slice($row, 3, 4 * $joints), [$row[0], $row[1], $row[2]], $figure->hips);
            foreach (['L', 'R'] as $s) {
                $foot = $figure->skeleton->roles["foot{$s}"];
                for ($k = 0; $k < 3; $k++) {
                    $reach = max($reach, abs($p[3 * $foot + $k] - $c->foot[$s]->ankle[$k] * $figure->body()->scale));
                }
            }
        }
        // A quick gesture turns a joint by some thousand degrees a second at most.
        expect($finite)->toBeTrue("{$score}, {$who}: a value is no number")->and(rad2deg($fastest[0]))->toBeLessThan(70.0, $fastest[1]);
        expect($reach)->toBeLessThan(0.09, "{$score}, {$who}: a foot is away from its place");
        if ($loops) {
            [$a, $b] = [$table->at(0.0), $table->at($seconds)];
            // What travels has travelled.
            $w = count($a);
            [$b[0], $b[2]] = [$b[0] - $b[$w - 3] + $a[$w - 3], $b[2] - $b[$w - 2] + $a[$w - 2]];
            for ($k = 0; $k < 3; $k++) {
                expect(abs($b[$k] - $a[$k]))->toBeLessThan(0.05, "{$score}, {$who}: the loop does not close at {$k}");
            }
            for ($j = 0; $j < $joints; $j++) {
                $off = Q4::angleBetween(array_slice($a, 3 + 4 * $j, 4), array_slice($b, 3 + 4 * $j, 4));
                expect($off)->toBeLessThan(0.06, "{$score}, {$who}: the loop does not close at {$figure->skeleton->names[$j]}");
            }
        }
        expect($sheet['seconds'])->toBeGreaterThan(0.5);
    }
})->with('scores');

test('nobody sinks: the head stays above the floor and hands do not go below it', function (): void {
    $figure = actor('bram');
    foreach (array_diff(array_keys(ScoreBook::all()), ['jumpDown', 'stepDown']) as $score) {
        $table = MotionSampler::table($figure->body(), new MotionRecipe('act', ['score' => $score]), []);
        for ($t = 0.0; $t <= $table->seconds(); $t += 0.1) {
            $row = $table->at($t);
            [$p] = $figure->skeleton->world(
                array_slice($row, 3, 4 * $figure->skeleton->count()),
                [$row[0], $row[1], $row[2]],
                $figure->hips,
            );
            foreach ([
                'head' => 0.06, 'handL' => -0.03, 'handR' => -0.03, 'lowerLegL' => 0.01, 'lowerLegR' => 0.01, 'hips' => 0.05,
            ] as $role => $least) {
                expect($p[3 * $figure->skeleton->roles[$role] + 1])->toBeGreaterThan($least, "{$score}: {$role} at {$t} s");
            }
        }
    }
});

test('what stands begins and ends in the common stance, so that any two join', function (string $score): void {
    $figure = actor('oda');
    $body = $figure->body();
    $stance = MotionSampler::table($body, new MotionRecipe('wave'), [])->at(0.0);
    $table = MotionSampler::table($body, new MotionRecipe('act', ['score' => $score]), []);
    foreach ([0.0, $table->seconds()] as $t) {
        [$a] = $figure->skeleton->world(
            array_slice($stance, 3, 4 * $figure->skeleton->count()),
            [$stance[0], $stance[1], $stance[2]],
            $figure->hips,
        );
        $row = $table->at($t);
        [$b] = $figure->skeleton->world(array_slice($row, 3, 4 * $figure->skeleton->count()), [$row[0], $row[1], $row[2]], $figure->hips);
        foreach (['footL', 'footR'] as $role) {
            $j = 3 * $figure->skeleton->roles[$role];
            expect(hypot($a[$j] - $b[$j], $a[$j + 2] - $b[$j + 2]))->toBeLessThan(0.005);
        }
    }
})->with([
    'point', 'beckon', 'shrug', 'shakeHead', 'think', 'laugh', 'cry', 'cheer', 'talkAngry', 'bow', 'clap', 'throw', 'drink', 'knock',
    'hugA', 'shakeHandsB', 'argueA', 'pushA',
]);

test('a seat, a table and a floor are met at their heights', function (): void {
    $figure = actor('bram');
    $at = static function (string $score, float $t, string $role) use ($figure): array {
        $row = MotionSampler::table($figure->body(), new MotionRecipe('act', ['score' => $score]), [])->at($t);
        [$p] = $figure->skeleton->world(array_slice($row, 3, 4 * $figure->skeleton->count()), [$row[0], $row[1], $row[2]], $figure->hips);
        $j = 3 * $figure->skeleton->roles[$role];

        return [$p[$j], $p[$j + 1], $p[$j + 2]];
    };
    $k = $figure->body()->scale;
    expect($at('sitDown', 2.5, 'hips')[1])->toEqualWithDelta(0.545 * $k, 0.02)->and($at('lieIdle', 1.0, 'head')[1])->toBeLessThan(0.35)
        ->and($at('pickUpFloor', 1.5, 'handR')[1])->toBeLessThan(0.36)->and($at('climb', 4.4, 'hips')[1])->toBeGreaterThan(1.5)
        ->and($at('turn90Left', 2.0, 'handL')[2])->toBeLessThan(-0.1);
});

test('the kit has more than sixty motions, each with words to find it by and a name of its own', function (): void {
    $all = MotionKit::all();
    expect(count($all))->toBeGreaterThan(60)->and(count(array_unique(array_column($all, 'slug'))))->toBe(count($all))
        ->and(count(array_unique(array_column($all, 'name'))))->toBe(count($all));
    foreach ($all as $m) {
        expect(count($m['tags']))->toBeGreaterThan(1)->and($m['slug'])->toMatch('/^[a-z0-9-]+$/');
    }
});

test('manners change a walk and leave its feet where they were', function (array $settings, Closure $check): void {
    $figure = actor('bram');
    $plain = MotionSampler::table($figure->body(), new MotionRecipe('walk', ['speed' => 0.9]), []);
    $other = MotionSampler::table($figure->body(), new MotionRecipe('walk', ['speed' => 0.9] + $settings), []);
    $world = static fn ($table, float $t): array => $figure->skeleton->world(
        array_slice($table->at($t), 3, 4 * $figure->skeleton->count()),
        array_slice($table->at($t), 0, 3),
        $figure->hips,
    )[0];
    $moved = 0.0;
    foreach ([0.1, 0.4, 0.8, 1.2] as $t) {
        [$a, $b] = [$world($plain, $t), $world($other, $t)];
        foreach (['footL', 'footR'] as $role) {
            $j = 3 * $figure->skeleton->roles[$role];
            $moved = max($moved, hypot($a[$j] - $b[$j], $a[$j + 2] - $b[$j + 2]));
        }
    }
    expect($moved)->toBeLessThan(0.03);
    $check($world($plain, 0.4), $world($other, 0.4), $figure->skeleton->roles);
})->with([
    'crouched' => [['crouch' => 1.0], function (array $a, array $b, array $roles): void {
        expect($b[3 * $roles['head'] + 1])->toBeLessThan($a[3 * $roles['head'] + 1] - 0.12);
    }],
    'carrying' => [['hold' => 'box'], function (array $a, array $b, array $roles): void {
        expect($b[3 * $roles['handL'] + 1])->toBeGreaterThan($a[3 * $roles['handL'] + 1] + 0.12)
            ->and(abs($b[3 * $roles['handL'] + 2] - $b[3 * $roles['handR'] + 2]))->toBeLessThan(0.08);
    }],
    'nothing' => [['hold' => 'moon'], function (array $a, array $b): void {
        expect($b)->toBe($a);
    }],
]);
