<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\GltfWriter;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Intake\Alpha;
use CrispReel\Core\Intake\ClipSplit;
use CrispReel\Core\Intake\Normals;
use CrispReel\Core\Intake\Simplify;
use CrispReel\Core\Intake\Troubles\Values;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;

/** A file of one mesh. @param  list<float>  $points @param  list<int>  $index @param  list<float>  $normals */
function sheetOf(array $points, array $index, array $normals = []): string
{
    $w = new GltfWriter('test');
    $mesh = $w->push(
        'meshes',
        ['primitives' => [[
            'attributes' => ['POSITION' => $w->vertices($points, 'VEC3', bounds: true)]
                + ($normals === [] ? [] : ['NORMAL' => $w->vertices($normals, 'VEC3')]),
            'indices' => $w->indices($index),
        ]]],
    );
    $w->scene([$w->push('nodes', ['name' => 'sheet', 'mesh' => $mesh])], 'sheet');

    return $w->toGlb();
}

/** @return array{list<float>, list<float>, list<int>} positions, normals, index of the first primitive */
function meshIn(string $glb): array
{
    [, $p] = GltfReader::read($glb)->primitives()[0];

    return [$p['positions'], $p['normals'], $p['index']];
}

/** A grid of n by n cells over one square metre, its height by a function. @return array{list<float>, list<int>} */
function gridOf(int $n, Closure $height): array
{
    $points = $index = [];
    for ($j = 0; $j <= $n; $j++) {
        for ($i = 0; $i <= $n; $i++) {
            array_push($points, $i / $n, $height($i / $n, $j / $n), $j / $n);
        }
    }
    for ($j = 0; $j < $n; $j++) {
        for ($i = 0; $i < $n; $i++) {
            $a = $j * ($n + 1) + $i;
            array_push($index, $a, $a + $n + 1, $a + 1, $a + 1, $a + $n + 1, $a + $n + 2);
        }
    }

    return [$points, $index];
}

test('points of a cell become the one nearest to their middle, and triangles that lose a corner go', function (): void {
    // Five points: three of them within one cell of 1 m, their mean at (0.4, 0.4, 0).
    $points = [0.1, 0.1, 0.0, 0.5, 0.4, 0.0, 0.6, 0.7, 0.0, 1.5, 0.5, 0.0, 0.5, 1.5, 0.0];
    expect(Simplify::clustered($points, [0, 1, 2, 0, 3, 4, 2, 3, 4, 1, 2, 3], 1.0))->toBe([1, 3, 4]);
    // The other side of the same triangle is another triangle.
    expect(Simplify::clustered($points, [0, 3, 4, 4, 3, 0], 1.0))->toBe([1, 3, 4, 4, 3, 1]);
    // Cells below nought are cells like others.
    expect(Simplify::clustered([-0.1, 0.0, 0.0, 0.1, 0.0, 0.0, 0.0, 1.5, 0.0], [0, 1, 2], 1.0))->toBe([0, 1, 2]);
});

test('a lighter copy keeps to its number and close to the shape', function (int $most): void {
    [$points, $index] = gridOf(60, static fn (float $x, float $z): float => 0.2 * sin(5 * $x) * cos(4 * $z));
    $draft = GltfDraft::open(sheetOf($points, $index));
    Simplify::apply($draft, $most);
    [$light, , $triangles] = meshIn($draft->toGlb());
    expect(count($triangles) / 3)->toBeLessThanOrEqual($most)->and(count($triangles) / 3)->toBeGreaterThan(0.25 * $most);
    for ($i = 0, $n = count($light); $i < $n; $i += 3) {
        // Points are chosen, not mixed, so each lies on the shape.
        expect(abs($light[$i + 1] - 0.2 * sin(5 * $light[$i]) * cos(4 * $light[$i + 2])))->toBeLessThan(1e-6);
    }
    expect(min($light))->toBeGreaterThanOrEqual(-0.21)->and(max($light))->toBeLessThanOrEqual(1.0);
})->with([2000, 500, 120]);

test('what is light enough stays as it is, bit for bit', function (): void {
    [$points, $index] = gridOf(10, static fn (): float => 0.0);
    $draft = GltfDraft::open(sheetOf($points, $index));
    $before = $draft->toGlb();
    Simplify::apply($draft, 200);
    expect($draft->toGlb())->toBe($before);
});

