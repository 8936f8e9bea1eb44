<?php

declare(strict_types=1);

use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\FootLock;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\TreeRoles;
use CrispReel\Core\Rig\UnableToMatch;

/** Joints of a plain body as a file of another house might have them. */
const BODY = [
    'hips', 'spine', 'chest', 'neck', 'head', 'upperArmL', 'lowerArmL', 'handL', 'upperArmR', 'lowerArmR', 'handR', 'upperLegL',
    'lowerLegL', 'footL', 'toesL', 'upperLegR', 'lowerLegR', 'footR', 'toesR',
];

/**
 * A body in a T pose, in its own units, with another up axis or facing if asked, and every joint's rest turned.
 *
 * @param  list<string>  $names
 */
function tPose(array $names, float $unit = 1.0, ?array $lie = null, int $seed = 0): Skeleton
{
    $at = [
        'hips' => [0, 0.95, 0], 'spine' => [0, 1.08, 0], 'chest' => [0, 1.25, 0], 'neck' => [0, 1.48, 0], 'head' => [0, 1.58, 0],
        'upperArmL' => [0.18, 1.42, 0], 'lowerArmL' => [0.46, 1.42, 0], 'handL' => [0.72, 1.42, 0],
        'upperLegL' => [0.1, 0.9, 0], 'lowerLegL' => [0.1, 0.5, 0.01], 'footL' => [0.1, 0.09, 0], 'toesL' => [0.1, 0.02, 0.14],
    ];
    foreach (['upperArm', 'lowerArm', 'hand', 'upperLeg', 'lowerLeg', 'foot', 'toes'] as $r) {
        $at[$r.'R'] = [-$at[$r.'L'][0], $at[$r.'L'][1], $at[$r.'L'][2]];
    }
    $above = [
        'spine' => 'hips', 'chest' => 'spine', 'neck' => 'chest', 'head' => 'neck', 'upperArm' => 'chest', 'lowerArm' => 'upperArm',
        'hand' => 'lowerArm', 'upperLeg' => 'hips', 'lowerLeg' => 'upperLeg', 'foot' => 'lowerLeg', 'toes' => 'foot',
    ];
    mt_srand($seed);
    $world = $t = $q = $parents = [];
    foreach (BODY as $i => $role) {
        $side = in_array(substr($role, -1), ['L', 'R'], true) ? substr($role, -1) : '';
        $up = $above[$side === '' ? $role : substr($role, 0, -1)] ?? null;
        $p = $up === null ? -1 : (int) array_search(in_array($up.$side, BODY, true) ? $up.$side : $up, BODY, true);
        $parents[] = $p;
        $spot = V3::mul(array_map(floatval(...), $at[$role]), $unit);
        $spot = $lie === null ? $spot : Q4::rotate($lie, $spot);
        $turn = $seed === 0
            ? ($lie ?? Q4::IDENTITY)
            : Q4::unit([mt_rand() / mt_getrandmax() - 0.5, mt_rand() / mt_getrandmax() - 0.5, mt_rand() / mt_getrandmax() - 0.5, 1.0]);
        $world[$i] = [$spot, $turn];
        [$pp, $pq] = $p < 0 ? [[0.0, 0.0, 0.0], Q4::IDENTITY] : $world[$p];
        array_push($t, ...Q4::rotate(Q4::conjugate($pq), V3::sub($spot, $pp)));
        array_push($q, ...Q4::mul(Q4::conjugate($pq), $turn));
    }

    return new Skeleton($names, $parents, $t, $q, array_fill(0, 3 * count($names), 1.0));
}

