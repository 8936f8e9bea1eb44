<?php

declare(strict_types=1);

use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\UnableToReadGltf;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Intake\Settle;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Math\M4;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Spoiled;

/** @return array<string, Finding> by code */
function findingsOf(Examination $e): array
{
    return array_combine(array_map(static fn (Finding $f): string => $f->code, $e->findings), $e->findings);
}

/** @return array{list<float>, list<float>} */
function boundsOf(string $glb): array
{
    return AssetDigest::of(GltfReader::read($glb))['bounds'];
}

/** Largest distance between the joints of two figures at rest, metres. */
function jointsApart(string $a, string $b): float
{
    $places = array_map(static function (string $glb): array {
        $s = new Subject(GltfDraft::open($glb), 'glb');
        $out = [];
        foreach ($s->skeleton()->roles ?? [] as $role => $j) {
            $out[$role] = $s->place($role);
        }

        return $out;
    }, [$a, $b]);
    expect(array_keys($places[1]))->toEqualCanonicalizing(array_keys($places[0]));
    $worst = 0.0;
    foreach ($places[0] as $role => $p) {
        $worst = max($worst, V3::distance($p, $places[1][$role]));
    }

    return $worst;
}

test('a good figure stays as it is', function (): void {
    $e = Examination::of(Spoiled::good(), 'glb');
    expect($e->kind)->toBe('performer')->and(array_keys(findingsOf($e)))->toBe(['shapes'])->and($e->shapes)->toBe(35)
        ->and($e->parts->inFile)->toBe(count($e->parts->made))->and($e->parts->skipped)->toBe([]);
    foreach ([0, 1] as $end) {
        foreach (boundsOf($e->glb)[$end] as $k => $v) {
            expect($v)->toEqualWithDelta(boundsOf(Spoiled::good())[$end][$k], 1e-5);
        }
    }
    expect(jointsApart(Spoiled::good(), $e->glb))->toBeLessThan(1e-6);
});

test('centimetres, Z up, facing away and hanging in the air: mended unasked to what it was', function (
    float $scale, array $turn, array $move, array $expected,
): void {
    $e = Examination::of(Spoiled::under(Spoiled::good(), $scale, $turn, $move), 'glb');
    $found = findingsOf($e);
    foreach ($expected as $code) {
        expect($found)->toHaveKey($code)->and($found[$code]->mended)->toBeTrue();
    }
    [$low, $high] = boundsOf($e->glb);
    expect($low[1])->toEqualWithDelta(0.0, 1e-4)->and($high[1])->toEqualWithDelta(boundsOf(Spoiled::good())[1][1], 0.002);
    // Eyes look along +Z: the nose's side of the head is in front.
    $s = new Subject(GltfDraft::open($e->glb), 'glb');
    expect($s->place('toesL')[2] - $s->place('footL')[2])->toBeGreaterThan(0.02)->and($s->place('handL')[0])->toBeGreaterThan(0.2);
})->with([
    'centimetres' => [100.0, [0.0, 0.0, 0.0, 1.0], [0.0, 0.0, 0.0], ['size']],
    'inches' => [39.3701, [0.0, 0.0, 0.0, 1.0], [0.0, 0.0, 0.0], ['size']],
    'millimetres' => [1000.0, [0.0, 0.0, 0.0, 1.0], [0.0, 0.0, 0.0], ['size']],
    'Z up' => [1.0, Q4::aroundX(M_PI / 2), [0.0, 0.0, 0.0], ['lying']],
    'on its head' => [1.0, Q4::aroundZ(M_PI), [0.0, 0.0, 0.0], ['lying']],
    'facing away' => [1.0, Q4::aroundY(M_PI), [0.0, 0.0, 0.0], ['facing']],
    'facing left' => [1.0, Q4::aroundY(M_PI / 2), [0.0, 0.0, 0.0], ['facing']],
    'in the air' => [1.0, [0.0, 0.0, 0.0, 1.0], [0.0, 0.4, 0.0], ['ground']],
    'far away' => [1.0, [0.0, 0.0, 0.0, 1.0], [300.0, 0.0, -40.0], ['ground']],
    'all at once' => [100.0, Q4::mul(Q4::aroundX(M_PI / 2), Q4::aroundY(M_PI)), [3000.0, 0.0, 20.0], ['lying', 'facing', 'size', 'ground']],
]);

