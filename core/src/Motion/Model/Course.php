<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use Closure;
use CrispReel\Core\Geometry\SmoothCurve;

/**
 * The line that a walk follows over the ground, in model metres. Headings are the turn about +Y from +Z towards +X.
 * Before its start and past its end a course goes straight on.
 */
final class Course
{
    /** Step-ups up to this are walked (metres of the world, divided by the figure's scale by the caller). */
    public const STEP_UP = 0.45;

    private const EVERY = 0.05;

    /** @var list<float> ground under the line, one each EVERY metres */
    private array $heights = [];

    /** @var list<array{float, float}> places along the line (s) and rises that were too high to walk */
    public array $tooHigh = [];

    /**
     * @param  SmoothCurve|null  $line  null: straight along +Z from the origin
     * @param  Closure(float, float, float): (float|null)|null  $ground  height at x, z not above a ceiling; null where there is none
     */
    private function __construct(private readonly ?SmoothCurve $line, private readonly ?Closure $ground, private readonly float $stepUp)
    {
    }

    public static function straight(): self
    {
        return new self(null, null, self::STEP_UP);
    }

    /**
     * @param  list<array{float, float}>  $points  x, z; the first is where the walker stands
     * @param  Closure(float, float, float): (float|null)|null  $ground
     * @param  float  $y  height of the ground at the first point
     */
    public static function through(array $points, ?Closure $ground = null, float $y = 0.0, float $stepUp = self::STEP_UP): self
    {
        $kept = [];
        foreach ($points as [$x, $z]) {
            $last = $kept[count($kept) - 1] ?? null;
            if ($last === null || hypot($x - $last[0], $z - $last[2]) > 0.05) {
                $kept[] = [$x, 0.0, $z];
            }
        }
        $course = new self(count($kept) > 1 ? new SmoothCurve($kept) : null, $ground, $stepUp);
        $course->follow($y);

        return $course;
    }

    /** Walks the line once and notes the ground under it: what is over a step's height is a wall, not a floor. */
    private function follow(float $y): void
    {
        if ($this->ground === null || $this->line === null) {
            return;
        }
        $blocked = false;
        for ($s = 0.0, $end = $this->length() + self::EVERY; $s <= $end; $s += self::EVERY) {
            [$x, $z] = $this->at($s);
            $now = ($this->ground)($x, $z, $y + $this->stepUp) ?? $y;
            $above = ($this->ground)($x, $z, $y + 4 * $this->stepUp) ?? $now;
            if ($above > $now + $this->stepUp && ! $blocked) {
                $this->tooHigh[] = [$s, $above - $now];
            }
            $blocked = $above > $now + $this->stepUp;
            $this->heights[] = $y = $now;
        }
    }

    public function length(): float
    {
        return $this->line?->length() ?? INF;
    }

    /** @return array{float, float, float} x, z, heading at a distance along the line */
    public function at(float $s): array
    {
        if ($this->line === null) {
            return [0.0, $s, 0.0];
        }
        $length = $this->line->length();
        $inside = max(0.0, min($length, $s));
        // The heading is that of a body's length of line, so that a corner is turned, not snapped.
        $a = $this->line->at(max(0.0, $inside - 0.18));
        $b = $this->line->at(min($length, $inside + 0.18));
        $p = $this->line->at($inside);
        $h = atan2($b[0] - $a[0], $b[2] - $a[2]);

        return [$p[0] + sin($h) * ($s - $inside), $p[2] + cos($h) * ($s - $inside), $h];
    }

    /** Ground under the line itself. */
    public function under(float $s): float
    {
        if ($this->heights === []) {
            return 0.0;
        }

        return $this->heights[max(0, min(count($this->heights) - 1, (int) round($s / self::EVERY)))];
    }

    /** @return (Closure(float, float, float): float)|null height at x, z not above a ceiling; null on flat ground */
    public function uneven(): ?Closure
    {
        $ground = $this->ground;
        if ($ground === null || $this->heights === [] || max($this->heights) - min($this->heights) < 0.004) {
            return null;
        }

        return fn (float $x, float $z, float $ceiling): float => $ground($x, $z, $ceiling) ?? -INF;
    }

    /** Ground at a point beside the line. */
    public function height(float $x, float $z, float $s): float
    {
        $under = $this->under($s);

        return $this->ground === null ? $under : ($this->ground)($x, $z, $under + $this->stepUp) ?? $under;
    }

    /**
     * Ground under a foot: height under its ankle and slope ahead (radians), and whether it hangs over an edge; null
     * where something rises under it or the ball has no hold.
     *
     * @param  array{float, float, float}  $foot  heel, ball and toe tip ahead of the ankle
     * @return array{float, float, bool}|null
     */
    public function footing(float $x, float $z, float $heading, float $s, array $foot): ?array
    {
        if ($this->ground === null) {
            return [$this->under($s), 0.0, false];
        }
        $at = fn (float $d): float => $this->height($x + sin($heading) * $d, $z + cos($heading) * $d, $s);
        [$middle, $ball] = [$at(0.0), $at($foot[1])];
        $slope = ($ball - $middle) / $foot[1];
        // Planks lie a little uneven; a foot takes them for flat.
        $slope = abs($slope) < tan(deg2rad(4.0)) ? 0.0 : $slope;
        if (abs($slope) > tan(deg2rad(32.0)) || abs($at($foot[1] / 2) - ($middle + $ball) / 2) > 0.009) {
            return null;
        }
        $over = false;
        foreach ([$foot[0], $foot[0] / 2, ($foot[1] + $foot[2]) / 2, $foot[2] + 0.015] as $d) {
            $off = $at($d) - ($middle + $slope * $d);
            if ($off > 0.009) {
                return null;
            }
            $over = $over || $off < -0.03;
        }

        return [$middle, atan($slope), $over];
    }
}
