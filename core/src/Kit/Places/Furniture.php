<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** Chairs, tables, shelves, a stove: things that stand in rooms. Each is drawn about the middle of its foot. */
final class Furniture
{
    public static function chair(Piece $p, int $colour = Wood::OAK): void
    {
        Wood::legs($p, 0.42, 0.42, 0.44, $colour, 0.042);
        Wood::board($p, 0.44, 0.035, 0.44, $colour, 0.0, 0.45, 0.0);
        foreach ([-0.18, 0.18] as $x) {
            Wood::board($p, 0.04, 0.50, 0.04, $colour, $x, 0.70, -0.20, pitch: -0.10);
        }
        foreach ([0.66, 0.78, 0.90] as $y) {
            Wood::board($p, 0.38, 0.055, 0.025, $colour, 0.0, $y, -0.205 - ($y - 0.66) * 0.1, pitch: -0.10);
        }
        $p->mount('seat', [0.0, 0.465, 0.0]);
    }

    public static function stool(Piece $p): void
    {
        $p->add(Shapes::lathe([[0.0, 0.44], [0.16, 0.44], [0.175, 0.455], [0.16, 0.475], [0.0, 0.478]], 20), Wood::PINE, wood: 1.0);
        for ($i = 0; $i < 3; $i++) {
            $a = $i * 2.0944 + 0.5;
            $p->add(
                Shapes::tube(
                    [[cos($a) * 0.10, 0.44, sin($a) * 0.10], [cos($a) * 0.15, 0.2, sin($a) * 0.15], [cos($a) * 0.19, 0.0, sin($a) * 0.19]],
                    0.02,
                    4,
                    7,
                ),
                Wood::DARK,
                wood: 1.0,
                grain: 1,
            );
        }
        $p->mount('seat', [0.0, 0.48, 0.0]);
    }

    public static function table(Piece $p): void
    {
        for ($i = 0; $i < 4; $i++) {
            Wood::board($p, 1.4, 0.04, 0.195, [Wood::OAK, 0xA47C4E, 0x92693F, 0xA17748][$i], 0.0, 0.72, -0.30 + 0.2 * $i);
        }
        Wood::legs($p, 1.32, 0.72, 0.70, Wood::DARK, 0.075);
        foreach ([-0.32, 0.32] as $z) {
            Wood::board($p, 1.2, 0.09, 0.03, Wood::DARK, 0.0, 0.65, $z);
        }
        $p->mount('top', [0.0, 0.742, 0.0])->mount('topL', [0.45, 0.742, 0.0])->mount('topR', [-0.45, 0.742, 0.0]);
    }

