<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\V3;

/**
 * Keeps a lens that moves on this side of walls: where something broad stands between it and whom it films, it comes as near as it has
 * to, early enough and smoothly. Posts and what else is narrow it passes.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class Boom
{
    /** Metres from the straight way at which rays go beside it: what hides all of them is broad. */
    private const BESIDE = 0.3;

    /** Metres that it keeps from a wall, and the share of the way that is left in any case. */
    private const KEEPS = 0.3;

    private const LEAST = 0.12;

    /** Frames between two looks, before and after which a wall counts, and of the bell's sigma. */
    private const STEP = 2;

    private const EARLY = 10;

    private const SIGMA = 4.0;

    /** Things that one way may pass. */
    private const MOST = 4;

    /** @var array<int, float> by frame */
    private array $shares = [];

    /** @param  Closure(int): array{Vec, Vec}  $ends  whom it films and where it would stand, at a frame */
    public function __construct(private readonly Solids $solids, private readonly Closure $ends)
    {
    }

    /** How much of the way from whom it films to where it would stand it may go at a frame, 0 to 1. */
    public function share(float $frame): float
    {
        $sum = $all = 0.0;
        $middle = self::STEP * (int) round($frame / self::STEP);
        for ($by = -12; $by <= 12; $by += self::STEP) {
            $weight = exp(-0.5 * (($middle + $by - $frame) / self::SIGMA) ** 2);
            $sum += $weight * $this->least($middle + $by);
            $all += $weight;
        }

        return $sum / $all;
    }

    private function least(int $frame): float
    {
        $least = 1.0;
        for ($by = -self::EARLY; $by <= self::EARLY; $by += self::STEP) {
            $least = min($least, $this->shares[$frame + $by] ??= $this->look($frame + $by));
        }

        return $least;
    }

    private function look(int $frame): float
    {
        [$eyes, $lens] = ($this->ends)($frame);
        $long = V3::distance($eyes, $lens);
        if ($long < 0.05) {
            return 1.0;
        }
        $way = V3::mul(V3::sub($lens, $eyes), 1 / $long);
        $aside = V3::unit([$way[2], 0.0, -$way[0]]);
        $straight = $this->free($lens, $eyes);
        if ($straight < $long - 0.01 && $this->isAt($lens, $aside, $way)) {
            return max(self::LEAST, ($straight - self::KEEPS) / $long);
        }
        $farthest = $straight;
        foreach ([[1.0, 0.0], [-1.0, 0.0], [0.0, 1.0], [0.0, -1.0]] as [$right, $up]) {
            $from = V3::add(V3::addScaled($lens, $aside, $right * self::BESIDE), [0.0, $up * self::BESIDE, 0.0]);
            $free = $this->free($from, $eyes);
            $farthest = max($farthest, $free);
            if ($farthest >= $long - 0.01) {
                return 1.0;
            }
        }

        return max(self::LEAST, ($farthest - self::KEEPS) / $long);
    }

    /**
     * Whether a lens is in something, or hardly beside it.
     *
     * @param  Vec  $lens
     * @param  Vec  $aside
     * @param  Vec  $way
     */
    private function isAt(array $lens, array $aside, array $way): bool
    {
        foreach ([$aside, $way, [0.0, 1.0, 0.0]] as $to) {
            foreach ([self::KEEPS, -self::KEEPS] as $metres) {
                if ($this->solids->between($lens, V3::addScaled($lens, $to, $metres)) !== null) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Metres from a point to what is first on the way to another, seen from there; all of them where nothing is.
     *
     * @param  Vec  $from
     * @param  Vec  $to
     */
    private function free(array $from, array $to): float
    {
        $free = V3::distance($from, $to);
        for ($n = 0; $n < self::MOST; $n++) {
            // From the lens: walls behind which it stands are no obstacle for it.
            $hit = $this->solids->between($from, $to);
            if ($hit === null) {
                break;
            }
            $long = V3::distance($from, $to);
            $from = V3::mix($from, $to, min(1.0, ($hit['distance'] + 0.02) / max(0.02, $long)));
            $free = V3::distance($from, $to);
            if ($free < 0.05) {
                break;
            }
        }

        return $free;
    }
}
