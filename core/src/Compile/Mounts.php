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
        return self::in($assets->digest($document->assets[$item->asset]), $mount)
            ?? throw UnableToCompile::noSuchMount($item->name, $mount);
    }

    /**
     * A named place in an asset's space; null: it has none of that name.
     *
     * @param  array<string, mixed>  $digest
     */
    public static function in(array $digest, string $mount): ?Placement
    {
        $mounts = $digest['mounts'] ?? [];
        $m = is_array($mounts) ? $mounts[$mount] ?? null : null;
        if (! is_array($m)) {
            return null;
        }

        /** @var array{position: array{float, float, float}, rotation: array{float, float, float, float}} $m */
        return new Placement($m['position'], $m['rotation']);
    }
}
