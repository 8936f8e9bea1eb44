<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Halves of what two people do to each other. Both stand facing, so many metres apart as `GAPS` says; the halves meet at the
 * same moments.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Pairs
{
    /** Metres between the two, by the name both halves begin with. */
    public const GAPS = [
        'hug' => 0.60, 'shakeHands' => 0.86, 'argue' => 1.1, 'push' => 0.80, 'slap' => 0.80, 'punch' => 0.80, 'dodge' => 0.80,
        'shove' => 0.80, 'grabWrist' => 0.90, 'kissCheek' => 0.62, 'whisperEar' => 0.62, 'highClap' => 0.90, 'patShoulder' => 0.78,
        'takeArm' => 0.80, 'danceTogether' => 0.62, 'helpUp' => 0.80, 'handOver' => 1.02, 'throwTo' => 3.0,
    ];

    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::kind() + self::cross() + self::thrown() + ['beCarried' => Borne::sheet(1.0)];
    }

    /** @return array<string, Sheet> */
    private static function kind(): array
    {
        $out = [];
        foreach (['A' => 1, 'B' => -1] as $half => $m) {
            $out["hug{$half}"] = ['seconds' => 4.4, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'face' => ['smile' => 0.6]]],
                [0.9, ['armL' => 'offer', 'armR' => 'offer', 'head' => [-2, 0, 0]]],
                [1.5, ['pelvis' => [3, 0, 0], 'armL' => 'hugging', 'armR' => 'hugging', 'face' => ['blinkL' => 0.0, 'blinkR' => 0.0]]],
                [1.9, ['face' => ['blinkL' => 0.85, 'blinkR' => 0.85, 'smile' => 0.8]]],
                [3.0, ['pin' => true]], [3.3, ['face' => ['blinkL' => 0.0, 'blinkR' => 0.0]]],
                [3.7, ['armL' => 'offer', 'armR' => 'offer', 'pelvis' => [0, 0, 0]]], [4.3, ['home' => true]], [4.4, ['pin' => true]],
            ]];
            $out["shakeHands{$half}"] = ['seconds' => 3.6, 'keys' => [
                [0.0, []], [0.3, ['pin' => true, 'face' => ['smile' => 0.5]]],
                [0.85, ['thorax' => [6, 8, 0], 'hip' => [0.0, 0.0, 0.03], 'head' => [8, 0, 0]]], [1.1, ['head' => [-1, 0, 2]]],
                [2.4, ['thorax' => [6, 8, 0], 'head' => [0, 0, 2], 'hip' => [0.0, 0.0, 0.03], 'face' => ['smile' => 0.8]]],
                [3.4, ['home' => true]], [3.6, ['pin' => true]],
            ], 'pulses' => [
                ['part' => 'thorax', 'axis' => 0, 'size' => 1.0, 'hz' => 2.2, 'from' => 1.12, 'to' => 2.45],
            ], 'talks' => $m > 0 ? [[1.2, 1.9]] : [[2.0, 2.7]]];
        }

        return $out;
    }

    /** Seconds at which a thing that is thrown leaves the one hand, and comes into the other's. */
    public const THROWN = [1.2, 1.9];

    /** @return array<string, Sheet> a throw, and a catch that begins as much later as the thing flies */
    private static function thrown(): array
    {
        $all = Work::scores();
        [$throw, $catch] = [$all['throw'], $all['catch']];
        // Hands of one who catches alone close at 0.9 s.
        $later = self::THROWN[1] - 0.9;
        $keys = array_map(static fn (array $k): array => [$k[0] > 0.0 ? $k[0] + $later : 0.0, $k[1]], $catch['keys']);
        $seconds = $catch['seconds'] + $later;

        return [
            'throwToA' => ['seconds' => $seconds, 'keys' => [...$throw['keys'], [$seconds, ['pin' => true]]]] + $throw,
            'throwToB' => ['seconds' => $seconds, 'keys' => $keys] + $catch,
        ];
    }

    /** @return array<string, Sheet> */
    private static function cross(): array
    {
        $angry = ['browsDown' => 0.9, 'frown' => 0.7];
        $thrust = [72, 12, 6, 28, 30, 0, 0, 1.3, 3, 14, 1.3, 0.6];

        return [
            'argueA' => ['seconds' => 6.0, 'talks' => [[0.4, 2.4], [4.2, 5.6]], 'keys' => [
                [0.0, []], [0.2, ['pin' => true, 'face' => $angry]],
                [0.6, ['thorax' => [14, 0, 0], 'hip' => [0.0, 0.0, 0.05], 'armR' => $thrust, 'head' => [4, 0, 0]]],
                [1.0, ['armR' => 'fist']], [1.3, ['armR' => $thrust, 'head' => [10, 0, 0]]], [1.8, ['armR' => 'fist']],
                [2.1, ['armR' => $thrust]],
                [
                    2.7,
                    ['armL' => 'folded', 'armR' => 'folded', 'thorax' => [-6, -8, 0], 'hip' => [0.0, 0.0, -0.03], 'head' => [-6, -26, 0]],
                ],
                [3.9, ['armL' => 'folded', 'armR' => 'folded', 'head' => [-8, -30, 4], 'thorax' => [-6, -8, 0]]],
                [4.4, ['armL' => 'fling', 'armR' => 'fling', 'thorax' => [6, 0, 0], 'head' => [-4, 0, 0], 'hip' => [0.0, 0.0, 0.03]]],
                [5.2, ['armL' => 'wide', 'armR' => 'wide', 'face' => $angry]], [6.0, ['home' => true]],
            ]],
            'argueB' => ['seconds' => 6.0, 'talks' => [[2.4, 4.2]], 'keys' => [
                [0.0, []], [0.2, ['pin' => true]],
                [
                    0.7,
                    [
                        'thorax' => [-9, 0, 0], 'hip' => [0.0, 0.0, -0.05], 'head' => [4, 0, 0], 'armL' => 'stop', 'armR' => 'low',
                        'face' => ['browsUp' => 0.9],
                    ],
                ],
                [1.4, ['head' => [-4, 12, 6], 'armL' => 'stop', 'thorax' => [-10, 0, 0]]],
                [2.2, ['armL' => 'low', 'face' => $angry + ['browsUp' => 0.0]]],
                [2.6, ['thorax' => [15, 0, 0], 'hip' => [0.0, 0.0, 0.05], 'armL' => 'fist', 'armR' => 'fist', 'head' => [-2, 0, 0]]],
                [2.9, ['armL' => 'press', 'armR' => 'press', 'head' => [9, 0, 0]]],
                [3.3, ['armL' => 'fist', 'armR' => 'fist', 'head' => [-2, 0, 0]]],
                [3.6, ['armL' => 'press', 'armR' => 'press', 'head' => [10, 0, 0]]],
                [4.5, ['armL' => 'akimbo', 'armR' => 'akimbo', 'thorax' => [-4, 10, 0], 'head' => [4, -14, 0], 'hip' => [0.0, 0.0, 0.0]]],
                [5.2, ['armL' => 'akimbo', 'armR' => 'akimbo', 'head' => [2, 16, 0], 'face' => $angry]], [6.0, ['home' => true]],
            ]],
            'pushA' => ['seconds' => 2.6, 'keys' => [
                [0.0, []], [0.2, ['pin' => true, 'face' => $angry]],
                [
                    0.6,
                    [
                        'armL' => 'windUp', 'armR' => 'windUp', 'thorax' => [-6, 0, 0], 'hip' => [0.0, 0.03, -0.06],
                        'footR' => [-0.10, -0.18, -20, 0, 0],
                    ],
                ],
                [
                    0.9,
                    [
                        'thorax' => [16, 0, 0], 'pelvis' => [6, 0, 0], 'hip' => [0.0, 0.05, 0.12], 'footL' => [0.10, 0.16, 6, 0, 0],
                        'head' => [-4, 0, 0],
                    ],
                ],
                [1.25, ['thorax' => [14, 0, 0]]], [1.5, ['armL' => 'low', 'armR' => 'low']], [2.3, ['home' => true]],
                [2.6, ['pin' => true]],
            ]],
            'pushB' => ['seconds' => 2.6, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.86, ['pin' => true]],
                [
                    1.04,
                    [
                        'thorax' => [-20, 0, 0], 'pelvis' => [-6, 0, 0], 'hip' => [0.0, 0.03, -0.12], 'head' => [22, 0, 0],
                        'face' => ['browsUp' => 1.0, 'oh' => 0.8],
                    ],
                ],
                [1.06, ['armL' => 'rest', 'armR' => 'rest']], [1.22, ['armL' => 'fling', 'armR' => 'fling']],
                [
                    1.3,
                    [
                        'footR' => [-0.12, -0.40, -16, 0, 0], 'hip' => [0.0, 0.06, -0.28], 'thorax' => [10, 0, 0], 'pelvis' => [0, 0, 0],
                        'head' => [4, 0, 0],
                    ],
                ],
                [1.42, ['armL' => 'side', 'armR' => 'side']],
                [
                    1.7,
                    [
                        'footL' => [0.10, -0.38, 9, 0, 0], 'footR' => [-0.12, -0.40, -16, 0, 0], 'hip' => [0.0, 0.03, -0.38],
                        'thorax' => [6, 0, 0], 'armL' => 'low', 'armR' => 'low',
                    ],
                ],
                [
                    2.3,
                    [
                        'footR' => [-0.085, -0.42, -9, 0, 0], 'hip' => [0.0, 0.0, -0.40], 'thorax' => [0, 0, 0], 'head' => [0, 0, 0],
                        'armL' => 'rest', 'armR' => 'rest', 'face' => ['browsUp' => 0.0, 'oh' => 0.0, 'frown' => 0.6],
                    ],
                ],
                [2.6, ['root' => [0, -0.40, 0], 'pin' => true]],
            ]],
        ];
    }
}
