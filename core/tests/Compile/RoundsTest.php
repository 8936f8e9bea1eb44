<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Staging\Trim;
use CrispReel\Core\Tests\Support\Scenes;

/** Bram walks as a recording has it. @param  array<string, mixed>  $more */
function recordedScene(array $more): CompiledScene
{
    return Scenes::compile(['items' => [Scenes::item('o', 'bram')], 'beats' => [Scenes::beat('b', 'o', 'recordedWalk', 0, $more)]]);
}

/** @return array<string, Finding> */
function notesByCode(CompiledScene $s): array
{
    $out = [];
    foreach ($s->notes as $n) {
        $out[$n->code] = $n;
    }

    return $out;
}

test('a recorded walk repeats by whole strides, told from where to where, and goes on without a jump', function (): void {
    $s = recordedScene(['loops' => 4]);
    $note = notesByCode($s)['repeat.from'];
    expect($note->severity)->toBe(Severity::Fyi)->and($note->about)->toBe(['o', 'b']);
    $segment = $s->lanes['o']->segments[0];
    $span = $segment->out - $segment->in;
    expect($span)->toBeGreaterThan(0.8)->and($segment->end)->toEqualWithDelta(4 * $span * 24, 1.0);
    $hips = $s->lanes['o']->figure->hips;
    [$way, $turn, $ways] = [0.0, 0.0, []];
    for ($f = 1; $f < $segment->end; $f++) {
        [$a, $b] = [SceneEvaluator::row($s, 'o', $f - 1), SceneEvaluator::row($s, 'o', $f)];
        $ways[] = hypot($b[0] - $a[0], $b[2] - $a[2]);
        foreach ($s->lanes['o']->figure->skeleton->roles as $j) {
            if ($j !== $hips) {
                $turn = max($turn, rad2deg(Q4::angleBetween(ClipTable::rotation($a, $j), ClipTable::rotation($b, $j))));
            }
        }
        expect(abs($b[1] - $a[1]))->toBeLessThan(0.02);
    }
    sort($ways);
    // The way made in a frame is that of the walk all along, and no joint turns faster than in one round.
    $once = recordedScene([]);
    for ($f = 1; $f < $once->lanes['o']->segments[0]->end; $f++) {
        [$a, $b] = [SceneEvaluator::row($once, 'o', $f - 1), SceneEvaluator::row($once, 'o', $f)];
        foreach ($s->lanes['o']->figure->skeleton->roles as $j) {
            $way = $j === $hips ? $way : max($way, rad2deg(Q4::angleBetween(ClipTable::rotation($a, $j), ClipTable::rotation($b, $j))));
        }
    }
    expect($turn)->toBeLessThan(1.3 * $way)->and(end($ways))->toBeLessThan(2.0 * $ways[intdiv(count($ways), 2)]);
    // Played once, it is played whole, and nothing is said.
    expect(notesByCode($once))->toBe([])->and($once->lanes['o']->segments[0]->in)->toBe(0.0);
});

test('where it is trimmed it goes round as trimmed, and what jumps there is said with a mend', function (): void {
    // From the stand it begins with to the middle of a stride.
    $s = recordedScene(['loops' => 2, 'sourceIn' => 0.0, 'sourceOut' => 1.63]);
    $segment = $s->lanes['o']->segments[0];
    $note = notesByCode($s)['repeat.none'];
    expect($segment->out)->toEqualWithDelta(1.63, 1e-6)->and($note->severity)->toBe(Severity::Look)
        ->and($note->sentence)->toContain('cannot go round')->and($note->mends[0]->commands[0]->name)->toBe('beat.set')
        ->and($note->mends[0]->commands[0]->payload['loops'])->toBe(1);
    expect($note->figures[0]->name)->toBe('off');
});

test('the end of a recording drawn on repeats it until there; a walk of the house keeps its turns', function (): void {
    $s = recordedScene([]);
    $segment = $s->lanes['o']->segments[0];
    $frame = (int) round($segment->end) + 60;
    $commands = Trim::of($s, 'b', 'out', $frame);
    $payload = $commands[0]->payload;
    expect($payload['play']['fill'])->toBe($frame)->and($payload['loops'])->toBe(1);
    $longer = recordedScene(['play' => ['fill' => $frame]]);
    expect($longer->lanes['o']->segments[0]->end)->toEqualWithDelta($frame, 1.0)->and(notesByCode($longer))->toHaveKey('repeat.from');
});
