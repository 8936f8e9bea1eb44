<?php

declare(strict_types=1);

use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Kit\Motions\MotionKit;
use CrispReel\Core\Math\Q4;

const UNLIKE = [
    ['oda-ferrant', 'bram-tiel'], ['jory-vance', 'pim-alder'], ['lotte-farrow', 'corvin-hale'], ['sefa-quill', 'mirre-tolland'],
];

test('a hand that touches lies on the other\'s drawn surface', function (string $pair): void {
    foreach (array_slice(UNLIKE, 0, 2) as $k => [$a, $b]) {
        $s = meets($pair, $a, $b);
        $tells = array_filter($s->notes, static fn ($n): bool => $n->code === 'pair.short');
        foreach (handsOf($pair) as [$by, $hand, $from, $until]) {
            [$gap, $deep] = touched($s, $by, $hand, $from, $until);
            $most = in_array($pair, ['hug', 'danceTogether'], true) ? 2.5 : 1.0;
            // Where an arm is too short the miss is told, and the gap is no larger than what is told.
            $told = array_map(static fn ($n): float => 100 * $n->figures[0]->value, array_values($tells))[0] ?? 0.0;
            expect($gap)->toBeLessThan($most + $told, "{$pair} of {$a} and {$b}: {$by}{$hand}")
                ->and($deep)->toBeLessThan($most + 0.5, "{$pair} of {$a} and {$b}: {$by}{$hand} is inside");
        }
        expect($tells === [] || $k === 2 || $k === 1)->toBeTrue("{$pair}: {$a} cannot reach {$b}");
    }
})->with([
    'push', 'slap', 'punch', 'shove', 'grabWrist', 'kissCheek', 'highClap', 'patShoulder', 'takeArm', 'helpUp', 'whisperEar',
    'danceTogether', 'hug',
]);

test('heads in a kiss and in a hug touch and do not go into each other', function (string $pair, int $frame, float $gapMost): void {
    foreach ([UNLIKE[0], UNLIKE[3]] as [$a, $b]) {
        $s = meets($pair, $a, $b);
        [$gap, $deep] = drawnIn($s, 'a', $frame)->against(drawnIn($s, 'b', $frame), ['head']);
        expect(100 * $gap)->toBeLessThan($gapMost, "{$pair} {$a} {$b}")->and(100 * $deep)->toBeLessThan(2.0, "{$pair} {$a} {$b}");
    }
})->with([['kissCheek', 40 + 37, 2.0], ['whisperEar', 40 + 60, 9.0], ['hug', 40 + 56, 25.0]]);

test('no joint turns beyond what bodies do, nor jumps', function (string $pair): void {
    foreach ([['oda-ferrant', 'bram-tiel'], ['jory-vance', 'pim-alder']] as [$a, $b]) {
        $s = meets($pair, $a, $b);
        foreach (['a', 'b'] as $who) {
            $roles = $s->lanes[$who]->figure->skeleton->roles;
            $before = null;
            for ($f = 40; $f < 40 + 24 * 4; $f++) {
                $row = SceneEvaluator::row($s, $who, $f);
                foreach (['upperArmL', 'upperArmR', 'lowerArmL', 'lowerArmR', 'spine', 'neck', 'head', 'lowerLegL', 'lowerLegR'] as $role) {
                    $q = array_slice($row, 3 + 4 * $roles[$role], 4);
                    if ($before !== null) {
                        $turned = rad2deg(Q4::angleBetween($before[$role], $q));
                        expect($turned)->toBeLessThan(48.0, "{$pair} {$who} {$role} at {$f}");
                    }
                    $now[$role] = $q;
                    // From rest: an elbow and a knee fold to 150 degrees at most, a neck turns 75.
                    $bent = rad2deg(Q4::angleBetween($s->lanes[$who]->figure->skeleton->restRotation($roles[$role]), $q));
                    $most = str_starts_with($role, 'lower') ? 152.0 : (in_array($role, ['neck', 'head', 'spine'], true) ? 75.0 : 180.0);
                    expect($bent)->toBeLessThan($most, "{$pair} {$who} {$role} at {$f}");
                }
                $before = $now ?? null;
            }
        }
    }
})->with(['shakeHands', 'hug', 'push', 'slap', 'punch', 'kissCheek', 'helpUp', 'danceTogether']);

