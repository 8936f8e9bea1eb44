<?php

declare(strict_types=1);

use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Cloth\BodyShape;
use CrispReel\Core\Cloth\ClothSolver;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\ClothKind;
use CrispReel\Core\Document\Input;
use CrispReel\Core\Document\UnableToReadDocument;
use CrispReel\Core\Document\Wind;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\UnableToReadGltf;
use CrispReel\Core\Kit\Pier\Ferry;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** A square sheet in the x-y plane, its upper edge at y = 0, with (cells + 1)^2 vertices. @param  array<string, mixed>  $facts */
function sheet(int $cells, float $side, array $facts = []): Fabric
{
    $points = $index = [];
    for ($j = 0; $j <= $cells; $j++) {
        for ($i = 0; $i <= $cells; $i++) {
            array_push($points, $side * $i / $cells, -$side * $j / $cells, 0.0);
        }
    }
    for ($j = 0; $j < $cells; $j++) {
        for ($i = 0; $i < $cells; $i++) {
            $a = $j * ($cells + 1) + $i;
            array_push($index, $a, $a + $cells + 1, $a + 1, $a + 1, $a + $cells + 1, $a + $cells + 2);
        }
    }

    return Fabric::make($points, $index, $facts);
}

/** @return array{float, float, float} */
function particle(ClothSolver $s, int $p): array
{
    return [$s->x[3 * $p], $s->x[3 * $p + 1], $s->x[3 * $p + 2]];
}

/** Stretch of every thread, as a share of its length. @param  list<float>  $x @return list<float> */
function stretches(Fabric $f, array $x): array
{
    $out = [];
    $d = static fn (array $v, int $a, int $b): float => V3::distance(
        [$v[3 * $a], $v[3 * $a + 1], $v[3 * $a + 2]],
        [$v[3 * $b], $v[3 * $b + 1], $v[3 * $b + 2]],
    );
    for ($i = 0, $n = count($f->threads); $i < $n; $i += 2) {
        $out[] = $d($x, $f->threads[$i], $f->threads[$i + 1]) / $d($f->rest, $f->threads[$i], $f->threads[$i + 1]) - 1;
    }
    sort($out);

    return $out;
}

/** @param  array<string, mixed>  $parts */
function clothed(array $parts = [], ?FakeAssets $assets = null): CompiledScene
{
    return Scenes::compile($parts + [
        'items' => [Scenes::item('b', 'bram'), Scenes::item('c', 'cloak')], 'beats' => [Scenes::beat('w', 'b', 'walkToMark', 12)],
        'links' => [['id' => 'l', 'child' => 'c', 'parent' => 'b', 'mount' => 'upperChest', 'from' => 0, 'keep' => 'grip']],
    ], $assets);
}

test('a fabric is what its triangles say', function (): void {
    // Two by two cells, one metre: 9 particles, 12 outer and inner sides plus 4 diagonals, 8 inner edges with two sides.
    $f = sheet(2, 1.0, ['kilogramsPerSquareMetre' => 0.3, 'pins' => [['low' => [-1, -0.001, -1], 'high' => [2, 1, 1]]]]);
    expect($f->count())->toBe(9)->and(count($f->threads) / 2)->toBe(16)->and(count($f->braces) / 2)->toBe(8);
    expect(array_sum($f->mass))->toEqualWithDelta(0.3, 1e-12);
    expect($f->pins)->toBe([1.0, 1.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]);
    // A corner with one triangle has a third of it: 0.3 kg x 1/8 m2 / 3.
    expect($f->mass[0])->toEqualWithDelta(0.0125, 1e-12);
    // Straight down from the upper edge.
    expect($f->tethers[7])->toBe([1, 1.0])->and($f->tethers[3])->toBe([0, 0.5]);
});

test('vertices at one place are one particle, in order of first appearance', function (): void {
    $f = Fabric::make([0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], [0, 1, 2, 3, 4, 5]);
    expect($f->count())->toBe(4)->and($f->ofVertex)->toBe([0, 1, 2, 1, 3, 2])->and($f->triangles)->toBe([0, 1, 2, 1, 3, 2]);
});

