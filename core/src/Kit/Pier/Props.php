<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\Random;
use CrispReel\Core\Math\V3;

/** Hand cart with the tower-clock face, lantern, bell post, brass key, bench, crates, lantern post. */
final class Props
{
    public static function cart(): Piece
    {
        $p = new Piece('Hand cart with clock face', 31);
        $r = new Random(3);
        for ($i = 0; $i < 5; $i++) {
            $p->add(
                Shapes::box(1.2, 0.04, 0.137, 0.012, [5, 1, 1]),
                $r->pick([0x8A6A4A, 0x97764F, 0x7D5E40]),
                [0.0, 0.46, -0.29 + $i * 0.145],
                wood: 1.0,
            );
        }
        foreach ([-1.0, 1.0] as $s) {
            $p->add(
                Shapes::tube(
                    [
                        [-0.62, 0.42, $s * 0.30], [0.2, 0.42, $s * 0.31], [0.75, 0.50, $s * 0.29], [1.15, 0.74, $s * 0.27],
                        [1.42, 0.86, $s * 0.27],
                    ],
                    0.033,
                    18,
                    8,
                ),
                C::CART,
                wood: 1.0,
            );
            $p->add(Shapes::tube([[1.27, 0.80, $s * 0.27], [1.45, 0.872, $s * 0.27]], 0.04, 3, 8), C::CART_IRON);
            $p->add(Shapes::box(1.15, 0.13, 0.035, 0.014, [5, 1, 1]), C::CART, [0.0, 0.56, $s * 0.375], wood: 1.0);
            $p->add(
                Shapes::box(0.055, 0.42, 0.055, 0.016, [1, 3, 1]),
                C::CART,
                [0.52, 0.22, $s * 0.26],
                [0.0, 0.0, 0.12],
                wood: 1.0,
                grain: 1,
            );
            $p->part($s > 0 ? 'wheelL' : 'wheelR', -0.05, 0.343, $s * 0.47, self::wheel(...), 0.0, 0.0, $s * 0.02);
            // Whoever pushes stands behind at +x: thumbs ahead along the shafts, palms from outside and above.
            $p->mount(
                $s > 0 ? 'gripL' : 'gripR',
                [1.38, 0.845, $s * 0.27],
                Q4::fromAxes([0.0, 1.0, 0.0], [0.0, 0.0, 1.0], V3::unit([-1.0, -0.35, 0.0]), V3::unit([0.0, -0.6, -$s * 0.8])),
            );
        }
        $p->add(Shapes::tube([[-0.05, 0.33, -0.5], [-0.05, 0.33, 0.5]], 0.025, 2, 7), C::CART_IRON);
        $p->add(Shapes::box(0.04, 0.14, 0.76, 0.014, [1, 1, 4]), C::CART, [-0.6, 0.55, 0.0], wood: 1.0, grain: 2);
        $p->in(-0.02, 1.01, 0.06, self::clockFace(...), 0.0, -0.14);
        // A tower clock is read from both sides.
        $p->in(-0.02, 1.01, 0.02, self::dial(...), M_PI, 0.14);
        foreach ([-1.0, 1.0] as $s) {
            $p->add(
                Shapes::box(0.05, 0.62, 0.05, 0.014, [1, 4, 1]),
                0x7D5E40,
                [$s * 0.3, 0.75, -0.2],
                [-0.14, 0.0, 0.0],
                wood: 1.0,
                grain: 1,
            );
            $p->add(
                Shapes::tube(
                    [
                        [$s * 0.52, 0.55, 0.34], [$s * 0.47, 0.85, 0.27], [$s * 0.36, 1.30, 0.16], [$s * 0.30, 1.47, 0.0],
                        [$s * 0.1, 1.2, -0.2], [0.0, 0.55, -0.36],
                    ],
                    0.014,
                    section: 6,
                    lobes: 3,
                    pitch: 0.06,
                ),
                C::ROPE,
                jitter: 0.0,
            );
        }
        $p->add(Shapes::box(0.9, 0.05, 0.06, 0.014, [5, 1, 1]), 0x7D5E40, [0.0, 0.5, 0.17], wood: 1.0);

        return $p->add(Shapes::box(0.24, 0.13, 0.3, 0.06, [2, 2, 2]), 0x9A5A4A, [0.42, 0.54, 0.1], wave: 0.012, waveRate: 14.0);
    }

