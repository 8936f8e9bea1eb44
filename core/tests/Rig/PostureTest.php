<?php

declare(strict_types=1);

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Posture;
use CrispReel\Core\Rig\Skeleton;

function within(Random $r, float $low, float $high): float
{
    return $low + ($high - $low) * $r->next();
}

/** @return array{float, float, float, float} */
function anyTurn(Random $r): array
{
    return Q4::unit([$r->signed(), $r->signed(), $r->signed(), $r->signed()]);
}

/** A tree of 12 joints, of which 3 to 6 are a limb with a made-up joint between its upper and lower part. */
function anyTree(Random $r): Skeleton
{
    $parents = [-1, 0, 1, 1, 3, 4, 5, 6, 1, 8, 9, 2];
    $t = $q = [];
    foreach ($parents as $_) {
        array_push($t, within($r, 0.1, 0.4), within($r, -0.3, 0.3), within($r, -0.3, 0.3));
        array_push($q, ...anyTurn($r));
    }

    return new Skeleton(
        array_map(static fn (int $j): string => "joint{$j}", array_keys($parents)),
        $parents,
        $t,
        $q,
        array_fill(0, 36, 1.0),
        [],
    );
}

/** @return list<float> */
function anyRow(Random $r, int $joints): array
{
    $row = [$r->signed(), within($r, 0.0, 1.0), $r->signed()];
    for ($j = 0; $j < $joints; $j++) {
        array_push($row, ...anyTurn($r));
    }

    return $row;
}

test('a posture and a single joint of a row lie where the whole skeleton has them, whatever was changed before', function (): void {
    $r = new Random(11);
    for ($round = 0; $round < 60; $round++) {
        $s = anyTree($r);
        $hips = $round % 2;
        $p = new Posture($s, $hips, anyRow($r, 12));
        for ($step = 0; $step < 6; $step++) {
            $p->at((int) (12 * $r->next()));
            $step % 2 === 0 ? $p->turnLocal((int) (12 * $r->next()), anyTurn($r)) : $p->turn((int) (12 * $r->next()), anyTurn($r));
            $p->shiftHips([0.01, 0.02, -0.03]);
        }
        $row = $p->result();
        [$places, $turns] = $s->world(array_slice($row, 3), [$row[0], $row[1], $row[2]], $hips);
        for ($j = 0; $j < 12; $j++) {
            foreach ([$p->at($j), $s->jointIn($row, $hips, $j)] as [$place, $turn]) {
                expect(V3::distance($place, array_slice($places, 3 * $j, 3)))->toBeLessThan(1e-12)
                    ->and(Q4::angleBetween($turn, array_slice($turns, 4 * $j, 4)))->toBeLessThan(1e-7);
            }
        }
    }
});

test('a limb comes to what it can reach and keeps its end as it was or as it is told', function (): void {
    $r = new Random(12);
    for ($round = 0; $round < 80; $round++) {
        $s = anyTree($r);
        $p = new Posture($s, 0, anyRow($r, 12));
        // Upper 3, lower 5 (a joint lies between them), end 6.
        [$a, $b, $c] = [$p->at(3)[0], $p->at(5)[0], $p->at(6)];
        [$long, $short] = [V3::distance($a, $b), V3::distance($b, $c[0])];
        $far = within($r, abs($long - $short) + 0.05 * ($long + $short), 0.95 * ($long + $short));
        $to = V3::addScaled($a, V3::unit([$r->signed(), $r->signed(), $r->signed()]), $far);
        $turn = $round % 2 === 0 ? null : anyTurn($r);
        $miss = $p->reach(3, 5, 6, $to, $turn, [1.0, 0.0, 0.0]);
        [$at, $now] = $p->at(6);
        expect($miss)->toBe(0.0)->and(V3::distance($at, $to))->toBeLessThan(1e-9)->and(Q4::angleBetween($now, $turn ?? $c[1]))
            ->toBeLessThan(1e-7)
            ->and(V3::distance($p->at(3)[0], $p->at(5)[0]))->toEqualWithDelta($long, 1e-9)->and(V3::distance($p->at(5)[0], $at))
            ->toEqualWithDelta($short, 1e-9);
    }
});

