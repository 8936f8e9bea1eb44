<?php

declare(strict_types=1);

use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Tests\Support\FakeAssets;

function figure(string $name): Figure
{
    static $made = [];

    return $made[$name] ??= new Figure(hash('sha256', $name), FakeAssets::digestOf($name));
}

/** @param  array<string, mixed>  $settings */
function solved(string $who, string $model, array $settings = []): ClipTable
{
    static $made = [];

    return $made[$who.$model.json_encode($settings)] ??= MotionSampler::table(
        figure($who)->body(),
        new MotionRecipe($model, $settings + ['seed' => 3]),
        figure($who)->morphs,
    );
}

/** Skinned places of the sole's vertices in a row. @return list<array{float, float, float}> */
function drawnSoles(string $who, array $row): array
{
    $s = figure($who)->skeleton;
    [$rest] = $s->world($s->rotations);
    [$p, $q] = $s->world(array_slice($row, 3, 4 * $s->count()), [$row[0], $row[1], $row[2]], figure($who)->hips);
    $out = [];
    foreach (soles($who) as [$v, $pairs]) {
        $sum = [0.0, 0.0, 0.0];
        foreach ($pairs as [$j, $w]) {
            $local = [$v[0] - $rest[3 * $j], $v[1] - $rest[3 * $j + 1], $v[2] - $rest[3 * $j + 2]];
            $at = V3::add(
                [$p[3 * $j], $p[3 * $j + 1], $p[3 * $j + 2]],
                Q4::rotate([$q[4 * $j], $q[4 * $j + 1], $q[4 * $j + 2], $q[4 * $j + 3]], $local),
            );
            $sum = V3::addScaled($sum, $at, $w);
        }
        $out[] = $sum;
    }

    return $out;
}

/** @return array{float, float} farthest a vertex that stays on the floor (under 3 mm) moves, and the deepest it sinks */
function slip(string $who, ClipTable $t): array
{
    $base = [];
    $worst = $deep = 0.0;
    for ($s = 0.0; $s <= $t->seconds(); $s += 1 / 48) {
        foreach (drawnSoles($who, $t->at($s)) as $i => $v) {
            $deep = min($deep, $v[1]);
            if ($v[1] >= 0.003) {
                unset($base[$i]);
            } elseif (isset($base[$i])) {
                $worst = max($worst, hypot($v[0] - $base[$i][0], $v[2] - $base[$i][2]));
            } else {
                $base[$i] = $v;
            }
        }
    }

    return [$worst, $deep];
}

/** Loudness of one pitch in a sound: 1 for a sine of amplitude 1 (Goertzel's algorithm, over whole cycles). */
function toneIn(Wave $wave, float $hertz, float $from = 0.0, ?float $to = null): float
{
    $a = (int) round($from * $wave->rate);
    $n = (int) (floor((($to ?? $wave->seconds()) * $wave->rate - $a) * $hertz / $wave->rate) * $wave->rate / $hertz);
    $k = 2 * cos(2 * M_PI * $hertz / $wave->rate);
    [$s1, $s2] = [0.0, 0.0];
    for ($i = 0; $i < $n; $i++) {
        [$s1, $s2] = [$wave->samples[$a + $i] + $k * $s1 - $s2, $s1];
    }

    return 2 * sqrt(max(0.0, $s1 * $s1 + $s2 * $s2 - $k * $s1 * $s2)) / $n;
}

/**
 * Sole vertices as drawn: rest place, joints and weights.
 *
 * @return list<array{array{float, float, float}, list<array{int, float}>}>
 */
function soles(string $who): array
{
    static $made = [];
    if (isset($made[$who])) {
        return $made[$who];
    }
    $gltf = GltfReader::read(FakeAssets::glb($who));
    $low = [];
    // A skin numbers its joints in its own order; the skeleton has parents first.
    $order = array_flip(FakeAssets::digestOf($who)['jointNodes']);
    $joints = $gltf->list('skins')[0]['joints'];
    foreach ($gltf->primitives() as [, $p]) {
        foreach (array_chunk($p['positions'], 3) as $i => $v) {
            if ($v[1] < 0.006) {
                $pairs = [];
                for ($k = 0; $k < 4; $k++) {
                    if ($p['weights'][4 * $i + $k] > 0.0) {
                        $pairs[] = [$order[$joints[$p['joints'][4 * $i + $k]]], $p['weights'][4 * $i + $k]];
                    }
                }
                $low[] = [$v, $pairs];
            }
        }
    }

    return $made[$who] = $low;
}
