<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use Closure;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Colour;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\Shore;
use CrispReel\Core\Math\Random;

/**
 * What lies around a place, so that it may be filmed to all sides: a street that goes on, woods that close, country with hills. Simple,
 * and no part of the scene: nobody stands on it and nothing is picked there.
 *
 * @phpstan-type Vec array{float, float, float}
 */
final class AllRound
{
    private const LEAF = [0x5E7A3C, 0x6E8A44, 0x4F6E3A, 0x48684A];

    /** Metres to which a street goes on to each side. */
    private const FAR = 46.0;

    /** @return list<array{slug: string, kind: string, name: string, tags: list<string>, home: Vec, glb: string}> */
    public static function all(): array
    {
        $made = [];
        foreach ([
            [
                'street-all-round', 'Street that goes on', ['street', 'town', 'houses'], '#77736c',
                static fn (Piece $p, Random $r) => self::street($p, $r, 6.6),
            ],
            [
                'street-by-shop', 'Street with a gap for a house', ['street', 'town', 'houses'], '#77736c',
                static function (Piece $p, Random $r): void {
                    $p->in(0.0, 0.0, 2.4, static fn (Piece $q) => self::street($q, $r, 2.06));
                },
            ],
            ['sea-all-round', 'Sea with sails', ['sea', 'water', 'harbour', 'islands'], null, OpenSea::draw(...)],
            ['woods-all-round', 'Woods all round', ['forest', 'wood', 'trees'], '#66783f', self::woods(...)],
            ['country-all-round', 'Country with hills', ['country', 'fields', 'hills'], '#7c9150', self::country(...)],
        ] as [$slug, $name, $tags, $ground, $draw]) {
            $made[] = self::made($slug, $name, [...$tags, 'around', 'background'], $ground, $draw);
        }

        return $made;
    }

    /**
     * @param  list<string>  $tags
     * @param  string|null  $ground  colour of the ground that goes on, in place of the mood's; null: there is water
     * @param  Closure(Piece, Random): void  $draw
     * @return array{slug: string, kind: string, name: string, tags: list<string>, home: Vec, glb: string}
     */
    private static function made(string $slug, string $name, array $tags, ?string $ground, Closure $draw): array
    {
        $piece = new Piece($name, 300 + strlen($slug));
        $draw($piece, new Random(strlen($slug) * 13));

        return [
            'slug' => $slug, 'kind' => 'set', 'name' => $name, 'tags' => $tags, 'home' => [0.0, 0.0, 0.0],
            'glb' => $piece->glb(
                extras: ['home' => [0.0, 0.0, 0.0], 'backdrop' => true, 'layers' => true]
                    + ($ground === null ? ['water' => Shore::WATER] : ['ground' => $ground]),
                paint: 'backdrop',
            ),
        ];
    }

    /**
     * Along x: the row of the shops goes on to both sides, another stands across the road, and both ends are closed far away.
     *
     * @param  float  $gap  half the width that is left free for what it lies around, metres; a narrow one lies on the plain ground
     */
    private static function street(Piece $p, Random $r, float $gap): void
    {
        [$kerb, $road] = $gap < 6.0 ? [0.012, 0.012] : [0.15, 0.029];
        self::far($p, $r, 0x6F7F6A, 0x8893A0);
        $p->layer(0.2, static function (Piece $q) use ($r, $gap, $kerb, $road): void {
            FarHouses::strip($q, $gap < 6.0 ? -self::FAR : $gap, self::FAR, 0.6, 6.0, $road, 0x6E6A66);
            FarHouses::strip($q, $gap < 6.0 ? -self::FAR : $gap, self::FAR, -2.4, 0.6, $kerb, 0x9C9488);
            if ($gap < 6.0) {
                FarHouses::house($q, $r, [0.0, 0.0, -2.56], 0.0, 2 * $gap - 0.1);
            } else {
                FarHouses::strip($q, -self::FAR, -$gap, 0.6, 6.0, $road, 0x6E6A66);
                FarHouses::strip($q, -self::FAR, -$gap, -2.4, 0.6, $kerb, 0x9C9488);
            }
            FarHouses::strip($q, -self::FAR, self::FAR, 6.0, 9.0, 0.15, 0x9C9488);
        });
        $p->layer(0.4, static function (Piece $q) use ($r, $gap): void {
            FarHouses::row($q, $r, -self::FAR, -$gap, -2.45, 0.0);
            FarHouses::row($q, $r, $gap, self::FAR, -2.45, 0.0);
        });
        $p->layer(0.6, static fn (Piece $q) => FarHouses::row($q, $r, -self::FAR, self::FAR, 9.0, M_PI));
        $p->layer(0.8, static function (Piece $q) use ($r): void {
            foreach ([-1.0, 1.0] as $side) {
                for ($z = -14.0; $z < 22.0; $z += 7.0) {
                    FarHouses::house($q, $r, [$side * (self::FAR + 3.0), 0.0, $z], -$side * M_PI_2, 7.0);
                }
            }
        });
        $p->layer(1.0, static function (Piece $q) use ($r): void {
            for ($x = -40.0; $x < 42.0; $x += 10.0) {
                self::tree($q, $r, [$x + 2 * $r->signed(), 0.1, 8.1], 3.2 + $r->next());
            }
        });
    }

    /** Hills from the first on, when anything is there at all. */
    private static function far(Piece $p, Random $r, int $near, int $far): void
    {
        $p->layer(0.01, static fn (Piece $q) => self::hills($q, $r, $near, $far));
    }

