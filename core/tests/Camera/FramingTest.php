<?php

declare(strict_types=1);

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\BoxFit;
use CrispReel\Core\Camera\CutLines;
use CrispReel\Core\Camera\Framer;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Landmarks;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Camera\OverShoulder;
use CrispReel\Core\Camera\Refusal;
use CrispReel\Core\Camera\ShotSize;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Tests\Support\FakeAssets;

const WIDE = 16 / 9;

/** @return list<float> a row of a motion, or of standing at rest */
function rowOf(string $who, ?string $model, float $seconds): array
{
    $f = figure($who);

    return $model === null ? [...($f->rest('hips') ?? [0.0, 1.0, 0.0]), ...$f->skeleton->rotations] : solved($who, $model)->at($seconds);
}

function marksOf(string $who, Placement $at, ?string $model = null, float $seconds = 0.0): Marks
{
    static $made = [];
    $made[$who] ??= Landmarks::of(figure($who), new FakeAssets, new AssetRef($who, 'performer', $who, $who, $who));

    return $made[$who]->posed(figure($who), $at, rowOf($who, $model, $seconds));
}

/**
 * All vertices of a figure as the picture draws them, skinned here by plain matrices from the file's own inverse bind matrices.
 *
 * @return list<array{array{float, float, float}, string, float, array<string, float>}> place, material, height at rest, shares by joint
 */
function drawnVertices(string $who, Placement $at, array $row): array
{
    static $read = [];
    $gltf = GltfReader::read(FakeAssets::glb($who));
    $read[$who] ??= $gltf->primitives();
    $skin = $gltf->list('skins')[0];
    $names = array_column($gltf->list('nodes'), 'name');
    $inverse = array_chunk($gltf->accessor($skin['inverseBindMatrices'], 'inverse'), 16);
    $s = figure($who)->skeleton;
    $world = [];
    foreach ($s->parents as $j => $p) {
        $t = $j === figure($who)->hips ? [$row[0], $row[1], $row[2]] : $s->restTranslation($j);
        $own = plainMatrix($t, array_slice($row, 3 + 4 * $j, 4));
        $above = $p < 0 ? plainMatrix($at->position, $at->rotation, $at->scale) : $world[$s->names[$p]];
        $world[$s->names[$j]] = plainProduct($above, $own);
    }
    $joints = [];
    foreach ($skin['joints'] as $k => $node) {
        $joints[$k] = plainProduct($world[$names[$node]], plainColumns($inverse[$k]));
    }
    $out = [];
    foreach ($read[$who] as [, $p]) {
        $material = $gltf->list('materials')[$p['material']]['name'];
        foreach (array_chunk($p['positions'], 3) as $i => $v) {
            [$sum, $shares] = [[0.0, 0.0, 0.0], []];
            for ($k = 4 * $i; $k < 4 * $i + 4; $k++) {
                $w = $p['weights'][$k];
                if ($w > 0.0) {
                    $m = $joints[$p['joints'][$k]];
                    $name = $names[$skin['joints'][$p['joints'][$k]]];
                    $shares[$name] = ($shares[$name] ?? 0.0) + $w;
                    for ($r = 0; $r < 3; $r++) {
                        $sum[$r] += $w * ($m[$r][0] * $v[0] + $m[$r][1] * $v[1] + $m[$r][2] * $v[2] + $m[$r][3]);
                    }
                }
            }
            $out[] = [$sum, $material, $v[1], $shares];
        }
    }

    return $out;
}

/** @return list<list<float>> rows of 4 */
function plainMatrix(array $t, array $q, float $k = 1.0): array
{
    [$x, $y, $z, $w] = $q;

    return [
        [$k * (1 - 2 * $y * $y - 2 * $z * $z), $k * (2 * $x * $y - 2 * $z * $w), $k * (2 * $x * $z + 2 * $y * $w), $t[0]],
        [$k * (2 * $x * $y + 2 * $z * $w), $k * (1 - 2 * $x * $x - 2 * $z * $z), $k * (2 * $y * $z - 2 * $x * $w), $t[1]],
        [$k * (2 * $x * $z - 2 * $y * $w), $k * (2 * $y * $z + 2 * $x * $w), $k * (1 - 2 * $x * $x - 2 * $y * $y), $t[2]],
        [0.0, 0.0, 0.0, 1.0],
    ];
}

