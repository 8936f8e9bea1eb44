<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** A theatre: its stage, and the hall before it. */
final class Theatre
{
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
        self::hall($p);
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

    /** The hall before the stage: rows of seats, wall lamps, a balcony at the back. */
    private static function hall(Piece $p): void
    {
        $p->in(0.0, 0.0, 3.6, static function (Piece $q): void {
            $walls = new Walls(11.2, 14.0, 5.4, [0x8E4A3E, 0xC9BCA0, 0x5E3A34], C::TRIM);
            $walls->build($q, ['front' => [[-1.0, 1.0, 0.0, 2.2]]], [
                'left' => self::wallLamps(...), 'right' => self::wallLamps(...), 'front' => self::balcony(...),
            ]);
            $walls->floor($q, 0.0);
        });
        $p->in(0.0, 0.0, 0.86, static fn (Piece $q) => Wood::wall($q, 11.2, 5.4, 0xB79A72, C::TRIM, [[-3.86, 3.86, 0.0, 4.6]], 0.6));
        for ($row = 0; $row < 6; $row++) {
            $z = 3.4 + 0.95 * $row;
            foreach ([-1.0, 1.0] as $side) {
                Wood::board($p, 3.8, 0.05, 0.07, Wood::DARK, $side * 2.75, 0.92, $z + 0.28);
                for ($i = 0; $i < 6; $i++) {
                    self::seat($p, $side * (1.2 + 0.62 * $i), $z);
                }
            }
        }
    }

    /** Towards the stage; its cushion is 44 cm high. */
    private static function seat(Piece $p, float $x, float $z): void
    {
        $p->add(Shapes::box(0.52, 0.10, 0.46, 0.03), 0x9A2F3A, [$x, 0.40, $z], wave: 0.0);
        $p->add(Shapes::box(0.52, 0.52, 0.09, 0.03), 0x9A2F3A, [$x, 0.68, $z + 0.26], [0.12, 0.0, 0.0], wave: 0.0);
        $p->add(Shapes::box(0.40, 0.36, 0.05, 0.01, [1, 1, 1], '-y'), 0x4A3226, [$x, 0.18, $z + 0.05], wave: 0.0);
    }

    private static function wallLamps(Piece $p): void
    {
        foreach ([-5.2, -2.6, 0.0, 2.6, 5.2] as $x) {
            Wood::board($p, 0.3, 5.2, 0.10, 0xB79A72, $x + 1.3, 2.6, 0.08);
            $p->add(Shapes::lathe([[0.0, 0.0], [0.05, 0.02], [0.02, 0.14], [0.0, 0.14]], 10), C::BRASS, [$x, 2.3, 0.16], gloss: 0.7);
            $p->add(Shapes::sphere(0.10, 10, 7), static fn (array $q): array => [1.5, 1.05, 0.6], [$x, 2.52, 0.17], glow: 0.8, vary: 0.0);
        }
        Wood::board($p, 14.0, 0.16, 0.07, C::BRASS, 0.0, 3.5, 0.08);
    }

    private static function balcony(Piece $p): void
    {
        Wood::doorway($p, -1.0, 1.0, 2.2, C::TRIM);
        foreach ([-0.5, 0.5] as $x) {
            $p->add(Shapes::box(0.98, 2.16, 0.05, 0.012, [2, 5, 1]), C::TRIM, [$x, 1.08, -0.02], wood: 1.0, grain: 1);
            $p->add(Shapes::sphere(0.03, 10, 7), C::BRASS, [$x * 0.24, 1.0, 0.04], gloss: 0.9);
        }
        Wood::board($p, 11.0, 0.16, 2.2, 0xB79A72, 0.0, 2.9, 1.1);
        Wood::board($p, 11.0, 0.8, 0.10, 0xB79A72, 0.0, 3.36, 2.2);
        Wood::board($p, 11.0, 0.08, 0.16, C::BRASS, 0.0, 3.78, 2.2);
        foreach ([-4.0, -2.0, 0.0, 2.0, 4.0] as $x) {
            $p->add(Shapes::box(1.2, 0.4, 0.03, 0.01), 0x8E4A3E, [$x, 3.34, 2.26], wave: 0.0);
        }
    }
}
