<?php

declare(strict_types=1);

namespace App\Assets;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\Storage;

/** Files by content hash. A name is never taken from a person. */
final class BlobStore
{
    public function put(string $bytes): string
    {
        $hash = hash('sha256', $bytes);
        if (! $this->disk()->exists(self::path($hash))) {
            $this->disk()->put(self::path($hash), $bytes);
        }

        return $hash;
    }

    public function get(string $hash): string
    {
        return (string) $this->disk()->get(self::path($hash));
    }

    public function has(string $hash): bool
    {
        return $this->disk()->exists(self::path($hash));
    }

    public static function path(string $hash): string
    {
        if (preg_match('/^[0-9a-f]{64}$/', $hash) !== 1) {
            throw new \InvalidArgumentException('A blob is named by its SHA-256.');
        }

        return 'blobs/'.substr($hash, 0, 2)."/{$hash}";
    }

    public function disk(): Filesystem
    {
        return Storage::disk('reel');
    }
}
