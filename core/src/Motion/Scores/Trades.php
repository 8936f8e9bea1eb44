<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Work and play with hands and feet, over obstacles and in the water.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Trades
{
    /** @return array<string, Sheet> */
    public static function scores(): array
    {
        return self::work() + self::play() + self::over() + self::steps();
    }

    /** @return array<string, Sheet> */
    private static function work(): array
    {
        return [
            'dig' => ['seconds' => 2.8, 'loops' => true, 'keys' => [
                [
                    0.0,
                    [
                        'handR' => [-0.12, 0.96, 0.30, 'fist'], 'handL' => [0.10, 0.62, 0.46, 'fist'], 'thorax' => [34, 0, 0], 'pelvis' => [14, 0, 0],
                        'hip' => [0.0, 0.06, -0.06], 'footL' => [0.12, 0.18, 10, 0, 0], 'footR' => [-0.12, -0.16, -18, 0, 0], 'head' => [20, 0, 0],
                    ],
                ],
                [0.7, ['handR' => [-0.12, 0.80, 0.34, 'fist'], 'handL' => [0.10, 0.40, 0.52, 'fist'], 'thorax' => [48, 0, 0], 'pelvis' => [22, 0, 0], 'hip' => [0.02, 0.12, -0.04]]],
                [1.1, ['pin' => true]],
                [1.7, ['handR' => [-0.16, 1.00, 0.26, 'fist'], 'handL' => [0.20, 0.80, 0.40, 'fist'], 'thorax' => [20, 16, 0], 'pelvis' => [8, 8, 0], 'hip' => [0.02, 0.03, -0.05]]],
                [2.1, ['handR' => [-0.02, 1.02, 0.28, 'fist'], 'handL' => [0.40, 0.86, 0.30, 'fist'], 'thorax' => [16, 34, 0], 'pelvis' => [6, 16, 0]]],
            ]],
            'paint' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
                [0.0, ['handR' => [-0.06, 1.36, 0.44, 'in'], 'handL' => [0.18, 1.02, 0.26, 'up'], 'thorax' => [6, 8, 0], 'head' => [0, -4, 2], 'footR' => [-0.11, -0.10, -16, 0, 0]]],
                [0.9, ['handR' => [0.06, 1.30, 0.46, 'in']]], [1.5, ['handR' => [-0.10, 1.24, 0.44, 'in']]], [2.1, ['handR' => [0.02, 1.20, 0.46, 'in']]],
                [3.0, ['handR' => [0.12, 1.06, 0.30, 'in'], 'head' => [20, 10, 0]]], [3.4, ['pin' => true]],
                [4.2, ['handR' => [-0.12, 1.42, 0.40, 'in'], 'head' => [-4, -6, 8], 'thorax' => [-4, 4, 0], 'hip' => [0.0, 0.0, -0.04]]], [5.2, ['pin' => true, 'head' => [-2, -6, -6]]],
            ]],
            'hangPicture' => ['seconds' => 6.0, 'keys' => [
                [0.0, []], [0.3, ['pin' => true]],
                [1.2, ['handL' => [0.20, 1.62, 0.38, 'in'], 'handR' => [-0.20, 1.62, 0.38, 'in'], 'head' => [-18, 0, 0], 'thorax' => [-2, 0, 0], 'hip' => [0.0, -0.01, 0.03]]],
                [2.0, ['handL' => [0.20, 1.66, 0.40, 'in'], 'handR' => [-0.20, 1.58, 0.40, 'in'], 'head' => [-16, 0, 10]]], [2.7, ['handL' => [0.20, 1.61, 0.40, 'in'], 'handR' => [-0.20, 1.63, 0.40, 'in'], 'head' => [-16, 0, -6]]],
                [3.2, ['pin' => true]],
                [4.0, ['handL' => null, 'handR' => null, 'armL' => 'akimbo', 'armR' => 'low', 'footR' => [-0.09, -0.24, -9, 0, 0], 'footL' => [0.09, -0.22, 9, 0, 0], 'hip' => [0.0, 0.0, -0.22], 'head' => [-10, 0, 12]]],
                [5.0, ['head' => [-10, 0, -8], 'face' => ['smile' => 0.6]]], [6.0, ['pin' => true, 'armL' => 'rest', 'armR' => 'rest', 'root' => [0, -0.22, 0]]],
            ]],
            'cook' => ['seconds' => 6.0, 'loops' => true, 'keys' => [
                [0.0, ['handR' => [-0.04, 1.06, 0.36, 'down'], 'handL' => [0.20, 1.00, 0.32, 'in'], 'head' => [26, 0, 0], 'thorax' => [12, 0, 0]]], [3.4, ['pin' => true]],
                [4.1, ['handR' => [-0.01, 1.38, 0.24, 'in'], 'head' => [10, 0, 0], 'face' => ['oh' => 0.4]]], [4.6, ['face' => ['oh' => 0.0, 'smile' => 0.6], 'head' => [-4, 6, 4]]],
                [5.3, ['handR' => [-0.04, 1.06, 0.36, 'down'], 'head' => [24, 0, 0]]],
            ], 'pulses' => [
                ['part' => 'handR', 'axis' => 0, 'size' => 0.06, 'hz' => 1.2, 'from' => 0.1, 'to' => 3.4],
                ['part' => 'handR', 'axis' => 2, 'size' => 0.06, 'hz' => 1.2, 'from' => 0.1, 'to' => 3.4, 'phase' => 1.57],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function play(): array
    {
        $bow = ['handL' => [0.24, 1.34, 0.34, 'up'], 'head' => [10, 34, 18], 'thorax' => [0, 8, 0]];

        return [
            'playFiddle' => ['seconds' => 4.0, 'loops' => true, 'keys' => [
                [0.0, $bow + ['handR' => [0.02, 1.34, 0.34, 'down'], 'hip' => [0.02, 0.0, 0.0]]], [0.7, ['handR' => [-0.26, 1.18, 0.32, 'down'], 'thorax' => [2, 4, -3]]],
                [1.2, ['handR' => [0.02, 1.34, 0.34, 'down'], 'thorax' => [0, 10, 3]]], [1.6, ['handR' => [-0.18, 1.24, 0.34, 'down']]], [2.0, ['handR' => [0.02, 1.34, 0.34, 'down']]],
                [2.9, ['handR' => [-0.30, 1.16, 0.30, 'down'], 'hip' => [-0.03, 0.0, 0.0], 'thorax' => [4, 2, -4], 'head' => [14, 30, 22]]],
                [3.5, ['handR' => [-0.04, 1.30, 0.34, 'down']]],
            ], 'pulses' => [['part' => 'handL', 'axis' => 2, 'size' => 0.008, 'hz' => 5.5, 'from' => 0.2, 'to' => 3.8]]],
            'playDrum' => ['seconds' => 2.0, 'loops' => true, 'keys' => [
                [0.0, ['handL' => [0.14, 1.00, 0.32, 'down'], 'handR' => [-0.14, 1.12, 0.30, 'down'], 'thorax' => [6, 0, 0], 'head' => [10, 0, 0], 'face' => ['smile' => 0.5]]],
                [0.25, ['handL' => [0.14, 1.14, 0.30, 'down'], 'handR' => [-0.12, 0.98, 0.34, 'down'], 'head' => [16, 4, 0]]],
                [0.5, ['handL' => [0.12, 0.98, 0.34, 'down'], 'handR' => [-0.14, 1.12, 0.30, 'down'], 'head' => [10, -4, 0]]],
                [0.75, ['handR' => [-0.12, 0.98, 0.34, 'down'], 'head' => [16, 0, 0]]], [1.0, ['handL' => [0.14, 1.16, 0.28, 'down'], 'handR' => [-0.14, 1.14, 0.30, 'down']]],
                [1.25, ['handL' => [0.12, 0.98, 0.34, 'down'], 'head' => [16, 6, 0]]], [1.5, ['handR' => [-0.12, 0.98, 0.34, 'down'], 'handL' => [0.14, 1.14, 0.30, 'down'], 'head' => [10, 0, 0]]],
                [1.75, ['handL' => [0.12, 0.98, 0.34, 'down'], 'handR' => [-0.14, 1.14, 0.30, 'down']]],
            ]],
            'kickBall' => ['seconds' => 2.4, 'keys' => [
                [0.0, []], [0.15, ['pin' => true, 'head' => [20, 0, 0]]],
                [0.45, ['footL' => [0.10, 0.22, 8, 0, 0], 'hip' => [0.05, 0.02, 0.12], 'armL' => 'side', 'thorax' => [4, -14, 0]]],
                [0.72, ['footR' => [-0.11, -0.34, -10, -46, 0.16], 'hip' => [0.07, 0.04, 0.16], 'thorax' => [10, -26, 0], 'armL' => 'side', 'armR' => 'back']],
                [0.92, ['footR' => [-0.06, 0.52, 0, 16, 0.22], 'hip' => [0.08, 0.02, 0.20], 'thorax' => [-6, 24, 0], 'armL' => 'low', 'armR' => 'side', 'head' => [14, 0, 0]]],
                [1.15, ['footR' => [-0.06, 0.62, 0, 28, 0.34], 'thorax' => [-10, 26, 0]]], [1.5, ['footR' => [-0.10, 0.34, -8, 0, 0], 'hip' => [0.0, 0.02, 0.28], 'thorax' => [2, 4, 0], 'head' => [0, 0, 0]]],
                [2.0, ['footL' => [0.085, 0.30, 9, 0, 0], 'hip' => [0.0, 0.0, 0.30], 'armL' => 'rest', 'armR' => 'rest', 'thorax' => [0, 0, 0]]], [2.4, ['root' => [0, 0.30, 0], 'pin' => true]],
            ]],
            'fenceStick' => ['seconds' => 3.6, 'loops' => true, 'keys' => [
                [0.0, ['handR' => [-0.14, 1.20, 0.34, 'fist'], 'armL' => 'back', 'footR' => [-0.09, 0.22, 0, 0, 0], 'footL' => [0.13, -0.16, 60, 0, 0], 'hip' => [0.0, 0.06, 0.03], 'thorax' => [4, 24, 0], 'pelvis' => [0, 20, 0], 'head' => [2, 0, 0], 'face' => ['browsDown' => 0.5]]],
                [0.5, ['handR' => [-0.20, 1.52, 0.16, 'fist'], 'thorax' => [-2, -6, 0]]], [0.75, ['handR' => [0.02, 1.24, 0.52, 'fist'], 'thorax' => [14, 22, 0], 'hip' => [0.0, 0.09, 0.10]]],
                [1.1, ['handR' => [-0.16, 1.24, 0.36, 'fist'], 'thorax' => [4, 22, 0], 'hip' => [0.0, 0.06, 0.03]]],
                [1.5, ['handR' => [0.10, 1.52, 0.34, 'fist'], 'thorax' => [0, 30, 0], 'hip' => [0.0, 0.07, -0.03]]], [1.8, ['pin' => true]],
                [2.2, ['handR' => [-0.14, 1.06, 0.40, 'fist'], 'thorax' => [6, 18, 0]]], [2.5, ['handR' => [-0.10, 1.30, 0.58, 'fist'], 'thorax' => [18, 12, 0], 'hip' => [0.0, 0.12, 0.14]]],
                [3.0, ['handR' => [-0.14, 1.20, 0.36, 'fist'], 'thorax' => [4, 24, 0], 'hip' => [0.0, 0.06, 0.03]]],
            ]],
        ];
    }

    /** @return array<string, Sheet> */
    private static function over(): array
    {
        $swim = ['y' => 0.34, 'hip' => [0.0, 0.0, 0.0], 'pelvis' => [82, 0, 0], 'thorax' => [74, 0, 0], 'head' => [40, 0, 0], 'footL' => [0.10, -0.80, 14, -80, 0.24], 'footR' => [-0.10, -0.80, -14, -80, 0.16]];

        return [
            'climbOverWall' => ['seconds' => 4.4, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.3, ['pin' => true, 'head' => [16, 0, 0]]],
                [0.9, ['handL' => [0.18, 0.84, 0.40, 'down'], 'handR' => [-0.18, 0.84, 0.40, 'down'], 'thorax' => [30, 0, 0], 'pelvis' => [12, 0, 0], 'hip' => [0.0, 0.06, 0.04]]],
                [1.6, ['footR' => [-0.16, 0.44, -10, 0, 0.80], 'y' => 1.02, 'hip' => [0.03, 0.0, 0.16], 'thorax' => [52, 8, 0], 'pelvis' => [30, 0, 0]]],
                [2.2, ['footL' => [0.10, 0.42, 8, -30, 0.80], 'y' => 1.14, 'hip' => [0.0, 0.0, 0.34], 'thorax' => [50, 0, 0]]],
                [2.8, ['footR' => [-0.13, 0.84, -10, 0, 0.0], 'y' => 0.86, 'hip' => [-0.04, 0.0, 0.64], 'thorax' => [34, 0, 0], 'pelvis' => [14, 0, 0], 'handR' => null, 'armR' => 'side']],
                [3.3, ['footL' => [0.10, 0.94, 9, 0, 0.0], 'y' => null, 'hip' => [0.0, 0.06, 0.86], 'thorax' => [16, 0, 0], 'handL' => null, 'armL' => 'low']],
                [4.0, ['footR' => [-0.085, 0.88, -9, 0, 0], 'hip' => [0.0, 0.0, 0.90], 'thorax' => [0, 0, 0], 'pelvis' => [0, 0, 0], 'head' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest']],
                [4.4, ['root' => [0, 0.90, 0], 'pin' => true]],
            ]],
            'slip' => ['seconds' => 2.6, 'keys' => [
                [0.0, []], [0.15, ['pin' => true]],
                [0.4, ['footR' => [-0.09, 0.46, -9, 24, 0.10], 'hip' => [0.02, 0.02, -0.02], 'thorax' => [-16, 0, 0], 'head' => [16, 0, 0], 'armL' => 'fling', 'armR' => 'fling', 'face' => ['browsUp' => 1.0, 'oh' => 0.9]]],
                [0.65, ['footL' => [0.10, 0.40, 9, 26, 0.16], 'y' => 0.46, 'hip' => [0.0, 0.0, -0.14], 'pelvis' => [-40, 0, 0], 'thorax' => [-34, 0, 0]]],
                [0.86, ['y' => 0.13, 'hip' => [0.0, 0.0, -0.24], 'pelvis' => [-24, 0, 0], 'thorax' => [-14, 0, 0], 'footL' => [0.12, 0.42, 12, 12, 0], 'footR' => [-0.12, 0.48, -12, 12, 0], 'handL' => [0.28, 0.03, -0.50, 'floor'], 'handR' => [-0.28, 0.03, -0.50, 'floor']]],
                [1.1, ['y' => 0.15, 'face' => ['oh' => 0.3, 'blinkL' => 0.9, 'blinkR' => 0.9]]], [1.6, ['head' => [8, 20, 8], 'thorax' => [2, 0, 0], 'face' => ['browsUp' => 0.2, 'frown' => 0.6, 'blinkL' => 0.2, 'blinkR' => 0.2]]],
                [2.6, ['pin' => true]],
            ]],
            'swim' => ['seconds' => 2.4, 'loops' => true, 'still' => true, 'keys' => [
                [0.0, $swim + ['handL' => [0.05, 0.36, 0.96, 'down'], 'handR' => [-0.05, 0.36, 0.96, 'down'], 'root' => [0, 0, 0], 'knees' => 0.4]],
                [0.6, ['handL' => [0.46, 0.30, 0.66, 'down'], 'handR' => [-0.46, 0.30, 0.66, 'down'], 'hip' => [0.0, 0.0, 0.20], 'head' => [20, 0, 0], 'thorax' => [66, 0, 0]]],
                [1.1, ['handL' => [0.12, 0.22, 0.70, 'in'], 'handR' => [-0.12, 0.22, 0.70, 'in'], 'hip' => [0.0, 0.0, 0.52], 'footL' => [0.24, -0.14, 40, -50, 0.24], 'footR' => [-0.24, -0.14, -40, -50, 0.20]]],
                [1.6, ['handL' => [0.05, 0.34, 1.40, 'down'], 'handR' => [-0.05, 0.34, 1.40, 'down'], 'hip' => [0.0, 0.0, 0.66], 'head' => [44, 0, 0], 'thorax' => [76, 0, 0], 'footL' => [0.36, -0.12, 50, -70, 0.24], 'footR' => [-0.36, -0.12, -50, -70, 0.20]]],
                [2.4, ['handL' => [0.05, 0.36, 1.96, 'down'], 'handR' => [-0.05, 0.36, 1.96, 'down'], 'hip' => [0.0, 0.0, 1.0], 'footL' => [0.10, 0.20, 14, -80, 0.24], 'footR' => [-0.10, 0.20, -14, -80, 0.16], 'root' => [0, 1.0, 0], 'thorax' => [74, 0, 0], 'head' => [40, 0, 0]]],
            ]],
        ];
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
                [0.55, ["foot{$near}" => [$m * 0.46, $m * 0.02, $m * 9, 0, 0], 'hip' => [$m * 0.18, 0.04, 0.0], 'thorax' => [0, 0, $m * 3]]],
                [1.1, ["foot{$far}" => [$m * 0.29, -$m * 0.02, -$m * 9, 0, 0], 'hip' => [$m * 0.375, 0.0, 0.0], 'thorax' => [0, 0, 0]]],
                [1.5, ['root' => [$m * 0.375, 0, 0], 'pin' => true]],
            ]];
            // Narrow: the body turned aside, arms before it, feet one after the other.
            $narrow = ['turn' => $m * 80, 'armL' => 'hugging', 'armR' => 'hugging', 'thorax' => [-4, 0, 0]];
            $out["squeezeThrough{$side}"] = ['seconds' => 4.0, 'keys' => [
                [0.0, ['root' => [0, 0, 0]]], [0.1, ['pin' => true]],
                [0.7, $narrow + ['footL' => [0.02 + ($m > 0 ? 0.0 : 0.04), $m > 0 ? -0.10 : 0.12, $m * 86, 0, 0], 'footR' => [0.02 + ($m > 0 ? 0.04 : 0.0), $m > 0 ? 0.12 : -0.10, $m * 78, 0, 0], 'head' => [0, -$m * 60, 0]]],
                [1.2, ["foot{$far}" => [0.02, 0.36, $m * 80, 0, 0], 'hip' => [0.0, 0.03, 0.14]]], [1.7, ["foot{$near}" => [0.02, 0.16, $m * 84, 0, 0], 'hip' => [0.0, 0.0, 0.26]]],
                [2.2, ["foot{$far}" => [0.02, 0.62, $m * 80, 0, 0], 'hip' => [0.0, 0.03, 0.42]]], [2.7, ["foot{$near}" => [0.02, 0.44, $m * 84, 0, 0], 'hip' => [0.0, 0.0, 0.54]]],
                [3.4, ['turn' => 0, 'footL' => [0.085, 0.56, 9, 0, 0], 'footR' => [-0.085, 0.52, -9, 0, 0], 'head' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest', 'thorax' => [0, 0, 0]]],
                [4.0, ['root' => [0, 0.54, 0], 'pin' => true]],
            ]];
        }

        return $out;
    }
}