test('a repair that is refused is not done, and the finding says so', function (): void {
    $bad = Spoiled::under(Spoiled::good(), 100.0);
    $e = Examination::of($bad, 'glb', ['size' => false]);
    expect(findingsOf($e)['size']->mended)->toBeFalse()->and(boundsOf($e->glb)[1][1])->toBeGreaterThan(150.0);
    $byHand = Examination::of($bad, 'glb', ['size' => ['factor' => 0.005]]);
    expect(boundsOf($byHand->glb)[1][1])->toEqualWithDelta(0.897, 0.01);
});

test('what is as large as a hill or as small as a seed is asked about and not changed unasked', function (
    float $scale, ?string $words
): void {
    $e = Examination::of(Spoiled::under(FakeAssets::box(), $scale), 'glb');
    $found = findingsOf($e)['size'] ?? null;
    expect($found?->mend()?->words)->toBe($words);
    if ($found !== null) {
        expect($found->severity)->toBe(Severity::Look)->and($found->mended)->toBeFalse()->and($found->mend()->safe)->toBeFalse();
    }
})->with([
    'a hill' => [743.0, 'Make it 7.43 m'], 'a house' => [12.0, null], 'a crate' => [1.0, null], 'a seed' => [0.016, 'Make it 1.60 m'],
    'a matchbox' => [0.05, null],
]);

test('settling changes nothing that is seen: every point stays where weights and joints had put it', function (): void {
    $glb = Spoiled::under(Spoiled::midStride(Spoiled::good()), 2.5, Q4::aroundY(0.7), [1.0, 0.2, -3.0]);
    $draft = GltfDraft::open($glb);
    $subject = new Subject($draft, 'glb');
    // By the formula of the standard, on a sample of points.
    $skin = $draft->list('skins')[0];
    $inverse = $draft->values($skin['inverseBindMatrices']);
    $expected = [];
    foreach ($draft->primitives() as $p) {
        $points = $draft->values($p['attributes']['POSITION']);
        $joints = $draft->values($p['attributes']['JOINTS_0']);
        $weights = $draft->values($p['attributes']['WEIGHTS_0']);
        for ($v = 0; $v < min(40, intdiv(count($points), 3)); $v++) {
            $sum = [0.0, 0.0, 0.0];
            for ($k = 0; $k < 4; $k++) {
                $j = (int) $joints[4 * $v + $k];
                $q = M4::point(
                    M4::mul($subject->world($skin['joints'][$j]), array_slice($inverse, 16 * $j, 16)),
                    [$points[3 * $v], $points[3 * $v + 1], $points[3 * $v + 2]],
                );
                foreach ($q as $c => $value) {
                    $sum[$c] += $weights[4 * $v + $k] * $value;
                }
            }
            $expected["{$p['mesh']}/{$p['primitive']}/{$v}"] = $sum;
        }
    }
    (new Settle($subject))->apply();
    foreach ($draft->primitives() as $p) {
        $points = $draft->values($p['attributes']['POSITION']);
        for ($v = 0; $v < min(40, intdiv(count($points), 3)); $v++) {
            for ($c = 0; $c < 3; $c++) {
                expect($points[3 * $v + $c])->toEqualWithDelta($expected["{$p['mesh']}/{$p['primitive']}/{$v}"][$c], 1e-5);
            }
        }
    }
    foreach ($subject->joints() as $j) {
        expect($subject->nodes()[$j]['scale'])->toBe([1.0, 1.0, 1.0]);
    }
});

test('a rest caught in a stride is replaced by the bound pose', function (): void {
    $e = Examination::of(Spoiled::midStride(Spoiled::good()), 'glb');
    expect(findingsOf($e)['bind']->mended)->toBeTrue()->and(jointsApart(Spoiled::good(), $e->glb))->toBeLessThan(1e-4);
    $kept = Examination::of(Spoiled::midStride(Spoiled::good()), 'glb', ['bind' => false]);
    expect(findingsOf($kept)['bind']->mended)->toBeFalse()->and(jointsApart(Spoiled::good(), $kept->glb))->toBeGreaterThan(0.1);
});

