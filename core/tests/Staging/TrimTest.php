<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\LaneSegment;
use CrispReel\Core\Math\Noise;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Staging\Trim;
use CrispReel\Core\Staging\UnableToStage;
use CrispReel\Core\Tests\Support\Scenes;

/** A beat of Oda's, with what is given of it. */
function oneBeat(array $beat): CompiledScene
{
    return Scenes::compile(['items' => [Scenes::item('o', 'oda')], 'beats' => [$beat]]);
}

/** What a list of commands makes of a beat, by the rules of beat.set: what is null in "play" is taken away. */
function trimmed(array $beat, array $commands): array
{
    foreach ($commands as $command) {
        expect($command->name)->toBe('beat.set')->and($command->payload['beat'])->toBe($beat['id']);
        $set = array_diff_key($command->payload, ['beat' => 0, 'play' => 0]);
        $play = array_filter(
            ($command->payload['play'] ?? []) + ($beat['play'] ?? []),
            static fn (mixed $v): bool => $v !== null,
        );
        $beat = ['play' => $play] + $set + $beat;
    }

    return $beat;
}

function segmentOf(CompiledScene $scene): LaneSegment
{
    return $scene->lanes['o']->segments[0];
}

/** The greatest angle between two rows' joints, all but the hips, which carry the heading, in degrees; and of hip heights, metres. */
function apart(array $a, array $b, int $joints): array
{
    $worst = 0.0;
    for ($j = 1; $j < $joints; $j++) {
        $o = 3 + 4 * $j;
        $worst = max($worst, rad2deg(Q4::angleBetween(array_slice($a, $o, 4), array_slice($b, $o, 4))));
    }

    return [$worst, abs($a[1] - $b[1])];
}

/** A beat by chance: speeds, loops, source times, holds, an ease, reverse, skip. @return array<string, mixed> */
function anyBeat(int $seed): array
{
    $n = 0;
    $chance = static function () use ($seed, &$n): float {
        return Noise::hash($n++, $seed);
    };
    $play = [];
    if ($chance() < 0.4) {
        $play['speeds'] = [[0, 0.4 + $chance()], [12 + floor(20 * $chance()), 0.5 + $chance()], [60, 0.6 + $chance()]];
    }
    foreach (['holdBefore', 'holdAfter'] as $hold) {
        if ($chance() < 0.3) {
            $play[$hold] = 1 + (int) floor(12 * $chance());
        }
    }
    if ($chance() < 0.25) {
        $play['reverse'] = true;
    }
    if ($chance() < 0.25) {
        $play['ease'] = [0.4, 0.0, 0.6, 1.0];
    }
    if ($chance() < 0.3) {
        $play['skip'] = 1 + (int) floor(6 * $chance());
    }
    $motion = ['wave', 'walk', 'idle', 'talk'][(int) floor(3.999 * $chance())];

    return [
        'start' => 10 + (int) floor(30 * $chance()), 'speed' => round(0.5 + 1.4 * $chance(), 2), 'loops' => $chance() < 0.4 ? 2 : 1,
        'sourceIn' => $chance() < 0.4 ? round(0.4 * $chance(), 3) : 0.0, 'play' => $play,
    ] + Scenes::beat('1', 'o', $motion, 0);
}

test('an edge lands on the asked frame, and no other frame shows another moment', function (int $seed): void {
    $beat = anyBeat($seed);
    $before = oneBeat($beat);
    $was = segmentOf($before);
    $joints = $before->lanes['o']->figure->skeleton->count();
    $last = (int) ceil($was->end) - 1;
    foreach ([0.25, 0.6] as $share) {
        $frame = (int) round($was->start + $share * ($was->end - $was->start));
        foreach (['in', 'out'] as $edge) {
            $after = oneBeat(trimmed($beat, Trim::of($before, '1', $edge, $frame)));
            $is = segmentOf($after);
            $what = "seed {$seed}, {$edge} at {$frame}";
            expect($edge === 'in' ? $is->start : $is->end)->toEqualWithDelta((float) $frame, 1e-6, $what)
                ->and($edge === 'in' ? $is->end : $is->start)->toEqualWithDelta($edge === 'in' ? $was->end : $was->start, 1e-6, $what);
            $from = $edge === 'in' ? $frame : (int) $was->start;
            $to = $edge === 'in' ? $last : $frame - 1;
            foreach ([$from, intdiv($from + $to, 2), $to] as $f) {
                [$degrees, $metres] = apart($before->lanes['o']->row($f), $after->lanes['o']->row($f), $joints);
                expect($degrees)->toBeLessThan(0.01, "{$what}, frame {$f}")->and($metres)->toBeLessThan(1e-4, "{$what}, frame {$f}");
            }
        }
    }
})->with(range(1, 24));

