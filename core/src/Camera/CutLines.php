<?php

declare(strict_types=1);

namespace CrispReel\Core\Camera;

/**
 * One subject between two lines of the picture, solved exactly: with the direction of the camera known, the height of a point in the
 * picture depends on its height and its depth alone, so the two lines ask for an angle between two points, and the distance follows
 * from a quadratic (the inscribed angle). Only which points lie outermost is found again, two or three times.
 */
final class CutLines
{
    /** Elevations of the lens in degrees; level and floor stand at a height. */
    public const RISE = ['low' => -18.0, 'high' => 25.0, 'overhead' => 75.0];

    /** Metres of the lens above the ground: on it, and at least. */
    private const FLOOR = 0.12;

    private const LEAST = 0.10;

    private const ROUNDS = 12;

    /** Of the height of the picture. */
    private const CLOSE = 0.0005;

    /** @var array<string, list<array{float, float}>> height and depth of a mark's points, from the eyes */
    private array $flat = [];

    private float $tau;

    public function __construct(
        private readonly Marks $marks,
        private readonly ShotSize $size,
        private readonly float $focalMm,
        private readonly Gate $gate,
    ) {
        $this->tau = $gate->tangent($focalMm);
    }

    /**
     * @param  float  $side  heading from the subject to the lens, radians
     * @param  float  $x  where the eyes are across the picture, -1 to 1
     * @param  float|null  $at  height of the lens, metres; null: as $height says
     */
    public function solve(float $side, float $x, string $height = 'level', ?float $at = null): Aim
    {
        $eyes = $this->marks->middle('eyes');
        $rise = $at === null ? self::RISE[$height] ?? null : null;
        $level = $at ?? match (true) {
            $height === 'floor' => $this->marks->lowest() + self::FLOOR,
            default => $this->size->level === 'eyes' ? $eyes[1] : $this->marks->middle($this->size->level)[1],
        };
        $aim = $this->settled($eyes, $side, $x, $level, $rise === null ? 0.0 : tan(deg2rad($rise)));
        $least = $this->marks->lowest() + self::LEAST;

        return $aim->position[1] < $least ? $this->settled($eyes, $side, $x, $least, 0.0) : $aim;
    }

    /** @param  array{float, float, float}  $eyes */
    private function settled(array $eyes, float $side, float $x, float $level, float $rise): Aim
    {
        $offset = $pitch = 0.0;
        $size = $this->size;
        $tall = max(0.05, $this->marks->middle($size->top)[1] - $this->marks->middle($size->bottom)[1]);
        $far = $tall / ($this->tau * ($size->topAt - $size->bottomAt));
        $lift = 0.0;
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $yaw = $side + M_PI + $offset;
            $lift = $rise / cos($offset);
            $this->flatten($eyes, $yaw, $level);
            [$ht, $zt, $topAt] = $this->line($size->top, $size->topAt, $far, $lift, $pitch, true);
            [$hb, $zb, $bottomAt] = $this->line($size->bottom, $size->bottomAt, $far, $lift, $pitch, false);
            $far = self::distance($ht, $zt, $hb, $zb, $lift, atan($topAt * $this->tau) - atan($bottomAt * $this->tau)) ?? $far;
            $pitch = atan2($ht - $lift * $far, $zt + $far) - atan($topAt * $this->tau);
            $depth = cos($pitch) * $far + sin($pitch) * ($eyes[1] - $level - $lift * $far);
            $offset = atan($x * $this->tau * $this->gate->aspect * $depth / $far);
            if ($round > 0 && $this->missed($far, $lift, $pitch) < self::CLOSE) {
                break;
            }
        }
        $back = $far / cos($offset);

        return new Aim(
            [$eyes[0] + $back * sin($side), $level + $rise * $back, $eyes[2] + $back * cos($side)],
            $side + M_PI + $offset, $pitch, $this->focalMm,
        );
    }

    /**
     * How far the lens must be for two points to be seen under an angle: the far root, exactly.
     *
     * @param  float  $lift  metres that it rises for each metre that it is away
     */
    public static function distance(float $ht, float $zt, float $hb, float $zb, float $lift, float $angle): ?float
    {
        [$sin, $cos] = [sin($angle), cos($angle)];
        $a = -(1 + $lift * $lift) * $sin;
        $b = $cos * (($ht - $hb) - $lift * ($zb - $zt)) - $sin * (($zt + $zb) - $lift * ($ht + $hb));
        $c = $cos * ($ht * $zb - $hb * $zt) - $sin * ($zt * $zb + $ht * $hb);
        $under = $b * $b - 4 * $a * $c;
        if ($under < 0.0 || abs($a) < 1e-12) {
            return null;
        }
        $far = (-$b - sqrt($under)) / (2 * $a);

        return $far > 0.05 ? $far : null;
    }

    /** @param  array{float, float, float}  $eyes */
    private function flatten(array $eyes, float $yaw, float $level): void
    {
        [$dx, $dz] = [sin($yaw), cos($yaw)];
        foreach (array_unique([$this->size->top, $this->size->bottom]) as $mark) {
            $this->flat[$mark] = array_map(
                static fn (array $p): array => [$p[1] - $level, ($p[0] - $eyes[0]) * $dx + ($p[2] - $eyes[2]) * $dz],
                $this->marks->of($mark),
            );
        }
    }

    /**
     * The point by which a mark is led, and the height in the picture where that point is to be.
     *
     * @return array{float, float, float} height, depth, height in the picture
     */
    private function line(string $mark, float $at, float $far, float $lift, float $pitch, bool $top): array
    {
        $heights = $this->heights($mark, $far, $lift, $pitch);
        $wanted = $this->seen($mark, $heights, $top);
        $best = 0;
        foreach ($heights as $i => $y) {
            $best = abs($y - $wanted) < abs($heights[$best] - $wanted) ? $i : $best;
        }
        [$h, $z] = $this->flat[$mark][$best];

        return [$h, $z, $at + $heights[$best] - $wanted];
    }

    /** @return list<float> heights in the picture of a mark's points */
    private function heights(string $mark, float $far, float $lift, float $pitch): array
    {
        return array_map(
            fn (array $p): float => tan(
                max(-1.5, min(1.5, atan2($p[0] - $lift * $far, max(0.01, $p[1] + $far)) - $pitch)),
            ) / $this->tau,
            $this->flat[$mark],
        );
    }

    /**
     * Where a mark is seen: its outermost point; of an outline around the body the mean of its nearer half.
     *
     * @param  list<float>  $heights
     */
    private function seen(string $mark, array $heights, bool $top): float
    {
        if (! in_array($mark, ['shoulders', 'chest', 'waist', 'belt', 'hip', 'thigh'], true)) {
            return $top ? max([-INF, ...$heights]) : min([INF, ...$heights]);
        }
        $depths = array_column($this->flat[$mark], 1);
        $mean = array_sum($depths) / count($depths);
        $near = array_filter($heights, static fn (int $i): bool => $depths[$i] <= $mean, ARRAY_FILTER_USE_KEY);

        return array_sum($near) / count($near);
    }

    private function missed(float $far, float $lift, float $pitch): float
    {
        $s = $this->size;

        return max(
            abs($this->seen($s->top, $this->heights($s->top, $far, $lift, $pitch), true) - $s->topAt),
            abs($this->seen($s->bottom, $this->heights($s->bottom, $far, $lift, $pitch), false) - $s->bottomAt),
        );
    }
}
