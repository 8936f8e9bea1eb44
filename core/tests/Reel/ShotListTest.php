<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Reel\ShotList;
use CrispReel\Core\Tests\Support\Scenes;

function listed(string $camera = ''): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('i1', 'oda'), Scenes::item('i2', 'bram', 0.0, 1.4, 180.0)],
        'beats' => [Scenes::beat('b1', 'i1', 'talk', 0), Scenes::beat('b2', 'i2', 'wave', 60), Scenes::beat('b3', 'i2', 'idle', 0)],
        'cameras' => [['name' => $camera] + Scenes::camera('ca', [['focalMm' => 28.0]]), Scenes::camera('cb', [[]])],
        'shots' => [
            ['id' => 's1', 'camera' => 'ca', 'in' => 0, 'out' => 48, 'label' => '010'],
            ['id' => 's2', 'camera' => 'cb', 'in' => 48, 'out' => 96, 'label' => '020'],
            ['id' => 's3', 'camera' => 'ca', 'in' => 24, 'out' => 36, 'label' => '030'],
        ],
        'framings' => [[
            'id' => 'f1', 'camera' => 'cb', 'subject' => 'i1', 'partner' => 'i2', 'kind' => 'overShoulder', 'sideDeg' => 30.0,
            'frame' => 50, 'focalMm' => 65.0,
        ]],
    ]);
}

test('each shot says what it shows, how tight, when, and what is done in it', function (): void {
    $lines = ShotList::of(listed());
    expect(array_column($lines, 'label'))->toBe(['010', '020', '030'])->and(array_column($lines, 'camera'))->toBe(['A', 'B', 'A'])
        ->and($lines[1])->toMatchArray([
            'name' => 'i1, over i2', 'size' => 'medium', 'focalMm' => 65.0, 'in' => 48, 'out' => 96, 'seconds' => 2.0,
        ])
        ->and($lines[0])->toMatchArray(['name' => '', 'size' => '', 'focalMm' => 28.0, 'action' => 'i1: talk'])
        ->and($lines[1]['action'])->toContain('i2: wave')
        // Times of the reel follow each other, whatever frames of the scene they show.
        ->and(array_column($lines, 'reelIn'))->toBe(['00:00:00:00', '00:00:02:00', '00:00:04:00'])
        ->and($lines[2]['reelOut'])->toBe('00:00:04:12');
});

test('as a file for a spreadsheet commas and quotes stay what they are, and nothing is a formula', function (): void {
    $csv = ShotList::csv(listed('=SUM(A1), "wide"'));
    $rows = array_map(static fn (string $l): array => str_getcsv($l, escape: ''), explode("\r\n", trim($csv)));
    expect($rows)->toHaveCount(4)->and($rows[0][0])->toBe('Shot')->and($rows[1][2])->toBe('\'=SUM(A1), "wide"')
        ->and($rows[2][2])->toBe('i1, over i2')->and(array_unique(array_map(count(...), $rows)))->toBe([11]);
});
