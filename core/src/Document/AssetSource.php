<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/** Where the computation gets an asset's digest from, and keeps solved motions. Bytes and arrays only. */
interface AssetSource
{
    /**
     * The digest made at intake (see Format\Gltf\AssetDigest); for motions also "recipe" or "table".
     *
     * @return array<string, mixed>
     */
    public function digest(AssetRef $asset): array;

    /** The original file. */
    public function blob(AssetRef $asset): string;

    /** A solved motion kept under a key, or null. */
    public function solved(string $key): ?string;

    public function keep(string $key, string $bytes): void;
}