test('what is in the file is made or skipped by name, and the sums agree', function (): void {
    $e = Examination::of(Spoiled::cluttered(Spoiled::good()), 'glb');
    expect($e->parts->inFile)->toBe(count($e->parts->made) + count($e->parts->skipped))
        ->and($e->parts->skipped)
        ->toBe(['body_collision' => 'it is a body for collisions', 'Camera' => 'it is a camera', 'Sun' => 'it is a light'])
        ->and($e->parts->made)->toContain('hat');
    $json = GltfReader::read($e->glb)->json;
    expect($json)->not->toHaveKey('cameras')->and($json)->not->toHaveKey('extensions');
    $back = Examination::of(Spoiled::cluttered(Spoiled::good()), 'glb', ['colliders' => false]);
    expect($back->parts->made)->toContain('body_collision');
});

test('a body for collisions is told by general words, or by being a plain hull around what is painted', function (
    string $name, float $half, array $middle, bool $isPlain, bool $isOne,
): void {
    $d = GltfDraft::open(Spoiled::thing(0.4));
    [$points, $index] = Spoiled::box($half, $middle);
    $primitive = ['attributes' => ['POSITION' => $d->add($points, 3)], 'indices' => $d->add($index, 1, 5125)];
    $d->json['meshes'] = [...$d->list('meshes'), ['primitives' => [$primitive + ($isPlain ? [] : ['material' => 0])]]];
    $d->json['nodes'] = [...$d->list('nodes'), ['name' => $name, 'mesh' => count($d->list('meshes')) - 1]];
    $d->json['scenes'] = [['nodes' => [...$d->list('scenes')[0]['nodes'], count($d->list('nodes')) - 1]]];
    $e = Examination::of($d->toGlb(), 'glb');
    expect(isset($e->parts->skipped[$name]))->toBe($isOne);
})->with([
    'by its name, wherever it is and painted' => ['crate_collider', 0.1, [3.0, 0.1, 0.0], false, true],
    'by two words' => ['Hit Box 2', 0.1, [3.0, 0.1, 0.0], true, true],
    'by its shape and place alone' => ['crate.001', 0.42, [0.0, 0.4, 0.0], true, true],
    'by a hint and its shape' => ['col_3', 0.1, [3.0, 0.1, 0.0], true, true],
    'a hint on what is painted is none' => ['hull', 0.1, [3.0, 0.1, 0.0], false, false],
    'a word in a word is none' => ['column', 0.1, [3.0, 0.1, 0.0], true, false],
    'what stands apart is a thing' => ['lid', 0.1, [3.0, 0.1, 0.0], true, false],
    'what is far smaller is a thing' => ['knob', 0.05, [0.0, 0.2, 0.0], true, false],
]);

test('a loose hat is bound to the head and goes with it', function (): void {
    $e = Examination::of(Spoiled::cluttered(Spoiled::good()), 'glb', all: true);
    expect(findingsOf($e)['unbound']->mended)->toBeTrue();
    $s = new Subject(GltfDraft::open($e->glb), 'glb');
    $hat = array_search('hat', array_column($s->nodes(), 'name'), true);
    $p = array_values(array_filter($s->draft->primitives(), static fn (array $q): bool => $q['mesh'] === $s->nodes()[$hat]['mesh']))[0];
    $joints = $s->draft->values($p['attributes']['JOINTS_0']);
    $weights = $s->draft->values($p['attributes']['WEIGHTS_0']);
    $head = $s->skeleton()->roles['head'];
    $held = 0.0;
    foreach ($joints as $k => $j) {
        $held += (int) $j === $head ? $weights[$k] : 0.0;
    }
    expect($held / (count($weights) / 4))->toBeGreaterThan(0.9);
});

