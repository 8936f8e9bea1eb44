<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\V3;

/**
 * One over the shoulder of another: the speaker between two lines by its eyes, and the angle off the line between the two found by
 * halving so that the listener covers a fixed share of the picture. Both angles of a pair come from the same sum, so they match.
 */
final class OverShoulder
{
    /** Heights in the picture of the speaker's eyes, and what the lower edge cuts, by size. */
    private const LINES = ['mediumCloseUp' => [0.30, 'chest'], 'medium' => [0.36, 'waist'], 'threeQuarter' => [0.36, 'hip']];

    /** Metres between the eyes: nearer there is no shoulder between, farther none that says anything. */
    private const NEAR = 0.5;

    private const FAR = 4.0;

    /** Degrees off the line that a face may be turned. */
    private const TURNED = 97.0;

    /** Shares of the way from the listener's eyes to the speaker's at which the lens may stand; beyond the listener where they differ. */
    private const LEVELS = [0.3, 0.0, -0.35, -0.7];

    private const UNLIKE = 0.15;

    /** Of the listener's head in the picture: less says nothing. */
    private const LEAST = 0.08;

    public static function fits(string $size): bool
    {
        return isset(self::LINES[$size]);
    }

    /**
     * @param  float  $shoulder  positive: the listener stands at the left of the picture
     */
    public static function solve(
        Marks $speaker, Marks $listener, string $size, float $shoulder, float $focalMm, Gate $gate,
    ): Aim|Refusal {
        $refusal = self::refused($speaker, $listener);
        if ($refusal !== null) {
            return $refusal;
        }
        [$s, $l] = [$speaker->middle('eyes'), $listener->middle('eyes')];
        $best = null;
        $least = INF;
        foreach (abs($s[1] - $l[1]) > self::UNLIKE ? self::LEVELS : [self::LEVELS[0]] as $share) {
            $height = $l[1] + $share * ($s[1] - $l[1]) + 0.03;
            [$aim, $off] = self::at($speaker, $listener, $size, $shoulder < 0 ? -1.0 : 1.0, $focalMm, $gate, $height);
            $cost = self::cost($aim, $listener, $gate) + 20 * max(0.0, $off - 0.02);
            if ($cost < $least) {
                [$best, $least] = [$aim, $cost];
            }
        }
        if ($best === null || self::headIn($best, $listener, $gate) < self::LEAST) {
            return new Refusal('From there the one in front is not in the picture.');
        }

        return $best;
    }

    private static function refused(Marks $speaker, Marks $listener): ?Refusal
    {
        [$s, $l] = [$speaker->middle('eyes'), $listener->middle('eyes')];
        $apart = V3::distance($s, $l);
        $line = atan2($l[0] - $s[0], $l[2] - $s[2]);
        $turned = static fn (Marks $m, float $to): bool => abs(rad2deg(Angle::wrapped($to - $m->facing))) > self::TURNED;

        return match (true) {
            ! $speaker->isPerson() || ! $listener->isPerson() => new Refusal('It takes two people to look over a shoulder.'),
            $apart < self::NEAR => new Refusal(sprintf('They stand %.2f m apart: too near for a shoulder between.', $apart)),
            $apart > self::FAR => new Refusal(sprintf('They stand %.1f m apart: too far for a shoulder to matter.', $apart)),
            $turned($speaker, $line), $turned($listener, $line + M_PI) => new Refusal('They do not face each other.'),
            default => null,
        };
    }

    /** @return array{Aim, float} and by how much of the picture's half width the one in front covers more or less than it is to */
    private static function at(
        Marks $speaker, Marks $listener, string $size, float $hand, float $focalMm, Gate $gate, float $height,
    ): array {
        [$s, $l] = [$speaker->middle('eyes'), $listener->middle('eyes')];
        $line = atan2($l[0] - $s[0], $l[2] - $s[2]);
        $near = max(0.0, min(1.0, (V3::distance($s, $l) - 0.6) / 0.5));
        [$x, $cover] = [0.36 - 0.04 * $near, 0.40 - 0.12 * $near];
        [$eyes, $cut] = self::LINES[$size] ?? self::LINES['medium'];
        $lines = new CutLines($speaker, ShotSize::between('eyes', $eyes, $cut, -1.0), $focalMm, $gate);
        [$low, $high] = [2.0, 65.0];
        $aim = $lines->solve($line + $hand * deg2rad(30.0), $hand * $x, at: $height);
        for ($i = 0; $i < 14; $i++) {
            $off = ($low + $high) / 2;
            $aim = $lines->solve($line + $hand * deg2rad($off), $hand * $x, at: $height);
            if (self::inner($aim, $speaker, $listener, $hand, $gate) > -1 + 2 * $cover) {
                $low = $off;
            } else {
                $high = $off;
            }
        }

        return [$aim, abs(self::inner($aim, $speaker, $listener, $hand, $gate) - (-1 + 2 * $cover))];
    }

    /**
     * How far the one in front reaches into the picture, from its side: head and shoulders, as far down as a little under the
     * speaker's chin.
     */
    private static function inner(Aim $aim, Marks $speaker, Marks $listener, float $hand, Gate $gate): float
    {
        $low = $aim->project($speaker->middle('chin'), $gate)[1] - 0.25;
        $most = -INF;
        foreach ([...$listener->of('crown'), ...$listener->of('mass')] as $p) {
            [$x, $y, $depth] = $aim->project($p, $gate);
            if ($y > $low && $depth > 0.0) {
                $most = max($most, $hand * $x);
            }
        }

        return $most;
    }

    /** How little one would like it: the head in front hardly seen, the lens near to it or far from it, tilted. */
    public static function cost(Aim $aim, Marks $listener, Gate $gate): float
    {
        $away = V3::distance($aim->position, $listener->middle('eyes'));
        $over = static fn (float $v): float => max(0.0, $v);

        return 14 * $over(0.35 - self::headIn($aim, $listener, $gate)) + 8 * $over(0.55 - $away) + 1.2 * $over($away - 1.9)
            + 0.12 * $over(abs(rad2deg($aim->pitch)) - 12)
            + 0.05 * $over(abs(rad2deg(Angle::wrapped($aim->yaw - $listener->facing))) - 30);
    }

    /** Share of a head's outline that is in the picture. */
    public static function headIn(Aim $aim, Marks $who, Gate $gate): float
    {
        $seen = array_filter($who->of('crown'), static function (array $p) use ($aim, $gate): bool {
            [$x, $y, $depth] = $aim->project($p, $gate);

            return $depth > 0 && abs($x) <= 1 && abs($y) <= 1;
        });

        return count($seen) / max(1, count($who->of('crown')));
    }
}
