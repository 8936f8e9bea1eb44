<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** A kitchen, a classroom and a stage: open towards +Z, where the camera stands. */
final class Rooms
{
    public static function kitchen(Piece $p): void
    {
        Wood::floor($p, 5.4, 4.4, [0x9A7346, 0xA67E50, 0x8C673E]);
        $p->in(0.0, 0.0, -2.2, static function (Piece $q): void {
            Wood::wall($q, 5.4, 2.8, 0xD9C9A0, Wood::PAINTED, [[-0.2, 1.4, 1.1, 2.2]]);
            $q->in(0.6, 1.65, -0.02, static fn (Piece $r) => Wood::window($r, 0.0, 0.0, 1.6, 1.1, C::ENAMEL, [0.9, 0.86, 0.72]));
        });
        $p->in(-2.7, 0.0, 0.0, static fn (Piece $q) => Wood::wall($q, 4.4, 2.8, 0xCDBB92, Wood::PAINTED), M_PI / 2);
        $p->in(2.7, 0.0, 0.0, static fn (Piece $q) => Wood::wall($q, 4.4, 2.8, 0xCDBB92, Wood::PAINTED, [[0.7, 1.7, 0.0, 2.1]]), -M_PI / 2);
        $p->add(Shapes::box(0.05, 2.08, 0.96, 0.012, [1, 5, 2]), C::DOOR, [2.74, 1.04, 1.2], wood: 1.0, grain: 1);
        $p->add(Shapes::sphere(0.03, 10, 7), C::BRASS, [2.69, 1.0, 0.85], gloss: 0.9);
        $p->in(-1.9, 0.0, -1.82, Furniture::stove(...));
        foreach ([0.05, 1.06] as $x) {
            $p->in($x, 0.0, -1.88, Furniture::cupboard(...));
        }
        $p->in(2.1, 0.0, -1.86, Furniture::cupboard(...));
        $p->in(-0.35, 0.0, 0.15, Furniture::table(...));
        $p->in(-0.85, 0.0, -0.42, static fn (Piece $q) => Furniture::chair($q), 0.15);
        $p->in(0.2, 0.0, 0.80, static fn (Piece $q) => Furniture::chair($q), M_PI - 0.2);
        foreach ([1.55, 1.95] as $k => $y) {
            Wood::board($p, 1.1, 0.03, 0.2, Wood::OAK, -1.0 + 0.0 * $k, $y, -2.04);
            for ($i = 0; $i < 4; $i++) {
                $p->in(-1.4 + 0.26 * $i, $y + 0.018, -2.03, static fn (Piece $q) => ($i + $k) % 2 ? Things::cup($q) : Things::bottle($q));
            }
        }
        $p->in(-2.1, 0.885, -1.82, Things::kettle(...), 0.6);
        $p->in(-0.05, 0.742, 0.1, Things::plate(...));
        $p->in(-0.05, 0.75, 0.1, Things::bread(...), 0.5);
        $p->in(-0.75, 0.742, 0.25, Things::cup(...), 2.0);
        $p->in(0.9, 0.92, -1.8, Things::bucket(...));
        $p->add(Shapes::tube([[-0.35, 2.8, 0.1], [-0.35, 2.2, 0.1]], 0.008, 2, 6), C::INK);
        $p->add(
            Shapes::lathe([[0.02, 0.16], [0.06, 0.14], [0.22, 0.0], [0.21, -0.01], [0.05, 0.12]], 22),
            0x3F6B5A,
            [-0.35, 2.05, 0.1],
            gloss: 0.3,
        );
        $p->add(Shapes::sphere(0.06, 12, 8), static fn (array $q): array => [1.7, 1.15, 0.6], [-0.35, 2.06, 0.1], glow: 1.0, vary: 0.0);
        $p->mount('tableSeatL', [-0.85, 0.465, -0.42])->mount('tableSeatR', [0.2, 0.465, 0.80])->mount('stove', [-1.9, 0.0, -1.2])
            ->mount('door', [2.2, 0.0, 1.2]);
    }

