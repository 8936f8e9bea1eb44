<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Over walls, on ice, in the water; single steps that a walk does not make.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Obstacles
{
    private const SWIM = [
        'y' => 0.34, 'hip' => [0.0, 0.0, 0.0], 'pelvis' => [82, 0, 0], 'thorax' => [74, 0, 0], 'head' => [40, 0, 0],
        'footL' => [0.10, -0.80, 14, -80, 0.24], 'footR' => [-0.10, -0.80, -14, -80, 0.16],
    ];

    private const OVER = [
        'climbOverWall' => ['seconds' => 4.4, 'keys' => [
            [0.0, ['root' => [0, 0, 0]]], [0.3, ['pin' => true, 'head' => [16, 0, 0]]],
            [
                0.9,
                [
                    'handL' => [0.18, 0.84, 0.40, 'down'], 'handR' => [-0.18, 0.84, 0.40, 'down'], 'thorax' => [30, 0, 0],
                    'pelvis' => [12, 0, 0], 'hip' => [0.0, 0.06, 0.04],
                ],
            ],
            [
                1.6,
                [
                    'footR' => [-0.16, 0.44, -10, 0, 0.80], 'y' => 1.02, 'hip' => [0.03, 0.0, 0.16], 'thorax' => [52, 8, 0],
                    'pelvis' => [30, 0, 0],
                ],
            ],
            [2.2, ['footL' => [0.10, 0.42, 8, -30, 0.80], 'y' => 1.14, 'hip' => [0.0, 0.0, 0.34], 'thorax' => [50, 0, 0]]],
            [
                2.8,
                [
                    'footR' => [-0.13, 0.84, -10, 0, 0.0], 'y' => 0.86, 'hip' => [-0.04, 0.0, 0.64], 'thorax' => [34, 0, 0],
                    'pelvis' => [14, 0, 0], 'handR' => null, 'armR' => 'side',
                ],
            ],
            [
                3.3,
                [
                    'footL' => [0.10, 0.94, 9, 0, 0.0], 'y' => null, 'hip' => [0.0, 0.06, 0.86], 'thorax' => [16, 0, 0],
                    'handL' => null, 'armL' => 'low',
                ],
            ],
            [
                4.0,
                [
                    'footR' => [-0.085, 0.88, -9, 0, 0], 'hip' => [0.0, 0.0, 0.90], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0],
                    'head' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest',
                ],
            ],
            [4.4, ['root' => [0, 0.90, 0], 'pin' => true]],
        ]],
        'slip' => ['seconds' => 2.6, 'keys' => [
            [0.0, []], [0.15, ['pin' => true]],
            [
                0.4,
                [
                    'footR' => [-0.09, 0.46, -9, 24, 0.10], 'hip' => [0.02, 0.02, -0.02], 'thorax' => [-16, 0, 0], 'head' => [16, 0, 0],
                    'armL' => 'fling', 'armR' => 'fling', 'face' => ['browsUp' => 1.0, 'oh' => 0.9],
                ],
            ],
            [
                0.65,
                [
                    'footL' => [0.10, 0.40, 9, 26, 0.16], 'y' => 0.46, 'hip' => [0.0, 0.0, -0.14], 'pelvis' => [-40, 0, 0],
                    'thorax' => [-34, 0, 0],
                ],
            ],
            [
                0.86,
                [
                    'y' => 0.13, 'hip' => [0.0, 0.0, -0.24], 'pelvis' => [-24, 0, 0], 'thorax' => [-14, 0, 0],
                    'footL' => [0.12, 0.42, 12, 12, 0], 'footR' => [-0.12, 0.48, -12, 12, 0], 'handL' => [0.28, 0.03, -0.50, 'floor'],
                    'handR' => [-0.28, 0.03, -0.50, 'floor'],
                ],
            ],
            [1.1, ['y' => 0.15, 'face' => ['oh' => 0.3, 'blinkL' => 0.9, 'blinkR' => 0.9]]],
            [
                1.6,
                [
                    'head' => [8, 20, 8], 'thorax' => [2, 0, 0],
                    'face' => ['browsUp' => 0.2, 'frown' => 0.6, 'blinkL' => 0.2, 'blinkR' => 0.2],
                ],
            ],
            [2.6, ['pin' => true]],
        ]],
        'swim' => ['seconds' => 2.4, 'loops' => true, 'still' => true, 'keys' => [
            [
                0.0,
                self::SWIM + [
                    'handL' => [0.05, 0.36, 0.96, 'down'], 'handR' => [-0.05, 0.36, 0.96, 'down'], 'root' => [0, 0, 0], 'knees' => 0.4,
                ],
            ],
            [
                0.6,
                [
                    'handL' => [0.46, 0.30, 0.66, 'down'], 'handR' => [-0.46, 0.30, 0.66, 'down'], 'hip' => [0.0, 0.0, 0.20],
                    'head' => [20, 0, 0], 'thorax' => [66, 0, 0],
                ],
            ],
            [
                1.1,
                [
                    'handL' => [0.12, 0.22, 0.70, 'in'], 'handR' => [-0.12, 0.22, 0.70, 'in'], 'hip' => [0.0, 0.0, 0.52],
                    'footL' => [0.24, -0.14, 40, -50, 0.24], 'footR' => [-0.24, -0.14, -40, -50, 0.20],
                ],
            ],
            [
                1.6,
                [
                    'handL' => [0.05, 0.34, 1.40, 'down'], 'handR' => [-0.05, 0.34, 1.40, 'down'], 'hip' => [0.0, 0.0, 0.66],
                    'head' => [44, 0, 0], 'thorax' => [76, 0, 0], 'footL' => [0.36, -0.12, 50, -70, 0.24],
                    'footR' => [-0.36, -0.12, -50, -70, 0.20],
                ],
            ],
            [
                2.4,
                [
                    'handL' => [0.05, 0.36, 1.96, 'down'], 'handR' => [-0.05, 0.36, 1.96, 'down'], 'hip' => [0.0, 0.0, 1.0],
                    'footL' => [0.10, 0.20, 14, -80, 0.24], 'footR' => [-0.10, 0.20, -14, -80, 0.16], 'root' => [0, 1.0, 0],
                    'thorax' => [74, 0, 0], 'head' => [40, 0, 0],
                ],
            ],
        ]],
    ];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::OVER + self::steps();
    }

    /** @return array<string, Sheet> single steps that a walk does not make */
    private static function steps(): array
    {
        $out = ['stepBack' => ['seconds' => 1.5, 'keys' => [
            [0.0, ['root' => [0, 0, 0]]], [0.1, ['pin' => true]],
            [0.55, ['footR' => [-0.09, -0.38, -12, 0, 0], 'hip' => [0.0, 0.03, -0.16], 'thorax' => [-2, 0, 0], 'armL' => 'low']],
            [1.05, ['footL' => [0.085, -0.34, 9, 0, 0], 'hip' => [0.0, 0.0, -0.36], 'thorax' => [0, 0, 0], 'armL' => 'rest']],
            [1.3, ['footR' => [-0.085, -0.38, -9, 0, 0], 'hip' => [0.0, 0.0, -0.36]]], [1.5, ['root' => [0, -0.36, 0], 'pin' => true]],
        ]]];
        foreach (['Left' => [1, 'L', 'R'], 'Right' => [-1, 'R', 'L']] as $side => [$m, $near, $far]) {
            $out["stepAside{$side}"] = ['seconds' => 1.5, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.1, ['pin' => true]],
                [
                    0.55,
                    ["foot{$near}" => [$m * 0.46, $m * 0.02, $m * 9, 0, 0], 'hip' => [$m * 0.18, 0.04, 0.0], 'thorax' => [0, 0, $m * 3]],
                ],
                [1.1, ["foot{$far}" => [$m * 0.29, -$m * 0.02, -$m * 9, 0, 0], 'hip' => [$m * 0.375, 0.0, 0.0], 'thorax' => [0, 0, 0]]],
                [1.5, ['root' => [$m * 0.375, 0, 0], 'pin' => true]],
            ]];
            // Narrow: the body turned aside, arms before it, feet one after the other.
            $narrow = ['turn' => $m * 80, 'armL' => 'hugging', 'armR' => 'hugging', 'thorax' => [-4, 0, 0]];
            $out["squeezeThrough{$side}"] = ['seconds' => 4.0, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.1, ['pin' => true]],
                [
                    0.7,
                    $narrow + [
                        'footL' => [0.02 + ($m > 0 ? 0.0 : 0.04), $m > 0 ? -0.10 : 0.12, $m * 86, 0, 0],
                        'footR' => [0.02 + ($m > 0 ? 0.04 : 0.0), $m > 0 ? 0.12 : -0.10, $m * 78, 0, 0], 'head' => [0, -$m * 60, 0],
                    ],
                ],
                [1.2, ["foot{$far}" => [0.02, 0.36, $m * 80, 0, 0], 'hip' => [0.0, 0.03, 0.14]]],
                [1.7, ["foot{$near}" => [0.02, 0.16, $m * 84, 0, 0], 'hip' => [0.0, 0.0, 0.26]]],
                [2.2, ["foot{$far}" => [0.02, 0.62, $m * 80, 0, 0], 'hip' => [0.0, 0.03, 0.42]]],
                [2.7, ["foot{$near}" => [0.02, 0.44, $m * 84, 0, 0], 'hip' => [0.0, 0.0, 0.54]]],
                [
                    3.4,
                    [
                        'turn' => 0, 'footL' => [0.085, 0.56, 9, 0, 0], 'footR' => [-0.085, 0.52, -9, 0, 0], 'head' => [0, 0, 0],
                        'armL' => 'rest', 'armR' => 'rest', 'thorax' => [0, 0, 0],
                    ],
                ],
                [4.0, ['root' => [0, 0.54, 0], 'pin' => true]],
            ]];
        }

        return $out;
    }
}
