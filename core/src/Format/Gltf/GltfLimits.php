<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

final readonly class GltfLimits
{
    public function __construct(
        public int $bytes = 200 * 1024 * 1024,
        public int $nodes = 20_000,
        public int $vertices = 3_000_000,
        public int $keys = 4_000_000,
    ) {
    }
}
