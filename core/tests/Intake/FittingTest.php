<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Intake\Examination;
use CrispReel\Core\Intake\Fitting\Binding;
use CrispReel\Core\Intake\Fitting\Markers;
use CrispReel\Core\Intake\Fitting\SkeletonPlan;
use CrispReel\Core\Intake\Fitting\VoxelBody;
use CrispReel\Core\Intake\Subject;
use CrispReel\Core\Kit\Figure\FigureMaker;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Spoiled;

/** A box from one corner to the other. @return array{positions: list<float>, index: list<int>} */
function block(array $low, array $high): array
{
    $s = Shapes::box($high[0] - $low[0], $high[1] - $low[1], $high[2] - $low[2], 0.01);
    $positions = [];
    foreach ($s->points as $p) {
        for ($k = 0; $k < 3; $k++) {
            $positions[] = $p[$k] + ($low[$k] + $high[$k]) / 2;
        }
    }

    return ['positions' => $positions, 'index' => $s->index];
}

/** @return array{VoxelBody, array<string, array{float, float, float}>, string} the body, the joints it was made with by role, the file without them */
function bare(string $who): array
{
    static $made = [];
    if (isset($made[$who])) {
        return $made[$who];
    }
    $glb = FigureMaker::glb(FigureSpec::house()[$who]);
    $s = AssetDigest::skeleton(GltfReader::read($glb), 0);
    [$p] = $s->world($s->rotations);
    $naked = Spoiled::naked($glb);

    return $made[$who] = [
        VoxelBody::of((new Subject(GltfDraft::open($naked), 'glb'))->solids()),
        array_map(static fn (int $j): array => [$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]], $s->roles), $naked,
    ];
}

test('a body in cubes: what it fills, and how far it is through it', function (): void {
    // Two pillars, 0.2 m apart, joined only at the top: from foot to foot it is up and down again.
    $body = VoxelBody::of([
        block([-0.3, 0.0, -0.1], [-0.1, 1.0, 0.1]), block([0.1, 0.0, -0.1], [0.3, 1.0, 0.1]), block([-0.3, 0.8, -0.1], [0.3, 1.0, 0.1]),
    ]);
    expect($body->inside(-0.2, 0.5, 0.0))->toBeTrue()->and($body->inside(0.0, 0.5, 0.0))->toBeFalse()->and($body->inside(0.0, 0.9, 0.0))
        ->toBeTrue()
        ->and($body->cut(0.5))->toHaveCount(2)->and($body->cut(0.9))->toHaveCount(1);
    $far = $body->distances([[[-0.2, 0.05, 0.0], [-0.2, 0.05, 0.0]]], 3.0);
    // Along a pillar exactly; to the other foot over the bridge: between 0.75 up, 0.3 across and 0.75 down, cutting corners,
    // and a twelfth more.
    expect($far[$body->at(-0.2, 0.65, 0.0)])->toEqualWithDelta(0.6, 0.02)->and($far[$body->at(0.2, 0.05, 0.0)])->toBeBetween(1.55, 1.95)
        ->and(isset($body->distances([[[-0.2, 0.05, 0.0], [-0.2, 0.05, 0.0]]], 0.5)[$body->at(0.2, 0.05, 0.0)]))->toBeFalse();
});

test('the eight places are found by shape alone', function (string $who): void {
    [$body, $joints] = bare($who);
    $markers = Markers::proposed($body);
    expect($markers->sure)->toBeTrue()->and(array_keys($markers->places))->toEqualCanonicalizing(Markers::NAMES);
    foreach ([
        'neck' => 'neck', 'hips' => 'hips', 'wristL' => 'handL', 'wristR' => 'handR', 'kneeL' => 'lowerLegL', 'kneeR' => 'lowerLegR',
        'ankleL' => 'footL', 'ankleR' => 'footR',
    ] as $marker => $role) {
        expect(V3::distance($markers->places[$marker], $joints[$role]))->toBeLessThan(0.055 * $body->height(), "{$marker} of {$who}");
    }
})->with(['oda-ferrant', 'bram-tiel', 'jory-vance', 'mirre-tolland']);

test('the joints between them lie near those that the body was made with', function (string $who): void {
    [$body, $joints] = bare($who);
    $plan = SkeletonPlan::of($body, Markers::proposed($body), true);
    foreach (['upperArmL', 'upperArmR', 'lowerArmL', 'lowerArmR', 'upperLegL', 'upperLegR', 'toesL', 'toesR', 'chest', 'head'] as $role) {
        expect(V3::distance($plan->places[$role], $joints[$role]))->toBeLessThan(0.055 * $body->height(), "{$role} of {$who}");
    }
    expect(array_filter(
        array_keys($plan->places),
        static fn (string $n): bool => str_starts_with($n, 'index') || str_starts_with($n, 'thumb'),
    ))->toHaveCount(6)
        ->and(SkeletonPlan::of($body, Markers::proposed($body), false)->places)->toHaveCount(22)
        ->and($plan->places['upperArmL'][0] - $plan->places['neck'][0])
        ->toEqualWithDelta($plan->places['neck'][0] - $plan->places['upperArmR'][0], 1e-9);
})->with(['oda-ferrant', 'bram-tiel', 'jory-vance']);

