<?php

declare(strict_types=1);

use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Format\Bvh\UnableToReadBvh;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A root with one bone, two frames. @param  list<string>  $frames */
function bvh(array $frames, string $channels = 'Zrotation Xrotation Yrotation', string $time = '0.0416667', ?int $count = null): string
{
    return "HIERARCHY\nROOT Hips\n{\n  OFFSET 0 90 0\n  CHANNELS 6 Xposition Yposition Zposition {$channels}\n  JOINT Spine\n  {\n    OFFSET 0 10 0\n    CHANNELS 3 {$channels}\n    End Site\n    {\n      OFFSET 0 20 0\n    }\n  }\n}\n"
        ."MOTION\nFrames: ".($count ?? count($frames))."\nFrame Time: {$time}\n".implode("\n", $frames)."\n";
}

test('offsets, end sites, frames and time are read', function (): void {
    $m = BvhReader::read(bvh(['1 91 2 0 0 0 0 0 0', '3 92 4 0 0 0 0 0 90']));
    expect($m->skeleton->names)->toBe(['Hips', 'Spine', 'Spine end'])->and($m->skeleton->parents)->toBe([-1, 0, 1])->and($m->frames)
        ->toBe(2)
        ->and($m->clip->seconds)->toEqualWithDelta(0.0416667, 1e-9)->and($m->findings)->toBe([]);
    [$q, $t] = $m->clip->pose($m->skeleton, 0.02083335, 0);
    expect($t)->toEqualWithDelta([2.0, 91.5, 3.0], 1e-5)->and(rad2deg(Q4::angleBetween(Q4::IDENTITY, array_slice($q, 4, 4))))
        ->toEqualWithDelta(45.0, 1e-4);
});

test('rotations apply in the order of the channels, the first outermost', function (
    string $channels, array $degrees, array $expected,
): void {
    $m = BvhReader::read(bvh(array_fill(0, 2, '0 0 0 '.implode(' ', $degrees).' 0 0 0'), $channels));
    [$q] = $m->clip->pose($m->skeleton, 0.0, 0);
    // Where the turn takes +X, worked by hand for right angles.
    expect(Q4::rotate(array_slice($q, 0, 4), [1.0, 0.0, 0.0]))->toEqualWithDelta($expected, 1e-9);
})->with([
    // Y first takes +X to -Z, X then takes -Z to +Y, Z takes +Y to -X.
    ['Zrotation Xrotation Yrotation', [90, 90, 90], [-1.0, 0.0, 0.0]],
    // Z first: +X to +Y; Y leaves it; X takes +Y to +Z.
    ['Xrotation Yrotation Zrotation', [90, 90, 90], [0.0, 0.0, 1.0]],
    // X leaves +X, Z takes it to +Y, Y leaves +Y.
    ['Yrotation Zrotation Xrotation', [90, 90, 90], [0.0, 1.0, 0.0]],
]);

test('rates from 24 to 240 frames a second keep their length', function (int $rate): void {
    $m = BvhReader::read(bvh(array_fill(0, $rate + 1, '0 0 0 0 0 0 0 0 0'), time: sprintf('%.9f', 1 / $rate)));
    expect($m->clip->seconds)->toEqualWithDelta(1.0, 1e-6);
})->with([24, 30, 60, 120, 240]);

test('a figure written and read again moves the same', function (string $who, string $model): void {
    $figure = figure($who);
    $table = solved($who, $model);
    $rows = array_map(static fn (int $i): array => $table->at($i / 24), range(0, 40));
    $m = BvhReader::read(BvhWriter::write($figure->skeleton, $figure->hips, $rows, 1 / 24));
    expect($m->frames)->toBe(41)->and($m->skeleton->roles)->toHaveCount(count($figure->skeleton->roles));
    foreach ([0, 13, 40] as $f) {
        [$q, $t] = $m->clip->pose($m->skeleton, $f / 24, 0);
        [$a] = $m->skeleton->world($q, $t, 0);
        [$b] = $figure->skeleton->world(
            array_slice($rows[$f], 3, 4 * $figure->skeleton->count()),
            [$rows[$f][0], $rows[$f][1], $rows[$f][2]],
            $figure->hips,
        );
        foreach ($figure->skeleton->roles as $role => $j) {
            $k = $m->skeleton->roles[$role];
            expect(V3::distance(
                [$a[3 * $k] / 100, $a[3 * $k + 1] / 100, $a[3 * $k + 2] / 100],
                [$b[3 * $j], $b[3 * $j + 1], $b[3 * $j + 2]],
            ))->toBeLessThan(1e-4);
        }
    }
})->with([['oda', 'wave'], ['bram', 'walk']]);

