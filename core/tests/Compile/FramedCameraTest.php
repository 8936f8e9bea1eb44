<?php

declare(strict_types=1);

use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Staging\Loosen;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Oda talks and Bram walks, filmed by camera c1.
 *
 * @param  array<string, mixed>  ...$framings
 */
function filmed(array $items, array ...$framings): CompiledScene
{
    static $memory = new Memory;
    $n = 0;

    return Scenes::compile([
        'items' => $items, 'beats' => [Scenes::beat('b1', 'i1', 'talk', 0), Scenes::beat('b2', 'i2', 'walk', 24)],
        'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => array_map(static function (array $f) use (&$n): array {
            $n++;

            return $f + ['id' => "f{$n}", 'camera' => 'c1', 'subject' => 'i1', 'size' => 'mediumCloseUp', 'sideDeg' => 30.0, 'frame' => 12];
        }, array_values($framings)),
    ], null, $memory);
}

/** @return list<array<string, mixed>> */
function both(float $dx = 0.0, float $turn = 0.0): array
{
    $at = static fn (float $x, float $z): array => V3::add(Q4::rotate(Q4::aroundY(deg2rad($turn)), [$x, 0.0, $z]), [$dx, 0.0, 0.0]);
    [$a, $b] = [$at(0.0, 0.0), $at(0.0, 1.4)];

    return [Scenes::item('i1', 'oda', $a[0], $a[2], $turn), Scenes::item('i2', 'bram', $b[0], $b[2], 180.0 + $turn)];
}

function cameraAt(CompiledScene $s, float $frame, string $id = 'c1'): CameraPose
{
    return SceneEvaluator::at($s, $frame)->cameras[$id];
}

test('a framing moves with whom it films, and turns with her', function (): void {
    $here = cameraAt(filmed(both(), []), 12);
    foreach ([[3.5, 0.0], [-2.0, 70.0]] as [$dx, $turn]) {
        $there = cameraAt(filmed(both($dx, $turn), []), 12);
        $moved = new Placement([$dx, 0.0, 0.0], Q4::aroundY(deg2rad($turn)));
        expect($there->position)->toEqualWithDelta($moved->point($here->position), 0.002)
            ->and(Q4::angleBetween($there->rotation, Q4::mul($moved->rotation, $here->rotation)))->toBeLessThan(0.002);
    }
});

test('it keeps her where she is in the picture, goes along, or stands still', function (): void {
    $walker = ['subject' => 'i2', 'size' => 'full', 'sideDeg' => 60.0];
    $hips = static fn (CompiledScene $s, float $f): array => $s->poses->at($f)->joint('i2', $s->lanes['i2']->figure->hips)->position;
    $found = [];
    foreach (['still', 'turn', 'follow'] as $keep) {
        $s = filmed(both(), ['keep' => $keep] + $walker);
        $pictures = array_map(static fn (int $f): array => cameraAt($s, $f)->project($hips($s, $f), 16 / 9), [12, 60, 84, 108]);
        $found[$keep] = [
            max(array_map(static fn (array $p): float => abs($p[0] - $pictures[0][0]), $pictures)),
            V3::distance(cameraAt($s, 12)->position, cameraAt($s, 108)->position),
        ];
        if ($keep === 'follow') {
            expect($found[$keep][1])->toEqualWithDelta(V3::distance($hips($s, 12), $hips($s, 108)), 0.35);
        }
    }
    expect($found['still'][1])->toBe(0.0)->and($found['still'][0])->toBeGreaterThan(0.5)->and($found['turn'][1])->toBe(0.0)
        ->and($found['turn'][0])->toBeLessThan(0.12)->and($found['follow'][0])->toBeLessThan(0.12);
});

test('a camera that goes along does not jerk', function (): void {
    $s = filmed(both(), ['subject' => 'i2', 'size' => 'full', 'sideDeg' => 60.0, 'keep' => 'follow']);
    $at = array_map(static fn (int $f): array => cameraAt($s, $f)->position, range(20, 110));
    $most = 0.0;
    for ($i = 2; $i < count($at); $i++) {
        $most = max($most, V3::length(V3::add(V3::sub($at[$i], V3::mul($at[$i - 1], 2.0)), $at[$i - 2])) * 24 * 24);
    }
    expect($most)->toBeLessThan(4.0, 'm/s2');
});

