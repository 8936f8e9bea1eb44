<?php

declare(strict_types=1);

namespace CrispReel\Core\Meeting;

use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Scores\Pairs;

/**
 * Where two who do something to each other touch, and when: what the halves of Pairs leave to the two who play them.
 *
 * @phpstan-import-type Sheet from Meeting
 * @phpstan-import-type Touches from Meeting
 */
final class Meetings
{
    /** @var array<string, Sheet> */
    private static array $sheets = [];

    /** @return array{string, string} the pair that a motion is a half of, and which: A or B; both empty where it is none that touches */
    public static function half(MotionRecipe $recipe): array
    {
        $name = match ($recipe->model) {
            'handOver' => 'handOverA', 'receive' => 'handOverB', default => $recipe->text('score'),
        };
        $pair = substr($name, 0, -1);

        return isset(self::all()[$pair]) && in_array(substr($name, -1), ['A', 'B'], true) ? [$pair, substr($name, -1)] : ['', ''];
    }

    /**
     * Whether heads in a motion of two are to stay as it has them.
     *
     * @param  array<mixed>  $recipe  as a motion's digest has it
     */
    public static function keepsHeads(array $recipe): bool
    {
        $settings = is_array($recipe['settings'] ?? null) ? $recipe['settings'] : [];
        $score = is_string($settings['score'] ?? null) ? $settings['score'] : '';

        return (self::all()[substr($score, 0, -1)]['looks'] ?? true) === false;
    }

    /** @return array<string, Sheet> by the name that both halves begin with */
    public static function all(): array
    {
        if (self::$sheets !== []) {
            return self::$sheets;
        }
        $out = [];
        foreach (self::blows() + self::kind() + self::close() as $pair => $sheet) {
            $out[$pair] = ['gap' => Pairs::GAPS[$pair]] + $sheet;
        }

        return self::$sheets = $out;
    }

    /** @return array<string, Touches> */
    private static function blows(): array
    {
        $push = [
            'on' => 'chest', 'reach' => 0.46, 'from' => 0.84, 'until' => 0.94, 'gone' => 2.2, 'fingers' => [0.0, 1.0, 0.15],
            'strike' => true,
        ];

        $punch = [
            'by' => 'A', 'hand' => 'R', 'side' => 'L', 'how' => 'fist', 'reach' => 0.40, 'from' => 0.60, 'until' => 0.66, 'gone' => 1.3,
            'fingers' => [0.8, 0.0, 0.0], 'strike' => true, 'pole' => [0.7, -0.8, -0.2],
        ];

        return [
            'push' => ['looks' => false, 'touches' => [
                ['by' => 'A', 'hand' => 'L', 'side' => 'R', 'pole' => [0.5, -1.0, -0.2]] + $push,
                ['by' => 'A', 'hand' => 'R', 'side' => 'L', 'pole' => [0.5, -1.0, -0.2]] + $push,
            ]],
            'slap' => ['looks' => false, 'touches' => [[
                'by' => 'A', 'hand' => 'R', 'on' => 'cheek', 'side' => 'L', 'reach' => 0.40, 'from' => 0.62, 'until' => 0.69,
                'gone' => 1.35,
                'fingers' => [-0.1, 0.8, 0.6], 'strike' => true, 'along' => 0.09, 'pole' => [0.8, -0.6, -0.3],
            ]]],
            'punch' => ['looks' => false, 'touches' => [['on' => 'chin'] + $punch]],
            'dodge' => ['looks' => false, 'touches' => [['on' => 'chin', 'ghost' => true] + $punch]],
            'shove' => ['looks' => false, 'touches' => [[
                'by' => 'A', 'hand' => 'R', 'on' => 'heart', 'side' => 'L', 'reach' => 0.40, 'from' => 0.64, 'until' => 0.74, 'gone' => 1.7,
                'fingers' => [0.1, 1.0, 0.2], 'strike' => true,
            ]]],
            'grabWrist' => ['touches' => [[
                'by' => 'A', 'hand' => 'R', 'on' => 'wrist', 'side' => 'L', 'how' => 'grip', 'reach' => 0.35, 'from' => 0.95,
                'until' => 2.5,
                'gone' => 3.2, 'fingers' => [0.8, 0.0, 0.6],
            ]]],
        ];
    }

