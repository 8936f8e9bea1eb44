<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Bodies that are hurt, faint and die.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Harm
{
    private const PAIN = ['browsDown' => 0.6, 'frown' => 0.7, 'blinkL' => 0.6, 'blinkR' => 0.6];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::hurt() + ['dieBack' => self::dieBack(), 'dieKneeling' => self::dieKneeling(), 'dieAside' => self::dieAside()];
    }

    /** @return array<string, Sheet> */
    private static function hurt(): array
    {
        return [
            'stagger' => ['seconds' => 3.6, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.15, ['pin' => true, 'face' => self::PAIN]],
                [
                    0.55,
                    [
                        'footR' => [-0.02, 0.24, -18, 0, 0], 'hip' => [-0.08, 0.03, 0.16], 'thorax' => [18, -12, -8], 'head' => [14, 10, 8],
                        'armL' => 'side', 'armR' => 'low',
                    ],
                ],
                [
                    1.05,
                    [
                        'footL' => [0.20, 0.42, 20, 0, 0], 'hip' => [0.12, 0.04, 0.34], 'thorax' => [10, 14, 12], 'head' => [18, -12, -8],
                        'armR' => 'side',
                    ],
                ],
                [1.6, ['footR' => [-0.12, 0.62, -14, 0, 0], 'hip' => [0.02, 0.05, 0.54], 'thorax' => [22, -6, -6], 'armL' => 'low']],
                [
                    2.1,
                    [
                        'footL' => [0.09, 0.66, 8, 0, 0], 'hip' => [0.03, 0.03, 0.64], 'thorax' => [14, 4, 4],
                        'handR' => [-0.02, 1.52, 0.72, 'face'],
                    ],
                ],
                [
                    3.2,
                    [
                        'footR' => [-0.085, 0.62, -9, 0, 0], 'hip' => [0.0, 0.0, 0.64], 'thorax' => [4, 0, 0], 'head' => [8, 0, 0],
                        'handR' => null, 'armL' => 'rest', 'armR' => 'rest',
                    ],
                ],
                [3.6, ['root' => [0, 0.64, 0], 'pin' => true]],
            ]],
            'crawlWounded' => self::dragging(),
            'faint' => self::faint(),
        ];
    }

    /** @return array<string, mixed> on the back, limp */
    private static function lies(float $aside): array
    {
        return [
            'y' => 0.13, 'hip' => [$aside, 0.0, -0.30], 'pelvis' => [-88, 0, 0], 'thorax' => [-88, 0, 0], 'head' => [-78, 26, 0],
            'footL' => [0.17 + $aside, 0.52, 34, 62, 0.0], 'footR' => [-0.10 + $aside, 0.44, -44, 62, 0.0],
            'armL' => [6, 58, 10, 30, 20, 0, 0, 0.5, 0, 0, 0, 0.2], 'armR' => [4, 40, 10, 50, 20, 0, 0, 0.5, 0, 0, 0, 0.2],
            'handL' => [0.46 + $aside, 0.035, -0.52, 'floor'], 'handR' => [-0.36 + $aside, 0.035, -0.30, 'floor'], 'knees' => 0.05,
        ];
    }

    /** @return Sheet */
    private static function dragging(): array
    {
        $keys = [];
        foreach ([0, 1, 2] as $n) {
            $z = 0.26 * $n;
            $t = 1.2 * $n;
            $keys[] = [
                $t,
                [
                    'y' => 0.16, 'hip' => [0.0, 0.0, $z - 0.10], 'pelvis' => [74, 0, 0], 'thorax' => [62, -8, 0], 'head' => [30, 0, 6],
                    'handL' => [0.20, 0.03, $z + 0.60, 'floor'], 'handR' => [-0.20, 0.03, $z + 0.40, 'floor'],
                    'footL' => [0.14, $z - 0.80, 24, -72, 0.05], 'footR' => [-0.12, $z - 0.86, -24, -76, 0.05], 'root' => [0, $z, 0],
                    'face' => self::PAIN, 'knees' => 0.3,
                ],
            ];
            if ($n < 2) {
                $keys[] = [$t + 0.6, ['handR' => [-0.20, 0.03, $z + 0.66, 'floor'], 'thorax' => [58, 8, 0], 'head' => [22, -6, -4]]];
            }
        }

        return ['seconds' => 2.4, 'loops' => true, 'still' => true, 'keys' => $keys];
    }

    /** @return Sheet */
    private static function faint(): array
    {
        return ['seconds' => 3.2, 'keys' => [
            [0.0, []], [0.3, ['pin' => true, 'face' => ['browsUp' => 0.5]]],
            [
                0.9,
                [
                    'handR' => [-0.03, 1.58, 0.20, 'face'], 'head' => [-18, -8, 10], 'thorax' => [-6, 0, 4],
                    'hip' => [0.03, 0.0, -0.03],
                    'face' => ['blinkL' => 0.7, 'blinkR' => 0.7],
                ],
            ],
            [
                1.35,
                [
                    'y' => 0.62, 'hip' => [0.05, 0.0, -0.06], 'thorax' => [4, 0, 14], 'pelvis' => [6, 0, 8], 'handR' => null,
                    'armL' => 'slack', 'armR' => 'slack', 'head' => [22, 0, 18], 'face' => ['blinkL' => 1.0, 'blinkR' => 1.0],
                    'footL' => [0.13, 0.06, 14, -10, 0], 'footR' => [-0.13, -0.04, -14, -20, 0],
                ],
            ],
            [
                1.8,
                ['y' => 0.22, 'hip' => [0.10, 0.0, -0.20], 'pelvis' => [-30, 0, 16], 'thorax' => [-36, 0, 14], 'head' => [-10, 10, 20]],
            ],
            [2.2, self::lies(0.06)], [2.4, ['head' => [-72, 20, 0]]], [3.2, self::lies(0.06) + ['pin' => true]],
        ]];
    }

    /** @return Sheet */
    private static function dieBack(): array
    {
        return ['seconds' => 3.4, 'keys' => [
            [0.0, []], [0.12, ['pin' => true, 'face' => self::PAIN + ['oh' => 0.7]]],
            [
                0.35,
                [
                    'handR' => [-0.06, 1.18, 0.16, 'body'], 'thorax' => [-14, 10, 0], 'hip' => [0.0, 0.03, -0.08], 'head' => [14, 0, 0],
                    'armL' => 'fling',
                ],
            ],
            [0.8, ['footR' => [-0.12, -0.28, -16, 0, 0], 'hip' => [0.0, 0.08, -0.20], 'thorax' => [10, 0, 0]]],
            [
                1.3,
                [
                    'y' => 0.55, 'hip' => [0.0, 0.0, -0.26], 'thorax' => [4, 0, 0], 'pelvis' => [-6, 0, 0], 'armL' => 'slack',
                    'footL' => [0.10, 0.10, 9, 10, 0],
                ],
            ],
            [
                1.75,
                [
                    'y' => 0.24, 'pelvis' => [-50, 0, 0], 'thorax' => [-44, 0, 0], 'head' => [-20, 0, 0], 'handR' => null,
                    'armR' => 'slack',
                ],
            ],
            [2.15, self::lies(0.0)], [2.4, ['head' => [-74, 22, 0]]],
            [
                3.4,
                self::lies(0.0) + [
                    'pin' => true, 'face' => ['blinkL' => 0.9, 'blinkR' => 0.9, 'oh' => 0.0, 'frown' => 0.0, 'browsDown' => 0.0],
                ],
            ],
        ]];
    }

    /** @return Sheet */
    private static function dieKneeling(): array
    {
        return ['seconds' => 4.4, 'keys' => [
            [0.0, []], [0.12, ['pin' => true, 'face' => self::PAIN]],
            [
                0.5,
                [
                    'handL' => [0.05, 1.02, 0.17, 'body'], 'handR' => [-0.05, 1.06, 0.17, 'body'], 'thorax' => [24, 0, 0],
                    'head' => [26, 0, 0], 'hip' => [0.0, 0.05, -0.04],
                ],
            ],
            [
                1.2,
                [
                    'y' => 0.50, 'hip' => [0.0, 0.0, -0.06], 'pelvis' => [8, 0, 0], 'footL' => [0.11, -0.38, 8, -62, 0],
                    'footR' => [-0.10, -0.42, -8, -62, 0], 'handL' => null, 'armL' => 'slack', 'handR' => [-0.04, 0.66, 0.20, 'body'],
                ],
            ],
            [
                2.2,
                [
                    'thorax' => [34, 0, 4], 'head' => [36, 0, 6], 'handR' => null, 'armR' => 'slack',
                    'face' => ['blinkL' => 0.8, 'blinkR' => 0.8],
                ],
            ],
            [
                2.7,
                [
                    'y' => 0.36, 'pelvis' => [46, 0, 0], 'thorax' => [64, 0, 6], 'hip' => [0.0, 0.0, 0.10],
                    'handL' => [0.26, 0.04, 0.56, 'floor', 0.8], 'handR' => [-0.24, 0.04, 0.48, 'floor', 0.8],
                ],
            ],
            [
                3.2,
                [
                    'y' => 0.15, 'pelvis' => [80, 0, 0], 'thorax' => [84, 0, 4], 'head' => [70, 40, 0], 'hip' => [0.0, 0.0, 0.14],
                    'footL' => [0.13, -0.66, 24, -72, 0.04], 'footR' => [-0.12, -0.70, -24, -72, 0.04],
                    'handL' => [0.34, 0.03, 0.62, 'floor'], 'handR' => [-0.26, 0.03, 0.44, 'floor'],
                ],
            ],
            [4.4, ['pin' => true, 'face' => ['blinkL' => 1.0, 'blinkR' => 1.0, 'frown' => 0.0, 'browsDown' => 0.0]]],
        ]];
    }

    /** @return Sheet */
    private static function dieAside(): array
    {
        return ['seconds' => 3.8, 'keys' => [
            [0.0, []], [0.12, ['pin' => true, 'face' => self::PAIN + ['oh' => 0.5]]],
            [
                0.4,
                [
                    'thorax' => [6, 22, 10], 'hip' => [0.06, 0.03, 0.0], 'handR' => [-0.02, 1.12, 0.17, 'body'], 'head' => [10, 12, 8],
                    'armL' => 'side',
                ],
            ],
            [0.9, ['footL' => [0.30, 0.04, 20, 0, 0], 'hip' => [0.18, 0.12, 0.0], 'thorax' => [14, 6, 16], 'armL' => 'slack']],
            [
                1.5,
                [
                    'y' => 0.46, 'hip' => [0.22, 0.0, -0.06], 'pelvis' => [0, 0, 20], 'thorax' => [12, 0, 34],
                    'handL' => [0.62, 0.05, 0.10, 'floor', 0.8], 'footR' => [-0.10, -0.10, -14, -20, 0],
                ],
            ],
            [
                2.1,
                [
                    'y' => 0.17, 'hip' => [0.28, 0.0, -0.20], 'pelvis' => [-50, 0, 30], 'thorax' => [-56, 0, 30],
                    'head' => [-40, 0, 24],
                    'handL' => [0.72, 0.04, -0.40, 'floor'], 'handR' => null, 'armR' => 'slack', 'footL' => [0.30, 0.46, 34, 50, 0.02],
                    'footR' => [0.06, 0.40, -20, 50, 0.02],
                ],
            ],
            [2.6, self::lies(0.26)],
            [3.8, self::lies(0.26) + ['pin' => true, 'face' => ['blinkL' => 1.0, 'blinkR' => 1.0, 'oh' => 0.0]]],
        ]];
    }
}
