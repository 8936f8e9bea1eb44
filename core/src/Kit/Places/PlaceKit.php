<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Places;

use Closure;
use CrispReel\Core\Kit\LightBaker;
use CrispReel\Core\Kit\Piece;

/**
 * Sets of the house besides the pier, and the things they are made of, each also alone.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Made array{slug: string, kind: string, name: string, tags: list<string>, home: Vec, glb: string}
 */
final class PlaceKit
{
    /** Metres by which floors lie above the plain ground, which would cover them. */
    private const OVER_GROUND = 0.02;

    /** @return list<Made> */
    public static function all(): array
    {
        return [...self::sets(), ...AllRound::all(), ...self::props()];
    }

    /** @return array{at: Vec, power: float, reach: float, near: float} */
    private static function lamp(float $x, float $y, float $z, float $power = 1.2): array
    {
        return ['at' => [$x, $y, $z], 'power' => $power, 'reach' => 5.5, 'near' => 0.25];
    }

    /** @return array{at: Vec, power: float, reach: float, near: float, soft: float} what walls throw back of windows and lamps */
    private static function fill(float $x, float $y, float $z, float $power): array
    {
        return ['reach' => 10.0, 'soft' => 10.0] + self::lamp($x, $y, $z, $power);
    }

    /** @return list<Made> */
    private static function sets(): array
    {
        return [...self::rooms(), ...self::outdoors()];
    }

    /** @return list<Made> */
    private static function rooms(): array
    {
        $warm = self::lamp(...);
        $fill = self::fill(...);

        return [
            self::set(
                'kitchen',
                'Kitchen',
                ['room', 'house', 'home', 'cook', 'indoors', 'table'],
                Rooms::kitchen(...),
                [
                    $warm(-0.35, 2.0, 0.1, 1.5), $fill(0.2, 1.8, 0.4, 19.0), $warm(-2.0, 0.6, -1.2, 0.6),
                    $warm(0.6, 1.7, -1.9, 1.3), $warm(2.5, 1.4, 1.2, 1.3),
                    $warm(0.9, 1.7, 1.9, 1.3),
                ],
                [[-0.35, 2.02, 0.1]],
                around: 'country-all-round',
            ),
            self::set(
                'classroom',
                'Classroom',
                ['school', 'room', 'lesson', 'desk', 'indoors', 'class'],
                Rooms::classroom(...),
                [
                    $warm(-3.2, 1.8, -1.7, 1.8), $warm(-3.2, 1.8, 0.0, 1.8), $warm(-3.2, 1.8, 1.7, 1.8), $fill(-1.6, 2.0, 0.2, 16.0),
                    $fill(1.9, 2.0, 0.2, 16.0),
                ],
                [[-1.2, 2.3, 0.4], [1.9, 2.3, 0.4]],
                around: 'country-all-round',
            ),
            self::set(
                'stage',
                'Stage with curtains',
                ['theatre', 'stage', 'show', 'curtain', 'play', 'indoors'],
                Theatre::stage(...),
                [
                    $warm(-1.8, 0.9, 1.0, 0.8), $warm(0.0, 0.9, 1.0, 0.8), $warm(1.8, 0.9, 1.0, 0.8), $fill(0.0, 3.4, 0.2, 12.0),
                    ...array_map(static fn (float $z): array => $warm(-5.2, 2.5, $z, 1.8), [1.0, 3.6, 6.2, 8.8]),
                    ...array_map(static fn (float $z): array => $warm(5.2, 2.5, $z, 1.8), [1.0, 3.6, 6.2, 8.8]),
                ],
                [[-2.1, 0.7, 1.13], [0.0, 0.7, 1.13], [2.1, 0.7, 1.13], [0.0, 3.6, 3.0]],
            ),
        ];
    }

    /** @return list<Made> */
    private static function outdoors(): array
    {
        $warm = self::lamp(...);

        return [
            self::set(
                'street-corner',
                'Street corner with shops',
                ['street', 'town', 'shop', 'road', 'pavement', 'outdoors'],
                Outdoors::streetCorner(...),
                [$warm(-5.5, 2.6, 0.3), $warm(2.7, 2.6, 0.4), $warm(-4.2, 1.4, -1.6, 0.9), $warm(0.0, 1.4, -1.6, 0.9)],
                [[-5.5, 2.6, 0.05], [2.7, 2.6, 0.15]],
                // Its road lies 12 cm below the pavement.
                lift: 0.15,
                around: 'street-all-round',
            ),
            self::set(
                'forest-clearing',
                'Forest clearing',
                ['forest', 'wood', 'trees', 'nature', 'outdoors', 'grass'],
                Outdoors::clearing(...),
                [],
                [],
                lift: 0.05,
                around: 'woods-all-round',
            ),
        ];
    }

