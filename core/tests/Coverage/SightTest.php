<?php

declare(strict_types=1);

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\Marks;
use CrispReel\Core\Coverage\Sight;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\Placement;

/** A wall across x from -1 to 1 and up to 2 m, at z, as two triangles. */
function screenAt(float $z, float $left = -1.0, float $right = 1.0, float $top = 2.0): RayTree
{
    return RayTree::of([
        $left, 0.0, $z, $right, 0.0, $z, $right, $top, $z, $left, 0.0, $z, $right, $top, $z, $left, $top, $z,
    ]);
}

/** Somebody who stands at (x, 0, z) and faces +z, by a few points and the joints of a body. */
function body(float $x, float $z): Marks
{
    $at = static fn (float $dx, float $y, float $dz = 0.0): array => [$x + $dx, $y, $z + $dz];

    return Marks::ofPerson(
        [
            'body' => [$at(0.0, 0.0), $at(0.0, 1.7)],
            'eyes' => [$at(0.03, 1.58, 0.1), $at(-0.03, 1.58, 0.1)], 'chin' => [$at(0.0, 1.45, 0.1)],
            'skull' => [$at(0.0, 1.7)], 'chest' => [$at(0.0, 1.2, 0.1)], 'crown' => [$at(0.0, 1.7)],
        ],
        [
            'hips' => $at(0.0, 0.9), 'neck' => $at(0.0, 1.4), 'head' => $at(0.0, 1.5), 'upperLegL' => $at(0.1, 0.85),
            'lowerLegL' => $at(0.1, 0.45), 'footL' => $at(0.1, 0.08), 'upperLegR' => $at(-0.1, 0.85), 'lowerLegR' => $at(-0.1, 0.45),
            'footR' => $at(-0.1, 0.08), 'handL' => $at(0.3, 0.9), 'handR' => $at(-0.3, 0.9), 'upperArmL' => $at(0.18, 1.35),
            'upperArmR' => $at(-0.18, 1.35), 'lowerArmL' => $at(0.26, 1.1), 'lowerArmR' => $at(-0.26, 1.1),
        ],
        0.0,
        0.82,
    );
}

/** @param  array<string, RayTree>  $walls */
function sightOf(array $walls, Marks ...$people): Sight
{
    $solids = new Solids;
    foreach ($walls as $name => $tree) {
        $solids->add($name, new Placement([0.0, 0.0, 0.0]), $tree);
    }

    return new Sight($solids, array_map(static fn (Marks $m, int $i): array => ["Person {$i}", $m], $people, array_keys($people)));
}

function lensAt(float $x, float $z, float $focal = 28.0): Aim
{
    return Aim::at([$x, 1.5, $z], [0.0, 1.2, 0.0], 0.0, 0.0, $focal, new Gate(16 / 9));
}

test('what is open is seen whole, and a wall hides all of it by its name', function (): void {
    $who = body(0.0, 0.0);
    $gate = new Gate(16 / 9);
    expect(sightOf([], $who)->of(lensAt(0.0, 4.0), $who, ['0'], $gate))->toBe([1.0, ''])
        ->and(sightOf(['Wall' => screenAt(2.0)], $who)->of(lensAt(0.0, 4.0), $who, ['0'], $gate))->toBe([0.0, 'Wall'])
        // Behind her it hides nothing.
        ->and(sightOf(['Wall' => screenAt(-1.0)], $who)->of(lensAt(0.0, 4.0), $who, ['0'], $gate))->toBe([1.0, '']);
});

test('a counter hides the legs, which count less than the face', function (): void {
    $who = body(0.0, 0.0);
    [$seen, $hides] = sightOf(['Counter' => screenAt(1.0, top: 0.9)], $who)->of(lensAt(0.0, 4.0), $who, ['0'], new Gate(16 / 9));
    expect($seen)->toBeGreaterThan(0.7)->toBeLessThan(1.0)->and($hides)->toBe('Counter');
    // Seen from near, the legs are not in the picture and hide nothing of it.
    $close = Aim::at([0.0, 1.58, 1.6], [0.0, 1.5, 0.0], 0.0, 0.0, 85.0, new Gate(16 / 9));
    expect(sightOf(['Counter' => screenAt(1.0, top: 0.9)], $who)->of($close, $who, ['0'], new Gate(16 / 9))[0])->toBe(1.0);
});