test('unpinned cloth falls as a stone does', function (): void {
    $f = sheet(2, 0.5);
    $s = new ClothSolver($f, $f->rest);
    $s->advance(ClothSolver::STEPS, $f->rest, $f->rest, array_fill(0, 27, 0.0), [], []);
    // g t^2 / 2 in one second is 4.905 m; the air and the damping take some of it.
    expect($f->rest[1] - $s->x[1])->toBeBetween(2.0, 4.95);
    $quick = new ClothSolver($f, $f->rest);
    $quick->advance(12, $f->rest, $f->rest, array_fill(0, 27, 0.0));
    expect($f->rest[1] - $quick->x[1])->toEqualWithDelta(0.5 * 9.81 * 0.1 ** 2, 0.006);
});

test('a hanging sheet hangs straight, no longer than it is', function (): void {
    $f = sheet(6, 0.9, ['pins' => [['low' => [-1, -0.001, -1], 'high' => [2, 1, 1]]]]);
    $s = new ClothSolver($f, $f->rest);
    $s->advance(3 * ClothSolver::STEPS, $f->rest, $f->rest, array_fill(0, 3 * $f->count(), 0.0));
    foreach (range(0, 6) as $p) {
        expect(particle($s, $p))->toEqualWithDelta([$f->rest[3 * $p], 0.0, 0.0], 1e-12);
    }
    foreach (range(42, 48) as $p) {
        expect(particle($s, $p)[1])->toBeBetween(-0.92, -0.88)->and(abs(particle($s, $p)[2]))->toBeLessThan(0.02);
    }
    $all = stretches($f, $s->x);
    expect(max($all))->toBeLessThan(0.03)->and(min($all))->toBeGreaterThan(-0.03);
    // It has come to rest.
    expect(max(array_map(abs(...), $s->v)))->toBeLessThan(0.02);
});

test('a flag streams with the wind and rises with its speed', function (): void {
    $f = sheet(6, 0.6, ['kilogramsPerSquareMetre' => 0.12, 'pins' => [['low' => [-0.001, -1, -1], 'high' => [0.001, 1, 1]]]]);
    $tip = static function (float $speed, float $towards) use ($f): array {
        $s = new ClothSolver($f, $f->rest);
        $w = new Wind($towards, $speed, 0.2);
        $sum = [0.0, 0.0, 0.0];
        for ($k = 0; $k < 120; $k++) {
            $wind = [];
            for ($p = 0; $p < $f->count(); $p++) {
                array_push($wind, ...$w->at(particle($s, $p), $k / 24));
            }
            $s->advance(5, $f->rest, $f->rest, $wind);
            $sum = $k < 60 ? $sum : V3::add($sum, V3::mul(particle($s, 27), 1 / 60));
        }

        return $sum;
    };
    [$still, $light, $strong] = [$tip(0.0, 90.0), $tip(3.0, 90.0), $tip(9.0, 90.0)];
    expect($still[0])->toBeLessThan(0.25)->and($light[0])->toBeGreaterThan($still[0])->and($strong[0])->toBeGreaterThan(0.5);
    expect($strong[1])->toBeGreaterThan($light[1] - 0.02)->and($light[1])->toBeGreaterThan($still[1]);
    // Towards 0 degrees is +z.
    expect($tip(9.0, 0.0)[2])->toBeGreaterThan(0.4);
});

test('wind has its speed and heading on the average, and the same seed is the same weather', function (): void {
    $w = new Wind(90.0, 5.0, 0.5, 7);
    $sum = [0.0, 0.0, 0.0];
    for ($k = 0; $k < 4000; $k++) {
        $sum = V3::add($sum, V3::mul($w->at([0.0, 1.0, 0.0], $k / 10), 1 / 4000));
    }
    expect($sum[0])->toEqualWithDelta(5.0, 0.6)->and($sum[2])->toEqualWithDelta(0.0, 0.5)->and($sum[1])->toEqualWithDelta(0.0, 0.3);
    expect((new Wind(90.0, 5.0, 0.5, 7))->at([1.0, 2.0, 3.0], 4.5))->toBe($w->at([1.0, 2.0, 3.0], 4.5));
    expect((new Wind(90.0, 5.0, 0.5, 8))->at([1.0, 2.0, 3.0], 4.5))->not->toBe($w->at([1.0, 2.0, 3.0], 4.5));
    // A gust comes downwind: what blows at 0 m blows 5 m farther a second later.
    expect($w->at([5.0, 0.0, 0.0], 3.0))->toEqualWithDelta($w->at([0.0, 0.0, 0.0], 2.0), 1e-9);
    expect((new Wind(0.0, 0.0))->at([0.0, 0.0, 0.0], 1.0))->toBe([0.0, 0.0, 0.0]);
});