test('a marker that is set takes its depth from the body, and stays within it', function (): void {
    [$body] = bare('bram-tiel');
    $was = Markers::proposed($body)->places;
    $set = Markers::proposed($body)->with(
        ['kneeL' => [$was['kneeL'][0] + 0.01, 0.5], 'neck' => [0.0, 9.0, 0.02], 'tail' => [0, 0], 'hips' => ['x', 1.0], 'wristR' => 'here'],
        $body,
    )->places;
    expect($set['kneeL'][1])->toBe(0.5)->and($body->inside(...$set['kneeL']))->toBeTrue()->and($set['neck'])
        ->toBe([0.0, $body->high[1], 0.02])
        ->and($set['hips'])->toBe($was['hips'])->and($set['wristR'])->toBe($was['wristR'])->and($set)->not->toHaveKey('tail');
});

test('each part of the body goes with its own joints', function (): void {
    [$body, $joints, $naked] = bare('jory-vance');
    $plan = SkeletonPlan::of($body, Markers::proposed($body), false);
    $binding = new Binding($body, $plan);
    $names = array_keys($plan->places);
    $seen = [];
    foreach ((new Subject(GltfDraft::open($naked), 'glb'))->solids() as $s) {
        [$j, $w] = $binding->weights($s['positions'], $s['index']);
        foreach (array_chunk($s['positions'], 3) as $v => $p) {
            $four = array_slice($w, 4 * $v, 4);
            expect(array_sum($four))->toEqualWithDelta(1.0, 1e-9)->and(min($four))->toBeGreaterThanOrEqual(0.0);
            $most = $names[$j[4 * $v]];
            foreach (['handL' => 0.06, 'footR' => 0.05, 'head' => 0.08] as $role => $near) {
                if (V3::distance(
                    $p,
                    V3::add(
                        $joints[$role],
                        ['handL' => [0.03, -0.06, 0.0], 'footR' => [0.0, -0.03, 0.0], 'head' => [0.0, 0.2, 0.0]][$role],
                    ),
                ) < $near) {
                    $seen[$role][$most] = ($seen[$role][$most] ?? 0) + 1;
                }
            }
            // Nothing of the right side hangs on the left arm.
            if ($p[0] < -0.1) {
                foreach ($four as $k => $x) {
                    expect($x > 0.01 && in_array($names[$j[4 * $v + $k]], ['upperArmL', 'lowerArmL', 'handL'], true))->toBeFalse();
                }
            }
        }
    }
    $chief = static fn (array $counts): string => (string) array_search(max($counts), $counts, true);
    expect($chief($seen['handL']))->toBe('handL')->and($chief($seen['footR']))->toBe('footR')->and($chief($seen['head']))->toBe('head');
});

test('a person without a skeleton is told, fitted when asked, and the same again when undone', function (): void {
    [, , $naked] = bare('oda-ferrant');
    $plain = Examination::of($naked, 'glb');
    $finding = array_values(array_filter($plain->findings, static fn ($f): bool => $f->code === 'skeleton'))[0];
    expect($plain->kind)->toBe('prop')->and($finding->mended)->toBeFalse()->and($finding->mend()->safe)->toBeFalse()
        ->and($finding->mend()->with()['markers'])->toHaveCount(8);
    // Mending all leaves it: a skeleton is a decision.
    expect(array_filter(Examination::of($naked, 'glb', all: true)->findings, static fn ($f): bool => $f->code === 'skeleton' && $f->mended))
        ->toBe([]);
    $fitted = Examination::of(
        $naked,
        'glb',
        ['skeleton' => ['markers' => ['kneeL' => [0.09, 0.46], 'kneeR' => [-0.09, 0.46]], 'fingers' => true]],
    );
    $digest = AssetDigest::of(GltfReader::read($fitted->glb));
    expect($fitted->kind)->toBe('performer')->and($fitted->shapes)->toBe($plain->shapes)->and(count($digest['skeleton']['roles']))
        ->toBeGreaterThan(21)->and($digest['skeleton']['names'])->toContain('index1L')
        ->and($digest['bounds'])->toEqualWithDelta(AssetDigest::of(GltfReader::read($plain->glb))['bounds'], 1e-5);
    // What is at rest is seen where it was: the inverse of each joint's place is kept with the skin.
    $d = GltfDraft::open($fitted->glb);
    $skin = $d->list('skins')[0];
    $inverse = $d->values($skin['inverseBindMatrices']);
    $subject = new Subject($d, 'glb');
    foreach ($skin['joints'] as $k => $joint) {
        $world = $subject->world($joint);
        expect([$inverse[16 * $k + 12], $inverse[16 * $k + 13], $inverse[16 * $k + 14]])
            ->toEqualWithDelta([-$world[12], -$world[13], -$world[14]], 1e-5);
    }
    expect(Examination::of($naked, 'glb', ['skeleton' => false])->glb)->toBe($plain->glb);
});

test('what is no person is left alone, unless a person insists', function (): void {
    $chair = Spoiled::thing(0.9);
    expect(array_filter(Examination::of($chair, 'gltf')->findings, static fn ($f): bool => $f->code === 'skeleton'))->toBe([]);
    $fitted = Examination::of($chair, 'gltf', ['skeleton' => []]);
    expect($fitted->kind)->toBe('performer');
});
