<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderJob;
use Illuminate\Support\Facades\Storage;

/** Drawn frames as numbered PNG files; what is there need not be drawn again. */
final class FrameStore
{
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
        // Written beside and moved, so that a killed worker leaves no half picture.
        $disk = Storage::disk('reel');
        $disk->put($this->path($job, $frame).'.part', $png);
        $disk->move($this->path($job, $frame).'.part', $this->path($job, $frame));
    }

    public function has(RenderJob $job, int $frame): bool
    {
        return Storage::disk('reel')->exists($this->path($job, $frame));
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
        foreach (Storage::disk('reel')->files($this->folder($job).'/frames') as $path) {
            if (preg_match('/(\d{6})\.png$/', $path, $m) === 1) {
                $frames[] = (int) $m[1];
            }
        }
        sort($frames);

        return $frames;
    }

    public function read(RenderJob $job, int $frame): string
    {
        return (string) Storage::disk('reel')->get($this->path($job, $frame));
    }

    /** The finished file on this machine. */
    public function result(RenderJob $job): string
    {
        return Storage::disk('local')->path("renders/{$job->id}/result.".($job->format === 'mp4' ? 'mp4' : 'zip'));
    }

    public function clear(RenderJob $job): void
    {
        Storage::disk('reel')->deleteDirectory($this->folder($job));
    }
}