test('motions come out as files of their own and play as they did, whatever stood above the joints', function (): void {
    $plain = Spoiled::moving(Spoiled::good(), ['Walk_01' => ['walk', ['speed' => 1.3]], 'Wave' => ['wave', []]]);
    $e = Examination::of(Spoiled::under($plain, 100.0, Q4::mul(Q4::aroundX(M_PI / 2), Q4::aroundY(M_PI)), [20.0, 0.0, 0.0]), 'glb');
    expect(array_column($e->motions, 'name'))->toBe(['Walk_01', 'Wave'])->and(GltfReader::read($e->glb)->clips())->toBe([]);
    $figure = new Figure('f', AssetDigest::of(GltfReader::read($e->glb)));
    $rows = [];
    foreach ([GltfReader::read($plain), GltfReader::read($e->motions[0]['glb'])] as $n => $gltf) {
        $skeleton = $n === 0 ? AssetDigest::skeleton($gltf, 0) : AssetDigest::skeletonOfNodes($gltf);
        $rows[] = ImportedMotion::sampled($gltf->clips()[0], $skeleton, $figure, 'walk');
    }
    $length = $rows[0]->seconds();
    $start = array_map(static fn ($t): array => $t->at(0.0), $rows);
    foreach ([0.2, 0.5, 0.9] as $t) {
        [$a, $b] = [$rows[0]->at($t * $length), $rows[1]->at($t * $length)];
        expect($b[1])->toEqualWithDelta($a[1], 0.005)->and($b[2] - $start[1][2])->toEqualWithDelta($a[2] - $start[0][2], 0.01);
    }
});

test('what moves above the joints moves the body, and lies straight afterwards', function (float $scale, array $lie): void {
    $glb = Spoiled::under(Spoiled::moving(Spoiled::good(), ['Wave' => ['wave', []]]), $scale, $lie);
    $draft = GltfDraft::open($glb);
    $over = count($draft->list('nodes')) - 1;
    $above = array_search('above', array_column($draft->list('nodes'), 'name'), true);
    $node = is_int($above) ? $above : $over;
    $samplers = $draft->list('animations')[0]['samplers'];
    $animation = $draft->list('animations')[0];
    // It goes 2 m to the side and 1 m ahead, and turns by a right angle, all at the node above the skin.
    $rest = $draft->list('nodes')[$node]['rotation'] ?? [0.0, 0.0, 0.0, 1.0];
    $animation['samplers'] = [...$samplers, [
        'input' => $draft->add([0.0, 1.0], 1), 'interpolation' => 'LINEAR',
        'output' => $draft->add([0.0, 0.0, 0.0, ...V3::mul(Q4::rotate($lie, [2.0, 0.0, 1.0]), $scale)], 3),
    ], [
        'input' => $draft->add([0.0, 1.0], 1), 'interpolation' => 'LINEAR',
        'output' => $draft->add([...$rest, ...Q4::mul(Q4::axis(Q4::rotate($lie, [0.0, 1.0, 0.0]), M_PI / 2), $rest)], 4),
    ]];
    $n = count($samplers);
    $animation['channels'] = [
        ...$animation['channels'], ['sampler' => $n, 'target' => ['node' => $node, 'path' => 'translation']],
        ['sampler' => $n + 1, 'target' => ['node' => $node, 'path' => 'rotation']],
    ];
    $draft->json['animations'] = [$animation];
    $e = Examination::of($draft->toGlb(), 'glb');
    $digest = AssetDigest::of(GltfReader::read($e->glb));
    $figure = new Figure('f', $digest);
    $s = $figure->skeleton;
    $top = $s->parents[$figure->hips];
    expect($top)->toBeGreaterThanOrEqual(0)->and(Q4::angleBetween($s->restRotation($top), Q4::IDENTITY))->toBeLessThan(1e-4);
    $motion = GltfReader::read($e->motions[0]['glb']);
    $clip = $motion->clips()[0];
    $who = [$figure, figure('bram')];
    foreach ($who as $k => $f) {
        $table = ImportedMotion::sampled($clip, AssetDigest::skeletonOfNodes($motion), $f, 'wave');
        [$a, $b] = [$table->at(0.0), $table->at(1.0)];
        $w = $table->width;
        $size = $k === 0 ? 1.0 : $f->body()->leg * $f->body()->scale / ($figure->body()->leg * $figure->body()->scale);
        expect(
            $b[$w - 3] - $a[$w - 3],
        )->toEqualWithDelta(2.0 * $size, 0.12)->and($b[$w - 2] - $a[$w - 2])->toEqualWithDelta(1.0 * $size, 0.12)
            ->and($b[$w - 1] - $a[$w - 1])->toEqualWithDelta(M_PI / 2, 0.1);
    }
})->with(['as it stands' => [1.0, Q4::IDENTITY], 'lying, in centimetres' => [100.0, Q4::aroundX(M_PI / 2)]]);

