<?php

declare(strict_types=1);

use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Skeleton;

/** A walk of Oda's as a BVH of Oda's own bones, with other names, units, axes. */
function walkAsBvh(): string
{
    $table = solved('oda', 'walk');

    return BvhWriter::write(
        figure('oda')->skeleton,
        figure('oda')->hips,
        array_map(static fn (int $i): array => $table->at($i / 30), range(0, 75)),
        1 / 30,
    );
}

/**
 * A body with all that files put into one: a root, three joints in the back, collar bones, joints for twist, two fingers.
 *
 * @param  callable(string, string): ?string  $name  part and side (L, R or nothing) to the joint's name; null: the file has no such joint
 * @param  float  $drop  degrees that the arms hang below the horizontal
 * @return array{Skeleton, array<string, int>} and the joint of each part
 */
function named(callable $name, float $drop = 0.0, ?array $lie = null): array
{
    $down = deg2rad($drop);
    $arm = static fn (float $far): array => [0.17 + $far * cos($down), 1.42 - $far * sin($down), 0.0];
    $parts = [
        'root' => [null, [0, 0, 0]], 'hips' => [
            'root', [0, 0.95, 0],
        ], 'back1' => ['hips', [0, 1.05, 0]], 'back2' => ['back1', [0, 1.18, 0]],
        'back3' => [
            'back2', [0, 1.32, 0],
        ], 'neck' => ['back3', [0, 1.48, 0]], 'head' => ['neck', [0, 1.57, 0]], 'crown' => ['head', [0, 1.75, 0]],
        'collar' => ['back3', [0.03, 1.43, 0]], 'upperArm' => ['collar', $arm(0.0)], 'armTwist' => ['upperArm', $arm(0.14)],
        'lowerArm' => ['upperArm', $arm(0.28)], 'handTwist' => ['lowerArm', $arm(0.4)], 'hand' => ['lowerArm', $arm(0.53)],
        'thumb' => ['hand', [0.72, 1.42 - 0.55 * sin($down), 0.04]], 'finger' => ['hand', $arm(0.63)], 'tip' => ['finger', $arm(0.70)],
        'upperLeg' => ['hips', [0.1, 0.9, 0]], 'lowerLeg' => ['upperLeg', [0.1, 0.5, 0.01]], 'foot' => ['lowerLeg', [0.1, 0.09, 0]],
        'toes' => ['foot', [0.1, 0.02, 0.14]], 'toeTip' => ['toes', [0.1, 0.02, 0.2]],
    ];
    $middle = ['root', 'hips', 'back1', 'back2', 'back3', 'neck', 'head', 'crown'];
    $names = $parents = $t = $at = $where = [];
    foreach ($parts as $part => [$above, $spot]) {
        foreach (in_array($part, $middle, true) ? [''] : ['L', 'R'] as $side) {
            $called = $name($part, $side);
            if ($called === null) {
                continue;
            }
            // A part whose parent the file lacks hangs on the next one up.
            for ($up = $above; $up !== null && ! isset($where[$up.$side]) && ! isset($where[$up]); $up = $parts[$up][0]) {
            }
            $p = $up === null ? -1 : $where[$up.$side] ?? $where[$up];
            $spot3 = [$side === 'R' ? -(float) $spot[0] : (float) $spot[0], (float) $spot[1], (float) $spot[2]];
            $spot3 = $lie === null ? $spot3 : Q4::rotate($lie, $spot3);
            $where[$part.$side] = count($names);
            $at[] = $spot3;
            $names[] = $called;
            $parents[] = $p;
            array_push($t, ...($p < 0 ? $spot3 : V3::sub($spot3, $at[$p])));
        }
    }
    $n = count($names);

    return [new Skeleton($names, $parents, $t, array_merge(...array_fill(0, $n, Q4::IDENTITY)), array_fill(0, 3 * $n, 1.0)), $where];
}
