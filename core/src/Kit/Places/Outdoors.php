<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;
use CrispReel\Core\Math\Random;

/** A forest clearing and a street corner, and the trees, rocks and shops they are made of. */
final class Outdoors
{
    private const LEAF = [0x5E7A3C, 0x6E8A44, 0x4F6E3A, 0x7D8F4A, 0x8A8F46];

    private const BARK = [0x5A4632, 0x66503A, 0x4C3C2C];

    public static function tree(Piece $p, float $h = 4.2, int $seed = 1): void
    {
        $r = new Random($seed);
        $lean = $r->signed() * 0.15;
        $p->add(
            Shapes::tube(
                [[0.0, -0.08, 0.0], [$lean * 0.4, $h * 0.3, $r->signed() * 0.06], [$lean, $h * 0.62, 0.0]],
                static fn (float $t): float => 0.21 - 0.13 * $t + 0.10 * max(0.0, 0.12 - $t) / 0.12,
                8,
                10,
            ),
            $r->pick(self::BARK),
            wood: 1.0,
            grain: 1,
            wave: 0.02,
            waveRate: 6.0,
        );
        for ($i = 0; $i < 5; $i++) {
            $a = $i * 1.2566 + $r->next();
            $p->add(
                Shapes::tube(
                    [
                        [$lean * 0.3, $h * (0.12 + 0.02 * $i) - 0.3, 0.0], [cos($a) * 0.28, 0.02, sin($a) * 0.28],
                        [cos($a) * 0.5, -0.06, sin($a) * 0.5],
                    ],
                    0.06,
                    5,
                    6,
                ),
                $r->pick(self::BARK),
                wood: 1.0,
            );
        }
        for ($i = 0; $i < 9; $i++) {
            $a = $i * 2.399;
            $k = $i / 8;
            $d = ($i === 0 ? 0.0 : 0.75) * (1 - 0.5 * $k) * $h / 4.2;
            $p->add(
                Shapes::sphere((0.78 - 0.26 * $k + 0.12 * $r->next()) * $h / 4.2, 14, 10), $r->pick(self::LEAF),
                [$lean + cos($a) * $d, $h * (0.60 + 0.32 * $k), sin($a) * $d], wave: 0.13, waveRate: 7.0, vary: 0.16, wear: 0.6,
            );
        }
    }

    public static function pine(Piece $p, float $h = 5.0, int $seed = 2): void
    {
        $r = new Random($seed);
        $p->add(
            Shapes::tube(
                [[0.0, -0.05, 0.0], [0.0, $h * 0.5, 0.0], [0.0, $h * 0.96, 0.0]],
                static fn (float $t): float => 0.16 - 0.13 * $t,
                6,
                9,
            ),
            self::BARK[0],
            wood: 1.0,
            grain: 1,
            wave: 0.012,
        );
        for ($i = 0; $i < 6; $i++) {
            $y = $h * (0.22 + 0.125 * $i);
            $w = (1.15 - 0.17 * $i) * $h / 5;
            $p->add(
                Shapes::lathe([[0.04, 0.34 * $w + 0.24], [$w * 0.35, 0.2 * $w + 0.1], [$w, -0.12], [$w * 0.86, -0.16], [0.05, 0.05]], 15),
                [0x3F5E45, 0x48684A, 0x37543F][$i % 3], [$r->signed() * 0.03, $y, $r->signed() * 0.03],
                [$r->signed() * 0.05, $r->next() * 6, $r->signed() * 0.05], wave: 0.075, waveRate: 9.0, vary: 0.12,
            );
        }
    }

    public static function bush(Piece $p): void
    {
        $r = new Random(5);
        for ($i = 0; $i < 6; $i++) {
            $a = $i * 1.1;
            $p->add(
                Shapes::sphere(0.26 + 0.1 * $r->next(), 12, 9),
                $r->pick(self::LEAF),
                [cos($a) * 0.28, 0.20 + 0.1 * $r->next(), sin($a) * 0.24],
                wave: 0.06,
                waveRate: 13.0,
                vary: 0.16,
            );
        }
    }

