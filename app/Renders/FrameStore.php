<?php

declare(strict_types=1);

namespace App\Renders;

use App\Assets\BlobStore;
use App\Exceptions\UserError;
use App\Models\RenderJob;
use Illuminate\Contracts\Filesystem\Filesystem;

/**
 * Frames, parts and results of renders, on the store's disk, so that any machine goes on with what another began. What is
 * there need not be made again.
 */
final class FrameStore
{
    public function __construct(private readonly BlobStore $store)
    {
    }

    public function folder(RenderJob $job): string
    {
        return "renders/{$job->id}";
    }

    public function path(RenderJob $job, int $frame): string
    {
        return sprintf('%s/frames/%06d.png', $this->folder($job), $frame);
    }

    public function put(RenderJob $job, int $frame, string $png): void
    {
        $this->store->whole($this->path($job, $frame), $png);
    }

    public function has(RenderJob $job, int $frame): bool
    {
        return $this->disk()->exists($this->path($job, $frame));
    }

    /** @return list<int> */
    public function missing(RenderJob $job, int $from, int $to): array
    {
        $there = array_flip($this->drawn($job));

        return array_values(array_filter(range($from, $to - 1), static fn (int $f): bool => ! isset($there[$f])));
    }

    /** @return list<int> */
    public function drawn(RenderJob $job): array
    {
        $frames = [];
        foreach ($this->disk()->files($this->folder($job).'/frames') as $path) {
            if (preg_match('#/(\d{6,})\.png$#', $path, $m) === 1) {
                $frames[] = (int) $m[1];
            }
        }
        sort($frames);

        return $frames;
    }

    public function read(RenderJob $job, int $frame): string
    {
        return (string) $this->disk()->get($this->path($job, $frame));
    }

    public function hasPart(RenderJob $job, int $from): bool
    {
        return $this->disk()->exists($this->partPath($job, $from));
    }

    public function putPart(RenderJob $job, int $from, string $bytes): void
    {
        $this->store->whole($this->partPath($job, $from), $bytes);
    }

    public function readPart(RenderJob $job, int $from): string
    {
        return (string) $this->disk()->get($this->partPath($job, $from));
    }

    private function partPath(RenderJob $job, int $from): string
    {
        return sprintf('%s/parts/%06d.%s', $this->folder($job), $from, $job->format);
    }

    public function resultPath(RenderJob $job): string
    {
        return $this->folder($job).'/result.'.FilmFormat::of($job->format)->ending();
    }

    /** @param  string  $file  on this machine */
    public function putResult(RenderJob $job, string $file): void
    {
        $this->store->wholeFile($this->resultPath($job), $file);
    }

    public function hasResult(RenderJob $job): bool
    {
        return $this->disk()->exists($this->resultPath($job));
    }

    public function resultBytes(RenderJob $job): int
    {
        return $this->disk()->size($this->resultPath($job));
    }

    /** The finished file as one on this machine: brought over first where the store is elsewhere. */
    public function result(RenderJob $job): string
    {
        if (config('filesystems.disks.reel.driver') === 'local') {
            return $this->disk()->path($this->resultPath($job));
        }
        $file = storage_path("framework/results/{$job->id}-".basename($this->resultPath($job)));
        if (! is_file($file)) {
            is_dir(dirname($file)) || mkdir(dirname($file), 0o775, true);
            $from = $this->disk()->readStream($this->resultPath($job))
                ?? throw new UserError('render.gone', 'The finished file is no longer in the store.', 'Render it again.', 404);
            $part = $file.'.'.bin2hex(random_bytes(4));
            file_put_contents($part, $from);
            rename($part, $file);
        }

        return $file;
    }

    public function clear(RenderJob $job): void
    {
        $this->disk()->deleteDirectory($this->folder($job));
    }

    private function disk(): Filesystem
    {
        return $this->store->disk();
    }
}
