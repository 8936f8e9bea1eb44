<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Pier\PierColours as C;

/**
 * A dinghy of 3.2 m: two oars swing in their locks, and one who rows sits with the back to the bow. It faces +Z; its origin
 * lies on the waterline.
 */
final class RowingBoat
{
    private const LENGTH = 3.2;

    private const BEAM = 0.64;

    /** Oarlock: aside, height, along. */
    private const LOCK = [0.66, 0.335, -0.10];

    /** Oar from its lock: how far in to the grip, how far out to the blade. */
    private const IN = 0.50;

    private const OUT = 1.35;

    public static function draw(): Piece
    {
        $p = new Piece('Rowing boat', 47);
        foreach (['oarL' => 1.0, 'oarR' => -1.0] as $name => $m) {
            $p->part($name, $m * self::LOCK[0], self::LOCK[1], self::LOCK[2], static fn (Piece $p) => self::oar($p, $m));
        }
        self::hull($p);
        foreach ([[0.38, 0.14], [-1.0, 0.16]] as [$z, $y]) {
            $p->add(Shapes::box(1.86 * self::half($z), 0.035, 0.24, 0.01, [4, 1, 2]), 0xA87C4C, [0.0, $y, $z], wood: 1.0);
        }
        // Floor boards and the board that the feet push against.
        foreach ([-0.16, 0.0, 0.16] as $x) {
            $p->add(Shapes::box(0.14, 0.02, 2.0, 0.006, [1, 1, 4]), 0x8A6A42, [$x, -0.085, -0.1], wood: 1.0, grain: 2);
        }
        $p->add(Shapes::box(0.62, 0.16, 0.03, 0.008, [3, 1, 1]), 0x8A6A42, [0.0, 0.0, -0.39], [-0.5, 0.0, 0.0], wood: 1.0);
        $p->mount('seat', [0.0, 0.16, 0.36]);

        return $p;
    }

    /** Half the beam at a place along the boat, at the gunwale. */
    private static function half(float $z): float
    {
        $t = 2 * $z / self::LENGTH;

        // Pointed at the bow, cut off at the stern.
        return self::BEAM * ($t > -0.2 ? (1 - abs(($t + 0.2) / 1.2) ** 2.3) ** 0.8 : 1 - 0.30 * abs(($t + 0.2) / 0.8) ** 2);
    }

    private static function sheer(float $z): float
    {
        return 0.30 + 0.13 * (2 * $z / self::LENGTH) ** 2;
    }

    private static function hull(Piece $p): void
    {
        [$along, $around] = [22, 12];
        $points = $rim = [];
        for ($i = 0; $i <= $along; $i++) {
            $z = self::LENGTH * ($i / $along - 0.5);
            $half = self::half($z);
            $keel = -0.17 + 0.20 * max(0.0, 2 * $z / self::LENGTH - 0.45) ** 2;
            for ($j = 0; $j <= $around; $j++) {
                $a = M_PI * ($j / $around - 0.5);
                $points[] = [
                    $half * sin($a) ** 3 * 0.35 + $half * 0.65 * sin($a), self::sheer($z) + ($keel - self::sheer($z)) * cos($a) ** 0.75,
                    $z,
                ];
            }
            $rim[] = [$half, self::sheer($z), $z];
        }
        $p->add(
            Shapes::sheet($points, $around, $along),
            static fn (array $q): int => $q[1] > 0.20 ? C::BAND : ($q[1] < -0.02 ? C::BOTTOM : 0x3F6F8C),
            jitter: 0.0,
            wave: 0.003,
        );
        foreach ([1.0, -1.0] as $m) {
            $p->add(
                Shapes::tube(array_map(static fn (array $q): array => [$m * $q[0], $q[1], $q[2]], $rim), 0.028, 44, 8),
                0xA87C4C,
                wood: 1.0,
                grain: 2,
                jitter: 0.0,
            );
            $p->add(
                Shapes::ring(0.035, 0.010, 6, 14),
                C::IRON,
                [$m * self::LOCK[0], self::LOCK[1] + 0.02, self::LOCK[2]],
                gloss: 0.4,
                jitter: 0.0,
            );
        }
        // The flat stern.
        $stern = self::half(-self::LENGTH / 2);
        $p->add(Shapes::box(1.7 * $stern, 0.36, 0.04, 0.012, [4, 3, 1]), 0x8E3B2C, [0.0, 0.22, -self::LENGTH / 2], wood: 1.0);
    }

    private static function oar(Piece $p, float $m): void
    {
        $p->add(
            Shapes::tube([[-$m * self::IN, 0.0, 0.0], [0.0, 0.0, 0.0], [$m * self::OUT, 0.0, 0.0]], 0.021, 10, 8),
            0xC79C66,
            wood: 1.0,
            jitter: 0.0,
        );
        $p->add(
            Shapes::tube([[-$m * (self::IN + 0.02), 0.0, 0.0], [-$m * (self::IN - 0.16), 0.0, 0.0]], 0.026, 3, 8),
            0x5A3A28,
            jitter: 0.0,
        );
        $p->add(Shapes::box(0.46, 0.15, 0.022, 0.01, [4, 2, 1]), C::RED, [$m * (self::OUT + 0.12), 0.0, 0.0], wood: 1.0);
        $p->add(Shapes::tube([[-0.04, 0.0, 0.0], [0.04, 0.0, 0.0]], 0.03, 2, 8), 0x3A2C22, jitter: 0.0);
    }

    /** @return array<string, mixed> that it floats, how its oars swing, and where one sits who rows */
    public static function vehicle(): array
    {
        $oar = static fn (string $joint, int $side): array => [
            'joint' => $joint, 'side' => $side, 'metres' => 2.6, 'sweepDeg' => 27, 'dipDeg' => 8, 'restDeg' => -11,
        ];

        return [
            'rear' => [0.0, 0.0], 'floats' => Shore::WATER, 'oars' => [$oar('oarL', 1), $oar('oarR', -1)],
            'getOn' => ['away' => self::BEAM + 0.17, 'over' => 0.34, 'floor' => -0.07, 'half' => self::BEAM],
            'rider' => [
                'headingDeg' => 180, 'hips' => ['mount' => 'seat'],
                // With the back to the bow the left hand is on the right oar.
                'handL' => ['mount' => 'oarR', 'offset' => [self::IN - 0.07, 0.0, 0.0]],
                'handR' => ['mount' => 'oarL', 'offset' => [-self::IN + 0.07, 0.0, 0.0]],
                'footL' => ['offset' => [-0.12, 0.0, -0.27]], 'footR' => ['offset' => [0.12, 0.0, -0.27]],
            ],
        ];
    }
}
