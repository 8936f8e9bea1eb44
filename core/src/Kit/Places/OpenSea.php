<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;

/** What lies around a harbour to its open sides: islands on the horizon, rocks with a light, boats under sail, buoys. */
final class OpenSea
{
    /** Degrees from +z to +x of the shore that a harbour has already: nothing is put there. */
    private const SHORE = [140.0, 220.0];

    /** Degrees of the middle, degrees in width, metres in height. */
    private const ISLANDS = [
        [20.0, 34.0, 5.0], [78.0, 22.0, 3.2], [118.0, 16.0, 6.5], [238.0, 26.0, 6.0], [292.0, 20.0, 3.6], [336.0, 14.0, 7.5],
    ];

    private const SAILS = [0xEFE3CC, 0xC9553F, 0xE0C58A, 0xD9D2C2];

    private const HULLS = [0x3A4A55, 0x6B3A30, 0x4A5D4C];

    public static function draw(Piece $p, Random $r): void
    {
        $p->layer(0.01, static function (Piece $q) use ($r): void {
            foreach (self::ISLANDS as [$middle, $wide, $high]) {
                self::island($q, $r, deg2rad($middle), deg2rad($wide), 118.0 + 8.0 * $r->next(), $high);
            }
        });
        $p->layer(0.3, static function (Piece $q) use ($r): void {
            foreach ([52.0, 262.0] as $deg) {
                self::rocks($q, $r, self::at($deg, 34.0), $deg < 180.0);
            }
        });
        foreach ([0.5, 0.75, 1.0] as $n => $from) {
            $p->layer($from, static function (Piece $q) use ($r, $n): void {
                for ($i = 0; $i < 3; $i++) {
                    self::sail($q, $r, self::at(self::free($r), 30.0 + 34.0 * $r->next()), 0.8 + 0.5 * $r->next());
                }
                self::buoy($q, $r, self::at([8.0, 95.0, 300.0][$n], 17.0 + 4.0 * $n));
            });
        }
    }

    /** A heading in degrees at which there is no shore. */
    private static function free(Random $r): float
    {
        $deg = 360.0 * $r->next();

        return $deg > self::SHORE[0] && $deg < self::SHORE[1] ? $deg + 100.0 : $deg;
    }

    /** @return array{float, float, float} on the water */
    private static function at(float $deg, float $far): array
    {
        return [$far * sin(deg2rad($deg)), 0.0, $far * cos(deg2rad($deg))];
    }

    /** Rises out of the water and goes down into it again, in two ridges. */
    private static function island(Piece $p, Random $r, float $middle, float $wide, float $far, float $high): void
    {
        $n = 26;
        $tops = [];
        [$lean, $phase] = [0.25 * $r->signed(), 9 * $r->next()];
        for ($i = 0; $i <= $n; $i++) {
            $s = $i / $n;
            $h = $high * sin(M_PI * ($s + $lean * $s * (1 - $s) * 2)) ** 1.3 * (0.82 + 0.18 * sin(11 * $s + $phase));
            $tops[] = [$middle + $wide * ($s - 0.5), $h];
        }
        Ridge::add($p, $tops, $far, -2.2, 0x6A7480, [0.62, 0.64, 0.68], 20.0, 0.4, [[0.35, 0.8], [0.8, 2.2], [1.0, 4.0]], 0.4);
    }

    /** @param  array{float, float, float}  $at */
    private static function rocks(Piece $p, Random $r, array $at, bool $light): void
    {
        for ($i = 0; $i < 5; $i++) {
            $size = 0.7 + 1.3 * $r->next();
            $p->add(
                Shapes::sphere($size, 8, 6), $r->pick([0x5A5550, 0x6A625A, 0x4E4C4C]),
                [$at[0] + 3.2 * $r->signed(), -1.1 + 0.2 * $size, $at[2] + 2.2 * $r->signed()], [0.3, 6 * $r->next(), 0.2],
                wave: 0.3, waveRate: 2.4, vary: 0.14,
            );
        }
        if (! $light) {
            return;
        }
        $p->add(Shapes::lathe([[0.75, 4.2], [1.0, 0.0]], 10), 0xE6DDCB, [$at[0], -0.6, $at[2]], wave: 0.0, vary: 0.05);
        $p->add(Shapes::lathe([[0.92, 0.9], [0.95, 0.0]], 10), 0xB5483A, [$at[0], 0.9, $at[2]], wave: 0.0, vary: 0.04);
        $p->add(Shapes::lathe([[0.02, 1.5], [0.62, 0.95], [0.5, 0.9], [0.5, 0.0]], 10), 0xB5483A, [$at[0], 3.55, $at[2]], wave: 0.0);
    }

    /**
     * A boat under sail, some way off.
     *
     * @param  array{float, float, float}  $at
     */
    private static function sail(Piece $p, Random $r, array $at, float $k): void
    {
        [$hull, $cloth] = [$r->pick(self::HULLS), $r->pick(self::SAILS)];
        $p->in($at[0], -0.75, $at[2], static function (Piece $q) use ($k, $hull, $cloth): void {
            $ball = Shapes::sphere(1.0, 10, 6);
            $points = array_map(static fn (array $v): array => [1.9 * $k * $v[0], 0.5 * $k * $v[1], 0.6 * $k * $v[2]], $ball->points);
            $normals = array_map(static fn (array $v): array => V3::unit([$v[0] / 1.9, $v[1] / 0.5, $v[2] / 0.6]), $ball->normals);
            $q->add(new Surface($points, $normals, $ball->index, [], array_fill(0, count($points), 0.0)), $hull, wave: 0.0, vary: 0.05);
            $q->add(Shapes::tube([[0.2 * $k, 0.3 * $k, 0.0], [0.2 * $k, 4.4 * $k, 0.0]], 0.05 * $k, 1, 5), 0x5A4632, wave: 0.0);
            foreach ([[[0.1, 0.7], [0.1, 4.2], [-1.6, 0.8]], [[0.3, 0.7], [0.3, 3.8], [1.7, 0.6]]] as $corners) {
                $points = array_map(static fn (array $c): array => [$c[0] * $k, $c[1] * $k, 0.0], $corners);
                foreach ([1.0, -1.0] as $side) {
                    $normals = array_fill(0, 3, [0.0, 0.0, $side]);
                    $sail = new Surface($points, $normals, self::turned($points, $side), [], [0.0, 0.0, 0.0]);
                    $q->add($sail, $cloth, wave: 0.0, jitter: 0.0, vary: 0.02);
                }
            }
        }, 2 * M_PI * $r->next());
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @return list<int> of a triangle that is seen from +z or -z
     */
    private static function turned(array $points, float $side): array
    {
        $up = V3::cross(V3::sub($points[1], $points[0]), V3::sub($points[2], $points[0]))[2];

        return $up * $side > 0.0 ? [0, 1, 2] : [0, 2, 1];
    }

    /** @param  array{float, float, float}  $at */
    private static function buoy(Piece $p, Random $r, array $at): void
    {
        $p->add(
            Shapes::lathe([[0.02, 1.5], [0.1, 1.45], [0.12, 0.9], [0.5, 0.5], [0.55, 0.0]], 10), $r->pick([0xC0432F, 0x3F7F5A]),
            [$at[0], -0.95, $at[2]], [0.12 * $r->signed(), 0.0, 0.12 * $r->signed()], wave: 0.0, vary: 0.06,
        );
    }
}
