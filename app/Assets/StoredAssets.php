<?php

declare(strict_types=1);

namespace App\Assets;

use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;

/** Digests and solved motions from the disk, each read once a process. */
final class StoredAssets implements AssetSource
{
    /** @var array<string, array<string, mixed>> */
    private array $digests = [];

    /** @var array<string, string> */
    private array $solved = [];

    public function __construct(private readonly BlobStore $blobs)
    {
    }

    public function digest(AssetRef $asset): array
    {
        return $this->byHash($asset->digest);
    }

    /** @return array<string, mixed> */
    public function byHash(string $hash): array
    {
        if (! isset($this->digests[$hash])) {
            $digest = json_decode($this->blobs->get($hash), true, 64, JSON_THROW_ON_ERROR);
            assert(is_array($digest));

            /** @var array<string, mixed> $digest */
            $this->digests[$hash] = $digest;
        }

        return $this->digests[$hash];
    }

    public function blob(AssetRef $asset): string
    {
        return $this->blobs->get($asset->blob);
    }

    public function solved(string $key): ?string
    {
        if (isset($this->solved[$key])) {
            return $this->solved[$key];
        }
        $path = 'solved/'.substr($key, 0, 2)."/{$key}";
        $disk = $this->blobs->disk();

        return $disk->exists($path) ? $this->solved[$key] = (string) $disk->get($path) : null;
    }

    public function keep(string $key, string $bytes): void
    {
        $this->solved[$key] = $bytes;
        $this->blobs->whole('solved/'.substr($key, 0, 2)."/{$key}", $bytes);
    }
}