    private static function wheel(Piece $p): void
    {
        $p->add(Shapes::ring(0.315, 0.028, 7, 28), C::CART_IRON, gloss: 0.3, wave: 0.003);
        $p->add(Shapes::ring(0.285, 0.03, 7, 28), 0xB5482F, wood: 1.0);
        for ($i = 0; $i < 8; $i++) {
            $a = $i * M_PI / 4 + 0.2;
            $p->add(
                Shapes::tube(
                    [[cos($a) * 0.05, sin($a) * 0.05, 0.0], [cos($a) * 0.16, sin($a) * 0.16, 0.0], [cos($a) * 0.285, sin($a) * 0.285, 0.0]],
                    static fn (float $t): float => 0.022 - 0.007 * sin($t * M_PI),
                    3,
                    6,
                ),
                0xC25A38,
                wood: 1.0,
            );
        }
        $p->add(Shapes::tube([[0.0, 0.0, -0.06], [0.0, 0.0, 0.06]], 0.07, 2, 12), 0xB5482F, wood: 1.0);
        $p->add(Shapes::sphere(0.04, 10, 6), C::BRASS, [0.0, 0.0, 0.06], gloss: 0.9);
        $p->add(Shapes::sphere(0.04, 10, 6), C::BRASS, [0.0, 0.0, -0.06], gloss: 0.9);
    }

    private static function clockFace(Piece $p): void
    {
        $p->add(
            Shapes::tube([[0.0, 0.0, -0.09], [0.0, 0.0, 0.05]], 0.52, 2, 40),
            0x6A5238,
            jitter: 0.0,
            wave: 0.003,
            waveRate: 3.0,
            wear: 0.0,
        );
        self::dial($p);
        $p->add(Shapes::ring(0.026, 0.009, 7, 16), C::BRASS, [0.0, -0.2, 0.058], gloss: 0.9, jitter: 0.0);
        $p->add(Shapes::disc(0.001, 0.022, 14, 1), 0x15120F, [0.0, -0.2, 0.0565], jitter: 0.0, shift: 0.0, wave: 0.0, wear: 0.0);
        $p->mount('keyhole', [0.0, -0.2, 0.06]);
    }

    private static function dial(Piece $p): void
    {
        $p->add(Shapes::ring(0.52, 0.055, 9, 44), C::BRASS, [0.0, 0.0, 0.02], gloss: 0.75, jitter: 0.0);
        $flat = ['jitter' => 0.0, 'shift' => 0.0, 'wave' => 0.0, 'wear' => 0.0];
        $p->add(Shapes::disc(0.001, 0.50, 44, 6), C::ENAMEL, [0.0, 0.0, 0.0525], ...['gloss' => 0.12, 'vary' => 0.0] + $flat);
        $p->add(Shapes::disc(0.395, 0.405, 44, 1), C::INK, [0.0, 0.0, 0.0540], ...$flat);
        $p->add(Shapes::disc(0.135, 0.15, 36, 1), C::BRASS, [0.0, 0.0, 0.0540], ...['gloss' => 0.5] + $flat);
        for ($i = 0; $i < 12; $i++) {
            $a = $i * M_PI / 6;
            $quarter = $i % 3 === 0;
            $p->add(
                Shapes::box($quarter ? 0.036 : 0.022, $quarter ? 0.115 : 0.075, 0.014, 0.006),
                C::INK,
                [sin($a) * 0.325, cos($a) * 0.325, 0.056],
                [0.0, 0.0, -$a],
                jitter: 1.2,
                wear: 0.4,
            );
        }
        for ($i = 0; $i < 60; $i++) {
            if ($i % 5 > 0) {
                $a = $i * M_PI / 30;
                $p->add(
                    Shapes::box(0.008, 0.022, 0.006, 0.002, [1, 1, 1], '-z'),
                    C::INK,
                    [sin($a) * 0.425, cos($a) * 0.425, 0.055],
                    [0.0, 0.0, -$a],
                    ...$flat,
                );
            }
        }
        foreach ([[5.1, 0.27, 0.034, 0.075], [0.62, 0.39, 0.026, 0.09]] as [$a, $length, $w, $z]) {
            $p->in(0.0, 0.0, $z, static function (Piece $p) use ($length, $w): void {
                $p->add(
                    Shapes::box($w, $length, 0.014, 0.006, [1, 3, 1]),
                    0x39323A,
                    [0.0, $length / 2 - 0.05, 0.0],
                    gloss: 0.4,
                    jitter: 0.0,
                );
                $p->add(Shapes::box($w * 0.9, 0.08, 0.012, 0.006), 0x39323A, [0.0, $length - 0.03, 0.0], [0.0, 0.0, M_PI / 4], gloss: 0.4);
            }, 0.0, 0.0, -$a);
        }
        $p->add(Shapes::sphere(0.042), C::BRASS, [0.0, 0.0, 0.09], gloss: 1.0);
    }

