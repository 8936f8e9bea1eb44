<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Loft;
use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Geometry\Surface;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** Small ferry, 6.3 m long, 2.1 m beam, with wheelhouse, railing, benches, gangway and a pennant on the mast. */
final class Ferry
{
    private static function beam(float $t): float
    {
        $q = abs($t - 0.46) / 0.54;

        return $t > 0.46
            ? 1.05 * max(0.0, 1 - $q ** 2.6) ** 0.62 + 0.02
            : 1.05 * max(0.0, 1 - ($q / 0.86) ** 5) ** 0.5 * 0.93 + 0.06;
    }

    private static function sheer(float $t): float
    {
        return 0.42 + 0.42 * (abs($t - 0.42) / 0.58) ** 2.2;
    }

    private static function x(float $t): float
    {
        return -3.05 + 6.3 * $t;
    }

    public static function draw(Piece $p): void
    {
        self::hull($p);
        self::rails($p);
        self::wheelhouse($p);
        foreach ([-1.7, -2.4] as $x) {
            $p->add(Shapes::box(0.34, 0.05, 1.2, 0.02, [2, 1, 4]), C::BENCH, [$x, 0.52, 0.0], wood: 1.0, grain: 2);
            $p->add(Shapes::box(0.26, 0.34, 1.0, 0.03, [1, 2, 3]), C::HOUSE, [$x, 0.34, 0.0], wood: 1.0);
        }
        $p->in(-0.4, 0.34, 1.62, static function (Piece $p): void {
            for ($i = 0; $i < 3; $i++) {
                $p->add(Shapes::box(0.23, 0.04, 1.75, 0.012, [1, 1, 6]), C::DECK[$i], [-0.24 + $i * 0.24, 0.02, 0.0], wood: 1.0, grain: 2);
            }
            for ($i = 0; $i < 5; $i++) {
                $p->add(Shapes::box(0.7, 0.025, 0.04, 0.008, [3, 1, 1]), 0x6A4E38, [0.0, 0.05, -0.6 + $i * 0.3], wood: 1.0);
            }
        }, 0.0, 0.20);
        $p->mount('helm', [0.75, 0.18, 0.0])->mount('gangway', [-0.4, 0.2, 2.4])->mount('seat', [-1.7, 0.545, 0.0]);
    }

    /** @return list<array{float, float, float}> half a section from gunwale to keel */
    private static function section(float $t, float $inset): array
    {
        $b = self::beam($t) - $inset;
        $s = self::sheer($t);
        $out = [];
        for ($j = 0; $j <= 9; $j++) {
            $v = $j / 9;
            $out[] = [
                self::x($t) + ($t > 0.6 ? ($t - 0.6) * 0.5 * (1 - $v) : 0.0), $s - ($s + 0.75) * $v ** 1.05,
                max(0.01, $b) * cos($v * M_PI / 2 * 0.92) ** 0.55,
            ];
        }

        return $out;
    }

    /** @param  array{float, float, float}  $q */
    private static function hullColour(array $q): int
    {
        $band = $q[1] > 0.34 && $q[1] > self::sheer(($q[0] + 3.05) / 6.3) - 0.12;

        return $band ? C::BAND : ($q[1] < -0.5 ? C::BOTTOM : C::HULL);
    }

