<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * What begins out of a walk that does not stop: the left foot comes down ahead, the right one leaves behind, and the body keeps its pace.
 * LEAD seconds of that walk come before, so that the pace is there from the first moment; they are not shown.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Moving
{
    public const LEAD = 0.5;

    /** Metres a second that the places are written for. */
    private const PACE = 1.25;

    /** Share of a step's length that the body is behind the foot that comes down. */
    private const BEHIND = -0.22;

    private const SCORES = ['trip', 'jump'];

    /** Whether a motion that begins at a stand also begins out of a walk. */
    public static function has(string $score): bool
    {
        return in_array($score, self::SCORES, true);
    }

    /**
     * @param  float  $pace  metres a second at which it is entered, for a person of 1.70 m
     * @return Sheet
     */
    public static function sheet(string $score, float $pace): array
    {
        $k = max(0.6, min(2.2, $pace / self::PACE));
        $sheet = $score === 'trip' ? self::trip($k) : self::jump($k);
        $stride = [
            'hip' => [0.0, 0.02, self::BEHIND * $k - self::LEAD * $pace], 'footL' => [0.07, 0.0, 5, 14, 0.0],
            'footR' => [-0.07, -0.58 * $k, -5, -34, 0.0], 'thorax' => [3, 0, 0], 'armL' => 'rest', 'armR' => 'rest',
        ];
        $enters = ['hip' => [0.0, 0.02, self::BEHIND * $k]] + $stride;
        $keys = array_map(static fn (array $key): array => [$key[0] + self::LEAD, $key[1]], $sheet['keys']);

        return ['seconds' => $sheet['seconds'] + self::LEAD, 'keys' => [[0.0, $stride], [self::LEAD, $enters], ...$keys]] + $sheet;
    }

    /** @return Sheet */
    private static function trip(float $k): array
    {
        $end = 1.30 * $k;

        return ['seconds' => 2.5, 'swing' => ['L', 'R'], 'keys' => [
            // The toe catches on the way ahead, and the body goes on.
            [0.24, [
                'footR' => [-0.08, 0.08 * $k, -4, -38, 0.03], 'footL' => [0.07, 0.0, 5, 0, 0.0], 'hip' => [0.0, 0.03, 0.10 * $k],
                'thorax' => [12, 0, 0], 'face' => ['browsUp' => 0.2, 'oh' => 0.0],
            ]],
            [0.34, [
                'footR' => [-0.08, 0.11 * $k, -4, -46, 0.02], 'footL' => [0.07, 0.0, 5, -14, 0.0], 'hip' => [0.01, 0.05, 0.21 * $k],
                'thorax' => [30, 0, 0], 'pelvis' => [10, 0, 0], 'armL' => 'brace', 'armR' => 'brace', 'head' => [8, 0, 0],
                'face' => ['browsUp' => 1.0, 'oh' => 0.8],
            ]],
            [
                0.50,
                ['footL' => [0.07, 0.02 * $k, 5, -44, 0.01], 'footR' => [-0.10, 0.44 * $k, -4, -8, 0.06], 'hip' => [0.0, 0.07, 0.37 * $k]],
            ],
            [0.60, [
                'footR' => [-0.10, 0.58 * $k, -4, 4, 0.0], 'footL' => [0.08, 0.20 * $k, 5, -40, 0.12], 'hip' => [0.0, 0.09, 0.48 * $k],
                'thorax' => [46, 0, 0], 'armL' => 'fling', 'armR' => 'side',
            ]],
            [0.68, ['footR' => [-0.10, 0.58 * $k, -4, 0, 0.0]]],
            [0.88, [
                'footL' => [0.11, 1.0 * $k, 6, 4, 0.0], 'footR' => [-0.10, 0.58 * $k, -4, -26, 0.0], 'hip' => [0.0, 0.09, 0.80 * $k],
                'thorax' => [34, 0, 0], 'armL' => 'side', 'armR' => 'fling',
            ]],
            [0.96, ['footL' => [0.11, 1.0 * $k, 6, 0, 0.0], 'footR' => [-0.10, 0.64 * $k, -4, -34, 0.03]]],
            [1.20, ['footR' => [-0.10, $end - 0.04, -6, 0, 0.0], 'hip' => [0.0, 0.06, 1.08 * $k], 'thorax' => [14, 0, 0]]],
            [1.52, [
                'hip' => [-0.01, 0.03, 1.20 * $k], 'thorax' => [-4, 0, 0], 'pelvis' => [0, 0, 0], 'armL' => 'low', 'armR' => 'low',
                'footL' => [0.11, 1.0 * $k, 6, 0, 0.0], 'footR' => [-0.10, $end - 0.04, -6, 0, 0.0],
            ]],
            [1.68, ['footL' => [0.10, 1.14 * $k, 7, -6, 0.05]]],
            [1.85, [
                'footL' => [0.085, $end + 0.02, 9, 0, 0.0], 'hip' => [0.0, 0.01, $end], 'thorax' => [2, -12, 0], 'head' => [16, -30, 0],
                'face' => ['oh' => 0.0, 'browsUp' => 0.2, 'frown' => 0.5],
            ]],
            [2.5, [
                'root' => [0, $end, 0], 'pin' => true, 'head' => [0, 0, 0], 'thorax' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest',
                'face' => ['frown' => 0.0, 'browsUp' => 0.0],
            ]],
        ]];
    }

    /** @return Sheet */
    private static function jump(float $k): array
    {
        $far = 0.97 * $k;
        $end = $far + 0.34;

        return ['seconds' => 2.1, 'swing' => ['L', 'R'], 'keys' => [
            [0.14, [
                'footL' => [0.07, 0.0, 5, 0, 0.0], 'footR' => [-0.07, -0.12 * $k, -4, -20, 0.16], 'hip' => [0.0, 0.07, -0.04 * $k],
                'thorax' => [8, 0, 0], 'armL' => 'low', 'armR' => 'low',
            ]],
            [0.30, [
                'footL' => [
                    0.07, 0.0, 5, -46, 0.0,
                ], 'footR' => [-0.08, 0.38 * $k, -2, 10, 0.30], 'y' => 0.98, 'hip' => [0.0, 0.0, 0.17 * $k],
                'thorax' => [10, 0, 0], 'armL' => 'side', 'armR' => 'fling', 'face' => ['browsUp' => 0.4],
            ]],
            [0.48, [
                'footL' => [0.07, 0.16 * $k, 2, -30, 0.34], 'footR' => [-0.08, 0.70 * $k, -2, 6, 0.32], 'y' => 1.10,
                'hip' => [0.0, 0.0, 0.41 * $k], 'thorax' => [14, 0, 0],
            ]],
            [0.66, [
                'footL' => [
                    0.07, 0.48 * $k, 4, -24, 0.30,
                ], 'footR' => [-0.08, $far, -4, 12, 0.04], 'y' => 0.92, 'hip' => [0.0, 0.0, 0.64 * $k],
            ]],
            [0.74, ['footR' => [-0.08, $far, -4, 2, 0.0], 'y' => 0.84, 'hip' => [0.0, 0.0, 0.74 * $k], 'thorax' => [22, 0, 0]]],
            [0.98, [
                'footL' => [0.08, $end, 6, 4, 0.0], 'footR' => [-0.08, $far, -4, -20, 0.0], 'y' => null, 'hip' => [0.0, 0.10, $far + 0.12],
                'thorax' => [26, 0, 0], 'pelvis' => [8, 0, 0], 'armL' => 'low', 'armR' => 'low',
            ]],
            [1.30, [
                'footL' => [0.08, $end, 6, 0, 0.0], 'footR' => [-0.085, $end - 0.04, -9, 0, 0.0], 'hip' => [0.0, 0.05, $end - 0.05],
                'thorax' => [12, 0, 0], 'pelvis' => [0, 0, 0],
            ]],
            [1.70, ['hip' => [0.0, 0.0, $end], 'thorax' => [0, 0, 0], 'armL' => 'rest', 'armR' => 'rest', 'face' => ['browsUp' => 0.0]]],
            [2.1, ['root' => [0, $end, 0], 'pin' => true]],
        ]];
    }
}
