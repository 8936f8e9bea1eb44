<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Laughing, crying, cheering, dancing, and talk in four tempers.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Feelings
{
    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::outbursts() + self::talks() + self::dances();
    }

    /** @return array<string, Sheet> */
    private static function outbursts(): array
    {
        $shake = static fn (float $hz, float $from, float $to, float $k): array => [
            ['part' => 'thorax', 'axis' => 0, 'size' => 3.0 * $k, 'hz' => $hz, 'from' => $from, 'to' => $to],
            ['part' => 'armL', 'axis' => 8, 'size' => 6.0 * $k, 'hz' => $hz, 'from' => $from, 'to' => $to],
            ['part' => 'armR', 'axis' => 8, 'size' => 6.0 * $k, 'hz' => $hz, 'from' => $from, 'to' => $to],
            ['part' => 'hip', 'axis' => 1, 'size' => 0.007 * $k, 'hz' => $hz, 'from' => $from, 'to' => $to],
            ['part' => 'head', 'axis' => 0, 'size' => 2.0 * $k, 'hz' => $hz, 'from' => $from, 'to' => $to, 'phase' => -0.8],
        ];

        return [
            'laugh' => ['seconds' => 4.6, 'keys' => [
                [0.0, []], [0.25, ['pin' => true]],
                [
                    0.7,
                    [
                        'thorax' => [-10, 0, 0],
                        'head' => [-18, 0, 4],
                        'hip' => [0.0, 0.0, 0.03],
                        'armR' => 'chest',
                        'armL' => 'low',
                        'face' => ['smile' => 1.0, 'aa' => 0.7, 'browsUp' => 0.5, 'blinkL' => 0.6, 'blinkR' => 0.6],
                    ],
                ],
                [1.5, ['thorax' => [-8, 3, 0], 'head' => [-14, 6, 6]]],
                [
                    2.1,
                    [
                        'thorax' => [22, -4, 0], 'pelvis' => [8, 0, 0], 'head' => [18, -4, 0], 'hip' => [0.0, 0.05, -0.03],
                        'handR' => [0.0, 1.0, 0.17, 'body'], 'handL' => [0.10, 0.72, 0.20, 'knee', 0.9], 'face' => ['aa' => 0.5],
                    ],
                ],
                [3.2, ['thorax' => [20, 2, 0], 'head' => [14, 8, 3], 'hip' => [0.0, 0.045, -0.03]]],
                [
                    3.7,
                    [
                        'thorax' => [2, 0, 0], 'head' => [-4, 0, 0], 'handL' => null, 'handR' => null,
                        'face' => ['aa' => 0.2, 'smile' => 0.8, 'blinkL' => 0, 'blinkR' => 0],
                    ],
                ],
                [4.6, ['home' => true]],
            ], 'pulses' => $shake(4.6, 0.6, 3.5, 1.0)],
            'cry' => ['seconds' => 6.0, 'keys' => [
                [0.0, []], [0.4, ['pin' => true]],
                [
                    1.4,
                    [
                        'thorax' => [18, 0, 0],
                        'head' => [30, 0, 0],
                        'hip' => [0.0, 0.03, -0.01],
                        'handL' => [0.045, 1.47, 0.16, 'face'],
                        'handR' => [-0.045, 1.47, 0.16, 'face'],
                        'armL' => 'eyes',
                        'armR' => 'eyes',
                        'face' => ['frown' => 1.0, 'browsUp' => 0.7, 'blinkL' => 0.9, 'blinkR' => 0.9, 'smile' => 0.0],
                    ],
                ],
                [
                    4.2,
                    [
                        'thorax' => [21, 0, 2], 'head' => [33, 4, 3], 'handL' => [0.045, 1.455, 0.18, 'face'],
                        'handR' => [-0.045, 1.455, 0.18, 'face'],
                    ],
                ],
                [
                    5.0,
                    [
                        'handL' => null, 'handR' => [-0.05, 1.49, 0.13, 'face'], 'thorax' => [10, 0, 0], 'head' => [12, 0, 0],
                        'armL' => 'slack',
                    ],
                ],
                [5.5, ['handR' => [-0.09, 1.46, 0.13, 'face'], 'face' => ['blinkL' => 0.2, 'blinkR' => 0.2]]], [6.0, ['home' => true]],
            ], 'pulses' => $shake(3.1, 1.3, 4.4, 0.75)],
            'cheer' => ['seconds' => 3.4, 'keys' => [
                [0.0, []], [0.2, ['pin' => true]],
                [0.5, ['hip' => [0.0, 0.11, 0.0], 'thorax' => [16, 0, 0], 'armL' => 'fist', 'armR' => 'fist', 'head' => [6, 0, 0]]],
                [
                    0.74,
                    [
                        'footL' => [0.09, 0.02, 9, -20, 0.13], 'footR' => [-0.09, -0.02, -9, -20, 0.13], 'y' => 1.02,
                        'hip' => [0.0, 0.0, 0.0], 'thorax' => [-8, 0, 0], 'armL' => 'cheer', 'armR' => 'cheer', 'head' => [-16, 0, 0],
                        'face' => ['smile' => 1.0, 'aa' => 0.8, 'browsUp' => 0.9],
                    ],
                ],
                [
                    1.0,
                    [
                        'footL' => [0.09, 0.02, 9, 0, 0], 'footR' => [-0.09, -0.02, -9, 0, 0], 'y' => null, 'hip' => [0.0, 0.09, 0.0],
                        'thorax' => [6, 0, 0],
                    ],
                ],
                [1.3, ['hip' => [0.0, 0.0, 0.0], 'thorax' => [-8, 0, 0], 'armL' => 'cheer', 'armR' => 'cheer']],
                [
                    2.5,
                    [
                        'armL' => 'cheer', 'armR' => 'cheer', 'thorax' => [-8, 0, 0], 'head' => [-14, 6, 4],
                        'face' => ['smile' => 1.0, 'aa' => 0.5],
                    ],
                ],
                [3.4, ['home' => true]],
            ], 'pulses' => [
                ['part' => 'armL', 'axis' => 1, 'size' => 8.0, 'hz' => 2.6, 'from' => 1.1, 'to' => 2.7],
                ['part' => 'armR', 'axis' => 1, 'size' => 8.0, 'hz' => 2.6, 'from' => 1.1, 'to' => 2.7, 'phase' => 0.5],
                ['part' => 'hip', 'axis' => 1, 'size' => 0.012, 'hz' => 2.6, 'from' => 1.1, 'to' => 2.7],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function talks(): array
    {
        $say = [[0.5, 2.2], [2.6, 4.1], [4.5, 5.6]];

        return [
            'talkAngry' => ['seconds' => 6.0, 'talks' => $say, 'keys' => [
                [0.0, []], [0.25, ['pin' => true, 'face' => ['browsDown' => 0.9, 'frown' => 0.7]]],
                [0.6, ['thorax' => [12, 0, 0], 'hip' => [0.0, 0.0, 0.04], 'armR' => 'fist', 'head' => [2, 0, 0]]],
                [0.8, ['armR' => [70, 12, 6, 30, 30, 0, 0, 1.3, 3, 14, 1.3, 0.6], 'head' => [8, 0, 0], 'thorax' => [15, 8, 0]]],
                [1.1, ['armR' => [56, 12, 8, 54, 30, 0, 0, 1.3, 3, 10, 1.3, 0.6]]],
                [1.3, ['armR' => [70, 12, 6, 30, 30, 0, 0, 1.3, 3, 14, 1.3, 0.6], 'head' => [10, 0, 0]]],
                [2.2, ['armR' => 'fist', 'armL' => 'low', 'thorax' => [10, 0, 0]]],
                [2.8, ['armL' => 'fling', 'armR' => 'fling', 'thorax' => [0, -10, 0], 'head' => [-4, -14, 0], 'hip' => [0.0, 0.0, 0.0]]],
                [3.4, ['armL' => 'wide', 'armR' => 'wide', 'thorax' => [6, -6, 0]]],
                [4.3, ['thorax' => [13, 4, 0], 'armL' => 'akimbo', 'armR' => 'akimbo', 'head' => [4, 6, 0], 'hip' => [0.0, 0.0, 0.03]]],
                [
                    5.3,
                    [
                        'thorax' => [13, 4, 0], 'head' => [6, 6, 0], 'armL' => 'akimbo', 'armR' => 'akimbo',
                        'face' => ['browsDown' => 0.9, 'frown' => 0.7],
                    ],
                ],
                [6.0, ['home' => true]],
            ], 'pulses' => [
                ['part' => 'head', 'axis' => 0, 'size' => 3.5, 'hz' => 2.4, 'from' => 0.5, 'to' => 5.5],
                ['part' => 'thorax', 'axis' => 0, 'size' => 1.4, 'hz' => 2.4, 'from' => 0.5, 'to' => 5.5, 'phase' => -0.5],
            ]],
            'talkSad' => ['seconds' => 6.0, 'talks' => [[0.9, 2.4], [3.4, 5.0]], 'keys' => [
                [0.0, ['face' => ['frown' => 0.6, 'browsUp' => 0.5]]],
                [
                    0.8,
                    [
                        'thorax' => [11, 0, 0], 'head' => [17, 6, 4], 'armL' => 'slack', 'armR' => 'slack', 'hip' => [0.0, 0.015, 0.0],
                        'eyes' => [0, 8],
                    ],
                ],
                [1.6, ['armR' => [10, 12, 22, 44, -30, -6, 0, 0.4, -3, 8, 0, 0.1], 'head' => [12, -4, 6]]],
                [2.4, ['armR' => 'slack', 'head' => [20, -6, 3]]],
                [3.3, ['head' => [-2, 4, 6], 'eyes' => [0, -4], 'handR' => [0.03, 1.24, 0.14, 'body'], 'armR' => 'chest']],
                [4.4, ['head' => [10, 6, 8], 'handR' => [0.03, 1.235, 0.145, 'body'], 'thorax' => [13, 0, 0]]],
                [5.2, ['handR' => null, 'armR' => 'slack', 'head' => [18, 0, 3], 'face' => ['frown' => 0.6, 'browsUp' => 0.5]]],
                [6.0, ['home' => true]],
            ]],
        ];
    }

    /** @return array<string, Sheet> two ways of dancing, both loop */
    private static function dances(): array
    {
        $a = [
            'hip' => [0.07, 0.045, 0.0], 'pelvis' => [0, 10, 6], 'thorax' => [2, -12, -6], 'footR' => [-0.17, 0.02, -14, 0, 0],
            'footL' => [0.10, 0.0, 14, 0, 0], 'armL' => [40, 30, 30, 96, 20, 0, 0, 0.9, 3, 6, 0, 0.3],
            'armR' => [6, 34, 20, 70, 10, 0, 0, 0.9, 1, 0, 0, 0.3], 'head' => [4, 10, -7],
        ];
        $b = [
            'hip' => [-0.07, 0.045, 0.0], 'pelvis' => [0, -10, -6], 'thorax' => [2, 12, 6], 'footL' => [0.17, 0.02, 14, 0, 0],
            'footR' => [-0.10, 0.0, -14, 0, 0], 'armR' => [40, 30, 30, 96, 20, 0, 0, 0.9, 3, 6, 0, 0.3],
            'armL' => [6, 34, 20, 70, 10, 0, 0, 0.9, 1, 0, 0, 0.3], 'head' => [4, -10, 7],
        ];
        $beat = 0.5;
        $keys = [];
        for ($i = 0; $i <= 8; $i++) {
            $keys[] = [$i * $beat, ($i % 2 === 0 ? $a : $b) + ['pin' => true]];
            if ($i < 8) {
                $keys[] = [
                    ($i + 0.5) * $beat,
                    ['hip' => [0.0, 0.0, 0.0]] + ($i % 2 === 0 ? ['footL' => [0.10, 0.0, 14, 0, 0]] : ['footR' => [-0.10, 0.0, -14, 0, 0]]),
                ];
            }
        }
        $keys[] = [0.0, ['face' => ['smile' => 0.8]]];
        usort($keys, static fn (array $x, array $y): int => $x[0] <=> $y[0]);
        $turn = [];
        foreach ([0 => 0, 1 => 90, 2 => 180, 3 => 270, 4 => 360] as $q => $deg) {
            $turn[] = [
                $q * 1.0,
                [
                    'turn' => $deg, 'armL' => 'curve', 'armR' => 'curve', 'head' => [-4, $q % 2 === 0 ? 8 : -8, 6],
                    'thorax' => [-3, 0, $q % 2 === 0 ? 5 : -5], 'hip' => [0.0, 0.03, 0.0], 'face' => ['smile' => 0.6],
                ] + self::feet($deg, true),
            ];
            if ($q < 4) {
                $turn[] = [
                    $q + 0.45,
                    [
                        'footL' => self::foot('L', $deg + 90), 'footR' => self::foot('R', $deg), 'hip' => [0.0, 0.0, 0.0],
                        'turn' => $deg + 42,
                    ],
                ];
                $turn[] = [$q + 0.5, self::feet2($deg)];
                $turn[] = [$q + 0.95, ['footR' => self::foot('R', $deg + 90), 'turn' => $deg + 86]];
            }
        }

        return [
            'danceStep' => [
                'seconds' => 4.0,
                'loops' => true,
                'keys' => $keys,
                'pulses' => [
                    ['part' => 'head', 'axis' => 0, 'size' => 4.0, 'hz' => 2.0, 'from' => -10.0, 'to' => 30.0],
                    ['part' => 'armL', 'axis' => 3, 'size' => 8.0, 'hz' => 2.0, 'from' => -10.0, 'to' => 30.0],
                    ['part' => 'armR', 'axis' => 3, 'size' => 8.0, 'hz' => 2.0, 'from' => -10.0, 'to' => 30.0],
                ],
            ],
            'danceTurn' => [
                'seconds' => 4.0,
                'keys' => [...$turn, [4.0, ['root' => [0, 0, 360]]]],
                'pulses' => [['part' => 'hip', 'axis' => 1, 'size' => 0.012, 'hz' => 2.0, 'from' => 0.0, 'to' => 4.0]],
            ],
        ];
    }

    /** @return array<string, list<float>> */
    private static function feet(float $degrees, bool $both): array
    {
        return $both ? ['footL' => self::foot('L', $degrees), 'footR' => self::foot('R', $degrees)] : [];
    }

    /** @return array<string, list<float>> the moment when one foot has come round and the other has not */
    private static function feet2(float $degrees): array
    {
        return ['footL' => self::foot('L', $degrees + 90), 'footR' => self::foot('R', $degrees)];
    }

    /** @return list<float> */
    private static function foot(string $side, float $degrees): array
    {
        $m = $side === 'L' ? 1.0 : -1.0;
        $a = deg2rad($degrees);

        return [$m * 0.095 * cos($a), -$m * 0.095 * sin($a), $m * 9.0 + $degrees, 0.0, 0.0];
    }
}