test('a move leads from one framing to the other, at no frame with a leap, and round her rather than through her', function (): void {
    $s = filmed(both(), ['sideDeg' => -60.0], ['frame' => 30, 'over' => 36, 'sideDeg' => 60.0]);
    $alone = filmed(both(), ['sideDeg' => 60.0, 'frame' => 30]);
    expect(cameraAt($s, 66)->position)->toEqualWithDelta(cameraAt($alone, 66)->position, 0.001)
        ->and(cameraAt($s, 29)->position)->toEqualWithDelta(cameraAt(filmed(both(), ['sideDeg' => -60.0]), 29)->position, 0.001);
    $head = static fn (int $f): array => $s->poses->at($f)->face('i1');
    $far = V3::distance(cameraAt($s, 20)->position, $head(20));
    for ($f = 29; $f < 68; $f++) {
        expect(V3::distance(cameraAt($s, $f)->position, cameraAt($s, $f + 1)->position))->toBeLessThan(0.2)
            ->and(V3::distance(cameraAt($s, $f)->position, $head($f)))->toBeGreaterThan(0.8 * $far);
    }
});

test('pulling focus moves nothing but what is sharp', function (): void {
    $s = filmed(both(), [], ['frame' => 40, 'over' => 24, 'focus' => 'i2']);
    $alone = filmed(both(), []);
    $metres = static function (CompiledScene $s, int $f, string $who): float {
        $c = cameraAt($s, $f);

        return V3::dot(V3::sub($s->poses->at($f)->face($who), $c->position), Q4::rotate($c->rotation, [0.0, 0.0, -1.0]));
    };
    foreach ([20, 40, 52, 64, 90] as $f) {
        expect(cameraAt($s, $f)->position)->toBe(cameraAt($alone, $f)->position)
            ->and(cameraAt($s, $f)->rotation)->toBe(cameraAt($alone, $f)->rotation);
    }
    expect(cameraAt($s, 30)->focusMetres)->toEqualWithDelta($metres($s, 30, 'i1'), 0.06)
        ->and(cameraAt($s, 70)->focusMetres)->toEqualWithDelta(abs($metres($s, 70, 'i2')), 0.12);
    $way = array_map(static fn (int $f): float => cameraAt($s, $f)->focusMetres, range(40, 64));
    expect($way)->toBe(array_unique($way, SORT_REGULAR));
});

test('a truck goes aside by so many metres, straight, and looks the same way', function (): void {
    $s = filmed(both(), ['keep' => 'still'], ['frame' => 40, 'over' => 24, 'shift' => [1.0, 0.3, 0.0], 'keep' => 'still']);
    [$from, $to] = [cameraAt($s, 30), cameraAt($s, 70)];
    $by = V3::sub($to->position, $from->position);
    $right = Q4::rotate($from->rotation, [1.0, 0.0, 0.0]);
    expect(V3::dot($by, $right))->toEqualWithDelta(1.0, 0.001)->and($by[1])->toEqualWithDelta(0.3, 0.02)
        ->and(Q4::angleBetween($from->rotation, $to->rotation))->toBeLessThan(1e-6);
    for ($f = 41; $f < 64; $f++) {
        $at = V3::sub(cameraAt($s, $f)->position, $from->position);
        $along = V3::mul($by, V3::dot($at, $by) / V3::dot($by, $by));
        expect(V3::distance($at, $along))->toBeLessThan(0.002);
    }
});

test('a reveal begins where she is not seen, and comes to her', function (): void {
    $s = filmed(both(), ['keep' => 'still', 'shift' => [-2.0, 0.0, 0.0]], ['frame' => 13, 'over' => 48]);
    $x = static fn (int $f): float => cameraAt($s, $f)->project($s->poses->at($f)->face('i1'), 16 / 9)[0];
    expect($x(12))->toBeGreaterThan(1.0)->and(abs($x(64)))->toBeLessThan(0.3);
});

