<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Camera\SkinnedSurface;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Meeting\Skin;
use CrispReel\Core\Rig\Figure;

/** Drawn surfaces of performers, read when they are asked for and then kept. */
final readonly class Skins
{
    public function __construct(private Document $document, private AssetSource $assets, private Memory $memory)
    {
    }

    public function of(Item $item, Figure $figure): Skin
    {
        return $this->memory->of("skin {$figure->blob}", fn (): Skin => new Skin(
            $figure,
            new SkinnedSurface(GltfReader::read($this->assets->blob($this->document->assets[$item->asset]))),
        ));
    }
}
