<?php

declare(strict_types=1);

namespace App\Assets;

use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;

/** Digests and solved motions from the disk; those that were asked for last are kept by the process. */
final class StoredAssets implements AssetSource
{
    private readonly Memory $digests;

    private readonly Memory $solved;

    public function __construct(private readonly BlobStore $blobs)
    {
        $this->digests = new Memory(300);
        $this->solved = new Memory(300);
    }

    public function digest(AssetRef $asset): array
    {
        return $this->byHash($asset->digest);
    }

    /** @return array<string, mixed> */
    public function byHash(string $hash): array
    {
        return $this->digests->of($hash, function () use ($hash): array {
            $digest = json_decode($this->blobs->get($hash), true, 64, JSON_THROW_ON_ERROR);
            assert(is_array($digest));

            /** @var array<string, mixed> $digest */
            return $digest;
        });
    }

    public function blob(AssetRef $asset): string
    {
        return $this->blobs->get($asset->blob);
    }

    public function solved(string $key): ?string
    {
        return $this->solved->of($key, function () use ($key): ?string {
            $path = self::path($key);
            $disk = $this->blobs->disk();

            return $disk->exists($path) ? (string) $disk->get($path) : null;
        });
    }

    public function keep(string $key, string $bytes): void
    {
        $this->solved->put($key, $bytes);
        $this->blobs->whole(self::path($key), $bytes);
    }

    private static function path(string $key): string
    {
        return 'solved/'.substr($key, 0, 2)."/{$key}";
    }
}