test('cloth lies on a ball and on the floor, through neither', function (): void {
    // A sheet of a metre laid flat half a metre over a ball of 0.3 m.
    $f = sheet(12, 1.0);
    $start = [];
    for ($i = 0; $i < count($f->rest); $i += 3) {
        array_push($start, $f->rest[$i] - 0.5, 0.9, $f->rest[$i + 1] + 0.5);
    }
    $s = new ClothSolver($f, $start);
    $ball = [[0.0, 0.31, 0.0, 0.0, 0.31, 0.0, 0.3]];
    for ($k = 0; $k < 60; $k++) {
        $s->advance(6, $start, $start, array_fill(0, 3 * $f->count(), 0.0), $ball, $ball, 0.0);
        for ($p = 0; $p < $f->count(); $p++) {
            expect(V3::distance(particle($s, $p), [0.0, 0.31, 0.0]))->toBeGreaterThan(0.298)->and(particle($s, $p)[1])
                ->toBeGreaterThan(0.0);
        }
    }
    // The middle rests on the top of the ball, the corners hang lower.
    expect(particle($s, 84)[1])->toBeBetween(0.55, 0.64);
    foreach ([0, 12, 156, 168] as $corner) {
        expect(particle($s, $corner)[1])->toBeLessThan(0.35);
    }
});

test('a pin of less than full weight pulls, and the more the heavier it is', function (): void {
    $far = [];
    foreach ([0.1, 0.5, 0.9] as $weight) {
        $f = sheet(3, 0.5, ['pins' => [['low' => [-1, -0.001, -1], 'high' => [2, 1, 1], 'weight' => $weight]]]);
        $s = new ClothSolver($f, $f->rest);
        $s->advance(2 * ClothSolver::STEPS, $f->rest, $f->rest, array_fill(0, 3 * $f->count(), 0.0));
        $far[] = -particle($s, 1)[1];
    }
    expect($far[0])->toBeGreaterThan($far[1])->and($far[1])->toBeGreaterThan($far[2])->and($far[2])->toBeLessThan(0.02);
});

test('a pin that is no box is refused', function (): void {
    expect(fn () => sheet(2, 1.0, ['pins' => [['low' => [0, 0]]]]))->toThrow(InvalidArgumentException::class, 'three numbers each');
});

test('a body has capsules as thick as its drawn limbs', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('o', 'oda')]]);
    $figure = $s->lanes['o']->figure;
    $shape = BodyShape::of($figure, new FakeAssets, $s->document->assets['oda']);
    $by = [];
    foreach ($shape as [$a, $b, $radius, $rise]) {
        $by[$figure->skeleton->names[$a]] = [$radius, $rise];
    }
    expect(count($shape))->toBe(13)->and($by['head'][0])->toBeBetween(0.12, 0.25)->and($by['head'][1])->toBeBetween(0.05, 0.3);
    expect($by['hips'][0])->toBeBetween(0.1, 0.25);
    foreach (['upperArm', 'lowerArm', 'upperLeg', 'lowerLeg'] as $limb) {
        expect($by[$limb.'L'][0])->toBeBetween(0.04, 0.2)->and($by[$limb.'L'][0])->toEqualWithDelta($by[$limb.'R'][0], 0.01);
    }
});