/** @return list<list<float>> */
function plainColumns(array $m): array
{
    return [
        [$m[0], $m[4], $m[8], $m[12]], [$m[1], $m[5], $m[9], $m[13]], [$m[2], $m[6], $m[10], $m[14]], [$m[3], $m[7], $m[11], $m[15]],
    ];
}

/** @return list<list<float>> */
function plainProduct(array $a, array $b): array
{
    $out = [];
    for ($r = 0; $r < 4; $r++) {
        for ($c = 0; $c < 4; $c++) {
            $out[$r][$c] = $a[$r][0] * $b[0][$c] + $a[$r][1] * $b[1][$c] + $a[$r][2] * $b[2][$c] + $a[$r][3] * $b[3][$c];
        }
    }

    return $out;
}

/** Where a point is seen, worked out here: the scene turned into the camera's axes, divided by the distance. */
function seenAt(Aim $aim, array $p, float $mm = 36.0): array
{
    $d = [$p[0] - $aim->position[0], $p[1] - $aim->position[1], $p[2] - $aim->position[2]];
    [$sy, $cy, $sp, $cp] = [sin($aim->yaw), cos($aim->yaw), sin($aim->pitch), cos($aim->pitch)];
    $right = -$d[0] * $cy + $d[2] * $sy;
    $level = $d[0] * $sy + $d[2] * $cy;
    $half = $mm / 2 / $aim->focalMm;
    $depth = $level * $cp + $d[1] * $sp;

    return [$right / $depth / $half, ($d[1] * $cp - $level * $sp) / $depth / $half * WIDE, $depth];
}

test('a point is put at a place of the picture, from anywhere', function (): void {
    $gate = new Gate(WIDE);
    foreach ([[0.0, 0.0], [0.4, -0.3], [-0.8, 0.6]] as [$x, $y]) {
        foreach ([[3.0, 1.5, 2.0], [-2.0, 4.0, 1.0], [0.5, 0.2, -3.0]] as $from) {
            $aim = Aim::at($from, [0.3, 1.1, -0.2], $x, $y, 50.0, $gate);
            expect(array_slice(seenAt($aim, [0.3, 1.1, -0.2]), 0, 2))->toEqualWithDelta([$x, $y], 1e-9)
                ->and(array_slice($aim->project([0.3, 1.1, -0.2], $gate), 0, 2))->toEqualWithDelta([$x, $y], 1e-9);
        }
    }
});

test('two points are seen under an angle from one distance, exactly', function (): void {
    // From the height of the lower one, 3 m away, a point 1 m higher is seen atan(1/3) up.
    expect(CutLines::distance(1.0, 0.0, 0.0, 0.0, 0.0, atan(1 / 3)))->toEqualWithDelta(3.0, 1e-9)
        // Level with the middle of 2 m, half of it to each side: 2 atan(1/4) at 4 m.
        ->and(CutLines::distance(1.0, 0.0, -1.0, 0.0, 0.0, 2 * atan(1 / 4)))->toEqualWithDelta(4.0, 1e-9);
});

