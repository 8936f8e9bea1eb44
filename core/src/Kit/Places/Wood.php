<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;

/** What furniture and rooms are made of: boards, legs, planked floors and walls. */
final class Wood
{
    public const OAK = 0x9A7346;

    public const DARK = 0x5E4630;

    public const PINE = 0xC59A63;

    public const PAINTED = 0x4F7A78;

    /** A board or beam, grain along its longest side. */
    public static function board(
        Piece $p, float $w, float $h, float $d, int $colour, float $x, float $y, float $z, float $yaw = 0.0, float $pitch = 0.0,
        float $roll = 0.0,
    ): void {
        $grain = $w >= $h && $w >= $d ? 0 : ($h >= $d ? 1 : 2);
        $cells = static fn (float $l): int => max(1, min(8, (int) round($l / 0.3)));
        $p->add(
            Shapes::box($w, $h, $d, min(0.016, 0.3 * min($w, $h, $d)), [$cells($w), $cells($h), $cells($d)]),
            $colour,
            [$x, $y, $z],
            [$pitch, $yaw, $roll],
            wood: 1.0,
            grain: $grain,
        );
    }

    /** Four legs under a top of $w by $d at height $h. */
    public static function legs(Piece $p, float $w, float $d, float $h, int $colour, float $thick = 0.055): void
    {
        foreach ([[-1, -1], [1, -1], [-1, 1], [1, 1]] as [$i, $j]) {
            self::board($p, $thick, $h, $thick, $colour, $i * ($w / 2 - $thick), $h / 2, $j * ($d / 2 - $thick));
        }
    }

    /**
     * A floor of planks along x, its top at 0.
     *
     * @param  list<int>  $colours
     */
    public static function floor(Piece $p, float $w, float $d, array $colours, float $plank = 0.2): void
    {
        $n = max(1, (int) round($d / $plank));
        for ($i = 0; $i < $n; $i++) {
            $z = -$d / 2 + ($i + 0.5) * $d / $n;
            $p->add(
                Shapes::box($w, 0.05, $d / $n - 0.008, 0.008, [(int) max(2, round($w / 0.6)), 1, 1], '-y'),
                $colours[($i * 7 + 3) % count($colours)],
                [0.0, -0.025, $z],
                wood: 1.0,
                jitter: 0.1,
                wave: 0.002,
            );
        }
    }

    /**
     * A plastered wall along x from the floor, with a skirting board; openings are left out as boxes of [from, to, low, high].
     *
     * @param  list<array{float, float, float, float}>  $holes
     * @param  float  $cell  metres between the points that are lit
     */
    public static function wall(Piece $p, float $w, float $h, int $colour, int $skirting, array $holes = [], float $cell = 0.35): void
    {
        $edges = [-$w / 2, $w / 2];
        foreach ($holes as [$a, $b]) {
            array_push($edges, $a, $b);
        }
        sort($edges);
        for ($i = 0; $i < count($edges) - 1; $i++) {
            [$a, $b] = [$edges[$i], $edges[$i + 1]];
            if ($b - $a < 0.01) {
                continue;
            }
            $spans = [[0.0, $h]];
            foreach ($holes as [$x0, $x1, $low, $high]) {
                if (($a + $b) / 2 > $x0 && ($a + $b) / 2 < $x1) {
                    $spans = [[0.0, $low], [$high, $h]];
                }
            }
            foreach ($spans as [$low, $high]) {
                if ($high - $low > 0.01) {
                    $p->add(
                        Shapes::box($b - $a, $high - $low, 0.12, 0.003, [
                            max(1, (int) round(($b - $a) / $cell)), max(1, (int) round(($high - $low) / $cell)), 1,
                        ]),
                        $colour, [($a + $b) / 2, ($low + $high) / 2, 0.0], jitter: 0.0, shift: 0.0, wave: 0.0, wear: 0.0, vary: 0.0,
                    );
                }
            }
            if ($spans[0][1] > 0.2) {
                self::board($p, $b - $a, 0.12, 0.03, $skirting, ($a + $b) / 2, 0.06, 0.07);
            }
        }
    }

    /**
     * A window in a wall along x: frame, bars, and light behind the panes.
     *
     * @param  array{float, float, float}  $light
     */
    public static function window(Piece $p, float $x, float $y, float $w, float $h, int $frame, array $light = [1.0, 0.78, 0.48]): void
    {
        $p->add(
            Shapes::box($w, $h, 0.02, 0.004, [4, 4, 1]),
            static fn (array $q): array => [
                $light[0] * (0.85 + 0.3 * $q[1]), $light[1] * (0.85 + 0.3 * $q[1]), $light[2] * (0.85 + 0.3 * $q[1]),
            ],
            [$x, $y, 0.0],
            glow: 0.75,
            wear: 0.0,
            vary: 0.0,
        );
        foreach ([[-$w / 2, 0.0, 0.07, $h + 0.1], [$w / 2, 0.0, 0.07, $h + 0.1], [0.0, 0.0, 0.04, $h]] as [$dx, $dy, $bw, $bh]) {
            self::board($p, $bw, $bh, 0.09, $frame, $x + $dx, $y + $dy, 0.03);
        }
        foreach ([-$h / 2, $h / 2, 0.0] as $k => $dy) {
            self::board(
                $p, $w + ($k < 2 ? 0.2 : 0.0), $k < 2 ? 0.07 : 0.035, $k === 0 ? 0.2 : 0.09, $frame, $x, $y + $dy, $k === 0 ? 0.08 : 0.03,
            );
        }
    }

    /** The frame of an open window in a wall along x: one looks through between its bars. */
    public static function sash(Piece $p, float $w, float $h, int $frame): void
    {
        foreach ([-$w / 2 + 0.03, 0.0, $w / 2 - 0.03] as $k => $x) {
            self::board($p, $k === 1 ? 0.04 : 0.07, $h, 0.07, $frame, $x, 0.0, 0.0);
        }
        foreach ([-$h / 2 + 0.03, 0.12 * $h, $h / 2 - 0.03] as $k => $y) {
            self::board($p, $w, $k === 1 ? 0.035 : 0.07, 0.06, $frame, 0.0, $y, 0.0);
        }
        self::board($p, $w + 0.2, 0.04, 0.2, $frame, 0.0, -$h / 2 - 0.02, 0.12);
        foreach ([-1.0, 1.0] as $side) {
            self::board($p, 0.09, $h + 0.16, 0.03, $frame, $side * ($w / 2 + 0.04), 0.0, 0.085);
        }
        self::board($p, $w + 0.16, 0.09, 0.03, $frame, 0.0, $h / 2 + 0.04, 0.085);
    }

    /** The frame of a doorway in a wall along x. */
    public static function doorway(Piece $p, float $from, float $to, float $h, int $frame): void
    {
        foreach ([$from - 0.04, $to + 0.04] as $x) {
            self::board($p, 0.09, $h + 0.08, 0.16, $frame, $x, ($h + 0.08) / 2, 0.0);
        }
        self::board($p, $to - $from + 0.17, 0.09, 0.16, $frame, ($from + $to) / 2, $h + 0.04, 0.0);
    }
}