    /** @return list<Made> */
    private static function props(): array
    {
        $things = [
            ['chair', 'Chair', ['chair', 'seat', 'sit'], static fn (Piece $p) => Furniture::chair($p)],
            ['stool', 'Stool', ['stool', 'seat', 'sit'], Furniture::stool(...)],
            ['table', 'Table', ['table', 'kitchen'], Furniture::table(...)],
            ['round-table', 'Round table', ['table', 'round', 'cafe'], Furniture::roundTable(...)],
            ['school-desk', 'School desk', ['desk', 'table', 'school'], Furniture::desk(...)],
            ['armchair', 'Armchair', ['armchair', 'seat', 'sit', 'sofa'], Furniture::armchair(...)],
            ['sofa', 'Sofa', ['sofa', 'couch', 'seat', 'sit'], Furniture::sofa(...)],
            ['bookshelf', 'Bookshelf', ['shelf', 'books'], Furniture::shelf(...)],
            ['cupboard', 'Cupboard', ['cupboard', 'kitchen'], Furniture::cupboard(...)],
            ['stove', 'Stove', ['stove', 'oven', 'kitchen', 'fire'], Furniture::stove(...)],
            ['blackboard', 'Blackboard', ['blackboard', 'school', 'write'], Furniture::blackboard(...)],
            ['bed', 'Bed', ['bed', 'sleep', 'lie'], Furniture::bed(...)], ['cup', 'Cup', ['cup', 'drink', 'hand'], Things::cup(...)],
            ['bottle', 'Bottle', ['bottle', 'drink', 'hand'], Things::bottle(...)],
            ['plate', 'Plate', ['plate', 'eat', 'hand'], Things::plate(...)],
            ['bread', 'Loaf of bread', ['bread', 'food', 'eat', 'hand'], Things::bread(...)],
            ['apple', 'Apple', ['apple', 'food', 'fruit', 'hand'], Things::apple(...)],
            ['book', 'Book', ['book', 'read', 'hand'], Things::book(...)],
            ['letter', 'Letter', ['letter', 'envelope', 'read', 'hand'], Things::letter(...)],
            ['broom', 'Broom', ['broom', 'sweep', 'hand'], Things::broom(...)],
            ['bucket', 'Bucket', ['bucket', 'water', 'hand'], Things::bucket(...)],
            ['basket', 'Basket', ['basket', 'carry', 'hand'], Things::basket(...)],
            ['suitcase', 'Suitcase', ['suitcase', 'luggage', 'travel', 'hand'], Things::suitcase(...)],
            ['umbrella', 'Umbrella', ['umbrella', 'rain', 'hand'], Things::umbrella(...)],
            ['ball', 'Ball', ['ball', 'play', 'throw', 'hand'], Things::ball(...)],
            ['candle', 'Candle', ['candle', 'light', 'hand'], Things::candle(...)],
            ['hammer', 'Hammer', ['hammer', 'tool', 'hand'], Things::hammer(...)],
            ['axe', 'Axe', ['axe', 'tool', 'wood', 'hand'], Things::axe(...)],
            ['rope-coil', 'Coil of rope', ['rope', 'coil', 'hand'], Things::rope(...)],
            ['ladder', 'Ladder', ['ladder', 'climb'], Things::ladder(...)],
            ['barrel', 'Barrel', ['barrel', 'cask', 'cargo'], Things::barrel(...)],
            ['signpost', 'Signpost', ['sign', 'post', 'way'], Things::signpost(...)],
            ['postbox', 'Postbox', ['postbox', 'letter', 'street'], Things::postbox(...)],
            ['street-lamp', 'Street lamp', ['lamp', 'light', 'street'], Things::streetLamp(...)],
            ['fiddle', 'Fiddle', ['fiddle', 'violin', 'music', 'hand'], Things::fiddle(...)],
            ['globe', 'Globe', ['globe', 'world', 'school'], Things::globe(...)],
            ['kettle', 'Kettle', ['kettle', 'tea', 'kitchen', 'hand'], Things::kettle(...)],
            ['tray', 'Tray', ['tray', 'serve', 'carry', 'hand'], Things::tray(...)],
            ['wall-clock', 'Wall clock', ['clock', 'time', 'wall'], Things::clock(...)],
            ['tree', 'Tree', ['tree', 'forest', 'nature'], static fn (Piece $p) => Outdoors::tree($p)],
            ['pine', 'Pine', ['tree', 'pine', 'forest', 'nature'], static fn (Piece $p) => Outdoors::pine($p)],
            ['bush', 'Bush', ['bush', 'forest', 'nature'], Outdoors::bush(...)],
            ['rock', 'Rock', ['rock', 'stone', 'nature'], static fn (Piece $p) => Outdoors::rock($p)],
            ['log', 'Log', ['log', 'forest', 'seat', 'nature'], Outdoors::log(...)],
            ['stump', 'Tree stump', ['stump', 'forest', 'seat', 'nature'], Outdoors::stump(...)],
            ['mushroom', 'Mushroom', ['mushroom', 'forest', 'nature'], static fn (Piece $p) => Outdoors::mushroom($p)],
            ['curtain', 'Stage curtain', ['curtain', 'stage', 'theatre'], static fn (Piece $p) => Theatre::curtain($p, 1.6, 3.2, 1.0)],
            [
                'shop-front', 'Shop front', ['shop', 'street', 'house', 'wall'],
                static fn (Piece $p) => Outdoors::shop($p, 0xC9A98A, 0xA84F35, 0x3F6B5A),
            ],
        ];
        $glows = ['candle' => [0.0, 0.19, 0.0], 'street-lamp' => [0.0, 2.6, 0.0]];

        $made = [];
        foreach ($things as [$slug, $name, $tags, $draw]) {
            $piece = new Piece($name, 100 + strlen($name) * 7 + ord($name[0]));
            $draw($piece);
            self::shade($piece, [], 0.02);
            $extras = isset($glows[$slug]) ? ['lamps' => [['at' => $glows[$slug], 'power' => 1.6, 'halo' => 0.9, 'channel' => 'B']]] : [];
            $extras += $slug === 'shop-front' ? ['home' => [0.0, 0.0, 0.0], 'around' => 'street-by-shop'] : [];

            $made[] = [
                'slug' => $slug,
                'kind' => $slug === 'shop-front' ? 'set' : 'prop',
                'name' => $name,
                'tags' => $tags,
                'home' => [0.0, 0.0, 0.0],
                'glb' => $piece->glb(extras: $extras, doubleSided: in_array($slug, ['umbrella', 'curtain'], true)),
            ];
        }

        return $made;
    }

