<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/** Bram walks, and a camera goes along at his side; blocks stand where they are put. */
function alongside(array ...$blocks): CompiledScene
{
    static $memory = new Memory;
    $items = [Scenes::item('i1', 'bram', 0.0, 0.0, 0.0)];
    foreach (array_values($blocks) as $n => [$x, $z, $size, $y]) {
        $items[] = Scenes::item('b'.$n, 'box', $x, $z, 0.0, $y, $size);
    }

    return Scenes::compile([
        'items' => $items, 'beats' => [Scenes::beat('b1', 'i1', 'walk', 0)],
        'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [[
            'id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'frame' => 0, 'size' => 'full', 'sideDeg' => 80.0, 'keep' => 'follow',
        ]],
    ], null, $memory);
}

/** @return list<array{float, float, float}> where the lens is, frame by frame */
function lensWay(CompiledScene $scene): array
{
    $at = static fn (int $f): array => SceneEvaluator::at($scene, $f)->cameras['c1']->position;

    return array_map($at, range(0, $scene->frames - 1));
}

function inBlock(array $p, array $block, float $more = 0.0): bool
{
    [$x, $z, $size, $y] = $block;

    return abs($p[0] - $x) < $size / 2 + $more && abs($p[2] - $z) < $size / 2 + $more && $p[1] > $y - $more && $p[1] < $y + $size + $more;
}

test('a camera that goes along does not pass through a wall: it comes nearer, and goes back', function (): void {
    $free = lensWay(alongside());
    $at = $free[40];
    $wall = [$at[0], $at[2], 1.6, 0.0];
    expect(array_filter($free, static fn (array $p): bool => inBlock($p, $wall)))->not->toBe([]);
    $scene = alongside($wall);
    $way = lensWay($scene);
    foreach ($way as $f => $p) {
        expect(inBlock($p, $wall, 0.05))->toBeFalse("frame {$f}");
        $f > 0 && expect(V3::distance($p, $way[$f - 1]))->toBeLessThan(0.25, "frame {$f}");
    }
    // It comes at least half a block nearer, and he stays where he is in the picture all the while.
    expect($way[40][0])->toBeLessThan($free[40][0] - 0.8)->and($way[0][0])->toBeGreaterThan($way[40][0] + 0.5);
    foreach ([4, 20, 40, 60] as $f) {
        $x = static fn (CompiledScene $s): float => SceneEvaluator::at($s, $f)->cameras['c1']
            ->project($s->poses->at($f)->joint('i1', $s->lanes['i1']->figure->hips)->position, 16 / 9)[0];
        expect($x($scene))->toEqualWithDelta($x(alongside()), 0.1);
    }
});

test('a post is passed', function (): void {
    $free = lensWay(alongside());
    $eyes = alongside()->poses->at(30)->face('i1');
    $between = V3::mix($eyes, $free[30], 0.5);
    expect(lensWay(alongside([$between[0], $between[2], 0.2, $between[1] - 0.1])))->toEqualWithDelta($free, 1e-6);
});

test('its pieces are told apart by what stands around, where it moves', function (): void {
    $prints = static fn (CompiledScene $s): string => json_encode($s->framed['c1']->fingerprint(), JSON_THROW_ON_ERROR);
    expect($prints(alongside([9.0, 9.0, 1.0, 0.0])))->not->toBe($prints(alongside()))
        ->and($prints(alongside()))->toBe($prints(alongside()));
});
