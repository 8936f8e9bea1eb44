<?php

declare(strict_types=1);

use CrispReel\Core\Document\Rate;
use Symfony\Component\Process\Process;

/**
 * Results of functions of the front end.
 *
 * @param  list<array{string, string, list<mixed>}>  $calls  module, function, arguments
 * @return list<mixed>
 */
function frontEnd(array $calls): array
{
    $node = new Process(['node', base_path('tests/node/frontend.mjs')], base_path());
    $node->setInput(json_encode($calls, JSON_THROW_ON_ERROR))->setTimeout(60)->mustRun();

    return json_decode($node->getOutput(), true, 512, JSON_THROW_ON_ERROR);
}

test('the front end and the core count timecode alike, and what is shown is typed back', function (): void {
    $calls = $expected = [];
    foreach ([[24, 1], [25, 1], [30, 1], [24000, 1001], [30000, 1001], [60000, 1001]] as [$num, $den]) {
        $base = (int) round($num / $den);
        foreach ([
            0, 1, $base - 1, $base, 60 * $base - 1, 60 * $base, 1798, 1799, 1800, 1801, 1802, 3597, 3598, 17981, 17982, 17983, 107891,
            107892, 215999, 999999,
        ] as $f) {
            $shown = (new Rate($num, $den))->timecode($f);
            array_push($calls, ['lib/time.ts', 'timecode', [$f, [$num, $den]]], ['lib/time.ts', 'parseFrame', [$shown, [$num, $den]]]);
            array_push($expected, $shown, $f);
        }
    }
    expect(frontEnd($calls))->toBe($expected);
});

test('a time may be typed as frames, seconds or a part of a timecode', function (): void {
    $expected = [
        '130' => 130, ' 130f ' => 130, '130 f' => 130, '5.5s' => 132, '2 s' => 48, '5:12' => 132, '1:00:00' => 1440, '00:00:05:12' => 132,
        '0:00:05;12' => 132, '' => null, 'soon' => null, '-4' => null, '1:x' => null, '1:2:3:4:5' => null, '1.5' => null, '5:' => 120,
    ];
    $typed = array_map(strval(...), array_keys($expected));
    expect(array_combine($typed, frontEnd(array_map(static fn (string $t): array => ['lib/time.ts', 'parseFrame', [$t, [24, 1]]], $typed))))
        ->toBe(array_combine($typed, array_values($expected)));
    // At 29.97 the first two numbers of most minutes are left out.
    expect(frontEnd([
        ['lib/time.ts', 'parseFrame', ['00:01:00;02', [30000, 1001]]], ['lib/time.ts', 'parseFrame', ['00:01:00;00', [30000, 1001]]],
        ['lib/time.ts', 'parseFrame', ['00:10:00;00', [30000, 1001]]], ['lib/time.ts', 'parseFrame', ['01:00:00;00', [60000, 1001]]],
    ]))->toBe([1800, 1800, 17982, 215784]);
});

test('numbers may be typed with a unit', function (): void {
    $given = [
        ['2.5', 'm', 2.5], ['250cm', 'm', 2.5], ['250 cm', 'm', 2.5], ['-3', 'm', -3.0], ['.5', 'm', 0.5], ['1,5', 'm', 1.5],
        ['1 km', 'm', 1000.0], ['6 ft', 'm', 1.8288], ['10in', 'm', 0.254], ['1200mm', 'm', 1.2],
        ['45', 'deg', 45.0], ['45deg', 'deg', 45.0], ['45°', 'deg', 45.0], ['-90°', 'deg', -90.0], ['45m', 'deg', null],
        ['35', 'mm', 35.0], ['35mm', 'mm', 35.0], ['3.5 cm', 'mm', 35.0],
        ['two', 'm', null], ['', 'm', null], ['1..2', 'm', null], ['5 apples', 'm', null], ['35', '', 35.0], ['35mm', '', null],
    ];
    $found = frontEnd(array_map(static fn (array $g): array => ['lib/time.ts', 'parseNumber', [$g[0], $g[1]]], $given));
    foreach ($given as $k => [$text, $unit, $expected]) {
        expect(is_numeric($found[$k]) ? round((float) $found[$k], 9) : null)->toBe($expected, "{$text}, {$unit}");
    }
});

