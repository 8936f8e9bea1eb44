<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use Closure;
use CrispReel\Core\Rig\BodyFrame;
use CrispReel\Core\Rig\Channels;

/**
 * Getting on a thing to ride on and off again: astride, a leg swung over behind the seat and the other foot left on the ground; or
 * aboard, over the side with one leg after the other, and down on the seat. The motion's own space has its origin on the thing's
 * ground below the seat, +Z the way that the rider faces.
 *
 * @phpstan-import-type Sheet from Score
 * @phpstan-type Facts array{
 *     astride: bool, side: float, away: float, ahead: float, over: float, behind: float, seat: float, floor: float, ground: float,
 *     pedal: array{float, float, float}, half: float,
 * }
 */
final class Mounting
{
    /** What a thing that says nothing of it is taken for: a bicycle. Metres; `side` 1: from the left. */
    public const USUAL = [
        'astride' => true, 'side' => 1.0, 'away' => 0.36, 'ahead' => 0.04, 'over' => 0.98, 'behind' => -0.30, 'seat' => 0.82,
        'floor' => 0.0, 'ground' => 0.0, 'pedal' => [0.13, 0.14, 0.26], 'half' => 0.6,
    ];

    /** Seconds that it takes to get astride and aboard, and those until hands hold on. */
    public const SECONDS = [1.7, 2.3];

    public const HANDS = 0.5;

    /** How far aside the foot stands that stays on the ground, metres of such a person. */
    private const PROP = 0.235;

    /** Feet of who stands: aside. */
    private const HALF = 0.085;

    /**
     * By the recipe's way: "on"; "off", the same backwards; "wait", seated with a foot on the ground.
     *
     * @return array{Closure(float): Channels, float, bool} channels over time, seconds, whether it repeats
     */
    public static function model(BodyFrame $body, MotionRecipe $recipe): array
    {
        $facts = self::facts($recipe, 1 / $body->scale);
        $score = new Score(
            $body, $facts['astride'] ? self::astride($body, $facts) : self::aboard($facts), (int) $recipe->number('seed', 1),
        );
        $seconds = $score->seconds();

        return match ($recipe->text('way')) {
            'off' => [static fn (float $t): Channels => $score->at($seconds - $t), $seconds, false],
            'wait' => [static fn (float $t): Channels => $score->at($seconds), 4.0, true],
            default => [$score->at(...), $seconds, false],
        };
    }

    /**
     * What the recipe says of the thing, in metres of a person of 1.70 m.
     *
     * @return Facts
     */
    private static function facts(MotionRecipe $recipe, float $unit): array
    {
        $n = static fn (string $name): float => $recipe->number($name, (float) self::USUAL[$name]) * $unit;
        $pedal = [];
        foreach (self::USUAL['pedal'] as $k => $usual) {
            $pedal[] = $recipe->number("pedal{$k}", $usual) * $unit;
        }

        return [
            'astride' => $recipe->number('astride', 1.0) > 0.5, 'side' => $recipe->number('side', 1.0) < 0.0 ? -1.0 : 1.0,
            'away' => $n('away'), 'ahead' => $n('ahead'), 'over' => $n('over'), 'behind' => $n('behind'), 'seat' => $n('seat'),
            'floor' => $n('floor'), 'ground' => $n('ground'), 'pedal' => $pedal, 'half' => $n('half'),
        ];
    }

    /**
     * @param  Facts  $f
     * @return Sheet
     */
    private static function astride(BodyFrame $body, array $f): array
    {
        $m = $f['side'];
        [$inner, $outer] = $m > 0 ? ['R', 'L'] : ['L', 'R'];
        [$x, $z, $g] = [$m * $f['away'], $f['ahead'], $f['ground']];
        $seat = $f['seat'] + Seating::HIPS;
        [$aside, $low, $ahead] = $f['pedal'];
        // Whose foot does not come down to the ground from the seat stands over the frame before it.
        $sits = hypot(self::PROP - 0.11, $seat - 0.07 - $body->ankleY - $g) < $body->leg * 0.998;
        $prop = $sits ? [$m * self::PROP, $z, $m * 12, 0, $g] : [$m * 0.17, $z + 0.16, $m * 10, 0, $g];
        $end = $sits ? ['hip' => [$m * 0.05, 0.0, 0.0], 'y' => $seat, 'thorax' => [20, 0, 0], 'pelvis' => [10, 0, -$m * 3]]
            : ['hip' => [$m * 0.06, 0.0, 0.22], 'y' => null, 'thorax' => [14, 0, 0], 'pelvis' => [4, 0, -$m * 3]];

        return ['seconds' => self::SECONDS[0], 'swing' => [$inner], 'keys' => [
            [0.0, [
                'hip' => [$x, 0.0, $z], "foot{$outer}" => [$x + $m * self::HALF, $z + 0.02, $m * 9, 0, $g],
                "foot{$inner}" => [$x - $m * self::HALF, $z - 0.02, -$m * 9, 0, $g], 'head' => [12, -$m * 14, 0],
            ]],
            [0.32, ['pin' => true]],
            [0.50, [
                'hip' => [$x + $m * 0.05, 0.02, $z], 'thorax' => [24, -$m * 6, $m * 4], 'pelvis' => [12, 0, 0],
                "foot{$inner}" => [$x - $m * 0.06, $z - 0.16, -$m * 9, 24, $g + 0.02],
            ]],
            [0.86, [
                'hip' => [$x * 0.86, -0.02, $z], 'thorax' => [34, -$m * 12, $m * 8], 'pelvis' => [30, -$m * 16, $m * 26],
                "foot{$inner}" => [$m * 0.06, $f['behind'] - 0.10, -$m * 34, 46, $f['over']],
            ]],
            [1.04, [
                'hip' => [$x * 0.62, 0.0, $z * 0.6], 'pelvis' => [22, -$m * 10, $m * 18],
                "foot{$inner}" => [-$m * 0.24, $f['behind'] * 0.55, -$m * 22, 30, $f['over'] * 0.72],
            ]],
            [1.30, $end + [
                "foot{$inner}" => [-$m * $aside, $ahead, 0, 6, $low], "foot{$outer}" => [$x + $m * self::HALF, $z + 0.02, $m * 9, 22, $g],
                'head' => [0, 0, 0],
            ]],
            [1.56, ["foot{$outer}" => $prop, "foot{$inner}" => [-$m * $aside, $ahead, 0, 0, $low]]],
            [1.7, ['pin' => true]],
        ]];
    }

