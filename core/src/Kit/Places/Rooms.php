<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** A kitchen and a classroom, whole: the camera stands at +Z, where the front wall is taken away for it. */
final class Rooms
{
    public static function kitchen(Piece $p): void
    {
        Wood::floor($p, 5.4, 4.4, [0x9A7346, 0xA67E50, 0x8C673E]);
        (new Walls(5.4, 4.4, 2.8, [0xD3C297, 0xCFC4AC, 0x93704A], Wood::PAINTED))->build($p, [
            'back' => [[-0.2, 1.4, 1.1, 2.2]], 'right' => [[0.7, 1.7, 0.0, 2.1]], 'front' => [[-1.5, -0.3, 1.0, 2.1]],
        ], [
            'back' => static function (Piece $q): void {
                $q->in(0.6, 1.65, -0.02, static fn (Piece $r) => Wood::sash($r, 1.6, 1.1, C::ENAMEL));
                self::kitchenShelf($q);
            },
            'right' => self::kitchenDoor(...),
            'front' => self::kitchenFront(...),
        ]);
        $p->in(-1.9, 0.0, -1.82, Furniture::stove(...));
        foreach ([0.05, 1.06] as $x) {
            $p->in($x, 0.0, -1.88, Furniture::cupboard(...));
        }
        $p->in(2.1, 0.0, -1.86, Furniture::cupboard(...));
        $p->in(-0.35, 0.0, 0.15, Furniture::table(...));
        $p->in(-0.85, 0.0, -0.42, static fn (Piece $q) => Furniture::chair($q), 0.15);
        $p->in(0.2, 0.0, 0.80, static fn (Piece $q) => Furniture::chair($q), M_PI - 0.2);
        $p->in(-2.1, 0.885, -1.82, Things::kettle(...), 0.6);
        $p->in(-0.05, 0.742, 0.1, Things::plate(...));
        $p->in(-0.05, 0.75, 0.1, Things::bread(...), 0.5);
        $p->in(-0.75, 0.742, 0.25, Things::cup(...), 2.0);
        $p->in(0.9, 0.92, -1.8, Things::bucket(...));
        self::pendant($p, -0.35, 2.8, 0.1);
        $p->mount('tableSeatL', [-0.85, 0.465, -0.42])->mount('tableSeatR', [0.2, 0.465, 0.80])->mount('stove', [-1.9, 0.0, -1.2])
            ->mount('door', [2.2, 0.0, 1.2]);
    }

    /** A lamp under its shade, 75 cm below a ceiling. */
    private static function pendant(Piece $p, float $x, float $y, float $z, int $shade = 0x3F6B5A): void
    {
        $p->add(Shapes::tube([[$x, $y, $z], [$x, $y - 0.6, $z]], 0.008, 2, 6), C::INK);
        $p->add(
            Shapes::lathe([[0.02, 0.16], [0.06, 0.14], [0.22, 0.0], [0.21, -0.01], [0.05, 0.12]], 22), $shade, [$x, $y - 0.75, $z],
            gloss: 0.3,
        );
        $p->add(Shapes::sphere(0.06, 12, 8), static fn (array $q): array => [1.7, 1.15, 0.6], [$x, $y - 0.74, $z], glow: 1.0, vary: 0.0);
    }

    /** Two boards with cups and bottles, hung on the wall. */
    private static function kitchenShelf(Piece $p): void
    {
        foreach ([1.55, 1.95] as $k => $y) {
            Wood::board($p, 1.1, 0.03, 0.2, Wood::OAK, -1.0, $y, 0.16);
            for ($i = 0; $i < 4; $i++) {
                $p->in(-1.4 + 0.26 * $i, $y + 0.018, 0.17, static fn (Piece $q) => ($i + $k) % 2 ? Things::cup($q) : Things::bottle($q));
            }
        }
    }

    /** Its leaf stands open to the room, 80 degrees from the wall. */
    private static function kitchenDoor(Piece $p): void
    {
        Wood::doorway($p, 0.7, 1.7, 2.1, C::ENAMEL);
        $p->in(1.66, 0.0, 0.08, static function (Piece $q): void {
            $q->add(Shapes::box(0.94, 2.06, 0.05, 0.012, [2, 5, 1]), C::DOOR, [-0.47, 1.03, 0.0], wood: 1.0, grain: 1);
            foreach ([-0.05, 0.05] as $z) {
                $q->add(Shapes::sphere(0.03, 10, 7), C::BRASS, [-0.86, 1.0, $z], gloss: 0.9);
            }
        }, deg2rad(80.0));
    }

