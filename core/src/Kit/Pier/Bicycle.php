<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;

/** A messenger's bicycle: wheels and cranks turn, the fork steers, and a rider has seat, grips and pedals. It faces +Z. */
final class Bicycle
{
    private const RADIUS = 0.33;

    private const FRONT = 0.54;

    private const REAR = -0.50;

    private const FRAME = 0x2F6E6A;

    /** Way made in one turn of the cranks, as the radius of a wheel that rolls so far. */
    private const GEAR = 0.78;

    /** Pedals from the cranks' axle: aside and along the arm. */
    private const PEDAL = [0.13, 0.165];

    public static function draw(): Piece
    {
        $p = new Piece('Bicycle', 41);
        $p->part('fork', 0.0, self::RADIUS, self::FRONT, self::fork(...));
        $p->part('wheelF', 0.0, self::RADIUS, self::FRONT, self::wheel(...));
        $p->part('wheelR', 0.0, self::RADIUS, self::REAR, self::wheel(...));
        $p->part('crank', 0.0, 0.30, 0.02, self::crank(...));
        foreach ([
            [[0.0, 0.84, 0.50], [0.0, 0.33, 0.03]], [[0.0, 0.86, 0.50], [0.0, 0.70, -0.20]], [[0.0, 0.30, 0.02], [0.0, 0.76, -0.215]],
        ] as [$a, $b]) {
            $p->add(Shapes::tube([$a, V3::mix($a, $b, 0.5), $b], 0.021, 6, 9), self::FRAME, gloss: 0.35, jitter: 0.0);
        }
        foreach ([-1.0, 1.0] as $s) {
            $p->add(
                Shapes::tube([[$s * 0.02, 0.70, -0.19], [$s * 0.05, 0.52, -0.35], [$s * 0.055, self::RADIUS, self::REAR]], 0.012, 6, 7),
                self::FRAME,
                gloss: 0.35,
                jitter: 0.0,
            );
            $p->add(
                Shapes::tube([[$s * 0.02, 0.30, 0.0], [$s * 0.055, 0.31, -0.25], [$s * 0.055, self::RADIUS, self::REAR]], 0.012, 6, 7),
                self::FRAME,
                gloss: 0.35,
                jitter: 0.0,
            );
        }
        $p->add(Shapes::box(0.17, 0.06, 0.27, 0.028, [4, 2, 5]), 0x6B4226, [0.0, 0.79, -0.25], [0.05, 0.0, 0.0], wave: 0.004);
        $p->add(
            Shapes::tube([[0.0, 0.02, 0.0], [0.0, 0.0, 0.0], [0.0, -0.05, 0.0]], 0.014, 3, 8),
            C::IRON,
            [0.0, 0.77, -0.22],
            jitter: 0.0,
        );
        $p->add(Shapes::box(0.24, 0.02, 0.30, 0.008, [3, 1, 3]), 0x4A3A2C, [0.0, 0.70, -0.56], wood: 1.0);
        $p->add(Shapes::box(0.30, 0.20, 0.28, 0.03, [3, 3, 3]), 0x8A6A42, [0.0, 0.82, -0.56], wood: 1.0, wave: 0.006);
        $p->mount('seat', [0.0, 0.80, -0.24]);
        foreach (['gripL' => 1.0, 'gripR' => -1.0] as $name => $s) {
            $p->mount(
                $name,
                [$s * 0.25, 1.02, 0.40],
                Q4::fromAxes([0.0, 1.0, 0.0], [0.0, 0.0, 1.0], V3::unit([-$s, 0.0, 0.25]), V3::unit([0.0, -0.8, -0.4])),
            );
        }

        return $p;
    }

    private static function wheel(Piece $p): void
    {
        $p->in(0.0, 0.0, 0.0, static function (Piece $p): void {
            $p->add(Shapes::ring(self::RADIUS - 0.022, 0.022, 7, 30), 0x2A2624, jitter: 0.0, wave: 0.001);
            $p->add(Shapes::ring(self::RADIUS - 0.05, 0.011, 6, 30), C::BRASS, gloss: 0.8, jitter: 0.0, wave: 0.0);
            for ($i = 0; $i < 10; $i++) {
                $a = $i * M_PI / 5;
                $p->add(
                    Shapes::tube(
                        [
                            [cos($a) * 0.02, sin($a) * 0.02, 0.0], [cos($a) * 0.15, sin($a) * 0.15, 0.0],
                            [cos($a) * 0.28, sin($a) * 0.28, 0.0],
                        ],
                        0.0045,
                        2,
                        5,
                    ),
                    C::IRON,
                    jitter: 0.0,
                    wave: 0.0,
                );
            }
            $p->add(Shapes::tube([[0.0, 0.0, -0.06], [0.0, 0.0, 0.0], [0.0, 0.0, 0.06]], 0.022, 2, 10), C::IRON, gloss: 0.5, jitter: 0.0);
        }, M_PI / 2);
    }

