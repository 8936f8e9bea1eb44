<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * What people do where they stand and sit: waiting, pointing, beckoning, sitting down and getting up, turning.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Everyday
{
    /** Height of the hips on a seat of 45 cm. */
    public const SEAT = 0.545;

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::idles() + self::gestures() + self::seats() + self::turns();
    }

    /** @return array<string, Sheet> */
    private static function idles(): array
    {
        $slump = [
            'thorax' => [13, 0, 0],
            'head' => [15, 0, 2],
            'hip' => [0.0, 0.02, 0.02],
            'armL' => 'slack',
            'armR' => 'slack',
            'face' => ['browsDown' => 0.2, 'blinkL' => 0.35, 'blinkR' => 0.35, 'frown' => 0.25],
        ];
        $cold = [
            'thorax' => [12, 0, 0], 'head' => [8, 0, 0], 'hip' => [0.0, 0.03, 0.0], 'armL' => 'hugging', 'armR' => 'hugging',
            'knees' => 0.02, 'face' => ['frown' => 0.4, 'browsUp' => 0.3],
        ];
        $tall = [
            'thorax' => [-5, 0, 0], 'head' => [-6, 0, 0], 'hip' => [0.0, -0.004, 0.015], 'armL' => 'akimbo', 'armR' => 'akimbo',
            'face' => ['smile' => 0.5],
        ];
        $cross = ['armL' => 'folded', 'armR' => 'folded', 'face' => ['frown' => 0.35, 'browsDown' => 0.3]];

        return [
            'idleTired' => ['seconds' => 12.0, 'loops' => true, 'shifts' => true, 'keys' => [
                [0.0, $slump], [3.6, ['thorax' => [13, 0, 0], 'head' => [15, 0, 2], 'pin' => true]],
                [4.6, ['thorax' => [3, 0, 0], 'head' => [0, 0, 0], 'face' => ['aa' => 0.3]]],
                [5.7, ['thorax' => [17, 0, 0], 'head' => [20, 4, 2], 'face' => ['aa' => 0.0, 'oo' => 0.3]]],
                [7.2, ['thorax' => [13, 0, 0], 'head' => [15, -8, -3], 'face' => ['oo' => 0.0]]], [9.5, ['head' => [17, -10, -3]]],
                [12.0, $slump],
            ]],
            'idleImpatient' => ['seconds' => 10.0, 'loops' => true, 'keys' => [
                [0.0, $cross + ['footR' => [-0.12, 0.06, -16, 0, 0], 'hip' => [0.03, 0.0, 0.0], 'head' => [0, 0, 0]]],
                [1.2, ['head' => [-2, 30, 0], 'eyes' => [12, 0], 'thorax' => [0, 8, 0]]],
                [2.8, ['head' => [-2, 30, 0], 'thorax' => [0, 8, 0]]],
                [3.4, ['head' => [4, -6, 0], 'eyes' => [0, 0], 'thorax' => [0, 0, 0]]],
                [5.6, ['head' => [-12, 0, 6], 'eyes' => [0, -14], 'thorax' => [-3, 0, 0], 'face' => ['oh' => 0.3]]],
                [6.6, ['head' => [6, -4, 0], 'eyes' => [0, 0], 'thorax' => [4, 0, 0], 'face' => ['oh' => 0.0]]],
                [10.0, $cross + ['head' => [0, 0, 0], 'thorax' => [0, 0, 0], 'pin' => true]],
            ], 'pulses' => self::tapping(0.3, 3.2) + self::tapping(6.4, 9.6)],
            'idleCold' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
                [0.0, $cold], [2.0, ['head' => [10, 18, 0]]], [4.0, ['head' => [10, 18, 0], 'thorax' => [15, 3, 0]]],
                [5.2, ['head' => [4, -16, 0]]], [8.0, $cold + ['pin' => true]],
            ], 'pulses' => [
                ['part' => 'thorax', 'axis' => 0, 'size' => 0.9, 'hz' => 6.5, 'from' => -10.0, 'to' => 20.0],
                ['part' => 'armL', 'axis' => 8, 'size' => 2.2, 'hz' => 6.5, 'from' => -10.0, 'to' => 20.0],
                ['part' => 'armR', 'axis' => 8, 'size' => 2.2, 'hz' => 6.5, 'from' => -10.0, 'to' => 20.0, 'phase' => 0.8],
                ['part' => 'hip', 'axis' => 1, 'size' => 0.009, 'hz' => 2.5, 'from' => 2.2, 'to' => 4.6],
            ]],
            'idleProud' => [
                'seconds' => 10.0,
                'loops' => true,
                'shifts' => true,
                'keys' => [
                    [0.0, $tall], [2.4, ['head' => [-8, 24, 0], 'thorax' => [-6, 8, 0]]], [4.6, ['head' => [-8, 24, 0]]],
                    [5.8, ['head' => [-9, -20, 0], 'thorax' => [-6, -7, 0]]], [8.2, ['head' => [-9, -20, 0]]],
                    [10.0, $tall + ['pin' => true]],
                ],
            ],
            'lookAround' => ['seconds' => 7.0, 'keys' => [
                [0.0, []], [0.5, ['pin' => true]],
                [1.3, ['head' => [-2, 52, 0], 'thorax' => [0, 18, 0], 'eyes' => [14, 0], 'pelvis' => [0, 8, 0]]],
                [2.4, ['head' => [-4, 54, 0], 'thorax' => [0, 18, 0]]],
                [3.6, ['head' => [-2, -50, 0], 'thorax' => [0, -18, 0], 'eyes' => [-14, 0], 'pelvis' => [0, -8, 0]]],
                [4.8, ['head' => [-10, -54, 0], 'thorax' => [0, -20, 0], 'face' => ['browsUp' => 0.6]]],
                [5.6, ['head' => [2, 6, 0], 'eyes' => [0, 0]]], [7.0, ['home' => true]],
            ]],
        ];
    }

    /** @return list<array{part: string, axis: int, size: float, hz: float, from: float, to: float, phase?: float}> a foot that taps */
    private static function tapping(float $from, float $to): array
    {
        return [['part' => 'footR', 'axis' => 3, 'size' => 9.0, 'hz' => 2.2, 'from' => $from, 'to' => $to, 'phase' => 0.0]];
    }

    /** @return array<string, Sheet> */
    private static function gestures(): array
    {
        $lean = static fn (float $yaw): array => ['thorax' => [4, $yaw, 0], 'hip' => [0.02 * ($yaw > 0 ? 1 : -1), 0.0, 0.02]];

        return [
            'point' => ['seconds' => 3.4, 'keys' => [
                [0.0, []], [0.35, ['pin' => true, 'head' => [-2, -10, 0]]], [0.62, ['armR' => 'in', 'eyes' => [-6, 0]]],
                [
                    0.92,
                    [
                        'armR' => [84, 14, 4, 6, 30, -2, 0, 1.3, 3, 14, 1.3, 0.6], 'thorax' => [5, 12, 0], 'hip' => [-0.02, 0.0, 0.03],
                        'head' => [-3, -14, 0], 'face' => ['browsUp' => 0.6],
                    ],
                ],
                [1.08, ['armR' => [80, 14, 4, 10, 30, -2, 0, 1.3, 2, 12, 1.3, 0.6]]],
                [
                    2.2,
                    [
                        'armR' => [79, 14, 4, 11, 30, -2, 0, 1.3, 2, 12, 1.3, 0.6], 'thorax' => [5, 12, 0], 'hip' => [-0.02, 0.0, 0.03],
                        'head' => [-3, -14, 0],
                    ],
                ],
                [3.2, ['home' => true]], [3.4, ['pin' => true]],
            ]],
            'beckon' => ['seconds' => 3.2, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [0.7, ['armR' => 'beckon', 'head' => [-3, 4, 4], 'face' => ['smile' => 0.6, 'browsUp' => 0.5]] + $lean(6)],
                [0.98, ['armR' => 'beckonIn', 'head' => [3, 4, 4]]], [1.26, ['armR' => 'beckon', 'head' => [-2, 4, 4]]],
                [1.54, ['armR' => 'beckonIn', 'head' => [3, 4, 4]]],
                [1.82, ['armR' => 'beckon']], [2.1, ['armR' => 'beckonIn'] + $lean(6)], [3.1, ['home' => true]], [3.2, ['pin' => true]],
            ]],
            'shrug' => ['seconds' => 2.6, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]], [0.5, ['hip' => [0.0, 0.016, 0.0]]],
                [
                    0.85,
                    [
                        'armL' => 'shrug', 'armR' => 'shrug', 'hip' => [0.0, 0.0, 0.0], 'head' => [-2, 0, 11], 'thorax' => [-3, 0, 0],
                        'face' => ['browsUp' => 1.0, 'frown' => 0.5],
                    ],
                ],
                [
                    1.5,
                    [
                        'armL' => 'shrug', 'armR' => 'shrug', 'head' => [0, 3, 10], 'thorax' => [-3, 0, 0],
                        'face' => ['browsUp' => 0.9, 'frown' => 0.5],
                    ],
                ],
                [2.4, ['home' => true]], [2.6, ['pin' => true]],
            ]],
            'shakeHead' => [
                'seconds' => 2.6,
                'keys' => [
                    [0.0, []], [0.3, ['pin' => true]], [0.6, ['head' => [5, 0, 0], 'face' => ['frown' => 0.5, 'browsDown' => 0.4]]],
                    [2.0, ['head' => [5, 0, 0]]], [2.6, ['home' => true]],
                ],
                'pulses' => [
                    ['part' => 'head', 'axis' => 1, 'size' => 17.0, 'hz' => 1.9, 'from' => 0.45, 'to' => 2.15],
                    ['part' => 'thorax', 'axis' => 1, 'size' => 3.0, 'hz' => 1.9, 'from' => 0.45, 'to' => 2.15, 'phase' => -0.4],
                ],
            ],
            'listen' => ['seconds' => 6.0, 'looks' => true, 'keys' => [
                [0.0, []], [0.8, ['head' => [2, 8, 6], 'thorax' => [3, 4, 0], 'hip' => [0.012, 0.0, 0.012]]],
                [1.6, ['head' => [2, 8, 6]]], [1.85, ['head' => [11, 8, 6]]], [2.1, ['head' => [2, 8, 6]]], [2.35, ['head' => [8, 8, 6]]],
                [2.6, ['head' => [2, 8, 6], 'face' => ['smile' => 0.3]]],
                [4.0, ['head' => [1, 4, 7], 'face' => ['browsUp' => 0.5]]], [4.3, ['head' => [10, 4, 7]]], [4.55, ['head' => [3, 4, 7]]],
                [6.0, ['home' => true]],
            ]],
            'think' => ['seconds' => 5.0, 'keys' => [
                [0.0, []], [0.4, ['pin' => true]],
                [
                    1.2,
                    [
                        'handR' => [0.02, 1.345, 0.155, 'mouth'], 'armL' => [22, 8, 70, 96, 30, 6, 0, 0.5, 0, 8, 0, 0.2],
                        'head' => [6, 8, 5], 'thorax' => [5, 0, 0], 'hip' => [0.02, 0.0, 0.0], 'armR' => 'in',
                        'face' => ['browsDown' => 0.5],
                    ],
                ],
                [2.4, ['head' => [-9, 16, 7], 'eyes' => [12, -14], 'face' => ['browsDown' => 0.0, 'browsUp' => 0.4], 'pin' => true]],
                [3.6, ['head' => [3, -4, 3], 'eyes' => [0, 0]]], [4.1, ['face' => ['browsUp' => 0.9, 'smile' => 0.4], 'pin' => true]],
                [5.0, ['home' => true]],
            ]],
            'scratchHead' => ['seconds' => 3.8, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [
                    0.95,
                    [
                        'handR' => [-0.15, 1.60, 0.0, 'over'], 'armR' => [90, 60, -20, 130, 10, 0, 0, 0.6, 8, 0, 0, 0.2],
                        'head' => [7, 4, -9], 'thorax' => [3, 6, 4], 'face' => ['browsDown' => 0.3, 'frown' => 0.4],
                    ],
                ],
                [2.5, ['handR' => [-0.15, 1.61, -0.02, 'over'], 'head' => [5, 8, -10], 'thorax' => [3, 6, 4], 'eyes' => [6, -8]]],
                [3.6, ['home' => true]], [3.8, ['pin' => true]],
            ], 'pulses' => [
                ['part' => 'handR', 'axis' => 2, 'size' => 0.018, 'hz' => 4.0, 'from' => 1.0, 'to' => 2.4],
                ['part' => 'handR', 'axis' => 1, 'size' => 0.008, 'hz' => 4.0, 'from' => 1.0, 'to' => 2.4, 'phase' => 1.0],
            ]],
            'lookAtWatch' => ['seconds' => 3.4, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [
                    0.9,
                    [
                        'handL' => [-0.05, 1.17, 0.27, 'across'], 'armL' => 'watch', 'head' => [24, 5, 0], 'eyes' => [0, 8],
                        'thorax' => [6, 4, 0],
                    ],
                ],
                [
                    1.9,
                    ['handL' => [-0.05, 1.175, 0.27, 'across'], 'head' => [25, 5, 0], 'thorax' => [6, 4, 0], 'face' => ['browsUp' => 0.2]],
                ],
                [
                    2.2,
                    [
                        'head' => [0, 20, 0], 'eyes' => [6, 0], 'face' => ['browsUp' => 0.8, 'oh' => 0.3],
                        'handL' => [-0.04, 1.14, 0.26, 'across'],
                    ],
                ],
                [3.2, ['home' => true]], [3.4, ['pin' => true]],
            ]],
            'callOut' => ['seconds' => 3.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [
                    0.85,
                    [
                        'handL' => [0.075, 1.45, 0.14, 'mouth'], 'handR' => [-0.075, 1.45, 0.14, 'mouth'], 'armL' => 'eyes',
                        'armR' => 'eyes', 'head' => [2, 0, 0], 'thorax' => [-4, 0, 0], 'hip' => [0.0, 0.0, -0.02],
                    ],
                ],
                [
                    1.1,
                    ['head' => [-12, 0, 0], 'thorax' => [9, 0, 0], 'hip' => [0.0, 0.0, 0.035], 'face' => ['aa' => 0.9, 'browsUp' => 0.8]],
                ],
                [
                    2.0,
                    [
                        'head' => [-10, 0, 0], 'thorax' => [8, 0, 0], 'hip' => [0.0, 0.0, 0.035], 'face' => ['aa' => 0.8],
                        'handL' => [0.075, 1.45, 0.17, 'mouth'], 'handR' => [-0.075, 1.45, 0.17, 'mouth'],
                    ],
                ],
                [2.9, ['home' => true]], [3.0, ['pin' => true]],
            ]],
            'whisper' => ['seconds' => 4.0, 'talks' => [[1.2, 2.9]], 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'eyes' => [-12, 0]]],
                [
                    1.0,
                    [
                        'handR' => [-0.07, 1.40, 0.19, 'face'], 'armR' => 'ear', 'thorax' => [15, 14, -4], 'head' => [5, 26, 4],
                        'hip' => [0.03, 0.01, 0.04], 'eyes' => [10, 0],
                    ],
                ],
                [
                    3.0,
                    [
                        'handR' => [-0.06, 1.395, 0.20, 'face'], 'thorax' => [16, 15, -4], 'head' => [4, 24, 6],
                        'hip' => [0.03, 0.01, 0.04], 'eyes' => [10, 0],
                    ],
                ],
                [3.9, ['home' => true]], [4.0, ['pin' => true]],
            ]],
            'bow' => ['seconds' => 3.4, 'keys' => [
                [0.0, []], [0.35, ['pin' => true, 'thorax' => [-3, 0, 0]]],
                [
                    1.15,
                    [
                        'thorax' => [52, 0, 0], 'pelvis' => [24, 0, 0], 'hip' => [0.0, 0.015, -0.11], 'head' => [58, 0, 0],
                        'handR' => [0.02, 0.98, 0.24, 'body'], 'armR' => 'chest', 'armL' => 'behind',
                    ],
                ],
                [
                    1.9,
                    [
                        'thorax' => [54, 0, 0], 'pelvis' => [25, 0, 0], 'hip' => [0.0, 0.015, -0.11], 'head' => [62, 0, 0],
                        'handR' => [0.02, 0.98, 0.25, 'body'],
                    ],
                ],
                [2.9, ['home' => true]], [3.4, ['pin' => true, 'face' => ['smile' => 0.5]]],
            ]],
            'clap' => ['seconds' => 4.0, 'keys' => [
                [0.0, []], [0.25, ['pin' => true]],
                [
                    0.65,
                    [
                        'handL' => [0.05, 1.18, 0.28, 'fist'], 'handR' => [-0.05, 1.18, 0.28, 'fist'], 'armL' => 'in', 'armR' => 'in',
                        'head' => [-2, 0, 0], 'face' => ['smile' => 0.8, 'browsUp' => 0.4],
                    ],
                ],
                [
                    3.2,
                    [
                        'handL' => [0.05, 1.20, 0.28, 'fist'], 'handR' => [-0.05, 1.20, 0.28, 'fist'], 'head' => [-2, 4, 0],
                        'face' => ['smile' => 0.8],
                    ],
                ],
                [3.9, ['home' => true]], [4.0, ['pin' => true]],
            ], 'pulses' => [
                ['part' => 'handL', 'axis' => 0, 'size' => 0.055, 'hz' => 3.4, 'from' => 0.6, 'to' => 3.3, 'phase' => 1.6],
                ['part' => 'handR', 'axis' => 0, 'size' => -0.055, 'hz' => 3.4, 'from' => 0.6, 'to' => 3.3, 'phase' => 1.6],
                ['part' => 'hip', 'axis' => 1, 'size' => 0.006, 'hz' => 3.4, 'from' => 0.6, 'to' => 3.3],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function seats(): array
    {
        $feet = ['footL' => [0.10, 0.06, 8, 0, 0], 'footR' => [-0.10, 0.06, -8, 0, 0]];
        $seated = [
            'y' => self::SEAT, 'hip' => [0.0, 0.0, -0.345], 'thorax' => [2, 0, 0], 'pelvis' => [-4, 0, 0], 'armL' => 'lap',
            'armR' => 'lap', 'handL' => [0.10, 0.665, -0.02, 'knee', 0.85], 'handR' => [-0.10, 0.665, -0.02, 'knee', 0.85],
        ] + $feet;
        $down = [
            'thorax' => [35, 0, 0], 'pelvis' => [17, 0, 0], 'hip' => [0.0, 0.18, -0.17], 'head' => [14, 0, 0],
            'armL' => [18, 18, 20, 40, 30, 0, 0, 0.3, 0, 6, 0, 0.1], 'armR' => [18, 18, 20, 40, 30, 0, 0, 0.3, 0, 6, 0, 0.1],
        ];

        return [
            'sitDown' => ['seconds' => 2.6, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'head' => [16, 30, 0]]], [0.55, ['head' => [14, 22, 0]] + $feet],
                [1.0, $down + ['y' => null]],
                [
                    1.55,
                    [
                        'y' => self::SEAT - 0.012, 'hip' => [0.0, 0.18, -0.345], 'thorax' => [24, 0, 0], 'pelvis' => [6, 0, 0],
                        'head' => [6, 0, 0],
                    ],
                ],
                [1.75, ['y' => self::SEAT + 0.006]], [2.2, $seated + ['head' => [0, 0, 0]]], [2.6, ['pin' => true]],
            ]],
            'sitIdle' => [
                'seconds' => 10.0,
                'loops' => true,
                'looks' => true,
                'keys' => [
                    [0.0, $seated + ['head' => [0, 0, 0]]], [3.0, ['thorax' => [6, 4, 0], 'pelvis' => [-4, 0, 2], 'head' => [2, 14, 0]]],
                    [5.5, ['thorax' => [0, -5, 0], 'pelvis' => [-6, 0, -2], 'head' => [-2, -12, 0]]],
                    [10.0, $seated + ['head' => [0, 0, 0], 'pin' => true]],
                ],
            ],
            'sitTalk' => ['seconds' => 6.0, 'talks' => [[0.6, 2.4], [2.9, 5.3]], 'keys' => [
                [0.0, $seated + ['head' => [0, 0, 0]]], [0.5, ['pin' => true]],
                [0.9, ['handR' => null, 'armR' => 'middle', 'thorax' => [6, 4, 0]]], [1.1, ['armR' => 'offer', 'head' => [6, -6, 0]]],
                [1.9, ['armR' => 'offer', 'head' => [-2, -4, 3]]],
                [2.6, ['handR' => [-0.10, 0.665, -0.02, 'knee', 0.85], 'armR' => 'lap', 'thorax' => [3, 0, 0]]],
                [3.1, ['handL' => null, 'handR' => null, 'armL' => 'in', 'armR' => 'in', 'thorax' => [9, 0, 0]]],
                [3.35, ['armL' => 'wide', 'armR' => 'wide', 'head' => [5, 4, -4], 'face' => ['browsUp' => 0.7]]],
                [4.4, ['armL' => 'wide', 'armR' => 'wide', 'thorax' => [8, 0, 0]]], [5.5, $seated + ['head' => [0, 0, 0]]],
                [6.0, ['pin' => true]],
            ]],
            'standUp' => ['seconds' => 2.6, 'keys' => [
                [0.0, $seated + ['head' => [0, 0, 0]]], [0.3, ['pin' => true]],
                [
                    0.95,
                    [
                        'thorax' => [42, 0, 0], 'pelvis' => [20, 0, 0], 'hip' => [0.0, 0.2, -0.26], 'y' => self::SEAT + 0.02,
                        'head' => [14, 0, 0],
                    ],
                ],
                [
                    1.5,
                    [
                        'y' => null, 'hip' => [0.0, 0.12, -0.07], 'handL' => null, 'handR' => null, 'thorax' => [24, 0, 0],
                        'pelvis' => [10, 0, 0], 'armL' => 'rest', 'armR' => 'rest',
                    ],
                ],
                [2.05, ['hip' => [0.0, 0.0, 0.03], 'thorax' => [-2, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [0, 0, 0]]],
                [
                    2.6,
                    [
                        'hip' => [0.0, 0.0, 0.0], 'thorax' => [0, 0, 0], 'footL' => [0.085, 0.02, 9, 0, 0],
                        'footR' => [-0.085, -0.02, -9, 0, 0], 'pin' => true,
                    ],
                ],
            ]],
            'lean' => ['seconds' => 8.0, 'loops' => true, 'looks' => true, 'keys' => [
                [
                    0.0,
                    [
                        'hip' => [0.13, 0.02, 0.0], 'pelvis' => [0, 0, -7], 'thorax' => [2, 0, -13], 'head' => [0, 0, 4],
                        'handL' => [0.46, 1.02, 0.06, 'floor'], 'armL' => 'side', 'armR' => 'akimbo',
                        'footR' => [0.15, 0.10, -12, -28, 0], 'footL' => [0.06, -0.02, 12, 0, 0], 'face' => ['smile' => 0.35],
                    ],
                ],
                [4.0, ['thorax' => [4, -6, -12], 'head' => [2, -16, 5]]],
                [8.0, ['hip' => [0.13, 0.02, 0.0], 'thorax' => [2, 0, -13], 'head' => [0, 0, 4], 'pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> turns on the spot, steps up and down a stair of 18 cm */
    private static function turns(): array
    {
        $out = [];
        $turns = ['turn45' => [45, 1.1, 1], 'turn90' => [90, 1.25, 1], 'turn180' => [180, 1.8, 2]];
        foreach ($turns as $name => [$angle, $seconds, $rounds]) {
            foreach (['Left' => 1, 'Right' => -1] as $side => $m) {
                $keys = [[0.0, []], [0.15, ['pin' => true, 'head' => [0, $m * min(50, $angle * 0.6), 0]]]];
                [$near, $far] = $m > 0 ? ['L', 'R'] : ['R', 'L'];
                $span = ($seconds - 0.5) / $rounds;
                for ($r = 1; $r <= $rounds; $r++) {
                    $to = $m * $angle * $r / $rounds;
                    $from = 0.15 + ($r - 1) * $span;
                    $keys[] = [
                        $from + 0.02,
                        [
                            "foot{$near}" => self::around($near, $m * $angle * ($r - 1) / $rounds),
                            "foot{$far}" => self::around($far, $m * $angle * ($r - 1) / $rounds),
                            'turn' => $m * $angle * ($r - 1) / $rounds,
                        ],
                    ];
                    $keys[] = [
                        $from + $span * 0.48,
                        [
                            "foot{$near}" => self::around($near, $to), 'turn' => $to - $m * $angle / $rounds * 0.45,
                            'head' => [2, $m * min(38, $angle * 0.4), 0], 'hip' => [0.0, 0.012, 0.0],
                        ],
                    ];
                    $keys[] = [$from + $span * 0.5, ["foot{$far}" => self::around($far, $m * $angle * ($r - 1) / $rounds)]];
                    $keys[] = [$from + $span, ["foot{$far}" => self::around($far, $to), 'turn' => $to]];
                }
                $keys[] = [$seconds, ['head' => [0, 0, 0], 'hip' => [0.0, 0.0, 0.0], 'turn' => $m * $angle, 'root' => [0, 0, $m * $angle]]];
                array_unshift($keys, [0.0, ['root' => [0, 0, 0]]]);
                $out[$name.$side] = ['seconds' => $seconds, 'keys' => $keys];
            }
        }
        foreach (['stepUp' => 0.18, 'stepDown' => -0.18] as $name => $rise) {
            $up = $rise > 0;
            /** @var Sheet $sheet */
            $sheet = ['seconds' => 2.2, 'rises' => $rise, 'keys' => [
                [0.0, ['y' => null, 'root' => [0, 0, 0]]], [0.2, ['pin' => true, 'head' => [14, 0, 0]]],
                [
                    0.5,
                    [
                        'footR' => [-0.085, 0.20, -6, 0, max(0.0, $rise) + 0.05], 'thorax' => [8, 0, 0], 'hip' => [0.03, 0.0, 0.06],
                        'armL' => 'low', 'armR' => 'slack',
                    ],
                ],
                [
                    0.9,
                    [
                        'footR' => [-0.085, 0.36, -8, 0, $rise], 'hip' => [0.0, $up ? 0.0 : 0.05, 0.15], 'thorax' => [$up ? 16 : 4, 0, 0],
                        'footL' => [0.085, 0.02, 9, $up ? -18 : -26, 0],
                    ],
                ],
                [
                    1.3,
                    [
                        'footL' => [0.085, 0.20, 8, 0, max(0.0, $rise) + 0.07], 'hip' => [-0.03, -$rise * ($up ? 0.85 : 0.6), 0.30],
                        'thorax' => [8, 0, 0], 'armR' => 'low', 'armL' => 'slack',
                    ],
                ],
                [
                    1.75,
                    [
                        'footL' => [0.085, 0.38, 9, 0, $rise], 'footR' => [-0.085, 0.36, -9, 0, $rise], 'hip' => [0.0, 0.0, 0.355],
                        'thorax' => [2, 0, 0], 'head' => [6, 0, 0],
                    ],
                ],
                [
                    2.2,
                    [
                        'armL' => 'rest', 'armR' => 'rest', 'thorax' => [0, 0, 0], 'head' => [0, 0, 0], 'hip' => [0.0, 0.0, 0.37],
                        'root' => [0, 0.37, 0], 'pin' => true,
                    ],
                ],
            ]];
            $out[$name] = $sheet;
        }

        return $out;
    }

    /** @return list<float> a foot's stance turned by degrees */
    private static function around(string $side, float $degrees): array
    {
        $m = $side === 'L' ? 1.0 : -1.0;
        [$x, $z, $a] = [$m * 0.085, $m * 0.02, deg2rad($degrees)];

        return [$x * cos($a) + $z * sin($a), -$x * sin($a) + $z * cos($a), $m * 9.0 + $degrees, 0.0, 0.0];
    }
}