test('a figure made lighter keeps weights that sum to one, and all of its shapes', function (): void {
    $draft = GltfDraft::open(FakeAssets::glb('oda'));
    Simplify::apply($draft, 4000);
    $reader = GltfReader::read($draft->toGlb());
    $triangles = 0;
    foreach ($reader->primitives() as [, $p]) {
        $triangles += count($p['index']) / 3;
        foreach (array_chunk($p['weights'], 4) as $w) {
            expect(array_sum($w))->toEqualWithDelta(1.0, 0.01);
        }
        expect(count($p['joints']))->toBe(count($p['weights']));
    }
    $shapes = static fn (GltfReader $r): array => array_map(static fn (array $of): int => $of[1]['morphs'], $r->primitives());
    expect($triangles)->toBeLessThanOrEqual(4000)->and($shapes($reader))->toBe($shapes(GltfReader::read(FakeAssets::glb('oda'))));
});

test('normals of a flat sheet point off it, whichever way it lies', function (array $turn): void {
    [$flat, $index] = gridOf(3, static fn (): float => 0.0);
    $points = array_merge(...array_map(static fn (array $p): array => Q4::rotate($turn, $p), array_chunk($flat, 3)));
    $draft = GltfDraft::open(sheetOf($points, $index));
    expect(Normals::fill($draft))->toBe(1);
    foreach (array_chunk(meshIn($draft->toGlb())[1], 3) as $n) {
        expect($n)->toEqualWithDelta(Q4::rotate($turn, [0.0, 1.0, 0.0]), 1e-6);
    }
})->with(['as it is' => [Q4::IDENTITY], 'on its edge' => [[M_SQRT1_2, 0.0, 0.0, M_SQRT1_2]], 'askew' => [Q4::unit([0.3, -0.5, 0.2, 0.8])]]);

test('a ball without normals gets those of a ball, and keeps its number of points', function (): void {
    $ball = Shapes::sphere(0.5, 24, 16);
    $flat = array_merge(...$ball->points);
    $draft = GltfDraft::open(sheetOf($flat, $ball->index));
    Normals::fill($draft);
    [$points, $normals, $index] = meshIn($draft->toGlb());
    expect(count($index))->toBe(count($ball->index));
    foreach (array_chunk($points, 3) as $k => $p) {
        expect(V3::dot(V3::unit($p), array_slice($normals, 3 * $k, 3)))->toBeGreaterThan(0.985);
    }
});

test('an edge of ninety degrees stays sharp, one of thirty is rounded', function (float $degrees, bool $sharp): void {
    $up = [cos(deg2rad($degrees)), sin(deg2rad($degrees))];
    // Two faces that meet along z at x = 0.
    $points = [-1.0, 0.0, 0.0, -1.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, $up[0], $up[1], 0.0, $up[0], $up[1], 1.0];
    $draft = GltfDraft::open(sheetOf($points, [0, 1, 2, 2, 1, 3, 2, 3, 4, 4, 3, 5]));
    Normals::fill($draft);
    // Each of the two points on the edge becomes two where it is sharp.
    [$found, $normals] = meshIn($draft->toGlb());
    expect(count($found) / 3)->toBe($sharp ? 8 : 6);
    foreach (array_chunk($found, 3) as $k => $p) {
        $n = array_slice($normals, 3 * $k, 3);
        if (abs($p[0]) > 1e-6 || $sharp) {
            expect(max(abs(V3::dot($n, [0.0, 1.0, 0.0])), abs(V3::dot($n, [-$up[1], $up[0], 0.0]))))->toEqualWithDelta(1.0, 1e-6);
        } else {
            expect(abs($n[0]))->toBeBetween(0.2 * $up[1], 0.8 * $up[1]);
        }
    }
})->with([[90.0, true], [60.0, true], [30.0, false], [10.0, false]]);

test('normals that came are left alone', function (): void {
    [$points, $index] = gridOf(2, static fn (): float => 0.0);
    $odd = array_merge(...array_fill(0, 9, [1.0, 0.0, 0.0]));
    $draft = GltfDraft::open(sheetOf($points, $index, $odd));
    expect(Normals::fill($draft))->toBe(0)->and(meshIn($draft->toGlb())[1])->toEqual($odd);
});

