<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake\Fitting;

use CrispReel\Core\Math\V3;

/**
 * The eight places from which a skeleton is fitted: neck, hips, and on each side wrist, knee and ankle. They are proposed
 * from the shape of a body that stands upright, faces +Z and holds its arms off its sides.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final readonly class Markers
{
    public const NAMES = ['neck', 'hips', 'wristL', 'wristR', 'kneeL', 'kneeR', 'ankleL', 'ankleR'];

    /** Hand, from the wrist to the tips, in heights. */
    private const HAND = 0.105;

    /**
     * @param  array<string, Vec>  $places  metres, in the world
     * @param  bool  $sure  legs and arms were told apart
     */
    private function __construct(public array $places, public bool $sure)
    {
    }

    public static function proposed(VoxelBody $body): self
    {
        $h = $body->height();
        $low = $body->low[1];
        $middle = self::middle($body, $low, $h);
        [$crotch, $legs] = self::legs($body, $low, $h, $middle);
        $neck = self::neck($body, $low, $h, $middle);
        $hips = self::pieceAt($body, $low + $crotch + 0.05 * $h, $middle);
        $places = ['neck' => $neck, 'hips' => [$middle, $low + $crotch + 0.05 * $h, $hips[2]]];
        $arms = true;
        foreach (['L' => 1.0, 'R' => -1.0] as $side => $m) {
            [$places['wrist'.$side], $found] = self::wrist($body, $low, $h, $middle, $m, $neck);
            $arms = $arms && $found;
            foreach (['knee' => 0.5 * (0.055 * $h + $crotch + 0.05 * $h), 'ankle' => 0.055 * $h] as $name => $y) {
                // The foot reaches forward, so the ankle's middle is that of the shin over it.
                $at = self::side($body, $low + ($name === 'ankle' ? 0.1 * $h : $y), $middle, $m)
                    ?? [$middle + $m * 0.06 * $h, 0.0, $hips[2]];
                $places[$name.$side] = [$at[0], $low + $y, $at[2]];
            }
        }

        return new self($places, $legs && $arms);
    }

    /**
     * With some places set by a person. A place that is set only in the picture's plane takes its depth from the body.
     *
     * @param  array<string, mixed>  $set  name to x, y and perhaps z
     */
    public function with(array $set, VoxelBody $body): self
    {
        $places = $this->places;
        foreach ($set as $name => $at) {
            if (! isset($places[$name]) || ! is_array($at)) {
                continue;
            }
            $n = array_values(array_filter($at, static fn ($v): bool => (is_float($v) || is_int($v)) && is_finite((float) $v)));
            if (count($n) < 2) {
                continue;
            }
            [$x, $y] = [
                self::within((float) $n[0], $body->low[0], $body->high[0]), self::within((float) $n[1], $body->low[1], $body->high[1]),
            ];
            $places[$name] = [
                $x, $y,
                isset($n[2]) ? self::within((float) $n[2], $body->low[2], $body->high[2]) : self::depth($body, $x, $y, $places[$name][2]),
            ];
        }

        return new self($places, $this->sure);
    }

    private static function within(float $v, float $low, float $high): float
    {
        return max($low, min($high, $v));
    }

    /** Middle of the body from front to back behind a point of the picture: of the run of filled cubes nearest to where it was. */
    private static function depth(VoxelBody $body, float $x, float $y, float $near): float
    {
        $runs = [];
        $run = null;
        for ($z = $body->low[2] - $body->cube; $z <= $body->high[2] + 2 * $body->cube; $z += $body->cube) {
            if ($body->inside($x, $y, $z)) {
                $run = [$run[0] ?? $z, $z];
            } elseif ($run !== null) {
                $runs[] = ($run[0] + $run[1]) / 2;
                $run = null;
            }
        }
        usort($runs, static fn (float $a, float $b): int => abs($a - $near) <=> abs($b - $near));

        return $runs[0] ?? $near;
    }

    /** Where left and right meet: the middle of the head. */
    private static function middle(VoxelBody $body, float $low, float $h): float
    {
        $xs = array_column($body->cut($low + 0.9 * $h)[0] ?? [[($body->low[0] + $body->high[0]) / 2, 0.0, 0.0]], 0);

        return ((float) min($xs) + (float) max($xs)) / 2;
    }

    /**
     * How high over the ground the legs part, and whether they do.
     *
     * @return array{float, bool}
     */
    private static function legs(VoxelBody $body, float $low, float $h, float $middle): array
    {
        $last = null;
        for ($y = 0.12 * $h; $y < 0.62 * $h; $y += $body->cube) {
            $pieces = array_filter($body->cut($low + $y), static fn (array $p): bool => count($p) > 3);
            $both = false;
            $sides = [false, false];
            foreach ($pieces as $p) {
                $xs = array_map(static fn (array $v): float => $v[0], $p);
                $both = $both || (min($xs) < $middle - 1.5 * $body->cube && max($xs) > $middle + 1.5 * $body->cube);
                $sides[array_sum($xs) / count($xs) > $middle ? 1 : 0] = true;
            }
            if ($both) {
                break;
            }
            $last = $sides[0] && $sides[1] ? $y : $last;
        }

        // A skirt or a long coat hides where they part.
        return [$last !== null && $last > 0.3 * $h ? $last : 0.46 * $h, $last !== null];
    }

    /** @return Vec middle of the piece of a cut that the body's middle lies in */
    private static function pieceAt(VoxelBody $body, float $y, float $middle): array
    {
        foreach ($body->cut($y) as $p) {
            $xs = array_map(static fn (array $v): float => $v[0], $p);
            if (min($xs) <= $middle && max($xs) >= $middle) {
                return V3::mul(array_reduce($p, V3::add(...), [0.0, 0.0, 0.0]), 1 / count($p));
            }
        }

        return [$middle, $y, ($body->low[2] + $body->high[2]) / 2];
    }

    /** @return Vec|null middle of the largest piece on a side, arms left out */
    private static function side(VoxelBody $body, float $y, float $middle, float $m): ?array
    {
        $near = 0.2 * $body->height();
        foreach ($body->cut($y) as $p) {
            $own = array_values(array_filter(
                $p,
                static fn (array $v): bool => ($v[0] - $middle) * $m > 0.0 && abs($v[0] - $middle) < $near,
            ));
            if (count($own) > 3) {
                return V3::mul(array_reduce($own, V3::add(...), [0.0, 0.0, 0.0]), 1 / count($own));
            }
        }

        return null;
    }

    /** @return Vec the narrowest cut between head and shoulders */
    private static function neck(VoxelBody $body, float $low, float $h, float $middle): array
    {
        $areas = [];
        for ($y = 0.6 * $h; $y < 0.98 * $h; $y += $body->cube) {
            $n = 0;
            foreach ($body->cut($low + $y) as $p) {
                foreach ($p as $v) {
                    $n += abs($v[0] - $middle) < 0.12 * $h ? 1 : 0;
                }
            }
            $areas[] = [$y, $n];
        }
        [$head, $most] = [0.88 * $h, 0];
        foreach ($areas as [$y, $n]) {
            if ($y > 0.78 * $h && $n > $most) {
                [$head, $most] = [$y, $n];
            }
        }
        [$at, $least] = [0.82 * $h, INF];
        foreach ($areas as [$y, $n]) {
            if ($y > 0.66 * $h && $y < $head && $n < $least) {
                [$at, $least] = [$y, $n];
            }
        }
        $piece = self::pieceAt($body, $low + $at, $middle);

        // Beards, scarves and long hair pull the middle to their side; the chest under them does not.
        return [$middle, $low + $at - 0.025 * $h, 0.5 * ($piece[2] + self::pieceAt($body, $low + $at - 0.1 * $h, $middle)[2])];
    }

    /**
     * @param  Vec  $neck
     * @return array{Vec, bool}
     */
    private static function wrist(VoxelBody $body, float $low, float $h, float $middle, float $m, array $neck): array
    {
        $tip = null;
        foreach ($body->cubes() as $v) {
            if ($v[1] > $low + 0.3 * $h && ($tip === null || ($v[0] - $tip[0]) * $m > 0.0)) {
                $tip = $v;
            }
        }
        if ($tip === null || abs($tip[0] - $middle) < 0.2 * $h) {
            return [[$middle + $m * 0.19 * $h, $low + 0.48 * $h, $neck[2]], false];
        }
        $along = V3::unit(V3::sub([$middle + $m * 0.1 * $h, $neck[1] - 0.05 * $h, $neck[2]], $tip));
        $guess = V3::addScaled($tip, $along, self::HAND * $h);
        [$at, $n] = $body->across($guess, $along, 0.06 * $h, $body->cube);

        return [$n > 0 ? $at : $guess, true];
    }
}