test('a cloak stays on its wearer through a walk', function (): void {
    $s = clothed();
    $run = $s->cloths['c'];
    $f = Fabric::of(GltfReader::read(FakeAssets::glb('cloak')), FakeAssets::digestOf('cloak')['extras']['cloth']);
    foreach ([0, 20, 40, 60, 80] as $frame) {
        $m = $s->poses->at($frame);
        $x = $run->at($frame);
        // Fastened particles are where the cut has them, in the cloak's own space.
        foreach (array_keys($f->pins, 1.0) as $p) {
            expect(V3::distance([$x[3 * $p], $x[3 * $p + 1], $x[3 * $p + 2]], [
                $f->rest[3 * $p], $f->rest[3 * $p + 1], $f->rest[3 * $p + 2],
            ]))->toBeLessThan(1e-9);
        }
        $all = stretches($f, $x);
        expect($all[intdiv(count($all), 2)])->toBeLessThan(0.02)->and($all[(int) (0.95 * count($all))])->toBeLessThan(0.12);
        // Nothing of it is inside the trunk.
        $hips = $m->joint('b', $s->lanes['b']->figure->skeleton->roles['hips'])->position;
        $chest = $m->joint('b', $s->lanes['b']->figure->skeleton->roles['chest'])->position;
        $place = $m->place('c');
        foreach (range(0, $f->count() - 1) as $p) {
            $at = $place->point([$x[3 * $p], $x[3 * $p + 1], $x[3 * $p + 2]]);
            $along = V3::sub($chest, $hips);
            $t = max(0.0, min(1.0, V3::dot(V3::sub($at, $hips), $along) / V3::dot($along, $along)));
            expect(V3::distance($at, V3::addScaled($hips, $along, $t)))->toBeGreaterThan(0.15)->and($at[1])->toBeGreaterThan(0.0);
        }
    }
});

test('any frame first gives the same cloth, bit for bit', function (): void {
    $forward = clothed()->cloths['c'];
    $expected = [];
    foreach (range(0, 110, 10) as $f) {
        $expected[$f] = $forward->at($f);
    }
    $assets = new FakeAssets;
    $scene = clothed([], $assets);
    foreach (array_reverse(range(0, 110, 10)) as $f) {
        expect($scene->cloths['c']->at($f))->toBe($expected[$f]);
    }
    // And so does a process that finds what another kept.
    expect(clothed([], $assets)->cloths['c']->at(60))->toBe($expected[60]);
    // Between two frames it is half way.
    expect($forward->at(10.5)[7])->toEqualWithDelta(($forward->at(10)[7] + $forward->at(11)[7]) / 2, 1e-12);
});

test('pieces of a cloth are named by all that reached it, and by nothing else', function (): void {
    $names = static fn (CompiledScene $s): array => PoseStream::names($s, PoseStream::items($s))['c'];
    $beats = [Scenes::beat('w', 'b', 'walkToMark', 12), Scenes::beat('t', 'b', 'wave', 120)];
    $before = $names(clothed(['beats' => $beats]));
    // Another motion late on renames nothing early.
    $late = $names(clothed(['beats' => [$beats[0], Scenes::beat('t', 'b', 'talk', 120)]]));
    expect($late[0])->toBe($before[0])->and($late[2])->not->toBe($before[2]);
    // Another start renames all that follows: the cloth remembers.
    $early = $names(clothed(['beats' => [Scenes::beat('w', 'b', 'walkToMark', 10), $beats[1]]]));
    expect(array_intersect($early, $before))->toBe([]);
    expect(array_intersect($names(clothed(['beats' => $beats, 'wind' => ['speed' => 9]])), $before))->toBe([]);
    // A cloth on nobody is not touched by what performers do.
    $alone = static fn (string $motion): CompiledScene => Scenes::compile([
        'items' => [Scenes::item('b', 'bram'), Scenes::item('f', 'banner', 2.0, y: 2.0)],
        'beats' => [Scenes::beat('w', 'b', $motion, 0)],
    ]);
    expect($alone('talk')->cloths['f']->key(1))->toBe($alone('wave')->cloths['f']->key(1));
});

test('the pose stream carries the particles', function (): void {
    $s = Scenes::compile(['items' => [Scenes::item('f', 'banner', 2.0, y: 2.0)], 'beats' => []]);
    $track = PoseStream::items($s)['f'];
    expect($track->kind)->toBe('cloth')->and($track->particles)->toBe(75)->and($track->stride)->toBe(10 + 225);
    $piece = PoseStream::bake($s, [$track], 0)[0];
    expect(strlen($piece))->toBe(4 * 48 * 235);
    $row = array_values(unpack('g*', substr($piece, 4 * (30 * 235 + 10), 4 * 225)));
    expect($row)->toEqualWithDelta($s->cloths['f']->at(30), 1e-6);
    expect($s->cloths['f']->at(30))->not->toEqualWithDelta($s->cloths['f']->at(0), 1e-3);
});

