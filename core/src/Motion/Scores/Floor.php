<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Down to the floor and up again, jumps, falls, crawling and climbing.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Floor
{
    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::low() + self::jumps() + self::falls() + self::ways();
    }

    /** @return array<string, mixed> lying on the back, head towards -Z */
    private static function onBack(): array
    {
        return [
            'y' => 0.13, 'hip' => [0.0, 0.0, -0.30], 'pelvis' => [-88, 0, 0], 'thorax' => [-88, 0, 0], 'head' => [-80, 12, 0],
            'footL' => [0.13, 0.55, 24, 62, 0.0], 'footR' => [-0.12, 0.55, -24, 62, 0.0],
            'armL' => [-6, 24, 10, 16, 20, 0, 0, 0.5, 0, 0, 0, 0.2], 'armR' => [4, 30, 10, 30, 20, 0, 0, 0.5, 0, 0, 0, 0.2],
            'handL' => [0.32, 0.035, -0.34, 'floor'], 'handR' => [-0.33, 0.035, -0.36, 'floor'], 'knees' => 0.05,
        ];
    }

    /** @return array<string, mixed> on one knee, the left foot before */
    private static function oneKnee(): array
    {
        return [
            'y' => 0.49, 'hip' => [-0.02, 0.0, -0.12], 'thorax' => [6, 0, 0], 'pelvis' => [2, 0, 0], 'footL' => [0.11, 0.16, 6, 0, 0],
            'footR' => [-0.10, -0.44, -4, -62, 0], 'head' => [4, 0, 0],
        ];
    }

    /** @return array<string, Sheet> */
    private static function low(): array
    {
        $crouch = [
            'y' => 0.42, 'hip' => [0.0, 0.0, -0.10], 'thorax' => [34, 0, 0], 'pelvis' => [20, 0, 0], 'head' => [10, 0, 0],
            'footL' => [0.13, 0.06, 14, -14, 0], 'footR' => [-0.13, -0.06, -14, -24, 0], 'handL' => [0.16, 0.52, 0.24, 'knee', 0.8],
            'handR' => [-0.12, 0.50, 0.20, 'knee', 0.8], 'knees' => 0.2,
        ];
        $stand = [
            'y' => null, 'hip' => [0.0, 0.0, 0.0], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [0, 0, 0],
            'footL' => [0.085, 0.02, 9, 0, 0], 'footR' => [-0.085, -0.02, -9, 0, 0], 'handL' => null, 'handR' => null, 'armL' => 'rest',
            'armR' => 'rest', 'knees' => 0.1,
        ];

        return [
            'kneel' => [
                'seconds' => 2.4,
                'keys' => [
                    [0.0, []], [0.3, ['pin' => true, 'head' => [18, 0, 0]]],
                    [0.9, ['footR' => [-0.10, -0.36, -4, -46, 0], 'hip' => [0.0, 0.14, -0.07], 'thorax' => [12, 0, 0], 'y' => null]],
                    [1.6, self::oneKnee() + ['handL' => [0.12, 0.60, 0.20, 'knee', 0.85], 'armL' => 'lap']], [2.4, ['pin' => true]],
                ],
            ],
            'kneelUp' => [
                'seconds' => 2.2,
                'keys' => [
                    [0.0, self::oneKnee() + ['handL' => [0.12, 0.60, 0.20, 'knee', 0.85]]], [0.3, ['pin' => true]],
                    [0.8, ['thorax' => [26, 0, 0], 'hip' => [0.02, 0.0, 0.0], 'y' => 0.56]],
                    [
                        1.3,
                        [
                            'y' => null, 'hip' => [0.02, 0.14, 0.02], 'footR' => [-0.10, -0.30, -4, -40, 0], 'handL' => null,
                            'thorax' => [14, 0, 0],
                        ],
                    ],
                    [1.9, $stand], [2.2, ['pin' => true]],
                ],
            ],
            'crouch' => [
                'seconds' => 1.6,
                'keys' => [
                    [0.0, []], [0.2, ['pin' => true]],
                    [
                        0.6,
                        [
                            'thorax' => [26, 0, 0], 'hip' => [0.0, 0.2, -0.08], 'y' => null, 'footL' => [0.13, 0.06, 14, -6, 0],
                            'footR' => [-0.13, -0.06, -14, -8, 0],
                        ],
                    ],
                    [1.15, $crouch], [1.6, ['pin' => true]],
                ],
            ],
            'crouchIdle' => [
                'seconds' => 6.0,
                'loops' => true,
                'looks' => true,
                'keys' => [
                    [0.0, $crouch], [2.0, ['head' => [4, 22, 0], 'thorax' => [32, 6, 0]]],
                    [4.0, ['head' => [6, -20, 0], 'thorax' => [35, -5, 0]]], [6.0, $crouch + ['pin' => true]],
                ],
            ],
            'crouchUp' => [
                'seconds' => 1.6,
                'keys' => [
                    [0.0, $crouch], [0.2, ['pin' => true]],
                    [
                        0.8,
                        [
                            'y' => null, 'hip' => [0.0, 0.14, -0.05], 'thorax' => [24, 0, 0], 'pelvis' => [8, 0, 0], 'handL' => null,
                            'handR' => null, 'footL' => [0.13, 0.06, 14, 0, 0], 'footR' => [-0.13, -0.06, -14, 0, 0],
                        ],
                    ],
                    [1.4, $stand], [1.6, ['pin' => true]],
                ],
            ],
            'lieIdle' => [
                'seconds' => 8.0,
                'loops' => true,
                'keys' => [
                    [0.0, self::onBack()], [4.0, ['head' => [-80, -14, 0], 'thorax' => [-87, 2, 0]]],
                    [8.0, self::onBack() + ['pin' => true]],
                ],
            ],
            'lieDown' => ['seconds' => 4.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [1.0, ['thorax' => [26, 0, 0], 'hip' => [0.0, 0.25, -0.14], 'y' => null, 'handL' => [0.22, 0.4, -0.2, 'floor', 0.3]]],
                [
                    1.7,
                    [
                        'y' => 0.16, 'hip' => [0.0, 0.0, -0.34], 'pelvis' => [-30, 0, 0], 'thorax' => [-6, 0, 0],
                        'handL' => [0.24, 0.02, -0.52, 'floor'], 'handR' => [-0.24, 0.02, -0.52, 'floor'],
                        'footL' => [0.10, 0.22, 8, 0, 0], 'footR' => [-0.10, 0.20, -8, 0, 0], 'head' => [4, 0, 0],
                    ],
                ],
                [
                    2.6,
                    [
                        'pelvis' => [-60, 0, 0], 'thorax' => [-50, 0, 0], 'head' => [-30, 0, 0], 'y' => 0.14,
                        'handL' => [0.26, 0.02, -0.62, 'floor'], 'handR' => [-0.26, 0.02, -0.62, 'floor'],
                        'footL' => [0.12, 0.45, 14, 24, 0],
                    ],
                ],
                [3.5, self::onBack()], [4.0, ['pin' => true]],
            ]],
            'getUp' => ['seconds' => 4.4, 'keys' => [
                [0.0, self::onBack()], [0.4, ['pin' => true]],
                [
                    1.3,
                    [
                        'pelvis' => [-40, 0, 0], 'thorax' => [-18, 0, 0], 'head' => [10, 0, 0], 'y' => 0.14,
                        'handL' => [0.24, 0.02, -0.55, 'floor'], 'handR' => [-0.24, 0.02, -0.55, 'floor'],
                        'footL' => [0.11, 0.28, 8, 0, 0], 'footR' => [-0.11, 0.24, -8, 0, 0],
                    ],
                ],
                [1.75, ['y' => 0.33]],
                [
                    2.2,
                    [
                        'pelvis' => [16, 14, 0], 'thorax' => [36, 20, 0], 'head' => [16, 10, 0], 'y' => 0.36, 'hip' => [0.0, 0.0, -0.18],
                        'handL' => [0.22, 0.02, 0.02, 'floor', 0.7], 'handR' => null, 'footR' => [-0.10, -0.40, -4, -60, 0],
                        'footL' => [0.11, 0.12, 8, 0, 0],
                    ],
                ],
                [
                    3.1,
                    [
                        'y' => null, 'hip' => [0.0, 0.2, -0.06], 'thorax' => [28, 0, 0], 'pelvis' => [8, 0, 0],
                        'handL' => [0.10, 0.56, 0.16, 'knee', 0.7], 'footR' => [-0.10, -0.24, -6, -30, 0],
                    ],
                ],
                [
                    3.8,
                    [
                        'hip' => [0.0, 0.0, 0.0], 'thorax' => [2, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [4, 0, 0], 'handL' => null,
                        'armL' => 'rest', 'armR' => 'rest', 'footL' => [0.085, 0.02, 9, 0, 0], 'footR' => [-0.085, -0.02, -9, 0, 0],
                    ],
                ],
                [4.4, ['head' => [0, 0, 0], 'knees' => 0.1, 'pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function jumps(): array
    {
        $gather = [
            'hip' => [0.0, 0.20, -0.06], 'thorax' => [34, 0, 0], 'pelvis' => [12, 0, 0], 'armL' => 'back', 'armR' => 'back',
            'head' => [-6, 0, 0],
        ];
        $land = ['y' => null, 'thorax' => [30, 0, 0], 'pelvis' => [10, 0, 0], 'armL' => 'low', 'armR' => 'low'];
        $feet = static fn (float $z, float $pitch, float $y): array => [
            'footL' => [0.10, $z + 0.02, 8, $pitch, $y], 'footR' => [-0.10, $z - 0.02, -8, $pitch, $y],
        ];
        $rest = [
            'hip' => [0.0, 0.0, 0.0], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [0, 0, 0], 'armL' => 'rest',
            'armR' => 'rest',
        ];

        return [
            'jump' => ['seconds' => 2.2, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.2, ['pin' => true]], [0.6, $gather + $feet(0.0, 0, 0)],
                [
                    0.82,
                    [
                        'y' => 0.93, 'hip' => [0.0, 0.0, 0.10], 'thorax' => [10, 0, 0], 'pelvis' => [4, 0, 0],
                        'armL' => [110, 20, 6, 20, 0, 0, 0, 0.4, 6, 6, 0, 0.2], 'armR' => [110, 20, 6, 20, 0, 0, 0, 0.4, 6, 6, 0, 0.2],
                    ] + $feet(0.0, -44, 0.02),
                ],
                [1.06, ['y' => 1.13, 'hip' => [0.0, 0.0, 0.42], 'thorax' => [14, 0, 0]] + $feet(0.46, -12, 0.24)],
                [1.32, ['hip' => [0.0, 0.10, 0.70]] + $land + $feet(0.80, 0, 0.0)], [1.5, ['hip' => [0.0, 0.19, 0.74]]],
                [1.95, ['hip' => [0.0, 0.0, 0.8]] + $rest + $feet(0.80, 0, 0.0)], [2.2, ['root' => [0, 0.8, 0], 'pin' => true]],
            ]],
            'jumpDown' => ['seconds' => 2.4, 'rises' => -0.6, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.25, ['pin' => true, 'head' => [26, 0, 0]]], [0.65, $gather + $feet(0.0, 0, 0)],
                [
                    0.9,
                    [
                        'y' => 0.86, 'hip' => [0.0, 0.0, 0.26], 'thorax' => [8, 0, 0], 'armL' => 'side', 'armR' => 'side',
                        'head' => [14, 0, 0],
                    ] + $feet(0.28, -20, 0.02),
                ],
                [1.16, ['y' => 0.42, 'hip' => [0.0, 0.0, 0.55], 'thorax' => [16, 0, 0]] + $feet(0.60, -12, -0.42)],
                [
                    1.28,
                    [
                        'y' => 0.17, 'hip' => [0.0, 0.0, 0.58], 'thorax' => [36, 0, 0], 'pelvis' => [16, 0, 0], 'armL' => 'low',
                        'armR' => 'low',
                    ] + $feet(0.64, 0, -0.6),
                ],
                [1.5, ['y' => 0.02, 'hip' => [0.0, 0.0, 0.56], 'thorax' => [44, 0, 0]] + $feet(0.64, 0, -0.6)],
                [
                    2.1,
                    [
                        'y' => 0.255, 'hip' => [0.0, 0.0, 0.64], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [0, 0, 0],
                        'armL' => 'rest', 'armR' => 'rest',
                    ] + $feet(0.64, 0, -0.6),
                ],
                [2.4, ['root' => [0, 0.64, 0], 'pin' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function falls(): array
    {
        return [
            'trip' => ['seconds' => 2.6, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.15, ['pin' => true]],
                [0.4, ['footR' => [-0.09, 0.26, -4, -10, 0.03], 'hip' => [0.02, 0.02, 0.12]]],
                [
                    0.62,
                    [
                        'footR' => [-0.09, 0.24, -4, -34, 0.0], 'hip' => [0.0, 0.04, 0.30], 'thorax' => [30, 0, 0],
                        'pelvis' => [10, 0, 0], 'armL' => 'brace', 'armR' => 'brace', 'head' => [8, 0, 0],
                        'face' => ['browsUp' => 1.0, 'oh' => 0.8],
                    ],
                ],
                [
                    0.95,
                    [
                        'footL' => [0.10, 0.66, 6, 0, 0], 'hip' => [0.0, 0.12, 0.52], 'thorax' => [46, 0, 0], 'armL' => 'fling',
                        'armR' => 'side', 'footR' => [-0.09, 0.24, -4, -40, 0],
                    ],
                ],
                [
                    1.3,
                    [
                        'footR' => [-0.10, 0.84, -6, 0, 0], 'footL' => [0.10, 0.66, 6, 0, 0], 'hip' => [0.0, 0.10, 0.70],
                        'thorax' => [24, 0, 0], 'armL' => 'side', 'armR' => 'fling',
                    ],
                ],
                [
                    1.7,
                    [
                        'hip' => [0.0, 0.02, 0.72], 'thorax' => [-4, 0, 0], 'pelvis' => [0, 0, 0], 'armL' => 'low', 'armR' => 'low',
                        'footL' => [0.10, 0.66, 6, 0, 0],
                    ],
                ],
                [
                    2.1,
                    [
                        'footL' => [0.085, 0.86, 9, 0, 0], 'footR' => [-0.10, 0.84, -6, 0, 0], 'hip' => [0.0, 0.0, 0.84],
                        'thorax' => [2, -12, 0], 'head' => [16, -30, 0], 'face' => ['oh' => 0.0, 'frown' => 0.5],
                    ],
                ],
                [
                    2.6,
                    [
                        'thorax' => [0, 0, 0], 'head' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest', 'hip' => [0.0, 0.0, 0.85],
                        'root' => [0, 0.85, 0], 'pin' => true, 'face' => ['browsUp' => 0.0, 'frown' => 0.0],
                    ],
                ],
            ]],
            'fall' => ['seconds' => 2.4, 'keys' => [
                [0.0, []], [0.15, ['pin' => true]],
                [
                    0.45,
                    [
                        'hip' => [0.0, 0.04, -0.10], 'thorax' => [-12, 0, 0], 'armL' => 'fling', 'armR' => 'fling', 'head' => [10, 0, 0],
                        'footL' => [0.10, 0.06, 9, 20, 0.0], 'footR' => [-0.10, 0.02, -9, 16, 0.0], 'y' => null,
                        'face' => ['browsUp' => 1.0, 'oh' => 0.9],
                    ],
                ],
                [
                    0.85,
                    [
                        'y' => 0.30, 'hip' => [0.0, 0.0, -0.34], 'pelvis' => [-44, 0, 0], 'thorax' => [-30, 0, 0], 'head' => [16, 0, 0],
                        'footL' => [0.12, 0.30, 9, 26, 0.06], 'footR' => [-0.12, 0.26, -9, 26, 0.10], 'armL' => 'fling',
                        'armR' => 'fling',
                    ],
                ],
                [
                    1.05,
                    [
                        'y' => 0.12, 'pelvis' => [-66, 0, 0], 'thorax' => [-54, 0, 0], 'pin' => true,
                        'footL' => [0.13, 0.52, 14, 48, 0.10], 'footR' => [-0.12, 0.50, -14, 44, 0.16],
                    ],
                ],
                [1.4, ['handL' => null, 'handR' => null, 'armL' => 'side', 'armR' => 'side', 'face' => ['oh' => 0.3]] + self::onBack()],
                [1.55, ['y' => 0.145, 'head' => [-72, 6, 0]]], [2.0, self::onBack()],
                [2.4, ['pin' => true, 'face' => ['browsUp' => 0.0, 'oh' => 0.0]]],
            ]],
        ];
    }

    /** @return array<string, Sheet> crawling, which loops, and three rungs of a ladder */
    private static function ways(): array
    {
        $crawl = ['seconds' => 1.6, 'loops' => true, 'still' => true, 'keys' => []];
        $step = 0.42;
        foreach ([0, 1, 2, 3, 4] as $q) {
            $t = 0.4 * $q;
            $z = $step * $q / 4;
            // Left hand and right knee go first, then the others.
            $l = $q < 2 ? $step * $q / 2 : $step;
            $r = $q < 2 ? 0.0 : $step * ($q - 2) / 2;
            $up = static fn (bool $moving): float => $moving ? 0.07 : 0.0;
            $crawl['keys'][] = [$t, [
                'y' => 0.47, 'hip' => [0.0, 0.0, $z - 0.28], 'pelvis' => [74, $q % 4 === 1 ? 4 : ($q % 4 === 3 ? -4 : 0), 0],
                'thorax' => [80, $q % 4 === 1 ? -5 : ($q % 4 === 3 ? 5 : 0), 0], 'head' => [34, 0, 0], 'root' => [0, $z, 0],
                'handL' => [0.15, 0.02 + $up($q === 1), 0.22 + $l - 0.1, 'floor'],
                'handR' => [-0.15, 0.02 + $up($q === 3), 0.12 + $r, 'floor'], 'footR' => [-0.11, -0.76 + $l, -2, -74, 0.02],
                'footL' => [0.11, -0.86 + $r + 0.1, 2, -74, 0.02], 'knees' => 0.02,
            ]];
        }
        $rung = 0.3;
        $climb = ['seconds' => 4.5, 'still' => true, 'keys' => []];
        for ($q = 0; $q <= 12; $q++) {
            // Four moments a rung: left hand and right foot, then the others.
            $whole = intdiv($q, 4);
            $part = $q % 4;
            $l = $rung * ($whole + ($part >= 2 ? 1 : $part / 2));
            $r = $rung * ($whole + ($part >= 2 ? ($part - 2) / 2 : 0));
            $climb['keys'][] = [0.375 * $q, [
                'y' => 0.70 + ($l + $r) / 2, 'hip' => [$part === 1 ? -0.02 : ($part === 3 ? 0.02 : 0.0), 0.0, -0.04],
                'thorax' => [8, 0, $part === 1 ? 4 : ($part === 3 ? -4 : 0)], 'head' => [-16, 0, 0],
                'handL' => [0.19, 1.24 + $l, 0.30, 'fist'], 'handR' => [-0.19, 1.24 + $r, 0.30, 'fist'],
                'footL' => [0.10, 0.18, 4, -8, $r], 'footR' => [-0.10, 0.18, -4, -8, $l], 'armL' => 'fist', 'armR' => 'fist',
                'pin' => true,
            ]];
        }

        return ['crawl' => $crawl, 'climb' => $climb];
    }
}
