<?php

declare(strict_types=1);

use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Repeat;

/** A walk as a recording on Bram. */
function recordedOnBram(): ClipTable
{
    static $table = null;
    $bvh = BvhReader::read(walkAsBvh());

    return $table ??= ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure('bram'), 'walk');
}

test('a recorded walk goes round by whole strides, and nothing jumps at the seam', function (): void {
    $table = recordedOnBram();
    $best = Repeat::best($table, figure('bram'));
    expect($table->loops)->toBeTrue()->and($best['distance'])->toBeLessThan(0.03)->and($best['to'] - $best['from'])->toBeGreaterThan(0.9);
    $closed = Repeat::closed($table, figure('bram'), $best['from'], $best['to']);
    [$a, $b] = [$closed->at($best['from']), $closed->at($best['to'])];
    $worst = 0.0;
    for ($j = 0; $j < $closed->joints; $j++) {
        if ($j !== figure('bram')->hips) {
            $worst = max($worst, rad2deg(Q4::angleBetween(ClipTable::rotation($a, $j), ClipTable::rotation($b, $j))));
        }
    }
    // The hips may have another heading; their height is the same.
    expect($worst)->toBeLessThan(0.1)->and($b[1] - $a[1])->toEqualWithDelta(0.0, 0.002)
        // What is played up to there is the recording's own.
        ->and($closed->at($best['to'] - 0.4))->toBe($table->at($best['to'] - 0.4));
});

test('of places that fit about as well the longest round is taken; what ends as something else cannot go round', function (): void {
    $rows = [];
    $rest = figure('oda')->skeleton->rotations;
    $arm = figure('oda')->skeleton->roles['upperArmL'];
    for ($i = 0; $i <= 120; $i++) {
        // An arm that goes up for good, and hips that sink: no moment is like an earlier one.
        $turned = $rest;
        array_splice($turned, 4 * $arm, 4, Q4::mul(array_slice($rest, 4 * $arm, 4), Q4::aroundZ($i * 0.02)));
        array_push($rows, ...[0.0, 0.95 - $i * 0.012, 0.0], ...$turned, ...[0.0, 0.0, 0.0]);
    }
    $once = ClipTable::fromRows(30.0, figure('oda')->skeleton->count(), [], 121, $rows, false);
    expect(Repeat::best($once, figure('oda'))['distance'])->toBeGreaterThan(Repeat::FITS);
    // Standing still fits everywhere: from nearly the first moment to nearly the last.
    $still = ClipTable::fromRows(
        30.0, figure('oda')->skeleton->count(), [], 121, array_merge(
            ...array_fill(0, 121, [0.0, 0.95, 0.0, ...$rest, 0.0, 0.0, 0.0]),
        ), false,
    );
    $best = Repeat::best($still, figure('oda'));
    expect($best['to'] - $best['from'])->toBeGreaterThan(3.4)
        ->and(Repeat::best(
            ClipTable::fromRows(30.0, figure('oda')->skeleton->count(), [], 5, array_slice($rows, 0, 5 * $once->width), false),
            figure('oda'),
        ))->toBeNull();
});
