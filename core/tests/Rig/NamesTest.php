<?php

declare(strict_types=1);

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Skeleton;

/** Roles to the parts of the body above. */
const PLAYS = [
    'hips' => 'hips', 'neck' => 'neck', 'head' => 'head', 'upperArm' => 'upperArm', 'lowerArm' => 'lowerArm', 'hand' => 'hand',
    'upperLeg' => 'upperLeg', 'lowerLeg' => 'lowerLeg', 'foot' => 'foot', 'toes' => 'toes',
];

/** Words for the parts of the body above, as seven files have them. @return list<array<string, string>> */
function vocabularies(): array
{
    $joints = [
        'hips' => 'Hips', 'back1' => 'Spine', 'back2' => 'Spine1', 'back3' => 'Spine2', 'neck' => 'Neck', 'head' => 'Head',
        'collar' => 'Collar', 'upperArm' => 'Shoulder', 'lowerArm' => 'Elbow', 'hand' => 'Wrist', 'finger' => 'Finger', 'upperLeg' => 'Hip',
        'lowerLeg' => 'Knee', 'foot' => 'Ankle', 'toes' => 'Toe',
    ];
    $bones = [
        'root' => 'root', 'hips' => 'pelvis', 'back1' => 'spine_01', 'back2' => 'spine_02', 'back3' => 'spine_03', 'neck' => 'neck_01',
        'head' => 'head', 'collar' => 'clavicle', 'upperArm' => 'upperarm', 'armTwist' => 'upperarm_twist', 'lowerArm' => 'lowerarm',
        'handTwist' => 'lowerarm_twist', 'hand' => 'hand', 'thumb' => 'thumb_01', 'finger' => 'index_01', 'tip' => 'index_02',
        'upperLeg' => 'thigh', 'lowerLeg' => 'calf', 'foot' => 'foot', 'toes' => 'ball',
    ];
    $arms = [
        'hips' => 'Hips', 'back1' => 'LowerBack', 'back2' => 'Spine', 'back3' => 'Spine1', 'neck' => 'Neck', 'head' => 'Head',
        'crown' => 'Head end', 'collar' => 'Shoulder', 'upperArm' => 'Arm', 'lowerArm' => 'ForeArm',
        'hand' => 'Hand', 'finger' => 'HandIndex1',
        'tip' => 'HandIndex2', 'upperLeg' => 'UpLeg', 'lowerLeg' => 'Leg', 'foot' => 'Foot', 'toes' => 'ToeBase', 'toeTip' => 'ToeBase end',
    ];
    $doctor = [
        'hips' => 'pelvis', 'back1' => 'abdomen', 'back2' => 'thorax', 'neck' => 'neck', 'head' => 'head', 'collar' => 'scapula',
        'upperArm' => 'humerus', 'lowerArm' => 'ulna', 'hand' => 'hand', 'upperLeg' => 'femur', 'lowerLeg' => 'tibia', 'foot' => 'foot',
        'toes' => 'toes',
    ];
    $plain = [
        'hips' => 'hip', 'back1' => 'waist', 'back2' => 'chest', 'neck' => 'neck', 'head' => 'head', 'upperArm' => 'shoulder',
        'lowerArm' => 'elbow', 'hand' => 'hand', 'upperLeg' => 'thigh', 'lowerLeg' => 'knee', 'foot' => 'foot', 'toes' => 'toe',
    ];
    $turned = [
        'hips' => 'hips', 'back1' => 'spine', 'back2' => 'chest', 'neck' => 'neck', 'head' => 'head', 'upperArm' => 'arm_upper',
        'lowerArm' => 'arm_lower', 'hand' => 'hand', 'upperLeg' => 'leg_upper',
        'lowerLeg' => 'leg_lower', 'foot' => 'foot', 'toes' => 'toes',
    ];
    $numbered = [
        'hips' => 'Hips', 'back1' => 'Spine 1', 'back2' => 'Spine 2', 'back3' => 'Spine 3', 'neck' => 'Neck', 'head' => 'Head',
        'collar' => 'Arm 1', 'upperArm' => 'Arm 2', 'lowerArm' => 'Arm 3', 'hand' => 'Hand', 'upperLeg' => 'Leg 1', 'lowerLeg' => 'Leg 2',
        'foot' => 'Foot', 'toes' => 'Toe',
    ];

    return [$joints, $bones, $arms, $doctor, $plain, $turned, $numbered];
}

