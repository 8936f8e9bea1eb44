<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Math\Placement;

/** Named places on an asset. */
final class Mounts
{
    /** @throws UnableToCompile */
    public static function of(Document $document, AssetSource $assets, Item $item, string $mount): Placement
    {
        $mounts = $assets->digest($document->assets[$item->asset])['mounts'] ?? [];
        $m = is_array($mounts) ? $mounts[$mount] ?? null : null;
        if (! is_array($m)) {
            throw UnableToCompile::noSuchMount($item->name, $mount);
        }

        /** @var array{position: array{float, float, float}, rotation: array{float, float, float, float}} $m */
        return new Placement($m['position'], $m['rotation']);
    }
}
