<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Threats, and fear.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Alarm
{
    private const ANGRY = ['browsDown' => 0.9, 'frown' => 0.7];

    private const AFRAID = ['browsUp' => 0.9, 'oh' => 0.4];

    private const PAIN = ['browsDown' => 0.6, 'frown' => 0.7, 'blinkL' => 0.6, 'blinkR' => 0.6];

    private const SMALL = [
        'y' => 0.60, 'hip' => [0.0, 0.0, -0.10], 'thorax' => [34, 0, 0], 'pelvis' => [20, 0, 0],
        'footL' => [0.13, 0.06, 14, -8, 0], 'footR' => [-0.13, -0.06, -14, -14, 0],
    ];

    private const FEAR = [
        'flinch' => ['seconds' => 2.0, 'keys' => [
            [0.0, []], [0.12, ['pin' => true]],
            [
                0.30,
                [
                    'handL' => [0.10, 1.50, 0.24, 'ahead'], 'handR' => [-0.12, 1.46, 0.22, 'ahead'], 'thorax' => [10, -22, 6],
                    'head' => [18, -26, 10], 'hip' => [-0.02, 0.06, -0.10], 'footR' => [-0.13, -0.20, -18, 0, 0],
                    'face' => ['blinkL' => 1.0, 'blinkR' => 1.0, 'browsUp' => 0.8, 'oh' => 0.4],
                ],
            ],
            [0.75, ['pin' => true]], [1.1, ['head' => [6, -6, 0], 'face' => ['blinkL' => 0.0, 'blinkR' => 0.0]]],
            [1.8, ['home' => true, 'footR' => [-0.085, -0.10, -9, 0, 0]]], [2.0, ['pin' => true]],
        ]],
        'duckDown' => ['seconds' => 2.4, 'keys' => [
            [0.0, []], [0.12, ['pin' => true, 'face' => self::AFRAID]],
            [
                0.42,
                self::SMALL + [
                    'handL' => [0.13, 1.06, 0.10, 'face'], 'handR' => [-0.13, 1.06, 0.10, 'face'], 'head' => [38, 0, 0],
                    'armL' => 'ear', 'armR' => 'ear',
                ],
            ],
            [1.2, ['pin' => true]], [1.5, ['head' => [4, 14, 0]]],
            [
                2.2,
                [
                    'y' => null, 'hip' => [0.0, 0.0, 0.0], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [0, 0, 0],
                    'handL' => null, 'handR' => null, 'armL' => 'rest', 'armR' => 'rest', 'footL' => [0.085, 0.02, 9, 0, 0],
                    'footR' => [-0.085, -0.02, -9, 0, 0],
                ],
            ],
            [2.4, ['pin' => true]],
        ]],
        'hide' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
            [
                0.0,
                self::SMALL + [
                    'handL' => [0.12, 0.92, 0.26, 'body', 0.9], 'handR' => [-0.12, 0.90, 0.26, 'body', 0.9], 'head' => [14, 0, 0],
                    'face' => self::AFRAID,
                ],
            ],
            [1.6, ['head' => [-6, 34, 0], 'y' => 0.70, 'thorax' => [26, 16, 0]]], [2.6, ['pin' => true]],
            [3.1, ['head' => [18, 0, 0], 'y' => 0.58, 'thorax' => [36, 0, 0]]], [4.8, ['pin' => true]],
            [5.6, ['head' => [-4, -34, 0], 'y' => 0.68, 'thorax' => [27, -14, 0]]], [6.6, ['pin' => true]],
            [7.2, ['head' => [16, 0, 0], 'y' => 0.60, 'thorax' => [34, 0, 0]]],
        ]],
        'coverEars' => ['seconds' => 4.0, 'keys' => [
            [0.0, []], [0.15, ['pin' => true]],
            [
                0.75,
                [
                    'handL' => [0.19, 1.475, 0.03, 'face'], 'handR' => [-0.19, 1.475, 0.03, 'face'], 'armL' => 'ear', 'armR' => 'ear',
                    'head' => [14, 0, 0], 'thorax' => [10, 0, 0], 'face' => self::PAIN,
                ],
            ],
            [1.6, ['head' => [18, -10, 4]]], [2.6, ['head' => [16, 10, -4]]], [3.2, ['pin' => true]], [3.8, ['home' => true]],
            [4.0, ['pin' => true]],
        ]],
        'coverEyes' => ['seconds' => 4.0, 'keys' => [
            [0.0, []], [0.15, ['pin' => true]],
            [
                0.6,
                [
                    'handL' => [0.055, 1.50, 0.235, 'face'], 'handR' => [-0.055, 1.50, 0.235, 'face'], 'armL' => 'eyes', 'armR' => 'eyes',
                    'head' => [8, 0, 0], 'thorax' => [6, 0, 0], 'face' => ['blinkL' => 1.0, 'blinkR' => 1.0],
                ],
            ],
            [2.4, ['head' => [12, 0, 0]]], [3.1, ['pin' => true]], [3.8, ['home' => true]], [4.0, ['pin' => true]],
        ]],
    ];

    private const THREATS = [
        'threaten' => ['seconds' => 4.0, 'talks' => [[0.9, 3.2]], 'keys' => [
            [0.0, []], [0.2, ['pin' => true, 'face' => self::ANGRY]],
            [
                0.7,
                [
                    'footR' => [-0.11, 0.18, -14, 0, 0], 'hip' => [0.0, 0.02, 0.12], 'thorax' => [12, 10, 0], 'head' => [-4, 0, 0],
                    'handR' => [-0.12, 1.40, 0.42, 'fist'], 'armR' => 'fist', 'armL' => 'back',
                ],
            ],
            [1.1, ['handR' => [-0.10, 1.50, 0.44, 'fist']]], [1.4, ['handR' => [-0.10, 1.32, 0.50, 'fist'], 'thorax' => [16, 14, 0]]],
            [1.8, ['handR' => [-0.10, 1.50, 0.44, 'fist'], 'thorax' => [12, 10, 0]]],
            [2.2, ['handR' => [-0.10, 1.32, 0.50, 'fist'], 'thorax' => [16, 14, 0]]], [2.9, ['handR' => [-0.12, 1.44, 0.42, 'fist']]],
            [3.7, ['home' => true, 'footR' => [-0.085, 0.16, -9, 0, 0]]], [4.0, ['pin' => true]],
        ]],
        'surrender' => ['seconds' => 5.0, 'keys' => [
            [0.0, []], [0.2, ['pin' => true, 'face' => self::AFRAID]],
            [
                0.9,
                [
                    'handL' => [0.38, 1.64, 0.18, 'ahead'], 'handR' => [-0.38, 1.64, 0.18, 'ahead'], 'armL' => 'stop', 'armR' => 'stop',
                    'thorax' => [-5, 0, 0], 'hip' => [0.0, 0.01, -0.03], 'head' => [4, 0, 0],
                ],
            ],
            [2.4, ['head' => [6, -14, 0], 'handL' => [0.39, 1.67, 0.16, 'ahead'], 'handR' => [-0.38, 1.62, 0.18, 'ahead']]],
            [3.6, ['head' => [5, 12, 0], 'handL' => [0.38, 1.63, 0.18, 'ahead'], 'handR' => [-0.39, 1.66, 0.17, 'ahead']]],
            [5.0, ['pin' => true]],
        ]],
    ];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::THREATS + self::FEAR;
    }
}
