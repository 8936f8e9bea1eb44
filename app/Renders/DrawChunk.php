<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderChunk;
use App\Models\RenderJob;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;

/**
 * Draws what is missing of a chunk, for about a minute at most, then queues itself again: a killed worker loses no frame
 * and its slice is soon taken up by another.
 */
final class DrawChunk implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const SLICE_SECONDS = 60.0;

    public int $tries = 5;

    public int $timeout = 140;

    public function __construct(public readonly int $chunkId)
    {
    }

    public function handle(FramePainter $painter, FrameStore $frames): void
    {
        $chunk = RenderChunk::query()->with('job')->find($this->chunkId);
        if ($chunk === null || $chunk->job->isOver()) {
            return;
        }
        $job = $chunk->job;
        $chunk->update(['status' => 'drawing', 'attempts' => $chunk->attempts + 1]);
        RenderJob::query()->whereKey($job->id)->where('status', 'waiting')->update(['status' => 'drawing', 'started_at' => now()]);
        $missing = $frames->missing($job, $chunk->from_frame, $chunk->to_frame);
        $begin = microtime(true);
        $first = null;
        $painter->paint($job, $missing, function (int $drawn) use ($job, $begin, &$first): bool {
            // The first batch also pays for starting the browser and loading the set: not part of the pace.
            if ($first === null) {
                $first = [microtime(true), $drawn];
            } elseif ($drawn > $first[1]) {
                $job->update(['ms_per_frame' => (microtime(true) - $first[0]) * 1000 / ($drawn - $first[1])]);
            }
            $status = RenderJob::query()->whereKey($job->id)->value('status');

            return ! in_array($status, ['cancelled', 'failed'], true) && microtime(true) - $begin < self::SLICE_SECONDS;
        });
        $this->goOn($chunk, $job->refresh(), $frames);
    }

    private function goOn(RenderChunk $chunk, RenderJob $job, FrameStore $frames): void
    {
        if ($job->isOver()) {
            $chunk->update(['status' => 'waiting']);

            return;
        }
        if ($frames->missing($job, $chunk->from_frame, $chunk->to_frame) !== []) {
            self::dispatch($chunk->id)->onQueue('render');

            return;
        }
        $chunk->update(['status' => 'done']);
        if (! $job->chunks()->where('status', '!=', 'done')->exists()) {
            EncodeRender::dispatch($job->id)->onQueue('render');
        }
    }

    public function failed(?Throwable $e): void
    {
        $chunk = RenderChunk::query()->find($this->chunkId);
        if ($chunk !== null) {
            RenderJob::query()->whereKey($chunk->render_job_id)->whereNotIn('status', ['done', 'cancelled'])
                ->update(['status' => 'failed', 'finished_at' => now(), 'error' => mb_substr('Drawing stopped: '.($e?->getMessage() ?? 'unknown').' Frames drawn so far are kept; press Resume.', 0, 1000)]);
        }
    }
}
