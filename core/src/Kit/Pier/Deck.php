<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;
use CrispReel\Core\Math\Random;

/** The planked pier: lower deck at 0, landing at 0.30, one step, a ramp, beams, piles, bollards, ropes. */
final class Deck
{
    public const LANDING = 0.30;

    public static function make(): Piece
    {
        $p = new Piece('Ferry pier', 12);
        $r = new Random(5);
        self::planks($p, $r, -6.4, -1.62, self::LANDING);
        self::planks($p, $r, -1.6, 6.3, 0.0);
        self::frame($p, $r);
        self::stepAndRamp($p, $r);
        foreach ([[1.35, 0.0, -2.02], [5.3, 0.0, -2.02], [-5.6, self::LANDING, 1.7], [5.75, 0.0, 1.75]] as [$x, $y, $z]) {
            self::bollard($p, $x, $y, $z);
        }
        self::ropes($p);

        return $p;
    }

    private static function planks(Piece $p, Random $r, float $x0, float $x1, float $y): void
    {
        $z0 = -2.3;
        $z1 = 2.2;
        for ($x = $x0; $x < $x1 - 0.05; $x += 0.202) {
            $w = 0.186 + $r->next() * 0.006;
            $cut = $z0 + ($z1 - $z0) * (0.3 + $r->next() * 0.4);
            foreach ([[$z0 + ($r->next() - 0.5) * 0.05, $cut - 0.006], [$cut + 0.006, $z1 + ($r->next() - 0.5) * 0.06]] as [$a, $b]) {
                $length = $b - $a;
                $p->add(
                    Shapes::box($w, 0.05, $length, 0.011, [1, 1, max(2, (int) round($length / 0.40))], '-y'), $r->pick(C::DECK),
                    [$x + 0.1, $y - 0.025 - $r->next() * 0.006, ($a + $b) / 2], wood: 1.0, grain: 2, jitter: 0.3, vary: 0.17, wave: 0.003,
                );
            }
        }
    }

    private static function frame(Piece $p, Random $r): void
    {
        foreach ([-2.2, 2.1] as $z) {
            for ($x = -6.3; $x < -1.7; $x += 2.35) {
                $p->add(Shapes::box(2.33, 0.2, 0.12, 0.02, [6, 1, 1]), C::BEAM, [$x + 1.16, self::LANDING - 0.16, $z], wood: 1.0);
            }
            for ($x = -1.6; $x < 6.2; $x += 2.62) {
                $p->add(Shapes::box(2.6, 0.2, 0.12, 0.02, [6, 1, 1]), C::BEAM, [$x + 1.3, -0.16, $z], wood: 1.0);
            }
        }
        $p->add(Shapes::box(0.1, 0.26, 4.4, 0.015, [1, 1, 12]), C::BEAM, [-1.62, 0.13, -0.05], wood: 1.0, grain: 2);
        $p->add(Shapes::box(0.12, 0.2, 4.4, 0.02, [1, 1, 8]), C::BEAM, [6.22, -0.16, -0.05], wood: 1.0, grain: 2);
        for ($x = -6.2; $x < 6.4; $x += 1.55) {
            $top = $x < -1.6 ? self::LANDING : 0.0;
            self::pile($p, $r, $x, -2.42, $top + 0.30 + $r->next() * 0.22);
            self::pile($p, $r, $x + 0.1, 2.0, $top - 0.08);
        }
        self::pile($p, $r, 6.42, -1.2, 0.42);
        self::pile($p, $r, 6.42, 1.2, 0.36);
    }

    private static function pile(Piece $p, Random $random, float $x, float $z, float $top): void
    {
        $r = 0.125 + $random->next() * 0.02;
        $h = $top + 1.6;
        $p->add(Shapes::lathe([
            [$r * 1.1, 0.0], [$r * 1.08, $h * 0.25], [$r * 1.04, $h * 0.4], [$r * 1.05, $h * 0.5], [$r * 1.03, $h * 0.6],
            [$r * 1.02, $h * 0.75], [$r, $h - 0.09], [$r * 0.95, $h - 0.03], [$r * 0.72, $h], [0.0, $h],
        ], 10), static fn (array $q): int => $q[1] < 1.05 ? 0x2F3A30 : ($q[1] < 1.25 ? 0x4B4A3A : C::PILE), [$x, -1.6, $z], wood: 1.0, grain: 1, jitter: 1.2, wave: 0.012, waveRate: 6.0);
    }

