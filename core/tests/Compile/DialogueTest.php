<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Moment;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Four people in a square of two metres, who look to its middle; the last stands nine metres off.
 *
 * @param  list<array<string, mixed>>  $lines
 */
function square(array $lines): CompiledScene
{
    return Scenes::compile(['items' => [
        Scenes::item('a', 'oda', -1.0, 0.0, 90.0), Scenes::item('b', 'bram', 1.0, 0.0, -90.0),
        Scenes::item('c', 'pim-alder', 0.0, 1.5, 180.0), Scenes::item('far', 'oda', 0.0, 9.0, 180.0),
    ], 'lines' => $lines]);
}

/** @return list<string> whom somebody looks at by themselves, one after the other */
function looksAt(CompiledScene $scene, string $who): array
{
    return array_map(static fn ($h): string => (string) $h->contact->target, $scene->holds[$who] ?? []);
}

/** @return array<string, mixed> */
function says(string $id, string $who, string $text, array $more = []): array
{
    return ['id' => $id, 'item' => $who, 'text' => $text] + $more;
}

test('who speaks alone speaks to whoever is nearest in front', function (): void {
    $scene = square([says('1', 'a', 'Is anybody here at this hour?', ['start' => 10])]);
    expect(looksAt($scene, 'a'))->toBe(['c'])->and(looksAt($scene, 'c'))->toBe(['a'])->and(looksAt($scene, 'b'))->toBe([]);
});

test('who answers is spoken to, though another stands nearer', function (): void {
    $scene = square([
        says('1', 'a', 'Is anybody here at this hour?', ['start' => 10]), says('2', 'b', 'Nobody but me.', ['after' => '1']),
    ]);
    expect(looksAt($scene, 'a'))->toBe(['b'])->and(looksAt($scene, 'b'))->toBe(['a']);
});

test('an answer that comes after six seconds is none', function (): void {
    $scene = square([
        says('1', 'a', 'Is anybody here?', ['start' => 10]), says('2', 'b', 'Nobody but me.', ['after' => '1', 'pause' => 9]),
    ]);
    expect(looksAt($scene, 'a'))->toBe(['c', 'b']);
});

test('whom a line names comes first, and nobody speaks to themselves', function (): void {
    $scene = square([
        says('1', 'a', 'Come here, boy.', ['start' => 10, 'to' => 'c']), says('2', 'b', 'Leave him.', ['after' => '1']),
        says('3', 'c', 'Me?', ['after' => '2', 'to' => 'c']),
    ]);
    expect(looksAt($scene, 'a')[0])->toBe('c')->and(looksAt($scene, 'c'))->not->toContain('c');
});

test('who stands far off hears nothing, and their line is heard by nobody near', function (): void {
    $scene = square([
        says('1', 'a', 'Is anybody here?', ['start' => 10]), says('2', 'far', 'Over here, by the boats!', ['after' => '1']),
    ]);
    expect(looksAt($scene, 'far'))->toBe(['a'])->and($scene->poses->faces)->not->toHaveKey('b')
        ->and(looksAt($scene, 'a'))->not->toContain('b');
    [$first, $second] = $scene->utterances;
    expect($first)->toBeInstanceOf(Utterance::class)->and($second->line->item)->toBe('far');
});

test('brows do not rise twice within two seconds, nor heads nod twice within less than one', function (): void {
    $text = 'Mother, mother, mother, never, ever, over, under, after, water, weather, winter, butter, better, letter, ladder, summer.';
    $scene = square([says('1', 'a', $text, ['start' => 10])]);
    $figure = $scene->lanes['a']->figure;
    $k = 3 + 4 * $figure->skeleton->count() + (int) array_search('browOutUpL', $figure->morphs, true);
    $rises = [];
    $before = 0.0;
    $rising = false;
    for ($f = 10.0; $f < $scene->utterances[0]->end; $f++) {
        $now = (new Moment($scene->poses, $f, false))->row('a')[$k];
        if ($now > $before + 0.01 && ! $rising) {
            $rises[] = $f;
        }
        $rising = $now > $before + 0.01;
        $before = $now;
    }
    expect(count($rises))->toBeGreaterThan(1);
    for ($n = 1; $n < count($rises); $n++) {
        expect(($rises[$n] - $rises[$n - 1]) / 24)->toBeGreaterThan(1.8);
    }
});

test('a line in a scene of another rate is as long in seconds', function (): void {
    $of = static fn (array $rate): CompiledScene => Scenes::compile([
        'rate' => $rate, 'items' => [Scenes::item('a', 'oda')],
        'lines' => [says('1', 'a', 'Is anybody here?', ['start' => 0]), says('2', 'a', 'Nobody.', ['after' => '1', 'pause' => 1.0])],
    ]);
    [$film, $fast] = [$of([24, 1]), $of([60, 1])];
    expect($fast->utterances[1]->to / 60)->toEqualWithDelta($film->utterances[1]->to / 24, 0.05);
});
