<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Motion\Model\Score;

/**
 * Somebody on the arms of another: on the back across them, knees over the one, shoulders in the other, an arm round the neck. The motion's
 * own space has its origin at the hips of the one who carries, +Z ahead; the head lies to the left.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Borne
{
    /** Metres of the one who carries, 1.70 m tall: how far above and ahead of the hips those of the other are, and where the neck is. */
    private const UP = 0.19;

    private const AHEAD = 0.30;

    private const NECK = 0.50;

    /**
     * @param  float  $size  of the one who carries over that of the one who is carried
     * @return Sheet
     */
    public static function sheet(float $size): array
    {
        [$up, $ahead, $neck] = [self::UP * $size, self::AHEAD * $size, self::NECK * $size];
        $foot = static fn (float $aside): array => [-0.50, $ahead + $aside, -90, 38, $up - 0.40];
        $lies = [
            'turn' => -90, 'y' => $up, 'hip' => [-0.12, 0.0, $ahead], 'pelvis' => [-60, 0, 0], 'thorax' => [-56, 0, 0],
            'head' => [-26, -24, 0], 'footL' => $foot(0.07), 'footR' => $foot(-0.07), 'knees' => 0.02, 'armL' => 'lap', 'armR' => 'side',
            'handL' => [-0.02, $up + 0.20, $ahead + 0.06, 'down', 0.8], 'handR' => [-0.06, $neck, -0.05, 'body', 0.9],
        ];

        return ['seconds' => 6.0, 'loops' => true, 'still' => true, 'keys' => [
            [0.0, $lies], [2.0, ['head' => [-22, -30, 0], 'thorax' => [-57, 0, 1]]],
            [4.2, ['head' => [-30, -14, 0], 'thorax' => [-55, 0, -1]]],
            [6.0, $lies + ['pin' => true]],
        ]];
    }
}
