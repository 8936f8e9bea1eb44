<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Surroundings;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\WildWall;
use CrispReel\Core\Geometry\RayTree;
use CrispReel\Core\Geometry\Solids;
use CrispReel\Core\Kit\LightBaker;
use CrispReel\Core\Kit\Piece;
use CrispReel\Core\Kit\Places\Walls;
use CrispReel\Core\Math\Placement;

/** A bare room of 4 by 3 by 2.5 m, its middle at the origin. */
function bareRoom(): string
{
    $p = new Piece('Room', 1);
    $p->in(0.0, 0.0, 0.0, static fn (Piece $q) => (new Walls(4.0, 3.0, 2.5, [0x888888, 0x999999, 0x777777], 0x333333))->build($q));

    return $p->glb();
}

/** The room as a lens meets it. */
function roomForLens(string $glb): Solids
{
    $solids = new Solids;
    $solids->add('Room', Placement::standing([0.0, 0.0, 0.0], 0.0, 1.0), RayTree::of(Surroundings::triangles($glb, '')));
    foreach (WildWall::planes(GltfReader::read($glb)) as $name => $plane) {
        $tree = RayTree::of(Surroundings::triangles($glb, $name));
        $solids->add('Room', Placement::standing([0.0, 0.0, 0.0], 0.0, 1.0), $tree, $plane);
    }

    return $solids;
}

it('knows of each wall to where its inner face looks', function (): void {
    $planes = WildWall::planes(GltfReader::read(bareRoom()));

    expect(array_keys($planes))->toBe(['back', 'left', 'right', 'front', 'ceiling']);
    // From the middle of the room, a metre high: half its size less half a wall of 12 cm to each side, 1.5 m to the ceiling.
    $metres = array_map(static fn ($p): float => round($p->before([0.0, 1.0, 0.0]), 6), $planes);
    expect($metres)->toBe(['back' => 1.44, 'left' => 1.94, 'right' => 1.94, 'front' => 1.44, 'ceiling' => 1.5]);
});

it('lets a lens look in from behind a wall, and not out through it', function (array $from, array $to, bool $isFree): void {
    expect(roomForLens(bareRoom())->between($from, $to) === null)->toBe($isFree);
})->with([
    'in from the front' => [[0.0, 1.5, 4.0], [0.0, 1.5, 0.0], true],
    'in from a corner' => [[4.0, 1.5, 4.0], [0.0, 1.5, 0.0], true],
    'in from above' => [[0.5, 6.0, 0.5], [0.0, 1.0, 0.0], true],
    'from inside to outside' => [[0.0, 1.5, 0.0], [0.0, 1.5, 4.0], false],
    'through the whole room, out at its far side' => [[0.0, 1.5, 4.0], [0.0, 1.5, -4.0], false],
    'inside' => [[1.0, 1.5, 1.0], [-1.0, 1.5, -1.0], true],
]);

it('keeps what a room goes on with out of its bounds and out of everybody\'s way', function (): void {
    $glb = bareRoom();
    [$low, $high] = AssetDigest::of(GltfReader::read($glb))['bounds'];

    // Walls, their skirting inside, and the ceiling that lies 30 cm over.
    expect([$low[0], $high[0]])->each->toBeBetween(-2.31, 2.31);
    expect([$low[2], $high[2]])->each->toBeBetween(-1.81, 1.81);
    $points = array_chunk(Surroundings::triangles($glb), 3);
    expect(max(array_map(static fn (array $p): float => abs($p[0]), $points)))->toBeLessThan(2.31);
    // Nobody stands on a ceiling.
    expect(RayTree::of(Surroundings::triangles($glb))->floor(0.4, 0.4, 10.0))->toBeNull();
});

it('bakes a lamp by the square of the distance, and softly where it is no point', function (): void {
    $lit = static function (array $lamp): float {
        $p = new Piece('Floor', 1);
        (new Walls(2.0, 2.0, 2.0, [0, 0, 0xFFFFFF], 0))->floor($p, 0.0);
        (new LightBaker([-2.0, -0.5, -2.0], [2.0, 3.0, 2.0], 0.05))->bake($p, [$lamp + ['at' => [0.0, 2.0, 0.0], 'near' => 0.2]]);
        $baked = array_chunk(GltfReader::read($p->glb())->accessor(bakeOf($p->glb()), 'bake', 'VEC4'), 4);
        // The point in the middle of the floor, straight under the lamp.
        $at = array_search([0.0, 0.0, 0.0], array_chunk($p->positions, 3), false);

        return 4 * $baked[$at][1];
    };
    // 2 m under: power x (1 - 2/10)^2 / (0.12 + 4), and with 12 square metres / (12 + 4).
    expect($lit(['power' => 4.0, 'reach' => 10.0]))->toEqualWithDelta(4 * 0.64 / 4.12, 0.01)
        ->and($lit(['power' => 4.0, 'reach' => 10.0, 'soft' => 12.0]))->toEqualWithDelta(4 * 0.64 / 16, 0.01);
});

function bakeOf(string $glb): int
{
    return GltfReader::read($glb)->list('meshes')[0]['primitives'][0]['attributes']['_BAKE'];
}