    public static function classroom(Piece $p): void
    {
        Wood::floor($p, 7.2, 6.0, [0xB08A58, 0xA47E4E, 0xBB9562], 0.24);
        $p->in(0.0, 0.0, -3.0, static function (Piece $q): void {
            Wood::wall($q, 7.2, 3.1, 0xB9C2A8, Wood::DARK);
            $q->in(-0.5, 0.0, 0.09, Furniture::blackboard(...));
            $q->in(2.35, 2.3, 0.10, Things::clock(...));
        });
        $p->in(-3.6, 0.0, 0.0, static function (Piece $q): void {
            Wood::wall($q, 6.0, 3.1, 0xC4CBB2, Wood::DARK, [[-2.3, -1.1, 1.0, 2.5], [-0.6, 0.6, 1.0, 2.5], [1.1, 2.3, 1.0, 2.5]]);
            foreach ([-1.7, 0.0, 1.7] as $x) {
                $q->in($x, 1.75, -0.02, static fn (Piece $r) => Wood::window($r, 0.0, 0.0, 1.2, 1.5, C::ENAMEL, [0.95, 0.88, 0.70]));
            }
        }, M_PI / 2);
        $p->in(3.6, 0.0, 0.0, static fn (Piece $q) => Wood::wall($q, 6.0, 3.1, 0xB3BCA2, Wood::DARK, [[1.2, 2.2, 0.0, 2.15]]), -M_PI / 2);
        $p->add(Shapes::box(0.05, 2.12, 0.96, 0.012, [1, 5, 2]), 0x5C7A6A, [3.64, 1.06, 1.7], wood: 1.0, grain: 1);
        foreach ([-1.9, 0.0, 1.9] as $x) {
            foreach ([-0.2, 1.5] as $z) {
                $p->in($x, 0.0, $z, Furniture::desk(...), M_PI);
                $p->in($x, 0.0, $z + 0.62, static fn (Piece $q) => Furniture::chair($q, Wood::PINE), M_PI);
                $p->mount(
                    sprintf('seat%d%d', (int) round($x / 1.9 + 2), $z < 0 ? 1 : 2),
                    [$x, 0.465, $z + 0.62],
                    \CrispReel\Core\Math\Q4::aroundY(M_PI),
                );
            }
        }
        Wood::board($p, 2.4, 0.14, 1.1, 0x8C673E, -0.5, 0.07, -2.3);
        $p->in(1.9, 0.0, -2.05, static function (Piece $q): void {
            Wood::board($q, 1.3, 0.04, 0.65, Wood::OAK, 0.0, 0.75, 0.0);
            Wood::board($q, 1.2, 0.68, 0.04, Wood::DARK, 0.0, 0.38, 0.28);
            foreach ([-0.6, 0.6] as $x) {
                Wood::board($q, 0.05, 0.74, 0.6, Wood::DARK, $x, 0.37, 0.0);
            }
            $q->in(0.4, 0.77, 0.0, Things::globe(...));
            $q->in(-0.3, 0.77, 0.05, Things::book(...), 0.4);
            $q->in(-0.32, 0.807, 0.05, Things::book(...), 0.7);
            $q->in(0.0, 0.77, 0.1, Things::apple(...));
        });
        $p->in(3.2, 0.0, -1.2, Furniture::shelf(...), -M_PI / 2);
        $p->mount('board', [-0.3, 0.14, -2.25])->mount('teacher', [1.9, 0.0, -2.6])->mount('door', [3.1, 0.0, 1.7]);
    }

