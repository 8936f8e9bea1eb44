<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Hands at work: picking up, throwing, pulling, rowing, writing, sweeping, knocking.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Work
{
    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::things() + self::pulls() + self::seated() + self::house();
    }

    /** @return array<string, Sheet> */
    private static function things(): array
    {
        $bent = [
            'y' => null, 'hip' => [0.0, 0.40, -0.13], 'thorax' => [66, 0, 0], 'pelvis' => [30, 0, 0], 'head' => [34, 0, 0],
            'footL' => [0.12, 0.06, 10, 0, 0], 'footR' => [-0.12, -0.08, -10, -12, 0],
        ];
        $up = ['hip' => [0.0, 0.0, 0.0], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [4, 0, 0]];
        $feet = ['footL' => [0.085, 0.02, 9, 0, 0], 'footR' => [-0.085, -0.02, -9, 0, 0]];
        $box = ['handL' => [0.19, 0.98, 0.33, 'in'], 'handR' => [-0.19, 0.98, 0.33, 'in'], 'armL' => 'middle', 'armR' => 'middle'];

        return [
            'pickUpFloor' => ['seconds' => 3.2, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'head' => [26, -6, 0]]],
                [1.2, $bent + ['handR' => [-0.06, 0.07, 0.30, 'reach'], 'armR' => 'offer', 'handL' => [0.14, 0.46, 0.14, 'knee', 0.7]]],
                [1.55, ['handR' => [-0.06, 0.06, 0.30, 'reach'], 'armR' => [28, 12, 22, 70, 10, 0, 0, 1.1, 0, 6, 0, 0.5]]],
                [
                    2.0,
                    [
                        'handR' => [-0.12, 0.55, 0.30, 'fist'], 'handL' => null, 'hip' => [0.0, 0.14, -0.06], 'thorax' => [30, 0, 0],
                        'pelvis' => [12, 0, 0],
                    ],
                ],
                [2.6, $up + ['handR' => [-0.12, 1.05, 0.27, 'fist'], 'head' => [18, 0, 0]] + $feet],
                [3.2, ['handR' => [-0.14, 1.02, 0.24, 'fist'], 'head' => [4, 0, 0], 'pin' => true]],
            ]],
            'pickUpTable' => ['seconds' => 2.6, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'head' => [22, -6, 0]]],
                [
                    0.95,
                    [
                        'handR' => [-0.08, 0.80, 0.46, 'in'], 'armR' => 'offer', 'thorax' => [16, 8, 0], 'pelvis' => [5, 0, 0],
                        'hip' => [-0.02, 0.01, 0.03],
                    ],
                ],
                [1.2, ['handR' => [-0.08, 0.79, 0.47, 'in'], 'armR' => [28, 12, 22, 70, 10, 0, 0, 1.1, 0, 6, 0, 0.5]]],
                [
                    1.9,
                    [
                        'handR' => [-0.12, 1.10, 0.28, 'fist'], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'hip' => [0.0, 0.0, 0.0],
                        'head' => [14, -4, 0],
                    ],
                ],
                [2.6, ['handR' => [-0.14, 1.05, 0.25, 'fist'], 'head' => [2, 0, 0], 'pin' => true]],
            ]],
            'putDown' => ['seconds' => 2.6, 'keys' => [
                [0.0, ['handR' => [-0.14, 1.05, 0.25, 'fist'], 'armR' => [28, 12, 22, 70, 10, 0, 0, 1.1, 0, 6, 0, 0.5]]],
                [0.3, ['pin' => true, 'head' => [22, -6, 0]]],
                [1.1, ['handR' => [-0.08, 0.80, 0.46, 'in'], 'thorax' => [16, 8, 0], 'pelvis' => [5, 0, 0], 'hip' => [-0.02, 0.01, 0.03]]],
                [1.4, ['handR' => [-0.08, 0.79, 0.46, 'in'], 'armR' => 'offer']], [1.75, ['handR' => [-0.10, 0.86, 0.40, 'in']]],
                [
                    2.4,
                    [
                        'handR' => null, 'armR' => 'rest', 'head' => [0, 0, 0], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0],
                        'hip' => [0.0, 0.0, 0.0],
                    ],
                ],
                [2.6, ['pin' => true]],
            ]],
            'liftBox' => ['seconds' => 3.4, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'head' => [26, 0, 0]]],
                [
                    1.2,
                    $bent + [
                        'hip' => [0.0, 0.40, -0.16], 'handL' => [0.19, 0.22, 0.36, 'in'], 'handR' => [-0.19, 0.22, 0.36, 'in'],
                        'armL' => 'middle', 'armR' => 'middle',
                    ],
                ],
                [1.6, ['pin' => true]],
                [
                    2.3,
                    [
                        'hip' => [0.0, 0.12, -0.06], 'thorax' => [22, 0, 0], 'pelvis' => [8, 0, 0], 'handL' => [0.19, 0.66, 0.34, 'in'],
                        'handR' => [-0.19, 0.66, 0.34, 'in'], 'face' => ['frown' => 0.4],
                    ],
                ],
                [2.9, $box + ['hip' => [0.0, 0.0, -0.01], 'thorax' => [-5, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [2, 0, 0]] + $feet],
                [3.4, ['pin' => true]],
            ]],
            'carryIdle' => [
                'seconds' => 6.0,
                'loops' => true,
                'keys' => [
                    [0.0, $box + ['thorax' => [-5, 0, 0]]], [3.0, ['thorax' => [-6, 2, 0], 'head' => [0, 10, 0]]],
                    [6.0, ['thorax' => [-5, 0, 0], 'head' => [0, 0, 0], 'pin' => true]],
                ],
            ],
            'throw' => ['seconds' => 2.4, 'keys' => [
                [0.0, []], [0.25, ['pin' => true, 'footL' => [0.085, 0.02, 9, 0, 0]]],
                [
                    0.7,
                    [
                        'footL' => [0.10, 0.30, 4, 0, 0], 'hip' => [-0.03, 0.04, -0.04], 'thorax' => [-8, -34, 0],
                        'pelvis' => [0, -20, 0], 'armR' => 'throwBack', 'armL' => [70, 20, 10, 20, 10, 0, 0, 0.4, 2, 10, 0, 0.1],
                        'head' => [-2, 6, 0],
                    ],
                ],
                [0.9, ['thorax' => [-10, -38, 0], 'armR' => 'throwBack']],
                [
                    1.08,
                    [
                        'hip' => [0.02, 0.05, 0.16], 'thorax' => [16, 26, 0], 'pelvis' => [6, 14, 0],
                        'armR' => [118, 30, -10, 20, 20, 0, 0, 0.3, 6, 12, 0, 0.1], 'armL' => 'slack',
                        'footR' => [-0.085, -0.02, -9, -34, 0],
                    ],
                ],
                [1.3, ['armR' => 'threw', 'thorax' => [24, 34, 0], 'head' => [4, 0, 0]]], [2.2, ['home' => true]], [2.4, ['pin' => true]],
            ]],
            'catch' => ['seconds' => 2.2, 'keys' => [
                [0.0, []], [0.2, ['pin' => true, 'head' => [-8, 0, 0], 'face' => ['browsUp' => 0.6]]],
                [
                    0.65,
                    [
                        'handL' => [0.09, 1.22, 0.46, 'ahead'], 'handR' => [-0.09, 1.22, 0.46, 'ahead'], 'armL' => 'offer',
                        'armR' => 'offer', 'thorax' => [8, 0, 0], 'hip' => [0.0, 0.04, 0.02], 'footR' => [-0.10, -0.12, -9, 0, 0],
                    ],
                ],
                [
                    0.9,
                    ['handL' => [0.07, 1.20, 0.44, 'ahead'], 'handR' => [-0.07, 1.20, 0.44, 'ahead'], 'armL' => 'fist', 'armR' => 'fist'],
                ],
                [
                    1.12,
                    [
                        'handL' => [0.06, 1.10, 0.24, 'in'], 'handR' => [-0.06, 1.10, 0.24, 'in'], 'thorax' => [-4, 0, 0],
                        'hip' => [0.0, 0.05, -0.05], 'head' => [14, 0, 0],
                    ],
                ],
                [
                    1.7,
                    [
                        'handL' => [0.06, 1.12, 0.27, 'in'], 'handR' => [-0.06, 1.12, 0.27, 'in'], 'thorax' => [2, 0, 0],
                        'hip' => [0.0, 0.0, 0.0], 'head' => [8, 0, 0], 'face' => ['smile' => 0.6, 'browsUp' => 0.0],
                        'footR' => [-0.085, -0.02, -9, 0, 0],
                    ],
                ],
                [2.2, ['pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> ropes, bells, oars and handlebars; all loop */
    private static function pulls(): array
    {
        $brace = [
            'footL' => [0.10, 0.24, 4, 0, 0], 'footR' => [-0.14, -0.22, -40, 0, 0], 'armL' => 'fist', 'armR' => 'fist',
            'face' => ['frown' => 0.5, 'browsDown' => 0.4],
        ];
        $seat = [
            'y' => 0.42, 'footL' => [0.10, 0.50, 6, 24, 0.02], 'footR' => [-0.10, 0.50, -6, 24, 0.02], 'armL' => 'fist', 'armR' => 'fist',
        ];
        $pedal = ['seconds' => 1.0, 'loops' => true, 'still' => true, 'keys' => []];
        for ($q = 0; $q <= 8; $q++) {
            $a = 2 * M_PI * $q / 8;
            $pedal['keys'][] = [
                $q / 8,
                [
                    'y' => 0.93,
                    'hip' => [0.006 * sin($a), 0.0, -0.08],
                    'pelvis' => [14, 0, 1.5 * sin($a)],
                    'thorax' => [26, 0, 0],
                    'head' => [6, 0, 0],
                    'handL' => [0.24, 1.02, 0.44, 'down'],
                    'handR' => [-0.24, 1.02, 0.44, 'down'],
                    'armL' => 'fist',
                    'armR' => 'fist',
                    'footL' => [0.10, 0.05 + 0.16 * sin($a), 2, -12, 0.25 + 0.15 * cos($a)],
                    'footR' => [-0.10, 0.05 - 0.16 * sin($a), -2, -12, 0.25 - 0.15 * cos($a)],
                    'knees' => 0.03,
                ],
            ];
        }

        return [
            'pullRope' => ['seconds' => 2.4, 'loops' => true, 'keys' => [
                [
                    0.0,
                    $brace + [
                        'handL' => [0.02, 1.12, 0.56, 'fist'], 'handR' => [0.0, 1.06, 0.34, 'fist'], 'thorax' => [14, -14, 0],
                        'pelvis' => [6, -8, 0], 'hip' => [0.0, 0.10, 0.06], 'head' => [-6, 4, 0],
                    ],
                ],
                [
                    0.9,
                    [
                        'handL' => [0.02, 1.06, 0.30, 'fist'], 'handR' => [0.0, 0.98, 0.10, 'fist'], 'thorax' => [-18, -8, 0],
                        'pelvis' => [-8, -4, 0], 'hip' => [0.0, 0.14, -0.16], 'head' => [-2, 6, 0],
                    ],
                ],
                [
                    1.4,
                    [
                        'handR' => [0.0, 1.16, 0.40, 'fist'], 'handL' => [0.02, 1.04, 0.30, 'fist'], 'thorax' => [-8, -8, 0],
                        'hip' => [0.0, 0.12, -0.10],
                    ],
                ],
                [
                    1.9,
                    [
                        'handL' => [0.02, 1.14, 0.46, 'fist'], 'handR' => [0.0, 1.10, 0.36, 'fist'], 'thorax' => [4, -10, 0],
                        'hip' => [0.0, 0.11, -0.02],
                    ],
                ],
                [
                    2.4,
                    $brace + [
                        'handL' => [0.02, 1.12, 0.56, 'fist'], 'handR' => [0.0, 1.06, 0.34, 'fist'], 'thorax' => [14, -14, 0],
                        'pelvis' => [6, -8, 0], 'hip' => [0.0, 0.10, 0.06], 'head' => [-6, 4, 0], 'pin' => true,
                    ],
                ],
            ]],
            'ringBell' => ['seconds' => 2.4, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'handR' => [-0.08, 1.62, 0.30, 'fist'], 'armR' => 'fist', 'head' => [-18, -6, 0], 'thorax' => [-3, 0, 0],
                        'footL' => [0.10, 0.06, 9, 0, 0], 'face' => ['smile' => 0.3],
                    ],
                ],
                [0.55, ['handR' => [-0.08, 1.08, 0.28, 'fist'], 'thorax' => [12, 6, 0], 'hip' => [0.0, 0.07, 0.02], 'head' => [-4, -4, 0]]],
                [0.8, ['handR' => [-0.08, 1.06, 0.28, 'fist'], 'hip' => [0.0, 0.075, 0.02]]],
                [1.5, ['handR' => [-0.08, 1.64, 0.30, 'fist'], 'thorax' => [-4, 0, 0], 'hip' => [0.0, 0.0, 0.0], 'head' => [-20, -6, 0]]],
                [2.4, ['handR' => [-0.08, 1.62, 0.30, 'fist'], 'thorax' => [-3, 0, 0], 'head' => [-18, -6, 0], 'pin' => true]],
            ]],
            'row' => ['seconds' => 2.6, 'loops' => true, 'still' => true, 'keys' => [
                [
                    0.0,
                    $seat + [
                        'hip' => [0.0, 0.0, -0.05], 'thorax' => [38, 0, 0], 'pelvis' => [16, 0, 0], 'head' => [8, 0, 0],
                        'handL' => [0.16, 0.78, 0.56, 'down'], 'handR' => [-0.16, 0.78, 0.56, 'down'],
                    ],
                ],
                [
                    1.1,
                    [
                        'thorax' => [-20, 0, 0], 'pelvis' => [-12, 0, 0], 'head' => [-2, 0, 0], 'handL' => [0.14, 0.86, 0.06, 'down'],
                        'handR' => [-0.14, 0.86, 0.06, 'down'],
                    ],
                ],
                [1.35, ['handL' => [0.14, 0.74, 0.08, 'down'], 'handR' => [-0.14, 0.74, 0.08, 'down']]],
                [
                    2.1,
                    [
                        'thorax' => [24, 0, 0], 'pelvis' => [10, 0, 0], 'handL' => [0.16, 0.68, 0.46, 'down'],
                        'handR' => [-0.16, 0.68, 0.46, 'down'],
                    ],
                ],
                [
                    2.6,
                    $seat + [
                        'thorax' => [38, 0, 0], 'pelvis' => [16, 0, 0], 'head' => [8, 0, 0], 'handL' => [0.16, 0.78, 0.56, 'down'],
                        'handR' => [-0.16, 0.78, 0.56, 'down'], 'pin' => true,
                    ],
                ],
            ]],
            'ride' => $pedal,
            'drive' => ['seconds' => 6.0, 'loops' => true, 'still' => true, 'keys' => [
                [
                    0.0,
                    [
                        'y' => 0.5, 'hip' => [0.0, 0.0, -0.30], 'pelvis' => [-12, 0, 0], 'thorax' => [-8, 0, 0], 'head' => [2, 0, 0],
                        'footL' => [0.12, 0.30, 6, 20, 0.06], 'footR' => [-0.12, 0.34, -6, 24, 0.06],
                        'handL' => [0.17, 1.0, 0.12, 'over'], 'handR' => [-0.17, 1.0, 0.12, 'over'], 'armL' => 'fist', 'armR' => 'fist',
                    ],
                ],
                [
                    1.5,
                    [
                        'handL' => [0.10, 1.10, 0.12, 'over'], 'handR' => [-0.15, 0.90, 0.12, 'over'], 'head' => [2, -14, 0],
                        'thorax' => [-8, 0, 3],
                    ],
                ],
                [
                    3.0,
                    [
                        'handL' => [0.17, 1.0, 0.12, 'over'], 'handR' => [-0.17, 1.0, 0.12, 'over'], 'head' => [0, 0, 0],
                        'thorax' => [-8, 0, 0],
                    ],
                ],
                [
                    4.4,
                    [
                        'handL' => [0.15, 0.90, 0.12, 'over'], 'handR' => [-0.10, 1.10, 0.12, 'over'], 'head' => [2, 16, 0],
                        'thorax' => [-8, 0, -3],
                    ],
                ],
                [
                    6.0,
                    [
                        'handL' => [0.17, 1.0, 0.12, 'over'], 'handR' => [-0.17, 1.0, 0.12, 'over'], 'head' => [2, 0, 0],
                        'thorax' => [-8, 0, 0], 'pin' => true,
                    ],
                ],
            ]],
        ];
    }

    /** @return array<string, Sheet> writing, reading and drinking at a table of 74 cm */
    private static function seated(): array
    {
        $at = [
            'y' => Everyday::SEAT, 'hip' => [0.0, 0.0, -0.345], 'pelvis' => [2, 0, 0], 'footL' => [0.10, 0.06, 8, 0, 0],
            'footR' => [-0.10, 0.06, -8, 0, 0],
        ];

        return [
            'write' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
                [
                    0.0,
                    $at + [
                        'thorax' => [20, 0, 0], 'head' => [30, -6, 0], 'handL' => [0.16, 0.78, 0.06, 'across'],
                        'handR' => [-0.03, 0.79, 0.08, 'across'], 'armR' => 'pinch', 'armL' => 'lap',
                    ],
                ],
                [2.4, ['handR' => [-0.13, 0.79, 0.08, 'across']]], [2.7, ['handR' => [-0.02, 0.81, 0.06, 'across']]],
                [5.0, ['handR' => [-0.13, 0.79, 0.05, 'across'], 'head' => [31, -8, 0]]], [5.5, ['head' => [6, 8, 0]]],
                [6.0, ['handR' => [-0.03, 0.79, 0.08, 'across'], 'thorax' => [20, 0, 0], 'head' => [30, -6, 0], 'pin' => true]],
            ], 'pulses' => [
                ['part' => 'handR', 'axis' => 2, 'size' => 0.014, 'hz' => 3.5, 'from' => 0.0, 'to' => 2.3],
                ['part' => 'handR', 'axis' => 2, 'size' => 0.014, 'hz' => 3.5, 'from' => 2.8, 'to' => 5.0],
            ]],
            'read' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'handL' => [0.13, 1.12, 0.30, 'up'], 'handR' => [-0.13, 1.12, 0.30, 'up'], 'armL' => 'middle', 'armR' => 'middle',
                        'head' => [24, 6, 0], 'thorax' => [6, 0, 0], 'eyes' => [6, 10],
                    ],
                ],
                [3.0, ['head' => [25, -6, 0], 'eyes' => [-8, 10]]], [3.3, ['eyes' => [8, 12]]], [5.0, ['eyes' => [-8, 12]]],
                [5.4, ['handR' => [-0.02, 1.17, 0.31, 'up'], 'pin' => true]], [5.8, ['handR' => [0.08, 1.16, 0.31, 'up']]],
                [6.4, ['handR' => [-0.13, 1.12, 0.30, 'up']]], [8.0, ['head' => [24, 6, 0], 'eyes' => [6, 10], 'pin' => true]],
            ]],
            'drink' => ['seconds' => 4.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [
                    0.9,
                    ['handR' => [-0.08, 1.20, 0.26, 'fist'], 'armR' => [40, 14, 24, 104, 0, 0, 0, 1.0, 1, 6, 0, 0.6], 'head' => [8, -4, 0]],
                ],
                [1.5, ['handR' => [-0.02, 1.43, 0.165, 'fist'], 'head' => [-2, 0, 0], 'face' => ['oo' => 0.6]]],
                [
                    1.9,
                    [
                        'handR' => [-0.02, 1.47, 0.155, 'fist'], 'head' => [-17, 0, 0], 'thorax' => [-5, 0, 0],
                        'face' => ['oo' => 0.6, 'blinkL' => 0.7, 'blinkR' => 0.7],
                    ],
                ],
                [2.6, ['handR' => [-0.02, 1.47, 0.155, 'fist'], 'head' => [-18, 0, 0]]],
                [
                    3.1,
                    [
                        'handR' => [-0.08, 1.20, 0.27, 'fist'],
                        'head' => [2, 0, 0],
                        'thorax' => [0, 0, 0],
                        'face' => ['oo' => 0.0, 'smile' => 0.5, 'blinkL' => 0.0, 'blinkR' => 0.0],
                    ],
                ],
                [3.9, ['home' => true]], [4.0, ['pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function house(): array
    {
        return [
            'sweep' => ['seconds' => 2.4, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'handL' => [0.06, 1.08, 0.38, 'fist'], 'handR' => [-0.16, 0.84, 0.34, 'fist'], 'armL' => 'fist', 'armR' => 'fist',
                        'thorax' => [20, -26, 0], 'pelvis' => [6, -12, 0], 'head' => [26, -10, 0], 'hip' => [-0.05, 0.05, 0.0],
                        'footL' => [0.13, 0.10, 14, 0, 0], 'footR' => [-0.13, -0.10, -20, 0, 0],
                    ],
                ],
                [
                    1.0,
                    [
                        'handL' => [0.10, 1.06, 0.36, 'fist'], 'handR' => [0.02, 0.84, 0.42, 'fist'], 'thorax' => [22, 20, 0],
                        'pelvis' => [6, 12, 0], 'head' => [26, 6, 0], 'hip' => [0.05, 0.05, 0.02],
                    ],
                ],
                [1.4, ['handR' => [0.02, 0.90, 0.42, 'fist']]],
                [
                    2.4,
                    [
                        'handL' => [0.06, 1.08, 0.38, 'fist'], 'handR' => [-0.16, 0.84, 0.34, 'fist'], 'thorax' => [20, -26, 0],
                        'pelvis' => [6, -12, 0], 'head' => [26, -10, 0], 'hip' => [-0.05, 0.05, 0.0], 'pin' => true,
                    ],
                ],
            ]],
            'knock' => ['seconds' => 3.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [
                    0.8,
                    [
                        'handR' => [-0.10, 1.36, 0.36, 'over'], 'armR' => 'fist', 'head' => [0, 2, 3], 'thorax' => [4, 6, 0],
                        'hip' => [0.0, 0.0, 0.02],
                    ],
                ],
                [1.75, ['handR' => [-0.10, 1.36, 0.36, 'over'], 'thorax' => [4, 6, 0], 'head' => [0, 2, 3]]],
                [2.1, ['head' => [6, 20, -8], 'handR' => [-0.14, 1.2, 0.26, 'fist']]], [2.9, ['home' => true]], [3.0, ['pin' => true]],
            ], 'pulses' => [['part' => 'handR', 'axis' => 2, 'size' => 0.07, 'hz' => 3.6, 'from' => 0.75, 'to' => 1.75]]],
            'openDoor' => ['seconds' => 3.4, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.3, ['pin' => true, 'head' => [16, -8, 0]]],
                [0.8, ['handR' => [-0.20, 0.98, 0.44, 'down'], 'armR' => 'offer', 'thorax' => [6, 6, 0]]],
                [1.05, ['handR' => [-0.20, 0.96, 0.44, 'down'], 'armR' => 'fist', 'head' => [6, -8, 0]]],
                [
                    1.7,
                    [
                        'handR' => [-0.36, 1.0, 0.24, 'down'], 'hip' => [0.0, 0.0, -0.06], 'thorax' => [-4, -14, 0],
                        'footL' => [0.085, -0.16, 14, 0, 0], 'head' => [-2, -4, 0],
                    ],
                ],
                [
                    2.4,
                    [
                        'handR' => [-0.42, 0.98, 0.10, 'down'], 'thorax' => [-2, -20, 0], 'hip' => [0.04, 0.0, -0.05],
                        'footL' => [0.085, -0.16, 14, 0, 0],
                    ],
                ],
                [
                    3.2,
                    [
                        'handR' => null, 'armR' => 'rest', 'hip' => [0.0, 0.0, 0.0], 'thorax' => [0, 0, 0], 'head' => [0, 0, 0],
                        'footL' => [0.085, 0.02, 9, 0, 0],
                    ],
                ],
                [3.4, ['pin' => true]],
            ]],
        ];
    }
}
