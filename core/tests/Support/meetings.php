<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Meeting\Meetings;
use CrispReel\Core\Meeting\Person;
use CrispReel\Core\Tests\Support\Drawn;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** Two of the house who do something together from frame 40 on, the second tied to the first. @param  array<string, mixed>  $settings */
function meets(string $pair, string $a, string $b, array $settings = [], float $scale = 1.0, array $own = []): CompiledScene
{
    static $assets = new FakeAssets;
    $names = $pair === 'handOver' ? ['handOver', 'receive'] : ["{$pair}A", "{$pair}B"];
    $refs = [];
    foreach ([$a => 'performer', $b => 'performer', "m-{$names[0]}" => 'motion', "m-{$names[1]}" => 'motion'] as $id => $kind) {
        $refs[] = ['id' => $id, 'kind' => $kind, 'name' => $id, 'blob' => hash('sha256', $id), 'digest' => hash('sha256', "{$id} digest")];
    }
    $item = static fn (string $id, string $asset, float $z, float $turn, float $size): array => [
        ...Scenes::item($id, 'oda', 0.0, $z, $turn, scale: $size), 'asset' => $asset, 'kind' => 'performer',
    ];

    return SceneCompiler::compile(Document::fromArray(Scenes::data([
        'assets' => $refs, 'items' => [$item('a', $a, 0.0, 0.0, 1.0), $item('b', $b, 1.0, 180.0, $scale)],
        'beats' => [
            Scenes::beat('x', 'a', $names[0], 40, ['settings' => $own]),
            Scenes::beat('y', 'b', $names[1], 40, ['play' => ['with' => 'x'], 'settings' => $settings]),
        ],
    ])), $assets);
}

function drawnIn(CompiledScene $s, string $who, int $f): Drawn
{
    $asset = $s->document->items[$who]->asset;

    return new Drawn($s->lanes[$who]->figure, $asset, SceneEvaluator::row($s, $who, $f), SceneEvaluator::place($s, $who, $f));
}

/** Worst gap and depth of a hand in the frames of its contact, centimetres. @return array{float, float} */
function touched(CompiledScene $s, string $by, string $hand, float $from, float $until): array
{
    [$who, $whom] = $by === 'A' ? ['a', 'b'] : ['b', 'a'];
    [$first, $last] = [40 + (int) ceil($from * 24), 40 + (int) floor($until * 24)];
    $worst = [0.0, 0.0];
    foreach (array_unique([$first, max($first, $last)]) as $f) {
        [$gap, $deep] = drawnIn($s, $who, $f)->against(drawnIn($s, $whom, $f), Person::hand($hand));
        $worst = [max($worst[0], 100 * $gap), max($worst[1], 100 * $deep)];
    }

    return $worst;
}

/** @return list<array{string, string, float, float}> hands of a pair with the times of their contacts */
function handsOf(string $pair): array
{
    $sheet = Meetings::all()[$pair];
    $out = [];
    foreach ($sheet['touches'] ?? [] as $t) {
        // What may be left out is not asked for.
        if (! ($t['optional'] ?? false)) {
            $out[] = [$t['by'], $t['hand'], $t['from'], $t['until']];
        }
    }
    foreach ($sheet['together'] ?? [] as $t) {
        $out[] = ['A', $t['A'], $t['from'], $t['until']];
    }
    foreach (isset($sheet['embrace']) ? [['A', 'R'], ['A', 'L'], ['B', 'R'], ['B', 'L']] : [] as $hand) {
        $out[] = [...$hand, $sheet['embrace']['from'] + 0.05, $sheet['embrace']['until'] - 0.05];
    }

    return $out;
}