    /** A stage 60 cm high with curtains drawn to the sides and a painted hill behind. */
    public static function stage(Piece $p): void
    {
        $p->in(0.0, 0.6, -1.0, static fn (Piece $q) => Wood::floor($q, 7.0, 4.6, [0x8C673E, 0x7F5D38, 0x996F44], 0.21));
        Wood::board($p, 7.0, 0.56, 0.08, Wood::DARK, 0.0, 0.28, 1.3);
        for ($i = 0; $i < 7; $i++) {
            Wood::board($p, 0.84, 0.40, 0.03, 0x6E2F2A, -3.0 + $i, 0.29, 1.345);
        }
        foreach ([0, 1, 2] as $i) {
            Wood::board($p, 1.1, 0.15 + 0.15 * $i, 0.30, Wood::OAK, 2.6, (0.15 + 0.15 * $i) / 2, 2.2 - 0.30 * $i);
        }
        $p->add(Shapes::box(7.2, 3.6, 0.05, 0.008, [28, 18, 1]), static function (array $q): int {
            $y = $q[1] + 1.8;
            $hill = 1.0 + 0.35 * sin($q[0] * 0.9 + 0.6) + 0.12 * sin($q[0] * 2.3);
            $far = 1.5 + 0.28 * sin($q[0] * 0.7 + 2.4);
            if (hypot($q[0] - 1.5, $y - 2.55) < 0.36) {
                return 0xF0CF86;
            }

            return $y < $hill ? 0x5E7A4C : ($y < $far ? 0x7F9A86 : ($y < 2.2 ? 0xE3B98A : 0xA9BEC4));
        }, [0.0, 2.4, -3.2], jitter: 0.0, wear: 0.2, vary: 0.0);
        foreach ([-1.0, 1.0] as $s) {
            for ($k = 0; $k < 2; $k++) {
                $p->in($s * (3.15 - 0.25 * $k), 0.62, 0.6 - 1.9 * $k, static fn (Piece $q) => self::curtain($q, 1.3, 3.5, $s));
            }
            Wood::board($p, 0.34, 4.6, 0.34, C::TRIM, $s * 3.75, 2.3, 1.0);
        }
        $p->in(0.0, 0.0, 1.12, self::valance(...));
        Wood::board($p, 8.2, 0.42, 0.46, C::TRIM, 0.0, 4.46, 1.0);
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.30, 0.04], [0.32, 0.10], [0.0, 0.12]], 24),
            C::BRASS,
            [0.0, 4.46, 1.22],
            [M_PI / 2, 0.0, 0.0],
            gloss: 0.8,
        );
        for ($i = 0; $i < 9; $i++) {
            $x = -2.8 + 0.7 * $i;
            $p->add(Shapes::lathe([[0.0, 0.0], [0.10, 0.0], [0.08, 0.10], [0.0, 0.1]], 12), C::BRASS, [$x, 0.6, 1.16], gloss: 0.7);
            $p->add(Shapes::sphere(0.045, 10, 7), static fn (array $q): array => [1.6, 1.05, 0.5], [$x, 0.70, 1.13], glow: 0.9, vary: 0.0);
        }
        $p->mount('centre', [0.0, 0.6, -0.4])->mount('left', [2.2, 0.6, -0.6])->mount('right', [-2.2, 0.6, -0.6])
            ->mount('steps', [2.6, 0.0, 2.7]);
    }

    /** The pleated strip above a stage, its hem in six swags. */
    private static function valance(Piece $p): void
    {
        $points = [];
        $columns = 96;
        $rows = 5;
        for ($i = 0; $i <= $columns; $i++) {
            $x = -3.6 + 7.2 * $i / $columns;
            $drop = 0.52 + 0.20 * abs(sin($x / 7.2 * 6 * M_PI));
            for ($j = 0; $j <= $rows; $j++) {
                $points[] = [$x, 4.36 - $drop * $j / $rows, 0.05 * sin($i * 1.3) * (0.3 + 0.7 * $j / $rows)];
            }
        }
        $p->add(
            Shapes::sheet($points, $rows, $columns),
            static fn (array $q): int => 4.36 - $q[1] > 0.44 + 0.20 * abs(sin($q[0] / 7.2 * 6 * M_PI)) ? 0xD8A84A : 0xA23A34,
            jitter: 0.0,
            shift: 0.0,
            wave: 0.0,
            wear: 0.0,
        );
    }

    /** A curtain gathered to one side, hung from its top. */
    public static function curtain(Piece $p, float $w, float $h, float $side): void
    {
        $points = [];
        $columns = 26;
        $rows = 10;
        for ($i = 0; $i <= $columns; $i++) {
            for ($j = 0; $j <= $rows; $j++) {
                $t = $j / $rows;
                // Tied at two fifths of its height.
                $in = 1 - 0.45 * exp(-(($t - 0.6) / 0.16) ** 2);
                $x = ($i / $columns - 0.5) * $w * $in + $side * $w * 0.22 * (1 - $in);
                $points[] = [$x, $h * (1 - $t), 0.07 * sin($i * 1.45 + 0.2 * $j) * (0.6 + 0.4 * $t)];
            }
        }
        $p->add(Shapes::sheet($points, $rows, $columns), 0xA23A34, jitter: 0.0, wave: 0.0, wear: 0.0);
        $p->add(Shapes::ring($w * 0.28, 0.03, 8, 18), C::BRASS, [$side * $w * 0.10, $h * 0.4, 0.0], [M_PI / 2, 0.0, 0.0], gloss: 0.5);
        $p->add(Shapes::tube([[-$w * 0.62, $h + 0.03, 0.0], [$w * 0.62, $h + 0.03, 0.0]], 0.025, 3, 8), C::BRASS, gloss: 0.8);
    }
}
