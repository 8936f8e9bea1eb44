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
 * and its slice is soon taken up by another. Who draws the last frame of a chunk encodes it.
 */
final class DrawChunk implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const SLICE_SECONDS = 60.0;

    /** Failures in a row that bring no new frame. */
    private const MOST_TRIES = 6;

    /** Workers that end, one after the other, over one slice. */
    private const MOST_DEATHS = 40;

    /** Killed workers are no fault of the chunk's: the tries that count are counted by frames that arrive. */
    public int $tries = 0;

    public int $timeout = 280;

    public function __construct(public readonly int $chunkId, public readonly ?int $person = null)
    {
    }

    public function subject(): string
    {
        return "chunk:{$this->chunkId}";
    }

    public function handle(FramePainter $painter, FrameStore $frames, Encoder $encoder): void
    {
        $chunk = RenderChunk::query()->with('job')->find($this->chunkId);
        if ($chunk === null || $chunk->job->isOver() || $chunk->status === 'done') {
            return;
        }
        $job = $chunk->job;
        $missing = $frames->missing($job, $chunk->from_frame, $chunk->to_frame);
        $there = $chunk->to_frame - $chunk->from_frame - count($missing);
        // Failures since the last frame that arrived; and workers that ended over it, which may be no fault of the chunk's.
        $failures = $there > $chunk->drawn ? 0 : $chunk->attempts;
        if ($this->attempts() > self::MOST_DEATHS) {
            $this->stop('Its workers ended '.self::MOST_DEATHS.' times.');

            return;
        }
        $chunk->update(['status' => 'drawing', 'attempts' => $failures, 'drawn' => $there]);
        RenderJob::query()->whereKey($job->id)->where('status', 'waiting')->update(['status' => 'drawing', 'started_at' => now()]);
        try {
            $painter->paint($job, $missing, $this->pace($job));
            if (! $job->refresh()->isOver() && $frames->missing($job, $chunk->from_frame, $chunk->to_frame) === []) {
                $encoder->part($job, $chunk);
                $chunk->update(['status' => 'done']);
            }
        } catch (Throwable $e) {
            report($e);
            $chunk->update(['attempts' => ++$failures]);
            $failures >= self::MOST_TRIES ? $this->stop($e->getMessage()) : $this->again(2 * $failures);

            return;
        }
        $this->next($chunk, $job);
    }

    /** @return callable(int): bool */
    private function pace(RenderJob $job): callable
    {
        $begin = microtime(true);
        $first = null;

        return static function (int $drawn) use ($job, $begin, &$first): bool {
            // The first batch also pays for starting the browser and loading the set: not part of the pace.
            if ($first === null) {
                $first = [microtime(true), $drawn];
            } elseif ($drawn > $first[1]) {
                RenderJob::query()->whereKey($job->id)
                    ->update(['ms_per_frame' => (microtime(true) - $first[0]) * 1000 / ($drawn - $first[1])]);
            }
            $status = RenderJob::query()->whereKey($job->id)->value('status');

            return ! in_array($status, ['cancelled', 'failed'], true) && microtime(true) - $begin < self::SLICE_SECONDS;
        };
    }

    private function next(RenderChunk $chunk, RenderJob $job): void
    {
        if ($job->isOver()) {
            $chunk->status === 'done' || $chunk->update(['status' => 'waiting']);
        } elseif ($chunk->status !== 'done') {
            $this->again(0);
        } elseif (! $job->chunks()->where('status', '!=', 'done')->exists()) {
            JoinRender::once($job);
        }
    }

    private function again(int $seconds): void
    {
        self::dispatch($this->chunkId, $this->person)->onQueue('render')->delay($seconds);
    }

    public function failed(?Throwable $e): void
    {
        $this->stop($e?->getMessage() ?? 'unknown');
    }

    private function stop(string $why): void
    {
        $chunk = RenderChunk::query()->find($this->chunkId);
        if ($chunk !== null) {
            $chunk->update(['status' => 'waiting', 'attempts' => 0]);
            RenderJob::query()->whereKey($chunk->render_job_id)->whereNotIn('status', ['done', 'cancelled'])
                ->update([
                    'status' => 'failed',
                    'finished_at' => now(),
                    'error' => mb_substr('Drawing stopped: '.rtrim($why, '.').'. Frames drawn so far are kept; press Resume.', 0, 1000),
                ]);
        }
    }
}
