<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * What people do by habit, and how they are: shy, nervous, tired, cold; with a phone, a camera, a plate.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Habits
{
    private const MOODS = [
        'shy' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
            [
                0.0,
                [
                    'head' => [18, 14, 6], 'thorax' => [6, -8, 0], 'hip' => [0.02, 0.0, 0.0], 'handL' => [0.03, 0.86, 0.17, 'body'],
                    'handR' => [-0.03, 0.88, 0.17, 'body'], 'footR' => [-0.07, 0.02, 14, 0, 0], 'face' => ['smile' => 0.4],
                ],
            ],
            [1.6, ['head' => [8, -6, 8], 'eyes' => [0, -6], 'thorax' => [5, 8, 0]]], [2.4, ['head' => [20, 10, 4], 'eyes' => [0, 0]]],
            [3.6, ['thorax' => [6, 10, 0], 'hip' => [-0.02, 0.0, 0.0], 'head' => [18, -16, -4]]],
            [4.8, ['head' => [6, 4, -8], 'thorax' => [4, -6, 0]]],
        ]],
        'waitNervously' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
            [
                0.0,
                [
                    'handL' => [0.03, 1.02, 0.21, 'body'], 'handR' => [-0.03, 1.03, 0.22, 'body'], 'head' => [6, 0, 0],
                    'face' => ['browsUp' => 0.5, 'frown' => 0.3],
                ],
            ],
            [0.8, ['head' => [2, 40, 0], 'thorax' => [2, 14, 0], 'hip' => [0.03, 0.0, 0.0]]], [1.6, ['pin' => true]],
            [
                2.2,
                [
                    'head' => [16, 0, 0], 'thorax' => [4, 0, 0], 'handL' => [0.05, 1.04, 0.22, 'body'],
                    'handR' => [-0.02, 1.01, 0.21, 'body'],
                ],
            ],
            [3.2, ['hip' => [-0.03, 0.0, 0.0], 'head' => [0, -42, 0], 'thorax' => [2, -14, 0]]], [4.2, ['pin' => true]],
            [
                4.8,
                [
                    'head' => [22, 8, 0], 'thorax' => [3, 0, 0], 'handL' => [0.02, 1.02, 0.21, 'body'],
                    'handR' => [-0.05, 1.05, 0.22, 'body'],
                ],
            ],
            [6.4, ['hip' => [0.02, 0.0, 0.0], 'head' => [-6, 0, 0]]],
        ], 'pulses' => [['part' => 'footR', 'axis' => 3, 'size' => 9.0, 'hz' => 2.6, 'from' => 4.6, 'to' => 7.6]]],
        'thinkHard' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
            [
                0.0,
                [
                    'armL' => 'folded', 'handR' => [-0.03, 1.40, 0.22, 'mouth'], 'head' => [8, 10, 6], 'hip' => [0.03, 0.0, 0.0],
                    'face' => ['browsDown' => 0.4],
                ],
            ],
            [2.0, ['head' => [-8, 22, 4], 'eyes' => [10, 8]]], [3.4, ['head' => [-4, -14, 6], 'eyes' => [-8, 8]]],
            [5.0, ['head' => [10, 4, 6], 'eyes' => [0, 0]]],
        ]],
        'lookThroughWindow' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
            [
                0.0,
                [
                    'handL' => [0.16, 1.34, 0.36, 'ahead'], 'handR' => [-0.09, 1.52, 0.24, 'face'], 'armR' => 'eyes',
                    'thorax' => [14, 0, 0],
                    'pelvis' => [4, 0, 0], 'hip' => [0.0, 0.01, 0.03], 'head' => [-2, 0, 0], 'face' => ['browsDown' => 0.3],
                ],
            ],
            [2.0, ['head' => [-2, 26, 0], 'thorax' => [14, 8, 0]]], [3.0, ['pin' => true]],
            [4.4, ['head' => [0, -26, 0], 'thorax' => [15, -8, 0]]],
        ]],
    ];

    private const BODY = [
        'stretch' => ['seconds' => 4.4, 'keys' => [
            [0.0, []], [0.2, ['pin' => true]],
            [
                1.3,
                [
                    'armL' => 'cheer', 'armR' => 'cheer', 'thorax' => [-14, 0, 0], 'head' => [-24, 0, 0], 'hip' => [0.0, -0.01, 0.03],
                    'face' => ['blinkL' => 1.0, 'blinkR' => 1.0],
                ],
            ],
            [1.9, ['thorax' => [-16, 0, 8]]], [2.5, ['thorax' => [-16, 0, -8]]],
            [
                3.2,
                [
                    'armL' => 'wide', 'armR' => 'wide', 'thorax' => [0, 0, 0], 'head' => [0, 0, 0],
                    'face' => ['blinkL' => 0.0, 'blinkR' => 0.0],
                ],
            ],
            [4.2, ['home' => true]], [4.4, ['pin' => true]],
        ]],
        'yawn' => ['seconds' => 4.0, 'keys' => [
            [0.0, []], [0.3, ['pin' => true]],
            [
                1.0,
                [
                    'handR' => [-0.02, 1.42, 0.25, 'mouth'], 'head' => [-14, 0, 0], 'thorax' => [-6, 0, 0],
                    'face' => ['oh' => 1.0, 'blinkL' => 0.9, 'blinkR' => 0.9, 'browsUp' => 0.7],
                ],
            ],
            [2.2, ['pin' => true]], [2.7, ['head' => [6, 0, 0], 'face' => ['oh' => 0.0, 'browsUp' => 0.0]]],
            [3.1, ['face' => ['blinkL' => 0.0, 'blinkR' => 0.0]]], [3.8, ['home' => true]], [4.0, ['pin' => true]],
        ]],
        'cough' => ['seconds' => 3.0, 'keys' => [
            [0.0, []], [0.2, ['pin' => true]],
            [0.5, ['handR' => [-0.02, 1.42, 0.23, 'fist'], 'thorax' => [4, 0, 0], 'head' => [4, 0, 0]]],
            [
                0.68,
                [
                    'thorax' => [20, 0, 0], 'head' => [22, 0, 0], 'hip' => [0.0, 0.02, -0.02],
                    'face' => ['oh' => 0.6, 'blinkL' => 1.0, 'blinkR' => 1.0],
                ],
            ],
            [0.95, ['thorax' => [8, 0, 0], 'head' => [8, 0, 0], 'face' => ['oh' => 0.1]]],
            [1.12, ['thorax' => [24, 0, 0], 'head' => [26, 0, 0], 'face' => ['oh' => 0.7]]],
            [1.5, ['thorax' => [6, 0, 0], 'head' => [8, 0, 0], 'face' => ['oh' => 0.0, 'blinkL' => 0.0, 'blinkR' => 0.0]]],
            [2.8, ['home' => true]], [3.0, ['pin' => true]],
        ]],
        'sneeze' => ['seconds' => 3.0, 'keys' => [
            [0.0, []], [0.2, ['pin' => true]],
            [
                0.9,
                [
                    'head' => [-22, 0, 0], 'thorax' => [-10, 0, 0],
                    'face' => ['blinkL' => 0.9, 'blinkR' => 0.9, 'oh' => 0.7, 'browsUp' => 1.0], 'handL' => [0.04, 1.34, 0.30, 'mouth'],
                    'handR' => [-0.04, 1.34, 0.30, 'mouth'],
                ],
            ],
            [
                1.12,
                [
                    'head' => [34, 0, 0], 'thorax' => [32, 0, 0], 'pelvis' => [10, 0, 0], 'hip' => [0.0, 0.06, -0.06],
                    'handL' => [0.03, 1.18, 0.38, 'mouth'], 'handR' => [-0.03, 1.18, 0.38, 'mouth'],
                    'face' => ['oh' => 0.3, 'browsUp' => 0.0],
                ],
            ],
            [
                1.5,
                [
                    'head' => [14, 0, 0], 'thorax' => [10, 0, 0], 'handL' => null,
                    'face' => ['blinkL' => 0.0, 'blinkR' => 0.0, 'oh' => 0.0], 'handR' => [-0.01, 1.42, 0.22, 'mouth'],
                ],
            ],
            [2.2, ['head' => [4, 8, 0], 'handR' => [-0.03, 1.42, 0.22, 'mouth']]], [2.8, ['home' => true]], [3.0, ['pin' => true]],
        ]],
        'warmHands' => ['seconds' => 4.0, 'loops' => true, 'keys' => [
            [
                0.0,
                [
                    'handL' => [0.025, 1.14, 0.28, 'in'], 'handR' => [-0.025, 1.14, 0.28, 'in'], 'thorax' => [8, 0, 0],
                    'head' => [14, 0, 0], 'face' => ['frown' => 0.3],
                ],
            ],
            [
                1.8,
                [
                    'handL' => [0.03, 1.36, 0.26, 'mouth'], 'handR' => [-0.03, 1.36, 0.26, 'mouth'], 'head' => [18, 0, 0],
                    'face' => ['oh' => 0.6],
                ],
            ],
            [2.6, ['pin' => true]],
            [3.2, ['handL' => [0.025, 1.16, 0.28, 'in'], 'handR' => [-0.025, 1.16, 0.28, 'in'], 'face' => ['oh' => 0.0]]],
        ], 'pulses' => [
            ['part' => 'handL', 'axis' => 2, 'size' => 0.03, 'hz' => 3.0, 'from' => 0.1, 'to' => 1.5],
            ['part' => 'handR', 'axis' => 2, 'size' => -0.03, 'hz' => 3.0, 'from' => 0.1, 'to' => 1.5],
        ]],
        'wipeBrow' => ['seconds' => 3.2, 'keys' => [
            [0.0, []], [0.2, ['pin' => true]],
            [0.8, ['handR' => [0.05, 1.60, 0.20, 'body'], 'head' => [8, 0, 0], 'thorax' => [4, 8, 0]]],
            [
                1.4,
                [
                    'handR' => [-0.11, 1.60, 0.16, 'body'], 'head' => [4, 8, 0],
                    'face' => ['oh' => 0.4, 'blinkL' => 0.6, 'blinkR' => 0.6],
                ],
            ],
            [1.9, ['handR' => null, 'armR' => 'away', 'face' => ['oh' => 0.6, 'blinkL' => 0.0, 'blinkR' => 0.0]]],
            [2.4, ['thorax' => [8, 0, 0], 'hip' => [0.0, 0.02, 0.0]]],
            [3.0, ['home' => true]], [3.2, ['pin' => true]],
        ]],
    ];

    private const GESTURES = [
        'pointAndLaugh' => ['seconds' => 4.0, 'keys' => [
            [0.0, []], [0.2, ['pin' => true]],
            [0.6, ['armR' => 'point', 'thorax' => [-4, 6, 0], 'face' => ['smile' => 1.0, 'oh' => 0.5]]],
            [1.4, ['handL' => [0.06, 1.02, 0.17, 'body'], 'thorax' => [16, 6, 0], 'head' => [6, 0, 0]]],
            [2.0, ['thorax' => [-8, 4, 0], 'head' => [-16, 0, 4]]],
            [2.7, ['thorax' => [18, 6, 0], 'head' => [8, 0, -4]]], [3.2, ['armR' => 'low']], [3.8, ['home' => true]],
            [4.0, ['pin' => true]],
        ], 'pulses' => [['part' => 'thorax', 'axis' => 0, 'size' => 2.4, 'hz' => 4.4, 'from' => 0.7, 'to' => 3.3]]],
        'salute' => ['seconds' => 2.8, 'keys' => [
            [0.0, []], [0.15, ['pin' => true]],
            [
                0.45,
                [
                    'thorax' => [-6, 0, 0], 'head' => [-4, 0, 0], 'handR' => [-0.16, 1.53, 0.12, 'down'], 'armL' => 'proud',
                    'footL' => [0.05, 0.0, 9, 0, 0], 'footR' => [-0.05, 0.0, -9, 0, 0],
                ],
            ],
            [1.9, ['pin' => true]], [2.3, ['handR' => null, 'armR' => 'proud']], [2.7, ['home' => true]], [2.8, ['pin' => true]],
        ]],
        'shrugOff' => ['seconds' => 2.4, 'keys' => [
            [0.0, []], [0.15, ['pin' => true]],
            [0.5, ['armL' => 'shrug', 'armR' => 'shrug', 'head' => [4, 14, 8], 'face' => ['frown' => 0.6, 'browsUp' => 0.5]]],
            [0.9, ['pin' => true]], [1.2, ['armR' => 'away', 'armL' => 'rest', 'head' => [2, -24, 0], 'thorax' => [0, -14, 0]]],
            [1.5, ['pin' => true]], [2.2, ['home' => true]], [2.4, ['pin' => true]],
        ]],
    ];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::MOODS + self::BODY + self::phone() + self::GESTURES;
    }

    /** @return array<string, Sheet> */
    private static function phone(): array
    {
        $ear = ['handR' => [-0.185, 1.50, 0.05, 'face'], 'armR' => 'ear', 'head' => [2, 6, -8]];
        $typing = ['handL' => [0.05, 1.14, 0.28, 'up'], 'handR' => [-0.04, 1.15, 0.28, 'up'], 'head' => [26, 0, 0], 'thorax' => [6, 0, 0]];

        return [
            'phoneTalk' => ['seconds' => 6.0, 'loops' => true, 'talks' => [[0.3, 2.2], [2.8, 5.0]], 'keys' => [
                [0.0, $ear + ['hip' => [0.03, 0.0, 0.0]]], [1.4, ['armL' => 'offer', 'head' => [0, 16, -8], 'thorax' => [0, 8, 0]]],
                [2.4, ['armL' => 'low']],
                [3.4, ['head' => [8, -10, -8], 'hip' => [-0.02, 0.0, 0.0], 'armL' => 'wide', 'thorax' => [2, -6, 0]]],
                [4.6, ['armL' => 'low', 'head' => [2, 4, -8]]],
            ]],
            'phoneListen' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
                [0.0, $ear + ['armL' => 'folded']], [1.2, ['head' => [10, 6, -8]]], [1.6, ['head' => [2, 6, -8]]],
                [3.0, ['head' => [4, -14, -8], 'face' => ['browsUp' => 0.5]]],
                [4.2, ['head' => [12, -8, -8]]], [4.6, ['head' => [2, -6, -8], 'face' => ['browsUp' => 0.0]]],
            ]],
            'phoneType' => ['seconds' => 4.0, 'loops' => true, 'keys' => [
                [0.0, $typing], [2.0, ['head' => [24, 4, 2]]],
            ], 'pulses' => [
                ['part' => 'handR', 'axis' => 0, 'size' => 0.008, 'hz' => 3.5, 'from' => 0.2, 'to' => 3.8],
                ['part' => 'handR', 'axis' => 1, 'size' => 0.006, 'hz' => 5.0, 'from' => 0.2, 'to' => 3.8],
            ]],
            'takePicture' => ['seconds' => 4.0, 'keys' => [
                [0.0, []], [0.2, ['pin' => true]],
                [
                    0.9,
                    [
                        'handL' => [0.09, 1.50, 0.27, 'in'], 'handR' => [-0.09, 1.50, 0.27, 'in'], 'head' => [0, 0, 4],
                        'thorax' => [4, 0, 0], 'footR' => [-0.12, -0.14, -16, 0, 0],
                    ],
                ],
                [1.5, ['hip' => [0.0, 0.06, -0.04], 'face' => ['blinkL' => 0.9]]], [2.3, ['pin' => true]],
                [2.4, ['handR' => [-0.09, 1.49, 0.27, 'in']]],
                [
                    2.8,
                    [
                        'handL' => [0.06, 1.18, 0.28, 'in'], 'handR' => [-0.06, 1.18, 0.28, 'in'], 'head' => [22, 0, 0],
                        'hip' => [0.0, 0.0, 0.0], 'face' => ['blinkL' => 0.0, 'smile' => 0.5],
                    ],
                ],
                [3.8, ['home' => true]], [4.0, ['pin' => true]],
            ]],
            'eat' => ['seconds' => 4.8, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'handL' => [0.10, 1.04, 0.28, 'up'], 'handR' => [-0.06, 1.10, 0.30, 'in'], 'head' => [14, 0, 0],
                        'thorax' => [4, 0, 0],
                    ],
                ],
                [0.9, ['handR' => [-0.01, 1.40, 0.22, 'in'], 'head' => [6, 0, 0], 'face' => ['oh' => 0.6]]],
                [1.2, ['face' => ['oh' => 0.0]]],
                [1.9, ['handR' => [-0.06, 1.10, 0.30, 'in'], 'head' => [4, 8, 0]]], [4.2, ['pin' => true]],
            ], 'pulses' => [['part' => 'oh', 'axis' => 0, 'size' => 0.14, 'hz' => 1.8, 'from' => 1.5, 'to' => 4.2]]],
        ];
    }
}