    public static function rock(Piece $p, float $s = 0.5, int $seed = 3): void
    {
        $p->add(
            Shapes::sphere($s, 14, 10), $seed % 2 ? 0x8A8880 : 0x7A7C78, [0.0, $s * 0.42, 0.0], [0.2, $seed * 1.0, 0.1], wave: $s * 0.2,
            waveRate: 3.4 / $s, vary: 0.08,
        );
        $p->add(Shapes::sphere($s * 0.45, 10, 8), 0x6E7A4C, [$s * 0.15, $s * 0.98, -$s * 0.1], wave: $s * 0.06, waveRate: 12.0);
        $p->mount('seat', [0.0, $s * 1.18, $s * 0.2]);
    }

    public static function log(Piece $p): void
    {
        $p->add(
            Shapes::tube(
                [[-0.95, 0.20, 0.0], [0.0, 0.19, 0.04], [0.95, 0.21, 0.0]],
                static fn (float $t): float => 0.205 + 0.012 * sin($t * 9),
                12,
                14,
            ),
            self::BARK[1],
            wood: 1.0,
            wave: 0.012,
            waveRate: 12.0,
        );
        foreach ([-0.957, 0.957] as $x) {
            $p->add(Shapes::tube([[$x - 0.004, 0.205, 0.0], [$x + 0.004, 0.205, 0.0]], 0.18, 2, 18), 0xC9A06A, jitter: 0.0);
        }
        $p->add(
            Shapes::tube(
                [[0.35, 0.35, 0.04], [0.42, 0.52, 0.10], [0.46, 0.60, 0.16]],
                static fn (float $t): float => 0.055 - 0.03 * $t,
                5,
                7,
            ),
            self::BARK[0],
            wood: 1.0,
        );
        $p->mount('seatL', [0.38, 0.40, 0.02])->mount('seatR', [-0.38, 0.40, 0.02]);
    }

