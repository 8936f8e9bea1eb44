<?php

declare(strict_types=1);

namespace App\Renders;

use App\Models\RenderJob;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;
use Illuminate\Support\Facades\DB;
use Throwable;

/** Parts to one file, by one worker at a time. */
final class JoinRender implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    private const MOST_TRIES = 20;

    public int $tries = self::MOST_TRIES;

    public int $timeout = 280;

    public function __construct(public readonly string $renderId, public readonly ?int $person = null)
    {
    }

    public function subject(): string
    {
        return "join:{$this->renderId}";
    }

    /** Asks for it once, however many workers finish the last chunks at the same time. */
    public static function once(RenderJob $job): void
    {
        if (RenderJob::query()->whereKey($job->id)->whereIn('status', ['waiting', 'drawing'])->update(['status' => 'encoding']) > 0) {
            self::dispatch($job->id, $job->user_id)->onQueue('render');
        }
    }

    public function handle(Encoder $encoder, FrameStore $frames): void
    {
        // Gone with the connection when the worker is killed.
        $lock = 'join-'.$this->renderId;
        if (DB::selectOne('SELECT GET_LOCK(?, 0) AS got', [$lock])?->got !== 1) {
            return;
        }
        try {
            $job = RenderJob::query()->find($this->renderId);
            if ($job === null || $job->isOver()) {
                return;
            }
            $job->update(['status' => 'encoding']);
            $encoder->join($job);
            RenderJob::query()->whereKey($job->id)->where('status', 'encoding')
                ->update(['status' => 'done', 'finished_at' => now(), 'error' => null, 'bytes' => $frames->resultBytes($job)]);
        } finally {
            DB::select('SELECT RELEASE_LOCK(?)', [$lock]);
        }
    }

    public function failed(?Throwable $e): void
    {
        RenderJob::query()->whereKey($this->renderId)->whereNotIn('status', ['done', 'cancelled'])
            ->update([
                'status' => 'failed',
                'finished_at' => now(),
                'error' => mb_substr('Encoding stopped: '.($e?->getMessage() ?? 'unknown'), 0, 1000),
            ]);
    }
}
