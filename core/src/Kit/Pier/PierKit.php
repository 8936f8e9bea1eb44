<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

use CrispReel\Core\Kit\LightBaker;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Math\V3;

/**
 * The pier's pieces, drawn in their common place so that they shade and light each other, then written each about its
 * own pivot with the place where it stands at home.
 *
 * @phpstan-type Vec array{float, float, float}
 * @phpstan-type Made array{slug: string, kind: string, name: string, tags: list<string>, home: Vec, glb: string}
 */
final class PierKit
{
    /** @return list<Made> */
    public static function all(): array
    {
        $l = Deck::LANDING;
        $homes = [
            'ticket-hut' => ['set', 'Ticket hut', ['hut', 'ticket', 'house', 'booth'], [-3.9, $l, -1.35], TicketHut::draw(...)],
            'ferry' => ['set', 'Ferry', ['boat', 'ship', 'ferry', 'vehicle'], [3.75, -0.23, -4.45], Ferry::draw(...)],
            'bare-bell-post' => ['prop', 'Bell post, bare', ['bell', 'post', 'gallows'], [-0.35, 0.0, -2.0], Props::bareBellPost(...)],
            'bench' => ['prop', 'Bench', ['bench', 'seat', 'sit'], [-5.45, $l, -1.62], Props::bench(...)],
            'crate-large' => [
                'prop', 'Crate, large', ['crate', 'box', 'cargo'], [4.62, 0.0, 0.42], static fn (Piece $p) => Props::crate($p, 0.62, 5),
            ],
            'crate-small' => [
                'prop', 'Crate, small', ['crate', 'box', 'cargo'], [3.92, 0.0, 0.62], static fn (Piece $p) => Props::crate($p, 0.44, 9),
            ],
            'lantern-post' => ['prop', 'Lantern post', ['lantern', 'lamp', 'light', 'post'], [5.7, 0.0, -1.55], Props::lanternPost(...)],
            'lantern' => [
                'prop', 'Lantern', ['lantern', 'lamp', 'light', 'carry'], [4.62, 0.635, 0.42],
                static fn (Piece $p) => Props::lantern($p, 0.9),
            ],
        ];
        // Hung by where it swings.
        $hung = new Piece('Bell with a pull', 31);
        $hung->in(-0.35, 0.0, -2.0, static fn (Piece $p) => Props::bell($p));
        $pieces = ['ferry-pier' => ['set', 'Ferry pier', ['pier', 'jetty', 'deck', 'planks', 'harbour'], [0.0, 0.0, 0.0], Deck::make()]];
        $seed = 20;
        foreach ($homes as $slug => [$kind, $name, $tags, $home, $draw]) {
            $piece = new Piece($name, $seed++);
            $piece->in($home[0], $home[1], $home[2], static fn (Piece $p) => $draw($p));
            $pieces[$slug] = [$kind, $name, $tags, $home, $piece];
        }
        $pieces['bell'] = ['prop', 'Bell with a pull', ['bell', 'ring', 'rope', 'pull'], [0.09, 1.90, -2.0], $hung];
        self::light(array_map(static fn (array $p): Piece => $p[4], $pieces));
        $made = [];
        foreach ($pieces as $slug => [$kind, $name, $tags, $home, $piece]) {
            $made[] = self::entry(
                $slug,
                $kind,
                $name,
                $tags,
                $home,
                $piece->glb($home, ['home' => $home] + self::lights($slug), in_array($slug, ['ferry', 'bell'], true)),
            );
        }

        return [...$made, ...self::loose()];
    }

