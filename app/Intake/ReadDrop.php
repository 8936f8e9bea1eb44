<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Arrival;
use App\Models\Drop;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Reads what was dropped, in the queue, while editing goes on. */
final class ReadDrop implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 2;

    public int $timeout = 280;

    public function __construct(private readonly int $drop)
    {
    }

    public function handle(ArrivalDesk $desk): void
    {
        $drop = Drop::query()->find($this->drop);
        if ($drop !== null) {
            // What a stopped worker was at is refused rather than tried for ever.
            if ($this->attempts() > 1) {
                $drop->arrivals()->where('status', 'reading')->update(['status' => 'refused', 'error' => json_encode(['reason' => 'intake.stopped', 'message' => 'Reading it took too long or ran out of memory.', 'remedy' => 'Simplify the file and drop it again.'])]);
            }
            $desk->receive($drop);
        }
    }

    public function failed(): void
    {
        Arrival::query()->where('drop_id', $this->drop)->whereIn('status', ['waiting', 'reading'])->update(['status' => 'refused', 'error' => json_encode(['reason' => 'intake.stopped', 'message' => 'Reading it failed on our side.', 'remedy' => 'Drop it again; if it fails again, export it as GLB.'])]);
        Drop::query()->whereKey($this->drop)->update(['status' => 'done']);
    }
}
