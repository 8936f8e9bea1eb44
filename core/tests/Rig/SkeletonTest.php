<?php

declare(strict_types=1);

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;

/** @return array<string, array{list<string>}> one body in several naming habits */
function habits(): array
{
    $sides = static fn (callable $name): array => array_merge(...array_map(static fn (string $s): array => array_map(
        static fn (string $part): string => $name($part, $s), [
            'shoulder', 'upperArm', 'lowerArm', 'hand', 'upperLeg', 'lowerLeg', 'foot', 'toes',
        ],
    ), ['L', 'R']));
    $long = ['L' => 'Left', 'R' => 'Right'];
    $other = [
        'shoulder' => 'Shoulder', 'upperArm' => 'Arm', 'lowerArm' => 'ForeArm', 'hand' => 'Hand', 'upperLeg' => 'UpLeg',
        'lowerLeg' => 'Leg', 'foot' => 'Foot', 'toes' => 'ToeBase',
    ];
    $plain = [
        'shoulder' => 'clavicle', 'upperArm' => 'upper_arm', 'lowerArm' => 'forearm', 'hand' => 'hand', 'upperLeg' => 'thigh',
        'lowerLeg' => 'shin', 'foot' => 'foot', 'toes' => 'toe',
    ];

    return [
        'side letters at the end' => [[
            'hips', 'spine', 'chest', 'upperChest', 'neck', 'head', ...$sides(static fn (string $p, string $s): string => $p.$s),
        ]],
        'prefix and long sides' => [array_map(static fn (string $n): string => "rig:{$n}", [
            'Hips', 'Spine', 'Spine1', 'Spine2', 'Neck', 'Head',
            ...$sides(static fn (string $p, string $s): string => $long[$s].$other[$p]),
        ])],
        'snake case with dots' => [[
            'pelvis', 'spine', 'chest', 'upper_chest', 'neck', 'head',
            ...$sides(static fn (string $p, string $s): string => $plain[$p].'.'.$s),
        ]],
        'a prefix word on every joint' => [array_map(static fn (string $n): string => "body {$n}", [
            'Pelvis', 'Spine', 'Chest', 'UpperChest', 'Neck', 'Head', ...$sides(static fn (string $p, string $s): string => "{$s} {$p}"),
        ])],
        'lower-case letters in front' => [[
            'hips', 'spine', 'chest', 'upper chest', 'neck', 'head',
            ...$sides(static fn (string $p, string $s): string => strtolower($s).'_'.$plain[$p]),
        ]],
        'camel case with sides in front' => [[
            'hips', 'spine', 'chest', 'upperChest', 'neck', 'head',
            ...$sides(static fn (string $p, string $s): string => strtolower($long[$s]).ucfirst($p)),
        ]],
    ];
}

test('human roles are told from names', function (array $names): void {
    $parents = array_fill(0, count($names), 0);
    $parents[0] = -1;
    $roles = HumanRoles::match($names, $parents);
    foreach (['hips', 'spine', 'chest', 'upperChest', 'neck', 'head'] as $i => $role) {
        expect($roles[$role] ?? null)->toBe($i, $role);
    }
    foreach (['L', 'R'] as $k => $s) {
        foreach (['shoulder', 'upperArm', 'lowerArm', 'hand', 'upperLeg', 'lowerLeg', 'foot', 'toes'] as $i => $role) {
            expect($roles[$role.$s] ?? null)->toBe(6 + 8 * $k + $i, $role.$s);
        }
    }
})->with(habits(...));

test('fingers and made-up joints take no role', function (): void {
    expect(HumanRoles::match(['index1L', 'tail', 'prop slot', 'handle'], [-1, 0, 0, 0]))->toBe([]);
});

/** A chain of three joints, each one metre above the other. */
function chain(): Skeleton
{
    return new Skeleton(
        ['a', 'b', 'c'],
        [-1, 0, 1],
        [0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 1.0, 0.0],
        array_merge(Q4::IDENTITY, Q4::IDENTITY, Q4::IDENTITY),
        array_fill(0, 9, 1.0),
    );
}

test('world places by hand', function (): void {
    $q = Q4::aroundZ(M_PI / 2);
    [$p, $r] = chain()->world([...$q, ...$q, ...Q4::IDENTITY], [5.0, 0.0, 0.0]);
    // The first joint turns up to -x, the second further to -y.
    expect(array_slice($p, 3, 3))->toEqualWithDelta([4.0, 0.0, 0.0], 1e-12)
        ->and(array_slice($p, 6, 3))->toEqualWithDelta([4.0, -1.0, 0.0], 1e-12)
        ->and(Q4::angleBetween([$r[8], $r[9], $r[10], $r[11]], Q4::aroundZ(M_PI)))->toBeLessThan(1e-7);
});

test('a skeleton survives its array form', function (): void {
    $s = chain();
    expect(Skeleton::fromArray(json_decode((string) json_encode($s->toArray()), true)))->toEqual($s);
});

test('a joint before its parent is refused', function (): void {
    new Skeleton(['a', 'b'], [1, -1], array_fill(0, 6, 0.0), array_fill(0, 8, 0.0), array_fill(0, 6, 1.0));
})->throws(InvalidArgumentException::class, 'before its parent');

test('what a joint hangs on, what hangs on it, and one of many turns', function (): void {
    $s = new Skeleton(
        ['a', 'b', 'c', 'd'], [-1, 0, 1, 0], array_fill(0, 12, 0.0), array_merge(...array_fill(0, 4, [0.0, 0.0, 0.0, 1.0])),
        array_fill(0, 12, 1.0), [],
    );
    expect($s->above(2))->toBe([2, 1, 0])->and($s->above(0))->toBe([0])->and($s->above(-1))->toBe([])
        ->and($s->children())->toBe([-1 => [0], 0 => [1, 3], 1 => [2]])
        ->and(Skeleton::turnOf([1.0, 2.0, 3.0, 4.0, 5.0, 6.0, 7.0, 8.0], 1))->toBe([5.0, 6.0, 7.0, 8.0]);
});
