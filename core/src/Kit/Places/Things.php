<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** Things for hands and corners: cups, brooms, cases, a ball. Each has a mount where a hand or another thing would go. */
final class Things
{
    public static function cup(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [[0.0, 0.0], [0.028, 0.0], [0.034, 0.01], [0.040, 0.07], [0.042, 0.085], [0.037, 0.085], [0.032, 0.02], [0.0, 0.015]],
                16,
            ),
            C::ENAMEL,
            gloss: 0.5,
            wave: 0.0006,
        );
        $p->add(
            Shapes::tube([[0.036, 0.07, 0.0], [0.066, 0.062, 0.0], [0.062, 0.03, 0.0], [0.034, 0.022, 0.0]], 0.006, 10, 6),
            C::ENAMEL,
            gloss: 0.5,
            wave: 0.0004,
        );
        $p->mount('hold', [0.0, 0.045, 0.0]);
    }

    public static function bottle(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [
                    [0.0, 0.0], [0.036, 0.0], [0.040, 0.01], [0.040, 0.15], [0.030, 0.185], [0.014, 0.21], [0.013, 0.26], [0.016, 0.262],
                    [0.016, 0.275], [0.0, 0.276],
                ],
                16,
            ),
            0x2F5A46,
            gloss: 0.9,
            wave: 0.0005,
        );
        $p->mount('hold', [0.0, 0.10, 0.0]);
    }

    public static function plate(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.07, 0.0], [0.115, 0.016], [0.12, 0.02], [0.11, 0.02], [0.068, 0.008], [0.0, 0.008]], 24),
            C::ENAMEL,
            gloss: 0.5,
            wave: 0.0005,
        );
        $p->mount('hold', [0.1, 0.012, 0.0])->mount('top', [0.0, 0.012, 0.0]);
    }

    public static function bread(Piece $p): void
    {
        $p->add(
            Shapes::box(0.28, 0.11, 0.13, 0.055, [5, 3, 3]),
            static fn (array $q): int => $q[1] > 0.03 ? 0x9A5E2E : 0xC98B4A,
            [0.0, 0.055, 0.0],
            wave: 0.008,
            waveRate: 30.0,
        );
        $p->mount('hold', [0.0, 0.06, 0.0]);
    }

    public static function apple(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.006], [0.018, 0.0], [0.036, 0.016], [0.041, 0.042], [0.034, 0.066], [0.014, 0.072], [0.0, 0.064]], 16),
            static fn (array $q): int => $q[0] > 0.012 ? 0xB8402F : 0xA83A2C,
            gloss: 0.3,
            wave: 0.001,
            waveRate: 40.0,
        );
        $p->add(Shapes::tube([[0.0, 0.062, 0.0], [0.003, 0.078, 0.0], [0.008, 0.088, 0.0]], 0.0025, 4, 5), Wood::DARK);
        $p->mount('hold', [0.0, 0.036, 0.0]);
    }

    public static function book(Piece $p): void
    {
        $p->add(Shapes::box(0.15, 0.03, 0.21, 0.004, [2, 1, 2]), C::ENAMEL, [0.003, 0.0175, 0.0], wave: 0.0008);
        foreach ([0.002, 0.034] as $y) {
            $p->add(Shapes::box(0.16, 0.005, 0.22, 0.002, [2, 1, 2]), 0x2F5D73, [0.0, $y, 0.0]);
        }
        $p->add(Shapes::box(0.006, 0.036, 0.22, 0.002), 0x284F62, [-0.079, 0.018, 0.0]);
        $p->mount('hold', [0.06, 0.018, 0.0]);
    }

    public static function letter(Piece $p): void
    {
        $p->add(Shapes::box(0.15, 0.003, 0.105, 0.001, [3, 1, 2]), C::ENAMEL, [0.0, 0.002, 0.0], wave: 0.001, waveRate: 30.0);
        $p->add(Shapes::lathe([[0.0, 0.0], [0.011, 0.0], [0.009, 0.004], [0.0, 0.005]], 12), C::RED, [0.0, 0.003, 0.0], gloss: 0.4);
        $p->mount('hold', [0.06, 0.002, 0.0]);
    }

    public static function broom(Piece $p): void
    {
        $p->add(Shapes::tube([[0.0, 0.28, 0.0], [0.003, 0.8, 0.0], [0.0, 1.42, 0.0]], 0.014, 8, 8), Wood::PINE, wood: 1.0, grain: 1);
        for ($i = 0; $i < 22; $i++) {
            $a = $i * 2.399;
            $r = 0.018 + 0.012 * ($i % 3);
            $p->add(
                Shapes::tube(
                    [
                        [cos($a) * 0.014, 0.32, sin($a) * 0.010], [cos($a) * $r * 1.4, 0.16, sin($a) * $r],
                        [cos($a) * $r * 2.8, 0.0, sin($a) * $r * 1.5],
                    ],
                    0.008,
                    4,
                    5,
                ),
                0xC9A35E,
                vary: 0.2,
            );
        }
        $p->add(Shapes::ring(0.032, 0.01, 6, 14), C::RED, [0.0, 0.27, 0.0], [M_PI / 2, 0.0, 0.0]);
        $p->mount('gripL', [0.0, 1.2, 0.0])->mount('gripR', [0.0, 0.85, 0.0])->mount('hold', [0.0, 1.0, 0.0]);
    }

    public static function bucket(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [[0.0, 0.0], [0.11, 0.0], [0.15, 0.26], [0.158, 0.265], [0.15, 0.272], [0.142, 0.262], [0.105, 0.02], [0.0, 0.015]],
                20,
            ),
            0x6F7B82,
            gloss: 0.35,
        );
        $p->add(
            Shapes::tube([[-0.15, 0.25, 0.0], [-0.13, 0.38, 0.0], [0.0, 0.44, 0.0], [0.13, 0.38, 0.0], [0.15, 0.25, 0.0]], 0.006, 14, 6),
            C::IRON,
        );
        $p->mount('hold', [0.0, 0.435, 0.0]);
    }

    public static function basket(Piece $p): void
    {
        for ($k = 0; $k < 7; $k++) {
            $p->add(
                Shapes::ring(0.15 + 0.012 * $k, 0.014, 6, 26),
                $k % 2 ? 0xB98D58 : 0xA87C4C,
                [0.0, 0.015 + 0.026 * $k, 0.0],
                [M_PI / 2, 0.0, 0.0],
                wave: 0.003,
                waveRate: 40.0,
            );
        }
        $p->add(Shapes::lathe([[0.0, 0.004], [0.15, 0.004], [0.15, 0.014], [0.0, 0.014]], 20), 0xA87C4C);
        $p->add(
            Shapes::tube([[-0.21, 0.17, 0.0], [-0.15, 0.36, 0.0], [0.0, 0.42, 0.0], [0.15, 0.36, 0.0], [0.21, 0.17, 0.0]], 0.013, 16, 7),
            0x97764F,
        );
        $p->mount('hold', [0.0, 0.415, 0.0])->mount('top', [0.0, 0.03, 0.0]);
    }

    public static function suitcase(Piece $p): void
    {
        $p->add(Shapes::box(0.56, 0.38, 0.18, 0.035, [4, 3, 2]), 0x7D4B28, [0.0, 0.20, 0.0], wave: 0.004);
        foreach ([-0.16, 0.16] as $x) {
            $p->add(Shapes::box(0.045, 0.40, 0.195, 0.012, [1, 3, 1]), 0x5A3420, [$x, 0.20, 0.0]);
            $p->add(Shapes::box(0.03, 0.04, 0.012, 0.004), C::BRASS, [$x, 0.30, 0.10], gloss: 0.9);
        }
        $p->add(Shapes::tube([[-0.09, 0.395, 0.0], [-0.07, 0.44, 0.0], [0.07, 0.44, 0.0], [0.09, 0.395, 0.0]], 0.013, 10, 7), 0x5A3420);
        $p->mount('hold', [0.0, 0.44, 0.0])->mount('seat', [0.0, 0.39, 0.0]);
    }

    public static function umbrella(Piece $p): void
    {
        $n = 8;
        $points = [];
        for ($i = 0; $i <= $n; $i++) {
            $a = 2 * M_PI * ($i % $n) / $n;
            for ($j = 0; $j <= 5; $j++) {
                $t = $j / 5;
                $points[] = [cos($a) * 0.52 * $t, 0.92 - 0.24 * $t * $t - 0.02 * sin(M_PI * $t), sin($a) * 0.52 * $t];
            }
        }
        $p->add(Shapes::sheet($points, 5, $n), 0x2F5D73, jitter: 0.0, wave: 0.0);
        $p->add(
            Shapes::tube([[0.0, 0.99, 0.0], [0.0, 0.5, 0.0], [0.0, 0.08, 0.0], [0.03, 0.0, 0.0], [0.075, 0.03, 0.0]], 0.010, 16, 7),
            Wood::DARK,
        );
        $p->mount('hold', [0.0, 0.14, 0.0]);
    }

    public static function ball(Piece $p): void
    {
        $p->add(
            Shapes::sphere(0.11, 20, 14),
            static fn (array $q): int => abs($q[1]) < 0.028 ? C::ENAMEL : ($q[1] > 0 ? C::RED : 0x2F5D73),
            [0.0, 0.11, 0.0],
            gloss: 0.15,
            wave: 0.0,
        );
        $p->mount('hold', [0.0, 0.11, 0.0]);
    }

    public static function candle(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.06, 0.0], [0.062, 0.01], [0.02, 0.016], [0.018, 0.05], [0.0, 0.05]], 16),
            C::BRASS,
            gloss: 0.9,
        );
        $p->add(Shapes::lathe([[0.0, 0.045], [0.014, 0.045], [0.014, 0.16], [0.0, 0.162]], 12), C::ENAMEL);
        $p->add(
            Shapes::lathe([[0.0, 0.168], [0.008, 0.178], [0.005, 0.196], [0.0, 0.21]], 10),
            static fn (array $q): array => [1.8, 1.05, 0.32],
            glow: 1.0,
            vary: 0.0,
        );
        $p->mount('hold', [0.0, 0.03, 0.0]);
    }

    public static function hammer(Piece $p): void
    {
        $p->add(Shapes::tube([[0.0, 0.0, 0.0], [0.0, 0.15, 0.0], [0.0, 0.32, 0.0]], 0.013, 6, 8), Wood::PINE, wood: 1.0, grain: 1);
        $p->add(Shapes::box(0.13, 0.035, 0.035, 0.008, [2, 1, 1]), C::IRON, [0.01, 0.31, 0.0], gloss: 0.4);
        $p->mount('hold', [0.0, 0.08, 0.0]);
    }

    public static function axe(Piece $p): void
    {
        $p->add(Shapes::tube([[0.0, 0.0, 0.0], [0.01, 0.3, 0.0], [0.0, 0.72, 0.0]], 0.015, 8, 8), Wood::OAK, wood: 1.0, grain: 1);
        $p->add(Shapes::box(0.15, 0.11, 0.026, 0.012, [2, 2, 1]), 0x7A8288, [0.055, 0.67, 0.0], gloss: 0.6);
        $p->mount('hold', [0.0, 0.12, 0.0])->mount('gripL', [0.0, 0.12, 0.0])->mount('gripR', [0.005, 0.42, 0.0]);
    }

    public static function rope(Piece $p): void
    {
        $path = [];
        for ($i = 0; $i < 34; $i++) {
            $a = $i * 0.8;
            $r = 0.16 + 0.02 * sin($i * 1.7);
            $path[] = [cos($a) * $r, 0.02 + 0.004 * $i, sin($a) * $r];
        }
        $p->add(Shapes::tube($path, 0.017, 60, 6, lobes: 3, pitch: 0.07), C::ROPE, jitter: 0.0);
        $p->mount('hold', [0.17, 0.09, 0.0]);
    }

    public static function ladder(Piece $p): void
    {
        foreach ([-0.2, 0.2] as $x) {
            Wood::board($p, 0.05, 2.7, 0.06, Wood::PINE, $x, 1.35, 0.0);
        }
        for ($i = 0; $i < 8; $i++) {
            $p->add(Shapes::tube([[-0.2, 0.3 + 0.3 * $i, 0.0], [0.2, 0.3 + 0.3 * $i, 0.0]], 0.017, 2, 8), Wood::OAK, wood: 1.0);
            $p->mount('rung'.($i + 1), [0.0, 0.315 + 0.3 * $i, 0.0]);
        }
        $p->mount('hold', [0.0, 1.3, 0.03]);
    }

    public static function barrel(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [[0.0, 0.0], [0.26, 0.0], [0.30, 0.2], [0.315, 0.42], [0.30, 0.64], [0.26, 0.84], [0.24, 0.84], [0.24, 0.80], [0.0, 0.80]],
                22,
            ),
            static fn (array $q): int => ((int) floor((atan2($q[0], $q[2]) + M_PI) * 3.5)) % 2 ? 0x8A6A4A : 0x7D5E40,
            wood: 1.0,
            grain: 1,
        );
        foreach ([0.12, 0.32, 0.54, 0.73] as $y) {
            $p->add(
                Shapes::ring(0.30 - abs($y - 0.42) * 0.09 + 0.012, 0.012, 6, 26),
                C::IRON,
                [0.0, $y, 0.0],
                [M_PI / 2, 0.0, 0.0],
                gloss: 0.3,
            );
        }
        $p->mount('top', [0.0, 0.81, 0.0])->mount('seat', [0.0, 0.85, 0.0]);
    }

    public static function signpost(Piece $p): void
    {
        Wood::board($p, 0.09, 2.2, 0.09, C::POST, 0.0, 1.1, 0.0);
        Wood::board($p, 0.78, 0.17, 0.035, C::ENAMEL, 0.30, 1.92, 0.05, yaw: 0.06);
        Wood::board($p, 0.66, 0.16, 0.035, 0x3F6F8C, -0.24, 1.66, -0.05, yaw: -0.5);
        $p->mount('lean', [0.0, 1.1, 0.05]);
    }

    public static function postbox(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [
                    [0.0, 0.0], [0.24, 0.0], [0.24, 0.08], [0.20, 0.10], [0.20, 1.12], [0.235, 1.15], [0.235, 1.20], [0.18, 1.29],
                    [0.08, 1.34], [0.0, 1.35],
                ],
                24,
            ),
            C::RED,
            gloss: 0.25,
        );
        $p->add(Shapes::box(0.20, 0.03, 0.03, 0.006), C::INK, [0.0, 0.98, 0.196]);
        $p->add(Shapes::box(0.18, 0.13, 0.01, 0.004), C::ENAMEL, [0.0, 0.82, 0.199]);
        $p->mount('slot', [0.0, 0.98, 0.22]);
    }

    public static function streetLamp(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.15, 0.0], [0.14, 0.12], [0.07, 0.2], [0.05, 0.5], [0.042, 2.4], [0.07, 2.45], [0.0, 2.46]], 14),
            C::IRON,
            gloss: 0.2,
        );
        $p->add(
            Shapes::lathe([[0.0, 2.46], [0.07, 2.46], [0.13, 2.75], [0.0, 2.76]], 8),
            static fn (array $q): array => [1.6, 1.05, 0.5],
            glow: 0.9,
            vary: 0.0,
        );
        $p->add(Shapes::lathe([[0.0, 2.76], [0.17, 2.76], [0.10, 2.86], [0.03, 2.92], [0.0, 2.98]], 8), C::IRON);
        $p->mount('lean', [0.06, 1.2, 0.0]);
    }

    public static function fiddle(Piece $p): void
    {
        $p->add(Shapes::box(0.17, 0.04, 0.19, 0.02, [3, 1, 3]), 0x8A4A24, [0.0, 0.02, 0.0], gloss: 0.5);
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.10, 0.0], [0.108, 0.02], [0.10, 0.04], [0.0, 0.042]], 20),
            0x8A4A24,
            [0.0, 0.0, 0.10],
            gloss: 0.5,
        );
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.085, 0.0], [0.092, 0.02], [0.085, 0.04], [0.0, 0.042]], 20),
            0x8A4A24,
            [0.0, 0.0, -0.08],
            gloss: 0.5,
        );
        $p->add(Shapes::box(0.028, 0.02, 0.36, 0.006, [1, 1, 4]), C::INK, [0.0, 0.055, -0.22]);
        $p->add(Shapes::sphere(0.022, 10, 8), 0x6B3A1E, [0.0, 0.05, -0.41]);
        $p->mount('hold', [0.0, 0.05, -0.30])->mount('chin', [0.0, 0.05, 0.16]);
    }

    public static function globe(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.11, 0.0], [0.10, 0.02], [0.02, 0.04], [0.018, 0.10], [0.0, 0.10]], 16),
            Wood::DARK,
            wood: 1.0,
        );
        $p->add(
            Shapes::sphere(0.14, 22, 16),
            static fn (array $q): int => sin($q[0] * 34 + 2) * sin($q[2] * 27 + 1) + 0.6 * sin($q[1] * 40) > 0.35 ? 0x7F8C52 : 0x3F6F8C,
            [0.0, 0.25, 0.0],
            gloss: 0.2,
            wave: 0.0,
        );
        $p->add(Shapes::ring(0.158, 0.006, 6, 30), C::BRASS, [0.0, 0.25, 0.0], [M_PI / 2, 0.0, 0.4], gloss: 0.9);
        $p->mount('hold', [0.14, 0.25, 0.0]);
    }

    public static function kettle(Piece $p): void
    {
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.10, 0.0], [0.125, 0.03], [0.12, 0.10], [0.075, 0.15], [0.03, 0.165], [0.0, 0.165]], 20),
            0xB5653A,
            gloss: 0.8,
        );
        $p->add(Shapes::sphere(0.018, 10, 7), C::INK, [0.0, 0.18, 0.0]);
        $p->add(
            Shapes::tube(
                [[0.11, 0.05, 0.0], [0.17, 0.09, 0.0], [0.20, 0.15, 0.0]],
                static fn (float $t): float => 0.024 - 0.010 * $t,
                6,
                8,
            ),
            0xB5653A,
            gloss: 0.8,
        );
        $p->add(Shapes::tube([[-0.07, 0.15, 0.0], [-0.06, 0.25, 0.0], [0.06, 0.25, 0.0], [0.07, 0.15, 0.0]], 0.009, 12, 7), C::INK);
        $p->mount('hold', [0.0, 0.253, 0.0]);
    }

    public static function tray(Piece $p): void
    {
        $p->add(Shapes::box(0.46, 0.012, 0.30, 0.005, [3, 1, 2]), Wood::OAK, [0.0, 0.008, 0.0], wood: 1.0);
        foreach ([[-0.15, 0.0], [0.15, 0.0]] as [$z]) {
            Wood::board($p, 0.46, 0.04, 0.014, Wood::DARK, 0.0, 0.025, $z);
        }
        foreach ([-0.23, 0.23] as $x) {
            Wood::board($p, 0.014, 0.05, 0.30, Wood::DARK, $x, 0.03, 0.0);
        }
        $p->mount('gripL', [0.23, 0.05, 0.0])->mount('gripR', [-0.23, 0.05, 0.0])->mount('top', [0.0, 0.016, 0.0]);
    }

    public static function clock(Piece $p): void
    {
        $p->add(Shapes::tube([[0.0, 0.0, -0.03], [0.0, 0.0, 0.03]], 0.19, 2, 30), Wood::DARK, jitter: 0.0);
        $p->add(Shapes::tube([[0.0, 0.0, 0.025], [0.0, 0.0, 0.035]], 0.165, 2, 30), C::ENAMEL, jitter: 0.0);
        for ($i = 0; $i < 12; $i++) {
            $a = $i * M_PI / 6;
            $p->add(
                Shapes::box(0.008, 0.03, 0.006, 0.002),
                C::INK,
                [sin($a) * 0.142, cos($a) * 0.142, 0.038],
                [0.0, 0.0, -$a],
                jitter: 0.0,
            );
        }
        foreach ([[0.10, 0.9, 0.012], [0.135, -2.1, 0.008]] as [$l, $a, $w]) {
            $p->add(Shapes::box($w, $l, 0.006, 0.002), C::INK, [sin($a) * $l / 2, cos($a) * $l / 2, 0.042], [0.0, 0.0, -$a], jitter: 0.0);
        }
        $p->mount('hang', [0.0, 0.0, -0.03]);
    }
}
