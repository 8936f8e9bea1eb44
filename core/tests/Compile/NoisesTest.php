<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Compile\Noise;
use CrispReel\Core\Document\Underfoot;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Kit\Sounds\SoundKit;
use CrispReel\Core\Motion\Model\Course;
use CrispReel\Core\Motion\Model\GaitPlan;
use CrispReel\Core\Motion\Model\GaitStyle;
use CrispReel\Core\Motion\Model\Step;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * A scene in which what happens is heard, with sounds for all of it.
 *
 * @param  array<string, mixed>  $parts
 */
function happening(array $parts): CompiledScene
{
    $assets = new FakeAssets;
    $data = Scenes::data($parts + ['mix' => ['happens' => true]]);
    foreach (SoundKit::noises() as $slug => $noise) {
        $assets->solved[$slug] = json_encode(['kind' => 'sound', 'seconds' => 4.0, 'noise' => $noise], JSON_THROW_ON_ERROR);
        $data['assets'][] = [
            'id' => $slug, 'kind' => 'sound', 'name' => $slug, 'blob' => hash('sha256', $slug), 'digest' => "reading:{$slug}",
        ];
    }

    return Scenes::compile($data, $assets);
}

/** @return list<Noise> */
function noisesOf(CompiledScene $s, string $what): array
{
    $all = array_map(static fn (Heard $h): ?Noise => $h->noise, $s->heard);

    return array_values(array_filter($all, static fn (?Noise $n): bool => $n?->what === $what));
}

test('every step of a walk is heard in the frame in which its foot comes down, and none besides', function (): void {
    $s = happening([
        'items' => [Scenes::item('o', 'oda', 0.0, 0.0, 90.0)],
        'beats' => [Scenes::beat('w', 'o', 'walkToMark', 12, ['settings' => ['metres' => 5.0]])],
    ]);
    $body = $s->lanes['o']->figure->body();
    $plan = GaitPlan::toMark($body, GaitStyle::fromArray(['metres' => 5.0]), Course::straight(), 5.0);
    $lands = [];
    foreach ($plan->feet->steps as $of) {
        array_push($lands, ...array_map(static fn (Step $p): float => $p->on, $of));
    }
    $lands = array_values(array_filter($lands, static fn (float $t): bool => $t > 0.1));
    sort($lands);
    $heard = array_map(static fn (Noise $n): float => ($n->from - 12) / 24, noisesOf($s, 'step'));
    expect(count($heard))->toBe(count($lands))->and(count($heard))->toBeGreaterThan(5);
    foreach ($lands as $k => $t) {
        expect(abs($heard[$k] - $t) * 24)->toBeLessThan(1.0);
    }
    expect(array_unique(array_map(static fn (Noise $n): string => $n->on, noisesOf($s, 'step'))))->toBe(['earth']);
});

test('who stands, talks, sits or rides has no steps, and without the wish nothing is worked out', function (): void {
    $still = happening([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 2.0)],
        'beats' => [Scenes::beat('t', 'o', 'talk', 0), Scenes::beat('i', 'b', 'idle', 0)],
    ]);
    expect($still->heard)->toBe([]);
    $walks = ['items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('w', 'o', 'walk', 0)]];
    expect(happening(['mix' => ['happens' => false]] + $walks)->heard)->toBe([])->and(noisesOf(happening($walks), 'step'))->not->toBe([]);
});

test('steps sound as what is under them: as it is named, or as somebody has said', function (): void {
    $on = static fn (array $ramp): array => array_values(array_unique(array_map(
        static fn (Noise $n): string => $n->on, noisesOf(happening([
            'items' => [Scenes::item('o', 'oda', 0.0, -1.6), $ramp + Scenes::item('r', 'ramp')],
            'beats' => [Scenes::beat('w', 'o', 'walk', 0, ['play' => ['loops' => 2]])],
        ]), 'step'),
    )));
    expect($on([]))->toBe(['wood'])->and($on(['underfoot' => 'metal']))->toBe(['metal'])
        ->and($on(['name' => 'Old street']))->toBe(['stone']);
});