test('cut lines fall where they are to, told by the drawn vertices', function (
    string $who, ?string $model, float $seconds, float $scale,
): void {
    $at = Placement::standing([1.0, 0.0, -2.0], 40.0, $scale);
    $marks = marksOf($who, $at, $model, $seconds);
    $drawn = drawnVertices($who, $at, rowOf($who, $model, $seconds));
    $head = array_values(array_filter($drawn, static fn (array $v): bool => ($v[3]['head'] ?? 0.0) > 0.5));
    $feet = array_values(array_filter($drawn, static fn (array $v): bool => array_sum(array_intersect_key(
        $v[3],
        ['footL' => 1, 'footR' => 1, 'toesL' => 1, 'toesR' => 1],
    )) > 0.5));
    expect(count($head))->toBeGreaterThan(500)->and(count($feet))->toBeGreaterThan(100);
    foreach (['mediumCloseUp', 'medium', 'threeQuarter', 'full', 'wide'] as $size) {
        foreach ([0.0, 35.0, -90.0, 180.0] as $side) {
            foreach ([['level', 50.0], ['low', 28.0], ['high', 85.0]] as [$height, $lens]) {
                $framing = new Framing('f1', 'c1', 'i1', size: $size, sideDeg: $side, height: $height, focalMm: $lens);
                $aim = Framer::solve($framing, $marks, [], new Gate(WIDE));
                $size_ = ShotSize::named($size, $marks->posture);
                $top = max(array_map(static fn (array $v): float => seenAt($aim, $v[0])[1], $head));
                expect($top)->toEqualWithDelta($size_->topAt, 0.02, "{$who} {$size} {$side} {$height}: top");
                if ($size_->bottom === 'sole') {
                    $low = min(array_map(static fn (array $v): float => seenAt($aim, $v[0])[1], $feet));
                    expect($low)->toEqualWithDelta($size_->bottomAt, 0.02, "{$who} {$size} {$side} {$height}: sole");
                }
            }
        }
    }
})->with([
    'Oda at rest' => ['oda', null, 0.0, 1.0], 'Bram under his cap' => ['bram', null, 0.0, 1.0],
    'Bram walking' => ['bram', 'walk', 0.9, 1.0],
    'Oda talking, as small as a child' => ['oda', 'talk', 1.3, 0.66],
]);

test('the sizes are steps of the same ladder, and who looks aside has room to look into', function (): void {
    $marks = marksOf('oda', Placement::standing([0.0, 0.0, 0.0], 0.0));
    $far = [];
    foreach (Framing::SIZES as $size) {
        $aim = Framer::solve(new Framing('f1', 'c1', 'i1', size: $size, sideDeg: 60.0), $marks, [], new Gate(WIDE));
        $eyes = $marks->middle('eyes');
        $far[] = hypot($aim->position[0] - $eyes[0], $aim->position[2] - $eyes[2]);
        // She faces +z and is seen from her left: in the picture she looks to the left, and stands right of the middle.
        expect(seenAt($aim, $eyes)[0])->toBeGreaterThan(0.05)->and(seenAt($aim, [$eyes[0], $eyes[1], $eyes[2] + 0.1])[0])
            ->toBeLessThan(seenAt($aim, $eyes)[0]);
    }
    for ($i = 1; $i < count($far); $i++) {
        expect($far[$i] / $far[$i - 1])->toBeGreaterThan(1.1)->toBeLessThan(2.8);
    }
});

test('a pair over the shoulder matches, and the one in front covers its share', function (float $apart, float $scale, float $lens): void {
    $a = marksOf('oda', Placement::standing([0.0, 0.0, 0.0], 0.0, $scale));
    $b = marksOf('bram', Placement::standing([0.0, 0.0, $apart], 180.0));
    $gate = new Gate(WIDE);
    $tall = [];
    foreach ([[$a, $b, 1.0, 'bram'], [$b, $a, -1.0, 'oda']] as [$speaker, $listener, $hand, $front]) {
        $aim = OverShoulder::solve($speaker, $listener, 'medium', $hand, $lens, $gate);
        expect($aim)->toBeInstanceOf(Aim::class, $aim instanceof Refusal ? $aim->sentence : '');
        $eyes = $speaker->middle('eyes');
        $chin = seenAt($aim, $speaker->middle('chin'));
        $in = array_filter(
            [...$listener->of('crown'), ...$listener->of('mass')],
            static fn (array $p): bool => seenAt($aim, $p)[1] > $chin[1] - 0.25,
        );
        $inner = array_map(static fn (array $p): float => seenAt($aim, $p)[0] * $hand, $in);
        // On the left for a positive hand: from the edge at -1 to its innermost point.
        expect((max($inner) + 1) / 2)->toBeGreaterThan(0.26)->toBeLessThan(0.42)
            ->and(max(array_map(static fn (array $e): float => seenAt($aim, $e)[1], $speaker->of('eyes'))))->toEqualWithDelta(0.36, 0.01)
            ->and(seenAt($aim, $eyes)[0] * $hand)->toBeGreaterThan(max($inner));
        $tall[] = seenAt($aim, $eyes)[1] - $chin[1];
    }
    expect($tall[0] / $tall[1])->toBeGreaterThan(0.7)->toBeLessThan(1.4);
})->with([
    'as they talk' => [1.2, 1.0, 50.0], 'close' => [0.9, 1.0, 65.0], 'farther' => [1.8, 1.0, 85.0],
    'a child and a man' => [1.2, 0.75, 65.0],
]);