test('who is struck reacts at once, the way of the force, and as hard as it is taken', function (): void {
    $back = static function (float $strength): array {
        $s = meets('punch', 'oda-ferrant', 'bram-tiel', ['strength' => $strength]);
        $joint = $s->lanes['b']->figure->skeleton->roles['head'];
        $head = static fn (int $f): array => SceneEvaluator::jointPlace($s, 'b', $joint, $f)->position;
        $hit = 40 + (int) ceil(0.60 * 24);

        return [$head($hit), $head($hit + 2), $head($hit + 10), $head(40 + 70)];
    };
    [[$at, $soon, $later], [$at2, , $later2], [, , , $fallen]] = [$back(1.0), $back(0.4), $back(1.6)];
    // The first stands at 0 and strikes along +z.
    expect($soon[2] - $at[2])->toBeGreaterThan(0.015)->and($later[2] - $at[2])->toBeGreaterThan(0.1)
        ->and($later2[2] - $at2[2])->toBeLessThan(0.7 * ($later[2] - $at[2]))
        // Hard enough, and the body lies on the floor.
        ->and($fallen[1])->toBeLessThan(0.5);
});

test('the first sets the pace of both, and hands still meet', function (): void {
    $s = meets('highClap', 'oda-ferrant', 'bram-tiel', ['pace' => 0.7], 1.0, ['pace' => 1.6]);
    [$gap, $deep] = touched($s, 'A', 'R', 0.80 / 1.6 + 0.01, 0.90 / 1.6 + 0.02);
    expect($gap)->toBeLessThan(1.0)->and($deep)->toBeLessThan(1.0)
        ->and($s->lanes['a']->segments[0]->end)->toEqualWithDelta(array_reverse($s->lanes['b']->segments)[0]->end, 0.1);
});

test('a hand that only accompanies lies there, or is left out', function (): void {
    [$gap, $deep] = touched(meets('kissCheek', 'oda-ferrant', 'bram-tiel'), 'A', 'L', 1.3, 1.75);
    expect($gap)->toBeLessThan(1.0)->and($deep)->toBeLessThan(1.0);
    // Somebody who bends far down to a child has no arm left for it: the arm hangs, and nothing is told.
    $s = meets('kissCheek', 'jory-vance', 'pim-alder');
    [$gap] = touched($s, 'A', 'L', 1.3, 1.75);
    expect($gap)->toBeGreaterThan(3.0)->and(array_filter($s->notes, static fn ($n): bool => $n->code === 'pair.short'))->toBe([]);
});

test('what cannot be reached is told with its measure, and no body is bent for it', function (): void {
    $s = meets('slap', 'pim-alder', 'jory-vance');
    $note = array_values(array_filter($s->notes, static fn ($n): bool => $n->code === 'pair.short'))[0];
    expect($note->figures[0]->value)->toBeGreaterThan(0.1)->and($note->sentence)->toContain('cm');
    $spine = $s->lanes['a']->figure->skeleton->roles['spine'];
    $q = array_slice(SceneEvaluator::row($s, 'a', 40 + 15), 3 + 4 * $spine, 4);
    expect(rad2deg(Q4::angleBetween([0.0, 0.0, 0.0, 1.0], $q)))->toBeLessThan(25.0);
});

test('each half finds its other one by name', function (): void {
    expect(MotionKit::otherHalf('slap-a'))->toBe('slap-b')->and(MotionKit::otherHalf('shake-hands-b'))->toBe('shake-hands-a')
        ->and(MotionKit::otherHalf('receive'))->toBe('hand-over')->and(MotionKit::otherHalf('walk'))->toBeNull()
        ->and(MotionKit::otherHalf('idle-a'))->toBeNull();
    $slugs = array_column(MotionKit::all(), 'slug');
    foreach ($slugs as $slug) {
        $other = MotionKit::otherHalf($slug);
        expect($other === null || in_array($other, $slugs, true))->toBeTrue($slug);
    }
});