test('somebody else between the lens and her is named, unless he may be there', function (): void {
    $gate = new Gate(16 / 9);
    [$who, $other] = [body(0.0, 0.0), body(0.0, 2.0)];
    $sight = sightOf([], $who, $other);
    [$seen, $hides] = $sight->of(lensAt(0.0, 4.0), $who, ['0'], $gate);
    expect($seen)->toBeLessThan(0.6)->and($hides)->toBe('Person 1')
        ->and($sight->of(lensAt(0.0, 4.0), $who, ['0', '1'], $gate)[0])->toBe(1.0)
        ->and($sight->face([0.0, 1.5, 4.0], $who, ['0']))->toBeLessThan(0.5)->and($sight->face([2.5, 1.5, 3.0], $who, ['0']))->toBe(1.0);
});

test('the lens keeps 25 centimetres from walls and people', function (float $x, float $z, ?string $says): void {
    $sight = sightOf(['Wall' => screenAt(5.0, -20.0, 20.0, 4.0)], body(0.0, 0.0));
    expect($sight->crowds(lensAt($x, $z)))->toBe($says);
})->with([
    'in the open' => [0.0, 3.0, null], 'at the wall' => [0.0, 4.85, 'Wall'], 'a little off it' => [0.0, 4.7, null],
    'at her face' => [0.0, 0.3, 'Person 0'], 'an arm off' => [0.0, 0.7, null],
]);

test('what fills the foreground is named, and what stands behind counts as a backdrop', function (): void {
    $gate = new Gate(16 / 9);
    $post = sightOf(['Post' => screenAt(3.2, -1.4, -0.1, 3.0)], body(0.0, 0.0));
    expect($post->foreground(lensAt(0.0, 4.0), 1.8, ['0'], $gate))->toBe('Post')
        // Past a thin one at the edge one looks.
        ->and(sightOf(['Pole' => screenAt(3.2, -0.50, -0.46, 3.0)])->foreground(lensAt(0.0, 4.0), 1.8, [], $gate))->toBeNull()
        ->and($post->foreground(lensAt(0.0, 4.0), 0.5, ['0'], $gate))->toBeNull();
    expect(sightOf([])->backdrop(lensAt(0.0, 4.0), $gate))->toBe(0.0)
        ->and(sightOf(['Wall' => screenAt(-2.0, -20.0, 20.0, 20.0)])->backdrop(lensAt(0.0, 4.0), $gate))->toBeGreaterThan(0.6)
        // Farther than 15 metres nobody sees what it is.
        ->and(sightOf(['Hills' => screenAt(-40.0, -90.0, 90.0, 60.0)])->backdrop(lensAt(0.0, 4.0), $gate))->toBe(0.0);
});

test('a thing without a body is seen by its corners', function (): void {
    $box = Marks::ofThing(new Placement([0.0, 0.0, 0.0]), [[-0.2, 0.0, -0.2], [0.2, 0.4, 0.2]], 0.0);
    $lens = Aim::at([0.0, 1.0, 2.0], [0.0, 0.2, 0.0], 0.0, 0.0, 50.0, new Gate(16 / 9));
    expect(sightOf([])->of($lens, $box, [], new Gate(16 / 9))[0])->toBe(1.0)
        ->and(sightOf(['Wall' => screenAt(1.0)])->of($lens, $box, [], new Gate(16 / 9)))->toBe([0.0, 'Wall']);
});

test('a head hides what is behind it as wide as it is drawn', function (): void {
    // Another's head halfway between the lens and her, so far aside: 13 cm are skull and hair yet, 20 cm are past them.
    $clear = static fn (float $aside): float => sightOf([], body(0.0, 0.0), body($aside, 1.5))
        ->face([0.0, 1.55, 3.0], body(0.0, 0.0), ['0']);
    expect($clear(0.0))->toBe(0.0)->and($clear(0.13))->toBe(0.0)->and($clear(0.2))->toBe(1.0)->and($clear(-0.2))->toBe(1.0);
});