    public static function lantern(Piece $p, float $s = 1.0): void
    {
        $p->add(
            Shapes::lathe(self::scaled([[0.0, 0.0], [0.105, 0.0], [0.10, 0.03], [0.085, 0.05], [0.0, 0.055]], $s), 14),
            C::BRASS,
            gloss: 0.9,
        );
        $p->add(Shapes::lathe(
            self::scaled([[0.0, 0.055], [0.055, 0.06], [0.07, 0.11], [0.068, 0.17], [0.05, 0.215], [0.0, 0.22]], $s),
            12,
        ), static function (array $q) use ($s): array {
            $f = 1 - abs($q[1] / $s - 0.12) * 6;

            return [1.6, 0.95 + 0.25 * $f, 0.35 + 0.3 * max(0.0, $f)];
        }, glow: 1.0, vary: 0.0);
        for ($i = 0; $i < 4; $i++) {
            $a = $i * M_PI / 2 + M_PI / 4;
            $at = static fn (float $r, float $y): array => [cos($a) * $r * $s, $y * $s, sin($a) * $r * $s];
            $p->add(Shapes::tube([$at(0.088, 0.04), $at(0.092, 0.13), $at(0.08, 0.23)], 0.0085 * $s, 4, 5), C::BRASS, gloss: 0.9);
        }
        $p->add(
            Shapes::lathe(
                self::scaled([[0.0, 0.222], [0.108, 0.222], [0.105, 0.235], [0.06, 0.275], [0.035, 0.29], [0.03, 0.31], [0.0, 0.315]], $s),
                14,
            ),
            C::BRASS,
            gloss: 0.9,
        );
        $p->add(Shapes::ring(0.05 * $s, 0.009 * $s, 6, 16), C::BRASS, [0.0, 0.355 * $s, 0.0], gloss: 0.8);
        $p->mount('hang', [0.0, 0.40 * $s, 0.0]);
    }

    /**
     * @param  list<array{float, float}>  $profile
     * @return list<array{float, float}>
     */
    private static function scaled(array $profile, float $s): array
    {
        $out = [];
        foreach ($profile as [$r, $y]) {
            $out[] = [$r * $s, $y * $s];
        }

        return $out;
    }

    public static function bellPost(Piece $p): void
    {
        self::bareBellPost($p);
        self::bell($p);
    }