    /** A window, coats on their hooks and a picture. */
    private static function kitchenFront(Piece $p): void
    {
        $p->in(-0.9, 1.55, -0.02, static fn (Piece $q) => Wood::sash($q, 1.2, 1.1, C::ENAMEL));
        Wood::board($p, 1.1, 0.12, 0.03, Wood::OAK, 1.3, 1.68, 0.08);
        foreach ([0.95, 1.3, 1.65] as $i => $x) {
            $p->add(Shapes::tube([[$x, 1.68, 0.09], [$x, 1.66, 0.16], [$x, 1.70, 0.18]], 0.010, 3, 6), C::BRASS, gloss: 0.6);
            if ($i !== 1) {
                $p->add(
                    Shapes::lathe([[0.03, 0.0], [0.16, -0.08], [0.17, -0.5], [0.21, -0.92], [0.0, -0.92]], 14),
                    $i === 0 ? 0x2F5D73 : 0x8A4A38,
                    [$x, 1.66, 0.17], wave: 0.02, waveRate: 14.0,
                );
            }
        }
        $p->in(0.35, 1.62, 0.075, static function (Piece $q): void {
            Wood::board($q, 0.5, 0.4, 0.03, Wood::DARK, 0.0, 0.0, 0.0);
            $q->add(Shapes::box(0.42, 0.32, 0.01, 0.002, [10, 8, 1]), static fn (array $at): int => match (true) {
                hypot($at[0] - 0.08, $at[1] - 0.07) < 0.045 => 0xF0CF86,
                $at[1] < -0.05 + 0.03 * sin($at[0] * 14) => 0x4D7A4A,
                default => 0xB9CBCB,
            }, [0.0, 0.0, 0.016], jitter: 0.0, wave: 0.0, vary: 0.0);
        });
    }

    public static function classroom(Piece $p): void
    {
        Wood::floor($p, 7.2, 6.0, [0xB08A58, 0xA47E4E, 0xBB9562], 0.24);
        $windows = [-1.7, 0.0, 1.7];
        (new Walls(7.2, 6.0, 3.1, [0xBEC6AD, 0xD2D0C0, 0xA8834F], Wood::DARK))->build($p, [
            'left' => array_map(static fn (float $x): array => [$x - 0.6, $x + 0.6, 1.0, 2.5], $windows),
            'right' => [[1.2, 2.2, 0.0, 2.15]],
        ], [
            'back' => static function (Piece $q): void {
                $q->in(-0.5, 0.0, 0.09, Furniture::blackboard(...));
                $q->in(2.35, 2.3, 0.10, Things::clock(...));
            },
            'left' => static function (Piece $q) use ($windows): void {
                foreach ($windows as $x) {
                    $q->in($x, 1.75, -0.02, static fn (Piece $r) => Wood::sash($r, 1.2, 1.5, C::ENAMEL));
                }
            },
            'right' => static function (Piece $q): void {
                Wood::doorway($q, 1.2, 2.2, 2.15, 0xD8D4C4);
                $q->in(-1.2, 0.0, 0.4, Furniture::shelf(...));
                $q->add(Shapes::box(0.96, 2.12, 0.05, 0.012, [2, 5, 1]), 0x5C7A6A, [1.7, 1.06, -0.02], wood: 1.0, grain: 1);
                $q->add(Shapes::sphere(0.03, 10, 7), C::BRASS, [1.32, 1.0, 0.04], gloss: 0.9);
            },
            'front' => self::classroomBack(...),
        ]);
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
        self::pendant($p, -1.2, 3.1, 0.4, 0xE3DCC8);
        self::pendant($p, 1.9, 3.1, 0.4, 0xE3DCC8);
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
        $p->mount('board', [-0.3, 0.14, -2.25])->mount('teacher', [1.9, 0.0, -2.6])->mount('door', [3.1, 0.0, 1.7]);
    }

    /** Behind the last row: a map, a cupboard with books, drawings of the class. */
    private static function classroomBack(Piece $p): void
    {
        $p->in(-1.5, 0.0, 0.28, Furniture::shelf(...));
        Wood::board($p, 1.7, 0.05, 0.04, Wood::DARK, 1.6, 2.32, 0.09);
        $p->add(Shapes::box(1.6, 1.1, 0.015, 0.004, [24, 16, 1]), static function (array $q): int {
            $land = sin($q[0] * 3.1 + 0.6) + cos($q[1] * 4.3 - 0.9) + 0.6 * sin($q[0] * 7.0 + $q[1] * 5.0);

            return $land > 0.35 ? ($land > 1.2 ? 0xB98F5A : 0x8FA45E) : 0x8FB3BD;
        }, [1.6, 1.75, 0.08], jitter: 0.0, wave: 0.004, vary: 0.0);
        foreach ([0xE3B98A, 0xB9CBCB, 0xD8C49A, 0xC9A0A0] as $i => $paper) {
            $p->add(
                Shapes::box(0.26, 0.34, 0.008, 0.002, [6, 8, 1]),
                static fn (array $q): int => hypot($q[0] - 0.02 * $i, $q[1] + 0.03 * $i) < 0.08 ? 0xA84F35 : $paper,
                [-0.55 + 0.36 * $i, 1.75 + 0.03 * ($i % 2), 0.07], [0.0, 0.0, 0.04 * ($i - 1.5)], wave: 0.0, vary: 0.02,
            );
        }
        foreach ([-0.3, 0.1, 0.5] as $i => $x) {
            $p->add(
                Shapes::lathe([[0.03, 0.0], [0.14, -0.07], [0.15, -0.4], [0.18, -0.72], [0.0, -0.72]], 12),
                [0x6C4A86, 0x3F6B5A, 0xA84F35][$i], [$x, 1.3, 0.16], wave: 0.02, waveRate: 14.0,
            );
        }
        Wood::board($p, 1.3, 0.10, 0.03, Wood::OAK, 0.1, 1.32, 0.08);
    }
}