    private static function woods(Piece $p, Random $r): void
    {
        self::far($p, $r, 0x4A6048, 0x6F8478);
        foreach ([0.2, 0.4, 0.6, 0.8, 1.0] as $from) {
            $p->layer($from, static function (Piece $q) use ($r): void {
                for ($i = 0; $i < 22; $i++) {
                    $far = 9.5 + 26.0 * sqrt($r->next());
                    $a = 2 * M_PI * $r->next();
                    $at = [$far * sin($a), -0.05, $far * cos($a)];
                    $isPine = $r->next() < 0.45;
                    $isPine ? self::pine($q, $r, $at, 5.0 + 2.5 * $r->next()) : self::tree($q, $r, $at, 4.2 + 2.0 * $r->next());
                }
                for ($i = 0; $i < 12; $i++) {
                    [$far, $a] = [8.5 + 14.0 * $r->next(), 2 * M_PI * $r->next()];
                    $q->add(
                        Shapes::sphere(0.35 + 0.35 * $r->next(), 8, 5), $r->pick(self::LEAF), [$far * sin($a), 0.15, $far * cos($a)],
                        wave: 0.08, waveRate: 8.0, vary: 0.16,
                    );
                }
            });
        }
    }

    private static function country(Piece $p, Random $r): void
    {
        self::far($p, $r, 0x6F8A5A, 0x8FA0A8);
        $p->layer(0.25, static function (Piece $q) use ($r): void {
            for ($i = 0; $i < 7; $i++) {
                [$far, $a] = [30.0 + 16.0 * $r->next(), 2 * M_PI * ($i + 0.5 * $r->next()) / 7];
                FarHouses::house($q, $r, [$far * sin($a), 0.0, $far * cos($a)], $a + M_PI + 0.5 * $r->signed(), 5.0 + 2 * $r->next());
            }
        });
        foreach ([0.5, 0.75, 1.0] as $from) {
            $p->layer($from, static function (Piece $q) use ($r): void {
                for ($i = 0; $i < 14; $i++) {
                    [$far, $a] = [16.0 + 34.0 * sqrt($r->next()), 2 * M_PI * $r->next()];
                    self::tree($q, $r, [$far * sin($a), -0.05, $far * cos($a)], 3.6 + 2.2 * $r->next());
                }
                for ($k = 0; $k < 3; $k++) {
                    self::hedge($q, $r, 2 * M_PI * $r->next());
                }
            });
        }
    }

    /** Low bushes in a row between two fields, away from the middle. */
    private static function hedge(Piece $p, Random $r, float $a): void
    {
        $turn = $r->signed();
        for ($i = 0; $i < 12; $i++) {
            $far = 20.0 + 2.4 * $i;
            $p->add(
                Shapes::sphere(0.9 + 0.3 * $r->next(), 8, 5), $r->pick(self::LEAF),
                [$far * sin($a + 0.02 * $turn * $i), 0.2, $far * cos($a + 0.02 * $turn * $i)], wave: 0.14, waveRate: 6.0, vary: 0.12,
            );
        }
    }

    /** @param  Vec  $at */
    private static function tree(Piece $p, Random $r, array $at, float $h): void
    {
        $p->add(
            Shapes::tube([$at, [$at[0], $at[1] + 0.62 * $h, $at[2]]], static fn (float $t): float => 0.17 - 0.09 * $t, 1, 6),
            0x5A4632, wave: 0.0,
        );
        for ($i = 0; $i < 4; $i++) {
            [$a, $k] = [$i * 2.4 + $r->next(), $i / 3];
            $d = $i === 0 ? 0.0 : 0.62 * (1 - 0.5 * $k) * $h / 4;
            $p->add(
                Shapes::sphere((0.95 - 0.3 * $k) * $h / 4, 8, 5), $r->pick(self::LEAF),
                [$at[0] + cos($a) * $d, $at[1] + $h * (0.62 + 0.3 * $k), $at[2] + sin($a) * $d], wave: 0.14, waveRate: 6.0, vary: 0.14,
            );
        }
    }

    /** @param  Vec  $at */
    private static function pine(Piece $p, Random $r, array $at, float $h): void
    {
        $p->add(Shapes::tube([[$at[0], $at[1], $at[2]], [$at[0], $at[1] + 0.5 * $h, $at[2]]], 0.13, 1, 6), 0x4C3C2C, wave: 0.0);
        for ($i = 0; $i < 4; $i++) {
            $w = (1.25 - 0.25 * $i) * $h / 5;
            $p->add(
                Shapes::lathe([[0.03, 0.42 * $h / 2], [$w * 0.45, 0.14 * $h], [$w, -0.1]], 9), $r->pick([0x3F5E45, 0x48684A, 0x37543F]),
                [$at[0], $at[1] + $h * (0.24 + 0.18 * $i), $at[2]], [0.0, 6 * $r->next(), 0.0], wave: 0.09, waveRate: 7.0, vary: 0.1,
            );
        }
    }

    /** Two rings of hills all round, without a seam. */
    private static function hills(Piece $p, Random $r, int $near, int $far): void
    {
        foreach ([[78.0, 3.0, 9.0, $near], [125.0, 8.0, 20.0, $far]] as [$radius, $low, $high, $colour]) {
            $phase = [9 * $r->next(), 9 * $r->next(), 9 * $r->next()];
            $n = 96;
            $tops = [];
            for ($i = 0; $i <= $n; $i++) {
                $a = 2 * M_PI * $i / $n;
                $swell = 0.28 * sin(3 * $a + $phase[0]) + 0.14 * sin(7 * $a + $phase[1]) + 0.08 * sin(16 * $a + $phase[2]);
                $tops[] = [$a, $low + ($high - $low) * (0.5 + $swell)];
            }
            Ridge::add($p, $tops, $radius, -0.5, $colour, [0.55, 0.58, 0.62], $high / 0.35, 0.35);
        }
    }
}
