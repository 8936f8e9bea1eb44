<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\Motion\Scores\Floor;

/**
 * How hard somebody takes what is done to them: what a score does after the blow, made larger or smaller; from FALLS on the body falls.
 *
 * @phpstan-import-type Sheet from Score
 */
final class Reaction
{
    /** From this strength on who is struck falls. */
    public const FALLS = 1.5;

    private const PARTS = ['hip', 'pelvis', 'thorax', 'head', 'root'];

    /**
     * @param  Sheet  $sheet
     * @return Sheet
     */
    public static function of(array $sheet, float $strength): array
    {
        $at = $sheet['reacts'] ?? null;
        if ($at === null || $strength === 1.0) {
            return $sheet;
        }

        return $strength >= self::FALLS ? self::fallen($sheet, $at) : ['keys' => array_map(
            static fn (array $k): array => $k[0] <= $at ? $k : [$k[0], self::scaled($k[1], $strength)],
            $sheet['keys'],
        )] + $sheet;
    }

    /**
     * @param  array<string, mixed>  $key
     * @return array<string, mixed>
     */
    private static function scaled(array $key, float $by): array
    {
        foreach (self::PARTS as $part) {
            if (is_array($key[$part] ?? null)) {
                $key[$part] = array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v * $by : 0.0, $key[$part]);
            }
        }
        foreach (['footL' => 0.02, 'footR' => -0.02] as $part => $stands) {
            if (is_array($key[$part] ?? null) && is_numeric($key[$part][1] ?? null)) {
                $key[$part][1] = $stands + ((float) $key[$part][1] - $stands) * $by;
            }
        }

        return $key;
    }

    /**
     * The blow, and then the fall.
     *
     * @param  Sheet  $sheet
     * @return Sheet
     */
    private static function fallen(array $sheet, float $at): array
    {
        $fall = Floor::scores()['fall'];
        $keys = array_values(array_filter($sheet['keys'], static fn (array $k): bool => $k[0] <= $at));
        // The first thing after the blow is its own: head and trunk go the way of the force, then the feet leave.
        $first = array_values(array_filter($sheet['keys'], static fn (array $k): bool => $k[0] > $at))[0] ?? null;
        if ($first !== null) {
            $keys[] = [$first[0], self::scaled($first[1], 1.4)];
        }
        foreach ($fall['keys'] as [$t, $key]) {
            if ($t > 0.5) {
                $keys[] = [$at + $t - 0.15, $key];
            }
        }

        return ['seconds' => $at + $fall['seconds'] - 0.15, 'keys' => $keys] + $sheet;
    }
}