    private static function fork(Piece $p): void
    {
        foreach ([-1.0, 1.0] as $s) {
            $p->add(
                Shapes::tube([[$s * 0.05, 0.0, 0.0], [$s * 0.05, 0.3, 0.0], [$s * 0.02, 0.42, -0.02], [0.0, 0.60, -0.03]], 0.014, 8, 7),
                self::FRAME,
                gloss: 0.35,
                jitter: 0.0,
            );
            $p->add(
                Shapes::tube(
                    [[0.0, 0.67, -0.03], [$s * 0.12, 0.70, -0.02], [$s * 0.22, 0.69, -0.08], [$s * 0.27, 0.685, -0.18]],
                    0.012,
                    10,
                    8,
                ),
                C::IRON,
                gloss: 0.5,
                jitter: 0.0,
            );
            $p->add(Shapes::tube([[$s * 0.245, 0.69, -0.12], [$s * 0.272, 0.685, -0.19]], 0.02, 3, 8), 0x5A3A28, jitter: 0.0);
        }
        $p->add(
            Shapes::tube([[0.0, 0.42, -0.02], [0.0, 0.55, -0.03], [0.0, 0.68, -0.03]], 0.018, 3, 8),
            self::FRAME,
            gloss: 0.35,
            jitter: 0.0,
        );
        $p->add(
            Shapes::lathe([[0.0, 0.0], [0.05, 0.01], [0.055, 0.05], [0.03, 0.09], [0.0, 0.10]], 12),
            C::BRASS,
            [0.0, 0.52, -0.02],
            [M_PI / 2, 0.0, 0.0],
            gloss: 0.9,
            shift: 0.0,
        );
    }

    private static function crank(Piece $p): void
    {
        [$aside, $arm] = self::PEDAL;
        $p->in(
            0.0,
            0.0,
            0.0,
            static fn (Piece $p) => $p->add(Shapes::ring(0.085, 0.008, 5, 24), C::IRON, gloss: 0.4, jitter: 0.0),
            M_PI / 2,
        );
        foreach ([1.0, -1.0] as $s) {
            $p->add(
                Shapes::tube([[$s * 0.05, 0.0, 0.0], [$s * 0.06, $s * $arm / 2, 0.0], [$s * 0.07, $s * $arm, 0.0]], 0.011, 3, 7),
                C::IRON,
                gloss: 0.4,
                jitter: 0.0,
            );
            $p->add(Shapes::box(0.10, 0.022, 0.07, 0.008), 0x2A2624, [$s * $aside, $s * $arm, 0.0], jitter: 0.0);
        }
        $p->add(Shapes::tube([[-0.06, 0.0, 0.0], [0.0, 0.0, 0.0], [0.06, 0.0, 0.0]], 0.02, 2, 9), C::IRON, jitter: 0.0);
    }

    /** @return array<string, mixed> how it drives, and what a rider sits on and holds */
    public static function vehicle(): array
    {
        [$aside, $arm] = self::PEDAL;

        return [
            'rear' => [0.0, self::REAR], 'wheelbase' => self::FRONT - self::REAR, 'leans' => true,
            'wheels' => [
                ['joint' => 'wheelF', 'x' => 0.0, 'z' => self::FRONT, 'radius' => self::RADIUS, 'steers' => true],
                ['joint' => 'wheelR', 'x' => 0.0, 'z' => self::REAR, 'radius' => self::RADIUS],
                ['joint' => 'fork', 'steers' => true, 'rolls' => false, 'bears' => false],
                ['joint' => 'crank', 'radius' => self::GEAR, 'bears' => false],
            ],
            'getOn' => ['away' => 0.36, 'ahead' => 0.04, 'over' => 0.98, 'behind' => -0.30],
            'rider' => [
                'hips' => ['mount' => 'seat'], 'handL' => ['mount' => 'fork', 'offset' => [0.26, 0.69, -0.16]],
                'handR' => ['mount' => 'fork', 'offset' => [-0.26, 0.69, -0.16]],
                'footL' => ['mount' => 'crank', 'offset' => [$aside, $arm, 0.0]],
                'footR' => ['mount' => 'crank', 'offset' => [-$aside, -$arm, 0.0]],
            ],
        ];
    }
}