    private static function stepAndRamp(Piece $p, Random $r): void
    {
        $p->add(Shapes::box(0.42, 0.15, 1.7, 0.02, [3, 1, 6]), 0x9A7A5A, [-1.37, 0.075, -0.35], wood: 1.0, grain: 2);
        $p->add(Shapes::box(0.44, 0.035, 1.74, 0.014, [2, 1, 6]), 0xB49672, [-1.37, 0.152, -0.35], wood: 1.0, grain: 2);
        $length = 1.75;
        $a = atan2(self::LANDING, $length);
        for ($i = 0; $i < 9; $i++) {
            $t = ($i + 0.5) / 9;
            $p->add(
                Shapes::box(0.185, 0.04, 1.3, 0.011, [1, 1, 5]), $r->pick(C::DECK),
                [-1.6 + $length * $t, self::LANDING * (1 - $t) + 0.004, 1.38], [0.0, 0.0, -$a], wood: 1.0, grain: 2, jitter: 0.4,
            );
            if ($i % 2 === 1) {
                $p->add(
                    Shapes::box(0.035, 0.02, 1.24, 0.008, [1, 1, 4]),
                    0x6A4E38,
                    [-1.6 + $length * $t + 0.1, self::LANDING * (1 - $t) + 0.02, 1.38],
                    [0.0, 0.0, -$a],
                    wood: 1.0,
                    grain: 2,
                );
            }
        }
        foreach ([0.72, 2.04] as $z) {
            $p->add(
                Shapes::box($length + 0.1, 0.09, 0.06, 0.014, [6, 1, 1]),
                0x6F5340,
                [-1.6 + $length / 2, self::LANDING / 2 + 0.02, $z],
                [0.0, 0.0, -$a],
                wood: 1.0,
            );
        }
    }

    private static function bollard(Piece $p, float $x, float $y, float $z): void
    {
        $p->add(Shapes::lathe([
            [0.20, 0.0], [0.20, 0.012], [0.19, 0.035], [0.13, 0.045], [0.105, 0.10], [0.10, 0.20], [0.105, 0.30], [0.14, 0.325],
            [0.165, 0.36], [0.155, 0.40], [0.10, 0.435], [0.0, 0.44],
        ], 16), static fn (array $q): int => $q[1] > 0.17 && $q[1] < 0.29 ? C::WHITE : C::IRON, [$x, $y, $z], gloss: 0.25, jitter: 1.0, wave: 0.004);
        for ($k = 0; $k < 3; $k++) {
            $loop = [];
            for ($i = 0; $i < 12; $i++) {
                $a = $i / 12 * 2 * M_PI;
                $loop[] = [$x + cos($a) * 0.125, $y + 0.075 + $k * 0.045 + 0.01 * sin($a + $k), $z + sin($a) * 0.125];
            }
            $p->add(Shapes::tube($loop, 0.02, section: 6, closed: true, lobes: 3), C::ROPE, jitter: 0.0, wear: 0.6);
        }
    }

    private static function ropes(Piece $p): void
    {
        $coil = [];
        for ($i = 0; $i <= 60; $i++) {
            $a = $i / 12 * 2 * M_PI * 0.62;
            $r = 0.08 + $i * 0.0045;
            $coil[] = [4.75 + cos($a) * $r, 0.022, -1.55 + sin($a) * $r];
        }
        array_push($coil, [5.1, 0.02, -1.75], [5.22, 0.06, -1.95]);
        $p->add(Shapes::tube($coil, 0.019, 110, 6, lobes: 3), C::ROPE, jitter: 0.0, wear: 0.6);
        foreach ([[[1.35, 0.2, -2.1], [0.35, 0.42, -3.0]], [[5.3, 0.2, -2.1], [6.1, 0.5, -3.2]]] as [$a, $b]) {
            $sag = [];
            for ($i = 0; $i <= 6; $i++) {
                $t = $i / 6;
                $sag[] = [$a[0] + ($b[0] - $a[0]) * $t, $a[1] + ($b[1] - $a[1]) * $t - 0.4 * $t * (1 - $t), $a[2] + ($b[2] - $a[2]) * $t];
            }
            $p->add(Shapes::tube($sag, 0.018, section: 6, lobes: 3), C::ROPE, jitter: 0.0, wear: 0.6);
        }
    }
}
