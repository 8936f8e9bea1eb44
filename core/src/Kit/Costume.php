<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit;

use CrispReel\Core\Geometry\Shapes;
use CrispReel\Core\Kit\Pier\PierColours as C;

/** Cloth to put on: cut for the common figure of 1.70 m, pinned where it is fastened, the rest left to weight and wind. */
final class Costume
{
    /** @return list<array{slug: string, kind: string, name: string, tags: list<string>, home: array{float, float, float}, glb: string}> */
    public static function all(): array
    {
        return [
            self::entry(
                'cloak',
                'Travelling cloak',
                ['cloak', 'cape', 'cloth', 'wear'],
                self::cloak(),
                [
                    'pins' => [['low' => [-1.0, 1.345, -1.0], 'high' => [1.0, 2.0, 1.0]]], 'kilogramsPerSquareMetre' => 0.3,
                    'bend' => 0.12, 'worn' => 'upperChest',
                ],
            ),
            self::entry('skirt', 'Wide skirt', ['skirt', 'cloth', 'wear'], self::skirt(), [
                'pins' => [['low' => [-1.0, 0.985, -1.0], 'high' => [1.0, 2.0, 1.0]]], 'kilogramsPerSquareMetre' => 0.25, 'bend' => 0.1,
                'worn' => 'hips',
            ]),
        ];
    }

    /** Open in front, over the shoulders, down to the calves. */
    public static function cloak(): Piece
    {
        $columns = 16;
        // Distance from the neck's axis and height, from the collar to the hem.
        $cut = [
            [0.105, 1.375], [0.155, 1.352], [0.225, 1.318], [0.275, 1.255], [0.300, 1.17], [0.318, 1.06], [0.335, 0.95], [0.352, 0.84],
            [0.370, 0.73], [0.388, 0.62], [0.405, 0.51], [0.42, 0.40],
        ];
        $points = [];
        for ($i = 0; $i <= $columns; $i++) {
            $a = deg2rad(-122 + 244 * $i / $columns);
            foreach ($cut as $j => [$r, $y]) {
                // Behind it lies closer than at the sides; folds begin below the shoulders.
                $fold = $j > 3 ? 1 + 0.05 * sin($a * 9) * ($j - 3) / 8 : 1.0;
                $points[] = [$r * $fold * sin($a), $y, -0.86 * $r * $fold * cos($a) - 0.01];
            }
        }
        $p = new Piece('Travelling cloak', 61);
        $p->add(
            Shapes::sheet($points, count($cut) - 1, $columns),
            static fn (array $q): int => $q[1] > 1.34 ? C::BAND : 0x3F5E4B,
            jitter: 0.0,
            wave: 0.0,
        );

        return $p->mount('hold', [0.0, 1.20, -0.005]);
    }

    /** A full ring from the waist to below the knees. */
    public static function skirt(): Piece
    {
        $columns = 20;
        $rows = 8;
        $points = [];
        for ($i = 0; $i <= $columns; $i++) {
            $a = 2 * M_PI * ($i % $columns) / $columns;
            for ($j = 0; $j <= $rows; $j++) {
                $t = $j / $rows;
                $r = 0.165 + 0.20 * $t ** 0.8;
                $points[] = [$r * sin($a), 0.99 - 0.56 * $t, 0.86 * $r * cos($a)];
            }
        }
        $p = new Piece('Wide skirt', 62);
        $p->add(
            Shapes::sheet($points, $rows, $columns),
            static fn (array $q): int => $q[1] < 0.47 ? C::BAND : C::RED,
            jitter: 0.0,
            wave: 0.0,
        );

        return $p->mount('hold', [0.0, 0.86, 0.0]);
    }

    /**
     * @param  list<string>  $tags
     * @param  array<string, mixed>  $cloth
     * @return array{slug: string, kind: string, name: string, tags: list<string>, home: array{float, float, float}, glb: string}
     */
    private static function entry(string $slug, string $name, array $tags, Piece $piece, array $cloth): array
    {
        return [
            'slug' => $slug, 'kind' => 'prop', 'name' => $name, 'tags' => $tags, 'home' => [0.0, 0.0, 0.0],
            'glb' => $piece->glb(extras: ['cloth' => $cloth], doubleSided: true),
        ];
    }
}
