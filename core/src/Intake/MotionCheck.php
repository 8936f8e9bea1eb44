<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;

/**
 * Whether a motion goes at a believable speed once it is on a person of the house: a walk covers 0.8 to 2.2 m a second with
 * 1.2 to 2.6 steps, a run no more than 8 m.
 */
final readonly class MotionCheck
{
    /** Below this a motion stays where it is, metres. */
    private const STAYS = 0.6;

    /**
     * @param  array<string, mixed>  $facts
     * @param  list<Finding>  $findings
     */
    private function __construct(public array $facts, public array $findings)
    {
    }

    public static function of(ClipTable $table, Figure $figure, string $name): self
    {
        $seconds = $table->seconds();
        [$first, $last] = [$table->at(0.0), $table->at($seconds)];
        $w = $table->width;
        $travel = hypot($last[$w - 3] - $first[$w - 3], $last[$w - 2] - $first[$w - 2]);
        $speed = $seconds > 0.0 ? $travel / $seconds : 0.0;
        $steps = $travel > self::STAYS && $seconds > 0.5 ? self::steps($table, $figure) / $seconds : 0.0;
        $facts = [
            'seconds' => round($seconds, 3), 'loops' => $table->loops, 'travel' => round($travel, 3), 'speed' => round($speed, 3),
            'stepsASecond' => round($steps, 2),
        ];
        $walk = preg_match('/walk|stroll|stride|march|sneak|limp/i', $name) === 1;
        $run = preg_match('/run|jog|sprint|dash/i', $name) === 1;
        $factor = null;
        if ($travel > self::STAYS && $steps > 0.0) {
            [$least, $most] = $run ? [1.6, 8.5] : ($walk ? [0.8, 2.2] : [0.25, 8.5]);
            [$slow, $quick] = $run ? [1.8, 4.6] : ($walk ? [1.1, 2.7] : [0.7, 4.6]);
            $wrong = $speed < $least || $speed > $most;
            $hurried = $steps < $slow || $steps > $quick;
            // Speed alone may be a small or a tall person's; with the steps it is the rate.
            $factor = $hurried && ($wrong || $steps > 4.6) ? ($run ? 2.8 : 1.8) / $steps : null;
        }
        if ($factor === null) {
            return new self($facts, []);
        }
        $factor = self::usual($factor);

        return new self($facts, [Finding::ofFile(
            'speed', Severity::Harms, sprintf('It goes %.1f m a second with %.1f steps a second.', $speed, $steps),
            $factor < 1 ? 'It would patter like an old film.' : 'It would creep as under water.', ['factor' => $factor],
            sprintf('Play it at %.2f of its speed', $factor), safe: true,
        )]);
    }

    /** A factor that mistaken frame rates explain, if one is near: 24, 25, 30, 48, 50, 60, 120 to each other. */
    private static function usual(float $factor): float
    {
        $best = $factor;
        $least = 0.16;
        foreach ([24, 25, 30, 48, 50, 60, 100, 120] as $a) {
            foreach ([24, 25, 30, 48, 50, 60, 100, 120] as $b) {
                $off = abs(log($a / $b / $factor));
                if ($a !== $b && $off < $least && in_array($a / $b, [0.5, 2.0, 0.25, 4.0, 0.8, 1.25, 0.4, 2.5, 0.2, 5.0], true)) {
                    [$best, $least] = [$a / $b, $off];
                }
            }
        }

        return round($best, 4);
    }

    /** How often a foot comes down. */
    private static function steps(ClipTable $table, Figure $figure): int
    {
        $feet = array_values(array_filter(
            [$figure->skeleton->roles['footL'] ?? null, $figure->skeleton->roles['footR'] ?? null],
            is_int(...),
        ));
        $joints = $figure->skeleton->count();
        $count = 0;
        $frames = (int) floor($table->seconds() * 30);
        foreach ($feet as $foot) {
            $heights = [];
            for ($f = 0; $f <= $frames; $f++) {
                $row = $table->at(min($table->seconds(), $f / 30));
                [$p] = $figure->skeleton->world(array_slice($row, 3, 4 * $joints), [$row[0], $row[1], $row[2]], $figure->hips);
                $heights[] = $p[3 * $foot + 1];
            }
            $low = min([INF, ...$heights]);
            $up = false;
            foreach ($heights as $h) {
                if (! $up && $h > $low + 0.05) {
                    $up = true;
                } elseif ($up && $h < $low + 0.025) {
                    $up = false;
                    $count++;
                }
            }
        }

        return $count;
    }
}
