<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Recording;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\Stance;

/**
 * What a recording tells of the feet of the body that made it: when heel and toes are planted, how high their joints are
 * then, and how a flat foot lies in its joint.
 *
 * Metres are those of a body with legs of 0.85 m; heights are along +Y of the body stood upright.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Span array{int, int}
 * @phpstan-type Stand array{int, int, float}
 */
final readonly class RecordedFeet
{
    public const LEG = 0.85;

    /** A joint that is slower than this may be planted, metres a second. */
    private const SLOW = 0.15;

    /** Share of the slow moments, from the lowest, in which a foot certainly stands. */
    private const CERTAIN = 0.1;

    /** So far from where it mostly is a planted joint may be at either end, metres. */
    private const CREEP = 0.006;

    /** What is planted no farther than this from the usual height stands on the ground, metres. */
    private const LEVEL = 0.012;

    /** Feet that are never lower than this, metres, may stand on a box: their body is not brought down unasked. */
    private const STANDS_ON = 0.2;

    /** Planted away from the ground (a step, a box): slower than this for so many seconds. */
    private const STILL = 0.05;

    private const STILL_SECONDS = 0.25;

    /**
     * @param  array<string, list<Stand>>  $spans  role of a foot or toes to frames in which it is planted, and how much higher than on
     *   the ground, in legs
     * @param  array<string, Vec>  $flat  role to what points up in it when it lies flat, in its space at rest, stood upright
     * @param  float  $ankle  height of the feet's joints when planted, units of the file; when none ever is, as at rest over the file's
     *   zero
     * @param  float|null  $ground  height of the ground that the feet tell, units of the file; null: no foot is ever planted
     */
    private function __construct(public array $spans, public array $flat, public float $ankle, public ?float $ground)
    {
    }

    /**
     * @param  float  $rate  frames a second
     * @param  int  $count  frames, the first at 0
     * @param  bool|null  $grounds  whether the ground that the feet tell is put on the ground, or else zero is; null: as self::lies() says
     */
    public static function of(Recording $r, float $rate, int $count, ?bool $grounds = null): self
    {
        $roles = array_intersect_key($r->roles, ['footL' => 1, 'footR' => 1, 'toesL' => 1, 'toesR' => 1]);
        $metre = self::LEG / max(1e-9, $r->leg());
        $points = array_fill_keys(array_keys($roles), []);
        for ($i = 0; $i < $count; $i++) {
            [$p] = $r->world($i / $rate);
            foreach ($roles as $role => $j) {
                $points[$role][] = V3::mul(Q4::rotate($r->upright, Stance::at($p, $j)), $metre);
            }
        }
        $levels = [];
        foreach (['foot', 'toes'] as $part) {
            $slow = [];
            foreach (['L', 'R'] as $side) {
                $slow = [...$slow, ...self::slowHeights($points[$part.$side] ?? [], $rate)];
            }
            if ($slow !== []) {
                sort($slow);
                $levels += array_fill_keys([$part.'L', $part.'R'], $slow[(int) (self::CERTAIN * (count($slow) - 1))]);
            }
        }
        $levels = array_intersect_key($levels, $roles);
        $spans = [];
        foreach ($levels as $role => $level) {
            foreach (self::planted($points[$role], $level, $rate) as [$from, $to]) {
                $height = array_sum(array_column(array_slice($points[$role], $from, $to - $from), 1)) / ($to - $from) - $level;
                $spans[$role][] = [$from, $to, abs($height) < self::LEVEL ? 0.0 : $height / self::LEG];
            }
        }
        [$rest] = $r->skeleton->world($r->skeleton->rotations);
        $sole = INF;
        $body = [$r->hips => true];
        foreach ($r->skeleton->parents as $j => $parent) {
            if (! isset($body[$parent])) {
                continue;
            }
            $body[$j] = true;
            $sole = min($sole, Q4::rotate($r->upright, Stance::at($rest, $j))[1]);
        }
        $over = Q4::rotate($r->upright, Stance::at($rest, $r->roles['footL']))[1] - $sole;
        $ground = isset($levels['footL']) ? $levels['footL'] / $metre - $over : null;

        $grounds ??= $ground !== null && self::lies($ground * $metre);

        return new self($spans, self::lying($r, $spans, $rate), $over + ($grounds ? $ground ?? 0.0 : 0.0), $ground);
    }

    /**
     * Whether a height at which feet are planted is the ground: nobody stands below it, but on something above it.
     *
     * @param  float  $height  metres of a body with legs of 0.85 m
     */
    public static function lies(float $height): bool
    {
        return $height < self::STANDS_ON;
    }

    /**
     * @param  list<Vec>  $points
     * @return list<float>
     */
    private static function slowHeights(array $points, float $rate): array
    {
        $out = [];
        foreach ($points as $i => $p) {
            $before = $points[max(0, $i - 1)];
            $after = $points[min(count($points) - 1, $i + 1)];
            if (V3::distance($before, $after) * $rate < 2 * self::SLOW) {
                $out[] = $p[1];
            }
        }

        return $out;
    }

    /**
     * Frames in which a joint is planted: on the ground, or still for a while on something higher.
     *
     * @param  list<Vec>  $points
     * @return list<Span>
     */
    private static function planted(array $points, float $level, float $rate): array
    {
        $spans = FootLock::spans($points, $level, $rate);
        $from = null;
        $n = count($points);
        for ($i = 0; $i <= $n; $i++) {
            $speed = $i > 0 && $i < $n ? V3::distance($points[$i], $points[$i - 1]) * $rate : ($i < $n ? 0.0 : INF);
            if ($speed < self::STILL) {
                $from ??= $i;
            } elseif ($from !== null) {
                $long = $i - $from >= max(3.0, self::STILL_SECONDS * $rate);
                $apart = array_filter($spans, static fn (array $s): bool => $s[0] < $i && $s[1] > $from) === [];
                if ($long && $apart) {
                    $spans[] = [$from, $i];
                }
                $from = null;
            }
        }
        sort($spans);

        return array_values(array_filter(array_map(static fn (array $s): ?array => self::firm($points, $s), $spans)));
    }

    /**
     * A span without the frames at its ends in which the joint is on its way already; null: too little is left.
     *
     * @param  list<Vec>  $points
     * @param  Span  $span
     * @return Span|null
     */
    private static function firm(array $points, array $span): ?array
    {
        [$from, $to] = $span;
        $middle = [];
        foreach ([0, 1, 2] as $k) {
            $all = array_column(array_slice($points, $from, $to - $from), $k);
            sort($all);
            $middle[] = $all[intdiv(count($all), 2)];
        }
        while ($to - $from > 2 && V3::distance($points[$from], $middle) > self::CREEP) {
            $from++;
        }
        while ($to - $from > 2 && V3::distance($points[$to - 1], $middle) > self::CREEP) {
            $to--;
        }

        return $to - $from < 3 ? null : [$from, $to];
    }

    /**
     * @param  array<string, list<Stand>>  $spans
     * @return array<string, Vec>
     */
    private static function lying(Recording $r, array $spans, float $rate): array
    {
        [, $rest] = $r->skeleton->world($r->skeleton->rotations);
        $out = [];
        foreach (['L', 'R'] as $side) {
            $sum = ['foot'.$side => [0.0, 0.0, 0.0], 'toes'.$side => [0.0, 0.0, 0.0]];
            $n = 0;
            foreach ($spans['foot'.$side] ?? [] as [$from, $to]) {
                for ($i = $from; $i < $to; $i += max(1, (int) ($rate / 15))) {
                    if (array_filter(
                        $spans['toes'.$side] ?? [[$from, $to]], static fn (array $s): bool => $s[0] <= $i && $s[1] > $i,
                    ) === []) {
                        continue;
                    }
                    $n++;
                    [, $q] = $r->world($i / $rate);
                    foreach (array_keys($sum) as $role) {
                        $j = $r->roles[$role] ?? null;
                        if ($j !== null) {
                            $made = Q4::mul(Skeleton::turnOf($q, $j), Q4::conjugate(Skeleton::turnOf($rest, $j)));
                            $up = Q4::rotate(Q4::conjugate($r->upright), [0.0, 1.0, 0.0]);
                            $sum[$role] = V3::add(
                                $sum[$role],
                                Q4::rotate(Q4::mul($r->upright, Q4::conjugate($made)), $up),
                            );
                        }
                    }
                }
            }
            foreach ($n < 5 ? [] : $sum as $role => $v) {
                // Only what all flat moments agree on; a foot that always rolls tells nothing.
                if (V3::length($v) > 0.95 * $n && V3::length($v) > 1e-9) {
                    $out[$role] = V3::unit($v);
                }
            }
        }

        return $out;
    }
}
