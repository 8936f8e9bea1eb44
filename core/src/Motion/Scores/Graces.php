<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Halves of what two do with each other in kindness; where they touch is said by Meetings.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Graces
{
    private const SITS = [
        'y' => 0.13, 'hip' => [0.0, 0.0, -0.28], 'pelvis' => [-18, 0, 0], 'thorax' => [4, 0, 0], 'head' => [-14, 0, 0],
        'footL' => [0.12, 0.20, 12, 0, 0], 'footR' => [-0.11, 0.14, -12, 0, 0], 'handL' => [0.24, 0.02, -0.46, 'floor'],
        'armR' => 'low', 'knees' => 0.2,
    ];

    private const UP = [
        'helpUpA' => ['seconds' => 4.4, 'keys' => [
            [0.0, []], [0.3, ['pin' => true, 'face' => ['browsUp' => 0.4]]],
            [
                1.2,
                [
                    'thorax' => [34, 6, 0], 'pelvis' => [14, 0, 0], 'hip' => [0.0, 0.10, 0.02], 'head' => [18, 0, 0], 'armR' => 'you',
                    'footL' => [0.10, 0.10, 9, 0, 0], 'footR' => [-0.12, -0.18, -18, 0, 0],
                ],
            ],
            [1.6, ['pin' => true]],
            [2.4, ['thorax' => [-2, -6, 0], 'pelvis' => [-3, 0, 0], 'hip' => [0.0, 0.05, -0.12], 'head' => [8, 0, 0]]],
            [
                3.0,
                [
                    'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'hip' => [0.0, 0.0, -0.04], 'head' => [0, 0, 0], 'armR' => 'middle',
                    'face' => ['smile' => 0.6, 'browsUp' => 0.0],
                ],
            ],
            [4.1, ['home' => true]], [4.4, ['pin' => true]],
        ]],
        'helpUpB' => ['seconds' => 4.4, 'keys' => [
            [0.0, self::SITS], [0.4, ['pin' => true]], [1.0, ['head' => [-22, 0, 0], 'face' => ['smile' => 0.3]]],
            [1.6, ['pin' => true]],
            [
                2.1,
                [
                    'y' => 0.40, 'hip' => [0.0, 0.0, -0.12], 'pelvis' => [16, 0, 0], 'thorax' => [30, 0, 0], 'head' => [-10, 0, 0],
                    'handL' => null, 'armL' => 'back',
                ],
            ],
            [
                2.7,
                [
                    'y' => null, 'hip' => [0.0, 0.14, 0.06], 'pelvis' => [8, 0, 0], 'thorax' => [18, 0, 0], 'armL' => 'low',
                    'head' => [0, 0, 0],
                ],
            ],
            [
                3.2,
                [
                    'hip' => [0.0, 0.02, 0.14], 'pelvis' => [0, 0, 0], 'thorax' => [2, 0, 0], 'footR' => [-0.085, 0.16, -9, 0, 0],
                    'face' => ['smile' => 0.7],
                ],
            ],
            [
                4.0,
                [
                    'hip' => [0.0, 0.0, 0.18], 'thorax' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest', 'knees' => 0.1,
                    'footL' => [0.085, 0.20, 9, 0, 0],
                ],
            ],
            [4.4, ['root' => [0, 0.18, 0], 'pin' => true]],
        ]],
    ];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        $glad = ['smile' => 0.7];

        return self::faces() + self::dance() + self::UP + [
            'highClapA' => self::clap(), 'highClapB' => self::clap(),
            'patShoulderA' => ['seconds' => 3.2, 'keys' => [
                [0.0, []], [0.2, ['pin' => true, 'face' => ['smile' => 0.4]]],
                [0.9, ['thorax' => [5, 8, 0], 'head' => [4, 0, -6], 'hip' => [-0.01, 0.0, 0.03]]], [2.2, ['pin' => true]],
                [3.0, ['home' => true]], [3.2, ['pin' => true]],
            ], 'talks' => [[1.2, 2.0]]],
            'patShoulderB' => ['seconds' => 3.2, 'keys' => [
                [0.0, []], [0.8, ['pin' => true]], [1.1, ['head' => [8, 6, 4], 'thorax' => [4, 0, 2]]],
                [1.9, ['head' => [2, 0, 0], 'face' => $glad]],
                [2.4, ['pin' => true]], [3.0, ['home' => true]], [3.2, ['pin' => true]],
            ], 'pulses' => [['part' => 'thorax', 'axis' => 2, 'size' => 1.2, 'hz' => 1.6, 'from' => 0.95, 'to' => 2.2]]],
            'takeArmA' => ['seconds' => 4.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]], [0.95, ['thorax' => [6, 6, 0], 'head' => [2, 4, 2], 'hip' => [0.0, 0.0, 0.03]]],
                [3.0, ['pin' => true]], [3.8, ['home' => true]], [4.0, ['pin' => true]],
            ], 'talks' => [[1.1, 2.6]]],
            'takeArmB' => ['seconds' => 4.0, 'keys' => [
                [0.0, []], [0.95, ['pin' => true]], [1.2, ['head' => [10, 14, 0], 'face' => ['browsUp' => 0.5]]],
                [2.0, ['head' => [0, 0, 0]]],
                [3.0, ['pin' => true]], [3.8, ['home' => true]], [4.0, ['pin' => true]],
            ]],
        ];
    }

    /** @return Sheet */
    private static function clap(): array
    {
        return ['seconds' => 2.2, 'keys' => [
            [0.0, []], [0.15, ['pin' => true, 'face' => ['smile' => 0.9, 'browsUp' => 0.4]]],
            [0.55, ['armR' => 'over', 'thorax' => [-4, -12, 0], 'hip' => [0.0, 0.0, -0.02], 'head' => [-8, 0, 0]]],
            [0.80, ['thorax' => [4, 14, 0], 'hip' => [0.0, -0.01, 0.04], 'head' => [-10, 0, 0]]],
            [1.0, ['armR' => 'up', 'thorax' => [2, 10, 0]]], [1.5, ['armR' => 'low', 'head' => [0, 0, 0]]],
            [2.0, ['home' => true]], [2.2, ['pin' => true]],
        ]];
    }

    /** @return array<string, Sheet> */
    private static function faces(): array
    {
        return [
            'kissCheekA' => ['seconds' => 3.2, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'face' => ['smile' => 0.5]]],
                [1.1, ['face' => ['blinkL' => 0.0, 'blinkR' => 0.0, 'oh' => 0.0]]],
                [1.3, ['face' => ['blinkL' => 0.8, 'blinkR' => 0.8, 'oh' => 0.35, 'smile' => 0.2]]],
                [1.8, ['face' => ['blinkL' => 0.8, 'blinkR' => 0.8, 'oh' => 0.35]]],
                [2.1, ['face' => ['blinkL' => 0.0, 'blinkR' => 0.0, 'oh' => 0.0, 'smile' => 0.7]]], [3.0, ['home' => true]],
                [3.2, ['pin' => true]],
            ]],
            'kissCheekB' => ['seconds' => 3.2, 'keys' => [
                [0.0, []], [0.9, ['pin' => true, 'face' => ['smile' => 0.2]]],
                [1.5, ['face' => ['smile' => 0.7, 'blinkL' => 0.6, 'blinkR' => 0.6]]],
                [2.2, ['face' => ['smile' => 0.9, 'blinkL' => 0.0, 'blinkR' => 0.0]]], [3.0, ['home' => true]], [3.2, ['pin' => true]],
            ]],
            'whisperEarA' => ['seconds' => 5.0, 'talks' => [[1.3, 2.4], [2.7, 3.7]], 'keys' => [
                [0.0, []], [0.3, ['pin' => true]], [1.2, ['face' => ['browsUp' => 0.3]]], [3.8, ['pin' => true]], [4.8, ['home' => true]],
                [5.0, ['pin' => true]],
            ]],
            'whisperEarB' => ['seconds' => 5.0, 'keys' => [
                [0.0, []], [1.2, ['pin' => true, 'eyes' => [14, -4]]], [2.0, ['face' => ['browsUp' => 0.7], 'eyes' => [-10, 2]]],
                [3.2, ['face' => ['browsUp' => 0.9, 'oh' => 0.4]]],
                [4.0, ['face' => ['browsUp' => 0.2, 'oh' => 0.0, 'smile' => 0.7], 'eyes' => [0, 0]]],
                [4.8, ['home' => true]], [5.0, ['pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function dance(): array
    {
        $out = [];
        foreach (['A', 'B'] as $half) {
            $sway = $half === 'A' ? 1 : -1;
            $out["danceTogether{$half}"] = ['seconds' => 9.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'face' => ['smile' => 0.6]]],
                [1.2, ['hip' => [0.0, 0.012, 0.0], 'thorax' => [-2, 0, 0], 'head' => [-2, 8 * $sway, 0]]], [7.4, ['pin' => true]],
                [8.6, ['home' => true]], [9.0, ['pin' => true]],
            ], 'pulses' => [
                ['part' => 'hip', 'axis' => 0, 'size' => 0.022 * $sway, 'hz' => 0.909, 'from' => 1.3, 'to' => 7.5],
                ['part' => 'hip', 'axis' => 1, 'size' => 0.008, 'hz' => 1.818, 'from' => 1.3, 'to' => 7.5],
                ['part' => 'thorax', 'axis' => 2, 'size' => 2.2 * $sway, 'hz' => 0.909, 'from' => 1.3, 'to' => 7.5],
            ]];
        }

        return $out;
    }
}