test('a thing whose parts move is told to stand still', function (): void {
    $draft = GltfDraft::open(Spoiled::thing(0.5));
    $draft->json['animations'] = [['name' => 'Turns', 'samplers' => [[
        'input' => $draft->add([0.0, 1.0], 1), 'output' => $draft->add(
            [...Q4::IDENTITY, ...Q4::aroundY(1.0)], 4,
        ), 'interpolation' => 'LINEAR',
    ]], 'channels' => [['sampler' => 0, 'target' => ['node' => 0, 'path' => 'rotation']]]]];
    $found = findingsOf(Examination::of($draft->toGlb(), 'glb'));
    expect($found['still']->about)->toBe(['Turns'])->and($found['still']->severity)->toBe(Severity::Look)
        ->and(findingsOf(Examination::of(Spoiled::thing(0.5), 'gltf')))->not->toHaveKey('still');
});

test('motion of shapes comes along and plays on faces with other words for them', function (): void {
    $draft = GltfDraft::open(Spoiled::moving(Spoiled::good(), ['Talk' => ['wave', []]]));
    $mesh = null;
    foreach ($draft->list('nodes') as $i => $n) {
        $names = isset($n['mesh']) ? $draft->source()->shapesOf($n['mesh']) : [];
        $mesh ??= $names === [] ? null : [$i, $names];
    }
    [$node, $names] = $mesh;
    $open = array_search('jawOpen', $names, true);
    $row = array_fill(0, count($names), 0.0);
    $row[$open] = 0.8;
    $animation = $draft->list('animations')[0];
    $n = count($animation['samplers']);
    $animation['samplers'][] = [
        'input' => $draft->add([0.0, 0.5], 1), 'output' => $draft->add([...array_fill(0, count($names), 0.0), ...$row], 1),
        'interpolation' => 'LINEAR',
    ];
    $animation['channels'][] = ['sampler' => $n, 'target' => ['node' => $node, 'path' => 'weights']];
    $draft->json['animations'] = [$animation];
    $motion = GltfReader::read(Examination::of($draft->toGlb(), 'glb')->motions[0]['glb']);
    $oda = figure('oda');
    $table = ImportedMotion::sampled($motion->clips()[0], AssetDigest::skeletonOfNodes($motion), $oda, 'talk');
    $at = 3 + 4 * $table->joints + (int) array_search('jawOpen', $oda->morphs, true);
    expect($table->at(0.25)[$at])->toEqualWithDelta(0.4, 0.02)->and($table->at(1.0)[$at])->toEqualWithDelta(0.8, 0.01)
        ->and($table->at(1.0)[$at + 1])->toBe(0.0);
});

test('a see-through surface that is solid, and a cut-out picture on a solid one', function (): void {
    $glass = Examination::of(
        Spoiled::thing(0.4, ['alphaMode' => 'BLEND', 'pbrMetallicRoughness' => ['baseColorFactor' => [1, 0.5, 0.2, 0.0]]]),
        'gltf',
    );
    expect(findingsOf($glass)['seeThrough']->mended)->toBeFalse();
    $solid = Examination::of(
        Spoiled::thing(0.4, ['alphaMode' => 'BLEND', 'pbrMetallicRoughness' => ['baseColorFactor' => [1, 0.5, 0.2, 0.0]]]),
        'gltf',
        all: true,
    );
    $m = GltfReader::read($solid->glb)->list('materials')[0];
    expect($m)->not->toHaveKey('alphaMode')->and($m['pbrMetallicRoughness']['baseColorFactor'])->toEqual([1, 0.5, 0.2, 1.0]);
    $real = Examination::of(
        Spoiled::thing(0.4, ['alphaMode' => 'BLEND', 'pbrMetallicRoughness' => ['baseColorFactor' => [1, 1, 1, 0.3]]]),
        'gltf',
    );
    expect(findingsOf($real))->not->toHaveKey('seeThrough');
    $cut = Examination::of(Spoiled::thing(0.4, [], Spoiled::picture(true)), 'gltf', all: true);
    expect(findingsOf($cut)['cutOut']->mended)->toBeTrue()->and(GltfReader::read($cut->glb)->list('materials')[0]['alphaMode'])
        ->toBe('MASK');
    $whole = Examination::of(Spoiled::thing(0.4, [], Spoiled::picture(false)), 'gltf');
    expect(findingsOf($whole))->not->toHaveKey('cutOut');
});

