<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\ClothRun;
use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Format\Gltf\Fabric;
use CrispReel\Core\Format\Gltf\GltfReader;

/** Cloths, which are worked out stretch by stretch when they are asked for. */
final class Cloths implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $draft->putCloths($this->cloths());
    }

    /** @return array<string, ClothRun> by item */
    private function cloths(): array
    {
        $out = [];
        $poses = $this->draft->poses();
        foreach ($this->draft->document->items as $item) {
            $asset = $this->draft->document->assets[$item->asset];
            $extras = $this->draft->assets->digest($asset)['extras'] ?? [];
            $facts = is_array($extras) ? $extras['cloth'] ?? null : null;
            if (is_array($facts) && $item->kind !== 'performer') {
                $facts = $item->cloth?->over($facts) ?? $facts;
                $fabric = $this->draft->memory->of(
                    Memory::key('fabric', [$asset->blob, $facts]),
                    fn (): Fabric => Fabric::of(GltfReader::read($this->draft->assets->blob($asset)), $facts),
                );
                $out[$item->id] = new ClothRun($poses, $item, $fabric, $this->draft->assets);
            }
        }

        return $out;
    }
}
