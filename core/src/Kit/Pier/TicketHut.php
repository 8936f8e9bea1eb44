<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;
use CrispReel\Core\Math\Random;

/** Ticket hut, 1.9 by 1.5 m, eaves at 2.1 m: boarded walls, a lit window with a counter, a shingled roof, a door lamp. */
final class TicketHut
{
    private const W = 1.9;

    private const D = 1.5;

    private const H = 2.1;

    public static function draw(Piece $p): void
    {
        $r = new Random(6);
        $p->add(Shapes::box(self::W + 0.16, 0.12, self::D + 0.16, 0.03, [6, 1, 5]), C::BEAM, [0.0, 0.06, 0.0], wood: 1.0);
        self::walls($p, $r);
        self::window($p);
        self::roof($p, $r);
        self::lamp($p);
        self::flowers($p, $r);
        $p->mount('counter', [0.0, 0.93, self::D / 2 + 0.16])->mount('door', [self::W / 2 + 0.3, 0.0, -0.16]);
    }

    private static function walls(Piece $p, Random $r): void
    {
        $d = self::D;
        $w = self::W;
        $h = self::H;
        for ($i = 0; $i < 11; $i++) {
            $x = (($i + 0.5) / 11 - 0.5) * $w;
            foreach (abs($x) < 0.52 ? [[0.1, 1.0], [1.72, $h]] : [[0.1, $h]] as [$a, $b]) {
                $p->add(
                    Shapes::box($w / 11 - 0.012, $b - $a, 0.06, 0.013, [1, max(1, (int) round(($b - $a) / 0.4)), 1], '-z'),
                    $r->pick(C::HUT), [$x, ($a + $b) / 2, $d / 2], wood: 1.0, grain: 1, jitter: 0.35, wave: 0.004,
                );
            }
            $p->add(
                Shapes::box($w / 11 - 0.012, $h - 0.1, 0.06, 0.013, [1, 2, 1], '+z'),
                $r->pick(C::HUT),
                [$x, ($h + 0.1) / 2, -$d / 2],
                wood: 1.0,
                grain: 1,
                jitter: 0.35,
            );
        }
        foreach ([-1.0, 1.0] as $s) {
            for ($i = 0; $i < 9; $i++) {
                $z = (($i + 0.5) / 9 - 0.5) * $d;
                $a = $s > 0 && $z > -0.52 && $z < 0.2 ? 1.92 : 0.1;
                $p->add(
                    Shapes::box(0.06, $h - $a, $d / 9 - 0.012, 0.013, [1, $a > 1 ? 1 : 4, 1]), $r->pick(C::HUT),
                    [$s * $w / 2, ($h + $a) / 2, $z], wood: 1.0, grain: 1, jitter: 0.35, wave: 0.004,
                );
            }
            foreach ([-1.0, 1.0] as $q) {
                $p->add(
                    Shapes::box(0.13, $h + 0.04, 0.13, 0.026, [1, 6, 1]),
                    C::TRIM,
                    [$s * $w / 2, $h / 2 + 0.04, $q * $d / 2],
                    wood: 1.0,
                    grain: 1,
                );
            }
        }
        $p->add(Shapes::box(0.05, 1.84, 0.74, 0.012, [1, 5, 3]), C::DOOR, [$w / 2 - 0.01, 1.02, -0.16], wood: 1.0, grain: 1);
        foreach ([0.5, 1.5] as $y) {
            $p->add(Shapes::box(0.03, 0.13, 0.7, 0.012, [1, 1, 3]), 0xB06630, [$w / 2 + 0.025, $y, -0.16], wood: 1.0, grain: 2);
        }
        $p->add(Shapes::sphere(0.035, 10, 6), C::BRASS, [$w / 2 + 0.07, 1.0, 0.1], gloss: 1.0);
    }