test('a piece of a camera is named by what those do whom it films, and by nothing else', function (): void {
    $names = static function (CompiledScene $s): array {
        return PoseStream::names($s, PoseStream::cameras($s))['c1'];
    };
    $before = $names(filmed(both(), []));
    $items = both();
    $items[1]['position'][0] += 1.0;
    $items[0]['name'] = 'Somebody else';
    expect($names(filmed($items, [])))->toBe($before)->and($names(filmed(both(0.5), [])))->not->toBe($before)
        ->and($names(filmed(both(), ['partner' => 'i2'])))->not->toBe($before);
});

test('poses in the stream are those of the camera', function (): void {
    $s = filmed(both(), []);
    $rows = array_values(unpack('g*', PoseStream::bake($s, [PoseStream::cameras($s)['c1']], 1)[0]));
    $c = cameraAt($s, 50);
    expect(array_slice($rows, 20, 10))->toEqualWithDelta([...$c->position, ...$c->rotation, $c->focalMm, $c->focusMetres, $c->fStop], 1e-4);
});

test('what cannot be framed is told, and the camera stands where its keys have it', function (): void {
    $s = filmed(both(), ['kind' => 'overShoulder', 'partner' => 'i2', 'size' => 'medium', 'frame' => 110]);
    $codes = array_map(static fn ($n): string => $n->code, $s->notes);
    expect($codes)->toContain('camera.framing')->and(cameraAt($s, 12)->position)->toBe([0.0, 1.5, 5.0]);
});

test('loosened, it leads the same way by few keys', function (): void {
    $s = filmed(
        both(), ['subject' => 'i2', 'size' => 'full', 'keep' => 'follow'],
        ['subject' => 'i2', 'size' => 'medium', 'frame' => 50, 'over' => 30],
    );
    $keys = Loosen::keys($s->framed['c1'], 0, 110);
    expect(count($keys))->toBeGreaterThan(3)->toBeLessThan(90);
    $loose = Scenes::compile([
        'items' => both(), 'beats' => [Scenes::beat('b1', 'i1', 'talk', 0), Scenes::beat('b2', 'i2', 'walk', 24)],
        'cameras' => [['id' => 'c1', 'letter' => 'A', 'name' => '', 'keys' => array_map(static fn ($k): array => $k->toArray(), $keys)]],
    ]);
    $most = 0.0;
    for ($f = 0; $f <= 110; $f++) {
        [$a, $b] = [cameraAt($s, $f), cameraAt($loose, $f)];
        foreach ([[0.0, -0.8, 0.0], [0.3, 0.1, 0.2], [0.0, 0.8, 0.0]] as $off) {
            $p = V3::add($s->poses->at($f)->joint('i2', $s->lanes['i2']->figure->hips)->position, $off);
            [$x, $y] = [$a->project($p, 16 / 9), $b->project($p, 16 / 9)];
            $most = max($most, 640 * hypot($x[0] - $y[0], ($x[1] - $y[1]) / (16 / 9)));
        }
    }
    expect($most)->toBeLessThan(1.0, 'pixels of 1280');
});

test('a thing is filmed by the box around it', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('i1', 'lantern', 1.0, 2.0)], 'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [['id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'size' => 'threeQuarter', 'sideDeg' => 20.0]],
    ]);
    [$x, $y] = cameraAt($s, 0)->project([1.0, 0.5, 2.0], 16 / 9);
    expect(abs($x))->toBeLessThan(0.1)->and(abs($y))->toBeLessThan(0.1)->and($s->notes)->toBe([]);
});

test('another file in its place is framed anew, whoever remembers the old one', function (): void {
    $memory = new Memory;
    $of = static fn (string $asset): CompiledScene => Scenes::compile([
        'items' => [Scenes::item('i1', $asset, 1.0, 2.0)], 'cameras' => [Scenes::camera('c1', [[]])],
        'framings' => [['id' => 'f1', 'camera' => 'c1', 'subject' => 'i1', 'size' => 'threeQuarter']],
    ], null, $memory);
    expect(cameraAt($of('lantern'), 0)->position)->not->toEqual(cameraAt($of('boat'), 0)->position);
});
