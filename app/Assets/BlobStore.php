<?php

declare(strict_types=1);

namespace App\Assets;

use App\Exceptions\UserError;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\Storage;
use League\Flysystem\FilesystemException;
use RuntimeException;
use Throwable;

/**
 * Files by content hash, whole or not there: written under another name, synced, and given their own name last. A name is never
 * taken from a person. What is read is checked by its hash the first time a process reads it.
 */
final class BlobStore
{
    /** Hashes that this process has checked; bounded, since a worker lives long. */
    private const REMEMBERED = 4096;

    private const AWAY = 'Try again in a minute; nothing half was kept. '
        .'If it goes on, ask who runs this installation to look at the store.';

    /** @var array<string, true> */
    private static array $checked = [];

    public function put(string $bytes): string
    {
        $hash = hash('sha256', $bytes);
        $path = self::path($hash);
        $there = $this->reached(fn (): bool => $this->disk()->exists($path) && $this->disk()->size($path) === strlen($bytes));
        // One cut short by a kill or a full disk has another size, and becomes right by being put again.
        if (! $there) {
            $this->whole($path, $bytes);
        }

        return $hash;
    }

    public function get(string $hash): string
    {
        $bytes = $this->reached(fn (): string => (string) $this->disk()->get(self::path($hash)));
        if (! isset(self::$checked[$hash])) {
            if (hash('sha256', $bytes) !== $hash) {
                throw new UserError(
                    'store.broken',
                    'A file in the store is damaged, or was cut off while it was written.',
                    'Bring it in again; the same bytes mend it. '
                        .'Who runs this installation finds what else it concerns with reel:store --check.',
                    409,
                );
            }
            if (count(self::$checked) >= self::REMEMBERED) {
                self::$checked = [];
            }
            self::$checked[$hash] = true;
        }

        return $bytes;
    }

    public function has(string $hash): bool
    {
        return $this->reached(fn (): bool => $this->disk()->exists(self::path($hash)));
    }

    /** Whether its bytes are what its name says. */
    public function isSound(string $hash): bool
    {
        return $this->has($hash) && hash('sha256', (string) $this->disk()->get(self::path($hash))) === $hash;
    }

    /**
     * What a store elsewhere answers, or words that it does not. A file that is not there stays an error of ours.
     *
     * @template T
     *
     * @param  callable(): T  $ask
     * @return T
     */
    private function reached(callable $ask): mixed
    {
        try {
            return $ask();
        } catch (FilesystemException $e) {
            throw $this->isLocal()
                ? $e
                : new UserError('store.away', 'The store of files cannot be reached, or refuses it.', self::AWAY, 503);
        }
    }

    public static function path(string $hash): string
    {
        if (preg_match('/^[0-9a-f]{64}$/', $hash) !== 1) {
            throw new \InvalidArgumentException('A blob is named by its SHA-256.');
        }

        return 'blobs/'.substr($hash, 0, 2)."/{$hash}";
    }

    /** Puts bytes under a name at once or not at all. */
    public function whole(string $path, string $bytes): void
    {
        $this->beside($path, function (string $part) use ($bytes): void {
            $this->isLocal() ? $this->synced($this->disk()->path($part), $bytes) : $this->disk()->put($part, $bytes);
        });
    }

    /** Puts a file of this machine under a name at once or not at all. */
    public function wholeFile(string $path, string $file): void
    {
        $this->beside($path, function (string $part) use ($file): void {
            $from = fopen($file, 'rb');
            if ($from === false) {
                throw new RuntimeException('The file that was made cannot be read.');
            }
            $this->disk()->writeStream($part, $from);
            if ($this->disk()->size($part) !== filesize($file)) {
                throw new RuntimeException('It was not written to its end.');
            }
            is_resource($from) && fclose($from);
        });
    }

    /** @param  callable(string $part): void  $write */
    private function beside(string $path, callable $write): void
    {
        // An object of a remote store is there at once or not at all; a file is not.
        if (! $this->isLocal()) {
            try {
                $write($path);
            } catch (FilesystemException) {
                throw new UserError(
                    'store.write',
                    'It could not be written to the store: the store cannot be reached, or refuses it.',
                    self::AWAY,
                    507,
                );
            }

            return;
        }
        $part = $path.'.part-'.bin2hex(random_bytes(6));
        $folder = dirname($this->disk()->path($part));
        try {
            is_dir($folder) || @mkdir($folder, 0o775, true) || is_dir($folder) || throw new RuntimeException('The folder cannot be made.');
            $write($part);
            if (! rename($this->disk()->path($part), $this->disk()->path($path))) {
                throw new RuntimeException('It cannot be given its name.');
            }
        } catch (Throwable $e) {
            @unlink($this->disk()->path($part));
            throw $e instanceof UserError ? $e : new UserError(
                'store.write',
                'It could not be written to the store: the disk is full, or the store may not be written to.',
                'Make room on the disk (or ask who runs this installation to) and try again; nothing half was kept.',
                507,
            );
        }
    }

    private function synced(string $file, string $bytes): void
    {
        $to = @fopen($file, 'xb');
        if ($to === false) {
            throw new RuntimeException('It cannot be opened for writing.');
        }
        $written = 0;
        while ($written < strlen($bytes)) {
            $n = @fwrite($to, $written === 0 ? $bytes : substr($bytes, $written));
            if ($n === false || $n === 0) {
                fclose($to);
                throw new RuntimeException('It was not written to its end.');
            }
            $written += $n;
        }
        $ok = fflush($to) && fsync($to);
        if (! fclose($to) || ! $ok) {
            throw new RuntimeException('It was not kept.');
        }
    }

    private function isLocal(): bool
    {
        return config('filesystems.disks.reel.driver') === 'local';
    }

    public function disk(): Filesystem
    {
        return Storage::disk('reel');
    }
}