test('what can be mended is mended and told', function (string $text, string $finding): void {
    expect(implode(' ', BvhReader::read($text)->findings))->toContain($finding);
})->with([
    'a value that is none' => [bvh(['0 0 0 0 0 0 0 0 0', '0 0 0 nan 0 0 0 0 0']), '1 values are no numbers'],
    'fewer frames than told' => [bvh(['0 0 0 0 0 0 0 0 0', '0 0 0 0 0 0 0 0 0'], count: 9), 'tells of 9 frames and has 2'],
    'more lines than frames' => [bvh(array_fill(0, 4, '0 0 0 0 0 0 0 0 0'), count: 3), 'more lines than frames'],
    'no frame time' => [bvh(array_fill(0, 2, '0 0 0 0 0 0 0 0 0'), time: '0'), '30 frames a second'],
    'two joints of one name' => [
        str_replace('JOINT Spine', 'JOINT Hips', bvh(array_fill(0, 2, '0 0 0 0 0 0 0 0 0'))), 'Two joints are called "Hips"',
    ],
    'places below the root' => [
        str_replace('CHANNELS 3', 'CHANNELS 6 Xposition Yposition Zposition', bvh(array_fill(0, 2, '0 0 0 0 0 0 0 1 0 0 0 0'))),
        'place channels',
    ],
    'two roots' => [
        str_replace(
            "}\nMOTION",
            "}\nROOT Cart\n{\nOFFSET 0 0 0\nCHANNELS 3 Xposition Yposition Zposition\nEnd Site\n{\nOFFSET 0 1 0\n}\n}\nMOTION",
            bvh(array_fill(0, 2, '0 0 0 0 0 0 0 0 0 1 2 3')),
        ),
        '2 roots',
    ],
]);

test('what cannot be read is refused with line and remedy', function (string $text, string $message): void {
    expect(fn () => BvhReader::read($text))->toThrow(UnableToReadBvh::class, $message);
})->with([
    'cut off' => [substr(bvh(['0']), 0, 60), 'MOTION is missing'],
    'not a hierarchy' => ["SKELETON\nMOTION\nFrames: 2\nFrame Time: 1\n", '"HIERARCHY" belongs where "SKELETON" stands'],
    'an unknown channel' => [str_replace('Xrotation', 'Wrotation', bvh(['0 0 0 0 0 0 0 0 0', '0'])), '"Wrotation" is not a channel'],
    'an offset that is none' => [
        str_replace('OFFSET 0 10 0', 'OFFSET 0 ten 0', bvh(['0'])), 'Line 8 of the BVH file: "ten" is not a number',
    ],
    'a hierarchy that ends' => [preg_replace('/\}\s*MOTION/', 'MOTION', bvh(['0 0 0 0 0 0 0 0 0'])), 'ends in the middle'],
    'something after the hierarchy' => [str_replace("}\nMOTION", "}\nOTHER\nMOTION", bvh(['0'])), 'something else than a root'],
    'a second root that ends' => [str_replace("}\nMOTION", "}\nROOT Other\nMOTION", bvh(['0'])), 'ends in the middle'],
    'too few numbers' => [bvh(['0 0 0 0 0 0 0 0 0', '0 0 0']), 'Line 20 of the BVH file: 3 numbers where the joints have 9 channels'],
    'no frames' => [bvh([]), 'no frames'],
    'one frame' => [bvh(['0 0 0 0 0 0 0 0 0']), 'one frame only'],
    'a million frames' => [bvh(['0 0 0 0 0 0 0 0 0'], count: 1_000_000), '1000000 frames; at most 100000'],
    'negative frames' => [bvh(['0 0 0 0 0 0 0 0 0'], count: -5), 'no frames'],
    'nothing' => ['', 'MOTION is missing'],
]);

test('deep hierarchies are bounded', function (): void {
    $open = $close = '';
    for ($i = 0; $i < 600; $i++) {
        $open .= ($i === 0 ? 'ROOT' : 'JOINT')." j{$i}\n{\nOFFSET 0 1 0\nCHANNELS 0\n";
        $close .= "}\n";
    }
    BvhReader::read("HIERARCHY\n{$open}{$close}MOTION\nFrames: 2\nFrame Time: 0.03\n\n\n");
})->throws(UnableToReadBvh::class, '513 joints');

test('every cut of a file ends in a named refusal or a reading, never in an error of ours', function (): void {
    $text = bvh(['1 91 2 0 0 0 0 0 0', '3 92 4 0 0 0 0 0 90', '3 92 4 0 0 0 0 0 90']);
    $refused = [];
    $read = 0;
    for ($n = 0; $n < strlen($text); $n += 3) {
        try {
            // What is read of a file that is cut has fewer frames, and says so.
            $m = BvhReader::read(substr($text, 0, $n));
            expect($m->frames)->toBeLessThanOrEqual(3)->and($m->frames === 3 || $m->findings !== [])->toBeTrue();
            $read++;
        } catch (UnableToReadBvh $e) {
            expect($e->getMessage())->not->toBe('')->and($e->remedy())->not->toBe('');
            $refused[$e->reason()] = true;
        }
    }
    ksort($refused);
    expect(array_keys($refused))->toBe(['bvh.frames', 'bvh.syntax'])->and($read)->toBeGreaterThan(0);
});