/** Twenty ways in which files call the parts of a body. @return array<string, array{callable}> */
function manners(): array
{
    $long = ['' => '', 'L' => 'Left', 'R' => 'Right'];
    $low = ['' => '', 'L' => 'left', 'R' => 'right'];
    $table = static fn (array $words, callable $join): callable => static fn (string $p, string $s): ?string => isset($words[$p])
        ? $join($words[$p], $s)
        : null;
    [$joints, $bones, $arms, $doctor, $plain, $turned, $numbered] = vocabularies();
    $nth = static function (): callable {
        $n = [];

        return static function (string $p) use (&$n): string {
            return $p.' '.($n[$p] = ($n[$p] ?? 0) + 1);
        };
    };
    $serial = 0;

    return [
        'joints, sides in front' => [$table($joints, static fn (string $w, string $s): string => $long[$s].$w)],
        'joints, letter behind' => [$table($joints, static fn (string $w, string $s): string => $s === '' ? $w : "{$w}_{$s}")],
        'joints, letter in front' => [$table($joints, static fn (string $w, string $s): string => strtolower($s).$w)],
        'bones, snake, letter behind' => [
            $table($bones, static fn (string $w, string $s): string => $s === '' ? $w : $w.'_'.strtolower($s)),
        ],
        'bones, side in the middle' => [$table($bones, static fn (string $w, string $s): string => $s === '' ? "b_{$w}" : 'b_'.$s.'_'.$w)],
        'bones, dots and copies' => [$table($bones, static fn (string $w, string $s): string => $w.($s === '' ? '' : ".{$s}").'.001')],
        'bones, the word joint on each' => [$table($bones, static fn (string $w, string $s): string => trim("{$low[$s]} {$w} joint"))],
        'arm and forearm, sides in front' => [$table($arms, static fn (string $w, string $s): string => $long[$s].$w)],
        'arm and forearm, a prefix' => [$table($arms, static fn (string $w, string $s): string => 'actor:'.$long[$s].$w)],
        'arm and forearm, another prefix' => [$table($arms, static fn (string $w, string $s): string => 'Man01_'.$long[$s].$w)],
        'of the body, sides behind' => [$table($doctor, static fn (string $w, string $s): string => $w.$long[$s])],
        'of the body, loud' => [$table($doctor, static fn (string $w, string $s): string => strtoupper(trim($low[$s].'_'.$w, '_')))],
        'shoulder for the arm, no collar' => [
            $table($plain, static fn (string $w, string $s): string => $s === '' ? $w : $low[$s].ucfirst($w)),
        ],
        'shoulder for the arm, letters' => [$table($plain, static fn (string $w, string $s): string => $s === '' ? $w : $s.'-'.$w)],
        'upper and lower behind' => [$table($turned, static fn (string $w, string $s): string => $s === '' ? $w : "{$w}.{$s}")],
        'numbered limbs' => [$table($numbered, static fn (string $w, string $s): string => trim("{$long[$s]} {$w}"))],
        'no sides at all' => [$table($turned, static fn (string $w, string $s): string => $w.($s === 'R' ? '.002' : ''))],
        'no sides, numbered' => [static function (string $p) use ($bones): ?string {
            static $count = [];

            return isset($bones[$p]) ? $bones[$p].' '.($count[$p] = ($count[$p] ?? 0) + 1) : null;
        }],
        'numbers only' => [static function (string $p) use (&$serial): ?string {
            return in_array($p, ['armTwist', 'handTwist', 'root', 'thumb', 'tip', 'crown', 'toeTip'], true) ? null : 'joint'.++$serial;
        }],
        'another tongue' => [$table([
            'hips' => 'becken', 'back1' => 'ruecken', 'back2' => 'brust', 'neck' => 'hals', 'head' => 'kopf', 'collar' => 'schluesselbein',
            'upperArm' => 'oberarm', 'lowerArm' => 'unterarm', 'hand' => 'handgelenk', 'finger' => 'finger', 'upperLeg' => 'oberschenkel',
            'lowerLeg' => 'unterschenkel', 'foot' => 'fuss', 'toes' => 'zehen',
        ], static fn (string $w, string $s): string => $s === '' ? $w : "{$w}_".['L' => 'links', 'R' => 'rechts'][$s])],
    ];
}

/** @return list<string> limbs that are not told right */
function mistaken(Skeleton $s, array $where): array
{
    $judged = HumanRoles::judge($s);
    $wrong = [];
    foreach (PLAYS as $role => $part) {
        foreach (isset($where[$part]) ? [''] : ['L', 'R'] as $side) {
            if (isset($where[$part.$side]) && ($judged[$role.$side]['joint'] ?? null) !== $where[$part.$side]) {
                $wrong[] = $role.$side.': '.(isset($judged[$role.$side]) ? $s->names[$judged[$role.$side]['joint']] : 'none');
            }
        }
    }

    return $wrong;
}

test('limbs are told right in twenty manners of naming, with arms out, hanging, and lying on the back', function (callable $name): void {
    [$s, $where] = named($name);
    expect(mistaken($s, $where))->toBe([]);
    [$s, $where] = named($name, 70.0);
    expect(mistaken($s, $where))->toBe([]);
    [$s, $where] = named($name, 40.0, Q4::aroundX(M_PI / 2));
    expect(mistaken($s, $where))->toBe([]);
})->with(manners(...));

test('a chain of hundreds of joints, a comb, and limbs without end come to an end', function (array $names, array $parents): void {
    $n = count($names);
    $t = [];
    foreach ($parents as $k => $p) {
        array_push($t, 0.01 * ($k % 3 - 1), $p < 0 ? 1.0 : 0.01 * (($k % 2) * 2 - 1), 0.0);
    }
    $s = new Skeleton($names, $parents, $t, array_merge(...array_fill(0, $n, Q4::IDENTITY)), array_fill(0, 3 * $n, 1.0));
    // It ends, and makes nobody of it who has no legs.
    expect(array_keys(HumanRoles::judge($s)))->not->toContain('lowerLegR');
})->with([
    'a chain' => [array_map(static fn (int $k): string => "x{$k}", range(0, 511)), range(-1, 510)],
    'a comb' => [
        array_map(static fn (int $k): string => "x{$k}", range(0, 511)),
        array_map(static fn (int $k): int => $k === 0 ? -1 : intdiv($k - 1, 3) * 3, range(0, 511)),
    ],
    'an arm without end' => [
        ['hips', 'head', ...array_map(static fn (int $k): string => "arm{$k}_L", range(0, 509))], [-1, 0, 0, ...range(2, 510)],
    ],
    'a leg without end' => [
        [
            'hips', 'head', 'thigh_R', ...array_map(static fn (int $k): string => "leg{$k}_L", range(0, 508)),
        ], [-1, 0, 0, 0, ...range(3, 510)],
    ],
]);