    /** The post with its arm; the bell hangs from [0.44, 1.90, 0]. */
    public static function bareBellPost(Piece $p): void
    {
        $p->add(Shapes::box(0.3, 0.14, 0.3, 0.03, [2, 1, 2]), C::BEAM, [0.0, 0.07, 0.0], wood: 1.0);
        $p->add(
            Shapes::box(0.14, 2.15, 0.14, 0.03, [1, 8, 1]),
            static fn (array $q): int => $q[1] > 0.55 ? C::RED : ($q[1] < -0.9 ? 0x5D4838 : C::POST),
            [0.0, 1.1, 0.0],
            wood: 1.0,
            grain: 1,
        );
        $p->add(Shapes::sphere(0.1, 14, 9), C::POST, [0.0, 2.25, 0.0]);
        $p->add(Shapes::box(0.62, 0.09, 0.09, 0.022, [4, 1, 1]), C::POST, [0.26, 1.98, 0.0], wood: 1.0);
        $p->add(Shapes::box(0.36, 0.055, 0.06, 0.016, [2, 1, 1]), C::POST, [0.17, 1.80, 0.0], [0.0, 0.0, 0.75], wood: 1.0);
    }

    /** The bell with its rope, where it hangs on the post. */
    public static function bell(Piece $p): void
    {
        $p->add(
            Shapes::lathe(
                [
                    [0.0, 0.17], [0.10, 0.12], [0.15, 0.004], [0.178, 0.0], [0.175, 0.012], [0.135, 0.05], [0.115, 0.12], [0.105, 0.19],
                    [0.085, 0.235], [0.04, 0.26], [0.035, 0.30], [0.0, 0.30],
                ],
                20,
            ),
            C::BELL,
            [0.44, 1.60, 0.0],
            gloss: 1.0,
            jitter: 1.0,
            wear: 0.6,
        );
        $p->add(Shapes::sphere(0.035, 10, 6), 0x6B4A20, [0.44, 1.59, 0.0], gloss: 0.5);
        $p->add(
            Shapes::tube(
                [[0.44, 1.57, 0.0], [0.445, 1.4, 0.01], [0.43, 1.2, 0.0], [0.44, 1.05, 0.01]],
                0.013,
                section: 6,
                lobes: 3,
                pitch: 0.05,
            ),
            C::ROPE,
            jitter: 0.0,
        );
        $p->add(Shapes::sphere(0.035, 10, 7), C::RED, [0.44, 1.02, 0.01]);
        $p->mount('pull', [0.44, 1.04, 0.01]);
    }

    /** Brass winding key, 17 cm, shaft along +y; held by its bow. */
    public static function key(): Piece
    {
        $p = new Piece('Brass key', 7);
        $o = ['gloss' => 1.0, 'wave' => 0.0006, 'waveRate' => 60.0, 'shift' => 0.0, 'jitter' => 0.0, 'wear' => 0.7];
        $p->add(Shapes::tube([[0.0, 0.0, 0.0], [0.0, 0.05, 0.0], [0.0, 0.115, 0.0]], 0.0065, 6, 9), C::BRASS, ...$o);
        foreach ([0.012, 0.095, 0.108] as $y) {
            $p->add(Shapes::ring(0.0085, 0.0032, 7, 16), C::BRASS, [0.0, $y, 0.0], [M_PI / 2, 0.0, 0.0], ...$o);
        }
        foreach ([[0.0, 0.148], [-0.0235, 0.131], [0.0235, 0.131]] as [$x, $y]) {
            $p->add(Shapes::ring(0.0165, 0.0055, 9, 22), C::BRASS, [$x, $y, 0.0], ...$o);
        }
        $p->add(Shapes::sphere(0.009, 10, 7), C::BRASS, [0.0, 0.128, 0.0], ...$o);
        foreach ([[0.03, 0.013, 0.017, 0.012], [0.022, 0.009, 0.013, 0.03], [0.008, 0.03, 0.028, 0.02]] as [$w, $h, $x, $y]) {
            $p->add(Shapes::box($w, $h, 0.009, 0.003), C::BRASS, [$x, $y, 0.0], ...$o);
        }

        return $p->add(Shapes::sphere(0.0085, 10, 7), C::BRASS, ...$o)->mount('hold', [0.0, 0.075, 0.0]);
    }