    public static function stump(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.36, 0.0], [0.28, 0.08], [0.25, 0.40], [0.24, 0.42], [0.0, 0.42]], 20),
            static fn (array $q): int => $q[1] > 0.41 && hypot($q[0], $q[2]) < 0.23 ? 0xC9A06A : self::BARK[0],
            wood: 1.0,
            grain: 1,
            wave: 0.014,
            waveRate: 11.0,
        );
        $p->mount('seat', [0.0, 0.43, 0.0])->mount('top', [0.0, 0.43, 0.0]);
    }

    public static function mushroom(Piece $p, float $s = 1.0): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.03 * $s, 0.0], [0.022 * $s, 0.08 * $s], [0.026 * $s, 0.12 * $s], [0.0, 0.12 * $s]], 12),
            C::ENAMEL,
        );
        $p->add(
            Shapes::lathe(
                [[0.0, 0.11 * $s], [0.09 * $s, 0.11 * $s], [0.085 * $s, 0.14 * $s], [0.05 * $s, 0.185 * $s], [0.0, 0.195 * $s]],
                16,
            ),
            C::RED,
            gloss: 0.2,
        );
        for ($i = 0; $i < 5; $i++) {
            $a = $i * 1.2566;
            $p->add(Shapes::sphere(0.011 * $s, 8, 6), C::ENAMEL, [cos($a) * 0.052 * $s, 0.170 * $s, sin($a) * 0.052 * $s]);
        }
    }

    public static function clearing(Piece $p): void
    {
        $r = new Random(12);
        $p->add(
            Shapes::disc(0.02, 9.5, 54, 16),
            static fn (array $q): int => sin($q[0] * 1.3 + 2) * sin($q[1] * 1.1) + 0.5 * sin($q[0] * 3.1 + $q[1] * 2.3) > 0.15
                ? 0x7D8A4E
                : 0x6B7A44,
            [0.0, 0.0, 0.0], [-M_PI / 2, 0.0, 0.0], jitter: 0.0, shift: 0.0, wave: 0.012, waveRate: 2.4, vary: 0.03,
        );
        $p->add(
            Shapes::disc(0.02, 2.1, 32, 5), 0xA08B5E, [0.3, 0.012, 0.6], [-M_PI / 2, 0.0, 0.0], jitter: 0.0, shift: 0.0, wave: 0.008,
            waveRate: 3.0,
        );
        $k = 0;
        for ($i = 0; $i < 17; $i++) {
            $a = M_PI * (0.97 - 1.94 * $i / 16) + M_PI;
            // The side towards the audience stays open.
            $a = -M_PI / 2 + (($i - 8) / 8) * 2.45;
            $d = 5.0 + 1.3 * $r->next() + ($i % 3 === 0 ? 1.6 : 0.0);
            $x = cos($a) * $d;
            $z = sin($a) * $d;
            $p->in(
                $x,
                0.0,
                $z,
                $i % 3 === 1
                    ? static fn (Piece $q) => self::pine($q, 4.4 + 1.6 * $r->next(), $i)
                    : static fn (Piece $q) => self::tree($q, 3.8 + 1.3 * $r->next(), $i),
                $r->next() * 6,
            );
        }
        foreach ([[-3.4, -1.8, 0.62], [3.7, -0.9, 0.48], [2.9, -2.9, 0.36], [-2.6, 2.6, 0.30]] as [$x, $z, $s]) {
            $p->in($x, -0.05, $z, static function (Piece $q) use ($s, &$k): void {
                $q->add(
                    Shapes::sphere($s, 14, 10),
                    0x84847C,
                    [0.0, $s * 0.35, 0.0],
                    [0.2, $k++ * 1.3, 0.1],
                    wave: $s * 0.2,
                    waveRate: 3.4 / $s,
                );
            });
        }
        foreach ([[-4.2, 0.6], [4.4, 1.2], [-1.4, -4.2], [1.8, -4.4], [-4.6, -2.6], [5.0, -2.4]] as $i => [$x, $z]) {
            $p->in($x, 0.0, $z, self::bush(...), $i * 1.1);
        }
        foreach ([[-2.9, -1.2, 1.0], [-2.75, -1.05, 0.6], [3.2, -0.4, 0.8], [-1.9, 2.2, 0.7]] as [$x, $z, $s]) {
            $p->in($x, 0.0, $z, static fn (Piece $q) => self::mushroom($q, $s));
        }
        $p->in(1.5, 0.0, -1.9, self::log(...), 0.35);
        $p->in(-1.5, 0.0, -1.6, self::stump(...));
        for ($i = 0; $i < 46; $i++) {
            $a = $r->next() * 6.283;
            $d = 2.3 + 4.6 * $r->next();
            $h = 0.12 + 0.14 * $r->next();
            [$x, $z] = [cos($a) * $d, sin($a) * $d];
            for ($j = 0; $j < 3; $j++) {
                $b = $j * 2.1 + $i;
                $p->add(
                    Shapes::tube(
                        [
                            [$x, 0.0, $z], [$x + cos($b) * 0.03, $h * 0.6, $z + sin($b) * 0.03],
                            [$x + cos($b) * 0.09, $h, $z + sin($b) * 0.09],
                        ],
                        static fn (float $t): float => 0.009 * (1 - $t) + 0.002,
                        3,
                        4,
                    ),
                    $r->pick(self::LEAF),
                    vary: 0.2,
                );
            }
        }
        $p->mount('middle', [0.0, 0.0, 0.5]);
    }

    /** A shop front 4 m wide: door, display, awning, sign. */
    public static function shop(Piece $p, int $wall, int $awning, int $door, bool $lit = true): void
    {
        Wood::wall($p, 4.0, 4.6, $wall, C::BEAM, [[-1.7, 0.45, 0.55, 2.15], [0.75, 1.65, 0.0, 2.2]]);
        $p->in(
            -0.625,
            1.35,
            -0.02,
            static fn (Piece $q) => Wood::window($q, 0.0, 0.0, 2.15, 1.6, $door, $lit ? [0.62, 0.30, 0.11] : [0.20, 0.26, 0.30]),
        );
        self::display($p);
        Wood::board($p, 2.35, 0.10, 0.34, Wood::OAK, -0.625, 0.52, 0.14);
        $p->add(Shapes::box(0.86, 2.14, 0.06, 0.012, [2, 5, 1]), $door, [1.2, 1.08, -0.01], wood: 1.0, grain: 1);
        $p->add(
            Shapes::box(0.56, 0.9, 0.03, 0.006, [2, 3, 1]),
            static fn (array $q): array => [0.62, 0.30, 0.11],
            [1.2, 1.45, 0.02],
            glow: 0.8,
            vary: 0.0,
        );
        $p->add(Shapes::sphere(0.03, 10, 7), C::BRASS, [0.88, 1.02, 0.06], gloss: 0.9);
        for ($i = 0; $i < 8; $i++) {
            $p->add(
                Shapes::box(0.44, 0.02, 1.0, 0.008, [1, 1, 3]),
                $i % 2 ? C::ENAMEL : $awning,
                [-1.72 + 0.44 * $i, 2.52, 0.5],
                [0.46, 0.0, 0.0],
                wave: 0.006,
            );
            $p->add(Shapes::box(0.42, 0.18, 0.015, 0.01, [1, 1, 1]), $i % 2 ? C::ENAMEL : $awning, [-1.72 + 0.44 * $i, 2.21, 0.94]);
        }
        Wood::board($p, 3.3, 0.42, 0.06, $door, 0.0, 3.02, 0.08);
        for ($i = 0; $i < 5; $i++) {
            $p->add(Shapes::box(0.22, 0.045, 0.03, 0.01), C::BRASS, [-0.8 + 0.4 * $i, 3.02, 0.12], gloss: 0.6);
        }
        foreach ([-1.1, 1.1] as $x) {
            $p->in($x, 3.9, 0.04, static fn (Piece $q) => Wood::window($q, 0.0, 0.0, 0.8, 0.9, C::TRIM, [0.46, 0.5, 0.5]));
        }
        Wood::board($p, 4.1, 0.22, 0.26, C::TRIM, 0.0, 4.66, 0.06);
        $p->mount('door', [1.2, 0.0, 0.5])->mount('window', [-0.6, 1.2, 0.4]);
    }

    /** What stands in a shop's window, before its light. */
    private static function display(Piece $p): void
    {
        Wood::board($p, 2.0, 0.03, 0.12, Wood::DARK, -0.625, 1.28, 0.06);
        foreach ([-1.4, -1.12, -0.86, -0.36, -0.1, 0.14] as $i => $x) {
            foreach ([0.60, 1.295] as $k => $y) {
                $h = 0.16 + 0.05 * (($i * 3 + $k * 2) % 4);
                $colour = [0xA84F35, 0x3F6B5A, 0xD8A84A, 0x6C4A86, 0xC9D2C4][($i + 2 * $k) % 5];
                $p->add(
                    Shapes::lathe([[0.0, 0.0], [0.07, 0.0], [0.09, 0.4 * $h], [0.035, 0.75 * $h], [0.05, $h], [0.0, $h]], 10), $colour,
                    [$x + 0.04 * $k, $y, 0.07], gloss: 0.3, wave: 0.0,
                );
            }
        }
    }

    public static function streetCorner(Piece $p): void
    {
        $r = new Random(8);
        // Cobbles of the road, flags of the pavement, a kerb of 12 cm between.
        $p->add(
            Shapes::box(13.0, 0.10, 5.4, 0.01, [30, 1, 14], '-y'), 0x6E6A66, [0.0, -0.17, 3.3], jitter: 0.0, shift: 0.0, wave: 0.012,
            waveRate: 15.0, vary: 0.02,
        );
        for ($i = 0; $i < 13; $i++) {
            for ($j = 0; $j < 3; $j++) {
                $p->add(
                    Shapes::box(0.98, 0.12, 0.96, 0.012, [1, 1, 1], '-y'),
                    $r->pick([0x9C9488, 0xA59C8E, 0x938B80]),
                    [-6.0 + $i, -0.06, -1.9 + $j],
                    jitter: 0.25,
                    shift: 0.003,
                    wave: 0.002,
                );
            }
            Wood::board($p, 0.98, 0.14, 0.14, 0xB0A898, -6.0 + $i, -0.07, 0.57);
        }
        $p->in(-3.6, 0.0, -2.4, static fn (Piece $q) => self::shop($q, 0xC9A98A, 0xA84F35, 0x3F6B5A));
        $p->in(0.5, 0.0, -2.4, static fn (Piece $q) => self::shop($q, 0x9FB0B4, 0x2F5D73, 0x7A3347));
        $p->in(4.3, 0.0, -2.4, static fn (Piece $q) => self::shop($q, 0xD8C49A, 0x4D7A4A, 0x6C4A86, false));
        $p->in(-5.5, 0.0, 0.05, Things::streetLamp(...));
        $p->in(2.7, 0.0, 0.15, Things::streetLamp(...));
        $p->in(-1.7, 0.0, -1.9, Things::postbox(...));
        foreach ([[-4.6, -2.0], [-2.6, -1.95], [5.9, -1.9]] as $i => [$x, $z]) {
            $p->in($x, 0.0, $z, static fn (Piece $q) => $i === 1 ? Things::barrel($q) : Things::basket($q));
        }
        $p->in(1.9, 0.0, -1.75, static fn (Piece $q) => \CrispReel\Core\Kit\Pier\Props::crate($q, 0.42, 3));
        $p->mount('corner', [0.0, 0.0, -0.6]);
    }
}