    /** @return list<Made> what is drawn and lit by itself */
    private static function loose(): array
    {
        $cart = Props::cart();
        $baker = new LightBaker([-1.0, -0.1, -0.8], [1.7, 1.8, 0.8], 0.03);
        $baker->fill($cart);
        $baker->bake($cart, floor: 0.0);

        $post = new Piece('Bell post', 22);
        Props::bellPost($post);
        $baker = new LightBaker([-0.5, -0.1, -0.5], [0.9, 2.5, 0.5], 0.03);
        $baker->fill($post);
        $baker->bake($post, floor: 0.0);

        $boat = RowingBoat::draw();
        $baker = new LightBaker([-2.2, -0.3, -1.8], [2.2, 0.7, 1.8], 0.04);
        $baker->fill($boat);
        $baker->bake($boat);

        $bicycle = Bicycle::draw();
        $baker = new LightBaker([-0.5, -0.1, -1.0], [0.5, 1.3, 1.0], 0.02);
        $baker->fill($bicycle);
        $baker->bake($bicycle, floor: 0.0);

        return [
            self::entry('hand-cart', 'prop', 'Hand cart with clock face', [
                'cart', 'barrow', 'clock', 'push', 'vehicle',
            ], [2.15, 0.0, 0.7], $cart->glb(extras: ['home' => [2.15, 0.0, 0.7], 'vehicle' => [
                'forwardDeg' => -90, 'rear' => [-0.05, 0.0], 'tiltDeg' => 3.5,
                'wheels' => [
                    ['joint' => 'wheelL', 'x' => -0.05, 'z' => 0.47, 'radius' => 0.343],
                    ['joint' => 'wheelR', 'x' => -0.05, 'z' => -0.47, 'radius' => 0.343],
                ],
            ]])),
            self::entry(
                'bell-post',
                'prop',
                'Bell post',
                ['bell', 'post', 'ring'],
                [-0.35, 0.0, -2.0],
                $post->glb(extras: ['home' => [-0.35, 0.0, -2.0]], doubleSided: true),
            ),
            self::entry(
                'bicycle',
                'prop',
                'Bicycle',
                ['bicycle', 'two-wheeler', 'ride', 'vehicle'],
                [1.0, 0.0, 1.6],
                $bicycle->glb(extras: ['home' => [1.0, 0.0, 1.6], 'vehicle' => Bicycle::vehicle()]),
            ),
            self::entry(
                'rowing-boat',
                'prop',
                'Rowing boat',
                ['boat', 'row', 'oars', 'dinghy', 'vehicle'],
                [-2.4, Shore::WATER, 3.6],
                $boat->glb(extras: ['home' => [-2.4, Shore::WATER, 3.6], 'vehicle' => RowingBoat::vehicle()], doubleSided: true),
            ),
            self::entry('brass-key', 'prop', 'Brass key', ['key', 'winding', 'hand'], [0.0, 0.0, 0.0], Props::key()->glb()),
            self::entry(
                'pennant',
                'prop',
                'Pennant',
                ['flag', 'pennant'],
                [5.03, 2.81, -4.45],
                Ferry::pennant()->glb(
                    extras: [
                        'home' => [5.03, 2.81, -4.45],
                        'cloth' => [
                            'pins' => [['low' => [-0.001, -1.0, -1.0], 'high' => [0.1, 1.0, 1.0]]],
                            'kilogramsPerSquareMetre' => 0.12,
                            'bend' => 0.05,
                        ],
                    ],
                    doubleSided: true,
                ),
            ),
            self::entry(
                'far-shore',
                'set',
                'Far shore',
                ['shore', 'hills', 'town', 'background'],
                [0.0, 0.0, 0.0],
                Shore::make()->glb(extras: ['home' => [0.0, 0.0, 0.0], 'backdrop' => true, 'water' => Shore::WATER], paint: 'backdrop'),
            ),
        ];
    }

    /**
     * @param  list<string>  $tags
     * @param  Vec  $home
     * @return Made
     */
    private static function entry(string $slug, string $kind, string $name, array $tags, array $home, string $glb): array
    {
        return ['slug' => $slug, 'kind' => $kind, 'name' => $name, 'tags' => $tags, 'home' => $home, 'glb' => $glb];
    }

    /** @param  array<string, Piece>  $pieces */
    private static function light(array $pieces): void
    {
        $baker = new LightBaker([-7.2, -1.3, -6.0], [7.6, 3.6, 3.0]);
        foreach ($pieces as $piece) {
            $baker->fill($piece);
        }
        $l = Deck::LANDING;
        $hut = [
            ['at' => [-3.12, $l + 1.80, -0.20], 'power' => 1.0, 'reach' => 4.5, 'near' => 0.2],
            ['at' => [-3.9, $l + 1.36, -0.56], 'power' => 2.4, 'reach' => 7.0, 'near' => 0.12, 'facing' => V3::unit([0.0, -0.1, 1.0])],
        ];
        $lanterns = [
            ['at' => [5.38, 1.70, -1.55], 'power' => 1.5, 'reach' => 5.5, 'near' => 0.2],
            ['at' => [4.62, 0.75, 0.42], 'power' => 1.5, 'reach' => 5.0, 'near' => 0.2],
            ['at' => [4.05, 1.08, -3.7], 'power' => 0.9, 'reach' => 4.0, 'near' => 0.14, 'facing' => V3::unit([0.0, -0.1, 1.0])],
        ];
        foreach ($pieces as $piece) {
            $baker->bake($piece, $hut, $lanterns);
        }
    }

    /** @return array<string, mixed> lamps that a piece brings along for what moves, about its pivot */
    private static function lights(string $slug): array
    {
        return match ($slug) {
            'ticket-hut' => ['lamps' => [
                ['at' => [0.78, 1.80, 1.15], 'power' => 1.1, 'halo' => 1.5, 'channel' => 'A'],
                ['at' => [0.0, 1.36, 0.95], 'power' => 2.6, 'halo' => 2.3, 'channel' => 'A'],
            ]],
            'ferry' => ['lamps' => [['at' => [0.3, 1.31, 0.75], 'power' => 0.8, 'halo' => 1.7, 'channel' => 'B']]],
            // Plain slabs stand in for the planks in the water's mirror, where the gaps between boards only flicker.
            'ferry-pier' => [
                'around' => 'sea-all-round', 'water' => Shore::WATER,
                'mirrorSlabs' => [[-6.4, -1.6, Deck::LANDING - 0.05], [-1.6, 6.3, -0.05]],
            ],
            'lantern-post' => ['lamps' => [['at' => [-0.32, 1.70, 0.0], 'power' => 2.0, 'halo' => 1.5, 'channel' => 'B']]],
            'lantern' => ['lamps' => [['at' => [0.0, 0.12, 0.0], 'power' => 2.6, 'halo' => 1.2, 'channel' => 'B']]],
            default => [],
        };
    }
}