/** Joint names in several habits. @return array<string, array{list<string>}> */
function namings(): array
{
    $word = [
        'hips' => 'Hips', 'spine' => 'Spine', 'chest' => 'Spine1', 'neck' => 'Neck', 'head' => 'Head', 'upperArm' => 'Arm',
        'lowerArm' => 'ForeArm', 'hand' => 'Hand', 'upperLeg' => 'UpLeg', 'lowerLeg' => 'Leg', 'foot' => 'Foot', 'toes' => 'ToeBase',
    ];
    $plain = [
        'hips' => 'pelvis', 'spine' => 'spine', 'chest' => 'chest', 'neck' => 'neck', 'head' => 'head', 'upperArm' => 'upper_arm',
        'lowerArm' => 'forearm', 'hand' => 'hand', 'upperLeg' => 'thigh', 'lowerLeg' => 'shin', 'foot' => 'foot', 'toes' => 'toe',
    ];
    $made = static fn (callable $name): array => [array_map(static function (string $role) use ($name): string {
        $side = in_array(substr($role, -1), ['L', 'R'], true) ? substr($role, -1) : '';

        return $name($side === '' ? $role : substr($role, 0, -1), $side);
    }, BODY)];

    return [
        'long sides, prefix' => $made(
            static fn (string $r, string $s): string => 'rig:'.['' => '', 'L' => 'Left', 'R' => 'Right'][$s].$word[$r]
        ),
        'bare side letters in front' => $made(static fn (string $r, string $s): string => $s.ucfirst($r)),
        'snake case, dot and letter' => $made(static fn (string $r, string $s): string => $plain[$r].($s === '' ? '' : '.'.$s)),
        'numbered copies' => $made(static fn (string $r, string $s): string => $plain[$r].($s === '' ? '' : '_'.strtolower($s)).'.001'),
        'camel case, letter behind' => $made(static fn (string $r, string $s): string => $r.$s),
        'a word on every joint' => $made(
            static fn (string $r, string $s): string => 'Body '.($s === '' ? '' : "{$s} ").ucfirst($plain[$r])
        ),
        'loud snake case' => $made(
            static fn (string $r, string $s): string => strtoupper(($s === '' ? '' : ['L' => 'left_', 'R' => 'right_'][$s]).$plain[$r])
        ),
        'numbers only' => [array_map(static fn (int $i): string => "joint_{$i}", array_keys(BODY))],
    ];
}

test('roles are found in every habit, with how sure each is', function (array $names): void {
    $judged = HumanRoles::judge(tPose($names));
    $plain = str_starts_with($names[0], 'joint_');
    foreach (BODY as $i => $role) {
        expect($judged[$role]['joint'] ?? null)->toBe($i, $role)->and($judged[$role]['confidence'])->toBeBetween($plain ? 0.49 : 0.69, 1.0);
    }
})->with(namings(...));

test('a name in the wrong place is trusted less, and one name of the other side does not turn a leg round', function (): void {
    $names = BODY;
    [$names[11], $names[15]] = [$names[15], $names[11]];
    [$names[5], $names[6]] = [$names[6], $names[5]];
    $judged = HumanRoles::judge(tPose($names));
    expect($judged['lowerArmL']['confidence'])->toBeLessThan(0.6)->and($judged['head']['confidence'])->toBeGreaterThan(0.9)
        ->and($judged['upperLegL']['joint'])->toBe(11)->and($judged['upperLegR']['joint'])->toBe(15);
    // All that is called left lies on the right of the legs.
    $names = BODY;
    foreach (['upperArm', 'lowerArm', 'hand'] as $part) {
        [$l, $r] = [(int) array_search($part.'L', BODY, true), (int) array_search($part.'R', BODY, true)];
        [$names[$l], $names[$r]] = [$names[$r], $names[$l]];
    }
    expect(HumanRoles::judge(tPose($names))['upperArmR']['confidence'])->toBeLessThan(0.7);
});