    private static function window(Piece $p): void
    {
        $z = self::D / 2;
        $p->add(Shapes::box(1.04, 0.74, 0.02, 0.005, [8, 6, 1]), static function (array $q): array {
            $f = max(0.0, 1 - hypot($q[0] + 0.1, $q[1] * 1.3 - 0.06) * 1.1);

            return [1.05 + 0.5 * $f, 0.26 + 0.27 * $f, 0.035 + 0.075 * $f];
        }, [0.0, 1.36, $z - 0.02], glow: 1.0, wear: 0.0, vary: 0.0);
        $p->add(Shapes::lathe([[0.09, 0.0], [0.06, 0.1], [0.12, 0.2], [0.1, 0.28], [0.0, 0.3]], 10), 0x3C2A22, [0.28, 1.0, $z - 0.045]);
        $p->add(Shapes::box(0.3, 0.14, 0.03, 0.01), 0x503425, [-0.24, 1.06, $z - 0.0]);
        foreach ([-0.56, 0.56] as $x) {
            $p->add(Shapes::box(0.09, 0.92, 0.1, 0.02, [1, 3, 1]), C::TRIM, [$x, 1.36, $z + 0.03], wood: 1.0, grain: 1);
        }
        foreach ([0.96, 1.76] as $y) {
            $p->add(Shapes::box(1.24, 0.09, 0.1, 0.02, [4, 1, 1]), C::TRIM, [0.0, $y, $z + 0.03], wood: 1.0);
        }
        $p->add(Shapes::box(0.035, 0.74, 0.04, 0.01), C::TRIM, [0.0, 1.36, $z + 0.02], wood: 1.0, grain: 1);
        $p->add(Shapes::box(1.04, 0.035, 0.04, 0.01), C::TRIM, [0.0, 1.5, $z + 0.02], wood: 1.0);
        $p->add(Shapes::box(1.4, 0.05, 0.3, 0.018, [6, 1, 2]), 0xB98A58, [0.0, 0.90, $z + 0.16], wood: 1.0);
        foreach ([-0.5, 0.5] as $x) {
            $p->add(Shapes::box(0.05, 0.22, 0.2, 0.015), C::TRIM, [$x, 0.78, $z + 0.1], [0.5, 0.0, 0.0], wood: 1.0);
        }
        $p->add(Shapes::box(1.15, 0.26, 0.05, 0.025, [6, 2, 1]), 0x2F4F5E, [0.0, 1.95, $z + 0.07], [0.06, 0.0, 0.012], wood: 1.0);
        $p->add(Shapes::box(1.03, 0.16, 0.012, 0.006, [6, 2, 1]), 0xE8D4A2, [0.0, 1.95, $z + 0.098], [0.06, 0.0, 0.012]);
        $p->add(Shapes::box(0.26, 0.05, 0.012, 0.006), C::RED, [0.02, 1.92, $z + 0.106], wear: 0.3);
        $p->add(Shapes::box(0.1, 0.05, 0.012, 0.006), 0x2F4F5E, [0.0, 1.965, $z + 0.106], wear: 0.3);
        foreach ([-1.0, 1.0] as $s) {
            $p->add(Shapes::box(0.17, 0.018, 0.01, 0.005), 0x2F4F5E, [$s * 0.34, 1.945, $z + 0.106], wear: 0.3);
        }
    }

