<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Math\V3;

/**
 * Keeps a lens that moves on this side of walls: where something broad stands between it and whom it films, it comes as near as it has
 * to, early enough and smoothly. Posts and what else is narrow it passes, unless it would have to come nearer just before or after:
 * then it would go through them.
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
    private const MOST = 12;

    /** Frames before and after a look in which it is not where it would be yet, or still. */
    private const LED = 24;

    /** @var array<int, array{float, float}> by frame: the share that is left, and what would be left if narrow things counted */
    private array $looks = [];

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
            $least = min($least, $this->shares[$frame + $by] ??= $this->left($frame + $by));
        }

        return $least;
    }

    /** What is left at a frame: what is narrow counts where it hangs together with something broad. */
    private function left(int $frame): float
    {
        [$share, $narrow] = $this->at($frame);
        if ($narrow >= 1.0 || $share < 1.0) {
            return $share;
        }
        foreach ([self::STEP, -self::STEP] as $step) {
            for ($f = $frame, $clear = 0; $clear <= self::LED && abs($f - $frame) < 400; $f += $step) {
                [$there, $beside] = $this->at($f);
                if ($there < 1.0) {
                    return $narrow;
                }
                $clear = $beside < 1.0 ? 0 : $clear + self::STEP;
            }
        }

        return $share;
    }

    /** @return array{float, float} */
    private function at(int $frame): array
    {
        return $this->looks[$frame] ??= $this->look($frame);
    }

    /** @return array{float, float} the share that is left, and what would be left if narrow things counted */
    private function look(int $frame): array
    {
        [$eyes, $lens] = ($this->ends)($frame);
        $long = V3::distance($eyes, $lens);
        if ($long < 0.05) {
            return [1.0, 1.0];
        }
        $way = V3::mul(V3::sub($lens, $eyes), 1 / $long);
        $aside = V3::unit([$way[2], 0.0, -$way[0]]);
        $straight = $this->free($lens, $eyes);
        if ($straight < $long - 0.01 && $this->isAt($lens, $aside, $way)) {
            return array_fill(0, 2, max(self::LEAST, ($straight - self::KEEPS) / $long));
        }
        $narrow = $straight < $long - 0.01 ? max(self::LEAST, ($straight - self::KEEPS) / $long) : 1.0;
        foreach ([[1.0, 0.0], [-1.0, 0.0], [0.0, 1.0], [0.0, -1.0]] as [$right, $up]) {
            $from = V3::add(V3::addScaled($lens, $aside, $right * self::BESIDE), [0.0, $up * self::BESIDE, 0.0]);
            if (max($straight, $this->free($from, $eyes)) >= $long - 0.01) {
                return [1.0, $narrow];
            }
        }

        return [$narrow, $narrow];
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
