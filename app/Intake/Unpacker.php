<?php

declare(strict_types=1);

namespace App\Intake;

use App\Assets\BlobStore;
use App\Exceptions\UserError;
use ZipArchive;

/**
 * The files of a drop, zips opened. Names inside a zip are never used on the disk; sizes are counted as they are read, not
 * as they are claimed.
 */
final class Unpacker
{
    private const ENTRIES = 4000;

    public function __construct(private readonly BlobStore $blobs)
    {
    }

    /**
     * @param  array<string, string>  $files  path to blob
     * @param  array<string, string>  $refused  path to why, added to
     * @return array<string, string> path to blob, without the zips
     */
    public function open(array $files, array &$refused): array
    {
        $out = [];
        foreach ($files as $path => $blob) {
            if (FileKinds::ending($path) !== 'zip') {
                $out[FileMap::plain($path)] = $blob;

                continue;
            }
            try {
                $out += $this->zip($path, $blob);
            } catch (UserError $e) {
                $refused[$path] = "{$e->getMessage()} {$e->remedy}";
            }
        }

        return $out;
    }

    /** @return array<string, string> */
    private function zip(string $path, string $blob): array
    {
        $file = tempnam(sys_get_temp_dir(), 'reelzip');
        if ($file === false) {
            throw new UserError('intake.disk', 'There is no room to open the zip.', 'Free some disk space and drop it again.', 507);
        }
        try {
            file_put_contents($file, $this->blobs->get($blob));
            $zip = new ZipArchive;
            if ($zip->open($file, ZipArchive::RDONLY) !== true) {
                throw new UserError(
                    'zip.broken',
                    "\"{$path}\" cannot be opened as a zip.",
                    'It was cut off on its way, or is another kind of archive; pack it again as a plain zip.',
                );
            }

            return $this->entries($zip, $path);
        } finally {
            @unlink($file);
        }
    }

    /** @return array<string, string> */
    private function entries(ZipArchive $zip, string $path): array
    {
        if ($zip->numFiles > self::ENTRIES) {
            throw new UserError(
                'zip.many',
                sprintf('"%s" holds %s files; at most %s are taken.', $path, number_format($zip->numFiles), number_format(self::ENTRIES)),
                'Split it up.',
            );
        }
        $limit = config('reel.upload_bytes');
        $left = is_int($limit) ? 2 * $limit : 0;
        $base = pathinfo($path, PATHINFO_FILENAME);
        $out = [];
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $stat = $zip->statIndex($i);
            $name = is_array($stat) ? FileMap::plain((string) $stat['name']) : '';
            if (
                $name === '' || str_ends_with((string) ($stat['name'] ?? ''), '/') || str_starts_with($name, '__MACOSX')
                    || str_starts_with(basename($name), '.')
            ) {
                continue;
            }
            if (FileKinds::ending($name) === 'zip') {
                throw new UserError('zip.nested', "\"{$path}\" holds another zip, \"{$name}\".", 'Unpack the inner one first.');
            }
            $out[mb_substr("{$base}/{$name}", -290)] = $this->blobs->put($this->read($zip, $i, $path, $left));
        }

        return $out;
    }

    private function read(ZipArchive $zip, int $entry, string $path, int &$left): string
    {
        $stream = @$zip->getStreamIndex($entry);
        if ($stream === false) {
            throw new UserError(
                'zip.broken',
                "\"{$path}\" has a part that cannot be read, or is locked by a password.",
                'Pack it again without a password.',
            );
        }
        $bytes = '';
        while (! feof($stream)) {
            $part = @fread($stream, 1 << 20);
            if ($part === false || ($part === '' && ! feof($stream))) {
                fclose($stream);
                throw new UserError(
                    'zip.broken',
                    "\"{$path}\" has a part that is damaged.",
                    'It was cut off or changed on its way; download or pack it again.',
                );
            }
            $bytes .= $part;
            if (($left -= strlen($part)) < 0) {
                fclose($stream);
                throw new UserError(
                    'zip.large',
                    "\"{$path}\" unpacks to more than is taken at once.",
                    'Split it up, or leave out what the model does not need.',
                );
            }
        }
        fclose($stream);

        return $bytes;
    }
}
