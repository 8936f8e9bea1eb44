<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Sleep, and the ways to sit.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Rest
{
    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::sleep();
    }

    /** @return array<string, Sheet> */
    private static function sleep(): array
    {
        $shut = ['blinkL' => 1.0, 'blinkR' => 1.0];
        $nods = [
            'y' => 0.46, 'hip' => [0.0, 0.0, -0.20], 'thorax' => [10, 0, 4], 'head' => [30, 0, 10], 'footL' => [0.10, 0.24, 9, 0, 0],
            'footR' => [-0.10, 0.20, -9, 0, 0], 'armL' => 'lap', 'armR' => 'lap',
        ];

        return [
            'sleepSitting' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
                [0.0, $nods + ['face' => $shut]], [2.0, ['thorax' => [7, 0, 4]]], [4.0, ['thorax' => [10, 0, 4]]],
                [5.0, ['head' => [36, 0, 12]]], [5.3, ['head' => [22, 0, 8]]],
                [6.4, ['head' => [30, 0, 10], 'thorax' => [8, 0, 4]]],
            ]],
            'wakeSitting' => ['seconds' => 4.0, 'keys' => [
                [0.0, $nods + ['face' => $shut]], [0.6, ['pin' => true]],
                [1.0, ['head' => [8, 0, 0], 'thorax' => [0, 0, 0], 'face' => ['blinkL' => 0.3, 'blinkR' => 0.3, 'browsUp' => 0.6]]],
                [1.6, ['head' => [0, 26, 0]]], [2.2, ['head' => [0, -22, 0], 'handR' => [-0.05, 1.06, 0.06, 'face']]],
                [3.0, ['handR' => null, 'head' => [2, 0, 0], 'face' => ['blinkL' => 0.0, 'blinkR' => 0.0, 'browsUp' => 0.0]]],
                [4.0, ['pin' => true]],
            ]],
            'sitCrossed' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
                [
                    0.0,
                    ['armL' => 'folded', 'armR' => 'folded', 'thorax' => [-6, 0, 0], 'head' => [2, 0, 0]] + $nods,
                ],
                [2.6, ['head' => [-2, 24, 0]]], [5.0, ['head' => [4, -18, 0], 'thorax' => [-6, -4, 0]]],
            ]],
            'sitForward' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'thorax' => [36, 0, 0], 'head' => [12, 0, 0], 'handL' => [0.06, 0.60, 0.24, 'knee'],
                        'handR' => [-0.06, 0.58, 0.24, 'knee'],
                        'footL' => [0.15, 0.18, 14, 0, 0], 'footR' => [-0.15, 0.18, -14, 0, 0],
                    ] + $nods,
                ],
                [3.0, ['head' => [22, 10, 0]]], [5.4, ['head' => [4, -12, 0], 'thorax' => [33, 0, 0]]],
            ]],
            'sitSlumped' => ['seconds' => 8.0, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'thorax' => [-22, 0, 5], 'pelvis' => [-14, 0, 0], 'head' => [8, 12, 6], 'footL' => [0.16, 0.42, 18, 0, 0],
                        'footR' => [-0.14, 0.36, -18, 0, 0],
                    ] + $nods,
                ],
                [3.0, ['head' => [10, -14, 4]]], [5.6, ['head' => [-6, 4, 6]]],
            ]],
        ];
    }
}