    public static function roundTable(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [
                    [0.0, 0.0], [0.26, 0.0], [0.24, 0.03], [0.06, 0.06], [0.04, 0.2], [0.055, 0.5], [0.05, 0.68], [0.16, 0.70],
                    [0.40, 0.71], [0.42, 0.725], [0.40, 0.74], [0.0, 0.742],
                ],
                26,
            ),
            0x3F6E78,
            wood: 1.0,
            grain: 1,
        );
        $p->mount('top', [0.0, 0.745, 0.0]);
    }

    public static function desk(Piece $p): void
    {
        Wood::board($p, 0.72, 0.03, 0.46, Wood::PINE, 0.0, 0.70, 0.0, pitch: 0.08);
        Wood::board($p, 0.70, 0.14, 0.02, Wood::OAK, 0.0, 0.62, 0.20);
        foreach ([-0.31, 0.31] as $x) {
            Wood::board($p, 0.04, 0.68, 0.06, C::IRON, $x, 0.34, 0.14);
            Wood::board($p, 0.05, 0.05, 0.48, C::IRON, $x, 0.03, 0.0);
        }
        $p->add(Shapes::lathe([[0.0, 0.0], [0.03, 0.0], [0.028, 0.05], [0.0, 0.05]], 10), 0x2C3A4A, [0.27, 0.70, -0.15]);
        $p->mount('top', [0.0, 0.72, 0.0]);
    }

    public static function armchair(Piece $p): void
    {
        $cloth = 0x7A3F3A;
        $p->add(Shapes::box(0.66, 0.26, 0.64, 0.07, [4, 2, 4]), $cloth, [0.0, 0.25, 0.02], wave: 0.008, waveRate: 12.0);
        $p->add(Shapes::box(0.58, 0.14, 0.56, 0.06, [4, 2, 4]), 0x8D4B44, [0.0, 0.41, 0.04], wave: 0.01, waveRate: 14.0);
        $p->add(Shapes::box(0.66, 0.72, 0.18, 0.08, [4, 4, 2]), $cloth, [0.0, 0.66, -0.27], [-0.16, 0.0, 0.0], wave: 0.01, waveRate: 10.0);
        foreach ([-0.37, 0.37] as $x) {
            $p->add(Shapes::box(0.16, 0.36, 0.66, 0.07, [2, 3, 4]), $cloth, [$x, 0.42, 0.02], wave: 0.006);
        }
        Wood::legs($p, 0.62, 0.6, 0.12, Wood::DARK, 0.06);
        $p->mount('seat', [0.0, 0.48, 0.06])->mount('armL', [0.37, 0.61, 0.1])->mount('armR', [-0.37, 0.61, 0.1]);
    }

    public static function sofa(Piece $p): void
    {
        $cloth = 0x3F6457;
        $p->add(Shapes::box(1.6, 0.26, 0.72, 0.07, [8, 2, 4]), $cloth, [0.0, 0.25, 0.02], wave: 0.008, waveRate: 9.0);
        foreach ([-0.37, 0.37] as $x) {
            $p->add(Shapes::box(0.72, 0.15, 0.62, 0.06, [4, 2, 4]), 0x4C7466, [$x, 0.42, 0.05], wave: 0.01, waveRate: 12.0);
            $p->add(
                Shapes::box(0.72, 0.46, 0.17, 0.07, [4, 3, 2]),
                0x4C7466,
                [$x, 0.70, -0.24],
                [-0.18, 0.0, 0.0],
                wave: 0.01,
                waveRate: 11.0,
            );
        }
        $p->add(Shapes::box(1.62, 0.60, 0.14, 0.06, [8, 4, 2]), $cloth, [0.0, 0.58, -0.34], [-0.12, 0.0, 0.0]);
        foreach ([-0.85, 0.85] as $x) {
            $p->add(Shapes::box(0.16, 0.42, 0.74, 0.07, [2, 3, 4]), $cloth, [$x, 0.42, 0.02]);
        }
        Wood::legs($p, 1.6, 0.66, 0.12, Wood::DARK, 0.06);
        $p->mount('seatL', [0.38, 0.49, 0.08])->mount('seatR', [-0.38, 0.49, 0.08]);
    }

    public static function shelf(Piece $p): void
    {
        foreach ([-0.43, 0.43] as $x) {
            Wood::board($p, 0.035, 1.8, 0.28, Wood::OAK, $x, 0.9, 0.0);
        }
        Wood::board($p, 0.86, 1.78, 0.02, Wood::DARK, 0.0, 0.9, -0.13);
        $books = [0x8E3B2C, 0x2F5D73, 0xB5803A, 0x4D7A4A, 0x6C5A86, 0xC9A35E, 0x39404A];
        foreach ([0.12, 0.54, 0.96, 1.38, 1.78] as $row => $y) {
            Wood::board($p, 0.84, 0.03, 0.27, Wood::OAK, 0.0, $y, 0.0);
            if ($row === 4) {
                continue;
            }
            for ($i = 0, $x = -0.38; $x < 0.34; $i++) {
                $w = 0.03 + 0.02 * (($i * 7 + $row * 3) % 4) / 3;
                $h = 0.22 + 0.08 * (($i * 5 + $row) % 5) / 4;
                if (($i + $row) % 9 !== 7) {
                    $p->add(
                        Shapes::box($w, $h, 0.18, 0.006, [1, 1, 1]),
                        $books[($i * 3 + $row) % 7],
                        [$x + $w / 2, $y + 0.015 + $h / 2, 0.01],
                        [0.0, 0.0, ($i % 6 === 5 ? 0.16 : 0.0)],
                    );
                }
                $x += $w + 0.008;
            }
        }
        $p->mount('top', [0.0, 1.80, 0.0]);
    }

    public static function cupboard(Piece $p): void
    {
        $p->add(Shapes::box(1.0, 0.86, 0.48, 0.02, [4, 3, 2]), Wood::PAINTED, [0.0, 0.45, 0.0], wood: 1.0);
        Wood::board($p, 1.06, 0.04, 0.54, Wood::PINE, 0.0, 0.90, 0.02);
        foreach ([-0.25, 0.25] as $x) {
            $p->add(Shapes::box(0.45, 0.66, 0.025, 0.012, [2, 3, 1]), 0x5C8A86, [$x, 0.45, 0.25], wood: 1.0, grain: 1);
            $p->add(Shapes::sphere(0.022, 10, 6), C::BRASS, [$x * 0.35, 0.5, 0.275], gloss: 0.9);
        }
        $p->mount('top', [0.0, 0.92, 0.02])->mount('topL', [0.3, 0.92, 0.02])->mount('topR', [-0.3, 0.92, 0.02]);
    }

    public static function stove(Piece $p): void
    {
        $p->add(Shapes::box(0.8, 0.72, 0.58, 0.03, [3, 3, 2]), C::IRON, [0.0, 0.46, 0.0], gloss: 0.15);
        $p->add(Shapes::box(0.88, 0.05, 0.64, 0.02, [3, 1, 2]), 0x2C3038, [0.0, 0.84, 0.0], gloss: 0.3);
        foreach ([[-0.3, -0.2], [0.3, -0.2], [-0.3, 0.2], [0.3, 0.2]] as [$x, $z]) {
            $p->add(Shapes::lathe([[0.0, 0.0], [0.045, 0.0], [0.03, 0.06], [0.05, 0.12], [0.0, 0.12]], 10), C::IRON, [$x, 0.0, $z]);
        }
        foreach ([-0.2, 0.2] as $x) {
            $p->add(Shapes::lathe([[0.0, 0.0], [0.13, 0.0], [0.135, 0.012], [0.0, 0.016]], 20), 0x23262C, [$x, 0.865, 0.0], gloss: 0.2);
        }
        $p->add(
            Shapes::box(0.40, 0.30, 0.02, 0.01, [2, 2, 1]),
            static fn (array $q): array => [1.2 - abs($q[0]), 0.45 - 0.3 * abs($q[0]), 0.1],
            [-0.12, 0.48, 0.30],
            glow: 0.8,
            vary: 0.0,
        );
        for ($i = 0; $i < 4; $i++) {
            $p->add(Shapes::box(0.022, 0.32, 0.02, 0.006), C::IRON, [-0.27 + 0.1 * $i, 0.48, 0.315]);
        }
        $p->add(Shapes::tube([[0.28, 0.86, -0.2], [0.28, 1.6, -0.2], [0.28, 2.1, -0.2]], 0.07, 4, 12), 0x2C3038, gloss: 0.2);
        $p->mount('top', [-0.2, 0.885, 0.0]);
    }

    public static function blackboard(Piece $p): void
    {
        $p->add(
            Shapes::box(2.4, 1.15, 0.03, 0.008, [8, 4, 1]),
            static fn (array $q): int => abs($q[1] - 0.2 - 0.03 * sin($q[0] * 26)) < 0.012 && $q[0] < 0.6 && $q[0] > -0.9
                ? 0xD9D6C8
                : 0x2E4238,
            [0.0, 1.45, 0.0],
            wear: 0.2,
        );
        foreach ([0.86, 2.05] as $y) {
            Wood::board($p, 2.54, 0.07, 0.06, Wood::OAK, 0.0, $y, 0.01);
        }
        foreach ([-1.24, 1.24] as $x) {
            Wood::board($p, 0.07, 1.2, 0.06, Wood::OAK, $x, 1.45, 0.01);
        }
        Wood::board($p, 2.3, 0.03, 0.12, Wood::OAK, 0.0, 0.84, 0.08);
        $p->mount('write', [0.2, 1.5, 0.02]);
    }

    public static function bed(Piece $p): void
    {
        Wood::board($p, 0.95, 0.22, 2.0, Wood::OAK, 0.0, 0.30, 0.0);
        Wood::legs($p, 0.95, 2.0, 0.3, Wood::DARK, 0.08);
        $p->add(Shapes::box(0.92, 0.18, 1.94, 0.07, [4, 2, 7]), 0xE9DFC8, [0.0, 0.47, 0.0], wave: 0.01, waveRate: 6.0);
        $p->add(Shapes::box(0.98, 0.12, 1.3, 0.05, [5, 2, 6]), 0x8E3B2C, [0.0, 0.54, 0.33], wave: 0.016, waveRate: 8.0);
        $p->add(Shapes::box(0.66, 0.14, 0.36, 0.065, [4, 2, 3]), 0xF3E8CF, [0.0, 0.60, -0.72], wave: 0.014, waveRate: 12.0);
        Wood::board($p, 0.97, 0.75, 0.05, Wood::OAK, 0.0, 0.62, -1.0);
        $p->mount('seat', [0.4, 0.60, 0.2])->mount('lie', [0.0, 0.60, 0.0]);
    }
}
