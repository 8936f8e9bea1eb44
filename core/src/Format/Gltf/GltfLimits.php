<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

/**
 * How much one file may ask for, told before anything heavy: bytes of the file, nodes, points of all surfaces as they are drawn,
 * keys of all motions, steps from a root to its farthest child, surfaces that nodes draw, joints of all skins, and pixels of one
 * picture and of all.
 */
final readonly class GltfLimits
{
    public function __construct(
        public int $bytes = 200 * 1024 * 1024,
        public int $nodes = 20_000,
        public int $vertices = 3_000_000,
        public int $keys = 4_000_000,
        public int $depth = 512,
        public int $drawn = 5_000,
        public int $joints = 1_024,
        public int $pixels = 64 * 1024 * 1024,
        public int $allPixels = 256 * 1024 * 1024,
    ) {
    }
}