test('a role can be chosen by hand, and mistakes are named', function (): void {
    $s = tPose(namings()['numbers only'][0]);
    expect(HumanRoles::chosen($s, ['head' => 'joint_3', 'toesL' => ''])['head'])->toBe(3)
        ->and(HumanRoles::chosen($s, ['toesL' => '']))->not->toHaveKey('toesL')
        ->and(fn () => HumanRoles::chosen($s, ['head' => 'nose']))->toThrow(UnableToMatch::class, 'no joint "nose"')
        ->and(fn () => HumanRoles::chosen($s, ['tail' => 'joint_3']))->toThrow(UnableToMatch::class, '"tail" is not a part');
});

test('no roles are made up for what is no body', function (): void {
    $chain = new Skeleton(
        ['a', 'b', 'c', 'd'],
        [-1, 0, 1, 2],
        array_fill(0, 12, 0.3),
        array_merge(...array_fill(0, 4, Q4::IDENTITY)),
        array_fill(0, 12, 1.0),
    );
    [$p] = $chain->world($chain->rotations);
    expect(TreeRoles::match($chain, $p))->toBe([]);
});

test('the same skeleton is taken as it is, to a thousandth of a degree', function (): void {
    $bvh = BvhReader::read(walkAsBvh());
    $figure = figure('oda');
    $table = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, $figure, 'walk');
    $own = solved('oda', 'walk');
    foreach ([0.5, 1.0, 2.0] as $s) {
        foreach ($figure->skeleton->roles as $role => $j) {
            if (! str_starts_with($role, 'foot') && ! str_contains($role, 'Leg') && ! str_starts_with($role, 'toes')) {
                expect(rad2deg(Q4::angleBetween(ClipTable::rotation($table->at($s), $j), ClipTable::rotation($own->at($s), $j))))
                    ->toBeLessThan(0.05);
            }
        }
    }
});

test('another body makes the same motion: limbs point the same way within 2 degrees, feet hold', function (): void {
    $bvh = BvhReader::read(walkAsBvh());
    $bram = figure('bram');
    $table = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, $bram, 'walk');
    $own = solved('oda', 'walk');
    $way = static function (object $figure, array $row, string $a, string $b): array {
        [$p] = $figure->skeleton->world(array_slice($row, 3, 4 * $figure->skeleton->count()), [$row[0], $row[1], $row[2]], $figure->hips);
        [$i, $j] = [$figure->skeleton->roles[$a], $figure->skeleton->roles[$b]];

        return V3::unit([$p[3 * $j] - $p[3 * $i], $p[3 * $j + 1] - $p[3 * $i + 1], $p[3 * $j + 2] - $p[3 * $i + 2]]);
    };
    foreach ([0.4, 0.9, 1.7] as $s) {
        foreach ([['upperArmL', 'lowerArmL'], ['lowerArmL', 'handL'], ['upperArmR', 'lowerArmR'], ['spine', 'chest']] as [$a, $b]) {
            expect(rad2deg(acos(V3::dot($way(figure('oda'), $own->at($s), $a, $b), $way($bram, $table->at($s), $a, $b)))))
                ->toBeLessThan(2.0);
        }
    }
    [$slip, $deep] = slip('bram', $table);
    expect($slip)->toBeLessThan(0.02)->and($deep)->toBeGreaterThan(-0.02);
    $travel = $table->at($table->seconds())[$table->width - 2] - $table->at(0.0)[$table->width - 2];
    expect($travel)->toEqualWithDelta(
        ($own->at(2.5)[$own->width - 2] - $own->at(0.0)[$own->width - 2]) * $bram->body()->leg / figure('oda')->body()->leg
            * $bram->body()->scale,
        0.03,
    );
});

