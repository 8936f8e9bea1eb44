<?php

declare(strict_types=1);

namespace App\Scenes;

/**
 * Pieces of the pose stream that were computed, on this machine: any other computes them again. Each carries a sum of its
 * bytes, so that one that was cut off by a failing machine is not taken for whole.
 */
final class PieceStore
{
    private const SUM = 8;

    public function get(string $name): ?string
    {
        $kept = @file_get_contents($this->path($name));
        if ($kept === false || strlen($kept) < self::SUM) {
            return null;
        }
        $bytes = substr($kept, self::SUM);

        return hash('xxh64', $bytes, true) === substr($kept, 0, self::SUM) ? $bytes : null;
    }

    public function put(string $name, string $bytes): void
    {
        $path = $this->path($name);
        is_dir(dirname($path)) || @mkdir(dirname($path), 0o775, true);
        $part = $path.'.'.bin2hex(random_bytes(4));
        // What cannot be kept (no room, no right) is computed again.
        if (@file_put_contents($part, hash('xxh64', $bytes, true).$bytes) === false || ! @rename($part, $path)) {
            @unlink($part);
        }
    }

    /** Removes what has not been made or used for some days; the number of files that went. */
    public function sweep(float $days): int
    {
        $gone = 0;
        foreach (glob($this->folder().'/*/*') ?: [] as $file) {
            if (max((int) @filemtime($file), (int) @fileatime($file)) < time() - $days * 86_400 && @unlink($file)) {
                $gone++;
            }
        }

        return $gone;
    }

    private function path(string $name): string
    {
        return $this->folder().'/'.hash('adler32', $name)[7].hash('adler32', $name)[3]."/{$name}";
    }

    private function folder(): string
    {
        return storage_path('framework/pieces');
    }
}