test('names tell what is walked on and what lands', function (string $name, string $on): void {
    expect(Underfoot::named($name))->toBe($on);
})->with([
    ['Ferry pier', 'wood'], ['Street corner with shops', 'stone'], ['Forest clearing', 'grass'], ['Sea with sails', 'water'],
    [
        'Woods all round', 'earth',
    ], ['Stage with curtains', 'wood'], ['Kitchen', 'wood'], ['Persian rug', 'carpet'], ['Gravel path', 'gravel'],
    ['Something', 'wood'],
]);

test('what is let go is heard when it first hits the ground, as what it is made of', function (): void {
    $s = happening([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key', 0.3)],
        'beats' => [Scenes::beat('i', 'o', 'idle', 0)],
        'links' => [[
            'id' => '1', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0, 'to' => 40, 'keep' => 'grip',
            'release' => 'fall',
        ]],
    ]);
    [$hit] = noisesOf($s, 'land');
    expect(noisesOf($s, 'land'))->toHaveCount(1)->and($hit->on)->toBe('metal')->and($hit->strength)->toBeBetween(0.4, 1.4);
    // From where it was let go it falls for so long under gravity.
    $low = INF;
    for ($f = 40; $f < $hit->from + 1; $f++) {
        $low = min($low, SceneEvaluator::place($s, 'k', $f)->position[1]);
    }
    $fell = SceneEvaluator::place($s, 'k', 40)->position[1] - $low;
    expect(($hit->from - 40) / 24)->toEqualWithDelta(sqrt(2 * $fell / 9.81), 0.06);
});

test('wheels are heard while they roll, louder the faster, and what hangs on them begins with them', function (): void {
    $rolls = static fn (int $to): CompiledScene => happening([
        'items' => [['route' => ['points' => [[0.0, 6.0]], 'from' => 24, 'to' => $to]] + Scenes::item('w', 'wagon')],
        'sounds' => [['id' => 'n', 'asset' => 'sound-lands-soft', 'thing' => 'w', 'start' => 10]],
    ]);
    [$slow, $fast] = [noisesOf($rolls(264), 'roll'), noisesOf($rolls(120), 'roll')];
    expect($slow)->toHaveCount(1)->and($slow[0]->from)->toBeBetween(24.0, 40.0)->and($slow[0]->to)->toBeBetween(245.0, 264.0)
        ->and($fast[0]->strength)->toBeGreaterThan(2 * $slow[0]->strength * 0.95);
    $all = $rolls(120)->heard;
    $wheels = array_values(array_filter($all, static fn (Heard $h): bool => $h->noise !== null))[0];
    $hung = array_values(array_filter($all, static fn (Heard $h): bool => $h->noise === null))[0];
    expect($wheels->sound->repeats)->toBeTrue()->and($hung->start)->toEqualWithDelta($fast[0]->from + 10.0, 1e-6);
});

test('what hangs on a touch begins as it does', function (): void {
    $s = happening([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'box', 0.0, 0.6)], 'beats' => [Scenes::beat('i', 'o', 'idle', 0)],
        'contacts' => [['id' => 'k', 'item' => 'o', 'effector' => 'handR', 'target' => 'b', 'offset' => [0.0, 0.5, 0.0], 'from' => 30]],
        'sounds' => [['id' => 'n', 'asset' => 'sound-lands-soft', 'contact' => 'k', 'start' => 2]],
    ]);
    expect($s->heard[0]->start)->toBe(32.0);
});

test('steps are not all alike, and how hard one comes down is how loud it is', function (): void {
    $steps = array_values(array_filter(happening([
        'items' => [Scenes::item('o', 'oda')], 'beats' => [Scenes::beat('w', 'o', 'walk', 0, ['play' => ['loops' => 4]])],
    ])->heard, static fn (Heard $h): bool => $h->noise !== null));
    $in = array_map(static fn (Heard $h): float => $h->sound->sourceIn, $steps);
    expect(count(array_unique($in)))->toBeGreaterThan(3)->and(max($in))->toBeLessThanOrEqual(3.5);
    foreach ($steps as $h) {
        $level = -13.0 + 10.0 * log10(max(0.1, $h->noise?->strength ?? 0.0));
        expect($h->sound->level)->toEqualWithDelta($level, 1.51)->and($h->end - $h->start)->toBeLessThanOrEqual(12.0)
            ->and($h->sound->lane)->toBe('steps');
    }
});