    /** @return array<string, Touches> */
    private static function kind(): array
    {
        return [
            'shakeHands' => ['together' => [[
                'join' => 'shake', 'A' => 'R', 'B' => 'R', 'reach' => 0.40, 'from' => 1.12, 'until' => 2.45, 'gone' => 3.3, 'pump' => 0.03,
            ]]],
            'handOver' => ['together' => [[
                'join' => 'thing', 'A' => 'R', 'B' => 'R', 'height' => -0.277, 'share' => 0.80, 'radius' => 0.02, 'from' => 1.45,
                'until' => 1.85,
                "A's" => ['reach' => 0.45, 'gone' => 2.95], "B's" => ['reach' => 0.65, 'gone' => 2.95],
            ]]],
            'highClap' => ['together' => [[
                'join' => 'facing', 'A' => 'R', 'B' => 'R', 'height' => 0.20, 'share' => 0.80, 'reach' => 0.35, 'from' => 0.80,
                'until' => 0.90,
                'gone' => 1.6, 'fingers' => [0.0, 1.0, 0.12], 'pole' => [0.7, -0.7, 0.0],
            ]]],
            'patShoulder' => ['touches' => [[
                'by' => 'A', 'hand' => 'R', 'on' => 'shoulder', 'side' => 'L', 'reach' => 0.30, 'from' => 0.95, 'until' => 2.20,
                'gone' => 3.0,
                'fingers' => [0.2, 0.1, 1.0], 'taps' => 1.6, 'along' => 0.075,
            ]]],
            'takeArm' => ['touches' => [[
                'by' => 'A', 'hand' => 'R', 'on' => 'upperArm', 'side' => 'L', 'how' => 'grip', 'reach' => 0.35, 'from' => 0.95,
                'until' => 3.0,
                'gone' => 3.8, 'fingers' => [0.2, 0.2, 1.0],
            ]]],
            'helpUp' => ['touches' => [[
                'by' => 'B', 'hand' => 'R', 'on' => 'wrist', 'side' => 'R', 'how' => 'grip', 'reach' => 0.5, 'from' => 1.30, 'until' => 3.1,
                'gone' => 3.9, 'fingers' => [0.6, 0.2, 0.8],
            ]]],
        ];
    }

    /** @return array<string, Touches> of two who are near each other */
    private static function close(): array
    {
        return [
            'hug' => ['looks' => false, 'embrace' => ['reach' => 0.75, 'from' => 1.60, 'until' => 3.05, 'gone' => 3.95]],
            'kissCheek' => ['looks' => false, 'faces' => [
                'on' => 'cheek', 'side' => 'R', 'reach' => 0.45, 'from' => 1.30, 'until' => 1.80, 'gone' => 2.8,
            ], 'touches' => [[
                'by' => 'A', 'hand' => 'L', 'on' => 'upperArm', 'side' => 'R', 'reach' => 0.35, 'from' => 1.3, 'until' => 1.75,
                'gone' => 2.8, 'fingers' => [-0.2, 0.3, 1.0], 'optional' => true,
            ]]],
            'whisperEar' => ['looks' => false, 'faces' => [
                'on' => 'ear', 'side' => 'R', 'apart' => 0.035, 'reach' => 0.40, 'from' => 1.20, 'until' => 3.8, 'gone' => 4.7,
            ], 'touches' => [[
                'by' => 'A', 'hand' => 'L', 'on' => 'shoulder', 'side' => 'R', 'reach' => 0.35, 'from' => 1.1, 'until' => 3.7,
                'gone' => 4.5,
                'fingers' => [-0.4, 0.2, 1.0], 'optional' => true,
            ]]],
            'danceTogether' => ['looks' => false, 'aside' => -0.09, 'together' => [[
                'join' => 'facing', 'A' => 'L', 'B' => 'R', 'height' => -0.10, 'share' => 0.74, 'aside' => 0.34, 'rides' => true,
                'reach' => 0.4,
                'from' => 1.15, 'until' => 7.6, 'gone' => 8.5, 'fingers' => [0.3, 1.0, 0.0], 'pole' => [0.5, -1.0, -0.2],
                "B's" => ['fingers' => [-0.3, 1.0, 0.0]],
            ]], 'touches' => [
                [
                    'by' => 'B', 'hand' => 'L', 'on' => 'shoulder', 'side' => 'R', 'reach' => 0.6, 'from' => 1.35, 'until' => 7.5,
                    'gone' => 8.4,
                    'fingers' => [0.1, 0.2, 1.0], 'pole' => [0.9, -0.6, 0.0],
                ],
                [
                    'by' => 'A', 'hand' => 'R', 'on' => 'upperArm', 'side' => 'L', 'reach' => 0.5, 'from' => 1.25, 'until' => 7.6,
                    'gone' => 8.5,
                    'fingers' => [0.2, 0.3, 1.0], 'pole' => [0.8, -0.7, 0.0],
                ],
            ], 'whirl' => ['from' => 1.6, 'until' => 7.4, 'degrees' => 360.0, 'beat' => 0.55]],
        ];
    }
}