    private static function hull(Piece $p): void
    {
        foreach ([[0.0, 9, self::hullColour(...), 1.0], [0.07, 4, static fn (): int => 0xD8C8A2, -1.0]] as [$inset, $rows, $paint, $out]) {
            foreach ([1.0, -1.0] as $side) {
                $points = $away = [];
                for ($i = 0; $i <= 26; $i++) {
                    foreach (array_slice(self::section($i / 26, $inset), 0, $rows + 1) as $q) {
                        $points[] = [$q[0], $q[1], $side * $q[2]];
                        $away[] = [0.0, -0.3 * $out, $side * $out];
                    }
                }
                $s = Surface::facing($points, Loft::gridIndex($rows, 26), $away);
                $p->add($s, $paint, wood: 0.35, gloss: 0.12, jitter: 0.0, shift: 0.0, wave: 0.006, waveRate: 4.0, vary: 0.02);
            }
        }
        $stern = $away = [];
        foreach (self::section(0.0, 0.0) as $q) {
            array_push($stern, $q, [$q[0], $q[1], -$q[2]]);
            array_push($away, [-1.0, 0.0, 0.0], [-1.0, 0.0, 0.0]);
        }
        $p->add(Surface::facing($stern, Loft::gridIndex(1, 9), $away), C::HULL, jitter: 0.0, shift: 0.0);
        for ($k = -5; $k <= 5; $k++) {
            $z = $k * 0.18;
            $on = array_values(array_filter(range(0, 40), static fn (int $i): bool => self::beam($i / 40) - 0.09 > abs($z) + 0.06));
            if ($on === []) {
                continue;
            }
            $a = self::x($on[0] / 40);
            $b = self::x($on[count($on) - 1] / 40);
            $p->add(
                Shapes::box($b - $a, 0.04, 0.17, 0.01, [10, 1, 1]),
                [0xB08A5C, 0xA27C50, 0xBA966A][($k + 6) % 3],
                [($a + $b) / 2, 0.16, $z],
                wood: 1.0,
                jitter: 0.05,
            );
        }
    }

    private static function rails(Piece $p): void
    {
        foreach ([1.0, -1.0] as $side) {
            $rub = $top = $low = [];
            for ($i = 0; $i <= 20; $i++) {
                $t = 0.02 + $i / 20 * 0.96;
                $x = self::x($t) + ($t > 0.6 ? ($t - 0.6) * 0.5 : 0.0);
                $rub[] = [$x, self::sheer($t) + 0.015, $side * self::beam($t)];
                if ($i <= 17) {
                    $top[] = [$x, self::sheer($t) + 0.48, $side * self::beam($t) * 0.96];
                    $low[] = [$x, self::sheer($t) + 0.26, $side * self::beam($t) * 0.96];
                }
            }
            $p->add(Shapes::tube($rub, 0.055, 40, 7), 0x8C5A34, wood: 1.0, jitter: 0.0);
            foreach (self::runs($top, $side > 0) as $run) {
                $p->add(Shapes::tube(self::picked($top, $run), 0.026, count($run) * 2, 6), 0xA8682F, gloss: 0.2, jitter: 0.0);
                $p->add(Shapes::tube(self::picked($low, $run), 0.016, count($run) * 2, 5), C::WHITE, gloss: 0.2, jitter: 0.0);
                foreach ($run as $i) {
                    [$x, $y, $z] = $top[$i];
                    $p->add(Shapes::tube([[$x, $y - 0.5, $z], [$x, $y + 0.02, $z]], 0.02, 1, 6), C::WHITE, jitter: 1.0);
                }
            }
            for ($i = 0; $i < 5; $i++) {
                $t = 0.16 + $i * 0.15;
                $p->add(Shapes::ring(0.15, 0.06, 7, 14), 0x33302F, [self::x($t), self::sheer($t) - 0.28, $side * (self::beam($t) + 0.05)]);
            }
        }
    }

    /**
     * @param  list<array{float, float, float}>  $from
     * @param  list<int>  $run
     * @return list<array{float, float, float}>
     */
    private static function picked(array $from, array $run): array
    {
        return array_map(static fn (int $i): array => $from[$i], $run);
    }

    /**
     * The railing is open at the gangway.
     *
     * @param  list<array{float, float, float}>  $top
     * @return list<list<int>>
     */
    private static function runs(array $top, bool $gate): array
    {
        $runs = [];
        $current = [];
        foreach ($top as $i => $q) {
            if ($gate && $q[0] > -1.0 && $q[0] < 0.2) {
                if (count($current) > 1) {
                    $runs[] = $current;
                }
                $current = [];
            } else {
                $current[] = $i;
            }
        }

        return count($current) > 1 ? [...$runs, $current] : $runs;
    }

