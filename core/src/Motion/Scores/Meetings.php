<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Scores;

use CrispReel\Core\Meeting\Meeting;
use CrispReel\Core\Motion\Model\MotionRecipe;

/**
 * Where two who do something to each other touch, and when: what the halves of Pairs leave to the two who play them.
 *
 * @phpstan-import-type Sheet from Meeting
 */
final class Meetings
{
    /** @return array{string, string} the pair that a motion is a half of, and which: A or B; both empty where it is none that touches */
    public static function half(MotionRecipe $recipe): array
    {
        $name = match ($recipe->model) {
            'handOver' => 'handOverA', 'receive' => 'handOverB', default => $recipe->text('score'),
        };
        $pair = substr($name, 0, -1);

        return isset(self::all()[$pair]) && in_array(substr($name, -1), ['A', 'B'], true) ? [$pair, substr($name, -1)] : ['', ''];
    }

    /** @return array<string, Sheet> by the name that both halves begin with */
    public static function all(): array
    {
        $push = ['on' => 'chest', 'reach' => 0.46, 'from' => 0.84, 'until' => 1.01, 'gone' => 2.2, 'fingers' => [0.0, 1.0, 0.15], 'strike' => true];

        return [
            'shakeHands' => ['gap' => 0.86, 'together' => [[
                'join' => 'shake', 'A' => 'R', 'B' => 'R', 'reach' => 0.40, 'from' => 1.12, 'until' => 2.45, 'gone' => 3.3, 'pump' => 0.03,
            ]]],
            'hug' => ['gap' => 0.60, 'looks' => false, 'embrace' => ['reach' => 0.75, 'from' => 1.60, 'until' => 3.05, 'gone' => 3.95]],
            'handOver' => ['gap' => 1.02, 'together' => [[
                'join' => 'thing', 'A' => 'R', 'B' => 'R', 'height' => -0.277, 'share' => 0.80, 'radius' => 0.02, 'from' => 1.45, 'until' => 1.85,
                "A's" => ['reach' => 0.45, 'gone' => 2.95], "B's" => ['reach' => 0.65, 'gone' => 2.95],
            ]]],
            'push' => ['gap' => 0.80, 'touches' => [
                ['by' => 'A', 'hand' => 'L', 'side' => 'R', 'pole' => [0.5, -1.0, -0.2]] + $push,
                ['by' => 'A', 'hand' => 'R', 'side' => 'L', 'pole' => [0.5, -1.0, -0.2]] + $push,
            ]],
        ];
    }
}