test('what cannot be seen over a shoulder is refused in words', function (Placement $b, string $says): void {
    $found = OverShoulder::solve(
        marksOf('oda', Placement::standing([0.0, 0.0, 0.0], 0.0)), marksOf('bram', $b), 'medium', 1.0, 50.0, new Gate(WIDE),
    );
    expect($found)->toBeInstanceOf(Refusal::class)->and($found->sentence)->toContain($says);
})->with([
    'too near' => [Placement::standing([0.0, 0.0, 0.3], 180.0), 'too near'],
    'too far' => [Placement::standing([0.0, 0.0, 5.0], 180.0), 'too far'],
    'back to back' => [Placement::standing([0.0, 0.0, 1.2], 0.0), 'do not face'],
]);

test('two in one picture are both in it, to the line that is asked for', function (): void {
    $a = marksOf('oda', Placement::standing([0.0, 0.0, 0.0], 0.0));
    $b = marksOf('bram', Placement::standing([0.0, 0.0, 1.5], 180.0));
    foreach (['medium' => 'belt', 'full' => 'body'] as $size => $low) {
        $f = new Framing('f1', 'c1', 'i1', 'i2', kind: 'together', size: $size, sideDeg: 90.0);
        $aim = Framer::solve($f, $a, [$b], new Gate(WIDE));
        foreach ([$a, $b] as $m) {
            foreach ([...$m->of('crown'), ...$m->of('mass'), ...$m->of($low)] as $p) {
                [$x, $y] = seenAt($aim, $p);
                expect(abs($x))->toBeLessThan(0.81)->and($y)->toBeGreaterThan(-1.01)->toBeLessThan(0.87);
            }
        }
    }
});

test('points are held by the smallest distance at which they fit', function (): void {
    $points = [[-1.0, 0.0, 0.0], [1.0, 0.0, 0.0], [0.0, 1.0, 0.5]];
    $aim = BoxFit::solve($points, [-0.8, 0.8, -0.8, 0.8], 0.3, 0.2, 35.0, new Gate(WIDE));
    $most = max(array_map(static fn (array $p): float => max(array_map(abs(...), array_slice(seenAt($aim, $p), 0, 2))), $points));
    expect($most)->toEqualWithDelta(0.8, 0.005);
});

test('who sits and who kneels is told by the joints', function (): void {
    $j = static fn (array $more): array => $more + [
        'hips' => [0.0, 0.9, 0.0], 'neck' => [0.0, 1.4, 0.0], 'upperLegL' => [0.1, 0.85, 0.0], 'lowerLegL' => [0.1, 0.45, 0.0],
        'footL' => [0.1, 0.08, 0.0], 'upperLegR' => [-0.1, 0.85, 0.0], 'lowerLegR' => [-0.1, 0.45, 0.0], 'footR' => [-0.1, 0.08, 0.0],
    ];
    $posture = static fn (array $joints): string => Marks::ofPerson(['body' => [[0.0, 0.0, 0.0]]], $joints, 0.0, 0.82)->posture;
    expect($posture($j([])))->toBe('standing')
        ->and($posture($j([
            'hips' => [0.0, 0.5, 0.0], 'neck' => [0.0, 1.0, 0.0], 'upperLegL' => [0.1, 0.48, 0.0], 'lowerLegL' => [0.1, 0.46, 0.4],
            'footL' => [0.1, 0.08, 0.4], 'upperLegR' => [-0.1, 0.48, 0.0], 'lowerLegR' => [-0.1, 0.46, 0.4], 'footR' => [-0.1, 0.08, 0.4],
        ])))->toBe('seated')
        ->and($posture($j(['hips' => [0.0, 0.2, 0.0], 'neck' => [0.0, 0.25, 0.5]])))->toBe('lying')
        ->and($posture($j(['hips' => [0.0, 0.55, 0.0], 'lowerLegL' => [0.1, 0.1, 0.1], 'footL' => [0.1, 0.08, -0.3]])))->toBe('kneeling');
});