test('missing pictures are named and found when they come', function (): void {
    $file = Spoiled::thing(0.4, [], null, false, 'textures/poster.png');
    $e = Examination::of($file, 'gltf', companion: static fn (string $uri): ?string => null);
    expect(findingsOf($e)['pictures']->about)->toBe(['poster.png'])->and(GltfReader::read($e->glb)->list('images')[0]['extras']['missing'])
        ->toBe('textures/poster.png');
    $with = Examination::of(
        $file,
        'gltf',
        companion: static fn (string $uri): ?string => $uri === 'textures/poster.png' ? Spoiled::picture(false) : null,
    );
    expect(findingsOf($with))->not->toHaveKey('pictures')->and(GltfReader::read($with->glb)->picture(0))->toBe(Spoiled::picture(false));
});

test('a thing turned inside out is noticed by its volume, a room is not', function (): void {
    $e = Examination::of(Spoiled::thing(0.4, [], null, true), 'gltf', all: true);
    expect(findingsOf($e)['faces']->mended)->toBeTrue();
    expect(findingsOf(Examination::of($e->glb, 'glb')))->not->toHaveKey('faces');
    expect(findingsOf(Examination::of(Spoiled::thing(4.0, [], null, true), 'gltf')))->not->toHaveKey('faces');
    expect(findingsOf(Examination::of(Spoiled::thing(0.4), 'gltf')))->not->toHaveKey('faces');
});

test('normals that did not come are made: a box gets its six', function (): void {
    $e = Examination::of(Spoiled::thing(0.4), 'gltf');
    [, $p] = GltfReader::read($e->glb)->primitives()[0];
    $all = array_unique(array_map(
        static fn (array $n): string => implode(' ', array_map(static fn (float $v): int => (int) round($v), $n)),
        array_chunk($p['normals'], 3),
    ));
    sort($all);
    expect($all)->toBe(['-1 0 0', '0 -1 0', '0 0 -1', '0 0 1', '0 1 0', '1 0 0'])->and(count($p['positions']) / 3)->toBe(24);
});

test('the pivot goes where it is asked, and heights and turns are taken', function (): void {
    $thing = Spoiled::thing(0.5);
    expect(boundsOf(Examination::of($thing, 'gltf', ['pivot' => ['to' => 'centre']])->glb))->toEqual([[-0.5, -0.5, -0.5], [0.5, 0.5, 0.5]])
        ->and(boundsOf(Examination::of($thing, 'gltf', ['pivot' => ['to' => 'point', 'point' => [0.5, 1.0, 0.5]]])->glb))
        ->toEqual([[-1.0, -1.0, -1.0], [0.0, 0.0, 0.0]])
        ->and(boundsOf(Examination::of($thing, 'gltf', ['grow' => ['height' => 2.0]])->glb)[1][1])->toEqualWithDelta(2.0, 1e-5);
    $lying = boundsOf(Examination::of($thing, 'gltf', ['turn' => ['about' => 'x', 'degrees' => 90]])->glb);
    expect($lying[1][2])->toEqualWithDelta(1.0, 1e-5);
    expect(fn () => Examination::of($thing, 'gltf', ['grow' => ['height' => 'tall']]))->toThrow(InvalidArgumentException::class);
});

