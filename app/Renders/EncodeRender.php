<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderJob;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;

/** Frames to one file. */
final class EncodeRender implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 3;

    public int $timeout = 140;

    public function __construct(public readonly string $renderId)
    {
    }

    public function handle(Encoder $encoder): void
    {
        $job = RenderJob::query()->find($this->renderId);
        if ($job === null || $job->isOver()) {
            return;
        }
        $job->update(['status' => 'encoding']);
        $encoder->encode($job);
        $job->update(['status' => 'done', 'finished_at' => now(), 'error' => null]);
    }

    public function failed(?Throwable $e): void
    {
        RenderJob::query()->whereKey($this->renderId)->update(['status' => 'failed', 'finished_at' => now(), 'error' => mb_substr('Encoding stopped: '.($e?->getMessage() ?? 'unknown'), 0, 1000)]);
    }
}