    /**
     * @param  Facts  $f
     * @return Sheet
     */
    private static function aboard(array $f): array
    {
        $m = $f['side'];
        [$inner, $outer] = $m > 0 ? ['R', 'L'] : ['L', 'R'];
        [$x, $z, $g, $h] = [$m * $f['away'], $f['ahead'], $f['ground'], $f['floor']];
        // Who faces the side has the thing's ahead on the one hand and its behind on the other.
        $facing = -$m * 90;
        $stand = static fn (float $aside): array => [$x, $z + $aside, $facing, 0, $g];
        $in = static fn (float $k): array => [$k * 0.11, 0.30, $k * 8, 0, $h];
        // The first foot comes down as far in as a step reaches.
        $first = $m * max(-0.10, $f['half'] - 0.36);

        return ['seconds' => self::SECONDS[1], 'swing' => [$inner, $outer], 'keys' => [
            [0.0, [
                'turn' => $facing, 'hip' => [$x, 0.0, $z], "foot{$outer}" => $stand(self::HALF), "foot{$inner}" => $stand(-self::HALF),
                'head' => [22, 0, 0], 'armL' => 'low', 'armR' => 'low',
            ]],
            [0.25, ['pin' => true]],
            [0.55, [
                'hip' => [$x * 0.94, 0.0, $z], 'thorax' => [14, 0, 0],
                "foot{$inner}" => [$m * $f['half'], $z + 0.02, $facing, 16, max($f['over'] + 0.10, $g + 0.06)],
            ]],
            [0.86, [
                'hip' => [$m * ($f['half'] + 0.06), 0.0, $z + 0.03], 'thorax' => [18, 0, 0], 'turn' => $facing * 0.9,
                "foot{$inner}" => [$first, $z + 0.02, $facing * 0.8, 0, $h], "foot{$outer}" => $stand(self::HALF),
            ]],
            [1.04, ['hip' => [$m * $f['half'] * 0.66, 0.0, $z + 0.06], "foot{$outer}" => [$x, $z + self::HALF, $facing, 26, $g]]],
            [1.30, [
                'hip' => [$first * 0.8, 0.0, 0.14], 'turn' => $facing * 0.5, 'thorax' => [16, 0, 0],
                "foot{$inner}" => [$first, $z + 0.02, $facing * 0.8, 0, $h],
                "foot{$outer}" => [$m * $f['half'], $z * 0.5 + 0.18, $facing * 0.7, 22, max($f['over'] + 0.10, $g + 0.06)],
            ]],
            [1.52, [
                'hip' => [$m * 0.12, 0.02, 0.16],
                'turn' => $facing * 0.2,
                "foot{$outer}" => $in($m),
                "foot{$inner}" => [$first, $z + 0.04, $facing * 0.6, 10, $h],
            ]],
            [
                1.76,
                ['hip' => [0.0, 0.03, 0.16], 'turn' => 0, "foot{$inner}" => $in(-$m), "foot{$outer}" => $in($m), 'thorax' => [22, 0, 0]],
            ],
            [2.12, [
                'hip' => [0.0, 0.0, 0.0], 'y' => $f['seat'] + Seating::HIPS, 'thorax' => [8, 0, 0], 'pelvis' => [-2, 0, 0],
                'head' => [2, 0, 0],
                'armL' => 'lap', 'armR' => 'lap',
            ]],
            [2.3, ['pin' => true]],
        ]];
    }
}