test('names, units, up axis, facing and rest turns of the source do not matter', function (
    array $names, float $unit, ?array $lie, int $seed,
): void {
    $source = tPose($names, $unit, $lie, $seed);
    $roles = HumanRoles::chosen($source);
    $figure = figure('oda');
    $retarget = new CrispReel\Core\Rig\Retarget($source, $roles, $figure->skeleton, $figure->hips);
    // The left arm is raised straight up from the T: a turn of 90 degrees about the axis that points ahead.
    [, $rest] = $source->world($source->rotations);
    $ahead = Q4::rotate($lie ?? Q4::IDENTITY, [0.0, 0.0, 1.0]);
    $j = $roles['upperArmL'];
    $world = Q4::mul(Q4::axis($ahead, M_PI / 2), array_slice($rest, 4 * $j, 4));
    $parent = array_slice($rest, 4 * $source->parents[$j], 4);
    $rotations = $source->rotations;
    array_splice($rotations, 4 * $j, 4, Q4::mul(Q4::conjugate($parent), $world));
    [$turned, $hips] = $retarget->pose($rotations, $source->restTranslation(0), 0);
    [$p] = $figure->skeleton->world($turned, $hips, $figure->hips);
    $at = static fn (string $r): array => array_slice($p, 3 * $figure->skeleton->roles[$r], 3);
    $arm = V3::unit(V3::sub($at('handL'), $at('upperArmL')));
    $other = V3::unit(V3::sub($at('handR'), $at('upperArmR')));
    expect($arm)->toEqualWithDelta([0.0, 1.0, 0.0], 0.001)->and($other)->toEqualWithDelta([-1.0, 0.0, 0.0], 0.001)
        ->and($hips[1])->toEqualWithDelta(0.95 * $retarget->scale * $unit, 0.001)
        ->and($retarget->scale * $unit)
        ->toEqualWithDelta($figure->body()->leg * $figure->body()->scale / (hypot(0.4, 0.01) + hypot(0.41, 0.01)), 0.001);
})->with([
    'metres' => [BODY, 1.0, null, 0],
    'centimetres' => [BODY, 100.0, null, 0],
    'inches, other names' => [namings()['long sides, prefix'][0], 39.37, null, 0],
    'lying with +Z up' => [BODY, 1.0, Q4::aroundX(M_PI / 2), 0],
    'facing away' => [BODY, 1.0, Q4::aroundY(M_PI), 0],
    'facing left, centimetres' => [BODY, 100.0, Q4::aroundY(M_PI / 2), 0],
    'any rest turns' => [BODY, 1.0, null, 5],
    'no names to go by' => [namings()['numbers only'][0], 1.0, null, 9],
]);

test('what cannot be matched is named', function (): void {
    $figure = figure('oda');
    $s = tPose(BODY);
    $roles = HumanRoles::chosen($s);
    unset($roles['footR']);
    expect(fn () => new CrispReel\Core\Rig\Retarget($s, $roles, $figure->skeleton, 0))
        ->toThrow(UnableToMatch::class, 'No joint of the motion is known as footR');
    $flat = tPose(BODY, 0.0);
    expect(fn () => new CrispReel\Core\Rig\Retarget($flat, HumanRoles::match(BODY, $flat->parents), $figure->skeleton, 0))
        ->toThrow(UnableToMatch::class, 'no length');
});

test('contacts are found where a foot is low and slow, and not where it passes', function (): void {
    $points = [];
    for ($i = 0; $i < 60; $i++) {
        // Down from frame 10 to 29, then swings on at 1.5 m/s, 15 cm high.
        $points[] = $i < 10
            ? [0.0, 0.3, 0.05 * $i]
            : ($i < 30 ? [0.0, 0.09 + 0.001 * ($i % 2), 0.5 + 0.001 * $i] : [0.0, 0.24, 0.53 + 0.05 * ($i - 30)]);
    }
    expect(FootLock::spans($points, 0.08, 30.0))->toHaveCount(1);
    [[$from, $to]] = FootLock::spans($points, 0.08, 30.0);
    expect($from)->toBeBetween(10, 12)->and($to)->toBeBetween(28, 31)
        ->and(FootLock::spans(array_fill(0, 2, [0.0, 0.08, 0.0]), 0.08, 30.0))->toBe([]);
});
