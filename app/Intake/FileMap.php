<?php

declare(strict_types=1);

namespace App\Intake;

use App\Assets\BlobStore;
use Closure;

/**
 * Files that came together, by path. Finds a companion by the name another file calls it: as written, beside it, or
 * anywhere by its name alone.
 */
final class FileMap
{
    /** @var array<string, true> paths that were asked for and found */
    public array $used = [];

    /** @param  array<string, string>  $files  path to blob */
    public function __construct(public readonly array $files, private readonly BlobStore $blobs)
    {
    }

    /**
     * @param  string  $head  path of the file that asks
     * @return Closure(string): ?string
     */
    public function companionOf(string $head): Closure
    {
        return function (string $uri) use ($head): ?string {
            $path = $this->find($head, $uri);

            return $path === null ? null : $this->blobs->get($this->files[$path]);
        };
    }

    public function find(string $head, string $uri): ?string
    {
        $uri = str_replace('\\', '/', rawurldecode($uri));
        $folder = str_contains($head, '/') ? dirname($head).'/' : '';
        $plain = strtolower(self::plain($folder.$uri));
        $name = strtolower(basename($uri));
        $stem = pathinfo($name, PATHINFO_FILENAME);
        $best = null;
        foreach (array_keys($this->files) as $path) {
            $low = strtolower($path);
            $rank = match (true) {
                $low === $plain => 0,
                basename($low) === $name => 1,
                // A picture may have been saved again as another kind.
                FileKinds::isPicture($path) && pathinfo(basename($low), PATHINFO_FILENAME) === $stem && $stem !== '' => 2,
                default => null,
            };
            if ($rank !== null && ($best === null || $rank < $best[0])) {
                $best = [$rank, $path];
            }
        }
        if ($best !== null) {
            $this->used[$best[1]] = true;
        }

        return $best[1] ?? null;
    }

    /** A path without . and .. that cannot climb out. */
    public static function plain(string $path): string
    {
        $out = [];
        foreach (explode('/', str_replace('\\', '/', $path)) as $part) {
            if ($part === '' || $part === '.' || preg_match('/^[a-z]:$/i', $part) === 1) {
                continue;
            }
            if ($part === '..') {
                array_pop($out);

                continue;
            }
            $out[] = preg_replace('/[\x00-\x1F<>:"|?*]/', '_', $part);
        }

        return implode('/', $out);
    }
}