test('how much of a picture is clear is told from its pixels', function (): void {
    $png = static function (array $share): string {
        $image = imagecreatetruecolor(100, 100);
        imagealphablending($image, false);
        imagesavealpha($image, true);
        foreach ($share as [$from, $to, $alpha]) {
            imagefilledrectangle($image, $from, 0, $to - 1, 99, (int) imagecolorallocatealpha($image, 200, 100, 50, $alpha));
        }
        ob_start();
        imagepng($image);

        return (string) ob_get_clean();
    };
    // GD's 127 is clear, 0 solid, 60 half.
    $a = Alpha::of($png([[0, 30, 127], [30, 50, 60], [50, 100, 0]]));
    expect($a?->clear)->toEqualWithDelta(0.3, 0.01)->and($a?->solid)->toEqualWithDelta(0.5, 0.01);
    expect(Alpha::of($png([[0, 100, 0]])))->clear->toBe(0.0)->solid->toBe(1.0)->and(Alpha::of(str_repeat('no picture ', 9)))->toBeNull();
    $image = imagecreatetruecolor(8, 8);
    ob_start();
    imagejpeg($image);
    expect(Alpha::of((string) ob_get_clean()))->clear->toBe(0.0)->solid->toBe(1.0);
    expect(Alpha::factor([]))->toBe(1.0)->and(Alpha::factor(['pbrMetallicRoughness' => ['baseColorFactor' => [1, 1, 1, 0.25]]]))->toBe(0.25)
        ->and(Alpha::factor(['pbrMetallicRoughness' => ['baseColorFactor' => 'red']]))->toBe(1.0);
});

test('motions that are taken out of a file play as they did in it, and the file without them draws the same', function (): void {
    $glb = Spoiled::moving(Spoiled::good(), ['greeting' => ['wave', []], 'stroll' => ['walk', []]]);
    $whole = GltfReader::read($glb);
    $split = ClipSplit::of($whole);
    expect(array_column($split, 'name'))->toBe(['greeting', 'stroll'])->and(min(array_column($split, 'seconds')))->toBeGreaterThan(1.0);
    foreach ($split as $n => $one) {
        $alone = GltfReader::read($one['glb']);
        expect($alone->primitives())->toBe([])->and($alone->clips())->toHaveCount(1);
        [$was, $is] = [$whole->clips()[$n], $alone->clips()[0]];
        expect(count($is->channels))->toBe(count($was->channels));
        foreach ($was->channels as $k => $c) {
            expect($is->channels[$k]->target)->toBe($c->target)->and($is->channels[$k]->path)->toBe($c->path);
            foreach ([0.0, 0.17, 0.4] as $t) {
                expect($is->channels[$k]->at($t))->toEqualWithDelta($c->at($t), 1e-6);
            }
        }
    }
    $still = GltfReader::read(ClipSplit::without($glb));
    expect($still->clips())->toBe([])->and(count($still->primitives()))->toBe(count($whole->primitives()));
});

test('numbers, turns and points from outside: taken in their range, refused out of it', function (): void {
    expect(Values::number(null, 2.0, 0.0, 3.0))->toBe(2.0)->and(Values::number(3, 2.0, 0.0, 3.0))->toBe(3.0)
        ->and(Values::point([1, 2.5, -3]))->toBe([1.0, 2.5, -3.0])->and(Values::turn([0, 0, 1, 1]))
        ->toEqualWithDelta([0.0, 0.0, M_SQRT1_2, M_SQRT1_2], 1e-9);
    foreach ([
        static fn () => Values::number('3', 2.0, 0.0, 3.0), static fn () => Values::number(3.1, 2.0, 0.0, 3.0),
        static fn () => Values::number(NAN, 2.0, 0.0, 3.0), static fn () => Values::number(true, 2.0, 0.0, 3.0),
        static fn () => Values::point([1, 2]), static fn () => Values::point('here'), static fn () => Values::point([1, 2, INF]),
        static fn () => Values::turn([1, 0, 0]), static fn () => Values::turn([5, 0, 0, 0]),
    ] as $bad) {
        expect($bad)->toThrow(InvalidArgumentException::class);
    }
    expect([Values::metres(0.004), Values::metres(0.25), Values::metres(1.5), Values::metres(1234.0)])
        ->toBe(['4.0 mm', '25 cm', '1.50 m', '1,234 m']);
});
