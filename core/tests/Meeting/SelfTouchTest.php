<?php

declare(strict_types=1);

use CrispReel\Core\Camera\SkinnedSurface;
use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Format\Bvh\BvhMotion;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Meeting\Skin;
use CrispReel\Core\Rig\Posture;
use CrispReel\Core\Tests\Support\FakeAssets;

function ownSkin(string $who): Skin
{
    static $made = [];

    return $made[$who] ??= new Skin(figure($who), new SkinnedSurface(GltfReader::read(FakeAssets::glb($who))));
}

/** A motion of Oda's as a recording. */
function odasRecording(string $score): BvhMotion
{
    $table = solved('oda', 'act', ['score' => $score]);
    $rows = array_map(static fn (int $i): array => $table->at($i / 30), range(0, (int) ($table->seconds() * 30)));

    return BvhReader::read(BvhWriter::write(figure('oda')->skeleton, figure('oda')->hips, $rows, 1 / 30));
}

/**
 * Metres between the nearest drawn points of two parts.
 *
 * @param  list<float>  $row
 * @param  list<string>  $one
 * @param  list<string>  $other
 */
function nearestPoints(string $who, array $row, array $one, array $other): float
{
    $p = new Posture(figure($who)->skeleton, figure($who)->hips, $row);
    [$a, $b] = [ownSkin($who)->posed(ownSkin($who)->vertices($one), $p), ownSkin($who)->posed(ownSkin($who)->vertices($other), $p)];
    $least = INF;
    foreach ($a as $x) {
        foreach ($b as $y) {
            $least = abs($x[0] - $y[0]) < $least ? min($least, V3::distance($x, $y)) : $least;
        }
    }

    return $least;
}

test('hands that clap in a recording clap on every body, however wide its shoulders', function (): void {
    $bvh = odasRecording('clap');
    foreach (array_keys(FigureSpec::house()) as $who) {
        $bare = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure($who), 'clap');
        $table = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure($who), 'clap', skin: static fn (): Skin => ownSkin($who));
        $gaps = $far = [];
        for ($s = 1.2; $s < 2.0; $s += 1 / 30) {
            $gaps[] = nearestPoints($who, $table->at($s), ['handL'], ['handR']);
            $far[] = nearestPoints($who, $bare->at($s), ['handL'], ['handR']);
        }
        // They meet twice and go apart in between as far as they did.
        expect(min($gaps))->toBeLessThan(0.012, $who)->and(max($gaps))->toEqualWithDelta(max($far), 0.03);
        // Feet, hips and head have nothing to do with it.
        expect(array_slice($table->at(1.3), 0, 3))->toBe(array_slice($bare->at(1.3), 0, 3));
    }
});

test('folded arms and hands on hips lie on the drawn body, whoever it is', function (string $score, string $hand, array $part): void {
    $bvh = odasRecording($score);
    $source = solved('oda', 'act', ['score' => $score]);
    foreach (['bram', 'pim-alder', 'corvin-hale', 'sefa-quill', 'jory-vance'] as $who) {
        $table = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure($who), $score, skin: static fn (): Skin => ownSkin($who));
        foreach ([1.0, 1.4, 2.2] as $s) {
            expect(nearestPoints($who, $table->at($s), [$hand], $part))
                ->toBeLessThan(0.01 + nearestPoints('oda', $source->at($s), [$hand], $part), "{$who} at {$s}");
        }
    }
})->with([
    ['idleImpatient', 'handL', ['upperArmR', 'lowerArmR']], ['idleImpatient', 'handR', ['upperArmL', 'lowerArmL', 'chest']],
    ['idleProud', 'handL', ['hips', 'spine', 'chest']], ['idleCold', 'handL', ['upperArmR', 'lowerArmR']],
]);

test('where nothing touches, nothing is changed', function (): void {
    $bvh = BvhReader::read(walkAsBvh());
    $bare = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure('bram'), 'walk');
    $table = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure('bram'), 'walk', skin: static fn (): Skin => ownSkin('bram'));
    $arm = figure('bram')->skeleton->roles['lowerArmL'];
    foreach ([0.3, 1.1, 2.0] as $s) {
        expect(array_slice($table->at($s), 3 + 4 * $arm, 4))->toEqualWithDelta(array_slice($bare->at($s), 3 + 4 * $arm, 4), 1e-6);
    }
});