test('numbers are shown without zeros that say nothing', function (): void {
    $shown = [
        [1.0, 2, '1'], [1.5, 2, '1.5'], [1.256, 2, '1.26'], [-0.001, 2, '0'], [100.0, 2, '100'], [0.0, 2, '0'], [120.0, 0, '120'],
        [2.50001, 3, '2.5'],
    ];
    expect(frontEnd(array_map(static fn (array $s): array => ['lib/time.ts', 'short', [$s[0], $s[1]]], $shown)))
        ->toBe(array_column($shown, 2));
});

test('names on the plan lie on no other name and on nobody', function (): void {
    $overlaps = static function (array $people): int {
        $dy = frontEnd([['workspace/panes/plan.ts', 'namesApart', [$people]]])[0];
        $boxes = array_map(
            static fn (array $p): array => [
                $p['x'] - 3.2 * strlen($p['text']), $p['y'] + $dy[$p['id']] - 10, $p['x'] + 3.2 * strlen($p['text']),
                $p['y'] + $dy[$p['id']] + 2,
            ],
            $people,
        );
        $n = 0;
        foreach ($boxes as $i => $a) {
            foreach (array_slice($boxes, $i + 1) as $b) {
                $n += $a[0] < $b[2] - 1 && $b[0] < $a[2] - 1 && $a[1] < $b[3] - 1 && $b[1] < $a[3] - 1 ? 1 : 0;
            }
        }

        return $n;
    };
    $person = static fn (int $id, float $x, float $y, string $text): array => ['id' => $id, 'x' => $x, 'y' => $y, 'text' => $text];
    expect($overlaps([$person(1, 100, 100, 'Oda'), $person(2, 104, 100, 'Bram')]))->toBe(0)->and($overlaps([
        $person(1, 100, 100, 'Oda'), $person(2, 100, 100, 'Bram'), $person(3, 100, 100, 'Mirre'), $person(4, 100, 101, 'Jory'),
    ]))->toBe(0);
    expect($overlaps(array_map(
        static fn (int $k): array => $person($k, 100 + 26 * ($k % 4), 100 + 22 * intdiv($k, 4), "Person {$k}"),
        range(0, 11),
    )))->toBeLessThanOrEqual(2);
    // One who stands alone has the name above.
    expect(frontEnd([['workspace/panes/plan.ts', 'namesApart', [[$person(7, 50, 50, 'Oda')]]]])[0])->toBe(['7' => -14]);
});

