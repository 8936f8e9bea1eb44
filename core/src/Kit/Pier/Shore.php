<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Colour;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;

/** The far shore: four painted flats one behind another, a little town, and a tower with a dark hole where its clock was. */
final class Shore
{
    public const WATER = -0.85;

    public static function make(): Piece
    {
        $p = new Piece('Far shore', 41);
        $r = new Random(77);
        foreach ([
            [-46.0, 0.0, 2.1, 0.16], [-66.0, 0.8, 5.0, 0.1], [-98.0, 2.0, 10.5, 0.065], [-140.0, 5.0, 17.0, 0.045],
        ] as $k => [$z, $low, $high, $f]) {
            self::flat($p, $r, $k, $z, $low, $high, $f);
        }
        self::town($p, $r);

        return $p;
    }

    private static function flat(Piece $p, Random $r, int $k, float $z, float $low, float $high, float $f): void
    {
        $phase = [$r->next() * 9, $r->next() * 9, $r->next() * 9];
        $half = -$z * 2.2;
        $n = 100 * ($k < 2 ? 2 : 1);
        $points = $edge = [];
        for ($i = 0; $i <= $n; $i++) {
            $x = -$half + 2 * $half * $i / $n;
            $h = $low + ($high - $low)
                * (0.5 + 0.28 * sin($x * $f + $phase[0]) + 0.16 * sin($x * $f * 2.3 + $phase[1]) + 0.08 * sin($x * $f * 5.1 + $phase[2]));
            if ($k < 2) {
                $h += (0.16 + $k * 0.22) * abs(sin($x * (1.9 - $k * 0.7) + 2 * sin($x * 0.7))) * (1 + 0.6 * sin($x * 0.31));
            }
            // A notch where the sun goes down.
            $az = atan2($x, -$z) + 0.235;
            $h = max(0.25, $h * (1 - 0.80 * exp(-$az * $az / 0.022)));
            // The land runs out into the water at both ends; a camera that looks along the pier sees them.
            $in = min(1.0, (1 - abs($x) / $half) / 0.45);
            $h *= $in * $in * (3 - 2 * $in);
            foreach ([[-1.2, 0.0], [0.0, 0.0], [$h * 0.5, 0.0], [$h * 0.93, 0.0], [$h, 0.0], [$h, -0.5]] as $j => [$y, $dz]) {
                $points[] = [$x, $y + self::WATER, $z + $dz];
                $edge[] = $j >= 4 ? 1.0 : 0.0;
            }
        }
        [$foot, $top] = [[0x4F6152, 0x3D4D4A], [0x56677A, 0x4B5A70], [0x6D7A92, 0x66738E], [0x8A90A8, 0x828AA6]][$k];
        $sheet = Shapes::sheet($points, 5, $n, $edge);
        $sheet = new \CrispReel\Core\Geometry\Surface(
            $sheet->points,
            array_fill(0, count($points), [0.0, 0.25, 0.97]),
            \CrispReel\Core\Geometry\Surface::flipped($sheet->index),
            [],
            $edge,
        );
        $p->add(
            $sheet,
            static fn (array $q): array => V3::mix(
                Colour::hex($foot),
                Colour::hex($top),
                max(0.0, min(1.0, ($q[1] - self::WATER) / $high)),
            ),
            jitter: 0.0, shift: 0.0, wave: 0.0, wear: 0.5, vary: 0.0,
        );
    }

    private static function town(Piece $p, Random $r): void
    {
        for ($i = 0; $i < 13; $i++) {
            $x = -26 + $i * 3.7 + $r->next() * 1.6 + ($i > 5 ? 6 : 0);
            $y = self::WATER + 0.35 + $r->next() * 0.5;
            $w = 1.1 + $r->next() * 0.9;
            $h = 0.8 + $r->next() * 0.7;
            $p->add(Shapes::box($w, $h, 0.5, 0.08), [0xD9C3A0, 0xC99A78, 0xB9B4A2, 0xD0A98A][$i % 4], [$x, $y + $h / 2, -45.0]);
            $p->add(
                Shapes::lathe([[$w * 0.72, 0.0], [$w * 0.66, 0.06], [0.02, 0.62]], 4),
                [0x9A4A38, 0x7A4A42, 0x8C5A40][$i % 3],
                [$x, $y + $h, -45.0],
                [0.0, M_PI / 4, 0.0],
            );
            for ($q = 0; $q < 2; $q++) {
                if ($r->next() > 0.25) {
                    $p->add(
                        Shapes::box(0.16, 0.22, 0.05, 0.02),
                        static fn (): array => [1.4, 0.85, 0.35],
                        [$x - 0.28 + $q * 0.5, $y + $h * 0.5, -44.73],
                        glow: 1.0,
                        vary: 0.0,
                    );
                }
            }
            if ($i === 6) {
                $p->add(Shapes::box(0.7, 3.0, 0.6, 0.1, [1, 3, 1]), 0xD8C8A8, [$x + 1.8, $y + 1.5, -45.2]);
                $p->add(Shapes::lathe([[0.62, 0.0], [0.5, 0.1], [0.02, 1.2]], 8), 0x5D7A78, [$x + 1.8, $y + 3, -45.2]);
                $p->add(Shapes::tube([[$x + 1.8, $y + 2.5, -44.92], [$x + 1.8, $y + 2.5, -44.84]], 0.26, 1, 16), 0x2B2622, jitter: 0.0);
            }
        }
    }
}