test('a sudden change of place takes the cloth along', function (): void {
    $moves = [
        ['frame' => 0, 'position' => [0.0, 2.0, 0.0], 'rotation' => [0, 0, 0, 1], 'ease' => 'hold'],
        ['frame' => 20, 'position' => [8.0, 2.0, 0.0], 'rotation' => [0, 0, 0, 1], 'ease' => 'hold'],
    ];
    $s = Scenes::compile(['items' => [['moves' => $moves] + Scenes::item('f', 'banner', y: 2.0)]]);
    $worst = 0.0;
    foreach (range(19, 26) as $f) {
        $a = $s->cloths['f']->at($f);
        $b = $s->cloths['f']->at($f + 1);
        foreach ($a as $i => $v) {
            $worst = max($worst, abs($v - $b[$i]));
        }
    }
    // In its own space no particle jumps by more than a flutter.
    expect($worst)->toBeLessThan(0.25);
});

test('a file whose cloth makes no sense is refused when it comes in', function (array $facts, string $said): void {
    $glb = Ferry::pennant()->glb(extras: ['cloth' => $facts]);
    expect(fn () => AssetDigest::of(GltfReader::read($glb)))->toThrow(UnableToReadGltf::class, $said);
})->with([
    'a pin without corners' => [['pins' => [['weight' => 1]]], 'three numbers each'],
    'a corner of two numbers' => [['pins' => [['low' => [0, 0], 'high' => [1, 1, 1]]]], 'three numbers each'],
    'a corner of words' => [['pins' => [['low' => ['a', 'b', 'c'], 'high' => [1, 1, 1]]]], 'three numbers each'],
]);

/**
 * How a sheet of a kind, clamped along one edge and held out level, hangs and blows.
 *
 * @return array{droop: float, sway: float, hand: list<float>}
 */
function stuff(string $kind): array
{
    $facts = (new ClothKind($kind))
        ->over(['pins' => [['low' => [-1.0, -0.11, -1.0], 'high' => [2.0, 0.01, 1.0]]]]);
    $f = sheet(8, 0.8, $facts);
    // Held out level: what hung down lies along z.
    $start = $f->rest;
    for ($p = 0, $n = $f->count(); $p < $n; $p++) {
        [$start[3 * $p + 1], $start[3 * $p + 2]] = [0.0, -$f->rest[3 * $p + 1]];
    }
    $s = new ClothSolver($f, $start);
    $still = array_fill(0, 3 * $f->count(), 0.0);
    $tip = $f->count() - 1;
    $s->advance(360, $start, $start, $still, [], []);
    $droop = particle($s, $tip)[1];
    $gust = $still;
    for ($p = 0; $p < $f->count(); $p++) {
        $gust[3 * $p + 2] = 5.0;
    }
    $s->advance(240, $start, $start, $gust, [], []);
    $sway = particle($s, $tip)[2];

    return ['droop' => -$droop, 'sway' => $sway, 'hand' => $s->x];
}

test('the six kinds of cloth hang and blow each in its own way', function (): void {
    $all = array_map(stuff(...), array_combine(array_keys(ClothKind::ALL), array_keys(ClothKind::ALL)));
    // Of 70 cm that stand out, what is soft hangs down whole, canvas and leather by two thirds.
    expect($all['silk']['droop'])->toBeGreaterThan(0.66)->and($all['cotton']['droop'])->toBeGreaterThan(0.66)->and($all['wool']['droop'])
        ->toBeGreaterThan(0.66);
    expect($all['oilskin']['droop'])->toBeGreaterThan($all['canvas']['droop'] + 0.1)->and($all['canvas']['droop'])
        ->toBeGreaterThan($all['leather']['droop'] + 0.02);
    // In the wind the light ones fly.
    expect($all['silk']['sway'])->toBeGreaterThan($all['wool']['sway'] + 0.03)->and($all['cotton']['sway'])
        ->toBeGreaterThan($all['oilskin']['sway'] + 0.03);
    // No two are alike: somewhere at least 2 cm apart.
    foreach ($all as $a => $one) {
        foreach ($all as $b => $other) {
            if ($a < $b) {
                expect(max(array_map(static fn (float $p, float $q): float => abs($p - $q), $one['hand'], $other['hand'])))
                    ->toBeGreaterThan(0.02, "{$a} and {$b}");
            }
        }
    }
});