test('a point beyond the end is brought along as one piece; what is out of reach is told in metres', function (): void {
    $straight = new Skeleton(
        ['upper', 'lower', 'end'],
        [-1, 0, 1],
        [0.0, 0.0, 0.0, 0.0, 0.4, 0.0, 0.0, 0.3, 0.0],
        [0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0],
        array_fill(0, 9, 1.0),
        [],
    );
    $row = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0];
    $p = new Posture($straight, 0, $row);
    $missed = $p->reach(0, 1, 2, [0.5, 0.0, 0.0], null, [0.0, 0.0, 1.0], [0.0, 0.8, 0.0]);
    $tip = V3::add($p->at(2)[0], Q4::rotate($p->at(2)[1], [0.0, 0.1, 0.0]));
    expect($missed)->toBe(0.0)->and(V3::distance($tip, [0.5, 0.0, 0.0]))->toBeLessThan(1e-9)->and($p->local(2))
        ->toEqualWithDelta([0.0, 0.0, 0.0, 1.0], 1e-9);

    $p->reset($row);
    // 0.7 m long, its last three thousandths rounded off: 1 m away misses a little over 0.3 m.
    $asked = 0;
    expect($p->reach(0, 1, 2, [1.0, 0.0, 0.0], null, function () use (&$asked): array {
        $asked++;

        return [0.0, 0.0, 1.0];
    }))->toEqualWithDelta(0.30007, 1e-5)->and($asked)->toBe(1)->and($p->at(2)[0])->toEqualWithDelta([0.69993, 0.0, 0.0], 1e-4);
    // A straight limb bends about its hinge: upper part to the one side of the line, by the law of cosines.
    $p->reset($row);
    $p->reach(0, 1, 2, [0.0, 0.5, 0.0], null, [0.0, 0.0, 1.0]);
    expect($p->at(1)[0])->toEqualWithDelta([0.24, 0.32, 0.0], 1e-6);
    // From 0.4 and 0.3 to 0.5 the triangle is right-angled at the joint between.
});

test('half of a twist goes to the lower part and the end stays where and as it is', function (): void {
    $r = new Random(13);
    for ($round = 0; $round < 60; $round++) {
        $s = anyTree($r);
        $row = anyRow($r, 12);
        $axis = V3::unit($s->restTranslation(6));
        $twist = within($r, -3.0, 3.0);
        // The end at rest but for a twist about the lower part's length.
        array_splice($row, 3 + 24, 4, Q4::mul(Q4::axis($axis, $twist), $s->restRotation(6)));
        $p = new Posture($s, 0, $row);
        [$lower, $end] = [$p->local(5), $p->at(6)];
        $p->shareTwist(5, 6);
        expect(Q4::angleBetween($p->local(5), Q4::mul($lower, Q4::axis($axis, $twist / 2))))->toBeLessThan(1e-7)
            ->and(Q4::angleBetween($p->at(6)[1], $end[1]))->toBeLessThan(1e-7)->and(V3::distance($p->at(6)[0], $end[0]))
            ->toBeLessThan(1e-12);
    }
});

test('the shortest turn takes one direction to another, also the opposite one', function (): void {
    $r = new Random(14);
    for ($round = 0; $round < 100; $round++) {
        [$a, $b] = [[$r->signed(), $r->signed(), $r->signed()], [$r->signed(), $r->signed(), $r->signed()]];
        $b = $round % 3 === 0 ? V3::add(V3::mul($a, -1.0), [0.0, 1e-4 * $round, 0.0]) : $b;
        expect(V3::distance(Q4::rotate(Posture::shortest($a, $b, [1.0, 0.0, 0.0]), V3::unit($a)), V3::unit($b)))
            ->toBeLessThan($round === 0 ? 3.0 : 1e-9);
    }
    expect(Posture::shortest([0.0, 2.0, 0.0], [0.0, -1.0, 0.0], [1.0, 0.0, 0.0]))->toEqualWithDelta([1.0, 0.0, 0.0, 0.0], 1e-12);
});