test('an edge that was brought in and is brought out again is where it was', function (int $seed): void {
    $beat = anyBeat($seed);
    $was = segmentOf(oneBeat($beat));
    $middle = (int) round(($was->start + $was->end) / 2);
    $cut = trimmed($beat, Trim::of(oneBeat($beat), '1', 'in', $middle));
    $back = segmentOf(oneBeat(trimmed($cut, Trim::of(oneBeat($cut), '1', 'in', (int) $was->start))));
    expect([$back->start, $back->end])->toEqualWithDelta([$was->start, $was->end], 1e-6);
    $cut = trimmed($beat, Trim::of(oneBeat($beat), '1', 'out', $middle));
    $back = segmentOf(oneBeat(trimmed($cut, Trim::of(oneBeat($cut), '1', 'out', (int) floor($was->end)))));
    expect($back->end)->toEqualWithDelta(floor($was->end), 1e-6);
})->with(range(1, 10));

test('what lies beyond is found where there is more of it', function (array $more, string $edge, int $frame, array $wanted): void {
    $beat = $more + ['start' => 24] + Scenes::beat('1', 'o', $more['motion'] ?? 'wave', 24);
    $scene = oneBeat($beat);
    $is = segmentOf(oneBeat(trimmed($beat, Trim::of($scene, '1', $edge, $frame))));
    expect([$is->start, round($is->end, 6)])->toEqualWithDelta($wanted, 1e-6);
})->with([
    // A wave of the kit is cut to its first second: 24 frames.
    'more of the motion after' => [['sourceOut' => 1.0], 'out', 54, [24.0, 54.0]],
    'more of it before' => [['sourceIn' => 0.5, 'sourceOut' => 1.5], 'in', 18, [18.0, 48.0]],
    'no more before than there is' => [['sourceIn' => 0.25, 'sourceOut' => 1.25], 'in', 2, [18.0, 48.0]],
    'what was skipped' => [['sourceOut' => 2.0, 'play' => ['skip' => 10]], 'in', 14, [14.0, 62.0]],
    'a length that was cut' => [['sourceOut' => 2.0, 'play' => ['length' => 20]], 'out', 60, [24.0, 60.0]],
    'a repeat to a frame, longer' => [['motion' => 'm-idle', 'play' => ['fill' => 100]], 'out', 500, [24.0, 500.0]],
    'a repeat to a frame, shorter' => [['motion' => 'm-idle', 'play' => ['fill' => 100]], 'out', 61, [24.0, 61.0]],
    'one that repeats for ever gets an end' => [['motion' => 'm-idle', 'play' => ['keepLooping' => true]], 'out', 77, [24.0, 77.0]],
    'another turn of one that repeats' => [['motion' => 'm-idle'], 'out', 400, [24.0, 400.0]],
]);

test('a motion that does not repeat ends where it ends', function (): void {
    $whole = segmentOf(oneBeat(Scenes::beat('1', 'o', 'wave', 0)))->end;
    $short = ['play' => ['length' => 10]] + Scenes::beat('1', 'o', 'wave', 0);
    $is = segmentOf(oneBeat(trimmed($short, Trim::of(oneBeat($short), '1', 'out', 5000))));
    expect($is->end)->toBe($whole);
    expect(fn () => Trim::of(oneBeat(Scenes::beat('1', 'o', 'wave', 0)), '1', 'out', 5000))->toThrow(UnableToStage::class, 'cannot end at');
});

test('edges that cross, and beats that are not there, are refused', function (): void {
    $scene = oneBeat(Scenes::beat('1', 'o', 'wave', 10));
    expect(fn () => Trim::of($scene, '1', 'in', 5000))->toThrow(UnableToStage::class, 'cannot begin at frame 5000')
        ->and(fn () => Trim::of($scene, '1', 'out', 10))->toThrow(UnableToStage::class, 'cannot end at frame 10')
        ->and(fn () => Trim::of($scene, '1', 'in', 0))->toThrow(UnableToStage::class, 'nothing before')
        ->and(fn () => Trim::of($scene, '9', 'in', 0))->toThrow(UnableToStage::class, 'no beat "9"')
        ->and(Trim::of($scene, '1', 'in', 10))->toBe([]);
});