test('a heavy thing keeps all of its triangles and gets a lighter copy of the same shape', function (): void {
    $n = 260;
    $points = $index = [];
    for ($i = 0; $i <= $n; $i++) {
        for ($j = 0; $j <= $n; $j++) {
            array_push($points, $i / $n, 0.1 * sin(6 * $i / $n) * cos(5 * $j / $n), $j / $n);
            if ($i < $n && $j < $n) {
                $a = $i * ($n + 1) + $j;
                array_push($index, $a, $a + 1, $a + $n + 1, $a + 1, $a + $n + 2, $a + $n + 1);
            }
        }
    }
    $d = GltfDraft::open(Spoiled::thing(0.5));
    $d->amendPrimitive(0, 0, [
        'attributes' => ['POSITION' => $d->add($points, 3)], 'indices' => $d->add(array_map(floatval(...), $index), 1, 5125),
    ]);
    $e = Examination::of($d->toGlb(), 'glb', all: true);
    $count = static fn (string $glb): int => AssetDigest::of(GltfReader::read($glb))['triangles'];
    expect(findingsOf($e)['heavy']->mended)->toBeTrue()->and($count($e->glb))->toBe(2 * $n * $n)->and($count((string) $e->light))
        ->toBeLessThanOrEqual(60_000)->and($count((string) $e->light))->toBeGreaterThan(15_000);
    [$a, $b] = [boundsOf($e->glb), boundsOf((string) $e->light)];
    foreach ([0, 2] as $k) {
        expect($b[1][$k] - $b[0][$k])->toEqualWithDelta($a[1][$k] - $a[0][$k], 0.02);
    }
    expect(Examination::of(Spoiled::thing(0.5), 'gltf', all: true)->light)->toBeNull();
});

test('joints of another habit are told, and legs that no name tells from their place', function (): void {
    $e = Examination::of(Spoiled::renamed(Spoiled::good(), static fn (string $n): string => "rig:{$n}"), 'glb');
    expect(findingsOf($e))->not->toHaveKey('joints');
    $lost = Spoiled::renamed(
        Spoiled::good(),
        static fn (string $n): string => preg_match('/thigh|upper_?leg|shin|lower_?leg|foot|toe/i', $n) === 1 ? 'x'.crc32($n) : $n,
    );
    $e = Examination::of($lost, 'glb');
    expect(findingsOf($e))->not->toHaveKey('joints');
    $names = AssetDigest::of(GltfReader::read($e->glb))['skeleton']['names'] ?? [];
    $roles = HumanRoles::chosen(Skeleton::fromArray(AssetDigest::of(GltfReader::read($e->glb))['skeleton']));
    $was = AssetDigest::of(GltfReader::read(Examination::of(Spoiled::good(), 'glb')->glb))['skeleton'];
    foreach (['upperLegL', 'lowerLegL', 'footL', 'upperLegR', 'lowerLegR', 'footR', 'handL', 'head'] as $role) {
        expect($roles[$role])->toBe(
            $was['roles'][$role], $role,
        )->and(str_starts_with($names[$roles[$role]], 'x'))->toBe(preg_match('/Leg|foot/', $role) === 1);
    }
});

test('parts that a body has no joint for are named', function (): void {
    $half = Spoiled::good();
    $e = Examination::of($half, 'glb');
    $skeleton = AssetDigest::of(GltfReader::read($e->glb))['skeleton'];
    $draft = GltfDraft::open($e->glb);
    // All joints of the legs hang on the hips: no chain tells what they are, and no name does.
    $nodes = $draft->list('nodes');
    $at = array_flip(array_column($nodes, 'name'));
    $legs = [];
    foreach (['upperLegL', 'upperLegR', 'lowerLegL', 'lowerLegR', 'footL', 'footR', 'toesL', 'toesR'] as $role) {
        $legs[] = $at[$skeleton['names'][$skeleton['roles'][$role]]];
    }
    foreach ($legs as $k => $n) {
        $nodes[$n]['name'] = "x{$k}";
    }
    foreach ($nodes as $i => $n) {
        $nodes[$i]['children'] = array_values(array_diff($n['children'] ?? [], $legs));
    }
    $hips = $at[$skeleton['names'][$skeleton['roles']['hips']]];
    $nodes[$hips]['children'] = [...$nodes[$hips]['children'], ...$legs];
    $draft->json['nodes'] = array_map(
        static fn (array $n): array => $n['children'] === [] ? array_diff_key($n, ['children' => 1]) : $n, $nodes,
    );
    $found = findingsOf(Examination::of($draft->toGlb(), 'glb'));
    expect($found['joints']->severity)->toBe(Severity::Harms)->and($found['joints']->about)
        ->toBe(['left thigh', 'right thigh', 'left shin', 'right shin', 'left foot', 'right foot']);
});

test('an empty or broken file is refused in plain words', function (string $bytes): void {
    expect(fn () => Examination::of($bytes, 'glb'))->toThrow(UnableToReadGltf::class);
})->with(['{"asset":{"version":"2.0"}}', 'glTF', substr(Spoiled::thing(0.5), 0, 300)]);