    private static function wheelhouse(Piece $p): void
    {
        $p->in(0.75, 0.18, 0.0, static function (Piece $p): void {
            [$w, $d] = [1.5, 1.22];
            $p->add(Shapes::box($w, 0.8, $d, 0.06, [5, 3, 4]), C::HOUSE, [0.0, 0.4, 0.0], wood: 0.5, grain: 1, wave: 0.006);
            $p->add(Shapes::box($w * 0.97, 0.09, $d + 0.03, 0.03, [5, 1, 4]), C::HULL, [0.0, 0.82, 0.0]);
            foreach ([-1.0, 1.0] as $sx) {
                foreach ([-1.0, 1.0] as $sz) {
                    $p->add(Shapes::box(0.13, 0.66, 0.13, 0.04, [1, 3, 1]), C::HOUSE, [$sx * ($w / 2 - 0.07), 1.14, $sz * ($d / 2 - 0.07)]);
                }
                $p->add(Shapes::box(0.07, 0.62, 0.1, 0.02, [1, 3, 1]), C::HOUSE, [0.02, 1.14, $sx * ($d / 2 - 0.05)]);
                $p->add(Shapes::box($w - 0.2, 0.56, 0.02, 0.005, [7, 4, 1]), static function (array $q): array {
                    $f = max(0.0, 1 - hypot($q[0] - 0.2, $q[1] * 1.4) * 0.95);

                    return [0.95 + 0.45 * $f, 0.25 + 0.24 * $f, 0.035 + 0.07 * $f];
                }, [0.0, 1.13, $sx * ($d / 2 - 0.07)], glow: 0.8, vary: 0.0, wear: 0.0);
                $p->add(
                    Shapes::box(0.02, 0.56, $d - 0.2, 0.005, [1, 4, 5]),
                    static fn (): array => [0.9, 0.26, 0.045],
                    [$sx * ($w / 2 - 0.07), 1.13, 0.0],
                    glow: 0.75,
                    vary: 0.0,
                    wear: 0.0,
                );
            }
            $p->add(Shapes::box($w + 0.34, 0.12, $d + 0.34, 0.055, [6, 1, 6]), C::RED, [0.04, 1.5, 0.0], wave: 0.008, waveRate: 5.0);
            $p->add(Shapes::box($w + 0.1, 0.06, $d + 0.1, 0.03, [5, 1, 5]), C::TRIM, [0.04, 1.43, 0.0]);
            $p->add(
                Shapes::lathe([[0.15, 0.0], [0.15, 0.44], [0.17, 0.46], [0.17, 0.6], [0.14, 0.62], [0.0, 0.62]], 14),
                static fn (array $q): int => $q[1] > 0.42 ? C::INK : C::BAND,
                [-0.42, 1.55, 0.0],
                [0.0, 0.0, 0.1],
            );
            $p->add(
                Shapes::tube(
                    [[0.5, 1.5, 0.0], [0.52, 2.3, 0.0], [0.53, 3.0, 0.0]],
                    static fn (float $t): float => 0.035 - 0.014 * $t,
                    8,
                    7,
                ),
                0xC89A62,
                wood: 1.0,
            );
            $p->add(Shapes::sphere(0.05, 10, 6), C::BRASS, [0.53, 3.03, 0.0], gloss: 1.0);
            $p->add(
                Shapes::ring(0.2, 0.055, 8, 22),
                static fn (array $q): int => abs(sin(atan2($q[1], $q[0]) * 2)) < 0.42 ? C::RED : C::WHITE,
                [-0.46, 0.45, $d / 2 + 0.06],
                [0.0, 0.0, 0.3],
                wear: 0.0,
            );
            $p->add(Shapes::box(0.4, 0.7, 0.03, 0.012, [2, 3, 1]), 0xA8682F, [0.3, 0.4, $d / 2 + 0.012], wood: 1.0, grain: 1);
            $p->add(Shapes::sphere(0.028, 8, 5), C::BRASS, [0.16, 0.42, $d / 2 + 0.045], gloss: 1.0);
            $p->mount('masthead', [0.53, 2.86, 0.0]);
        });
    }

    /** The pennant streams along -x from its mast; cloth in the wind. */
    public static function pennant(): Piece
    {
        $p = new Piece('Pennant', 4);
        $points = [];
        for ($i = 0; $i <= 14; $i++) {
            for ($j = 0; $j <= 4; $j++) {
                $t = $i / 14;
                $points[] = [-$t * 0.95, ($j / 4 - 0.5) * 0.34 * (1 - $t * 0.93) - $t * 0.10, 0.0];
            }
        }

        return $p->add(
            Shapes::sheet($points, 4, 14),
            static fn (array $q): int => $q[0] < -0.3 && $q[0] > -0.52 ? C::BAND : C::RED,
            jitter: 0.0,
            wave: 0.0,
        );
    }
}