    private static function roof(Piece $p, Random $r): void
    {
        $h = self::H;
        $slope = 0.62;
        $rise = sin($slope);
        foreach ([-1.0, 1.0] as $s) {
            $p->add(
                Shapes::box(2.38, 0.03, 1.2, 0.012, [5, 1, 3]), 0x7A4A38, [0.0, $h + 0.345, $s * 0.48], [$s * $slope, 0.0, 0.0],
                wood: 1.0, jitter: 0.0, shift: 0.0,
            );
            for ($row = 0; $row < 6; $row++) {
                for ($i = 0; $i < 11; $i++) {
                    $x = -1.16 + $i * 0.22 + ($row % 2) * 0.11;
                    if ($x > 1.03) {
                        continue;
                    }
                    $out = 0.06 + $row * 0.18;
                    $p->add(Shapes::box(0.205 + $r->next() * 0.02, 0.035, 0.27, 0.013, [1, 1, 1], '-y'), $r->pick(C::ROOF), [
                        $x + 0.03, $h + 0.72 - $out * $rise + 0.006 * (($row * 7 + $i * 3) % 3), $s * ($out * cos($slope) + 0.02),
                    ], [$s * ($slope - 0.09), 0.0, 0.0], wood: 1.0, grain: 2, jitter: 1.3, shift: 0.006, vary: 0.14, wave: 0.004);
                }
            }
            for ($i = 0; $i < 5; $i++) {
                $hh = 0.62 * (1 - abs($i - 2) / 2.7);
                $p->add(
                    Shapes::box(0.05, $hh, 0.26, 0.012, [1, 2, 1]),
                    $r->pick(C::HUT),
                    [$s * 0.9, $h + $hh / 2 - 0.02, ($i - 2) * 0.27],
                    wood: 1.0,
                    grain: 1,
                );
            }
            foreach ([-1.0, 1.0] as $q) {
                $p->add(
                    Shapes::box(0.06, 0.09, 1.14, 0.016, [1, 1, 5]),
                    C::TRIM,
                    [$s * 1.12, $h + 0.36, $q * 0.46],
                    [$q * $slope, 0.0, 0.0],
                    wood: 1.0,
                    grain: 2,
                );
            }
        }
        for ($i = 0; $i < 6; $i++) {
            $p->add(
                Shapes::tube(
                    [[-1.2 + $i * 0.41, $h + 0.73, 0.0], [-0.99 + $i * 0.41, $h + 0.74, 0.0], [-0.77 + $i * 0.41, $h + 0.73, 0.0]],
                    0.062,
                    4,
                    8,
                ),
                $r->pick(C::ROOF),
                jitter: 1.0,
            );
        }
        $p->add(Shapes::box(0.2, 0.5, 0.2, 0.03, [1, 3, 1]), 0x8A5A48, [-0.5, $h + 0.66, -0.35]);
        $p->add(Shapes::box(0.26, 0.07, 0.26, 0.025), 0x6A4438, [-0.5, $h + 0.92, -0.35]);
    }

    private static function lamp(Piece $p): void
    {
        $z = self::D / 2;
        $p->add(
            Shapes::tube([[0.72, 1.88, $z + 0.02], [0.74, 2.0, $z + 0.18], [0.78, 2.02, $z + 0.34], [0.78, 1.95, $z + 0.4]], 0.016, 12, 6),
            C::IRON,
        );
        $p->add(
            Shapes::lathe([[0.0, 0.02], [0.10, -0.005], [0.115, 0.0], [0.10, 0.04], [0.05, 0.115], [0.012, 0.13]], 14),
            C::RED,
            [0.78, 1.85, $z + 0.4],
            gloss: 0.3,
        );
        $p->add(Shapes::sphere(0.052), static fn (): array => [1.5, 1.0, 0.5], [0.78, 1.84, $z + 0.4], glow: 1.0, vary: 0.0);
    }

    private static function flowers(Piece $p, Random $r): void
    {
        $z = self::D / 2 + 0.3;
        $p->add(Shapes::box(0.5, 0.16, 0.2, 0.02, [3, 1, 1]), 0x9B6A42, [-1.02, 0.1, $z], wood: 1.0);
        for ($i = 0; $i < 22; $i++) {
            $p->add(Shapes::sphere(0.04 + $r->next() * 0.03, 7, 5), $i % 3 > 0 ? 0x5C7A3C : [0xE08A4A, 0xE6B04C, 0xC8473A][intdiv($i % 9, 3)], [
                -1.02 + ($r->next() - 0.5) * 0.46, 0.2 + $r->next() * 0.15, $z + ($r->next() - 0.5) * 0.16,
            ], wave: 0.006, waveRate: 40.0);
        }
    }
}