    public static function bench(Piece $p): void
    {
        for ($i = 0; $i < 3; $i++) {
            $p->add(Shapes::box(1.25, 0.035, 0.125, 0.014, [5, 1, 1]), C::BENCH, [0.0, 0.44, -0.14 + $i * 0.14], wood: 1.0);
        }
        foreach ([0.62, 0.80] as $y) {
            $p->add(
                Shapes::box(1.25, 0.12, 0.03, 0.014, [5, 1, 1]),
                C::BENCH,
                [0.0, $y, -0.24 - ($y - 0.62) * 0.2],
                [-0.12, 0.0, 0.0],
                wood: 1.0,
            );
        }
        foreach ([-0.52, 0.52] as $x) {
            $p->add(Shapes::box(0.06, 0.44, 0.06, 0.016, [1, 2, 1]), C::IRON, [$x, 0.21, 0.14]);
            $p->add(Shapes::box(0.06, 0.88, 0.06, 0.016, [1, 3, 1]), C::IRON, [$x, 0.43, -0.21], [-0.08, 0.0, 0.0]);
            $p->add(Shapes::box(0.05, 0.05, 0.40, 0.014, [1, 1, 2]), C::IRON, [$x, 0.40, -0.03]);
            $p->mount($x < 0 ? 'seatR' : 'seatL', [$x * 0.6, 0.46, 0.02]);
        }
    }

    public static function crate(Piece $p, float $size, int $seed): void
    {
        $r = new Random($seed);
        $h = $size / 2;
        $p->add(Shapes::box($size * 0.94, $size * 0.94, $size * 0.94, 0.01, [2, 2, 2]), 0x7D5A36, [0.0, $h, 0.0], wood: 1.0);
        foreach ([[0.0, 1.0], [M_PI / 2, 1.0], [M_PI, 1.0], [-M_PI / 2, 1.0]] as [$yaw]) {
            $p->in(0.0, $h, 0.0, static function (Piece $p) use ($size, $h, $r): void {
                for ($i = 0; $i < 4; $i++) {
                    $p->add(
                        Shapes::box($size * 0.98, $size / 4 - 0.012, 0.02, 0.008, [2, 1, 1], '-z'),
                        $r->pick(C::CRATE),
                        [0.0, -$h + $size / 8 + $i * $size / 4, $h - 0.008],
                        wood: 1.0,
                        vary: 0.12,
                    );
                }
                foreach ([-1.0, 1.0] as $s) {
                    $p->add(
                        Shapes::box(0.07, $size, 0.03, 0.01, [1, 2, 1]),
                        $r->pick(C::CRATE),
                        [$s * ($h - 0.035), 0.0, $h + 0.01],
                        wood: 1.0,
                        grain: 1,
                    );
                }
                $p->add(
                    Shapes::box($size * 1.18, 0.06, 0.026, 0.01, [3, 1, 1]),
                    $r->pick(C::CRATE),
                    [0.0, 0.0, $h + 0.008],
                    [0.0, 0.0, 0.72],
                    wood: 1.0,
                );
            }, $yaw);
        }
        for ($i = 0; $i < 4; $i++) {
            $p->add(
                Shapes::box($size * 1.02, 0.022, $size / 4 - 0.01, 0.008, [2, 1, 1]),
                $r->pick(C::CRATE),
                [0.0, $size + 0.004, -$h + $size / 8 + $i * $size / 4],
                wood: 1.0,
            );
        }
    }

    public static function lanternPost(Piece $p): void
    {
        $p->add(Shapes::box(0.11, 2.0, 0.11, 0.024, [1, 7, 1]), C::POST, [0.0, 1.0, 0.0], wood: 1.0, grain: 1);
        $p->add(Shapes::tube([[0.0, 1.88, 0.0], [-0.1, 2.02, 0.0], [-0.26, 2.03, 0.0], [-0.32, 1.92, 0.0]], 0.017, 12, 6), C::IRON);
        $p->in(-0.32, 1.58, 0.0, static fn (Piece $p) => self::lantern($p));
    }
}
