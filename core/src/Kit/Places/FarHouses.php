<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;

/**
 * Houses that are seen from a way off, and the strips of street before them: few triangles, no inside.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class FarHouses
{
    private const WALLS = [0xC9A98A, 0x9FB0B4, 0xD8C49A, 0xB98F7A, 0xC7B6A3, 0xA9B59A];

    private const ROOFS = [0x8A4A38, 0x6E4F48, 0x7A5A42, 0x5C4A44];

    private const DOORS = [0x3F6B5A, 0x7A3347, 0x2F5D73, 0x6C4A86];

    /** Houses wall to wall, their fronts at z, from one x to another. */
    public static function row(Piece $p, Random $r, float $from, float $to, float $z, float $yaw): void
    {
        for ($x = $from; $x < $to - 2.5;) {
            $w = min($to - $x, 4.2 + 2.6 * $r->next());
            self::house($p, $r, [$x + $w / 2, 0.0, $z], $yaw, $w - 0.04);
            $x += $w;
        }
    }

    /**
     * A house with its front at a place, looking along its own +z.
     *
     * @param  Vec  $at
     */
    public static function house(Piece $p, Random $r, array $at, float $yaw, float $w): void
    {
        [$floors, $d] = [2 + (int) floor(2.2 * $r->next()), 5.0];
        $h = 0.6 + 2.7 * $floors;
        [$wall, $roof, $rise] = [$r->pick(self::WALLS), $r->pick(self::ROOFS), 1.5 + $r->next()];
        $p->in($at[0], $at[1], $at[2], static function (Piece $q) use ($r, $w, $h, $d, $floors, $wall, $roof, $rise): void {
            $q->add(Shapes::box($w, $h, $d, 0.03, [2, 2, 1], '-y'), $wall, [0.0, $h / 2, -$d / 2], wave: 0.0, jitter: 0.0);
            $eaves = [[-$w / 2 - 0.1, $h - 0.06], [$w / 2 + 0.1, $h - 0.06]];
            foreach ([[0.35, 1.0], [-$d - 0.35, -1.0]] as [$z, $side]) {
                $q->add(self::quad(
                    [$eaves[0][0], $eaves[0][1], $z], [$eaves[1][0], $eaves[1][1], $z], [$eaves[1][0], $h + $rise, -$d / 2],
                    [$eaves[0][0], $h + $rise, -$d / 2], [0.0, 0.7, 0.7 * $side],
                ), $roof, wave: 0.0, jitter: 0.0);
            }
            foreach ([-1.0, 1.0] as $side) {
                $x = $side * $w / 2;
                $q->add(self::quad(
                    [$x, $h - 0.05, 0.0], [$x, $h - 0.05, -$d], [$x, $h + $rise - 0.1, -$d / 2], [$x, $h + $rise - 0.1, -$d / 2],
                    [$side, 0.0, 0.0],
                ), $wall, wave: 0.0, jitter: 0.0);
            }
            $q->add(Shapes::box(0.5, 1.0, 0.5, 0.02), 0x7A5A4C, [$w * 0.28 * $r->signed(), $h + $rise - 0.2, -$d / 2 - 0.4]);
            self::openings($q, $r, $w, $floors);
        }, $yaw);
    }

    private static function openings(Piece $q, Random $r, float $w, int $floors): void
    {
        $columns = max(1, (int) floor($w / 1.7));
        $door = (int) floor($columns * $r->next());
        for ($floor = 0; $floor < $floors; $floor++) {
            for ($i = 0; $i < $columns; $i++) {
                $x = $w * (($i + 0.5) / $columns - 0.5);
                $isDoor = $floor === 0 && $i === $door;
                [$ww, $hh, $y] = $isDoor ? [0.95, 2.1, 1.2] : [0.85, 1.25, 1.75 + 2.7 * $floor];
                $frame = $isDoor ? 0x4A3A30 : 0xD9CDBB;
                $q->add(self::pane($x, $y, $ww + 0.22, $hh + 0.22, 0.02), $frame, wave: 0.0, jitter: 0.0, vary: 0.03);
                if ($isDoor) {
                    $q->add(self::pane($x, $y - 0.05, $ww, $hh, 0.04), $r->pick(self::DOORS), wave: 0.0, jitter: 0.0);
                } elseif ($r->next() < 0.3) {
                    $q->add(self::pane($x, $y, $ww, $hh, 0.04), static fn (): array => [0.85, 0.62, 0.32], glow: 0.5, wave: 0.0, vary: 0.0);
                } else {
                    $q->add(self::pane($x, $y, $ww, $hh, 0.04), 0x46525C, gloss: 0.5, wave: 0.0, jitter: 0.0);
                }
            }
        }
    }

    private static function pane(float $x, float $y, float $w, float $h, float $z): Surface
    {
        return self::quad(
            [$x - $w / 2, $y - $h / 2, $z], [$x + $w / 2, $y - $h / 2, $z], [$x + $w / 2, $y + $h / 2, $z], [$x - $w / 2, $y + $h / 2, $z],
            [0.0, 0.0, 1.0],
        );
    }

    /**
     * Four corners in order, seen from the side to which it faces.
     *
     * @param  Vec  $a
     * @param  Vec  $b
     * @param  Vec  $c
     * @param  Vec  $d
     * @param  Vec  $facing
     */
    private static function quad(array $a, array $b, array $c, array $d, array $facing): Surface
    {
        $turns = V3::dot(V3::cross(V3::sub($b, $a), V3::sub($c, $a)), $facing) > 0.0;

        return new Surface(
            [$a, $b, $c, $d], array_fill(0, 4, V3::unit($facing)), $turns ? [0, 1, 2, 0, 2, 3] : [0, 2, 1, 0, 3, 2], [],
            [0.0, 0.0, 0.0, 0.0],
        );
    }

    public static function strip(Piece $p, float $x0, float $x1, float $z0, float $z1, float $y, int $colour): void
    {
        $p->add(
            self::quad([$x0, $y, $z1], [$x1, $y, $z1], [$x1, $y, $z0], [$x0, $y, $z0], [0.0, 1.0, 0.0]), $colour, wave: 0.0, jitter: 0.0,
            shift: 0.0, vary: 0.02,
        );
    }
}
