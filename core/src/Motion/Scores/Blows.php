<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Halves of what one does to another by force. `reacts` is the moment of the blow: what the second does after it grows with how hard
 * it is taken. Hands find their places by Meetings; arms here only swing back and follow through.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Blows
{
    private const ANGRY = ['browsDown' => 0.9, 'frown' => 0.7];

    private const HURT = ['browsUp' => 0.7, 'oh' => 0.6, 'blinkL' => 0.7, 'blinkR' => 0.7];

    private const OVER = ['browsUp' => 0.0, 'oh' => 0.0, 'blinkL' => 0.0, 'blinkR' => 0.0, 'frown' => 0.6];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::slap() + self::punch() + self::dodge() + self::shove() + self::grab();
    }

    /** @return array<string, Sheet> */
    private static function slap(): array
    {
        return [
            'slapA' => ['seconds' => 2.8, 'keys' => [
                [0.0, []], [0.15, ['pin' => true, 'face' => self::ANGRY]],
                [0.42, ['armR' => 'swing', 'thorax' => [-2, -24, 0], 'pelvis' => [0, -8, 0], 'hip' => [-0.02, 0.0, -0.02]]],
                [0.62, ['thorax' => [8, 14, 0], 'pelvis' => [2, 6, 0], 'hip' => [0.02, 0.01, 0.06]]],
                [0.86, ['armR' => 'across', 'thorax' => [9, 28, 0]]], [1.3, ['thorax' => [4, 10, 0], 'armR' => 'low', 'head' => [3, 0, 0]]],
                [2.5, ['home' => true]], [2.8, ['pin' => true]],
            ]],
            'slapB' => ['seconds' => 2.8, 'reacts' => 0.62, 'keys' => [
                [0.0, []], [0.45, ['head' => [-4, 0, 0], 'face' => ['browsUp' => 0.6]]], [0.62, ['pin' => true]],
                [
                    0.78,
                    [
                        'head' => [8, -42, -10], 'thorax' => [4, -16, -4], 'hip' => [-0.05, 0.02, -0.03], 'armL' => 'aside',
                        'armR' => 'low',
                        'face' => self::HURT,
                    ],
                ],
                [1.15, ['head' => [16, -34, -6], 'thorax' => [10, -12, 0], 'handL' => [0.12, 1.46, 0.17, 'face']]],
                [1.9, ['head' => [4, -8, 0], 'thorax' => [2, -4, 0], 'hip' => [0.0, 0.0, -0.02], 'face' => self::OVER]],
                [
                    2.6,
                    [
                        'handL' => null, 'armL' => 'rest', 'armR' => 'rest', 'head' => [0, 0, 0], 'thorax' => [0, 0, 0],
                        'hip' => [0.0, 0.0, 0.0],
                    ],
                ],
                [2.8, ['pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function punch(): array
    {
        return [
            'punchA' => self::striker(),
            'punchB' => ['seconds' => 3.0, 'reacts' => 0.60, 'keys' => [
                [0.0, []], [0.60, ['pin' => true]],
                [
                    0.76,
                    [
                        'head' => [-30, -22, 6], 'thorax' => [-16, -14, 0], 'pelvis' => [-5, 0, 0], 'hip' => [-0.03, 0.02, -0.11],
                        'armL' => 'fling', 'armR' => 'fling', 'face' => self::HURT,
                    ],
                ],
                [
                    1.05,
                    [
                        'footR' => [-0.13, -0.36, -16, 0, 0], 'hip' => [-0.02, 0.06, -0.24], 'thorax' => [8, -8, 0], 'pelvis' => [0, 0, 0],
                        'head' => [14, -12, 0], 'armL' => 'side', 'armR' => 'side',
                    ],
                ],
                [
                    1.45,
                    [
                        'footL' => [0.09, -0.33, 9, 0, 0], 'hip' => [0.0, 0.03, -0.34], 'thorax' => [16, 0, 0], 'head' => [18, 0, 0],
                        'armR' => 'chest', 'armL' => 'low', 'face' => self::OVER,
                    ],
                ],
                [
                    2.6,
                    [
                        'footR' => [-0.085, -0.37, -9, 0, 0], 'hip' => [0.0, 0.0, -0.35], 'thorax' => [0, 0, 0], 'head' => [0, 0, 0],
                        'armL' => 'rest', 'armR' => 'rest',
                    ],
                ],
                [3.0, ['root' => [0, -0.35, 0], 'pin' => true]],
            ]],
        ];
    }

    /** @return Sheet */
    private static function striker(): array
    {
        return ['seconds' => 3.0, 'keys' => [
            [0.0, []], [0.12, ['pin' => true, 'face' => self::ANGRY]],
            [
                0.40,
                [
                    'armR' => 'cocked', 'armL' => 'fist', 'thorax' => [-2, -26, 0], 'pelvis' => [0, -10, 0], 'hip' => [-0.02, 0.02, -0.05],
                    'footR' => [-0.11, -0.16, -26, 0, 0],
                ],
            ],
            [
                0.60,
                [
                    'thorax' => [10, 20, 0], 'pelvis' => [3, 8, 0], 'hip' => [0.02, 0.03, 0.09], 'footL' => [0.10, 0.14, 6, 0, 0],
                    'head' => [4, 0, 0],
                ],
            ],
            [0.85, ['thorax' => [10, 26, 0], 'armR' => 'fist']],
            [1.3, ['thorax' => [4, 6, 0], 'armR' => 'fist', 'armL' => 'fist']],
            [2.5, ['home' => true]], [3.0, ['pin' => true]],
        ]];
    }

    /** @return array<string, Sheet> */
    private static function dodge(): array
    {
        return [
            'dodgeA' => self::striker(),
            'dodgeB' => ['seconds' => 3.0, 'keys' => [
                [0.0, []], [0.22, ['pin' => true, 'face' => ['browsUp' => 0.8]]],
                [
                    0.50,
                    [
                        'hip' => [0.10, 0.26, -0.10], 'thorax' => [30, 8, -16], 'pelvis' => [14, 0, -6], 'head' => [-6, 4, 6],
                        'footR' => [-0.16, -0.20, -20, 0, 0], 'footL' => [0.17, 0.04, 12, 0, 0], 'armL' => 'brace', 'armR' => 'brace',
                    ],
                ],
                [0.85, ['pin' => true]],
                [
                    1.4,
                    [
                        'hip' => [0.03, 0.08, -0.10], 'thorax' => [8, 0, 0], 'pelvis' => [3, 0, 0], 'head' => [0, 0, 0], 'armL' => 'fist',
                        'armR' => 'fist', 'face' => ['browsUp' => 0.0, 'browsDown' => 0.7],
                    ],
                ],
                [2.6, ['home' => true]], [3.0, ['pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function shove(): array
    {
        return [
            'shoveA' => ['seconds' => 2.4, 'keys' => [
                [0.0, []], [0.15, ['pin' => true, 'face' => self::ANGRY]],
                [0.40, ['armR' => 'windUp', 'thorax' => [-2, -18, 0], 'hip' => [-0.01, 0.0, -0.03]]],
                [0.64, ['thorax' => [10, 16, 0], 'pelvis' => [3, 6, 0], 'hip' => [0.01, 0.02, 0.09], 'head' => [0, -4, 0]]],
                [0.95, ['thorax' => [10, 20, 0], 'armR' => 'low']], [2.1, ['home' => true]], [2.4, ['pin' => true]],
            ]],
            'shoveB' => ['seconds' => 2.4, 'reacts' => 0.64, 'keys' => [
                [0.0, []], [0.64, ['pin' => true]],
                [
                    0.82,
                    [
                        'thorax' => [-8, 26, 0], 'pelvis' => [-2, 10, 0], 'hip' => [0.0, 0.02, -0.09], 'head' => [8, -10, 0],
                        'face' => ['browsUp' => 0.8, 'oh' => 0.5],
                    ],
                ],
                [0.9, ['armL' => 'rest', 'armR' => 'rest']],
                [
                    1.1,
                    [
                        'footL' => [0.10, -0.30, 14, 0, 0], 'hip' => [0.01, 0.05, -0.20], 'thorax' => [6, 12, 0], 'pelvis' => [0, 4, 0],
                        'armL' => 'back', 'armR' => 'aside', 'head' => [2, -10, 0],
                    ],
                ],
                [
                    1.5,
                    [
                        'footR' => [-0.09, -0.30, -9, 0, 0], 'hip' => [0.0, 0.02, -0.30], 'thorax' => [2, 0, 0], 'armL' => 'low',
                        'armR' => 'low', 'face' => self::OVER,
                    ],
                ],
                [
                    2.1,
                    [
                        'footL' => [0.085, -0.29, 9, 0, 0], 'hip' => [0.0, 0.0, -0.30], 'head' => [0, 0, 0], 'armL' => 'rest',
                        'armR' => 'rest', 'pelvis' => [0, 0, 0],
                    ],
                ],
                [2.4, ['root' => [0, -0.30, 0], 'pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> a wrist is taken and pulled */
    private static function grab(): array
    {
        return [
            'grabWristA' => ['seconds' => 3.6, 'keys' => [
                [0.0, []], [0.2, ['pin' => true, 'face' => self::ANGRY]], [0.85, ['thorax' => [8, 6, 0], 'hip' => [0.0, 0.0, 0.03]]],
                [1.25, ['pin' => true]],
                [
                    1.65,
                    [
                        'thorax' => [-4, -12, 0], 'pelvis' => [-3, -6, 0], 'hip' => [0.0, 0.05, -0.12],
                        'footR' => [-0.12, -0.26, -20, 0, 0],
                        'head' => [2, 8, 0],
                    ],
                ],
                [2.4, ['pin' => true]], [3.3, ['home' => true]], [3.6, ['pin' => true]],
            ]],
            'grabWristB' => ['seconds' => 3.6, 'reacts' => 1.25, 'keys' => [
                [0.0, []], [0.5, ['armL' => 'middle']], [0.95, ['pin' => true, 'face' => ['browsUp' => 0.8]]], [1.25, ['pin' => true]],
                [
                    1.6,
                    [
                        'armL' => 'you', 'thorax' => [12, -14, 0], 'pelvis' => [4, -6, 0], 'hip' => [0.02, 0.02, 0.12],
                        'head' => [-12, 8, 0],
                        'face' => ['oh' => 0.6, 'browsUp' => 1.0],
                    ],
                ],
                [1.95, ['footL' => [0.10, 0.24, 6, 0, 0], 'hip' => [0.0, 0.03, 0.16], 'thorax' => [4, -10, 0], 'armR' => 'aside']],
                [2.5, ['pin' => true]], [2.8, ['armL' => 'low', 'armR' => 'low']],
                [3.3, ['home' => true, 'footL' => [0.085, 0.02, 9, 0, 0]]], [3.6, ['pin' => true]],
            ]],
        ];
    }
}