test('facts are told in plain words', function (): void {
    $cases = [
        [
            'motion', ['seconds' => 2.5, 'travel' => 3.2, 'speed' => 1.28, 'loops' => true],
            ['Length' => '2.50 s, 60 frames at 24, loops', 'Way' => '3.20 m at 1.28 m/s'],
        ],
        [
            'motion', ['seconds' => 1.0, 'travel' => 0.02, 'rate' => 29.97],
            ['Length' => '1.00 s, 24 frames at 24', 'Way' => 'stays on the spot', 'Recorded at' => '29.97 frames a second'],
        ],
        ['performer', [
            'size' => [1.0, 1.79, 0.4], 'triangles' => 14822, 'draws' => 10, 'joints' => 45, 'roles' => 25, 'fingers' => true,
            'shapes' => 14, 'mouths' => 4, 'eyelids' => true, 'style' => 'painted',
        ],
            [
                'Height' => '1.79 m', 'Triangles' => '14,822 in 10 parts', 'Joints' => '45, 25 known as parts of a body',
                'Fingers' => 'yes', 'Face' => '14 shapes, 4 of the mouth, eyelids', 'Style' => 'painted',
            ]],
        [
            'performer', ['joints' => 3, 'roles' => 0, 'shapes' => 0],
            ['Joints' => '3, 0 known as parts of a body', 'Fingers' => 'no', 'Face' => 'does not move'],
        ],
        ['prop', ['size' => [0.002, 0.25, 1.5], 'triangles' => 12, 'draws' => 1, 'joints' => 0, 'mounts' => ['hold', 'gripL', 'seat12']],
            [
                'Size' => '2.0 mm wide, 25 cm high, 1.50 m deep', 'Triangles' => '12 in 1 part',
                'Working parts' => 'none, it is one piece', 'Places to hold or sit' => 'hold, left grip, seat 12',
            ]],
        [
            'prop', ['triangles' => 12, 'draws' => 2, 'joints' => 4],
            ['Triangles' => '12 in 2 parts', 'Working parts' => '4 that turn by themselves'],
        ],
        ['picture', ['pixels' => [64, 32]], ['Picture' => '64 x 32 pixels']],
        [
            'sound', ['seconds' => 0.5, 'channels' => 2, 'sampleRate' => 44100],
            ['Length' => '0.50 s, 12 frames at 24', 'Sound' => '2 channels, 44100 Hz'],
        ],
        // What a slip could have wrong in it is passed over.
        ['prop', ['size' => 'large', 'triangles' => null, 'style' => 7], ['Working parts' => 'none, it is one piece']],
        [null, [], []],
    ];
    $told = frontEnd(array_map(
        static fn (array $c): array => ['workspace/kit/facts.ts', 'factsOf', [$c[0], (object) $c[1], [24, 1]]],
        $cases,
    ));
    expect(array_map(static fn (array $rows): array => array_column($rows, 1, 0), $told))->toBe(array_column($cases, 2));
    expect(frontEnd(array_map(static fn (int $bytes): array => ['workspace/kit/facts.ts', 'megabytes', [$bytes]], [0, 700000, 5242880])))
        ->toBe(['1 kB', '684 kB', '5.0 MB']);
});

test('what an edit on its way will make of a row is shown for simple fields, and for nothing else', function (): void {
    $rows = [
        'items' => [['id' => 4, 'name' => 'Oda', 'position' => [1.0, 0.0, 2.0], 'headingDeg' => 0, 'scale' => 1]],
        'beats' => [['id' => 9, 'start' => 10, 'speed' => 1]],
        'links' => [],
        'touch_ups' => [],
        'contacts' => [],
        'cameras' => [['id' => 2, 'name' => '', 'keys' => []]],
        'shots' => [],
    ];
    $told = static fn (array $command): array => ['workspace/expected.ts', 'expectedRow', [$rows, $command]];
    [$x, $both, $turned, $named, $beat, $gone, $made, $keyed] = frontEnd([
        $told(['do' => 'item.place', 'item' => 4, 'x' => 7.5]),
        $told(['do' => 'item.place', 'item' => 4, 'position' => [3, 0, 3], 'z' => 9]),
        $told(['do' => 'item.place', 'item' => 4, 'headingDeg' => 45]),
        $told(['do' => 'camera.set', 'camera' => 2, 'name' => 'Wide']),
        $told(['do' => 'beat.set', 'beat' => 9, 'speed' => 2, 'motion' => 'walk']),
        $told(['do' => 'item.place', 'item' => 99, 'x' => 1]), $told(['do' => 'camera.add', 'frame' => 3]),
        $told(['do' => 'camera.key', 'camera' => 2, 'frame' => 3]),
    ]);
    expect($x['row']['position'])->toEqual([7.5, 0, 2])->and($both['row']['position'])->toEqual([3, 0, 9])
        ->and($turned['row']['headingDeg'])->toBe(45)->and($turned['row']['position'])->toEqual([1, 0, 2])
        ->and($named['row']['name'])->toBe('Wide')->and($beat['row'])->toBe(['id' => 9, 'start' => 10, 'speed' => 2])
        ->and([$gone, $made, $keyed])->toBe([null, null, null]);
});