test('a hinge bends no flat sheet, and brings a folded one back without moving its weight', function (): void {
    $flat = sheet(4, 0.4, ['bend' => 0.8]);
    $count = 3 * $flat->count();
    $still = array_fill(0, $count, 0.0);
    // In free fall nothing but the fabric acts: a flat sheet stays flat to the unevenness that it begins with.
    $s = new ClothSolver($flat, $flat->rest);
    $s->advance(30, $flat->rest, $flat->rest, $still);
    $z = static fn (ClothSolver $s): array => array_values(array_filter(
        $s->x,
        static fn (int $k): bool => $k % 3 === 2,
        ARRAY_FILTER_USE_KEY,
    ));
    expect(max($z($s)) - min($z($s)))->toBeLessThan(0.004);
    // Folded by 60 degrees along its middle, it opens by itself; limp stuff does so far less.
    $opened = [];
    foreach (['stiff' => 0.8, 'limp' => 0.01] as $name => $bend) {
        $f = sheet(4, 0.4, ['bend' => $bend]);
        $start = $f->rest;
        for ($p = 0; $p < $f->count(); $p++) {
            $below = max(0.0, -0.2 - $start[3 * $p + 1]);
            [$start[3 * $p + 1], $start[3 * $p + 2]] = [$start[3 * $p + 1] + $below * (1 - cos(M_PI / 3)), $below * sin(M_PI / 3)];
        }
        $s = new ClothSolver($f, $start);
        $s->advance(12, $start, $start, $still);
        // Half the mass is on either side of the fold: the fall is that of one body.
        $fallen = array_sum(array_map(
            static fn (int $p): float => $f->mass[$p] * ($s->x[3 * $p + 1] - $start[3 * $p + 1]),
            range(0, $f->count() - 1),
        )) / array_sum($f->mass);
        expect($fallen)->toEqualWithDelta(-9.81 / 2 * 0.1 ** 2, 0.008);
        [$a, $b] = [V3::unit(V3::sub(particle($s, 12), particle($s, 2))), V3::unit(V3::sub(particle($s, 22), particle($s, 12)))];
        $opened[$name] = 60.0 - rad2deg(acos(min(1.0, V3::dot($a, $b))));
    }
    expect($opened['stiff'])->toBeGreaterThan(20.0)->and($opened['limp'])->toBeLessThan($opened['stiff'] / 1.5, json_encode($opened));
});

test('what a cloth is made of is chosen in the scene, number by number, and the file\'s own is left when nothing is', function (): void {
    $silk = ClothKind::from(new Input(['kind' => 'silk', 'bend' => 0.3]));
    expect($silk->over(['bend' => 0.9, 'worn' => 'upperChest']))
        ->toBe(['kilogramsPerSquareMetre' => 0.06, 'bend' => 0.3, 'catch' => 1.15, 'damping' => 0.35, 'worn' => 'upperChest']);
    foreach ([['kind' => 'velvet'], ['kind' => 'silk', 'grams' => 1.0], ['kind' => 'silk', 'damping' => 1.0]] as $bad) {
        expect(static fn () => ClothKind::from(new Input($bad)))->toThrow(UnableToReadDocument::class);
    }
    $mass = static fn (array $item): float => array_sum(
        Scenes::compile(['items' => [Scenes::item('f', 'banner') + $item]])->cloths['f']->fabric->mass
    );
    expect($mass(['cloth' => ['kind' => 'leather']]) / $mass(['cloth' => ['kind' => 'silk']]))->toEqualWithDelta(1000 / 60, 0.02);
    expect($mass([]) / $mass(['cloth' => ['kind' => 'cotton', 'grams' => 220]]))->toEqualWithDelta(1.0, 1e-6);
});