    /**
     * @param  list<string>  $tags
     * @param  Closure(Piece): void  $draw
     * @param  list<array{at: Vec, power: float, reach: float, near: float, soft?: float}>  $lights
     * @param  list<Vec>  $lamps  what lights those who pass
     * @param  string|null  $around  what lies around it, by its short name in the kit
     * @return Made
     */
    private static function set(
        string $slug,
        string $name,
        array $tags,
        Closure $draw,
        array $lights,
        array $lamps,
        float $lift = self::OVER_GROUND,
        ?string $around = null,
    ): array {
        $piece = new Piece($name, 200 + strlen($name));
        $piece->in(0.0, $lift, 0.0, $draw);
        $lights = array_map(static fn (array $l): array => ['at' => [$l['at'][0], $l['at'][1] + $lift, $l['at'][2]]] + $l, $lights);
        $lamps = array_map(static fn (array $at): array => [$at[0], $at[1] + $lift, $at[2]], $lamps);
        self::shade($piece, $lights, 0.055);
        $extras = ['home' => [0.0, 0.0, 0.0]] + ($around === null ? [] : ['around' => $around]);

        return [
            'slug' => $slug,
            'kind' => 'set',
            'name' => $name,
            'tags' => $tags,
            'home' => [0.0, 0.0, 0.0],
            'glb' => $piece->glb(
                extras: $extras + ($lamps === [] ? [] : ['lamps' => array_map(
                    static fn (array $at): array => ['at' => $at, 'power' => 1.5, 'halo' => 1.1, 'channel' => 'A'],
                    $lamps,
                )]),
                doubleSided: true,
            ),
        ];
    }

    /** @param  list<array{at: Vec, power: float, reach: float, near: float, soft?: float}>  $lights */
    private static function shade(Piece $piece, array $lights, float $cell): void
    {
        [$low, $high] = [[INF, INF, INF], [-INF, -INF, -INF]];
        foreach (array_chunk($piece->positions, 3) as $p) {
            for ($k = 0; $k < 3; $k++) {
                $low[$k] = min($low[$k], $p[$k]);
                $high[$k] = max($high[$k], $p[$k]);
            }
        }
        $span = max($high[0] - $low[0], $high[1] - $low[1], $high[2] - $low[2]);
        $baker = new LightBaker(
            [$low[0] - 0.1, $low[1] - 0.1, $low[2] - 0.1],
            [$high[0] + 0.1, $high[1] + 0.1, $high[2] + 0.1],
            max($cell, $span / 140),
        );
        $baker->fill($piece);
        $baker->bake($piece, $lights, floor: $low[1] > -0.02 ? 0.0 : null);
    }
}
